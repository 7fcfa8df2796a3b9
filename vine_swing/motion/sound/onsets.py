"""Where something begins in a sound: a stroke of a drum, a note, a word."""

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
#: Seconds of the windows that are compared, and from one to the next.
_WINDOW, _HOP = 0.023, 0.005
#: An onset stands out from the median of its surroundings, ± seconds, by this share of the strongest; and is this far from the next, seconds.
_AROUND, _SHARE, _GAP = 0.25, 0.1, 0.06
#: How strongly quiet parts count: spectra are compared as log(1 + gain · magnitude), of a sound whose loudest sample is 1.
_GAIN = 2.0
#: Windows computed together, so that a long sound takes little memory.
_AT_ONCE = 8192
#: What is quieter than this, of full scale 1, is silence: −60 dB.
_SILENCE = 1e-3


def onsets(samples: NDArray[np.floating], rate: float) -> Array:
    """The moments at which something begins, (k,) seconds, of a sound of (n,) samples at `rate` Hz.

    Spectral flux: the length of all rises from one short spectrum to the next; its peaks are onsets where they stand out from the median around them
    (Bello et al., "A Tutorial on Onset Detection in Music Signals", IEEE Transactions on Speech and Audio Processing 13, 2005).
    """
    window, hop = max(16, round(_WINDOW * rate)), max(1, round(_HOP * rate))
    loudest = np.abs(samples).max(initial=0.0)
    if loudest < _SILENCE:
        return np.zeros(0)
    # A window of silence before it, so that what is there from the first sample begins too.
    padded = np.concatenate([np.zeros(window), samples / loudest, np.zeros(window)])
    flux = _flux(padded, window, hop)
    around = 2 * max(1, round(_AROUND / _HOP)) + 1
    from scipy.ndimage import maximum_filter1d, median_filter

    gap = 2 * max(1, round(_GAP / _HOP)) + 1
    stands_out = flux - median_filter(flux, around, mode="nearest")
    peaks = (flux == maximum_filter1d(flux, gap, mode="nearest")) & (stands_out > _SHARE * stands_out.max(initial=0.0))
    rows = np.flatnonzero(peaks)
    # Of a plateau, its first.
    rows = rows[np.diff(rows, prepend=-gap) > gap // 2]
    # A stroke is heard first where the later half of a window meets it.
    seconds: Array = np.maximum((rows * hop - 0.25 * window) / rate, 0.0)
    # What breaks off at the end begins nothing.
    return seconds[seconds < (len(samples) - hop) / rate]


def _flux(samples: Array, window: int, hop: int) -> Array:
    """The spectral flux, one a hop; the first is 0."""
    taper = np.hanning(window)
    frames = np.lib.stride_tricks.sliding_window_view(samples, window)[::hop]
    found, last = np.zeros(len(frames)), None
    for begin in range(0, len(frames), _AT_ONCE):
        spectra = np.log1p(_GAIN * np.abs(np.fft.rfft(frames[begin : begin + _AT_ONCE] * taper)))
        before = spectra[:1] if last is None else last
        rises = np.diff(spectra, axis=0, prepend=before)
        found[begin : begin + _AT_ONCE] = np.sqrt(np.square(np.maximum(rises, 0)).sum(axis=1))
        last = spectra[-1:]
    return found


def pulses(moments: Array, fps: float, frames: int, *, fall: float = 0.25) -> Array:
    """1 in the frame of each moment (seconds), falling by half every half of `fall` seconds until the next: (frames,)."""
    at = np.round(moments * fps).astype(np.int64)
    at = at[(at >= 0) & (at < frames)]
    grid = np.arange(frames)
    last = np.searchsorted(at, grid, side="right") - 1
    since = np.where(last >= 0, grid - at[np.maximum(last, 0)] if len(at) else 0, np.inf)
    return np.power(0.5, since / (fall / 2 * fps))


def beats_a_minute(moments: Array) -> float | None:
    """The pace of moments, (k,) seconds, by the median of their distances; None for fewer than four."""
    if len(moments) < 4:
        return None
    return float(60 / np.median(np.diff(moments)))
