"""Scene + frames → arrays.

Everything a painter, a file or a test needs is computed here, vectorised over frames. Handing in the bake of the scene
before an edit makes the new one share every array that the edit cannot have changed; arrays are never written to
again, so `is` identifies new arrays.
"""

from functools import partial

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.baked import Baked, BakedInset, BakedParade
from vine_swing.motion.baking.bent import bent_beside, with_outlines
from vine_swing.motion.baking.camera import through_camera
from vine_swing.motion.baking.channels import ChannelBaker, Earlier
from vine_swing.motion.baking.copies import CopyBaker
from vine_swing.motion.baking.effort import Effort, TooMuchWork
from vine_swing.motion.baking.insets import baked_insets
from vine_swing.motion.baking.keyed import dial_values, followed
from vine_swing.motion.baking.looks import check_masks, with_looks
from vine_swing.motion.baking.pictures import with_pictures
from vine_swing.motion.baking.placing import BakedObject, placed
from vine_swing.motion.baking.plan import Plan, changed_values
from vine_swing.motion.baking.reading import Reader
from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.basics.limits import MOST_COPIES
from vine_swing.motion.scene.dial import DIAL, DIAL_CHANNEL, Dial
from vine_swing.motion.scene.graph import DRAWING, Ref
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject

Array = NDArray[np.float64]


def bake(scene: Scene, frames: Array | None = None, *, previous: Baked | None = None, effort: Effort | None = None) -> Baked:
    """Compute every channel and matrix of a scene.

    Args:
        scene: what to bake.
        frames: any real frames in any order, shape (n,); the scene's own 0 … length−1 if left out.
        previous: a bake of an earlier version; unchanged arrays are taken from it (same frames and fps only).
        effort: counts the work and stops it in time.

    Raises:
        LoopError: if channels read each other in a ring.
        MotionError: if objects mask each other in a ring.
        TooMuchWork: if it would cost more than `effort` allows.
    """
    grid = np.arange(scene.length, dtype=float) if frames is None else np.array(frames, dtype=float).reshape(-1)
    if not np.isfinite(grid).all():
        raise MotionError("every frame to bake must be a finite number")
    check_masks(scene)
    effort = effort or Effort()
    if previous is not None and _same_time(previous, scene, grid):
        changed = changed_values(previous.scene, scene)
        created = _whole(scene, grid, previous, effort) if changed is None else _with_values(previous, scene, changed, effort)
    else:
        created = _whole(scene, grid, None, effort)
    if created.painted > MOST_COPIES:
        raise TooMuchWork(
            f"this scene would paint {created.painted} copies and insets; at most {MOST_COPIES} are painted, so reduce the number of copies"
        )
    return created


def placed_at(scene: Scene, object_id: str, frame: float) -> BakedObject:
    """Bake one object at one frame, without the rest of the scene: arrays of a single row.

    Its parents are computed, too; the last few objects asked for in one scene are kept, since edits ask for the same ones again.
    """
    stored: dict[tuple[str, float], BakedObject] = scene.__dict__.setdefault("_placed_at", {})
    if (object_id, frame) in stored:
        return stored[object_id, frame]
    grid = np.array([float(frame)])
    reader = Reader(scene, grid)
    objects = [scene.by_id[object_id]]
    while (parent := objects[-1].parent) is not None and (parent, frame) not in stored:
        objects.append(scene.by_id[parent])
    channels: dict[str, dict[str, Array]] = {}
    for thing in objects:
        values = channels[thing.id] = {}
        for name, spec in thing.specs.items():
            if spec.has_array and not spec.is_colour:
                source = reader.filler.run(lambda thing=thing, name=name: reader.final(thing.id, name))  # type: ignore[misc]
                values[name] = reader.filler.run(lambda source=source: source.at(reader.grid))[0]  # type: ignore[misc]
    above = {parent: item for (parent, at), item in stored.items() if at == frame}
    result = placed(objects, scene, grid, channels, above)
    stored.update({(item, frame): placed_object for item, placed_object in result.items()})
    return result[object_id]


def _whole(scene: Scene, grid: Array, previous: Baked | None, effort: Effort) -> Baked:
    """A bake that looks at every object."""
    plan, reader = Plan.of(scene), Reader(scene, grid, effort=effort)
    old = previous.objects if previous is not None else {}
    baker = ChannelBaker(reader, plan, old, Earlier(previous.scene, previous.plan) if previous is not None else None)
    for obj in scene.objects:
        baker.add(obj)
    with effort.part(plan.portions.channels):
        baker.make()
    with effort.part(plan.portions.placing):
        objects = placed(scene.objects, scene, grid, baker.arrays, old)
    objects = through_camera(_drawn(objects, scene, grid, reader, old, objects, plan.portions.outlines), scene, _seen_alike(previous, scene))
    dials = {dial.id: _dial(scene, dial, grid, previous) for dial in scene.dials}
    beyond = {ref: frame for ref, frame in previous.beyond.items() if _kept(ref, objects, old)} if previous is not None else {}
    parades = _parades(scene, plan, objects, reader, previous, effort)
    insets = _insets(scene, plan, objects, previous, effort)
    objects = {obj.id: objects[obj.id] for obj in scene.objects}
    return Baked(scene, grid, objects, dials, plan, reader, parades, insets, beyond | baker.beyond)


def _with_values(previous: Baked, scene: Scene, changed: list[tuple[SceneObject, SceneObject]], effort: Effort) -> Baked:
    """The bake of a scene in which only the values of some objects and dials differ from an earlier one: nothing else is visited."""
    plan, grid, old = previous.plan, previous.frames, previous.objects
    dials, moved = previous.dials, list[Ref]()
    if previous.scene.dials is not scene.dials:
        turned = [new for was, new in zip(previous.scene.dials, scene.dials, strict=True) if was is not new]
        dials = dials | {dial.id: _dial(scene, dial, grid, None) for dial in turned}
        moved += [(f"{DIAL}{dial.id}", DIAL_CHANNEL) for dial in turned]
    reader = Reader(scene, grid, effort=effort)
    baker = ChannelBaker(reader, plan, old, Earlier(previous.scene, plan))
    for _, obj in changed:
        baker.add(obj)
    followers: set[Ref] = set()
    if plan.reads:
        # What might follow is every reader of what is made again; it is made only if something it reads is another array indeed.
        moved += [(obj.id, name) for _, obj in changed for name in (DRAWING, *baker.arrays[obj.id])]
        followers = plan.followers(moved)
        for object_id in {object_id for object_id, _ in followers} - baker.arrays.keys():
            baker.arrays[object_id] = dict(old[object_id].channels)
        for ref in followers:
            for object_id, _ in plan.reads[ref]:
                if object_id in old and object_id not in baker.arrays:
                    baker.arrays[object_id] = old[object_id].channels
    with effort.part(plan.portions.channels):
        baker.make(followers)
    new = {object_id for object_id, arrays in baker.arrays.items() if arrays is not old[object_id].channels}
    members = [scene.by_id[object_id] for object_id in plan.below(new)]
    channels = {obj.id: baker.arrays.get(obj.id, old[obj.id].channels) for obj in members}
    with effort.part(plan.portions.placing):
        replaced = placed(members, scene, grid, channels, old)
    objects = {**old, **replaced}
    drawn = replaced.keys() | bent_beside(scene, plan, replaced)
    objects |= _drawn({item: objects[item] for item in drawn}, scene, grid, reader, old, objects, plan.portions.outlines)
    if scene.camera is not None:
        objects = through_camera(objects, scene, _seen_alike(previous, scene))
    beyond = {ref: frame for ref, frame in previous.beyond.items() if _kept(ref, objects, old)}
    parades = _parades(scene, plan, objects, reader, previous, effort)
    insets = _insets(scene, plan, objects, previous, effort)
    return Baked(scene, grid, objects, dials, plan, reader, parades, insets, beyond | baker.beyond)


def _seen_alike(previous: Baked | None, scene: Scene) -> dict[str, BakedObject]:
    """The objects of an earlier bake, if a camera that did not change shows them as before: it looks at the middle of the picture."""
    return previous.objects if previous is not None and previous.scene.size == scene.size else {}


def _drawn(
    objects: dict[str, BakedObject],
    scene: Scene,
    grid: Array,
    reader: Reader,
    old: dict[str, BakedObject],
    everything: dict[str, BakedObject],
    portion: float,
) -> dict[str, BakedObject]:
    """Return placed objects with bent outlines, picture sizes and looks for painters.

    everything: all objects of the scene. portion: the share of the bake's time that outlines take.
    """
    with reader.effort.part(portion):
        bent = with_outlines(objects, scene, grid, reader.outlines, old, everything)
    return with_looks(with_pictures(bent, scene, old), grid, lambda object_id, name: objects[object_id].channels[name], old)


def _parades(
    scene: Scene, plan: Plan, objects: dict[str, BakedObject], reader: Reader, previous: Baked | None, effort: Effort
) -> dict[str, BakedParade]:
    if not any(obj.copying is not None for obj in scene.objects):
        return {}
    baker = CopyBaker(scene, plan, objects, previous.objects if previous is not None else {}, effort, partial(_inner, effort, 1))
    with effort.part(plan.portions.copies):
        return baker.top(reader, reader.grid[0], previous.parades if previous is not None else {})


def _insets(scene: Scene, plan: Plan, objects: dict[str, BakedObject], previous: Baked | None, effort: Effort) -> dict[str, BakedInset]:
    shown = {object_id: obj for object_id, obj in objects.items() if obj.source.inset_of is not None}
    if not shown:
        return {}
    copied = plan.below({obj.id for obj in scene.objects if obj.copying is not None})
    here = {object_id: item for object_id, item in shown.items() if object_id not in copied}
    inside = partial(_inner, effort, len(here) or 1)
    with effort.part(plan.portions.insets):
        return baked_insets(here, scene, inside, previous.insets if previous is not None else {})


def _inner(effort: Effort, of: int, scene: Scene, frames: Array, previous: Baked | None) -> Baked:
    """A scene inside another, one `of` this many at most, at the frames that are shown of it."""
    with effort.part(1 / of):
        return bake(scene, frames, previous=previous, effort=effort)


def _same_time(previous: Baked, scene: Scene, grid: Array) -> bool:
    """Whether arrays of an earlier bake can still stand: rules may read the fps and the length, not only the frames, insets run as fast as the
    fps of the scenes inside say, and dials may follow sounds."""
    if previous.scene.insets is not scene.insets and {i: item.fps for i, item in previous.scene.insets_by_id.items()} != {
        i: item.fps for i, item in scene.insets_by_id.items()
    }:
        return False
    if previous.scene.sounds is not scene.sounds and any(followed(item, dial) for item in (previous.scene, scene) for dial in item.dials):
        # Dials that follow a sound change with it, and all that reads them.
        return False
    return previous.scene.fps == scene.fps and previous.scene.length == scene.length and np.array_equal(previous.frames, grid)


def _kept(ref: Ref, objects: dict[str, BakedObject], old: dict[str, BakedObject]) -> bool:
    """Whether a channel's array was copied from an earlier bake."""
    object_id, name = ref
    return object_id in objects and objects[object_id].channels.get(name) is old[object_id].channels.get(name)


def _dial(scene: Scene, dial: Dial, grid: Array, previous: Baked | None) -> Array:
    """A dial's values, (1,) or (1, 4) where it never changes."""
    if previous is not None and dial is previous.scene.dials_by_id.get(f"{DIAL}{dial.id}"):
        return previous.dials[dial.id]
    row: Array = dial_values(scene, dial, grid[None, :] if dial.channel.keys or followed(scene, dial) else np.zeros((1, 1)))[0]
    return row
