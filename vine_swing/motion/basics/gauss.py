"""Polynomials through the five Gauss–Legendre places of a cell of time.

No place is on an end of the cell, where values may jump. Abramowitz & Stegun, 25.4.29.
"""

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

#: Where the places are within a cell, as shares of it, in order.
PLACES = (np.polynomial.legendre.leggauss(5)[0] + 1) / 2
_COEFFICIENTS = np.linalg.inv(np.vander(PLACES, increasing=True))


def polynomials(values: Array) -> Array:
    """The coefficients (5, r, m), lowest power first, of the polynomials in the share of a cell that is missing, through values (r, 5·m) of r rows at
    the places of m cells, one cell after the other."""
    # Alike in memory, and each sum by itself: a product of matrices may round a row by the rows beside it.
    in_cells = np.ascontiguousarray(values).reshape(len(values), -1, len(PLACES))
    return np.stack([np.vecdot(in_cells, row) for row in _COEFFICIENTS])
