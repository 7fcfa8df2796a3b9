"""Ends against their definition, written out slowly."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.motion.scenes import channel, channels
from vine_swing.motion.timing.ends import End, turn_marks
from vine_swing.motion.timing.evaluate import evaluate

MODES = ["hold", "coast", "loop", "climb", "ping-pong"]


def read(one, *frames):
    return evaluate([one], np.array(frames, dtype=float))[0]


def slow(one, t):
    """The value of a linear two-key channel by the design's sentences, one number at a time."""
    (first, v0), (last, v1) = ((key.frame, key.value) for key in one.keys)
    span = last - first

    def f(x):
        return v0 + (v1 - v0) * (x - first) / span

    if first <= t <= last:
        return f(t)
    end = one.after if t > last else one.before
    if end.times is not None:
        # Past its turns the value holds where the last turn ended.
        limit = last + end.times * span if t > last else first - end.times * span
        if (t >= limit) if t > last else (t <= limit):
            t = limit
            k = end.times
            if end.mode == "hold" or k == 0:
                return v1 if limit >= last else v0
            after = limit > last
            return {
                "coast": f(limit),
                "loop": v1 if after else v0,
                "climb": v1 + k * (v1 - v0) if after else v0 - k * (v1 - v0),
                "ping-pong": (v1 if k % 2 == 0 else v0) if after else (v0 if k % 2 == 0 else v1),
            }[end.mode]
    u = t - first
    k = math.floor(u / span)
    r = u - k * span
    return {
        "hold": v1 if t > last else v0,
        "coast": f(t),
        "loop": f(first + r),
        "climb": f(first + r) + k * (v1 - v0),
        "ping-pong": f(first + r) if k % 2 == 0 else f(last - r),
    }[end.mode]


@pytest.mark.parametrize("before", MODES)
@pytest.mark.parametrize("after", MODES)
@pytest.mark.parametrize("times", [None, 0, 1, 2, 3])
def test_every_end_as_defined(before, after, times):
    one = channel((10, 2), (18, 6), before=(before, times), after=(after, times))
    t = np.arange(-40, 70, 0.5)
    np.testing.assert_allclose(read(one, *t), [slow(one, v) for v in t], atol=1e-9)


def test_the_keys_own_both_their_ends():
    one = channel((0, 1), (8, 5), after="loop")
    assert read(one, 0, 8, 16, 8.000001)[:3].tolist() == [1, 5, 1]


def test_coast_goes_on_at_the_slope_of_the_ease():
    eased = channel((0, 0), (10, 10, "linear"), before="coast", after="coast")
    assert read(eased, -3, 15).tolist() == [-3, 15]
    slow_in = channel((0, 0, "slow-in"), (10, 10), after="coast")
    assert read(slow_in, 20)[0] == 10, "it has come to rest, so it stays"
    slow_out = channel((0, 0, "slow-out"), (10, 10), after="coast")
    assert read(slow_out, 11)[0] == pytest.approx(10 + 1 / 0.58, abs=0.8)
    held = channel((0, 0, "hold"), (10, 10), after="coast")
    assert read(held, 30)[0] == 10


@given(channels(least=1, most=1), st.floats(-1e6, 1e6))
def test_a_lone_key_holds_for_ever_whatever_its_ends(one, t):
    assert read(one, t)[0] == one.keys[0].value


@given(channels(least=2), st.integers(-30, 30), st.floats(0.001, 0.999))
def test_loop_repeats_and_climb_gains(one, k, share):
    first, last = one.keys[0].frame, one.keys[-1].frame
    t = first + share * (last - first)
    looped = one.copy_with(before=End(mode="loop"), after=End(mode="loop"))
    climbing = one.copy_with(before=End(mode="climb"), after=End(mode="climb"))
    rise = one.keys[-1].value - one.keys[0].value
    size = 1 + abs(rise) * 31 + max(abs(key.value) for key in one.keys)
    inside = read(one, t)[0]
    # A frame that rounds across a key may read the value on its other side: look where the eases are smooth.
    there = read(looped, t + k * (last - first))[0]
    if abs(read(one, t + 1e-9)[0] - inside) < 1e-6 * size and abs(read(one, t - 1e-9)[0] - inside) < 1e-6 * size:
        assert there == pytest.approx(inside, abs=1e-4 * size)
        assert read(climbing, t + k * (last - first))[0] == pytest.approx(inside + k * rise, abs=1e-4 * size)


@given(channels(), st.lists(st.floats(-2000, 2000), min_size=1, max_size=20))
def test_values_are_finite_and_do_not_depend_on_company(one, t):
    together = read(one, *t)
    assert np.isfinite(together).all()
    assert [read(one, v)[0] for v in t] == together.tolist()


def test_turn_marks_are_where_turns_begin():
    assert turn_marks(10, 34, End(), End(mode="loop"), 120) == [34, 58, 82, 106]
    assert turn_marks(30, 40, End(mode="ping-pong"), End(mode="loop", times=1), 120) == [0, 10, 20, 30, 40, 50]
    assert turn_marks(5, 5, End(mode="loop"), End(mode="loop"), 120) == []
    assert len(turn_marks(0, 0.001, End(), End(mode="loop"), 20_000)) <= 500
