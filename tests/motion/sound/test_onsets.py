"""Onsets of sounds made here, where it is known when something begins: none missed, none invented, each within a frame."""

import numpy as np
import pytest

from tests.sounds import RATE, struck
from vine_swing.motion.sound import beats_a_minute, onsets, pulses

FRAME = 1 / 24


def matched(found, moments):
    assert len(found) == len(moments), f"{len(found)} found, {len(moments)} made"
    np.testing.assert_allclose(found, moments, atol=FRAME)


@pytest.mark.parametrize("sound", ["click", "log"])
@pytest.mark.parametrize("noise", [0.0, 0.004])
def test_a_steady_track_of_strokes(sound, noise):
    moments = np.arange(0.3, 9.5, 0.5)
    matched(onsets(struck(moments, 10, sound=sound, noise=noise), RATE), moments)
    assert beats_a_minute(moments) == pytest.approx(120)


@pytest.mark.parametrize("seed", range(8))
def test_strokes_at_any_distances(seed):
    moments = np.cumsum(np.random.default_rng(seed).uniform(0.12, 0.9, 20)) + 0.1
    matched(onsets(struck(moments, moments[-1] + 0.5, seed=seed), RATE), moments)


@pytest.mark.parametrize("rate", [8000, 16_000, 22_050])
def test_at_any_rate(rate):
    moments = np.arange(0.2, 3.9, 0.4)
    matched(onsets(struck(moments, 4, rate=rate), rate), moments)


def test_what_sounds_from_the_first_sample_begins_there():
    matched(onsets(struck([0.0, 1.0], 2), RATE), [0.0, 1.0])


def test_nothing_begins_in_silence_or_in_an_even_tone():
    assert len(onsets(np.zeros(RATE), RATE)) == 0
    tone = 0.5 * np.sin(2 * np.pi * 220 * np.arange(4 * RATE) / RATE)
    assert len(onsets(tone, RATE)) <= 2, "where it begins and where it is cut off, nothing between"


def test_pulses_are_one_where_something_begins_and_fall_by_half():
    found = pulses(np.array([0.5, 1.0]), 24, 36, fall=0.5)
    assert found[:12].tolist() == [0.0] * 12
    assert found[12] == found[24] == 1
    assert found[18] == pytest.approx(0.5)
    assert found[23] == pytest.approx(0.5 ** (11 / 6))
    assert not pulses(np.zeros(0), 24, 5).any()
    assert beats_a_minute(np.array([0.0, 1.0])) is None
