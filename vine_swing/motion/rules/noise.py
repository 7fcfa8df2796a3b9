"""Noise: seeded gradient noise in one dimension.

K. Perlin, "Improving noise" (2002): at every whole place of a lattice stands a slope drawn by chance, and between two of them
their straight lines are blended by 6x⁵ − 15x⁴ + 10x³, so that value, slope and bend go on smoothly. Chance is a hash of whole numbers
(S. Vigna's splitmix64), the same on every machine. Octaves are summed at twice the frequency and `roughness` times the size each,
and divided by the sum of their sizes: the result stays within ± amplitude. With `loop` the lattice is bent to a ring of a whole number
of places, so that it closes in value and slope.
"""

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.rules.integral import integral
from vine_swing.motion.rules.spec import AT_START, Array, Mode, RuleSpec, Settings, SettingSpec, Source, at_once, by_name, combined, number_or

Whole = NDArray[np.uint64]
Lattice = NDArray[np.int64]
_MOST_OCTAVES = 8
_BEGIN = np.array([[0x9E3779B9]], np.uint64)


def apply(source: Source, settings: Settings, mode: Mode, t: Array) -> Array:
    """The values with the noise on them."""
    seeds = number_or(settings, "seed", AT_START).astype(np.uint64)
    octaves = np.clip(np.round(number_or(settings, "octaves", AT_START, 1.0)), 1, _MOST_OCTAVES)
    roughness = number_or(settings, "roughness", t, 0.5)
    place, ring = _place(t, settings, source)
    total, sizes, size = np.zeros((1, 1)), np.zeros((1, 1)), np.ones((1, 1))
    for octave in range(int(octaves.max())):
        here = np.where(octave < octaves, size, 0.0)
        streams = _mixed(source.streams, seeds, np.full((1, 1), octave, np.uint64))
        total = total + here * _gradient_noise(place * 2**octave, streams, None if ring is None else ring * 2**octave)
        sizes, size = sizes + here, size * roughness
    return combined(mode, source.at(t), number_or(settings, "amplitude", t) * total / sizes)


def _place(t: Array, settings: Settings, source: Source) -> tuple[Array, Lattice | None]:
    """How far along the lattice each frame is, and after how many places (r, 1) it closes, if it does."""
    loop = settings.number("loop", AT_START)
    fps = source.timing.fps
    if loop is not None:
        frequency = np.abs(number_or(settings, "frequency", AT_START, 1.0))
        ring = np.maximum(1, np.round(frequency * loop / fps))
        return t * (ring / loop), ring.astype(np.int64)
    breaks = settings.breaks("frequency")
    if breaks is None:
        return number_or(settings, "frequency", t, 1.0) * t / fps, None
    return integral(lambda frames: number_or(settings, "frequency", frames, 1.0), t, breaks) / fps, None


def gradient_noise(places: Array, seed: int) -> Array:
    """Noise within −1…1 at places (n,) of the lattice of a seed, one change of mind to each whole place."""
    streams = _mixed(np.full((1, 1), seed & (2**64 - 1), np.uint64))
    noise: Array = _gradient_noise(places[None, :], streams, None)[0]
    return noise


def _gradient_noise(place: Array, streams: Whole, ring: Lattice | None) -> Array:
    """Noise within −1…1 at places (r, n) of a lattice."""
    # Where the lattice begins is chance too: all noises would be 0 together at its whole places.
    shifted = place + _chance(_BEGIN, streams)
    cell = np.floor(shifted)
    inside = shifted - cell
    first = cell.astype(np.int64)
    # A ring of a single place has two slopes, so that it still moves.
    left, right = (first, first + 1) if ring is None else (first % ring, (first + 1) % ring)
    a = (2 * _chance(left.astype(np.uint64), streams) - 1) * inside
    b = (2 * _chance(right.astype(np.uint64), streams) - 1) * (inside - 1)
    blend = inside**3 * (inside * (6 * inside - 15) + 10)
    # Two slopes of ±1 that meet half way reach a half.
    noise: Array = 2 * (a + (b - a) * blend)
    return noise


def _chance(places: Whole, streams: Whole) -> Array:
    """A number within 0…1 for each whole place (r, n) of some streams (r, 1)."""
    with np.errstate(over="ignore"):
        z = places * np.uint64(0x9E3779B97F4A7C15) + streams
        z = (z ^ (z >> np.uint64(30))) * np.uint64(0xBF58476D1CE4E5B9)
        z = (z ^ (z >> np.uint64(27))) * np.uint64(0x94D049BB133111EB)
        z ^= z >> np.uint64(31)
    return (z >> np.uint64(11)).astype(np.float64) / 2**53


def _mixed(*parts: Whole) -> Whole:
    """One whole number made of several, so that streams that differ in one of them have nothing to do with each other."""
    mixed = np.zeros((1, 1), np.uint64)
    with np.errstate(over="ignore"):
        for part in parts:
            mixed = (mixed ^ part) * np.uint64(0xD6E8FEB86659FD93)
            mixed = mixed ^ (mixed >> np.uint64(32))
    return mixed


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
    prepare=at_once(apply),
    summary="± {amplitude} · {frequency} · seed {seed}",
    telling={"amplitude": 30.0, "frequency": 2.0},
)
