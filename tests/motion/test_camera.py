"""The camera: what is far moves less than what is near, and a camera at home changes nothing."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.motion.test_insets import at, dot, edited, group, keyed, scene
from vine_swing.cli import main
from vine_swing.motion.baking.bake import bake
from vine_swing.motion.basics.errors import EditError, SceneFileError
from vine_swing.motion.scene.scene_file import dump, parse
from vine_swing.picture.paint import Painter
from vine_swing.service.motion import Motion

HOME = (640.0, 360.0)


def camera(**channels):
    return {"id": "camera", "name": "Camera", "kind": "camera", "channels": {"x": HOME[0], "y": HOME[1]} | channels}


def middle(baked, name):
    """Where the origin of an object is in the picture, at every frame."""
    return at(baked.objects[name].view, np.arange(len(baked.frames)))[:, 4:6]


@given(near=st.floats(-0.9, 0), far=st.floats(0.01, 500), speed=st.floats(1, 40))
@settings(max_examples=40, deadline=None)
def test_things_pass_as_fast_as_their_depth_says(near, far, speed):
    things = [dot("near", depth=near), dot("stage"), dot("far", depth=far)]
    baked = bake(scene(*things, camera(x=keyed((0, 640), (20, 640 + 20 * speed))), length=21))
    passed = {one: np.diff(middle(baked, one)[:, 0]) for one in ("near", "stage", "far")}
    assert np.abs(passed["stage"] + speed).max() < 1e-9
    for one, depth in (("near", near), ("far", far)):
        assert np.abs(passed[one] / passed["stage"] - 1 / (1 + depth)).max() < 1e-9


def test_a_camera_at_home_changes_nothing_bit_for_bit():
    things = [dot("near", x=200.0, depth=-0.5), dot("far", x=keyed((0, 100), (20, 900)), rotation=30.0, depth=3.0)]
    without, with_camera = bake(scene(*things, length=21)), bake(scene(*things, camera(), length=21))
    for one in ("near", "far"):
        assert np.array_equal(without.objects[one].view, with_camera.objects[one].view)
    assert np.array_equal(Painter(without).frame(7), Painter(with_camera).frame(7))


def test_zoom_and_turn_go_about_the_middle_of_what_is_seen():
    baked = bake(scene(dot("a", x=700.0, y=360.0), dot("b", x=700.0, y=360.0, depth=1.0), camera(zoom=2.0, rotation=90.0), length=1))
    assert np.allclose(middle(baked, "a"), [[640, 360 - 120]])
    # What is at depth 1 follows by a half: by the square root of the zoom, and half of the turn.
    root, half = np.sqrt(2), np.radians(-45)
    assert np.allclose(middle(baked, "b"), [[640 + 60 * root * np.cos(half), 360 + 60 * root * np.sin(half)]])
    looks_there = bake(scene(dot("a", x=700.0, y=300.0), camera(x=700.0, y=300.0, zoom=3.0, rotation=25.0), length=1))
    assert np.allclose(middle(looks_there, "a"), [HOME])


def test_what_hangs_on_an_object_has_its_depth_and_what_is_pinned_keeps_to_the_picture():
    things = [group("hill", depth=1.0), dot("tree", x=50.0, depth=300.0) | {"parent": "hill"}, dot("title", x=90.0) | {"pinned": True}]
    baked = bake(scene(*things, camera(x=840.0), length=1))
    assert np.allclose(middle(baked, "tree"), [[50 - 100, 0]])
    assert np.allclose(middle(baked, "title"), [[90, 0]])


def test_rules_move_the_camera_too():
    shaken = camera() | {"rules": [{"id": "hand", "kind": "noise", "channels": ["x", "rotation"], "settings": {"amplitude": 6.0}}]}
    baked = bake(scene(dot("stage"), shaken, length=48))
    x = at(baked.objects["camera"].channels["x"], np.arange(48))
    assert np.ptp(x) > 1
    assert np.ptp(middle(baked, "stage")[:, 0]) > 1


def test_an_edit_of_one_thing_leaves_the_look_of_the_others_alone():
    one = scene(dot("a", depth=2.0), dot("b"), camera(x=keyed((0, 640), (20, 900))), length=21)
    before = bake(one)
    after = edited(one, {"edit": "set-key", "object": "a", "channel": "x", "frame": 5, "value": 9.0})
    again, fresh = bake(after, previous=before), bake(after)
    assert again.objects["b"] is before.objects["b"]
    assert again.objects["a"].lens is before.objects["a"].lens
    moved = edited(
        after, {"edit": "set-key", "object": "camera", "channel": "x", "frame": 20, "value": 700.0}, {"edit": "set-depths", "depths": {"b": 1.0}}
    )
    again, fresh = bake(moved, previous=again), bake(moved)
    for name in ("a", "b"):
        assert np.array_equal(again.objects[name].view, fresh.objects[name].view)
    gone = edited(moved, {"edit": "delete-object", "id": "camera"})
    again = bake(gone, previous=again)
    assert again.objects["a"].lens is None
    assert again.objects["a"].view is again.objects["a"].world


def test_another_size_of_the_picture_moves_its_middle_and_all_that_is_seen():
    before = scene(dot("near", x=200.0, depth=-0.5), dot("stage", x=300.0), camera(x=keyed((0, 640), (20, 900))), length=21)
    wider = before.copy_with(size=(1000, 500))
    after, fresh = bake(wider, previous=bake(before)), bake(wider)
    for one in ("near", "stage"):
        np.testing.assert_array_equal(middle(after, one), middle(fresh, one))
    assert middle(after, "stage")[0].tolist() == [300 + 500 - 640, 250 - 360]


def test_a_scene_has_one_camera_that_hangs_on_nothing():
    plain = scene(dot("a"), dot("b") | {"parent": "a"})
    filmed = edited(plain, {"edit": "add-camera", "id": "camera"})
    assert filmed.camera is not None
    assert [filmed.camera.channels[name].base for name in "xy"] == [640, 360]
    assert parse(dump(filmed)) == filmed
    with pytest.raises(EditError, match="'Camera' is the camera of this scene"):
        edited(filmed, {"edit": "add-camera", "id": "second"})
    with pytest.raises(EditError, match="the camera 'Camera' has a parent"):
        edited(filmed, {"edit": "reparent-object", "id": "camera", "parent": "a"})
    with pytest.raises(EditError, match="'A' is attached to the camera; fix it"):
        edited(filmed, {"edit": "reparent-object", "id": "a", "parent": "camera"})
    with pytest.raises(SceneFileError, match="is a second camera"):
        scene(camera(), camera() | {"id": "c2", "name": "Second"})
    with pytest.raises(EditError, match="'B' is attached to 'A' and has the depth of its parent"):
        edited(filmed, {"edit": "set-depths", "depths": {"b": 1.0}})
    assert edited(filmed, {"edit": "pin-object", "id": "a", "pinned": True}).by_id["a"].pinned


def test_the_table_tells_where_things_are_in_the_picture(tmp_path):
    source, table = tmp_path / "scene.json", tmp_path / "out.csv"
    source.write_text(dump(scene(dot("far", x=100.0, depth=1.0), camera(x=840.0), length=2)))
    assert main(["bake", str(source), "--csv", str(table), "--view"]) in (None, 0)
    head, first, *_ = table.read_text().splitlines()
    row = dict(zip(head.split(","), first.split(","), strict=True))
    assert float(row["Far.view.x"]) == 0


def test_parts_of_parades_are_told_where_their_lead_is_in_the_scene_and_in_the_picture():
    row = {"id": "row", "name": "Row", "kind": "parade", "parade": {"arrange": "row"}, "channels": {"x": 100.0, "count": 3.0, "gap": 5.0}}
    motion = Motion.of(scene(row, dot("leaf", x=7.0) | {"parent": "row"}, camera(x=840.0), length=1), 0)
    assert motion.parts["leaf"]["place",].tolist() == [[107, 0]]
    assert motion.parts["leaf"]["view",][0, 4] == 107 - 200
