"""Handles and splines, against closed forms and scipy."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.interpolate import BPoly, CubicHermiteSpline
from scipy.optimize import brentq

from tests.motion.scenes import scene, shape
from vine_swing.motion import bake, dump, parse
from vine_swing.motion.timing.channel import Channel
from vine_swing.motion.timing.evaluate import evaluate


def keyed(*keys, **ends):
    return Channel.model_validate({"keys": list(keys), **ends})


def read(one, t):
    return evaluate([one], np.asarray(t, dtype=float))[0]


T = np.linspace(0, 30, 301)


def test_a_spline_with_all_three_0_is_the_hermite_spline_of_the_mean_velocities():
    frames, values = np.array([0.0, 4, 20, 30]), np.array([0.0, 10, -3, 8])
    one = keyed(*({"frame": f, "value": v, "ease": "spline"} for f, v in zip(frames, values, strict=True)))
    inner = (values[2:] - values[:-2]) / (frames[2:] - frames[:-2])
    ends = np.diff(values)[[0, -1]] / np.diff(frames)[[0, -1]]
    np.testing.assert_allclose(read(one, T), CubicHermiteSpline(frames, values, [ends[0], *inner, ends[1]])(T), atol=1e-9)


@given(st.floats(-1, 1), st.floats(-1, 1), st.floats(-1, 1))
def test_tension_continuity_and_bias_as_in_the_paper(tension, continuity, bias):
    bent = {"tension": tension, "continuity": continuity, "bias": bias}
    one = keyed(
        {"frame": 0, "value": 0, "ease": "spline"}, {"frame": 10, "value": 6, "ease": "spline", **bent}, {"frame": 30, "value": 2, "ease": "spline"}
    )
    before, after, n0, n1 = 6.0, -4.0, 10.0, 20.0
    leaving = (1 - tension) * ((1 + continuity) * (1 + bias) * before + (1 - continuity) * (1 - bias) * after) / 2
    arriving = (1 - tension) * ((1 - continuity) * (1 + bias) * before + (1 + continuity) * (1 - bias) * after) / 2
    first = CubicHermiteSpline([0, 10], [0, 6], [before / n0, arriving * 2 / (n0 + n1)])
    second = CubicHermiteSpline([10, 30], [6, 2], [leaving * 2 / (n0 + n1), after / n1])
    np.testing.assert_allclose(read(one, T), np.where(T <= 10, first(T), second(T)), atol=1e-9)


def test_full_tension_stops_at_the_key():
    one = keyed({"frame": 0, "value": 0, "ease": "spline"}, {"frame": 10, "value": 6, "ease": "spline", "tension": 1}, {"frame": 20, "value": 30})
    speed = np.diff(read(one, [10 - 1e-4, 10, 10 + 1e-4])) / 1e-4
    np.testing.assert_allclose(speed, 0, atol=1e-3)


@given(st.floats(0, 8), st.floats(-50, 50), st.floats(-8, 0), st.floats(-50, 50), st.floats(0, 8))
def test_handles_are_a_bezier_curve_in_frame_and_value(out_f, out_v, in_f, in_v, t):
    one = keyed({"frame": 0, "value": 3, "ease": "handles", "out": [out_f, out_v]}, {"frame": 8, "value": 11, "in": [in_f, in_v]})
    x = BPoly([[0], [out_f], [8 + in_f], [8]], [0, 1])
    y = BPoly([[3], [3 + out_v], [11 + in_v], [11]], [0, 1])
    s = brentq(lambda s: x(s) - t, 0, 1, xtol=1e-15) if 0 < t < 8 else t / 8
    got = read(one, [t])[0]
    steep = abs(y(min(s + 1e-7, 1)) - y(max(s - 1e-7, 0)))
    assert got == pytest.approx(float(y(s)), abs=1e-6 + 100 * steep)


@given(st.floats(-1000, 1000), st.floats(-1000, 1000), st.floats(-100, 100), st.floats(-100, 100))
def test_time_is_monotone_under_any_handles(out_f, in_f, out_v, in_v):
    one = keyed({"frame": 0, "value": 0, "ease": "handles", "out": [out_f, 0.0]}, {"frame": 10, "value": 1, "in": [in_f, 0.0]})
    values = read(one, np.linspace(0, 10, 200))
    # With level handles the value is monotone in the curve's parameter, so it is in time if time never turns back.
    assert (np.diff(values) >= -1e-9).all()
    wild = keyed({"frame": 0, "value": 0, "ease": "handles", "out": [out_f, out_v]}, {"frame": 10, "value": 1, "in": [in_f, in_v]})
    assert np.isfinite(read(wild, np.linspace(-5, 15, 50))).all()


def test_handles_left_out_make_a_straight_line():
    np.testing.assert_allclose(read(keyed({"frame": 0, "value": 0, "ease": "handles"}, {"frame": 30, "value": 60}), T), 2 * T, atol=1e-9)


def test_coasting_goes_on_along_the_handle_or_the_spline():
    handled = keyed(
        {"frame": 0, "value": 0, "ease": "handles", "out": [3.0, 0.0]},
        {"frame": 10, "value": 10, "in": [-2.0, -6.0]},
        before={"mode": "coast"},
        after={"mode": "coast"},
    )
    assert read(handled, [-5, 12]) == pytest.approx([0, 16])
    splined = keyed(
        {"frame": 0, "value": 0, "ease": "spline"}, {"frame": 10, "value": 10, "ease": "spline"}, {"frame": 20, "value": 40}, after={"mode": "coast"}
    )
    assert read(splined, [22])[0] == pytest.approx(46)


def test_colours_can_be_splined_but_have_no_handles():
    one = scene(shape("pod", fill=keyed({"frame": 0, "value": "#FF0000", "ease": "spline"}, {"frame": 10, "value": "#0000FF"})), length=11)
    assert bake(one)["Pod", "fill"].shape == (11, 4)
    with pytest.raises(ValueError, match="has handles, which colours cannot have"):
        scene(shape("pod", fill=keyed({"frame": 0, "value": "#FF0000", "out": [1.0, 2.0]})))


def test_files_say_in_and_out():
    one = scene(
        shape(
            "pod",
            x=keyed({"frame": 0, "value": 0, "ease": "handles", "out": [1.0, 2.0], "tension": 0.5}, {"frame": 10, "value": 1, "in": [-3.0, 0.0]}),
        )
    )
    assert '"in"' in dump(one)
    assert "into" not in dump(one)
    assert parse(dump(one)) == one
