"""Links: channels computed from formulas over other channels and dials."""

import time

import numpy as np
import pytest
from pydantic import TypeAdapter

from tests.motion.scenes import channel, scene, shape
from vine_swing.motion import SceneFileError, bake
from vine_swing.motion.baking.explain import explain
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.scene.graph import followers_of, in_order

EDITS: TypeAdapter[list[AnyEdit]] = TypeAdapter(list[AnyEdit])
T = np.arange(0, 48, 0.5)
TURN = channel((0, 0), (24, 360), after="climb")


def link(formula, channels=("rotation",), mode="replace", id="l"):
    return {"id": id, "kind": "link", "channels": list(channels), "mode": mode, "settings": {"formula": formula}}


def geared(formula, t=T, dials=(), **rest):
    wheel = shape("wheel", name="Mill wheel", rotation=TURN)
    return bake(scene(shape("gear", name="Gear", rules=[link(formula, **rest)]), wheel, dials=list(dials)), t)


def test_two_gears_mesh_exactly():
    one = geared("-{Mill wheel.rotation} * 24 / 12")
    np.testing.assert_allclose(one["Gear", "rotation"], -2 * one["Mill wheel", "rotation"], atol=1e-9)


@pytest.mark.parametrize(("offset", "frames"), [("-6f", -6), ("-0.25s", -6), ("3.5f", 3.5)])
def test_what_was_earlier_is_read_exactly(offset, frames):
    one = geared(f"{{Mill wheel.rotation @ {offset}}}")
    np.testing.assert_allclose(one["Gear", "rotation"], bake(scene(shape("w", name="W", rotation=TURN)), T + frames)["W", "rotation"], atol=1e-9)


def test_dials_are_read_keyed_or_not():
    wind = {"id": "wind", "name": "Wind", "channel": channel((0, 0), (48, 1)).model_dump(by_alias=True)}
    calm = {"id": "calm", "name": "Calm", "channel": {"base": 3.0}}
    one = geared("{Wind} * 40 + {Calm}", dials=[wind, calm])
    np.testing.assert_allclose(one["Gear", "rotation"], T / 48 * 40 + 3, atol=1e-9)


def test_it_replaces_adds_or_multiplies():
    np.testing.assert_allclose(geared("value + f")["Gear", "rotation"], T)
    wheel = shape("w", name="W", x=7.0, rules=[link("f", ["x"], "add")])
    np.testing.assert_allclose(bake(scene(wheel), T)["W", "x"], 7 + T)
    np.testing.assert_allclose(bake(scene(wheel | {"rules": [link("f", ["x"], "multiply")]}), T)["W", "x"], 7 * T)


def test_where_there_is_no_answer_the_card_before_stays():
    wheel = shape("w", name="W", x=7.0, rules=[link("10 / (f - 4)", ["x"])])
    found = bake(scene(wheel), np.array([3.0, 4.0, 6.0]))["W", "x"]
    assert found.tolist() == [-10, 7, 5]
    assert geared("{Nobody.x} + 1")["Gear", "rotation"][0] == 0


def test_rings_of_links_are_refused_with_their_chain():
    a = shape("a", name="Ant", rules=[link("{Bee.rotation}")])
    b = shape("b", name="Bee", rules=[link("{Cat.x}")])
    c = shape("c", name="Cat", rules=[link("{Ant.rotation} / 2", ["x"])])
    with pytest.raises(SceneFileError, match="ring: .*Ant.rotation.*") as caught:
        scene(a, b, c)
    assert all(name in str(caught.value) for name in ("Ant.rotation", "Bee.rotation", "Cat.x"))
    with pytest.raises(SceneFileError, match="did you mean sin"):
        scene(shape("a", rules=[link("sni(f)")]))


def test_an_edit_reaches_what_reads_it_and_nothing_else():
    things = [shape("gear", name="Gear", rules=[link("{Mill wheel.rotation} * 2")]), shape("stone", rules=[link("f")])]
    one = scene(*things, shape("wheel", name="Mill wheel", rotation=TURN), length=48)
    assert next(iter(in_order(one))) in (("gear", "rotation"), ("stone", "rotation"))
    assert followers_of(one, [("wheel", "rotation")]) == {("wheel", "rotation"), ("gear", "rotation")}
    first = bake(one)
    turned = one.copy_with(objects=tuple(t.copy_with(channels={"rotation": channel((0, 0), (9, 90))}) if t.id == "wheel" else t for t in one.objects))
    second = bake(turned, previous=first)
    np.testing.assert_array_equal(second["Gear", "rotation"], bake(turned)["Gear", "rotation"])
    assert second.objects["stone"] is first.objects["stone"]
    renamed = one.copy_with(objects=tuple(t.copy_with(name="Great wheel") if t.id == "wheel" else t for t in one.objects))
    assert (bake(renamed, previous=first)["Gear", "rotation"] == 0).all(), "the name is of nothing now"


def test_a_turned_dial_reaches_its_readers():
    dials = [{"id": "wind", "name": "Wind", "channel": {"base": 1.0}}]
    one = scene(shape("leaf", name="Leaf", rules=[link("{Wind} * 5")]), dials=dials, length=24)
    first = bake(one)
    stronger = one.copy_with(dials=tuple(d.copy_with(channel=d.channel.copy_with(base=3.0)) for d in one.dials))
    assert bake(stronger, previous=first)["Leaf", "rotation"][0] == 15
    assert bake(one.copy_with(name="Other"), previous=first).objects["leaf"] is first.objects["leaf"]


def test_a_long_chain_of_links_is_quick():
    links = [shape(f"l{n}", name=f"L{n}", rules=[link(f"{{L{n - 1}.rotation}} + 1")]) for n in range(1, 501)]
    one = scene(*reversed(links), shape("l0", name="L0", rotation=TURN), length=240)
    found = bake(one)
    np.testing.assert_allclose(found["L500", "rotation"], found["L0", "rotation"] + 500, atol=1e-6)
    times = []
    for _ in range(3):
        begun = time.perf_counter()
        bake(one)
        times.append(time.perf_counter() - begun)
    assert min(times) < 2, "what is known on the grid is not worked out again for every reader"


def mill():
    return scene(shape("gear", name="Gear", rules=[link("-{Mill wheel.rotation} * 2")]), shape("wheel", name="Mill wheel", rotation=TURN), length=24)


def do(one, **edit):
    return apply_all(one, EDITS.validate_python([edit]))


def formula(one, thing="gear"):
    return one.by_id[thing].rules[0].settings["formula"]


def test_renaming_keeps_formulas_true():
    one = mill()
    renamed = do(one, edit="rename-object", id="wheel", name="Great wheel")
    assert formula(renamed) == "-{Great wheel.rotation} * 2"
    np.testing.assert_array_equal(bake(renamed, previous=bake(one))["Gear", "rotation"], bake(one)["Gear", "rotation"])


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("{Mill whee.rotation}", "at character 2: there is no 'Mill whee.rotation' in this scene; did you mean 'Mill wheel'?"),
        ("{Mill wheel.rotatoin}", "at character 13: 'Mill wheel' has no channel 'rotatoin'; did you mean 'rotation'?"),
        ("2 * (f + 1", "at character 11: the formula ends too early"),
        ("{Gear.rotation}", "read each other in a ring: Gear.rotation"),
        ("f" * 3000, "2000"),
    ],
)
def test_a_formula_with_a_mistake_is_refused_where_it_is(text, says):
    with pytest.raises(ValueError, match="(?s).*") as caught:
        do(mill(), edit="set-setting", object="gear", rule="l", setting="formula", value=text)
    assert says in str(caught.value)
    assert formula(do(mill(), edit="set-setting", object="gear", rule="l", setting="formula", value="{Mill wheel.x @ -2f}")) == "{Mill wheel.x @ -2f}"


def test_a_card_says_what_keeps_it_from_its_work():
    def remark(text):
        return explain(scene(shape("w", name="W", x=7.0, rules=[link(text, ["x"])])), "w", "x")[2].remark

    assert remark("10 / (f - 4)") == "dividing by 0 has no answer at frame 4; there the value of the card before stays"
    assert remark("{Nobody.x} + 1") == "there is no 'Nobody.x' any more; the value of the card before stays"
    assert remark("f + 1") is None
    tail = shape("t", name="T", rules=[{"id": "f", "kind": "follow", "channels": ["x"], "settings": {"leader": "gone"}}])
    assert explain(scene(tail), "t", "x")[2].remark == "its leader is gone: choose another one"
