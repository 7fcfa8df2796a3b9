"""Earlier versions: how they differ, against a plain NumPy comparison of two bakes; bringing them back, whole and in part."""

import random
from pathlib import Path

import numpy as np
import pytest
from pydantic import TypeAdapter, ValidationError

from tests.hard.any_edits import AnyEdits
from tests.motion.scenes import channel, scene, shape
from vine_swing.motion import EditError, MotionError, NoSuchThing, bake, load
from vine_swing.motion.baking.differences import Difference, differences
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.edits.bringing_back import BringBack, BroughtPart
from vine_swing.motion.scene.scene_file import from_data, to_data

SCENES = Path(__file__).resolve().parents[2] / "demo" / "scenes"
EDIT: TypeAdapter[AnyEdit] = TypeAdapter(AnyEdit)
WAVE = {"id": "r", "kind": "oscillator", "channels": ["x", "y"], "settings": {"amplitude": 5.0}}


def edited(one, *edits):
    return apply_all(one, [EDIT.validate_python(edit) for edit in edits])


def brought(now, kept, *parts, called="first take"):
    given = tuple(BroughtPart(object=owner, what=what, channel=name) for owner, what, name in parts) or None
    return apply_all(now, [BringBack(edit="bring-back", kept=kept, parts=given, called=called)])


def part_of(one: Difference):
    return one.object, one.what, one.channel


@pytest.fixture
def jump():
    return scene(
        shape("frog", x=channel((0, 0), (20, 100)), y=channel((0, 300), (10, 100), (20, 300)), rules=[WAVE]),
        shape("hat", parent="frog", y=-40, fill="#F2932B"),
        shape("stone", x=500),
        dials=[{"id": "wind", "name": "Wind", "channel": {"base": 2}}],
        length=30,
    )


def test_differences_are_those_of_a_plain_comparison_of_two_bakes(jump):
    now = edited(
        jump,
        {"edit": "set-key", "object": "frog", "channel": "y", "frame": 10, "value": 60},
        {"edit": "set-key", "object": "hat", "channel": "fill", "frame": 0, "value": "#F2932B"},
        {"edit": "set-key", "object": "hat", "channel": "fill", "frame": 5, "value": "#D0365B"},
        {"edit": "set-key", "object": "hat", "channel": "opacity", "frame": 0, "value": 0.25},
    )
    found = {(one.name, one.channel): one for one in differences(bake(now), bake(jump))}
    assert set(found) == {("Frog", "y"), ("Hat", "fill"), ("Hat", "opacity")}
    ours, theirs = bake(now), bake(jump)
    gap = np.abs(ours["Frog", "y"] - theirs["Frog", "y"])
    assert found["Frog", "y"].most == gap.max() == 40
    assert found["Frog", "y"].at == gap.argmax()
    assert found["Frog", "y"].frames == (np.flatnonzero(gap > 1e-9)[0], np.flatnonzero(gap > 1e-9)[-1])
    assert found["Hat", "fill"].most == pytest.approx(0x93 - 0x36)
    assert found["Hat", "opacity"].most == pytest.approx(75)
    assert found["Hat", "opacity"].frames == (0, 29)


def test_things_in_one_version_only_and_the_scene_s_own_fields_are_told(jump):
    now = edited(
        jump,
        {"edit": "delete-object", "id": "frog"},
        {"edit": "add-object", "object": shape("moth")},
        {"edit": "set-length", "length": 40},
        {"edit": "set-background", "colour": "#DCEBE4"},
        {"edit": "set-key", "object": "dial:wind", "channel": "value", "frame": 0, "value": 5},
        {"edit": "rename-object", "id": "stone", "name": "Rock"},
    )
    found = [(one.name, one.what, one.channel, one.only) for one in differences(bake(now), bake(jump))]
    assert found == [
        ("the scene", "channel", "length", None),
        ("the scene", "channel", "background", None),
        ("Wind", "channel", "value", None),
        ("Moth", "all", None, "now"),
        ("Rock", "drawing", None, None),
        ("Hat", "all", None, "kept"),
        ("Frog", "all", None, "kept"),
    ]
    assert {one.label for one in differences(bake(now), bake(jump)) if one.channel == "length"} == {"length: 30 was kept, 40 now"}
    # A part that was removed comes back with what attached to it, in its place.
    again = brought(now, jump, ("frog", "all", None), ("moth", "all", None))
    assert [thing.id for thing in again.objects] == ["frog", "hat", "stone"]
    assert again.by_id["hat"] == jump.by_id["hat"]
    assert again.length == 40


def test_the_whole_is_the_kept_scene(jump):
    now = edited(jump, {"edit": "delete-object", "id": "frog"}, {"edit": "set-fps", "fps": 12})
    assert brought(now, jump) == jump
    for path in sorted(SCENES.glob("*.json")):
        kept = load(path)
        assert brought(jump, kept) == kept


def test_a_channel_comes_back_without_what_its_rules_did_to_channels_that_are_gone():
    rule = {"id": "r", "kind": "oscillator", "channels": ["width", "y"]}
    then = scene(shape("leaf", rules=[rule]))
    now = edited(
        then, {"edit": "set-shape", "id": "leaf", "shape": {"type": "line"}}, {"edit": "set-value", "object": "leaf", "channel": "y", "value": 5}
    )
    again = brought(now, then, ("leaf", "channel", "y"))
    assert again.by_id["leaf"].shape.type == "line"
    assert [rule.channels for rule in again.by_id["leaf"].rules] == [("y",)]


def test_one_channel_comes_back_with_its_rules_and_nothing_else_changes(jump):
    now = edited(
        jump,
        {"edit": "move-keys", "object": "frog", "channel": "x", "frames": [20], "by": 5},
        {"edit": "move-keys", "object": "frog", "channel": "y", "frames": [20], "by": 5},
        {"edit": "delete-rule", "object": "frog", "rule": "r"},
        {"edit": "set-key", "object": "hat", "channel": "y", "frame": 0, "value": -90},
    )
    again = brought(now, jump, ("frog", "channel", "y"))
    frog = again.by_id["frog"]
    assert frog.channels["y"] == jump.by_id["frog"].channels["y"]
    assert [rule.channels for rule in frog.rules] == [("y",)]
    assert frog.channels["x"] == now.by_id["frog"].channels["x"]
    assert again.by_id["hat"] is now.by_id["hat"]
    np.testing.assert_array_equal(bake(again)["Frog", "y"], bake(jump)["Frog", "y"])
    np.testing.assert_array_equal(bake(again)["Frog", "x"], bake(now)["Frog", "x"])
    # With the other channel too, the object is what it was: one rule on both.
    assert brought(again, jump, ("frog", "channel", "x")).by_id["frog"] == jump.by_id["frog"]


def test_travel_on_a_path_comes_back_as_one(jump):
    now = edited(jump, {"edit": "delete-rule", "object": "frog", "rule": "r"}, {"edit": "join-path", "object": "frog"})
    assert now.by_id["frog"].is_keyed("path")
    again = brought(now, jump, ("frog", "channel", "x"))
    assert not again.by_id["frog"].is_keyed("path")
    np.testing.assert_array_equal(bake(again)["Frog", "y"], bake(jump)["Frog", "y"])


def test_what_is_in_neither_version_is_said(jump):
    now = edited(jump, {"edit": "delete-object", "id": "hat"})
    for part, error, says in [
        (("moth", "motion", None), NoSuchThing, "neither version"),
        (("hat", "channel", "x"), EditError, "in one version only"),
        (("frog", "channel", "wings"), EditError, "no channel 'wings' in both"),
        ((None, "channel", "weather"), NoSuchThing, "no 'weather' to bring back"),
        (("dial:rain", "all", None), NoSuchThing, "neither version has the dial"),
    ]:
        with pytest.raises(error, match=says):
            brought(now, jump, part)


@pytest.mark.parametrize("number", range(60))
def test_with_every_difference_brought_back_none_is_left(number):
    """Random edits of random scenes, all of them taken back difference by difference; what differs in nothing is the very same afterwards."""
    draw = random.Random(number)
    anything = AnyEdits(draw)
    kept = None
    while kept is None:
        try:
            drawn = from_data(anything.scene())
            # What no server accepts is no version that was kept.
            bake(drawn)
            kept = drawn
        except MotionError:
            continue
    now = kept
    for _ in range(12):
        try:
            later = edited(now, anything.edit(now))
            bake(later)
            now = later
        except (MotionError, ValidationError):
            continue
    found = differences(bake(now), bake(kept))
    parts = [part_of(one) for one in found]
    if not parts:
        return
    again = brought(now, kept, *parts)
    assert [part_of(one) for one in differences(bake(again), bake(kept))] == []
    one = draw.choice(found)
    alone = brought(now, kept, part_of(one))
    touched = {one.object} | ({thing.id for thing in now.objects if one.what == "all"} if one.only else set())
    for thing in alone.objects:
        assert thing.id in touched or thing is now.by_id[thing.id], f"{thing.name} changed with {one}"
    assert (
        to_data(alone.copy_with(objects=())) == to_data(now.copy_with(objects=()))
        or one.object is None
        or one.object.startswith("dial:")
        or one.what != "channel"
    )


def test_no_parts_at_all_are_no_edit():
    one = to_data(scene(shape("frog")))
    with pytest.raises(ValidationError, match="parts"):
        EDIT.validate_python({"edit": "bring-back", "kept": one, "parts": []})
