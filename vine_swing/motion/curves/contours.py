"""Outlines taken apart into contours of cubics, over many frames at once, and put together again.

A contour is one part of an outline, from a MOVE to the next. Straight lines are written as cubics with their handles at the thirds; which they
were is kept, so that they become lines again.
"""

import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.curves.outline import CLOSE, CUBIC, LINE, MOVE, POINTS_TAKEN

Array = NDArray[np.float64]
Flags = NDArray[np.bool_]
#: Points nearer than this, in px, are one.
SAME = 1e-9
#: Two pieces meet in a corner where their directions differ by more than this, in degrees.
CORNER = 12.0
#: The step, in px, of the differences that say how a map turns and stretches handles.
_STEP = 1e-4


@dataclass(frozen=True, eq=False)
class Contour:
    """One part of an outline over k frames.

    pieces: (k, s, 4, 2), s cubics, each beginning where the one before ended; those of a closed contour end where they began.
    straight: (s,), which of them are straight lines.
    closed: whether it is closed.
    """

    pieces: Array
    straight: Flags
    closed: bool

    @property
    def joints(self) -> Array:
        """The points between pieces, (k, s + 1, 2), or (k, s, 2) of a closed contour, where the last is the first."""
        ends = self.pieces[:, :, 3]
        result: Array = self.pieces[:, :, 0] if self.closed else np.concatenate([self.pieces[:, :1, 0], ends], axis=1)
        return result

    def at(self, frames: slice) -> "Contour":
        """The same at some of its frames."""
        return Contour(self.pieces[frames], self.straight, self.closed)

    def reversed(self) -> "Contour":
        """Return the contour reversed."""
        return Contour(self.pieces[:, ::-1, ::-1], self.straight[::-1], self.closed)

    def turned(self, first: int) -> "Contour":
        """A closed contour that begins at another of its joints."""
        return Contour(np.roll(self.pieces, -first, axis=1), np.roll(self.straight, -first), self.closed)

    def mapped(self, change: Callable[[Array], Array]) -> "Contour":
        """Moved by a map of the plane, from points (k, …, 2) to points: joints exactly, handles as the map turns and stretches what lies at them."""
        start, end = self.pieces[:, :, 0], self.pieces[:, :, 3]
        begin, finish = change(start), change(end)
        leaving = _carried(change, start, self.pieces[:, :, 1] - start)
        arriving = _carried(change, end, self.pieces[:, :, 2] - end)
        pieces = np.stack([begin, begin + leaving, finish + arriving, finish], axis=2)
        return Contour(pieces, np.zeros(len(self.straight), bool), self.closed)

    def cut(self, parts: NDArray[np.int_]) -> "Contour":
        """Each piece cut into some number of pieces (s,) that take equal shares of its parameter."""
        if (parts == 1).all():
            return self
        result = [_divided(self.pieces[:, n], int(count)) for n, count in enumerate(parts)]
        return replace(self, pieces=np.concatenate(result, axis=1), straight=np.repeat(self.straight, parts))

    def corners(self) -> Flags:
        """Which joints (s + 1,), or (s,) where it is closed, are corners at the first frame; the ends of an open contour are."""
        out, into = directions(self.pieces[0])
        if not len(out):
            return np.ones(1, bool)
        before = np.roll(into, 1, axis=0)
        turn = np.degrees(np.abs(np.arctan2(before[:, 0] * out[:, 1] - before[:, 1] * out[:, 0], (before * out).sum(axis=-1))))
        inner = turn > CORNER
        result: Flags = inner if self.closed else np.concatenate([[True], inner[1:], [True]])
        return result


#: The most pieces that one is cut into.
MOST_PARTS = 64


def _carried(change: Callable[[Array], Array], at: Array, handle: Array) -> Array:
    """Return a map's directional derivative at some points, along and times the vectors `handle`."""
    length = np.linalg.norm(handle, axis=-1, keepdims=True)
    direction = np.divide(handle, length, out=np.zeros_like(handle), where=length > 0)
    result: Array = (change(at + _STEP * direction) - change(at - _STEP * direction)) * (length / (2 * _STEP))
    return result


def _divided(piece: Array, parts: int) -> Array:
    """Cubics (k, 4, 2), each cut into equal parts: (k, parts, 4, 2). Joints are on the curve; the ends are those of the cubic."""
    edges = np.linspace(0, 1, parts + 1)
    return sections(piece[:, None], np.broadcast_to(edges[:-1], (1, parts)), np.broadcast_to(edges[1:], (1, parts)))


def sections(pieces: Array, start: Array, end: Array) -> Array:
    """The part of each cubic (…, 4, 2) between two of its parameters (…): (…, 4, 2)."""
    p0, p1, p2, p3 = (pieces[..., n, :] for n in range(4))
    a, b = start[..., None], end[..., None]

    def blossom(u: Array, v: Array, w: Array) -> Array:
        """The cubic's polar form: symmetric in its three arguments (L. Ramshaw, 1987)."""
        q0, q1, q2 = p0 + (p1 - p0) * u, p1 + (p2 - p1) * u, p2 + (p3 - p2) * u
        r0, r1 = q0 + (q1 - q0) * v, q1 + (q2 - q1) * v
        result: Array = r0 + (r1 - r0) * w
        return result

    # Ends are exactly the cubic's own, without rounding.
    first, last = np.where(a == 0, p0, blossom(a, a, a)), np.where(b == 1, p3, blossom(b, b, b))
    return np.stack([first, blossom(a, a, b), blossom(a, b, b), last], axis=-2)


def directions(pieces: Array) -> tuple[Array, Array]:
    """The directions in which cubics (…, 4, 2) begin and end, of length 1; of one without length, 0."""
    p0, p1, p2, p3 = (pieces[..., n, :] for n in range(4))
    return _first_long(p1 - p0, p2 - p0, p3 - p0), _first_long(p3 - p2, p3 - p1, p3 - p0)


def _first_long(*ways: Array) -> Array:
    result = np.zeros_like(ways[0])
    for direction in reversed(ways):
        length = np.linalg.norm(direction, axis=-1, keepdims=True)
        result = np.where(length > SAME, direction / np.where(length > 0, length, 1), result)
    return result


#: The verbs of a contour: a move, lines and curves, and whether it closes.
_CONTOUR = re.compile(bytes([MOVE]) + b"?([" + bytes([LINE, CUBIC]) + b"]*)(" + bytes([CLOSE]) + b"?)", re.DOTALL)


def contours_of(verbs: bytes, points: Array) -> list[Contour]:
    """The contours of outlines with the same verbs; points (k, m, 2). Parts without any line or curve are left out."""
    result: list[Contour] = []
    at = 0
    begin = np.zeros((len(points), 1, 2))
    while verbs:
        match = _CONTOUR.match(verbs)
        assert match is not None, "an outline is moves, lines, curves and closes"
        if verbs[0] == MOVE:
            begin, at = points[:, at : at + 1], at + 1
        drawn, closed = match.group(1), bool(match.group(2))
        if drawn:
            used = sum(POINTS_TAKEN[verb] for verb in drawn)
            result.append(_contour(drawn, begin, points[:, at : at + used], closed=closed))
            at += used
            # A part after a close without a move begins where the closed part began; other parts begin with a move.
        verbs = verbs[match.end() :] if match.end() else b""
    return result


def _contour(verbs: bytes, begin: Array, points: Array, *, closed: bool) -> Contour:
    """The contour of some lines and curves from the points `begin` (k, 1, 2) on."""
    straight = np.frombuffer(verbs, np.uint8) == LINE
    ends = np.cumsum(np.where(straight, 1, 3)) - 1
    pieces = np.empty((len(points), len(verbs) + 1, 4, 2))
    pieces[:, :1, 0] = begin
    pieces[:, 1:, 0] = points[:, ends]
    pieces[:, :-1, 3] = points[:, ends]
    curved = np.flatnonzero(~straight)
    pieces[:, curved, 1], pieces[:, curved, 2] = points[:, ends[curved] - 2], points[:, ends[curved] - 1]
    pieces[:, -1, 3] = begin[:, 0]
    lines = np.append(straight, True)
    reach = pieces[:, lines, 3] - pieces[:, lines, 0]
    pieces[:, lines, 1], pieces[:, lines, 2] = pieces[:, lines, 0] + reach / 3, pieces[:, lines, 0] + reach * (2 / 3)
    if closed and np.abs(pieces[:, -1, 3] - pieces[:, -1, 0]).max(initial=0) > SAME:
        # Its CLOSE draws a line.
        return Contour(pieces, lines, True)
    if closed:
        # It ends exactly where it begins.
        pieces[:, -2, 3] = begin[:, 0]
    return Contour(pieces[:, :-1], straight, closed)


def straight_through(corners: Array, *, closed: bool) -> Contour:
    """The contour of straight lines through some points (k, j, 2)."""
    ends = np.concatenate([corners[:, 1:], corners[:, :1]], axis=1) if closed else corners[:, 1:]
    starts = corners if closed else corners[:, :-1]
    pieces = np.stack([starts, starts + (ends - starts) / 3, starts + (ends - starts) * (2 / 3), ends], axis=2)
    return Contour(pieces, np.ones(pieces.shape[1], bool), closed)


def joined(contours: Sequence[Contour]) -> tuple[bytes, Array]:
    """The verbs and points (k, m, 2) of an outline of some contours. A straight last piece of a closed one is drawn by its CLOSE."""
    verbs = bytearray()
    points: list[Array] = []
    frames = max((len(contour.pieces) for contour in contours), default=1)
    for contour in contours:
        verbs.append(MOVE)
        points.append(contour.pieces[:, :1, 0])
        last = len(contour.straight) - 1 if contour.closed and contour.straight[-1:].any() else len(contour.straight)
        if contour.straight[:last].all():
            verbs += bytes([LINE]) * last
            points.append(contour.pieces[:, :last, 3])
        elif not contour.straight[:last].any():
            verbs += bytes([CUBIC]) * last
            points.append(contour.pieces[:, :last, 1:].reshape(len(contour.pieces), -1, 2))
        else:
            for n in range(last):
                verbs.append(LINE if contour.straight[n] else CUBIC)
                points.append(contour.pieces[:, n, 3:] if contour.straight[n] else contour.pieces[:, n, 1:])
        if contour.closed:
            verbs.append(CLOSE)
    if not points:
        return b"", np.empty((1, 0, 2))
    return bytes(verbs), np.concatenate([np.broadcast_to(point, (frames, *point.shape[1:])) for point in points], axis=1)


def area(contour: Contour) -> Array:
    """The signed area of a contour, (k,), positive if it is missing clockwise on the screen; an open one is closed by a straight line.

    Exact for cubics: Green's theorem, ½∮(x dy − y dx), with the products of Bernstein polynomials.
    """
    x, y = contour.pieces[..., 0], contour.pieces[..., 1]
    total = np.einsum("ksi,ij,ksj->k", x, _GREEN, y)
    start, end = contour.pieces[:, 0, 0], contour.pieces[:, -1, 3]
    result: Array = total + (end[:, 0] * start[:, 1] - end[:, 1] * start[:, 0]) / 2
    return result


#: ½∫(x dy − y dx) of a cubic is xᵀ·G·y with its points' coordinates.
_GREEN = np.array([[0, 6, 3, 1], [-6, 0, 3, 3], [-3, -3, 0, 6], [-1, -3, -6, 0]]) / 20
