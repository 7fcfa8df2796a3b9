"""Plane affine matrices over time, as six columns a b c d e f in SVG's order:

    | a c e |   | x |
    | b d f | · | y |
    | 0 0 1 |   | 1 |

x right, y down, angles in degrees clockwise (design section 3). Every function takes and gives arrays of shape (n, 6), or
(1, 6) for what never changes. Many short arrays cost NumPy more than one long one: where a function says so, it takes stacks of them, (k, n, 6).
"""

from collections.abc import Mapping, Sequence

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics.rows import in_cache
from vine_swing.motion.basics.specs import GEOMETRY, GROUP_CHANNELS

Array = NDArray[np.float64]
#: The matrix that changes nothing, (1, 6).
IDENTITY = np.array([[1.0, 0, 0, 1, 0, 0]])
IDENTITY.flags.writeable = False
#: Determinants smaller than this are treated as 0.
_FLAT = 1e-12


def columns(a: Array, b: Array, c: Array, d: Array, e: Array, f: Array) -> Array:
    """Stack six columns of any broadcastable lengths."""
    result = np.empty((*np.broadcast(a, b, c, d, e, f).shape, 6))
    for n, column in enumerate((a, b, c, d, e, f)):
        result[..., n] = column
    return result


def multiply(left: Array, right: Array) -> Array:
    """left · right: what `right` does happens first. Either may be a stack, (k, n, 6); then so is the result."""
    a1, b1, c1, d1, e1, f1 = _entries(left)
    a2, b2, c2, d2, e2, f2 = _entries(right)
    first = a1 * a2 + c1 * b2
    result = np.empty((*first.shape, 6))
    result[..., 0] = first
    result[..., 1] = b1 * a2 + d1 * b2
    result[..., 2] = a1 * c2 + c1 * d2
    result[..., 3] = b1 * c2 + d1 * d2
    result[..., 4] = a1 * e2 + c1 * f2 + e1
    result[..., 5] = b1 * e2 + d1 * f2 + f1
    return result


def products(lefts: Sequence[Array], rights: Sequence[Array]) -> list[Array]:
    """left · right of as many pairs; pairs of equal lengths are computed together, which gives the same numbers."""
    alike: dict[tuple[int, int], list[int]] = {}
    for place, (left, right) in enumerate(zip(lefts, rights, strict=True)):
        alike.setdefault((len(left), len(right)), []).append(place)
    result: list[Array] = [IDENTITY] * len(lefts)
    for lengths, places in alike.items():
        for here in in_cache(len(places), 6 * max(lengths)):
            some = places[here]
            left = lefts[some[0]] if all(lefts[place] is lefts[some[0]] for place in some) else np.stack([lefts[place] for place in some])
            for place, product in zip(some, multiply(left, np.stack([rights[place] for place in some])), strict=True):
                result[place] = product
    return result


def apply(matrix: Array, x: Array, y: Array) -> Array:
    """The points (x, y), each of shape (n,) or (1,), moved by the matrix; shape (n, 2). Of stacks of points, (k, n) or (k, 1), or of a stack
    of matrices, it is (k, n, 2)."""
    a, b, c, d, e, f = _entries(matrix)
    right, down = a * x + c * y + e, b * x + d * y + f
    result = np.empty((*right.shape, 2))
    result[..., 0], result[..., 1] = right, down
    return result


def _entries(matrix: Array) -> Array:
    """The six entries a … f of each matrix: (6, n), or (6, k, n) of a stack."""
    return matrix.T if matrix.ndim == 2 else matrix.transpose(2, 0, 1)


#: The channels that make a matrix, with the limits of those that have any.
_LIMITS = tuple((name, GROUP_CHANNELS[name].low, GROUP_CHANNELS[name].high) for name in GEOMETRY)


def linear_part(rotation: Array, skew: Array, sx: Array, sy: Array, stretch: Array, angle: Array) -> tuple[Array, Array, Array, Array]:
    """R(angle) · S(stretch, 1/stretch) · R(−angle) · R(rotation) · K(skew) · S(sx, sy), as its columns a, b, c, d."""
    turn = np.radians(rotation)
    rc, rs = np.cos(turn), np.sin(turn)
    if (stretch == 1).all():
        # Most objects are never stretched.
        if not skew.any():
            return rc * sx, rs * sx, -rs * sy, rc * sy
        slant = np.tan(np.radians(skew))
        return rc * sx, rs * sx, (slant * rc - rs) * sy, (slant * rs + rc) * sy
    alpha = np.radians(angle)
    cos, sin = np.cos(alpha), np.sin(alpha)
    wide, thin = stretch, 1 / stretch
    # The symmetric matrix that pulls along alpha and thins across it; its determinant is 1.
    cos2, sin2 = cos * cos, sin * sin
    pa, pb, pd = wide * cos2 + thin * sin2, (wide - thin) * cos * sin, wide * sin2 + thin * cos2
    slant = np.tan(np.radians(skew))
    # R(rotation) · K(skew), where K slants the upright lines: (x, y) → (x + slant·y, y).
    qa, qb, qc, qd = rc, rs, slant * rc - rs, slant * rs + rc
    return (pa * qa + pb * qb) * sx, (pb * qa + pd * qb) * sx, (pa * qc + pb * qd) * sy, (pb * qc + pd * qd) * sy


def geometry_of(channels: Mapping[str, Array]) -> dict[str, Array]:
    """Those of some channels that make a matrix, kept within their limits: rules may carry the channels themselves beyond."""
    return {name: channels[name] if low is None else np.clip(channels[name], low, high) for name, low, high in _LIMITS if name in channels}


def object_matrix(channels: Mapping[str, Array]) -> Array:
    """The matrix of one object in its parent's space: T(x, y) · linear part · T(−pivot), design section 4.

    Args:
        channels: arrays of shape (n,) or (1,) under the names of the channels every object has; or (k, n) and (k, 1) for k objects at
            once, which give (k, n, 6). They are kept within their limits first (a stretch must stay above 0, a skew short of 90°);
            rules may carry the channels themselves beyond.
    """
    g = geometry_of(channels)
    a, b, c, d = linear_part(g["rotation"], g["skew"], g["scale.x"], g["scale.y"], g["stretch"], g["stretch.angle"])
    px, py = g["pivot.x"], g["pivot.y"]
    return columns(a, b, c, d, g["x"] - a * px - c * py, g["y"] - b * px - d * py)


def inverse(matrix: Array) -> Array:
    """The inverse of each matrix; a flattened one (determinant 0) has none and gives NaN."""
    a, b, c, d, e, f = matrix.T
    det = a * d - b * c
    with np.errstate(divide="ignore", invalid="ignore"):
        return columns(d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det)


def determinant(matrix: Array) -> Array:
    """By how much each matrix makes areas larger, (n,); below 0 it flips them."""
    a, b, c, d, _, _ = matrix.T
    result: Array = a * d - b * c
    return result


def safe_inverse(matrix: Array) -> Array:
    """The inverse of each matrix, into the space it comes from; a flattened one takes everything to the origin there."""
    result = inverse(matrix)
    a, b, c, d, _, _ = matrix.T
    result[np.abs(a * d - b * c) < _FLAT] = 0.0
    return result


def rotation_of(matrix: Array) -> Array:
    """The direction of the x axis after the matrix, in degrees, unwrapped over time; shape (n,)."""
    angle: Array = np.degrees(np.unwrap(np.arctan2(matrix[:, 1], matrix[:, 0])))
    return angle
