"""Insets: a scene inside the scene, with its own time, shown any number of times; built from what there is, and opened again."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter

from vine_swing.motion.baking.bake import bake
from vine_swing.motion.baking.insets import shown_frames
from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.errors import EditError, SceneFileError
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.edits.insets import DropInsets
from vine_swing.motion.scene.scene_file import dump, from_data, parse
from vine_swing.picture.paint import Painter

EDITS = TypeAdapter(list[AnyEdit])


def keyed(*keys, after="hold"):
    return {"keys": [{"frame": float(frame), "value": float(value)} for frame, value in keys], "after": {"mode": after}}


def dot(id="eye", **channels):
    return {"id": id, "name": id.capitalize(), "kind": "shape", "shape": {"type": "ellipse"}, "channels": channels}


def group(id, **channels):
    return {"id": id, "name": id.capitalize(), "kind": "group", "channels": channels}


def inset(id, shows, past="hold", **channels):
    return {"id": id, "name": id.capitalize(), "kind": "inset", "inset": {"scene": shows, "past": past}, "channels": channels}


def scene(*objects, insets=(), **head):
    return from_data({"format": "vine-swing-scene", "objects": list(objects), "insets": list(insets), **head})


def edited(before, *edits):
    return apply_all(before, EDITS.validate_python(list(edits)))


def blink(length=24, fps=24.0):
    """An inner scene in which an eye moves by keys, a rule and a link."""
    eye = dot(x=keyed((0, 10), (11.5, 300), (23, 40)), y=120.0, **{"scale.y": keyed((3, 1), (5, 0.1), (8, 1))})
    eye["rules"] = [
        {"id": "sway", "kind": "oscillator", "channels": ["y"], "settings": {"amplitude": 25.0, "frequency": 1.3}},
        {"id": "link", "kind": "link", "channels": ["rotation"], "mode": "replace", "settings": {"formula": "{Eye.x} / 4 + {Eye.y @ -2f}"}},
    ]
    return {"id": "blink", "name": "Blink", "length": length, "fps": fps, "size": [400, 300], "objects": [eye]}


def seen(baked, path):
    """The matrix of an object from its own space to the picture, frame by frame, through the insets of a path of ids."""
    *through, last = path
    found = np.broadcast_to(matrix.IDENTITY, (len(baked.frames), 6))
    rows = np.arange(len(baked.frames))
    for one in through:
        shown = baked.insets[one]
        found = matrix.multiply(found, matrix.multiply(at(baked.objects[one].view, rows), shown.corner))
        rows = at(shown.rows, rows).astype(int)
        baked = shown.inner
    return matrix.multiply(found, at(baked.objects[last].view, rows))


def at(array, rows):
    return array[rows] if len(array) > 1 else np.broadcast_to(array, (len(rows), *array.shape[1:]))


# -- time inside


@given(
    offset=st.floats(-30, 60),
    fps=st.sampled_from([8.0, 12.0, 24.0, 25.0, 60.0]),
    first=st.integers(0, 10),
    past=st.sampled_from(["hold", "loop", "ping-pong"]),
)
@settings(max_examples=40, deadline=None)
def test_an_inset_shows_the_bake_of_its_inside_at_its_own_frames(offset, fps, first, past):
    one = scene(inset("frog", "blink", past, inner=offset) | {"span": {"first": first, "last": 47}}, insets=[blink(fps=fps)], length=48)
    shown = bake(one).insets["frog"]
    wanted = offset + (np.arange(48) - first) * fps / 24
    asked, _ = shown_frames(wanted, 24, past)
    own = bake(one.inner_as_scene("blink"), asked)
    rows = shown.rows.astype(int)
    for name, values in own.objects["eye"].channels.items():
        assert np.abs(at(shown.inner.objects["eye"].channels[name], rows) - at(values, np.arange(48))).max() <= 1e-9, name


@given(a=st.floats(-5, 20), b=st.floats(-5, 20), c=st.floats(-5, 20))
@settings(max_examples=15, deadline=None)
def test_insets_three_deep_run_through_all_their_times(a, b, c):
    raft = {"id": "raft", "name": "Raft", "fps": 12.0, "length": 90, "objects": [inset("frog", "blink", inner=c)]}
    river = {"id": "river", "name": "River", "fps": 30.0, "length": 90, "objects": [inset("boat", "raft", inner=b)]}
    one = scene(inset("far", "river", inner=a), insets=[river, raft, blink(length=90, fps=24.0)], length=30)
    t = np.arange(30)
    u = np.clip(a + t * 30 / 24, 0, 89)
    v = np.clip(b + u * 12 / 30, 0, 89)
    w = np.clip(c + v * 24 / 12, 0, 89)
    deep = bake(one).insets["far"]
    rows = np.arange(30)
    for step in ("boat", "frog"):
        rows = at(deep.rows, rows).astype(int)
        deep = deep.inner.insets[step]
    rows = at(deep.rows, rows).astype(int)
    own = bake(one.inner_as_scene("blink"), w)
    for name, values in own.objects["eye"].channels.items():
        assert np.abs(at(deep.inner.objects["eye"].channels[name], rows) - at(values, t)).max() <= 1e-9, name


def test_past_its_inside_an_inset_holds_loops_goes_to_and_fro_or_is_gone():
    asked = np.array([-2.0, -0.5, 0, 2, 3, 3.5, 4, 5, 6, 9])
    assert shown_frames(asked, 4, "hold")[0].tolist() == [0, 0, 0, 2, 3, 3, 3, 3, 3, 3]
    assert shown_frames(asked, 4, "loop")[0].tolist() == [2, 3.5, 0, 2, 3, 3.5, 0, 1, 2, 1]
    assert shown_frames(asked, 4, "ping-pong")[0].tolist() == [2, 0.5, 0, 2, 3, 2.5, 2, 1, 0, 3]
    assert shown_frames(asked, 1, "ping-pong")[0].tolist() == [0] * 10
    frames, there = shown_frames(asked, 4, "gone")
    assert there.tolist() == [0, 0, 1, 1, 1, 1, 0, 0, 0, 0]
    assert (frames >= 0).all()
    assert (frames < 4).all()


def test_keys_and_rules_say_which_frames_inside_are_shown():
    keys = scene(inset("frog", "blink", inner=keyed((0, 20), (20, 0))), insets=[blink()], length=21)
    assert np.allclose(bake(keys).insets["frog"].frames, np.arange(20, -1, -1))
    twos = inset("frog", "blink") | {"rules": [{"id": "on2", "kind": "steps", "channels": ["inner"], "settings": {"every": 2.0}}]}
    assert bake(scene(twos, insets=[blink()], length=6)).insets["frog"].frames.tolist() == [0, 0, 2, 2, 4, 4]


def test_insets_of_one_scene_share_its_bake_and_shifting_one_bakes_nothing_anew():
    uses = [inset(f"frog{n}", "blink", "loop", inner=float(n * 8)) for n in range(3)]
    one = scene(*uses, insets=[blink()], length=48)
    first = bake(one)
    assert len({id(shown.inner) for shown in first.insets.values()}) == 1
    assert first.insets["frog1"].frames[:3].tolist() == [8, 9, 10]
    later = edited(one, {"edit": "set-value", "object": "frog2", "channel": "inner", "value": 3.0})
    again = bake(later, previous=first)
    assert again.insets["frog2"].inner is first.insets["frog2"].inner
    assert again.insets["frog0"] is first.insets["frog0"]


def test_a_change_inside_reaches_every_inset_and_nothing_else():
    one = scene(dot("moon"), inset("frog", "blink"), inset("toad", "blink", inner=4.0), insets=[blink()], length=24)
    before = bake(one)
    inside = edited(one.inner_as_scene("blink"), {"edit": "set-key", "object": "eye", "channel": "x", "frame": 23, "value": 99.0})
    after = one.with_inner("blink", inside)
    again, fresh = bake(after, previous=before), bake(after)
    assert again.objects["moon"] is before.objects["moon"]
    for frog in ("frog", "toad"):
        assert np.array_equal(again.insets[frog].inner.objects["eye"].channels["x"], fresh.insets[frog].inner.objects["eye"].channels["x"])
    assert fresh.insets["frog"].inner["Eye", "x"][23] == 99
    slower = one.with_inner("blink", edited(one.inner_as_scene("blink"), {"edit": "set-fps", "fps": 12.0}))
    assert bake(slower, previous=before).insets["frog"].frames[4] == 2


# -- in parades


def test_copies_of_a_parade_show_their_inset_by_their_delay_and_their_lists():
    late = {"id": "row", "name": "Row", "kind": "parade", "parade": {"arrange": "row"}, "channels": {"count": 3.0, "delay": 4.0, "gap": 10.0}}
    one = scene(late, inset("frog", "blink", "loop") | {"parent": "row"}, insets=[blink()], length=24)
    parade = bake(one).parades["row"]
    shown = parade.element.insets["frog"]
    for copy in range(3):
        rows = parade.layout.rows(copy, 24)
        assert np.allclose(at(shown.frames, rows), np.mod(np.arange(24) - 4 * copy, 24))
    given_list = late | {"parade": {"arrange": "row", "lists": [{"object": "frog", "channel": "inner", "values": [0, 5, 10], "mode": "add"}]}}
    listed = bake(scene(given_list, inset("frog", "blink", "loop") | {"parent": "row"}, insets=[blink()], length=24)).parades["row"]
    assert np.allclose(listed.own[2].insets["frog"].frames, np.mod(np.arange(24) - 8 + 10, 24))


def test_a_row_of_insets_stands_as_far_apart_as_what_is_inside_is_wide():
    row = {"id": "row", "name": "Row", "kind": "parade", "parade": {"arrange": "row"}, "channels": {"count": 2.0, "gap": 0.0}}
    inside = {"id": "pair", "name": "Pair", "objects": [dot("a", x=100.0), dot("b", x=300.0)]}
    parade = bake(scene(row, inset("frog", "pair") | {"parent": "row"}, insets=[inside])).parades["row"]
    assert parade.around.width == pytest.approx(320, abs=1e-6)


# -- what a scene may be


def test_scenes_that_show_each_other_in_a_ring_are_refused_with_their_chain():
    frog = {"id": "frog", "name": "Frog", "objects": [inset("boat", "raft")]}
    raft = {"id": "raft", "name": "Raft", "objects": [inset("crew", "frog")]}
    with pytest.raises(SceneFileError, match="Frog → Raft → Frog"):
        scene(insets=[frog, raft])
    plain = scene(inset("f", "frog"), insets=[raft, {"id": "frog", "name": "Frog"}])
    inside = edited(plain.inner_as_scene("frog"), {"edit": "add-inset", "id": "me", "name": "Me", "scene": "raft", "x": 0.0, "y": 0.0})
    with pytest.raises(ValueError, match="Raft → Frog → Raft"):
        plain.with_inner("frog", inside).checked()


def test_insets_that_show_nothing_or_stand_too_deep_are_refused():
    with pytest.raises(SceneFileError, match="'Frog' shows the inner scene 'gone', which is not kept"):
        scene(inset("frog", "gone"))
    chain = [{"id": f"s{n}", "name": f"S{n}", "objects": [inset("in", f"s{n + 1}")] if n < 9 else []} for n in range(10)]
    with pytest.raises(SceneFileError, match="nested more than 8 levels deep"):
        scene(insets=chain)


def test_insets_that_would_paint_too_much_are_refused_before_they_are_painted():
    deep = [
        {"id": f"s{n}", "name": f"S{n}", "length": 1, "objects": [inset(f"in{k}", f"s{n + 1}") for k in range(12)] if n < 4 else [dot()]}
        for n in range(5)
    ]
    with pytest.raises(ValueError, match="20736 copies and insets"):
        bake(scene(*(inset(f"top{k}", "s1") for k in range(12)), insets=deep, length=1))


def test_a_scene_with_insets_goes_through_its_file():
    one = scene(inset("frog", "blink", "loop", inner=3.0), insets=[blink()])
    assert parse(dump(one)) == one


# -- made and opened


def frog_of_parts():
    """A group that travels, with parts that move by keys, rules, links and a dial, and something beside it."""
    body = dot("body", x=-20.0) | {"parent": "frog"}
    lid = dot("lid", y=keyed((5, 0), (9, -14), (13, 0), after="loop")) | {"parent": "body"}
    lid["rules"] = [{"id": "nod", "kind": "oscillator", "channels": ["rotation"], "settings": {"amplitude": 9.0}}]
    lid["rules"].append({"id": "by", "kind": "link", "channels": ["x"], "mode": "replace", "settings": {"formula": "{Wind} * 10 + {Body.x}"}})
    frog = group("frog", x=keyed((0, 100), (47, 900)), y=200.0, rotation=10.0) | {"pinned": True, "blurred": False}
    frog["rules"] = [{"id": "bob", "kind": "oscillator", "channels": ["y"], "settings": {"amplitude": 12.0}}]
    wind = {"id": "wind", "name": "Wind", "channel": {"keys": [{"frame": 0, "value": 0}, {"frame": 40, "value": 3}]}}
    return scene(dot("moon", x=50.0), frog, body, lid, dot("front", x=600.0), dials=[wind], length=48)


MAKE = {"edit": "make-inset", "id": "held", "scene": "inside", "name": "Frog", "parts": ["frog"], "frame": 0.0}


@pytest.mark.parametrize("span", [{}, {"first": 6, "last": 40}])
def test_a_group_made_an_inset_looks_and_moves_as_before(span):
    one = frog_of_parts()
    one = edited(one, {"edit": "set-span", "id": "frog", **span}) if span else one
    made = edited(one, MAKE)
    assert [thing.kind for thing in made.objects] == ["shape", "inset", "shape"]
    before, after = bake(one), bake(made)
    shown = slice(span.get("first", 0), span.get("last", 47) + 1)
    for part in ("body", "lid"):
        assert np.allclose(at(before.objects[part].view, np.arange(48))[shown], seen(after, ("frog", part))[shown], atol=1e-9)
    for frame in (6, 20, 40):
        # The same up to how edges are rounded, as the matrices are multiplied in another order.
        one_way, other = (Painter(baked, scale=0.5).frame(frame).astype(int) for baked in (before, after))
        assert np.abs(one_way - other).mean() < 0.02


def test_a_group_made_an_inset_and_opened_again_is_the_group_it_was():
    one = frog_of_parts()
    opened = edited(edited(one, MAKE), {"edit": "open-inset", "id": "frog"})
    assert opened == one


def test_other_objects_go_inside_as_they_move():
    one = frog_of_parts()
    made = edited(one, MAKE | {"id": "crew", "parts": ["moon", "front"], "name": "Lights"})
    before, after = bake(one), bake(made)
    for part in ("moon", "front"):
        assert np.allclose(at(before.objects[part].view, np.arange(48)), seen(after, ("crew", part)), atol=1e-9)
    # It stands where the first of them is, so that it turns about it.
    assert after.objects["crew"].place[0].tolist() == [50, 0]


def test_what_goes_by_others_is_not_parted_from_them():
    one = frog_of_parts()
    with pytest.raises(EditError, match="'Lid' reads 'Body', which would be outside"):
        edited(one, MAKE | {"parts": ["lid"]})
    follows = edited(one, {"edit": "add-rule", "object": "moon", "rule": {"id": "f", "kind": "follow", "settings": {"leader": "lid"}}})
    with pytest.raises(EditError, match="'Moon' reads 'Lid', which would be inside"):
        edited(follows, MAKE)
    with pytest.raises(EditError, match="nothing is attached to 'Empty'"):
        edited(scene(group("empty")), MAKE | {"parts": ["empty"]})


def test_an_inset_that_does_not_run_through_once_is_not_opened():
    made = edited(frog_of_parts(), MAKE)
    keys = edited(made, {"edit": "set-key", "object": "frog", "channel": "inner", "frame": 10, "value": 3.0})
    with pytest.raises(EditError, match="have keys or rules, which a group cannot follow"):
        edited(keys, {"edit": "open-inset", "id": "frog"})
    shifted = edited(made, {"edit": "set-value", "object": "frog", "channel": "inner", "value": 4.0}, {"edit": "set-span", "id": "frog", "last": 30})
    with pytest.raises(EditError, match="use the inner scene's own time"):
        edited(shifted, {"edit": "open-inset", "id": "frog"})
    longer = edited(made, {"edit": "set-length", "length": 90})
    with pytest.raises(EditError, match="shown longer than its inside lasts"):
        edited(longer, {"edit": "open-inset", "id": "frog"})


@given(start=st.integers(0, 10), first=st.integers(0, 10), fps=st.sampled_from([12.0, 24.0, 48.0]))
@settings(max_examples=15, deadline=None)
def test_keys_come_out_of_an_inset_in_the_time_of_outside(start, first, fps):
    inside = {"id": "blink", "name": "Blink", "length": 60, "fps": fps, "objects": [dot(x=keyed((0, 0), (30, 90), (59, 5)))]}
    use = inset("frog", "blink", "gone", x=640.0, y=360.0, inner=float(start)) | {"span": {"first": first, "last": 20}}
    one = scene(use, insets=[inside], length=24)
    opened = edited(one, {"edit": "open-inset", "id": "frog"})
    assert not opened.insets
    before = seen(bake(one), ("frog", "eye"))[first:21]
    assert np.allclose(before, at(bake(opened).objects["eye"].view, np.arange(24))[first:21], atol=1e-9)


def test_an_inset_shown_twice_leaves_its_inside_to_the_other_and_takes_names_that_are_free():
    made = edited(frog_of_parts(), MAKE, {"edit": "add-inset", "id": "twin", "name": "Twin", "scene": "inside", "x": 10.0, "y": 20.0})
    opened = edited(made, {"edit": "open-inset", "id": "frog"})
    both = edited(opened, {"edit": "open-inset", "id": "twin"})
    assert [one.id for one in opened.insets] == ["inside"]
    assert not both.insets
    assert {"Lid", "Lid 2"} <= both.names
    linked = both.by_name["Lid 2"].rules[1].settings["formula"]
    assert linked == "{Wind} * 10 + {Body 2.x}"


def test_an_inset_gets_an_inside_of_its_own_and_unused_ones_are_let_go():
    made = edited(frog_of_parts(), MAKE, {"edit": "add-inset", "id": "twin", "name": "Twin", "scene": "inside", "x": 0.0, "y": 0.0})
    own = edited(made, {"edit": "own-inset", "id": "twin", "scene": "mine"})
    assert [one.name for one in own.insets] == ["Frog", "Frog 2"]
    assert own.by_id["twin"].inset.scene == "mine"
    gone = edited(own, {"edit": "delete-object", "id": "twin"})
    assert [one.id for one in gone.insets] == ["inside", "mine"]
    assert [one.id for one in DropInsets(edit="drop-insets").apply(gone).insets] == ["inside"]


def test_what_is_let_go_inside_stays_kept_where_it_is_used_outside():
    raft = {"id": "raft", "name": "Raft"}
    one = scene(inset("a", "raft"), inset("b", "blink"), insets=[raft, blink()])
    inside = edited(one.inner_as_scene("raft"), {"edit": "drop-insets"})
    assert [inner.id for inner in one.with_inner("raft", inside).insets] == ["raft", "blink"]


# -- keys and lengths


def test_the_first_key_of_the_inner_frame_lets_it_run_on():
    one = scene(inset("frog", "blink") | {"span": {"first": 4, "last": 20}}, insets=[blink(fps=12.0)], length=24)
    same = edited(one, {"edit": "set-key", "object": "frog", "channel": "inner", "frame": 10})
    assert [key.frame for key in same.by_id["frog"].channels["inner"].keys] == [4, 10, 20]
    before, after = bake(one)["Frog", "inner"], bake(same)["Frog", "inner"]
    assert np.allclose(before[4:21], after[4:21], atol=1e-12)
    freed = edited(same, {"edit": "delete-keys", "object": "frog", "channel": "inner", "frames": [4, 10, 20], "keep": "frame", "at": 10})
    assert np.array_equal(bake(freed)["Frog", "inner"], before)


def test_an_inset_and_its_inside_are_made_to_last_equally_long():
    use = inset("frog", "blink", inner=2.0) | {"span": {"first": 10, "last": 70}}
    inside = blink(fps=12.0) | {"objects": [dot(x=keyed((0, 0), (23, 46))) | {"span": {"first": 3, "last": 23}}]}
    one = scene(use, insets=[inside], length=100)
    span = edited(one, {"edit": "fit-inset", "id": "frog", "how": "span"})
    assert (span.by_id["frog"].span.first, span.by_id["frog"].span.last) == (10, 52)
    longer = edited(one, {"edit": "fit-inset", "id": "frog", "how": "inside"}).insets[0]
    assert longer.length == 33
    assert longer.objects[0].span.last == 32
    assert [key.frame for key in longer.objects[0].channels["x"].keys] == [0, 23]
    stretched = edited(one, {"edit": "fit-inset", "id": "frog", "how": "stretch"}).insets[0]
    assert [key.frame for key in stretched.objects[0].channels["x"].keys] == [0, 32]
    # A new span of it says the same to all that is inside.
    followed = edited(one, {"edit": "fit-parts", "id": "frog", "first": 10, "last": 56, "how": "stretch"})
    assert followed.insets[0].length == 33


@pytest.mark.parametrize(("kind", "mode"), [("link", "add"), ("oscillator", "multiply"), ("link", "replace")])
def test_rules_inside_an_inset_keep_their_modes_in_scene_files(kind, mode):
    swayed = dot(x=3) | {"rules": [{"id": "r", "kind": kind, "channels": ["x"], "mode": mode}]}
    one = scene(inset("window", "room"), insets=[{"id": "room", "name": "Room", "objects": [swayed]}])
    assert parse(dump(one)) == one
    assert one.insets[0].objects[0].rules[0].mode == mode
