"""Mask: only what lies inside another object is seen, or only what lies outside it."""

from vine_swing.motion.rules.look import LARGEST_BLUR, no_numbers
from vine_swing.motion.rules.spec import WHERE, RuleSpec, SettingSpec, by_name

SPEC = RuleSpec(
    kind="mask",
    label="Mask",
    about="Seen only through another object, or only around it: spotlights, words behind a plate.",
    settings=by_name(
        SettingSpec("by", "by", "", "", names="object", about="The object it is masked by. It may move, fade, and be hidden itself."),
        SettingSpec("side", "seen", "", "inside", choices=("inside", "outside"), about="Whether it is seen inside that object or outside it."),
        SettingSpec(
            "reads",
            "goes by",
            "",
            "opacity",
            choices=("opacity", "lightness"),
            about="What counts as inside: wherever that object is solid, or as far as it is light.",
        ),
        SettingSpec("feather", "feather", "px", 0.0, 0.0, LARGEST_BLUR, usual=(0.0, 60.0), step=0.5, about="How soft its edge is: 0 is sharp."),
    ),
    modes=(),
    prepare=no_numbers,
    value_kind="look",
    for_channels=("look",),
    dependencies=lambda word, channel: ((word("by"), WHERE),) if word("by") else (),
    example={"feather": 1.5, "by": "leader"},
    summary="{by} · feather {feather}",
)
