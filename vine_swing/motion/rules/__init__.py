"""Rules: live steps on a channel, one file each. RULES is the one table that knows them all."""

from vine_swing.motion.rules import oscillator
from vine_swing.motion.rules.spec import Mode, RuleSpec, Settings, SettingSpec, Timing

__all__ = ["RULES", "Mode", "RuleSpec", "SettingSpec", "Settings", "Timing"]

RULES: dict[str, RuleSpec] = {spec.kind: spec for spec in (oscillator.SPEC,)}
