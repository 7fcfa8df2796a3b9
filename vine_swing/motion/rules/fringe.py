"""Fringe: red and blue moved apart, sideways or outward from the object's pivot, as a cheap lens or a misprint does."""

from vine_swing.motion.rules.look import no_numbers
from vine_swing.motion.rules.spec import RuleSpec, SettingSpec, by_name

SPEC = RuleSpec(
    kind="fringe",
    label="Fringe",
    about="Red and blue moved apart at the edges: a misprint, an old lens.",
    settings=by_name(
        SettingSpec(
            "distance",
            "distance",
            "px",
            4.0,
            -1_000.0,
            1_000.0,
            usual=(0.0, 30.0),
            step=0.5,
            about="How far red moves, and blue the other way; outward: at 100 px from the middle.",
        ),
        SettingSpec("way", "way", "", "sideways", choices=("sideways", "outward"), about="All alike in one direction, or outward from its pivot."),
        SettingSpec("angle", "direction", "°", 0.0, usual=(-180.0, 180.0), step=1.0, about="Which way red moves sideways; 0° is to the right."),
    ),
    modes=(),
    prepare=no_numbers,
    value_kind="look",
    for_channels=("look",),
    example={"distance": 4.0},
    summary="{distance}",
)
