"""Keys of the channel `outline`: from outlines at keys to an outline at every frame.

Between two keys every point goes straight, as far as the ease says (matching.py tells which point goes where). At a key the outline is the key's
own. Ends repeat as those of numbers do; what climbs needs keys with the same commands throughout, and else loops.
"""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.curves.matching import matched
from vine_swing.motion.curves.outline import Outline
from vine_swing.motion.curves.series import Block, OutlineSeries
from vine_swing.motion.curves.svg_path import parse_path
from vine_swing.motion.timing.channel import Channel, Key
from vine_swing.motion.timing.ends import End
from vine_swing.motion.timing.evaluate import KeyedChannels

Array = NDArray[np.float64]
#: Weights nearer than this to 0 are 0.
_NOTHING = 1e-12


class KeyedOutlines:
    """The outlines of a channel with keys, put together once, to be read often."""

    def __init__(self, channel: Channel) -> None:
        self._keys = channel.keys
        self._outlines = [outline_of(key) for key in channel.keys]
        verbs = {outline.verbs for outline in self._outlines}
        self._alike = len(verbs) == 1 and all(key.meets is None for key in channel.keys)
        if not self._alike:
            channel = channel.copy_with(before=_looping(channel.before), after=_looping(channel.after))
        # Every key represents a number of its own, so that the value at a frame says how much of each key's outline there is in it.
        self._weights = KeyedChannels([channel], np.eye(len(channel.keys)))

    def at(self, t: Array) -> OutlineSeries:
        """The outlines at frames t (n,)."""
        distinct, which = np.unique(t, return_inverse=True)
        weights: Array = self._weights.vectors_at(distinct)[0]
        made = self._all_alike(weights) if self._alike else self._by_pairs(weights)
        return made.read(which.reshape(-1)).compact()

    def _all_alike(self, weights: Array) -> OutlineSeries:
        points = np.stack([outline.points for outline in self._outlines])
        mixed = (weights @ points.reshape(len(points), -1)).reshape(len(weights), *points.shape[1:])
        # At a key, and where it is held, the outline is exactly the key's own, without rounding.
        row, key = np.nonzero(weights == 1)
        mixed[row] = points[key]
        return OutlineSeries((Block(self._outlines[0].verbs, mixed),), np.arange(len(weights)))

    def _by_pairs(self, weights: Array) -> OutlineSeries:
        stretch, share = _stretches(weights)
        blocks: list[Block] = []
        which = np.empty(len(weights), np.intp)
        first = 0
        for number in np.unique(stretch).tolist():
            rows = np.flatnonzero(stretch == number)
            p = share[rows]
            at_key = (p == 0) | (p == 1)
            for key, some in ((number, rows[p == 0]), (number + 1, rows[p == 1])):
                if len(some):
                    blocks.append(Block(self._outlines[key].verbs, self._outlines[key].points[None]))
                    which[some] = first
                    first += 1
            if not at_key.all():
                match = matched(self._outlines[number], self._outlines[number + 1], self._keys[number].meets)
                blocks.append(Block(match.verbs, match.between(p[~at_key])))
                which[rows[~at_key]] = first + np.arange(int((~at_key).sum()))
                first += int((~at_key).sum())
        return OutlineSeries(tuple(blocks), which)


def outline_of(key: Key) -> Outline:
    """The outline of a key that holds one."""
    assert isinstance(key.value, str), f"the key at frame {key.frame:g} holds {key.value!r}, not an outline"
    return parse_path(key.value)


def _looping(end: End) -> End:
    return end.copy_with(mode="loop") if end.mode == "climb" else end


def _stretches(weights: Array) -> tuple[NDArray[np.intp], Array]:
    """For each row of weights (n, k) the stretch it is in, by its first key, and how far along: between two neighbours as their weights say, and
    where splines mix more than two keys, by the place of the mean."""
    n, k = weights.shape
    there = np.abs(weights) > _NOTHING
    first, last = np.argmax(there, axis=1), k - 1 - np.argmax(there[:, ::-1], axis=1)
    stretch = np.minimum(first, max(k - 2, 0))
    share = np.where(first == last, first - stretch, weights[np.arange(n), np.minimum(stretch + 1, k - 1)]).astype(float)
    spread = last - first > 1
    if spread.any():
        place = np.clip(weights[spread] @ np.arange(k), 0, k - 1)
        stretch[spread] = np.minimum(np.floor(place), k - 2)
        share[spread] = place - stretch[spread]
    return stretch, share


def pairs_between(keys: Sequence[Key], number: int) -> list[tuple[float, float, float, float]]:
    """Where the joints of one key's outline go to in the next one's: x, y, and x, y there."""
    match = matched(outline_of(keys[number]), outline_of(keys[number + 1]), keys[number].meets)
    here, there = (Outline(match.verbs, points).segments() for points in (match.first, match.second))
    found = []
    for (_, leaving), (_, arriving) in zip(here, there, strict=True):
        if len(leaving):
            (x, y), (u, v) = leaving[-1].tolist(), arriving[-1].tolist()
            found.append((x, y, u, v))
    return found
