"""Spring: follows what it reads as a weight on a spring does.

y″ + 2ζω y′ + ω² y = ω² x with ω = 2π·frequency, from rest on x at frame 0; before that it is x at frame 0. Time is divided into frames,
and at every place between them where x may jump. Within such a cell x is taken as the polynomial through its five Gauss–Legendre places, for
which the equation has a closed solution, whatever the damping: exact where x goes in straight lines, and within 1e-6 of its size on eases.
"""

import numpy as np
from numpy.typing import NDArray
from scipy.signal import lfilter

from vine_swing.motion.rules.spec import Array, Mode, RuleSpec, Settings, SettingSpec, Source, by_name, number_or

Index = NDArray[np.intp]
_PER_FRAME = 1
#: Places within a cell, as shares of it, at which x is read: none at its ends, where it may jump.
_READ = (np.polynomial.legendre.leggauss(5)[0] + 1) / 2
_DEGREE = len(_READ) - 1
_POLYNOMIAL = np.linalg.inv(np.vander(_READ, increasing=True))


def apply(source: Source, t: Array, settings: Settings, mode: Mode) -> Array:
    """The values on the spring. Shapes (n,)."""
    start = source.at(np.zeros(1))[0]
    result = np.full(t.shape, start)
    after = t > 0
    if not after.any():
        return result
    edges = _edges(float(t.max()), source.breaks)
    cells = _Cells(source, settings, edges)
    where = np.clip(np.searchsorted(edges, t[after], side="right") - 1, 0, len(edges) - 2)
    y, v = cells.states(start)
    result[after] = cells.inside(where, (t[after] - edges[where]) / source.timing.fps, y[where], v[where])
    return result


def _edges(end: float, breaks: Array) -> Array:
    """Where cells begin and end, from 0 to at least `end`."""
    grid = np.arange(int(np.ceil(end * _PER_FRAME)) + 1) / _PER_FRAME
    inner = breaks[(breaks > 0) & (breaks < grid[-1])]
    on_grid = inner * _PER_FRAME == np.round(inner * _PER_FRAME)
    return grid if on_grid.all() else np.unique(np.concatenate([grid, inner]))


class _Cells:
    """The cells (m,), each with the polynomial of x, the spring's own numbers, and how it carries a state on."""

    def __init__(self, source: Source, settings: Settings, edges: Array) -> None:
        wide = np.diff(edges)
        middle = edges[:-1] + wide / 2
        read = source.at((edges[:-1, None] + wide[:, None] * _READ).ravel()).reshape(-1, len(_READ))
        self.h = wide / source.timing.fps
        # x = Σ aₖ·τᵏ, τ in seconds from the cell's beginning.
        powers = (_POLYNOMIAL @ read.T) / self.h ** np.arange(len(_READ))[:, None]
        self.omega = np.broadcast_to(2 * np.pi * number_or(settings, "frequency", middle, 2.0), middle.shape)
        self.zeta = np.broadcast_to(number_or(settings, "damping", middle, 0.3), middle.shape)
        self.p = self._settled_polynomial(powers)
        self._steady = settings.breaks("frequency") is None and settings.breaks("damping") is None and np.allclose(wide, wide[0], rtol=1e-12)

    def _settled_polynomial(self, powers: Array) -> Array:
        """The motion without any swinging, Σ pₖ·τᵏ, from that of x; both (degree + 1, m).

        It is Σ cₖ·x⁽ᵏ⁾ with c₀ = 1, c₁ = −2ζ/ω and cₖ = −2ζ/ω·cₖ₋₁ − cₖ₋₂/ω²: put into the equation, every derivative of x but the
        function itself drops out.
        """
        lag, bend = -2 * self.zeta / self.omega, -1 / self.omega**2
        weights = [np.ones_like(self.h), lag]
        while len(weights) <= _DEGREE:
            weights.append(lag * weights[-1] + bend * weights[-2])
        settled, derivative = np.zeros_like(powers), powers
        for weight in weights:
            settled[: len(derivative)] += weight * derivative
            derivative = derivative[1:] * np.arange(1, len(derivative))[:, None]
        return settled

    def settled(self, where: Index | slice, tau: Array) -> tuple[Array, Array]:
        """The motion without any swinging, and its velocity, τ seconds into some cells."""
        powers = self.p[:, where]
        place, velocity = powers[_DEGREE], np.zeros_like(tau)
        for k in range(_DEGREE - 1, -1, -1):
            velocity = velocity * tau + place
            place = place * tau + powers[k]
        return place, velocity

    def carried(self, where: Index | slice, tau: Array) -> tuple[Array, Array, Array, Array]:
        """How a swing and its velocity go on over τ seconds: the matrix of the free spring, entry by entry."""
        omega, zeta = self.omega[where], self.zeta[where]
        free = omega * np.sqrt(np.abs(1 - zeta**2))
        angle = free * tau
        small = angle < 1e-6
        safe = np.where(small, 1.0, free)
        fade = np.exp(-zeta * omega * tau)
        # Over-damped: both exponentials with their fading, so that neither grows out of reach.
        slow, fast = np.exp((free - zeta * omega) * tau) / 2, np.exp(-(free + zeta * omega) * tau) / 2
        over = zeta > 1
        cosine = np.where(over, slow + fast, fade * np.cos(angle))
        sine = np.where(small, fade * tau, np.where(over, slow - fast, fade * np.sin(angle)) / safe)
        return cosine + zeta * omega * sine, sine, -(omega**2) * sine, cosine - zeta * omega * sine

    def states(self, start: float) -> tuple[Array, Array]:
        """Place and velocity at the beginning of every cell, and at the end of the last, (m + 1,), from rest at `start`."""
        whole = slice(None)
        (p0, q0), (p1, q1) = self.settled(whole, np.zeros_like(self.h)), self.settled(whole, self.h)
        m11, m12, m21, m22 = self.carried(whole, self.h)
        # z′ = M·z + g, with g what the settled motion brings.
        g1, g2 = p1 - m11 * p0 - m12 * q0, q1 - m21 * p0 - m22 * q0
        if self._steady:
            # The same matrix everywhere: by Cayley–Hamilton each of both is a recursion of two steps with M's trace and determinant.
            recursion = [1.0, -(m11[0] + m22[0]), m11[0] * m22[0] - m12[0] * m21[0]]
            first = np.concatenate([[start], g1])
            second = np.concatenate([[0.0], g2])
            return (
                lfilter([1.0], recursion, first + np.concatenate([[0.0], m12[0] * second[:-1] - m22[0] * first[:-1]])),
                lfilter([1.0], recursion, second + np.concatenate([[0.0], m21[0] * first[:-1] - m11[0] * second[:-1]])),
            )
        y, v = [start], [0.0]
        for a, b, c, d, e, f in zip(*(x.tolist() for x in (m11, m12, m21, m22, g1, g2)), strict=True):
            y.append(a * y[-1] + b * v[-1] + e)
            v.append(c * y[-2] + d * v[-1] + f)
        return np.array(y), np.array(v)

    def inside(self, where: Index, tau: Array, y: Array, v: Array) -> Array:
        """The place τ seconds into some cells, from the states they begin with."""
        (p0, q0), (p, _) = self.settled(where, np.zeros_like(tau)), self.settled(where, tau)
        m11, m12, _, _ = self.carried(where, tau)
        place: Array = p + m11 * (y - p0) + m12 * (v - q0)
        return place


SPEC = RuleSpec(
    kind="spring",
    label="Spring",
    about="Lags behind, swings past and settles: jelly, antennae, anything soft.",
    settings=by_name(
        SettingSpec("frequency", "frequency", "Hz", 2.0, 0.01, 60.0, about="How often it swings in a second; more is stiffer."),
        SettingSpec("damping", "damping", "", 0.3, 0.0, 20.0, about="0 swings for ever, 1 comes to rest without swinging past, more is sluggish."),
    ),
    modes=(),
    apply=apply,
)
