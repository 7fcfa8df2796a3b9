"""Several objects turned, sized, ordered, valued and marked together."""

import numpy as np
import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter

from tests.motion.scenes import channel, scene, shape
from tests.motion.test_arranging import edited, parts, places, several
from vine_swing.motion import bake
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.edits import AnyEdit, apply_labelled
from vine_swing.motion.scene.scene_file import from_data, to_data

EDIT: TypeAdapter[AnyEdit] = TypeAdapter(AnyEdit)
factors = st.floats(0.2, 3).map(lambda v: round(v, 3))


def views(one, ids, frame=0):
    """The matrices from each object to the picture, as 3 × 3."""
    baked = bake(one, np.array([float(frame)]))
    rows = [baked.objects[i].view[0] for i in ids]
    return [np.array([[a, c, e], [b, d, f], [0, 0, 1]]) for a, b, c, d, e, f in rows]


def change(about, turn, scale):
    (x, y), angle = about, np.radians(turn)
    there = np.array([[1, 0, x], [0, 1, y], [0, 0, 1.0]])
    back = np.array([[1, 0, -x], [0, 1, -y], [0, 0, 1.0]])
    rotation = np.array([[np.cos(angle), -np.sin(angle), 0], [np.sin(angle), np.cos(angle), 0], [0, 0, 1]])
    return there @ rotation @ np.diag([*scale, 1.0]) @ back


@given(st.lists(parts, min_size=1, max_size=4), places, places, st.floats(-360, 360), factors, factors, st.booleans())
@settings(max_examples=60)
def test_things_turned_and_sized_together_go_as_one_picture(drawn, x, y, turn, wide, high, key):
    """The picture of each is the old one times one matrix, whatever it is attached to."""
    one, ids = several(drawn)
    after = edited(one, edit="transform-objects", objects=ids, about=[x, y], turn=turn, scale=[wide, high], frame=3.0, key=key)
    # An object slanted to nearly a right angle is drawn with the most that a skew can be.
    assume(all(abs(bake(after, np.array([3.0])).objects[i].channels["skew"][0]) < 80 for i in ids))
    for was, now in zip(views(one, ids, 3), views(after, ids, 3), strict=True):
        wanted = change((x, y), turn, (wide, high)) @ was
        np.testing.assert_allclose(now, wanted, atol=1e-6 * max(1.0, np.abs(wanted).max()))


@given(st.lists(parts, min_size=2, max_size=4), places, places, st.floats(-180, 180), factors)
@settings(max_examples=30)
def test_turning_and_sizing_together_is_doing_it_to_each_about_the_same_pivot(drawn, x, y, turn, factor):
    one, ids = several(drawn)
    how = {"edit": "transform-objects", "about": [x, y], "turn": turn, "scale": [factor, factor]}
    by_one = one
    for object_id in ids:
        by_one = edited(by_one, objects=[object_id], **how)
    assert edited(one, objects=ids, **how) == by_one


def test_a_turn_alone_is_told_by_plain_numbers_and_counts_whole_turns():
    one = scene(shape("a", x=100, y=0, rotation=10), shape("b", x=channel((0, 50), (10, 50)).model_dump(by_alias=True), y=0), length=24)
    after = edited(one, edit="transform-objects", objects=["a", "b"], about=[0, 0], turn=450.0, frame=5.0)
    assert after.by_id["a"].channels["rotation"].base == 460
    np.testing.assert_allclose([after.by_id["a"].channels[name].base for name in "xy"], [0, 100], atol=1e-9)
    assert [key.frame for key in after.by_id["b"].channels["x"].keys] == [0, 5, 10], "what is keyed gets a key there"
    assert not after.by_id["b"].channels["rotation"].keys


def test_half_a_turn_by_a_negative_size_and_a_mirrored_parent():
    flipped = {"id": "mirror", "name": "Mirror", "kind": "group", "channels": {"scale.x": -1}}
    one = scene(flipped, shape("a", parent="mirror", x=-30, y=20, rotation=25), length=2)
    for turn, scale in ((40.0, [1.0, 1.0]), (0.0, [-1.0, -1.0]), (15.0, [2.0, 2.0])):
        after = edited(one, edit="transform-objects", objects=["a"], about=[10, 0], turn=turn, scale=scale)
        np.testing.assert_allclose(views(after, ["a"])[0], change((10, 0), turn, scale) @ views(one, ["a"])[0], atol=1e-9)
        assert after.by_id["a"].channels.get("skew") is None, "nothing is slanted by a turn"


def test_what_hangs_on_something_flat_is_not_turned():
    flat = {"id": "sheet", "name": "Sheet", "kind": "group", "channels": {"scale.x": 0}}
    one = scene(flat, shape("a", parent="sheet"), length=2)
    with pytest.raises(EditError, match="is flat at frame 0"):
        edited(one, edit="transform-objects", objects=["a"], about=[0, 0], turn=10.0)


@pytest.mark.parametrize("carried", [0.0, -3.0, 500.0])
def test_what_rules_stretch_beyond_all_bounds_is_sized_as_it_is_drawn(carried):
    """A stretch is drawn between 1 and 10,000 percent, wherever a rule carries it."""
    rule = {"id": "r", "kind": "link", "channels": ["stretch"], "settings": {"formula": str(carried)}}
    one = scene(shape("a", x=-30, y=20, rotation=25, stretch_angle=10, rules=[rule]), length=2)
    after = edited(one, edit="transform-objects", objects=["a"], about=[10, 0], scale=[1.5, 1.5])
    wanted = change((10, 0), 0.0, [1.5, 1.5]) @ views(one, ["a"])[0]
    np.testing.assert_allclose(views(after, ["a"])[0], wanted, atol=1e-6 * np.abs(wanted).max())


def ordered(*names_and_parents):
    return scene(*(shape(name, parent=parent) for name, parent in names_and_parents), length=2)


@pytest.mark.parametrize(
    ("how", "wanted"),
    [
        ({"to": "front"}, "a d e b c x"),
        ({"to": "back"}, "b c x a d e"),
        ({"to": "forward"}, "a d b c x e"),
        ({"to": "backward"}, "b c x a d e"),
        ({"to": "before", "other": "d"}, "a d b c x e"),
        ({"to": "behind", "other": "a"}, "b c x a d e"),
    ],
)
def test_things_are_ordered_with_all_that_hangs_on_them(how, wanted):
    one = ordered(("a", None), ("b", None), ("c", None), ("d", None), ("x", "c"), ("e", None))
    after = edited(one, edit="order-objects", objects=["c", "b"], **how)
    assert " ".join(thing.id for thing in after.objects) == wanted


def test_parts_are_ordered_among_the_parts_beside_them_and_never_beside_themselves():
    one = ordered(("g", None), ("a", "g"), ("z", None), ("b", "g"), ("c", "g"))
    after = edited(one, edit="order-objects", objects=["c"], to="back")
    assert " ".join(thing.id for thing in after.objects) == "g c a z b"
    assert edited(one, edit="order-objects", objects=["c"], to="front") == one
    with pytest.raises(EditError, match="goes along with them"):
        edited(one, edit="order-objects", objects=["g"], to="before", other="b")
    with pytest.raises(EditError, match="which other"):
        edited(one, edit="order-objects", objects=["g"], to="before")


@given(
    st.permutations("abcdef"), st.sets(st.sampled_from("abcdef"), min_size=1, max_size=6), st.sampled_from(["front", "forward", "backward", "back"])
)
@settings(max_examples=40)
def test_ordering_loses_nothing_and_keeps_the_order_of_what_is_moved_and_of_what_is_not(order, chosen, to):
    one = ordered(*((name, None) for name in order))
    after = [thing.id for thing in edited(one, edit="order-objects", objects=sorted(chosen), to=to).objects]
    for moved in (True, False):
        assert [i for i in after if (i in chosen) is moved] == [i for i in order if (i in chosen) is moved]


def test_a_value_is_set_added_and_multiplied_for_all_that_have_it():
    still, keyed = shape("still", rotation=5, opacity=0.5), shape("keyed", rotation=channel((0, 0, "linear"), (10, 100)).model_dump(by_alias=True))
    one = scene(still, keyed, length=24)
    ids = ["still", "keyed"]
    more = edited(one, edit="change-values", objects=ids, channel="rotation", how="add", value=20, frame=5.0)
    assert more.by_id["still"].channels["rotation"].base == 25
    assert [(k.frame, k.value) for k in more.by_id["keyed"].channels["rotation"].keys] == [(0, 0), (5, 70), (10, 100)]
    twice = edited(one, edit="change-values", objects=ids, channel="rotation", how="multiply", value=2, frame=5.0, key=True)
    assert [(k.frame, k.value) for k in twice.by_id["still"].channels["rotation"].keys] == [(5, 10)]
    faded = edited(one, edit="change-values", objects=ids, channel="opacity", how="add", value=0.8)
    assert [faded.by_id[i].channels["opacity"].base for i in ids] == [1, 1], "brought back within the limits"
    red = edited(one, edit="change-values", objects=ids, channel="fill", value="#C02030")
    assert {red.by_id[i].channels["fill"].base for i in ids} == {"#C02030"}


def test_places_on_a_path_are_points_of_it_and_joints_keep_what_a_gait_does():
    path = {"keys": [{"frame": 0, "value": [0, 0], "ease": "linear"}, {"frame": 10, "value": [100, 0]}]}
    one = scene(shape("a") | {"channels": {"path": path}}, shape("b", x=7), length=11)
    after = edited(one, edit="change-values", objects=["a", "b"], channel="y", how="add", value=20, frame=5.0)
    np.testing.assert_allclose(bake(after)["A", "y"][[0, 5, 10]], [0, 20, 0], atol=1e-9)
    np.testing.assert_allclose(bake(after)["A", "x"][5], 50, atol=1e-9)
    assert after.by_id["b"].channels["y"].base == 20


@pytest.mark.parametrize(
    ("how", "fault"),
    [
        ({"channel": "wings", "value": 3}, "none of these objects has"),
        ({"channel": "fill", "how": "add", "value": "#102030"}, "set one for all"),
        ({"channel": "rotation", "value": "#102030"}, "is a number"),
        ({"channel": "path", "value": 3, "key": True}, "the key at frame 0 is 3.0; it must be a point"),
        ({"channel": "path", "value": [3, 4]}, "a path has no base"),
    ],
)
def test_a_value_that_fits_nobody_is_refused_in_words(how, fault):
    with pytest.raises(EditError, match=fault):
        edited(scene(shape("a"), length=2), edit="change-values", objects=["a"], **how)


def test_what_only_some_have_is_changed_there():
    one = scene(shape("a", width=50), {"id": "g", "name": "G", "kind": "group"}, length=2)
    after = edited(one, edit="change-values", objects=["a", "g"], channel="width", value=80)
    assert after.by_id["a"].channels["width"].base == 80
    assert after.by_id["g"] is one.by_id["g"]


def test_marks_are_kept_in_files_and_change_no_motion():
    one = scene(shape("a"), shape("b"), length=2)
    after, label = apply_labelled(one, [EDIT.validate_python({"edit": "lock-objects", "objects": ["a", "b"], "locked": True})])
    after = edited(after, edit="tag-objects", objects=["b"], tag="#3D8B5F")
    assert label == "lock 2 objects"
    assert from_data(to_data(after)) == after
    assert [(thing.locked, thing.tag) for thing in after.objects] == [(True, None), (True, "#3D8B5F")]
    assert edited(edited(after, edit="lock-objects", objects=["a", "b"], locked=False), edit="tag-objects", objects=["b"], tag=None) == one


def test_keying_several_is_keying_each_and_a_path_is_keyed_for_its_places():
    path = {"keys": [{"frame": 0, "value": [0, 0], "ease": "linear"}, {"frame": 10, "value": [100, 40]}]}
    moving = shape("moving", x=channel((0, 0, "linear"), (10, 50)).model_dump(by_alias=True), y=7)
    one = scene(shape("a") | {"channels": {"path": path}}, moving, {"id": "g", "name": "G", "kind": "group"}, length=24)
    after = edited(one, edit="key-objects", objects=["a", "moving", "g"], channels=["path", "x", "y", "width"], frame=5.0)
    assert [key.frame for key in after.by_id["a"].channels["path"].keys] == [0, 5, 10]
    assert not after.by_id["a"].is_keyed("x")
    assert [(key.frame, key.value) for key in after.by_id["moving"].channels["x"].keys] == [(0, 0), (5, 25), (10, 50)]
    assert [(key.frame, key.value) for key in after.by_id["moving"].channels["y"].keys] == [(5, 7)]
    assert "width" not in after.by_id["g"].channels
    by_one = one
    for object_id in ("moving", "g"):
        for name in ("x", "y", "width"):
            if name in one.by_id[object_id].specs:
                by_one = edited(by_one, edit="set-key", object=object_id, channel=name, frame=5.0)
    assert all(after.by_id[i] == by_one.by_id[i] for i in ("moving", "g"))
    np.testing.assert_allclose(bake(after)["A", "x"], bake(one)["A", "x"], atol=1e-9)
