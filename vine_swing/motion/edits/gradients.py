"""Edits of gradients: from one colour to several, and their stops."""

from typing import Annotated, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from vine_swing.motion.baking.bake import placed_at
from vine_swing.motion.basics import colour
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.gradients import FEWEST_STOPS, MOST_STOPS, Painted, end_names, stop_names
from vine_swing.motion.basics.values import Frame, Id
from vine_swing.motion.edits.base import Edit, object_in, shape_in, with_object
from vine_swing.motion.edits.keys import keyed_value
from vine_swing.motion.edits.objects import fitted
from vine_swing.motion.edits.outlines import drawn_at
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import ShapeObject
from vine_swing.motion.scene.shapes import Gradient
from vine_swing.motion.timing.channel import Channel

Array = NDArray[np.float64]
#: How far the last colour of a new gradient goes over to white.
_PALER = 0.65


class _GradientEdit(Edit):
    id: Id
    of: Painted

    def _with(self, thing: ShapeObject, gradient: Gradient | None) -> ShapeObject:
        return thing.copy_with(paints=thing.paints.copy_with(**{self.of: gradient}))

    def _gradient(self, thing: ShapeObject) -> Gradient:
        gradient = thing.paints.of(self.of)
        if gradient is None:
            raise EditError(f"the {self.of} of '{thing.name}' is one colour; make a gradient of it first")
        return gradient


class SetGradient(_GradientEdit):
    """Colour the fill or the stroke of a shape by a gradient at a frame, or, with null, by one colour. A new gradient goes from
    top to bottom, or from the middle outward, from the colour there is to a paler one."""

    edit: Literal["set-gradient"]
    kind: Literal["linear", "radial"] | None
    frame: Frame = 0.0

    def apply(self, scene: Scene) -> Scene:
        thing = shape_in(scene, self.id, "colours")
        before = thing.paints.of(self.of)
        if self.kind is None:
            return with_object(scene, fitted(self._with(thing, None))) if before is not None else scene
        if before is not None:
            return with_object(scene, self._with(thing, before.copy_with(kind=self.kind)))
        left, top, right, bottom = drawn_at(scene, thing, self.frame).bounds()
        ends = (0.0, top, 0.0, bottom) if self.kind == "linear" else ((left + right) / 2, (top + bottom) / 2, right, (top + bottom) / 2)
        now = _colour_at(thing, self.of, self.frame)
        channels = {name: Channel(base=round(float(at), 2)) for name, at in zip(end_names(self.of), ends, strict=True)}
        paler = _blended(colour.parse_hex(now), np.array([1.0, 1.0, 1.0, colour.parse_hex(now)[3]]), _PALER)
        for stop, written in ((1, now), (2, paler)):
            place, name = stop_names(self.of, stop)
            channels |= {place: Channel(base=float(stop - 1)), name: Channel(base=written)}
        return with_object(scene, self._with(thing, Gradient(kind=self.kind)).copy_with(channels=thing.channels | channels))

    def label(self, scene: Scene) -> str:
        return f"{'gradient' if self.kind else 'one colour'} for the {self.of} of {object_in(scene, self.id).name}"


class AddStop(_GradientEdit):
    """Add a stop to a gradient at a share of its length, with the gradient's colour there at a frame."""

    edit: Literal["add-stop"]
    place: Annotated[float, Field(strict=True, ge=0, le=1)]
    frame: Frame = 0.0

    def apply(self, scene: Scene) -> Scene:
        thing = shape_in(scene, self.id, "colours")
        gradient = self._gradient(thing)
        if gradient.stops >= MOST_STOPS:
            raise EditError(f"a gradient has at most {MOST_STOPS} stops; take one out first")
        channels = placed_at(scene, thing.id, self.frame).channels
        places = np.array([float(channels[stop_names(self.of, stop)[0]][0]) for stop in range(1, gradient.stops + 1)])
        colours = [_colour_at(thing, stop_names(self.of, stop)[1], self.frame) for stop in range(1, gradient.stops + 1)]
        after = int(np.searchsorted(places, self.place, side="right"))
        here = _between(places, colours, self.place, after)
        moved = _renumbered(thing, self.of, {stop: stop + 1 for stop in range(after + 1, gradient.stops + 1)})
        place, name = stop_names(self.of, after + 1)
        changed = self._with(moved, gradient.copy_with(stops=gradient.stops + 1))
        # Where stops say nothing they lie evenly, which another stop would change.
        said = {stop_names(self.of, stop + (stop > after))[0]: Channel(base=float(places[stop - 1])) for stop in range(1, gradient.stops + 1)}
        own = {one: channel for one, channel in said.items() if one not in changed.channels}
        return with_object(
            scene, changed.copy_with(channels=changed.channels | own | {place: Channel(base=round(self.place, 4)), name: Channel(base=here)})
        )

    def label(self, scene: Scene) -> str:
        return f"add a stop to the {self.of} of {object_in(scene, self.id).name}"


class RemoveStop(_GradientEdit):
    """Take a stop out of a gradient, counted from 1."""

    edit: Literal["remove-stop"]
    stop: Annotated[int, Field(strict=True, ge=1, le=MOST_STOPS)]

    def apply(self, scene: Scene) -> Scene:
        thing = shape_in(scene, self.id, "colours")
        gradient = self._gradient(thing)
        if self.stop > gradient.stops:
            raise EditError(f"the {self.of} of '{thing.name}' has {gradient.stops} stops, and none is number {self.stop}")
        if gradient.stops <= FEWEST_STOPS:
            raise EditError(f"a gradient has at least {FEWEST_STOPS} stops; make it one colour instead")
        gone = set(stop_names(self.of, self.stop))
        rules = (
            rule if rule.channels == "keyed" else rule.copy_with(channels=tuple(c for c in rule.channels if c not in gone)) for rule in thing.rules
        )
        left = thing.copy_with(
            channels={name: one for name, one in thing.channels.items() if name not in gone}, rules=tuple(r for r in rules if r.channels)
        )
        moved = _renumbered(left, self.of, {stop: stop - 1 for stop in range(self.stop + 1, gradient.stops + 1)})
        return with_object(scene, fitted(self._with(moved, gradient.copy_with(stops=gradient.stops - 1))))

    def label(self, scene: Scene) -> str:
        return f"take a stop out of the {self.of} of {object_in(scene, self.id).name}"


def _colour_at(thing: ShapeObject, name: str, frame: float) -> str:
    """A colour channel at a frame as its keys give it, as hex."""
    return str(keyed_value(thing.channels.get(name, Channel()), thing.specs[name], frame, thing))


def _renumbered(thing: ShapeObject, of: Painted, numbers: dict[int, int]) -> ShapeObject:
    """A shape whose stops have other numbers, with the keys of their channels and the rules on them."""
    names = {old: new for before, after in numbers.items() for old, new in zip(stop_names(of, before), stop_names(of, after), strict=True)}
    rules = (
        rule if rule.channels == "keyed" else rule.copy_with(channels=tuple(names.get(one, one) for one in rule.channels)) for rule in thing.rules
    )
    return thing.copy_with(channels={names.get(name, name): one for name, one in thing.channels.items()}, rules=tuple(rules))


def _between(places: Array, colours: list[str], place: float, after: int) -> str:
    """The colour of a gradient at a place that lies after this many of its stops, blended as painters do: in sRGB."""
    if after == 0 or after == len(colours):
        return colours[max(0, after - 1)]
    one, other = (colour.parse_hex(colours[n]) for n in (after - 1, after))
    gap = places[after] - places[after - 1]
    share = (place - places[after - 1]) / gap if gap > 0 else 0.0
    return colour.to_hex(one + share * (other - one))


def _blended(one: Array, other: Array, share: float) -> str:
    return colour.to_hex(colour.from_oklab((1 - share) * colour.to_oklab(one) + share * colour.to_oklab(other)))
