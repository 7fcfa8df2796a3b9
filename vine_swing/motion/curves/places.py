"""Places spread over a contour, and contours drawn through places."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.curves.contours import Contour, Flags, directions, straight_through
from vine_swing.motion.curves.length import Gone, directions_at, points_at

Array = NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class Places:
    """q places on a contour over k frames, in order from its first point.

    share: (k, q), the share of its length gone, 0…1. points: (k, q, 2). normals: (k, q, 2), of length 1, to the left of the way it goes; in a
    corner halfway between both sides. corners: (q,).
    """

    share: Array
    points: Array
    normals: Array
    corners: Flags
    closed: bool

    def through(self, points: Array, *, smooth: bool) -> Contour:
        """A contour through points (k, q, 2) in place of its own: in curves that bend only at corners, or in straight lines."""
        if not smooth:
            return straight_through(points, closed=self.closed)
        return smooth_through(points, self.share, self.corners, closed=self.closed)


def spread(contour: Contour, rest: Contour, count: int) -> Places:
    """About `count` places on a contour, evenly by length from corner to corner, so that every corner is one of them.

    How many lie between two corners is read off `rest`, the same contour at a single frame: it is the same at all frames.
    """
    corners = rest.corners()
    joints = len(rest.straight)
    flags = corners[:joints].copy()
    flags[0] = True
    breaks = np.append(np.flatnonzero(flags), joints)
    gone, before = Gone.along(contour), Gone.along(rest).at_joints[0]
    runs = before[breaks[1:]] - before[breaks[:-1]]
    total = before[-1]
    counts = np.maximum(1, np.round(count * runs / total).astype(int)) if total > 0 else np.ones(len(runs), int)
    inner = np.concatenate([np.arange(n) / n for n in counts])
    run = np.repeat(np.arange(len(counts)), counts)
    starts, ends = gone.at_joints[:, breaks[:-1]], gone.at_joints[:, breaks[1:]]
    lengths = starts[:, run] + (ends - starts)[:, run] * inner
    sharp = (inner == 0) & corners[breaks[:-1]][run]
    first_piece = breaks[:-1][run]
    if not contour.closed:
        lengths = np.concatenate([lengths, gone.total[:, None]], axis=1)
        sharp, first_piece = np.append(sharp, True), np.append(first_piece, joints - 1)
    piece, u = gone.places(lengths)
    at_joint = np.append(inner == 0, [] if contour.closed else [False]).astype(bool)
    # A place at a joint is the start of the piece that leaves it, whatever rounding makes of its length.
    piece = np.where(at_joint, first_piece, piece)
    u = np.where(at_joint, 0.0, u)
    if not contour.closed:
        piece[:, -1], u[:, -1] = joints - 1, 1.0
    ways = directions_at(contour, piece, u)
    normals = np.stack([ways[..., 1], -ways[..., 0]], axis=-1)
    _average_corners(normals, contour, sharp, first_piece)
    share = np.divide(lengths, gone.total[:, None], out=np.zeros_like(lengths), where=gone.total[:, None] > 0)
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


def smooth_through(points: Array, share: Array, corners: Flags, *, closed: bool) -> Contour:
    """The contour of cubics through places (k, q, 2) with continuous tangents but at corners (q,): those of the parabola through each place and its
    neighbours, for places that lie unevenly by their `share` (k or 1, q)."""
    steps = np.diff(share, axis=1, append=share[:, :1] + 1) if closed else np.diff(share, axis=1)
    chords = (np.roll(points, -1, axis=1) - points) if closed else np.diff(points, axis=1)
    slopes = np.divide(chords, steps[..., None], out=np.zeros_like(chords), where=steps[..., None] > 0)
    if closed:
        before, after, h, g = np.roll(slopes, 1, axis=1), slopes, np.roll(steps, 1, axis=1), steps
    else:
        before, after = np.concatenate([slopes[:, :1], slopes], axis=1), np.concatenate([slopes, slopes[:, -1:]], axis=1)
        h, g = np.concatenate([steps[:, :1], steps], axis=1), np.concatenate([steps, steps[:, -1:]], axis=1)
    whole = (h + g)[..., None]
    tangent = np.divide(before * g[..., None] + after * h[..., None], whole, out=np.zeros_like(before), where=whole > 0)
    sharp = corners[None, :, None]
    leave, arrive = np.where(sharp, after, tangent), np.where(sharp, before, tangent)
    starts, ends = (points, np.roll(points, -1, axis=1)) if closed else (points[:, :-1], points[:, 1:])
    leaving, arriving = (leave, np.roll(arrive, -1, axis=1)) if closed else (leave[:, :-1], arrive[:, 1:])
    third = steps[..., None] / 3
    pieces = np.stack([starts, starts + leaving * third, ends - arriving * third, ends], axis=2)
    return Contour(pieces, np.zeros(pieces.shape[1], bool), closed)
