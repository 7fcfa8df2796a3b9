"""Even speed where a living thing would ease."""

from collections.abc import Iterator

import numpy as np

from vine_swing.motion.edits.base import Edit
from vine_swing.motion.edits.keys import SetEase
from vine_swing.motion.notes.keyed import changes, goes_on, numbers, span_of
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.timing.channel import Channel

#: What goes less far, as a share of the diagonal, starts and stops unseen.
_FAR = 0.12
#: Rules that ease what they are put on, or make its speed themselves.
_SOFT = ("spring", "smooth", "overshoot", "wind-up", "retime", "steps", "gait", "bounce", "noise")


def find(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """A long move from rest to rest, in view, that starts and stops at its full speed. Only of what consists of parts: the rest may be machines."""
    alive = thing.content is None and len(measures.scene.children.get(thing.id, ())) >= 2
    names = [name for name in ("x", "y", "path") if thing.is_keyed(name) and changes(thing.channels[name])]
    if not alive or thing.parent is not None or not names or measures.rules_on(thing, *_SOFT):
        return
    channels = {name: thing.channels[name] for name in names}
    if any(_turns_back(one) for name, one in channels.items() if name != "path"):
        # A motion that returns along its path bounces or swings, and reverses hard.
        return
    if any(goes_on(one) or any(key.ease not in ("linear", "even") for key in one.keys[:-1]) for one in channels.values()):
        return
    first, last = (round(fold(span_of(one)[side] for one in channels.values())) for side, fold in ((0, min), (1, max)))
    if first < measures.film(2) or last > measures.length - 1 - measures.film(2):
        return
    place, seen = measures.place(thing), measures.seen(thing)
    if not (seen[first] and seen[last]) or float(np.hypot(*(place[last] - place[first]))) < _FAR * measures.diagonal:
        return
    edits: tuple[Edit, ...] = tuple(
        SetEase(edit="set-ease", object=thing.id, channel=name, frames=tuple(key.frame for key in one.keys[:-1]), ease="slow-out-in")
        for name, one in channels.items()
    )
    text = f"{thing.name} starts at frame {first} and stops at frame {last} at one even speed, as nothing alive does."
    yield Note("even-speed", thing.id, names[0], (first, last), text, sure=0.55, bad=0.5, mends=(Mend("Start and stop slowly", edits),))


def _turns_back(channel: Channel) -> bool:
    steps = np.diff(numbers(channel))
    return bool((steps > 0).any() and (steps < 0).any())


KIND = NoteKind(
    name="even-speed",
    label="Even speed",
    why=(
        "Living things gather speed and lose it again: slow out, slow in. Even speed looks like a slide on rails. Meant, for "
        "machines and for what drifts."
    ),
    about="object",
    of_object=find,
)
