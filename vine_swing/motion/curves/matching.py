"""Which points of one outline go to which of another, so that one can become the other.

Outlines with the same commands are matched point by point. Others are cut into equally many cubics: at the shares of the length at which
either has a joint, so that neither changes its look and corners stay corners. Of all first points and directions the ones with the least
travel are taken: the smallest sum of squared ways between places spread evenly over both.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.curves.contours import Contour, area, contours_of, joined, sections
from vine_swing.motion.curves.length import ArcLengths, points_at
from vine_swing.motion.curves.outline import Outline

Array = NDArray[np.float64]
#: Places on each contour that travel is told by.
_SAMPLES = 96
#: The most first points that are tried.
_MOST_TRIED = 256
#: Joints whose shares are nearer than this are one.
_SAME = 1e-7
#: A joint of one outline and the joint of another that it goes to, counted through all contours.
Meeting = tuple[int, int]


@dataclass(frozen=True, eq=False)
class Match:
    """Two outlines written with the same verbs: point by point, (m, 2) each, `first` goes to `second`."""

    verbs: bytes
    first: Array
    second: Array

    def between(self, p: Array) -> Array:
        """The points (n, m, 2) at shares p (n,) of the way."""
        return self.first + (self.second - self.first) * p[:, None, None]

    @property
    def turned(self) -> "Match":
        """The same from the second to the first."""
        return Match(self.verbs, self.second, self.first)


@lru_cache(maxsize=1024)
def matched(first: Outline, second: Outline, meeting: Meeting | None = None) -> Match:
    """Two outlines matched; `meeting` says of one point of each that they go to one another. The other way round it is the same match."""
    if meeting is None and first.verbs == second.verbs:
        return Match(first.verbs, first.points, second.points)
    # Always looked at in one order, so that keys that are reversed reverse the morph.
    if (second.verbs, second.points.tobytes()) < (first.verbs, first.points.tobytes()):
        return matched(second, first, None if meeting is None else (meeting[1], meeting[0])).turned
    a, b = contours_of(first.verbs, first.points[None]), contours_of(second.verbs, second.points[None])
    starts = None if meeting is None else (_located(a, meeting[0]), _located(b, meeting[1]))
    pairs = list(_pairs(a, b, None if starts is None else (starts[0][0], starts[1][0])))
    created = [
        _aligned(pair, other, (starts[0][1], starts[1][1]) if starts is not None and (i, j) == (starts[0][0], starts[1][0]) else None)
        for (i, pair), (j, other) in pairs
    ]
    verbs, points = joined([item for item, _ in created])
    _, others = joined([other for _, other in created])
    return Match(verbs, points[0], others[0])


def _located(contours: Sequence[Contour], joint: int) -> tuple[int, int]:
    """The contour a joint is in, and its number there; the first of all for a joint there is not."""
    for number, contour in enumerate(contours):
        if joint < contour.joints.shape[1]:
            return number, joint
        joint -= contour.joints.shape[1]
    return 0, 0


Numbered = tuple[int, Contour]


def _pairs(a: list[Contour], b: list[Contour], meeting: tuple[int, int] | None) -> Iterator[tuple[Numbered, Numbered]]:
    """The contours of two outlines two by two, by least travel; extra contours grow out of points, numbered −1."""
    # Imported where it is used: loading scipy.optimize takes a fifth of a second.
    from scipy.optimize import linear_sum_assignment

    cost = np.array([[_apart(item, other) for other in b] for item in a])
    if meeting is not None:
        cost[meeting] = -1e12
    rows, columns = linear_sum_assignment(cost)
    partner = dict(zip(rows.tolist(), columns.tolist(), strict=True))
    for i, entry in enumerate(a):
        j = partner.get(i)
        yield (i, entry), ((j, b[j]) if j is not None else (-1, _shrunk(entry)))
    for j, other in enumerate(b):
        if j not in partner.values():
            yield (-1, _shrunk(other)), (j, other)


def _apart(contour: Contour, other: Contour) -> float:
    """The cost of pairing two contours: the distance of their middles plus the difference of the roots of their areas, negative for holes."""
    (x, y), (u, v) = _middle(contour), _middle(other)
    sizes = [float(area(c)[0]) for c in (contour, other)]
    roots = [np.sign(size) * np.sqrt(abs(size)) for size in sizes]
    return float(np.hypot(x - u, y - v) + abs(roots[0] - roots[1]))


def _middle(contour: Contour) -> Array:
    result: Array = contour.pieces[0, :, 0].mean(axis=0)
    return result


def _shrunk(contour: Contour) -> Contour:
    """A contour gathered in its middle."""
    return Contour(np.broadcast_to(_middle(contour), contour.pieces.shape).copy(), contour.straight, contour.closed)


@dataclass(frozen=True, eq=False)
class _Way:
    """A contour with its length and the shares at which its joints lie, the end included."""

    contour: Contour
    lengths: ArcLengths

    @classmethod
    def along(cls, contour: Contour) -> "_Way":
        return cls(contour, ArcLengths.of(contour))

    @property
    def shares(self) -> Array:
        at = self.lengths.at_joints[0]
        joints = len(self.contour.straight)
        # Contours without length count their joints instead.
        result: Array = at / at[-1] if at[-1] > 0 else np.arange(joints + 1) / joints
        return result

    def at(self, shares: Array) -> Array:
        """The points (q, 2) at some shares."""
        total = self.lengths.total[0]
        points: Array = points_at(self.contour, *self.lengths.places(shares[None] * total))[0]
        return points

    def cut(self, shares: Array) -> Array:
        """Its cubics (j, 4, 2) between each two of some shares, among which are those of all its joints."""
        own = self.shares
        middles = (shares[:-1] + shares[1:]) / 2
        piece = np.clip(np.searchsorted(own, middles, side="right") - 1, 0, len(own) - 2)
        at = self.lengths.at_joints[0]
        found_piece, u = (row[0] for row in self.lengths.places(shares[None] * self.lengths.total[0]))

        def parameter(places: slice, low: float, high: float) -> Array:
            # Beside a joint, its own piece may end or begin a hair away.
            here, there = found_piece[places], u[places]
            return np.where(here < piece, low, np.where(here > piece, high, there))

        begin, end = parameter(slice(None, -1), 0.0, 1.0), parameter(slice(1, None), 0.0, 1.0)
        begin = np.where(np.abs(own[piece] - shares[:-1]) < _SAME, 0.0, begin)
        end = np.where(np.abs(own[piece + 1] - shares[1:]) < _SAME, 1.0, end)
        if at[-1] == 0:
            begin, end = np.zeros(len(piece)), np.ones(len(piece))
        return sections(self.contour.pieces[0, piece], begin, np.maximum(begin, end))


def _aligned(a: Contour, b: Contour, meeting: tuple[int, int] | None) -> tuple[Contour, Contour]:
    """Two contours cut into equally many pieces, the first of one at the first of the other."""
    closed = a.closed and b.closed
    direction, other, anchors = _nearest(a, b, closed, meeting)
    own, theirs = direction.shares, np.interp(other.shares, anchors[1], anchors[0])
    shares = np.unique(np.concatenate([own, theirs]))
    stored = np.concatenate([[True], np.diff(shares) > _SAME])
    shares = shares[stored]
    shares[0], shares[-1] = 0.0, 1.0
    # A share of both is each one's own joint.
    mapped = np.interp(shares, anchors[0], anchors[1])
    first, second = direction.cut(_snapped(shares, own)), other.cut(_snapped(mapped, other.shares))
    middles = (shares[:-1] + shares[1:]) / 2
    lines = direction.contour.straight[_piece(own, middles)] & other.contour.straight[_piece(other.shares, np.interp(middles, *anchors))]
    return Contour(first[None], lines, closed), Contour(second[None], lines, closed)


def _piece(shares: Array, at: Array) -> NDArray[np.intp]:
    return np.clip(np.searchsorted(shares, at, side="right") - 1, 0, len(shares) - 2)


def _snapped(shares: Array, own: Array) -> Array:
    """Shares, those that are a joint's made exactly so."""
    nearest = own[np.argmin(np.abs(shares[:, None] - own[None]), axis=1)]
    return np.where(np.abs(nearest - shares) < 2 * _SAME, nearest, shares)


def _nearest(a: Contour, b: Contour, closed: bool, meeting: tuple[int, int] | None) -> tuple[_Way, _Way, tuple[Array, Array]]:
    """Both contours with the first points and the directions that have the least travel, and the shares of both that go to one another."""
    alike = closed and meeting is None and 0 < int(a.corners().sum()) == int(b.corners().sum())
    start = meeting[0] if meeting is not None else int(np.flatnonzero(a.corners())[0]) if alike else 0
    if closed or a.closed:
        a = a.turned(start % len(a.straight))
    direction = _Way.along(a)
    samples = np.arange(_SAMPLES) / _SAMPLES
    here = direction.at(samples)
    best: tuple[float, _Way, tuple[Array, Array]] | None = None
    for beginning in _beginnings(b, closed, alike, None if meeting is None else meeting[1]):
        other = _Way.along(beginning)
        anchors = (_corner_shares(direction), _corner_shares(other)) if alike else (np.array([0.0, 1.0]), np.array([0.0, 1.0]))
        travel = float(((here - other.at(np.interp(samples, *anchors))) ** 2).sum())
        # Of equals the first is taken.
        if best is None or travel < best[0] * (1 - 1e-9) - 1e-9:
            best = travel, other, anchors
    assert best is not None, "every contour begins somewhere"
    return direction, best[1], best[2]


def _beginnings(b: Contour, closed: bool, alike: bool, joint: int | None) -> Iterator[Contour]:
    """A contour as it may be removed: from each of its joints (its corners, if those of both are `alike`, or one joint), this way and that."""
    count = len(b.straight)
    if not (closed or b.closed):
        yield b
        yield b.reversed()
        return
    joints = [joint % count] if joint is not None else np.flatnonzero(b.corners()).tolist() if alike else range(0, count, -(-count // _MOST_TRIED))
    for first in joints:
        turned = b.turned(first)
        yield turned
        yield turned.reversed()


def _corner_shares(direction: _Way) -> Array:
    return np.append(direction.shares[:-1][direction.contour.corners()], 1.0)
