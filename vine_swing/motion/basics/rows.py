"""Rows of samples: equal rows are stored once, and many rows are processed a few at a time."""

from collections.abc import Iterator
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

_Number = TypeVar("_Number", bound=np.generic)
#: Samples of float64 worked on at once where they are missing through repeatedly, so that they stay in the processor's cache.
CACHED_SAMPLES = 16_000


def shrunk(array: NDArray[np.float64]) -> NDArray[np.float64]:
    """An array (n, …) whose rows are all equal, as that one row (1, …); other arrays unchanged. Dependent values are then computed once."""
    return array[:1] if len(array) > 1 and bool((array == array[:1]).all()) else array


def rows_of(array: NDArray[_Number], rows: NDArray[np.intp] | slice) -> NDArray[_Number]:
    """Some rows of an array; the same array where it has a single one for all."""
    return array if len(array) == 1 else array[rows]


def in_cache(rows: int, samples: int) -> Iterator[slice]:
    """Slices of `rows` rows of `samples` numbers each: few enough at a time that intermediate arrays stay in the processor's cache."""
    some = max(1, CACHED_SAMPLES // max(1, samples))
    return (slice(first, min(first + some, rows)) for first in range(0, rows, some))
