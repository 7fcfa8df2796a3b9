"""Where each copy of a parade stands: from the values of its channels to a matrix a copy.

Copy k has the place number s = k + shift (modulo their number n where it wraps) and u = s/(n − 1), 0 for a single one. p is the parade's feel
at u, and goes straight on beyond 0…1.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.values import MAX_NUMBER
from vine_swing.motion.parade.model import Parade
from vine_swing.motion.timing.ease import EaseCurve, build

Array = NDArray[np.float64]
#: A turn of at least this many degrees is a closed ring.
FULL_TURN = 360.0
_STEP = 1e-5


@dataclass(frozen=True)
class Surroundings:
    """What an arrangement needs to know besides the parade.

    width, height: of the element, at the frame it is measured at.
    points: (n, 2) or, for each of m frames, (m, n, 2), where copies stand at points; None for other arrangements.
    way: for shares of a way (n, m), the places x, y and the direction in degrees, each (n, m), or None.
    closed: whether the way is.
    way_length: of the way, px.
    """

    width: float = 0.0
    height: float = 0.0
    points: Array | None = None
    way: Callable[[Array], tuple[Array, Array, Array]] | None = None
    closed: bool = False
    way_length: float = 0.0


@dataclass(frozen=True)
class Places:
    """Of n copies at m frames (or 1, where nothing changes): matrices (n, m, 6), opacity (n, m), and the size they are scaled to (n, m)."""

    matrices: Array
    opacity: Array
    scale: Array

    @cached_property
    def flat(self) -> Array:
        """The matrices of all copies one after the other: (m, 6n)."""
        return self.matrices.transpose(1, 0, 2).reshape(self.matrices.shape[1], -1)

    @cached_property
    def fades(self) -> Array | None:
        """The opacity of all copies, (m, n); None where all are opaque."""
        return np.ascontiguousarray(self.opacity.T) if (self.opacity != 1).any() else None


def arranged(parade: Parade, values: Mapping[str, Array], counts: Array, most: int, around: Surroundings) -> Places:
    """The places of `most` copies.

    Args:
        parade: how they are laid out.
        values: the parade's channels by name, each (m,) or (1,).
        counts: how many there are, whole numbers, (m,) or (1,). Copies beyond that have opacity 0.
        most: for how many copies places are computed.
        around: what else it follows.
    """
    n = counts[None, :]
    k = np.arange(most, dtype=float)[:, None]
    s = k + values["shift"][None, :]
    if parade.wraps:
        s = np.mod(s, np.maximum(n, 1.0))
    u = np.where(n > 1, s / np.maximum(n - 1, 1.0), 0.0)
    p = eased(build(parade.feel), u)
    x, y, turn = _standing(parade, values, k, s, u, n, around)

    def between(name: str) -> Array:
        first, last = values[f"from.{name}"][None, :], values[f"to.{name}"][None, :]
        return first + (last - first) * p

    scale = _geometric(values["from.scale"][None, :], values["to.scale"][None, :], p) if parade.geometric else between("scale")
    one = np.ones((1, 1))
    a, b, c, d = matrix.linear_part(turn + between("rotation"), np.clip(between("skew"), -89, 89), scale, scale, one, 0 * one)
    opacity = np.clip(between("opacity"), 0, 1) * (k < n)
    return Places(matrix.columns(a, b, c, d, x, y), opacity, np.broadcast_to(scale, np.broadcast(scale, opacity).shape))


def eased(curve: EaseCurve, u: Array) -> Array:
    """A feel at any u; beyond 0…1 it goes straight on as it ends there."""
    inside = np.clip(u, 0.0, 1.0)
    p: Array = np.asarray(curve.at(inside.reshape(-1))).reshape(u.shape)
    if (inside == u).all():
        return p
    ends = curve.at(np.array([0.0, _STEP, 1 - _STEP, 1.0]))
    first, last = (ends[1] - ends[0]) / _STEP, (ends[3] - ends[2]) / _STEP
    beyond: Array = p + np.minimum(u, 0.0) * first + np.maximum(u - 1, 0.0) * last
    return beyond


def _standing(
    parade: Parade, values: Mapping[str, Array], k: Array, s: Array, u: Array, n: Array, around: Surroundings
) -> tuple[Array, Array, Array]:
    """Where copies stand and how far they are turned there: x, y, turn, each (n, m) or (n, 1)."""
    v = {name: one[None, :] for name, one in values.items()}
    none = np.zeros((1, 1))
    match parade.arrange:
        case "row":
            return s * (v["gap"] + around.width), none, none
        case "column":
            return none, s * (v["gap"] + around.height), none
        case "grid":
            line = np.floor(s / parade.columns)
            return (s - line * parade.columns) * (v["gap"] + around.width), line * (v["gap.down"] + around.height), none
        case "free":
            return s * v["spread.x"], s * v["spread.y"], none
        case "ring":
            # In a closed ring the last copy must not overlap the first.
            step = v["arc"] / np.where(np.abs(v["arc"]) >= FULL_TURN, np.maximum(n, 1.0), np.maximum(n - 1, 1.0))
            turn = s * step
            angle = np.radians(turn)
            return v["radius"] * np.sin(angle), -v["radius"] * np.cos(angle), turn if parade.turned else none
        case "along":
            return _along(parade, v, s, u, n, around)
        case "points" | "letters" | "words" | "lines":
            # Letters keep to their places, however copies are moved on.
            return _at_points(parade, v, s if parade.arrange == "points" else k, around)
        case "nest":
            return none, none, none


def _along(parade: Parade, v: Mapping[str, Array], s: Array, u: Array, n: Array, around: Surroundings) -> tuple[Array, Array, Array]:
    if around.way is None:
        return np.zeros((1, 1)), np.zeros((1, 1)), np.zeros((1, 1))
    span = v["along.to"] - v["along.from"]
    # On a whole closed path, the last copy must not overlap the first.
    share = np.where(around.closed & (np.abs(span) >= 1 - 1e-9), s / np.maximum(n, 1.0), u)
    x, y, direction = around.way(v["along.from"] + span * share)
    return x, y, direction if parade.turned else np.zeros((1, 1))


def _at_points(parade: Parade, v: Mapping[str, Array], s: Array, around: Surroundings) -> tuple[Array, Array, Array]:
    points = around.points
    none = np.zeros((1, 1))
    if points is None or points.shape[-2] == 0:
        return none, none, none
    moving = points if points.ndim == 3 else points[None]
    last = moving.shape[1] - 1
    within = np.mod(s, last + 1) if parade.wraps else np.clip(s, 0, last)
    low = np.floor(within).astype(int)
    high = np.mod(low + 1, last + 1) if parade.wraps else np.minimum(low + 1, last)
    frames = np.arange(len(moving))[None, :] if len(moving) > 1 else np.zeros((1, 1), int)
    part = (within - low)[..., None]
    at = moving[frames, low] * (1 - part) + moving[frames, high] * part
    if around.way is None or not around.way_length:
        return at[..., 0], at[..., 1], none
    # A text along a path: a letter at x px of its line is x px along the path, at the same height above it.
    x, y, direction = around.way(v["along.from"] + at[..., 0] / around.way_length)
    turn = np.radians(direction)
    return x - at[..., 1] * np.sin(turn), y + at[..., 1] * np.cos(turn), direction if parade.turned else none


def _geometric(first: Array, last: Array, p: Array) -> Array:
    """From one size to another by equal factors; by equal steps where there are none, as from or through 0."""
    possible = first * last > 0
    with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
        factor = np.where(possible, last / np.where(first == 0, 1.0, first), 1.0)
        grown = np.where(possible, first * np.power(factor, p), first + (last - first) * p)
    # Far beyond either end equal factors have no end.
    return np.clip(grown, -MAX_NUMBER, MAX_NUMBER)
