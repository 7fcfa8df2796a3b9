"""Reading the channels of a scene at any frames, before and after their rules."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import partial

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.effort import Effort
from vine_swing.motion.baking.keyed import Row, before_rules, breaks_of, dial_values, moving_channel, stream_of
from vine_swing.motion.baking.outlines import OutlineReader
from vine_swing.motion.baking.places import PlaceReader
from vine_swing.motion.baking.tables import Table, TableFiller
from vine_swing.motion.figure.walk import Walk
from vine_swing.motion.formula import ALONE, Copy
from vine_swing.motion.rules import Source, Timing, gait
from vine_swing.motion.rules.link import NAMED
from vine_swing.motion.rules.rule import SETTING, Rule, RuleSettings, chained
from vine_swing.motion.rules.spec import Read, SceneView, number_of
from vine_swing.motion.scene.dial import DIAL_CHANNEL
from vine_swing.motion.scene.graph import DRAWING, Ref, dependencies_of, resolved
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject

Array = NDArray[np.float64]
#: A card that costs more numbers than this for each one read is kept in a table, and read from there between whole frames too.
_EXPENSIVE = 24.0
#: A channel that costs more than this is kept in a table at whole frames, where nothing is lost by it.
_WORTH_KEEPING = 3.0
#: What reading a table costs.
_LOOKED_UP = 3.0


@dataclass(frozen=True)
class CopyView:
    """Differences of one copy of a parade.

    base: reads what is the same for all copies.
    copy: which copy it is.
    varying: the channels that may differ from those of `base`.
    given: what lists make of a channel, by object id and channel name: from its values after all rules.
    words: what lists write in texts, by object id.
    """

    base: "Reader"
    copy: Copy
    varying: frozenset[Ref]
    given: Mapping[Ref, Callable[[Array], Array]]
    words: Mapping[str, str]


class Reader:
    """Reads the channels of one scene. Values known at the bake's frames are not computed again.

    before: values (n,) or (1,) at `grid` before a channel's rules, by object id and channel name.
    after: values at `grid` after all rules, by object id, then by channel name; those `waiting` are not made yet.
    effort: counts what is read.
    filler: what fills tables; work that reads chains of rules is to be run by `filler.run`.
    """

    def __init__(self, scene: Scene, grid: Array | None = None, *, effort: Effort | None = None, view: CopyView | None = None) -> None:
        """
        Args:
            scene: whose channels are read.
            grid: the frames (n,) of a bake; to read at them, hand `reader.grid` to a source.
            effort: counts what is read; unbounded if left out.
            view: reads as one copy of a parade sees it.
        """
        self.scene = scene
        self._view = view
        self.timing = Timing(scene.fps, scene.length, view.copy if view is not None else ALONE)
        self.grid = np.empty((1, 0)) if grid is None else grid[None, :]
        self.before: dict[Ref, Array] = {}
        self.after: dict[str, dict[str, Array]] = {}
        self.waiting: set[Ref] = set()
        # One filler of tables for all copies: a chain of one reads tables of what all share.
        self.filler: TableFiller = view.base.filler if view is not None else TableFiller()
        self.effort = effort or Effort()
        self._final: dict[Ref, Source] = {}
        self._made: dict[Ref, Source] = {}
        self._tables: dict[Ref, Table] = {}
        #: Cards by the identity of what they read, which is kept beside them so that no other can have it.
        self._cards: dict[tuple[int, str], tuple[Source, Source]] = {}
        #: Channels as some card of theirs reads them, by object, channel and the card's place.
        self._before_cards: dict[tuple[str, str, int], Source] = {}
        self._named: dict[str, Source | None] = {}
        self._memos: dict[tuple[str, ...], dict[str, object]] = {}
        self.outlines = OutlineReader(self)
        self.places = PlaceReader(self)
        #: The first of `grid`, if it is a run of whole frames: its values can then be looked up at other frames.
        self._run = _first_of_run(self.grid[0])

    @property
    def view(self) -> CopyView | None:
        """How a copy of a parade sees the scene, if it reads for one."""
        return self._view

    @property
    def is_plain(self) -> bool:
        """Whether it reads the scene itself, and not as a copy of a parade sees it."""
        return self._view is None

    @property
    def words(self) -> Mapping[str, str]:
        """What texts say instead of their own words, by object id."""
        return self._view.words if self._view is not None else {}

    @property
    def varying(self) -> frozenset[Ref]:
        """The channels that differ from those of the scene itself."""
        return self._view.varying if self._view is not None else frozenset()

    def keyed(self, rows: Sequence[Row]) -> Source:
        """Channels with one batch key as their keys and ends give them: what their first rule reads."""
        read: list[Callable[[Array], Array]] = []
        refs = [(obj.id, name) for obj, name in rows]

        def at(t: Array) -> Array:
            if t is self.grid and all(ref in self.before for ref in refs):
                cached = [_spread(self.before[ref], t.shape[1]) for ref in refs]
                return cached[0] if len(cached) == 1 else np.concatenate(cached)
            self.effort.spend(len(refs) * t.shape[1])
            if not read:
                read.append(before_rules(rows, self.scene))
            return read[0](t)

        obj, name = rows[0]
        objects = [row for row, _ in rows]
        return Source(
            at=at,
            breaks=breaks_of(obj, name, self.timing),
            timing=self.timing,
            streams=np.array([stream_of(row.id, channel) for row, channel in rows], dtype=np.uint64)[:, None],
            keys=tuple(moving_channel(*row) for row in rows),
            owner=obj.id,
            channel=name,
            own_keyed=lambda other: self.keyed([(obj, other) for obj in objects]),
            own_final=lambda other: self._own(objects, other),
            contacts=lambda: [self._contacts(obj) for obj in objects],
            scene=SceneView(
                final=self.look,
                named=self.named,
                figure=obj.skeleton,
                surface=lambda object_id: self.places.ground(object_id, obj.parent),
                place=lambda object_id: self.places.pivot(object_id, obj.parent),
            ),
            memo=self._memos.setdefault(tuple(obj.id for obj in objects), {}),
            spend=self.effort.spend,
        )

    def ruled(self, rows: Sequence[Row]) -> Source:
        """Channels with one batch key after all their rules that are switched on."""
        cards = list(zip(*(obj.rules_on(name) for obj, name in rows), strict=True))
        return chained(self.keyed(rows), cards, kept=self.kept) if cards else self.keyed(rows)

    def after_card(self, before: Source, rule: Rule) -> Source:
        """One channel after one more rule; asked again, it is the same source, tables and all."""
        key = (id(before), rule.id)
        if key not in self._cards:
            self._cards[key] = before, chained(before, [[rule]])
        return self._cards[key][1]

    def kept(self, source: Source) -> Source:
        """A card that is expensive to read often, read from a table."""
        if source.cost <= _EXPENSIVE:
            return source
        return source.reading(Table(source.at, self.filler, between=True).at, cost=_LOOKED_UP)

    def _own(self, objects: Sequence[SceneObject], name: str) -> Source:
        """A channel of some objects, one a row, after all its rules."""
        if len(objects) == 1:
            return self.final(objects[0].id, name)
        rows = [(obj, name) for obj in objects]
        source = self.ruled(rows)

        def at(t: Array) -> Array:
            cached = [self.known(ref[0].id, name) for ref in rows] if t is self.grid else []
            if not cached or any(item is None for item in cached):
                return source.at(t)
            return np.concatenate([_spread(item, t.shape[1]) for item in cached if item is not None])

        return source.reading(at)

    def look(self, object_id: str, name: str) -> Source | None:
        """One channel after all its rules, or the value of a dial, if the scene has it."""
        if object_id in self.scene.dials_by_id:
            return self._dial(object_id)
        obj = self.scene.by_id.get(object_id)
        return self.final(object_id, name) if obj is not None and name in obj.specs else None

    def named(self, text: str) -> Source | None:
        """What formulas call by a name: a channel after all its rules, or a dial that holds numbers."""
        if text in self._named:
            return self._named[text]
        ref = resolved(self.scene, (NAMED, text))
        dial = self.scene.dials_by_id.get(ref[0]) if ref is not None else None
        result = None if ref is None or (dial is not None and dial.is_colour) else self.look(*ref)
        self._named[text] = result
        return result

    def _dial(self, owner: str) -> Source:
        dial = self.scene.dials_by_id[owner]
        ref = (owner, DIAL_CHANNEL)
        if ref not in self._final:
            self._final[ref] = Source(
                at=self._remembered(ref, _with_cache(partial(dial_values, self.scene, dial))),
                breaks=np.empty(0),
                timing=self.timing,
                streams=np.array([[stream_of(*ref)]], dtype=np.uint64),
                keys=(dial.channel,),
                owner=owner,
                channel=DIAL_CHANNEL,
                own_keyed=_nothing,
                own_final=_nothing,
                contacts=lambda: [np.empty(0)],
                scene=SceneView(final=self.look, named=self.named),
            )
        return self._final[ref]

    def contacts(self, object_id: str) -> Array:
        """The frames (k,) at which the rules of an object have it meet something, in order; as they are before later rules retime them."""
        return self.filler.run(lambda: self._contacts(self.scene.by_id[object_id]))

    def _contacts(self, obj: SceneObject) -> Array:
        result = [np.empty(0)]
        for name in ("x", "y"):
            rules = obj.rules_on(name)
            for n, rule in enumerate(rules):
                if rule.spec.contacts is not None:
                    key = (obj.id, name, n)
                    source = self._before_cards.get(key) or chained(self.keyed([(obj, name)]), [[rule] for rule in rules[:n]], kept=self.kept)
                    self._before_cards[key] = source
                    result.append(rule.spec.contacts(source, RuleSettings([rule], source)))
        return np.unique(np.concatenate(result))

    def walk(self, object_id: str) -> Walk | None:
        """How a figure walks, if a gait walks it."""
        obj = self.scene.by_id[object_id]
        rule = next((rule for rule in obj.rules if rule.on and rule.kind == gait.SPEC.kind), None)
        if rule is None or obj.skeleton is None:
            return None
        created = self._memos.get((object_id,), {}).get(rule.id)
        if isinstance(created, gait._Walked):
            return created.walk
        source = self.keyed([(obj, "x")])
        return Walk(gait.walk_inputs(source, RuleSettings([rule], source)))

    def final(self, object_id: str, name: str) -> Source:
        """Return a channel after all its rules; preparations are reused between readers."""
        ref = (object_id, name)
        if self._view is not None and ref not in self._view.varying:
            return self._view.base.final(object_id, name)
        if ref not in self._final:
            # Dependencies are prepared first, without recursion: chains of links and followers may be thousands long.
            for needed in self._unprepared(ref):
                self._final[needed] = self._prepared(*needed)
        return self._final[ref]

    def _unprepared(self, ref: Ref) -> list[Ref]:
        """A channel or setting and all that it looks at, however far, that are not prepared yet, dependencies first."""
        order: list[Ref] = []
        visited: set[Ref] = set()
        waiting: list[tuple[Ref, bool]] = [(ref, False)]
        while waiting:
            entry, ready = waiting.pop()
            if ready:
                order.append(entry)
            elif entry not in visited and entry not in self._final and (self._view is None or entry in self._view.varying):
                visited.add(entry)
                waiting.append((entry, True))
                obj = self.scene.by_id.get(entry[0])
                if obj is not None:
                    waiting += [(looked, False) for looked in reversed(dependencies_of(self.scene, obj, entry[1])) if looked[1] != DRAWING]
        return [item for item in order if item[0] in self.scene.by_id]

    def made(self, object_id: str, name: str) -> Source:
        """As `final`, without a table of its own: reads are computed."""
        ref = (object_id, name)
        self.final(*ref)
        return self._made[ref]

    def _prepared(self, object_id: str, name: str) -> Source:
        obj = self.scene.by_id[object_id]
        source = self._setting(obj, name) if SETTING in name else self.ruled([(obj, name)])
        ref = (object_id, name)
        if self._view is not None and ref in self._view.given:
            before, change = source.at, self._view.given[ref]
            source = source.reading(lambda t: change(before(t)))
        self._made[ref] = source
        if source.cost <= _WORTH_KEEPING:
            return source.reading(self._remembered(ref, source.at))
        table = self._tables[ref] = Table(source.at, self.filler, between=source.cost > _EXPENSIVE)
        return source.reading(self._remembered(ref, table.at, table), cost=min(source.cost, _LOOKED_UP) if source.cost > _EXPENSIVE else source.cost)

    def _setting(self, obj: SceneObject, name: str) -> Source:
        """A setting of a rule, named `rule:setting`: its formula over what its keys say."""
        rule_id, _, setting = name.partition(SETTING)
        rule = next(rule for rule in obj.rules if rule.id == rule_id)
        # A setting reads the same channels whichever channel its rule acts on.
        source = self.keyed([(obj, "x")])
        settings = RuleSettings([rule], source)
        cost = 1.0 + sum(result.cost for _, text in rule.linked.get(setting, ()) if (result := self.named(text)) is not None)
        return source.reading(lambda t: number_of(settings, setting, t), cost=cost)

    def prepare(self, ref: Ref, low: float, high: float, *, between: bool) -> None:
        """Fill a channel's table, if it has one, from a frame to another that are known to be read soon, and at places between whole frames."""
        self.final(*ref)
        table = self._tables.get(ref)
        if table is not None:
            self._seed(ref, table)
            table.prepare(low, high, between=between)

    def known(self, object_id: str, name: str) -> Array | None:
        """A channel at `grid` after all its rules, (n,) or (1,), if it is made already."""
        return self.after.get(object_id, {}).get(name) if (object_id, name) not in self.waiting else None

    def _remembered(self, ref: Ref, read: Read, table: Table | None = None) -> Read:
        """A channel's reading, which takes what is made already: at `grid`, and from its table at the frames of `grid` among others."""
        if table is None:

            def at(t: Array) -> Array:
                cached = self.known(*ref) if t is self.grid else None
                return read(t) if cached is None else _spread(cached, t.shape[1])

            return at
        seeded = False

        def at_or_near(t: Array) -> Array:
            nonlocal seeded
            if t is self.grid:
                cached = self.known(*ref)
                if cached is not None:
                    return _spread(cached, t.shape[1])
            elif not seeded:
                seeded = self._seed(ref, table)
            return read(t)

        return at_or_near

    def _seed(self, ref: Ref, table: Table) -> bool:
        """Put what consists of a channel at `grid` into its table; whether it is made."""
        cached = self.known(*ref) if self._run is not None else None
        if cached is None or self._run is None:
            return False
        table.seed(self._run, _spread(cached, self.grid.shape[1]))
        return True


def _with_cache(read: Read) -> Read:
    """A reading that caches its last results: everything that reads a dial reads it at the same frames."""
    cached: list[tuple[Array, Array]] = []

    def at(t: Array) -> Array:
        for frames, values in cached:
            if frames is t:
                return values
        values = read(t)
        cached[:] = [*cached[-3:], (t, values)]
        return values

    return at


def _spread(values: Array, n: int) -> Array:
    """Return channel values, (n,) or (1,), as a read-only row of n."""
    row = values[None] if len(values) == n else np.repeat(values[None], n, axis=1)
    row.flags.writeable = False
    return row


def _nothing(channel: str) -> Source:
    raise LookupError(f"a dial has no channel '{channel}' beside its value")


def _first_of_run(grid: Array) -> int | None:
    """The first of some frames (n,), if they are whole and each is one after the last; None if they are not."""
    if not len(grid) or grid[0] != np.floor(grid[0]) or not (np.diff(grid) == 1).all():
        return None
    return int(grid[0])
