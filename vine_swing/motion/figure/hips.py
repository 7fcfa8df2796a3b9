"""How the hips go up and down in a step. In a walk along a cosine: lowest in `down`, highest in `up` (see marks.py). In a run along parabolas while
no foot is on the ground, as whatever flies does, and along a half wave that meets them while one is. Around a stance of a half the one goes over into
the other, so that one gait can be blended into another.
"""

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.figure.footfalls import smooth
from vine_swing.motion.figure.style import Style

Array = NDArray[np.float64]
#: Between these shares of stance a walk becomes a run.
_RUN, _WALK = 0.47, 0.53


def rise(step: Array, style: Style, groups: int) -> Array:
    """How far down the hips are, in px.

    Args:
        step: the phase from the landing of the leading leg on, (n,), in cycles.
        style: the settings there.
        groups: into how many groups of legs that land together the cycle is divided.
    """
    stance, bob = style.stance, style.bob
    heavy = 2 * np.pi * beats(groups) * (step - stance / 4)
    walk = bob / 2 * np.cos(heavy - 0.5 * style.weight * np.sin(heavy))
    run = running(stance, groups)
    if not np.any(run):
        return np.asarray(walk)
    each = 1 / groups
    share = np.minimum(stance, each * 0.999)
    at = step % each
    flight = each - share
    # As fast where the foot leaves as where the flight begins.
    high = bob / (1 + 4 * share / (np.pi * flight))
    u = np.clip((at - share) / flight, 0, 1)
    jump = np.where(at < share, (bob - high) * np.sin(np.pi * at / share), -4 * high * u * (1 - u)) + high - bob / 2
    return np.asarray(walk + run * (jump - walk))


def beats(groups: int) -> float:
    """How often in a cycle the hips go up and down."""
    return 1.0 if groups == 1 else 2.0


def running(stance: Array, groups: int) -> Array:
    """Whether there is a time with no foot on the ground, 0…1."""
    each = 1 / groups
    return smooth((_WALK * 2 * each - stance) / ((_WALK - _RUN) * 2 * each)) if groups <= 2 else np.zeros(1)
