"""Stretches shaped by their keys: "handles" and "spline".

Both are cubic Bézier curves in (frame, value) space from one key to the next. With u the share of the stretch that has
passed, the curve's parameter s solves x(s) = u with x1 and x2 the handles' shares of the stretch, and the value is the Bézier
cubic of v0, v0 + y1, v1 + y2, v1 at s.

Spline tangents are those of D. Kochanek and R. Bartels, "Interpolating splines with local tension, continuity, and bias
control" (1984), scaled for unequal key distances so that the velocity is continuous at continuity 0 and is
(v₊ − v₋)/(f₊ − f₋) with all three 0. The first and last key take the difference they lack equal to the one they have.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.timing.channel import BY_EASE, BY_HANDLES, Key
from vine_swing.motion.timing.ease.bezier import UPRIGHT, solve

Array = NDArray[np.float64]
Index = NDArray[np.intp]
Mask = NDArray[np.bool_]


@dataclass(frozen=True)
class Cubics:
    """For every key laid end to end: whether the stretch that leaves it is shaped by its keys, and how.

    is_cubic (k,); x1, x2 (k,), within 0…1; y1, y2 (k, d): the inner control points, from the stretch's own two keys.
    """

    is_cubic: NDArray[np.bool_]
    x1: Array
    x2: Array
    y1: Array
    y2: Array

    def values(self, key: NDArray[np.intp], u: Array, start: Array, end: Array) -> Array:
        """The values at shares u (m,) of the stretches that leave some keys (m,), between their values (m, d)."""
        x1, x2 = self.x1[key], self.x2[key]
        s = solve((1 + 3 * x1 - 3 * x2, 3 * x2 - 6 * x1, 3 * x1), u)[:, None]
        r = 1 - s
        first, second = start + self.y1[key], end + self.y2[key]
        values: Array = r * r * (r * start + 3 * s * first) + s * s * (3 * r * second + s * end)
        return np.where(s <= 0, start, np.where(s >= 1, end, values))

    def slopes(self, key: int, rise: Array, frames: float) -> tuple[Array, Array]:
        """The slopes, in value per frame, at which a stretch of `frames` frames that rises by `rise` (d,) begins and ends."""
        x1, x2, y1, y2 = self.x1[key], self.x2[key], self.y1[key], self.y2[key]
        begin = _tangent([(x1, y1), (x2, rise + y2), (1.0, rise)])
        end = _tangent([(1 - x2, -y2), (1 - x1, rise - y1), (1.0, rise)])
        return begin / frames, end / frames


def cubics_of(bends: Sequence[Array | None], begin: NDArray[np.intp], frames: Array, values: Array) -> Cubics:
    """The cubic stretches of channels whose keys lie end to end; `bends` as `Columns` has them."""
    count, width = values.shape
    bend = np.zeros((count, 8))
    for n, one in enumerate(bends):
        if one is not None:
            bend[begin[n] : begin[n + 1]] = one
    last = np.zeros(count, bool)
    last[begin[1:] - 1] = True
    at = np.flatnonzero((bend[:, 0] != BY_EASE) & ~last)
    cubics = Cubics(np.zeros(count, bool), np.zeros(count), np.ones(count), np.zeros((count, width)), np.zeros((count, width)))
    cubics.is_cubic[at] = True
    span, rise = frames[at + 1] - frames[at], values[at + 1] - values[at]
    handles = bend[at, 0] == BY_HANDLES
    # A handle that is left out lies a third of the way along the straight line; time is clamped to the stretch.
    out, into = bend[at, 4:6], bend[at + 1, 6:8]
    no_out, no_into = np.isnan(out[:, 0]), np.isnan(into[:, 0])
    x1 = np.clip(np.where(no_out, 1 / 3, out[:, 0] / span), 0, 1)
    x2 = np.clip(np.where(no_into, 2 / 3, 1 + into[:, 0] / span), 0, 1)
    y1 = np.where(no_out[:, None], rise / 3, out[:, 1:])
    y2 = np.where(no_into[:, None], -rise / 3, into[:, 1:])
    first = np.zeros(count, bool)
    first[begin[:-1]] = True
    leaving = _velocities(at, first, last, bend, frames, values, leaving=True)
    arriving = _velocities(at + 1, first, last, bend, frames, values, leaving=False)
    cubics.x1[at], cubics.x2[at] = np.where(handles, x1, 1 / 3), np.where(handles, x2, 2 / 3)
    cubics.y1[at] = np.where(handles[:, None], y1, leaving * span[:, None] / 3)
    cubics.y2[at] = np.where(handles[:, None], y2, -arriving * span[:, None] / 3)
    return cubics


def _velocities(keys: Index, first: Mask, last: Mask, bends: Array, frames: Array, values: Array, *, leaving: bool) -> Array:
    """As `velocity`, for many keys (m,) at once: (m, d). `first` and `last` (k,) are the keys at which a channel begins and ends."""
    before, after = np.where(first[keys], keys, keys - 1), np.where(last[keys], keys, keys + 1)
    # Where a neighbour is missing, the difference on that side is taken equal to the one on the other.
    before, after = np.where(first[keys], after - 1, before), np.where(last[keys], before + 1, after)
    begin, end = np.where(first[keys], after, keys), np.where(last[keys], before, keys)
    span_before, rise_before = frames[begin] - frames[before], values[begin] - values[before]
    span_after, rise_after = frames[after] - frames[end], values[after] - values[end]
    t, c, b = bends[keys, 1], bends[keys, 2] * (1 if leaving else -1), bends[keys, 3]
    of_before, of_after = (1 - t) * (1 + c) * (1 + b), (1 - t) * (1 - c) * (1 - b)
    result: Array = (of_before[:, None] * rise_before + of_after[:, None] * rise_after) / (span_before + span_after)[:, None]
    return result


def velocity(key: Key, i: int, frames: Array, values: Array, *, leaving: bool) -> Array:
    """The Kochanek–Bartels velocity at key i, in value per frame, as the curve leaves it or arrives at it; shape (d,)."""
    last = len(frames) - 1
    before = (frames[i] - frames[i - 1], values[i] - values[i - 1]) if i > 0 else None
    after = (frames[i + 1] - frames[i], values[i + 1] - values[i]) if i < last else None
    known: Any = before or after
    (span_before, rise_before), (span_after, rise_after) = before or known, after or known
    t, c, b = key.tension, key.continuity if leaving else -key.continuity, key.bias
    mixed = (1 - t) * ((1 + c) * (1 + b) * rise_before + (1 - c) * (1 - b) * rise_after)
    span = span_before + span_after
    # Path knots that are too close to distinguish have no velocity.
    result: Array = mixed / span if span > 0 else np.zeros_like(mixed)
    return result


def _tangent(points: list[tuple[float, Array]]) -> Array:
    """The slope from the origin to the first point that is not at the origin; 0 where that is upright."""
    for x, y in points:
        if x > UPRIGHT:
            return np.asarray(y / x)
        if np.any(y):
            break
    return np.zeros_like(points[-1][1])
