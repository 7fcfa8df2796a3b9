"""Rules: live steps on a channel, one file each. RULES is the one table that knows them all."""

from vine_swing.motion.rules import (
    arc,
    bend,
    blur,
    bounce,
    draw_on,
    drift,
    exaggerate,
    face,
    follow,
    fringe,
    gait,
    glow,
    hold_on,
    limit,
    link,
    look_at,
    mask,
    noise,
    oscillator,
    overshoot,
    pendulum,
    recolour,
    retime,
    ripple,
    roll,
    rough,
    round,
    shadow,
    smooth,
    spring,
    squash_stretch,
    steps,
    swirl,
    taper,
    tint,
    wind_up,
)
from vine_swing.motion.rules.spec import Mode, RuleSpec, Settings, SettingSpec, Source, Timing

__all__ = ["RULES", "Mode", "RuleSpec", "SettingSpec", "Settings", "Source", "Timing"]

#: By kind; menus list them in this order.
RULES: dict[str, RuleSpec] = {
    module.SPEC.kind: module.SPEC
    for module in (
        *(retime, steps, oscillator, noise, spring, smooth, limit),
        *(drift, bounce, pendulum, squash_stretch, wind_up, overshoot, arc, exaggerate, roll, face, follow, link, tint),
        *(gait, look_at, hold_on),
        *(ripple, taper, bend, swirl, rough, draw_on, round),
        *(shadow, glow, blur, fringe, mask, recolour),
    )
}
