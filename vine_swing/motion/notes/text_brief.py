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


def find(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """The time a text is in view and clear, against the words in it; each of several texts by itself."""
    shape = thing.drawn_shape
    if not isinstance(shape, TextShape) or thing.id in measures.copied:
        return
    clear = measures.inside(thing) & (measures.opacity(thing) > _READABLE)
    if not isinstance(shape, SaidText):
        yield from _brief(measures, thing, shape.text, clear)
        return
    which = measures.value(thing, WORDS)
    for number, said in enumerate(shape.said):
        yield from _brief(measures, thing, said, clear & (which == number))


def _brief(measures: SceneMeasures, thing: SceneObject, said: str, clear: NDArray[np.bool_]) -> Iterator[Note]:
    """A text that is clear at some frames (n,), if that is too briefly."""
    if "{number" in said:
        return
    words = len(said.split())
    shown, needed = int(clear.sum()) / measures.scene.fps, _TO_FIND + words / _WORDS_A_SECOND
    if words < 2 or not 0 < shown < _SHORT * needed or clear.all():
        return
    frames = np.flatnonzero(clear)
    mends: tuple[Mend, ...] = ()
    last = thing.span.last
    wanted = int(frames[0] + np.ceil(needed * measures.scene.fps))
    if last is not None and frames[-1] == last < wanted:
        until = None if wanted >= measures.length - 1 else wanted
        mends = (Mend("Show it long enough", (SetSpan(edit="set-span", id=thing.id, first=thing.span.first, last=until),)),)
    text = f"{thing.name} has {words} words and is clear for {shown:.2g} s; reading takes about {needed:.2g} s."
    yield Note("text-brief", thing.id, None, (float(frames[0]), float(frames[-1])), text, sure=0.65, bad=0.7, mends=mends)


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
