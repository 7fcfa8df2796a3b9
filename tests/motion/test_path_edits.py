"""Edits of paths, of whole turns and of the scene's time: each with the law it must keep."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.motion.scenes import channel, channels, eases, scene, shape
from tests.motion.test_timing import do
from vine_swing.motion import EditError, NoSuchThing, bake
from vine_swing.motion.timing.path import curves

T = np.arange(0, 40.01, 0.25)
BENT = {
    "keys": [
        {"frame": 0, "value": [0, 0], "out": [200, 0], "ease": "slow-out-in"},
        {"frame": 20, "value": [300, 200], "in": [0, -150], "way": "spline", "ease": "slow-in"},
        {"frame": 40, "value": [600, -50]},
    ]
}


def pod(**parts):
    return scene(shape("pod", **parts), length=41)


def place(one, t=T):
    baked = bake(one, t)
    return np.stack([baked["Pod", "x"], baked["Pod", "y"]], axis=1)


def keys(one, name="path"):
    return one.objects[0].channels[name].keys


def test_splitting_a_path_keeps_its_motion():
    before = pod(path=BENT)
    after = do(before, {"edit": "split-path", "object": "pod"})
    assert not after.objects[0].is_keyed("path")
    assert np.abs(place(after) - place(before)).max() < 0.06
    assert len(keys(after, "x")) < 40, "far fewer keys than frames"


def test_splitting_straight_stretches_is_exact():
    before = pod(
        path={
            "keys": [
                {"frame": 0, "value": [0, 5], "ease": "heavy"},
                {"frame": 11, "value": [90, 40], "ease": "spring"},
                {"frame": 40, "value": [7, 8]},
            ]
        }
    )
    after = do(before, {"edit": "split-path", "object": "pod"})
    np.testing.assert_allclose(place(after), place(before), atol=1e-9)
    assert [len(keys(after, name)) for name in "xy"] == [3, 3]
    again = do(after, {"edit": "join-path", "object": "pod"})
    np.testing.assert_allclose(place(again), place(before), atol=1e-9)
    assert len(keys(again)) == 3


def test_joining_keeps_a_motion_that_bends():
    before = pod(x=channel((0, 0, "linear"), (40, 400)), y=channel((0, 300, "slow-in"), (20, 50, "slow-out"), (40, 300)))
    after = do(before, {"edit": "join-path", "object": "pod"})
    assert np.abs(place(after) - place(before)).max() < 0.06
    assert after.objects[0].is_keyed("path")
    assert not after.objects[0].is_keyed("x")


def test_joining_lays_down_ends_that_a_path_cannot_have():
    before = pod(x=channel((0, 0), (40, 400)), y=channel((0, 300, "slow-out-in"), (10, 50), after="ping-pong"))
    after = do(before, {"edit": "join-path", "object": "pod"})
    assert np.abs(place(after) - place(before)).max() < 0.06
    assert len(keys(after)) < 25
    alike = pod(x=channel((0, 0), (10, 40), after="loop"), y=channel((0, 3), (10, 50), after="loop"))
    assert keys(do(alike, {"edit": "join-path", "object": "pod"})) == keys(
        do(pod(x=channel((0, 0), (10, 40)), y=channel((0, 3), (10, 50))), {"edit": "join-path", "object": "pod"})
    )
    np.testing.assert_allclose(place(do(alike, {"edit": "join-path", "object": "pod"})), place(alike), atol=1e-9)


@settings(deadline=None, max_examples=25)
@given(eases, st.lists(st.tuples(st.floats(-300, 300), st.floats(-300, 300)), min_size=2, max_size=5))
def test_joining_and_splitting_straight_moves_is_the_identity(ease, points):
    stops = [channel(*((n * 9.0, round(p[axis], 2), ease) for n, p in enumerate(points))) for axis in (0, 1)]
    before = pod(x=stops[0], y=stops[1])
    after = do(before, {"edit": "join-path", "object": "pod"}, {"edit": "split-path", "object": "pod"})
    np.testing.assert_allclose(place(after), place(before), atol=1e-6)


def test_a_key_put_on_a_path_does_not_bend_it():
    before = pod(path=BENT)
    after = do(
        before,
        {"edit": "set-key", "object": "pod", "channel": "path", "frame": 9},
        {"edit": "set-key", "object": "pod", "channel": "path", "frame": 31},
    )
    assert [key.frame for key in keys(after)] == [0, 9, 20, 31, 40]
    was, now = curves(keys(before)), curves(keys(after))
    for whole, parts in ((was[0], now[:2]), (was[1], now[2:])):
        assert sum(part.length for part in parts) == pytest.approx(whole.length, abs=1e-6)
        fine = whole.point(np.linspace(0, 1, 4001))
        for part in parts:
            for point in part.point(np.linspace(0, 1, 9)):
                assert np.hypot(*(fine - point).T).min() < 0.2
    np.testing.assert_allclose(place(after, np.array([9.0, 31.0])), place(before, np.array([9.0, 31.0])), atol=1e-6)


def test_corners_sharp_and_smooth():
    square = pod(path={"keys": [{"frame": 10 * n, "value": p} for n, p in enumerate(([0, 0], [100, 0], [100, 100], [0, 100]))]})
    smooth = do(square, {"edit": "set-corner", "object": "pod", "frames": [10], "corner": "smooth"})
    before, after, _ = curves(keys(smooth))
    np.testing.assert_allclose(before.heading(1), after.heading(0), atol=1e-9)
    sharp = do(smooth, {"edit": "set-corner", "object": "pod", "frames": [10], "corner": "sharp"})
    assert keys(sharp)[1].out == (0, 0) == keys(sharp)[1].into
    spline = do(square, {"edit": "set-way", "object": "pod", "frames": [0, 10, 20], "way": "spline"})
    sharp = do(spline, {"edit": "set-corner", "object": "pod", "frames": [10], "corner": "sharp"})
    assert [key.tension for key in keys(sharp)] == [0, 1, 0, 0]
    with pytest.raises(NoSuchThing, match="no key at frame 3"):
        do(square, {"edit": "set-corner", "object": "pod", "frames": [3], "corner": "sharp"})


def test_bezier_ways_come_with_handles_to_pull():
    one = pod(path={"keys": [{"frame": 0, "value": [0, 0]}, {"frame": 10, "value": [90, 0]}]})
    bent = keys(do(one, {"edit": "set-way", "object": "pod", "frames": [0], "way": "bezier"}))
    assert bent[0].out == (30, 0)
    assert bent[1].into == (-30, 0)


def test_even_speed_along_a_path_keeps_its_shape():
    before = pod(path=BENT)
    after = do(before, {"edit": "even-speed", "object": "pod", "channels": ["path", "x", "y"]})
    fine = np.linspace(0, 40, 4001)
    steps = np.hypot(*np.diff(place(after, fine), axis=0).T)
    # The one step across the corner is a short cut.
    assert steps.max() / np.sort(steps)[1] < 1.01
    assert [c.length for c in curves(keys(after))] == pytest.approx([c.length for c in curves(keys(before))])


def test_a_stop_on_a_path_stays_on_it():
    before = pod(path=BENT)
    after = do(before, {"edit": "hold-here", "object": "pod", "channels": ["x", "path"], "frame": 8, "frames": 5})
    stopped = place(after, np.arange(8.0, 13.5, 0.5))
    np.testing.assert_allclose(stopped, np.broadcast_to(place(before, np.array([8.0])), stopped.shape), atol=1e-6)
    assert [key.frame for key in keys(after)] == [0, 8, 13, 25, 45]


def test_deleting_a_whole_path_leaves_the_object_where_it_was():
    before = pod(path=BENT, x=5)
    gone = {"edit": "delete-keys", "object": "pod", "channel": "path", "frames": [0, 20, 40], "keep": "frame", "at": 20}
    after = do(before, gone)
    assert (after.objects[0].channels["x"].base, after.objects[0].channels["y"].base) == (300, 200)
    assert do(before, gone | {"keep": "base"}).objects[0].channels["x"].base == 5


@given(channels(least=2), st.integers(0, 5), st.booleans())
def test_turning_so_many_times_arrives_as_before(one, times, clockwise):
    before = pod(rotation=one)
    edit = {"edit": "turn-times", "object": "pod", "frame": one.keys[0].frame, "times": times, "clockwise": clockwise}
    was, now = one.keys, keys(do(before, edit), "rotation")
    turned = (now[1].number - now[0].number) * (1 if clockwise else -1)
    assert 360 * times - 1e-3 <= turned < 360 * (times + 1)
    for old, new in zip(was[1:], now[1:], strict=True):
        assert abs(((new.number - old.number) + 180) % 360 - 180) < 1e-3
        assert new.number - old.number == pytest.approx(now[1].number - was[1].number)


def test_one_revolution_exactly():
    after = do(pod(rotation=channel((0, 0), (30, 0))), {"edit": "turn-times", "object": "pod", "frame": 0, "times": 1})
    assert keys(after, "rotation")[1].value == 360
    with pytest.raises(EditError, match="last key"):
        do(after, {"edit": "turn-times", "object": "pod", "frame": 30, "times": 1})


@pytest.mark.parametrize("axis", ["x", "y"])
def test_flipping_twice_is_the_identity(axis):
    before = pod(path=BENT, scale_x=channel((0, 1), (9, 2)))
    for what in ("picture", "way"):
        once = do(before, {"edit": "flip", "object": "pod", "axis": axis, "what": what})
        assert once != before
        twice = do(once, {"edit": "flip", "object": "pod", "axis": axis, "what": what})
        np.testing.assert_allclose(place(twice), place(before), atol=1e-9)
        np.testing.assert_allclose(bake(twice, T)["Pod", f"scale.{axis}"], bake(before, T)["Pod", f"scale.{axis}"])
    flipped = do(before, {"edit": "flip", "object": "pod", "axis": "x", "what": "way"})
    np.testing.assert_allclose(place(flipped)[:, 0], 600 - place(before)[:, 0], atol=1e-6)
    with pytest.raises(EditError, match="does not travel"):
        do(pod(), {"edit": "flip", "object": "pod", "axis": "x", "what": "way"})


@settings(deadline=None)
@given(channels(least=2), st.sampled_from([12.0, 48.0, 96.0]))
def test_keeping_seconds_keeps_the_motion_in_time(one, fps):
    before = scene(shape("pod", x=one), length=41, fps=24.0)
    after = do(before, {"edit": "set-fps", "fps": fps, "keep": "seconds"})
    seconds = np.linspace(0, 1.5, 31)
    # Outside the keys a repeating end may fall on either side of its seam by the last bit.
    seconds = seconds[(seconds * 24 > one.keys[0].frame) & (seconds * 24 < one.keys[-1].frame)]
    size = 1 + max(abs(key.number) for key in one.keys)
    np.testing.assert_allclose(bake(after, seconds * fps)["Pod", "x"], bake(before, seconds * 24)["Pod", "x"], atol=1e-5 * size)
    assert after.length == round(41 * fps / 24)


def test_a_longer_scene_can_stretch_everything():
    swing = {
        "id": "s",
        "kind": "oscillator",
        "channels": ["y"],
        "settings": {"amplitude": {"keys": [{"frame": 0, "value": 1}, {"frame": 40, "value": 0}]}},
    }
    before = scene(shape("pod", x=channel((0, 0), (40, 50)), rules=[swing]), length=41)
    before = do(before, {"edit": "set-span", "id": "pod", "first": 10, "last": 40})
    after = do(before, {"edit": "set-length", "length": 81, "stretch": True})
    thing = after.objects[0]
    assert [key.frame for key in keys(after, "x")] == [0, 80]
    assert [key.frame for key in thing.rules[0].settings["amplitude"].keys] == [0, 80]
    assert (thing.span.first, thing.span.last) == (20, 80)
    assert do(after, {"edit": "set-length", "length": 41, "stretch": True}) == before
    assert do(before, {"edit": "set-length", "length": 81}).objects == before.objects


@pytest.mark.parametrize("ease", ["linear", "snap", "heavy", "spline", {"points": [[0, 0], [0.3, 0.8], [1, 1]]}])
def test_the_speed_of_a_stretch_is_set_at_its_ends(ease):
    before = pod(x=channel((0, 0, ease), (40, 400)))
    after = do(before, {"edit": "set-speed", "object": "pod", "channel": "x", "frame": 0, "leaving": 0.0, "arriving": 2.5})
    t = np.array([0, 1e-4, 40 - 1e-4, 40])
    x = bake(after, t)["Pod", "x"]
    assert (x[1] - x[0]) / 1e-4 == pytest.approx(0, abs=0.02)
    assert (x[3] - x[2]) / 1e-4 == pytest.approx(25, rel=1e-3)
