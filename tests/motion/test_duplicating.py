"""Copies of objects beside them: their ids, names and places, and what they name."""

from pathlib import Path

import numpy as np
import pytest

from tests.motion.scenes import channel, parade, scene, shape
from vine_swing.motion import bake
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.edits import apply_all, label_of
from vine_swing.motion.edits.dials import SetDial
from vine_swing.motion.edits.duplicating import DuplicateObjects
from vine_swing.motion.edits.objects import RenameObject
from vine_swing.motion.scene.scene_file import load

SCENES = sorted((Path(__file__).resolve().parents[2] / "demo" / "scenes").glob("*.json"))


def wish(*objects, prefix="c"):
    return DuplicateObjects(edit="duplicate-objects", objects=objects, prefix=prefix)


def duplicated(to, *objects, prefix="c"):
    return apply_all(to, [wish(*objects, prefix=prefix)])


def link(formula, acts="y"):
    return {"id": "l", "kind": "link", "channels": [acts], "settings": {"formula": formula}}


def steady(before):
    """A scene without rules of chance, whose chance is each object's own."""
    plain = (one.copy_with(rules=tuple(rule for rule in one.rules if "seed" not in rule.spec.settings)) for one in before.objects)
    return before.copy_with(objects=tuple(plain))


def test_each_copy_lies_right_in_front_of_its_original_and_hangs_where_that_does():
    before = scene(shape("sky"), shape("cart"), shape("wheel", parent="cart"), shape("rope"), shape("load", parent="cart"), shape("frog"))
    after = duplicated(before, "frog", "cart", "wheel")
    assert [one.name for one in after.objects] == ["Sky", "Cart", "Wheel", "Rope", "Load", "Cart 2", "Wheel 2", "Load 2", "Frog", "Frog 2"]
    assert [one.id for one in after.objects if one.name.endswith("2")] == ["c-2", "c-3", "c-4", "c-1"]
    assert [one.parent for one in after.objects if one.name in ("Wheel 2", "Load 2")] == ["c-2", "c-2"]
    # A part alone stays a part of what it attached to.
    assert duplicated(before, "wheel").by_id["c-1"].parent == "cart"


def test_what_they_name_among_themselves_the_copies_do_and_nothing_else():
    follow = {"id": "f", "kind": "follow", "channels": ["x"], "settings": {"leader": "head", "delay": 2}}
    tail = shape("tail", parent="frog", rules=[follow, link("{Head.x} + {Sun.x} + {Head}")])
    lists = parade("row", parent="frog", settings={"lists": [{"object": "head", "channel": "width", "values": [5, 9]}]})
    before = scene(
        shape("frog"),
        shape("head", parent="frog", x=channel((0, 0), (24, 48))),
        tail,
        lists,
        shape("sun", x=7),
        shape("fly", rules=[follow, link("{Head.x}")]),
        dials=[{"id": "d", "name": "Head", "channel": {"base": 3}}],
    )
    after = duplicated(before, "frog")
    copy = {one.name: one for one in after.objects}
    follows, linked = copy["Tail 2"].rules
    assert follows.settings["leader"] == copy["Head 2"].id
    assert linked.settings["formula"] == "{Head 2.x} + {Sun.x} + {Head}", "the dial of that name is meant still"
    assert copy["Row 2"].parade.lists[0].object == copy["Head 2"].id
    assert after.by_id["tail"] == before.by_id["tail"]
    assert after.by_id["fly"] == before.by_id["fly"]
    # Alone, it follows whom its original follows.
    alone = duplicated(before, "tail").by_id["c-1"]
    assert alone.rules == before.by_id["tail"].rules


def test_a_copy_moves_apart_from_its_original():
    before = scene(shape("head", x=channel((0, 0), (24, 48))), shape("tail", rules=[link("{Head.x}")]))
    after = duplicated(before, "head", "tail")
    moved = after.with_object(after.by_id["c-1"].copy_with(channels={"x": channel((0, 0), (24, 240))}))
    baked = bake(moved)
    assert baked["Tail", "y"][12] == baked["Head", "x"][12] == 24
    assert baked["Tail 2", "y"][12] == baked["Head 2", "x"][12] == 120


@pytest.mark.parametrize("path", SCENES, ids=lambda path: path.stem)
def test_in_every_demo_scene_all_of_it_can_be_copied_and_the_copies_move_alike(path):
    before = steady(load(path))
    wholes = [one.id for one in before.objects if one.parent is None and one.kind != "camera"]
    after = duplicated(before, *wholes)
    count = sum(one.kind != "camera" for one in before.objects)
    assert len(after.objects) == len(before.objects) + count
    assert len(after.names) == len(after.objects)
    parts = [one.id for one in before.objects if one.kind != "camera" and one.parent is not None]
    baked = bake(after)
    for n, original in enumerate([*wholes, *parts], 1):
        assert np.array_equal(baked.objects[f"c-{n}"].view, baked.objects[original].view), original


def test_what_cannot_be_copied_is_told():
    camera = {"id": "camera", "name": "Camera", "kind": "camera", "channels": {"x": 640, "y": 360}}
    before = scene(shape("frog"), camera)
    with pytest.raises(EditError, match="only one camera"):
        duplicated(before, "frog", "camera")
    with pytest.raises(EditError, match="begin with 'c' exist in this scene"):
        duplicated(duplicated(before, "frog"), "frog")
    with pytest.raises(EditError, match="newt"):
        duplicated(before, "newt")


def test_its_label_names_what_is_copied():
    before = scene(shape("frog"), shape("fly", parent="frog"), shape("leaf"))
    assert label_of(before, [wish("frog", "fly")]) == "duplicate Frog"
    assert label_of(before, [wish("frog", "leaf")]) == "duplicate 2 objects"


def test_an_object_and_a_dial_of_one_name_are_renamed_apart():
    before = scene(shape("wind", x=3), shape("leaf", rules=[link("{Wind.x} + {Wind}")]), dials=[{"id": "d", "name": "Wind", "channel": {"base": 5}}])

    def formula(after):
        return after.by_id["leaf"].rules[0].settings["formula"]

    assert formula(apply_all(before, [RenameObject(edit="rename-object", id="wind", name="Gale")])) == "{Gale.x} + {Wind}"
    assert formula(apply_all(before, [SetDial(edit="set-dial", id="d", name="Gale")])) == "{Wind.x} + {Gale}"
