"""Where the feet of a walking figure are: set down at the places of its footfalls, carried from one to the next."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.figure import footfalls
from vine_swing.motion.figure.footfalls import Foot, Footfalls, footing
from vine_swing.motion.figure.model import Limb
from vine_swing.motion.figure.style import Style
from vine_swing.motion.figure.walk_plan import WalkedStretch, WalkPlan, size_of

Array = NDArray[np.float64]


@dataclass(frozen=True)
class FootTrack:
    """A foot over n frames, in the space its figure moves in.

    ankle: where its ankle is, (n, 2).
    turn: how the foot is turned, in degrees in the mirrored space, (n,).
    slack: how far it may be out of the leg's reach, in px, (n,): 0 while it is down.
    """

    ankle: Array
    turn: Array
    slack: Array


class Feet:
    """The feet of one walk."""

    def __init__(self, plan: WalkPlan) -> None:
        self._plan = plan
        self.shapes = {leg.id: Foot.of(leg) for leg in plan.inputs.figure.legs}
        #: Of each stretch that is walked, in order.
        self.steps: list[Steps] = []
        for walked in plan.walked:
            self.steps.append(Steps(self, plan, walked, self.steps[-1] if self.steps else None))

    def at(self, t: Array, style: Style, phase: Array, m: Array) -> dict[str, FootTrack]:
        """Every foot at frames t (n,), by leg. `style`, `phase` and the figure's matrices `m` (n, 6) are those at these frames."""
        plan = self._plan
        if plan.inputs.treadmill is not None:
            return self._on_the_spot(style, phase, m)
        if not plan.walked:
            return self._standing(t)
        which = plan.index(t)
        found = {leg.id: FootTrack(np.empty((len(t), 2)), np.empty(len(t)), np.empty(len(t))) for leg in plan.inputs.figure.legs}
        size = size_of(m)
        for n in np.unique(which):
            here = np.flatnonzero(which == n)
            for leg, part in self.steps[n].at(phase[here], style.at(here), size[here]).items():
                whole = found[leg]
                whole.ankle[here], whole.turn[here], whole.slack[here] = part.ankle, part.turn, part.slack
        return found

    def ground_below(self, m: Array) -> Array:
        """The place on the ground under the body, (n, 2), by the figure's matrices (n, 6)."""
        ground = self._plan.inputs.ground
        if ground is None or self._plan.inputs.treadmill is not None:
            return m[:, 4:6]
        return np.stack([m[:, 4], ground.even(m[:, 4], self._plan.smoothed_over)], axis=-1)

    def place(self, leg: Limb, x: float, y: float, slope: float, facing: float, size: float) -> tuple[float, float, float]:
        """Where a foot is set down when the body is at (x, y) in the mirrored space, on a way that rises by `slope`: x, y, and its
        tilt in degrees."""
        foot, ground = self.shapes[leg.id], self._plan.inputs.ground
        ahead = leg.joints[2][0] * size
        if ground is None:
            length = float(np.hypot(1, slope))
            return x + ahead / length, y + ahead * slope / length, float(np.degrees(np.arctan(slope)))
        px = x + ahead
        heel, ball = px + foot.heel * size, px + foot.ball * size
        low, high = ground.height(facing * np.array([heel, ball]))
        tilt = float(np.degrees(np.arctan2(high - low, ball - heel))) if ball != heel else 0.0
        # Both ends of the sole lie on the ground, whatever is between them.
        return px, float(low + (high - low) * (px - heel) / (ball - heel)) if ball != heel else float(low), tilt

    def _standing(self, t: Array) -> dict[str, FootTrack]:
        """Feet where the figure stands and never walks."""
        plan = self._plan
        begin = plan.inputs.matrix(np.array([0.0]))
        facing = plan.resting_forward
        size, x, y = float(size_of(begin)[0]), float(begin[0, 4]) * facing, float(begin[0, 5])
        found = {}
        for leg in plan.inputs.figure.legs:
            px, py, angle = self.place(leg, x, y, 0.0, facing, size)
            dx, dy = footfalls.ankle(self.shapes[leg.id], np.array([angle]), np.zeros(1), np.zeros(1))
            ankle = np.array([[facing * (px + size * float(dx[0])), py + size * float(dy[0])]])
            found[leg.id] = FootTrack(np.repeat(ankle, len(t), axis=0), np.full(len(t), angle), np.zeros(len(t)))
        return found

    def _on_the_spot(self, style: Style, phase: Array, m: Array) -> dict[str, FootTrack]:
        """Feet on a ground that runs away below: the body's way is counted in strides, and only what is between it and the feet matters."""
        plan, found = self._plan, {}
        facing = plan.resting_forward
        size = size_of(m)
        at = phase - np.floor(phase)
        for leg in plan.inputs.figure.legs:
            # Feet are where they would be in a walk without a beginning.
            steps = plan.endless_footfalls(leg, plan.mean_stance)
            level = np.zeros_like(steps.middles)
            (x, dx), dy, angle, slack = footing(self.shapes[leg.id], steps, at, style, size, 1, steps.middles, level, level)
            ahead = (x - at) * style.stride * size + size * (leg.joints[2][0] + dx)
            found[leg.id] = FootTrack(np.stack([m[:, 4] + facing * ahead, m[:, 5] + dy], axis=-1), angle, slack)
        return found


class Steps:
    """The footfalls of all legs in one stretch, with their places in its mirrored space."""

    def __init__(self, feet: Feet, plan: WalkPlan, walked: WalkedStretch, before: "Steps | None") -> None:
        """`before` are the steps of the stretch before: where they end, these begin."""
        stretch = walked.stretch
        self._feet, self._plan, self._direction = feet, plan, int(stretch.sign * walked.facing)
        self._facing = walked.facing
        stance = plan.stance_at(stretch.frames)
        self.by_leg: dict[str, Footfalls] = {}
        self._places: dict[str, tuple[Array, Array, Array]] = {}
        for leg in plan.inputs.figure.legs:
            steps = Footfalls.planned(stretch, plan.stance_middle[leg.id] % 1.0, stance, plan.turns[leg.id])
            self.by_leg[leg.id] = steps
            x = np.interp(steps.frames, stretch.frames, walked.x)
            y = np.interp(steps.frames, stretch.frames, walked.y)
            # Beyond the frames of the plan, the way goes on straight.
            x = x + stretch.sign * walked.stride * (steps.middles - stretch.phase_at(steps.frames))
            ahead = np.interp(steps.frames + 0.5, stretch.frames, walked.x) - np.interp(steps.frames - 0.5, stretch.frames, walked.x)
            above = np.interp(steps.frames + 0.5, stretch.frames, walked.y) - np.interp(steps.frames - 0.5, stretch.frames, walked.y)
            slopes = np.divide(above, ahead, out=np.zeros_like(above), where=np.abs(ahead) > 1e-9) * walked.facing
            sizes = np.interp(steps.frames, stretch.frames, walked.size)
            bodies = zip((x * walked.facing).tolist(), y.tolist(), slopes.tolist(), sizes.tolist(), strict=True)
            rows = [feet.place(leg, a, b, slope, walked.facing, size) for a, b, slope, size in bodies]
            places = np.array(rows).reshape(-1, 3).T
            if before is not None and before._facing == self._facing and stretch.begins:
                places[:, 0] = [one[-1] for one in before._places[leg.id]]
            self._places[leg.id] = (places[0], places[1], places[2])

    def at(self, phase: Array, style: Style, size: Array) -> dict[str, FootTrack]:
        """Every foot at phases (n,) of this stretch, by leg."""
        found = {}
        for leg, steps in self.by_leg.items():
            px, py, tilt = self._places[leg]
            (x, dx), y, angle, slack = footing(self._feet.shapes[leg], steps, phase, style, size, self._direction, px, py, tilt)
            y = y + self._bump(leg, steps, phase)
            found[leg] = FootTrack(np.stack([self._facing * (x + size * dx), y], axis=-1), angle, slack)
        return found

    def _bump(self, leg: str, steps: Footfalls, phase: Array) -> Array:
        """How much higher or lower the ground below a swinging foot is than the straight way between its places, (n,)."""
        ground = self._plan.inputs.ground
        if ground is None:
            return np.zeros(1)
        px, _, _ = self._places[leg]
        place, down, share = steps.down(phase)
        after = np.minimum(place + 1, len(px) - 1)
        way = np.where(down, 0.0, footfalls.carried(share))

        def even(x: Array) -> Array:
            return ground.even(self._facing * x, self._plan.smoothed_over / 2)

        here = px[place] + (px[after] - px[place]) * way
        return np.asarray(np.where(down, 0.0, even(here) - (1 - way) * even(px[place]) - way * even(px[after])))
