"""Pendulum: swings under its own weight, exact for large angles.

θ″ = −(g/L)·sin θ − 2·damping·√(g/L)·θ′, from rest at `angle` at the frame `start`, before which it is held there. Without damping the
closed form is sin(θ/2) = k·sn(K − ωt, k²), k = sin(angle/2) (Abramowitz and Stegun, 16 and 17). Else it is integrated by the
classical Runge–Kutta method, 4 to 32 steps a frame by how stiff it is, and read between them by cubics: within 1e-6 of its angle.
"""

from dataclasses import dataclass
from math import sin

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.rules.spec import AT_START, Array, Mode, Read, RuleSpec, Settings, SettingSpec, Source, by_name, combined, number_of

#: The most steps a frame; the others divide it.
_FINEST = 32
#: Up to this many rows, plain Python floats are quicker than NumPy arrays.
_FEW_ROWS = 12
_AHEAD = 0.25
#: What a frame of a swing costs, counted in numbers read: some steps of a few dozen operations each.
_COST = 500.0


def prepare(source: Source, settings: Settings, mode: Mode) -> Read:
    """The values with the swing on them."""
    swing = _Pendulum(source, settings)
    return lambda t: combined(mode, source.at(t), swing.at(t))


class _Pendulum:
    """The swings of some rows, integrated as far as anyone has read them."""

    def __init__(self, source: Source, settings: Settings) -> None:
        self._fps, self._settings, self._spend = source.timing.fps, settings, source.spend
        self._start = number_of(settings, "start", AT_START)
        self._angle = np.radians(number_of(settings, "angle", AT_START))
        keyed = any(settings.breaks(name) is not None for name in ("length", "gravity", "damping"))
        self._closed = not keyed and not np.any(number_of(settings, "damping", AT_START))
        self._states: _States | None = None

    def at(self, t: Array) -> Array:
        """Degrees (r, n) at frames t (1 or r, n)."""
        after = np.maximum(t - self._start, 0.0)
        return np.degrees(self._exact(after) if self._closed else self._integrated(after))

    def _exact(self, after: Array) -> Array:
        # Imported where it is used: start-up needs no elliptic functions.
        from scipy.special import ellipj, ellipk

        k = np.sin(self._angle / 2)
        quarter = ellipk(k**2)
        omega = np.sqrt(self._stiffness(AT_START))
        sn = ellipj(quarter - omega * after / self._fps, k**2)[0]
        angle: Array = 2 * np.arcsin(np.clip(k * sn, -1, 1))
        return angle

    def _stiffness(self, t: Array) -> Array:
        return number_of(self._settings, "gravity", t) / number_of(self._settings, "length", t)

    def _integrated(self, after: Array) -> Array:
        end = float(after.max(initial=0))
        if self._states is None or end >= self._states.frames:
            frames = int(np.ceil(end * (1 + _AHEAD if self._states is not None else 1))) + 1
            self._spend(frames * _COST)
            self._states = _States.run(self, frames)
        return self._states.at(after)

    def rates(self, frames: int) -> tuple[Array, Array]:
        """Stiffness and drag over some frames from `start` on, 2·`_FINEST` times a frame: each (r, k), or (r, 1) if they never change."""
        t = self._start + np.arange(2 * _FINEST * frames + 1)[None, :] / (2 * _FINEST)
        stiff = self._stiffness(t)
        return stiff, 2 * number_of(self._settings, "damping", t) * np.sqrt(stiff)

    @property
    def angle(self) -> Array:
        """Where each row is released, in radians, (r, 1)."""
        return self._angle

    @property
    def fps(self) -> float:
        """Frames a second."""
        return self._fps


@dataclass(frozen=True)
class _States:
    """Angle and velocity of some swings at every step of theirs, `per_frame` (s,) steps a frame; swings (s) of (k, 2).

    which: the swing of each row, (r,): rows released alike with settings that never change swing alike.
    """

    frames: int
    which: NDArray[np.intp]
    per_frame: NDArray[np.intp]
    states: list[Array]
    fps: float

    @classmethod
    def run(cls, swing: _Pendulum, frames: int) -> "_States":
        """Integrate over some frames; every row by as many steps as its own stiffness asks for."""
        stiff, drag = swing.rates(frames)
        rows = max(len(swing.angle), len(stiff), len(drag))
        stiff, drag = (np.broadcast_to(one, (rows, one.shape[1])) for one in (stiff, drag))
        angle, which = np.broadcast_to(swing.angle, (rows, 1)), np.arange(rows)
        if stiff.shape[1] == drag.shape[1] == 1:
            distinct, which = np.unique(np.concatenate([angle, stiff, drag], axis=1), axis=0, return_inverse=True)
            angle, stiff, drag = (distinct[:, n : n + 1] for n in range(3))
        angle = angle[:, 0]
        # How far a small swing goes in a frame, in radians of its phase.
        pace = np.sqrt(stiff.max(axis=1)) / swing.fps
        per_frame = np.select([pace <= 0.15, pace <= 0.3, pace <= 0.6], [4, 8, 16], _FINEST)
        states: list[Array] = [np.empty((0, 2))] * len(angle)
        for steps in np.unique(per_frame).tolist():
            some = np.flatnonzero(per_frame == steps)
            every = _FINEST // steps
            k, c = (one[some] if one.shape[1] == 1 else one[some, ::every] for one in (stiff, drag))
            for row, found in zip(some.tolist(), _swings(angle[some], k, c, frames * steps, 1 / (steps * swing.fps)), strict=True):
                states[row] = found
        return cls(frames, which.reshape(-1), per_frame, states, swing.fps)

    def at(self, after: Array) -> Array:
        """Radians (r, n) at frames since the start (1 or r, n), by the cubics through both places with both velocities (Hermite)."""
        found = np.empty((len(self.which), after.shape[1]))
        for n, states in enumerate(self.states):
            rows = np.flatnonzero(self.which == n)
            # Rows that are read at the same frames are read once.
            for some in [rows] if len(after) == 1 else rows[:, None]:
                found[some] = self._read(states, int(self.per_frame[n]), after[some[0] % len(after)])
        return found

    def _read(self, states: Array, per_frame: int, after: Array) -> Array:
        """Radians of one swing at frames since its start, (n,)."""
        place = after * per_frame
        first = np.minimum(place.astype(np.intp), len(states) - 2)
        u, h = place - first, 1 / (per_frame * self.fps)
        u2 = u * u
        u3 = u2 * u
        (a, va), (b, vb) = states[first].T, states[first + 1].T
        radians: Array = (2 * u3 - 3 * u2 + 1) * a + (u3 - 2 * u2 + u) * h * va + (3 * u2 - 2 * u3) * b + (u3 - u2) * h * vb
        return radians


def _swings(angle: Array, stiff: Array, drag: Array, steps: int, h: float) -> Array:
    """Angle and velocity (r, steps + 1, 2) of some rows released at `angle` (r,); stiff and drag (r, 1), or (r, 2·steps + 1) at half steps."""
    if len(angle) <= _FEW_ROWS:
        width = 2 * steps + 1
        stiffs, drags = (np.broadcast_to(one, (len(angle), width)).tolist() for one in (stiff, drag))
        return np.array([_swing(*row, steps, h) for row in zip(angle.tolist(), stiffs, drags, strict=True)])
    return _swings_together(angle, stiff, drag, steps, h)


def _swing(angle: float, stiff: list[float], drag: list[float], steps: int, h: float) -> list[tuple[float, float]]:
    """Angle and velocity of one row at every step, by the classical Runge–Kutta method; `stiff` and `drag` are at half steps."""
    velocity = 0.0
    states = [(angle, velocity)]
    for n in range(0, 2 * steps, 2):
        a1 = -stiff[n] * sin(angle) - drag[n] * velocity
        v2 = velocity + h / 2 * a1
        a2 = -stiff[n + 1] * sin(angle + h / 2 * velocity) - drag[n + 1] * v2
        v3 = velocity + h / 2 * a2
        a3 = -stiff[n + 1] * sin(angle + h / 2 * v2) - drag[n + 1] * v3
        v4 = velocity + h * a3
        a4 = -stiff[n + 2] * sin(angle + h * v3) - drag[n + 2] * v4
        angle, velocity = angle + h / 6 * (velocity + 2 * v2 + 2 * v3 + v4), velocity + h / 6 * (a1 + 2 * a2 + 2 * a3 + a4)
        states.append((angle, velocity))
    return states


def _swings_together(angle: Array, stiff: Array, drag: Array, steps: int, h: float) -> Array:
    """As `_swings`, one step of all rows after the other."""
    states = np.empty((steps + 1, 2, len(angle)))
    angle, velocity = angle.copy(), np.zeros_like(angle)
    states[0] = angle, velocity
    # By half steps, the one that pulls back and the one that slows down; the same ones all along where they never change.
    back, slow = np.ascontiguousarray(-stiff.T), np.ascontiguousarray(-drag.T)
    for n in range(steps):
        (k1, k2, k3), (c1, c2, c3) = (one[2 * n : 2 * n + 3] if len(one) > 1 else (one[0],) * 3 for one in (back, slow))
        a1 = k1 * np.sin(angle) + c1 * velocity
        v2 = velocity + (h / 2) * a1
        a2 = k2 * np.sin(angle + (h / 2) * velocity) + c2 * v2
        v3 = velocity + (h / 2) * a2
        a3 = k2 * np.sin(angle + (h / 2) * v2) + c2 * v3
        v4 = velocity + h * a3
        a4 = k3 * np.sin(angle + h * v3) + c3 * v4
        angle = angle + (h / 6) * (velocity + 2 * (v2 + v3) + v4)
        velocity = velocity + (h / 6) * (a1 + 2 * (a2 + a3) + a4)
        states[n + 1] = angle, velocity
    return np.moveaxis(states, 2, 0)


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
    example={"angle": 60.0, "length": 60.0, "damping": 0.08},
    for_channels=("rotation",),
)
