"""Scene + frames → arrays.

Everything a painter, a file or a test needs is worked out here, vectorised over frames. Handing in the bake of the scene
before an edit makes the new one share every array that the edit cannot have changed; arrays are never written to
again, so `is` tells what is new.
"""

from collections.abc import Hashable
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion import colour, matrix
from vine_swing.motion.channel import Channel
from vine_swing.motion.errors import MotionError
from vine_swing.motion.evaluate import evaluate, evaluate_colours
from vine_swing.motion.graph import DIAL, Ref, in_order, looks_of
from vine_swing.motion.model import WHOLE, Dial, Scene, SceneObject
from vine_swing.motion.path import evaluate_path
from vine_swing.motion.reading import Reader, Row, alikeness
from vine_swing.motion.rules.link import NAMED
from vine_swing.motion.specs import ChannelSpec

Array = NDArray[np.float64]
#: Samples of alike ruled channels worked on at once; the rules before a spring or a smoothing are read at several times as many.
_AT_ONCE = 12_000


@dataclass(frozen=True)
class BakedObject:
    """One object over all frames. Arrays have one row per frame, or a single row where nothing moves.

    channels: float64 (n,) or (1,), by channel name; colours are sRGB with alpha 0…1, (n, 4) or (1, 4). A path is there
        only where it has keys, (n, 2); so are keyed settings of rules, named `rule:setting`.
    world: (n, 6) or (1, 6), a b c d e f, from the object's own space to the picture.
    opacity: the object's opacity times its parents', and 0 outside its span.
    place: (n, 2) or (1, 2), where its pivot is in the picture.
    middle: (n, 2) or (1, 2), where its own origin is in the picture.
    """

    source: SceneObject
    channels: dict[str, Array]
    local: Array
    world: Array
    opacity: Array
    place: Array
    middle: Array


@dataclass(frozen=True)
class Baked:
    """A whole scene over `frames`, shape (n,). `baked["Mango", "x"]` is one channel by the object's name, shape (n,)."""

    scene: Scene
    frames: Array
    objects: dict[str, BakedObject]
    dials: dict[str, Array]

    def __getitem__(self, key: tuple[str, str]) -> Array:
        name, channel = key
        one = self.named(name)
        if channel not in one.channels:
            raise MotionError(f"'{name}' has no channel '{channel}'; it has {', '.join(one.channels)}")
        return self.spread(one.channels[channel])

    def named(self, name: str) -> BakedObject:
        """The object with this name.

        Raises:
            MotionError: if there is none.
        """
        for one in self.objects.values():
            if one.source.name == name:
                return one
        raise MotionError(f"there is no object '{name}'; there are {', '.join(o.source.name for o in self.objects.values()) or 'none'}")

    def spread(self, array: Array) -> Array:
        """The array with one row per frame, as a copy of its own."""
        return np.broadcast_to(array, (len(self.frames), *array.shape[1:])).copy()


def bake(scene: Scene, frames: Array | None = None, *, previous: Baked | None = None) -> Baked:
    """Work out every channel and matrix of a scene.

    Args:
        scene: what to bake.
        frames: any real frames in any order, shape (n,); the scene's own 0 … length−1 if left out.
        previous: a bake of an earlier version; what has not changed is taken from it (same frames and fps only).
    """
    grid = np.arange(scene.length, dtype=float) if frames is None else np.array(frames, dtype=float).reshape(-1)
    if not np.isfinite(grid).all():
        raise MotionError("every frame to bake must be a finite number")
    old = previous.objects if previous and _same_time(previous, scene, grid) else {}
    channels = _channels(scene, grid, old, previous.scene if previous and old else None)
    done: dict[str, BakedObject] = {}
    for thing in scene.objects:
        _finish(thing, scene, grid, channels, old, done)
    return Baked(scene, grid, {thing.id: done[thing.id] for thing in scene.objects}, {dial.id: _dial(dial, grid) for dial in scene.dials})


def _same_time(previous: Baked, scene: Scene, grid: Array) -> bool:
    """Whether arrays of an earlier bake can still stand: rules may read the fps and the length, not only the frames."""
    return previous.scene.fps == scene.fps and previous.scene.length == scene.length and np.array_equal(previous.frames, grid)


def _channels(scene: Scene, grid: Array, old: dict[str, BakedObject], was: Scene | None) -> dict[str, dict[str, Array]]:
    """The arrays of every channel, by object id and channel name; changed ones are worked out together."""
    result: dict[str, dict[str, Array]] = {}
    numbers: list[tuple[dict[str, Array], str, Channel]] = []
    colours: list[tuple[dict[str, Array], str, Channel]] = []
    ruled: list[Row] = []
    looking = dict.fromkeys(in_order(scene), False)
    for thing in scene.objects:
        before = old.get(thing.id)
        if before is not None and before.source is thing:
            result[thing.id] = dict(before.channels) if thing.looks else before.channels
            continue
        arrays = result[thing.id] = {}
        for name, spec in thing.specs.items():
            channel = thing.channels.get(name)
            if spec.kind == "point":
                if thing.is_keyed(name):
                    kept = before is not None and _same_channel(before.source, thing, name)
                    arrays[name] = before.channels[name] if before is not None and kept else evaluate_path(thing.channels[name], grid)
                continue
            if before is not None and _same_channel(before.source, thing, name):
                arrays[name] = before.channels[name]
                continue
            if (thing.id, name) in looking:
                looking[thing.id, name] = True
            elif thing.rules_on(name):
                ruled.append((thing, name))
            if channel is None or not channel.keys:
                arrays[name] = _on_path(arrays["path"], name) if name in ("x", "y") and "path" in arrays else _still(channel, spec)
            else:
                # The place is taken now so that every object lists its channels in the same order.
                arrays[name] = np.empty(0)
                (colours if spec.is_colour else numbers).append((arrays, name, channel))
        for name, setting in thing.keyed_settings.items():
            if before is not None and before.source.keyed_settings.get(name) is setting:
                arrays[name] = before.channels[name]
            else:
                arrays[name] = np.empty(0)
                numbers.append((arrays, name, setting))
    for waiting, work in ((numbers, evaluate), (colours, evaluate_colours)):
        if waiting:
            rows = work([channel for _, _, channel in waiting], grid)
            for (arrays, name, _), row in zip(waiting, rows, strict=True):
                arrays[name] = row
    if ruled or looking:
        _rules(Reader(scene, grid), ruled, looking, result, old, was)
    return result


def _rules(
    reader: Reader, ruled: list[Row], looking: dict[Ref, bool], result: dict[str, dict[str, Array]], old: dict[str, BakedObject], was: Scene | None
) -> None:
    """Put the rules on what keys and ends have made: alike channels together, those that look at others after them.

    `looking` says of each channel that looks at others, in order, whether it is made anew whatever those do; `was` is the scene of
    the earlier bake.
    """
    groups: dict[Hashable, list[Row]] = {}
    for thing, name in ruled:
        reader.before[thing.id, name] = result[thing.id][name]
        groups.setdefault(alikeness(thing, name, reader.timing), []).append((thing, name))
    at_once = max(1, _AT_ONCE // max(1, reader.grid.size))
    for group in groups.values():
        for start in range(0, len(group), at_once):
            rows = group[start : start + at_once]
            for (thing, name), values in zip(rows, reader.ruled(rows).at(reader.grid), strict=True):
                result[thing.id][name] = values
    if not looking:
        return
    for object_id, arrays in result.items():
        for name, values in arrays.items():
            if (object_id, name) not in looking:
                reader.after[object_id, name] = values
    turned = {dial.id for dial in reader.scene.dials if was is None or not any(dial is one for one in was.dials)}
    # A name in a formula may mean another thing than it did, or nothing any more.
    named_anew = was is None or _names(was) != _names(reader.scene)
    for (object_id, name), anew in looking.items():
        thing, before = reader.scene.by_id[object_id], old.get(object_id)
        seen = looks_of(reader.scene, thing, name)
        new = any(other in turned if one == DIAL else result[one][other] is not _before(old, one, other) for one, other in seen)
        if anew or new or before is None or (named_anew and any(one == NAMED for one, _ in thing.looks[name])):
            if anew:
                reader.before[object_id, name] = result[object_id][name]
            result[object_id][name] = reader.final(object_id, name).at(reader.grid)[0]
        reader.after[object_id, name] = result[object_id][name]


def _names(scene: Scene) -> list[tuple[str, str, int]]:
    """What formulas can name in a scene, and what that is."""
    return [(thing.id, thing.name, id(thing.specs)) for thing in scene.objects] + [(dial.id, dial.name, 0) for dial in scene.dials]


def _before(old: dict[str, BakedObject], object_id: str, name: str) -> Array | None:
    """A channel's array in an earlier bake."""
    return old[object_id].channels.get(name) if object_id in old else None


def _dial(dial: Dial, grid: Array) -> Array:
    """A dial's values; its kind is that of the value it has. (1,) or (1, 4) where it never changes."""
    channel = dial.channel
    one: Any = channel.keys[0].value if channel.keys else channel.base
    if isinstance(one, str):
        return evaluate_colours([channel], grid)[0] if channel.keys else colour.parse_hex(one)[None, :]
    return evaluate([channel], grid)[0] if channel.keys else np.array([float(one or 0.0)])


def _same_channel(before: SceneObject, thing: SceneObject, name: str) -> bool:
    """Whether a channel is made just as it was: the same keys (by identity) and the same rules."""
    same_keys = before.channels.get(name) is thing.channels.get(name) and before.specs.get(name) == thing.specs[name]
    beside = {other for rule in thing.rules_on(name) for other in rule.spec.besides}
    same_keys = same_keys and all(before.channels.get(other) is thing.channels.get(other) for other in beside)
    if name in ("x", "y"):
        same_keys = same_keys and before.channels.get("path") is thing.channels.get("path")
    return same_keys and (before.rules is thing.rules or before.rules_on(name) == thing.rules_on(name))


def _on_path(path: Array, name: str) -> Array:
    """x or y of something that follows its path."""
    return path[:, 0 if name == "x" else 1].copy()


def _still(channel: Channel | None, spec: ChannelSpec) -> Array:
    value: Any = spec.default if channel is None or channel.base is None else channel.base
    return colour.parse_hex(value)[None, :] if spec.is_colour else np.array([float(value)])


_GEOMETRY = ("x", "y", "rotation", "scale.x", "scale.y", "skew", "pivot.x", "pivot.y", "stretch", "stretch.angle")


def _finish(
    thing: SceneObject,
    scene: Scene,
    grid: Array,
    channels: dict[str, dict[str, Array]],
    old: dict[str, BakedObject],
    done: dict[str, BakedObject],
) -> None:
    """Add matrices and inherited opacity, parents first."""
    waiting = [thing]
    while (parent := waiting[-1].parent) is not None and parent not in done:
        waiting.append(scene.by_id[parent])
    for one in reversed(waiting):
        if one.id not in done:
            above = done[one.parent] if one.parent is not None else None
            done[one.id] = _baked(one, scene, grid, channels[one.id], above, old.get(one.id), old)


def _baked(
    thing: SceneObject,
    scene: Scene,
    grid: Array,
    arrays: dict[str, Array],
    above: BakedObject | None,
    before: BakedObject | None,
    old: dict[str, BakedObject],
) -> BakedObject:
    above_before = old.get(before.source.parent) if before is not None and before.source.parent is not None else None
    same = before is not None and before.source is thing and all(arrays[name] is before.channels[name] for name in thing.looks)
    if before is not None and same and above_before is above:
        return before
    same_shape = before is not None and all(arrays[name] is before.channels[name] for name in _GEOMETRY)
    local = before.local if before is not None and same_shape else matrix.object_matrix(_limited(arrays, thing))
    moved_above = (above.world if above else None) is not (above_before.world if above_before else None)
    if before is not None and local is before.local and not moved_above:
        world, place, middle = before.world, before.place, before.middle
    else:
        world = matrix.multiply(above.world, local) if above else local
        place = matrix.apply(world, arrays["pivot.x"], arrays["pivot.y"])
        middle = world[:, 4:6]
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
    return BakedObject(thing, arrays, local, world, opacity, place, middle)


def _limited(arrays: dict[str, Array], thing: SceneObject) -> dict[str, Array]:
    """The geometry within its limits (a stretch must stay above 0, a skew short of 90°); channels themselves are not cut."""
    limited = {}
    for name in _GEOMETRY:
        spec = thing.specs[name]
        limited[name] = arrays[name] if spec.low is None else np.clip(arrays[name], spec.low, spec.high)
    return limited
