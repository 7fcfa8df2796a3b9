"""Recolour: other colours for a whole picture, by one matrix on its sRGB values (W3C Filter Effects Module Level 1 for hue and saturation).

First hue, saturation and brightness are changed; then `share` of the picture goes over to two colours: what is black in it becomes `dark`,
what is white `light`, and what lies between lies between them.
"""

import numpy as np

from vine_swing.motion.rules.look import no_numbers
from vine_swing.motion.rules.spec import Array, LookValues, RuleSpec, SettingSpec, by_name

#: How light red, green and blue are (ITU-R BT.709), rounded as the W3C has it.
LIGHTNESS = np.array([0.2126, 0.7152, 0.0722])
_HUE_LIGHTNESS = np.array([0.213, 0.715, 0.072])
_HUE_SINE = np.array([[-0.213, -0.715, 0.928], [0.143, 0.140, -0.283], [-0.787, 0.715, 0.072]])


def derived(look: LookValues) -> dict[str, Array]:
    """`colours`: (n, 12) or (1, 12), the rows of a 3 × 4 matrix from r, g, b and 1 to r, g, b, all 0…1."""
    values = look.values
    names = ("hue", "saturation", "brightness", "share")
    hue, saturation, brightness, share = np.broadcast_arrays(*(values[name] for name in names))
    dark, light = (values[name][:, :3] for name in ("dark", "light"))
    n = max(len(hue), len(dark), len(light))
    hue, saturation, brightness, share = (np.broadcast_to(one, n)[:, None, None] for one in (hue, saturation, brightness, share))
    grey = np.tile(_HUE_LIGHTNESS, (3, 1))
    turned = grey + np.cos(np.radians(hue)) * (np.eye(3) - grey) + np.sin(np.radians(hue)) * _HUE_SINE
    changed = brightness * (grey + saturation * (np.eye(3) - grey)) @ turned
    two = (light - dark)[..., None] * (LIGHTNESS @ changed)[:, None, :]
    linear = (1 - share) * changed + share * two
    constant = share * np.broadcast_to(dark, (n, 3))[..., None]
    return {"colours": np.concatenate([linear, constant], axis=-1).reshape(n, 12)}


SPEC = RuleSpec(
    kind="recolour",
    label="Recolour",
    about="Other colours for all of it: dusk, fog, an old photograph.",
    settings=by_name(
        SettingSpec("hue", "hue", "°", 0.0, usual=(-180.0, 180.0), step=1.0, about="Turns all colours round the colour circle."),
        SettingSpec("saturation", "colourful", "×", 1.0, 0.0, 4.0, usual=(0.0, 2.0), step=0.01, about="0 is grey, 1 as it is, 2 twice as colourful."),
        SettingSpec("brightness", "bright", "×", 1.0, 0.0, 4.0, usual=(0.0, 2.0), step=0.01, about="0 is black, 1 as it is, 2 twice as bright."),
        SettingSpec("share", "share", "×", 0.0, 0.0, 1.0, usual=(0.0, 1.0), step=0.01, about="How much of it goes over to the two colours below."),
        SettingSpec("dark", "dark", "", "#2C4A3B", holds="colour", about="What black becomes."),
        SettingSpec("light", "light", "", "#F6ECD2", holds="colour", about="What white becomes."),
    ),
    modes=(),
    prepare=no_numbers,
    value_kind="look",
    for_channels=("look",),
    derived=derived,
    example={"share": 1.0, "light": "#F6D58A"},
    summary="hue {hue} · {saturation} colourful · {share} in two colours",
)
