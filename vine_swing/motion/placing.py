"""Where objects are: from the arrays of their channels to matrices, places and opacity, parents first."""

from collections.abc import Iterator
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion import matrix
from vine_swing.motion.figure.channels import joint_channels
from vine_swing.motion.figure.pose import bones
from vine_swing.motion.model import WHOLE, FigureObject, Scene, SceneObject
from vine_swing.motion.specs import GEOMETRY, GROUP_CHANNELS

Array = NDArray[np.float64]
#: Numbers worked on at once where matrices of several objects are made together.
_AT_ONCE = 50_000


@dataclass(frozen=True)
class BakedObject:
    """One object over all frames. Arrays have one row per frame, or a single row where nothing moves.

    channels: float64 (n,) or (1,), by channel name; colours are sRGB with alpha 0…1, (n, 4) or (1, 4). A path is there
        only where it has keys, (n, 2); so are settings of rules that have keys or a formula, named `rule:setting`.
    world: (n, 6) or (1, 6), a b c d e f, from the object's own space to the picture.
    opacity: the object's opacity times its parents', and 0 outside its span.
    place: (n, 2) or (1, 2), where its pivot is in the picture.
    middle: (n, 2) or (1, 2), where its own origin is in the picture.
    bones: of a figure, for each bone by its name (n, 6) or (1, 6), from the space it rests in to the picture.
    """

    source: SceneObject
    channels: dict[str, Array]
    local: Array
    world: Array
    opacity: Array
    place: Array
    middle: Array
    bones: dict[str, Array] = field(default_factory=dict)

    def carrier(self, bone: str | None) -> Array:
        """What carries that which hangs on it, or on one of its bones: (n, 6) or (1, 6) to the picture."""
        return self.world if bone is None else self.bones[bone]


def placed(scene: Scene, grid: Array, channels: dict[str, dict[str, Array]], old: dict[str, BakedObject]) -> dict[str, BakedObject]:
    """All objects of a scene, in its order.

    Args:
        scene: the scene.
        grid: frames, (n,).
        channels: the arrays of every channel, by object id and channel name.
        old: the objects of an earlier bake at the same frames; what has not changed is taken from them.
    """
    local = dict(_locals(scene, channels, old))
    done: dict[str, BakedObject] = {}
    for thing in scene.objects:
        waiting = [thing]
        while (parent := waiting[-1].parent) is not None and parent not in done:
            waiting.append(scene.by_id[parent])
        for one in reversed(waiting):
            if one.id not in done:
                above = done[one.parent] if one.parent is not None else None
                done[one.id] = _placed(one, scene, grid, channels[one.id], local[one.id], above, old)
    return {thing.id: done[thing.id] for thing in scene.objects}


def _locals(scene: Scene, channels: dict[str, dict[str, Array]], old: dict[str, BakedObject]) -> Iterator[tuple[str, Array]]:
    """The matrix of each object in its parent's space; objects that move in the same channels are worked out together."""
    alike: dict[tuple[int, ...], list[str]] = {}
    for thing in scene.objects:
        arrays, before = channels[thing.id], old.get(thing.id)
        if before is not None and (arrays is before.channels or all(arrays[name] is before.channels[name] for name in GEOMETRY)):
            yield thing.id, before.local
        else:
            alike.setdefault(tuple(len(arrays[name]) for name in GEOMETRY), []).append(thing.id)
    for lengths, ids in alike.items():
        at_once = max(1, _AT_ONCE // max(lengths))
        for start in range(0, len(ids), at_once):
            some = ids[start : start + at_once]
            yield from zip(some, matrix.object_matrix(_geometry([channels[one] for one in some])), strict=True)


def _geometry(rows: list[dict[str, Array]]) -> dict[str, Array]:
    """The geometry of several objects, one a row, within its limits (a stretch must stay above 0, a skew short of 90°); channels
    themselves are not cut."""
    found = {}
    for name in GEOMETRY:
        spec = GROUP_CHANNELS[name]
        values = np.stack([arrays[name] for arrays in rows])
        found[name] = values if spec.low is None else np.clip(values, spec.low, spec.high)
    return found


def _placed(
    thing: SceneObject,
    scene: Scene,
    grid: Array,
    arrays: dict[str, Array],
    local: Array,
    above: BakedObject | None,
    old: dict[str, BakedObject],
) -> BakedObject:
    before = old.get(thing.id)
    above_before = old.get(before.source.parent) if before is not None and before.source.parent is not None else None
    same = before is not None and before.source is thing and all(arrays[name] is before.channels[name] for name in thing.looks)
    if before is not None and same and above_before is above:
        return before
    carrier = above.carrier(thing.bone) if above else None
    carried = above_before.bones.get(before.source.bone or "", above_before.world) if before is not None and above_before is not None else None
    moved_above = carrier is not carried
    if before is not None and local is before.local and not moved_above:
        world, place, middle = before.world, before.place, before.middle
    else:
        world = matrix.multiply(carrier, local) if carrier is not None else local
        middle = world[:, 4:6]
        about_middle = not arrays["pivot.x"].any() and not arrays["pivot.y"].any()
        place = middle if about_middle else matrix.apply(world, arrays["pivot.x"], arrays["pivot.y"])
    faded_above = (above.opacity if above else None) is not (above_before.opacity if above_before else None)
    same_span = before is not None and before.source.span == thing.span
    if before is not None and arrays["opacity"] is before.channels["opacity"] and not faded_above and same_span:
        opacity = before.opacity
    else:
        opacity = np.clip(arrays["opacity"], 0, 1) * (above.opacity if above else 1.0)
        if thing.span != WHOLE:
            first, last = thing.span.within(scene.length)
            # A frame is shown until the next one begins, its sub-frames too.
            opacity = opacity * ((grid >= first) & (grid < last + 1))
    return BakedObject(thing, arrays, local, world, opacity, place, middle, _bones(thing, arrays, world, before))


def _bones(thing: SceneObject, arrays: dict[str, Array], world: Array, before: BakedObject | None) -> dict[str, Array]:
    """The bones of a figure; as they were where neither it nor its joints moved."""
    if not isinstance(thing, FigureObject):
        return {}
    if before is not None and before.world is world and isinstance(before.source, FigureObject) and before.source.figure is thing.figure:
        still = all(arrays[name] is before.channels[name] for name in joint_channels(thing.figure))
        if still:
            return before.bones
    was = before.bones if before is not None else {}
    found = {}
    for name, one in bones(thing.figure, arrays).items():
        now = matrix.multiply(world, one)
        # A limb that does nothing else than before is the same, and so is all that hangs on it.
        found[name] = was[name] if name in was and np.array_equal(was[name], now) else now
    return found
