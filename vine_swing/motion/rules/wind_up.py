"""Wind-up: a dip against each keyed move before it starts, a share of the move in size.

The dip is −size·change·(27/4)·τ²(1 − τ) over `frames` of the stillness before the move: it begins gently, is deepest after two thirds, and
lets go right into the move. Where there is no stillness before a move, as at the first frame of a scene, the dip lies in
the move's beginning. At the keys themselves nothing changes.
"""

import numpy as np

from vine_swing.motion.moves import keyed_moves
from vine_swing.motion.rules.spec import Array, Mode, RuleSpec, Settings, SettingSpec, Source, at_once, by_name, number_or

#: Less stillness than this share of the dip is not enough for it.
_ENOUGH = 1 / 3


def apply(source: Source, settings: Settings, mode: Mode, t: Array) -> Array:
    """The values with the dips in them."""
    values = np.array(source.at(t))
    frames, size = number_or(settings, "frames", t), number_or(settings, "size", t)
    moves = keyed_moves(source.keys[0], float(t.min()), float(t.max()) + float(frames.max()))
    for start, end, change, room in zip(moves.start, moves.end, moves.change, moves.before, strict=True):
        before = room >= frames * _ENOUGH
        long = np.where(before, np.minimum(frames, room), np.minimum(frames, (end - start) / 2))
        tau = (t - np.where(before, start - long, start)) / np.maximum(long, 1e-9)
        inside = (tau > 0) & (tau < 1)
        values -= np.where(inside, size * change * 6.75 * tau**2 * (1 - tau), 0.0)
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
    prepare=at_once(apply),
    summary="{size} · {frames}",
    telling={"size": 0.3, "frames": 10.0},
    alone=True,
)
