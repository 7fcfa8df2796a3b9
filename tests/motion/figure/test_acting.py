"""Acting on top of a walk: keys as offsets, limbs set free, looking at objects and holding on to them."""

import numpy as np
import pytest

from tests.motion.figure.walkers import STARTERS, data, on_bone, walking
from tests.motion.scenes import channel, shape

FIGURE = STARTERS["two-legs"].figure
ARM = next(limb for limb in FIGURE.limbs if limb.id == "near-arm")


def test_keys_come_on_top_of_the_walk_and_blend_in_and_out():
    wave = channel((60, 0, "slow-out-in"), (80, -120, "hold"), (120, -120, "slow-out-in"), (140, 0))
    plain, acted = walking(data()), walking(data(channels={"near-arm.upper": wave}))
    added = acted["Walker", "near-arm.upper"] - plain["Walker", "near-arm.upper"]
    np.testing.assert_allclose(added[[0, 59, 100, 200]], [0, 0, -120, 0], atol=1e-9)
    assert (np.diff(added[60:81]) <= 1e-9).all()
    np.testing.assert_allclose(acted["Walker", "near-leg.x"], plain["Walker", "near-leg.x"], atol=1e-9)


def test_a_free_limb_does_what_its_keys_say_alone():
    free = channel((60, 0, "slow-out-in"), (80, 1))
    acted = walking(data(channels={"near-arm.free": free, "near-arm.upper": -30.0}))
    plain = walking(data())
    np.testing.assert_allclose(acted["Walker", "near-arm.upper"][:60], plain["Walker", "near-arm.upper"][:60] - 30, atol=1e-9)
    np.testing.assert_allclose(acted["Walker", "near-arm.upper"][80:], -30, atol=1e-9)


def looking(**settings):
    return {"id": "look", "kind": "look-at", "settings": {"target": "sun", **settings}}


def test_a_head_looks_at_something_while_the_body_walks():
    sun = shape("sun", x=900, y=channel((0, 250), (200, 480)))
    baked = walking(data(rules=[looking(limit=170)]), sun)
    neck, crown = FIGURE.spine[-1], FIGURE.head[0]
    joint = on_bone(baked, "head.1", neck)
    m = np.broadcast_to(baked.objects["walker"].bones["head.1"], (240, 6))
    faces = np.degrees(np.arctan2(m[:, 1], m[:, 0]))
    way = baked.objects["sun"].place - joint
    wanted = np.degrees(np.arctan2(way[:, 1], way[:, 0]))
    near = np.abs((wanted + 180) % 360 - 180) < 40
    assert near.sum() > 60
    # The limit gives way softly: well within it, it looks nearly there.
    np.testing.assert_allclose(faces[near], wanted[near], atol=4)
    assert crown[1] < neck[1]
    half = walking(data(rules=[looking(share=0.5, limit=170)]), sun)
    plain = walking(data(), sun)
    mean = (baked["Walker", "head.turn"] + plain["Walker", "head.turn"]) / 2
    np.testing.assert_allclose(half["Walker", "head.turn"], mean, atol=1e-9)


def test_a_head_turns_no_further_than_its_limit():
    baked = walking(data(x=300.0, rules=[looking(limit=30)]), shape("sun", x=-400, y=300))
    assert np.abs(baked["Walker", "head.turn"]).max() <= 30 + 1e-9


@pytest.mark.parametrize("facing", ["as drawn", "the way it goes"])
def test_a_hand_holds_on_while_it_walks(facing):
    # A rail that goes along: within the arm's reach all the time.
    x = channel((0, 900), (239, 300))
    rail = shape("rail", x=channel((0, 900 - 26), (239, 300 - 26)) if facing != "as drawn" else channel((0, 926), (239, 326)), y=402)
    hold = {"id": "hold", "kind": "hold-on", "settings": {"target": "rail"}}
    baked = walking(data(x=x, facing=facing, rules=[hold]), rail)
    hand = on_bone(baked, "near-arm.lower", ARM.joints[2])
    np.testing.assert_allclose(hand[30:210], baked.objects["rail"].place[30:210], atol=0.01)


def test_it_takes_hold_and_lets_go_by_its_share():
    rail = shape("rail", x=325, y=400)
    share = channel((40, 0, "slow-out-in"), (60, 1, "hold"), (100, 1, "slow-out-in"), (120, 0))
    hold = {"id": "hold", "kind": "hold-on", "settings": {"target": "rail", "limb": "far-arm", "share": share.model_dump(by_alias=True)}}
    baked, plain = walking(data(x=300.0, rules=[hold]), rail), walking(data(x=300.0), rail)
    far = next(limb for limb in FIGURE.limbs if limb.id == "far-arm")
    hand, hanging = (on_bone(one, "far-arm.lower", far.joints[2]) for one in (baked, plain))
    np.testing.assert_allclose(hand[[0, 40, 150]], hanging[[0, 40, 150]], atol=1e-6)
    np.testing.assert_allclose(hand[60:101], [[325, 400]] * 41, atol=1e-6)
    assert np.hypot(*np.diff(hand, axis=0).T).max() < 8, "without a jump"


def test_a_satchel_follows_the_hips_a_little_later():
    follow = {"id": "f", "kind": "follow", "channels": ["rotation"], "settings": {"leader": "walker", "reads": "hips.turn", "delay": 4, "share": 2}}
    bag = shape("bag", parent="walker", x=0, y=-96, rules=[follow]) | {"bone": "spine.1"}
    baked = walking(data(), bag)
    turn = baked["Walker", "hips.turn"]
    np.testing.assert_allclose(baked["Bag", "rotation"][4:], 2 * (turn[:-4] - turn[0]), atol=1e-6)


def test_arms_go_against_the_legs_and_tails_drag_behind():
    baked = walking(data(x=channel((0, 0), (24, 114), before="coast", after="coast"), overlap=0.0))
    leg, arm = baked["Walker", "near-leg.x"], baked["Walker", "near-arm.upper"]
    # Turned clockwise a hanging arm goes back: with the leg in front it lies behind.
    assert np.corrcoef(leg, arm)[0, 1] > 0.8
    late = walking(data(x=channel((0, 0), (24, 114), before="coast", after="coast"), overlap=2.0))
    first, second = late["Walker", "tail.1"], late["Walker", "tail.2"]
    np.testing.assert_allclose(second[40:200], first[38:198], atol=1e-6)
