"""Reading number channels of a scene at any frames: as their keys and ends give them, and after their rules."""

import hashlib
from collections.abc import Callable, Hashable, Sequence
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.channel import Channel
from vine_swing.motion.ends import turn_marks
from vine_swing.motion.evaluate import Laid
from vine_swing.motion.graph import DIAL, Ref, resolved
from vine_swing.motion.model import Scene, SceneObject
from vine_swing.motion.path import evaluate_path
from vine_swing.motion.rule import RuleSettings, chained
from vine_swing.motion.rules import Source, Timing
from vine_swing.motion.rules.link import NAMED
from vine_swing.motion.rules.spec import Read

Array = NDArray[np.float64]
#: A channel of an object.
Row = tuple[SceneObject, str]


class Reader:
    """Reads the number channels of one scene. What is known at the frames of a bake already is not worked out again there.

    before, after: values (n,) or (1,) at `grid`, before a channel's rules and after them, by object id and channel name.
    """

    def __init__(self, scene: Scene, grid: Array | None = None) -> None:
        """`grid`: the frames (n,) of a bake; to read at them, hand `reader.grid` to a source."""
        self.scene = scene
        self.timing = Timing(scene.fps, scene.length)
        self.grid = np.empty((1, 0)) if grid is None else grid[None, :]
        self.before: dict[Ref, Array] = {}
        self.after: dict[Ref, Array] = {}
        self._final: dict[Ref, Source] = {}

    def keyed(self, rows: Sequence[Row]) -> Source:
        """Alike channels as their keys and ends give them: what their first rule reads. See `alikeness`."""
        read = _before_rules(rows)
        refs = [(thing.id, name) for thing, name in rows]

        def at(t: Array) -> Array:
            if t is self.grid and all(ref in self.before for ref in refs):
                return np.stack([np.broadcast_to(self.before[ref], t.shape[1]) for ref in refs])
            return read(t)

        streams = np.array([_stream(thing.id, name) for thing, name in rows], dtype=np.uint64)[:, None]
        thing, name = rows[0]
        return Source(
            at,
            _breaks(thing, name, self.timing),
            self.timing,
            streams,
            tuple(_moving(*row) for row in rows),
            thing.id,
            name,
            lambda other: self.keyed([(thing, other)]),
            self.look,
            self.named,
            lambda: self.contacts(thing.id),
        )

    def ruled(self, rows: Sequence[Row]) -> Source:
        """Alike channels after all their rules that are switched on."""
        return chained(self.keyed(rows), list(zip(*(thing.rules_on(name) for thing, name in rows), strict=True)))

    def look(self, object_id: str, name: str) -> Source | None:
        """One channel after all its rules, if the scene has it."""
        thing = self.scene.by_id.get(object_id)
        return self.final(object_id, name) if thing is not None and name in thing.specs else None

    def named(self, text: str) -> Source | None:
        """What formulas call by a name: a channel after all its rules, or a dial that holds numbers."""
        ref = resolved(self.scene, (NAMED, text))
        if ref is None:
            return None
        return self._dial(ref[1]) if ref[0] == DIAL else self.look(*ref)

    def _dial(self, dial_id: str) -> Source | None:
        channel = next(one.channel for one in self.scene.dials if one.id == dial_id)
        values = [key.value for key in channel.keys] or [channel.base if channel.base is not None else 0.0]
        if not all(isinstance(value, int | float) for value in values):
            return None
        read = Laid([channel]).at if channel.keys else lambda t: np.full((1, t.shape[1]), float(values[0]))  # type: ignore[arg-type]
        streams = np.array([[_stream(DIAL, dial_id)]], dtype=np.uint64)
        return Source(
            read,
            np.empty(0),
            self.timing,
            streams,
            (channel,),
            "",
            dial_id,
            lambda other: self._nothing(),
            self.look,
            self.named,
            lambda: np.empty(0),
        )

    def _nothing(self) -> Source:
        raise LookupError("a dial has no channels beside it")

    def contacts(self, object_id: str) -> Array:
        """The frames (k,) at which the rules of an object have it meet something, in order; as they are before later rules retime them."""
        thing = self.scene.by_id[object_id]
        found = [np.empty(0)]
        for name in ("x", "y"):
            rules = thing.rules_on(name)
            for n, rule in enumerate(rules):
                if rule.spec.contacts is not None:
                    source = chained(self.keyed([(thing, name)]), [[one] for one in rules[:n]])
                    found.append(rule.spec.contacts(source, RuleSettings([rule])))
        return np.unique(np.concatenate(found))

    def final(self, object_id: str, name: str) -> Source:
        """One channel after all its rules; what has been prepared for one reader serves the next."""
        ref = (object_id, name)
        if ref not in self._final:
            source = self.ruled([(self.scene.by_id[object_id], name)])
            self._final[ref] = replace(source, at=self._remembered(ref, source.at))
        return self._final[ref]

    def _remembered(self, ref: Ref, read: Read) -> Read:
        def at(t: Array) -> Array:
            known = self.after.get(ref) if t is self.grid else None
            return read(t) if known is None else np.array(np.broadcast_to(known, t.shape))

        return at


def alikeness(thing: SceneObject, name: str, timing: Timing) -> Hashable:
    """What channels must have in common to be worked out together, one a row: all but numbers."""
    rules = thing.rules_on(name)
    if any(rule.spec.alone for rule in rules):
        return thing.id, name
    return _kind(thing, name), tuple(_breaks(thing, name, timing)), tuple(rule.alikeness for rule in rules)


def _kind(thing: SceneObject, name: str) -> str:
    if thing.is_keyed(name):
        return "keyed"
    return "along" if name in ("x", "y") and thing.is_keyed("path") else "still"


def _moving(thing: SceneObject, name: str) -> Channel:
    """The channel whose keys move another: itself, or the path it follows."""
    return thing.channels.get("path" if _kind(thing, name) == "along" else name, Channel())


def _before_rules(rows: Sequence[Row]) -> Callable[[Array], Array]:
    match _kind(*rows[0]):
        case "keyed":
            return Laid([thing.channels[name] for thing, name in rows]).at
        case "along":
            return lambda t: np.stack([_along(thing.channels["path"], name, t[n % len(t)]) for n, (thing, name) in enumerate(rows)])
        case _:
            values = np.array([_plain(thing, name) for thing, name in rows])[:, None]
            return lambda t: np.repeat(values, t.shape[1], axis=1)


def _along(path: Channel, name: str, t: Array) -> Array:
    column: Array = evaluate_path(path, t)[:, 0 if name == "x" else 1]
    return column


def _plain(thing: SceneObject, name: str) -> float:
    base = thing.channels.get(name, Channel()).base
    value = base if base is not None else thing.specs[name].default
    assert isinstance(value, int | float)
    return float(value)


def _breaks(thing: SceneObject, name: str, timing: Timing) -> Array:
    """Frames between whole ones at which a keyed channel may jump or bend: its keys, and where its turns begin."""
    channel = _moving(thing, name)
    if all(key.frame == round(key.frame) for key in channel.keys):
        return np.empty(0)
    frames = {key.frame for key in channel.keys}
    if len(channel.keys) > 1:
        first, last = channel.keys[0].frame, channel.keys[-1].frame
        marks = turn_marks(first, last, channel.before, channel.after, timing.length)
        repeating = {channel.before.mode, channel.after.mode} & {"loop", "climb", "ping-pong"}
        if repeating and marks:
            # Within a turn lie the keys again, forwards and backwards.
            inner = [key.frame - first for key in channel.keys]
            frames |= {mark + way for mark in marks for offset in inner for way in (offset, last - first - offset)}
        frames |= set(marks)
    return np.array(sorted(frame for frame in frames if frame != round(frame)), dtype=float)


def _stream(object_id: str, name: str) -> int:
    """A number for this channel alone, the same on every machine."""
    return int.from_bytes(hashlib.blake2b(f"{object_id} {name}".encode(), digest_size=8).digest(), "big")
