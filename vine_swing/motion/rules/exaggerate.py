"""Exaggerate: pushes the motion away from its middle, or draws it in: m + amount·(value − m).

The middle m is the mean of the values over the scene, or the value the channel has without its keys.
"""

import numpy as np

from vine_swing.motion.rules.spec import Array, Mode, Read, RuleSpec, Settings, SettingSpec, Source, by_name, number_of

_PER_FRAME = 4


def prepare(source: Source, settings: Settings, mode: Mode) -> Read:
    """The values, farther from their middle; the mean is computed once."""
    about: list[Array] = []

    def middle() -> Array:
        if not about:
            about.append(_base(source) if settings.choice("about") == "base" else _mean(source))
        return about[0]

    return lambda t: middle() + number_of(settings, "amount", t) * (source.at(t) - middle())


def _mean(source: Source) -> Array:
    last = max(source.timing.length - 1, 0)
    mean: Array = source.at(np.linspace(0, last, last * _PER_FRAME + 1)[None, :]).mean(axis=1, keepdims=True)
    return mean


def _base(source: Source) -> Array:
    """Return the bases of the channels, or their first key's values without a base."""
    bases = [channel.base if isinstance(channel.base, int | float) else None for channel in source.keys]
    starts = source.at(np.zeros((1, 1)))
    return np.array([[start if base is None else float(base)] for base, start in zip(bases, starts[:, 0].tolist(), strict=True)])


SPEC = RuleSpec(
    kind="exaggerate",
    label="Exaggerate",
    about="Pushes every pose farther, or tones it down: one slider from shy to bold.",
    settings=by_name(
        SettingSpec(
            "amount", "amount", "×", 1.5, -100.0, 100.0, usual=(0.0, 3.0), about="1 is as it was, 2 twice as far from the middle, 0 stands still."
        ),
        SettingSpec(
            "about",
            "about",
            "",
            "mean",
            choices=("mean", "base"),
            about="What it is pushed away from: the middle of the motion, or the pose without keys.",
        ),
    ),
    modes=(),
    prepare=prepare,
    summary="{amount}",
    example={"amount": 1.6},
)
