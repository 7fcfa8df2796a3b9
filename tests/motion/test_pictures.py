"""Pictures and flipbooks: pages, sizes, edits, and how they are kept."""

import json

import numpy as np
import pytest
from pydantic import TypeAdapter

from tests.pictures import numbered, png, saved
from vine_swing.motion import EditError, bake, dump, parse
from vine_swing.motion.basics.contents import PICTURE_FILES
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.picture.listing import paint_list
from vine_swing.picture.paint import Painter
from vine_swing.store import SceneStore

EDITS = TypeAdapter(list[AnyEdit])
EMPTY = parse('{"format": "vine-swing-scene", "version": 1, "length": 30, "size": [120, 80], "background": "#FFFFFF", "objects": []}')


def kept(data, width, height, name="Page"):
    return {"id": PICTURE_FILES.keep(data), "name": name, "width": width, "height": height}


def made(scene, *edits):
    return apply_all(scene, EDITS.validate_python(list(edits)))


def book(count=4, **more):
    pages = [kept(saved(numbered(n), "PNG"), 60, 40, f"Page {n}") for n in range(count)]
    return {"edit": "add-picture", "id": "wing", "name": "Wing", "pictures": pages, "x": 60, "y": 40} | more


def painted(scene, frame):
    return np.asarray(Painter(paint_list(bake(scene))).frame(frame))


def shown(scene, frame):
    """The number of the page that is painted: told by the length of its bar."""
    row = painted(scene, frame)[40, 30:90]
    return int((row[:, 0] < 160).sum() / 4 + 0.5) - 1


def test_a_flipbook_turns_its_pages_for_ever_at_its_pace():
    scene = made(EMPTY, book(4, frames_a_page=3, first=2))
    assert [shown(scene, frame) for frame in range(30)] == [(frame - 2) // 3 % 4 for frame in range(30)]


@pytest.mark.parametrize("value", [-1.0, -0.5, 0, 1.99, 3, 4, 9.2])
def test_the_page_is_the_whole_part_modulo_their_number(value):
    scene = made(EMPTY, book(4))
    thing = scene.by_id["wing"]
    still = scene.with_object(thing.copy_with(channels=thing.channels | {"page": thing.channels["x"].copy_with(base=float(value))}))
    assert shown(still, 0) == np.floor(value) % 4


def test_pages_lie_inside_the_box_or_fill_it():
    scene = made(EMPTY, {**book(1), "pictures": [kept(png((10, 10, 10), (60, 40)), 60, 40)]})
    thing = scene.by_id["wing"]
    square = scene.with_object(
        thing.copy_with(channels=thing.channels | {name: thing.channels["width"].copy_with(base=60.0) for name in ("width", "height")})
    )
    assert bake(square).named("Wing").shown_size.tolist() == [[60, 40]]
    stretched = made(square, {"edit": "set-picture", "id": "wing", "picture": thing.picture.model_dump(mode="json") | {"fit": "stretch"}})
    assert bake(stretched).named("Wing").shown_size.tolist() == [[60, 60]]


def test_an_edit_elsewhere_keeps_the_size_array():
    scene = made(EMPTY, book(3))
    before = bake(scene)
    after = bake(made(scene, {"edit": "set-value", "object": "wing", "channel": "rotation", "value": 5}), previous=before)
    assert after.named("Wing").shown_size is before.named("Wing").shown_size


def test_the_scene_file_holds_the_pictures():
    scene = made(EMPTY, book(3))
    text = dump(scene)
    assert all(one["data"] for one in json.loads(text)["pictures"])
    assert parse(text) == scene
    broken = json.loads(text)
    broken["pictures"][0]["data"] = broken["pictures"][1]["data"]
    with pytest.raises(Exception, match="its content is that of"):
        parse(json.dumps(broken))


def test_a_data_file_keeps_them_with_undo_wherever_it_lies(tmp_path):
    store = SceneStore(tmp_path / "a.db")
    scene_id = store.create(EMPTY)
    now = store.load(scene_id)
    scene = made(now.scene, book(2))
    store.save(scene_id, now.scene, scene, label="wing", revision=now.revision)
    store.close()
    (tmp_path / "elsewhere").mkdir()
    (tmp_path / "a.db").rename(tmp_path / "elsewhere" / "b.db")
    PICTURE_FILES._known.clear()
    store = SceneStore(tmp_path / "elsewhere" / "b.db")
    found = store.load(scene_id).scene
    assert [one.name for one in found.pictures] == ["Page 0", "Page 1"]
    assert shown(found, 0) == 0
    assert store.undo(scene_id, revision=1).scene.pictures == ()
    assert len(store.redo(scene_id, revision=2).scene.pictures) == 2
    store.close()


def test_a_picture_is_replaced_for_all_who_show_it_and_unused_ones_go():
    scene = made(EMPTY, book(2), {**book(2), "id": "other", "name": "Other"})
    old = scene.pictures[0].id
    new = kept(png((1, 2, 3), (60, 40)), 60, 40, "New")
    replaced = made(scene, {"edit": "replace-picture", "old": old, "picture": new})
    assert all(thing.pictured.pictures[0] == new["id"] for thing in replaced.objects)
    assert old not in replaced.pictures_by_id
    thinner = made(replaced, {"edit": "delete-object", "id": "wing"}, {"edit": "delete-object", "id": "other"}, {"edit": "drop-pictures"})
    assert thinner.pictures == ()


def test_what_cannot_be_shown_is_refused():
    scene = made(EMPTY, book(2))
    gone = {"edit": "set-picture", "id": "wing", "picture": {"pictures": ["picture-0123456789abcdef"]}}
    with pytest.raises(EditError, match="not kept with this scene"):
        made(scene, gone)
    with pytest.raises(Exception, match="no content"):
        made(
            scene,
            {"edit": "add-picture", "id": "b", "name": "B", "x": 0, "y": 0, "pictures": [kept(b"x", 1, 1) | {"id": "picture-0123456789abcdef"}]},
        )


def test_pictures_in_parades_turn_their_pages_later():
    scene = made(EMPTY, book(4, frames_a_page=2))
    parade = made(
        scene,
        {
            "edit": "make-parade",
            "id": "row",
            "name": "Row",
            "parts": ["wing"],
            "frame": 0,
            "parade": {"arrange": "nest"},
            "values": {"count": 1, "delay": 0},
        },
    )
    assert [shown(parade, frame) for frame in (0, 2, 5)] == [0, 1, 2]


def test_rules_move_pictures_and_what_hangs_on_them():
    scene = made(
        EMPTY,
        book(2),
        {
            "edit": "add-object",
            "object": {"id": "leaf", "name": "Leaf", "kind": "shape", "shape": {"type": "outline", "d": "M 0 0 L 9 0 L 0 9 Z"}, "parent": "wing"},
        },
        {"edit": "add-rule", "object": "wing", "rule": {"id": "d", "kind": "drift", "channels": ["x"], "settings": {"speed": 48}}},
        {"edit": "add-rule", "object": "leaf", "rule": {"id": "r", "kind": "rough"}},
    )
    baked = bake(scene)
    np.testing.assert_allclose(baked["Wing", "x"][:3], [60, 62, 64])
    assert baked.named("Leaf").bent is not None


def test_a_picture_is_laid_behind_everything_as_a_background():
    scene = made(
        EMPTY,
        {"edit": "add-object", "object": {"id": "leaf", "name": "Leaf", "kind": "shape", "shape": {"type": "ellipse"}}},
        book(1, name="Hills"),
        {"edit": "set-key", "object": "wing", "channel": "x", "frame": 0, "value": 7.0},
    )
    assert [one.id for one in scene.objects] == ["leaf", "wing"]
    width, height = (float(side) for side in scene.size)
    page = scene.pictures[0]
    for how, size, fit, tile in (
        ("fill", (width, height), "cover", "none"),
        ("tile", (round(page.width * height / page.height, 3), height), "stretch", "across"),
        ("stay", (page.width, page.height), "inside", "none"),
    ):
        laid = made(scene, {"edit": "lay-behind", "id": "wing", "how": how})
        behind = laid.objects[0]
        assert (behind.id, behind.picture.fit, behind.picture.tile) == ("wing", fit, tile)
        assert tuple(behind.channels[name].base for name in ("width", "height")) == size
        # What is keyed stays keyed.
        assert [key.value for key in behind.channels["x"].keys] == [7.0]
        assert behind.channels["y"].base == height / 2
