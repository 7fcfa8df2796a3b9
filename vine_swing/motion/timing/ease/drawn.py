"""A feel drawn by hand: a smooth curve, or straight lines, through some points.

The smooth curve is the monotone cubic of F. Fritsch and J. Butland, "A method for constructing local monotone piecewise cubic
interpolants" (1984): it never swings past the points it is drawn through.
"""

import numpy as np

from vine_swing.motion.timing.ease.spec import PointsEase

#: Straight pieces a smooth curve is kept as.
_PIECES = 96


def drawn(points: list[tuple[float, float]], *, smooth: bool) -> PointsEase:
    """The ease through some [u, p] points.

    Raises:
        ValueError: unless there are two points or more, from u = 0 to u = 1, each u greater than the one before.
    """
    # Finer than anyone can draw, and coarse enough that no difference is lost in division.
    u, p = np.array(points, dtype=float).reshape(-1, 2).round(9).T
    if len(u) < 2 or u[0] != 0 or u[-1] != 1:
        raise ValueError("a feel goes from u 0 to u 1; put its first point at 0 and its last at 1")
    if np.any(np.diff(u) <= 0):
        raise ValueError("two points of the feel share one u; move one of them along")
    if not smooth or len(u) == 2:
        return PointsEase(points=tuple((float(a), float(b)) for a, b in points))
    # Imported where it is used: loading scipy.interpolate takes a good part of a second.
    from scipy.interpolate import PchipInterpolator

    at = np.union1d(np.linspace(0, 1, _PIECES + 1), u)
    return PointsEase(points=tuple((float(a), float(b)) for a, b in zip(at, PchipInterpolator(u, p)(at).round(6), strict=True)))
