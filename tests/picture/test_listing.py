"""From a bake to the paint list: nesting, fading as one picture, and layers only where they show."""

import json

import numpy as np
import pytest
import skia
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.motion.scenes import channel, scene, shape
from tests.picture.cases import cases, operations
from vine_swing.motion import bake
from vine_swing.picture.list_data import OPERATIONS, read, steps_data
from vine_swing.picture.listing import MOST_NESTED, paint_list
from vine_swing.picture.paint import Painter
from vine_swing.picture.paint_list import Fill, Group, Stroke, leaves

SQUARE = {"type": "rectangle", "width": 60, "height": 60, "fill": "#FF0000", "stroke.width": 0}


def listed(*objects, **more):
    return paint_list(bake(scene(*objects, size=[100, 100], background="#FFFFFF", length=4, **more)))


def group(name, **more):
    return {"id": name, "name": name.title(), "kind": "group"} | more


def shapes_of(steps):
    """Ids of steps, groups as lists that begin with their own."""
    return [[step.id, *shapes_of(step.children)] if isinstance(step, Group) else step.id for step in steps]


def test_what_is_never_seen_has_no_step():
    found = listed(shape("a", fill="#00000000", **{"stroke.width": 0}), shape("b", **{"stroke.width": 3, "stroke": "#112233"}))
    assert [(type(step), step.id) for step in found.steps] == [(Fill, "b"), (Stroke, "b")]


def test_what_is_hidden_is_listed_as_not_shown():
    found = listed(shape("a") | {"shown": False}, shape("b", parent="a"), shape("c"))
    assert {step.id: step.shown for step in found.steps} == {"a": False, "b": False, "c": True}


def test_a_single_step_fades_without_a_layer_and_several_as_a_group():
    alone, outlined = shape("a", opacity=0.5), shape("b", opacity=0.5, **{"stroke.width": 4})
    found = listed(alone, outlined)
    assert shapes_of(found.steps) == ["a", ["b", "b", "b"]]
    assert [track.values.tolist() for track in found.steps[0].opacity] == [[0.5]]
    # Opaque at every frame: no group.
    assert shapes_of(listed(shape("b", **{"stroke.width": 4})).steps) == ["b", "b"]


def test_a_group_is_split_where_something_else_is_painted_between():
    parts = [shape("one", parent="g"), shape("two", parent="g"), shape("bird"), shape("three", parent="g"), shape("four", parent="g")]
    found = listed(group("g", channels={"opacity": 0.5}), *parts)
    assert shapes_of(found.steps) == [["g", "one", "two"], "bird", ["g", "three", "four"]]


def test_groups_stand_in_one_another_and_single_ones_fold():
    objects = [
        group("outer", channels={"opacity": 0.5}),
        group("inner", parent="outer", channels={"opacity": 0.8}),
        shape("a", parent="inner"),
        shape("b", parent="inner"),
        shape("c", parent="outer", opacity=0.25),
    ]
    found = listed(*objects)
    assert shapes_of(found.steps) == [["outer", ["inner", "a", "b"], "c"]]
    folded = listed(*objects[:3]).steps[0]
    assert [(track.owner, track.name) for track in folded.opacity] == [("outer", "fade"), ("inner", "fade")]


def test_a_chain_of_thousands_that_all_fade_is_nested_only_so_deep():
    deep = [shape("p0", opacity=0.9)] + [shape(f"p{n}", parent=f"p{n - 1}", opacity=0.999) for n in range(1, 1500)]
    steps = listed(*deep).steps
    depth = 0
    while any(isinstance(step, Group) for step in steps):
        steps = next(step for step in steps if isinstance(step, Group)).children
        depth += 1
    assert depth == MOST_NESTED
    assert len(list(leaves(listed(*deep).steps))) == 1500


def test_a_group_fades_as_one_picture():
    below = shape("below", x=50, y=50, parent="g", **SQUARE)
    above = shape("above", x=50, y=50, parent="g", **(SQUARE | {"width": 30, "height": 30, "fill": "#0000FF"}))
    picture = Painter(listed(group("g", channels={"opacity": channel((0, 1), (3, 0.4))}), below, above)).frame(3)
    # 0.4 of blue on white; nothing of the red below shows through.
    assert np.abs(picture[50, 50, :3].astype(int) - [153, 153, 255]).max() <= 1
    assert np.abs(picture[25, 50, :3].astype(int) - [255, 153, 153]).max() <= 1


def test_a_line_does_not_show_its_fill_through():
    one = shape("a", x=50, y=50, opacity=0.5, **(SQUARE | {"stroke": "#0000FF", "stroke.width": 20}))
    picture = Painter(listed(one)).frame(0)
    inner_half_of_the_line = picture[50, 25, :3].astype(int)
    assert np.abs(inner_half_of_the_line - [127, 127, 255]).max() <= 1


@settings(max_examples=40, deadline=None)
@given(st.lists(st.tuples(st.integers(-1, 5), st.sampled_from([1.0, 1.0, 0.7, 0.3]), st.booleans()), min_size=1, max_size=9))
def test_every_leaf_has_the_opacity_of_all_it_hangs_on_and_the_scenes_order(things):
    objects = []
    for n, (parent, opacity, line) in enumerate(things):
        hung = {"parent": f"o{parent}"} if 0 <= parent < n else {}
        objects.append(shape(f"o{n}", opacity=opacity, **hung, **{"stroke.width": 3 if line else 0}))
    baked = bake(scene(*objects, length=2))
    found = paint_list(baked)

    def walk(steps, above):
        for step in steps:
            opacity = above * np.prod([float(track.at(0)) for track in step.opacity])
            if isinstance(step, Group):
                assert len(step.children) > 1
                yield from walk(step.children, opacity)
            else:
                yield step.id, opacity

    seen = dict(walk(found.steps, 1.0))
    assert list(seen) == list(baked.objects)
    for object_id, opacity in seen.items():
        assert opacity == pytest.approx(float(baked.objects[object_id].opacity[0]))


def test_every_operation_has_a_case_and_cases_are_read_as_they_are_written():
    used = set()
    for _name, data in cases():
        used |= operations(data["steps"])
        assert read(data | {"steps": json.loads(json.dumps(steps_data(read(data).steps)))}).size == tuple(data["size"])
        assert operations(steps_data(read(data).steps)) == operations(data["steps"])
    assert used == set(OPERATIONS)


@pytest.mark.parametrize("scale", [0.2, 1.0, 3.0])
def test_a_layer_holds_all_that_is_painted_on_it(scale, monkeypatch):
    for name, data in cases():
        painter = Painter(read(data), scale=scale)
        pictures = [painter.frame(frame) for frame in data["frames"]]
        with monkeypatch.context() as patched:
            # Layers as large as the picture.
            patched.setattr(skia.Canvas, "saveLayer", lambda canvas, box, brush, whole=skia.Canvas.saveLayer: whole(canvas, None, brush))
            for frame, picture in zip(data["frames"], pictures, strict=True):
                # Where a layer ends, a smoothed edge may be rounded otherwise; what is cut off would differ by far more.
                far = np.abs(painter.frame(frame).astype(int) - picture)
                assert far.max() <= 8, f"{name} at frame {frame}: up to {far.max()} of 255"
