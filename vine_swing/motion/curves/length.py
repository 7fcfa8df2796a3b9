"""Arc length along contours, and the places that lie some length along them.

Lengths are Gauss–Legendre integrals of the speed over eighths of each cubic; a place is found from its length by Newton's method.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.curves.contours import Contour, directions

Array = NDArray[np.float64]
Index = NDArray[np.intp]
#: Parts of a curved piece that are integrated one by one.
_PARTS = 8
#: Control polygons up to this many times as long as their chords belong to curves that are hardly bent.
_GENTLE = 1.03
_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(8)
_NODES = (_NODES + 1) / 2
_WEIGHTS = _WEIGHTS / 2
_NEWTON = 2


@dataclass(frozen=True, eq=False)
class ArcLengths:
    """How long the way along a contour is to each of its joints, over k frames.

    contour: the contour.
    ends: (k, s·parts + 1), the arc length up to the start of every part, and to the end.
    parts: how many parts each piece is divided into.
    """

    contour: Contour
    ends: Array
    parts: int

    @classmethod
    def of(cls, contour: Contour) -> "ArcLengths":
        """The lengths along a contour."""
        pieces = contour.pieces
        if contour.straight.all():
            lengths, parts = np.linalg.norm(pieces[:, :, 3] - pieces[:, :, 0], axis=-1), 1
        else:
            parts = 1 if _is_gentle(pieces) else _PARTS
            edges = np.arange(parts) / parts
            u = (edges[:, None] + _NODES / parts).reshape(-1)
            speeds = _speed(pieces[:, :, None], u[None, None, :]).reshape(*pieces.shape[:2], parts, -1)
            lengths = (speeds @ _WEIGHTS / parts).reshape(len(pieces), -1)
        return cls(contour, np.concatenate([np.zeros((len(lengths), 1)), np.cumsum(lengths, axis=1)], axis=1), parts)

    @property
    def total(self) -> Array:
        """The whole length, (k,)."""
        return self.ends[:, -1]

    @property
    def at_joints(self) -> Array:
        """The arc length up to every joint, the end included: (k, s + 1)."""
        return self.ends[:, :: self.parts]

    def places(self, lengths: Array) -> tuple[Index, Array]:
        """The piece and its parameter at some lengths (k or 1, q) from the beginning, within 0…total: (k, q) each."""
        lengths = np.broadcast_to(lengths, (max(len(self.ends), len(lengths)), lengths.shape[1]))
        part = _places_in(self.ends, lengths)
        rows = np.arange(len(self.ends))[:, None] if len(self.ends) > 1 else np.zeros((1, 1), np.intp)
        start, end = self.ends[rows, part], self.ends[rows, part + 1]
        share = np.clip(np.divide(lengths - start, end - start, out=np.zeros_like(lengths), where=end > start), 0, 1)
        piece, within = np.divmod(part, self.parts)
        if self.contour.straight.all():
            return piece, share
        curve = self.contour.pieces[rows, piece]
        begin = within / self.parts
        u = begin + share / self.parts
        requested = lengths - start
        for _ in range(_NEWTON):
            width = u - begin
            travelled = (_speed(curve[:, :, None], begin[..., None] + width[..., None] * _NODES) @ _WEIGHTS) * width
            speed = _speed(curve, u)
            step = np.divide(requested - travelled, speed, out=np.zeros_like(u), where=speed > 1e-12)
            u = np.clip(u + step, begin, begin + 1 / self.parts)
        straight = self.contour.straight[piece]
        return piece, np.where(straight, begin + share / self.parts, u)


def _is_gentle(pieces: Array) -> bool:
    """Whether all pieces are so little bent that each is integrated as a whole: their control polygons are hardly longer than their chords."""
    sides = np.linalg.norm(np.diff(pieces, axis=2), axis=-1).sum(axis=-1)
    return bool((sides <= _GENTLE * np.linalg.norm(pieces[:, :, 3] - pieces[:, :, 0], axis=-1) + 1e-12).all())


def points_at(contour: Contour, piece: Index, u: Array) -> Array:
    """The points (k, q, 2) of a contour at parameters u (k, q) of some of its pieces (k, q)."""
    rows = np.arange(len(contour.pieces))[:, None] if len(contour.pieces) > 1 else np.zeros((1, 1), np.intp)
    p = contour.pieces[rows, piece]
    v = u[..., None]
    w = 1 - v
    result: Array = w**3 * p[..., 0, :] + 3 * w**2 * v * p[..., 1, :] + 3 * w * v**2 * p[..., 2, :] + v**3 * p[..., 3, :]
    return result


def directions_at(contour: Contour, piece: Index, u: Array) -> Array:
    """The directions (k, q, 2), of length 1, in which a contour goes there; 0 where a piece has no length."""
    rows = np.arange(len(contour.pieces))[:, None] if len(contour.pieces) > 1 else np.zeros((1, 1), np.intp)
    p = contour.pieces[rows, piece]
    direction = _velocity(p, u)
    length = np.linalg.norm(direction, axis=-1, keepdims=True)
    out, into = directions(p)
    # At a point where the speed is 0, such as the end of a curve without a handle, it goes where the next control point lies.
    resting = np.where((u < 0.5)[..., None], out, into)
    return np.where(length > 1e-9, direction / np.where(length > 0, length, 1), resting)


def _velocity(p: Array, u: Array) -> Array:
    v = u[..., None]
    w = 1 - v
    a, b, c = (p[..., n + 1, :] - p[..., n, :] for n in range(3))
    result: Array = 3 * (w**2 * a + 2 * w * v * b + v**2 * c)
    return result


def _speed(p: Array, u: Array) -> Array:
    result: Array = np.linalg.norm(_velocity(p, u), axis=-1)
    return result


def _places_in(ends: Array, lengths: Array) -> Index:
    """For each row the interval of `ends` (k or 1, e) that each of `lengths` (k, q) is in."""
    last = ends.shape[1] - 2
    if len(ends) == 1:
        only: Index = np.clip(np.searchsorted(ends[0], lengths, side="right") - 1, 0, last)
        return only
    # All rows are searched at once: each is moved beyond the one before.
    reach = float(max(ends.max(), lengths.max(initial=0))) + 1
    offset = 2 * reach * np.arange(len(ends))[:, None]
    result = np.searchsorted((ends + offset).ravel(), (np.clip(lengths, 0, reach) + offset).ravel(), side="right").reshape(lengths.shape)
    own: Index = np.clip(result - 1 - ends.shape[1] * np.arange(len(ends))[:, None], 0, last)
    return own
