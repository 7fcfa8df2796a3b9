"""CSS cubic-bezier: a cubic from (0, 0) to (1, 1) with two control points.

Source: W3C CSS Easing Functions Level 2, "Cubic Bézier easing functions". The curve's x is inverted by Newton's method
kept inside a bisection bracket, so it converges for every pair of control points with x in 0…1.
"""

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.timing.ease.curve import Array

#: Samples inverted at once: few enough that what is worked on stays in the processor's cache.
_AT_ONCE = 16_384
#: Largest error allowed in u when the curve's x is inverted.
TOLERANCE = 1e-13
#: A tangent narrower than this in u is treated as vertical: extrapolating along it would leave any picture at once.
UPRIGHT = 1e-6
_ROUNDS = 64


class Bezier:
    """cubic-bezier(x1, y1, x2, y2), x1 and x2 within 0…1."""

    number = 0

    def __init__(self, x1: float, y1: float, x2: float, y2: float) -> None:
        self.x1, self.y1, self.x2, self.y2 = x1, y1, x2, y2
        self._x = _coefficients(x1, x2)
        self._y = _coefficients(y1, y2)

    def at(self, u: Array) -> Array:
        """How far the stretch is passed (0 to 1, beyond for overshoots) at shares u of its time."""
        return Bezier.evaluate_many([self], np.zeros(u.size, np.intp), u.ravel()).reshape(u.shape)

    @staticmethod
    def evaluate_many(curves: "list[Bezier]", which: NDArray[np.intp], u: Array) -> Array:
        """p for samples u (m,) of several curves; `which` (m,) is the index of each sample's curve."""
        x, y = np.array([one._x for one in curves]), np.array([one._y for one in curves])
        p = np.empty_like(u)
        for start in range(0, len(u), _AT_ONCE):
            some = slice(start, start + _AT_ONCE)
            w, t = which[some], u[some]
            # The same numbers for all samples of a lone curve need no array of their own.
            across, up = (tuple(x[0]), tuple(y[0])) if len(curves) == 1 else (tuple(x[w].T), tuple(y[w].T))
            p[some] = _cubic(up, solve(across, t, guess=_near(across, t)))
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
    flat = x.ravel()
    solved = (x if guess is None else guess).ravel().copy()
    # Each sample is left alone once it has settled, so that its bits do not depend on what is solved beside it.
    left = np.flatnonzero(np.abs(_cubic(coefficients, solved.reshape(x.shape)) - x) > TOLERANCE)
    if not len(left):
        return solved.reshape(x.shape)
    a, b, c = (np.broadcast_to(k, x.shape).ravel()[left] for k in coefficients)
    low, high = np.zeros(len(left)), np.ones(len(left))
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


def _near(coefficients: tuple[Array, Array, Array], x: Array) -> Array:
    """An approximation of `solve`: four bisections, then Newton steps within that bracket."""
    a, b, c = coefficients
    low, h = np.zeros_like(x), 1.0
    for _ in range(4):
        h /= 2
        low += h * (_cubic(coefficients, low + h) <= x)
    high = low + h
    left = _cubic(coefficients, low)
    wide = _cubic(coefficients, high) - left
    s = low + h * (x - left) / np.where(wide > 0, wide, 1.0)
    a3, b2 = 3 * a, 2 * b
    with np.errstate(all="ignore"):
        for _ in range(3):
            s -= (_cubic(coefficients, s) - x) / ((a3 * s + b2) * s + c)
            np.fmin(np.fmax(s, low, out=s), high, out=s)
    return s


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
