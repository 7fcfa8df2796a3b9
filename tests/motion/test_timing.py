"""Edits of timing: each with the law it must keep."""

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter

from tests.motion.scenes import channel, channels, frames, numbers, scene, shape
from vine_swing.motion import EditError, NoSuchThing, bake
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.timing.ends import HOLD

EDIT: TypeAdapter[AnyEdit] = TypeAdapter(AnyEdit)


def do(before, *edits):
    return apply_all(before, [EDIT.validate_python(edit) for edit in edits])


def pod(one, **others):
    return scene(shape("pod", x=one, **others), length=20)


def picked(one, name="x"):
    return {"object": "pod", "channel": name, "frames": [key.frame for key in one.keys]}


def stops(one, name="x"):
    return [(key.frame, key.value) for key in one.objects[0].channels[name].keys]


@given(channels(least=2), frames, st.sampled_from([2.0, 4.0, 0.5, 8.0]))
def test_stretching_and_squeezing_back_is_the_identity(one, about, factor):
    before = pod(one)
    there = do(before, {"edit": "stretch-keys", "keys": [picked(one)], "about": about, "factor": factor})
    moved = there.objects[0].channels["x"]
    assert do(there, {"edit": "stretch-keys", "keys": [picked(moved)], "about": about, "factor": 1 / factor}) == before


@settings(deadline=None)
@given(channels(least=2), st.sampled_from([2.0, 0.5]))
def test_stretched_keys_give_the_same_motion_slower(one, factor):
    one = one.copy_with(before=HOLD, after=HOLD)
    before = pod(one)
    after = do(before, {"edit": "stretch-keys", "keys": [picked(one)], "about": 0.0, "factor": factor})
    t = np.linspace(-50, 50, 41)
    was = bake(before, t)["Pod", "x"]
    # Steep stretches turn the last bit of u into more of the value: compare by the range of the keys.
    size = 1 + max(abs(key.value) for key in one.keys)
    np.testing.assert_allclose(bake(after, t * factor)["Pod", "x"], was, atol=1e-5 * size)


@given(channels(least=2))
def test_reversing_twice_is_the_identity(one):
    before = pod(one)
    once = do(before, {"edit": "reverse-keys", "keys": [picked(one)]})
    assert [frame for frame, _ in stops(once)] == pytest.approx([one.keys[0].frame + one.keys[-1].frame - k.frame for k in reversed(one.keys)])
    twice = do(once, {"edit": "reverse-keys", "keys": [picked(once.objects[0].channels["x"])]})
    assert stops(twice) == stops(before)
    t = np.linspace(-60, 60, 25)
    size = 1 + max(abs(key.value) for key in one.keys)
    inside = (t >= one.keys[0].frame) & (t <= one.keys[-1].frame)
    np.testing.assert_allclose(bake(twice, t)["Pod", "x"][inside], bake(before, t)["Pod", "x"][inside], atol=1e-5 * size)


@pytest.mark.parametrize("ease", ["linear", "slow-out", "snap", "heavy", {"bezier": [0.1, 0.7, 0.3, 1.4]}, {"points": [[0, 0], [0.3, 0.8], [1, 1]]}])
def test_reversed_motion_is_the_motion_backwards(ease):
    one = channel((0, 5, ease), (8, 40, "slow-in"), (20, -3))
    before = pod(one)
    after = do(before, {"edit": "reverse-keys", "keys": [picked(one)]})
    t = np.linspace(0, 20, 81)
    np.testing.assert_allclose(bake(after, 20 - t)["Pod", "x"], bake(before, t)["Pod", "x"], atol=1e-9)


def test_reversed_splines_and_handles_run_backwards_too():
    keys = [
        {"frame": 0, "value": 0, "ease": "spline", "bias": 0.5},
        {"frame": 6, "value": 9, "ease": "spline", "tension": 0.3, "bias": -0.4},
        {"frame": 20, "value": 2, "ease": "spline"},
    ]
    from vine_swing.motion.timing.channel import Channel

    one = Channel.model_validate({"keys": keys})
    before = pod(one)
    after = do(before, {"edit": "reverse-keys", "keys": [picked(one)]})
    t = np.linspace(0, 20, 81)
    np.testing.assert_allclose(bake(after, 20 - t)["Pod", "x"], bake(before, t)["Pod", "x"], atol=1e-9)


@given(channels(least=3))
def test_spreading_makes_equal_distances_between_the_same_ends(one):
    spread = stops(do(pod(one), {"edit": "spread-keys", "keys": [picked(one)]}))
    assert [value for _, value in spread] == [key.value for key in one.keys]
    np.testing.assert_allclose(np.diff([frame for frame, _ in spread]), (one.keys[-1].frame - one.keys[0].frame) / (len(one.keys) - 1))
    assert spread[0][0] == one.keys[0].frame
    assert spread[-1][0] == one.keys[-1].frame


def test_keys_on_one_frame_stay_together_when_spread():
    x, y = channel((0, 1), (2, 2), (20, 3)), channel((2, 5), (20, 6))
    after = do(scene(shape("pod", x=x, y=y)), {"edit": "spread-keys", "keys": [picked(x), picked(y, "y")]})
    assert [frame for frame, _ in stops(after)] == [0, 10, 20]
    assert [frame for frame, _ in stops(after, "y")] == [10, 20]


@settings(deadline=None)
@given(st.lists(st.tuples(st.integers(0, 200), numbers, numbers), min_size=3, max_size=7, unique_by=lambda stop: stop[0]))
def test_even_speed_is_even_within_a_hundredth(tour):
    tour = sorted(tour)
    ways = [np.hypot(b[1] - a[1], b[2] - a[2]) for a, b in zip(tour, tour[1:], strict=False)]
    assume(min(ways) > max(ways) * 1e-3 and max(ways) > 0)
    x, y = channel(*((f, v) for f, v, _ in tour)), channel(*((f, v, "slow-out-in") for f, _, v in tour))
    after = do(scene(shape("pod", x=x, y=y)), {"edit": "even-speed", "object": "pod", "channels": ["x", "y"]})
    ends = [stops(after)[0][0], stops(after)[-1][0]]
    assert ends == [tour[0][0], tour[-1][0]]
    for (f0, x0), (f1, x1), (_, y0), (_, y1) in zip(stops(after), stops(after)[1:], stops(after, "y"), stops(after, "y")[1:], strict=False):
        assert np.hypot(x1 - x0, y1 - y0) / (f1 - f0) == pytest.approx(sum(ways) / (ends[1] - ends[0]), rel=0.01)


def test_even_speed_mends_a_short_second_leg_that_runs_too_fast():
    before = scene(shape("pod", x=channel((0, 0), (40, 100), (50, 200))), length=51)
    after = do(before, {"edit": "even-speed", "object": "pod", "channels": ["x", "y"]})
    assert stops(after) == [(0, 0), (25, 100), (50, 200)]
    np.testing.assert_allclose(np.diff(bake(after)["Pod", "x"]), 4)


def test_even_speed_says_what_it_needs():
    with pytest.raises(EditError, match="has 2 keys there; an even speed takes at least three"):
        do(pod(channel((0, 0), (9, 9))), {"edit": "even-speed", "object": "pod", "channels": ["x"]})
    with pytest.raises(EditError, match="does not go anywhere"):
        do(pod(channel((0, 1), (4, 1), (9, 1))), {"edit": "even-speed", "object": "pod", "channels": ["x"]})
    with pytest.raises(EditError, match="colours have no speed"):
        do(pod(channel((0, 1), (4, 1), (9, 1))), {"edit": "even-speed", "object": "pod", "channels": ["fill"]})


def test_a_hold_stops_the_motion_and_pushes_what_follows():
    before = scene(shape("pod", x=channel((0, 0), (10, 100), (20, 0))), length=41)
    after = do(before, {"edit": "hold-here", "object": "pod", "channels": ["x"], "frame": 10, "frames": 20})
    x = bake(after)["Pod", "x"]
    assert x[[5, 10, 20, 30, 35, 40]].tolist() == [50, 100, 100, 100, 50, 0]
    kept = do(before, {"edit": "hold-here", "object": "pod", "channels": ["x"], "frame": 5, "frames": 8, "push": False})
    assert stops(kept) == [(0, 0), (5, 50), (13, 50), (20, 0)]


@given(channels(least=2))
def test_a_closed_loop_ends_where_it_began(one):
    after = do(pod(one), {"edit": "close-loop", "object": "pod", "channels": ["x"]})
    assert stops(after)[-1][1] == stops(after)[0][1]
    assert [frame for frame, _ in stops(after)] == [key.frame for key in one.keys]


def test_pasted_keys_keep_their_distances_and_replace_or_merge():
    source = [{"frame": 10, "value": 1, "ease": "snap"}, {"frame": 16, "value": 2}]
    before = pod(channel((0, 0), (26, 9), (40, 5)))
    paste = {"edit": "paste-keys", "object": "pod", "channel": "x", "keys": source, "at": 20}
    assert stops(do(before, paste)) == [(0, 0), (20, 1), (26, 2), (40, 5)]
    assert stops(do(before, paste | {"replace": True})) == [(20, 1), (26, 2)]
    assert stops(do(before, paste | {"channel": "rotation"}), "rotation") == [(20, 1), (26, 2)]
    with pytest.raises(EditError, match="it must be a number"):
        do(before, paste | {"keys": [{"frame": 0, "value": "#FFF"}]})


@pytest.mark.parametrize(("keep", "value"), [("first", 10), ("frame", 30), ("base", 0)])
def test_deleting_all_keys_leaves_the_value_one_chose(keep, value):
    before = pod(channel((0, 10), (20, 50)))
    after = do(before, {"edit": "delete-keys", "object": "pod", "channel": "x", "frames": [0, 20], "keep": keep, "at": 10.0})
    assert bake(after)["Pod", "x"].tolist() == [value] * 20


def test_keys_that_are_not_there_are_named():
    with pytest.raises(NoSuchThing, match="no key at frame 3"):
        do(pod(channel((0, 1), (9, 2))), {"edit": "reverse-keys", "keys": [{"object": "pod", "channel": "x", "frames": [0, 3]}]})
    with pytest.raises(EditError, match="out of reach"):
        do(
            pod(channel((0, 1), (900_000, 2))),
            {"edit": "stretch-keys", "keys": [{"object": "pod", "channel": "x", "frames": [0, 900_000]}], "about": 0, "factor": 2},
        )
