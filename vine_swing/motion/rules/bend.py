"""Bend: the middle line of the box along `direction` becomes an arc of `angle`° and keeps its length; points beside it keep their distance."""

import numpy as np

from vine_swing.motion.curves.contours import Contour
from vine_swing.motion.rules.bending import Across, Bending, like, no_numbers
from vine_swing.motion.rules.spec import Array, RuleSpec, SettingSpec, by_name

#: Below this many radians over the whole length an arc is as good as straight.
_STRAIGHT = 1e-9
#: Which share of the middle line stays where it is.
_HELD = {"middle": 0.5, "start": 0.0, "end": 1.0}


def bend(contours: list[Contour], how: Bending) -> list[Contour]:
    """The contours bent."""
    across = Across.of(how.box, how.number("direction"))
    angle = np.radians(how.number("angle"))
    held = _HELD[how.settings.choice("held")]

    def change(points: Array) -> Array:
        along, beside = across.split(points)
        length = like(across.length[:, None], points)
        turn, from_held = like(angle, points), along - held * length
        bent = np.abs(turn) > _STRAIGHT
        curvature = np.where(bent, turn, 1.0) / np.where(length > 0, length, 1.0)
        way = np.where(bent, curvature * from_held, 0.0)
        # Points on the right of a clockwise arc are nearer its centre.
        ahead = np.where(bent, np.sin(way) / curvature, from_held) - beside * np.sin(way)
        aside = np.where(bent, (1 - np.cos(way)) / curvature, 0.0) + beside * np.cos(way)
        return across.put(held * length + ahead, aside)

    return [one.mapped(change) for one in how.fine(contours)]


SPEC = RuleSpec(
    kind="bend",
    label="Bend",
    about="Curls a shape into an arc without making it longer: tails, arms, a nodding flower, a page that is turned.",
    settings=by_name(
        SettingSpec(
            "angle", "angle", "°", 45.0, -720.0, 720.0, usual=(-180.0, 180.0), step=1.0, about="How far its ends are turned against each other."
        ),
        SettingSpec("direction", "direction", "°", 0.0, usual=(-180.0, 180.0), step=1.0, about="Along which line it is bent: 0° from left to right."),
        SettingSpec("held", "held", "", "middle", choices=tuple(_HELD), about="What stays where it is."),
    ),
    modes=(),
    prepare=no_numbers,
    bend=bend,
    value_kind="outline",
    for_channels=("outline",),
    example={"angle": 140.0},
    summary="{angle} along {direction}",
)
