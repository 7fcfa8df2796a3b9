"""Overshoot: passes each key it moves to and settles on it, by a share of the move.

After a move the value is off by size·change·sin(π·settles·τ)·(1 − τ)² over `frames`, brought to a height of `size` at its first peak: it leaves the
key the way it came and ends without a jerk. Where the next move follows at once, it passes and settles just before the key instead. At
the keys themselves nothing changes.
"""

import numpy as np
from scipy.optimize import minimize_scalar

from vine_swing.motion.moves import keyed_moves
from vine_swing.motion.rules.spec import AT_START, Array, Mode, RuleSpec, Settings, SettingSpec, Source, at_once, by_name, number_or

_ENOUGH = 1 / 3


def apply(source: Source, settings: Settings, mode: Mode, t: Array) -> Array:
    """The values with the settling in them."""
    values = np.array(source.at(t))
    frames, size = number_or(settings, "frames", t), number_or(settings, "size", t)
    settles = max(1.0, float(np.round(number_or(settings, "settles", AT_START, 2.0))[0, 0]))
    peak = _peak(settles)
    moves = keyed_moves(source.keys[0], float(t.min()) - float(frames.max()), float(t.max()))
    for start, end, change, room in zip(moves.start, moves.end, moves.change, moves.after, strict=True):
        after = room >= frames * _ENOUGH
        long = np.where(after, np.minimum(frames, room), np.minimum(frames, (end - start) / 2))
        tau = (t - np.where(after, end, end - long)) / np.maximum(long, 1e-9)
        inside = (tau > 0) & (tau < 1)
        tau = np.clip(tau, 0, 1)
        values += np.where(inside, size * change * np.sin(np.pi * settles * tau) * (1 - tau) ** 2 / peak, 0.0)
    return values


def _peak(settles: float) -> float:
    """The height of the first swing of sin(π·settles·τ)·(1 − τ)²."""
    found = minimize_scalar(
        lambda u: -np.sin(np.pi * settles * u) * (1 - u) ** 2, bounds=(0, 1 / settles), method="bounded", options={"xatol": 1e-12}
    )
    return float(-found.fun)


SPEC = RuleSpec(
    kind="overshoot",
    label="Overshoot",
    about="Shoots past where it was going and settles there: tails, doors, quick turns.",
    settings=by_name(
        SettingSpec("size", "size", "of the move", 0.15, -5.0, 5.0, usual=(0.0, 0.6), step=0.01, about="How far past, as a share of the move."),
        SettingSpec("frames", "frames", "frames", 12.0, 0.5, 1e4, usual=(2.0, 48.0), step=1.0, about="How long it takes to settle."),
        SettingSpec(
            "settles",
            "settles",
            "times",
            2.0,
            1.0,
            20.0,
            usual=(1.0, 6.0),
            step=1.0,
            about="How often it passes its place: 1 only comes back.",
            shared=True,
        ),
    ),
    modes=(),
    prepare=at_once(apply),
    summary="{size} · {frames} · {settles}",
    telling={"size": 0.3, "frames": 14.0},
    alone=True,
)
