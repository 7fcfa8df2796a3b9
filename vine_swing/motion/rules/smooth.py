"""Smooth: a Gaussian mean over some frames to both sides.

The bell has a standard deviation of half of `frames` and ends there, two deviations out. It is summed at places that lie evenly about the
frame, 8 to a frame (fewer where the bell is very wide), so that for values that do not jump the result does not depend on how the scene
is sampled. Frames that lie alike share these places: the source is read once at each, so that a row of cards that smooth costs
no more than the sum of them.
"""

from collections.abc import Callable
from functools import partial

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.rules.spec import CACHED_SAMPLES, Array, Mode, RuleSpec, Settings, SettingSpec, Source, by_name, number_of, stateless

Index = NDArray[np.intp]
_PER_FRAME = 8
#: Up to this many frames there are 8 places to a frame; beyond it half as many for every doubling.
_FINE = 16
#: Frames that lie farther apart than this many times the places they read are read each on its own.
_SPARSE = 4
#: Shares of a step are rounded to whole numbers of so many parts of it, 1e-10 of a frame.
_SHARES = 2.0**30
#: Narrower bells than this, in frames, hold a single place.
_LEAST = 1e-3


def apply(source: Source, settings: Settings, mode: Mode, t: Array) -> Array:
    """The mean of the values over ± `frames`, those near counting more."""
    frames = number_of(settings, "frames", t)
    if frames.max(initial=0) <= 0:
        return source.at(t)
    if frames.shape[1] == 1 and len(t) == 1 and (frames == frames[0, 0]).all():
        return _steady(source, float(frames[0, 0]), t)
    # Every frame has the places that its own width asks for, whatever other frames are read with it.
    step = _step(frames)
    reach = int(np.ceil((frames / step).max()))
    offsets = np.arange(-reach, reach + 1) * step[..., None]
    weights = _weights(offsets, frames[..., None], step[..., None])
    places = (t[..., None] + offsets).reshape(max(len(t), len(offsets)), -1)
    shaped = _read(source, places).reshape(-1, t.shape[1], 2 * reach + 1)
    # Laid out alike in memory whatever it was read from: how a sum is rounded goes by that.
    smoothed: Array = np.ascontiguousarray(shaped * weights).sum(axis=-1)
    return smoothed


def _steady(source: Source, width: float, t: Array) -> Array:
    """The mean at frames t (1, n) where its width never changes: frames that lie whole steps apart share the places they read."""
    step = float(_step(np.array(width)))
    reach = int(np.ceil(width / step))
    offsets = np.arange(-reach, reach + 1, dtype=float) * step
    weights = _weights(offsets, np.float64(width), np.float64(step)).tolist()
    # By the share of a step that each frame lies past a whole number of steps: frames of one share read places of one grid. Shares that differ
    # only by how a frame far from 0 is rounded are one.
    steps = t[0] / step
    whole = np.floor(steps)
    shares, which = np.unique(np.round((steps - whole) * _SHARES) / _SHARES, return_inverse=True)
    found: Array | None = None
    for number in range(len(shares)):
        here = np.flatnonzero(which == number)
        at = whole[here]
        first, count = at.min(), int(at.max() - at.min()) + 1
        if count > _SPARSE * len(here) * (2 * reach + 1):
            # Too far apart to read all between them.
            own, back = np.unique((at[:, None] + np.arange(-reach, reach + 1)).ravel(), return_inverse=True)
            values = source.at(((own + shares[number]) * step)[None, :])[:, back].reshape(-1, len(here), 2 * reach + 1)
            mean = _sum(weights, partial(_column, values))
        else:
            values = source.at(((first + np.arange(-reach, count + reach) + shares[number]) * step)[None, :])
            index = (at - first).astype(np.intp)
            stride = int(index[1] - index[0]) if len(index) > 1 else 1
            even = stride > 0 and bool((np.diff(index) == stride).all())
            mean = _weighted(values, weights, int(index[0]), len(index), stride) if even else _sum(weights, partial(_shifted, values, index))
        if found is None:
            found = np.empty((len(values), t.shape[1]))
        found[:, here] = mean
    assert found is not None, "t has at least one frame"
    return found


def _column(values: Array, n: int) -> Array:
    return values[..., n]


def _shifted(values: Array, index: Index, n: int) -> Array:
    return values[:, index + n]


def _sum(weights: list[float], part: Callable[[int], Array]) -> Array:
    """Σ weights[n]·part(n), in this order."""
    total = weights[0] * part(0)
    term = np.empty_like(total)
    for n in range(1, len(weights)):
        total += np.multiply(weights[n], part(n), out=term)
    return total


def _weighted(values: Array, weights: list[float], first: int, count: int, stride: int) -> Array:
    """Σ weights[n]·values[:, first + n + stride·i] for i below `count`, (r, count)."""
    found = np.empty((len(values), count))
    # So many rows at once that what is summed stays in the processor's cache.
    rows = max(1, CACHED_SAMPLES // count)
    for begin in range(0, len(values), rows):
        some = values[begin : begin + rows, first:]
        # Places that lie whole strides apart side by side, as they are summed.
        side_by_side = [np.ascontiguousarray(some[:, n::stride]) for n in range(min(stride, len(weights)))]
        found[begin : begin + rows] = _sum(weights, lambda n: side_by_side[n % stride][:, n // stride : n // stride + count])  # noqa: B023
    return found


def _step(width: Array) -> Array:
    """How far apart the places lie that are read, in frames."""
    return np.asarray(2.0 ** np.maximum(0, np.ceil(np.log2(np.maximum(width, 1) / _FINE))) / _PER_FRAME)


def _weights(offsets: Array, width: Array | np.float64, step: Array | np.float64) -> Array:
    """How much each place counts; the outermost ones as far as the bell reaches, so that a keyed width changes nothing by jumps."""
    half = np.maximum(width, _LEAST)
    weights = np.exp(-2 * (offsets / half) ** 2) * np.clip((half - np.abs(offsets)) / step + 0.5, 0, 1)
    return np.asarray(weights / weights.sum(axis=-1, keepdims=True))


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
    prepare=stateless(apply),
    on_outlines="points",
    reads=64.0,
    summary="± {frames}",
    example={"frames": 10.0},
)
