"""Sounds brought in: every format that can be written here is read, what is no sound is refused, and the table says what was made."""

import io
import time

import av
import numpy as np
import pytest

from tests.sounds import struck
from tests.sounds import wav as wav_of
from vine_swing.formats.sounds import sound_table
from vine_swing.motion import MotionError
from vine_swing.motion.sound import reading
from vine_swing.motion.sound.reading import read_sound

RATE = 44_100
STROKES = np.arange(0.25, 3.9, 0.5)


def wav(samples, rate=RATE, channels=1):
    return wav_of(samples, rate, channels)


def encoded(samples, kind, codec):
    data = io.BytesIO()
    with av.open(data, "w", format=kind) as out:
        stream = out.add_stream(codec, rate=48_000 if codec == "libopus" else RATE, layout="mono")
        frame = av.AudioFrame.from_ndarray(samples[None, :].astype(np.float32), format="flt", layout="mono")
        frame.sample_rate = RATE
        for packet in (*stream.encode(frame), *stream.encode(None)):
            out.mux(packet)
    return data.getvalue()


@pytest.mark.parametrize(("kind", "codec"), [("mp3", "libmp3lame"), ("ogg", "libopus"), ("flac", "flac"), ("wav", "pcm_s16le"), ("ipod", "aac")])
def test_every_usual_format_is_read_with_its_beats_in_place(kind, codec):
    sound = read_sound(encoded(struck(STROKES, 4, rate=RATE), kind, codec), f"drum.{kind}")
    assert sound.seconds == pytest.approx(4, abs=0.12)
    table = sound_table(sound, 24)
    assert [one.name for one in table.columns] == ["seconds", "level", "low", "middle", "high", "beats"]
    beats = np.array(table.columns[5].cells)
    # Codecs may put some hundredths of silence before what they were given.
    np.testing.assert_allclose(np.flatnonzero(beats == 1) / 24, STROKES, atol=0.1)
    assert table.remarks[0] == f"something begins {len(STROKES)} times, about 120 times a minute"


def test_two_channels_are_heard_as_one_and_the_loudest_frame_is_one():
    sound = read_sound(wav(0.5 * np.sin(np.arange(RATE) / 20), channels=2), "tone.wav")
    level = np.array(sound_table(sound, 24).columns[1].cells)
    assert level.max() == 1
    assert level[5:20].min() > 0.98


@pytest.mark.parametrize("data", [b"", b"RIFF", b"not a sound at all", wav(np.zeros(400))[:30], b"\x89PNG\r\n\x1a\n" + bytes(100), b"\xff\xfb" * 50])
def test_what_is_no_sound_is_refused_in_a_sentence(data):
    with pytest.raises(MotionError, match=r"'odd\.wav'"):
        read_sound(data, "odd.wav")


def test_a_truncated_sound_is_read_as_far_as_it_goes():
    whole = wav(struck(STROKES, 4, rate=RATE))
    assert read_sound(whole[: len(whole) // 2], "cut.wav").seconds == pytest.approx(2, abs=0.05)


def test_a_film_without_sound_says_so():
    data = io.BytesIO()
    with av.open(data, "w", format="mp4") as out:
        stream = out.add_stream("libx264", rate=24)
        stream.width, stream.height, stream.pix_fmt = 32, 32, "yuv420p"
        for packet in (*stream.encode(av.VideoFrame.from_ndarray(np.zeros((32, 32, 3), np.uint8))), *stream.encode(None)):
            out.mux(packet)
    with pytest.raises(MotionError, match="has no sound in it"):
        read_sound(data.getvalue(), "film.mp4")


def test_of_a_very_long_sound_the_beginning_is_read(monkeypatch):
    monkeypatch.setattr(reading, "MOST_SECONDS", 1.0)
    sound = read_sound(wav(struck([0.2, 0.7], 4, rate=RATE)), "long.wav")
    assert sound.cut
    assert sound.seconds == 1
    assert "only the first 1 seconds are read" in sound_table(sound, 24).remarks


@pytest.mark.slow
def test_ten_minutes_are_read_in_seconds():
    begun = time.perf_counter()
    table = sound_table(read_sound(wav(struck(np.arange(0.5, 590, 1.0), 600, rate=8000), rate=8000), "long.wav"), 24)
    assert table.rows == 14_400
    assert time.perf_counter() - begun < 60, "this is no benchmark: it would take minutes if something were quadratic"
