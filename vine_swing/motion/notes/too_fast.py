"""A move too fast to be read."""

from collections.abc import Iterator

import numpy as np

from vine_swing.motion.notes.note import Note, NoteKind
from vine_swing.motion.notes.sight import Sight
from vine_swing.motion.scene.objects import SceneObject

#: How much of the picture's width or height a thing may pass in a frame of film: over a third, the eye loses it.
_SHARE = 1 / 3


def find(sight: Sight, thing: SceneObject) -> Iterator[Note]:
    """Two frames of film in which it is seen a third of the picture apart. Jumps by a hold are cuts, and meant."""
    if thing.parent is not None or thing.kind == "camera" or sight.length <= sight.step or not thing.shown:
        return
    held = any(key.ease == "hold" for name in ("x", "y", "path") if thing.is_keyed(name) for key in thing.channels[name].keys)
    if held or sight.rules_on(thing, "steps"):
        return
    place, seen = sight.place(thing), sight.seen(thing)
    moved = np.abs(place[sight.step :] - place[: -sight.step]) / np.array(sight.scene.size)
    fast = (moved.max(axis=1) > _SHARE) & seen[sight.step :] & seen[: -sight.step] & ~_begins_again(place, sight.step)
    if fast.any():
        at = int(np.argmax(np.where(fast, moved.max(axis=1), 0.0)))
        # A loop that begins again, out of its keys, is told as a seam.
        text = f"{thing.name} passes {100 * moved[at].max():.0f} % of the picture from frame {at} to {at + sight.step}: the eye cannot follow."
        yield Note("too-fast", thing.id, "x" if moved[at][0] >= moved[at][1] else "y", (at, at + sight.step), text, 0.6, 0.6)


def _begins_again(place: np.ndarray, step: int) -> np.ndarray:
    """Where a thing jumps back against its own motion and goes on as before: it comes round again, as parcels on a belt do, (n − step,)."""
    jump = place[step:] - place[:-step]
    found = np.zeros(len(jump), dtype=bool)
    if len(jump) < 3:
        return found
    before, after = jump[:-2], jump[2:]
    alike = np.hypot(*(before - after).T) <= 0.5 * np.hypot(*before.T)
    found[1:-1] = alike & ((before * jump[1:-1]).sum(axis=1) < 0)
    return found


KIND = NoteKind(
    name="too-fast",
    label="Too fast to read",
    why=(
        "What passes more than a third of the picture in a frame is seen in two places, not moving. Meant, for a whip or a flash, "
        "with a smear to help."
    ),
    about="object",
    of_object=find,
)
