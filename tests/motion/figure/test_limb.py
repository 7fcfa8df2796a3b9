"""Two bones: the end gets to its place, bones keep their lengths, and nothing pops."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vine_swing.motion.figure.limb import FULL, SOFT, reached, solve

lengths = st.floats(5, 200)
points = st.tuples(st.floats(-400, 400), st.floats(-400, 400))


def ends(root, upper, lower, l1, l2):
    u, v = np.radians(upper), np.radians(lower)
    middle = root + l1 * np.stack([np.cos(u), np.sin(u)], axis=-1)
    return middle, middle + l2 * np.stack([np.cos(v), np.sin(v)], axis=-1)


@given(lengths, lengths, points, points, st.sampled_from([1, -1]))
def test_the_end_gets_to_its_place_or_lies_on_the_way_to_it(l1, l2, root, place, bend):
    root, place = np.array([root]), np.array([place])
    middle, end = ends(root, *solve(root, place, l1, l2, bend), l1, l2)
    wanted = np.hypot(*(place - root)[0])
    got = float(reached(np.array([wanted]), l1, l2)[0])
    assert np.hypot(*(end - root)[0]) == pytest.approx(got, abs=1e-6)
    if abs(l1 - l2) * 1.002 + 1e-3 < wanted < SOFT * (l1 + l2):
        np.testing.assert_allclose(end, place, atol=1e-6)
        # The knee is on the side it bends to: to the right of the way down, for 1.
        across = (place - root)[0, 0] * (middle - root)[0, 1] - (place - root)[0, 1] * (middle - root)[0, 0]
        assert across * bend <= 1e-6


@given(lengths, lengths)
def test_reach_is_exact_then_soft_and_never_full(l1, l2):
    d = np.linspace(0, 3 * (l1 + l2), 4001)
    got = reached(d, l1, l2)
    near = (d > abs(l1 - l2) * 1.002 + 1e-3) & (d < SOFT * (l1 + l2))
    np.testing.assert_allclose(got[near], d[near], atol=1e-9)
    assert got.max() <= FULL * (l1 + l2) + 1e-9
    assert (np.diff(got) >= -1e-9).all()
    # C1: the slope goes from 1 down without a jump.
    beyond = d > SOFT * (l1 + l2)
    slopes = np.diff(got[beyond]) / np.diff(d[beyond])
    assert slopes[0] == pytest.approx(1, abs=0.2)
    assert (np.diff(slopes) <= 1e-9).all()


def test_a_knee_pulled_straight_never_pops():
    """A foot drawn out of reach at a steady pace: the knee opens without a jump, and ever more slowly at the end."""
    place = np.stack([np.zeros(400), np.linspace(60, 140, 400)], axis=-1)
    upper, lower = solve(np.zeros((1, 2)), place, 50, 50, 1)
    bend = (lower - upper) % 360
    turns = np.abs(np.diff(bend))
    assert turns.max() < 2.2, "degrees for a fifth of a pixel"
    assert np.abs(np.diff(turns)).max() < 0.15


def test_a_foot_on_its_own_hip_is_no_fault():
    assert np.isfinite(solve(np.zeros((1, 2)), np.zeros((1, 2)), 40, 40, 1)).all()
