"""Parades: every copy against its element baked alone, places against closed forms, lists, orders, and taking apart."""

import itertools

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.motion.scenes import channel, channels, parade, scene, shape
from vine_swing.motion import bake
from vine_swing.motion.baking.effort import TooMuchWork
from vine_swing.motion.basics import matrix
from vine_swing.motion.curves.outline import Outline
from vine_swing.motion.edits import apply_all
from vine_swing.motion.edits.keys import SetValue
from vine_swing.motion.edits.objects import DeleteObject, ReparentObject
from vine_swing.motion.edits.ordering import OrderObjects
from vine_swing.motion.edits.parades import MakeParade
from vine_swing.motion.edits.take_apart import TakeApart
from vine_swing.motion.figure.starters import STARTERS
from vine_swing.motion.outline.drawing import drawing_of
from vine_swing.motion.parade.frames import laid_out
from vine_swing.motion.parade.ranks import ranks
from vine_swing.picture.drawable import drawables
from vine_swing.picture.paint import Painter

MOVES = {
    "x": channel((0, 0), (12, 40, "slow-out"), (30, 10)),
    "rotation": channel((3, 0, "spring"), (20, 90), after="ping-pong"),
    "scale_x": channel((0, 0.2), (8, 1)),
}
RULES = [
    {"id": "o", "kind": "oscillator", "channels": ["y"], "settings": {"amplitude": 12, "frequency": 0.7}},
    {"id": "s", "kind": "spring", "channels": ["x"], "settings": {"frequency": 3, "damping": 0.3}},
    {"id": "q", "kind": "squash-stretch", "channels": ["stretch", "stretch.angle"], "settings": {}},
    {"id": "n", "kind": "noise", "channels": ["rotation"], "settings": {"amplitude": 5, "seed": 3}},
]


def of_copy(baked, parade_id, k, part, name):
    """A channel of a part as copy k shows it, a row a frame."""
    one = baked.parades[parade_id]
    if one.own and part in one.own[k].objects:
        array = one.own[k].objects[part].channels[name]
        if array is not one.element.objects[part].channels[name]:
            return np.broadcast_to(array, (len(baked.frames), *array.shape[1:]))
    array = one.element.objects[part].channels[name]
    return array[one.layout.rows(k, len(baked.frames))] if len(array) > 1 else np.broadcast_to(array, (len(baked.frames), *array.shape[1:]))


@settings(max_examples=40, deadline=None)
@given(
    st.dictionaries(st.sampled_from(["x", "y", "rotation", "width", "opacity"]), channels(), min_size=1, max_size=4),
    st.lists(st.sampled_from(RULES), unique_by=lambda rule: rule["id"], max_size=3),
    st.sampled_from([0.0, 3.0, 2.5, -4.0, 0.3]),
    st.sampled_from(["first", "last", "middle", "ends", "chance"]),
)
def test_every_copy_is_its_element_baked_alone_at_an_earlier_frame(keyed, rules, delay, order):
    seal = shape("seal", parent="p", rules=rules, **keyed)
    one = scene(seal, parade(settings={"order": order, "seed": 5}, count=4, delay=delay), length=24)
    baked = bake(one)
    rank = ranks(order, np.array([4.0]), 4, 5)[:, 0]
    for k in range(4):
        alone = bake(one, baked.frames - delay * rank[k])
        for name in keyed.keys() | {"y", "rotation"}:
            np.testing.assert_allclose(of_copy(baked, "p", k, "seal", name), alone["Seal", name], rtol=1e-9, atol=1e-9)


def test_a_keyed_delay_reads_at_the_frame_it_has_then():
    seal = shape("seal", parent="p", x=channel((0, 0), (40, 400)))
    one = scene(seal, parade(count=3, delay=channel((0, 0), (20, 10))), length=30)
    baked = bake(one)
    lag = np.minimum(baked.frames / 2, 10)
    np.testing.assert_allclose(of_copy(baked, "p", 2, "seal", "x"), np.clip(10 * (baked.frames - 2 * lag), 0, None), atol=1e-9)


def test_links_and_figures_are_read_earlier_too():
    wheel = shape("wheel", x=channel((0, 0), (40, 400)))
    follows = shape(
        "rider",
        parent="p",
        rules=[{"id": "l", "kind": "link", "channels": ["y"], "settings": {"formula": "{Wheel.x} * 2 + {Rider.rotation}"}}],
        rotation=channel((0, 0), (10, 30)),
    )
    one = scene(wheel, follows, parade(count=3, delay=5), length=30)
    baked = bake(one)
    alone = bake(one, baked.frames - 10)
    np.testing.assert_allclose(of_copy(baked, "p", 2, "rider", "y"), alone["Rider", "y"], atol=1e-9)


def test_formulas_know_which_copy_they_are_for():
    items = {"channel": "item", "values": [5, 7, 9]}
    rule = {"id": "l", "kind": "link", "channels": ["x"], "settings": {"formula": "n * 100 + count * 10 + item"}}
    reader = {"id": "m", "kind": "link", "channels": ["y"], "settings": {"formula": "{Seal.x} + 1"}}
    one = scene(
        shape("seal", parent="p", rules=[rule]), shape("label", parent="p", rules=[reader]), parade(settings={"lists": [items]}, count=3), length=5
    )
    baked = bake(one)
    assert [of_copy(baked, "p", k, "seal", "x")[0] for k in range(3)] == [35, 137, 239]
    # What reads what differs from copy to copy differs as well.
    assert [of_copy(baked, "p", k, "label", "y")[0] for k in range(3)] == [36, 138, 240]


@pytest.mark.parametrize(("fill", "expected"), [("cycle", [1, 2, 1, 2, 1]), ("once", [1, 2, 2, 2, 2]), ("spread", [1, 1.25, 1.5, 1.75, 2])])
def test_lists_shorter_than_the_parade(fill, expected):
    one = scene(
        shape("bar", parent="p", height=100),
        parade(settings={"lists": [{"object": "bar", "channel": "height", "values": [1, 2], "fill": fill, "mode": "multiply"}]}, count=5),
        length=3,
    )
    baked = bake(one)
    np.testing.assert_allclose([of_copy(baked, "p", k, "bar", "height")[0] for k in range(5)], np.array(expected) * 100)


def test_one_copy_alone_is_red():
    one = scene(
        shape("bar", parent="p", fill="#3F8F63"),
        parade(settings={"overrules": [{"copy": 2, "object": "bar", "channel": "fill", "value": "#FF0000"}]}, count=4),
        length=2,
    )
    baked = bake(one)
    assert [of_copy(baked, "p", k, "bar", "fill")[0].round(2).tolist()[0] == 1.0 for k in range(4)] == [False, False, True, False]


def places(one, parade_id="p"):
    return bake(one).parades[parade_id].places.matrices


def test_gaps_of_a_row_lie_between_the_boxes_of_turned_elements():
    one = scene(
        shape("seal", parent="p", type="star", rotation=31, width=90, height=60),
        shape("dot", parent="p", x=70, width=10),
        parade(count=3, gap=17),
        length=2,
    )
    at = places(one)[:, 0]
    drawn = drawables(bake(one))
    boxes = []
    for k in range(3):
        points = []
        for name, drawable in drawn.items():
            world = matrix.multiply(at[k][None], bake(one).parades["p"].element.objects[name].world[:1])
            outline = drawable.outline.outlines[0]
            points.append(Outline(outline.verbs, matrix.apply(world, *outline.points.T)).extent())
        boxes.append((min(box[0] for box in points), max(box[2] for box in points)))
    np.testing.assert_allclose([b[0] - a[1] for a, b in itertools.pairwise(boxes)], 17, atol=1e-6)


def test_extents_are_those_of_the_curves():
    circle = drawing_of(scene(shape("c")).objects[0].shape).draw({"width": 100.0, "height": 100.0})
    turn = np.radians(27)
    turned = Outline(circle.verbs, circle.points @ np.array([[np.cos(turn), np.sin(turn)], [-np.sin(turn), np.cos(turn)]]))
    np.testing.assert_allclose(turned.extent(), [-50, -50, 50, 50], atol=0.02)
    dense = np.concatenate(turned.lines(parts=4000))
    np.testing.assert_allclose(turned.extent(), [*dense.min(axis=0), *dense.max(axis=0)], atol=1e-4)


def test_a_ring_against_its_angles():
    at = places(scene(shape("ant", parent="p"), parade(settings={"arrange": "ring", "turned": True}, count=8, radius=100), length=2))[:, 0]
    angle = np.radians(45 * np.arange(8))
    np.testing.assert_allclose(at[:, 4], 100 * np.sin(angle), atol=1e-9)
    np.testing.assert_allclose(at[:, 5], -100 * np.cos(angle), atol=1e-9)
    np.testing.assert_allclose(at[:, 0], np.cos(angle), atol=1e-9)
    half = places(scene(shape("ant", parent="p"), parade(settings={"arrange": "ring"}, count=3, radius=100, arc=180), length=2))[:, 0]
    np.testing.assert_allclose(half[:, 4:], [[0, -100], [100, 0], [0, 100]], atol=1e-9)


def test_along_an_outline_by_arc_length():
    track = shape("track", type="rectangle", width=200, height=100, x=300, y=50)
    one = scene(track, shape("ant", parent="p"), parade(settings={"arrange": "along", "guide": "track", "turned": True}, count=6), length=2)
    at = places(one)[:, 0]
    # 600 px round: every 100 px from the first corner, the left upper one.
    np.testing.assert_allclose(at[:, 4:], [[200, 0], [300, 0], [400, 0], [400, 100], [300, 100], [200, 100]], atol=1e-6)
    np.testing.assert_allclose(at[1, :4], [1, 0, 0, 1], atol=1e-9)
    corners = places(scene(track, shape("ant", parent="p"), parade(settings={"arrange": "points", "guide": "track"}, count=99), length=2))
    np.testing.assert_allclose(corners[:, 0, 4:], [[200, 0], [400, 0], [400, 100], [200, 100]], atol=1e-9)


@pytest.mark.parametrize(("arrange", "shown"), [("points", 0), ("along", 4)])
def test_a_parade_on_an_outline_that_has_not_begun_to_draw_itself(arrange, shown):
    """At its points there are none; along it all lie together."""
    drawing = {"id": "d", "kind": "draw-on", "channels": ["outline"], "settings": {"from": 0.0, "to": 0.0}}
    track = shape("track", type="rectangle", width=200, height=100, rules=[drawing])
    one = scene(track, shape("ant", parent="p"), parade(settings={"arrange": arrange, "guide": "track"}, count=4), length=2)
    assert np.isfinite(places(one)).all()
    assert len(places(one)) == shown


def test_a_nest_closes_its_loop_after_a_whole_period():
    settings = {"arrange": "nest", "geometric": True, "wraps": True, "front": "smallest", "feel": "slow-in"}
    values = {"count": 7, "from_scale": 0.05, "to_scale": 3.0, "shift": channel((0, 0), (48, 7)), "to_rotation": 40, "delay": 0}
    one = scene(shape("ring", parent="p"), parade(settings=settings, **values), length=49)
    at = bake(one).parades["p"].places
    np.testing.assert_allclose(at.matrices[:, 0], at.matrices[:, 48], atol=1e-6)
    # Equal factors from one to the next, where nothing bends them.
    even = bake(
        scene(shape("ring", parent="p"), parade(settings=settings | {"feel": "even"}, count=5, from_scale=0.1, to_scale=1.6, delay=0), length=2)
    )
    sizes = even.parades["p"].places.scale[:, 0]
    np.testing.assert_allclose(sizes[1:] / sizes[:-1], 2.0)
    # The largest lie at the back.
    assert even.parades["p"].order[0].tolist() == [4, 3, 2, 1, 0]


def test_a_feel_goes_straight_on_beyond_the_last_copy():
    one = scene(shape("a", parent="p"), parade(settings={"arrange": "nest"}, count=3, shift=4, to_rotation=30), length=2)
    turned = np.degrees(np.arctan2(*places(one)[:, 0, [1, 0]].T))
    np.testing.assert_allclose(turned, [60, 75, 90], atol=1e-6)


def test_ranks():
    five = np.array([5.0])
    assert ranks("last", five, 5, 0)[:, 0].tolist() == [4, 3, 2, 1, 0]
    assert ranks("middle", five, 5, 0)[:, 0].tolist() == [2, 1, 0, 1, 2]
    assert ranks("ends", five, 5, 0)[:, 0].tolist() == [0, 1, 2, 1, 0]
    assert ranks("middle", np.array([4.0]), 4, 0)[:, 0].tolist() == [1, 0, 0, 1]
    drawn = ranks("chance", np.array([6.0, 4.0]), 6, 9)
    assert sorted(drawn[:, 0]) == [0, 1, 2, 3, 4, 5]
    assert (ranks("chance", np.array([6.0]), 6, 9)[:, 0] == drawn[:, 0]).all()


@given(st.lists(st.sampled_from([0.0, 2.0, 7.0, 2.5, -3.0, 0.125, 1e5]), min_size=1, max_size=6), st.booleans())
def test_laid_out_frames_are_those_each_copy_reads(lags, even):
    grid = np.arange(10.0) + 3 if even else np.array([0.0, 0.5, 4.0])
    layout = laid_out(grid, np.array(lags)[:, None])
    for k, lag in enumerate(lags):
        np.testing.assert_allclose(layout.frames[layout.rows(k, len(grid))], grid - lag, atol=1e-9)
    assert len(layout.frames) <= len(lags) * len(grid)


def test_parades_within_parades_are_delayed_by_both():
    dot = shape("dot", parent="q", x=channel((0, 0), (60, 600)))
    one = scene(
        dot,
        parade("q", parent="p", settings={"arrange": "free"}, count=3, delay=2, spread_y=10),
        parade("p", settings={"arrange": "free"}, count=2, delay=7),
        length=40,
    )
    outer = bake(one).parades["p"]
    inner = outer.element.parades["q"]
    rows = outer.layout.rows(1, 40)
    seen = inner.element.objects["dot"].channels["x"][rows + inner.layout.offsets[2]]
    np.testing.assert_allclose(seen, np.clip(10 * (np.arange(40) - 7 - 4), 0, None), atol=1e-9)


def test_letters_stand_where_the_text_was_typeset():
    title = {"id": "t", "name": "Title", "kind": "shape", "parent": "p", "shape": {"type": "text", "text": "Toucan"}, "channels": {"text.size": 50}}
    one = scene(title, parade(settings={"arrange": "letters"}, delay=0, x=300, y=200), length=2)
    moved = scene(title | {"parent": None, "channels": {"text.size": 50, "x": 300, "y": 200}}, length=2)
    np.testing.assert_allclose(Painter(bake(one)).frame(0).astype(int), Painter(bake(moved)).frame(0).astype(int), atol=40)
    assert bake(one).parades["p"].count == 6


def test_made_of_one_thing_the_first_copy_is_where_that_was():
    seal = shape("seal", x=channel((0, 100), (20, 300)), y=50, rotation=20)
    plain = scene(seal, length=30)
    made = apply_all(
        plain, [MakeParade(edit="make-parade", id="p", name="Row", parts=("seal",), frame=10.0, values={"count": 4, "delay": 3, "gap": 5})]
    )
    baked = bake(made)
    world = matrix.multiply(
        baked.objects["p"].world,
        matrix.multiply(
            baked.parades["p"].places.matrices[0], baked.parades["p"].element.objects["seal"].world[baked.parades["p"].layout.rows(0, 30)]
        ),
    )
    np.testing.assert_allclose(world, bake(plain).named("Seal").world, atol=1e-9)


@pytest.mark.parametrize(
    "settings",
    [
        {"arrange": "row"},
        {"arrange": "ring", "turned": True, "order": "last", "front": "first"},
        {"arrange": "free", "lists": [{"object": "seal", "channel": "fill", "values": ["#D0365B", "#3F8F63"]}]},
    ],
)
def test_taken_apart_it_looks_the_same(settings):
    seal = shape("seal", parent="g", x=channel((0, 0), (12, 40)), fill="#F2932B", stroke_width=0, rules=RULES[:1])
    group = {
        "id": "g",
        "name": "Group",
        "kind": "group",
        "parent": "p",
        "channels": {"rotation": channel((0, 0), (20, 50)).model_dump(by_alias=True)},
    }
    one = scene(seal, group, parade(settings=settings, count=4, delay=2.5, x=200, y=200, to_scale=0.5, radius=90), length=24, size=[400, 400])
    apart = apply_all(one, [TakeApart(edit="take-apart", id="p", frame=0.0)])
    assert not any(thing.kind == "parade" for thing in apart.objects)
    before, after = Painter(bake(one)), Painter(bake(apart))
    for frame in (0, 7, 16, 23):
        far = np.abs(before.frame(frame).astype(int) - after.frame(frame).astype(int)).max(axis=-1)
        assert (far > 24).mean() < 0.001, f"frame {frame}"


def test_a_change_of_the_gap_leaves_the_element_as_it_was():
    one = scene(shape("seal", parent="p", **MOVES), parade(count=5, delay=4), length=24)
    before = bake(one)
    wider = scene(shape("seal", parent="p", **MOVES), parade(count=5, delay=4, gap=60), length=24)
    changed = one.with_object(wider.by_id["p"])
    after = bake(changed, previous=before)
    assert after.parades["p"].element is before.parades["p"].element
    fresh = bake(changed)
    np.testing.assert_array_equal(after.parades["p"].places.matrices, fresh.parades["p"].places.matrices)
    assert bake(changed, previous=after).parades["p"] is after.parades["p"]


@pytest.mark.parametrize(
    "edit",
    [
        DeleteObject(edit="delete-object", id="seal"),
        DeleteObject(edit="delete-object", id="label"),
        OrderObjects(edit="order-objects", objects=("seal",), to="front"),
        ReparentObject(edit="reparent-object", id="seal", parent=None, keep_at=0),
    ],
    ids=lambda edit: f"{edit.edit} {getattr(edit, 'id', '')}",
)
def test_parts_that_go_or_change_their_order_do_so_in_every_copy(edit):
    one = scene(shape("seal", parent="p", **MOVES), shape("label", parent="p", width=12), parade(count=3, delay=2, x=40, y=40), length=16)
    changed = edit.apply(one)
    after, fresh = bake(changed, previous=bake(one)), bake(changed)
    assert list(after.parades["p"].element.objects) == list(fresh.parades["p"].element.objects)
    np.testing.assert_array_equal(Painter(after).frame(9), Painter(fresh).frame(9))


CHANGES = st.one_of(
    st.tuples(
        st.just("p"), st.sampled_from(["gap", "delay", "count", "shift", "to.scale", "x", "to.opacity"]), st.sampled_from([1.0, 2.0, 3.0, 0.5])
    ),
    st.tuples(st.sampled_from(["seal", "label", "g"]), st.sampled_from(["x", "rotation", "opacity", "scale.y"]), st.sampled_from([0.25, 1.0, 40.0])),
    st.tuples(st.just("dial:wind"), st.just("value"), st.sampled_from([0.0, 30.0])),
)


@settings(max_examples=30, deadline=None)
@given(st.lists(CHANGES, min_size=1, max_size=5))
def test_after_any_changes_the_picture_is_that_of_a_fresh_bake(changes):
    rule = {"id": "l", "kind": "link", "channels": ["y"], "settings": {"formula": "n * 5 + {Wind} + {Seal.x}"}}
    lists = [
        {"object": "seal", "channel": "fill", "values": ["#D0365B", "#3F8F63"]},
        {"object": "seal", "channel": "x", "values": [0, 9], "mode": "add"},
    ]
    one = scene(
        shape("seal", parent="g", width=30, height=20, y=channel((0, 0), (10, 30)), rules=RULES[:1]),
        shape("label", parent="g", width=12, height=12, rules=[rule]),
        {"id": "g", "name": "Group", "kind": "group", "parent": "p", "channels": {}},
        parade(settings={"lists": lists, "order": "last"}, count=3, delay=2, x=40, y=40),
        length=16,
        size=[200, 120],
        dials=[{"id": "wind", "name": "Wind", "channel": {"base": 3}}],
    )
    baked = bake(one)
    for owner, name, value in changes:
        one = apply_all(one, [SetValue(edit="set-value", object=owner, channel=name, value=value)])
        baked = bake(one, previous=baked)
    ours, fresh = Painter(baked), Painter(bake(one))
    for frame in (0, 9):
        np.testing.assert_array_equal(ours.frame(frame), fresh.frame(frame))


def test_figures_walk_in_parades_as_they_walk_alone():
    ant = {
        "id": "ant",
        "name": "Ant",
        "kind": "figure",
        "parent": "p",
        "figure": STARTERS["six-legs"].figure.model_dump(mode="json"),
        "channels": {"x": channel((0, 0), (40, 300)).model_dump(by_alias=True)},
        "rules": [{"id": "walk", "kind": "gait", "settings": {}}],
    }
    body = shape("body", parent="ant") | {"bone": "hips"}
    one = scene(ant, body, parade(settings={"arrange": "free"}, count=3, delay=4), length=30)
    baked = bake(one)
    alone = bake(one, baked.frames - 8)
    seen, rows = baked.parades["p"].element.objects, baked.parades["p"].layout.rows(2, 30)
    for bone, world in alone.objects["ant"].bones.items():
        np.testing.assert_allclose(seen["ant"].bones[bone][rows], np.broadcast_to(world, (30, 6)), atol=1e-9, err_msg=bone)
    np.testing.assert_allclose(seen["body"].world[rows], alone.objects["body"].world, atol=1e-9)


def test_lists_reach_into_parades_within():
    words = {"id": "w", "name": "Words", "kind": "shape", "parent": "q", "shape": {"type": "text", "text": "a"}, "channels": {"text.size": 40}}
    lists = [{"object": "dot", "channel": "width", "values": [10, 20]}, {"object": "w", "channel": "text", "values": ["one", "two"]}]
    inner = parade("q", parent="p", settings={"arrange": "free"}, count=2, delay=0)
    one = scene(shape("dot", parent="q"), words, inner, parade("p", settings={"arrange": "free", "lists": lists}, count=2, delay=0), length=2)
    own = bake(one).parades["p"].own
    assert [element.parades["q"].element.objects["dot"].channels["width"][0] for element in own] == [10, 20]
    assert [element.parades["q"].element.objects["w"].source.shape.text for element in own] == ["one", "two"]


def test_more_copies_than_can_be_painted_are_refused():
    inner = parade("q", parent="p", settings={"arrange": "free"}, count=1500)
    with pytest.raises(TooMuchWork, match="'P' would show 1500000 copies; at most 20000"):
        bake(scene(shape("dot", parent="q"), inner, parade("p", settings={"arrange": "free"}, count=1000), length=2))


def test_a_rule_in_a_copy_whose_setting_follows_a_formula_stays_when_another_object_is_edited():
    fog = {"id": "fog", "kind": "recolour", "channels": ["look"], "settings": {"share": {"base": 0.0, "formula": "{Seal.x} / 100"}}}
    mist = shape("mist", parent="p", rules=[fog])
    one = scene(shape("seal", parent="p", x=10), mist, parade(count=3, delay=2), length=12)
    before = bake(one)
    seal = one.by_id["seal"]
    moved = seal.copy_with(channels=seal.channels | {"x": seal.channels["x"].copy_with(base=20.0)})
    after = one.copy_with(objects=tuple(moved if thing is seal else thing for thing in one.objects))
    changed, fresh = bake(after, previous=before).parades["p"].element.objects, bake(after).parades["p"].element.objects
    for name in ("seal", "mist"):
        np.testing.assert_array_equal(changed[name].world, fresh[name].world)
    shares = [found["mist"].look[0].values["share"].tolist() for found in (changed, fresh, before.parades["p"].element.objects)]
    assert shares[0] == shares[1] != shares[2]
