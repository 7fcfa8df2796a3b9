"""Eases: laws that hold for every one, and each against its closed form."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import TypeAdapter
from scipy.integrate import solve_ivp
from scipy.optimize import brentq

from tests.motion.scenes import eases
from vine_swing.motion.timing.ease import FEELS, Ease, build

ADAPTER: TypeAdapter[Ease] = TypeAdapter(Ease)
U = np.linspace(0, 1, 401)


def ease(written):
    return build(ADAPTER.validate_python(written))


@given(eases)
def test_every_ease_begins_at_0_and_ends_at_1_exactly(written):
    p = ease(written).at(np.array([0.0, 1.0]))
    assert p[0] == 0
    assert p[1] == 1


@given(eases, st.lists(st.floats(0, 1), min_size=1, max_size=9))
def test_one_at_a_time_is_as_all_at_once(written, u):
    curve = ease(written)
    together = curve.at(np.array(u))
    assert np.isfinite(together).all()
    np.testing.assert_allclose([float(curve.at(np.array([one]))[0]) for one in u], together, atol=1e-12)


@pytest.mark.parametrize("name", FEELS)
def test_end_slopes_are_those_of_the_curve(name):
    curve = build(FEELS[name].ease)
    step = 1e-7
    begin, end = curve.slopes()
    assert (curve.at(np.array([step])) / step)[0] == pytest.approx(begin, abs=2e-4)
    assert ((1 - curve.at(np.array([1 - step]))) / step)[0] == pytest.approx(end, abs=2e-4)


@given(st.floats(0, 1), st.floats(-3, 3), st.floats(0, 1), st.floats(-3, 3), st.floats(0, 1))
def test_bezier_against_a_root_finder(x1, y1, x2, y2, u):
    def cubic(a, b, s):
        return 3 * a * s * (1 - s) ** 2 + 3 * b * s**2 * (1 - s) + s**3

    s = brentq(lambda s: cubic(x1, x2, s) - u, 0, 1, xtol=1e-15) if 0 < u < 1 else u
    got = float(ease({"bezier": [x1, y1, x2, y2]}).at(np.array([u]))[0])
    # Where the curve is steep in x's own parameter, tiny differences in u are large in p: compare by the curve's x.
    assert got == pytest.approx(cubic(y1, y2, s), abs=1e-6) or abs(cubic(x1, x2, s) - u) < 1e-12


def test_points_follow_css_linear():
    curve = ease({"points": [[0, 0], [0.25, 0.75], [0.5, 0.5], [0.5, 0.9], [1, 1]]})
    np.testing.assert_allclose(
        curve.at(np.array([0, 0.125, 0.25, 0.375, 0.4999999, 0.5, 0.75, 1])), [0, 0.375, 0.75, 0.625, 0.5, 0.9, 0.95, 1], atol=1e-6
    )
    inner = ease({"points": [[0.25, 0.2], [0.75, 0.8]]})
    np.testing.assert_allclose(inner.at(np.array([0, 0.5, 1])), [-0.1, 0.5, 1.1], atol=1e-12)


@pytest.mark.parametrize("damping", [0.0, 0.25, 0.999, 1.0, 1.7])
def test_spring_is_the_step_response_of_a_damped_oscillator(damping):
    frequency = 2.5
    w = 2 * np.pi * frequency
    solved = solve_ivp(lambda t, y: [y[1], w * w * (1 - y[0]) - 2 * damping * w * y[1]], (0, 1), [0, 0], t_eval=U, rtol=1e-11, atol=1e-12).y[0]
    np.testing.assert_allclose(ease({"spring": {"frequency": frequency, "damping": damping}}).at(U), solved + U * (1 - solved[-1]), atol=1e-8)


@pytest.mark.parametrize(("bounces", "keep"), [(0, 0.5), (1, 0.25), (4, 0.6)])
def test_bounce_against_its_parabolas(bounces, keep):
    half = np.sqrt(keep) ** np.arange(1, bounces + 1)
    fall = 1 / (1 + 2 * half.sum())
    curve = ease({"bounce": {"bounces": bounces, "keep": keep}})
    contact = fall
    assert float(curve.at(np.array([fall / 2]))[0]) == pytest.approx(0.25)
    for k, h in enumerate(half, start=1):
        assert float(curve.at(np.array([contact]))[0]) == pytest.approx(1, abs=1e-9)
        assert 1 - float(curve.at(np.array([contact + h * fall]))[0]) == pytest.approx(keep**k, abs=1e-12)
        contact += 2 * h * fall
    assert contact == pytest.approx(1)


@pytest.mark.parametrize(
    ("written", "says"),
    [
        ({"bezier": [1.5, 0, 0, 1]}, "less than or equal to 1"),
        ({"points": [[0, 0], [0.5, 1], [0.4, 1]]}, "point 3 has u 0.4, before point 2's 0.5"),
        ({"points": [[0.5, 0], [0.5, 1]]}, "all points share one u"),
        ({"wobble": 3}, "an ease: "),
        ("wobbly", "'hold', 'linear'"),
        ({"bounce": {"bounces": 3, "keep": 0}}, "greater than or equal to 0.001"),
    ],
)
def test_a_bad_ease_is_refused_in_words(written, says):
    with pytest.raises(ValueError, match="(?s).*") as caught:
        ADAPTER.validate_python(written)
    assert says in str(caught.value)
