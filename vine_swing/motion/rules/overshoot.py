"""Overshoot: passes each key it moves to and settles on it, by a share of the move.

After a move the value is off by size·change·sin(π·settles·τ)·(1 − τ)² over `frames`, brought to a height of `size` at its first peak: it leaves the
key the way it came and ends without a jerk. Where the next move follows at once, it passes and settles just before the key instead. At
the keys themselves nothing changes.
"""

from functools import lru_cache

import numpy as np

from vine_swing.motion.rules.spec import AT_START, Array, Mode, RuleSpec, Settings, SettingSpec, Source, by_name, number_of, stateless
from vine_swing.motion.timing.moves import MoveTable

_ENOUGH = 1 / 3


def apply(source: Source, settings: Settings, mode: Mode, t: Array) -> Array:
    """The values with the settling in them."""
    values = np.array(source.at(t))
    frames, size = number_of(settings, "frames", t), number_of(settings, "size", t)
    settles = max(1.0, float(np.round(number_of(settings, "settles", AT_START))[0, 0]))
    peak = _peak(settles)
    axis = 1 if source.channel == "y" else 0
    moves = MoveTable.of(source.keys, float(t.min()) - float(frames.max()), float(t.max()), axis=axis)
    if not moves.end.size:
        return values
    # Where moves settle never overlaps: a frame is in the settling of the last move that has ended or in that of the next one.
    ended = moves.passed(moves.end, t)
    for move in (ended, ended + 1):
        n = np.clip(move, 0, np.maximum(moves.counts - 1, 0))
        end, room, change = moves.at(moves.end, n), moves.at(moves.after, n), moves.at(moves.change, n)
        after = room >= frames * _ENOUGH
        long = np.where(after, np.minimum(frames, room), np.minimum(frames, (end - moves.at(moves.start, n)) / 2))
        tau = (t - np.where(after, end, end - long)) / np.maximum(long, 1e-9)
        inside = (move == n) & (tau > 0) & (tau < 1) & (change != 0)
        tau = np.where(inside, tau, 0.0)
        values += size * change * np.sin(np.pi * settles * tau) * (1 - tau) ** 2 / peak
    return values


@lru_cache(maxsize=64)
def _peak(settles: float) -> float:
    """The height of the first swing of sin(π·settles·u)·(1 − u)², where its derivative is 0: tan(π·settles·u) = π·settles·(1 − u)/2.

    Newton's method on u between 0 and 1/settles, from the top of the sine.
    """
    w = np.pi * settles
    u = min(0.5 / settles, 0.3)
    for _ in range(60):
        slope = w * np.cos(w * u) * (1 - u) - 2 * np.sin(w * u)
        bend = -w * w * np.sin(w * u) * (1 - u) - 3 * w * np.cos(w * u)
        u -= slope / bend
    return float(np.sin(w * u) * (1 - u) ** 2)


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
    prepare=stateless(apply),
    summary="{size} · {frames} · {settles}",
    example={"size": 0.3, "frames": 14.0},
)
