"""Rows that are all equal, kept as one."""

import numpy as np
from numpy.typing import NDArray


def shrunk(array: NDArray[np.float64]) -> NDArray[np.float64]:
    """An array (n, …) whose rows are all equal, as that one row (1, …); any other as it is. What follows from it alone is then worked out once."""
    return array[:1] if len(array) > 1 and bool((array == array[:1]).all()) else array
