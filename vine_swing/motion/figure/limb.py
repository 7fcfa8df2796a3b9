"""A limb of two bones, solved in closed form: where the joint in the middle comes to lie so that the end gets to its place.

    root ──l1── middle ──l2── end        d = |place − root|

By the law of cosines the upper bone is turned from the straight way by acos((l1² + d² − l2²) / 2·l1·d), to the side `bend` says. Near full
reach the angle would change without bound (it goes like √(l1 + l2 − d)), and the knee would pop. So from the share SOFT of the full
length on d is eased towards the share FULL, which it never reaches:

    d' = s + (r − s)·(1 − e^(−(d − s)/(r − s)))        s = SOFT·(l1 + l2), r = FULL·(l1 + l2)

which is C1. Up to s the end is exactly at its place.
"""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.figure.model import Limb

Array = NDArray[np.float64]
#: A number, or one for each of k limbs, (k, 1).
Length = Array | float
SOFT, FULL = 0.97, 0.9985
#: How near the end may come to the root, as a share of how near it can.
_NEAREST = 1.001


def joint_at_rest(limbs: Sequence[Limb], n: int) -> tuple[Array, Array]:
    """x and y of the n-th joint of some limbs where they rest, from the root (0) on, (k, 1) each."""
    places = np.array([one.joints[n] for one in limbs])
    return places[:, :1], places[:, 1:]


def reached(distance: Array, l1: Length, l2: Length) -> Array:
    """How far from the root the end of a limb gets that is wanted at some distance (n,), in px; l1 and l2 are as of `solve`."""
    soft, full = SOFT * (l1 + l2), FULL * (l1 + l2)
    beyond = np.maximum(distance - soft, 0.0)
    eased = np.where(distance > soft, soft + (full - soft) * -np.expm1(-beyond / (full - soft)), distance)
    return np.asarray(np.maximum(eased, np.maximum(np.abs(l1 - l2) * _NEAREST, 1e-6)))


def solve(root: Array, place: Array, l1: Length, l2: Length, bend: Length) -> tuple[Array, Array]:
    """Return the directions of both bones that bring the end of a limb to a position, or as near as possible.

    Args:
        root, place: points, (n, 2) or (1, 2); of k limbs at once (k, n, 2).
        l1, l2: lengths of the bones, px; of k limbs (k, 1).
        bend: 1 or -1; with 1 the middle joint lies to the right of the way down from root to end, y pointing down. Of k limbs (k, 1).

    Returns:
        The directions of the upper and of the lower bone, in degrees clockwise from the right, (n,) or (k, n) each.
    """
    way = place - root
    wanted = np.hypot(way[..., 0], way[..., 1])
    d = reached(wanted, l1, l2)
    toward = np.arctan2(way[..., 1], way[..., 0])
    cosine = np.clip((l1 * l1 + d * d - l2 * l2) / (2 * l1 * d), -1.0, 1.0)
    upper = toward - bend * np.arccos(cosine)
    middle_x, middle_y = l1 * np.cos(upper), l1 * np.sin(upper)
    lower = np.arctan2(d * np.sin(toward) - middle_y, d * np.cos(toward) - middle_x)
    return np.degrees(upper), np.degrees(lower)
