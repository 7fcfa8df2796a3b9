"""Sounds brought in, for motion to go by: a table of how loud they are, and of their beats, frame by frame."""

import io
from dataclasses import dataclass

import av
import numpy as np
from numpy.typing import NDArray

from vine_swing.formats.samples import Column, Table
from vine_swing.motion import MotionError
from vine_swing.motion.sound import BANDS, beats_a_minute, level, onsets, pulses

#: What is listened to at most, in seconds, and rows of a table.
MOST_SECONDS, MOST_ROWS = 1200.0, 20_000
#: Sounds are read at no more than this rate, Hz: what is higher than half of it moves nobody.
_RATE = 22_050
#: Seconds in which a level follows a rise and a fall.
_ATTACK, _RELEASE = 0.02, 0.15


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
    try:
        with av.open(io.BytesIO(data), "r") as container:
            if not container.streams.audio:
                raise MotionError(f"'{name}' has no sound in it; take a WAV, MP3, Ogg or FLAC file")
            stream = container.streams.audio[0]
            rate = min(_RATE, stream.rate or _RATE)
            resampler = av.AudioResampler(format="flt", layout="mono", rate=rate)
            parts: list[NDArray[np.float32]] = []
            left = int(MOST_SECONDS * rate)
            for frame in container.decode(stream):
                for part in resampler.resample(frame):
                    parts.append(_samples(part)[:left])
                    left -= len(parts[-1])
                if left <= 0:
                    break
            if left > 0:
                parts += [_samples(part)[:left] for part in resampler.resample(None)]
    except av.FFmpegError as error:
        raise MotionError(f"'{name}' cannot be read as a sound; it is damaged, or none: save it as WAV, MP3, Ogg or FLAC") from error
    samples = np.concatenate(parts) if parts else np.zeros(0, np.float32)
    if not len(samples):
        raise MotionError(f"there is nothing to hear in '{name}'; bring it from where it was made once more")
    return Sound(np.nan_to_num(samples, nan=0.0, posinf=1.0, neginf=-1.0), rate, left <= 0)


def _samples(frame: av.AudioFrame) -> NDArray[np.float32]:
    return frame.to_ndarray().reshape(-1).astype(np.float32, copy=False)


def sound_table(sound: Sound, fps: float) -> Table:
    """How loud a sound is at each frame of a scene, 0…1, in all of it and in three bands; and `beats`, 1 where something begins, then falling."""
    columns = {
        "level" if band == "all" else band: level(sound.samples, sound.rate, fps, band=band, attack=_ATTACK, release=_RELEASE)[:MOST_ROWS]
        for band in BANDS
    }
    rows = len(columns["level"])
    begins = onsets(sound.samples, sound.rate)
    columns["beats"] = pulses(begins, fps, rows)
    remarks = [f"something begins {len(begins)} times"]
    if (pace := beats_a_minute(begins)) is not None:
        remarks[0] += f", about {pace:.0f} times a minute"
    if sound.cut or rows < int(sound.seconds * fps):
        remarks.append(f"only the first {rows / fps:.0f} seconds are read")
    times = Column("seconds", "number", tuple(frame / fps for frame in range(rows)))
    numbers = (Column(name, "number", tuple(values.round(4).tolist())) for name, values in columns.items())
    return Table((times, *numbers), rows, 0, "seconds", tuple(remarks))
