"""Rules: live steps on a channel, one file each. RULES is the one table that knows them all."""

from vine_swing.motion.rules import limit, noise, oscillator, retime, smooth, spring, steps
from vine_swing.motion.rules.spec import Mode, RuleSpec, Settings, SettingSpec, Source, Timing

__all__ = ["RULES", "Mode", "RuleSpec", "SettingSpec", "Settings", "Source", "Timing"]

RULES: dict[str, RuleSpec] = {
    spec.kind: spec for spec in (retime.SPEC, steps.SPEC, oscillator.SPEC, noise.SPEC, spring.SPEC, smooth.SPEC, limit.SPEC)
}
