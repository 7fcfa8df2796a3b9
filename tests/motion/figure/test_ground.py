"""The ground under a figure: the upper edge of any shape."""

from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from vine_swing.motion.curves.svg_path import parse_path
from vine_swing.motion.figure.ground import Ground


def test_the_highest_part_counts_and_beyond_its_ends_it_is_level():
    ground = Ground.under([np.array([[0.0, 100], [200, 100]]), np.array([[50.0, 80], [100, 60]]), np.array([[90.0, 140], [120, 140]])])
    np.testing.assert_allclose(ground.height(np.array([-50, 10, 75, 100, 150, 500.0])), [100, 100, 70, 60, 100, 100], atol=0.5)


def test_lines_backwards_and_upright_are_no_fault():
    ground = Ground.under([np.array([[200.0, 50], [0, 90], [0, 20], [10, 20]])])
    assert ground.height(np.array([5.0]))[0] == pytest.approx(20)
    assert ground.height(np.array([100.0]))[0] == pytest.approx(70, abs=0.5)


@pytest.mark.parametrize("lines", [[], [np.array([[5.0, 0], [5, 90]])], [np.array([[5.0, 0]]), np.array([[90.0, 0]])]])
def test_what_has_no_width_is_no_ground(lines):
    assert Ground.under(lines) is None


def test_curves_are_followed_closely():
    # A quarter of a circle, well within a tenth of a pixel.
    outline = parse_path("M-100 0 A100 100 0 0 1 100 0")
    ground = Ground.under(outline.lines())
    x = np.linspace(-80, 80, 200)
    np.testing.assert_allclose(ground.height(x), -np.sqrt(100**2 - x**2), atol=0.6)


def test_evened_out_it_has_no_steps():
    stairs = np.array([[n * 40 + dx, -20.0 * n] for n in range(10) for dx in (0, 40)])
    ground = Ground.under([stairs])
    x = np.linspace(60, 340, 600)
    assert np.abs(np.diff(ground.even(x, 60))).max() < 0.5
    assert np.abs(np.diff(ground.height(x))).max() > 5
    assert ground.slope(np.array([200.0]), 80)[0] == pytest.approx(-0.5, abs=0.1)


LINES = st.lists(st.lists(st.tuples(st.integers(-60, 60), st.floats(-50, 50)), min_size=1, max_size=6), min_size=1, max_size=3)


@given(LINES)
def test_at_whole_places_it_is_the_highest_of_all_stretches_there(lines):
    ground = Ground.under([np.array(line, float) for line in lines])
    if ground is None:
        return
    xs = [x for line in lines for x, _ in line]
    for x in range(min(xs), max(xs) + 1):
        here = []
        for line in lines:
            for a, b in pairwise(line):
                (x0, y0), (x1, y1) = sorted((a, b), key=lambda one: one[0])
                if x0 <= x <= x1:
                    here.append(min(y0, y1) if x0 == x1 else y0 + (y1 - y0) * (x - x0) / (x1 - x0))
        # Where there is nothing, it goes straight from one to the next.
        if here:
            assert ground.height(np.array([float(x)]))[0] == pytest.approx(min(here), abs=1e-9)


def test_the_same_lines_are_one_ground_and_evened_out_alike_after_many_other_ways():
    line = np.array([[0.0, 0], [300, -40], [340, 10]])
    ground = Ground.under([line])
    assert Ground.under([line.copy()]) is ground
    assert Ground.under([line + 1]) is not ground
    x = np.linspace(0, 340, 50)
    first = ground.even(x, 20)
    for reach in range(30, 90):
        ground.even(x, reach)
    np.testing.assert_array_equal(ground.even(x, 20), first)
