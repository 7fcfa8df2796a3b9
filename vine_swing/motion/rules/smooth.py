"""Smooth: a Gaussian mean over some frames to both sides.

The bell has a standard deviation of half of `frames` and ends there, two deviations out. It is summed at places that lie evenly, 8 to a frame
(fewer where the bell is very wide), the same for all frames and for what is read between them, so that a row of cards that smooth reads each place
once and costs no more than the sum of them. Straight lines stay as they are; a sine of 1 Hz at 24 frames a second is off by at most 2e-5 of its
amplitude against the integral, one of 3 Hz by 3e-4.
"""

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics.rows import in_cache
from vine_swing.motion.rules.spec import Array, Mode, RuleSpec, Settings, SettingSpec, Source, by_name, number_of, stateless

Index = NDArray[np.intp]
_PER_FRAME = 8
#: Up to this many frames there are 8 places to a frame; beyond it half as many for every doubling.
_FINE = 16
#: Frames that lie farther apart than this many times the places they read are read each on its own.
_SPARSE = 4
#: How far frames lie past a place is rounded to whole numbers of this many parts of a step, 1e-10 of a frame.
_SHARES = 2.0**30
#: At up to this many different shares of a step, the frames of one share are summed together.
_FEW_SHARES = 16
#: Narrower bells than this, in frames, are read at places about each frame itself: between common ones there are too few.
_NARROW = 1.0
#: Narrower bells than this, in frames, hold a single place.
_LEAST = 1e-3


def apply(source: Source, settings: Settings, mode: Mode, t: Array) -> Array:
    """The mean of the values over ± `frames`, those near counting more."""
    width = number_of(settings, "frames", t)
    if width.max(initial=0) <= 0:
        return source.at(t)
    if width.shape[1] == 1 and len(t) == 1 and width[0, 0] >= _NARROW and (width == width[0, 0]).all():
        return _steady(source, float(width[0, 0]), t[0])
    # Every frame has the places that its own width asks for, whatever other frames are read with it.
    step = _step(width)
    share = np.where(width >= _NARROW, t / step - np.floor(t / step), 0.0)
    away = (_offsets(width, step) - share[..., None]) * step[..., None]
    weights = _weights(away, width[..., None], step[..., None])
    smoothed: Array = np.vecdot(_read(source, t[..., None] + away), weights)
    return smoothed


def _steady(source: Source, width: float, t: Array) -> Array:
    """The mean at frames t (n,) where its width never changes: each place is read once."""
    bell = np.array(width)
    step = _step(bell)
    offsets = _offsets(bell, step)
    places = np.floor(t / step)
    # Shares that differ only by how a frame far from 0 is rounded are one.
    shares, which = np.unique(np.round((t / step - places) * _SHARES) / _SHARES, return_inverse=True)
    weights = _weights((offsets - shares[:, None]) * step, bell, step)
    first, count = places.min() + offsets[0], int(places.max() - places.min()) + len(offsets)
    if count > _SPARSE * len(t) * len(offsets):
        # Too far apart to read all between them.
        far: Array = np.vecdot(_read(source, (places[None, :, None] + offsets) * step), weights[which])
        return far
    values = np.ascontiguousarray(source.at(((first + np.arange(count)) * step)[None, :]))
    begin = (places - places.min()).astype(np.intp)
    if len(shares) > _FEW_SHARES:
        return _means(values, weights[which], begin[:, None] + np.arange(len(offsets)))
    found = np.empty((len(values), len(t)))
    for number, own_weights in enumerate(weights):
        here = which == number
        found[:, here] = _means_from(values, own_weights, begin[here])
    return found


def _means_from(values: Array, weights: Array, begin: Index) -> Array:
    """Σ weights[k]·values[:, begin + k], k = 0…K−1, for each of `begin` (n,): (r, n)."""
    apart = np.diff(begin, append=begin[-1] + 1)
    stride = int(apart[0])
    if stride < 1 or (apart[:-1] != stride).any():
        return _means(values, weights, begin[:, None] + np.arange(len(weights)))
    windows = np.lib.stride_tricks.sliding_window_view(values, len(weights), axis=1)
    means: Array = np.vecdot(windows[:, begin[0] : begin[-1] + 1 : stride], weights)
    return means


def _means(values: Array, weights: Array, where: Index) -> Array:
    """Σ weights[…, k]·values[:, where[:, k]], weights (K,) or (n, K), `where` (n, K): (r, n)."""
    weights = np.broadcast_to(weights, where.shape)
    means = np.empty((len(values), len(where)))
    for some in in_cache(len(where), where.shape[1]):
        for rows in in_cache(len(values), where.size):
            np.vecdot(values[rows].take(where[some], axis=1), weights[some], out=means[rows, some])
    return means


def _offsets(width: Array, step: Array) -> Array:
    """How many steps the places of a frame lie from the last one before it, those of the widest bell, (K,)."""
    reach = int(np.ceil((width / step).max()))
    return np.arange(-reach, reach + 2, dtype=float)


def _step(width: Array) -> Array:
    """How far apart the places lie that are read, in frames."""
    return np.asarray(2.0 ** np.maximum(0, np.ceil(np.log2(np.maximum(width, 1) / _FINE))) / _PER_FRAME)


def _weights(away: Array, width: Array, step: Array) -> Array:
    """Return the weights of samples at distances in frames, (…, K); the outermost as far as the bell reaches, so that a keyed width changes
    nothing by
    jumps, and those before and after so that their middle is the frame itself: a straight line stays one."""
    half = np.maximum(width, _LEAST)
    weights = np.exp(-2 * (away / half) ** 2) * np.clip((half - np.abs(away)) / step + 0.5, 0, 1)
    aside, spread = (weights * away).sum(axis=-1, keepdims=True), (weights * away**2).sum(axis=-1, keepdims=True)
    weights *= 1 - aside / np.where(spread > 0, spread, 1) * away
    return np.asarray(weights / weights.sum(axis=-1, keepdims=True))


def _read(source: Source, places: Array) -> Array:
    """The values (r, n, K) at some places (1 or r, n, K); each is read once where all rows have the same."""
    if len(places) > 1:
        values = source.at(places.reshape(len(places), -1))
    else:
        own, where = np.unique(places, return_inverse=True)
        values = source.at(own[None, :])[:, where.reshape(-1)]
    # Laid out alike in memory whatever it was read from: how a sum is rounded follows that.
    return np.ascontiguousarray(values).reshape(len(values), *places.shape[1:])


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
    prepare=stateless(apply),
    on_outlines="points",
    reads=64.0,
    summary="± {frames}",
    example={"frames": 10.0},
)
