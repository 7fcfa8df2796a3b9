"""Input of outline rules: contours at some frames, with their context."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.curves.contours import MOST_PARTS, Contour, area
from vine_swing.motion.rules.integral import integral
from vine_swing.motion.rules.spec import Mode, Read, Settings, Source, number_of

Array = NDArray[np.float64]
#: left, top, right, bottom.
Box = tuple[float, float, float, float]
#: Rules that bend the plane cut what they bend into pieces no longer than this share of the diagonal of the box.
_FINE = 1 / 40


@dataclass(frozen=True)
class Bending:
    """The frames a rule on outlines works at.

    settings: its settings.
    t: the frames (1, n).
    scene: all frames of the scene (1, m): what must not change from frame to frame, such as the number of places, is read off them.
    fps: frames per second.
    bounds: gives the bounds of what is bent as it is at rest: at the first frame of the scene, before any rule.
    rest: the contours as they come to the rule at that frame; of each the same number of pieces as at other frames.
    """

    settings: Settings
    t: Array
    scene: Array
    fps: float
    bounds: Callable[[], Box]
    rest: list[Contour]

    def number(self, name: str) -> Array:
        """A number setting as a column, (n, 1), or (1, 1) where it never changes."""
        return number_of(self.settings, name, self.t).T

    def most(self, name: str) -> float:
        """The largest size that a number setting has in the scene."""
        return float(np.abs(number_of(self.settings, name, self.scene)).max())

    def run(self, name: str) -> Array:
        """Return the integral of a per-second setting from the scene's first frame: (n, 1), or (1, 1) where it is 0."""
        breaks = self.settings.breaks(name)
        if breaks is None:
            pace = number_of(self.settings, name, self.t)
            return (pace * self.t / self.fps).T if pace.any() else np.zeros((1, 1))
        return integral(lambda frames: number_of(self.settings, name, frames), self.t, breaks).T / self.fps

    @property
    def box(self) -> Box:
        """The bounds of what is bent as it is at rest."""
        return self.bounds()

    @property
    def outward(self) -> float:
        """1 where the left of the way that contours go is outside, −1 where their right is: told by the largest closed one."""
        closed = [float(area(one)[0]) for one in self.rest if one.closed]
        return -1.0 if closed and max(closed, key=abs) < 0 else 1.0

    @property
    def middle(self) -> tuple[float, float]:
        """The middle of the box."""
        left, top, right, bottom = self.box
        return (left + right) / 2, (top + bottom) / 2

    def fine(self, contours: list[Contour], longest: float = np.inf) -> list[Contour]:
        """Contours cut finely enough to be bent, into pieces of at most `longest` px."""
        left, top, right, bottom = self.box
        longest = max(min(longest, float(np.hypot(right - left, bottom - top)) * _FINE), 1e-3)
        return [one.cut(_parts(rest, longest)) for one, rest in zip(contours, self.rest, strict=True)]


@dataclass(frozen=True)
class Across:
    """A direction across a box: how far along it points lie, from its first edge (0) to its last (`length`), and how far beside its middle line.

    way: (j, 2), of length 1; origin: (j, 2), where the middle line enters the box; length: (j,). j is 1 or the number of frames.
    """

    way: Array
    origin: Array
    length: Array

    @classmethod
    def of(cls, box: Box, degrees: Array) -> "Across":
        """The direction at some angles (j, 1), 0° to the right, clockwise."""
        angle = np.radians(degrees[:, 0])
        way = np.stack([np.cos(angle), np.sin(angle)], axis=-1)
        left, top, right, bottom = box
        half = (np.abs(way[:, 0]) * (right - left) + np.abs(way[:, 1]) * (bottom - top)) / 2
        middle = np.array([(left + right) / 2, (top + bottom) / 2])
        return cls(way, middle - way * half[:, None], 2 * half)

    def split(self, points: Array) -> tuple[Array, Array]:
        """How far along and how far beside (to the right of the way) points (k, …, 2) lie: (k, …) each."""
        shape = (-1, *[1] * (points.ndim - 2))
        offset = points - self.origin.reshape(*shape, 2)
        x, y = self.way[:, 0].reshape(shape), self.way[:, 1].reshape(shape)
        return offset[..., 0] * x + offset[..., 1] * y, offset[..., 1] * x - offset[..., 0] * y

    def put(self, along: Array, beside: Array) -> Array:
        """The points (k, …, 2) that lie so far along and beside."""
        shape = (-1, *[1] * (along.ndim - 1))
        x, y = self.way[:, 0].reshape(shape), self.way[:, 1].reshape(shape)
        origin = self.origin.reshape(*shape, 2)
        return np.stack([origin[..., 0] + along * x - beside * y, origin[..., 1] + along * y + beside * x], axis=-1)

    def share(self, along: Array) -> Array:
        """How far along as a share of the whole, within 0…1."""
        length = self.length.reshape(-1, *[1] * (along.ndim - 1))
        return np.clip(np.divide(along, length, out=np.zeros(np.broadcast_shapes(along.shape, length.shape)), where=length > 0), 0, 1)


def like(column: Array, points: Array) -> Array:
    """A column (n, 1) of numbers, one a frame, shaped so that it goes with values (k, …) of points (k, …, 2)."""
    return column.reshape(-1, *[1] * (points.ndim - 2))


def no_numbers(source: Source, settings: Settings, mode: Mode) -> Read:
    """In place of `prepare` for rules that act on outlines alone."""
    raise LookupError("a rule on outlines does nothing to numbers")


def _parts(rest: Contour, longest: float) -> NDArray[np.int_]:
    sides = np.linalg.norm(np.diff(rest.pieces, axis=2), axis=-1).sum(axis=-1)[0]
    parts: NDArray[np.int_] = np.clip(np.ceil(sides / longest), 1, MOST_PARTS).astype(int)
    return parts
