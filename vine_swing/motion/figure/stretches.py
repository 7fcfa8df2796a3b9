"""Split a body's travel into walk segments of one direction between stands.

The phase of the steps comes from the distance travelled, never from time: so whatever moves the body, and however it speeds up or slows down, a
foot that is down stays down. A stretch between two stands takes a whole number of half cycles: what is left over is shared out over its
first and last cycle, so that the body sets off from both feet and comes to be on both feet, and all steps between have the very stride.
A stretch that comes from beyond the frames looked at has its phase from frame 0.
"""

from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
#: Analysed at this many places a frame, and this many frames beyond both ends of the scene.
PER_FRAME, BEYOND = 2, 72
#: Shares of a stride: turning back by less is swaying; a place left by less than this in every frame is stood on.
_SWAY, _STILL = 0.2, 0.001
#: Frames it must stay somewhere to stand there.
_STAND = 6
#: No more cycles than these are walked in a frame, however fast the body flies by.
_FASTEST = 4.0
#: The shortest stretch that is walked at all, in strides, and the unit stretches between stands come in.
_LEAST, UNIT = 0.25, 0.5


@dataclass(frozen=True)
class Stretch:
    """A walk in one direction. `phase` (m,) are the cycles gone at `frames` (m,), from 0 to `total`; `sign` is 1 to the right.

    begins, ends: whether it sets off from a stand, and comes to one.
    """

    frames: Array
    phase: Array
    sign: int
    begins: bool
    ends: bool

    @property
    def total(self) -> float:
        """The cycles of the whole stretch."""
        return float(self.phase[-1])

    def phase_at(self, t: Array) -> Array:
        """The phase at frames t (n,), held before and after."""
        return np.asarray(np.interp(t, self.frames, self.phase))

    def frame_at(self, phase: Array) -> Array:
        """The first frame at which a phase is reached, (n,)."""
        phases, frames = self._rising
        return np.asarray(np.interp(phase, phases, frames))

    @cached_property
    def _rising(self) -> tuple[Array, Array]:
        """Phases without repetitions, and the first frame of each."""
        rising = np.concatenate([[True], np.diff(self.phase) > 0])
        return self.phase[rising], self.frames[rising]


def analysed(length: int) -> Array:
    """The frames a scene's walks are planned at, (m,)."""
    return np.arange(-BEYOND * PER_FRAME, (length - 1 + BEYOND) * PER_FRAME + 1) / PER_FRAME


def stretches(frames: Array, gone: Array, stride: Array, start: float) -> list[Stretch]:
    """The walks in a body's way.

    Args:
        frames: evenly spread, (m,).
        gone: the distance gone at them, + to the right, (m,) in px.
        stride: the length of a whole cycle there, (m,) in px.
        start: the phase at frame 0 of a walk that comes from beyond.
    """
    turns = _turning_points(gone, _SWAY * float(stride.mean()))
    stands = _stands(frames, gone, stride)
    cuts = sorted({0, len(frames) - 1, *turns, *(i for one in stands for i in one)})
    still = {i for a, b in stands for i in range(a, b)}
    found = []
    for a, b in pairwise(cuts):
        way = float(gone[b] - gone[a])
        if a in still or abs(way) < 1e-9:
            continue
        one = _stretch(frames[a : b + 1], gone[a : b + 1], stride[a : b + 1], 1 if way > 0 else -1, a > 0, b < len(frames) - 1, start)
        if one is not None:
            found.append(one)
    return found


def _turning_points(gone: Array, sway: float) -> list[int]:
    """Where the way turns back by more than `sway`."""
    step = np.sign(np.diff(gone))
    moving = np.flatnonzero(step)
    bends = moving[1:][np.diff(step[moving]) != 0]
    found: list[int] = []
    at, heading = 0, 0
    for i in (*bends.tolist(), len(gone) - 1):
        way = gone[i] - gone[at]
        if heading * way >= 0 and (heading or abs(way) > sway):
            # Further on in the same direction.
            heading, at = heading or int(np.sign(way)), i
        elif abs(way) > sway:
            if heading:
                found.append(at)
            heading, at = int(np.sign(way)), i
    return found


def _stands(frames: Array, gone: Array, stride: Array) -> list[tuple[int, int]]:
    """Runs of places (first, last) at which the body stays for a while."""
    slow = np.abs(np.diff(gone)) * PER_FRAME < _STILL * stride[1:]
    edges = np.flatnonzero(np.diff(np.concatenate([[False], slow, [False]]).astype(int)))
    runs = edges.reshape(-1, 2).tolist()
    last = len(frames) - 1
    return [(a, b) for a, b in runs if frames[b] - frames[a] >= _STAND or a == 0 or b == last]


def _stretch(frames: Array, gone: Array, stride: Array, sign: int, begins: bool, ends: bool, start: float) -> Stretch | None:
    # Swaying back a little on the way is not walking back.
    forward = np.maximum.accumulate(sign * gone)
    cycles = np.diff(forward) * 2 / (stride[1:] + stride[:-1])
    phase = np.concatenate([[0.0], np.cumsum(np.minimum(cycles, _FASTEST / PER_FRAME))])
    total = float(phase[-1])
    if total < _LEAST:
        return None
    if begins and ends:
        whole = max(1, round(total / UNIT)) * UNIT
        edge = min(1.0, total / 2)
        share = (np.minimum(phase, edge) + np.maximum(phase - (total - edge), 0.0)) / (2 * edge)
        phase = phase + (whole - total) * share
        phase[-1] = whole
    elif ends:
        # It comes to be on a half cycle, whatever it began with.
        phase = phase - phase[-1] + np.ceil(total / UNIT) * UNIT
    elif not begins:
        phase = phase - np.interp(0.0, frames, phase) + start
    return Stretch(frames, phase, sign, begins, ends)
