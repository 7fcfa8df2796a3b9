"""The samples of sound files, whatever they are encoded as."""

import io
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics.contents import SOUND_FILES
from vine_swing.motion.basics.errors import MotionError

if TYPE_CHECKING:
    from av import AudioFrame, AudioStream
    from av.container import InputContainer

#: What is read of a sound at most, in seconds; what comes after is not used.
MOST_SECONDS = 1200.0
#: Sounds are listened to at no more than this rate, Hz: what is higher than half of it moves nobody. And the rate of what is heard.
LISTENING_RATE, HEARING_RATE = 22_050, 48_000


@dataclass(frozen=True, eq=False)
class Sound:
    """One channel of samples, (n,), −1…1, at a rate in Hz; `cut` says that there was more."""

    samples: NDArray[np.float32]
    rate: int
    cut: bool

    @property
    def seconds(self) -> float:
        """How long it is."""
        return len(self.samples) / self.rate


def read_sound(data: bytes, name: str) -> Sound:
    """Read a sound (WAV, MP3, Ogg, FLAC, AAC), all its channels as one; of very long ones, the beginning.

    Raises:
        MotionError: if it is none, or is damaged; saying what would work.
    """
    samples, rate, cut = _decoded(data, name, LISTENING_RATE, lower=True)
    return Sound(samples.mean(axis=0) if len(samples) > 1 else samples[0], rate, cut)


def read_stereo(data: bytes, name: str) -> NDArray[np.float32]:
    """The samples of a sound at HEARING_RATE, left and right: (2, n). Raises as `read_sound`."""
    samples = _decoded(data, name, HEARING_RATE)[0]
    # One channel is heard as loud on both sides: FFmpeg would turn it down by 3 dB.
    return np.repeat(samples, 2, axis=0) if len(samples) == 1 else samples


@lru_cache(maxsize=4)
def sound_of(file: str) -> Sound:
    """A kept sound by the id of its content; the last few stay decoded. Raises as `read_sound`."""
    return read_sound(SOUND_FILES.data_of(file), "this sound")


@lru_cache(maxsize=1)
def stereo_of(file: str) -> NDArray[np.float32]:
    """The same as `read_stereo` gives it."""
    return read_stereo(SOUND_FILES.data_of(file), "this sound")


def _decoded(data: bytes, name: str, rate: int, *, lower: bool = False) -> tuple[NDArray[np.float32], int, bool]:
    """Samples of one channel or two, (channels, n), their rate (if `lower`, that of the file where it is less), and whether there was more."""
    import av

    try:
        with av.open(io.BytesIO(data), "r") as container:
            if not container.streams.audio:
                raise MotionError(f"'{name}' has no sound in it; take a WAV, MP3, Ogg or FLAC file")
            stream = container.streams.audio[0]
            layout = "mono" if stream.channels == 1 else "stereo"
            if lower:
                rate = min(rate, stream.rate or rate)
            most, parts, count = int(MOST_SECONDS * rate), [], 0
            for frame in _resampled(container, stream, layout, rate):
                part = frame.to_ndarray()[:, : most - count].astype(np.float32, copy=False)
                parts.append(part)
                count += part.shape[1]
                if count >= most:
                    break
    except MotionError:
        raise
    except Exception as error:
        # Decoders meet damaged data with whatever they stumble over; a damaged stream may even lack what every stream has.
        raise MotionError(f"'{name}' cannot be read as a sound; it is damaged, or none: save it as WAV, MP3, Ogg or FLAC") from error
    if not count:
        raise MotionError(f"there is nothing to hear in '{name}'; bring it from where it was made once more")
    return np.nan_to_num(np.concatenate(parts, axis=1), nan=0.0, posinf=1.0, neginf=-1.0), rate, count >= most


def _resampled(container: "InputContainer", stream: "AudioStream", layout: str, rate: int) -> "Iterator[AudioFrame]":
    import av

    resampler = av.AudioResampler(format="fltp", layout=layout, rate=rate)
    for frame in container.decode(stream):
        yield from resampler.resample(frame)
    yield from resampler.resample(None)
