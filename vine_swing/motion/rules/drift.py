"""Drift: goes on by itself at some speed.

Adds ∫ speed dt from `start` on. On x and y the speed has a direction, and gravity adds ½·g·s² downwards. With friction the speed halves every
`friction` seconds. Speeds and directions with keys are integrated exactly.
"""

import numpy as np

from vine_swing.motion.rules.integral import integral
from vine_swing.motion.rules.spec import AT_START, Array, Mode, RuleSpec, Settings, SettingSpec, Source, by_name, number_of, stateless


def apply(source: Source, settings: Settings, mode: Mode, t: Array) -> Array:
    """The values with the way gone on them; before `start` they are as they were."""
    fps = source.timing.fps
    start = float(number_of(settings, "start", AT_START)[0, 0])
    friction = settings.number("friction", AT_START)
    half_life = None if friction is None else float(friction[0, 0]) * fps

    def speed(frames: Array) -> Array:
        """Return the gain per frame."""
        along = number_of(settings, "speed", frames) / fps * _share(source.channel, settings, frames)
        return along if half_life is None else along * 2.0 ** (-np.maximum(frames - start, 0) / half_life)

    breaks = [found for name in ("speed", "angle") if (found := settings.breaks(name)) is not None]
    since = np.maximum(t, start)
    if breaks or half_life is not None:
        corners = np.concatenate([np.array([start]), *breaks])
        gone = integral(speed, since, corners) - integral(speed, np.full((1, 1), start), corners)
    else:
        gone = speed(AT_START) * (since - start)
    if source.channel == "y":
        gone = gone + number_of(settings, "gravity", t) * ((since - start) / fps) ** 2 / 2
    so_far: Array = source.at(t) + gone
    return so_far


def _share(channel: str, settings: Settings, frames: Array) -> Array:
    """How much of the speed goes into a channel: all, or on x and y what its direction says."""
    if channel not in ("x", "y"):
        return np.ones((1, 1))
    angle = np.radians(number_of(settings, "angle", frames))
    return np.cos(angle) if channel == "x" else np.sin(angle)


SPEC = RuleSpec(
    kind="drift",
    label="Drift",
    about="Goes on by itself: clouds, a raft on the river, a coin that rolls out, a runner that crosses the picture.",
    settings=by_name(
        SettingSpec("speed", "speed", "/s", 100.0, usual=(-400.0, 400.0), step=1.0, about="How far it goes in a second, in px or degrees."),
        SettingSpec("angle", "angle", "°", 0.0, usual=(-180.0, 180.0), step=1.0, about="Which way it travels: 0° to the right, 90° down."),
        SettingSpec("start", "start", "frames", 0.0, usual=(0.0, 240.0), step=1.0, about="The frame it sets out at."),
        SettingSpec("friction", "friction", "s", None, 1e-3, None, usual=(0.1, 5.0), about="How many seconds until it is half as fast."),
        SettingSpec("gravity", "gravity", "px/s²", 0.0, usual=(0.0, 2000.0), step=10.0, about="How much it falls besides."),
    ),
    modes=(),
    prepare=stateless(apply),
    unbatched=True,
    summary="{speed} · {angle} · half in {friction}",
    example={"speed": 60.0},
)
