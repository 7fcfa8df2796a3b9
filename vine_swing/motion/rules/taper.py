"""Taper: thinner or wider towards one side.

With u = 0…1 across the box along `direction`, the distance from the middle line is times 1 + (size − 1)·p(u), p(u) = u + curve·u·(1 − u): linear, or
bulging towards one side.
"""

from vine_swing.motion.curves.contours import Contour
from vine_swing.motion.rules.bending import Across, Bending, like, no_numbers
from vine_swing.motion.rules.spec import Array, RuleSpec, SettingSpec, by_name


def bend(contours: list[Contour], how: Bending) -> list[Contour]:
    """The contours tapered."""
    across = Across.of(how.box, how.number("direction"))

    def change(points: Array) -> Array:
        along, beside = across.split(points)
        u = across.share(along)
        p = u + like(how.number("curve"), points) * u * (1 - u)
        return across.put(along, beside * (1 + (like(how.number("size"), points) - 1) * p))

    return [one.mapped(change) for one in how.fine(contours)]


SPEC = RuleSpec(
    kind="taper",
    label="Taper",
    about="Thinner or wider towards one side: bottles, tails, a kettle's spout, a bag that is squeezed.",
    settings=by_name(
        SettingSpec(
            "size", "size", "×", 0.5, -10.0, 20.0, usual=(0.0, 3.0), about="How wide it is at its end: 1 as drawn, 0 a point, 2 twice as wide."
        ),
        SettingSpec("direction", "direction", "°", 0.0, usual=(-180.0, 180.0), step=1.0, about="Where its end is: 0° to the right, 90° below."),
        SettingSpec("curve", "curve", "", 0.0, -1.0, 1.0, usual=(-1.0, 1.0), about="0 tapers evenly, above 0 soon, below 0 late."),
    ),
    modes=(),
    prepare=no_numbers,
    bend=bend,
    value_kind="outline",
    for_channels=("outline",),
    example={"size": 0.2},
    summary="{size} at {direction}",
)
