"""What looks do, against pictures that NumPy makes by their definitions, and how rules on looks are in a scene."""

import numpy as np
import pytest
from pydantic import TypeAdapter
from scipy.ndimage import gaussian_filter, shift

from demo.make import SCENES
from tests.motion.scenes import channel, scene, shape
from vine_swing.motion import MotionError, bake, load
from vine_swing.motion.basics import colour
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.scene.scene_file import from_data, to_data
from vine_swing.picture.listing import paint_list
from vine_swing.picture.paint import Painter
from vine_swing.picture.paint_list import Group
from vine_swing.service.motion import Motion

W, H = 160, 120
EDITS = TypeAdapter(list[AnyEdit])


def apply_edits(one, edits):
    return apply_all(one, EDITS.validate_python(edits))


def rule(kind, key="r", **settings):
    return {"id": key, "kind": kind, "settings": settings}


def box(x0, y0, x1, y1):
    """How much of each pixel a box covers whose sides lie between pixels."""
    found = np.zeros((H, W))
    found[y0:y1, x0:x1] = 1.0
    return found


#: What the plate covers.
PLATE = box(50, 40, 110, 80)
FILL = "#F2932B"


def plate(*rules, **channels):
    return shape("plate", type="rectangle", rules=rules, **({"x": 80, "y": 60, "width": 60, "height": 40, "fill": FILL} | channels))


def painted(*objects, frame=0, **head):
    """A frame without its background: straight colours 0…1 times alpha, and alpha, (H, W, 4)."""
    one = scene(*objects, size=[W, H], **({"length": 2} | head))
    return Painter(bake(one), background=False).frame(frame) / 255


def over(top, below):
    return top + below * (1 - top[..., 3:])


def inked(cover, written, opacity=1.0):
    """A silhouette in a colour."""
    r, g, b, a = colour.parse_hex(written)
    return cover[..., None] * np.array([r, g, b, 1.0]) * a * opacity


def apart(one, other):
    """The mean difference of two pictures, in grey levels of 255, where either shows anything."""
    seen = (one[..., 3] > 0) | (other[..., 3] > 0)
    return 255 * np.abs(one - other)[seen].mean()


@pytest.mark.parametrize("blur", [0, 1.5, 4, 9])
def test_a_shadow_is_the_silhouette_moved_and_blurred(blur):
    dark = "#302040"
    ours = painted(plate(rule("shadow", dx=9, dy=6, blur=blur, opacity=0.6, colour=dark)))
    cover = shift(PLATE, (6, 9), order=0)
    expected = over(inked(PLATE, FILL), inked(gaussian_filter(cover, blur, truncate=6) if blur else cover, dark, 0.6))
    assert apart(ours, expected) <= 1


@pytest.mark.parametrize("lies", ["behind", "over"])
def test_a_glow_is_the_blurred_silhouette_as_often_as_it_is_strong(lies):
    light = "#FFD27A"
    ours = painted(plate(rule("glow", size=5, strength=1.5, colour=light, lies=lies)))
    halo = inked(gaussian_filter(PLATE, 5, truncate=6), light)
    whole = inked(PLATE, FILL)
    expected = over(whole, np.minimum(1.5 * halo, 1)) if lies == "behind" else np.minimum(whole + 1.5 * halo, 1)
    assert apart(ours, expected) <= 1


@pytest.mark.parametrize(("settings", "sizes"), [({}, (4, 4)), ({"way": "across"}, (0, 4)), ({"way": "across", "angle": 90}, (4, 0))])
def test_a_blur_is_a_gaussian_all_round_or_in_one_direction(settings, sizes):
    ours = painted(plate(rule("blur", size=4, **settings)))
    assert apart(ours, inked(gaussian_filter(PLATE, sizes, truncate=6), FILL)) <= 1


def test_a_slanted_blur_spreads_along_its_direction_and_keeps_the_light():
    ours = painted(plate(rule("blur", size=6, way="across", angle=30)))[..., 3]
    sharp = painted(plate())[..., 3]
    assert ours.sum() == pytest.approx(sharp.sum(), rel=0.005)
    y, x = np.mgrid[:H, :W]

    def spread(angle):
        along = (x - 79.5) * np.cos(angle) + (y - 59.5) * np.sin(angle)
        return (ours * along**2).sum() / ours.sum() - (sharp * along**2).sum() / sharp.sum()

    # Painters make a Gaussian of three boxes of whole pixels, which come out somewhat narrower.
    assert spread(np.radians(30)) == pytest.approx(36, rel=0.2)
    # Turned there and back between whole pixels, it grows a little the other way too.
    assert spread(np.radians(120)) < 1


def test_along_its_travel_what_moves_is_smeared_by_half_a_frame_and_what_stands_is_sharp():
    move = channel((0, 40), (10, 140), (20, 140))
    one = scene(shape("plate", type="rectangle", x=move, y=60, rules=[rule("blur", size=20, way="travel")]), length=21)
    (look,) = bake(one).objects["plate"].look
    np.testing.assert_allclose(look.derived["sizes"][[1, 5, 12, 20]], [5, 5, 0, 0])
    np.testing.assert_allclose(look.derived["angles"][1:9], 0)


def test_a_fringe_moves_red_one_way_and_blue_the_other():
    ours = painted(plate(rule("fringe", distance=5)))
    r, g, b, _ = colour.parse_hex(FILL)
    planes = [r * shift(PLATE, (0, 5), order=0), g * PLATE, b * shift(PLATE, (0, -5), order=0)]
    cover = (shift(PLATE, (0, 5), order=0) + PLATE + shift(PLATE, (0, -5), order=0)) / 3
    expected = np.stack([*planes, np.maximum(cover, np.max(planes, axis=0))], axis=-1)
    assert apart(ours, expected) <= 1
    np.testing.assert_array_equal(painted(plate(rule("fringe", distance=0))), painted(plate()))


def test_outward_a_fringe_grows_red_and_shrinks_blue_about_the_pivot():
    ours = painted(plate(rule("fringe", distance=10, way="outward")))
    red, blue = ours[60, :, 0] > 0.5, ours[60, :, 2] > 0.1
    assert (np.flatnonzero(red)[[0, -1]] == [47, 112]).all(), "30 px from the middle, 10 % farther out"
    assert (np.flatnonzero(blue)[[0, -1]] == [53, 106]).all()


@pytest.mark.parametrize("side", ["inside", "outside"])
@pytest.mark.parametrize("reads", ["opacity", "lightness"])
@pytest.mark.parametrize("feather", [0, 3])
def test_a_mask_keeps_what_lies_inside_another_object_or_outside(side, reads, feather):
    grey = "#80808080"
    hole = shape("hole", type="rectangle", x=110, y=60, width=40, height=60, fill=grey) | {"shown": False}
    ours = painted(plate(rule("mask", by="hole", side=side, reads=reads, feather=feather)), hole)
    cover = box(90, 30, 130, 90) * 128 / 255 * (128 / 255 if reads == "lightness" else 1)
    soft = gaussian_filter(cover, feather, truncate=6) if feather else cover
    expected = inked(PLATE, FILL) * (soft if side == "inside" else 1 - soft)[..., None]
    assert apart(ours, expected) <= 1


def test_what_masks_may_move_and_fade_and_counts_with_all_that_hangs_on_it():
    hole = shape("hole", type="rectangle", x=channel((0, 60), (10, 100)), y=60, width=10, height=200, opacity=0.5) | {"shown": False}
    more = shape("more", type="rectangle", parent="hole", x=20, width=10, height=200)
    hidden = shape("unseen", type="rectangle", parent="hole", x=-12, width=10, height=200) | {"shown": False}
    objects = plate(rule("mask", by="hole")), hole, more, hidden
    for frame, x in ((0, 60), (10, 100)):
        cover = painted(*objects, frame=frame, length=11)[60, :, 3]
        seen = np.flatnonzero(cover > 0.4)
        np.testing.assert_array_equal(seen, [px for px in range(50, 110) if x - 5 <= px < x + 5 or x + 15 <= px < x + 25])
        np.testing.assert_allclose(cover[seen], 0.5, atol=0.01)


def test_recolouring_goes_over_to_two_colours_by_lightness():
    ours = painted(plate(rule("recolour", share=1, dark="#203040", light="#F0E0C0")))
    r, g, b, _ = colour.parse_hex(FILL)
    dark, light = (colour.parse_hex(one)[:3] for one in ("#203040", "#F0E0C0"))
    np.testing.assert_allclose(ours[60, 80, :3], dark + (light - dark) * (0.2126 * r + 0.7152 * g + 0.0722 * b), atol=1 / 255)


def test_without_colourfulness_all_is_grey_and_a_whole_turn_of_hue_changes_nothing():
    grey = painted(plate(rule("recolour", saturation=0)))[60, 80, :3]
    assert np.ptp(grey) <= 1.01 / 255
    np.testing.assert_allclose(painted(plate(rule("recolour", hue=360))), painted(plate()), atol=1.01 / 255)


def test_looks_apply_in_order():
    first = painted(plate(rule("blur", "a", size=3), rule("shadow", "b", dx=0, dy=30, blur=0)))
    last = painted(plate(rule("shadow", "b", dx=0, dy=30, blur=0), rule("blur", "a", size=3)))
    # A sharp shadow of a soft plate is soft; blurred together, it is softer still where both meet.
    assert np.abs(first - last).max() > 0.05


def test_a_look_takes_a_group_for_one_picture_and_fades_after():
    group = {"id": "all", "name": "All", "kind": "group", "rules": [rule("shadow", dx=0, dy=0, blur=0, opacity=1, colour="#000000")]}
    parts = [shape(f"p{n}", type="rectangle", parent="all", x=70 + 20 * n, y=60, width=40, height=40, fill="#FFFFFF") for n in range(2)]
    np.testing.assert_allclose(painted(group, *parts)[60, 45:115, :3].min(), 0, atol=1e-9)
    inside = painted(group, *parts)[60, 55:105]
    np.testing.assert_allclose(inside, 1, err_msg="no part casts a shadow on another")
    faded = painted(group | {"channels": {"opacity": 0.5}}, *parts)[60, 55:105]
    np.testing.assert_allclose(faded, 128 / 255, atol=2 / 255)


def test_settings_are_channels_numbers_and_colours_alike():
    settings = {
        "dx": channel((0, 0), (10, 20)).model_dump(by_alias=True),
        "colour": channel((0, "#FF0000"), (10, "#0000FF")).model_dump(by_alias=True),
    }
    one = scene(plate(rule("shadow", **settings)), length=11)
    baked = bake(one)
    (look,) = baked.objects["plate"].look
    np.testing.assert_allclose(look.values["dx"], 2 * np.arange(11.0))
    np.testing.assert_allclose(look.values["colour"][[0, 10]], [[1, 0, 0, 1], [0, 0, 1, 1]], atol=1e-9)
    assert from_data(to_data(one)) == one
    assert apply_edits(one, [{"edit": "set-key", "object": "plate", "channel": "r:colour", "frame": 5, "value": "#00FF00"}]) != one


@pytest.mark.parametrize(
    ("kind", "settings", "words"),
    [
        ("shadow", {"colour": 3}, "colour"),
        ("shadow", {"colour": "orange"}, "orange"),
        ("shadow", {"colour": {"base": "#FF0000", "formula": "t"}}, "formula"),
        ("blur", {"size": -1}, "between 0 and 500"),
        ("glow", {"lies": "beside"}, "behind, over"),
    ],
)
def test_settings_that_do_not_fit_are_refused_in_words(kind, settings, words):
    with pytest.raises(ValueError, match=words):
        scene(plate(rule(kind, **settings)))


def test_rules_on_looks_act_on_looks_alone_and_a_look_has_no_values():
    with pytest.raises(ValueError, match="look"):
        scene(plate(rule("shadow") | {"channels": ["x"]}))
    with pytest.raises(ValueError, match="key the settings of its rules"):
        scene(plate(look={"base": 1}))
    with pytest.raises(ValueError, match="it can act on nothing here"):
        scene({"id": "c", "name": "C", "kind": "camera", "rules": [rule("blur")]})


@pytest.mark.parametrize("ring", [["a"], ["a", "b"], ["a", "b", "c"]])
def test_objects_that_mask_each_other_in_a_ring_are_refused(ring):
    after = dict(zip(ring, [*ring[1:], ring[0]], strict=True))
    with pytest.raises(MotionError, match="ring"):
        bake(scene(*(shape(one, rules=[rule("mask", by=after[one])]) for one in ring)))


def test_a_part_cannot_be_masked_by_what_it_hangs_on_but_a_group_by_its_part():
    group = {"id": "all", "name": "All", "kind": "group"}
    with pytest.raises(MotionError, match="'Part' by 'All'"):
        bake(scene(group, shape("part", parent="all", rules=[rule("mask", by="all")])))
    bake(scene(group | {"rules": [rule("mask", by="part")]}, shape("part", parent="all")))


def test_through_a_camera_looks_grow_and_turn_with_the_scene():
    camera = {"id": "camera", "name": "Camera", "kind": "camera", "channels": {"x": 80, "y": 60, "zoom": 2, "rotation": -90}}
    ours = painted(plate(rule("shadow", dx=10, dy=0, blur=0, opacity=1, colour="#000000"), width=20, height=20), camera)
    dark = (ours[..., 3] > 0.5) & (ours[..., 0] < 0.1)
    rows, columns = np.nonzero(dark)
    # Seen from a camera turned to the left, what falls to the right falls down, and twice as far.
    assert (rows.min(), rows.max() + 1) == (80, 100)
    assert (columns.min(), columns.max() + 1) == (60, 100)


def test_what_nothing_changed_keeps_its_look_and_only_structure_changes_steps():
    one = scene(plate(rule("shadow"), x=80), shape("other"), length=4)
    before = bake(one)
    moved = apply_edits(one, [{"edit": "set-value", "object": "other", "channel": "x", "value": 5.0}])
    assert bake(moved, previous=before).objects["plate"].look is before.objects["plate"].look
    darker = apply_edits(one, [{"edit": "set-setting", "object": "plate", "rule": "r", "setting": "opacity", "value": 0.9}])
    after = bake(darker, previous=before)
    assert after.objects["plate"].look[0].values["dx"] is not None
    assert after.objects["plate"].look[0].values["opacity"] == pytest.approx(0.9)


def test_in_a_parade_copies_share_looks_that_are_alike_and_have_their_own_by_number():
    seal = shape("seal", parent="p", width=10, height=10, rules=[rule("shadow", dx={"base": 4, "formula": "value * (n + 1)"})])
    row = {"id": "p", "name": "P", "kind": "parade", "channels": {"count": 3, "gap": 30, "x": 20, "y": 60}}
    baked = bake(scene(row, seal, size=[W, H], length=3))
    own = [one.objects["seal"].look[0].values["dx"].tolist() for one in baked.parades["p"].own]
    assert own == [[4], [8], [12]]
    listed = paint_list(baked)
    copies = listed.steps[0].children[0]
    dx = [next(step for step in steps if isinstance(step, Group)).effects[0].dx for steps in copies.each]
    assert [track.values.tolist() for track in dx] == own


def test_a_parade_taken_apart_keeps_its_looks_masks_and_their_delays():
    grows = channel((0, 0.0, "linear"), (8, 8.0)).model_dump(by_alias=True)
    rules = [rule("shadow", dx=grows, dy={"base": 4, "formula": "value * (n + 1)"}), rule("mask", "m", by="hole")]
    seal = shape("seal", parent="p", width=30, height=30, rules=rules)
    hole = shape("hole", parent="p", type="rectangle", x=6, width=30, height=60) | {"shown": False}
    row = {"id": "p", "name": "P", "kind": "parade", "channels": {"count": 3, "gap": 10, "x": 30, "y": 50, "delay": 3}}
    one = scene(row, hole, seal, size=[W, H], length=20)
    apart_ = apply_edits(one, [{"edit": "take-apart", "id": "p", "frame": 0.0}])
    before, after = Painter(bake(one)), Painter(bake(apart_))
    for frame in (0, 5, 12):
        np.testing.assert_allclose(after.frame(frame).astype(int), before.frame(frame).astype(int), atol=2)


@pytest.mark.parametrize("name", ["20-mist-over-the-gorge", "21-departures", "22-bamboo-chimes"])
def test_layers_kept_while_they_rest_are_what_would_be_painted_anew(name):
    listed = paint_list(bake(load(SCENES / f"{name}.json")))
    keeping = Painter(listed, scale=0.25)
    for frame in (30, 30, 30, 31, 104, 130, 130, 131, 104, 30):
        np.testing.assert_array_equal(keeping.frame(frame), Painter(listed, scale=0.25).frame(frame))


def test_a_mask_from_another_parade_is_remarked_on_and_left_out():
    from vine_swing.motion.baking.explain import explain

    row = {"id": "p", "name": "P", "kind": "parade"}
    one = scene(row, shape("seal", parent="p", rules=[rule("mask", by="far")]), shape("far"))
    assert "same parade" in explain(one, "seal", "look")[1].remark
    assert Painter(bake(one)).frame(0).shape == (720, 1280, 4)


def test_deleting_what_masks_leaves_all_to_be_seen():
    one = scene(plate(rule("mask", by="hole")), shape("hole"), size=[W, H])
    left = apply_edits(one, [{"edit": "delete-object", "id": "hole"}])
    assert painted(*to_data(left)["objects"])[60, 80, 3] == 1
    with pytest.raises(EditError):
        apply_edits(one, [{"edit": "set-setting", "object": "plate", "rule": "r", "setting": "by", "value": "nobody"}])


def test_a_ground_shadow_goes_along_and_shrinks_with_height():
    fall = channel((0, 100, "linear"), (10, 300)).model_dump(by_alias=True)
    move = channel((0, 50, "linear"), (10, 250)).model_dump(by_alias=True)
    one = scene(shape("mango", x=move, y=fall, width=60, height=40), length=11)
    after = apply_edits(one, [{"edit": "ground-shadow", "object": "mango", "id": "dark"}])
    assert [thing.id for thing in after.objects] == ["dark", "mango"]
    baked = bake(after)
    dark = baked.objects["dark"].channels
    np.testing.assert_allclose(dark["x"], 50 + 20 * np.arange(11))
    np.testing.assert_allclose(dark["y"], 320)
    np.testing.assert_allclose(dark["scale.x"], 1 - 0.7 * (10 - np.arange(11)) / 10)
    np.testing.assert_allclose(dark["opacity"] / 0.35, dark["scale.y"])
    sizes = baked.objects["dark"].look[0].values["size"]
    assert sizes[0] > sizes[10] > 0
    with pytest.raises(EditError, match="to its parent"):
        apply_edits(scene(shape("a"), shape("b", parent="a")), [{"edit": "ground-shadow", "object": "b", "id": "dark"}])


def test_fog_thickens_with_distance_and_takes_another_colour():
    one = scene(shape("near", depth=0), shape("far", depth=channel((0, 2, "linear"), (4, 6)).model_dump(by_alias=True)), length=5)
    fog = {"edit": "fog-by-distance", "objects": ["near", "far"], "colour": "#C8D8D0"}
    after = apply_edits(one, [fog])
    baked = bake(after)
    np.testing.assert_allclose(baked.objects["near"].look[0].values["share"], 0)
    np.testing.assert_allclose(baked.objects["far"].look[0].values["share"], 1 - 1 / (1 + 0.35 * np.arange(2, 7)))
    again = apply_edits(after, [fog | {"colour": "#102030"}])
    assert [rule.colour("dark") for rule in again.by_id["far"].rules] == ["#102030"]


def test_the_page_is_told_when_a_part_of_a_hidden_mask_is_hidden():
    hole = shape("hole", type="rectangle", x=60, y=60, width=20, height=60) | {"shown": False}
    more = shape("more", type="rectangle", parent="hole", x=40, width=20, height=60)
    one = scene(plate(rule("mask", by="hole")), hole, more, size=[W, H], length=2)
    before = Motion.of(one, 1)
    after = before.updated(apply_edits(one, [{"edit": "show-object", "id": "more", "shown": False}]), 2)
    masks = [motion.painted.steps[0]["effects"][0]["steps"] for motion in (before, after)]
    assert ["shown" in step for step in masks[0]] == [False, False]
    assert ["shown" in step for step in masks[1]] == [False, True]
