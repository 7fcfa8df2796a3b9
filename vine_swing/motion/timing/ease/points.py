"""CSS linear(): straight lines between given points.

Source: W3C CSS Easing Functions Level 2, "The linear() easing function": beyond the outer points the nearest line goes
on; where two points share a u, the later one counts from there.
"""

import numpy as np

from vine_swing.motion.timing.ease.curve import Array


class Points:
    """Straight lines through (u, p) points in order of u; at least two points."""

    number = 0

    def __init__(self, points: tuple[tuple[float, float], ...]) -> None:
        self._u = np.array([u for u, _ in points])
        self._p = np.array([p for _, p in points])

    def at(self, u: Array) -> Array:
        """How far the stretch is passed (0 to 1, beyond for overshoots) at shares u of its time."""
        i = np.clip(np.searchsorted(self._u, u, side="right") - 1, 0, len(self._u) - 2)
        width = self._u[i + 1] - self._u[i]
        rise = self._p[i + 1] - self._p[i]
        share = np.divide(u - self._u[i], width, out=np.ones_like(u), where=width > 0)
        p: Array = self._p[i] + rise * share
        return p

    def slopes(self) -> tuple[float, float]:
        """dp/du at the beginning and at the end."""
        return self._slope(0), self._slope(-2)

    def _slope(self, i: int) -> float:
        width = self._u[i + 1] - self._u[i]
        return float((self._p[i + 1] - self._p[i]) / width) if width > 0 else 0.0
