"""Motion of hips, back, arms, head and tails in a walk on level ground, before the hips follow the ground and the feet."""

from collections.abc import Callable
from functools import cache

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.figure.hips import beats, rise
from vine_swing.motion.figure.model import HEAD, HIPS, SPINE, Limb
from vine_swing.motion.figure.style import Style
from vine_swing.motion.figure.walk_plan import WalkPlan

Array = NDArray[np.float64]
#: How far, as shares of the leg, the hips sink with `knee` and with `weight`.
_KNEE, _WEIGHT = 0.25, 0.03
#: Cycles over which the hips sink after a stand and rise before one.
_SINK = 0.2


def upper_body(plan: WalkPlan, t: Array, phase: Array, style: Style, sunk: Array) -> dict[str, Array]:
    """Return the offsets of hip, back, arm, head and tail channels at frames t (n,), by name.

    `phase` and `style` are those at these frames, and `sunk` (n,) or (1,) how far the hips are lowered on average, in px. All that is attached to the
    hips drags behind by `overlap` frames and more.
    """
    figure, stance = plan.inputs.figure, style.stance
    walking = plan.walking_at(t, phase)
    step = phase + plan.ahead + stance / 2
    sunk = np.broadcast_to(sunk, t.shape) + figure.leg_length * (_KNEE * style.knee + _WEIGHT * style.weight)
    up_down = rise(step, style, plan.groups)
    wave = np.cos(2 * np.pi * beats(plan.groups) * (step - stance / 4))
    found = {f"{HIPS}.y": plan.walking_at(t, phase, over=_SINK) * sunk + walking * up_down, f"{HIPS}.turn": walking * style.sway * wave}
    found[f"{SPINE}.turn"] = walking * (style.lean - 1.3 * style.sway * wave)
    late = float(np.mean(plan.style.overlap))
    # Phase and share of walking some frames ago, by how many times the overlap; most of a body shares these.
    ago = cache(lambda times: _phase_and_walking(plan, t - late * times) if times and late else (phase, walking))
    if figure.head:
        then, going = ago(1)
        nod = np.cos(2 * np.pi * beats(plan.groups) * (then - phase + step - stance / 4))
        found[f"{HEAD}.turn"] = going * (-0.75 * style.lean + 0.8 * style.sway * nod + 0.12 * style.bob * nod)
    for arm in (limb for limb in figure.limbs if limb.kind == "arm"):
        found |= _arm(arm, style, step - phase, ago)
    for chain in figure.chains:
        links = len(chain.joints) - 1
        for n in range(1, links + 1):
            then, going = ago(n + 1)
            swing = np.cos(2 * np.pi * beats(plan.groups) * (then + step - phase - stance / 4))
            found[f"{chain.id}.{n}"] = going * style.tail * swing / links**0.5
    return found


def _phase_and_walking(plan: WalkPlan, t: Array) -> tuple[Array, Array]:
    """The cycles gone at frames t (n,), and how much it walks."""
    phase = plan.phase_at(t)
    return phase, plan.walking_at(t, phase)


def _arm(arm: Limb, style: Style, ahead: Array, ago: Callable[[int], tuple[Array, Array]]) -> dict[str, Array]:
    """An arm swings against the leg of its side; the forearm comes after the upper arm, the hand after that."""
    side = 0.0 if arm.side == "near" else 0.5
    turns = [np.cos(2 * np.pi * (ago(n)[0] + ahead + side)) for n in range(3)]
    first, swing = ago(0)[1], style.arm_swing
    return {
        f"{arm.id}.upper": first * (swing * turns[0] - 0.15 * style.elbow),
        # The elbow bends one way only: most when the arm is in front.
        f"{arm.id}.lower": -first * (style.elbow + swing * 0.45 * (1 - turns[1])),
        f"{arm.id}.end": first * swing * 0.3 * turns[2],
    }
