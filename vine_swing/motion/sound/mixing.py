"""Several sounds as one: what is heard of a scene."""

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
#: Samples mixed at once, so that a long sound takes little memory besides its own.
_AT_ONCE = 1 << 18


@dataclass(frozen=True, eq=False)
class Placed:
    """A sound in the time of a scene.

    samples: (2, n), of the stretch of it that is heard. at: when it begins, in seconds. gain: (m,), how much louder at the moments `when`, (m,)
    seconds in order; between them in a straight line.
    """

    samples: NDArray[np.float32]
    at: float
    when: Array
    gain: Array


def mixed(sounds: Iterable[Placed], rate: int, begin: float, seconds: float) -> NDArray[np.float32]:
    """What is heard from the moment `begin` on for some seconds: (2, n) samples at `rate` Hz. It may be louder than full scale."""
    found = np.zeros((2, round(seconds * rate)), np.float32)
    for one in sounds:
        offset = round((one.at - begin) * rate)
        first, last = max(0, offset), min(found.shape[1], offset + one.samples.shape[1])
        for row in range(first, last, _AT_ONCE):
            until = min(row + _AT_ONCE, last)
            gain = np.interp(begin + np.arange(row, until) / rate, one.when, one.gain).astype(np.float32)
            found[:, row:until] += one.samples[:, row - offset : until - offset] * gain
    return found


def within_full_scale(samples: NDArray[np.float32]) -> tuple[NDArray[np.float32], float]:
    """Samples turned down as a whole so that none is beyond −1…1, and by how many dB they were."""
    loudest = float(np.abs(samples).max(initial=0.0))
    return (samples, 0.0) if loudest <= 1.0 else (samples / np.float32(loudest), float(20 * np.log10(loudest)))
