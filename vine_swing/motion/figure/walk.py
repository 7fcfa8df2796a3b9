"""A figure's walk: planned once over the whole scene, then read at any frames.

The plan (walk_plan.py), the feet (steps.py) and the rest of the body (upper_body.py, reach.py) are computed in the space the figure moves in and
brought into the figure's own space here, through the inverse of its matrix.

The hips go up and down with the steps, lowest in `down` and highest in `up`. Where a leg could not get to its foot they
are lowered, by no more than it takes.
"""

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics import matrix
from vine_swing.motion.figure.channels import FACING
from vine_swing.motion.figure.model import HIPS
from vine_swing.motion.figure.reach import lowered_hips, mean_sinking
from vine_swing.motion.figure.steps import WalkingFeet
from vine_swing.motion.figure.upper_body import upper_body
from vine_swing.motion.figure.walk_plan import WalkInputs, WalkPlan, ground_below

Array = NDArray[np.float64]


class Walk:
    """The walk of one figure."""

    def __init__(self, inputs: WalkInputs) -> None:
        self.plan = WalkPlan(inputs)
        #: None of a figure without legs.
        self.feet = WalkingFeet(self.plan) if inputs.figure.legs else None
        self._sinking = mean_sinking(self.plan)

    def at(self, row: Array) -> dict[str, Array]:
        """Return the gait's offset of each joint channel at frames (1, n); `facing` multiplies it."""
        # Settings and positions are requested with the same row array: values known at the bake's frames are found by its identity.
        plan, t = self.plan, row[0]
        style, turned, phase = plan.inputs.style(row), plan.turned_at(t), plan.phase_at(t)
        m, facing = plan.inputs.matrix(row), plan.inputs.facing(row) * turned
        into_figure = matrix.safe_inverse(m)
        found = upper_body(plan, t, phase, style, np.interp(t, *self._sinking))
        base = _own_places(into_figure, facing, ground_below(plan, m))
        found[f"{HIPS}.x"] = base[:, 0]
        found[f"{HIPS}.y"] = found[f"{HIPS}.y"] + base[:, 1]
        if self.feet is not None:
            feet = self.feet.at(t, style, phase, m)
            ankles = _own_places(into_figure, facing, feet.ankle)
            turns = _own_turns(into_figure, facing, plan.forward_at(t), feet.turn)
            for leg, ankle, turn in zip(plan.inputs.figure.legs, ankles, turns, strict=True):
                rest = leg.joints[2]
                found |= {f"{leg.id}.x": ankle[:, 0] - rest[0], f"{leg.id}.y": ankle[:, 1] - rest[1], f"{leg.id}.end": turn}
            found[f"{HIPS}.y"] = lowered_hips(plan.inputs.figure, found, ankles, feet.slack)
        if (style.share != 1).any():
            found = {name: values * style.share for name, values in found.items()}
        return found | {FACING: turned}


def _own_places(into_figure: Array, facing: Array, places: Array) -> Array:
    """Places (n, 2) or (k, n, 2) of the space a figure moves in, in its own."""
    found = matrix.apply(into_figure, places[..., 0], places[..., 1])
    found[..., 0] *= facing
    return found


def _own_turns(into_figure: Array, facing: Array, forward: Array, turn: Array) -> Array:
    """Convert rotations (k, n) in the figure's parent space, in its facing direction, to rotations in its own space; in degrees."""
    a = np.radians(turn)
    x, y = forward * np.cos(a), np.sin(a)
    own = np.degrees(np.arctan2(into_figure[:, 1] * x + into_figure[:, 3] * y, facing * (into_figure[:, 0] * x + into_figure[:, 2] * y)))
    return np.asarray(turn + (own - turn + 180) % 360 - 180)
