"""Smooth: a Gaussian mean over some frames to both sides.

The bell has a standard deviation of half of `frames` and ends there, two deviations out. It is summed at 8 places a frame, so that for
values that do not jump the result does not depend on how the scene is sampled.
"""

import numpy as np

from vine_swing.motion.rules.spec import Array, Mode, RuleSpec, Settings, SettingSpec, Source, by_name, number_or

_PER_FRAME = 8
_LEAST, _MOST = 33, 2049


def apply(source: Source, t: Array, settings: Settings, mode: Mode) -> Array:
    """The mean of the values over ± `frames`, those near counting more. Shapes (n,)."""
    frames = np.broadcast_to(number_or(settings, "frames", t), t.shape)
    widest = float(frames.max(initial=0))
    if widest <= 0:
        return source.at(t)
    count = int(np.clip(2 * np.ceil(widest * _PER_FRAME) + 1, _LEAST, _MOST))
    places = np.linspace(-1, 1, count)
    weights = np.exp(-0.5 * (2 * places) ** 2)
    weights[[0, -1]] /= 2
    values = source.at((t[:, None] + frames[:, None] * places).ravel()).reshape(len(t), count)
    smoothed: Array = values @ (weights / weights.sum())
    return smoothed


SPEC = RuleSpec(
    kind="smooth",
    label="Smooth",
    about="Rounds off corners and calms what trembles: hand-moved paths, rough keys.",
    settings=by_name(SettingSpec("frames", "frames", "frames", 4.0, 0.0, 1000.0, about="How many frames to each side count.")),
    modes=(),
    apply=apply,
)
