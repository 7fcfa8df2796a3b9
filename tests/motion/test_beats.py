"""Leaves laid on beats, and walks that keep step: where leaves lie, the flight of what is thrown, and feet that land on the beat."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter

from tests.motion.scenes import channel, scene, shape
from tests.sounds import kept, struck
from vine_swing.motion import MotionError, bake
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.figure.marks import marks_of
from vine_swing.motion.scene.beats import beat_frames, whole_beats

EDITS = TypeAdapter(list[AnyEdit])


def edited(of, *edits):
    return apply_all(of, EDITS.validate_python(list(edits)))


def marked(frames, *objects, length=240, **fields):
    return edited(scene(*objects, length=length, **fields), {"edit": "set-markers", "markers": [{"frame": int(one)} for one in frames]})


def laid(made, **how):
    edit = {"edit": "keys-on-beats", "object": "mango", "channel": "y", "by": "markers"} | how
    return edited(made, edit)


def test_an_even_beat_fills_the_scene():
    made = edited(scene(length=100, fps=24), {"edit": "set-beat", "beat": {"minute": 90, "first": 40}})
    np.testing.assert_allclose(beat_frames(made, "beat"), [8, 24, 40, 56, 72, 88])
    assert whole_beats(made, "beat", every=2, skip=1) == [24, 56, 88]


def test_beats_of_a_sound_are_where_it_is_struck_within_its_trim():
    sound = kept(struck([0.5, 1.0, 1.5, 2.0], 3), first=12, begin=0.75, end=1.75)
    made = edited(scene(length=100), {"edit": "add-sound", "sound": sound.model_dump()})
    np.testing.assert_allclose(beat_frames(made, "sound:drum"), [18, 30], atol=1)


def test_what_has_no_beat_says_what_to_do():
    made = scene(shape("mango"))
    with pytest.raises(MotionError, match="add markers"):
        laid(made)
    with pytest.raises(MotionError, match="has no beat"):
        laid(made, by="beat")
    with pytest.raises(MotionError, match="there is no sound 'rain'"):
        laid(made, by="sound:rain")
    with pytest.raises(MotionError, match="no keys to move to the beats"):
        laid(marked([4], shape("mango")), way="poses")
    with pytest.raises(MotionError, match="holds no numbers"):
        laid(marked([4], shape("mango")), channel="fill")


def test_a_hit_is_struck_on_the_beat_and_back_at_rest_after_its_fall():
    made = laid(marked([24, 60, 66], shape("mango")), rest=300, struck=260, rise=2, fall=8)
    keys = [(key.frame, key.value) for key in made.by_id["mango"].channels["y"].keys]
    # From the second to the third there is no time to come to rest.
    assert keys == [(22, 300), (24, 260), (32, 300), (58, 300), (60, 260), (64, 280), (66, 260), (74, 300)]


def test_poses_go_round_a_leaf_to_a_beat():
    swing = channel((0, 10, "snap"), (5, 20, "bounce"), (9, 30))
    made = laid(marked([12, 24, 36, 60], shape("mango", y=swing)), way="poses")
    assert [(key.frame, key.value, key.ease) for key in made.by_id["mango"].channels["y"].keys] == [
        (12, 10, "snap"),
        (24, 20, "bounce"),
        (36, 30, "linear"),
        (60, 10, "snap"),
    ]


@given(st.lists(st.integers(4, 200), min_size=2, max_size=8, unique=True))
@settings(max_examples=30, deadline=None)
def test_a_bounce_is_on_the_ground_on_every_beat_and_flies_as_thrown_in_between(frames):
    frames = sorted(frames)
    made = laid(marked(frames, shape("mango")), way="bounce", rest=600, struck=200)
    t = np.arange(frames[0], frames[-1] + 0.01, 0.25)
    y = bake(made, t)["Mango", "y"]
    longest = max(np.diff(frames))
    for a, b in zip(frames, frames[1:], strict=False):
        inside = (t >= a) & (t <= b)
        w = (t[inside] - a) / (b - a)
        # One gravity for all flights: height = g·T²/8.
        np.testing.assert_allclose(y[inside], 600 - 400 * ((b - a) / longest) ** 2 * 4 * w * (1 - w), atol=1e-6)


def test_other_leaves_stay_where_they_are():
    before = channel((0, 1), (30, 2), (200, 3))
    made = laid(marked([24, 48], shape("mango", y=before)), way="turn", rest=0, struck=9)
    assert [(key.frame, key.value) for key in made.by_id["mango"].channels["y"].keys] == [(0, 1), (24, 9), (48, 0), (200, 3)]


def walking(x, length=240, beats=range(20, 230, 14)):
    made = marked(beats, length=length)
    edits = [
        {"edit": "add-figure", "id": "postie", "name": "Postie", "starter": "two-legs", "x": 100, "y": 500, "drawn": False},
        {"edit": "set-gait", "id": "postie", "preset": "stroll"},
        *({"edit": "set-key", "object": "postie", "channel": "x", "frame": f, "value": v, "ease": e} for f, v, e in x),
    ]
    return edited(made, *edits)


def landings(made, figure="postie"):
    """The frames at which a foot comes down."""
    marks = marks_of(bake(made).reader.walk(figure))
    return np.array(sorted(begin for spans in marks.down.values() for begin, _ in spans if begin > 0))


@pytest.mark.parametrize(
    "x",
    [
        [(0, 100, "linear"), (239, 1300, "linear")],
        [(10, 100, "slow-out-in"), (235, 1500, "linear")],
        [(0, 100, "linear"), (120, 500, "linear"), (239, 1400, "linear")],
        [(0, 1300, "linear"), (239, 100, "linear")],
    ],
)
def test_a_walk_keeps_step_with_beats_wherever_it_goes(x):
    made = walking(x)
    stepped = edited(made, {"edit": "step-on-beats", "id": "postie", "by": "markers"})
    found = landings(stepped)
    # Where it sets off from a stand and comes to one, its first and last steps are shorter.
    for beat in range(20 + 28, 230 - 28, 14):
        assert np.abs(found - beat).min() <= 1, f"no foot lands on {beat}: {found.round(1)}"
    inner = found[(found > 40) & (found < 200)]
    assert len(inner) == pytest.approx((200 - 40) / 14, abs=1.5)
    np.testing.assert_array_equal(bake(stepped)["Postie", "x"], bake(made)["Postie", "x"])


def test_on_the_spot_a_cycle_is_two_beats_and_begins_on_one():
    made = edited(walking([]), {"edit": "set-setting", "object": "postie", "rule": "gait", "setting": "treadmill", "value": 30})
    stepped = edited(made, {"edit": "step-on-beats", "id": "postie", "by": "markers"})
    found = landings(stepped)
    for beat in range(20, 230, 14):
        assert np.abs(found - beat).min() <= 0.6


def test_what_does_not_go_on_between_beats_says_where():
    with pytest.raises(MotionError, match="does not travel between|too little for a step"):
        edited(walking([]), {"edit": "step-on-beats", "id": "postie", "by": "markers"})
    stops = [(0, 100, "linear"), (60, 500, "linear"), (64, 500, "linear"), (239, 1300, "linear")]
    slow = walking(stops, beats=[20, 34, 61, 63, 90])
    with pytest.raises(MotionError, match="too little for a step"):
        edited(slow, {"edit": "step-on-beats", "id": "postie", "by": "markers"})
