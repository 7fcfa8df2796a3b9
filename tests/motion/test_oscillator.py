"""The oscillator, against its closed form."""

import numpy as np
import pytest
from scipy.integrate import quad

from tests.motion.scenes import channel, scene, shape
from vine_swing.motion import bake

T = np.arange(0, 100, 0.25)
FPS = 24


def swing(channels=("rotation",), mode="add", rotation=0.0, **settings):
    rule = {
        "id": "o",
        "kind": "oscillator",
        "channels": channels,
        "mode": mode,
        "settings": {k: v.model_dump() if hasattr(v, "model_dump") else v for k, v in settings.items()},
    }
    return bake(scene(shape("leaf", rotation=rotation, rules=[rule]), length=96), T)["Leaf", "rotation"]


def test_sine_and_cosine():
    np.testing.assert_allclose(swing(amplitude=7, frequency=1.3, phase=40), 7 * np.sin(2 * np.pi * (40 / 360 + 1.3 * T / FPS)), atol=1e-9)
    np.testing.assert_allclose(swing(wave="cosine", amplitude=7, frequency=1.3), 7 * np.cos(2 * np.pi * 1.3 * T / FPS), atol=1e-9)


@pytest.mark.parametrize(
    ("wave", "quarters"),
    [
        ("triangle", [0, 0.5, 1, 0.5, 0, -0.5, -1, -0.5]),
        ("square", [1, 1, 1, 1, -1, -1, -1, -1]),
        ("sawtooth", [-1, -0.75, -0.5, -0.25, 0, 0.25, 0.5, 0.75]),
    ],
)
def test_the_other_waves_by_eighths(wave, quarters):
    # One swing in 24 frames: an eighth is 3 frames, 12 rows of the grid.
    assert swing(wave=wave, amplitude=1, frequency=1)[:96:12].tolist() == pytest.approx(quarters)


def test_half_life_halves_and_start_waits():
    got = swing(amplitude=10, frequency=1, wave="cosine", half_life=0.5, start=24, rotation=3)
    assert got[T < 24].tolist() == [3] * int((T < 24).sum())
    seconds = (T[T >= 24] - 24) / FPS
    np.testing.assert_allclose(got[T >= 24], 3 + 10 * 2.0 ** (-seconds / 0.5) * np.cos(2 * np.pi * seconds), atol=1e-9)


def test_limits_and_whole_cycles():
    got = swing(amplitude=10, low=-2, high=4, frequency=2)
    assert got.min() == -2
    assert got.max() == 4
    np.testing.assert_allclose(swing(amplitude=1, cycles=3), np.sin(2 * np.pi * 3 * T / 96), atol=1e-9)


def test_modes():
    np.testing.assert_allclose(
        swing(amplitude=2, wave="cosine", frequency=1, rotation=5, mode="multiply"), 5 * 2 * np.cos(2 * np.pi * T / FPS), atol=1e-9
    )
    np.testing.assert_allclose(swing(amplitude=2, wave="cosine", frequency=1, rotation=5, mode="replace"), 2 * np.cos(2 * np.pi * T / FPS), atol=1e-9)


def test_a_keyed_frequency_is_integrated_and_never_jumps():
    ramp = channel((0, 0.5), (48, 3.0), (60, 3.0, "slow-out-in"), (80, 1.0))
    got = swing(amplitude=1, frequency=ramp)
    exact_ramp = 0.5 * T + 2.5 / 48 * T**2 / 2
    np.testing.assert_allclose(got[T <= 48], np.sin(2 * np.pi * exact_ramp / FPS)[T <= 48], atol=1e-9)
    from vine_swing.motion.timing.evaluate import evaluate

    def frequency(t):
        return evaluate([ramp], np.array([t]))[0, 0]

    late = 71.25
    area = quad(frequency, 0, late, points=[48, 60], limit=400, epsabs=1e-12)[0]
    assert got[np.searchsorted(T, late)] == pytest.approx(np.sin(2 * np.pi * area / FPS), abs=1e-9)


def test_it_acts_on_every_keyed_channel_where_none_is_named():
    rule = {"id": "o", "kind": "oscillator", "settings": {"amplitude": 4, "wave": "cosine"}}
    baked = bake(scene(shape("leaf", x=channel((0, 0), (10, 0)), y=7, rules=[rule])))
    assert baked["Leaf", "x"][0] == 4
    assert baked["Leaf", "y"][0] == 7


@pytest.mark.parametrize(
    ("settings", "says"),
    [
        ({"frequency": 1e9}, "frequency is 1000000000; it must be between -240 and 240 Hz"),
        ({"half_life": -1}, "half-life is -1; it must be 0.000001 s or more"),
        ({"wave": "wobble"}, "wave is 'wobble'; it can be sine, cosine"),
        ({"speed": 3}, "has no setting 'speed'; it has wave, amplitude"),
        ({"amplitude": "#FFF"}, "amplitude is '#FFF'; it must be a number"),
    ],
)
def test_bad_settings_are_refused_in_words(settings, says):
    with pytest.raises(ValueError, match="(?s).*") as caught:
        swing(**settings)
    assert says in str(caught.value)


def test_bad_channels_are_refused_in_words():
    with pytest.raises(ValueError, match="acts on 'fill'; it can act on x, y"):
        swing(channels=["fill"])
    with pytest.raises(ValueError, match="no channel is left"):
        swing(channels=[])
