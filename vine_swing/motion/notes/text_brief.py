"""Text that is shown too briefly to be read."""

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics.specs import WORDS
from vine_swing.motion.edits.spans import SetSpan
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.shapes import SaidText, TextShape

#: Subtitles are set at about 3 words a second, after a moment to find them, s.
_WORDS_A_SECOND, _TO_FIND = 3.0, 0.4
_READABLE = 0.6
#: Some read quicker: what is a little short of it is left alone.
_SHORT = 0.85
#: Who reads a sign that blinks reads on where it was: shorter gaps than this do not part one showing from the next, s.
_BLINK = 0.5


def find(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """The longest that a text is in view and clear at a time, against the words in it; each of several texts by itself."""
    shape = thing.drawn_shape
    if not isinstance(shape, TextShape) or thing.id in measures.copied:
        return
    clear = measures.inside(thing) & (measures.opacity(thing) > _READABLE)
    if not isinstance(shape, SaidText):
        yield from _brief(measures, thing, shape.text, clear)
        return
    which = measures.value(thing, WORDS)
    for said in dict.fromkeys(shape.said):
        # Several keys may say the same.
        numbers = [number for number, one in enumerate(shape.said) if one == said]
        yield from _brief(measures, thing, said, clear & np.isin(which, numbers))


def _brief(measures: SceneMeasures, thing: SceneObject, said: str, clear: NDArray[np.bool_]) -> Iterator[Note]:
    """A text that is clear at some frames (n,), if that is too briefly."""
    if "{number" in said:
        return
    words, fps = len(said.split()), measures.scene.fps
    showings = _showings(np.flatnonzero(clear), _BLINK * fps)
    if words < 2 or not showings or clear.all():
        return
    frames = max(showings, key=len)
    shown, needed = len(frames) / fps, _TO_FIND + words / _WORDS_A_SECOND
    if shown >= _SHORT * needed:
        return
    mends: tuple[Mend, ...] = ()
    last = thing.span.last
    wanted = int(frames[0] + np.ceil(needed * fps))
    if last is not None and frames[-1] == last < wanted:
        until = None if wanted >= measures.length - 1 else wanted
        mends = (Mend("Show it long enough", (SetSpan(edit="set-span", id=thing.id, first=thing.span.first, last=until),)),)
    each = " at a time" if len(showings) > 1 else ""
    text = f"{thing.name} has {words} words and is clear for {shown:.2g} s{each}; reading takes about {needed:.2g} s."
    yield Note("text-brief", thing.id, None, (float(frames[0]), float(frames[-1])), text, sure=0.65, bad=0.7, mends=mends)


def _showings(frames: NDArray[np.intp], gap: float) -> list[NDArray[np.intp]]:
    """Frames in order, parted where more than `gap` frames are missing; no parts of no frames."""
    return np.split(frames, np.flatnonzero(np.diff(frames) > gap + 1) + 1) if len(frames) else []


KIND = NoteKind(
    name="text-brief",
    label="Text too brief",
    why=(
        "People read about three words a second, once they have found them; the animator knows them already. Meant, for words "
        "that are only seen as shapes."
    ),
    about="object",
    of_object=find,
)
