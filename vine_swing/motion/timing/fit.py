"""Few keys in place of many samples: curves with handles that stay within a tolerance of what they replace.

A stretch between two samples becomes one cubic with the slopes the samples have there; where that strays too far, it is
divided at the sample that strays most (cf. P. J. Schneider, "An algorithm for automatically fitting digitized curves", 1990).
"""

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics.colour import from_oklab, parse_hex, to_hex, to_oklab
from vine_swing.motion.timing.channel import Key

Array = NDArray[np.float64]


def fit_keys(frames: Array, values: Array, tolerance: float) -> list[Key]:
    """Keys whose motion passes every sample within a tolerance, joined by the ease "handles".

    Args:
        frames: where the samples are, (n,), rising; n at least 2.
        values: the samples, (n,).
        tolerance: the largest difference allowed at any sample, in the values' unit.
    """
    stops = [0]
    waiting = [(0, len(frames) - 1)]
    slopes = np.gradient(values, frames) if len(frames) > 2 else np.full(2, (values[1] - values[0]) / (frames[1] - frames[0]))
    while waiting:
        a, b = waiting.pop()
        worst = _strays(frames, values, slopes, a, b, tolerance) if b - a > 1 else None
        if worst is None:
            stops.append(b)
        else:
            waiting += [(worst, b), (a, worst)]
    keys = []
    for n, at in enumerate(stops):
        out = _handle(frames, values, slopes, at, stops[n + 1]) if n + 1 < len(stops) else None
        into = _handle(frames, values, slopes, at, stops[n - 1]) if n else None
        keys.append(Key(frame=float(frames[at]), value=float(values[at]), ease="handles", out=out, into=into))
    keys[-1] = keys[-1].copy_with(ease="linear")
    return keys


def fit_noisy_keys(frames: Array, values: Array, tolerance: float) -> list[Key]:
    """As `fit_keys`, for samples that tremble: the motion passes every sample within the tolerance, but need not go through any.

    The samples are smoothed by a Gaussian as wide as leaves them within part of the tolerance; what is left of it is for the keys.
    """
    # Imported where it is used: loading scipy.ndimage takes a fifth of a second.
    from scipy.ndimage import gaussian_filter1d

    smooth, strays = values, 0.0
    for width in _WIDTHS:
        if width > len(values) / 2:
            break
        tried = gaussian_filter1d(values, width, mode="nearest")
        far = float(np.abs(tried - values).max())
        if far > _SHARE * tolerance:
            break
        smooth, strays = tried, far
    return fit_keys(frames, smooth, tolerance - strays)


#: How wide samples may be smoothed, as the standard deviation in samples; and the share of the tolerance that this may take.
_WIDTHS, _SHARE = (0.7, 1, 1.5, 2, 3, 4, 6, 8, 12, 16, 24, 32), 0.75


def _handle(frames: Array, values: Array, slopes: Array, at: int, to: int) -> tuple[float, float] | None:
    """A third of the way towards another stop, along the slope; None between neighbours, which are joined straight."""
    if abs(to - at) == 1:
        return None
    third = float(frames[to] - frames[at]) / 3
    return third, float(slopes[at]) * third


def _strays(frames: Array, values: Array, slopes: Array, a: int, b: int, tolerance: float) -> int | None:
    """The sample farthest from the cubic between samples a and b, if it is farther than allowed."""
    span = frames[b] - frames[a]
    u = (frames[a + 1 : b] - frames[a]) / span
    r = 1 - u
    first, second = values[a] + slopes[a] * span / 3, values[b] - slopes[b] * span / 3
    fitted = r**3 * values[a] + 3 * r**2 * u * first + 3 * r * u**2 * second + u**3 * values[b]
    far = np.abs(fitted - values[a + 1 : b])
    worst = int(np.argmax(far))
    return a + 1 + worst if far[worst] > tolerance else None


def fit_colours(frames: Array, colours: Array, tolerance: float) -> list[Key]:
    """Keys of a colour channel, joined evenly, that pass every sample within a tolerance.

    Args:
        frames: where the samples are, (n,), rising; n at least 2.
        colours: sRGB with alpha, (n, 4).
        tolerance: the largest difference allowed of any of the four parts, 0 to 1. What hex can write is 1/255 apart.
    """
    mixed = to_oklab(np.array([parse_hex(to_hex(one)) for one in colours]))
    stops, waiting = [0], [(0, len(frames) - 1)]
    while waiting:
        a, b = waiting.pop()
        u = ((frames[a + 1 : b] - frames[a]) / (frames[b] - frames[a]))[:, None]
        far = np.abs(from_oklab(mixed[a] + (mixed[b] - mixed[a]) * u) - colours[a + 1 : b]).max(axis=1) if b - a > 1 else np.zeros(1)
        if far.max() > tolerance:
            worst = a + 1 + int(np.argmax(far))
            waiting += [(worst, b), (a, worst)]
        else:
            stops.append(b)
    return [Key(frame=float(frames[at]), value=to_hex(colours[at])) for at in stops]
