"""Ends: what a channel does before its first key and after its last.

With D = last − first frame, u = t − first and k = floor(u / D) whole turns:

    hold        the end value
    coast       goes on at the end slope
    loop        f(first + u mod D)
    climb       loop + k·(last − first value)
    ping-pong   loop, odd turns mirrored

`times` counts turns of D outside the keys; once they have passed, the value holds. A lone key always holds.
"""

import math
from dataclasses import dataclass
from typing import Annotated, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from vine_swing.motion.basics.values import Frozen

Array = NDArray[np.float64]
EndMode = Literal["hold", "coast", "loop", "climb", "ping-pong"]


class End(Frozen):
    """What happens past one end of the keys. `times` is the number of turns; none means forever."""

    mode: EndMode = "hold"
    times: Annotated[int, Field(strict=True, ge=0, le=1_000_000)] | None = None


HOLD = End()


@dataclass(frozen=True)
class EndAbout:
    """What to call an end mode and what to say about it. for_words: whether it means something where keys hold words, which change all at once."""

    mode: EndMode
    label: str
    about: str
    for_words: bool = True


ENDS: dict[str, EndAbout] = {
    about.mode: about
    for about in (
        EndAbout("hold", "Hold", "Stays on the end value."),
        EndAbout("coast", "Coast", "Goes on at the speed it had at the end.", for_words=False),
        EndAbout("loop", "Loop", "Repeats from the first key."),
        EndAbout("climb", "Climb", "Starts over from where it got to, so that it keeps gaining.", for_words=False),
        EndAbout("ping-pong", "Ping-pong", "To and fro: there, back, there, back."),
    )
}


@dataclass(frozen=True)
class Folded:
    """Where times outside the keys are read, all of one shape.

    `local` is within first…last; `turns` is how often last − first value is added (climb); `beyond` is how many frames
    past the end the value coasts, negative before the first key.
    """

    local: Array
    turns: Array
    beyond: Array


def fold(t: Array, first: Array, last: Array, before: End, after: End) -> Folded:
    """Bring any times within the keys' own stretch.

    Args:
        t: frames, shape (c, n).
        first, last: frames of the first and last key of each channel, shape (c, 1).
        before, after: what the channels do past each end.

    Returns:
        Arrays of the shape of `t`. The keyed stretch owns both its ends, so `t == last` is not a turn.
    """
    local = np.clip(t, first, last)
    turns = np.zeros_like(local)
    beyond = np.zeros_like(local)
    for end, outside, side in ((before, t < first, -1), (after, t > last, 1)):
        if end.mode == "hold" or end.times == 0:
            continue
        # A lone key has no stretch to repeat.
        outside &= last > first
        if not outside.any():
            continue
        begin = np.broadcast_to(first, t.shape)[outside]
        span = np.broadcast_to(last - first, t.shape)[outside]
        u = t[outside] - begin
        if end.mode == "coast":
            reach = u if side < 0 else u - span
            beyond[outside] = reach if end.times is None else np.clip(reach, -end.times * span, end.times * span)
            continue
        k = np.floor(u / span)
        r = np.clip(u - k * span, 0, span)
        if end.times is not None:
            # Past its turns the value rests where the last turn ended, not where the next would begin.
            done = u >= (1 + end.times) * span if side > 0 else u <= -end.times * span
            k = np.where(done, side * end.times, k)
            r = np.where(done, span if side > 0 else 0.0, r)
        if end.mode == "ping-pong":
            r = np.where(k % 2 == 0, r, span - r)
        local[outside] = begin + r
        if end.mode == "climb":
            turns[outside] = k
    return Folded(local, turns, beyond)


def turn_marks(first: float, last: float, before: End, after: End, length: int, *, most: int = 500) -> list[float]:
    """The frames within 0…length−1 at which a repeating end begins a new turn, at most `most` of them, in order."""
    span = last - first
    if span <= 0:
        return []
    end = length - 1
    marks: list[float] = []
    for mode, times, start, step in ((before.mode, before.times, first, -span), (after.mode, after.times, last, span)):
        if mode not in ("loop", "climb", "ping-pong"):
            continue
        # Only the turns that can be seen: those from where the marks enter 0…end to where they leave it.
        enter, leave = sorted(((0 - start) / step, (end - start) / step))
        first_turn = max(0, math.ceil(enter))
        last_turn = min(math.floor(leave), first_turn + most - 1, math.inf if times is None else times)
        marks += [start + k * step for k in range(first_turn, int(last_turn) + 1)]
    return sorted(marks)[:most]
