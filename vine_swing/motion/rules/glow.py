"""Glow: light of one colour about a picture, or also over it: the blurred silhouette, as strong as one likes."""

from vine_swing.motion.rules.look import BLUR_ABOUT, LARGEST_BLUR, no_numbers
from vine_swing.motion.rules.spec import RuleSpec, SettingSpec, by_name

SPEC = RuleSpec(
    kind="glow",
    label="Glow",
    about="Light about it: fireflies, lamps, magic seals.",
    settings=by_name(
        SettingSpec("size", "size", "px", 14.0, 0.0, LARGEST_BLUR, usual=(0.0, 60.0), step=0.5, about=BLUR_ABOUT),
        SettingSpec("colour", "colour", "", "#FFD27A", holds="colour", about="The colour of the light."),
        SettingSpec("strength", "strength", "×", 1.5, 0.0, 4.0, usual=(0.0, 4.0), step=0.05, about="How strong it is: 0 is no light."),
        SettingSpec("lies", "lies", "", "behind", choices=("behind", "over"), about="Light behind it alone, or shining over it too."),
    ),
    modes=(),
    prepare=no_numbers,
    value_kind="look",
    for_channels=("look",),
    example={"size": 5.0, "strength": 2.0},
    summary="{size} · {strength}",
)
