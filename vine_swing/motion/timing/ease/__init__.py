"""Eases: how a value gets from one key to the next.

`build` turns an ease as written in a scene into a curve ready to be evaluated; `FEELS` is the table of named ones.
"""

import itertools
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.timing.ease.bezier import Bezier
from vine_swing.motion.timing.ease.bounce import Bounce
from vine_swing.motion.timing.ease.curve import EaseCurve
from vine_swing.motion.timing.ease.feels import FEELS, Feel
from vine_swing.motion.timing.ease.points import Points
from vine_swing.motion.timing.ease.spec import BezierEase, BounceEase, Ease, PointsEase, SpringEase
from vine_swing.motion.timing.ease.spring import Spring
from vine_swing.motion.timing.ease.steady import Hold, Linear

__all__ = ["FEELS", "BezierEase", "BounceEase", "Ease", "EaseCurve", "Feel", "PointsEase", "SpringEase", "build", "together"]


_numbers = itertools.count()


@lru_cache(maxsize=65536)
def build(ease: Ease) -> EaseCurve:
    """The curve for an ease as written in a scene; the same ease gives the same curve object, which has a number of its own."""
    if isinstance(ease, str) and ease in FEELS and ease != "even":
        return build(FEELS[ease].ease)
    curve = _curve(ease)
    curve.number = next(_numbers)
    return curve


def _curve(ease: Ease) -> EaseCurve:
    match ease:
        case "hold":
            return Hold()
        case "linear" | "even":
            return Linear()
        case "handles" | "spline":
            raise ValueError(f"'{ease}' has no curve of its own: its stretch is shaped by its keys (motion/timing/cubic.py)")
        case BezierEase(bezier=controls):
            return Bezier(*controls)
        case PointsEase(points=points):
            return Points(points)
        case SpringEase(spring=spring):
            return Spring(spring.frequency, spring.damping)
        case BounceEase(bounce=bounce):
            return Bounce(bounce.bounces, bounce.keep)
    raise AssertionError(f"the ease {ease!r} has no curve")


def evaluate_many(curves: dict[int, EaseCurve], numbers: NDArray[np.int64], u: NDArray[np.float64]) -> NDArray[np.float64]:
    """p for samples (m,) of several curves.

    Args:
        curves: the curves by their numbers.
        numbers: the number of each sample's curve, (m,).
        u: where each curve is evaluated, (m,), within 0…1.
    """
    if len(curves) == 1:
        return next(iter(curves.values())).at(u)
    used, index = np.unique(numbers, return_inverse=True)
    some = [curves[number] for number in used.tolist()]
    p = np.empty_like(u)
    beziers = [n for n, curve in enumerate(some) if isinstance(curve, Bezier)]
    if beziers:
        # All Bezier curves are inverted together: scenes may have thousands of different ones.
        which_bezier = np.full(len(some), -1)
        which_bezier[beziers] = np.arange(len(beziers))
        which = which_bezier[index]
        here = np.flatnonzero(which >= 0)
        p[here] = Bezier.evaluate_many([curve for curve in some if isinstance(curve, Bezier)], which[here], u[here])
    for n, curve in enumerate(some):
        if not isinstance(curve, Bezier):
            here = np.flatnonzero(index == n)
            p[here] = curve.at(u[here])
    return p
