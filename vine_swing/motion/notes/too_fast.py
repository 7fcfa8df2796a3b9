"""A move too fast to be read."""

from collections.abc import Iterator

import numpy as np

from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Note, NoteKind
from vine_swing.motion.scene.objects import SceneObject

#: How much of the picture's width or height an object may pass in a frame of film: over a third, the eye loses it.
_SHARE = 1 / 3


def find(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """Two frames of film in which it is seen a third of the picture apart. Jumps by a hold are cuts, and meant."""
    if thing.parent is not None or thing.kind == "camera" or measures.length <= measures.step or not thing.shown:
        return
    held = any(key.ease == "hold" for name in ("x", "y", "path") if thing.is_keyed(name) for key in thing.channels[name].keys)
    if held or measures.rules_on(thing, "steps"):
        return
    place, seen = measures.place(thing), measures.seen(thing)
    moved = np.abs(place[measures.step :] - place[: -measures.step]) / np.array(measures.scene.size)
    fast = (moved.max(axis=1) > _SHARE) & seen[measures.step :] & seen[: -measures.step] & ~_begins_again(place, measures.step)
    if fast.any():
        at = int(np.argmax(np.where(fast, moved.max(axis=1), 0.0)))
        # A loop that restarts from its keys is reported as a seam.
        text = f"{thing.name} passes {100 * moved[at].max():.0f} % of the picture from frame {at} to {at + measures.step}: the eye cannot follow."
        yield Note("too-fast", thing.id, "x" if moved[at][0] >= moved[at][1] else "y", (at, at + measures.step), text, sure=0.6, bad=0.6)


def _begins_again(place: np.ndarray, step: int) -> np.ndarray:
    """Where an object jumps back against its own motion and goes on as before: it comes round again, as parcels on a belt do, (n − step,)."""
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
