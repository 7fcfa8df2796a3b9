"""The samples of sound files, whatever they are encoded as."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics.contents import SOUND_FILES
from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.basics.report import Report, unreported
from vine_swing.motion.sound.caching import cached_singly
from vine_swing.motion.sound.containers import FILM_CODECS, SOUND_CODECS, demuxer_of, first_listed, opened

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


def read_sound(data: bytes, name: str, *, report: Report = unreported) -> Sound:
    """Read a sound (WAV, MP3, Ogg, FLAC, AIFF, or AAC in an MPEG-4, Matroska or WebM file), all its channels mixed into one.

    Args:
        data: the file; of sounds longer than MOST_SECONDS, only the beginning is read.
        name: what messages call it.
        report: called with the share that is read, where the file says how long it is.

    Raises:
        MotionError: if it is none, or is damaged; saying what would work.
    """
    samples, rate, cut = _decoded(data, name, LISTENING_RATE, report, mono=True, lower=True)
    return Sound(samples[0], rate, cut)


def read_stereo(data: bytes, name: str) -> NDArray[np.float32]:
    """Return the samples of a sound at HEARING_RATE, left and right: (2, n). Raises as `read_sound`."""
    samples = _decoded(data, name, HEARING_RATE, unreported)[0]
    # One channel is heard as loud on both sides: FFmpeg would turn it down by 3 dB.
    return np.broadcast_to(samples, (2, samples.shape[1])) if len(samples) == 1 else samples


@cached_singly(maxsize=4)
def sound_of(file: str) -> Sound:
    """Return a kept sound by the id of its content; the last few stay decoded. Raises as `read_sound`."""
    return read_sound(SOUND_FILES.data_of(file), "this sound")


@cached_singly(maxsize=1)
def stereo_of(file: str) -> NDArray[np.float32]:
    """Return a kept sound as `read_stereo` does."""
    return read_stereo(SOUND_FILES.data_of(file), "this sound")


def _decoded(data: bytes, name: str, rate: int, report: Report, *, mono: bool = False, lower: bool = False) -> tuple[NDArray[np.float32], int, bool]:
    """Decode the samples of a sound.

    Args:
        data: the file.
        name: what messages call it.
        rate: of the result, Hz.
        report: called with the share that is decoded.
        mono: whether two channels are mixed into one.
        lower: whether a rate of the file below `rate` is kept.

    Returns:
        Samples of one channel or two, (channels, n), −1…1; their rate; and whether the file goes on after MOST_SECONDS.
    """
    demuxer = demuxer_of(data)
    if demuxer is None:
        raise MotionError(f"'{name}' cannot be read as a sound; take a WAV, MP3, Ogg, FLAC or AIFF file, or AAC in an MPEG-4 file")
    try:
        with opened(data, demuxer, (*SOUND_CODECS, *FILM_CODECS)) as container:
            stream = first_listed(container.streams.audio, SOUND_CODECS)
            if stream is None:
                raise MotionError(f"'{name}' has no sound in it that can be read; take a WAV, MP3, Ogg or FLAC file")
            layout = "mono" if stream.channels == 1 else "stereo"
            if lower:
                rate = min(rate, stream.rate or rate)
            most = int(MOST_SECONDS * rate)
            # In microseconds; a file may not say it, or say anything.
            expected = max(1, min(most, int((container.duration or 0) / 1e6 * rate)))
            samples = _Samples(1 if mono or layout == "mono" else 2, expected)
            for frame in _resampled(container, stream, layout, rate):
                part = frame.to_ndarray()[:, : most - samples.count].astype(np.float32, copy=False)
                samples.add(part.mean(axis=0, keepdims=True) if mono and len(part) > 1 else part)
                report(samples.count / expected)
                if samples.count >= most:
                    break
    except MotionError:
        raise
    except MemoryError:
        raise
    except Exception as error:
        # Decoders meet damaged data with whatever they stumble over; a damaged stream may even lack what every stream has.
        raise MotionError(f"'{name}' cannot be read as a sound; it is damaged, or none: save it as WAV, MP3, Ogg or FLAC") from error
    if not samples.count:
        raise MotionError(f"no sound found in '{name}'; export it again from the program that made it")
    return np.nan_to_num(samples.whole(), copy=False, nan=0.0, posinf=1.0, neginf=-1.0), rate, samples.count >= most


class _Samples:
    """Samples that come in parts, in an array that grows: twenty minutes are half a gigabyte, and must not be held twice."""

    def __init__(self, channels: int, expected: int) -> None:
        self._held, self.count = np.empty((channels, expected), np.float32), 0

    def add(self, part: NDArray[np.float32]) -> None:
        """Append a part, (channels, n)."""
        end = self.count + part.shape[1]
        if end > self._held.shape[1]:
            larger = np.empty((len(self._held), max(end, self._held.shape[1] * 5 // 4)), np.float32)
            larger[:, : self.count] = self._held[:, : self.count]
            self._held = larger
        self._held[:, self.count : end] = part
        self.count = end

    def whole(self) -> NDArray[np.float32]:
        """Return all parts, (channels, n)."""
        return self._held[:, : self.count]


def _resampled(container: "InputContainer", stream: "AudioStream", layout: str, rate: int) -> "Iterator[AudioFrame]":
    import av

    resampler = av.AudioResampler(format="fltp", layout=layout, rate=rate)
    for frame in container.decode(stream):
        yield from resampler.resample(frame)
    yield from resampler.resample(None)
