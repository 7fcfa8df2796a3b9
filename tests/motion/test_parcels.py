"""Objects copied from one scene into another, with what they lean on."""

import numpy as np
import pytest

from tests.motion.scenes import channel, scene, shape, text
from tests.pictures import png
from tests.store.test_fonts import font as own_font
from vine_swing.motion import bake
from vine_swing.motion.basics.contents import PICTURE_FILES
from vine_swing.motion.basics.errors import EditError, NoSuchThing
from vine_swing.motion.edits import apply_all
from vine_swing.motion.edits.parcels import PlaceParcel, parcel_of
from vine_swing.motion.scene.scene_file import from_data, to_data

WIND = {"id": "wind", "name": "Wind", "channel": {"base": 4}}
SWAY = {"id": "sway", "kind": "link", "channels": ["rotation"], "settings": {"formula": "{Wind} * f"}}
GUST = {"id": "gust", "kind": "oscillator", "channels": ["y"], "settings": {"amplitude": {"base": 2, "formula": "{Wind} * value"}}}
FOLLOW = {"id": "follow", "kind": "follow", "channels": ["x"], "settings": {"leader": "bird", "delay": 2}}


def group(name, **more):
    return {"id": name, "name": name.capitalize(), "kind": "group", **more}


def placed(to, parcel, prefix="n", **more):
    return apply_all(to, [PlaceParcel(edit="place-parcel", parcel=parcel.scene, prefix=prefix, **more)])


@pytest.fixture
def tree():
    """A tree with a leaf that sways in the wind, and a bird that a second leaf follows."""
    return scene(
        group("tree", channels={"x": 100, "rotation": 30}),
        shape("leaf", parent="tree", x=20, rules=[SWAY, GUST]),
        shape("bird", x=channel((0, 0, "linear"), (10, 50)).model_dump(by_alias=True)),
        shape("twig", parent="leaf", x=5, rules=[FOLLOW]),
        length=24,
        dials=[WIND],
    )


def test_a_group_comes_with_its_parts_and_the_dial_they_read(tree):
    parcel = parcel_of(tree, ["tree"], 0)
    assert [one.id for one in parcel.scene.objects] == ["tree", "leaf", "twig"]
    assert [dial.name for dial in parcel.scene.dials] == ["Wind"], "read by a formula of a channel and of a setting"
    assert [(one.object, one.name, one.how) for one in parcel.behind] == [("Twig", "Bird", "goes by")]
    after = placed(scene(shape("leaf", x=1), length=24), parcel)
    assert [one.name for one in after.objects] == ["Leaf", "Tree", "Leaf 2", "Twig"]
    for name, there in (("Leaf", "Leaf 2"), ("Tree", "Tree")):
        for value in ("rotation", "x"):
            assert np.array_equal(bake(after)[there, value], bake(tree)[name, value])
    assert after.by_id["n-twig"].parent == "n-leaf"


def test_a_dial_of_the_same_name_is_the_scenes_own_and_one_of_another_kind_is_not(tree):
    parcel = parcel_of(tree, ["tree"], 0)
    own = {"id": "breeze", "name": "Wind", "channel": {"base": 10}}
    after = placed(scene(dials=[own], length=24), parcel)
    assert len(after.dials) == 1
    assert bake(after)["Leaf", "rotation"][3] == 30
    colour = {"id": "wind", "name": "Wind", "channel": {"base": "#336699"}}
    beside = placed(scene(dials=[colour], length=24), parcel)
    assert [dial.name for dial in beside.dials] == ["Wind", "Wind 2"]
    assert bake(beside)["Leaf", "rotation"][3] == 12


def test_twice_makes_two_and_within_a_scene_leaders_and_parents_stay(tree):
    parcel = parcel_of(tree, ["twig"], 5)
    assert {(one.name, one.how) for one in parcel.behind} == {("Leaf", "hangs on"), ("Bird", "goes by")}
    twice = placed(placed(tree, parcel), parcel, prefix="m", hang={"twig": "leaf"}, frame=5.0)
    was, free, hung = (bake(twice).objects[i].world[5] for i in ("twig", "n-twig", "m-twig"))
    np.testing.assert_allclose([free, hung], [was, was], atol=1e-9)
    assert (twice.by_id["n-twig"].parent, twice.by_id["m-twig"].parent) == (None, "leaf")
    assert twice.by_id["n-twig"].rules[0].settings["leader"] == "bird"
    assert len(twice.dials) == 1


def test_inner_scenes_come_along():
    inner = {"id": "round", "name": "Round", "length": 12, "objects": [shape("post", x=channel((0, 0), (11, 90)).model_dump(by_alias=True))]}
    deeper = {"id": "deep", "name": "Deep", "length": 12, "objects": [{"id": "in", "name": "In", "kind": "inset", "inset": {"scene": "round"}}]}
    outer = scene({"id": "van", "name": "Van", "kind": "inset", "inset": {"scene": "deep"}}, length=24, insets=[inner, deeper])
    parcel = parcel_of(outer, ["van"], 0)
    other = scene(length=24, insets=[inner | {"length": 7}])
    after = placed(other, parcel)
    assert {(one.id, one.name) for one in after.insets} == {("round", "Round"), ("round-2", "Round 2"), ("deep", "Deep")}
    assert after.insets_by_id["deep"].objects[0].inset_of.scene == "round-2"
    assert placed(outer, parcel).insets == outer.insets, "what is here already is not kept twice"


def test_pictures_and_fonts_come_along():
    page, other = ({"id": PICTURE_FILES.keep(data), "name": "Page", "width": 1, "height": 1} for data in (png(), png((9, 9, 9))))
    shown = {"id": "stamp", "name": "Stamp", "kind": "picture", "picture": {"pictures": [page["id"]]}}
    font = own_font().model_dump()
    words = text("Post", shape={"font": font["id"]})
    outer = scene(shown, words, length=2, pictures=[page, other], fonts=[font])
    parcel = parcel_of(outer, ["stamp", "title"], 0)
    assert [one.id for one in parcel.scene.pictures] == [page["id"]], "and no others"
    after = placed(scene(length=2), parcel)
    assert [one.id for one in after.pictures] == [page["id"]]
    assert [one.id for one in after.fonts] == [font["id"]]
    assert after.by_id["n-title"].shape.font == font["id"]


def test_a_parcel_is_a_scene_that_files_can_hold(tree):
    packed = parcel_of(tree, ["leaf"], 3).scene
    assert from_data(to_data(packed)) == packed


def test_what_cannot_be_placed_is_refused_in_words(tree):
    parcel = parcel_of(tree, ["bird"], 0)
    with pytest.raises(EditError, match="begin with 'n' exist in this scene"):
        placed(placed(tree, parcel), parcel)
    with pytest.raises(NoSuchThing, match="no object 'roof'"):
        placed(tree, parcel, hang={"bird": "roof"})
    with pytest.raises(EditError, match="none of the copied"):
        placed(tree, parcel, hang={"roof": "tree"})
    with pytest.raises(NoSuchThing):
        parcel_of(tree, ["roof"], 0)
    camera = scene({"id": "c", "name": "Camera", "kind": "camera"}, length=2)
    with pytest.raises(EditError, match="only one"):
        placed(camera, parcel_of(camera, ["c"], 0))
