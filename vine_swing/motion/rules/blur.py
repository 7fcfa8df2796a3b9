"""Blur: out of focus all round, or smeared in one direction or along the travel.

Along the travel it is smeared by no more than half of what the object moves in a frame: what is still is sharp.
"""

import numpy as np

from vine_swing.motion.rules.look import LARGEST_BLUR, no_numbers
from vine_swing.motion.rules.spec import Array, LookValues, RuleSpec, SettingSpec, by_name


def derived(look: LookValues) -> dict[str, Array]:
    """Along the travel, `sizes` (px) and `angles` (degrees), (n,) each; otherwise nothing."""
    if look.word("way") != "travel":
        return {}
    if len(look.place) < 2 or len(look.frames) < 2:
        return {"sizes": np.zeros(1), "angles": np.zeros(1)}
    dx, dy = np.gradient(look.place, look.frames, axis=0).T
    sizes = np.minimum(look.values["size"], np.hypot(dx, dy) / 2)
    return {"sizes": sizes, "angles": np.degrees(np.arctan2(dy, dx))}


SPEC = RuleSpec(
    kind="blur",
    label="Blur",
    about="Out of focus, or smeared in one direction: far hills, a swish.",
    settings=by_name(
        SettingSpec(
            "size",
            "size",
            "px",
            6.0,
            0.0,
            LARGEST_BLUR,
            usual=(0.0, 40.0),
            step=0.5,
            about="How soft: its standard deviation, as in SVG.",
        ),
        SettingSpec("way", "way", "", "round", choices=("round", "across", "travel"), about="All round, in one direction, or along its travel."),
        SettingSpec("angle", "direction", "°", 0.0, usual=(-180.0, 180.0), step=1.0, about="Which way it is smeared across; 0° is to the right."),
    ),
    modes=(),
    prepare=no_numbers,
    value_kind="look",
    for_channels=("look",),
    derived=derived,
    example={"size": 3.0},
    summary="{size}",
)
