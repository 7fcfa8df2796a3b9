"""Several objects at once: moved, aligned, distributed and spread in time."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter

from tests.motion.scenes import channel, scene, shape
from vine_swing.motion import bake
from vine_swing.motion.baking.bounds import bounds_at
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.edits import AnyEdit, apply_all

EDITS: TypeAdapter[list[AnyEdit]] = TypeAdapter(list[AnyEdit])
places = st.floats(-400, 400).map(lambda v: round(v, 3))
parts = st.fixed_dictionaries(
    {
        "x": places,
        "y": places,
        "rotation": st.floats(-180, 180).map(lambda v: round(v, 2)),
        "scale_x": st.floats(0.2, 3).map(lambda v: round(v, 3)),
        "stretch": st.floats(0.5, 2).map(lambda v: round(v, 3)),
        "stretch_angle": st.floats(0, 180).map(lambda v: round(v, 1)),
        "width": st.floats(5, 200).map(lambda v: round(v, 2)),
        "type": st.sampled_from(["ellipse", "rectangle", "star"]),
    }
)


def edited(one, **edit):
    return apply_all(one, EDITS.validate_python([edit]))


def several(drawn, **head):
    """Some objects, every second of them attached to a turned group."""
    group = {"id": "tray", "name": "Tray", "kind": "group", "channels": {"x": 200, "y": 100, "rotation": 30, "scale.x": 1.5}}
    made = [shape(f"s{n}", parent="tray" if n % 2 else None, **part) for n, part in enumerate(drawn)]
    return scene(group, *made, length=24, **head), [f"s{n}" for n in range(len(drawn))]


@given(
    st.lists(parts, min_size=2, max_size=5),
    st.sampled_from(["left", "middle", "right", "top", "centre", "bottom"]),
    st.sampled_from(["each-other", "picture"]),
)
@settings(max_examples=40)
def test_what_is_aligned_lies_on_one_line_however_it_is_turned_and_stretched(drawn, side, to):
    one, ids = several(drawn)
    after = edited(one, edit="align-objects", objects=ids, side=side, to=to)
    boxes = np.array(list(bounds_at(after, ids, 0)[1].values()))
    line = {"left": boxes[:, 0], "right": boxes[:, 2], "middle": boxes[:, [0, 2]].mean(axis=1)}
    line |= {"top": boxes[:, 1], "bottom": boxes[:, 3], "centre": boxes[:, [1, 3]].mean(axis=1)}
    before = np.array(list(bounds_at(one, ids, 0)[1].values()))
    around = [before[:, 0].min(), before[:, 1].min(), before[:, 2].max(), before[:, 3].max()] if to == "each-other" else [0, 0, 1280, 720]
    wanted = {"left": around[0], "top": around[1], "right": around[2], "bottom": around[3]}
    wanted |= {"middle": (around[0] + around[2]) / 2, "centre": (around[1] + around[3]) / 2}
    np.testing.assert_allclose(line[side], wanted[side], atol=1e-9 * 1280)


@given(st.lists(parts, min_size=3, max_size=6), st.sampled_from(["across", "down"]), st.sampled_from(["gaps", "middles"]))
@settings(max_examples=40)
def test_what_is_distributed_has_equal_gaps_or_distances_and_the_outermost_stay(drawn, along, what):
    one, ids = several(drawn)
    after = edited(one, edit="distribute-objects", objects=ids, along=along, what=what)
    side = 0 if along == "across" else 1
    was, now = (bounds_at(it, ids, 0)[1] for it in (one, after))
    order = sorted(ids, key=lambda i: was[i][side] + was[i][side + 2])
    starts, ends = (np.array([now[i][side + n] for i in order]) for n in (0, 2))
    even = starts[1:] - ends[:-1] if what == "gaps" else np.diff((starts + ends) / 2)
    np.testing.assert_allclose(even, even[0], atol=1e-9 * 1280)
    for outermost in (order[0], order[-1]):
        np.testing.assert_allclose(now[outermost], was[outermost], atol=1e-9 * 1280)


@given(st.lists(parts, min_size=1, max_size=4), places, places, st.booleans())
@settings(max_examples=40)
def test_moving_several_together_is_moving_each(drawn, dx, dy, key):
    one, ids = several(drawn)
    together = edited(one, edit="move-objects", objects=ids, dx=dx, dy=dy, frame=3.0, key=key)
    by_one = one
    for object_id in ids:
        by_one = edited(by_one, edit="move-objects", objects=[object_id], dx=dx, dy=dy, frame=3.0, key=key)
    assert together == by_one
    was, now = (np.array(list(bounds_at(it, ids, 3)[1].values())) for it in (one, together))
    np.testing.assert_allclose(now - was, np.tile([dx, dy, dx, dy], (len(ids), 1)), atol=1e-7)


def test_keys_come_where_there_are_some_and_through_a_camera_it_goes_as_far_as_it_is_seen():
    camera = {"id": "camera", "name": "Camera", "kind": "camera", "channels": {"x": 640, "y": 360, "zoom": 2}}
    moving = shape("moving", x=channel((0, 100, "linear"), (10, 200)).model_dump(by_alias=True), y=50)
    one = scene(moving, shape("still", x=300, y=50), camera, length=24)
    after = edited(one, edit="move-objects", objects=["moving", "still"], dx=40.0, dy=0.0, frame=5.0)
    assert [(key.frame, key.value) for key in after.by_id["moving"].channels["x"].keys] == [(0, 100), (5, 170), (10, 200)]
    assert after.by_id["still"].channels["x"].base == 320


def test_what_hangs_on_another_of_them_goes_along_once():
    one = scene(shape("a", x=0), shape("b", parent="a", x=10), length=2)
    after = edited(one, edit="move-objects", objects=["a", "b"], dx=5.0, dy=0.0)
    assert [after.by_id[i].channels["x"].base for i in "ab"] == [5, 10]


def test_a_path_gets_a_point():
    path = {"keys": [{"frame": 0, "value": [0, 0], "ease": "linear"}, {"frame": 10, "value": [100, 0]}]}
    one = scene(shape("a") | {"channels": {"path": path}}, length=11)
    after = edited(one, edit="move-objects", objects=["a"], dx=0.0, dy=20.0, frame=5.0)
    np.testing.assert_allclose(bake(after)["A", "y"][[0, 5, 10]], [0, 20, 0], atol=1e-9)


@pytest.mark.parametrize(("order", "first"), [("troupe", "c"), ("left-to-right", "b")])
def test_each_comes_so_many_frames_after_the_one_before(order, first):
    move = channel((0, 0, "linear"), (4, 8)).model_dump(by_alias=True)
    one = scene(shape("a", x=50, y=move), shape("b", x=0, y=move), shape("c", x=90, y=move), shape("d", parent="b", rotation=move), length=24)
    ids = ["a", "b", "c"]
    after = edited(one, edit="spread-in-time", objects=ids, later=6.0, order=order)
    starts = {i: after.by_id[i].channels["y"].keys[0].frame for i in ids}
    assert sorted(starts.values()) == [0, 6, 12]
    assert starts[first] == 0
    assert after.by_id["d"].channels["rotation"].keys[0].frame == starts["b"], "what hangs on it comes with it"
    ruled = edited(one, edit="spread-in-time", objects=ids, later=6.0, order=order, how="rule")
    np.testing.assert_allclose([bake(ruled)[i.upper(), "y"] for i in ids], [bake(after)[i.upper(), "y"] for i in ids], atol=1e-9)
    assert all(ruled.by_id[i].channels == one.by_id[i].channels for i in ids), "the keys stay"


def test_chance_is_the_same_for_the_same_seed_and_two_have_nothing_between_them():
    move = channel((0, 0, "linear"), (4, 8)).model_dump(by_alias=True)
    one = scene(*(shape(f"s{n}", y=move) for n in range(6)), length=60)
    ids = [f"s{n}" for n in range(6)]
    by_chance = [edited(one, edit="spread-in-time", objects=ids, later=3.0, order="chance", seed=seed) for seed in (5, 5, 6)]
    assert by_chance[0] == by_chance[1] != by_chance[2]
    with pytest.raises(EditError, match="one more"):
        edited(one, edit="distribute-objects", objects=["s0", "s1"], along="across")
