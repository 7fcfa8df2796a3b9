"""Something that goes through the ground."""

from collections.abc import Iterator

import numpy as np

from vine_swing.motion.edits.base import Edit
from vine_swing.motion.edits.keys import SetKey
from vine_swing.motion.notes.keyed import changes
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.scene.objects import SceneObject

#: How far below the ground it must come: a share of its own height.
_DEEP = 0.2


def grounds(measures: SceneMeasures) -> list[SceneObject]:
    """What figures walk on and ground shadows are on: objects that rules name as their ground."""
    named = {str(rule.settings["ground"]) for thing in measures.scene.objects for rule in thing.rules if isinstance(rule.settings.get("ground"), str)}
    return [thing for thing in measures.scene.objects if thing.id in named and measures.bounds(thing) is not None]


def find(measures: SceneMeasures) -> Iterator[Note]:
    """Keyed falls that end below the upper edge of a level ground over which they stand, and have been above it."""
    for ground in grounds(measures):
        floor = measures.bounds(ground)
        if floor is None or float(np.ptp(floor[:, 1])) > 0 or ground.drawn_shape is None or ground.drawn_shape.type not in ("rectangle", "line"):
            continue
        for thing in measures.scene.objects:
            if thing is ground or thing.parent is not None or not thing.is_keyed("y") or not changes(thing.channels["y"]) or thing.rules_on("y"):
                continue
            yield from _fallen(measures, thing, ground, floor)


def _fallen(measures: SceneMeasures, thing: SceneObject, ground: SceneObject, floor: np.ndarray) -> Iterator[Note]:
    bounds = measures.bounds(thing)
    if bounds is None:
        return
    tall = float(np.median(bounds[:, 3] - bounds[:, 1]))
    deep = bounds[:, 3] - floor[:, 1]
    over = (bounds[:, 0] < floor[:, 2]) & (bounds[:, 2] > floor[:, 0])
    if not (deep < 0).any() or tall <= 0:
        return
    below = over & (deep > _DEEP * tall) & (bounds[:, 1] < floor[:, 3]) & measures.seen(thing)
    if not below.any():
        return
    at = int(np.argmax(np.where(below, deep, -np.inf)))
    keys = [key for key in thing.channels["y"].keys if 0 <= key.frame <= measures.length - 1 and below[int(key.frame)]]
    edits: tuple[Edit, ...] = tuple(
        SetKey(edit="set-key", object=thing.id, channel="y", frame=key.frame, value=key.number - float(deep[int(key.frame)])) for key in keys
    )
    mends = (Mend("Let it stand on the ground", edits),) if edits and thing.parent is None and measures.scene.camera is None else ()
    text = f"{thing.name} goes {deep[at]:.3g} px through {ground.name}, deepest at frame {at}."
    frames = np.flatnonzero(below)
    yield Note("through-ground", thing.id, "y", (float(frames[0]), float(frames[-1])), text, sure=0.65, bad=0.7, mends=mends)


KIND = NoteKind(
    name="through-ground",
    label="Through the ground",
    why="What sinks into the ground it lands on has no weight, and the ground is a picture. Meant, for water, and for what is dug in.",
    about="scene",
    of_scene=find,
)
