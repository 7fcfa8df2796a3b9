"""Few keys for many samples, and feels drawn by hand."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from vine_swing.motion.timing import ease
from vine_swing.motion.timing.channel import Channel
from vine_swing.motion.timing.ease.drawn import drawn
from vine_swing.motion.timing.evaluate import evaluate
from vine_swing.motion.timing.fit import fit_keys


@settings(deadline=None)
@given(st.lists(st.floats(-1000, 1000), min_size=2, max_size=60), st.sampled_from([0.01, 1.0, 50.0]))
def test_every_sample_is_met_within_the_tolerance(values, tolerance):
    frames = np.arange(len(values), dtype=float) / 2
    keys = fit_keys(frames, np.array(values), tolerance)
    found = evaluate([Channel(keys=tuple(keys))], frames)[0]
    assert np.abs(found - values).max() <= tolerance + 1e-6


def test_a_smooth_motion_takes_few_keys():
    frames = np.arange(0, 120, 0.25)
    assert len(fit_keys(frames, 100 * np.sin(frames / 12), 0.5)) < 24
    assert len(fit_keys(frames, 3 * frames + 5, 1e-6)) == 2


POINTS = st.lists(st.tuples(st.floats(0.01, 0.99), st.floats(-1, 2)), max_size=8, unique_by=lambda p: round(p[0], 2)).map(
    lambda more: [(0.0, 0.0), *sorted(more), (1.0, 1.0)]
)


@given(POINTS, st.booleans())
def test_a_drawn_feel_passes_its_points_and_never_swings_past_them(points, smooth):
    curve = ease.build(drawn(points, smooth=smooth))
    for u, p in points:
        assert curve.at(np.array([u]))[0] == pytest.approx(p, abs=1e-5)
    for (u0, p0), (u1, p1) in zip(points, points[1:], strict=False):
        between = curve.at(np.linspace(u0, u1, 20))
        assert between.min() >= min(p0, p1) - 1e-5
        assert between.max() <= max(p0, p1) + 1e-5


@pytest.mark.parametrize("points", [[(0, 0)], [(0, 0), (0.5, 1)], [(0.1, 0), (1, 1)], [(0, 0), (0.5, 0.2), (0.5, 0.4), (1, 1)]])
def test_what_is_no_feel_is_refused(points):
    with pytest.raises(ValueError, match="feel"):
        drawn(points, smooth=True)
