"""Edits: what each does, what it refuses, and laws that hold for any scene."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter

from tests.motion.scenes import channel, channels, scene, shape
from vine_swing.motion import EditError, NoSuchThing, bake
from vine_swing.motion.basics import matrix
from vine_swing.motion.edits import AnyEdit, apply_all, label_of

EDIT: TypeAdapter[AnyEdit] = TypeAdapter(AnyEdit)


def do(before, *edits):
    return apply_all(before, [EDIT.validate_python(edit) for edit in edits])


def keys(one, name="x", thing=0):
    return [(key.frame, key.value) for key in one.objects[thing].channels[name].keys]


@pytest.fixture
def pod():
    return scene(shape("pod", x=channel((0, 10, "slow-out"), (20, 50, "slow-in"), (40, 0))), shape("twig", y=3))


def test_keys_are_set_replaced_and_inserted_with_the_ease_they_divide(pod):
    after = do(pod, {"edit": "set-key", "object": "pod", "channel": "x", "frame": 10, "value": 7})
    made = after.objects[0].channels["x"].keys
    assert [(key.frame, key.value, key.ease) for key in made] == [(0, 10, "slow-out"), (10, 7, "slow-out"), (20, 50, "slow-in"), (40, 0, "linear")]
    replaced = do(after, {"edit": "set-key", "object": "pod", "channel": "x", "frame": 20, "value": 1})
    assert replaced.objects[0].channels["x"].keys[2].ease == "slow-in"
    late = do(pod, {"edit": "set-key", "object": "pod", "channel": "x", "frame": 60, "value": 1})
    assert late.objects[0].channels["x"].keys[-1].ease == "linear"


@given(channels(), st.integers(-500, 500))
def test_a_key_without_a_value_keeps_the_very_value_that_is_there(one, frame):
    before = scene(shape("pod", x=one), length=10)
    there = bake(before, np.array([float(frame)]))["Pod", "x"][0]
    edit = {"edit": "set-key", "object": "pod", "channel": "x", "frame": frame}
    if abs(there) > 1e9:
        with pytest.raises(EditError, match="out of reach: value: should be"):
            do(before, edit)
    else:
        assert dict(keys(do(before, edit)))[frame] == there


def test_keying_what_is_there_works_for_colours_and_unkeyed_channels():
    before = scene(shape("pod", fill=channel((0, "#FF0000"), (10, "#0000FF")), y=4))
    after = do(
        before, {"edit": "set-key", "object": "pod", "channel": "fill", "frame": 5}, {"edit": "set-key", "object": "pod", "channel": "y", "frame": 5}
    )
    assert keys(after, "fill")[1] == (5, "#8C53A2")
    assert keys(after, "y") == [(5, 4)]
    assert keys(do(before, {"edit": "set-key", "object": "pod", "channel": "opacity", "frame": 1}), "opacity") == [(1, 1)]


def test_sliding_keys_carries_their_ease_and_takes_the_place_of_what_is_there(pod):
    after = do(pod, {"edit": "move-keys", "object": "pod", "channel": "x", "frames": [0, 20], "by": 20})
    made = after.objects[0].channels["x"].keys
    assert [(key.frame, key.value, key.ease) for key in made] == [(20, 10, "slow-out"), (40, 50, "slow-in")]


@given(channels(least=2), st.integers(1, 300))
def test_sliding_all_keys_there_and_back_changes_nothing(one, by):
    before = scene(shape("pod", x=one))
    frames = [key.frame for key in one.keys]
    there = do(before, {"edit": "move-keys", "object": "pod", "channel": "x", "frames": frames, "by": by})
    back = do(there, {"edit": "move-keys", "object": "pod", "channel": "x", "frames": [f + by for f in frames], "by": -by})
    assert back == before


@settings(deadline=None)
@given(channels(least=2), st.integers(1, 300))
def test_sliding_all_keys_slides_the_motion(one, by):
    before = scene(shape("pod", x=one))
    after = do(before, {"edit": "move-keys", "object": "pod", "channel": "x", "frames": [key.frame for key in one.keys], "by": by})
    t = np.arange(-60, 60, dtype=float)
    np.testing.assert_allclose(bake(after, t + by)["Pod", "x"], bake(before, t)["Pod", "x"], rtol=1e-12, atol=1e-9)


def test_deleting_the_last_keys_leaves_the_first_ones_value(pod):
    after = do(pod, {"edit": "delete-keys", "object": "pod", "channel": "x", "frames": [40, 0]})
    assert keys(after) == [(20, 50)]
    gone = do(after, {"edit": "delete-keys", "object": "pod", "channel": "x", "frames": [20]})
    assert gone.objects[0].channels["x"].base == 50
    assert bake(gone)["Pod", "x"][0] == 50


def test_eases_and_ends(pod):
    after = do(
        pod,
        {"edit": "set-ease", "object": "pod", "channel": "x", "frames": [0, 20], "ease": {"bezier": [0.2, 0, 0.1, 1]}},
        {"edit": "set-ends", "object": "pod", "channel": "x", "after": {"mode": "loop", "times": 3}},
    )
    made = after.objects[0].channels["x"]
    assert made.keys[0].ease == made.keys[1].ease != made.keys[2].ease
    assert (made.after.mode, made.after.times, made.before.mode) == ("loop", 3, "hold")


def test_objects_come_and_go_with_what_hangs_on_them(pod):
    hung = do(pod, {"edit": "reparent-object", "id": "twig", "parent": "pod"})
    assert [thing.id for thing in do(hung, {"edit": "delete-object", "id": "pod"}).objects] == []
    added = do(pod, {"edit": "add-object", "object": shape("new", name="Pod"), "index": 0})
    assert [thing.name for thing in added.objects] == ["Pod 2", "Pod", "Twig"]
    moved = do(added, {"edit": "reorder-object", "id": "new", "index": 2})
    assert [thing.id for thing in moved.objects] == ["pod", "twig", "new"]
    assert do(pod, {"edit": "show-object", "id": "pod", "shown": False}).objects[0].shown is False


def test_another_shape_lets_go_of_channels_it_does_not_have(pod):
    sized = do(pod, {"edit": "set-value", "object": "pod", "channel": "width", "value": 9})
    assert "width" in sized.objects[0].channels
    lined = do(sized, {"edit": "set-shape", "id": "pod", "shape": {"type": "line"}})
    assert set(lined.objects[0].channels) == {"x"}
    assert "end.x" in lined.objects[0].specs


def test_the_scene_itself(pod):
    after = do(
        pod,
        {"edit": "rename-scene", "name": " Rain "},
        {"edit": "set-fps", "fps": 12.5},
        {"edit": "set-length", "length": 9},
        {"edit": "set-size", "width": 64, "height": 48},
        {"edit": "set-background", "colour": "#123"},
    )
    assert (after.name, after.fps, after.length, after.size, after.background) == ("Rain", 12.5, 9, (64, 48), "#123")


REFUSED = [
    ({"edit": "set-key", "object": "ghost", "channel": "x", "frame": 0, "value": 1}, NoSuchThing, "there is no object 'ghost'"),
    ({"edit": "set-key", "object": "pod", "channel": "wings", "frame": 0, "value": 1}, NoSuchThing, "'Pod' has no channel 'wings'"),
    ({"edit": "set-key", "object": "pod", "channel": "x", "frame": 0, "value": "#FFF"}, EditError, "it must be a number"),
    ({"edit": "set-value", "object": "pod", "channel": "x", "value": 1}, EditError, "Pod travel x has keys.*set a key instead"),
    ({"edit": "delete-keys", "object": "pod", "channel": "x", "frames": [3]}, NoSuchThing, "Pod travel x has no key at frame 3"),
    ({"edit": "move-keys", "object": "pod", "channel": "x", "frames": [0], "by": -1_000_000.0}, None, None),
    ({"edit": "move-keys", "object": "pod", "channel": "x", "frames": [40], "by": 1_000_000.0}, EditError, "out of reach"),
    ({"edit": "rename-object", "id": "pod", "name": "Twig"}, EditError, "there already is a 'Twig'; try 'Twig 2'"),
    ({"edit": "reparent-object", "id": "pod", "parent": "pod"}, EditError, "parents form a ring"),
    ({"edit": "add-object", "object": shape("pod")}, EditError, "already is an object with the id 'pod'"),
    ({"edit": "add-object", "object": shape("x", parent="ghost")}, NoSuchThing, "no object 'ghost'"),
]


@pytest.mark.parametrize(("edit", "error", "says"), REFUSED)
def test_what_does_not_fit_is_refused_in_words(pod, edit, error, says):
    if error is None:
        do(pod, edit)
        return
    with pytest.raises(error, match=says):
        do(pod, edit)


place = st.floats(-300, 300).map(lambda v: round(v, 2))


@settings(deadline=None)
@given(place, place, st.floats(-180, 180), st.floats(0.2, 3), st.floats(-50, 50), place, st.integers(0, 30))
def test_hanging_with_keep_leaves_the_look_at_that_frame(x, y, rotation, scale, skew, pivot, frame):
    tree = shape("tree", x=channel((0, x), (30, y)), rotation=rotation, scale_x=scale, scale_y=scale)
    leaf = shape("leaf", x=channel((0, 5), (30, 90)), y=y, rotation=20, skew=skew, pivot_y=pivot, stretch=1.3, stretch_angle=25, scale_x=1.5)
    before = scene(tree, leaf, length=31)
    after = do(before, {"edit": "reparent-object", "id": "leaf", "parent": "tree", "keep_at": frame})
    np.testing.assert_allclose(bake(after).objects["leaf"].world[frame], bake(before).objects["leaf"].world[frame], atol=1e-6)
    freed = do(after, {"edit": "reparent-object", "id": "leaf", "parent": None, "keep_at": frame})
    np.testing.assert_allclose(bake(freed).objects["leaf"].world[frame], bake(before).objects["leaf"].world[frame], atol=1e-6)


@settings(deadline=None)
@given(place, place, st.integers(0, 20))
def test_the_pivot_moves_without_moving_the_picture(px, py, frame):
    before = scene(shape("door", x=channel((0, 10), (20, 80)), rotation=channel((0, 0), (20, 70)), scale_x=1.4, skew=12), length=21)
    after = do(before, {"edit": "move-pivot", "id": "door", "frame": frame, "x": px, "y": py})
    was, now = bake(before).objects["door"], bake(after).objects["door"]
    np.testing.assert_allclose(now.world[frame], was.world[frame], atol=1e-8)
    np.testing.assert_allclose(matrix.apply(now.world, np.array([px]), np.array([py]))[frame], now.place[frame], atol=1e-8)


def test_unchanged_parts_are_shared(pod):
    after = do(pod, {"edit": "set-key", "object": "pod", "channel": "x", "frame": 3, "value": 1})
    assert after.objects[1] is pod.objects[1]
    assert keys(pod) == [(0, 10), (20, 50), (40, 0)], "the scene before is as it was"


def test_several_edits_are_all_made_or_none(pod):
    with pytest.raises(NoSuchThing):
        do(pod, {"edit": "rename-scene", "name": "No"}, {"edit": "delete-object", "id": "ghost"})
    assert pod.name == "Untitled scene"


def test_labels_tell_what_undo_takes_back(pod):
    edits = [
        EDIT.validate_python(e)
        for e in ({"edit": "set-key", "object": "pod", "channel": "x", "frame": 3, "value": 1}, {"edit": "delete-object", "id": "twig"})
    ]
    assert label_of(pod, edits[:1]) == "key Pod travel x at 3"
    assert label_of(pod, edits) == "key Pod travel x at 3 and 1 more"


def test_handles_and_bends_are_set_one_by_one(pod):
    after = do(pod, {"edit": "set-handles", "object": "pod", "channel": "x", "frame": 20, "out": [3.0, 4.0]})
    after = do(after, {"edit": "set-handles", "object": "pod", "channel": "x", "frame": 20, "in": [-2.0, 1.0]})
    key = after.objects[0].channels["x"].keys[1]
    assert (key.out, key.into) == ((3, 4), (-2, 1))
    back = do(after, {"edit": "set-handles", "object": "pod", "channel": "x", "frame": 20, "out": None})
    assert back.objects[0].channels["x"].keys[1].out is None
    assert back.objects[0].channels["x"].keys[1].into == (-2, 1)
    bent = do(
        pod,
        {"edit": "set-bend", "object": "pod", "channel": "x", "frames": [0, 20], "tension": 1.0},
        {"edit": "set-bend", "object": "pod", "channel": "x", "frames": [20], "bias": -0.5},
    )
    assert [(key.tension, key.bias) for key in bent.objects[0].channels["x"].keys] == [(1, 0), (1, -0.5), (0, 0)]
    with pytest.raises(EditError, match="has handles, which colours cannot have"):
        do(
            pod,
            {"edit": "set-key", "object": "pod", "channel": "fill", "frame": 1, "value": "#FFF"},
            {"edit": "set-handles", "object": "pod", "channel": "fill", "frame": 1, "out": [1.0, 1.0]},
        )
