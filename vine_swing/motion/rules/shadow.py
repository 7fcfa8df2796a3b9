"""Shadow: the silhouette of a picture in one colour, moved and blurred, beneath the picture."""

from vine_swing.motion.rules.look import BLUR_ABOUT, LARGEST_BLUR, no_numbers
from vine_swing.motion.rules.spec import RuleSpec, SettingSpec, by_name

SPEC = RuleSpec(
    kind="shadow",
    label="Shadow",
    about="Beneath it, to one side: it stands off the ground, or lies on it.",
    settings=by_name(
        SettingSpec("dx", "right", "px", 8.0, usual=(-60.0, 60.0), step=1.0, about="How far to the right it falls."),
        SettingSpec("dy", "down", "px", 12.0, usual=(-60.0, 60.0), step=1.0, about="How far down it falls."),
        SettingSpec("blur", "blur", "px", 6.0, 0.0, LARGEST_BLUR, usual=(0.0, 40.0), step=0.5, about=BLUR_ABOUT),
        SettingSpec("colour", "colour", "", "#1F2A25", holds="colour", about="What colour it has."),
        SettingSpec("opacity", "strength", "", 0.35, 0.0, 1.0, usual=(0.0, 1.0), step=0.01, about="0 is no shadow, 1 a solid one."),
    ),
    modes=(),
    prepare=no_numbers,
    value_kind="look",
    for_channels=("look",),
    example={"dx": 7.0, "dy": 8.0, "blur": 2.5},
    summary="{dx} right · {dy} down · blur {blur} · {opacity}",
)
