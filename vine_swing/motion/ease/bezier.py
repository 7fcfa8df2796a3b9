"""CSS cubic-bezier: a cubic from (0, 0) to (1, 1) with two control points.

Source: W3C CSS Easing Functions Level 2, "Cubic Bézier easing functions". The curve's x is inverted by Newton's method
kept inside a bisection bracket, so it converges for every pair of control points with x in 0…1.
"""

import numpy as np

from vine_swing.motion.ease.curve import Array

#: Largest error allowed in u when the curve's x is inverted.
TOLERANCE = 1e-13
#: A tangent that covers less of u than this counts as upright: coasting along it would leave any picture at once.
UPRIGHT = 1e-6
_ROUNDS = 64
_PARAMETERS = np.linspace(0, 1, 129)


class Bezier:
    """cubic-bezier(x1, y1, x2, y2), x1 and x2 within 0…1."""

    def __init__(self, x1: float, y1: float, x2: float, y2: float) -> None:
        self.x1, self.y1, self.x2, self.y2 = x1, y1, x2, y2
        self._x = _coefficients(x1, x2)
        self._y = _coefficients(y1, y2)
        #: The curve's x at evenly spread parameters: a near first guess spares most of Newton's steps.
        self._table = _cubic(self._x, _PARAMETERS)

    def at(self, u: Array) -> Array:
        p = _cubic(self._y, solve(self._x, u, guess=np.interp(u, self._table, _PARAMETERS)))
        # The two ends are assigned, not approximated.
        return np.where(u <= 0, 0.0, np.where(u >= 1, 1.0, p))

    def slopes(self) -> tuple[float, float]:
        """As CSS extends the curve: the tangent at the end, or the chord to the far control point where two coincide."""
        return (
            _tangent([(self.x1, self.y1), (self.x2, self.y2), (1.0, 1.0)]),
            _tangent([(1 - self.x2, 1 - self.y2), (1 - self.x1, 1 - self.y1), (1.0, 1.0)]),
        )


def solve(coefficients: tuple[float, float, float] | tuple[Array, Array, Array], x: Array, *, guess: Array | None = None) -> Array:
    """The curve parameter s in 0…1 at which a·s³ + b·s² + c·s = x, for a cubic that rises from 0 to 1.

    Args:
        coefficients: (a, b, c), the same for all or one for each x.
        x: any shape, within 0…1.
        guess: where to begin, of the shape of x; x itself if left out.

    Returns:
        s, with the shape of x, so that the cubic at s is within TOLERANCE of x.
    """
    a, b, c = (np.broadcast_to(k, x.shape).ravel() for k in coefficients)
    flat = x.ravel()
    solved = (x if guess is None else guess).ravel().copy()
    # Each sample is left alone once it has settled, so that its bits do not depend on what is solved beside it.
    left = np.arange(flat.size)
    low, high = np.zeros_like(flat), np.ones_like(flat)
    for _ in range(_ROUNDS):
        s = solved[left]
        error = _cubic((a, b, c), s) - flat[left]
        going = np.abs(error) > TOLERANCE
        if not going.any():
            break
        left, s, error, low, high = left[going], s[going], error[going], low[going], high[going]
        a, b, c = a[going], b[going], c[going]
        high = np.where(error > 0, s, high)
        low = np.where(error <= 0, s, low)
        with np.errstate(divide="ignore", invalid="ignore"):
            step = s - error / ((3 * a * s + 2 * b) * s + c)
        # A flat tangent throws Newton's step outside the bracket: halve the bracket there instead.
        solved[left] = np.where((step > low) & (step < high), step, (low + high) / 2)
    return solved.reshape(x.shape)


def _coefficients(p1: float, p2: float) -> tuple[float, float, float]:
    return 1 + 3 * p1 - 3 * p2, 3 * p2 - 6 * p1, 3 * p1


def _cubic(coefficients: tuple[float, float, float] | tuple[Array, Array, Array], s: Array) -> Array:
    a, b, c = coefficients
    height: Array = ((a * s + b) * s + c) * s
    return height


def _tangent(points: list[tuple[float, float]]) -> float:
    """The slope from the origin to the first point that is not at the origin; 0 where that is upright."""
    for x, y in points:
        if x or y:
            return y / x if x > UPRIGHT else 0.0
    return 0.0
