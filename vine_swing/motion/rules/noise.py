"""Noise: seeded gradient noise in one dimension.

Octaves are summed at twice the frequency and `roughness` times the size each,
and divided by the sum of their sizes: the result stays within ± amplitude. With `loop` the lattice is bent to a ring of a whole number
of places, so that it closes in value and slope.
"""

import numpy as np

from vine_swing.motion.basics.chance import Lattice, lattice_noise, mixed
from vine_swing.motion.rules.integral import integral
from vine_swing.motion.rules.spec import AT_START, Array, Mode, RuleSpec, Settings, SettingSpec, Source, by_name, combined, number_of, stateless

_MOST_OCTAVES = 8


def apply(source: Source, settings: Settings, mode: Mode, t: Array) -> Array:
    """The values with the noise on them."""
    seeds = number_of(settings, "seed", AT_START).astype(np.uint64)
    octaves = np.clip(np.round(number_of(settings, "octaves", AT_START)), 1, _MOST_OCTAVES)
    roughness = number_of(settings, "roughness", t)
    place, ring = _place(t, settings, source)
    total: Array = np.zeros((1, 1))
    sizes, size = np.zeros((1, 1)), np.ones((1, 1))
    for octave in range(int(octaves.max())):
        here = np.where(octave < octaves, size, 0.0)
        streams = mixed(source.streams, seeds, np.full((1, 1), octave, np.uint64))
        noise = lattice_noise(place * 2**octave, streams, None if ring is None else ring * 2**octave)
        noise *= here
        total = total + noise
        sizes, size = sizes + here, size * roughness
    total *= number_of(settings, "amplitude", t)
    total /= sizes
    return combined(mode, source.at(t), total)


def _place(t: Array, settings: Settings, source: Source) -> tuple[Array, Lattice | None]:
    """How far along the lattice each frame is, and after how many places (r, 1) it closes, if it does."""
    loop = settings.number("loop", AT_START)
    fps = source.timing.fps
    if loop is not None:
        frequency = np.abs(number_of(settings, "frequency", AT_START))
        ring = np.maximum(1, np.round(frequency * loop / fps))
        return t * (ring / loop), ring.astype(np.int64)
    breaks = settings.breaks("frequency")
    if breaks is None:
        return number_of(settings, "frequency", t) * t / fps, None
    return integral(lambda frames: number_of(settings, "frequency", frames), t, breaks) / fps, None


SPEC = RuleSpec(
    kind="noise",
    label="Noise",
    about="Wanders without repeating: wind in leaves, hovering, a trembling paw.",
    settings=by_name(
        SettingSpec("amplitude", "amplitude", "as the channel", 10.0, usual=(0.0, 100.0), about="The most it strays to each side."),
        SettingSpec("frequency", "frequency", "Hz", 1.0, 0.0, 240.0, usual=(0.0, 8.0), about="How often it changes its mind in a second."),
        SettingSpec(
            "octaves", "octaves", "", 2.0, 1.0, float(_MOST_OCTAVES), usual=(1.0, 8.0), step=1.0, about="How many finer tremblings lie on the first."
        ),
        SettingSpec(
            "roughness", "roughness", "", 0.5, 0.0, 1.0, usual=(0.0, 1.0), about="How strong each finer trembling is against the one before."
        ),
        SettingSpec(
            "seed", "seed", "", 1.0, 0.0, 1e9, usual=(1.0, 100.0), step=1.0, about="Another number, another chance; the same number, the same motion."
        ),
        SettingSpec("loop", "loop", "frames", None, 1.0, 1e6, usual=(12.0, 240.0), step=1.0, about="Close after so many frames, in value and slope."),
    ),
    modes=("add", "multiply", "replace"),
    prepare=stateless(apply),
    summary="± {amplitude} · {frequency} · seed {seed}",
    example={"amplitude": 30.0, "frequency": 2.0},
)
