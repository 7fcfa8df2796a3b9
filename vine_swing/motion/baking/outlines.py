"""The outlines that keys and rules on outlines make, at any frames.

An object's outline is drawn from its channels, or comes from the keys of its channel `outline`; then its own rules bend it in its own space, then
those of its parent, in the space of each. What nothing bends is left to be drawn from its channels alone.
"""

from collections.abc import Callable, Sequence
from functools import cache, partial
from typing import Protocol

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.effort import Effort, TooMuchWork
from vine_swing.motion.baking.keyed import Row
from vine_swing.motion.baking.tables import TableFiller
from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.limits import MOST_POINTS
from vine_swing.motion.basics.rows import shrunk
from vine_swing.motion.basics.specs import OUTLINE, limited
from vine_swing.motion.curves.contours import contours_of, joined
from vine_swing.motion.curves.outline import Outline
from vine_swing.motion.curves.series import Block, OutlineSeries
from vine_swing.motion.outline.drawing import Drawing, drawing_of
from vine_swing.motion.rules.bending import Bending, Box
from vine_swing.motion.rules.rule import Rule, RuleSettings
from vine_swing.motion.rules.spec import Redraw, Source
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.shapes import Shape
from vine_swing.motion.timing.outlines import KeyedOutlines

Array = NDArray[np.float64]
Index = NDArray[np.intp]
#: The outlines at frames t (n,).
ReadOutlines = Callable[[Array], OutlineSeries]
#: The values of a channel at frames t (n,): (n,) or (1,).
Values = Callable[[str, Array], Array]
_FIRST = np.zeros(1)
#: Matrices with smaller determinants have no way back.
_FLAT = 1e-12


class WorldReader(Protocol):
    """What reading outlines takes of reading places; see `PlaceReader` (places.py)."""

    def world(self, object_id: str | None, t: Array) -> Array:
        """The matrix from the space of an object to the scene."""
        ...


class ChannelReader(Protocol):
    """What reading outlines takes of reading channels; see `Reader` (reading.py)."""

    scene: Scene
    grid: Array
    filler: TableFiller
    places: "WorldReader"
    effort: Effort

    def final(self, object_id: str, name: str) -> Source:
        """One channel after all its rules."""
        ...

    def keyed(self, rows: Sequence[Row]) -> Source:
        """Channels as their keys and ends give them."""
        ...


def is_bent(scene: Scene, obj: SceneObject) -> bool:
    """Whether keys or rules on outlines make what is seen of a drawn object."""
    return obj.drawn_shape is not None and (obj.is_keyed(OUTLINE) or bool(obj.rules_on(OUTLINE)) or bool(benders(scene, obj)))


def benders(scene: Scene, obj: SceneObject) -> list[SceneObject]:
    """Return the parents of an object, up to the first parade, that bend their children; the nearest first. A parade bends its copies one by one,
    each at its position, and so do the parade's parents."""
    result: list[SceneObject] = []
    for upward in scene.upwards(obj.parent):
        if upward.copying is not None:
            break
        if upward.rules_on(OUTLINE):
            result.append(upward)
    return result


def drawn_series(drawing: Drawing, values: Sequence[Array], name: str, effort: Effort | None = None) -> OutlineSeries:
    """The outlines of something called `name`, drawn from what each of the drawing's `names` is over n frames: (n,), or (1,) where it never changes.

    Raises:
        TooMuchWork: if they would have more points than could be kept, or `effort` ends.
    """
    if not drawing.names:
        return OutlineSeries.still(drawing.draw({}))
    effort = effort or Effort()
    distinct, which = np.unique(np.stack(np.broadcast_arrays(*values), axis=-1), axis=0, return_inverse=True)
    outlines: dict[int, Outline] = {}
    points, order = 0, []
    for row in distinct:
        item = drawing.draw(dict(zip(drawing.names, map(float, row), strict=True)))
        # Different values may give the very same outline, as those of a number that is shown rounded.
        if id(item) not in outlines:
            outlines[id(item)] = item
            points += len(item.points)
            check_points(points, name)
            effort.spend(len(item.points))
        order.append(id(item))
        effort.advance(1 / len(distinct))
    places = {key: place for place, key in enumerate(outlines)}
    return OutlineSeries.of(list(outlines.values()), np.array([places[key] for key in order], np.intp)[which.reshape(-1)])


def check_points(points: int, name: str) -> None:
    """Refuse outlines with more points together than could be kept.

    Raises:
        TooMuchWork: naming the object.
    """
    if points > MOST_POINTS:
        raise TooMuchWork(
            f"the outline of '{name}' would take more than {MOST_POINTS / 1e6:.0f} million points over the whole scene; keep its shape"
            " and key its scale, or make it shorter"
        )


class OutlineReader:
    """Reads outlines of one scene at any frames; preparations are reused between reads."""

    def __init__(self, reader: ChannelReader) -> None:
        self._reader = reader
        #: Counts what is computed for outlines, and how far that has come.
        self.effort = reader.effort
        self._own: dict[str, list[tuple[Rule | None, ReadOutlines]]] = {}
        self._boxes: dict[str, Box] = {}

    @property
    def _scene(self) -> Scene:
        return self._reader.scene

    def cards(self, obj: SceneObject, shape: Shape | None = None) -> list[tuple[Rule | None, ReadOutlines]]:
        """Return the cards of a drawn object's outline: drawn or keyed (no rule), then after each active rule of its own."""
        if shape is not None or obj.id not in self._own:
            return self._prepared(obj, shape)
        return self._own[obj.id]

    def seen(self, obj: SceneObject, t: Array, *, shape: Shape | None = None, worlds: Callable[[str], Array] | None = None) -> OutlineSeries:
        """The outline of a drawn object at frames t (n,), after all rules, in its own space.

        Args:
            obj: the object.
            t: the frames.
            shape: drawn instead of its own shape.
            worlds: the matrices of objects at these frames, (n, 6) or (1, 6), by id; computed if left out.
        """
        read = self.cards(obj, shape)[-1][1]
        for above in benders(self._scene, obj):
            there = partial(self._there, obj, above, t, worlds)
            read = self.bent_by(above, read, there, partial(self.box, above))
        result = read(t).compact()
        check_points(result.size, obj.name)
        return result

    def bent_by(self, above: SceneObject, read: ReadOutlines, there: Callable[[Array], Array], box: Callable[[], Box]) -> ReadOutlines:
        """Outlines bent by their parent. `there` gives the matrices into its space at frames t (n,): (n, 6) or (1, 6)."""
        inside = self._chained(above, lambda t: _moved(read(t), there(t), len(t)), above.rules_on(OUTLINE), box)

        def bent(t: Array) -> OutlineSeries:
            matrices = there(t)
            # A flat matrix has no inverse to return from the bent space.
            flat = (np.abs(matrix.determinant(matrices)) < _FLAT).any()
            return read(t) if flat else _moved(inside(t), matrix.safe_inverse(matrices), len(t))

        return bent

    def _chained(self, owner: SceneObject, read: ReadOutlines, rules: Sequence[Rule], box: Callable[[], Box]) -> ReadOutlines:
        for rule in rules:
            read = partial(self._after, owner, rule, box, None, read)
        return read

    def _there(self, obj: SceneObject, above: SceneObject, grid: Array, worlds: Callable[[str], Array] | None, t: Array) -> Array:
        """From the space of an object to that of its parent at frames t; `worlds` are known at the frames `grid`."""
        return self._to(obj, above, t, worlds if t is grid else None)

    def gathered(self, above: SceneObject, upto: int, t: Array) -> OutlineSeries:
        """All that is attached to something, as one outline in its space at frames t (n,), after the first `upto` of its own rules on outlines."""
        rules = [rule for rule in above.rules_for(OUTLINE)[:upto] if rule.on]
        parts = []
        for part in self._below(above):
            read = self.cards(part)[-1][1]
            placed = partial(self._placed_in, part, above, read)
            parts.append(self._chained(above, placed, rules, partial(self.box, above))(t))
        rows = [[part.at(row) for part in parts] for row in range(len(t))]
        outlines = [Outline(b"".join(item.verbs for item in row), np.concatenate([np.empty((0, 2)), *(item.points for item in row)])) for row in rows]
        return OutlineSeries.of(outlines, np.arange(len(t))).compact()

    def _placed_in(self, part: SceneObject, above: SceneObject, read: ReadOutlines, t: Array) -> OutlineSeries:
        return _moved(read(t), self._to(part, above, t, None), len(t))

    def box(self, obj: SceneObject) -> Box:
        """The bounds, in its own space, of what an object's rules bend, as that is at the first frame of the scene before any of them."""
        if obj.id not in self._boxes:
            if obj.drawn_shape is not None:
                self._boxes[obj.id] = self.cards(obj)[0][1](_FIRST).at(0).extent()
            else:
                self._boxes[obj.id] = _around(
                    [_moved(self.cards(item)[-1][1](_FIRST), self._to(item, obj, _FIRST, None), 1) for item in self._below(obj)]
                )
        return self._boxes[obj.id]

    def _below(self, above: SceneObject) -> list[SceneObject]:
        """The drawn objects that are attached to something, however deep."""
        result, waiting = [], list(self._scene.children.get(above.id, ()))
        while waiting:
            item = self._scene.by_id[waiting.pop(0)]
            if item.drawn_shape is not None:
                result.append(item)
            waiting += self._scene.children.get(item.id, ())
        return result

    def _to(self, obj: SceneObject, above: SceneObject, t: Array, worlds: Callable[[str], Array] | None) -> Array:
        """From the space of an object to that of its parent, (n, 6) or (1, 6)."""
        read = worlds or (lambda object_id: self._reader.filler.run(lambda: self._reader.places.world(object_id, t[None])))
        return shrunk(matrix.multiply(matrix.safe_inverse(read(above.id)), read(obj.id)))

    def _prepared(self, obj: SceneObject, shape: Shape | None) -> list[tuple[Rule | None, ReadOutlines]]:
        # Known before it is finished: the box that rules follow is that of its first card.
        cards: list[tuple[Rule | None, ReadOutlines]] = [(None, self._before_rules(obj, shape))]
        if shape is None:
            self._own[obj.id] = cards
        box = cache(partial(_box_of, cards[0][1]))
        for rule in obj.rules_on(OUTLINE):
            read = cards[-1][1]
            rest = cache(partial(_first_of, read))
            cards.append((rule, partial(self._after, obj, rule, box, rest, read)))
        return cards

    def _before_rules(self, obj: SceneObject, shape: Shape | None) -> ReadOutlines:
        if obj.is_keyed(OUTLINE) and shape is None:
            return KeyedOutlines(obj.channels[OUTLINE]).at
        drawn = shape if shape is not None else obj.drawn_shape
        assert drawn is not None, "only what is drawn has an outline"
        drawing = drawing_of(drawn, fine=bool(obj.rules_on(OUTLINE)) or bool(benders(self._scene, obj)))

        def read(t: Array) -> OutlineSeries:
            return drawn_series(drawing, [self._values(obj, name, t) for name in drawing.names], obj.name)

        return read

    def _values(self, obj: SceneObject, name: str, t: Array) -> Array:
        """A channel of an object at frames t (n,), within its limits: (n,), or (1,) where it never changes."""
        reader = self._reader
        frames = reader.grid if len(t) == reader.grid.shape[1] and (t == reader.grid[0]).all() else t[None]
        row: Array = reader.filler.run(lambda: reader.final(obj.id, name).at(frames))[0]
        return shrunk(limited(obj.specs[name], row))

    # -- rules

    def _after(
        self, owner: SceneObject, rule: Rule, box: Callable[[], Box], rest: Callable[[], Outline] | None, before: ReadOutlines, t: Array
    ) -> OutlineSeries:
        """The outlines after one rule of `owner`; `rest` gives what comes to it at the first frame of the scene, where that is known."""
        source = self._reader.keyed([(owner, "x")])
        settings = RuleSettings([rule], source)
        spec = rule.spec
        if spec.on_outlines == "time":
            frames = self._reader.filler.run(lambda: spec.prepare(source.reading(lambda t: t), settings, rule.mode)(t[None]))[0]
            distinct, which = np.unique(frames, return_inverse=True)
            return before(distinct).read(which.reshape(-1))
        if spec.on_outlines == "points":
            return self._points_after(rule, settings, before, t)
        scene = np.arange(self._scene.length, dtype=float)[None]
        fps = self._scene.fps
        moves = any(settings.breaks(name) is not None for name, setting in spec.settings.items() if not setting.is_word)
        still = not moves and spec.still(settings, _FIRST[None])

        result = before(t)
        self._reader.effort.spend(sum(block.points.size for block in result.blocks))
        if spec.redraw is not None:
            return self._redrawn(result, spec.redraw, settings, t, lambda frames: Bending(settings, frames[None], scene, fps, box, []))
        assert spec.bend is not None, "what acts on outlines bends or draws them, or reads them at other times"
        bend = spec.bend

        def bent(block: Block, frames: Array) -> Block:
            first = rest() if rest is not None else None
            if first is None or first.verbs != block.verbs:
                contours = contours_of(block.verbs, block.points)
                resting = [contour.at(slice(1)) for contour in contours]
            else:
                # Taken apart together: how many pieces a contour has follows whether it ends where it begins.
                both = contours_of(block.verbs, np.concatenate([first.points[None], block.points]))
                resting, contours = [item.at(slice(1)) for item in both], [item.at(slice(1, None)) for item in both]
            how = Bending(settings, frames[None], scene, fps, box, resting)
            return Block(*joined(self._reader.filler.run(lambda: bend(contours, how))))

        if still:
            return result.changed(lambda block: bent(block, _FIRST))
        return result.changed_by_frame(len(t), lambda block, rows: bent(block, t[rows]))

    def _redrawn(self, result: OutlineSeries, redraw: Redraw, settings: RuleSettings, t: Array, how: Callable[[Array], Bending]) -> OutlineSeries:
        """The outlines after a rule that draws other points at every frame; those that come of the same numbers are made once."""
        names = [name for name, setting in settings.spec.settings.items() if not setting.is_word]
        numbers = self._reader.filler.run(lambda: [settings.number(name, t[None]) for name in names])
        table = np.concatenate([np.broadcast_to(number, (1, len(t))) for number in numbers if number is not None] or [np.zeros((1, len(t)))])
        series = OutlineSeries(result.blocks, np.broadcast_to(result.which, (len(t),)))
        outlines: list[Outline] = []
        which = np.empty(len(t), np.intp)
        for block, frames, rows in series.parts():
            if not len(frames):
                continue
            distinct = np.vstack([rows, table[:, frames]])
            _, first, back = np.unique(distinct, axis=1, return_index=True, return_inverse=True)
            points = block.points if len(block.points) == 1 else block.points[rows[first]]
            contours = contours_of(block.verbs, points)
            created = self._reader.filler.run(lambda contours=contours, at=t[frames[first]]: redraw(contours, how(at)))  # type: ignore[misc]
            which[frames] = len(outlines) + back.reshape(-1)
            outlines += [Outline(verbs, drawn[0]) for verbs, drawn in map(joined, created)]
        return OutlineSeries.of(outlines, which)

    def _points_after(self, rule: Rule, settings: RuleSettings, before: ReadOutlines, t: Array) -> OutlineSeries:
        """The outlines after a rule on numbers that takes every coordinate of every point for one. Where the points are others from frame to frame,
        nothing is one and the same number over time, and the rule does nothing."""
        whole = before(np.arange(self._scene.length, dtype=float))
        if len({(block.verbs, block.points.shape[1]) for block in whole.blocks}) > 1:
            return before(t)
        verbs, count = whole.blocks[0].verbs, whole.blocks[0].points.shape[1]

        def read(frames: Array) -> Array:
            distinct, which = np.unique(frames, return_inverse=True)
            series = before(distinct)
            points = np.concatenate([block.points for block in series.blocks])[np.broadcast_to(series.which, (len(distinct),))]
            rows: Array = points.reshape(len(distinct), -1).T[:, which.reshape(-1)]
            return rows

        source = settings.source.reading(read)
        created = self._reader.filler.run(lambda: rule.spec.prepare(source, settings, rule.mode)(t[None]))
        return OutlineSeries((Block(verbs, np.ascontiguousarray(created.T).reshape(len(t), count, 2)),), np.arange(len(t)))


def _first_of(read: ReadOutlines) -> Outline:
    return read(_FIRST).at(0)


def _box_of(read: ReadOutlines) -> Box:
    return _first_of(read).extent()


def _around(all_: list[OutlineSeries]) -> Box:
    boxes = [item.at(0).extent() for item in all_ if len(item.at(0).points)]
    if not boxes:
        return 0.0, 0.0, 0.0, 0.0
    left, top, right, bottom = zip(*boxes, strict=True)
    return min(left), min(top), max(right), max(bottom)


def _moved(series: OutlineSeries, by: Array, length: int) -> OutlineSeries:
    """The outlines moved by matrices (n, 6) or (1, 6)."""

    def change(block: Block, frames: Index) -> Block:
        rows = by if len(by) == 1 else by[frames]
        a, b, c, d, e, f = (rows[:, n, None] for n in range(6))
        x, y = block.points[..., 0], block.points[..., 1]
        return Block(block.verbs, np.stack([a * x + c * y + e, b * x + d * y + f], axis=-1))

    if len(by) == 1:
        return series.changed(lambda block: change(block, np.zeros(1, np.intp)))
    return series.changed_by_frame(length, change)
