"""The sound of a film: the mix of a scene's sounds, in a film or alone as WAV (RIFF WAVE, PCM of 16 bits)."""

import struct
from collections.abc import Iterator
from fractions import Fraction
from pathlib import Path

import numpy as np
from av import AudioFrame, AudioStream
from av.container import OutputContainer
from numpy.typing import NDArray

from vine_swing.formats.export import Progress, never_cancelled
from vine_swing.formats.film import Film
from vine_swing.motion.baking.keyed import dial_values
from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.scene.dial import DIAL
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.sounds import KeptSound
from vine_swing.motion.sound.mixing import Placed, mixed, within_full_scale
from vine_swing.motion.sound.reading import HEARING_RATE, stereo_of

#: Samples handed to an encoder at once.
_CHUNK = 4096
#: Samples of a WAV file that are converted at once, and the header of one: RIFF, its format of PCM, and its data ("Multimedia Programming Interface
#: and Data Specifications 1.0", 1991).
_PART = 8 * HEARING_RATE
_HEADER = struct.Struct("<4sI4s4sIHHIIHH4sI")


def heard(scene: Scene) -> list[KeptSound]:
    """The sounds of a scene that are not silent."""
    return [sound for sound in scene.sounds if sound.on and sound.gain > 0]


def mix_of(film: Film) -> tuple[NDArray[np.float32], tuple[str, ...]]:
    """Return the mix for a film, (2, n) samples at HEARING_RATE, and remarks.

    Raises:
        MotionError: if a sound cannot be read.
    """
    scene = film.scene
    placed = [_placed(scene, item) for item in heard(scene)]
    samples, quieter = within_full_scale(mixed(placed, HEARING_RATE, float(film.frames[0]) / scene.fps, len(film.frames) / film.fps))
    # A tenth of a dB nobody hears.
    return samples, () if quieter < 0.1 else (f"the sounds together were {quieter:.1f} dB too loud, and are turned down by that",)


def _placed(scene: Scene, sound: KeptSound) -> Placed:
    frames = np.arange(scene.length, dtype=float)
    gain = np.full(scene.length, float(sound.gain))
    dial = scene.dials_by_id.get(f"{DIAL}{sound.dial}")
    if dial is not None and not dial.is_colour:
        gain = gain * np.maximum(0.0, dial_values(scene, dial, frames[None, :])[0])
    samples = stereo_of(sound.file)[:, round(sound.begin * HEARING_RATE) : round(sound.until * HEARING_RATE)]
    return Placed(samples, sound.first / scene.fps, frames / scene.fps, gain)


class SoundTrack:
    """The sound of a film on its way into a file, encoded as far as the pictures are; nothing where no sound is heard."""

    def __init__(self, file: OutputContainer, film: Film, codec: str) -> None:
        self._file, self._done = file, 0
        self._samples: NDArray[np.float32] | None = None
        self.remarks: tuple[str, ...] = ()
        if not film.options.sound or not heard(film.scene):
            return
        self._samples, self.remarks = mix_of(film)
        stream = file.add_stream(codec, rate=HEARING_RATE, layout="stereo")
        assert isinstance(stream, AudioStream)
        stream.bit_rate = 192_000
        self._stream = stream
        # Encoders take frames of a size of their own, but for the last.
        self._size = stream.codec_context.frame_size or _CHUNK

    def until(self, seconds: float) -> None:
        """Encode what is heard up to a moment of the film."""
        while self._samples is not None and self._done + self._size <= min(seconds * HEARING_RATE, self._samples.shape[1]):
            self._encode(self._size)

    def finish(self) -> None:
        """Encode what is left."""
        if self._samples is None:
            return
        while (left := self._samples.shape[1] - self._done) > 0:
            self._encode(min(left, self._size))
        self._file.mux(self._stream.encode(None))

    def _encode(self, count: int) -> None:
        assert self._samples is not None
        part = np.ascontiguousarray(self._samples[:, self._done : self._done + count])
        requested = self._stream.codec_context.format.name
        if requested == "flt":
            frame = AudioFrame.from_ndarray(part.T.reshape(1, -1), format="flt", layout="stereo")
        else:
            frame = AudioFrame.from_ndarray(part, format="fltp", layout="stereo")
        frame.sample_rate, frame.pts, frame.time_base = HEARING_RATE, self._done, Fraction(1, HEARING_RATE)
        self._done += count
        self._file.mux(self._stream.encode(frame))


def write_wav(film: Film, path: Path, *, progress: Progress = never_cancelled) -> tuple[str, ...]:
    """Write what is heard of a scene by itself.

    Raises:
        MotionError: if nothing is.
    """
    if not heard(film.scene):
        raise MotionError("this scene has no sound that is heard; bring one in, or switch one on")
    samples, remarks = mix_of(film)
    path.write_bytes(wav(samples))
    progress(len(film.frames))
    return remarks


def wav(samples: NDArray[np.float32]) -> bytes:
    """Samples at HEARING_RATE, left and right, (2, n), as a WAV file of 16 bits; samples beyond −1…1 are clipped."""
    return b"".join(wav_parts(samples))


def wav_parts(samples: NDArray[np.float32]) -> Iterator[bytes]:
    """Yield the bytes of the file that `wav` returns in parts of some seconds, so that a long sound is never in memory as a whole file."""
    size, per_frame = wav_size(samples) - _HEADER.size, 4
    chunks = (b"RIFF", size + _HEADER.size - 8, b"WAVE", b"fmt ", 16, 1, 2, HEARING_RATE, HEARING_RATE * per_frame, per_frame, 16, b"data", size)
    yield _HEADER.pack(*chunks)
    for start in range(0, samples.shape[1], _PART):
        yield (np.clip(samples[:, start : start + _PART].T, -1, 1) * 32767).round().astype("<i2").tobytes()


def wav_size(samples: NDArray[np.float32]) -> int:
    """Return the bytes of the file that `wav` returns."""
    return _HEADER.size + 4 * int(samples.shape[1])
