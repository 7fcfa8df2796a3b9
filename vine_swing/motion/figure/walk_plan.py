"""The plan of a walk over the whole scene: which stretches are walked, at which phase of the cycle, and which way the figure faces.

Everything is in the space the figure moves in (its parent's, or the picture), where a planted foot stays put. In a stretch where it faces left
that space is mirrored, so that forward is always +x.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics import matrix
from vine_swing.motion.figure.footfalls import FootfallRows, Footfalls, smooth
from vine_swing.motion.figure.ground import Ground
from vine_swing.motion.figure.model import Figure, Limb
from vine_swing.motion.figure.stretches import Stretch, analysed, stretches
from vine_swing.motion.figure.style import Style, phases

Array = NDArray[np.float64]
#: Slopes are copied this share of a stride to both sides, and the hips follow the ground smoothed over as much.
_SMOOTHED = 0.3
#: How much shorter steps get on slopes: by this share of the sine of the angle.
_SHORTER = 0.3
#: Cycles over which walking comes on after a stand and goes before one.
SETTLE = 0.5
#: No stride is shorter than this, in px.
_LEAST = 1e-3


@dataclass(frozen=True)
class WalkInputs:
    """Inputs of a walk.

    matrix: the figure's matrix (n, 6) at frames t (1, n), in the space it moves in.
    style: the settings of its gait at frames t (1, n).
    facing: the way its keys have it face at frames t (1, n), (n,): 1 or −1.
    ground: what it walks on, in the space it moves in; None for its path itself.
    """

    figure: Figure
    order: str
    turns_round: bool
    phase: float
    treadmill: float | None
    length: int
    matrix: Callable[[Array], Array]
    style: Callable[[Array], Style]
    facing: Callable[[Array], Array]
    ground: Ground | None


@dataclass(frozen=True)
class WalkedStretch:
    """A stretch of a walk in the space the figure moves in, at its frames (m,).

    stretch: its frames and phases.
    facing: the way it faces, 1 to the right or −1.
    turn: −1 where the gait has turned it round for that, else 1.
    x, y: where the body is, (m,).
    size: how large it is drawn, (m,).
    stride_scale: px for each px of the setting `stride`, (m,): the size, and less on a slope.
    stride: the mean stride, in px.
    """

    stretch: Stretch
    facing: float
    turn: float
    x: Array
    y: Array
    size: Array
    stride_scale: Array
    stride: float


class WalkPlan:
    """The plan of one figure's walk."""

    def __init__(self, inputs: WalkInputs) -> None:
        self.inputs = inputs
        ahead = phases(inputs.figure, inputs.order)
        #: By leg, the phase of the middle of its stance, above 0 up to 1.
        self.stance_middle = {one: (max(ahead.values(), default=0.0) - a) % 1.0 or 1.0 for one, a in ahead.items()}
        groups = sorted(set(self.stance_middle.values()))
        #: By leg, which of the groups of legs that land together it belongs to, and of how many.
        self.turns = {one: (groups.index(m), len(groups)) for one, m in self.stance_middle.items()}
        self.groups = max(len(groups), 1)
        legs = inputs.figure.legs
        leading = next((leg.id for leg in legs if leg.side == "near"), legs[0].id if legs else None)
        #: By how much the phase of the leading leg, which counts from its landing, differs from that of the walk.
        self.ahead = -self.stance_middle[leading] if leading else 0.0
        self._start = inputs.phase - self.ahead - float(self.stance_at(np.zeros(1))[0]) / 2

    @property
    def landing(self) -> float:
        """The phase of the walk at which its leading foot lands, 0…0.5; of legs that take turns, one lands every half cycle from there."""
        stance = float(np.mean(self.stance_at(np.zeros(1))))
        return (-self.ahead - stance / 2) % 0.5

    @property
    def starting(self) -> float:
        """The phase at frame 0 of a walk that comes from beyond, were its setting `phase` 0."""
        return self._start - self.inputs.phase

    # -- what is planned

    @cached_property
    def frames(self) -> Array:
        """The frames at which the walk is planned: those of the scene and some before and after, (m,)."""
        return analysed(self.inputs.length)

    @cached_property
    def style(self) -> Style:
        """The settings at `frames`; means are taken of these, never of the frames that happen to be read."""
        return self.inputs.style(self.frames[None])

    @property
    def mean_stance(self) -> float:
        """The stance share, on average over the scene."""
        return float(np.mean(self.style.stance))

    def stance_at(self, t: Array) -> Array:
        """The stance share at frames t (n,), as planned."""
        stance = self.style.stance
        return np.asarray(np.interp(t, self.frames, stance) if len(stance) > 1 else np.full_like(t, stance[0]))

    @cached_property
    def smoothed_over(self) -> float:
        """How far to both sides the ground is smoothed for the hips, in px."""
        return _SMOOTHED * float(np.mean(self.style.stride * size_of(self._matrices)))

    @cached_property
    def _matrices(self) -> Array:
        """The figure's matrices at `frames`, (m, 6)."""
        return self.inputs.matrix(self.frames[None])

    @cached_property
    def walked(self) -> list[WalkedStretch]:
        """The stretches walked; none where it walks on the spot."""
        if self.inputs.treadmill is not None:
            return []
        frames = self.frames
        m, style = self._matrices, self.style
        x, y, size = m[:, 4], m[:, 5], size_of(m)
        # A flat figure takes no countable footsteps.
        stride_scale = size
        if self.inputs.ground is not None:
            y = self.inputs.ground.even(x, self.smoothed_over)
            slope = self.inputs.ground.slope(x, max(self.smoothed_over, _LEAST))
            stride_scale = size * (1 - _SHORTER * np.abs(slope) / np.hypot(1, slope))
        stride = np.maximum(np.broadcast_to(style.stride * stride_scale, frames.shape), _LEAST)
        dx, dy = np.diff(x, prepend=x[0]), np.diff(y, prepend=y[0])
        distance = np.cumsum(np.sign(dx) * np.hypot(dx, dy))
        found: list[WalkedStretch] = []
        for one in stretches(frames, distance, stride, self._start):
            here = slice(*np.searchsorted(frames, (one.frames[0], one.frames[-1] + 1e-9)))
            drawn = float(np.sign(self.inputs.facing(one.frames[None, :1])[0]) or 1.0)
            mirrored = float(mirror_of(m[here.start : here.start + 1])[0])
            turn = one.sign * mirrored if self.inputs.turns_round else 1.0
            facing = drawn * mirrored * turn
            found.append(WalkedStretch(one, facing, turn, x[here], y[here], size[here], stride_scale[here], float(stride.mean())))
        return found

    # -- the plan at any frames

    @cached_property
    def _begins(self) -> Array:
        return np.array([one.stretch.frames[0] for one in self.walked])

    def index(self, t: Array) -> NDArray[np.intp]:
        """Which of `walked` frames (n,) belong to: the last begun, or the first."""
        return np.asarray(np.maximum(np.searchsorted(self._begins, t, side="right") - 1, 0))

    def phase_at(self, t: Array) -> Array:
        """The cycles gone at frames t (n,)."""
        if self.inputs.treadmill is not None:
            return (t % self.inputs.treadmill) / self.inputs.treadmill + self._start
        phase = np.zeros_like(t)
        for n, here in self.parts(t):
            phase[here] = self.walked[n].stretch.phase_at(t[here])
        return phase

    def walking_at(self, t: Array, phase: Array, *, over: float = SETTLE) -> Array:
        """How much it walks at frames t (n,), where it is at `phase` (n,): 0 at a stand, 1 from `over` cycles after it to as many before the next."""
        if self.inputs.treadmill is not None:
            return np.ones_like(t)
        walking = np.zeros_like(t)
        for n, here in self.parts(t):
            one = self.walked[n].stretch
            since = phase[here] / over if one.begins else np.ones(1)
            until = (one.total - phase[here]) / over if one.ends else np.ones(1)
            walking[here] = smooth(np.minimum(since, until))
        return walking

    def parts(self, t: Array) -> Iterator[tuple[int, NDArray[np.intp] | slice]]:
        """The stretches that frames (n,) belong to, by number, each with the places of its frames; none where nothing is walked."""
        if len(self.walked) == 1:
            yield 0, slice(None)
        elif self.walked:
            which = self.index(t)
            for n in np.flatnonzero(np.bincount(which)).tolist():
                yield n, np.flatnonzero(which == n)

    def turned_at(self, t: Array) -> Array:
        """1, or −1 where the gait turns the figure round from the way its keys have it face, at frames t (n,)."""
        if not self.inputs.turns_round or not self.walked:
            return np.ones_like(t)
        return np.asarray(np.array([one.turn for one in self.walked])[self.index(t)])

    def forward_at(self, t: Array) -> Array:
        """The way it faces in the space it moves in, at frames t (n,), unchanged planned: 1 to the right, or −1."""
        if self.walked:
            return np.asarray(np.array([one.facing for one in self.walked])[self.index(t)])
        return np.full_like(t, self.resting_forward)

    @cached_property
    def resting_forward(self) -> float:
        """The way it faces where it never walks anywhere."""
        begin = np.zeros((1, 1))
        return float(mirror_of(self.inputs.matrix(begin))[0] * (np.sign(self.inputs.facing(begin)[0]) or 1.0))

    # -- a walk without beginning and end

    def footfalls(self, leg: Limb, stretch: Stretch, stance: float) -> Footfalls:
        """The footfalls of a leg in a stretch that neither begins nor ends, with one stance share throughout."""
        return Footfalls.planned(stretch, self.stance_middle[leg.id] % 1.0, stance, (0, 1))

    def endless_footfalls(self, stance: float) -> FootfallRows:
        """The footfalls of all legs about the cycle 0…1 of a walk without beginning and end."""
        phase = np.array([-3.0, 3.0])
        stretch = Stretch(phase, phase, 1, False, False)
        return FootfallRows.of([self.footfalls(leg, stretch, stance) for leg in self.inputs.figure.legs])

    def endless_stretch(self) -> Stretch:
        """On the spot, the walk that goes on through the whole scene, as a stretch."""
        assert self.inputs.treadmill is not None
        cycles = float(np.ceil((self.inputs.length - 1) / self.inputs.treadmill)) + 2
        phase = np.array([-2.0, cycles]) + self._start
        return Stretch((phase - self._start) * self.inputs.treadmill, phase, 1, False, False)


def ground_below(plan: WalkPlan, m: Array) -> Array:
    """The place on the ground under the body, (n, 2), by the figure's matrices (n, 6)."""
    ground = plan.inputs.ground
    if ground is None or plan.inputs.treadmill is not None:
        return m[:, 4:6]
    return np.stack([m[:, 4], ground.even(m[:, 4], plan.smoothed_over)], axis=-1)


def mirror_of(m: Array) -> Array:
    """−1 where a figure is drawn mirrored, by its matrices (n, 6), else 1."""
    return np.where(matrix.determinant(m) < 0, -1.0, 1.0)


def size_of(m: Array) -> Array:
    """How large a figure is drawn, from its matrices (n, 6): the square root of how much larger they make areas."""
    return np.sqrt(np.abs(matrix.determinant(m)))
