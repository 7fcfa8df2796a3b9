"""Swirl: turns what is within a radius about a centre, by angle · (1 − r/radius)²."""

import numpy as np

from vine_swing.motion.curves.contours import Contour
from vine_swing.motion.rules.bending import Bending, like, no_numbers
from vine_swing.motion.rules.spec import Array, RuleSpec, SettingSpec, by_name


def bend(contours: list[Contour], how: Bending) -> list[Contour]:
    """The contours swirled."""
    x, y = how.middle
    across, down = how.number("x") + x, how.number("y") + y

    def change(points: Array) -> Array:
        dx, dy = points[..., 0] - like(across, points), points[..., 1] - like(down, points)
        near = np.clip(1 - np.hypot(dx, dy) / like(how.number("radius"), points), 0, None)
        turn = np.radians(like(how.number("angle"), points)) * near**2
        c, s = np.cos(turn), np.sin(turn)
        return np.stack([like(across, points) + c * dx - s * dy, like(down, points) + s * dx + c * dy], axis=-1)

    return [one.mapped(change) for one in how.fine(contours)]


SPEC = RuleSpec(
    kind="swirl",
    label="Swirl",
    about="Stirs a shape about a point: whirlpools, batter, a dizzy head.",
    settings=by_name(
        SettingSpec("angle", "angle", "°", 90.0, -3600.0, 3600.0, usual=(-360.0, 360.0), step=1.0, about="How far its middle is turned."),
        SettingSpec("radius", "radius", "px", 120.0, 0.01, 100_000.0, usual=(10.0, 400.0), step=1.0, about="How far out it still turns anything."),
        SettingSpec("x", "x", "px", 0.0, usual=(-200.0, 200.0), step=1.0, about="How far to the right of the shape's middle it turns."),
        SettingSpec("y", "y", "px", 0.0, usual=(-200.0, 200.0), step=1.0, about="How far below the shape's middle it turns."),
    ),
    modes=(),
    prepare=no_numbers,
    bend=bend,
    value_kind="outline",
    for_channels=("outline",),
    example={"radius": 44.0, "angle": 150.0},
    summary="{angle} within {radius}",
)
