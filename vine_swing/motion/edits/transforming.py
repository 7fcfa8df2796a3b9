"""Turning and sizing several objects together about a common pivot."""

from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from vine_swing.motion.baking.at_frame import baked_at
from vine_swing.motion.baking.baked import Baked
from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.edits.arranging import Array, Together, carrier_of
from vine_swing.motion.edits.base import object_in
from vine_swing.motion.edits.values_at import NOTHING, ValuesAtFrame, place_by, set_values
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject

_Factor = Annotated[float, Field(strict=True, ge=-1000, le=1000)]
_Place = Annotated[float, Field(strict=True, ge=-1e6, le=1e6)]


_CHANGED = ("x", "y", "rotation", "skew", "scale.x", "scale.y")


class TransformObjects(Together):
    """Turn and size some objects in the picture about a common pivot, as one picture. With factors that differ, objects that are turned become
    slanted, as they would on a stretched sheet.

    about: the pivot, px of the picture. turn: degrees, clockwise. scale: factors across and down, which come before the turn.
    """

    edit: Literal["transform-objects"]
    about: tuple[_Place, _Place]
    turn: Annotated[float, Field(strict=True, ge=-36_000, le=36_000)] = 0.0
    scale: tuple[_Factor, _Factor] = (1.0, 1.0)

    def apply(self, scene: Scene) -> Scene:
        baked, change = baked_at(scene, self.frame), self._matrix()
        tops = self.tops(scene)
        here = ValuesAtFrame((scene.by_id[one] for one in tops), _CHANGED, self.frame)
        return scene.with_objects(self._transformed(scene, baked, here, object_id, change) for object_id in tops)

    def _transformed(self, scene: Scene, baked: Baked, here: ValuesAtFrame, object_id: str, in_picture: Array) -> SceneObject:
        thing = object_in(scene, object_id)
        now = {name: float(array[0]) for name, array in matrix.geometry_of(baked.objects[object_id].channels).items()}
        if "scale.x" not in now:
            # A camera has no size of its own.
            return thing
        carrier = carrier_of(baked, object_id)
        with np.errstate(all="ignore"):
            change = matrix.multiply(matrix.inverse(carrier), matrix.multiply(in_picture, carrier))
            place = matrix.apply(change, np.array([now["x"]]), np.array([now["y"]]))[0]
        if not np.isfinite(change).all():
            raise EditError(
                f"what '{thing.name}' is attached to is flat at frame {self.frame:g}, so it cannot be rotated or scaled there; go to another frame"
            )
        values = place_by(here, thing, float(place[0]) - now["x"], float(place[1]) - now["y"])
        turned, slanted, wider, higher = self._shares(change, now)
        for name, amount in (("rotation", turned), ("skew", slanted)):
            if abs(amount) > NOTHING:
                values[name] = here.number(thing, name) + amount
        for name, factor in (("scale.x", wider), ("scale.y", higher)):
            if abs(factor - 1) > NOTHING:
                values[name] = here.number(thing, name) * factor
        return set_values(scene, thing, values, self.frame, key=self.key)

    def _matrix(self) -> Array:
        """The change in the picture, (1, 6)."""
        x, y = (np.array([value]) for value in self.about)
        angle, zero = np.radians(np.array([self.turn])), np.zeros(1)
        cos, sin = np.cos(angle), np.sin(angle)
        wide, high = self.scale
        there = matrix.columns(cos * wide, sin * wide, -sin * high, cos * high, x, y)
        return matrix.multiply(there, matrix.columns(np.ones(1), zero, zero, np.ones(1), -x, -y))

    def _shares(self, change: Array, now: dict[str, float]) -> tuple[float, float, float, float]:
        """Return how a change of parent space (1, 6) changes an object: rotation and skew in degrees, and scale factors."""
        a, b, c, d = (float(part) for part in change[0, :4])
        factor = self.scale[0]
        even = factor == self.scale[1] and abs(a - d) < NOTHING and abs(b + c) < NOTHING
        if even and now["stretch"] == 1:
            # A mirrored space turns the other way.
            sine = factor * float(np.sin(np.radians(self.turn)))
            return self.turn if abs(sine - b) <= abs(sine + b) else -self.turn, 0.0, factor, factor
        arrays = {name: np.array([value]) for name, value in now.items()}
        pull = matrix.linear_part(*(np.array([v]) for v in (0.0, 0.0, 1.0, 1.0, now["stretch"], now["stretch.angle"])))
        local = matrix.linear_part(*(arrays[name] for name in ("rotation", "skew", "scale.x", "scale.y", "stretch", "stretch.angle")))
        zero = np.zeros(1)
        unpulled = matrix.inverse(matrix.columns(*pull, zero, zero))
        wanted = matrix.multiply(unpulled, matrix.multiply(change, matrix.columns(*local, zero, zero)))
        rotation, skew, wide, high = decomposed(wanted, near=now["rotation"] + self.turn, flat=(now["scale.x"], now["scale.y"]))
        wider, higher = (one / was if was else 1.0 for one, was in ((wide, now["scale.x"]), (high, now["scale.y"])))
        return rotation - now["rotation"], skew - now["skew"], wider, higher

    def label(self, scene: Scene) -> str:
        what = "turn" if self.scale == (1.0, 1.0) else "size" if not self.turn else "turn and size"
        return f"{what} {self.named(scene)}"


def decomposed(linear: Array, *, near: float, flat: tuple[float, float]) -> tuple[float, float, float, float]:
    """Rotation, skew (degrees), and the scales that make a linear part R(rotation) · K(skew) · S (the first four columns of a matrix (1, 6)).

    near: the rotation is the one nearest to this, or nearest but mirrored: signs of the scales follow those of `flat`, the scales before.
    """
    a, b, c, d = (float(part) for part in linear[0, :4])
    wide = float(np.hypot(a, b))
    if wide == 0:
        # A flat object has no rotation.
        return near, 0.0, *flat
    sign = -1.0 if flat[0] < 0 else 1.0
    wide *= sign
    high = (a * d - b * c) / wide
    slant = (a * c + b * d) / wide / high if high else 0.0
    turn = float(np.degrees(np.arctan2(b * sign, a * sign)))
    turn += 360 * round((near - turn) / 360)
    return turn, float(np.degrees(np.arctan(slant))), wide, high
