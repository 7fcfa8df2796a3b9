"""How loud a sound is in each frame, in all or in a band of it."""

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
#: Bands and their edges, Hz: drums and bass, voices, cymbals and hiss.
BANDS: dict[str, tuple[float | None, float | None]] = {"all": (None, None), "low": (None, 250.0), "middle": (250.0, 2000.0), "high": (2000.0, None)}
#: Seconds in which a level usually follows a rise and a fall: at once where something is struck, and as long as it is seen to die away.
ATTACK, RELEASE = 0.02, 0.15
#: Order of the Butterworth filters that cut bands out.
_ORDER = 4


def loudness(samples: NDArray[np.floating], rate: float, fps: float) -> Array:
    """The root mean square of a sound, (n,) samples at `rate` Hz, in each frame it touches: (frames,).

    Frame f is the samples from f/fps up to, but without, (f + 1)/fps; the last may be shorter.
    """
    if not len(samples):
        return np.zeros(0)
    count = max(1, int(np.ceil(len(samples) * fps / rate - 1e-9)))
    edges = np.minimum(np.round(np.arange(count + 1) * rate / fps).astype(np.int64), len(samples))
    # The zero at the end lets a last frame begin after the last sample, where rounding moved it there, without affecting the frame before it.
    squares = np.zeros(len(samples) + 1)
    np.square(samples, out=squares[:-1], dtype=np.float64)
    sums = np.add.reduceat(squares, edges[:-1])
    # A frame without a sample, as where there are more frames than samples, has the level of the sample next to it.
    sums[edges[:-1] == len(samples)] = squares[-2]
    found: Array = np.sqrt(sums / np.maximum(edges[1:] - edges[:-1], 1))
    return found


def level(samples: NDArray[np.floating], rate: float, fps: float, *, band: str = "all", attack: float = 0.0, release: float = 0.0) -> Array:
    """How loud a band of a sound is in each frame, as a share of its own loudest frame: (frames,), 0…1.

    attack, release: the seconds in which it follows a rise and a fall by 1 − 1/e of the way (one-pole smoothing); 0 for at once.

    Raises:
        KeyError: if the band does not exist.
    """
    found = _followed(loudness(_cut(samples, rate, *BANDS[band]), rate, fps), fps, attack, release)
    most = found.max(initial=0.0)
    # Levels 120 dB below full scale are silence.
    return found / most if most > 1e-6 else np.zeros_like(found)


def _cut(samples: NDArray[np.floating], rate: float, low: float | None, high: float | None) -> NDArray[np.floating]:
    """The part of a sound between two frequencies, Hz; None where it is not cut."""
    from scipy.signal import butter, sosfilt

    if low is not None and low >= rate / 2:
        return np.zeros_like(samples)
    found = samples
    if low is not None:
        found = sosfilt(butter(_ORDER, low, "highpass", fs=rate, output="sos"), found)
    if high is not None and high < rate / 2:
        found = sosfilt(butter(_ORDER, high, "lowpass", fs=rate, output="sos"), found)
    return found


def _followed(values: Array, fps: float, attack: float, release: float) -> Array:
    if attack <= 0 and release <= 0:
        return values
    rising, falling = (1.0 if seconds <= 0 else 1 - np.exp(-1 / (fps * seconds)) for seconds in (attack, release))
    followed, now = np.empty_like(values), 0.0
    for frame, value in enumerate(values):
        now += (value - now) * (rising if value > now else falling)
        followed[frame] = now
    return followed
