"""Edits of figures: starters, joints, parts, gaits, travelling, freezing."""

import numpy as np
import pytest
from pydantic import TypeAdapter

from tests.motion.figure.walkers import TRAVEL, branch, data, drift, on_bone, walking
from tests.motion.scenes import channel, scene, shape
from vine_swing.motion import EditError, bake
from vine_swing.motion.edits import AnyEdit, apply_all, label_of
from vine_swing.motion.figure.presets import GAITS, fitting
from vine_swing.motion.figure.starters import STARTERS
from vine_swing.motion.scene.graph import drives
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.scene_file import from_data, to_data

EDITS = TypeAdapter(list[AnyEdit])


def do(one, *edits):
    return apply_all(one, EDITS.validate_python(list(edits)))


def begun(starter="two-legs", **more):
    return do(Scene(length=120), {"edit": "add-figure", "id": "walker", "name": "Walker", "starter": starter, "x": 200.0, "y": 500.0, **more})


@pytest.mark.parametrize("starter", sorted(STARTERS))
def test_a_starter_stands_with_parts_on_all_of_its_bones(starter):
    one = begun(starter, height=150.0)
    figure = one.by_id["walker"].figure
    parts = [thing for thing in one.objects if thing.parent == "walker"]
    moving = {bone for bone in figure.bones if not bone.startswith("head.")} - {"spine.1", "spine.2"}
    assert {part.bone for part in parts} >= moving
    baked = bake(one)
    for part in parts:
        np.testing.assert_allclose(baked.objects[part.id].world, baked.objects[part.id].local + np.array([0, 0, 0, 0, 200, 500]), atol=1e-9)
    assert max(-y for bone in figure.bones.values() for _, y in (bone.start, bone.end)) == pytest.approx(150, abs=0.1)
    assert begun(starter, drawn=False).objects[0].figure.bones.keys() == figure.bones.keys()


def test_a_dragged_joint_takes_its_parts_along():
    one = begun()
    figure = one.by_id["walker"].figure
    data_ = figure.model_dump(mode="json")
    data_["limbs"][0]["joints"][1] = [30, -51]
    after = do(one, {"edit": "set-figure", "id": "walker", "figure": data_})
    shin_before, shin = (next(thing for thing in s.objects if thing.name == "Walker near leg shin") for s in (one, after))
    assert (shin.channels["x"].base, shin.channels["y"].base) == (30, -51)
    was = np.array(figure.limbs[0].joints[2]) - figure.limbs[0].joints[1]
    now = np.array(figure.limbs[0].joints[2]) - np.array([30, -51])
    turn = np.degrees(np.arctan2(now[1], now[0]) - np.arctan2(was[1], was[0]))
    assert shin.channels["rotation"].base == pytest.approx(turn)
    assert shin.channels["scale.x"].base == pytest.approx(np.hypot(*now) / np.hypot(*was))
    assert next(thing for thing in after.objects if thing.name == "Walker head") is next(
        thing for thing in one.objects if thing.name == "Walker head"
    )
    assert shin_before.channels["x"].base == 12


def test_limbs_that_are_gone_take_their_channels_and_leave_their_parts():
    one = do(begun(), {"edit": "set-key", "object": "walker", "channel": "far-arm.upper", "frame": 0.0, "value": 10.0})
    figure = one.by_id["walker"].figure.model_dump(mode="json")
    figure["limbs"] = [limb for limb in figure["limbs"] if limb["id"] != "far-arm"]
    after = do(one, {"edit": "set-figure", "id": "walker", "figure": figure})
    assert "far-arm.upper" not in after.by_id["walker"].channels
    assert next(thing for thing in after.objects if thing.name == "Walker far arm hand").bone is None


def test_existing_things_are_hung_on_bones_where_they_lie():
    box = shape("box", x=230, y=420, rotation=20, width=40)
    one = scene(data(x=200.0), box, shape("lid", parent="box", y=-10), length=60)
    after = do(one, {"edit": "hang-on-bones", "figure": "walker", "parts": {"box": "head.1"}, "frame": 0.0})
    assert (after.by_id["box"].parent, after.by_id["box"].bone) == ("walker", "head.1")
    for name in ("box", "lid"):
        np.testing.assert_allclose(bake(after).objects[name].world[0], bake(one).objects[name].world[0], atol=1e-6)
    freed = do(after, {"edit": "reparent-object", "id": "box", "parent": None, "keep_at": 0.0})
    assert freed.by_id["box"].bone is None
    np.testing.assert_allclose(bake(freed).objects["box"].world[0], bake(one).objects["box"].world[0], atol=1e-6)


def test_gaits_fit_the_legs_and_blend_where_settings_are_keyed():
    assert [one.name for one in fitting(STARTERS["four-legs"].figure)] == ["amble", "trot", "pace", "bound"]
    one = do(begun(), {"edit": "set-gait", "id": "walker", "preset": "stroll"})
    (rule,) = one.by_id["walker"].rules
    leg = one.by_id["walker"].figure.leg_length
    assert rule.settings["stride"].base == pytest.approx(GAITS["stroll"].legs["stride"] * leg, abs=0.01)
    keyed = do(one, {"edit": "set-key", "object": "walker", "channel": "gait:stride", "frame": 0.0, "value": 100.0})
    run = do(keyed, {"edit": "set-gait", "id": "walker", "preset": "run", "frame": 60.0})
    (rule,) = run.by_id["walker"].rules
    assert [(key.frame, key.number) for key in rule.settings["stride"].keys] == [(0, 100), (60, pytest.approx(3 * leg, abs=0.01))]
    assert rule.settings["stance"].base == 0.32


def test_what_walks_on_the_spot_goes_on_with_the_same_cycle():
    one = do(
        begun(),
        {"edit": "set-gait", "id": "walker", "preset": "stroll"},
        {"edit": "set-setting", "object": "walker", "rule": "gait", "setting": "treadmill", "value": 24.0},
    )
    spot, going = bake(one), bake(do(one, {"edit": "travel-cycle", "id": "walker", "frames": 24.0}))
    stride = one.by_id["walker"].rules[0].settings["stride"].base
    assert going["Walker", "x"][48] - going["Walker", "x"][24] == pytest.approx(stride)
    for name in ("near-leg.x", "near-leg.y", "far-leg.x", "hips.y", "near-arm.upper"):
        np.testing.assert_allclose(going["Walker", name], spot["Walker", name], atol=0.02 * stride, err_msg=name)
    assert drift(going) <= 0.25


def test_a_stretch_is_frozen_and_the_walk_goes_on_around_it():
    one = scene(
        data(
            x=TRAVEL["slow in and out"],
            channels={"near-arm.upper": channel((40, 0, "slow-out-in"), (80, -60, "snap"), (120, 0), (150, 20, "heavy"), (200, 0))},
        ),
        length=240,
    )
    before = bake(one)
    frozen = do(one, {"edit": "freeze-walk", "id": "walker", "first": 60, "last": 110, "tolerance": 0.05})
    after = bake(frozen)
    for name in ("near-leg.x", "near-leg.y", "near-leg.end", "hips.y", "near-arm.upper", "head.turn", "tail.2", "facing"):
        np.testing.assert_allclose(
            np.broadcast_to(after["Walker", name], (240,)), np.broadcast_to(before["Walker", name], (240,)), atol=0.06, err_msg=name
        )
    keys = frozen.by_id["walker"].channels["near-leg.y"].keys
    assert all(59 <= key.frame <= 111 for key in keys)
    # Within it the gait is silent: without it the keys say the same there.
    silent = frozen.copy_with(objects=tuple(thing.copy_with(rules=()) if thing.id == "walker" else thing for thing in frozen.objects))
    np.testing.assert_allclose(bake(silent)["Walker", "near-leg.x"][60:111], before["Walker", "near-leg.x"][60:111], atol=0.06)
    assert drift(after) <= 0.5


def test_other_rules_go_on_acting_on_what_is_frozen():
    tremble = {"id": "n", "kind": "noise", "channels": ["near-arm.upper", "y"], "settings": {"amplitude": 5}}
    look = {"id": "look", "kind": "look-at", "settings": {"target": "stone"}}
    one = scene(data(x=TRAVEL["slow in and out"], rules=[tremble, look]), shape("stone", x=600, y=200), length=240)
    before = bake(one)
    after = bake(do(one, {"edit": "freeze-walk", "id": "walker", "first": 60, "last": 110, "tolerance": 0.02}))
    for name in ("near-arm.upper", "head.turn", "near-leg.x", "hips.y"):
        np.testing.assert_allclose(after["Walker", name], before["Walker", name], atol=0.06, err_msg=name)


def test_posing_adds_to_what_keys_say():
    one = do(scene(data(), length=240), {"edit": "pose-joints", "id": "walker", "frame": 50.0, "by": {"near-arm.upper": -40.0}, "key": True})
    assert [(k.frame, k.number) for k in one.by_id["walker"].channels["near-arm.upper"].keys] == [(50, -40)]
    again = do(one, {"edit": "pose-joints", "id": "walker", "frame": 70.0, "by": {"near-arm.upper": 15.0}})
    assert [(k.frame, k.number) for k in again.by_id["walker"].channels["near-arm.upper"].keys] == [(50, -40), (70, -25)]
    plain = do(scene(data(), length=240), {"edit": "pose-joints", "id": "walker", "frame": 50.0, "by": {"near-arm.reach": 4.0}})
    assert plain.by_id["walker"].channels["near-arm.reach"].base == 1, "within its limits"


REFUSED = [
    ({"edit": "add-figure", "id": "w", "name": "W", "starter": "octopus", "x": 0.0, "y": 0.0}, "there is no starter 'octopus'; there is two-legs"),
    ({"edit": "add-figure", "id": "walker", "name": "W", "starter": "bird", "x": 0.0, "y": 0.0}, "already is an object with the id 'walker'"),
    ({"edit": "set-gait", "id": "walker", "preset": "hop"}, "there is no gait 'hop'; there is stroll"),
    ({"edit": "set-gait", "id": "box", "preset": "stroll"}, "'Box' is no figure"),
    ({"edit": "hang-on-bones", "figure": "walker", "parts": {"box": "wing"}}, "is attached to the bone 'wing' of 'Walker'; there is hips"),
    ({"edit": "hang-on-bones", "figure": "walker", "parts": {"walker": "hips"}}, "cannot be attached to its own bones"),
    ({"edit": "freeze-walk", "id": "walker", "first": 10, "last": 20}, "has no gait to freeze"),
    ({"edit": "travel-cycle", "id": "walker", "frames": 24.0}, "has no gait"),
    ({"edit": "pose-joints", "id": "walker", "frame": 0.0, "by": {"wing.1": 3.0}}, "has no channel 'wing.1'"),
]


@pytest.mark.parametrize(("edit", "says"), REFUSED, ids=lambda one: one if isinstance(one, str) else one["edit"])
def test_what_does_not_fit_is_refused_in_a_sentence(edit, says):
    one = do(begun(), {"edit": "add-object", "object": shape("box")})
    with pytest.raises(EditError, match=says):
        do(one, edit)


def test_labels_say_what_was_done():
    one = begun()
    edits = EDITS.validate_python([{"edit": "set-gait", "id": "walker", "preset": "sneak"}])
    assert label_of(one, edits) == "sneak of Walker"


def test_an_edit_of_the_ground_or_the_joints_makes_the_walk_anew_and_nothing_else():
    ground = {"id": "branch", "name": "Branch", "kind": "shape", "shape": {"type": "outline", "d": "M-400 0 L2000 0"}, "channels": {"y": 520}}
    one = scene(ground, data(ground="branch"), shape("stone"), length=240)
    first = bake(one)
    raised = do(one, {"edit": "set-value", "object": "branch", "channel": "y", "value": 480.0})
    second = bake(raised, previous=first)
    np.testing.assert_allclose(second["Walker", "hips.y"], bake(raised)["Walker", "hips.y"], atol=1e-12)
    assert np.abs(second["Walker", "hips.y"] - first["Walker", "hips.y"]).max() > 30
    assert second.objects["stone"] is first.objects["stone"]
    bent = do(one, {"edit": "set-shape", "id": "branch", "shape": {"type": "outline", "d": "M-400 0 L2000 -300"}})
    np.testing.assert_allclose(bake(bent, previous=first)["Walker", "near-leg.y"], bake(bent)["Walker", "near-leg.y"], atol=1e-12)
    figure = one.by_id["walker"].figure.model_dump(mode="json")
    figure["limbs"][0]["joints"][1] = [20, -55]
    longer = do(one, {"edit": "set-figure", "id": "walker", "figure": figure})
    again, fresh = bake(longer, previous=first), bake(longer)
    for name, values in fresh.objects["walker"].channels.items():
        np.testing.assert_allclose(again.objects["walker"].channels[name], values, atol=1e-12, err_msg=name)
    for name, values in fresh.objects["walker"].bones.items():
        np.testing.assert_allclose(again.objects["walker"].bones[name], values, atol=1e-9, err_msg=name)
    renamed = bake(do(one, {"edit": "rename-object", "id": "stone", "name": "Pebble"}), previous=first)
    assert renamed.objects["walker"].channels["near-leg.x"] is first.objects["walker"].channels["near-leg.x"]
    assert on_bone(second, "hips", (0, 0)).shape == (240, 2)
    assert walking(data()).objects["walker"].bones


def test_what_a_figure_stands_on_and_looks_at_is_told_once_each():
    look = {"id": "look", "kind": "look-at", "settings": {"target": "stone"}}
    one = scene(branch(), data(ground="branch", rules=[look]), shape("stone"), length=60)
    told = [(drive.driver[0], drive.driven, drive.kind) for drive in drives(one) if drive.driver[0] != "walker"]
    assert told == [("branch", ("walker", "hips.x"), "gait"), ("stone", ("walker", "head.turn"), "look-at")]


def test_one_joint_frozen_leaves_the_gait_all_others():
    one = scene(data(x=TRAVEL["slow in and out"]), length=240)
    before = bake(one)
    frozen = do(one, {"edit": "freeze-channel", "object": "walker", "channel": "tail.2", "tolerance": 0.02})
    (gait,) = frozen.by_id["walker"].rules
    assert "tail.2" not in gait.channels
    assert len(gait.channels) > 20
    assert from_data(to_data(frozen)) == frozen, "it can be kept and read again"
    for name in ("tail.2", "tail.3", "near-leg.x"):
        np.testing.assert_allclose(bake(frozen)["Walker", name], before["Walker", name], atol=0.05)
