"""Arrive at the next key as a dropped thing arrives on the floor.

Elementary ballistics: a fall from rest over a height of 1, then parabolas of height keep^k and duration
2·fall·√(keep^k), k = 1…bounces, the whole scaled to the stretch. It lands for the last time exactly at u = 1.
"""

import numpy as np

from vine_swing.motion.timing.ease.curve import Array


class Bounce:
    """A bouncing arrival: `bounces` rebounds, each keeping the share `keep` of the height before it."""

    number = 0

    def __init__(self, bounces: int, keep: float) -> None:
        rebounds = np.sqrt(keep) ** np.arange(1, bounces + 1)
        self._fall = 1 / (1 + 2 * rebounds.sum())
        #: Where each rebound leaves the floor, then the end.
        self._floor = np.append(self._fall * (1 + 2 * np.append(0.0, rebounds.cumsum()))[:-1], 1.0) if bounces else np.ones(1)
        self._half = self._fall * rebounds

    def at(self, u: Array) -> Array:
        """How far the stretch is passed (0 to 1, beyond for overshoots) at shares u of its time."""
        p = (np.minimum(u, self._fall) / self._fall) ** 2
        if self._half.size:
            k = np.clip(np.searchsorted(self._floor, u, side="right") - 1, 0, self._half.size - 1)
            half = self._half[k]
            past = np.clip(u - self._floor[k], 0, 2 * half)
            height = (half**2 - (past - half) ** 2) / self._fall**2
            p = np.where(u >= self._fall, 1 - height, p)
        return np.where(u >= 1, 1.0, p)

    def slopes(self) -> tuple[float, float]:
        """dp/du at the beginning and at the end."""
        last = float(self._half[-1]) if self._half.size else self._fall
        return 0.0, 2 * last / self._fall**2
