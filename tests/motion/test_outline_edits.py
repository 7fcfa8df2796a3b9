"""Edits of outlines: of the shape itself, of keys, and of several objects at once."""

import numpy as np
import pytest
from pydantic import TypeAdapter

from vine_swing.motion import EditError, bake
from vine_swing.motion.curves.contours import area, contours_of
from vine_swing.motion.curves.svg_path import parse_path
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.scene.scene_file import from_data

EDITS = TypeAdapter(list[AnyEdit])
SQUARE = "M 0 0 L 100 0 L 100 100 L 0 100 Z"
TALL = "M 0 0 L 100 0 L 100 200 L 0 200 Z"
OTHER = "M 0 0 C 40 -20 80 20 100 0 L 50 80 Z"


def scene(*objects, **more):
    return from_data({"format": "vine-swing-scene", "version": 1, "length": 48, "objects": list(objects)} | more)


def tile(d=SQUARE, *keys, object_id="t", **channels):
    keyed = {"outline": {"keys": [dict(zip(("frame", "value", "ease"), key, strict=False)) for key in keys]}} if keys else {}
    return {"id": object_id, "name": object_id.upper(), "kind": "shape", "shape": {"type": "outline", "d": d}, "channels": keyed | channels}


def made(one, *edits):
    return apply_all(one, EDITS.validate_python(list(edits)))


def d(one, object_id="t"):
    return one.by_id[object_id].shape.d


def keys(one, object_id="t"):
    return [(key.frame, key.value) for key in one.by_id[object_id].channels["outline"].keys]


def size(outline):
    return abs(sum(float(area(part)[0]) for part in contours_of(outline.verbs, outline.points[None])))


def test_without_a_frame_the_shape_itself_is_changed():
    moved = made(scene(tile()), {"edit": "move-points", "object": "t", "points": [1, 2], "dx": 10, "dy": 0})
    assert d(moved) == "M 0 0 L 110 0 L 110 100 L 0 100 Z"
    with pytest.raises(EditError, match="say at which frame"):
        made(scene(tile(SQUARE, (0, SQUARE))), {"edit": "move-points", "object": "t", "points": [1], "dx": 1, "dy": 0})


def test_with_a_frame_a_key_is_changed_or_made_from_what_is_between():
    one = scene(tile(SQUARE, (0, SQUARE, "slow-out"), (20, TALL)))
    at_key = made(one, {"edit": "move-points", "object": "t", "frame": 20, "points": [0], "dx": -5, "dy": 0})
    assert keys(at_key)[1] == (20, "M -5 0 L 100 0 L 100 200 L 0 200 Z")
    between = made(one, {"edit": "move-points", "object": "t", "frame": 10, "points": [0], "dx": -5, "dy": 0})
    assert [frame for frame, _ in keys(between)] == [0, 10, 20]
    assert between.by_id["t"].channels["outline"].keys[1].ease == "slow-out", "the stretch it divides"
    height = float(np.ptp(parse_path(keys(between)[1][1]).points[:, 1]))
    assert 100 < height < 200


def test_points_are_added_and_taken_out_in_all_keys_that_have_them():
    one = scene(tile(SQUARE, (0, SQUARE), (10, TALL), (20, OTHER)))
    more = made(one, {"edit": "add-point", "object": "t", "frame": 0, "after": 1, "share": 0.5})
    assert [value for _, value in keys(more)] == [
        "M 0 0 L 100 0 L 100 50 L 100 100 L 0 100 Z",
        "M 0 0 L 100 0 L 100 100 L 100 200 L 0 200 Z",
        OTHER,
    ]
    fewer = made(more, {"edit": "remove-points", "object": "t", "frame": 10, "points": [2]})
    assert [value for _, value in keys(fewer)] == [SQUARE, TALL, OTHER]


def test_the_last_key_that_goes_leaves_its_outline_to_the_shape():
    one = scene(tile(SQUARE, (0, TALL)))
    bare = made(one, {"edit": "delete-keys", "object": "t", "channel": "outline", "frames": [0]})
    assert d(bare) == TALL
    assert not bare.by_id["t"].is_keyed("outline")


def test_keys_of_outlines_slide_reverse_and_repeat_as_any():
    one = scene(tile(SQUARE, (0, SQUARE), (10, OTHER)))
    met = made(one, {"edit": "meet-points", "object": "t", "frame": 0, "meets": [2, 1]})
    moved = made(met, {"edit": "move-keys", "object": "t", "channel": "outline", "frames": [10], "by": 6})
    assert [frame for frame, _ in keys(moved)] == [0, 16]
    picked = {"edit": "reverse-keys", "keys": [{"object": "t", "channel": "outline", "frames": [0, 16]}]}
    back = made(moved, picked)
    assert keys(back) == [(0, OTHER), (16, SQUARE)]
    assert back.by_id["t"].channels["outline"].keys[0].meets == (1, 2), "what met is told from the other side"
    one_way, other = (bake(each).named("T").bent for each in (moved, back))
    np.testing.assert_allclose(one_way.at(5).points, other.at(11).points, atol=1e-9)


def test_what_is_drawn_lies_about_its_own_middle():
    drawn = made(
        scene(), {"edit": "draw-outline", "id": "a", "name": "Leaf", "d": "M 100 100 L 200 100 L 200 180 Z", "channels": {"fill": "#3F8F63"}}
    )
    leaf = drawn.by_id["a"]
    assert (leaf.channels["x"].base, leaf.channels["y"].base, leaf.shape.d) == (150, 140, "M -50 -40 L 50 -40 L 50 40 Z")
    with pytest.raises(Exception, match="give one of them"):
        made(scene(), {"edit": "draw-outline", "id": "a", "name": "Leaf"})


def test_a_free_line_can_be_fitted_again_until_its_points_are_changed():
    places = [[float(x), 20 * np.sin(x / 9)] for x in range(0, 300, 3)]
    one = made(scene(), {"edit": "draw-outline", "id": "t", "name": "Line", "hand": {"places": places, "tolerance": 0.5}})
    looser = made(one, {"edit": "refit-outline", "object": "t", "tolerance": 15})
    assert d(looser).count("C") < d(one).count("C")
    assert d(made(looser, {"edit": "refit-outline", "object": "t", "tolerance": 0.5})) == d(one)
    changed = made(one, {"edit": "move-points", "object": "t", "points": [0], "dx": 1, "dy": 1})
    with pytest.raises(EditError, match="not drawn freehand"):
        made(changed, {"edit": "refit-outline", "object": "t", "tolerance": 2})


@pytest.mark.parametrize(("how", "wanted"), [("unite", 17500), ("cut-out", 7500), ("overlap", 2500), ("exclude", 15000)])
def test_outlines_are_combined_where_they_stand(how, wanted):
    one = scene(tile(x=200, y=100), tile(object_id="u", x=250, y=150), tile(object_id="v") | {"parent": "u"})
    done = made(one, {"edit": "combine-outlines", "objects": ["t", "u"], "how": how, "frame": 0})
    assert set(done.by_id) == {"t", "v"}
    assert done.by_id["v"].parent == "t"
    assert size(parse_path(d(done))) == pytest.approx(wanted, rel=1e-3)


def test_an_ellipse_and_a_turned_rectangle_are_combined_as_they_are_seen():
    disc = {"id": "t", "name": "T", "kind": "shape", "shape": {"type": "ellipse"}, "channels": {"x": 50, "width": 100, "height": 100}}
    bar = {"id": "u", "name": "U", "kind": "shape", "shape": {"type": "rectangle"}, "channels": {"x": 50, "width": 300, "height": 20, "rotation": 45}}
    done = made(scene(disc, bar), {"edit": "combine-outlines", "objects": ["t", "u"], "how": "cut-out", "frame": 0})
    assert d(done).count("M") == 2, "cut in two"


def test_nothing_left_is_refused():
    one = scene(tile(), tile(object_id="u", x=500))
    with pytest.raises(EditError, match="do not overlap"):
        made(one, {"edit": "combine-outlines", "objects": ["t", "u"], "how": "overlap"})
    with pytest.raises(EditError, match="no width|no line"):
        made(one, {"edit": "outline-line", "object": "t"})
    with pytest.raises(EditError, match="make an outline of it first"):
        made(scene({"id": "t", "name": "T", "kind": "shape", "shape": {"type": "star"}}), {"edit": "reverse-outline", "object": "t"})


def test_a_line_becomes_a_filled_outline_in_its_colour():
    line = {"id": "t", "name": "T", "kind": "shape", "shape": {"type": "line"}, "channels": {"end.x": 100, "stroke": "#D0365B", "stroke.width": 10}}
    done = made(scene(line), {"edit": "outline-line", "object": "t"})
    thing = done.by_id["t"]
    assert thing.channels["fill"].base == "#D0365B"
    assert size(parse_path(thing.shape.d)) == pytest.approx(1000 + np.pi * 25, rel=1e-3)


def test_colours_are_kept_once_each():
    done = made(scene(), {"edit": "set-palette", "colours": ["#F2932B", "#3F8F63", "#F2932B"]})
    assert done.palette == ("#F2932B", "#3F8F63")


def test_only_outlines_have_keys_and_their_values_are_path_data():
    star = {"id": "t", "name": "T", "kind": "shape", "shape": {"type": "star"}, "channels": {"outline": {"keys": [{"frame": 0, "value": SQUARE}]}}}
    with pytest.raises(Exception, match="make an outline of it first"):
        scene(star)
    with pytest.raises(Exception, match="path data"):
        scene(tile(SQUARE, (0, "#F2932B")))
    with pytest.raises(Exception, match="not SVG path data|draws nothing"):
        scene(tile(SQUARE, (0, "M 1 1")))
