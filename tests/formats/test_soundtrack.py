"""What is heard with an export: read back by PyAV, every stroke is within 10 ms of where it is in the scene."""

import av
import numpy as np
import pytest

from tests.motion.scenes import channel, scene, shape
from tests.sounds import kept, struck
from vine_swing.formats import EXPORTS, film_of
from vine_swing.formats.export_preview import estimated, preview_export
from vine_swing.formats.options import ExportOptions
from vine_swing.motion import MotionError
from vine_swing.motion.scene.dial import Dial

STROKES = [0.5, 1.0, 2.0]
RATE = 44_100


def drummed(**fields):
    drum = kept(struck(STROKES, 3, rate=RATE, sound="log"), RATE, first=6, **fields)
    return scene(shape("mango", x=100), length=96, size=[320, 180]).copy_with(sounds=(drum,))


def exported(of, path, **options):
    film = film_of(of, ExportOptions(format=path.suffix[1:], **options))
    return EXPORTS[path.suffix[1:]].write(film, path)


def heard(path):
    """What is heard of a file: (samples of the left channel, their rate), the first at second 0."""
    parts, begin = [], None
    with av.open(str(path)) as file:
        stream = file.streams.audio[0]
        for frame in file.decode(stream):
            begin = float(frame.time) if begin is None else begin
            one = frame.to_ndarray()
            one = one[0] if len(one) == 2 else one.reshape(-1, 2)[:, 0]
            parts.append(one.astype(float) / (32768 if one.dtype == np.int16 else 1))
        rate = stream.rate
    samples = np.concatenate([np.zeros(round(begin * rate)), *parts])
    return samples, rate


def strokes(path, loud=0.1):
    samples, rate = heard(path)
    found, at = [], 0
    while (later := np.flatnonzero(np.abs(samples[at:]) > loud)).size:
        found.append((at + later[0]) / rate)
        at += later[0] + round(0.3 * rate)
    return found


@pytest.mark.parametrize("format", ["mp4", "webm", "wav"])
def test_every_stroke_is_heard_within_ten_milliseconds_of_its_frame(tmp_path, format):
    assert exported(drummed(), tmp_path / f"drum.{format}") == ()
    np.testing.assert_allclose(strokes(tmp_path / f"drum.{format}"), [0.75, 1.25, 2.25], atol=0.01)


def test_of_some_frames_what_is_heard_with_them_is_exported(tmp_path):
    exported(drummed(), tmp_path / "part.mp4", first=24, last=47)
    np.testing.assert_allclose(strokes(tmp_path / "part.mp4"), [0.25], atol=0.01)
    samples, rate = heard(tmp_path / "part.mp4")
    assert len(samples) / rate == pytest.approx(1, abs=0.05)


def test_other_pictures_a_second_leave_the_sound_where_it_is(tmp_path):
    exported(drummed(), tmp_path / "slow.webm", fps=10)
    np.testing.assert_allclose(strokes(tmp_path / "slow.webm"), [0.75, 1.25, 2.25], atol=0.01)


def test_trim_gain_and_the_dial_of_a_sound_are_heard(tmp_path):
    # Faded out by a dial: the last stroke is as loud as the dial says at its frame.
    fade = Dial(id="fade", name="Fade", low=0, high=1, channel=channel((0, 1), (80, 0)))
    exported(drummed(begin=0.75, gain=0.5, dial="fade").copy_with(dials=(fade,)), tmp_path / "faded.wav")
    samples, rate = heard(tmp_path / "faded.wav")
    original = struck(STROKES, 3, rate=RATE, sound="log")
    # What began at 1.0 s of the file begins at 6 frames + 0.25 s.
    for stroke in (1.0, 2.0):
        at = 0.25 + stroke - 0.75
        loud = np.abs(samples[round(at * rate) : round((at + 0.1) * rate)]).max()
        was = np.abs(original[round(stroke * RATE) : round((stroke + 0.1) * RATE)]).max()
        assert loud == pytest.approx(0.5 * was * (1 - 24 * at / 80), rel=0.1)
    assert np.abs(samples[: round(0.49 * rate)]).max() < 0.01


def test_what_is_muted_or_left_out_makes_no_sound(tmp_path):
    exported(drummed(), tmp_path / "silent.mp4", sound=False)
    exported(drummed(on=False), tmp_path / "muted.webm")
    for name in ("silent.mp4", "muted.webm"):
        with av.open(str(tmp_path / name)) as file:
            assert not file.streams.audio
    with pytest.raises(MotionError, match="no sound that is heard"):
        exported(drummed(on=False), tmp_path / "none.wav")


def test_sounds_that_are_too_loud_together_are_turned_down_and_told(tmp_path):
    drum = drummed().sounds[0]
    made = drummed().copy_with(sounds=(drum, drum.copy_with(id="again", gain=4.0)))
    (remark,) = exported(made, tmp_path / "loud.wav")
    assert "dB too loud" in remark
    samples, _ = heard(tmp_path / "loud.wav")
    assert np.abs(samples).max() == pytest.approx(1, abs=1e-3)


def test_a_look_and_an_estimate_of_sound_alone():
    found = preview_export(drummed(), ExportOptions(format="wav"), 0)
    assert (found.picture, found.text, found.seconds) == (None, None, 4.0)
    assert estimated(drummed(), ExportOptions(format="wav"), 0) == 44 + 4 * 4 * 48_000
