"""Links made by hand: the formula they begin with does what was asked for, and does not make the picture jump."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter, ValidationError

from tests.motion.scenes import channel, scene, shape
from vine_swing.motion import EditError, NoSuchThing, bake
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.edits.linking import formula_by_hand
from vine_swing.motion.formula.by_hand import ByHand, number

EDITS: TypeAdapter[list[AnyEdit]] = TypeAdapter(list[AnyEdit])
HOW: TypeAdapter[ByHand] = TypeAdapter(ByHand)
TURN = channel((0, 30), (48, 390))
T = np.arange(0, 49, 0.5)
WIND = {"id": "wind", "name": "Wind", "channel": {"base": 0.4}}


def mill(gear=20.0):
    rules = [{"id": "n", "kind": "noise", "channels": ["y"], "settings": {"amplitude": 6.0, "frequency": 1.0}}]
    return scene(shape("gear", name="Gear", rotation=gear, rules=rules), shape("wheel", name="Mill wheel", rotation=TURN), dials=[WIND], length=49)


def linked(how, *, keep_at=None, one=None, driver=("wheel", "rotation"), driven=("gear", "rotation")):
    """The scene after a link by hand, and its formula."""
    one = one or mill()
    text = formula_by_hand(one, driver, driven, HOW.validate_python(how), keep_at)
    rule = {"id": "l", "kind": "link", "channels": [driven[1]], "mode": "replace", "settings": {"formula": text}}
    return apply_all(one, EDITS.validate_python([{"edit": "add-rule", "object": driven[0], "rule": rule}])), text


WHEEL = bake(mill(), T)["Mill wheel", "rotation"]


@pytest.mark.parametrize(
    ("how", "text", "expected"),
    [
        ({"how": "same"}, "{Mill wheel.rotation}", WHEEL),
        ({"how": "times", "factor": -0.5}, "{Mill wheel.rotation} * -0.5", WHEEL * -0.5),
        ({"how": "geared", "driver_size": 24.0, "own_size": 9.0}, "{Mill wheel.rotation} * -24 / 9", WHEEL * -24 / 9),
        ({"how": "geared", "driver_size": 24.0, "own_size": 9.0, "same_way": True}, "{Mill wheel.rotation} * 24 / 9", WHEEL * 24 / 9),
        ({"how": "mirrored"}, "-{Mill wheel.rotation}", -WHEEL),
        ({"how": "mirrored", "about": 90.0}, "180 - {Mill wheel.rotation}", 180 - WHEEL),
        (
            {"how": "remapped", "low": 90.0, "high": 270.0, "to_low": 10.0, "to_high": -2.0},
            "mix(10, -2, clamp(({Mill wheel.rotation} - 90) / 180, 0, 1))",
            np.interp(WHEEL, [90, 270], [10, -2]),
        ),
        (
            {"how": "remapped", "low": 0.0, "high": -90.0, "to_low": 0.0, "to_high": 1.0, "go_on": True},
            "mix(0, 1, {Mill wheel.rotation} / (-90))",
            WHEEL / -90,
        ),
        ({"how": "later", "frames": 6.0}, "{Mill wheel.rotation @ -6f}", np.interp(T - 6, T, WHEEL)),
        ({"how": "later", "frames": -2.5}, "{Mill wheel.rotation @ +2.5f}", np.interp(T + 2.5, T, WHEEL)),
        ({"how": "later", "frames": 0.0}, "{Mill wheel.rotation}", WHEEL),
        (
            {"how": "envelope", "low": -30.0, "high": 330.0},
            "value * clamp(({Mill wheel.rotation} + 30) / 360, 0, 1)",
            20 * np.clip((WHEEL + 30) / 360, 0, 1),
        ),
        ({"how": "scaled"}, "value * {Mill wheel.rotation}", 20 * WHEEL),
        ({"how": "added", "factor": 2.0}, "value + {Mill wheel.rotation} * 2", 20 + 2 * WHEEL),
    ],
)
def test_each_way_does_what_it_says(how, text, expected):
    one, formula = linked(how)
    assert formula == text
    np.testing.assert_allclose(bake(one, T)["Gear", "rotation"], expected, atol=1e-9)


@settings(max_examples=40, deadline=None)
@given(
    how=st.one_of(
        st.just({"how": "same"}),
        st.builds(lambda f: {"how": "times", "factor": f}, st.floats(-5, 5)),
        st.builds(lambda a, b: {"how": "geared", "driver_size": a, "own_size": b}, st.floats(1, 60), st.floats(1, 60)),
        st.builds(lambda a: {"how": "mirrored", "about": a}, st.floats(-100, 100)),
        st.builds(lambda a, b: {"how": "remapped", "low": a, "high": a + 10, "to_low": b, "to_high": b + 7}, st.floats(-50, 50), st.floats(-50, 50)),
        st.builds(lambda n: {"how": "later", "frames": n}, st.floats(-20, 20)),
        st.just({"how": "scaled"}),
        st.builds(lambda f: {"how": "added", "factor": f}, st.floats(-5, 5)),
    ),
    frame=st.integers(0, 48),
)
def test_the_picture_does_not_jump_where_it_is_put_on(how, frame):
    one, _ = linked(how, keep_at=float(frame))
    assert bake(one)["Gear", "rotation"][frame] == pytest.approx(20, abs=1e-4)


def test_gear_ratios_hold_over_the_whole_scene():
    sizes = [48, 16, 30, 7]
    things, previous = [shape("g0", name="G0", rotation=TURN)], 48
    one = scene(*things, *(shape(f"g{n}", name=f"G{n}", rotation=float(n)) for n in range(1, 4)), length=49)
    for n in range(1, 4):
        how = {"how": "geared", "driver_size": float(sizes[n - 1]), "own_size": float(sizes[n])}
        one, _ = linked(how, keep_at=0.0, one=one, driver=(f"g{n - 1}", "rotation"), driven=(f"g{n}", "rotation"))
        previous = sizes[n]
    found = bake(one, T)
    for n in range(1, 4):
        turned, drove = (found[f"G{i}", "rotation"] - found[f"G{i}", "rotation"][0] for i in (n, n - 1))
        np.testing.assert_allclose(turned * sizes[n], -drove * sizes[n - 1], atol=1e-9)
    assert previous == 7


def test_settings_and_dials_take_part():
    one = mill()
    how = HOW.validate_python({"how": "scaled"})
    assert formula_by_hand(one, ("dial:wind", "value"), ("gear", "n:amplitude"), how, 0.0) == "value * {Wind} / 0.4"
    calm = apply_all(one, EDITS.validate_python([{"edit": "set-value", "object": "dial:wind", "channel": "value", "value": 0.0}]))
    assert formula_by_hand(calm, ("dial:wind", "value"), ("gear", "n:amplitude"), how, 0.0) == "value * (1 + {Wind})"
    shifted = formula_by_hand(one, ("dial:wind", "value"), ("gear", "n:amplitude"), HOW.validate_python({"how": "times", "factor": 10.0}), 0.0)
    assert shifted == "{Wind} * 10 + 2"


def test_what_cannot_be_linked_is_said():
    one, same = mill(), HOW.validate_python({"how": "same"})
    with pytest.raises(NoSuchThing):
        formula_by_hand(one, ("nobody", "x"), ("gear", "x"), same)
    with pytest.raises(EditError, match="no numbers"):
        formula_by_hand(one, ("wheel", "fill"), ("gear", "x"), same)
    with pytest.raises(EditError, match="no numbers"):
        formula_by_hand(one, ("wheel", "x"), ("gear", "fill"), same, 0.0)
    with pytest.raises(NoSuchThing):
        formula_by_hand(one, ("wheel", "x"), ("gear", "gone:amplitude"), same, 0.0)
    with pytest.raises(ValidationError, match="let its ends differ"):
        HOW.validate_python({"how": "remapped", "low": 3.0, "high": 3.0})


@given(st.floats(-1e6, 1e6))
def test_numbers_are_written_without_exponents(value):
    text = number(value)
    assert "e" not in text
    assert float(text) == pytest.approx(value, abs=1e-9)
