"""A channel: one value over time, as keys with eases and two ends, and how it is evaluated.

`value(t) = ends(keys)(t)`, design section 4. Many channels are evaluated together: samples that share an ease are worked
out in one pass, whichever channel they belong to.
"""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray
from pydantic import Field, field_validator, model_validator

from vine_swing.motion import colour, ease
from vine_swing.motion.ease import Ease
from vine_swing.motion.ends import HOLD, End, fold
from vine_swing.motion.values import Frame, Frozen, Value

Array = NDArray[np.float64]
MAX_KEYS = 20_000


class Key(Frozen):
    """A value at a frame, and the ease of the stretch that leaves it."""

    frame: Frame
    value: Value
    ease: Ease = "linear"


class Channel(Frozen):
    """One value over time. Without keys it is `base` (or, where that is left out, the channel's default)."""

    base: Value | None = None
    keys: tuple[Key, ...] = Field(default=(), max_length=MAX_KEYS)
    before: End = HOLD
    after: End = HOLD

    @model_validator(mode="before")
    @classmethod
    def _plain_value(cls, data: Any) -> Any:
        """A plain number or colour stands for a channel that never changes."""
        return {"base": data} if isinstance(data, int | float | str) and not isinstance(data, bool) else data

    @field_validator("keys")
    @classmethod
    def _in_order(cls, keys: tuple[Key, ...]) -> tuple[Key, ...]:
        ordered = tuple(sorted(keys, key=lambda key: key.frame))
        for before, after in itertools.pairwise(ordered):
            if before.frame == after.frame:
                raise ValueError(f"two keys share frame {after.frame:g}; keep one of them")
        return ordered

    def key_at(self, frame: float) -> Key | None:
        """The key exactly at a frame, if there is one."""
        return next((key for key in self.keys if key.frame == frame), None)


@dataclass(frozen=True)
class _Laid:
    """The keys of one channel as arrays: frames (k,), values (k, d), a code of its ease for each stretch (k,)."""

    frames: Array
    values: Array
    codes: NDArray[np.intp]
    slopes: tuple[Array, Array]


def evaluate(channels: Sequence[Channel], t: Array) -> Array:
    """The keyed values of number channels.

    Args:
        channels: c channels, each with at least one key.
        t: frames, shape (n,) for all alike or (c, n).

    Returns:
        float64, shape (c, n).
    """
    return _evaluate(channels, t, [np.array([[float(key.value)] for key in ch.keys]) for ch in channels])[..., 0]


def evaluate_colours(channels: Sequence[Channel], t: Array) -> Array:
    """As `evaluate`, for colour channels, blended in OKLab; the result is sRGB with alpha 0…1, shape (c, n, 4)."""
    lab = [colour.to_oklab(np.array([colour.parse_hex(str(key.value)) for key in ch.keys])) for ch in channels]
    return colour.from_oklab(_evaluate(channels, t, lab))


def _evaluate(channels: Sequence[Channel], t: Array, values: list[Array]) -> Array:
    shape = (len(channels), t.shape[-1])
    width = values[0].shape[1] if values else 1
    t = np.broadcast_to(t, shape)
    eases: dict[Ease, int] = {}
    u = np.empty(shape)
    codes = np.zeros(shape, dtype=np.intp)
    start, end = np.empty((*shape, width)), np.empty((*shape, width))
    extra = np.zeros((*shape, width))
    for c, channel in enumerate(channels):
        laid = _lay(channel, values[c], eases)
        folded = fold(t[c], laid.frames[0], laid.frames[-1], channel.before, channel.after)
        last = max(len(laid.frames) - 2, 0)
        # A key owns the stretch that leaves it; the last key is the end of the last stretch.
        i = np.clip(np.searchsorted(laid.frames, folded.local, side="right") - 1, 0, last)
        j = np.minimum(i + 1, len(laid.frames) - 1)
        width_in_frames = laid.frames[j] - laid.frames[i]
        u[c] = np.divide(folded.local - laid.frames[i], width_in_frames, out=np.zeros(shape[1]), where=width_in_frames > 0)
        codes[c] = laid.codes[i]
        start[c], end[c] = laid.values[i], laid.values[j]
        if folded.turns.any():
            extra[c] = folded.turns[:, None] * (laid.values[-1] - laid.values[0])
        if folded.beyond.any():
            slope = np.where(folded.beyond[:, None] < 0, laid.slopes[0], laid.slopes[1])
            extra[c] += folded.beyond[:, None] * slope
    p = _ease(u, codes, list(eases))[..., None]
    return np.where(p == 1, end, start + (end - start) * p) + extra


def _lay(channel: Channel, values: Array, eases: dict[Ease, int]) -> _Laid:
    frames = np.array([key.frame for key in channel.keys])
    codes = np.array([eases.setdefault(key.ease, len(eases)) for key in channel.keys], dtype=np.intp)
    if len(frames) < 2:
        still = np.zeros(values.shape[1])
        return _Laid(frames, values, codes, (still, still))
    first = ease.build(channel.keys[0].ease).slopes()[0] * (values[1] - values[0]) / (frames[1] - frames[0])
    last = ease.build(channel.keys[-2].ease).slopes()[1] * (values[-1] - values[-2]) / (frames[-1] - frames[-2])
    return _Laid(frames, values, codes, (first, last))


def _ease(u: Array, codes: NDArray[np.intp], eases: list[Ease]) -> Array:
    """p for every sample; samples with the same ease are evaluated together."""
    if len(eases) == 1:
        return ease.build(eases[0]).at(u)
    flat, code = u.ravel(), codes.ravel()
    order = np.argsort(code, kind="stable")
    edges = np.searchsorted(code[order], np.arange(len(eases) + 1))
    p = np.empty_like(flat)
    for n, one in enumerate(eases):
        samples = order[edges[n] : edges[n + 1]]
        p[samples] = ease.build(one).at(flat[samples])
    return p.reshape(u.shape)
