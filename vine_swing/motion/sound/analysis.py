"""What is known of a kept sound, by the id of its content: how loud it is, where something begins in it, and what it looks like."""

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.sound.levels import level
from vine_swing.motion.sound.onsets import onsets
from vine_swing.motion.sound.reading import Sound, sound_of

Array = NDArray[np.float64]
#: Columns a second of the picture of a sound.
PEAKS_A_SECOND = 100


def stretch_of(sound: Sound, begin: float, end: float) -> NDArray[np.float32]:
    """The samples between two moments, in seconds."""
    return sound.samples[round(begin * sound.rate) : round(end * sound.rate)]


@lru_cache(maxsize=128)
def level_of(file: str, begin: float, end: float, fps: float, band: str, attack: float, release: float) -> Array:
    """`level` of the stretch of a kept sound between two moments, in seconds; its first frame begins at `begin`."""
    sound = sound_of(file)
    found = level(stretch_of(sound, begin, end), sound.rate, fps, band=band, attack=attack, release=release)
    found.setflags(write=False)
    return found


@lru_cache(maxsize=128)
def onsets_of(file: str) -> Array:
    """The moments at which something begins in a kept sound, (k,) seconds."""
    sound = sound_of(file)
    found = onsets(sound.samples, sound.rate)
    found.setflags(write=False)
    return found


@lru_cache(maxsize=32)
def peaks_of(file: str) -> NDArray[np.int8]:
    """The lowest and the highest sample in every hundredth of a second of a kept sound, (n, 2), −127…127."""
    sound = sound_of(file)
    step = sound.rate / PEAKS_A_SECOND
    begins = np.minimum(np.round(np.arange(max(1, int(np.ceil(len(sound.samples) / step)))) * step).astype(np.int64), len(sound.samples) - 1)
    low, high = np.minimum.reduceat(sound.samples, begins), np.maximum.reduceat(sound.samples, begins)
    found: NDArray[np.int8] = (np.clip(np.stack([low, high], axis=1), -1, 1) * 127).round().astype(np.int8)
    return found
