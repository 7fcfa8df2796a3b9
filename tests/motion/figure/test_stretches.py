"""The way a body goes, cut into walks between stands."""

import numpy as np
import pytest

from tests.motion.scenes import channel
from vine_swing.motion.figure.stretches import analysed, stretches
from vine_swing.motion.timing.evaluate import evaluate

T = analysed(240)


def walks(x, stride=100.0, start=0.0):
    gone = evaluate([x], T)[0]
    return stretches(T, gone, np.full(len(T), stride), start)


def test_between_stands_it_takes_a_whole_number_of_half_cycles():
    (one,) = walks(channel((20, 0, "slow-out-in"), (200, 873)))
    assert (one.begins, one.ends, one.sign) == (True, True, 1)
    assert one.total == 8.5
    # In the middle the stride is the very stride; what is left over is in the first and the last cycle.
    x = np.array([300.0, 400, 500, 600])
    at = np.interp(x, evaluate([channel((20, 0, "slow-out-in"), (200, 873))], T)[0][80:-60], T[80:-60])
    np.testing.assert_allclose(np.diff(one.phase_at(at)), 1, atol=2e-3)


def test_stops_and_turns_divide_it():
    found = walks(channel((0, 0), (60, 400, "hold"), (90, 400), (150, 800), (200, 300)))
    assert [one.sign for one in found] == [1, 1, -1]
    assert [one.begins and one.ends for one in found] == [True, True, True]
    assert found[0].frames[-1] == pytest.approx(60, abs=1)
    assert found[1].frames[0] == pytest.approx(90, abs=1)


def test_swaying_and_hardly_moving_is_not_walking():
    assert walks(channel((0, 0, "slow-out-in"), (10, 12), after="ping-pong")) == []
    assert walks(channel((0, 50), (10, 50))) == []
    assert walks(channel((0, 0), (40, 20))) == []


def test_from_beyond_the_scene_the_phase_is_that_of_frame_0():
    (one,) = walks(channel((0, 0), (10, 50), before="coast", after="coast"), start=0.3)
    assert not one.begins
    assert not one.ends
    assert one.phase_at(np.array([0.0]))[0] == pytest.approx(0.3, abs=1e-9)
    assert one.phase_at(np.array([100.0]))[0] == pytest.approx(5.3, abs=1e-6)


def test_phase_never_runs_back():
    for x in (
        channel((0, 0, "wind-up"), (100, 500, "overshoot"), (200, 900)),
        channel((0, 0, {"spring": {"frequency": 4, "damping": 0.2}}), (120, 600)),
    ):
        for one in walks(x):
            assert (np.diff(one.phase) >= -1e-12).all()
