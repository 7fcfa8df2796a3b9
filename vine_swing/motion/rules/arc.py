"""Arc: straight keyed travel becomes an arc, by a share of the distance.

Between two keys of x and y (or of the path) the way is moved sideways by bulge·4p(1 − p), times the distance and at a right angle to it: a
parabola, with p how far along the straight line the keys have brought it. At the keys themselves nothing changes.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics.rows import shrunk
from vine_swing.motion.rules.spec import Array, Mode, Read, RuleSpec, Settings, SettingSpec, Source, by_name, number_of
from vine_swing.motion.timing.channel import Channel
from vine_swing.motion.timing.moves import key_frames

_SIDES = {"left": 1.0, "right": -1.0}


def prepare(source: Source, settings: Settings, mode: Mode) -> Read:
    """x or y on the arc."""
    if source.channel not in ("x", "y"):
        return source.at
    x, y = source.own_keyed("x"), source.own_keyed("y")
    side = _SIDES[settings.choice("side")]

    def read(t: Array) -> Array:
        values = source.at(t)
        straight = _straight(x, y, t)
        if straight is None:
            return values
        sideways, p = (straight.dy, straight.p) if source.channel == "x" else (-straight.dx, straight.p)
        return values + np.where(straight.inside, number_of(settings, "bulge", t) * side * sideways * 4 * p * (1 - p), 0.0)

    return read


@dataclass(frozen=True)
class _Straight:
    """The straight lines between keys that some frames are on, each (r, n): from key to key by dx and dy, p of it gone; `inside`: between keys."""

    dx: Array
    dy: Array
    p: Array
    inside: NDArray[np.bool_]


def _straight(x: Source, y: Source, t: Array) -> _Straight | None:
    """Where frames t (1 or r, n) lie between the keys of x and y; None where no row has two."""
    frames = [_frames(*both, t) for both in zip(x.keys, y.keys, strict=True)]
    most = max(map(len, frames))
    if most < 2:
        return None
    rows = len(frames)
    # Rows with fewer keys are filled up behind their last one; nothing lies there.
    edges = np.stack([np.pad(some if len(some) else np.zeros(1), (0, most - max(len(some), 1)), mode="edge") for some in frames])
    last = np.array([max(len(some) - 2, 0) for some in frames])[:, None]
    hair = np.minimum(1e-7, np.diff(edges) / 4)
    # Every stretch is read once at both ends; the far one a hair before it, where a loop has not yet jumped back.
    both = shrunk(np.concatenate([edges[:, :-1], edges[:, 1:] - hair], axis=1))
    (x0, x1), (y0, y1) = (np.split(np.broadcast_to(one.at(both), (rows, both.shape[1])), 2, axis=1) for one in (x, y))
    n = np.empty((rows, t.shape[1]), np.intp)
    for row, some in enumerate(frames):
        n[row] = np.searchsorted(some, t[row % len(t)], side="right") - 1
    n = np.clip(n, 0, last)
    at = np.arange(rows)[:, None]
    dx, dy, start_x, start_y = (x1 - x0)[at, n], (y1 - y0)[at, n], x0[at, n], y0[at, n]
    distance = dx**2 + dy**2
    gone = (x.at(t) - start_x) * dx + (y.at(t) - start_y) * dy
    p = np.divide(gone, distance, out=np.zeros_like(distance), where=distance > 1e-12)
    enough = np.array([len(some) > 1 for some in frames])[:, None]
    between = (t > edges[at, n]) & (t < edges[at, n + 1])
    return _Straight(dx, dy, p, enough & between)


def _frames(x: Channel, y: Channel, t: Array) -> Array:
    low, high = float(t.min()), float(t.max())
    return np.unique(np.concatenate([key_frames(one, low, high)[0] for one in (x, y)]))


SPEC = RuleSpec(
    kind="arc",
    label="Arc",
    about="Bends straight keyed travel into an arc: throws, hops, heads that turn.",
    settings=by_name(
        SettingSpec(
            "bulge",
            "bulge",
            "of the way",
            0.25,
            -10.0,
            10.0,
            usual=(0.0, 1.0),
            step=0.01,
            about="How far to the side at the middle, as a share of the distance.",
        ),
        SettingSpec("side", "side", "", "left", choices=tuple(_SIDES), about="To which side, seen in the direction of travel."),
    ),
    modes=(),
    prepare=prepare,
    summary="{bulge}",
    example={"bulge": 0.6},
    for_channels=("x", "y"),
    own_keys_read=("x", "y", "path"),
)
