"""From keys to values: `value(t) = ends(keys)(t)`, design section 4.

Many channels are evaluated together. Their keys stand end to end in flat arrays. A key owns the piece of time from its frame to the next key's;
most pieces are alike (the same ease between the same two frames), so p is computed once for each kind of piece and looked up by all
that are of it. Past the keys, channels with the same two frames and the same ends are folded together. No sample's bits depend on what
is evaluated beside it.
"""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics import colour
from vine_swing.motion.timing import ease
from vine_swing.motion.timing.channel import Channel
from vine_swing.motion.timing.cubic import Cubics, cubics_of
from vine_swing.motion.timing.ease import EaseCurve
from vine_swing.motion.timing.ends import Folded, fold

Array = NDArray[np.float64]
Index = NDArray[np.intp]

#: Samples worked on at once: few enough that intermediate arrays stay in the processor's cache.
_AT_ONCE = 32_768
#: Up to this many keys, comparing with each is quicker than a binary search row by row.
_FEW_KEYS = 24


def evaluate(channels: Sequence[Channel], t: Array) -> Array:
    """The keyed values of number channels, (c, n), at frames t: (n,) for all alike or (c, n)."""
    return KeyedChannels(channels).at(t)


def evaluate_colours(channels: Sequence[Channel], t: Array) -> Array:
    """As `evaluate`, for colour channels, blended in OKLab; the result is sRGB with alpha 0…1, shape (c, n, 4)."""
    rgba = np.array([colour.parse_hex(str(key.value)) for channel in channels for key in channel.keys])
    return colour.from_oklab(KeyedChannels(channels, colour.to_oklab(rgba)).vectors_at(t))


class KeyedChannels:
    """Channels whose keys are put end to end once, to be evaluated often."""

    def __init__(self, channels: Sequence[Channel], values: Array | None = None) -> None:
        """`channels`: c channels, each with at least one key; `values` (k, w): the keys' values, where they are not plain numbers."""
        columns = [channel.columns for channel in channels]
        self._channels = channels
        self._begin = np.zeros(len(columns) + 1, np.intp)
        np.cumsum([one.frames.size for one in columns], out=self._begin[1:])
        self._first, self._last = self._begin[:-1], self._begin[1:] - 1
        self._frames = np.concatenate([one.frames for one in columns])
        self._values = np.concatenate([one.values for one in columns])[:, None] if values is None else values
        self._codes = np.concatenate([one.codes for one in columns])
        self._curves: dict[int, EaseCurve] = {}
        for one in columns:
            self._curves.update(one.curves)
        bends = [one.bends for one in columns]
        shaped = any(one is not None for one in bends)
        self._cubics: Cubics | None = cubics_of(bends, self._begin, self._frames, self._values) if shaped else None
        self._ends = [one.ends for one in columns]

    def at(self, t: Array) -> Array:
        """The values (c, n) of number channels at frames t, shape (n,) or (1, n) for all alike, or (c, n)."""
        found: Array = self.vectors_at(t)[..., 0]
        return found

    def vectors_at(self, t: Array) -> Array:
        """As `at`, for values of any width w: (c, n, w)."""
        if t.ndim == 2 and len(t) > 1:
            return self._each_at_its_own(t)
        return self._all_at(t.reshape(-1))

    def _all_at(self, t: Array) -> Array:
        """All channels at frames (n,) in any order."""
        rows = np.arange(len(self._channels))
        if len(t) > 1 and not (t[1:] > t[:-1]).all():
            rising, back = np.unique(t, return_inverse=True)
            return self._folded(rows, rising)[:, back]
        return self._folded(rows, t)

    # -- every channel at the same rising frames: pieces between keys are looked up by their kind

    def _folded(self, rows: Index, grid: Array) -> Array:
        """Some channels at rising frames (n,): (r, n, w). Those with other ends than holding are read at folded time, all that fold alike at once."""
        classes: dict[tuple[object, ...], list[int]] = {}
        early, late = (grid[0], grid[-1]) if len(grid) else (0.0, 0.0)
        for place, row in enumerate(rows.tolist()):
            ends = self._ends[row]
            if ends is not None and (early < ends[0] or late > ends[1]):
                classes.setdefault(ends, []).append(place)
        if not classes:
            return self._pieces(rows, grid)
        alike, *others = classes.values()
        if not others and len(alike) == len(rows):
            return self._folded_alike(rows, grid)
        result = np.empty((len(rows), len(grid), self._values.shape[1]))
        folding = np.zeros(len(rows), bool)
        for places in classes.values():
            folding[places] = True
            result[places] = self._folded_alike(rows[places], grid)
        plain = np.flatnonzero(~folding)
        if len(plain):
            result[plain] = self._pieces(rows[plain], grid)
        return result

    def _folded_alike(self, rows: Index, grid: Array) -> Array:
        """Some channels that end alike, between the same first and last key, at rising frames (n,): (r, n, w)."""
        channel = self._channels[rows[0]]
        first, last = self._frames[self._first[rows[:1]]][None], self._frames[self._last[rows[:1]]][None]
        folded = fold(grid[None, :], first, last, channel.before, channel.after)
        local, back = np.unique(folded.local[0], return_inverse=True)
        values = self._pieces(rows, local).take(back, axis=1)
        self._add_beyond(values, rows, folded)
        return values

    def _pieces(self, rows: Index, grid: Array) -> Array:
        """Some channels at rising frames (n,), holding past their keys: (r, n, w)."""
        samples, width = len(grid), self._values.shape[1]
        result = np.empty((len(rows), samples, width))
        if not samples:
            return result
        counts = self._begin[rows + 1] - self._begin[rows]
        begin = np.append(0, np.cumsum(counts))
        all_rows = len(rows) == len(self._channels)
        keys = np.arange(len(self._frames)) if all_rows else np.repeat(self._begin[rows] - begin[:-1], counts) + np.arange(begin[-1])
        # Each key's piece, as where it starts in the grid and how many of its frames it has; the first one reaches back to the grid's beginning.
        starts = np.searchsorted(grid, self._frames[keys])
        starts[begin[:-1]] = 0
        lengths = np.empty_like(starts)
        lengths[:-1] = starts[1:]
        lengths[begin[1:] - 1] = samples
        lengths -= starts
        # The last key of a channel stays on its value.
        resting = np.zeros(len(keys), bool)
        resting[begin[1:] - 1] = True
        following = np.where(resting, keys, keys + 1)
        table, offsets = self._kinds_of_pieces(grid, keys, following, starts, lengths, resting)
        low, high = self._values[keys], self._values[following]
        rise, exact = high - low, bool((table == 1).any())
        flat = result.reshape(-1, width)
        # From a piece's sample in the result to its p in the table.
        shift = offsets - (np.repeat(np.arange(len(rows)), counts) * samples + starts)
        at_once = max(1, _AT_ONCE // samples)
        for row in range(0, len(rows), at_once):
            some = slice(begin[row], begin[min(row + at_once, len(rows))])
            here = slice(row * samples, min(row + at_once, len(rows)) * samples)
            size = lengths[some]
            p = table[np.repeat(shift[some], size) + np.arange(here.start, here.stop)]
            for column in range(width):
                out = np.repeat(rise[some, column], size)
                out *= p
                out += np.repeat(low[some, column], size)
                flat[here, column] = out
            if exact and (done := p == 1).any():
                # After the change, the value is exactly the key's own, without rounding.
                flat[here][done] = np.repeat(high[some], size, axis=0)[done]
            if self._cubics is not None:
                bent = np.repeat(self._cubics.is_cubic[keys[some]] & ~resting[some], size)
                if bent.any():
                    key = np.repeat(keys[some], size)[bent]
                    t = np.tile(grid, (here.stop - here.start) // samples)[bent]
                    u = np.clip((t - self._frames[key]) / (self._frames[key + 1] - self._frames[key]), 0, 1)
                    flat[here][bent] = self._cubics.values(key, u, self._values[key], self._values[key + 1])
        return result

    def _kinds_of_pieces(
        self, grid: Array, keys: Index, following: Index, starts: Index, lengths: Index, resting: NDArray[np.bool_]
    ) -> tuple[Array, Index]:
        """p of every kind of piece, end to end, and where in that each of the pieces (k,) finds its own.

        Pieces of one kind have the same ease between the same two frames. Pieces that rest, and those of no length, read zeros.
        """
        zeros = int(lengths.max(initial=0))
        offsets = np.zeros(len(keys), np.intp)
        moving = np.flatnonzero(~resting & (lengths > 0))
        if not len(moving):
            return np.zeros(zeros), offsets
        codes, frames, until = self._codes[keys[moving]], self._frames[keys[moving]], self._frames[following[moving]]
        marks, number = np.unique(np.concatenate([frames, until]), return_inverse=True)
        kind = (codes * len(marks) + number[: len(moving)]) * len(marks) + number[len(moving) :]
        # The first piece of a channel reaches back to the first frame, so it is of another kind.
        kind = kind * 2 + (starts[moving] == 0)
        _, example, which = np.unique(kind, return_index=True, return_inverse=True)
        sample = moving[example]
        size = lengths[sample]
        ends = np.cumsum(size)
        offsets[moving] = (zeros + ends - size)[which]
        t = grid[np.repeat(starts[sample] - (ends - size), size) + np.arange(ends[-1])]
        begin, over = np.repeat(frames[example], size), np.repeat(until[example], size)
        u = np.clip((t - begin) / (over - begin), 0, 1)
        return np.concatenate([np.zeros(zeros), ease.evaluate_many(self._curves, np.repeat(codes[example], size), u)]), offsets

    # -- every channel at frames of its own: sample by sample

    def _each_at_its_own(self, t: Array) -> Array:
        """Every channel at frames of its own, (c, n): (c, n, w)."""
        count, samples = t.shape
        result = np.empty((count, samples, self._values.shape[1]))
        at_once = max(1, _AT_ONCE // max(1, samples))
        for start in range(0, count, at_once):
            rows = np.arange(start, min(start + at_once, count))
            result[rows] = self._some_at_their_own(rows, t[rows])
        return result

    def _some_at_their_own(self, rows: Index, t: Array) -> Array:
        folded = self._folded_time(rows, t)
        here = self._stretches(rows, folded.local)
        there = np.minimum(here + 1, self._last[rows][:, None])
        begin = self._frames[here]
        width = self._frames[there] - begin
        u = np.divide(folded.local - begin, width, out=np.zeros_like(t), where=width > 0)
        p = ease.evaluate_many(self._curves, self._codes[here].ravel(), u.ravel()).reshape(u.shape)[..., None]
        low, high = self._values[here], self._values[there]
        values = low + (high - low) * p
        np.copyto(values, high, where=p == 1)
        if self._cubics is not None and (bent := self._cubics.is_cubic[here] & (width > 0)).any():
            values[bent] = self._cubics.values(here[bent], u[bent], low[bent], high[bent])
        self._add_beyond(values, rows, folded)
        return values

    def _folded_time(self, rows: Index, t: Array) -> Folded:
        """Frames (r, n) of some channels brought within their keys."""
        first, last = self._frames[self._first[rows]][:, None], self._frames[self._last[rows]][:, None]
        local, turns, beyond = np.clip(t, first, last), np.zeros_like(t), np.zeros_like(t)
        classes: dict[tuple[object, ...], list[int]] = {}
        for place, row in enumerate(rows.tolist()):
            if (ends := self._ends[row]) is not None:
                classes.setdefault(ends[2:], []).append(place)
        for places in classes.values():
            channel = self._channels[rows[places[0]]]
            folded = fold(t[places], first[places], last[places], channel.before, channel.after)
            local[places], turns[places], beyond[places] = folded.local, folded.turns, folded.beyond
        return Folded(local, turns, beyond)

    def _stretches(self, rows: Index, local: Array) -> Index:
        """The key that each sample's stretch leaves from, (r, n). A key owns the stretch that leaves it, and the last key ends the last one."""
        counts = self._begin[rows + 1] - self._begin[rows]
        here = np.repeat(self._first[rows][:, None], local.shape[1], axis=1)
        if counts.max() <= _FEW_KEYS:
            for inner in range(1, int(counts.max()) - 1):
                frame = self._frames[np.minimum(self._first[rows] + inner, self._last[rows])][:, None]
                here += (counts > inner + 1)[:, None] & (local >= frame)
        else:
            for place, row in enumerate(rows.tolist()):
                inside = self._frames[self._first[row] + 1 : self._last[row]]
                here[place] += np.searchsorted(inside, local[place], side="right")
        return here

    # -- past the keys

    def _add_beyond(self, values: Array, rows: Index, folded: Folded) -> None:
        """Add to the values (r, n, w) of some channels what their ends do besides repeating: climbing and coasting; time (1 or r, n)."""
        if folded.turns.any():
            gain = self._values[self._last[rows]] - self._values[self._first[rows]]
            values += folded.turns[..., None] * gain[:, None, :]
        if folded.beyond.any():
            for place, row in enumerate(rows.tolist()):
                frames = folded.beyond[place % len(folded.beyond)][:, None]
                if frames.any():
                    before, after = self._end_slopes(row)
                    values[place] += frames * np.where(frames < 0, before, after)

    def _end_slopes(self, row: int) -> tuple[Array, Array]:
        """The slopes, in value per frame, at which a channel of two keys or more begins and ends."""
        first, last = int(self._first[row]), int(self._last[row])
        return self._slopes(first)[0], self._slopes(last - 1)[1]

    def _slopes(self, key: int) -> tuple[Array, Array]:
        """The slopes at both ends of the stretch that leaves a key."""
        frames, rise = self._frames[key + 1] - self._frames[key], self._values[key + 1] - self._values[key]
        if self._cubics is not None and self._cubics.is_cubic[key]:
            return self._cubics.slopes(key, rise, float(frames))
        begin, end = self._curves[int(self._codes[key])].slopes()
        return begin * rise / frames, end * rise / frames
