"""Arrive at the next key by springing.

The step response of a damped harmonic oscillator, y″ + 2ζω y′ + ω² y = ω² (any control-theory text), with ω = 2π·frequency
and time counted in stretches: `frequency` is the number of swings across the stretch, so that the feel keeps its
shape when keys slide. What the spring has not settled by the end is taken off in proportion to u, so that it ends
exactly on the key.
"""

import numpy as np

from vine_swing.motion.timing.ease.curve import Array


class Spring:
    """A springing arrival: `frequency` swings per stretch, `damping` the damping ratio ζ (1 = critical)."""

    number = 0

    def __init__(self, frequency: float, damping: float) -> None:
        self.omega = 2 * np.pi * frequency
        self.damping = damping
        self._rest = 1.0 - float(self._response(np.array([1.0]))[0])

    def at(self, u: Array) -> Array:
        """How far the stretch is passed (0 to 1, beyond for overshoots) at shares u of its time."""
        return np.where(u >= 1, 1.0, self._response(u) + u * self._rest)

    def slopes(self) -> tuple[float, float]:
        """dp/du at the beginning and at the end."""
        return self._rest, float(self._velocity(1.0)) + self._rest

    def _response(self, u: Array) -> Array:
        w, z = self.omega, self.damping
        response: Array
        if abs(z - 1) < 1e-9:
            response = 1 - np.exp(-w * u) * (1 + w * u)
        elif z < 1:
            wd = w * np.sqrt(1 - z * z)
            response = 1 - np.exp(-z * w * u) * (np.cos(wd * u) + z * w / wd * np.sin(wd * u))
        else:
            r = np.sqrt(z * z - 1)
            fast, slow = -w * (z + r), -w * (z - r)
            response = 1 - (fast * np.exp(slow * u) - slow * np.exp(fast * u)) / (fast - slow)
        return response

    def _velocity(self, u: float) -> float:
        w, z = self.omega, self.damping
        if abs(z - 1) < 1e-9:
            return float(w * w * u * np.exp(-w * u))
        if z < 1:
            wd = w * np.sqrt(1 - z * z)
            return float(w * w / wd * np.exp(-z * w * u) * np.sin(wd * u))
        r = np.sqrt(z * z - 1)
        fast, slow = -w * (z + r), -w * (z - r)
        return float(fast * slow * (np.exp(fast * u) - np.exp(slow * u)) / (fast - slow))
