"""The ground a figure walks on: the upper edge of a shape, as a height over x.

Where several parts of the shape lie above one another, the highest counts; beyond its ends it goes on level. Heights are kept
at evenly spread x and read along straight lines between them, so that a planted foot always finds the same place.
"""

from collections.abc import Sequence
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
#: The spacing of the heights in px, and how many there are at most.
_STEP, _MOST = 1.0, 8192
#: Grounds that are kept from bake to bake, and of each how many ways to even it out: up to 1 MB each, mostly a few kB.
_KEPT, _EVENED = 16, 16


class Ground:
    """Heights over x, in px, y down."""

    def __init__(self, x: Array, y: Array) -> None:
        """`x` evenly spread and rising, (m,) with m > 1; `y` the heights there."""
        self._x, self._y = x, y
        self._even: dict[float, Array] = {}

    @classmethod
    def under(cls, lines: Sequence[Array]) -> "Ground | None":
        """The upper edge of some polylines, each (k, 2); None if they have no width."""
        return _ground_under(tuple(np.ascontiguousarray(line, float).tobytes() for line in lines))

    def height(self, x: Array) -> Array:
        """y at some x, (n,)."""
        return np.asarray(np.interp(x, self._x, self._y))

    def even(self, x: Array, reach: float) -> Array:
        """y at some x, (n,), evened out over about `reach` px to both sides."""
        spread = round(max(reach, _STEP), 1)
        evened = self._even.get(spread)
        if evened is None:
            # Imported where it is used: loading scipy.ndimage takes a fifth of a second.
            from scipy.ndimage import gaussian_filter1d

            sigma = spread / 2 / float(self._x[1] - self._x[0])
            evened = np.asarray(gaussian_filter1d(self._y, sigma, mode="nearest"))
            if len(self._even) >= _EVENED:
                self._even.clear()
            self._even[spread] = evened
        return np.asarray(np.interp(x, self._x, evened))

    def slope(self, x: Array, reach: float) -> Array:
        """How steep it is at some x, (n,): dy/dx over `reach` px to both sides."""
        return np.asarray((self.height(x + reach) - self.height(x - reach)) / (2 * reach))


@lru_cache(_KEPT)
def _ground_under(lines: tuple[bytes, ...]) -> Ground | None:
    """The upper edge of polylines, each the bytes of (k, 2) numbers: as a key that is compared by value."""
    points = [np.frombuffer(line).reshape(-1, 2) for line in lines]
    # A point by itself is no line to walk on.
    points = [line for line in points if len(line) > 1]
    every = np.concatenate([np.empty((0, 2)), *points])
    if not len(every) or np.ptp(every[:, 0]) < _STEP:
        return None
    low, high = float(every[:, 0].min()), float(every[:, 0].max())
    x = np.linspace(low, high, int(min(_MOST, max(2, np.ceil((high - low) / _STEP) + 1))))
    y = np.full(len(x), np.inf)
    # Each stretch between two points, from its left end to its right.
    ends = np.concatenate([np.stack([line[:-1], line[1:]], axis=1) for line in points])
    turned = ends[:, 0, 0] > ends[:, 1, 0]
    ends[turned] = ends[turned, ::-1]
    (x0, y0), (x1, y1) = ends[:, 0].T, ends[:, 1].T
    first, behind = np.searchsorted(x, x0, side="left"), np.searchsorted(x, x1, side="right")
    count = np.maximum(behind - first, 0)
    # The places that each stretch covers, one stretch after the other.
    of = np.repeat(np.arange(len(ends)), count)
    at = np.arange(len(of)) + np.repeat(first - np.cumsum(count) + count, count)
    wide = np.where(x1 > x0, x1 - x0, 1.0)
    there = y0[of] + (y1 - y0)[of] * (x[at] - x0[of]) / wide[of]
    np.minimum.at(y, at, np.where((x1 > x0)[of], there, np.minimum(y0, y1)[of]))
    known = np.isfinite(y)
    return Ground(x, np.interp(x, x[known], y[known]))
