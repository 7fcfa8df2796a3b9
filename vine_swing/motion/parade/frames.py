"""At which frames the parts of a parade have to be known: each copy reads them `delay · rank` frames earlier.

The frames are laid out in rows so that every copy reads a run of them: what copy k shows at row i of the parade's own frames stands at row
i + offset k. Where delays keep still and are whole frames, all copies share one run that is a little longer.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Layout:
    """frames: (rows,), at which the parts are computed. offsets: (n,), the first row of each copy."""

    frames: Array
    offsets: NDArray[np.intp]

    def rows(self, copy: int, length: int) -> NDArray[np.intp]:
        """The rows that a copy reads, for `length` frames of the parade."""
        return np.arange(length, dtype=np.intp) + int(self.offsets[copy])


def laid_out(grid: Array, lags: Array) -> Layout:
    """The frames that copies read.

    Args:
        grid: the parade's own frames, (m,).
        lags: how much earlier each copy reads, (n, m), or (n, 1) where that never changes.
    """
    n, m = len(lags), len(grid)
    if n == 0 or m == 0:
        return Layout(np.empty(0), np.zeros(n, np.intp))
    shared = _shared(grid, lags[:, 0]) if lags.shape[1] == 1 or bool((lags == lags[:, :1]).all()) else None
    if shared is not None:
        return shared
    frames = (grid[None, :] - lags).reshape(-1)
    return Layout(frames, np.arange(n, dtype=np.intp) * m)


def _shared(grid: Array, lags: Array) -> Layout | None:
    """A run of frames for each distinct fraction of the lags, where the grid counts frames one by one and that takes fewer rows than one run a
    copy; None otherwise."""
    m = len(grid)
    if m > 1 and not np.array_equal(np.diff(grid), np.ones(m - 1)):
        return _alike(grid, lags)
    whole = np.floor(lags)
    fractions = lags - whole
    frames, offsets, rows = [], np.zeros(len(lags), np.intp), 0
    for fraction in np.unique(fractions):
        here = np.flatnonzero(fractions == fraction)
        low, high = whole[here].min(), whole[here].max()
        length = int(m + high - low)
        if rows + length > len(lags) * m:
            return _alike(grid, lags)
        frames.append(grid[0] - fraction - high + np.arange(length))
        offsets[here] = rows + (high - whole[here]).astype(np.intp)
        rows += length
    return Layout(np.concatenate(frames), offsets)


def _alike(grid: Array, lags: Array) -> Layout | None:
    """One run for each distinct lag."""
    distinct, which = np.unique(lags, return_inverse=True)
    frames = (grid[None, :] - distinct[:, None]).reshape(-1)
    return Layout(frames, which.reshape(-1).astype(np.intp) * len(grid))
