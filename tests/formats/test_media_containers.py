"""Containers of sounds: each is opened by the demuxer its first bytes call for, with few decoders and no protocol."""

import io
import wave

import av
import numpy as np
import pytest

from tests.sounds import RATE, wav
from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.sound.containers import demuxer_of, first_listed, opened
from vine_swing.motion.sound.reading import read_sound, read_stereo

SECONDS = 1.5


def encoded(container, codec, layout="mono", rate=48_000):
    """A sine of 440 Hz for SECONDS in a container."""
    held = io.BytesIO()
    with av.open(held, "w", format=container) as file:
        stream = file.add_stream(codec, rate=rate, layout=layout)
        size = stream.codec_context.frame_size or 1024
        samples = np.sin(2 * np.pi * 440 * np.arange(int(SECONDS * rate)) / rate).astype(np.float32)
        resampler = av.AudioResampler(format=stream.format, layout=layout, rate=rate, frame_size=size)
        for at in range(0, len(samples), size):
            frame = av.AudioFrame.from_ndarray(samples[None, at : at + size], "fltp", "mono")
            frame.sample_rate, frame.pts = rate, at
            for part in resampler.resample(frame):
                file.mux(stream.encode(part))
        file.mux(stream.encode(None))
    return held.getvalue()


KINDS = [
    ("wav", "pcm_s16le", "wav"),
    ("aiff", "pcm_s16be", "aiff"),
    ("flac", "flac", "flac"),
    ("ogg", "libopus", "ogg"),
    ("mp3", "libmp3lame", "mp3"),
    ("mp4", "aac", "mov"),
    ("matroska", "libopus", "matroska"),
    ("webm", "libopus", "matroska"),
]


@pytest.mark.parametrize(("container", "codec", "demuxer"), KINDS)
def test_every_kind_of_sound_that_is_taken_is_read(container, codec, demuxer):
    data = encoded(container, codec)
    assert demuxer_of(data) == demuxer
    sound = read_sound(data, f"a.{container}")
    # Encoders add up to a tenth of a second of their own around a sound.
    assert sound.seconds == pytest.approx(SECONDS, abs=0.1)
    middle = sound.samples[len(sound.samples) // 3 : len(sound.samples) // 2].astype(float)
    peak = np.abs(np.fft.rfft(middle * np.hanning(len(middle)))).argmax() * sound.rate / len(middle)
    assert peak == pytest.approx(440, abs=3)


def test_two_channels_are_mixed_as_their_mean_and_heard_apart():
    left = 0.5 * np.sin(2 * np.pi * 300 * np.arange(RATE) / RATE)
    held = io.BytesIO()
    with wave.open(held, "wb") as out:
        out.setnchannels(2)
        out.setsampwidth(2)
        out.setframerate(RATE)
        out.writeframes((np.clip(np.stack([left, np.zeros_like(left)], axis=1), -1, 1) * 32767).astype("<i2").tobytes())
    data = held.getvalue()
    both, mixed = read_stereo(data, "a.wav"), read_sound(data, "a.wav")
    assert both.shape[0] == 2
    assert np.abs(both[0]).max() > 0.1
    assert np.abs(both[1]).max() < 1e-4
    assert np.abs(mixed.samples).max() == pytest.approx(np.abs(both[0]).max() / 2, rel=0.1)


@pytest.mark.parametrize("data", [b"", b"\xff", b"RIFF", b"FORM....8SVX", b"#EXTM3U", b"\xff\xe1aa", b"%PDF-1.4"])
def test_other_files_have_no_demuxer(data):
    assert demuxer_of(data) is None


def test_a_tag_before_flac_is_passed_over():
    assert demuxer_of(b"ID3\x04\0\0\0\0\0\x05aaaaafLaC") == "flac"


def test_a_decoder_that_is_not_listed_is_not_used():
    data = encoded("matroska", "libopus")
    with opened(data, "matroska", ("flac",)) as file:
        assert first_listed(file.streams.audio, ("flac",)) is None
        assert first_listed(file.streams.audio, ("opus", "libopus")) is not None


def test_nothing_to_hear_is_said():
    with pytest.raises(MotionError, match="no sound found|cannot be read"):
        read_sound(wav(np.zeros(0, np.float32)), "a.wav")
