"""Retime: reads the channel earlier or later, faster or slower; its keys stay put.

At frame t it reads at ∫ speed from `delay` to t: with speed 1 that is t − delay, with a keyed speed the time that has run by then.
"""

from vine_swing.motion.basics.rows import shrunk
from vine_swing.motion.rules.integral import integral
from vine_swing.motion.rules.spec import Array, Mode, RuleSpec, Settings, SettingSpec, Source, by_name, number_of, stateless


def apply(source: Source, settings: Settings, mode: Mode, t: Array) -> Array:
    """The values read at the frames that the running time has reached."""
    delay = number_of(settings, "delay", t)
    breaks = settings.breaks("speed")
    if breaks is None:
        return source.at(shrunk(number_of(settings, "speed", t) * (t - delay)))

    def speed(frames: Array) -> Array:
        return number_of(settings, "speed", frames)

    return source.at(shrunk(integral(speed, t, breaks) - integral(speed, delay, breaks)))


SPEC = RuleSpec(
    kind="retime",
    label="Retime",
    about="Later, earlier, faster or slower, while the keys stay put: echoes, slow motion, a file of ants.",
    settings=by_name(
        SettingSpec(
            "delay",
            "delay",
            "frames",
            0.0,
            -1e6,
            1e6,
            usual=(-48.0, 48.0),
            step=1.0,
            about="How many frames later it all happens; earlier if below 0.",
        ),
        SettingSpec(
            "speed",
            "speed",
            "×",
            1.0,
            -100.0,
            100.0,
            usual=(0.0, 3.0),
            about="1 is as keyed, 0.5 half as fast, 0 stands still, below 0 runs backwards.",
        ),
    ),
    modes=(),
    prepare=stateless(apply),
    on_outlines="time",
    summary="{delay} later · {speed}",
    example={"delay": 10.0},
)
