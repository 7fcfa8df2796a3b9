"""Steps: holds each value for some frames, as drawings on twos are held."""

import numpy as np

from vine_swing.motion.basics.rows import shrunk
from vine_swing.motion.rules.spec import Array, Mode, RuleSpec, Settings, SettingSpec, Source, by_name, number_of, stateless


def apply(source: Source, settings: Settings, mode: Mode, t: Array) -> Array:
    """The values read at floor((t − offset)/every)·every + offset."""
    every, offset = number_of(settings, "every", t), number_of(settings, "offset", t)
    # A hair is added so that 0.3/0.1 counts as three whole steps.
    return source.at(shrunk(np.floor((t - offset) / every + 1e-9) * every + offset))


SPEC = RuleSpec(
    kind="steps",
    label="Steps",
    about="Holds each pose for some frames: on twos, jumpy needles, clock hands.",
    settings=by_name(
        SettingSpec("every", "every", "frames", 2.0, 0.01, 100_000.0, usual=(1.0, 12.0), step=1.0, about="How many frames each value is held."),
        SettingSpec("offset", "offset", "frames", 0.0, -1e6, 1e6, usual=(0.0, 12.0), step=1.0, about="The frame a step begins at."),
    ),
    modes=(),
    prepare=stateless(apply),
    on_outlines="time",
    summary="every {every}",
    example={"every": 8.0},
)
