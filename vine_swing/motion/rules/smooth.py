"""Smooth: a Gaussian mean over some frames to both sides.

The bell has a standard deviation of half of `frames` and ends there, two deviations out. It is summed at places that lie evenly about the
frame, 8 to a frame (fewer where the bell is very wide), so that for values that do not jump the result does not depend on how the scene
is sampled. Frames that lie alike share these places: the source is read once at each, so that a row of cards that smooth costs
no more than the sum of them.
"""

import numpy as np

from vine_swing.motion.rules.spec import Array, Mode, RuleSpec, Settings, SettingSpec, Source, at_once, by_name, number_or

_PER_FRAME = 8
#: Up to this many frames there are 8 places to a frame; beyond it half as many for every doubling.
_FINE = 16
#: Narrower bells than this, in frames, hold a single place.
_LEAST = 1e-3


def apply(source: Source, settings: Settings, mode: Mode, t: Array) -> Array:
    """The mean of the values over ± `frames`, those near counting more."""
    frames = number_or(settings, "frames", t)
    if frames.max(initial=0) <= 0:
        return source.at(t)
    # Every frame has the places that its own width asks for, whatever other frames are read with it.
    step = 2.0 ** np.maximum(0, np.ceil(np.log2(np.maximum(frames, 1) / _FINE))) / _PER_FRAME
    reach = int(np.ceil((frames / step).max()))
    offsets = np.arange(-reach, reach + 1) * step[..., None]
    half = np.maximum(frames, _LEAST)[..., None]
    # The outermost places count as far as the bell reaches: a keyed width changes nothing by jumps.
    weights = np.exp(-2 * (offsets / half) ** 2) * np.clip((half - np.abs(offsets)) / step[..., None] + 0.5, 0, 1)
    weights /= weights.sum(axis=-1, keepdims=True)
    places = (t[..., None] + offsets).reshape(max(len(t), len(offsets)), -1)
    shaped = _read(source, places).reshape(-1, t.shape[1], 2 * reach + 1)
    # Laid out alike in memory whatever it was read from: how a sum is rounded goes by that.
    smoothed: Array = np.ascontiguousarray(shaped * weights).sum(axis=-1)
    return smoothed


def _read(source: Source, places: Array) -> Array:
    """The values at some places, each read once."""
    if len(places) > 1:
        return source.at(places)
    own, where = np.unique(places[0], return_inverse=True)
    return source.at(own[None, :])[:, where.reshape(-1)]


SPEC = RuleSpec(
    kind="smooth",
    label="Smooth",
    about="Rounds off corners and calms what trembles: hand-moved paths, rough keys.",
    settings=by_name(
        SettingSpec(
            "frames", "frames", "frames", 4.0, 0.0, 1000.0, usual=(0.0, 24.0), step=1.0, about="How many frames to each side count.", shared=True
        )
    ),
    modes=(),
    prepare=at_once(apply),
    summary="± {frames}",
    telling={"frames": 10.0},
)
