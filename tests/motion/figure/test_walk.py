"""Walks: feet that are down stay where they are, whatever moves the body; strides, stances and poses are what the settings say."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.motion.figure.walkers import BODY, TRAVEL, branch, data, drift, on_bone, sole, walking
from tests.motion.scenes import channel, channels, scene
from vine_swing.motion import bake
from vine_swing.motion.baking.reading import Reader
from vine_swing.motion.figure.marks import marks_of
from vine_swing.motion.figure.presets import GAITS
from vine_swing.motion.figure.starters import STARTERS

FINE = np.arange(0, 240, 0.25)
#: The most that any joint turns from one frame to the next at the presets, in degrees, where a stride takes a second at 24 fps.
MOST_TURN = 38.0


@pytest.mark.parametrize("preset", sorted(GAITS))
@pytest.mark.parametrize("travel", sorted(TRAVEL))
@pytest.mark.parametrize("ground", ["flat", "wavy"])
def test_planted_feet_stay(preset, travel, ground):
    things = (
        [branch(), data(BODY[preset], preset, TRAVEL[travel], ground="branch")] if ground == "wavy" else [data(BODY[preset], preset, TRAVEL[travel])]
    )
    assert drift(walking(*things, frames=FINE)) <= 0.25


@pytest.mark.parametrize("facing", ["as drawn", "the way it goes"])
def test_planted_feet_stay_when_it_is_small_turned_or_hangs_on_something(facing):
    raft = {"id": "raft", "name": "Raft", "kind": "group", "channels": {"x": channel((0, 0), (200, 90)).model_dump(by_alias=True), "rotation": 6}}
    one = data(x=TRAVEL["reversing"], facing=facing, channels={"scale.x": 0.6, "scale.y": 0.6, "rotation": -4})
    baked = walking(raft, one | {"parent": "raft"}, frames=FINE)
    on_raft = on_bone(baked, "near-leg.end", sole(STARTERS["two-legs"].figure.legs[0])[1])
    back = np.linalg.inv
    m = baked.objects["raft"].world
    local = np.array(
        [back(np.array([[r[0], r[2]], [r[1], r[3]]])) @ (p - r[4:6]) for r, p in zip(np.broadcast_to(m, (len(FINE), 6)), on_raft, strict=True)]
    )
    for begin, end in marks_of(Reader(baked.scene).walk("walker")).down["near-leg"]:
        at = np.flatnonzero((begin < FINE) & (end > FINE))
        middle = at[int(len(at) * 0.3) : int(len(at) * 0.7)]
        if len(middle) > 1:
            assert np.hypot(*np.ptp(local[middle], axis=0)) <= 0.25


@pytest.mark.parametrize("facing", ["as drawn", "the way it goes"])
def test_one_that_is_mirrored_walks_just_as_well(facing):
    x = channel((0, 900), (200, 100)).model_dump(by_alias=True)
    mirrored = walking(data(x=x, facing=facing, channels={"scale.x": -1.0}), frames=FINE)
    turned = walking(data(x=x, channels={"facing": -1.0}), frames=FINE)
    assert drift(mirrored) <= 0.25
    for bone, point in (("near-leg.end", (23, -2)), ("near-leg.lower", (-1, -10)), ("head.1", (6, -186)), ("near-arm.lower", (8, -80))):
        np.testing.assert_allclose(on_bone(mirrored, bone, point), on_bone(turned, bone, point), atol=1e-6, err_msg=bone)


@given(st.data())
@settings(max_examples=25, deadline=None)
def test_whatever_moves_it_all_joints_stay_finite(draw):
    one = data(
        x=draw.draw(channels(most=4)),
        channels={"y": draw.draw(channels(most=3)), "scale.x": draw.draw(channels(most=3)), "rotation": draw.draw(channels(most=2))},
    )
    baked = walking(one, branch(), frames=np.arange(0, 60, 0.5), length=60)
    for name, values in baked.objects["walker"].channels.items():
        assert np.isfinite(values).all(), name
    assert all(np.isfinite(values).all() for values in baked.objects["walker"].bones.values())


def test_flattened_to_nothing_it_is_no_fault():
    flip = channel((20, 1), (60, -1)).model_dump(by_alias=True)
    baked = walking(data(channels={"scale.x": flip}))
    assert all(np.isfinite(values).all() for values in baked.objects["walker"].channels.values())


@pytest.mark.parametrize("preset", sorted(GAITS))
def test_bones_keep_their_lengths_and_no_joint_jumps(preset):
    figure = STARTERS[BODY[preset]].figure
    stride = GAITS[preset].for_figure(figure)["stride"]
    baked = walking(data(BODY[preset], preset, channel((0, 0), (24, stride), before="coast", after="coast")))
    for name, bone in figure.bones.items():
        a, b = on_bone(baked, name, bone.start), on_bone(baked, name, bone.end)
        assert np.ptp(np.hypot(*(b - a).T)) <= 1e-9
        m = np.broadcast_to(baked.objects["walker"].bones[name], (240, 6))
        turns = np.abs(np.diff(np.unwrap(np.arctan2(m[:, 1], m[:, 0]))))
        assert np.degrees(turns.max()) <= MOST_TURN, name


@pytest.mark.parametrize("preset", sorted(GAITS))
def test_stride_and_stance_are_what_they_were_set_to(preset):
    figure = STARTERS[BODY[preset]].figure
    told = GAITS[preset].for_figure(figure)
    baked = walking(data(BODY[preset], preset, channel((0, 0), (24, told["stride"]), before="coast", after="coast")), frames=FINE)
    walk = Reader(baked.scene).walk("walker")
    for leg in figure.legs:
        spans = [(a, b) for a, b in marks_of(walk).down[leg.id] if a > 24 and b < 200]
        landings = np.array([a for a, _ in spans])
        ball = on_bone(baked, f"{leg.id}.end", sole(leg)[1])
        feet = np.array([np.interp((a + b) / 2, FINE, ball[:, 0]) for a, b in spans])
        np.testing.assert_allclose(np.diff(feet), told["stride"], rtol=0.01)
        shares = np.array([b - a for a, b in spans]) / np.diff(landings).mean()
        np.testing.assert_allclose(shares, told["stance"], rtol=0.01)


@pytest.mark.parametrize("preset", ["stroll", "brisk", "heavy", "sneak", "march", "tired", "proud"])
def test_hips_are_lowest_in_down_and_highest_in_up(preset):
    figure = STARTERS["two-legs"].figure
    told = GAITS[preset].for_figure(figure)
    fine = np.arange(48, 144, 1 / 16)
    baked = walking(data("two-legs", preset, channel((0, 0), (24, told["stride"]), before="coast", after="coast")), frames=fine)
    y = baked["Walker", "hips.y"]
    poses = [(frame, pose) for frame, pose, _ in marks_of(Reader(baked.scene).walk("walker")).poses if 60 < frame < 130]
    at = {pose: np.array([np.interp(frame, fine, y) for frame, one in poses if one == pose]) for pose in ("contact", "down", "passing", "up")}
    assert len(at["down"]) >= 4
    np.testing.assert_allclose(at["down"], y.max(), atol=0.02 * told["bob"])
    np.testing.assert_allclose(at["up"], y.min(), atol=0.02 * told["bob"])
    assert y.max() - y.min() == pytest.approx(told["bob"], rel=0.02)


@pytest.mark.parametrize("preset", ["jog", "run"])
def test_a_run_flies_along_parabolas(preset):
    figure = STARTERS["two-legs"].figure
    told = GAITS[preset].for_figure(figure)
    fine = np.arange(48, 144, 1 / 32)
    baked = walking(data("two-legs", preset, channel((0, 0), (24, told["stride"]), before="coast", after="coast")), frames=fine)
    y = baked["Walker", "hips.y"]
    down = marks_of(Reader(baked.scene).walk("walker")).down
    grounded = np.zeros(len(fine), bool)
    for spans in down.values():
        for a, b in spans:
            grounded |= (fine >= a - 0.05) & (fine <= b + 0.05)
    assert 0.1 < 1 - grounded.mean() < 0.6, "it flies for part of the time"
    flights = [
        run for run in np.split(np.arange(len(fine)), np.flatnonzero(np.diff(grounded.astype(int))) + 1) if not grounded[run[0]] and len(run) > 30
    ]
    assert len(flights) >= 5
    for run in flights[1:-1]:
        fall, *rest = np.polyfit(fine[run], y[run], 2)
        assert fall > 0, "it falls back"
        np.testing.assert_allclose(y[run], np.polyval([fall, *rest], fine[run]), atol=0.02 * told["bob"])
        assert y.min() == pytest.approx(y[run].min(), abs=0.02 * told["bob"]), "highest in the middle of its flight"
    assert y.max() - y.min() == pytest.approx(told["bob"], rel=0.02)


@pytest.mark.parametrize("preset", sorted(GAITS))
def test_on_the_spot_a_cycle_closes_exactly(preset):
    baked = walking(data(BODY[preset], preset, 400.0, treadmill=24.0), length=73)
    for name, values in baked.objects["walker"].channels.items():
        if len(values) == 73:
            np.testing.assert_array_equal(values[:24], values[24:48], err_msg=name)
            np.testing.assert_array_equal(values[0], values[72], err_msg=name)
    # It looks as the same walk does under way: with the body held still.
    figure = STARTERS[BODY[preset]].figure
    stride = GAITS[preset].for_figure(figure)["stride"]
    going = walking(data(BODY[preset], preset, channel((0, 0), (24, stride), before="climb", after="climb")), length=73)
    for leg in figure.legs:
        for part in ("x", "y"):
            np.testing.assert_allclose(
                np.broadcast_to(going["Walker", f"{leg.id}.{part}"], (73,)),
                np.broadcast_to(baked["Walker", f"{leg.id}.{part}"], (73,)),
                atol=0.02 * stride,
            )


def test_standing_it_settles_on_both_feet():
    baked = walking(data(x=TRAVEL["stop and go"]))
    walk = Reader(baked.scene).walk("walker")
    for leg in STARTERS["two-legs"].figure.legs:
        ball, heel = (on_bone(baked, f"{leg.id}.end", point)[92:108] for point in reversed(sole(leg)))
        assert np.ptp(ball, axis=0).max() < 1e-6
        np.testing.assert_allclose(np.stack([ball[:, 1], heel[:, 1]]), 500, atol=1e-6)
        assert any(a <= 90 and b >= 108 for a, b in marks_of(walk).down[leg.id])
    # It stands above its feet, and walks on from there.
    assert abs(baked["Walker", "x"][100] - 520) < 1e-9
    assert abs(np.mean([on_bone(baked, f"{leg.id}.end", leg.joints[2])[100, 0] for leg in STARTERS["two-legs"].figure.legs]) - 517) < 8


def test_a_figure_that_never_moves_stands():
    baked = walking(data(x=300.0))
    assert np.abs(baked["Walker", "near-leg.x"]).max() < 1e-9
    assert marks_of(Reader(baked.scene).walk("walker")).down["near-leg"] == [(0.0, 239.0)]


def test_on_a_slope_feet_lie_on_it_and_steps_are_shorter():
    slope = branch("M-400 0 L2000 -720", y=600)
    flat, steep = (
        walking(*things, data(x=TRAVEL["past the picture"], **more), frames=FINE) for things, more in (((), {}), ((slope,), {"ground": "branch"}))
    )
    leg = STARTERS["two-legs"].figure.legs[0]
    ends = [on_bone(steep, "near-leg.end", point) for point in sole(leg)]
    for begin, end in marks_of(Reader(steep.scene).walk("walker")).down["near-leg"][1:-1]:
        n = np.flatnonzero((begin < FINE) & (end > FINE))[len(np.flatnonzero((begin < FINE) & (end > FINE))) // 2]
        for x, y in (ends[0][n], ends[1][n]):
            assert y == pytest.approx(600 - 0.3 * (x + 400), abs=0.5), "heel and ball lie on it"
    steps = [len(marks_of(Reader(one.scene).walk("walker")).down["near-leg"]) for one in (flat, steep)]
    assert steps[1] > steps[0]


def test_a_walk_blends_into_another_by_keys():
    stride, stance = channel((60, 90.0, "slow-out-in"), (160, 250.0)), channel((60, 0.65, "slow-out-in"), (160, 0.34))
    one = data(
        x=channel((0, 0), (80, 300, "slow-out-in"), (200, 1300)), stride=stride.model_dump(by_alias=True), stance=stance.model_dump(by_alias=True)
    )
    baked = walking(one, frames=FINE)
    assert drift(baked) <= 0.25
    assert np.abs(np.diff(baked["Walker", "hips.y"])).max() < 3, "without a jump"
    strides = [b - a for a, b in marks_of(Reader(baked.scene).walk("walker")).down["near-leg"]]
    assert strides


def test_the_same_at_any_frames_and_whatever_they_are_asked_with():
    one = scene(branch(), data(x=TRAVEL["stop and go"], ground="branch"), length=240)
    whole, fine = bake(one), bake(one, FINE)
    for name, values in whole.objects["walker"].channels.items():
        if len(values) == 240:
            np.testing.assert_allclose(fine["Walker", name][::4], values, atol=1e-9, err_msg=name)
    lone = bake(one, np.array([133.0]))
    assert lone["Walker", "near-leg.x"][0] == pytest.approx(whole["Walker", "near-leg.x"][133], abs=1e-9)


@pytest.mark.parametrize("treadmill", [{}, {"treadmill": 31.0}])
def test_keyed_settings_are_the_same_at_any_frames_too(treadmill):
    keyed = {
        name: channel((40, low, "slow-out-in"), (180, high)).model_dump(by_alias=True)
        for name, low, high in (("stride", 80.0, 220.0), ("stance", 0.65, 0.36), ("overlap", 0.0, 5.0), ("lean", 0.0, 20.0))
    }
    one = scene(branch(), data(x=TRAVEL["stop and go"], ground="branch", **keyed, **treadmill), length=240)
    whole, some = bake(one), bake(one, np.array([150.0, 97, 20]))
    for name, values in whole.objects["walker"].channels.items():
        np.testing.assert_allclose(
            np.broadcast_to(some["Walker", name], (3,)), np.broadcast_to(values, (240,))[[150, 97, 20]], atol=1e-9, err_msg=name
        )


def test_a_rule_that_reads_a_walk_reads_the_same():
    """What is computed together must be what the vine's chain of cards gives."""
    follower = {
        "id": "bag",
        "name": "Bag",
        "kind": "group",
        "rules": [{"id": "f", "kind": "follow", "channels": ["y"], "settings": {"leader": "walker", "reads": "hips.y", "delay": 0}}],
    }
    baked = walking(data(), follower)
    y = baked["Walker", "hips.y"]
    np.testing.assert_allclose(baked["Bag", "y"], y - y[0], atol=1e-9)


def test_legs_keep_to_one_another_as_their_order_says():
    from vine_swing.motion.figure.style import phases

    four, six = STARTERS["four-legs"].figure, STARTERS["six-legs"].figure
    assert phases(four, "alternate") == {"near-hind-leg": 0, "far-hind-leg": 0.5, "near-foreleg": 0.5, "far-foreleg": 0}
    assert phases(four, "wave") == {"near-hind-leg": 0, "far-hind-leg": 0.5, "near-foreleg": 0.75, "far-foreleg": 0.25}
    assert phases(four, "pace") == {"near-hind-leg": 0, "far-hind-leg": 0.5, "near-foreleg": 0, "far-foreleg": 0.5}
    assert phases(four, "bound") == {"near-hind-leg": 0, "far-hind-leg": 0, "near-foreleg": 0.5, "far-foreleg": 0.5}
    tripods = phases(six, "alternate")
    assert {tripods[one] for one in ("near-hind-leg", "near-front-leg", "far-middle-leg")} == {0}
    assert {tripods[one] for one in ("far-hind-leg", "far-front-leg", "near-middle-leg")} == {0.5}
