"""Rows of samples: those that are all equal kept as one, and many gone through a few at a time."""

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

#: Samples of float64 worked on at once where they are gone through again and again, so that they stay in the processor's cache.
CACHED_SAMPLES = 16_000


def shrunk(array: NDArray[np.float64]) -> NDArray[np.float64]:
    """An array (n, …) whose rows are all equal, as that one row (1, …); any other as it is. What follows from it alone is then worked out once."""
    return array[:1] if len(array) > 1 and bool((array == array[:1]).all()) else array


def in_cache(rows: int, samples: int) -> Iterator[slice]:
    """Rows of so many samples each, a few at a time, so that what is worked out of them stays in the processor's cache."""
    some = max(1, CACHED_SAMPLES // max(1, samples))
    return (slice(first, min(first + some, rows)) for first in range(0, rows, some))
