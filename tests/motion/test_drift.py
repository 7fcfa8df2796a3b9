"""Drift: the integral of its speed."""

import numpy as np
import pytest
from scipy.integrate import quad

from tests.motion.scenes import scene, shape
from vine_swing.motion import bake


def keys(*stops):
    return {"keys": [{"frame": frame, "value": value} for frame, value in stops]}


def rule(kind, *channels, **settings):
    return {"id": "r", "kind": kind, "channels": list(channels), "settings": settings}


def drifting(length=49, on=("x", "y"), **settings):
    one = scene(shape("raft", x=100, y=200, rules=[rule("drift", *on, **settings)]), length=length)
    return bake(one), np.arange(length) / 24


def test_it_goes_on_at_its_speed_in_its_direction_from_its_start():
    baked, s = drifting(speed=120, angle=30, start=12)
    since = np.maximum(s - 0.5, 0)
    np.testing.assert_allclose(baked["Raft", "x"], 100 + 120 * np.cos(np.radians(30)) * since, atol=1e-9)
    np.testing.assert_allclose(baked["Raft", "y"], 200 + 120 * np.sin(np.radians(30)) * since, atol=1e-9)


def test_gravity_makes_a_parabola_of_it():
    baked, s = drifting(speed=300, angle=-90, gravity=600)
    np.testing.assert_allclose(baked["Raft", "y"], 200 - 300 * s + 300 * s**2, atol=1e-9)
    np.testing.assert_allclose(baked["Raft", "x"], 100, atol=1e-9)


def test_friction_halves_the_speed():
    baked, s = drifting(speed=200, friction=0.5)
    np.testing.assert_allclose(baked["Raft", "x"], 100 + 200 * 0.5 / np.log(2) * (1 - 2 ** (-s / 0.5)), atol=1e-6)


def test_a_keyed_speed_integrates_exactly():
    baked, _ = drifting(speed=keys((0, 0), (24, 240), (48, 0)))
    np.testing.assert_allclose(baked["Raft", "x"][[24, 48]], [220, 340], atol=1e-9)


def test_keyed_speed_direction_and_friction_agree_with_quadrature():
    baked, _ = drifting(speed=keys((0, 50), (48, 250)), angle=keys((0, 0), (48, 90)), friction=2)

    def vx(f):
        return (50 + 200 * f / 48) / 24 * np.cos(np.radians(90 * f / 48)) * 2 ** (-f / 48)

    for frame in (7, 30, 48):
        assert baked["Raft", "x"][frame] == pytest.approx(100 + quad(vx, 0, frame, epsabs=1e-12)[0], abs=1e-6)


def test_on_other_channels_it_is_a_plain_speed():
    one = scene(shape("wheel", rotation=10, rules=[rule("drift", "rotation", speed=90, angle=77)]), length=25)
    np.testing.assert_allclose(bake(one)["Wheel", "rotation"], 10 + 90 * np.arange(25) / 24, atol=1e-9)
