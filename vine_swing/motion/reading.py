"""Reading number channels of a scene at any frames: as their keys and ends give them, and after their rules."""

import hashlib
from collections.abc import Callable, Hashable, Mapping, Sequence
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion import matrix
from vine_swing.motion.channel import Channel
from vine_swing.motion.colour import parse_hex
from vine_swing.motion.ends import turn_marks
from vine_swing.motion.evaluate import Laid, evaluate_colours
from vine_swing.motion.figure.channels import FACING
from vine_swing.motion.figure.ground import Ground
from vine_swing.motion.figure.walk import Walk
from vine_swing.motion.formula import references
from vine_swing.motion.graph import Ref, resolved
from vine_swing.motion.model import DIAL_CHANNEL, Dial, FigureObject, OutlineShape, Scene, SceneObject, ShapeObject
from vine_swing.motion.outline import Outline
from vine_swing.motion.path import evaluate_path
from vine_swing.motion.rule import SETTING, Rule, RuleSettings, chained
from vine_swing.motion.rules import Source, Timing, gait, link
from vine_swing.motion.rules.link import NAMED
from vine_swing.motion.rules.spec import Read, number_or
from vine_swing.motion.shapes import DRAWN
from vine_swing.motion.specs import GEOMETRY
from vine_swing.motion.svg_path import parse_path

Array = NDArray[np.float64]
_NEVER_TOUCHED = Channel()
#: A channel of an object.
Row = tuple[SceneObject, str]


class Reader:
    """Reads the number channels of one scene. What is known at the frames of a bake already is not worked out again there.

    before: values (n,) or (1,) at `grid` before a channel's rules, by object id and channel name.
    after: values at `grid` after all rules, by object id, then by channel name; those `waiting` are not made yet.
    """

    def __init__(self, scene: Scene, grid: Array | None = None) -> None:
        """`grid`: the frames (n,) of a bake; to read at them, hand `reader.grid` to a source."""
        self.scene = scene
        self.timing = Timing(scene.fps, scene.length)
        self.grid = np.empty((1, 0)) if grid is None else grid[None, :]
        self.before: dict[Ref, Array] = {}
        self.after: dict[str, dict[str, Array]] = {}
        self.waiting: set[Ref] = set()
        self._final: dict[Ref, Source] = {}
        self._named: dict[str, Source | None] = {}
        self._together: dict[str, Mapping[str, Array]] = {}
        self._memos: dict[str, dict[str, object]] = {}
        self._grounds: dict[tuple[str, str | None], Ground | None] = {}

    def keyed(self, rows: Sequence[Row]) -> Source:
        """Alike channels as their keys and ends give them: what their first rule reads. See `alikeness`."""
        read = _before_rules(rows)
        refs = [(thing.id, name) for thing, name in rows]

        def at(t: Array) -> Array:
            if t is self.grid and all(ref in self.before for ref in refs):
                known = [_spread(self.before[ref], t.shape[1]) for ref in refs]
                return known[0] if len(known) == 1 else np.concatenate(known)
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
            thing.figure if isinstance(thing, FigureObject) else None,
            lambda object_id: self._ground(object_id, thing.parent),
            lambda object_id: self._place(object_id, thing.parent),
            self._memos.setdefault(thing.id, {}),
        )

    def ruled(self, rows: Sequence[Row]) -> Source:
        """Alike channels after all their rules that are switched on."""
        return chained(self.keyed(rows), list(zip(*(thing.rules_on(name) for thing, name in rows), strict=True)))

    def look(self, object_id: str, name: str) -> Source | None:
        """One channel after all its rules, or the value of a dial, if the scene has it."""
        if object_id in self.scene.dials_by_id:
            return self._dial(object_id)
        thing = self.scene.by_id.get(object_id)
        return self.final(object_id, name) if thing is not None and name in thing.specs else None

    def named(self, text: str) -> Source | None:
        """What formulas call by a name: a channel after all its rules, or a dial that holds numbers."""
        if text in self._named:
            return self._named[text]
        ref = resolved(self.scene, (NAMED, text))
        dial = self.scene.dials_by_id.get(ref[0]) if ref is not None else None
        found = None if ref is None or (dial is not None and dial.is_colour) else self.look(*ref)
        self._named[text] = found
        return found

    def _dial(self, owner: str) -> Source:
        dial = self.scene.dials_by_id[owner]
        ref = (owner, DIAL_CHANNEL)
        if ref not in self._final:
            streams = np.array([[_stream(*ref)]], dtype=np.uint64)
            read = self._remembered(ref, lambda t: dial_values(dial, t))
            self._final[ref] = Source(
                read, np.empty(0), self.timing, streams, (dial.channel,), owner, DIAL_CHANNEL, self._nothing, self.look, self.named, _no_frames
            )
        return self._final[ref]

    def _nothing(self, channel: str) -> Source:
        raise LookupError(f"a dial has no channel '{channel}' beside its value")

    def contacts(self, object_id: str) -> Array:
        """The frames (k,) at which the rules of an object have it meet something, in order; as they are before later rules retime them."""
        thing = self.scene.by_id[object_id]
        found = [np.empty(0)]
        for name in ("x", "y"):
            rules = thing.rules_on(name)
            for n, rule in enumerate(rules):
                if rule.spec.contacts is not None:
                    source = chained(self.keyed([(thing, name)]), [[one] for one in rules[:n]])
                    found.append(rule.spec.contacts(source, RuleSettings([rule], source)))
        return np.unique(np.concatenate(found))

    def at_once(self, thing: SceneObject, name: str, reads: Sequence[Ref]) -> Array | None:
        """A channel at `grid`, where nothing keys it and a single rule acts on it whose work needs no chain of cards: a link that reads what is known
        there, or a rule that works out all its channels together. None for any other; what is given is what the chain would give. `reads` is
        all the channel looks at."""
        rules = thing.rules_on(name)
        if len(rules) != 1 or _kind(thing, name) != "still" or thing.specs[name].is_colour:
            return None
        if rules[0].kind == link.SPEC.kind:
            return self._linked(thing, name, rules[0], reads)
        if rules[0].spec.together is None or name == FACING:
            return None
        free = self.after[thing.id].get(f"{name.partition('.')[0]}.free")
        if free is not None and free.any():
            return None
        if thing.id not in self._together:
            source = self.keyed([(thing, name)])
            self._together[thing.id] = rules[0].spec.together(source, RuleSettings(rules, source), self.grid)
        added = self._together[thing.id].get(name)
        return None if added is None else added + _plain(thing, name)

    def _linked(self, thing: SceneObject, name: str, rule: Rule, reads: Sequence[Ref]) -> Array | None:
        """A channel made by one link from what is known at `grid`; None if the formula reads anything else."""
        node = link.tree_of(rule.word("formula"))
        if node is None:
            return None
        known: dict[str, Array] = {}
        named = references(node)
        for one in named:
            # What is but one can be no other.
            ref = reads[0] if len(named) == len(reads) == 1 else resolved(self.scene, (NAMED, one.text))
            values = self.after.get(ref[0], {}).get(ref[1]) if ref is not None and ref not in self.waiting else None
            if values is None or one.frames or one.seconds:
                return None
            known[one.text] = values[None]
        so_far = np.full(self.grid.shape, _plain(thing, name))
        row: Array = link.put_together(node, self.grid, self.timing.fps, so_far, lambda one: known[one.text], rule.mode)[0]
        return row

    def walk(self, object_id: str) -> Walk | None:
        """How a figure walks, if a gait walks it."""
        thing = self.scene.by_id[object_id]
        rule = next((one for one in thing.rules if one.on and one.kind == gait.SPEC.kind), None)
        if rule is None or not isinstance(thing, FigureObject):
            return None
        source = self.keyed([(thing, "x")])
        return Walk(gait.given(source, RuleSettings([rule], source)))

    def _world(self, object_id: str | None, t: Array) -> Array:
        """The matrix from the space of an object to the picture at frames t (1, n): (n, 6) or (1, 6); bones are not gone along."""
        world = np.array([[1.0, 0, 0, 1, 0, 0]])
        while object_id is not None:
            channels = {name: self.final(object_id, name).at(t)[0] for name in GEOMETRY}
            world = matrix.multiply(matrix.object_matrix(channels), world)
            object_id = self.scene.by_id[object_id].parent
        return world

    def _place(self, object_id: str, seen_from: str | None) -> Callable[[Array], Array] | None:
        """Where the pivot of an object is, as something sees it that hangs on `seen_from`: reads (n, 2) at frames t (1, n)."""
        if object_id not in self.scene.by_id:
            return None

        def at(t: Array) -> Array:
            world = matrix.multiply(matrix.home(self._world(seen_from, t)), self._world(object_id, t))
            x, y = (self.final(object_id, name).at(t)[0] for name in ("pivot.x", "pivot.y"))
            return matrix.apply(world, x, y)

        return at

    def _ground(self, object_id: str, seen_from: str | None) -> Ground | None:
        """The upper edge of a shape, as something sees it that hangs on `seen_from`; where both are at frame 0."""
        if (object_id, seen_from) not in self._grounds:
            thing = self.scene.by_id.get(object_id)
            self._grounds[object_id, seen_from] = None
            if isinstance(thing, ShapeObject):
                first = np.zeros((1, 1))
                world = matrix.multiply(matrix.home(self._world(seen_from, first)), self._world(object_id, first))
                lines = [matrix.apply(world, *line.T) for line in self._outline(thing).lines()]
                self._grounds[object_id, seen_from] = Ground.under(lines)
        return self._grounds[object_id, seen_from]

    def _outline(self, thing: ShapeObject) -> Outline:
        if isinstance(thing.shape, OutlineShape):
            return parse_path(thing.shape.d)
        draw, words = DRAWN[thing.shape.type]
        return draw(**{word: float(self.final(thing.id, name).at(np.zeros((1, 1)))[0, 0]) for name, word in words.items()})

    def final(self, object_id: str, name: str) -> Source:
        """One channel after all its rules; what has been prepared for one reader serves the next."""
        ref = (object_id, name)
        if ref not in self._final:
            thing = self.scene.by_id[object_id]
            source = self._setting(thing, name) if SETTING in name else self.ruled([(thing, name)])
            self._final[ref] = source.reading(self._remembered(ref, source.at))
        return self._final[ref]

    def _setting(self, thing: SceneObject, name: str) -> Source:
        """A setting of a rule, named `rule:setting`: its formula over what its keys say."""
        rule_id, _, setting = name.partition(SETTING)
        rule = next(one for one in thing.rules if one.id == rule_id)
        # What a setting reads is the same whichever channel its rule acts on.
        source = self.keyed([(thing, "x")])
        settings = RuleSettings([rule], source)
        return source.reading(lambda t: number_or(settings, setting, t))

    def _remembered(self, ref: Ref, read: Read) -> Read:
        def at(t: Array) -> Array:
            known = self.after.get(ref[0], {}).get(ref[1]) if t is self.grid and ref not in self.waiting else None
            return read(t) if known is None else _spread(known, t.shape[1])

        return at


def dial_values(dial: Dial, t: Array) -> Array:
    """The values of a dial at frames t (1, n), within its range: (1, n), or colours as sRGB with alpha, (1, n, 4)."""
    channel = dial.channel
    if dial.is_colour:
        return evaluate_colours([channel], t[0]) if channel.keys else np.tile(parse_hex(str(channel.base)), (*t.shape, 1))
    if not channel.keys:
        base = channel.base if isinstance(channel.base, int | float) else dial.spec.default
        return np.full(t.shape, float(base))  # type: ignore[arg-type]
    values = Laid([channel]).at(t)
    return values if dial.low is None and dial.high is None else np.clip(values, dial.low, dial.high)


def _spread(values: Array, n: int) -> Array:
    """What is known of a channel, (n,) or (1,), as a row of n that is not to be written to."""
    row = values[None] if len(values) == n else np.repeat(values[None], n, axis=1)
    row.flags.writeable = False
    return row


def _no_frames() -> Array:
    return np.empty(0)


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
    return thing.channels.get("path" if _kind(thing, name) == "along" else name, _NEVER_TOUCHED)


def _before_rules(rows: Sequence[Row]) -> Callable[[Array], Array]:
    if rows[0][0].specs[rows[0][1]].is_colour:
        return lambda t: np.stack([_colours(thing, name, t[n % len(t)]) for n, (thing, name) in enumerate(rows)])
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


def _colours(thing: SceneObject, name: str, t: Array) -> Array:
    """A colour channel as its keys give it at frames t (n,): (n, 4)."""
    channel = thing.channels.get(name, _NEVER_TOUCHED)
    if channel.keys:
        rows: Array = evaluate_colours([channel], t)[0]
        return rows
    return np.tile(parse_hex(str(channel.base if channel.base is not None else thing.specs[name].default)), (len(t), 1))


def _plain(thing: SceneObject, name: str) -> float:
    base = thing.channels.get(name, _NEVER_TOUCHED).base
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


@lru_cache(maxsize=65536)
def _stream(object_id: str, name: str) -> int:
    """A number for this channel alone, the same on every machine."""
    return int.from_bytes(hashlib.blake2b(f"{object_id} {name}".encode(), digest_size=8).digest(), "big")
