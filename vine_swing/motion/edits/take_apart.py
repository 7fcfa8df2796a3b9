"""Taking a parade apart: its copies as plain objects that move as they did."""

from collections.abc import Mapping
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.bake import bake
from vine_swing.motion.baking.baked import Baked, BakedParade
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.basics import colour
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.limits import MOST_TRACED
from vine_swing.motion.basics.specs import GROUP_CHANNELS, WORDS
from vine_swing.motion.basics.values import MAX_PATH_DATA, Frame, Id
from vine_swing.motion.curves.svg_path import path_data
from vine_swing.motion.edits.base import PAINTED, Edit, in_time, object_in
from vine_swing.motion.edits.figures import free_id
from vine_swing.motion.edits.objects import cues_without, fitted, name_beside, outlined
from vine_swing.motion.edits.parades import parade_in
from vine_swing.motion.edits.several import rule_with_ids
from vine_swing.motion.outline.drawing import TextPart, drawing_of
from vine_swing.motion.rules.rule import Rule
from vine_swing.motion.scene.cues import MAX_OBJECTS
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import GroupObject, ParadeObject, SceneObject, ShapeObject
from vine_swing.motion.scene.shapes import SaidText, TextShape
from vine_swing.motion.timing.channel import Channel, Key
from vine_swing.motion.timing.fit import fit_colours, fit_keys

Array = NDArray[np.float64]
#: How far keys may lie from the motion they represent: px, degrees, and shares of colours and factors.
_TOLERANCE = {"px": 0.05, "°": 0.02}
_FINE = 0.0005


class TakeApart(Edit):
    """Turn a parade into plain objects: a group in its place, and in it a group for each copy with copies of the parts.

    Keys are moved in time by the delay of their copy; results of rules and changing delays become keys within a tolerance. Objects drawn
    differently from frame to frame (letters whose size is keyed) is drawn as at `frame`.
    """

    edit: Literal["take-apart"]
    id: Id
    frame: Frame

    def apply(self, scene: Scene) -> Scene:
        thing = parade_in(scene, self.id)
        if scene.length < 2 or scene.length > MOST_TRACED:
            raise EditError(f"a parade is taken apart over 2 to {MOST_TRACED} frames; this scene has {scene.length}")
        baked = bake(scene)
        parade = baked.parades.get(self.id)
        if parade is None:
            raise EditError(f"'{thing.name}' is part of another parade; take that one apart first")
        return _Apart(scene, baked, thing, parade, min(max(round(self.frame), 0), scene.length - 1)).done()

    def label(self, scene: Scene) -> str:
        return f"take {object_in(scene, self.id).name} apart"


class _Apart:
    """The work of taking one parade apart."""

    def __init__(self, scene: Scene, baked: Baked, thing: ParadeObject, parade: BakedParade, frame: int) -> None:
        self._scene, self._thing, self._parade, self._frame = scene, thing, parade, frame
        self._frames = baked.frames
        below = baked.plan.below({thing.id}) - {thing.id}
        #: All that is attached to the parade, parents first.
        self._parts = sorted((scene.by_id[one] for one in below), key=self._depth)
        self._taken = dict.fromkeys(scene.by_id)
        self._names = set(scene.names)

    def done(self) -> Scene:
        """The scene without the parade."""
        scene, thing, count = self._scene, self._thing, self._parade.count
        if len(scene.objects) + count * (len(self._parts) + 1) > MAX_OBJECTS:
            raise EditError(f"that would make more than {MAX_OBJECTS} objects; show fewer copies first")
        group = GroupObject(
            **{name: getattr(thing, name) for name in ("id", "name", "parent", "bone", *PAINTED)}, kind="group",
            channels={name: one for name, one in thing.channels.items() if name in GROUP_CHANNELS},
            rules=thing.rules,
        )  # fmt: skip
        made: list[SceneObject] = []
        for k in self._order():
            made += self._copy(k)
        gone = {one.id for one in self._parts}
        objects: list[SceneObject] = []
        for one in scene.objects:
            if one.id == thing.id:
                objects += [fitted(group), *made]
            elif one.id not in gone:
                objects.append(one)
        return scene.copy_with(objects=tuple(objects), cues=cues_without(scene.cues, gone))

    def _order(self) -> list[int]:
        order = self._parade.order
        return list(range(self._parade.count)) if order is None else [int(k) for k in order[min(self._frame, len(order) - 1)]]

    def _depth(self, thing: SceneObject) -> tuple[int, int]:
        return sum(1 for _ in self._scene.upwards(thing.parent)), self._scene.places[thing.id]

    def _copy(self, k: int) -> list[SceneObject]:
        """The group of one copy, with its parts."""
        place = self._group(k)
        ids = {one.id: self._id(f"{one.id}-{k + 1}") for one in self._parts}
        own = self._parade.own[k].objects if self._parade.own else {}
        rows = self._parade.layout.rows(k, len(self._frames))
        lags = self._frames - self._parade.layout.frames[rows]
        lag = float(lags[0]) if np.allclose(lags, lags[0]) else None
        made: list[SceneObject] = [place]
        for part in self._parts:
            shared = self._parade.element.objects.get(part.id)
            parent = place.id if part.parent == self._thing.id else ids[str(part.parent)]
            changed = self._part(part, shared, own.get(part.id), rows, lag).copy_with(id=ids[part.id], name=self._name(part.name), parent=parent)
            if shared is not None and shared.look:
                changed = changed.copy_with(rules=self._looks(shared, own.get(part.id), rows, ids))
            made.append(self._renamed_within(changed, ids))
        return made

    def _group(self, k: int) -> GroupObject:
        """Where a copy stands, as a group."""
        places = self._parade.places
        a, b, c, d, e, f = places.matrices[k].T
        wide = np.hypot(a, b)
        with np.errstate(divide="ignore", invalid="ignore"):
            high = np.where(wide > 0, (a * d - b * c) / wide, 0.0)
            slant = np.where(wide * high != 0, (a * c + b * d) / (wide * high), 0.0)
        values = {
            "x": e, "y": f, "rotation": np.degrees(np.unwrap(np.arctan2(b, a))), "scale.x": wide, "scale.y": high,
            "skew": np.degrees(np.arctan(slant)), "opacity": places.opacity[k],
        }  # fmt: skip
        channels = {}
        for name, array in values.items():
            channel = self._sampled(Channel(), name, array, GROUP_CHANNELS[name].unit)
            if channel.keys or channel.base != GROUP_CHANNELS[name].default:
                channels[name] = channel
        name = self._name(f"{self._thing.name[:70]} {k + 1}")
        return GroupObject(id=self._id(f"{self._thing.id}-copy-{k + 1}"), name=name, kind="group", parent=self._thing.id, channels=channels)

    def _part(self, part: SceneObject, shared: BakedObject | None, own: BakedObject | None, rows: NDArray[np.intp], lag: float | None) -> SceneObject:
        """A part as one copy shows it."""
        channels = dict(part.channels)
        baked = own if own is not None else shared
        arrays: Mapping[str, Array] = baked.channels if baked is not None else {}
        common: Mapping[str, Array] = shared.channels if shared is not None else {}
        for name, array in arrays.items():
            channel = channels.get(name, Channel())
            given = array is not common.get(name)
            if not given and not part.rules_on(name) and lag is not None:
                continue
            if not given and len(array) == 1:
                continue
            seen = array if given or len(array) == 1 else array[rows]
            channels[name] = self._sampled_words(channel, seen) if name == WORDS else self._sampled(channel, name, seen, part.specs[name].unit)
        if lag is not None:
            still = {name for name in part.specs if name not in arrays or (arrays[name] is common.get(name) and not part.rules_on(name))}
            channels = {name: in_time(one, 1.0, 0.0, lag) if name in still else one for name, one in channels.items()}
        elif "path" in channels:
            # Where delays change, x and y say where it goes.
            del channels["path"]
        rules = part.rules if shared is None else ()
        span = part.span
        if lag:
            later = round(lag)
            span = span.copy_with(
                first=span.first + later if span.first is not None else None, last=span.last + later if span.last is not None else None
            )
        changed = part.copy_with(channels=channels, rules=rules, span=span)
        return self._drawn(changed, baked)

    def _looks(self, shared: BakedObject, own: BakedObject | None, rows: NDArray[np.intp], ids: Mapping[str, str]) -> tuple[Rule, ...]:
        """The rules on the look of a part, with their settings as they go in one copy, and what masks by the names it has there."""
        common = {id(values) for look in shared.look for values in look.values.values()}

        def setting(values: Array) -> Channel:
            return self._sampled(Channel(), "", values if id(values) not in common or len(values) == 1 else values[rows], "")

        found = []
        for look in (own or shared).look:
            numbers = {name: setting(values) for name, values in look.values.items()}
            found.append(rule_with_ids(look.rule.copy_with(settings=look.rule.settings | numbers), ids))
        return tuple(found)

    def _drawn(self, part: SceneObject, baked: BakedObject | None) -> SceneObject:
        """A part with the shape its copy has: other words, or a single letter, which becomes an outline."""
        if not isinstance(part, ShapeObject) or baked is None:
            return part
        shape = baked.source.drawn_shape
        if not isinstance(shape, TextPart):
            own = baked.source.content
            return self._written(part, own) if isinstance(own, SaidText) else part
        drawing = drawing_of(shape)
        data = path_data(drawing.draw({name: float(baked.channels[name][min(self._frame, len(baked.channels[name]) - 1)]) for name in drawing.names}))
        if not data or len(data) > MAX_PATH_DATA:
            return part.copy_with(shown=False)
        return outlined(part, data)

    @staticmethod
    def _written(part: ShapeObject, shape: SaidText) -> ShapeObject:
        """A text that says what a list gives its copy, and nothing else."""
        plain = TextShape(**{name: getattr(shape, name) for name in TextShape.model_fields})
        return part.copy_with(shape=plain, channels={name: one for name, one in part.channels.items() if name != WORDS})

    def _sampled_words(self, before: Channel, array: Array) -> Channel:
        """A channel of words that says what another says in the order of `array`."""
        which = array.astype(int)
        changes = np.flatnonzero(np.append(True, np.diff(which) != 0))
        return Channel(keys=tuple(before.keys[which[row]].copy_with(frame=float(self._frames[row])) for row in changes))

    def _sampled(self, before: Channel, name: str, array: Array, unit: str) -> Channel:
        """A channel that goes as an array does over the scene."""
        if array.ndim == 2:
            if len(array) == 1:
                return Channel(base=colour.to_hex(array[0]))
            keys: list[Key] = fit_colours(self._frames, array, 0.002)
        elif len(array) == 1 or bool((array == array[0]).all()):
            return Channel(base=float(array[0]))
        else:
            keys = fit_keys(self._frames, array, _TOLERANCE.get(unit, _FINE))
        return Channel(base=before.base, keys=tuple(keys))

    def _renamed_within(self, thing: SceneObject, ids: Mapping[str, str]) -> SceneObject:
        """Return the references of an inner parade, renamed for the copy."""
        parade = thing.copying
        if parade is None:
            return thing
        return thing.copy_with(parade=parade.with_ids(ids))

    def _id(self, wanted: str) -> str:
        found = free_id(self._taken, wanted[:60])
        self._taken[found] = None
        return found

    def _name(self, wanted: str) -> str:
        found = name_beside(self._names, wanted)
        self._names.add(found)
        return found
