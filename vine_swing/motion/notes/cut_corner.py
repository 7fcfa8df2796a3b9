"""A corner that a round path cuts, where it was meant to be sharp."""

from collections.abc import Iterator

import numpy as np

from vine_swing.motion.edits.paths import SetCorner
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.scene.objects import SceneObject

#: How near to a right angle, and to the edges of the picture, both legs of a corner must lie for it to look drawn by a ruler, degrees.
_RULED = 2.0


def find(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """A right angle along the edges of the picture that a path passes smoothly, with straight ways on either side."""
    path = thing.channels.get("path")
    if path is None:
        return
    points = [key.value for key in path.keys]
    for n in range(1, len(points) - 1):
        key, before = path.keys[n], path.keys[n - 1]
        if not _is_round(before, key):
            continue
        a, b, c = (np.array(points[n + k], dtype=float) for k in (-1, 0, 1))
        legs = (b - a, c - b)
        if any(np.hypot(*leg) < 0.03 * measures.diagonal for leg in legs):
            continue
        turns = [float(np.degrees(np.arctan2(leg[1], leg[0]))) for leg in legs]
        ruled = all(abs(turn - 90 * round(turn / 90)) <= _RULED for turn in turns)
        corner = abs((turns[1] - turns[0] + 180) % 360 - 180)
        if ruled and abs(corner - 90) <= 2 * _RULED:
            edit = SetCorner(edit="set-corner", object=thing.id, frames=(key.frame,), corner="sharp")
            text = f"{thing.name}'s path rounds the right angle at frame {key.frame:g}, and leaves the straight way on both sides of it."
            yield Note(
                "cut-corner",
                thing.id,
                "path",
                (before.frame, path.keys[n + 1].frame),
                text,
                sure=0.5,
                bad=0.5,
                mends=(Mend("Make the corner sharp", (edit,)),),
            )


def _is_round(before: object, key: object) -> bool:
    """Whether a path comes to a key and leaves it by a spline that is not broken there."""
    ways = [getattr(one, "way", None) or ("spline" if getattr(one, "ease", None) == "spline" else "straight") for one in (before, key)]
    return ways == ["spline", "spline"] and getattr(key, "tension", 0.0) < 1 and getattr(key, "continuity", 0.0) > -1


KIND = NoteKind(
    name="cut-corner",
    label="A cut corner",
    why=(
        "A round path swings wide of a right angle and bends the straight ways beside it: what follows a belt or a shelf leaves "
        "it. Meant, for what flies."
    ),
    about="object",
    of_object=find,
)
