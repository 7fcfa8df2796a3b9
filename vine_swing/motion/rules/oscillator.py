"""Oscillator: adds a wave.

A·2^(−s/half_life)·w(φ) with s the seconds since `start` and φ = phase/360 + ∫ frequency dt in turns. The integral makes
the phase go on smoothly when the frequency is keyed: the wave changes its pace and never jumps.
"""

from collections.abc import Callable

import numpy as np

from vine_swing.motion.basics.rows import shrunk
from vine_swing.motion.rules.integral import integral
from vine_swing.motion.rules.spec import Array, Mode, RuleSpec, Settings, SettingSpec, Source, Timing, by_name, combined, number_of, stateless

WAVES: dict[str, Callable[[Array], Array]] = {
    "sine": lambda turns: np.sin(2 * np.pi * turns),
    "cosine": lambda turns: np.cos(2 * np.pi * turns),
    # 0 at the beginning, up first.
    "triangle": lambda turns: 1 - np.abs((4 * turns + 1) % 4 - 2),
    # + for the first half.
    "square": lambda turns: np.where(turns % 1 < 0.5, 1.0, -1.0),
    "sawtooth": lambda turns: 2 * (turns % 1) - 1,
}


def apply(source: Source, settings: Settings, mode: Mode, t: Array) -> Array:
    """The values with the wave on them; before `start` they are as they were."""
    so_far, timing = source.at(t), source.timing
    # What swings alike is computed once.
    begin = shrunk(number_of(settings, "start", t))
    seconds = (t - begin) / timing.fps
    wave = shrunk(number_of(settings, "amplitude", t)) * WAVES[settings.choice("wave")](_turns(t, begin, settings, timing))
    half_life = settings.number("half_life", t)
    if half_life is not None:
        wave = wave * 2.0 ** (-np.maximum(seconds, 0) / half_life)
    low, high = settings.number("low", t), settings.number("high", t)
    if low is not None:
        wave = np.maximum(wave, low)
    if high is not None:
        wave = np.minimum(wave, high)
    after = combined(mode, so_far, wave)
    begun = seconds >= 0
    return after if mode != "replace" and begun.all() else np.where(begun, after, so_far)


def _turns(t: Array, begin: Array, settings: Settings, timing: Timing) -> Array:
    offset = shrunk(number_of(settings, "phase", t)) / 360
    cycles = settings.number("cycles", t)
    if cycles is not None:
        return offset + np.round(cycles) * (t - begin) / timing.length
    breaks = settings.breaks("frequency")
    if breaks is None:
        return offset + shrunk(number_of(settings, "frequency", t)) * (t - begin) / timing.fps

    def frequency_at(frames: Array) -> Array:
        return number_of(settings, "frequency", frames)

    return offset + (integral(frequency_at, t, breaks) - integral(frequency_at, begin, breaks)) / timing.fps


SPEC = RuleSpec(
    kind="oscillator",
    label="Oscillator",
    about="Swings to and fro for ever, or dies down: leaves, lamps, signs, breathing.",
    settings=by_name(
        SettingSpec("wave", "wave", "", "sine", choices=tuple(WAVES), about="The shape of one swing."),
        SettingSpec("amplitude", "amplitude", "as the channel", 10.0, usual=(0.0, 100.0), about="How far it swings to each side."),
        SettingSpec("frequency", "frequency", "Hz", 1.0, -240.0, 240.0, usual=(0.0, 6.0), about="Swings per second."),
        SettingSpec("phase", "phase", "°", 0.0, usual=(0.0, 360.0), step=1.0, about="Where in the swing it begins; 90° begins a sine at its peak."),
        SettingSpec("start", "start", "frames", 0.0, usual=(0.0, 240.0), step=1.0, about="The frame it begins at."),
        SettingSpec("half_life", "half-life", "s", None, 1e-6, None, usual=(0.05, 5.0), about="How many seconds until it swings half as far."),
        SettingSpec("low", "low", "as the channel", None, usual=(-100.0, 0.0), about="The least it adds."),
        SettingSpec("high", "high", "as the channel", None, usual=(0.0, 100.0), about="The most it adds."),
        SettingSpec(
            "cycles",
            "whole cycles",
            "per scene",
            None,
            usual=(1.0, 24.0),
            step=1.0,
            about="Whole swings over the scene, so that a loop closes; in place of frequency.",
        ),
    ),
    modes=("add", "multiply", "replace"),
    prepare=stateless(apply),
    summary="± {amplitude} · {cycles|frequency} · half in {half_life}",
    example={"amplitude": 20.0, "frequency": 1.5},
)
