"""The keyed moves of a channel: its stretches from key to key that change something, those of repeated turns too."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.timing.channel import Channel
from vine_swing.motion.timing.ends import End

Array = NDArray[np.float64]
Index = NDArray[np.intp]
#: This many turns past each end are looked at; a scene of the greatest length with keys a frame apart has no more to show.
_MOST_TURNS = 2_000
#: The frame of moves that only fill up a table: beyond any other, and finite, so that differences are.
_NEVER = 1e18


@dataclass(frozen=True)
class Moves:
    """Moves in order of time, each (m,): from the frame `start` at the value `low` to the frame `end` at the value `high`.

    `before` is how many frames the channel rests before each move, back to the key before it (to frame 0, for the first); `after` how many it
    rests after it, up to the next key (without end, for the last). A key in the middle of a rest ends it: rules must not move keys.
    """

    start: Array
    end: Array
    low: Array
    high: Array
    before: Array
    after: Array

    @property
    def change(self) -> Array:
        """By how much each move changes the value; it may be negative."""
        change: Array = self.high - self.low
        return change


@dataclass(frozen=True)
class MoveTable:
    """The moves of several channels, one channel a row, (r, m); rows with fewer are filled up with moves that change nothing.

    `counts` (r, 1): how many each row has.
    """

    start: Array
    end: Array
    change: Array
    before: Array
    after: Array
    counts: Index

    @classmethod
    def of(cls, channels: Sequence[Channel], first: float, last: float, *, axis: int = 0) -> "MoveTable":
        """The moves of some channels, as far as they touch the frames first…last; of paths those along x (`axis` 0) or y (1)."""
        rows = [keyed_moves(channel, first, last, axis=axis) for channel in channels]
        most = max((len(row.start) for row in rows), default=0)

        def padded(parts: list[Array], fill: float) -> Array:
            table = np.full((len(parts), most), fill)
            for row, part in zip(table, parts, strict=True):
                row[: len(part)] = part
            return table

        return cls(
            padded([row.start for row in rows], _NEVER),
            padded([row.end for row in rows], _NEVER),
            padded([row.change for row in rows], 0.0),
            padded([row.before for row in rows], 0.0),
            padded([row.after for row in rows], 0.0),
            np.array([[len(row.start)] for row in rows]),
        )

    def passed(self, edges: Array, t: Array) -> Index:
        """The last move of each row whose edge (`start` or `end`) lies at or before frames t (1 or r, n); −1 for none; (r, n)."""
        return np.stack([np.searchsorted(row, t[n % len(t)], side="right") - 1 for n, row in enumerate(edges)])

    def at(self, part: Array, n: Index) -> Array:
        """A part of the moves n (r, k): (r, k)."""
        return part[np.arange(len(part))[:, None], n]


def key_frames(channel: Channel, first: float, last: float) -> tuple[Array, Index]:
    """The frames of a channel's keys and which keys they are, turn after turn, as far as they touch first…last; both (k,)."""
    frames = channel.columns.frames if channel.keys else np.empty(0)
    order = np.arange(len(frames))
    if len(frames) < 2:
        return frames, order
    span = frames[-1] - frames[0]
    found, which = [frames], [order]
    for end, side, reach in ((channel.before, -1, frames[0] - first), (channel.after, 1, last - frames[-1])):
        for turn in range(1, _turns(end, reach, span) + 1):
            mirrored = end.mode == "ping-pong" and turn % 2 == 1
            local = (frames[0] + frames[-1] - frames[::-1]) if mirrored else frames
            found.append(local + side * turn * span)
            which.append(order[::-1] if mirrored else order)
    rank = np.argsort([part[0] for part in found], kind="stable")
    return np.concatenate([found[n] for n in rank]), np.concatenate([which[n] for n in rank])


def _turns(end: End, reach: float, span: float) -> int:
    if end.mode not in ("loop", "climb", "ping-pong") or reach <= 0:
        return 0
    turns = int(np.ceil(reach / span))
    return min(turns if end.times is None else min(turns, end.times), _MOST_TURNS)


def _values(channel: Channel, axis: int) -> Array:
    """The values of a channel's keys, (k,); of points the one along an axis."""
    if not channel.keys:
        return np.empty(0)
    if channel.keys[0].is_point:
        return np.array([key.value[axis] for key in channel.keys if isinstance(key.value, tuple)])
    return channel.columns.values


def keyed_moves(channel: Channel, first: float, last: float, *, axis: int = 0) -> Moves:
    """The moves of a number channel, or of a path along x (`axis` 0) or y (1), as far as they touch the frames first…last.

    Stretches that stay on one value are no moves; neither is the jump between a loop's last key and its first.
    """
    # A turn more on both sides: how long the outermost moves rest must not depend on how far one looks.
    span = float(channel.columns.frames[-1] - channel.columns.frames[0]) if channel.keys else 0.0
    frames, which = key_frames(channel, first - span, last + span)
    values = _values(channel, axis)[which]
    lasting = np.flatnonzero(np.diff(frames) > 0)
    start, end, low, high = frames[lasting], frames[lasting + 1], values[lasting], values[lasting + 1]
    moving = low != high
    rest = np.where(moving, 0.0, end - start)
    before = np.concatenate([np.maximum(start[:1], 0.0), rest[:-1]])
    after = np.concatenate([rest[1:], np.full(len(rest[:1]), np.inf)])
    touching = moving & (start <= last) & (end >= first)
    return Moves(start[touching], end[touching], low[touching], high[touching], before[touching], after[touching])
