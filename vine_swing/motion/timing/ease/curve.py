"""The protocol every ease follows.

An ease is built once from its parameters and evaluated over arrays. It maps u, the share of the stretch that has passed
(0…1), to p, the share of the change that is done. p may leave 0…1 on the way.
"""

from typing import Protocol

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]


class EaseCurve(Protocol):
    """One ease, ready to be evaluated."""

    #: Tells curves apart in arrays; `build` gives each its own.
    number: int

    def at(self, u: Array) -> Array:
        """p at each u; `u` is within 0…1 and the result has its shape."""
        ...

    def slopes(self) -> tuple[float, float]:
        """dp/du where the stretch begins and where it ends; finite (a vertical tangent counts as 0)."""
        ...
