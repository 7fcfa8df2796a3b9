"""A pop: one frame out of line with its neighbours."""

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.edits.base import Edit
from vine_swing.motion.edits.keys import DeleteKeys
from vine_swing.motion.notes.keyed import changes, keyed
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.scene.objects import SceneObject

Array = NDArray[np.float64]
#: How far a frame must be out of line to be seen: shares of the diagonal, degrees, factors.
_LEAST = {"x": 0.025, "y": 0.025, "rotation": 15.0, "scale.x": 0.15, "scale.y": 0.15, "opacity": 0.3}
#: Of that, what the frames before and after it may move: more is part of a quick motion, as a bounce off the floor is.
_STILL = 0.3


def find(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """A keyed value that leaves its course for one frame of film, and is back on it in the next."""
    for name, channel in keyed(thing):
        least = _LEAST.get(name)
        if least is None or not changes(channel) or len(channel.keys) < 3 or measures.rules_on(thing, "steps", "noise"):
            continue
        for frame in _jumps(measures.value(thing, name), measures.step, least * (measures.diagonal if name in ("x", "y") else 1.0)):
            near = [key for key in channel.keys if abs(key.frame - frame) < measures.film(1)]
            if not near or not measures.seen(thing)[frame - measures.step]:
                continue
            edit: Edit = DeleteKeys(edit="delete-keys", object=thing.id, channel=name, frames=tuple(key.frame for key in near))
            text = f"{thing.name}'s {name} jumps at frame {frame} and is back in the next: one frame out of line."
            yield Note("pop", thing.id, name, (frame, frame), text, sure=0.7, bad=0.8, mends=(Mend("Take the key out", (edit,)),))


def _jumps(values: Array, step: int, least: float) -> list[int]:
    """The frames at which a value is out of line by so much, while it hardly moves before and after."""
    n = len(values)
    if n < 4 * step + 1:
        return []
    t = np.arange(2 * step, n - 2 * step)
    off = values[t] - (values[t - step] + values[t + step]) / 2
    still = np.maximum(np.abs(values[t - step] - values[t - 2 * step]), np.abs(values[t + 2 * step] - values[t + step]))
    through = np.abs(values[t + step] - values[t - step])
    found = t[(np.abs(off) >= least) & (still <= _STILL * np.abs(off)) & (through <= _STILL * np.abs(off))]
    size = np.abs(values[found] - (values[found - step] + values[found + step]) / 2)
    # Of frames beside each other, the worst.
    kept: list[int] = []
    for place in np.argsort(-size):
        if all(abs(int(found[place]) - other) > step for other in kept):
            kept.append(int(found[place]))
    return sorted(kept)


KIND = NoteKind(
    name="pop",
    label="A pop",
    why=(
        "One frame that is out of line is seen as a flash or a twitch. It is most often a key that was set by accident. Meant, "
        "for a blink or a spark."
    ),
    about="object",
    of_object=find,
)
