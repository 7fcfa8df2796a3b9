"""Chance and noise: within its bounds, smooth, closed where it is a ring, and of many rows together what it is of each."""

import numpy as np
import pytest

from vine_swing.motion.basics.chance import gradient_noise, lattice_noise, mixed
from vine_swing.motion.basics.rows import CACHED_SAMPLES, in_cache

ROWS, SAMPLES = 150, 240
PLACES = np.random.default_rng(3).uniform(-9, 40, (ROWS, SAMPLES))
STREAMS = mixed(np.arange(ROWS, dtype=np.uint64)[:, None])
RINGS = np.arange(1, ROWS + 1)[:, None]


@pytest.mark.parametrize("ring", [None, RINGS, RINGS[:1]])
@pytest.mark.parametrize("places", [PLACES, PLACES[:1]])
@pytest.mark.parametrize("streams", [STREAMS, STREAMS[:1]])
def test_noise_of_more_rows_than_are_worked_on_at_once_is_that_of_each(places, streams, ring):
    assert ROWS * SAMPLES > 2 * CACHED_SAMPLES
    together = lattice_noise(places, streams, ring)
    assert np.abs(together).max() <= 1
    for row in range(max(len(places), len(streams))):
        own = [one if one is None or len(one) == 1 else one[row : row + 1] for one in (places, streams, ring)]
        np.testing.assert_array_equal(lattice_noise(*own)[0], together[row])


def test_noise_goes_on_smoothly_and_differs_by_seed():
    fine = np.arange(0, 50, 1e-3)
    noise = gradient_noise(fine, 7)
    slope = np.diff(noise) / 1e-3
    assert np.abs(np.diff(noise)).max() < 5e-3
    assert np.abs(np.diff(slope)).max() < 0.05, "its slope does not jump"
    assert abs(np.corrcoef(noise, gradient_noise(fine, 8))[0, 1]) < 0.5
    np.testing.assert_array_equal(noise, gradient_noise(fine, 7))


@pytest.mark.parametrize("ring", [1, 2, 5])
def test_a_ring_closes_in_value_and_slope(ring):
    ends = np.array([[0.0, 1e-6, ring, ring + 1e-6]])
    begin, after_begin, end, after_end = lattice_noise(ends, STREAMS[:1], np.array([[ring]]))[0]
    assert end == pytest.approx(begin, abs=1e-12)
    assert after_end - end == pytest.approx(after_begin - begin, abs=1e-9)


@pytest.mark.parametrize(("rows", "samples"), [(0, 10), (1, 0), (3, 10**6), (1000, 240), (7, 16_000)])
def test_rows_gone_through_a_few_at_a_time_are_each_there_once(rows, samples):
    some = list(in_cache(rows, samples))
    assert [row for one in some for row in range(rows)[one]] == list(range(rows))
    assert all((one.stop - one.start) * samples <= CACHED_SAMPLES or one.stop - one.start == 1 for one in some)
