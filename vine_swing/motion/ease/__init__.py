"""Eases: how a value gets from one key to the next.

`build` turns an ease as written in a scene into a curve ready to be evaluated; `FEELS` is the table of named ones.
"""

from functools import lru_cache

from vine_swing.motion.ease.bezier import Bezier
from vine_swing.motion.ease.bounce import Bounce
from vine_swing.motion.ease.curve import EaseCurve
from vine_swing.motion.ease.feels import FEELS, Feel
from vine_swing.motion.ease.points import Points
from vine_swing.motion.ease.spec import BezierEase, BounceEase, Ease, PointsEase, SpringEase
from vine_swing.motion.ease.spring import Spring
from vine_swing.motion.ease.steady import Hold, Linear

__all__ = ["FEELS", "BezierEase", "BounceEase", "Ease", "EaseCurve", "Feel", "PointsEase", "SpringEase", "build"]


@lru_cache(maxsize=4096)
def build(ease: Ease) -> EaseCurve:
    """The curve for an ease as written in a scene; the same ease gives the same curve object."""
    match ease:
        case "hold":
            return Hold()
        case "linear" | "even":
            return Linear()
        case "handles" | "spline":
            raise ValueError(f"'{ease}' has no curve of its own: its stretch is shaped by its keys (motion/cubic.py)")
        case str():
            return build(FEELS[ease].ease)
        case BezierEase(bezier=controls):
            return Bezier(*controls)
        case PointsEase(points=points):
            return Points(points)
        case SpringEase(spring=spring):
            return Spring(spring.frequency, spring.damping)
        case BounceEase(bounce=bounce):
            return Bounce(bounce.bounces, bounce.keep)
