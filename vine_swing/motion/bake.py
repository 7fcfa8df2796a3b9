"""Scene + frames → arrays.

Everything a painter, a file or a test needs is worked out here, vectorised over frames. Handing in the bake of the scene
before an edit makes the new one share every array that the edit cannot have changed; arrays are never written to
again, so `is` tells what is new.
"""

from collections.abc import Hashable
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion import colour
from vine_swing.motion.channel import Channel
from vine_swing.motion.errors import MotionError
from vine_swing.motion.evaluate import evaluate, evaluate_colours
from vine_swing.motion.graph import Ref, in_order
from vine_swing.motion.model import DIAL, Dial, FigureObject, Scene, SceneObject, ShapeObject
from vine_swing.motion.path import evaluate_path
from vine_swing.motion.placing import BakedObject, placed
from vine_swing.motion.reading import Reader, Row, alikeness, dial_values
from vine_swing.motion.rule import SETTING
from vine_swing.motion.rules.link import NAMED
from vine_swing.motion.specs import GROUP_CHANNELS, ChannelSpec

Array = NDArray[np.float64]
#: Samples of alike ruled channels worked on at once; the rules before a spring or a smoothing are read at several times as many.
_AT_ONCE = 12_000


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
    return Baked(scene, grid, placed(scene, grid, channels, old), {dial.id: _dial(dial, grid, previous) for dial in scene.dials})


def _same_time(previous: Baked, scene: Scene, grid: Array) -> bool:
    """Whether arrays of an earlier bake can still stand: rules may read the fps and the length, not only the frames."""
    return previous.scene.fps == scene.fps and previous.scene.length == scene.length and np.array_equal(previous.frames, grid)


def _channels(scene: Scene, grid: Array, old: dict[str, BakedObject], was: Scene | None) -> dict[str, dict[str, Array]]:
    """The arrays of every channel, by object id and channel name; changed ones are worked out together."""
    result: dict[str, dict[str, Array]] = {}
    numbers: list[tuple[dict[str, Array], str, Channel]] = []
    colours: list[tuple[dict[str, Array], str, Channel]] = []
    ruled: list[Row] = []
    reader = Reader(scene, grid)
    reads = in_order(scene)
    looking = dict.fromkeys(reads, False)
    for thing in scene.objects:
        before = old.get(thing.id)
        if before is not None and before.source is thing:
            result[thing.id] = dict(before.channels) if thing.looks else before.channels
            continue
        arrays = result[thing.id] = {}
        ruled_here = thing.ruled
        for name, spec in thing.specs.items():
            channel = thing.channels.get(name)
            if channel is None and before is None and name not in ruled_here and spec.unit != "point" and "path" not in arrays:
                # The most common case by far.
                arrays[name] = _one(spec.default)
                continue
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
        for name, setting in thing.moving_settings.items():
            if before is not None and before.source.moving_settings.get(name) is setting:
                arrays[name] = before.channels[name]
            elif (thing.id, name) in looking:
                arrays[name] = np.empty(0)
                looking[thing.id, name] = True
            elif setting.keys:
                arrays[name] = np.empty(0)
                numbers.append((arrays, name, setting))
            else:
                # A formula of nothing but time.
                arrays[name] = reader.final(thing.id, name).at(reader.grid)[0]
    for waiting, work in ((numbers, evaluate), (colours, evaluate_colours)):
        if waiting:
            rows = work([channel for _, _, channel in waiting], grid)
            for (arrays, name, _), row in zip(waiting, rows, strict=True):
                arrays[name] = row
    if ruled or looking:
        _rules(reader, ruled, reads, looking, result, old, was)
    return result


def _rules(
    reader: Reader,
    ruled: list[Row],
    reads: dict[Ref, tuple[Ref, ...]],
    looking: dict[Ref, bool],
    result: dict[str, dict[str, Array]],
    old: dict[str, BakedObject],
    was: Scene | None,
) -> None:
    """Put the rules on what keys and ends have made: alike channels together, those that look at others after them.

    `reads` are the channels and settings that look at others, in order, each with what it looks at; `looking` says of each whether it is
    made anew whatever those do; `was` is the scene of the earlier bake.
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
    reader.after, reader.waiting = result, set(looking)
    turned = {owner for owner, dial in reader.scene.dials_by_id.items() if was is None or was.dials_by_id.get(owner) is not dial}
    # A name in a formula may mean another thing than it did, or nothing any more.
    dials = reader.scene.dials_by_id
    named_anew = was is None or _names(was) != _names(reader.scene)
    reshaped = _reshaped(reader.scene, old)
    for (object_id, name), anew in looking.items():
        thing, before = reader.scene.by_id[object_id], old.get(object_id)
        seen = reads[object_id, name]
        if (
            anew
            or before is None
            or any(one in turned if one in dials else result[one][other] is not _before(old, one, other) for one, other in seen)
            or (reshaped and (object_id in reshaped or any(one in reshaped for one, _ in seen)))
            or (named_anew and any(one == NAMED for one, _ in thing.looks[name]))
        ):
            if anew and SETTING not in name:
                reader.before[object_id, name] = result[object_id][name]
            known = None if SETTING in name else reader.at_once(thing, name, seen)
            result[object_id][name] = reader.final(object_id, name).at(reader.grid)[0] if known is None else known
        reader.waiting.discard((object_id, name))


def _reshaped(scene: Scene, old: dict[str, BakedObject]) -> set[str]:
    """Objects with another shape than in an earlier bake, or that hang on something else: no channel of theirs need tell."""
    found = set()
    for thing in scene.objects:
        before = old[thing.id].source if thing.id in old else None
        if before is None or before is thing:
            continue
        shape, shape_before = (one.shape if isinstance(one, ShapeObject) else None for one in (thing, before))
        if shape is not shape_before or thing.parent != before.parent:
            found.add(thing.id)
    return found


def _names(scene: Scene) -> list[tuple[str, str, int]]:
    """What formulas can name in a scene, and what that is."""
    return [(thing.id, thing.name, id(thing.specs)) for thing in scene.objects] + [(dial.id, dial.name, 0) for dial in scene.dials]


def _before(old: dict[str, BakedObject], object_id: str, name: str) -> Array | None:
    """A channel's array in an earlier bake."""
    return old[object_id].channels.get(name) if object_id in old else None


def _dial(dial: Dial, grid: Array, previous: Baked | None) -> Array:
    """A dial's values, (1,) or (1, 4) where it never changes."""
    if previous is not None and dial is previous.scene.dials_by_id.get(f"{DIAL}{dial.id}") and _same_time(previous, previous.scene, grid):
        return previous.dials[dial.id]
    row: Array = dial_values(dial, grid[None, :] if dial.channel.keys else np.zeros((1, 1)))[0]
    return row


def _same_channel(before: SceneObject, thing: SceneObject, name: str) -> bool:
    """Whether a channel is made just as it was: the same keys (by identity) and the same rules."""
    same_keys = before.channels.get(name) is thing.channels.get(name) and before.specs.get(name) == thing.specs[name]
    figure, figure_before = (one.figure if isinstance(one, FigureObject) else None for one in (thing, before))
    same_keys = same_keys and (figure is figure_before or name in GROUP_CHANNELS)
    beside = {other for rule in thing.rules_on(name) for other in rule.spec.besides}
    same_keys = same_keys and all(before.channels.get(other) is thing.channels.get(other) for other in beside)
    if name in ("x", "y"):
        same_keys = same_keys and before.channels.get("path") is thing.channels.get("path")
    return same_keys and (before.rules is thing.rules or before.rules_on(name) == thing.rules_on(name))


def _on_path(path: Array, name: str) -> Array:
    """x or y of something that follows its path."""
    return path[:, 0 if name == "x" else 1].copy()


def _still(channel: Channel | None, spec: ChannelSpec) -> Array:
    return _one(spec.default if channel is None or channel.base is None else channel.base)


@lru_cache(maxsize=65536)
def _one(value: Any) -> Array:
    """A value that never changes, as an array of a single row; alike ones share it."""
    row: Array = colour.parse_hex(value)[None, :] if isinstance(value, str) else np.array([float(value)])
    row.flags.writeable = False
    return row
