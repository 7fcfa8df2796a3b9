"""An ease run backwards: q(u) = 1 − p(1 − u)."""

from vine_swing.motion.timing.ease.feels import FEELS
from vine_swing.motion.timing.ease.spec import BezierEase, Ease, PointsEase


def reversed_ease(ease: Ease) -> Ease:
    """The ease of the same stretch played from its end to its beginning.

    Springing and bouncing arrivals, hold, and stretches shaped by their keys stay as they are: run backwards they would
    leave a pose by a motion that nothing makes.
    """
    curve = FEELS[ease].ease if isinstance(ease, str) and ease in FEELS else ease
    match curve:
        case BezierEase(bezier=(x1, y1, x2, y2)):
            return _named(BezierEase(bezier=(1 - x2, 1 - y2, 1 - x1, 1 - y1)), ease)
        case PointsEase(points=points):
            return PointsEase(points=tuple((1 - u, 1 - p) for u, p in reversed(points)))
    return ease


def _named(curve: BezierEase, before: Ease) -> Ease:
    """A shipped feel by its name, where the curve is one (but for rounding)."""
    for name, feel in FEELS.items():
        if (
            isinstance(feel.ease, BezierEase)
            and isinstance(before, str)
            and max(abs(a - b) for a, b in zip(feel.ease.bezier, curve.bezier, strict=True)) < 1e-9
        ):
            return feel.name if name == feel.name else curve
    return curve
