"""Limit: keeps the value between two others, hard or with a soft knee.

With softness s the value goes its own way until s before the limit, and from there nears it as 1 − e^−x does: never past it, and
with no corner. The function is monotone in the value.
"""

import numpy as np

from vine_swing.motion.rules.spec import Array, Mode, RuleSpec, Settings, SettingSpec, Source, by_name, number_of, stateless


def apply(source: Source, settings: Settings, mode: Mode, t: Array) -> Array:
    """The values kept between `low` and `high`, whichever are on."""
    values = source.at(t)
    low, high = settings.number("low", t), settings.number("high", t)
    soft = number_of(settings, "softness", t)
    if low is not None and high is not None:
        # Limits that have changed places leave one value: the middle. Two knees never overlap.
        low, high = np.minimum(low, (low + high) / 2), np.maximum(high, (low + high) / 2)
        soft = np.minimum(soft, (high - low) / 2)
    if high is not None:
        values = high - _over(high - values, soft)
    if low is not None:
        values = low + _over(values - low, soft)
    return values


def _over(room: Array, soft: Array) -> Array:
    """The room left before a limit, made never less than 0: it shrinks ever more slowly once it is less than `soft`."""
    with np.errstate(over="ignore", divide="ignore", invalid="ignore"):
        knee = soft * np.exp(np.minimum((room - soft) / soft, 0))
    return np.where(room >= soft, np.maximum(room, 0), np.where(soft > 0, knee, 0.0))


SPEC = RuleSpec(
    kind="limit",
    label="Limit",
    about="Keeps it between two values: floors and walls, needles that hit a stop.",
    settings=by_name(
        SettingSpec("low", "low", "as the channel", None, about="It never goes below this."),
        SettingSpec("high", "high", "as the channel", None, about="It never goes above this."),
        SettingSpec(
            "softness", "softness", "as the channel", 0.0, 0.0, None, usual=(0.0, 50.0), about="How long before a limit it begins to slow down."
        ),
    ),
    modes=(),
    prepare=stateless(apply),
    summary="from {low} · to {high}",
    example={"high": 70.0},
)
