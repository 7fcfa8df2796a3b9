"""Loudness against the root mean square by its definition, bands against pure tones, following against its closed form."""

import numpy as np
import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from vine_swing.motion.sound import BANDS, level, loudness

RATE = 8000


def tone(hertz, seconds, rate=RATE):
    return np.sin(2 * np.pi * hertz * np.arange(int(seconds * rate)) / rate)


# The last frame begins at sample 1666.67, which rounds to the sound's end.
@example(1667, 24.0, 0)
@given(st.integers(1, 5000), st.sampled_from([24.0, 25.0, 23.976, 60.0, 12.5]), st.integers(0, 99))
def test_loudness_is_the_root_mean_square_of_each_frame(count, fps, seed):
    samples = np.random.default_rng(seed).normal(size=count)
    found = loudness(samples, RATE, fps)
    for frame, value in enumerate(found):
        part = samples[round(frame * RATE / fps) : round((frame + 1) * RATE / fps)]
        if len(part):
            assert value == pytest.approx(np.sqrt(np.mean(part**2)), abs=1e-6)
    assert len(found) == max(1, int(np.ceil(count * fps / RATE - 1e-9)))


def test_of_a_sine_it_is_its_height_over_the_root_of_two():
    np.testing.assert_allclose(loudness(0.4 * tone(100, 1), RATE, 25), 0.4 / np.sqrt(2), atol=1e-6)


@pytest.mark.parametrize(("hertz", "band"), [(80, "low"), (700, "middle"), (3400, "high")])
def test_a_tone_is_heard_in_its_band_and_not_in_others(hertz, band):
    # A louder tone of another band a second later: each level is a share of its own loudest.
    samples = np.concatenate([tone(hertz, 1), np.zeros(RATE)])
    raw = {name: np.sqrt(np.mean(np.square(samples))) for name in BANDS}
    assert raw
    for name in ("low", "middle", "high"):
        heard = level(samples + 1e-9, RATE, 25, band=name)
        assert heard.max() == pytest.approx(1) or heard.max() == 0
    loud = {name: level(np.concatenate([samples, tone(80, 1), tone(700, 1), tone(3400, 1)]), RATE, 25, band=name)[5:20].mean() for name in BANDS}
    assert loud[band] > 0.9
    assert all(loud[name] < 0.1 for name in ("low", "middle", "high") if name != band)


def test_it_follows_rises_and_falls_in_its_time():
    fps, samples = 100.0, np.concatenate([np.zeros(RATE), np.ones(RATE), np.zeros(RATE)])
    found = level(samples, RATE, fps, attack=0.1, release=0.4)
    frames = np.arange(100)
    rise = 1 - np.exp(-(frames + 1) / (fps * 0.1))
    np.testing.assert_allclose(found[100:200], rise / rise[-1], atol=1e-9)
    np.testing.assert_allclose(found[200:300], np.exp(-(frames + 1) / (fps * 0.4)), atol=1e-9)


def test_silence_is_silence_and_an_unknown_band_is_an_error():
    assert not level(np.zeros(RATE), RATE, 24).any()
    assert len(loudness(np.zeros(0), RATE, 24)) == 0
    assert not level(tone(100, 0.2, 300), 300, 24, band="high").any(), "there is nothing above half the rate"
    with pytest.raises(KeyError):
        level(np.zeros(9), RATE, 24, band="treble")
