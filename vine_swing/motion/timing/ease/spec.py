"""How an ease is written in a scene file, each kind with the model that checks it."""

import itertools
from typing import Annotated, Any, Literal

from pydantic import Discriminator, Field, Tag, field_validator

from vine_swing.motion.basics.values import Frozen, Number

Unit = Annotated[float, Field(strict=True, ge=0, le=1)]
FeelName = Literal["even", "slow-out", "slow-in", "slow-out-in", "snap", "heavy", "wind-up", "overshoot", "spring", "bounce"]


class BezierEase(Frozen):
    """CSS cubic-bezier(x1, y1, x2, y2)."""

    bezier: tuple[Unit, Number, Unit, Number]


class PointsEase(Frozen):
    """CSS linear(): [u, p] points in order of u."""

    points: Annotated[tuple[tuple[Unit, Number], ...], Field(min_length=2, max_length=1000)]

    @field_validator("points")
    @classmethod
    def _in_order(cls, points: tuple[tuple[float, float], ...]) -> tuple[tuple[float, float], ...]:
        for i, (before, after) in enumerate(itertools.pairwise(points)):
            if after[0] < before[0]:
                raise ValueError(f"point {i + 2} has u {after[0]:g}, before point {i + 1}'s {before[0]:g}; give points in order of u")
        if points[0][0] == points[-1][0]:
            raise ValueError("all points share one u; spread them over 0 to 1")
        return points


class SpringSettings(Frozen):
    """`frequency`: swings across the stretch; `damping`: the damping ratio, 1 = no swing past."""

    frequency: Annotated[float, Field(strict=True, gt=0, le=100)] = 3.0
    damping: Annotated[float, Field(strict=True, ge=0, le=10)] = 0.25


class SpringEase(Frozen):
    """Arrive at the next key by springing."""

    spring: SpringSettings


class BounceSettings(Frozen):
    """`bounces`: rebounds before it lies still; `keep`: share of the height each rebound keeps."""

    bounces: Annotated[int, Field(strict=True, ge=0, le=50)] = 3
    keep: Annotated[float, Field(strict=True, ge=0.001, le=1)] = 0.35


class BounceEase(Frozen):
    """Arrive at the next key as a dropped thing arrives on the floor."""

    bounce: BounceSettings


EaseName = Literal[
    "hold", "linear", "handles", "spline", "even", "slow-out", "slow-in", "slow-out-in", "snap", "heavy", "wind-up", "overshoot", "spring", "bounce"
]
_FORMS = ("bezier", "points", "spring", "bounce")


def _form(value: Any) -> str | None:
    if isinstance(value, str):
        return "as named"
    if isinstance(value, dict):
        return next((f"as {form}" for form in _FORMS if form in value), None)
    return next((f"as {form}" for form in _FORMS if hasattr(value, form)), None)


Ease = Annotated[
    Annotated[EaseName, Tag("as named")]
    | Annotated[BezierEase, Tag("as bezier")]
    | Annotated[PointsEase, Tag("as points")]
    | Annotated[SpringEase, Tag("as spring")]
    | Annotated[BounceEase, Tag("as bounce")],
    Discriminator(
        _form,
        custom_error_type="ease",
        custom_error_message='an ease: "hold", "linear", "handles", "spline", a feel, or an object with "bezier", "points", "spring" or "bounce"',
    ),
]
