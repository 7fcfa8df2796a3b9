"""Baking the arrays of channels: first what keys and ends give, then rules, then what looks at other channels.

Alike work is done together. Handing in the arrays of an earlier bake makes all that an edit cannot have changed the very same arrays.
"""

from collections.abc import Collection, Hashable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import lru_cache, partial
from typing import Any

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.direct import DirectReader
from vine_swing.motion.baking.inputs import inputs_of_channel, inputs_of_drawing
from vine_swing.motion.baking.keyed import Row, batch_key, before_rules
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.baking.plan import Plan
from vine_swing.motion.baking.reading import Reader
from vine_swing.motion.basics import colour
from vine_swing.motion.basics.limits import FARTHEST
from vine_swing.motion.basics.specs import INNER, ChannelSpec
from vine_swing.motion.rules.rule import SETTING
from vine_swing.motion.scene.graph import DRAWING, Ref, resolved
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.timing.channel import Channel
from vine_swing.motion.timing.evaluate import evaluate, evaluate_colours
from vine_swing.motion.timing.path import evaluate_path

Array = NDArray[np.float64]
#: The arrays of channels by object id and channel name, (n,) or (1,), (n, 4) for colours, (n, 2) for paths.
Arrays = dict[str, dict[str, Array]]
#: Samples of ruled channels with one batch key worked on at once; the rules before a spring or a smoothing are read at several times as many.
_SAMPLES_AT_ONCE = 48_000

#: How long a channel with rules takes beside one with keys alone, roughly: for telling how far a bake has come.
_A_RULED = 10


@dataclass(frozen=True)
class Earlier:
    """The scene of an earlier bake, and its plan."""

    scene: Scene
    plan: Plan


@dataclass
class ChannelBaker:
    """The arrays of one bake while they are made.

    reader, plan: of the scene that is baked.
    old: the objects of an earlier bake at the same frames.
    was: the scene of that bake, or None.
    arrays: computed so far.
    beyond: channels that are not finite or reach too far, with the first such frame; they are cut off.
    """

    reader: Reader
    plan: Plan
    old: Mapping[str, BakedObject]
    was: Earlier | None = None
    arrays: Arrays = field(default_factory=dict)
    beyond: dict[Ref, float] = field(default_factory=dict)
    #: Channels and settings that look at others and are to be made again whatever those do.
    _anew: set[Ref] = field(default_factory=set)
    _numbers: list[tuple[Ref, Channel]] = field(default_factory=list)
    _colours: list[tuple[Ref, Channel]] = field(default_factory=list)
    _ruled: list[Row] = field(default_factory=list)

    def add(self, obj: SceneObject) -> None:
        """Register an object: arrays that cannot have changed are reused, the others are queued for `make`."""
        before = self.old.get(obj.id)
        if before is None:
            self.arrays[obj.id] = {}
            self._add_new(obj)
        elif before.source is obj:
            self.arrays[obj.id] = dict(before.channels) if obj.dependencies else before.channels
        else:
            self.arrays[obj.id] = {}
            self._add_changed(obj, before)

    def make(self, candidates: Iterable[Ref] | None = None) -> None:
        """Evaluate everything that is queued. `candidates` are the channels that read others and may have changed, in addition to those of added
        objects;
        None for all."""
        effort = self.reader.effort
        looking = [] if not self.plan.reads else list(self.plan.reads if candidates is None else {*self._anew, *candidates})
        keyed, ruled = len(self._numbers) + len(self._colours), _A_RULED * len(self._ruled)
        whole = keyed + ruled + _A_RULED * len(looking) or 1
        with effort.part(keyed / whole):
            self._make_keyed()
        with effort.part(ruled / whole):
            self._make_ruled()
        if looking:
            with effort.part(_A_RULED * len(looking) / whole):
                self._make_looking(looking)

    # -- before rules

    def _add_new(self, obj: SceneObject) -> None:
        """A new object: channels without values, keys or rules share the default arrays of its kind."""
        arrays, specs = self.arrays[obj.id], obj.specs
        if obj.is_keyed("path"):
            arrays["path"] = evaluate_path(obj.channels["path"], self._grid)
        arrays |= _untouched(obj)
        if "path" in arrays:
            for name in ("x", "y"):
                if not obj.is_keyed(name):
                    arrays[name] = _on_path(arrays["path"], name)
        for name, channel in obj.channels.items():
            if not specs[name].has_array:
                continue
            if channel.keys:
                self._wait((obj.id, name), channel, specs[name])
            elif channel.base is not None and ("path" not in arrays or name not in ("x", "y")):
                arrays[name] = _constant(channel.base)
        if obj.is_running(INNER):
            arrays[INNER] = self._running(obj)
        for name in obj.ruled:
            self._wait_for_rules(obj, name)
        self._add_settings(obj, None)

    def _add_changed(self, obj: SceneObject, before: BakedObject) -> None:
        """A changed object: channels with the same inputs as before keep their arrays."""
        arrays = self.arrays[obj.id]
        for name, spec in obj.specs.items():
            channel = obj.channels.get(name)
            if spec.kind == "point":
                if obj.is_keyed(name):
                    stored = self._is_made_as(before.source, obj, name)
                    arrays[name] = before.channels[name] if stored else evaluate_path(obj.channels[name], self._grid)
                continue
            if not spec.has_array:
                continue
            if self._is_made_as(before.source, obj, name):
                arrays[name] = before.channels[name]
                continue
            if obj.rules_on(name):
                self._wait_for_rules(obj, name)
            if channel is not None and channel.keys:
                # The place is taken now so that every object lists its channels in the same order.
                arrays[name] = np.empty(0)
                self._wait((obj.id, name), channel, spec)
            elif obj.is_running(name):
                arrays[name] = self._running(obj)
            else:
                arrays[name] = _on_path(arrays["path"], name) if name in ("x", "y") and "path" in arrays else _still(channel, spec)
        self._add_settings(obj, before)

    def _running(self, obj: SceneObject) -> Array:
        """The inner frame of an inset that nothing keys."""
        row: Array = before_rules([(obj, INNER)], self.reader.scene)(self.reader.grid)[0]
        return row

    def _add_settings(self, obj: SceneObject, before: BakedObject | None) -> None:
        for name, setting in obj.moving_settings.items() if obj.rules else ():
            if before is not None and before.source.moving_settings.get(name) is setting:
                self.arrays[obj.id][name] = before.channels[name]
                continue
            self.arrays[obj.id][name] = np.empty(0)
            if (obj.id, name) in self.plan.reads:
                self._anew.add((obj.id, name))
            elif setting.keys:
                (self._colours if setting.keys_colours else self._numbers).append(((obj.id, name), setting))
            else:
                # A formula of nothing but time.
                self._put((obj.id, name), self._evaluated(obj.id, name))

    def _wait(self, ref: Ref, channel: Channel, spec: ChannelSpec) -> None:
        (self._colours if spec.is_colour else self._numbers).append((ref, channel.as_numbers))

    def _wait_for_rules(self, obj: SceneObject, name: str) -> None:
        if (obj.id, name) in self.plan.reads:
            self._anew.add((obj.id, name))
        elif obj.specs[name].has_array:
            self._ruled.append((obj, name))

    def _make_keyed(self) -> None:
        """Evaluate channels from their keys and ends, before any rule."""
        for waiting, work in ((self._numbers, evaluate), (self._colours, evaluate_colours)):
            if waiting:
                rows = work([channel for _, channel in waiting], self._grid)
                self._put_rows([ref for ref, _ in waiting], rows)

    # -- rules

    def _make_ruled(self) -> None:
        """Apply rules to the channels that read no other channels."""
        for obj, name in self._ruled:
            self.reader.before[obj.id, name] = self.arrays[obj.id][name]
        for rows in self._batches(self._ruled):
            self._make_rows(rows)
            self.reader.effort.advance(len(rows) / len(self._ruled))

    def _make_rows(self, rows: list[Row]) -> None:
        """Evaluate channels with one batch key."""
        run, grid = self.reader.filler.run, self.reader.grid
        # The chain is made once: its tables must outlast the starts that fill them.
        source = run(lambda: self.reader.ruled(rows))
        self._put_rows([(obj.id, name) for obj, name in rows], run(lambda: source.at(grid)))

    def _batches(self, waiting: Iterable[Row]) -> list[list[Row]]:
        """Rows with one batch key together, this many at once that what is worked on stays in the processor's cache."""
        groups: dict[Hashable, list[Row]] = {}
        for obj, name in waiting:
            groups.setdefault(batch_key(obj, name, self.reader.timing), []).append((obj, name))
        at_once = max(1, _SAMPLES_AT_ONCE // max(1, self._grid.size))
        return [group[start : start + at_once] for group in groups.values() for start in range(0, len(group), at_once)]

    def _make_looking(self, candidates: Collection[Ref]) -> None:
        """Evaluate channels and settings that read others, level by level: a level reads only earlier ones."""
        reader, direct = self.reader, DirectReader(self.reader)
        levels: dict[int, list[Ref]] = {}
        for ref in sorted(candidates, key=self.plan.level.__getitem__):
            levels.setdefault(self.plan.level[ref], []).append(ref)
        reader.after, reader.waiting = self.arrays, {ref for refs in levels.values() for ref in refs}
        ranges = self._ranges_read(reader.waiting)
        for ref in self._anew:
            if SETTING not in ref[1]:
                reader.before[ref] = self.arrays[ref[0]][ref[1]]
        for refs in levels.values():
            with reader.effort.part(len(refs) / len(candidates)):
                due = [ref for ref in refs if ref in self._anew or self._reads_changed(ref)]
                self._make_level(due, direct)
                reader.waiting.difference_update(refs)
                for ref in due:
                    if ref in ranges:
                        reader.filler.run(partial(reader.prepare, ref, *ranges[ref][:2], between=ranges[ref][2]))

    def _make_level(self, due: list[Ref], direct: DirectReader) -> None:
        """Make some channels and settings that do not look at one another."""
        scene, reader = self.reader.scene, self.reader
        self._prepare_keyed(due)
        rows: list[Row] = []
        for ref in due:
            thing = scene.by_id[ref[0]]
            if SETTING in ref[1]:
                self._put(ref, self._evaluated(*ref))
                reader.effort.advance(1 / len(due))
                continue
            cached = reader.filler.run(lambda thing=thing, ref=ref: direct.read(thing, ref[1], self.plan.reads[ref]))  # type: ignore[misc]
            if cached is None:
                rows.append((thing, ref[1]))
            else:
                self._put(ref, cached)
                reader.effort.advance(1 / len(due))
        for some in self._batches(rows):
            if len(some) == 1:
                self._put((some[0][0].id, some[0][1]), self._evaluated(some[0][0].id, some[0][1]))
            else:
                self._make_rows(some)
            reader.effort.advance(len(some) / len(due))

    def _ranges_read(self, refs: set[Ref]) -> dict[Ref, tuple[float, float, bool]]:
        """Of some channels those that others of them read at frames beyond the grid: from which frame to which, and whether between whole ones.

        Followed from the last reader back, so that each table of a long chain can be filled at once, as far as it will ever be read.
        """
        scene, first, last = self.reader.scene, float(self._grid.min(initial=0)), float(self._grid.max(initial=0))
        ranges: dict[Ref, tuple[float, float, bool]] = {}
        for ref in sorted(refs, key=self.plan.level.__getitem__, reverse=True):
            if SETTING in ref[1]:
                continue
            low, high, between = ranges.get(ref, (first, last, False))
            for rule in scene.by_id[ref[0]].rules_on(ref[1]):
                for looked_at, frames, seconds in rule.shifts(*ref):
                    shift = frames + seconds * scene.fps
                    other = resolved(scene, looked_at) if shift or between or low < first or high > last else None
                    if other in refs:
                        cached = ranges.get(other, (first, last, False))
                        ranges[other] = min(cached[0], low + shift), max(cached[1], high + shift), cached[2] or between or shift != np.floor(shift)
        return ranges

    def _reads_changed(self, ref: Ref) -> bool:
        """Whether a channel must be made again because of what it reads: other channels than before, or any that was made again."""
        if self.was is None or ref[0] not in self.old:
            return True
        reads = self.plan.reads[ref]
        return reads != self.was.plan.reads.get(ref) or any(self._is_new(*read) for read in reads)

    def _is_new(self, owner: str, name: str) -> bool:
        """Whether a channel, a dial or how an object is drawn is another than in the earlier bake."""
        assert self.was is not None
        scene, before = self.reader.scene, self.old.get(owner)
        if owner in scene.dials_by_id:
            return scene.dials_by_id[owner] is not self.was.scene.dials_by_id.get(owner)
        if before is None:
            return True
        if name == DRAWING:
            obj = scene.by_id[owner]
            return before.source is not obj and not inputs_of_drawing(obj).same_as(inputs_of_drawing(before.source))
        return self.arrays[owner][name] is not before.channels.get(name)

    @staticmethod
    def _is_made_as(before: SceneObject, obj: SceneObject, name: str) -> bool:
        """Whether a channel of a changed object is made just unchanged."""
        if not (before.rules or obj.rules) and before.specs is obj.specs and obj.skeleton is None and not obj.is_running(name):
            # As below, for the many objects of which keys say all.
            keyed = (name, "path") if name in ("x", "y") else (name,)
            return all(before.channels.get(item) is obj.channels.get(item) for item in keyed)
        return name in before.specs and inputs_of_channel(obj, name).same_as(inputs_of_channel(before, name))

    def _prepare_keyed(self, due: list[Ref]) -> None:
        """Compute together what the first rules of some channels read, where that is not known yet."""
        by_id = self.reader.scene.by_id
        keyed = [
            ref
            for ref in due
            if ref not in self._anew and SETTING not in ref[1] and by_id[ref[0]].is_keyed(ref[1]) and not by_id[ref[0]].specs[ref[1]].is_colour
        ]
        if keyed:
            rows = evaluate([by_id[object_id].channels[name] for object_id, name in keyed], self._grid)
            self.reader.before.update(zip(keyed, rows, strict=True))

    def _evaluated(self, object_id: str, name: str) -> Array:
        source = self.reader.filler.run(lambda: self.reader.made(object_id, name))
        row: Array = self.reader.filler.run(lambda: source.at(self.reader.grid))[0]
        return row

    # -- results

    @property
    def _grid(self) -> Array:
        row: Array = self.reader.grid[0]
        return row

    def _put(self, ref: Ref, values: Array) -> None:
        self._put_rows([ref], values[None])

    def _put_rows(self, refs: Sequence[Ref], rows: Array) -> None:
        """Take over the values of some channels, one a row, cut off where they reach too far."""
        # The minimum of rows with a NaN in them is NaN, which fails every comparison.
        if rows.size and not (np.minimum.reduce(rows, axis=None) >= -FARTHEST and np.maximum.reduce(rows, axis=None) <= FARTHEST):
            with np.errstate(invalid="ignore"):
                near = np.abs(rows) <= FARTHEST
            rows = np.clip(np.nan_to_num(rows, nan=0.0), -FARTHEST, FARTHEST)
            for ref, fine in zip(refs, near, strict=True):
                if not fine.all():
                    bad = ~(fine if fine.ndim == 1 else fine.all(axis=-1))
                    self.beyond[ref] = float(self._grid[min(int(np.argmax(bad)), len(self._grid) - 1)])
        for (object_id, name), row in zip(refs, rows, strict=True):
            self.arrays[object_id][name] = row


def _on_path(path: Array, name: str) -> Array:
    """Return x or y of an object that follows its path."""
    return path[:, 0 if name == "x" else 1].copy()


def _still(channel: Channel | None, spec: ChannelSpec) -> Array:
    return _constant(spec.default if channel is None or channel.base is None else channel.base)


@lru_cache(maxsize=65536)
def _constant(value: Any) -> Array:
    """A value that never changes, as an array of a single row; equal ones share it."""
    row: Array = colour.parse_hex(value)[None, :] if isinstance(value, str) else np.array([float(value)])
    row.flags.writeable = False
    return row


#: The arrays of untouched objects by the identity of their table of channels, which is kept beside them so that no other can have it.
_UNTOUCHED: dict[int, tuple[Any, dict[str, Array]]] = {}


def _untouched(obj: SceneObject) -> dict[str, Array]:
    """The default arrays of an object without values, keys or rules, in channel order; paths have none."""
    specs = obj.specs
    if obj.skeleton is not None:
        return {name: _constant(spec.default) for name, spec in specs.items() if spec.has_array}
    result = _UNTOUCHED.get(id(specs))
    if result is None:
        result = _UNTOUCHED[id(specs)] = specs, {name: _constant(spec.default) for name, spec in specs.items() if spec.has_array}
    return result[1]
