"""Paths: two-dimensional keys, moved along by arc length.

From key to key a path is straight, a cubic Bezier curve, or a Kochanek–Bartels spline; the ease of a stretch is the pace along it,
so that spacing follows the ease alone. The knots of a spline lie as far apart as its points do, not as its
keys do in time: sliding a key in time never bends the path.

Lengths are integrals of the speed |B′(s)|, by Gauss–Legendre quadrature between the places where the speed is least or greatest, so
that a cusp always lies between two pieces. Way is turned back into the curve's parameter by Newton's method within
a bracket (cf. B. Guenter and R. Parent, "Computing the arc length of parametric curves", 1990).
"""

import itertools
from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.timing import ease
from vine_swing.motion.timing.channel import SHAPED_BY_KEYS, Channel, Key, Way
from vine_swing.motion.timing.cubic import velocity
from vine_swing.motion.timing.ease import EaseCurve
from vine_swing.motion.timing.ends import fold

Array = NDArray[np.float64]
_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(16)
_PIECES = 24
_ROUNDS = 60
#: Points nearer than this count as one.
_NEAR = 1e-9


class Curve:
    """One stretch of a path: a cubic Bezier curve measured along its length."""

    def __init__(self, controls: Array) -> None:
        """`controls`: the four control points, shape (4, 2)."""
        self.controls = controls
        a, b, c, d = controls
        # B(s) = ((k3·s + k2)·s + k1)·s + k0
        self._k = np.array([d - 3 * c + 3 * b - a, 3 * (c - 2 * b + a), 3 * (b - a), a])
        self._breaks = np.unique(np.concatenate([np.linspace(0, 1, _PIECES + 1), self._speed_turns()]))
        self._sums = np.append(0, np.cumsum(self._between(self._breaks[:-1], self._breaks[1:])))

    @property
    def length(self) -> float:
        """Its length in pixels."""
        return float(self._sums[-1])

    def point(self, s: Array) -> Array:
        """The points at parameters s (n,), shape (n, 2)."""
        k3, k2, k1, k0 = self._k
        at = s[:, None]
        points: Array = ((k3 * at + k2) * at + k1) * at + k0
        # The ends are exactly the keys' own points, without rounding.
        points[s == 0], points[s == 1] = self.controls[0], self.controls[3]
        return points

    def at(self, share: Array) -> Array:
        """The points at shares (n,) of its length, shape (n, 2); beyond 0 and 1 it goes straight on."""
        points = self.point(self.parameter(np.clip(share, 0, 1)))
        for side, beyond in ((0, np.minimum(share, 0)), (1, np.maximum(share - 1, 0))):
            if beyond.any():
                points += (beyond * self.length)[:, None] * self.heading(side)
        return points

    def parameter(self, share: Array) -> Array:
        """The parameters s (n,) at shares (n,) of the length, both within 0…1."""
        way = share * self.length
        piece = np.clip(np.searchsorted(self._sums, way, side="right") - 1, 0, len(self._breaks) - 2)
        start, low, high = self._breaks[piece], self._breaks[piece], self._breaks[piece + 1]
        inside = way - self._sums[piece]
        whole = self._sums[piece + 1] - self._sums[piece]
        s = start + (high - low) * np.divide(inside, whole, out=np.zeros_like(way), where=whole > 0)
        for _ in range(_ROUNDS):
            error = self._between(start, s) - inside
            if np.all(np.abs(error) <= 1e-11 * (1 + self.length)):
                break
            low, high = np.where(error <= 0, s, low), np.where(error > 0, s, high)
            with np.errstate(divide="ignore", invalid="ignore"):
                step = s - error / self._speed(s)
            # Where the speed is nearly nothing, Newton's step leaves the bracket: halve that instead.
            s = np.where((step > low) & (step < high), step, (low + high) / 2)
        return np.where(share <= 0, 0.0, np.where(share >= 1, 1.0, s))

    def heading(self, side: int) -> Array:
        """The direction of travel at its beginning (0) or end (1), of length 1; zero if the stretch is a single point."""
        points = self.controls if side == 0 else self.controls[::-1]
        for other in points[1:]:
            arm = (other - points[0]) * (1 if side == 0 else -1)
            if np.hypot(*arm) > _NEAR:
                unit: Array = arm / np.hypot(*arm)
                return unit
        return np.zeros(2)

    def divided(self, s: float) -> tuple[Array, Array]:
        """The control points of its two parts before and after a parameter (de Casteljau), each (4, 2)."""
        a, b, c, d = self.controls
        ab, bc, cd = a + (b - a) * s, b + (c - b) * s, c + (d - c) * s
        abc, bcd = ab + (bc - ab) * s, bc + (cd - bc) * s
        middle = abc + (bcd - abc) * s
        return np.array([a, ab, abc, middle]), np.array([middle, bcd, cd, d])

    def _speed(self, s: Array) -> Array:
        at = s[..., None]
        derivative = (3 * self._k[0] * at + 2 * self._k[1]) * at + self._k[2]
        speed: Array = np.hypot(derivative[..., 0], derivative[..., 1])
        return speed

    def _between(self, start: Array, end: Array) -> Array:
        """The lengths from parameters `start` to `end`, both (n,)."""
        half = (end - start) / 2
        speeds = self._speed((start + half)[:, None] + half[:, None] * _NODES)
        length: Array = half * (speeds @ _WEIGHTS)
        return length

    def _speed_turns(self) -> Array:
        """The parameters within 0…1 at which the speed is least or greatest: B′·B″ = 0, a cubic."""
        k3, k2, k1 = self._k[:3]
        cubic = np.array([18 * k3 @ k3, 18 * k3 @ k2, 4 * k2 @ k2 + 6 * k3 @ k1, 2 * k2 @ k1])
        size = np.abs(cubic).max()
        if not size > 0:
            return np.empty(0)
        roots = np.roots(np.where(np.abs(cubic) < 1e-14 * size, 0, cubic))
        real: Array = roots[np.abs(roots.imag) < 1e-9].real
        return real[(real > 0) & (real < 1)]


def way_of(key: Key, following: Key) -> Way:
    """How the path goes from one key to the next."""
    if key.way is not None:
        return key.way
    if key.ease == "spline":
        return "spline"
    return "bezier" if key.out is not None or following.into is not None else "straight"


def pace_of(key: Key) -> EaseCurve:
    """The ease along the stretch that leaves a key."""
    return ease.build("linear" if isinstance(key.ease, str) and key.ease in SHAPED_BY_KEYS else key.ease)


def points_of(keys: Sequence[Key]) -> Array:
    """The points of a path's keys, shape (k, 2)."""
    return np.array([key.value for key in keys], dtype=float).reshape(-1, 2)


def curves(keys: Sequence[Key]) -> list[Curve]:
    """The stretches of a path of k keys, k − 1 of them."""
    points = points_of(keys)
    chords = np.maximum(np.hypot(*np.diff(points, axis=0).T), _NEAR) if len(keys) > 1 else np.empty(0)
    knots = np.append(0, np.cumsum(chords))
    result = []
    for i, (key, following) in enumerate(itertools.pairwise(keys)):
        start, end = points[i], points[i + 1]
        out = into = None
        match way_of(key, following):
            case "bezier":
                out, into = key.out, following.into
            case "spline":
                out = velocity(key, i, knots, points, leaving=True) * chords[i] / 3
                into = -velocity(following, i + 1, knots, points, leaving=False) * chords[i] / 3
        third = (end - start) / 3
        first = start + (third if out is None else np.array(out))
        second = end + (-third if into is None else np.array(into))
        result.append(Curve(np.array([start, first, second, end])))
    return result


def evaluate_path(channel: Channel, t: Array) -> Array:
    """Where a path with keys is at frames t (n,), past its keys by its ends; shape (n, 2)."""
    keys = channel.keys
    points = points_of(keys)
    if len(keys) == 1:
        return np.tile(points[0], (len(t), 1))
    frames = np.array([key.frame for key in keys])
    folded = fold(t[None, :], frames[:1, None], frames[-1:, None], channel.before, channel.after)
    local = folded.local[0]
    here = np.clip(np.searchsorted(frames, local, side="right") - 1, 0, len(keys) - 2)
    stretches = curves(keys)
    result = np.empty((len(t), 2))
    for i in np.unique(here):
        own = here == i
        share = pace_of(keys[i]).at((local[own] - frames[i]) / (frames[i + 1] - frames[i]))
        result[own] = stretches[i].at(share)
    result += folded.turns[0][:, None] * (points[-1] - points[0])
    beyond = folded.beyond[0][:, None]
    if beyond.any():
        first, last = stretches[0], stretches[-1]
        before = first.heading(0) * first.length * pace_of(keys[0]).slopes()[0] / (frames[1] - frames[0])
        after = last.heading(1) * last.length * pace_of(keys[-2]).slopes()[1] / (frames[-1] - frames[-2])
        result += beyond * np.where(beyond < 0, before, after)
    return result
