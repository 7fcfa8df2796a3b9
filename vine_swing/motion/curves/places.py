"""Places spread over a contour, and contours drawn through places."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.curves.contours import Contour, Flags, directions, straight_through
from vine_swing.motion.curves.length import ArcLengths, directions_at, points_at

Array = NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class Places:
    """q places on a contour over k frames, in order from its first point.

    share: (k, q), the share of its length gone, 0…1. points: (k, q, 2). normals: (k, q, 2), of length 1, to the left of the direction of travel; in a
    corner halfway between both sides. corners: (q,).
    """

    share: Array
    points: Array
    normals: Array
    corners: Flags
    closed: bool

    def pushed(self, by: Array, *, smooth: bool) -> Contour:
        """The contour through the places moved along their normals by this many px (k or 1, q): in curves that bend only at corners, or in lines."""
        # x and y apart, so that NumPy's inner loops go along the places and not over pairs of numbers.
        at = np.stack([self.points[..., axis] + self.normals[..., axis] * by for axis in (0, 1)])
        if not smooth:
            return straight_through(np.moveaxis(at, 0, -1), closed=self.closed)
        return smooth_through(at, self.share, self.corners, closed=self.closed)


def spread(contour: Contour, rest: Contour, count: int) -> Places:
    """As `places_on`; what never changes is computed once, however often the settings of what reads it are turned."""
    if contour is not rest:
        return places_on(contour, rest, count)
    key = contour.pieces.tobytes(), contour.straight.tobytes(), contour.closed, count
    if key not in _KNOWN:
        if len(_KNOWN) >= _MOST_KNOWN:
            _KNOWN.clear()
        _KNOWN[key] = places_on(contour, rest, count)
    return _KNOWN[key]


#: Places on contours that never change, by the contour and their number.
_KNOWN: dict[tuple[bytes, bytes, bool, int], Places] = {}
_MOST_KNOWN = 1_000


def places_on(contour: Contour, rest: Contour, count: int) -> Places:
    """About `count` places on a contour, evenly by length from corner to corner, so that every corner is one of them.

    How many lie between two corners is read off `rest`, the same contour at a single frame: it is the same at all frames.
    """
    corners = rest.corners()
    joints = len(rest.straight)
    flags = corners[:joints].copy()
    flags[0] = True
    breaks = np.append(np.flatnonzero(flags), joints)
    travelled = ArcLengths.of(contour)
    before = (travelled if contour is rest else ArcLengths.of(rest)).at_joints[0]
    runs = before[breaks[1:]] - before[breaks[:-1]]
    total = before[-1]
    counts = np.maximum(1, np.round(count * runs / total).astype(int)) if total > 0 else np.ones(len(runs), int)
    inner = np.concatenate([np.arange(n) / n for n in counts])
    run = np.repeat(np.arange(len(counts)), counts)
    starts, ends = travelled.at_joints[:, breaks[:-1]], travelled.at_joints[:, breaks[1:]]
    lengths = starts[:, run] + (ends - starts)[:, run] * inner
    sharp = (inner == 0) & corners[breaks[:-1]][run]
    first_piece = breaks[:-1][run]
    if not contour.closed:
        lengths = np.concatenate([lengths, travelled.total[:, None]], axis=1)
        sharp, first_piece = np.append(sharp, True), np.append(first_piece, joints - 1)
    piece, u = travelled.places(lengths)
    at_joint = np.append(inner == 0, [] if contour.closed else [False]).astype(bool)
    # A place at a joint is the start of the piece that leaves it, regardless of rounding.
    piece = np.where(at_joint, first_piece, piece)
    u = np.where(at_joint, 0.0, u)
    if not contour.closed:
        piece[:, -1], u[:, -1] = joints - 1, 1.0
    ways = directions_at(contour, piece, u)
    normals = np.stack([ways[..., 1], -ways[..., 0]], axis=-1)
    _average_corners(normals, contour, sharp, first_piece)
    share = np.divide(lengths, travelled.total[:, None], out=np.zeros_like(lengths), where=travelled.total[:, None] > 0)
    return Places(share, points_at(contour, piece, u), normals, sharp, contour.closed)


def _average_corners(normals: Array, contour: Contour, sharp: Flags, first_piece: NDArray[np.intp]) -> None:
    """Turn the normals in corners to halfway between those of both sides."""
    inner = np.flatnonzero(sharp)
    if not contour.closed:
        inner = inner[(inner > 0) & (inner < len(sharp) - 1)]
    if not len(inner):
        return
    _, into = directions(contour.pieces[:, first_piece[inner] - 1])
    both = normals[:, inner] + np.stack([into[..., 1], -into[..., 0]], axis=-1)
    length = np.linalg.norm(both, axis=-1, keepdims=True)
    normals[:, inner] = np.where(length > 1e-6, both / np.where(length > 0, length, 1), normals[:, inner])


def smooth_through(at: Array, share: Array, corners: Flags, *, closed: bool) -> Contour:
    """The contour of cubics through places, x and y apart (2, k, q), with continuous tangents but at corners (q,): those of the parabola through each
    place and its neighbours, for places that lie unevenly by their `share` (k or 1, q)."""
    starts = at if closed else at[..., :-1]
    ends = np.concatenate([at[..., 1:], at[..., :1]], axis=-1) if closed else at[..., 1:]
    chords = ends - starts
    steps = np.diff(share, axis=1, append=share[:, :1] + 1) if closed else np.diff(share, axis=1)
    out, into = _handles(steps, corners, closed=closed)
    leaving = np.roll(chords, 1, axis=-1)
    leaving *= out[0]
    leaving += out[1] * chords
    leaving += starts
    arriving = np.roll(chords, -1, axis=-1)
    arriving *= into[1]
    chords *= into[0]
    arriving += chords
    np.subtract(ends, arriving, out=arriving)
    pieces = np.empty((*starts.shape[1:], 4, 2))
    for place, part in enumerate((starts, leaving, arriving, ends)):
        pieces[..., place, 0], pieces[..., place, 1] = part
    return Contour(pieces, np.zeros(pieces.shape[1], bool), closed)


def _handles(steps: Array, corners: Flags, *, closed: bool) -> tuple[tuple[Array, Array], tuple[Array, Array]]:
    """How much of the chord before and of its own the handle that leaves each piece is, and of its own and the chord behind the one that arrives;
    (k, s) each. `steps` (k, s) are the shares between places."""
    pieces = steps.shape[1]
    previous, following = np.roll(steps, 1, axis=1), np.roll(steps, -1, axis=1)

    def shares(near: Array, far: Array) -> tuple[Array, Array]:
        # The slope of the parabola at the place between two chords, over the near one's step, a third of it.
        whole = near + far
        other = np.divide(near * near, far * whole, out=np.zeros_like(whole), where=(far > 0) & (whole > 0))
        own = np.divide(far, whole, out=np.ones_like(whole), where=whole > 0)
        return other / 3, own / 3

    before, leave = shares(steps, previous)
    after, arrive = shares(steps, following)
    begins, ends = corners[:pieces], np.roll(corners, -1)[:pieces] if closed else corners[1:]
    before, leave = np.where(begins, 0.0, before), np.where(begins, 1 / 3, leave)
    after, arrive = np.where(ends, 0.0, after), np.where(ends, 1 / 3, arrive)
    return (before, leave), (arrive, after)
