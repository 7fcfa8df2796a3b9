"""Paths: the way against closed forms and scipy, the pace against the ease alone."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import quad
from scipy.optimize import brentq

from tests.motion.scenes import scene, shape
from vine_swing.motion import SceneFileError, bake
from vine_swing.motion.timing import ease
from vine_swing.motion.timing.channel import Channel
from vine_swing.motion.timing.path import Curve, curves, evaluate_path

T = np.linspace(0, 40, 161)


def path(*keys, **ends):
    return Channel.model_validate({"keys": list(keys), **ends})


def key(frame, x, y, **more):
    return {"frame": frame, "value": [x, y], **more}


def speed(controls, s):
    a, b, c, d = (np.array(p, float) for p in controls)
    return np.hypot(*(3 * (1 - s) ** 2 * (b - a) + 6 * (1 - s) * s * (c - b) + 3 * s**2 * (d - c)))


BENDS = [
    [(0, 0), (300, 0), (300, 200), (0, 200)],
    [(0, 0), (50, 400), (100, -400), (150, 0)],
    [(0, 0), (100, 0), (0, 0.5), (100, 0)],
    [(0, 0), (120, 100), (-20, 100), (100, 0)],
    [(0, 0), (0, 0), (90, 10), (100, 100)],
]


@pytest.mark.parametrize("controls", BENDS)
def test_length_and_place_agree_with_scipy(controls):
    curve = Curve(np.array(controls, float))
    whole = quad(lambda s: speed(controls, s), 0, 1, limit=400, epsabs=1e-11)[0]
    assert curve.length == pytest.approx(whole, abs=1e-6)
    for share in (0.1, 0.37, 0.5, 0.93):
        s = brentq(lambda s: quad(lambda v: speed(controls, v), 0, s, limit=400, epsabs=1e-10)[0] - share * whole, 0, 1, xtol=1e-13)  # noqa: B023
        np.testing.assert_allclose(curve.at(np.array([share])), curve.point(np.array([s])), atol=1e-5)


def test_a_straight_path_has_a_closed_form():
    way = path(key(0, 0, 0, ease="slow-in"), key(20, 300, 400), key(40, 300, 0))
    p = ease.build("slow-in").at(np.clip(T / 20, 0, 1))
    expected = np.where((T < 20)[:, None], np.outer(p, [300, 400]), np.stack([np.full_like(T, 300), 400 - 20 * (T - 20)], axis=1))
    np.testing.assert_allclose(evaluate_path(way, T), expected, atol=1e-9)


@settings(deadline=None, max_examples=40)
@given(st.lists(st.tuples(st.floats(-500, 500), st.floats(-500, 500)), min_size=2, max_size=2), st.sampled_from([b for b in BENDS if b[0] == (0, 0)]))
def test_even_pace_is_even_on_any_bend(handles, bend):
    way = path(key(0, 0, 0, out=list(handles[0])), key(40, *bend[3], **{"in": list(handles[1])}))
    curve = curves(way.keys)[0]
    # The way to each place, measured along the curve itself.
    s = np.linspace(0, 1, 40_001)
    fine = curve.point(s)
    along = np.append(0, np.cumsum(np.hypot(*np.diff(fine, axis=0).T)))
    places = curve.parameter(np.linspace(0, 1, 41))
    np.testing.assert_allclose(np.interp(places, s, along), np.linspace(0, along[-1], 41), atol=2e-3 * (1 + along[-1] / 1000))


def test_sliding_a_key_in_time_never_bends_the_path():
    def drawn(frame):
        way = path(key(0, 0, 0, way="spline"), key(frame, 100, 300, way="spline"), key(40, 500, 0))
        return [curve.controls for curve in curves(way.keys)]

    np.testing.assert_allclose(drawn(10), drawn(33), atol=1e-9)


def test_a_spline_is_smooth_and_passes_sharply_with_tension():
    def tangents(tension):
        keys = path(key(0, 0, 0, way="spline"), key(20, 100, 0, way="spline", tension=tension), key(40, 100, 300)).keys
        before, after = curves(keys)
        return before.controls[3] - before.controls[2], after.controls[1] - after.controls[0]

    into, out = tangents(0)
    assert np.cross(np.append(into, 0), np.append(out, 0))[2] == pytest.approx(0, abs=1e-9)
    # Chord lengths are the knots: (v₊ − v₋)/(k₊ − k₋) with k as far apart as the points.
    np.testing.assert_allclose(out / (300 / 3), (np.array([100, 300]) - 0) / 400, atol=1e-12)
    into, out = tangents(1)
    np.testing.assert_allclose([into, out], 0, atol=1e-12)


def test_a_sharp_corner_is_not_cut():
    way = path(key(0, 0, 0, way="spline"), key(20, 100, 0, way="spline", tension=1), key(40, 100, 300))
    way = way.copy_with(keys=(way.keys[0].copy_with(tension=1.0), way.keys[1], way.keys[2].copy_with(tension=1.0)))
    points = evaluate_path(way, T)
    off = np.minimum(np.abs(points[:, 1]), np.abs(points[:, 0] - 100))
    assert off.max() < 1e-9


def test_ends_loop_climb_and_coast():
    two = (key(0, 0, 0), key(10, 30, 40))
    at = np.array([-5.0, 13.0, 25.0])
    np.testing.assert_allclose(evaluate_path(path(*two, after={"mode": "climb"}), at), [[0, 0], [39, 52], [75, 100]], atol=1e-9)
    np.testing.assert_allclose(evaluate_path(path(*two, after={"mode": "ping-pong"}), at), [[0, 0], [21, 28], [15, 20]], atol=1e-9)
    coasting = path(*two, before={"mode": "coast"}, after={"mode": "coast"})
    np.testing.assert_allclose(evaluate_path(coasting, at), [[-15, -20], [39, 52], [75, 100]], atol=1e-9)


def test_overshooting_goes_straight_on():
    way = path(key(0, 0, 0, ease="overshoot"), key(20, 100, 0))
    assert evaluate_path(way, T[:80])[:, 0].max() > 105


def test_x_and_y_follow_the_path_and_rules_come_after():
    swing = {"id": "s", "kind": "oscillator", "channels": ["y"], "settings": {"amplitude": 5, "frequency": 1}}
    way = {"keys": [key(0, 10, 20), key(24, 110, 20)]}
    baked = bake(scene(shape("pod", path=way, x=999, rules=[swing]), length=25))
    np.testing.assert_allclose(baked["Pod", "x"], np.linspace(10, 110, 25), atol=1e-9)
    np.testing.assert_allclose(baked["Pod", "y"], 20 + 5 * np.sin(2 * np.pi * np.arange(25) / 24), atol=1e-9)
    own = bake(scene(shape("pod", path=way, x={"keys": [{"frame": 0, "value": 7}]}), length=25))
    assert set(own["Pod", "x"]) == {7.0}, "keys of its own come before the path"


@pytest.mark.parametrize(
    ("channels", "says"),
    [
        ({"path": {"keys": [{"frame": 0, "value": 5}]}}, "must be a point"),
        ({"path": [3, 4]}, "path"),
        ({"path": {"base": [3, 4]}}, "no base"),
        ({"x": {"keys": [{"frame": 0, "value": [1, 2]}]}}, "must be a number"),
        ({"x": {"keys": [{"frame": 0, "value": 1, "way": "spline"}]}}, "only keys of a path"),
        ({"path": {"keys": [{"frame": 0, "value": [1, 2, 3]}]}}, "value"),
    ],
)
def test_what_is_no_path_is_refused(channels, says):
    with pytest.raises(SceneFileError, match=says):
        scene(shape("pod", **channels))
