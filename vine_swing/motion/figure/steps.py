"""Where the feet of a walking figure are: set down at the places of its footfalls, carried from one to the next.

All legs are computed together, one a row, in the order the figure has them.
"""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.figure import footfalls
from vine_swing.motion.figure.footfalls import Feet, FootfallRows, Footfalls, Tread, footing
from vine_swing.motion.figure.limb import joint_at_rest
from vine_swing.motion.figure.style import Style
from vine_swing.motion.figure.walk_plan import WalkedStretch, WalkPlan, size_of

Array = NDArray[np.float64]


@dataclass(frozen=True)
class FootTracks:
    """Feet over n frames, one a row, in the space their figure moves in.

    ankle: where each ankle is, (k, n, 2).
    turn: how each foot is turned, in degrees in the mirrored space, (k, n).
    slack: how far each may be out of its leg's reach, in px, (k, n): 0 while it is down.
    """

    ankle: Array
    turn: Array
    slack: Array


class WalkingFeet:
    """The feet of one walk, of a figure that has legs."""

    def __init__(self, plan: WalkPlan) -> None:
        self._plan = plan
        self._legs = plan.inputs.figure.legs
        self.resting = Feet.of(self._legs)
        #: How far ahead of the figure's origin each foot rests, (k, 1).
        self.ahead, _ = joint_at_rest(self._legs, 2)
        #: Of each stretch that is walked, in order.
        self.steps: list[Steps] = []
        for walked in plan.walked:
            self.steps.append(Steps(self, plan, walked, self.steps[-1] if self.steps else None))

    def at(self, t: Array, style: Style, phase: Array, m: Array) -> FootTracks:
        """Every foot at frames t (n,). `style`, `phase` and the figure's matrices `m` (n, 6) are those at these frames."""
        plan = self._plan
        if plan.inputs.treadmill is not None:
            return self._on_the_spot(style, phase, m)
        if not plan.walked:
            return self._standing(t)
        size = size_of(m)
        many = (len(self._legs), len(t))
        whole = FootTracks(np.empty((*many, 2)), np.empty(many), np.empty(many))
        for n, here in plan.parts(t):
            part = self.steps[n].at(phase[here], style.at(here), size[here])
            whole.ankle[:, here], whole.turn[:, here], whole.slack[:, here] = part.ankle, part.turn, part.slack
        return whole

    def place(self, legs: NDArray[np.intp], x: Array, y: Array, slope: Array, facing: float, size: Array) -> Array:
        """Where feet are set down: x, y and their tilt in degrees, (3, s).

        Args:
            legs: whose feet, (s,).
            x, y: where the body is then, in the mirrored space, (s,).
            slope: how steep its way is there, (s,).
            facing: 1, or −1 where the space is mirrored.
            size: how large the figure is drawn, (s,).
        """
        ground = self._plan.inputs.ground
        ahead = self.ahead[legs, 0] * size
        if ground is None:
            length = np.hypot(1, slope)
            return np.stack([x + ahead / length, y + ahead * slope / length, np.degrees(np.arctan(slope))])
        px = x + ahead
        heel, ball = (px + end[legs, 0] * size for end in (self.resting.heel, self.resting.ball))
        low, high = ground.height(facing * heel), ground.height(facing * ball)
        sole = ball - heel
        # Both ends of the sole are on the ground, whatever is between them.
        share = np.divide(px - heel, sole, out=np.zeros_like(sole), where=sole != 0)
        return np.stack([px, low + (high - low) * share, np.where(sole != 0, np.degrees(np.arctan2(high - low, sole)), 0.0)])

    def _standing(self, t: Array) -> FootTracks:
        """Feet where the figure stands and never walks."""
        plan, many = self._plan, (len(self._legs), len(t))
        begin = plan.inputs.matrix(np.zeros((1, 1)))
        facing = plan.resting_forward
        legs = np.arange(len(self._legs))
        size, x, y = (np.full(len(legs), value) for value in (size_of(begin)[0], begin[0, 4] * facing, begin[0, 5]))
        px, py, tilt = self.place(legs, x, y, np.zeros(len(legs)), facing, size)
        dx, dy = (rows[:, 0] for rows in footfalls.ankle(self.resting, tilt[:, None], np.zeros(1), np.zeros(1)))
        ankle = np.stack([facing * (px + size * dx), py + size * dy], axis=-1)
        return FootTracks(np.repeat(ankle[:, None], len(t), axis=1), np.repeat(tilt[:, None], len(t), axis=1), np.zeros(many))

    def _on_the_spot(self, style: Style, phase: Array, m: Array) -> FootTracks:
        """Feet on a ground that runs away below: the body's way is counted in strides, and only what is between it and the feet matters."""
        facing, size, steps = self._plan.resting_forward, size_of(m), self._endless
        at = phase - np.floor(phase)
        level = np.zeros_like(steps.middles)
        # Feet are where they would be in a walk without a beginning.
        feet = footing(self.resting, steps, steps.at(at), style, size, 1, steps.middles, level, level)
        ahead = (feet.x - at) * style.stride * size + size * (self.ahead + feet.ahead)
        return FootTracks(np.stack([m[:, 4] + facing * ahead, m[:, 5] + feet.y], axis=-1), feet.turn, feet.slack)

    @cached_property
    def _endless(self) -> FootfallRows:
        return self._plan.endless_footfalls(self._plan.mean_stance)


class Steps:
    """The footfalls of all legs in one stretch, with their places in its mirrored space."""

    def __init__(self, feet: WalkingFeet, plan: WalkPlan, walked: WalkedStretch, before: "Steps | None") -> None:
        """`before` are the steps of the stretch before: where they end, these begin."""
        stretch = walked.stretch
        self._feet, self._plan, self._direction = feet, plan, int(stretch.sign * walked.facing)
        self._facing = walked.facing
        stance = plan.stance_at(stretch.frames)
        #: By leg.
        self.by_leg: dict[str, Footfalls] = {
            leg.id: Footfalls.planned(stretch, plan.stance_middle[leg.id] % 1.0, stance, plan.turns[leg.id]) for leg in plan.inputs.figure.legs
        }
        self._rows = FootfallRows.of(list(self.by_leg.values()))
        frames = np.concatenate([one.frames for one in self.by_leg.values()])
        # Beyond the frames of the plan, the way goes on straight.
        x = np.interp(frames, stretch.frames, walked.x) + stretch.sign * walked.stride * (self._rows.middles - stretch.phase_at(frames))
        y, size = np.interp(frames, stretch.frames, walked.y), np.interp(frames, stretch.frames, walked.size)
        ahead, above = (
            np.interp(frames + 0.5, stretch.frames, along) - np.interp(frames - 0.5, stretch.frames, along) for along in (walked.x, walked.y)
        )
        slopes = np.divide(above, ahead, out=np.zeros_like(above), where=np.abs(ahead) > 1e-9) * walked.facing
        legs = np.repeat(np.arange(len(self.by_leg)), self._rows.last - self._rows.first + 1)
        places = feet.place(legs, x * walked.facing, y, slopes, walked.facing, size)
        if before is not None and before._facing == self._facing and stretch.begins:
            places[:, self._rows.first] = before._places[:, before._rows.last]
        #: x, y and tilt of all places, (3, s).
        self._places: Array = places

    def at(self, phase: Array, style: Style, size: Array) -> FootTracks:
        """Every foot at phases (n,) of this stretch."""
        tread = self._rows.at(phase)
        feet = footing(self._feet.resting, self._rows, tread, style, size, self._direction, *self._places)
        y = feet.y if self._plan.inputs.ground is None else feet.y + self._bump(tread)
        return FootTracks(np.stack([self._facing * (feet.x + size * feet.ahead), y], axis=-1), feet.turn, feet.slack)

    def _bump(self, tread: Tread) -> Array:
        """How much higher or lower the ground below swinging feet is than the straight way between their places, (k, n)."""
        ground, reach = self._plan.inputs.ground, self._plan.smoothed_over / 2
        assert ground is not None
        px = self._places[0]
        way = np.where(tread.down, 0.0, footfalls.carried(tread.share))
        here = px[tread.place] + (px[tread.after] - px[tread.place]) * way
        even = ground.even(self._facing * px, reach)
        straight = (1 - way) * even[tread.place] + way * even[tread.after]
        return np.asarray(np.where(tread.down, 0.0, ground.even(self._facing * here, reach) - straight))
