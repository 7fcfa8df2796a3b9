"""Gradients as edits and as data."""

import numpy as np
import pytest
from pydantic import TypeAdapter

from tests.motion.scenes import channel, scene, shape
from tests.picture.gradients import THREE, blended
from vine_swing.motion import bake
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.scene.scene_file import from_data, to_data
from vine_swing.picture.paint import Painter

EDITS: TypeAdapter[list[AnyEdit]] = TypeAdapter(list[AnyEdit])


def edited(one, *edits):
    return apply_all(one, EDITS.validate_python([{"id": "sky", "of": "fill"} | edit for edit in edits]))


def plain(**channels):
    return scene(shape("sky", type="rectangle", width=100, height=60, fill="#204060", **channels), size=[240, 180], length=25)


def values(one, frame=0):
    baked = bake(one).objects["sky"].channels
    return {name: baked[name][min(frame, len(baked[name]) - 1)].tolist() for name in baked if name.startswith("fill.")}


def test_a_new_gradient_goes_from_top_to_bottom_from_the_colour_there_was():
    found = values(edited(plain(), {"edit": "set-gradient", "kind": "linear"}))
    assert [found[f"fill.{name}"] for name in ("from.x", "from.y", "to.x", "to.y")] == [0, -30, 0, 30]
    assert (found["fill.1.place"], found["fill.2.place"]) == (0, 1)
    np.testing.assert_allclose(found["fill.1.colour"], [0x20 / 255, 0x40 / 255, 0x60 / 255, 1])
    assert sum(found["fill.2.colour"]) > sum(found["fill.1.colour"]), "paler"
    outward = values(edited(plain(), {"edit": "set-gradient", "kind": "radial"}))
    assert [outward[f"fill.{name}"] for name in ("from.x", "from.y", "to.x", "to.y")] == [0, 0, 50, 0]


def test_its_colour_is_that_of_the_frame_it_is_made_at():
    keyed = scene(shape("sky", type="rectangle", fill=channel((0, "#000000", "linear"), (10, "#FFFFFF"))), length=25)
    found = values(edited(keyed, {"edit": "set-gradient", "kind": "linear", "frame": 10.0}))
    np.testing.assert_allclose(found["fill.1.colour"], [1, 1, 1, 1])


def test_another_stop_changes_nothing_until_it_is_changed():
    one = edited(plain(), {"edit": "set-gradient", "kind": "linear"})
    more = edited(one, {"edit": "add-stop", "place": 0.25}, {"edit": "add-stop", "place": 0.75})
    assert more.by_id["sky"].paints.fill.stops == 4
    np.testing.assert_allclose(Painter(bake(more)).frame(0), Painter(bake(one)).frame(0), atol=1)
    assert [values(more)[f"fill.{n}.place"] for n in (1, 2, 3, 4)] == [0, 0.25, 0.75, 1]


def test_keys_and_rules_of_a_stop_move_with_it():
    one = edited(
        plain(),
        {"edit": "set-gradient", "kind": "linear"},
    )
    keyed = apply_all(
        one,
        EDITS.validate_python(
            [{"edit": "set-key", "object": "sky", "channel": "fill.2.place", "frame": f, "value": v} for f, v in ((0, 1), (20, 0.5))]
        ),
    )
    swung = apply_all(
        keyed, EDITS.validate_python([{"edit": "add-rule", "object": "sky", "rule": {"id": "o", "kind": "oscillator", "channels": ["fill.2.place"]}}])
    )
    more = edited(swung, {"edit": "add-stop", "place": 0.5})
    sky = more.by_id["sky"]
    assert [key.frame for key in sky.channels["fill.3.place"].keys] == [0, 20]
    assert sky.rules[0].channels == ("fill.3.place",)
    less = edited(more, {"edit": "remove-stop", "stop": 2})
    assert less.by_id["sky"].rules[0].channels == ("fill.2.place",)
    gone = edited(more, {"edit": "remove-stop", "stop": 3})
    assert not gone.by_id["sky"].rules


def test_one_colour_again_lets_its_stops_go_and_keeps_the_colour():
    one = edited(plain(), {"edit": "set-gradient", "kind": "linear"}, {"edit": "set-gradient", "kind": None})
    assert one.by_id["sky"].channels["fill"].base == "#204060"
    assert not values(one)


@pytest.mark.parametrize(
    ("edit", "words"),
    [
        ({"edit": "add-stop", "place": 0.5}, "make a gradient of it first"),
        ({"edit": "remove-stop", "stop": 1}, "make a gradient of it first"),
    ],
)
def test_what_has_no_gradient_has_no_stops(edit, words):
    with pytest.raises(EditError, match=words):
        edited(plain(), edit)


def test_there_are_two_stops_at_least_and_eight_at_most():
    one = edited(plain(), {"edit": "set-gradient", "kind": "linear"})
    with pytest.raises(EditError, match="at least 2"):
        edited(one, {"edit": "remove-stop", "stop": 1})
    full = edited(one, *({"edit": "add-stop", "place": n / 10} for n in range(1, 7)))
    with pytest.raises(EditError, match="at most 8"):
        edited(full, {"edit": "add-stop", "place": 0.95})


def test_it_is_read_back_as_it_is_written():
    one = blended("radial", THREE, (0, 0, 50, 0))
    assert from_data(to_data(one)) == one
    with pytest.raises(ValueError, match=r"no channel 'fill\.4\.place'"):
        blended("radial", THREE, (0, 0, 50, 0), **{"fill.4.place": 1})


def test_keyed_stops_go_over_into_each_other_and_ends_move():
    move = channel((0, -50, "linear"), (10, 50)).model_dump(by_alias=True)
    one = blended("linear", [(0, "#000000"), (1, "#FFFFFF")], (0, 0, 10, 0), **{"fill.from.x": move})
    still = blended("linear", [(0, "#000000"), (1, "#FFFFFF")], (0, 0, 10, 0), **{"fill.from.x": 0})
    moving = Painter(bake(one.copy_with(length=11)))
    np.testing.assert_array_equal(moving.frame(5), Painter(bake(still)).frame(0))
    assert (moving.frame(0) != moving.frame(5)).any()
