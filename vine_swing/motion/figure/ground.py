"""The ground a figure walks on: the upper edge of a shape, as a height over x.

Where several parts of the shape lie above one another, the highest counts; beyond its ends it goes on level. Heights are kept
at evenly spread x and read along straight lines between them, so that a planted foot always finds the same place.
"""

from collections.abc import Sequence
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
#: The spacing of the heights in px, and how many there are at most.
_STEP, _MOST = 1.0, 8192


class Ground:
    """Heights over x, in px, y down."""

    def __init__(self, x: Array, y: Array) -> None:
        """`x` evenly spread and rising, (m,) with m > 1; `y` the heights there."""
        self._x, self._y = x, y
        self._even: dict[float, Array] = {}

    @classmethod
    def under(cls, lines: Sequence[Array]) -> "Ground | None":
        """The upper edge of some polylines, each (k, 2); None if they have no width."""
        points = np.concatenate([np.empty((0, 2)), *lines])
        if not len(points) or np.ptp(points[:, 0]) < _STEP:
            return None
        low, high = float(points[:, 0].min()), float(points[:, 0].max())
        x = np.linspace(low, high, int(min(_MOST, max(2, np.ceil((high - low) / _STEP) + 1))))
        y = np.full(len(x), np.inf)
        for line in lines:
            for (x0, y0), (x1, y1) in pairwise(line):
                (x0, y0), (x1, y1) = ((x0, y0), (x1, y1)) if x0 <= x1 else ((x1, y1), (x0, y0))
                a, b = np.searchsorted(x, (x0, x1), side="left")
                b = min(int(b) + (b < len(x) and x[min(int(b), len(x) - 1)] == x1), len(x))
                if b > a:
                    there = y0 + (y1 - y0) * (x[a:b] - x0) / (x1 - x0) if x1 > x0 else np.full(b - a, min(y0, y1))
                    y[a:b] = np.minimum(y[a:b], there)
        known = np.isfinite(y)
        return cls(x, np.interp(x, x[known], y[known]))

    def height(self, x: Array) -> Array:
        """y at some x, (n,)."""
        return np.asarray(np.interp(x, self._x, self._y))

    def even(self, x: Array, reach: float) -> Array:
        """y at some x, (n,), evened out over about `reach` px to both sides."""
        spread = round(max(reach, _STEP), 1)
        if spread not in self._even:
            # Imported where it is used: loading scipy.ndimage takes half a second.
            from scipy.ndimage import gaussian_filter1d

            sigma = spread / 2 / float(self._x[1] - self._x[0])
            self._even[spread] = np.asarray(gaussian_filter1d(self._y, sigma, mode="nearest"))
        return np.asarray(np.interp(x, self._x, self._even[spread]))

    def slope(self, x: Array, reach: float) -> Array:
        """How steep it is at some x, (n,): dy/dx over `reach` px to both sides."""
        return np.asarray((self.height(x + reach) - self.height(x - reach)) / (2 * reach))
