"""From a bake to its paint list.

Objects are painted in the scene's order, whatever is attached to what. What fades (is ever less than opaque) and is painted by more than one step
becomes a group, so that it fades as one picture: a shape with a fill and a line, and whatever is attached to one. Where something else is painted
between the parts of a group, the parts before and those after it are a group each.
"""

from collections.abc import Callable, Collection, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any, Literal

from numpy.typing import NDArray

from vine_swing.motion.baking.baked import Baked
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.basics import colour
from vine_swing.motion.basics.contents import PICTURE_FILES
from vine_swing.motion.basics.gradients import Painted, end_names, stop_names
from vine_swing.motion.basics.values import Blend
from vine_swing.motion.scene.model import Scene
from vine_swing.picture.drawable import Drawable, DrawnInset, DrawnParade, DrawnScene, drawn_scene
from vine_swing.picture.look_effects import effect_of
from vine_swing.picture.paint_list import Copies, Effect, Fill, Gradient, Group, Instance, KeptPages, PaintList, Picture, Step, Stroke
from vine_swing.picture.tracks import Track
from vine_swing.picture.visible import Visible, arrays_of, visible_copies, visible_parts

Array = NDArray[Any]

#: Groups that fade may be in one another this many deep.
MOST_NESTED = 12


def paint_list(baked: Baked) -> PaintList:
    """The paint list of a baked scene."""
    steps = steps_of(drawn_scene(baked))
    return PaintList(baked.scene.size, colour.parse_hex(baked.scene.background), steps)


def hidden(scene: Scene) -> list[str]:
    """The ids of objects that are not shown: themselves, or something they are attached to."""
    shown: dict[str | None, bool] = {None: True}
    for thing in scene.objects:
        chain = [thing]
        while (parent := chain[-1].parent) not in shown:
            chain.append(scene.by_id[str(parent)])
        for one in reversed(chain):
            shown[one.id] = one.shown and shown[one.parent]
    return [thing.id for thing in scene.objects if not shown[thing.id]]


def steps_of(drawn: DrawnScene, visible: Mapping[str, Visible] | None = None, unseen: Collection[str] | None = None) -> tuple[Step, ...]:
    """The steps of a scene, the first at the back. What can be seen of its objects and the ids of those that are not shown are given where they are
    known."""
    return _layer_of(drawn, "", visible, unseen).steps()


def _layer_of(drawn: DrawnScene, suffix: str, visible: Mapping[str, Visible] | None = None, unseen: Collection[str] | None = None) -> "_Layer":
    """The layer of a whole scene, whose arrays are called by the ids of their objects and a suffix."""
    baked = drawn.baked
    inside = baked.plan.below(set(baked.parades)) - baked.parades.keys()
    seen = visible if visible is not None else visible_parts(drawn)
    absent = frozenset(unseen if unseen is not None else hidden(baked.scene))
    return _Layer(baked.objects, drawn.things, seen, drawn.parades, drawn.insets, absent, inside, lambda owner, _: (owner + suffix, 0), suffix)


@dataclass(frozen=True)
class _Layer:
    """What is painted in one space: a scene, or the element of a parade.

    objects: by id, in drawing order. drawn, visible, parades, insets: of these.
    unseen: ids of what is not shown. skipped: ids of what is painted elsewhere.
    address: for arrays of an object, whose they are called and the frame of their first row.
    """

    objects: Mapping[str, BakedObject]
    drawn: Mapping[str, Drawable]
    visible: Mapping[str, Visible]
    parades: Mapping[str, DrawnParade]
    insets: Mapping[str, DrawnInset]
    unseen: frozenset[str]
    skipped: Collection[str]
    address: Callable[[str, Array], tuple[str, int]]
    #: Added to the ids of objects, to call the arrays of copies and insides by.
    suffix: str
    #: The steps of the scenes inside insets, by what their arrays are called.
    inside: dict[str, tuple[Step, ...]] = field(default_factory=dict)

    def steps(self, only: Collection[str] | None = None) -> tuple[Step, ...]:
        """Its steps, the first at the back; or those of only some objects, without what those do that they are attached to."""
        nested, chains = _Nested(), _Chains(self, only)
        for object_id in self.objects:
            if object_id in self.skipped or (only is not None and object_id not in only):
                continue
            steps = self._of(object_id)
            if steps:
                nested.add(chains.of(object_id), steps)
        return nested.finished()

    def track(self, owner: str, name: str, values: Array) -> Track:
        """The track for an array of an object."""
        called, first = self.address(owner, values)
        return Track(called, name, values, first)

    def effects_of(self, one: BakedObject) -> tuple[Effect, ...]:
        """What the rules on an object's look do to its picture, in order."""
        return tuple(effect for look in one.look if (effect := effect_of(look, one, self.track, self._mask)) is not None)

    def _mask(self, object_id: str) -> tuple[Step, ...]:
        """The picture of an object with its descendants, whether it is itself shown or not."""
        if object_id not in self.objects:
            return ()
        below, absent = {object_id}, set[str]()
        waiting = [object_id]
        while waiting:
            above = waiting.pop()
            for one in self.hung.get(above, ()):
                below.add(one)
                waiting.append(one)
                if above in absent or not self.objects[one].source.shown:
                    absent.add(one)
        return replace(self, unseen=frozenset(absent)).steps(below - set(self.skipped))

    @cached_property
    def hung(self) -> dict[str, list[str]]:
        """Children of each object of it."""
        found: dict[str, list[str]] = {}
        for one, baked in self.objects.items():
            if baked.source.parent is not None:
                found.setdefault(baked.source.parent, []).append(one)
        return found

    def _of(self, object_id: str) -> list[Step]:
        shown = object_id not in self.unseen
        parade = self.parades.get(object_id)
        if parade is not None:
            return self._copies(object_id, parade, shown)
        inset = self.insets.get(object_id)
        if inset is not None:
            return [self._inset(object_id, inset, shown)]
        one = self.objects[object_id]
        if one.source.pictured is not None and one.shown_size is not None:
            return [self._picture(object_id, one, shown)]
        drawable = self.drawn.get(object_id)
        return self._painted(object_id, drawable, self.visible[object_id], shown) if drawable is not None else []

    def _inset(self, object_id: str, drawn: DrawnInset, shown: bool) -> Instance:
        """The scene inside an inset: in the object's place, and in it at a frame of its own."""
        inset = drawn.baked
        called, first = self.address(object_id, inset.rows)
        within = f"@{inset.owner}{called.removeprefix(object_id)}"
        if within not in self.inside:
            self.inside[within] = _layer_of(drawn.inner, within).steps()
        there = (Track(called, "inset.there", inset.there, first),) if inset.there is not None else ()
        frames, corner = Track(called, "inset.row", inset.rows, first), Track(called, "inset.corner", inset.corner)
        inside = Instance(object_id, self.inside[within], corner, frames=frames, opacity=there)
        return Instance(object_id, (inside,), self.track(object_id, "view", self.objects[object_id].view), shown=shown)

    def _picture(self, object_id: str, one: BakedObject, shown: bool) -> Picture:
        book = one.source.pictured
        assert book is not None
        assert one.shown_size is not None
        size, page = self.track(object_id, "picture.size", one.shown_size), self.track(object_id, "page", one.channels["page"])
        contents = tuple(map(PICTURE_FILES.data_of, book.pictures))
        called, _ = self.address(object_id, one.view)
        kept = KeptPages(called, tuple((page.id, page.width) for page in one.pages))
        fit: Literal["stretch", "cover"] = "cover" if book.fit == "cover" and book.tile == "none" else "stretch"
        return Picture(object_id, self.track(object_id, "view", one.view), size, contents, page, book.smooth, fit, book.tile, kept, shown=shown)

    def _painted(self, object_id: str, drawable: Drawable, seen: Visible, shown: bool) -> list[Step]:
        matrix = self.track(object_id, "view", self.objects[object_id].view)
        outline = drawable.outline
        called, first = self.address(object_id, outline.series.which)
        if called != outline.owner or first != outline.first:
            outline = replace(outline, owner=called, first=first)
        steps: list[Step] = []
        if seen.fills:
            steps.append(
                Fill(
                    object_id,
                    matrix,
                    outline,
                    self.track(object_id, "fill", drawable.fill),
                    drawable.fill_rule,
                    self._gradient(object_id, "fill"),
                    shown=shown,
                )
            )
        if seen.strokes:
            line, width = self.track(object_id, "stroke", drawable.stroke), self.track(object_id, "stroke.width", drawable.stroke_width)
            style = self.objects[object_id].source.line_style
            dash = style.dash if len(style.dash) % 2 == 0 else style.dash * 2
            offset = self.track(object_id, "dash.offset", drawable.dash_offset) if dash and drawable.dash_offset is not None else None
            steps.append(
                Stroke(object_id, matrix, outline, line, width, style.cap, style.join, dash, offset, self._gradient(object_id, "stroke"), shown=shown)
            )
        return steps

    def _gradient(self, object_id: str, of: Painted) -> Gradient | None:
        one = self.objects[object_id]
        gradient = one.source.painted_with.of(of)
        if gradient is None:
            return None

        def track(name: str) -> Track:
            return self.track(object_id, name, one.channels[name])

        x0, y0, x1, y1 = map(track, end_names(of))
        stops = tuple((track(place), track(written)) for place, written in (stop_names(of, n + 1) for n in range(gradient.stops)))
        return Gradient(gradient.kind, (x0, y0, x1, y1), stops)

    def _copies(self, object_id: str, drawn: DrawnParade, shown: bool) -> list[Step]:
        parade = drawn.baked
        n = parade.count
        if n == 0 or not parade.element.objects:
            return []
        called, first = self.address(object_id, parade.places.matrices)
        suffix = called.removeprefix(object_id)
        matrices = Track(called, "copies", parade.places.flat, first)
        fades = Track(called, "copies.fade", parade.places.fades, first) if parade.places.fades is not None else None
        order = Track(called, "copies.order", parade.order, first) if parade.order is not None else None
        shared = f"{suffix}#"
        seen = visible_copies(drawn)
        element = drawn.element
        layer = _Layer(
            parade.element.objects,
            element.drawn,
            seen,
            element.parades,
            element.insets,
            self.unseen,
            (),
            lambda owner, _: (owner + shared, 0),
            shared,
        )
        each = tuple(self._own(drawn, k, layer, seen, suffix).steps() for k in range(n)) if drawn.own else (layer.steps(),)
        delays = tuple(float(first - offset) for offset in parade.layout.offsets.tolist())
        copies = Copies(object_id, each, matrices, delays, fades, order, shown=shown)
        return [Instance(object_id, (copies,), self.track(object_id, "view", self.objects[object_id].view), shown=shown)]

    def _own(self, drawn: DrawnParade, k: int, shared: "_Layer", seen: Mapping[str, Visible], called: str) -> "_Layer":
        """The layer of one copy that differs from the others: what it has of its own begins at its first row."""
        own, offset = drawn.own[k], int(drawn.baked.layout.offsets[k])
        suffix = f"{called}#{k}"
        common = {id(array) for one in drawn.baked.element.objects.values() for array in arrays_of(one)}
        common |= {id(one.outline.series.which) for one in drawn.element.drawn.values()}
        common |= {id(one.baked.places.matrices) for one in drawn.element.parades.values()}
        common |= {id(one.baked.rows) for one in drawn.element.insets.values()}

        def address(owner: str, array: Array) -> tuple[str, int]:
            if id(array) in common:
                return owner + shared.suffix, 0
            return owner + suffix, offset

        objects = {object_id: own.element.objects.get(object_id, one) for object_id, one in drawn.baked.element.objects.items()}
        parades, insets = {**drawn.element.parades, **own.parades}, {**drawn.element.insets, **own.insets}
        return _Layer(objects, {**drawn.element.drawn, **own.drawn}, seen, parades, insets, self.unseen, (), address, suffix)


@dataclass(frozen=True)
class _Link:
    """What an object does to itself and to its descendants: its look, how it fades, and how it is composited onto what lies below."""

    owner: str
    fade: Track | None
    blend: Blend
    effects: tuple[Effect, ...] = ()


class _Chains:
    """For each object, the fades, blends and looks of itself and its parents in its layer, the outermost first. Each chain
    is made from its parent's."""

    def __init__(self, layer: _Layer, only: Collection[str] | None = None) -> None:
        self._layer, self._only = layer, layer.objects if only is None else only
        self._known: dict[str | None, tuple[_Link, ...]] = {None: ()}

    def of(self, object_id: str) -> tuple[_Link, ...]:
        """The chain of an object."""
        waiting = [object_id]
        while (parent := self._parent(waiting[-1])) not in self._known:
            waiting.append(str(parent))
        for one in reversed(waiting):
            above = self._known[self._parent(one)]
            own = self._link(one)
            self._known[one] = (*above, own) if own is not None else above
        return self._known[object_id]

    def _link(self, object_id: str) -> _Link | None:
        baked = self._layer.objects[object_id]
        fade = self._layer.track(object_id, "fade", baked.fade) if self._layer.visible[object_id].fades else None
        blend, effects = baked.source.blend, self._layer.effects_of(baked)
        return _Link(object_id, fade, blend, effects) if fade is not None or blend != "normal" or effects else None

    def _parent(self, object_id: str) -> str | None:
        parent = self._layer.objects[object_id].source.parent
        return parent if parent in self._only else None


@dataclass
class _Open:
    """A group that is being filled."""

    link: _Link
    steps: list[Step] = field(default_factory=list)


class _Nested:
    """Puts steps into nested groups by the chains of what fades or blends above them; neighbours with the same beginning of a chain share its
    groups."""

    def __init__(self) -> None:
        self._steps: list[Step] = []
        #: The groups that are in one another around what is added next, the outermost first.
        self._open: list[_Open] = []

    def add(self, chain: tuple[_Link, ...], steps: list[Step]) -> None:
        """Add an object's steps, with its chain, the outermost first."""
        # Deeper down, each step fades by itself: the difference is slight there, and layers upon layers are expensive.
        chain, deeper = chain[:MOST_NESTED], tuple(link.fade for link in chain[MOST_NESTED:] if link.fade is not None)
        if deeper:
            steps = [replace(step, opacity=(*deeper, *step.opacity)) for step in steps]
        shared = 0
        for group, link in zip(self._open, chain, strict=False):
            if group.link.owner != link.owner:
                break
            shared += 1
        self._close(shared)
        self._open += [_Open(link) for link in chain[shared:]]
        self._innermost.extend(steps)

    def finished(self) -> tuple[Step, ...]:
        """All steps."""
        self._close(0)
        return tuple(self._steps)

    @property
    def _innermost(self) -> list[Step]:
        return self._open[-1].steps if self._open else self._steps

    def _close(self, depth: int) -> None:
        while len(self._open) > depth:
            group = self._open.pop()
            self._innermost.append(_grouped(group.link, group.steps))


def _grouped(link: _Link, steps: list[Step]) -> Step:
    """Steps that fade or blend together; a single one that only fades needs no layer of its own for it."""
    fades = (link.fade,) if link.fade is not None else ()
    if len(steps) == 1 and link.blend == "normal" and not link.effects:
        return replace(steps[0], opacity=(*fades, *steps[0].opacity))
    return Group(link.owner, tuple(steps), fades, link.blend, effects=link.effects)
