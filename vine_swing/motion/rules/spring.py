"""Spring: follows what it reads as a weight on a spring does.

y″ + 2ζω y′ + ω² y = ω² x with ω = 2π·frequency, from rest on x at frame 0; before that it is x at frame 0. Time is divided into frames,
and at every place between them where x may jump. Within such a cell x is taken as the polynomial through its five Gauss–Legendre places, for
which the equation has a closed solution, whatever the damping: exact where x goes in straight lines, and within 1e-6 of its size on eases.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics.gauss import PLACES, polynomials
from vine_swing.motion.basics.rows import in_cache, shrunk
from vine_swing.motion.rules.spec import AT_START, Array, Mode, Read, RuleSpec, Settings, SettingSpec, Source, by_name, number_of

Index = NDArray[np.intp]
_DEGREE = len(PLACES) - 1
#: Time is computed as far as it is read, and this share farther, so that reading on and on costs no more than its sum.
_AHEAD = 0.25
#: Up to this many rows, stepping through time in plain Python floats is quicker than in NumPy arrays; both give the same bits.
_FEW_ROWS = 24


def prepare(source: Source, settings: Settings, mode: Mode) -> Read:
    """The values on the spring; cells once computed are kept for later readings."""
    return _Spring(source, settings).at


class _Spring:
    """The springs of some rows, computed as far as anyone has read them."""

    def __init__(self, source: Source, settings: Settings) -> None:
        self._source, self._settings = source, settings
        self._cells: _Cells | None = None
        self._start: Array | None = None

    def at(self, t: Array) -> Array:
        """The values (r, n) at frames t (1 or r, n)."""
        if self._start is None:
            self._start = self._source.at(AT_START)
        start = self._start
        end = float(t.max(initial=0))
        if end <= 0:
            return np.array(np.broadcast_to(start, (len(start), t.shape[1])))
        if self._cells is None or end > self._cells.edges[-1]:
            farther = 0.0 if self._cells is None else _AHEAD * end
            self._cells = _Cells.of(self._source, self._settings, start, _edges(end + farther, self._source.breaks))
        return np.where(t > 0, self._cells.inside(t), start)


def _edges(end: float, breaks: Array) -> Array:
    """Where cells begin and end, from 0 to at least `end`: whole frames, and the breaks between them."""
    grid = np.arange(np.ceil(end) + 1)
    inner = breaks[(breaks > 0) & (breaks < grid[-1])]
    return np.unique(np.concatenate([grid, inner])) if len(inner) else grid


@dataclass(frozen=True)
class _Cells:
    """The m cells of r rows, each with the motion it settles on, the spring's own numbers, and the state it begins with.

    edges: (m + 1,) frames. omega, zeta: (r or 1, m), 1/s and a plain number. p: (degree + 1, r, m), the powers of the settled
    motion in τ, seconds from the cell's beginning. away: (2, r, m), how far place and velocity are from it at the beginning.
    """

    edges: Array
    fps: float
    omega: Array
    zeta: Array
    p: Array
    away: Array

    @classmethod
    def of(cls, source: Source, settings: Settings, start: Array, edges: Array) -> "_Cells":
        """Cells between some edges (m + 1,), from rest at `start` (r, 1)."""
        wide = np.diff(edges)
        middle = (edges[:-1] + wide / 2)[None, :]
        read = source.at((edges[:-1, None] + wide[:, None] * PLACES).reshape(1, -1))
        h = wide / source.timing.fps
        omega = 2 * np.pi * shrunk(number_of(settings, "frequency", middle))
        zeta = shrunk(number_of(settings, "damping", middle))
        # x = Σ aₖ·τᵏ.
        powers = np.stack([row / h**k for k, row in enumerate(polynomials(read))])
        p = _settled_polynomial(powers, omega, zeta)
        (p0, q0), (p1, q1) = (p[0], p[1]), (_place(p, h), _velocity(p, h))
        carry = _carried(omega, zeta, h)
        m11, m12, m21, m22 = carry
        # z′ = M·z + g, with g what the settled motion brings.
        g = p1 - m11 * p0 - m12 * q0, q1 - m21 * p0 - m22 * q0
        y, v = _stepped(start, carry, g)
        return cls(edges, source.timing.fps, omega, zeta, p, np.stack([y - p0, v - q0]))

    def inside(self, t: Array) -> Array:
        """The places at frames t (1 or r, n), those before 0 of no meaning."""
        last = len(self.edges) - 2
        where = np.clip(np.searchsorted(self.edges, t, side="right") - 1, 0, last)
        tau = (t - self.edges[where]) / self.fps
        if len(t) == 1:
            return self._inside_cells(where[0], tau[0])
        p, away = np.take_along_axis(self.p, where[None], axis=2), np.take_along_axis(self.away, where[None], axis=2)
        omega, zeta = (
            one if one.shape[1] == 1 else np.take_along_axis(np.broadcast_to(one, self.p.shape[1:]), where, axis=1) for one in (self.omega, self.zeta)
        )
        m11, m12, _, _ = _carried(omega, zeta, tau)
        place: Array = _place(p, tau) + m11 * away[0] + m12 * away[1]
        return place

    def _inside_cells(self, cells: Index, tau: Array) -> Array:
        """The places of all rows in some cells (n,), at τ (n,) in each."""
        omega, zeta = (one if one.shape[1] == 1 else one[:, cells] for one in (self.omega, self.zeta))
        m11, m12, _, _ = _carried(omega, zeta, tau)
        places = np.empty((self.p.shape[1], len(cells)))
        for some in in_cache(len(cells), len(places)):
            own = cells[some]
            place = _place(self.p[:, :, own], tau[some])
            place += m11[:, some] * self.away[0][:, own]
            place += m12[:, some] * self.away[1][:, own]
            places[:, some] = place
        return places


def _settled_polynomial(powers: Array, omega: Array, zeta: Array) -> Array:
    """The motion without any swinging, Σ pₖ·τᵏ, from that of x; both (degree + 1, r, m).

    It is Σ cₖ·x⁽ᵏ⁾ with c₀ = 1, c₁ = −2ζ/ω and cₖ = −2ζ/ω·cₖ₋₁ − cₖ₋₂/ω²: put into the equation, every derivative of x but the
    function itself drops out.
    """
    lag, bend = -2 * zeta / omega, -1 / omega**2
    weights = [np.ones_like(lag), lag]
    while len(weights) <= _DEGREE:
        weights.append(lag * weights[-1] + bend * weights[-2])
    settled, derivative = np.zeros_like(powers), powers
    for weight in weights:
        settled[: len(derivative)] += weight * derivative
        derivative = derivative[1:] * np.arange(1, len(derivative))[:, None, None]
    return settled


def _place(p: Array, tau: Array) -> Array:
    """A polynomial (degree + 1, r, n) at τ (n,) or (r, n)."""
    place: Array = p[_DEGREE]
    for k in range(_DEGREE - 1, -1, -1):
        place = place * tau + p[k]
    return place


def _velocity(p: Array, tau: Array) -> Array:
    """The derivative of a polynomial (degree + 1, r, n) at τ (n,) or (r, n)."""
    velocity: Array = _DEGREE * p[_DEGREE]
    for k in range(_DEGREE - 1, 0, -1):
        velocity = velocity * tau + k * p[k]
    return velocity


def _carried(omega: Array, zeta: Array, tau: Array) -> tuple[Array, Array, Array, Array]:
    """How a swing and its velocity go on over τ seconds: the matrix of the free spring, entry by entry."""
    free = omega * np.sqrt(np.abs(1 - zeta**2))
    angle = free * tau
    small = angle < 1e-6
    safe = np.where(small, 1.0, free)
    fade = np.exp(-zeta * omega * tau)
    cosine, sine = fade * np.cos(angle), fade * np.sin(angle)
    over = zeta > 1
    if over.any():
        # Over-damped: both exponentials with their fading, so that neither grows out of reach.
        slow, fast = np.exp(np.minimum((free - zeta * omega) * tau, 0)) / 2, np.exp(-(free + zeta * omega) * tau) / 2
        cosine, sine = np.where(over, slow + fast, cosine), np.where(over, slow - fast, sine)
    sine = np.where(small, fade * tau, sine / safe)
    return cosine + zeta * omega * sine, sine, -(omega**2) * sine, cosine - zeta * omega * sine


def _stepped(start: Array, carry: tuple[Array, ...], g: tuple[Array, Array]) -> tuple[Array, Array]:
    """Place and velocity (r, m) at the beginning of every cell, from rest at `start` (r, 1): z′ = M·z + g, cell by cell.

    Args:
        carry: the entries of M, each (r or 1, m or 1).
        g: what the settled motion brings, place and velocity, each (r, m).
    """
    rows, cells = g[0].shape
    if rows <= _FEW_ROWS:
        # The same operations in the same order as below: IEEE doubles round alike in both.
        places, speeds = zip(*(_stepped_row(float(start[row, 0]), [_row(part, row) for part in (*carry, *g)]) for row in range(rows)), strict=True)
        return np.array(places), np.array(speeds)
    m11, m12, m21, m22 = (np.ascontiguousarray(np.broadcast_to(entry, (rows, entry.shape[1])).T) for entry in carry)
    wide = len(m11) > 1
    g0, g1 = np.ascontiguousarray(g[0].T), np.ascontiguousarray(g[1].T)
    y, v = np.empty((cells, rows)), np.empty((cells, rows))
    y[0], v[0] = start[:, 0], 0.0
    for n in range(cells - 1):
        k = n if wide else 0
        np.add(m11[k] * y[n] + m12[k] * v[n], g0[n], out=y[n + 1])
        np.add(m21[k] * y[n] + m22[k] * v[n], g1[n], out=v[n + 1])
    return y.T, v.T


def _row(part: Array, row: int) -> list[float]:
    numbers: list[float] = part[row if len(part) > 1 else 0].tolist()
    return numbers


def _stepped_row(start: float, parts: list[list[float]]) -> tuple[list[float], list[float]]:
    """One row of `_stepped`: `parts` are the entries of M (m or 1 each), then both rows of g (m each)."""
    m11, m12, m21, m22, g0, g1 = parts
    cells = len(g0)
    m11, m12, m21, m22 = (entry * cells if len(entry) == 1 else entry for entry in (m11, m12, m21, m22))
    y, v = start, 0.0
    places, speeds = [y], [v]
    for a, b, c, d, e, f in zip(m11, m12, m21, m22, g0[:-1], g1[:-1], strict=False):
        y, v = a * y + b * v + e, c * y + d * v + f
        places.append(y)
        speeds.append(v)
    return places, speeds


SPEC = RuleSpec(
    kind="spring",
    label="Spring",
    about="Lags behind, swings past and settles: jelly, antennae, anything soft.",
    settings=by_name(
        SettingSpec("frequency", "frequency", "Hz", 2.0, 0.01, 60.0, usual=(0.2, 10.0), about="How often it swings in a second; more is stiffer."),
        SettingSpec(
            "damping",
            "damping",
            "",
            0.3,
            0.0,
            20.0,
            usual=(0.0, 2.0),
            about="0 swings for ever, 1 comes to rest without swinging past, more is sluggish.",
        ),
    ),
    modes=(),
    prepare=prepare,
    on_outlines="points",
    reads=0.0,
    summary="{frequency} · damping {damping}",
)
