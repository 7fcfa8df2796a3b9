"""The keyed moves of a channel: its stretches from key to key that change something, those of repeated turns too."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.channel import Channel
from vine_swing.motion.ends import End

Array = NDArray[np.float64]
Index = NDArray[np.intp]
#: So many turns past each end are looked at; a scene of the greatest length with keys a frame apart has no more to show.
_MOST_TURNS = 2_000


@dataclass(frozen=True)
class Moves:
    """Moves in order of time, each (m,): from the frame `start` at the value `low` to the frame `end` at the value `high`.

    `before` and `after` are the still frames before each move (from frame 0 on, for the first) and after it (without end, for the last).
    """

    start: Array
    end: Array
    low: Array
    high: Array

    @property
    def change(self) -> Array:
        """By how much each move changes the value; it may be negative."""
        change: Array = self.high - self.low
        return change

    @property
    def before(self) -> Array:
        begun = np.concatenate([[0.0], self.end[:-1]])
        still: Array = np.maximum(self.start - begun, 0.0)
        return still

    @property
    def after(self) -> Array:
        still: Array = np.maximum(np.append(self.start[1:], np.inf) - self.end, 0.0)
        return still


def key_frames(channel: Channel, first: float, last: float) -> tuple[Array, Index]:
    """The frames of a channel's keys and which keys they are, turn after turn, as far as they touch first…last; both (k,)."""
    frames = np.array([key.frame for key in channel.keys])
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


def keyed_moves(channel: Channel, first: float, last: float) -> Moves:
    """The moves of a number channel, as far as they touch the frames first…last.

    Stretches that stay on one value are no moves; neither is the jump between a loop's last key and its first.
    """
    frames, which = key_frames(channel, first, last)
    values = np.array([key.number for key in channel.keys])[which] if len(which) else np.empty(0)
    lasting = np.diff(frames) > 0
    moving = lasting & (np.diff(values) != 0)
    return Moves(frames[:-1][moving], frames[1:][moving], values[:-1][moving], values[1:][moving])
