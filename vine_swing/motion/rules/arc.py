"""Arc: straight keyed travel becomes an arc, by a share of the distance.

Between two keys of x and y (or of the path) the way is moved sideways by bulge·4p(1 − p), times the distance and at a right angle to it: a
parabola, with p how far along the straight line the keys have brought it. At the keys themselves nothing changes.
"""

import numpy as np

from vine_swing.motion.moves import key_frames
from vine_swing.motion.rules.spec import Array, Mode, RuleSpec, Settings, SettingSpec, Source, at_once, by_name, number_or

_SIDES = {"left": 1.0, "right": -1.0}


def apply(source: Source, settings: Settings, mode: Mode, t: Array) -> Array:
    """x or y on the arc."""
    values = source.at(t)
    if source.channel not in ("x", "y"):
        return values
    x, y = source.beside("x"), source.beside("y")
    frames = np.unique(np.concatenate([key_frames(one.keys[0], float(t.min()), float(t.max()))[0] for one in (x, y)]))
    if len(frames) < 2:
        return values
    n = np.clip(np.searchsorted(frames, t[0], side="right") - 1, 0, len(frames) - 2)
    begin, end = frames[n], frames[n + 1]
    # The stretch's far end is read a hair before it, where a loop has not yet jumped back.
    hair = np.minimum(1e-7, (end - begin) / 4)
    (x0, x1, xt), (y0, y1, yt) = ((one.at(begin[None, :]), one.at((end - hair)[None, :]), one.at(t)) for one in (x, y))
    dx, dy = x1 - x0, y1 - y0
    distance = dx**2 + dy**2
    p = np.divide((xt - x0) * dx + (yt - y0) * dy, distance, out=np.zeros_like(distance), where=distance > 1e-12)
    inside = (t >= frames[0]) & (t <= frames[-1])
    sideways = dy if source.channel == "x" else -dx
    bulge = number_or(settings, "bulge", t) * _SIDES[settings.choice("side")]
    return values + np.where(inside, bulge * sideways * 4 * p * (1 - p), 0.0)


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
    prepare=at_once(apply),
    summary="{bulge}",
    telling={"bulge": 0.6},
    acts=("x", "y"),
    alone=True,
    besides=("x", "y", "path"),
)
