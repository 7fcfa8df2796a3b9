"""Where objects are: from the arrays of their channels to matrices, places and opacity, parents first."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.inputs import Inputs
from vine_swing.motion.baking.look import BakedLook
from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.limits import FARTHEST
from vine_swing.motion.basics.rows import in_cache
from vine_swing.motion.basics.specs import GEOMETRY
from vine_swing.motion.curves.series import OutlineSeries
from vine_swing.motion.figure.channels import joint_channels
from vine_swing.motion.figure.pose import bones, carried_by
from vine_swing.motion.scene.kept import KeptPicture
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import WHOLE, SceneObject

Array = NDArray[np.float64]


@dataclass(frozen=True)
class BakedObject:
    """One object over all frames. Arrays have one row per frame, or a single row where nothing moves.

    channels: float64 (n,) or (1,), by channel name; colours are sRGB with alpha 0…1, (n, 4) or (1, 4). A path is there
        only where it has keys, (n, 2); so are settings of rules that have keys or a formula, named `rule:setting`.
    local: (n, 6) or (1, 6), a b c d e f, from the object's own space to its parent's.
    world: the same from its own space to the scene.
    view: the same from its own space to the picture, through the camera where there is one.
    lens: (n, 6) or (1, 6), from the scene to the picture, as it is for what is as far away; None where both are the same.
    fade: its own opacity, 0…1, and 0 outside its span.
    opacity: `fade` times its parents'.
    place: (n, 2) or (1, 2), where its pivot is in the scene.
    middle: (n, 2) or (1, 2), where its own origin is in the scene.
    bent: the outline that keys and rules on outlines make of a drawn object; None where its own channels say all.
    bent_from: what that was made from, to tell whether it still holds.
    shown_size: of something that shows pictures, (n, 2) or (1, 2), how large, in px.
    pages: the pictures it shows.
    bones: of a figure, for each bone by its name (n, 6) or (1, 6), from the space it rests in to the scene.
    seen_bones: the same to the picture; nothing where `lens` is None.
    look: the rules at work on its look, in order.
    """

    source: SceneObject
    channels: dict[str, Array]
    local: Array
    world: Array
    view: Array
    fade: Array
    opacity: Array
    place: Array
    middle: Array
    bones: dict[str, Array] = field(default_factory=dict)
    bent: OutlineSeries | None = None
    bent_from: Inputs | None = None
    shown_size: Array | None = None
    pages: tuple[KeptPicture, ...] = ()
    lens: Array | None = None
    seen_bones: dict[str, Array] = field(default_factory=dict)
    look: tuple[BakedLook, ...] = ()

    def carrier(self, bone: str | None) -> Array:
        """What carries that which is attached to it, or on one of its bones: (n, 6) or (1, 6) to the scene."""
        return self.world if bone is None else self.bones[bone]


def placed(
    objects: Iterable[SceneObject], scene: Scene, grid: Array, channels: dict[str, dict[str, Array]], old: dict[str, BakedObject]
) -> dict[str, BakedObject]:
    """Some objects of a scene in their places, by id, parents first.

    Args:
        objects: the objects; of those that are attached to others, the others are among them or are as they were.
        scene: the scene.
        grid: frames, (n,).
        channels: the arrays of every channel of these objects, by object id and channel name.
        old: the objects of an earlier bake at the same frames; what has not changed is taken from them.
    """
    by_id = {obj.id: obj for obj in objects}
    local = dict(_locals(by_id.values(), channels, old))
    done: dict[str, BakedObject] = {}
    for level in _levels(by_id):
        waiting = []
        for obj in level:
            above = None if obj.parent is None else done[obj.parent] if obj.parent in done else old[obj.parent]
            waiting.append(_Waiting(obj, channels[obj.id], local[obj.id], above, old))
        # What many parents make larger still may grow out of reach, and is cut off then.
        with np.errstate(over="ignore", invalid="ignore"):
            worlds = _worlds(waiting)
            done |= {item.thing.id: item.placed(scene, grid, worlds) for item in waiting}
    return done


def _levels(by_id: dict[str, SceneObject]) -> list[list[SceneObject]]:
    """Objects by their depth in the tree of parents: first those whose parent is none of them."""
    depths: dict[str, int] = {}
    levels: list[list[SceneObject]] = []
    for obj in by_id.values():
        chain = [obj]
        while (parent := chain[-1].parent) is not None and parent in by_id and parent not in depths:
            chain.append(by_id[parent])
        for item in reversed(chain):
            if item.id not in depths:
                depth = depths[item.id] = depths.get(item.parent or "", -1) + 1
                if depth == len(levels):
                    levels.append([])
                levels[depth].append(item)
    return levels


def _locals(objects: Iterable[SceneObject], channels: dict[str, dict[str, Array]], old: dict[str, BakedObject]) -> Iterator[tuple[str, Array]]:
    """The matrix of each object in its parent's space; objects that move in the same channels are computed together."""
    alike: dict[tuple[int, ...], list[str]] = {}
    for obj in objects:
        arrays, before = channels[obj.id], old.get(obj.id)
        if before is not None and (arrays is before.channels or all(arrays[name] is before.channels[name] for name in GEOMETRY)):
            yield obj.id, before.local
        else:
            alike.setdefault(tuple(len(arrays[name]) for name in GEOMETRY), []).append(obj.id)
    for lengths, ids in alike.items():
        for some in in_cache(len(ids), max(lengths)):
            yield from zip(ids[some], matrix.object_matrix(_geometry([channels[item] for item in ids[some]])), strict=True)


def _geometry(rows: list[dict[str, Array]]) -> dict[str, Array]:
    """The geometry of several objects, one a row."""
    return {name: np.concatenate([arrays[name] for arrays in rows]).reshape(len(rows), -1) for name in GEOMETRY}


class _Waiting:
    """An object to be placed whose parent is placed already, beside the earlier bake of both."""

    def __init__(self, thing: SceneObject, arrays: dict[str, Array], local: Array, above: BakedObject | None, old: dict[str, BakedObject]) -> None:
        self.thing, self.arrays, self.local, self.above = thing, arrays, local, above
        before = self.before = old.get(thing.id)
        above_before = self.above_before = old.get(before.source.parent) if before is not None and before.source.parent is not None else None
        #: The matrix of its carrier; None without a parent.
        self.carrier = above.carrier(thing.bone) if above is not None else None
        self.is_same = (
            before is not None
            and before.source is thing
            and above_before is above
            # Linked settings of rules have no array in the elements of parades: an object with any is made again there.
            and all(name in arrays and arrays[name] is before.channels.get(name) for name in thing.dependencies)
        )
        carried = above_before.bones.get(before.source.bone or "", above_before.world) if before is not None and above_before is not None else None
        #: The earlier bake, if it is where it was.
        self.stays = before if before is not None and local is before.local and self.carrier is carried else None

    def placed(self, scene: Scene, grid: Array, worlds: dict[str, Array]) -> BakedObject:
        """The object in its place; `worlds` are the matrices to the scene of what is carried and does not stay."""
        obj, arrays, before, above = self.thing, self.arrays, self.before, self.above
        if before is not None and self.is_same:
            return before
        if self.stays is not None:
            world, place, middle = self.stays.world, self.stays.place, self.stays.middle
        else:
            world = worlds.get(obj.id, self.local)
            middle = world[:, 4:6]
            about_middle = _is_nothing(arrays["pivot.x"]) and _is_nothing(arrays["pivot.y"])
            place = middle if about_middle else matrix.apply(world, arrays["pivot.x"], arrays["pivot.y"])
        same_span = before is not None and before.source.span == obj.span
        if before is not None and arrays["opacity"] is before.channels["opacity"] and same_span:
            fade = before.fade
        else:
            fade = _within(arrays["opacity"])
            if obj.span != WHOLE:
                first, last = obj.span.within(scene.length)
                # A frame is shown until the next one begins, its sub-frames too.
                fade = fade * ((grid >= first) & (grid < last + 1))
        faded_above = (above.opacity if above else None) is not (self.above_before.opacity if self.above_before else None)
        if before is not None and fade is before.fade and not faded_above:
            opacity = before.opacity
        elif above is not None:
            opacity = fade * above.opacity
        else:
            opacity = fade
        # Until it is looked at through a camera (camera.py), what is in the scene is in the picture where it is.
        view = world
        return BakedObject(obj, arrays, self.local, world, view, fade, opacity, place, middle, _bones(obj, arrays, world, before))


def _worlds(waiting: Iterable[_Waiting]) -> dict[str, Array]:
    """The matrices to the scene of what is carried and does not stay where it was, by id."""
    moved = [item for item in waiting if item.carrier is not None and item.stays is None and not item.is_same]
    worlds = matrix.products([item.carrier for item in moved if item.carrier is not None], [item.local for item in moved])
    return {item.thing.id: _within_reach(world) for item, world in zip(moved, worlds, strict=True)}


def _within_reach(world: Array) -> Array:
    """Matrices whose entries stay finite, however many large ones are multiplied down a chain of parents."""
    if np.isfinite(world).all():
        return world
    return np.clip(np.nan_to_num(world), -FARTHEST, FARTHEST)


def _is_nothing(values: Array) -> bool:
    return (values.size == 1 and values[0] == 0) or not values.any()


def _within(values: Array) -> Array:
    """Within 0…1; the same array where it is."""
    if values.size == 1 and 0 <= values[0] <= 1:
        return values
    return np.fmin(np.fmax(values, 0.0), 1.0)


def _bones(obj: SceneObject, arrays: dict[str, Array], world: Array, before: BakedObject | None) -> dict[str, Array]:
    """The bones of a figure; the same arrays as before where neither it nor its joints moved."""
    figure = obj.skeleton
    if figure is None:
        return {}
    if before is not None and before.world is world and before.source.skeleton is figure:
        still = all(arrays[name] is before.channels[name] for name in joint_channels(figure))
        if still:
            return before.bones
    was = before.bones if before is not None else {}
    result = {}
    for name, now in carried_by(world, bones(figure, arrays)).items():
        # A limb with equal values keeps its array, so that its children are not placed again.
        result[name] = was[name] if name in was and np.array_equal(was[name], now) else now
    return result
