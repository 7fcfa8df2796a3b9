"""Edits of rules and of their settings."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.motion.scenes import channel, scene, shape
from tests.motion.test_timing import do
from vine_swing.motion import EditError, NoSuchThing, bake
from vine_swing.motion.baking.explain import explain
from vine_swing.motion.rules import RULES
from vine_swing.motion.rules.presets import PRESETS
from vine_swing.motion.rules.rule import Rule

SWAY = {"id": "sway", "kind": "oscillator", "channels": ["rotation"], "settings": {"amplitude": 10}}
HELD = {"id": "held", "kind": "steps", "channels": ["rotation"], "settings": {"every": 4}}


@pytest.fixture
def leaf():
    return do(scene(shape("leaf", rotation=channel((0, 0), (40, 90)), x=3), length=48), add(SWAY))


def add(rule, **more):
    return {"edit": "add-rule", "object": "leaf", "rule": rule, **more}


def kinds(one):
    return [rule.kind for rule in one.objects[0].rules]


def test_rules_are_added_ordered_switched_and_removed(leaf):
    two = do(leaf, add(HELD, index=0))
    assert kinds(two) == ["steps", "oscillator"]
    swapped = do(two, {"edit": "move-rule", "object": "leaf", "rule": "held", "index": 1})
    assert kinds(swapped) == ["oscillator", "steps"]
    assert not np.array_equal(bake(two)["Leaf", "rotation"], bake(swapped)["Leaf", "rotation"]), "the order matters"
    off = do(swapped, {"edit": "set-rule", "object": "leaf", "rule": "held", "on": False})
    np.testing.assert_array_equal(bake(off)["Leaf", "rotation"], bake(leaf)["Leaf", "rotation"])
    gone = do(off, {"edit": "delete-rule", "object": "leaf", "rule": "held"})
    assert gone == leaf


def test_what_a_rule_acts_on_and_how(leaf):
    both = do(leaf, {"edit": "set-rule", "object": "leaf", "rule": "sway", "channels": ["rotation", "x"], "mode": "replace"})
    assert np.ptp(bake(both)["Leaf", "x"]) > 10
    keyed = do(both, {"edit": "set-rule", "object": "leaf", "rule": "sway", "channels": "keyed"})
    assert np.ptp(bake(keyed)["Leaf", "x"]) == 0
    for change, says in (({"channels": ["fill"]}, "cannot act on 'fill'"), ({"channels": ["tail"]}, "cannot act on 'tail'")):
        with pytest.raises(EditError, match=says):
            do(leaf, {"edit": "set-rule", "object": "leaf", "rule": "sway", **change})
    with pytest.raises(EditError, match="cannot 'multiply'"):
        do(do(leaf, add(HELD)), {"edit": "set-rule", "object": "leaf", "rule": "held", "mode": "multiply"})
    with pytest.raises(EditError, match="already has a rule"):
        do(leaf, add(SWAY))
    with pytest.raises(NoSuchThing, match="no rule 'gone'"):
        do(leaf, {"edit": "delete-rule", "object": "leaf", "rule": "gone"})


def test_settings_take_words_numbers_and_nothing(leaf):
    def put(name, value, one=leaf):
        return do(one, {"edit": "set-setting", "object": "leaf", "rule": "sway", "setting": name, "value": value})

    square = put("wave", "square")
    assert square.objects[0].rules[0].settings["wave"] == "square"
    assert put("half_life", 0.5).objects[0].rules[0].settings["half_life"].base == 0.5
    assert put("amplitude", None, put("amplitude", 3.0)).objects[0].rules[0].settings == {}
    for name, value, says in (
        ("wave", "wobbly", "it can be"),
        ("wave", 3.0, "it can be"),
        ("frequency", 1e6, "between"),
        ("size", 1.0, "no setting"),
    ):
        with pytest.raises(EditError, match=says):
            put(name, value)


def test_every_edit_of_keys_works_on_settings(leaf):
    at = {"object": "leaf", "channel": "sway:amplitude"}
    keyed = do(
        leaf,
        {"edit": "set-key", **at, "frame": 0},
        {"edit": "set-key", **at, "frame": 20, "value": 0.0},
        {"edit": "set-ease", **at, "frames": [0], "ease": "slow-in"},
        {"edit": "move-keys", **at, "frames": [20], "by": 10},
        {"edit": "stretch-keys", "keys": [{**at, "frames": [0, 30]}], "about": 0.0, "factor": 1.2},
        {"edit": "set-ends", **at, "after": {"mode": "ping-pong"}},
    )
    setting = keyed.objects[0].rules[0].settings["amplitude"]
    assert [(key.frame, key.value, key.ease) for key in setting.keys] == [(0, 10, "slow-in"), (36, 0, "linear")]
    assert setting.after.mode == "ping-pong"
    assert bake(keyed)["Leaf", "rotation"][36] == pytest.approx(81)
    keys, ends, result = explain(keyed, "leaf", "sway:amplitude")
    assert keys.values[40] == 0
    assert ends.values[36 + 9] == pytest.approx(result.values[36 - 9])
    assert result.values[27] > 0
    with pytest.raises(NoSuchThing, match="no setting 'sway:wave'"):
        explain(keyed, "leaf", "sway:wave")
    with pytest.raises(EditError, match="has keys"):
        do(keyed, {"edit": "set-setting", "object": "leaf", "rule": "sway", "setting": "amplitude", "value": 4.0})
    with pytest.raises(EditError, match="must be between"):
        do(leaf, {"edit": "set-key", "object": "leaf", "channel": "sway:frequency", "frame": 0, "value": 1e6})
    with pytest.raises(EditError, match="is a word and cannot have keys"):
        do(leaf, {"edit": "set-key", "object": "leaf", "channel": "sway:wave", "frame": 0, "value": 1.0})
    with pytest.raises(NoSuchThing, match="no setting 'size'"):
        do(leaf, {"edit": "set-key", "object": "leaf", "channel": "sway:size", "frame": 0, "value": 1.0})


@settings(deadline=None, max_examples=25)
@given(st.sampled_from([0.05, 0.5, 5.0]), st.sampled_from(["oscillator", "noise", "spring", "retime", "steps"]))
def test_freezing_keeps_the_motion_within_its_tolerance(tolerance, kind):
    one = scene(
        shape("leaf", rotation=channel((0, 0, "slow-out-in"), (40, 90)), rules=[{"id": "r", "kind": kind, "channels": ["rotation", "x"]}]), length=48
    )
    frozen = do(one, {"edit": "freeze-channel", "object": "leaf", "channel": "rotation", "tolerance": tolerance})
    far = np.abs(bake(frozen)["Leaf", "rotation"] - bake(one)["Leaf", "rotation"])
    assert far.max() <= tolerance + 1e-6
    assert frozen.objects[0].rules[0].channels == ("x",), "other channels keep the rule"
    assert not frozen.objects[0].rules_for("rotation")
    with pytest.raises(EditError, match="nothing was frozen"):
        do(frozen, {"edit": "freeze-channel", "object": "leaf", "channel": "rotation"})


def test_a_look_has_no_values_that_could_be_frozen():
    one = scene(shape("leaf", rules=[{"id": "r", "kind": "shadow", "channels": ["look"]}]))
    with pytest.raises(EditError, match="freeze the settings of its rules instead"):
        do(one, {"edit": "freeze-channel", "object": "leaf", "channel": "look"})


@pytest.mark.parametrize("preset", PRESETS, ids=lambda preset: preset.name)
def test_presets_fit_their_rules(preset):
    Rule(id="p", kind=preset.kind, settings=preset.settings)
    assert preset.kind in RULES
