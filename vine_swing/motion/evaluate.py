"""From keys to values: `value(t) = ends(keys)(t)`, design section 4.

Many channels are evaluated together. Their keys are laid end to end in flat arrays; what happens past the keys is worked out
once for all channels with the same ends, the stretch each sample lies in once for all with as many keys, and p once
for all samples with the same ease. No sample's bits depend on what is evaluated beside it.
"""

from collections import defaultdict
from collections.abc import Hashable, Iterable, Sequence
from dataclasses import dataclass
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion import colour, ease
from vine_swing.motion.channel import Channel
from vine_swing.motion.cubic import SHAPED_BY_KEYS, Cubics, lay
from vine_swing.motion.ease import Ease
from vine_swing.motion.ends import Folded, fold

Array = NDArray[np.float64]
Index = NDArray[np.intp]
_Kind = TypeVar("_Kind", bound=Hashable)

#: Samples worked on at once: few enough that intermediate arrays stay in the processor's cache.
_AT_ONCE = 50_000
#: Up to this many keys, comparing with each is quicker than a binary search channel by channel.
_FEW_KEYS = 24


def evaluate(channels: Sequence[Channel], t: Array) -> Array:
    """The keyed values of number channels.

    Args:
        channels: c channels, each with at least one key.
        t: frames, shape (n,) for all alike or (c, n).

    Returns:
        float64, shape (c, n).
    """
    return Laid(channels).at(t)


class Laid:
    """Number channels whose keys are laid end to end once, to be evaluated often."""

    def __init__(self, channels: Sequence[Channel]) -> None:
        """`channels`: each with at least one key."""
        values = np.array([key.value for channel in channels for key in channel.keys], dtype=float)
        self._channels, self._keys = channels, _lay(channels, values[:, None])

    def at(self, t: Array) -> Array:
        """The values (c, n) at frames t, shape (n,) or (1, n) for all alike, or (c, n)."""
        return _evaluate(self._channels, self._keys, t)[..., 0]


def evaluate_colours(channels: Sequence[Channel], t: Array) -> Array:
    """As `evaluate`, for colour channels, blended in OKLab; the result is sRGB with alpha 0…1, shape (c, n, 4)."""
    rgba = np.array([colour.parse_hex(str(key.value)) for channel in channels for key in channel.keys])
    return colour.from_oklab(_evaluate(channels, _lay(channels, colour.to_oklab(rgba)), t))


@dataclass(frozen=True)
class _Keys:
    """The keys of several channels, end to end. `begin` (c + 1,) says where each channel's keys start."""

    begin: Index
    frames: Array
    values: Array
    codes: Index
    eases: list[Ease]
    cubics: Cubics | None

    @property
    def first(self) -> Index:
        return self.begin[:-1]

    @property
    def last(self) -> Index:
        return self.begin[1:] - 1


def _evaluate(channels: Sequence[Channel], keys: _Keys, t: Array) -> Array:
    count, samples = len(channels), t.shape[-1]
    t = np.broadcast_to(t, (count, samples))
    result = np.empty((count, samples, keys.values.shape[1]))
    step = max(1, _AT_ONCE // max(1, samples))
    for start in range(0, count, step):
        rows = np.arange(start, min(start + step, count))
        result[rows] = _some(channels, keys, rows, t[rows])
    return result


def _some(channels: Sequence[Channel], keys: _Keys, rows: Index, t: Array) -> Array:
    """The values of some rows of the channels, shape (rows, n, width)."""
    folded = _fold(channels, keys, rows, t)
    here = _stretch(keys, rows, folded.local)
    there = np.minimum(here + 1, keys.last[rows][:, None])
    width = keys.frames[there] - keys.frames[here]
    u = np.divide(folded.local - keys.frames[here], width, out=np.zeros_like(t), where=width > 0)
    p = _ease(u, keys.codes[here], keys.eases)[..., None]
    start, end = keys.values[here], keys.values[there]
    values = start + (end - start) * p
    # Where the change is done, the value is the key's own and not what rounding makes of it.
    np.copyto(values, end, where=p == 1)
    if keys.cubics is not None:
        bent = keys.cubics.is_cubic[here]
        if bent.any():
            values[bent] = keys.cubics.values(here[bent], u[bent], start[bent], end[bent])
    if folded.turns.any():
        gain = keys.values[keys.last[rows]] - keys.values[keys.first[rows]]
        values += folded.turns[..., None] * gain[:, None, :]
    for row in np.flatnonzero(folded.beyond.any(axis=1)):
        before, after = _end_slopes(channels[rows[row]], keys, int(rows[row]))
        beyond = folded.beyond[row][:, None]
        values[row] += beyond * np.where(beyond < 0, before, after)
    return values


def _lay(channels: Sequence[Channel], values: Array) -> _Keys:
    begin = np.append(0, np.cumsum([len(channel.keys) for channel in channels]))
    keys = [key for channel in channels for key in channel.keys]
    frames = np.array([key.frame for key in keys], dtype=float)
    # Most keys share a few ease objects: those are told apart by identity before they are compared by value.
    places = [id(key.ease) for key in keys]
    distinct = {place: key.ease for place, key in zip(places, keys, strict=True)}
    shaped = {place for place, one in distinct.items() if isinstance(one, str) and one in SHAPED_BY_KEYS}
    eases: dict[Ease, int] = {}
    # What its keys shape is put in later; until then it counts as linear.
    code = {place: eases.setdefault("linear" if place in shaped else one, len(eases)) for place, one in distinct.items()}
    codes = np.array([code[place] for place in places], dtype=np.intp)
    return _Keys(begin, frames, values, codes, list(eases), lay(channels, begin, frames, values) if shaped else None)


def _fold(channels: Sequence[Channel], keys: _Keys, rows: Index, t: Array) -> Folded:
    local, turns, beyond = np.empty_like(t), np.zeros_like(t), np.zeros_like(t)
    # Plain tuples are compared far faster than the models they stand for.
    for group in _grouped((b.mode, b.times, a.mode, a.times) for b, a in ((channels[row].before, channels[row].after) for row in rows)).values():
        before, after = channels[rows[group[0]]].before, channels[rows[group[0]]].after
        first, last = keys.frames[keys.first[rows[group]]][:, None], keys.frames[keys.last[rows[group]]][:, None]
        folded = fold(t[group], first, last, before, after)
        local[group], turns[group], beyond[group] = folded.local, folded.turns, folded.beyond
    return Folded(local, turns, beyond)


def _stretch(keys: _Keys, rows: Index, local: Array) -> Index:
    """Which key each sample's stretch leaves from. A key owns the stretch that leaves it, and the last key ends the last one."""
    here = np.empty(local.shape, dtype=np.intp)
    counts = (keys.begin[rows + 1] - keys.begin[rows]).tolist()
    for count, group in _grouped(counts).items():
        first = keys.first[rows[group]][:, None]
        at = np.zeros((len(group), local.shape[1]), dtype=np.intp)
        if count <= _FEW_KEYS:
            for inner in range(1, count - 1):
                at += local[group] >= keys.frames[first + inner]
        else:
            for row, (index, start) in enumerate(zip(group, first[:, 0], strict=True)):
                inside = keys.frames[start + 1 : start + count - 1]
                at[row] = np.searchsorted(inside, local[index], side="right")
        here[group] = first + at
    return here


def _end_slopes(channel: Channel, keys: _Keys, row: int) -> tuple[Array, Array]:
    """The slopes, in value per frame, at which a channel of two keys or more begins and ends."""
    first, last = keys.first[row], keys.last[row]
    return _slopes(channel, keys, first, 0)[0], _slopes(channel, keys, last - 1, -2)[1]


def _slopes(channel: Channel, keys: _Keys, at: np.intp, place: int) -> tuple[Array, Array]:
    """The slopes at both ends of the stretch that leaves the key laid at `at`, the channel's own at `place`."""
    frames, rise = keys.frames[at + 1] - keys.frames[at], keys.values[at + 1] - keys.values[at]
    if keys.cubics is not None and keys.cubics.is_cubic[at]:
        return keys.cubics.slopes(int(at), rise, float(frames))
    begin, end = ease.build(channel.keys[place].ease).slopes()
    return begin * rise / frames, end * rise / frames


def _ease(u: Array, codes: Index, eases: list[Ease]) -> Array:
    """p for every sample; samples with the same ease are evaluated together."""
    if len(eases) == 1:
        return ease.build(eases[0]).at(u)
    flat = u.ravel()
    small = codes.ravel().astype(np.uint16 if len(eases) < 65_536 else np.int64)
    order = np.argsort(small, kind="stable")
    edges = np.searchsorted(small[order], np.arange(len(eases) + 1))
    p = np.empty_like(flat)
    for n, one in enumerate(eases):
        samples = order[edges[n] : edges[n + 1]]
        p[samples] = ease.build(one).at(flat[samples])
    return p.reshape(u.shape)


def _grouped(kinds: Iterable[_Kind]) -> dict[_Kind, Index]:
    """Where each kind stands in a sequence."""
    places: dict[_Kind, list[int]] = defaultdict(list)
    for place, kind in enumerate(kinds):
        places[kind].append(place)
    return {kind: np.array(found) for kind, found in places.items()}
