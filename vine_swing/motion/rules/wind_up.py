"""Wind-up: a dip against each keyed move before it starts, a share of the move in size.

The dip is −size·change·(27/4)·τ²(1 − τ) over `frames` of the stillness before the move: it begins gently, is deepest after two thirds, and
releases right into the move. Where there is no stillness before a move, as at the first frame of a scene, the dip is in
the move's beginning. At the keys themselves nothing changes.
"""

import numpy as np

from vine_swing.motion.rules.spec import Array, Mode, RuleSpec, Settings, SettingSpec, Source, by_name, number_of, stateless
from vine_swing.motion.timing.moves import MoveTable

#: Less stillness than this share of the dip is not enough for it.
_ENOUGH = 1 / 3


def apply(source: Source, settings: Settings, mode: Mode, t: Array) -> Array:
    """The values with the dips in them."""
    values = np.array(source.at(t))
    frames, size = number_of(settings, "frames", t), number_of(settings, "size", t)
    axis = 1 if source.channel == "y" else 0
    moves = MoveTable.of(source.keys, float(t.min()), float(t.max()) + float(frames.max()), axis=axis)
    if not moves.start.size:
        return values
    # Dips of different moves never overlap: a frame is in that of the move under way or in that of the next one.
    under_way = moves.passed(moves.start, t)
    for move in (under_way, under_way + 1):
        n = np.clip(move, 0, np.maximum(moves.counts - 1, 0))
        start, room, change = moves.at(moves.start, n), moves.at(moves.before, n), moves.at(moves.change, n)
        before = room >= frames * _ENOUGH
        long = np.where(before, np.minimum(frames, room), np.minimum(frames, (moves.at(moves.end, n) - start) / 2))
        tau = (t - np.where(before, start - long, start)) / np.maximum(long, 1e-9)
        inside = (move == n) & (tau > 0) & (tau < 1) & (change != 0)
        tau = np.where(inside, tau, 0.0)
        values -= size * change * 6.75 * tau**2 * (1 - tau)
    return values


SPEC = RuleSpec(
    kind="wind-up",
    label="Wind-up",
    about="Anticipation: dips back before each keyed move, so that one sees it coming.",
    settings=by_name(
        SettingSpec(
            "size", "size", "of the move", 0.2, -5.0, 5.0, usual=(0.0, 0.6), step=0.01, about="How far back, as a share of the move that follows."
        ),
        SettingSpec("frames", "frames", "frames", 8.0, 0.5, 1e4, usual=(2.0, 24.0), step=1.0, about="How long the dip takes."),
    ),
    modes=(),
    prepare=stateless(apply),
    summary="{size} · {frames}",
    example={"size": 0.3, "frames": 10.0},
)
