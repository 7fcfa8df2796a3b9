"""Dials: their range, what reads them, colours they tint, and edits of them."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter

from tests.motion.scenes import channel, scene, shape
from vine_swing.motion import EditError, NoSuchThing, SceneFileError, bake
from vine_swing.motion.baking.explain import explain
from vine_swing.motion.basics import colour
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.scene.graph import drives

EDITS: TypeAdapter[list[AnyEdit]] = TypeAdapter(list[AnyEdit])
WIND = {"id": "wind", "name": "Wind", "low": 0.0, "high": 2.0, "channel": {"base": 0.5}}
DUSK = {"id": "dusk", "name": "Dusk", "channel": {"base": "#F6D58A"}}


def sway(amplitude, **more):
    return {"id": "sway", "kind": "noise", "channels": ["rotation"], "settings": {"amplitude": amplitude, "frequency": 1.0, "seed": 3.0} | more}


def leaf(amplitude, **more):
    return shape("leaf", name="Leaf", rules=[sway(amplitude, **more)])


def do(one, *edits):
    return apply_all(one, EDITS.validate_python(list(edits)))


def test_a_setting_takes_a_dial():
    linked = bake(scene(leaf({"base": 8.0, "formula": "value * {Wind} / 0.5"}), dials=[WIND], length=96))
    plain = bake(scene(leaf(8.0), length=96))
    np.testing.assert_allclose(linked["Leaf", "rotation"], plain["Leaf", "rotation"], atol=1e-12)
    strong = bake(scene(leaf({"base": 8.0, "formula": "value * {Wind} / 0.5"}), dials=[WIND | {"channel": {"base": 1.0}}], length=96))
    np.testing.assert_allclose(strong["Leaf", "rotation"], 2 * plain["Leaf", "rotation"], atol=1e-12)


def test_a_linked_setting_is_a_curve_like_any_other():
    gust = WIND | {"channel": channel((0, 0.0), (48, 2.0)).model_dump(by_alias=True)}
    one = scene(leaf({"keys": [{"frame": 0, "value": 0.0}, {"frame": 96, "value": 96.0}], "formula": "value + {Wind}"}), dials=[gust], length=97)
    t = np.arange(97.0)
    expected = t + np.minimum(t / 24, 2.0)
    np.testing.assert_allclose(bake(one).objects["leaf"].channels["sway:amplitude"], expected, atol=1e-12)
    steps = explain(one, "leaf", "sway:amplitude")
    assert [step.kind for step in steps] == ["keys", "ends", "formula", "result"]
    np.testing.assert_allclose(steps[-1].values, expected, atol=1e-12)
    np.testing.assert_allclose(steps[1].values, t)


def test_settings_keep_within_what_their_rule_takes():
    backwards = bake(scene(leaf(8.0, frequency={"base": 1.0, "formula": "-5 * {Wind}"}), dials=[WIND], length=24))
    assert np.ptp(backwards["Leaf", "rotation"]) == 0, "a frequency below 0 is read as 0"
    time = scene(leaf({"base": 8.0, "formula": "f / 2"}), length=24)
    np.testing.assert_allclose(bake(time).objects["leaf"].channels["sway:amplitude"], np.arange(24) / 2)


def test_a_turned_dial_reaches_settings_and_only_those():
    one = scene(leaf({"base": 8.0, "formula": "value * {Wind}"}), shape("stone", x=3.0, rules=[sway(4.0)]), dials=[WIND, DUSK], length=48)
    first = bake(one)
    turned = do(one, {"edit": "set-key", "object": "dial:wind", "channel": "value", "frame": 12, "value": 1.5})
    second = bake(turned, previous=first)
    np.testing.assert_array_equal(second["Leaf", "rotation"], bake(turned)["Leaf", "rotation"])
    assert not np.array_equal(second["Leaf", "rotation"], first["Leaf", "rotation"])
    assert second.objects["stone"] is first.objects["stone"]
    assert second.dials["dusk"] is first.dials["dusk"]


def test_dials_are_keyed_with_every_edit_of_keys():
    one = scene(dials=[WIND], length=48)
    keyed = do(
        one,
        {"edit": "set-key", "object": "dial:wind", "channel": "value", "frame": 0, "value": 0.0},
        {"edit": "set-key", "object": "dial:wind", "channel": "value", "frame": 24, "value": 2.0},
        {"edit": "set-ease", "object": "dial:wind", "channel": "value", "frames": [0], "ease": "slow-out-in"},
        {"edit": "set-ends", "object": "dial:wind", "channel": "value", "after": {"mode": "ping-pong"}},
        {"edit": "move-keys", "object": "dial:wind", "channel": "value", "frames": [24], "by": 6},
    )
    values = bake(keyed).dials["wind"]
    assert (values[0], values[30]) == (0, 2)
    assert values[45] == pytest.approx(values[15])
    with pytest.raises(EditError, match="range is 0 to 2"):
        do(keyed, {"edit": "set-key", "object": "dial:wind", "channel": "value", "frame": 3, "value": 5.0})
    with pytest.raises(NoSuchThing, match="no dial 'rain'"):
        do(keyed, {"edit": "set-value", "object": "dial:rain", "channel": "value", "value": 1.0})
    with pytest.raises(EditError, match="must be a number"):
        do(keyed, {"edit": "set-key", "object": "dial:wind", "channel": "value", "frame": 3, "value": "#FFFFFF"})


def test_eases_that_leave_the_range_are_cut_off():
    over = WIND | {"channel": channel((0, 0.0, {"bezier": [0.3, -2, 0.7, 3]}), (24, 2.0)).model_dump(by_alias=True)}
    values = bake(scene(dials=[over], length=25), np.linspace(0, 24, 200)).dials["wind"]
    assert (values.min(), values.max()) == (0, 2)


@pytest.mark.parametrize(
    ("dial", "match"),
    [
        ({"low": 2.0, "high": 1.0}, "lower limit must lie below"),
        ({"channel": {"base": 7.0}}, "range is 0 to 2"),
        ({"channel": {"base": [1, 2]}}, "a number or a colour"),
        ({"channel": {"base": 1.0, "formula": "f"}}, "formula"),
    ],
)
def test_bad_dials_are_refused(dial, match):
    with pytest.raises(SceneFileError, match=match):
        scene(dials=[WIND | dial])


def test_formulas_stand_in_link_rules_and_settings_only():
    with pytest.raises(SceneFileError, match="link rule"):
        scene(shape("a", x=channel((0, 1)).copy_with(formula="f")))
    with pytest.raises(SceneFileError, match="did you mean sin"):
        scene(leaf({"base": 1.0, "formula": "sni(f)"}))


def test_renaming_a_dial_keeps_formulas_true():
    link = {"id": "l", "kind": "link", "channels": ["x"], "mode": "replace", "settings": {"formula": "{Wind @ -3f} * 2 + {Windmill.x}"}}
    one = scene(leaf({"base": 8.0, "formula": "value * {Wind}"}), shape("mill", name="Windmill"), shape("bee", rules=[link]), dials=[WIND], length=24)
    renamed = do(one, {"edit": "set-dial", "id": "wind", "name": "Breeze"})
    assert renamed.by_id["leaf"].rules[0].settings["amplitude"].formula == "value * {Breeze}"
    assert renamed.by_id["bee"].rules[0].settings["formula"] == "{Breeze @ -3f} * 2 + {Windmill.x}"
    np.testing.assert_array_equal(bake(renamed)["Leaf", "rotation"], bake(one)["Leaf", "rotation"])
    assert renamed.by_id["mill"] is one.by_id["mill"]
    with pytest.raises(EditError, match="already is a dial"):
        do(do(one, {"edit": "add-dial", "dial": DUSK}), {"edit": "set-dial", "id": "dusk", "name": "Wind"})


def test_a_dial_has_a_name_of_its_own_and_a_range_that_holds_what_it_has():
    one = do(scene(dials=[WIND]), {"edit": "add-dial", "dial": WIND | {"id": "w2"}})
    assert [dial.name for dial in one.dials] == ["Wind", "Wind 2"]
    with pytest.raises(EditError, match="range is 1 or more"):
        do(one, {"edit": "set-dial", "id": "wind", "low": 1.0, "high": None})
    free = do(one, {"edit": "set-dial", "id": "wind", "low": None, "unit": "%"})
    assert (free.dials[0].low, free.dials[0].high, free.dials[0].unit) == (None, 2.0, "%")


def test_what_reads_a_dial_that_is_deleted_stays_as_it_was_without():
    one = scene(leaf({"base": 8.0, "formula": "value * {Wind}"}), dials=[WIND], length=24)
    without = do(one, {"edit": "delete-dial", "id": "wind"})
    np.testing.assert_array_equal(bake(without, previous=bake(one))["Leaf", "rotation"], bake(scene(leaf(8.0), length=24))["Leaf", "rotation"])
    frozen = do(
        one, {"edit": "freeze-channel", "object": "leaf", "channel": "sway:amplitude", "tolerance": 0.01}, {"edit": "delete-dial", "id": "wind"}
    )
    np.testing.assert_allclose(bake(frozen)["Leaf", "rotation"], bake(one)["Leaf", "rotation"], atol=0.02)


def test_linking_a_setting_is_checked():
    one = scene(leaf(8.0), dials=[WIND, DUSK], length=24)
    linked = do(one, {"edit": "link-setting", "object": "leaf", "rule": "sway", "setting": "amplitude", "formula": "value * {Wind}"})
    assert linked.by_id["leaf"].rules[0].settings["amplitude"].base == 8
    assert (
        do(linked, {"edit": "set-setting", "object": "leaf", "rule": "sway", "setting": "amplitude", "value": 2.0})
        .by_id["leaf"]
        .rules[0]
        .settings["amplitude"]
        .formula
    ), "a plain value typed leaves the formula"
    assert do(linked, {"edit": "link-setting", "object": "leaf", "rule": "sway", "setting": "amplitude", "formula": None}) == do(
        one, {"edit": "set-setting", "object": "leaf", "rule": "sway", "setting": "amplitude", "value": 8.0}
    )
    for formula, match in (("{Wnid}", "did you mean 'Wind'"), ("{Dusk}", "there is no 'Dusk'"), ("{Leaf.rotation}", "ring"), ("1 +", "character")):
        with pytest.raises((EditError, SceneFileError, Exception), match=match):
            do(one, {"edit": "link-setting", "object": "leaf", "rule": "sway", "setting": "amplitude", "formula": formula})


# -- colours


def tinted(share=1.0, neutral="", fill="#3F8F63", **dial):
    rule = {"id": "t", "kind": "tint", "channels": ["fill"], "settings": {"dial": "dusk", "share": share, "neutral": neutral}}
    return scene(shape("leaf", name="Leaf", fill=fill, rules=[rule]), dials=[DUSK | dial], length=24)


hexes = st.integers(0, 0xFFFFFF).map(lambda n: f"#{n:06X}")


@given(hexes, hexes, st.floats(0, 1))
@settings(max_examples=40, deadline=None)
def test_a_tint_mixes_in_oklab(own, dial, share):
    found = bake(tinted(share, fill=own, channel={"base": dial}))["Leaf", "fill"][0]
    a, b = (colour.to_oklab(colour.parse_hex(one)) for one in (own, dial))
    np.testing.assert_allclose(found, colour.from_oklab(a + (b - a) * share), atol=1e-6)


@given(hexes, hexes, st.floats(0, 1))
@settings(max_examples=40, deadline=None)
def test_with_its_neutral_colour_a_tint_changes_nothing(own, dial, share):
    found = bake(tinted(share, neutral=dial, fill=own, channel={"base": dial}))["Leaf", "fill"][0]
    np.testing.assert_allclose(found, colour.parse_hex(own), atol=2e-4)


def test_a_tint_follows_its_dial_and_keeps_how_see_through_things_are():
    night = channel((0, "#F6D58A"), (23, "#1B2240")).model_dump(by_alias=True)
    one = tinted(fill="#3F8F6380", channel=night)
    first = bake(one)
    np.testing.assert_allclose(first["Leaf", "fill"][23], [*colour.parse_hex("#1B2240")[:3], 0x80 / 255], atol=1e-6)
    dawn = do(one, {"edit": "set-key", "object": "dial:dusk", "channel": "value", "frame": 23, "value": "#FFFFFF"})
    second = bake(dawn, previous=first)
    np.testing.assert_allclose(second["Leaf", "fill"][23][:3], 1, atol=1e-6)
    steps = explain(one, "leaf", "fill")
    assert [step.kind for step in steps] == ["keys", "ends", "tint", "result"]
    assert steps[2].values.shape == (24, 4)


def test_a_tint_says_what_is_missing():
    gone = do(tinted(), {"edit": "delete-dial", "id": "dusk"})
    assert "gone" in (explain(gone, "leaf", "fill")[2].remark or "")
    np.testing.assert_allclose(bake(gone)["Leaf", "fill"][0], colour.parse_hex("#3F8F63"))
    numbers = tinted(channel={"base": 1.0})
    assert "numbers" in (explain(numbers, "leaf", "fill")[2].remark or "")
    assert np.isfinite(bake(numbers)["Leaf", "fill"]).all()
    with pytest.raises(SceneFileError, match="acts on 'x'"):
        scene(shape("a", rules=[{"id": "t", "kind": "tint", "channels": ["x"]}]))
    with pytest.raises(SceneFileError, match="must be a colour"):
        tinted(neutral="dusky")


def test_tints_freeze_to_keys():
    night = channel((0, "#F6D58A", "slow-out-in"), (23, "#1B2240")).model_dump(by_alias=True)
    one = tinted(0.6, channel=night)
    frozen = do(one, {"edit": "freeze-channel", "object": "leaf", "channel": "fill", "tolerance": 0.01})
    assert not frozen.by_id["leaf"].rules
    assert len(frozen.by_id["leaf"].channels["fill"].keys) < 20
    np.testing.assert_allclose(bake(frozen)["Leaf", "fill"], bake(one)["Leaf", "fill"], atol=0.015)


def test_who_drives_whom():
    link = {"id": "l", "kind": "link", "channels": ["x", "y"], "mode": "replace", "settings": {"formula": "{Leaf.rotation} + {Wind}"}}
    tint = {"id": "t", "kind": "tint", "channels": ["fill"], "settings": {"dial": "dusk"}}
    roll = {"id": "r", "kind": "roll", "channels": ["rotation"], "settings": {"radius": 10.0}}
    off = link | {"id": "o", "on": False}
    bee = shape("bee", rules=[link, tint, roll, off])
    found = drives(scene(leaf({"base": 1.0, "formula": "{Wind}"}), bee, dials=[WIND, DUSK]))
    told = {(d.driver, d.driven, d.kind, d.setting) for d in found}
    assert told == {
        (("dial:wind", "value"), ("leaf", "rotation"), "noise", "amplitude"),
        (("leaf", "rotation"), ("bee", "x"), "link", None),
        (("leaf", "rotation"), ("bee", "y"), "link", None),
        (("dial:wind", "value"), ("bee", "x"), "link", None),
        (("dial:wind", "value"), ("bee", "y"), "link", None),
        (("dial:dusk", "value"), ("bee", "fill"), "tint", None),
    }
