"""How low the hips of a walking figure are so that its legs reach their feet: on average, and at each frame where a leg is too short."""

from collections.abc import Mapping, Sequence
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics import matrix
from vine_swing.motion.figure.footfalls import Feet, footing
from vine_swing.motion.figure.hips import rise
from vine_swing.motion.figure.limb import SOFT, joint_at_rest
from vine_swing.motion.figure.model import HIPS, Figure, Limb
from vine_swing.motion.figure.pose import Body
from vine_swing.motion.figure.style import Style
from vine_swing.motion.figure.walk_plan import WalkInputs, WalkPlan

Array = NDArray[np.float64]
#: Planted feet keep this share of the reach at which a limb begins to give, and the hips are lowered softly within this many px of it.
_SAFE, _SOFTLY = 0.998, 0.6
#: Further apart than about this many px the softening is missing.
_FAR = 3.0
#: What is left to spare of a leg on level ground, as a share of it.
_SPARE = 0.02
#: A foot is never looked for further to the side than this share of the leg's reach.
_ACROSS = 0.95
#: Where settings change, the mean height of the hips is computed at this many frames over the scene.
_SAMPLED = 65
#: Phases of a cycle at which a steady walk is looked at.
_PHASES = np.arange(48) / 48


def mean_sinking(plan: WalkPlan) -> tuple[Array, Array]:
    """How much lower than at rest the hips have to be on average for the strides taken: frames (k,), and px at these, (k,).

    A single frame where no setting of the style changes.
    """
    some = np.linspace(0, len(plan.frames) - 1, _SAMPLED).astype(int)
    frames, style = plan.frames[some], plan.style.at(some)
    figure, order = plan.inputs.figure, plan.inputs.order
    if style.is_steady:
        return frames[:1], np.array([_sinking(figure, order, tuple(float(getattr(style, name)[0]) for name in Style.names()))])
    rows = np.stack([np.broadcast_to(getattr(style, name), frames.shape) for name in Style.names()], axis=-1)
    # Between its keys a style is constant.
    distinct, which = np.unique(rows, axis=0, return_inverse=True)
    sunk = [_sinking(figure, order, tuple(row)) for row in distinct.tolist()]
    return frames, np.array(sunk)[which.reshape(-1)]


@lru_cache(maxsize=4096)
def _sinking(figure: Figure, order: str, settings: tuple[float, ...]) -> float:
    """How far the hips have to sink in a steady walk on level ground so that every planted foot is within reach, by all settings of the style."""
    if not figure.legs:
        return 0.0
    style = Style(*np.array(settings)[:, None])

    def unmoved(t: Array) -> Array:
        return np.tile(matrix.IDENTITY, (t.shape[1], 1))

    level = WalkInputs(figure, order, False, 0.0, 1.0, 1, unmoved, lambda t: style, lambda t: np.ones(t.shape[1]), ground=None)
    plan = WalkPlan(level)
    up_down = rise(_PHASES + plan.ahead + style.stance / 2, style, plan.groups)
    steps = plan.endless_footfalls(float(np.mean(style.stance)))
    flat = np.zeros_like(steps.middles)
    feet = footing(Feet.of(figure.legs), steps, steps.at(_PHASES), style, np.ones(1), 1, steps.middles, flat, flat)
    (root_x, root_y), (end_x, _) = joint_at_rest(figure.legs, 0), joint_at_rest(figure.legs, 2)
    reach = _reaches(figure.legs) - _SPARE * figure.leg_length
    across = np.minimum(np.abs((feet.x - _PHASES) * style.stride + end_x + feet.ahead - root_x), reach * _ACROSS)
    least = np.where(feet.slack > 0, -np.inf, feet.y - np.sqrt(reach**2 - across**2) - root_y)
    return max(0.0, float(np.max(least - up_down)))


def lowered_hips(figure: Figure, added: Mapping[str, Array], ankles: Array, slack: Array) -> Array:
    """Return how far the hips are lowered, in px, (n,), to reach every planted foot: as little as possible, and smoothly.

    Args:
        figure: whose hips.
        added: what the walk adds to the channels of its joints so far.
        ankles: by leg, where the ankle is in the figure's own space, (k, n, 2).
        slack: by leg, how far its foot may be out of reach, in px, (k, n).
    """
    down = added[f"{HIPS}.y"]
    body = Body(figure, {**added, f"{HIPS}.y": np.zeros(1)})
    at = matrix.apply(body.bases(figure.legs), *joint_at_rest(figure.legs, 0))
    reach = _reaches(figure.legs)
    across = np.minimum(np.abs(ankles[..., 0] - at[..., 0]), reach * _ACROSS)
    for least in ankles[..., 1] - np.sqrt(reach**2 - across**2) - at[..., 1] - slack:
        down = _soft_maximum(down, least)
    return down


def _reaches(legs: Sequence[Limb]) -> Array:
    """How far each leg reaches before it begins to give, in px, (k, 1)."""
    return np.array([[_SAFE * SOFT * sum(leg.bone_lengths)] for leg in legs])


def _soft_maximum(a: Array, b: Array) -> Array:
    """The larger of two numbers without a corner where they are alike.

    max(a, b) = (a + b + |a − b|)/2, with √(d² + ε²) in place of |d|. Here ε is `_SOFTLY` px and dies down as a Gaussian of d over `_FAR` px: numbers
    that are clearly apart give the very larger one, and only where they meet is the result up to ε/2 above both.
    """
    apart = a - b
    return np.asarray((a + b + np.sqrt(apart**2 + _SOFTLY**2 * np.exp(-((apart / _FAR) ** 2)))) / 2)
