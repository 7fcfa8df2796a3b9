"""Pendulum: swings under its own weight, exact for large angles.

θ″ = −(g/L)·sin θ − 2·damping·√(g/L)·θ′, from rest at `angle` at the frame `start`, before which it is held there. Without damping the
closed form is sin(θ/2) = k·sn(K − ωt, k²), k = sin(angle/2) (Abramowitz and Stegun, 16 and 17). Else it is integrated by the
classical Runge–Kutta method, 8 steps a frame, and read between them by cubics: within 1e-6 of its angle.
"""

from math import sin

import numpy as np
from numpy.typing import NDArray
from scipy.special import ellipj, ellipk

from vine_swing.motion.rules.spec import AT_START, Array, Mode, Read, RuleSpec, Settings, SettingSpec, Source, by_name, combined, number_or

_PER_FRAME = 8
_AHEAD = 0.25


def prepare(source: Source, settings: Settings, mode: Mode) -> Read:
    """The values with the swing on them."""
    swing = _Pendulum(source, settings)
    return lambda t: combined(mode, source.at(t), swing.at(t))


class _Pendulum:
    """The swings of some rows, integrated as far as anyone has read them."""

    def __init__(self, source: Source, settings: Settings) -> None:
        self._fps, self._settings = source.timing.fps, settings
        self._start = number_or(settings, "start", AT_START)
        self._angle = np.radians(number_or(settings, "angle", AT_START, 30.0))
        keyed = any(settings.breaks(name) is not None for name in ("length", "gravity", "damping"))
        self._closed = not keyed and not np.any(number_or(settings, "damping", AT_START))
        self._states = np.empty((0, 0, 2))

    def at(self, t: Array) -> Array:
        """Degrees (r, n) at frames t (1 or r, n)."""
        after = np.maximum(t - self._start, 0.0)
        return np.degrees(self._exact(after) if self._closed else self._integrated(after))

    def _exact(self, after: Array) -> Array:
        k = np.sin(self._angle / 2)
        quarter = ellipk(k**2)
        omega = np.sqrt(self._stiffness(AT_START))
        sn = ellipj(quarter - omega * after / self._fps, k**2)[0]
        angle: Array = 2 * np.arcsin(np.clip(k * sn, -1, 1))
        return angle

    def _stiffness(self, t: Array) -> Array:
        return number_or(self._settings, "gravity", t, 980.0) / number_or(self._settings, "length", t, 200.0)

    def _integrated(self, after: Array) -> Array:
        steps = int(np.ceil(float(after.max(initial=0)) * _PER_FRAME)) + 1
        if self._states.shape[1] <= steps:
            self._states = self._run(int(steps * (1 + _AHEAD if self._states.size else 1)) + 1)
        place = after * _PER_FRAME
        first = np.minimum(np.floor(place).astype(np.intp), self._states.shape[1] - 2)
        u, h = place - first, 1 / (_PER_FRAME * self._fps)
        rows = np.arange(len(self._states))[:, None]
        (a, va), (b, vb) = (np.moveaxis(self._states[rows, np.broadcast_to(at, (len(rows), at.shape[1]))], -1, 0) for at in (first, first + 1))
        # The cubic through both places with both velocities (Hermite).
        cubic: Array = (2 * u**3 - 3 * u**2 + 1) * a + (u**3 - 2 * u**2 + u) * h * va + (3 * u**2 - 2 * u**3) * b + (u**3 - u**2) * h * vb
        return cubic

    def _run(self, steps: int) -> NDArray[np.float64]:
        """Angle and velocity (r, steps + 1, 2) at every step from `start` on."""
        h = 1 / (_PER_FRAME * self._fps)
        halves = self._start + np.arange(2 * steps + 1)[None, :] / (2 * _PER_FRAME)
        stiff = self._stiffness(halves)
        drag = 2 * number_or(self._settings, "damping", halves, 0.05) * np.sqrt(stiff)
        rows = max(len(self._angle), len(stiff), len(drag))
        shape = (rows, halves.shape[1])
        states = np.empty((rows, steps + 1, 2))
        for row, (stiffness, drags) in enumerate(zip(np.broadcast_to(stiff, shape).tolist(), np.broadcast_to(drag, shape).tolist(), strict=True)):
            angle, velocity = float(np.broadcast_to(self._angle, (rows, 1))[row, 0]), 0.0
            states[row, 0] = angle, velocity
            for n in range(steps):
                angle, velocity = _step(angle, velocity, h, stiffness[2 * n : 2 * n + 3], drags[2 * n : 2 * n + 3])
                states[row, n + 1] = angle, velocity
        return states


def _step(angle: float, velocity: float, h: float, stiff: list[float], drag: list[float]) -> tuple[float, float]:
    """One step of the classical Runge–Kutta method, with stiffness and drag at its beginning, middle and end."""
    a1 = -stiff[0] * sin(angle) - drag[0] * velocity
    v2 = velocity + h / 2 * a1
    a2 = -stiff[1] * sin(angle + h / 2 * velocity) - drag[1] * v2
    v3 = velocity + h / 2 * a2
    a3 = -stiff[1] * sin(angle + h / 2 * v2) - drag[1] * v3
    v4 = velocity + h * a3
    a4 = -stiff[2] * sin(angle + h * v3) - drag[2] * v4
    return angle + h / 6 * (velocity + 2 * v2 + 2 * v3 + v4), velocity + h / 6 * (a1 + 2 * a2 + 2 * a3 + a4)


SPEC = RuleSpec(
    kind="pendulum",
    label="Pendulum",
    about="Swings from where it hangs, by its length and weight: lianas, lamps, satchels.",
    settings=by_name(
        SettingSpec(
            "length", "length", "px", 200.0, 1.0, 1e6, usual=(20.0, 800.0), step=1.0, about="From where it hangs to its weight: longer is slower."
        ),
        SettingSpec("gravity", "gravity", "px/s²", 980.0, 0.0, 1e7, usual=(100.0, 4000.0), step=10.0, about="How strongly it is pulled down."),
        SettingSpec(
            "angle", "angle", "°", 30.0, -179.0, 179.0, usual=(-120.0, 120.0), step=1.0, about="Where it is let go, from hanging straight down."
        ),
        SettingSpec(
            "damping", "damping", "", 0.02, 0.0, 5.0, usual=(0.0, 0.5), step=0.01, about="0 swings for ever, 1 comes to rest without a swing."
        ),
        SettingSpec("start", "start", "frames", 0.0, -1e6, 1e6, usual=(0.0, 240.0), step=1.0, about="The frame it is let go at; held until then."),
    ),
    modes=("add", "replace"),
    prepare=prepare,
    summary="{length} · from {angle} · damping {damping}",
    telling={"angle": 60.0, "length": 60.0, "damping": 0.08},
    acts=("rotation",),
)
