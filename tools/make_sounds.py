"""Makes the sounds that ship with the program, into vine_swing/sounds: `python -m tools.make_sounds`.

A hollow log is struck (decaying tones at the resonances of a closed tube, and a knock of noise), rain falls (noise in two bands, and single drops),
and two birds call (sine tones whose pitch glides).
"""

import io
from pathlib import Path

import av
import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
FOLDER = Path(__file__).resolve().parents[1] / "vine_swing" / "sounds"
RATE = 24_000
#: The log drum: beats a minute, and what is struck when, in beats: (beat, which end of the log, how hard).
PACE, BARS = 120.0, 4
PATTERN = ((0.0, "low", 1.0), (1.0, "high", 0.7), (2.0, "low", 0.85), (3.0, "high", 0.7))
FILL = ((0.0, "low", 1.0), (1.0, "high", 0.7), (2.0, "low", 0.85), (3.0, "high", 0.7), (3.5, "high", 0.6))


def stroke(pitch: float, hard: float) -> Array:
    """One stroke on a hollow log: (n,) samples."""
    t = np.arange(round(0.45 * RATE)) / RATE
    # A tube closed at one end sounds at 1, 3 and 5 times its pitch; higher ones die away sooner.
    tones = sum(
        share * np.sin(2 * np.pi * pitch * times * t) * np.exp(-t * fall) for times, share, fall in ((1, 1.0, 11), (3, 0.4, 22), (5, 0.2, 38))
    )
    knock = np.random.default_rng(round(pitch)).normal(size=len(t)) * np.exp(-t * 160) * 0.25
    sound: Array = hard * (tones + knock) * np.minimum(1, t / 0.002)
    return sound


def log_drum() -> Array:
    """Four bars that loop without a seam."""
    beat = 60 / PACE
    result = np.zeros(round(BARS * 4 * beat * RATE))
    for bar in range(BARS):
        for at, end, hard in FILL if bar == BARS - 1 else PATTERN:
            item = stroke(98.0 if end == "low" else 165.0, hard)
            rows = (round((bar * 4 + at) * beat * RATE) + np.arange(len(item))) % len(result)
            result[rows] += item
    return result


def rain() -> Array:
    """Rain on broad leaves, ten seconds."""
    from scipy.signal import butter, sosfilt

    dice, count = np.random.default_rng(5), 10 * RATE
    hiss = sosfilt(butter(2, (900, 7000), "bandpass", fs=RATE, output="sos"), dice.normal(size=count)) * 0.12
    gusts = 0.8 + 0.2 * np.sin(2 * np.pi * np.arange(count) / count * 3)
    result: Array = hiss * gusts
    for at in dice.integers(0, count, 260):
        t = np.arange(round(0.05 * RATE)) / RATE
        drop = np.sin(2 * np.pi * dice.uniform(700, 2600) * t * (1 + 3 * t)) * np.exp(-t * 110) * dice.uniform(0.05, 0.35)
        result[(at + np.arange(len(drop))) % count] += drop
    return result


def bird_calls() -> Array:
    """Two birds: one calls three notes that fall, the other answers with two that rise. Eight seconds."""
    result = np.zeros(8 * RATE)

    def sing(at: float, notes: tuple[tuple[float, float, float, float], ...], loud: float) -> None:
        for begin, long, low, high in notes:
            t = np.arange(round(long * RATE)) / RATE
            pitch = low + (high - low) * t / long + 60 * np.sin(2 * np.pi * 28 * t)
            shape = np.sin(np.pi * t / long) ** 0.6
            row = round((at + begin) * RATE)
            result[row : row + len(t)] += loud * shape * np.sin(2 * np.pi * np.cumsum(pitch) / RATE)

    for at in (0.3, 4.2):
        sing(at, ((0.0, 0.22, 3100, 2500), (0.3, 0.22, 2900, 2300), (0.62, 0.4, 2600, 1900)), 0.5)
    for at in (2.3, 6.2):
        sing(at, ((0.0, 0.16, 3600, 4400), (0.24, 0.3, 3800, 4900)), 0.32)
    return result


def write(name: str, samples: Array, codec: str, **options: str) -> None:
    """Encode one channel of samples, as loud as full scale allows."""
    loud = (samples / np.abs(samples).max() * 0.9 * 32767).astype("<i2")
    written = io.BytesIO()
    with av.open(written, "w", format=name.rpartition(".")[2]) as file:
        stream = file.add_stream(codec, rate=RATE, layout="mono")
        assert isinstance(stream, av.AudioStream)
        stream.options = options
        resampler = av.AudioResampler(format=stream.format, layout="mono", rate=RATE, frame_size=960 if codec == "libopus" else 4096)
        frame = av.AudioFrame.from_ndarray(loud[None, :], format="s16", layout="mono")
        frame.sample_rate, frame.pts = RATE, 0
        for part in [*resampler.resample(frame), *resampler.resample(None)]:
            file.mux(stream.encode(part))
        file.mux(stream.encode(None))
    (FOLDER / name).write_bytes(written.getvalue())
    print(f"{name}: {len(written.getvalue()) / 1e3:.0f} kB, {len(samples) / RATE:g} s")


def main() -> None:
    """Make all of them."""
    write("log-drum.flac", log_drum(), "flac")
    write("rain.ogg", rain(), "libopus", b="40000")
    write("bird-calls.ogg", bird_calls(), "libopus", b="32000")


if __name__ == "__main__":
    main()
