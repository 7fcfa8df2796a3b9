"""Stretches shaped by their keys: "handles" and "spline".

Both are cubic Bézier curves in (frame, value) space from one key to the next. With u the share of the stretch that has
passed, the curve's parameter s solves x(s) = u with x1 and x2 the handles' shares of the stretch, and the value is the Bézier
cubic of v0, v0 + y1, v1 + y2, v1 at s.

Spline tangents are those of D. Kochanek and R. Bartels, "Interpolating splines with local tension, continuity, and bias
control" (1984), scaled for unequal key distances so that the velocity is continuous at continuity 0 and is
(v₊ − v₋)/(f₊ − f₋) with all three 0. The first and last key take the difference they lack equal to the one they have.
"""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.channel import Channel, Key
from vine_swing.motion.ease.bezier import UPRIGHT, solve

Array = NDArray[np.float64]
SHAPED_BY_KEYS = frozenset({"handles", "spline"})


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
        values: Array = r**3 * start + 3 * r**2 * s * first + 3 * r * s**2 * second + s**3 * end
        return np.where(s <= 0, start, np.where(s >= 1, end, values))

    def slopes(self, key: int, rise: Array, frames: float) -> tuple[Array, Array]:
        """The slopes, in value per frame, at which a stretch of `frames` frames that rises by `rise` (d,) begins and ends."""
        x1, x2, y1, y2 = self.x1[key], self.x2[key], self.y1[key], self.y2[key]
        begin = _tangent([(x1, y1), (x2, rise + y2), (1.0, rise)])
        end = _tangent([(1 - x2, -y2), (1 - x1, rise - y1), (1.0, rise)])
        return begin / frames, end / frames


def lay(channels: Sequence[Channel], begin: NDArray[np.intp], frames: Array, values: Array) -> Cubics:
    """The cubic stretches of channels whose keys lie end to end."""
    wanted = [n for n, channel in enumerate(channels) if any(key.ease in SHAPED_BY_KEYS for key in channel.keys if isinstance(key.ease, str))]
    count, width = values.shape
    cubics = Cubics(np.zeros(count, bool), np.zeros(count), np.ones(count), np.zeros((count, width)), np.zeros((count, width)))
    for n in wanted:
        keys, first = channels[n].keys, int(begin[n])
        for i, (key, following) in enumerate(itertools.pairwise(keys)):
            at = first + i
            if key.ease == "handles":
                _lay_handles(cubics, at, key, following, frames[at + 1] - frames[at], values[at + 1] - values[at])
            elif key.ease == "spline":
                _lay_spline(cubics, at, keys, i, frames[first : first + len(keys)], values[first : first + len(keys)])
    return cubics


def _lay_handles(cubics: Cubics, at: int, key: Key, following: Key, span: float, rise: Array) -> None:
    cubics.is_cubic[at] = True
    # A handle that is left out lies a third of the way along the straight line; time is clamped to the stretch.
    out = key.out if key.out is not None else (span / 3, rise / 3)
    into = following.into if following.into is not None else (-span / 3, -rise / 3)
    cubics.x1[at], cubics.x2[at] = np.clip(out[0] / span, 0, 1), np.clip(1 + into[0] / span, 0, 1)
    cubics.y1[at], cubics.y2[at] = out[1], into[1]


def _lay_spline(cubics: Cubics, at: int, keys: tuple[Key, ...], i: int, frames: Array, values: Array) -> None:
    span = frames[i + 1] - frames[i]
    cubics.is_cubic[at] = True
    cubics.x1[at], cubics.x2[at] = 1 / 3, 2 / 3
    cubics.y1[at] = velocity(keys[i], i, frames, values, leaving=True) * span / 3
    cubics.y2[at] = -velocity(keys[i + 1], i + 1, frames, values, leaving=False) * span / 3


def velocity(key: Key, i: int, frames: Array, values: Array, *, leaving: bool) -> Array:
    """The Kochanek–Bartels velocity at key i, in value per frame, as the curve leaves it or arrives at it; shape (d,)."""
    last = len(frames) - 1
    before = (frames[i] - frames[i - 1], values[i] - values[i - 1]) if i > 0 else None
    after = (frames[i + 1] - frames[i], values[i + 1] - values[i]) if i < last else None
    known: Any = before or after
    (span_before, rise_before), (span_after, rise_after) = before or known, after or known
    t, c, b = key.tension, key.continuity if leaving else -key.continuity, key.bias
    mixed = (1 - t) * ((1 + c) * (1 + b) * rise_before + (1 - c) * (1 - b) * rise_after)
    result: Array = mixed / (span_before + span_after)
    return result


def _tangent(points: list[tuple[float, Array]]) -> Array:
    """The slope from the origin to the first point that is not at the origin; 0 where that is upright."""
    for x, y in points:
        if x > UPRIGHT:
            return np.asarray(y / x)
        if np.any(y):
            break
    return np.zeros_like(points[-1][1])
