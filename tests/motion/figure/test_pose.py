"""Poses: at rest all is as drawn; bones keep their lengths; their children goes along; facing mirrors."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.motion.scenes import scene, shape
from vine_swing.motion import SceneFileError, bake
from vine_swing.motion.figure.channels import joint_channels
from vine_swing.motion.figure.pose import bones
from vine_swing.motion.figure.starters import STARTERS, scaled

STARTED = sorted(STARTERS)


def rest(figure, **changed):
    found = {name: np.array([float(spec.default)]) for name, spec in joint_channels(figure).items()}
    return found | {name.replace("__", ".").replace("_", "-"): np.atleast_1d(np.asarray(v, float)) for name, v in changed.items()}


def moved(m, point):
    return np.stack([m[:, 0] * point[0] + m[:, 2] * point[1] + m[:, 4], m[:, 1] * point[0] + m[:, 3] * point[1] + m[:, 5]], axis=-1)


@pytest.mark.parametrize("starter", STARTED)
def test_at_rest_every_bone_is_where_it_was_drawn(starter):
    figure = STARTERS[starter].figure
    for name, m in bones(figure, rest(figure)).items():
        np.testing.assert_allclose(m, [[1, 0, 0, 1, 0, 0]], atol=1e-9, err_msg=name)


@pytest.mark.parametrize("starter", STARTED)
@given(st.data())
@settings(max_examples=25, deadline=None)
def test_bones_keep_their_lengths_and_meet_at_their_joints(starter, data):
    figure = STARTERS[starter].figure
    channels = {name: np.array([data.draw(st.floats(-120, 120)), data.draw(st.floats(-120, 120))]) for name in joint_channels(figure)}
    channels |= {name: np.array([data.draw(st.floats(0, 1))] * 2) for name in channels if name.endswith(".reach")}
    channels["facing"] = np.array([1.0, -1.0])
    found = bones(figure, channels)
    for name, bone in figure.bones.items():
        a, b = moved(found[name], bone.start), moved(found[name], bone.end)
        length = np.hypot(bone.end[0] - bone.start[0], bone.end[1] - bone.start[1])
        np.testing.assert_allclose(np.hypot(*(b - a).T), length, atol=1e-9)
    for limb in figure.limbs:
        for before, after, n in (("upper", "lower", 1), ("lower", "end", 2)):
            np.testing.assert_allclose(
                moved(found[f"{limb.id}.{before}"], limb.joints[n]), moved(found[f"{limb.id}.{after}"], limb.joints[n]), atol=1e-9
            )


def test_a_reaching_hand_gets_there_and_a_hanging_one_turns_joint_by_joint():
    figure = STARTERS["two-legs"].figure
    arm = next(limb for limb in figure.limbs if limb.id == "near-arm")
    reaching = bones(figure, rest(figure, near_arm__reach=1, near_arm__x=20, near_arm__y=-30))
    np.testing.assert_allclose(moved(reaching["near-arm.lower"], arm.joints[2]), [[arm.joints[2][0] + 20, arm.joints[2][1] - 30]], atol=1e-9)
    hanging = bones(figure, rest(figure, near_arm__upper=90))
    shoulder, elbow = arm.joints[0], arm.joints[1]
    dx, dy = elbow[0] - shoulder[0], elbow[1] - shoulder[1]
    np.testing.assert_allclose(moved(hanging["near-arm.upper"], elbow), [[shoulder[0] - dy, shoulder[1] + dx]], atol=1e-9)
    # Half-way between both it lies between both.
    half = moved(bones(figure, rest(figure, near_arm__reach=0.5, near_arm__x=20, near_arm__y=-30))["near-arm.lower"], arm.joints[2])[0]
    assert arm.joints[2][0] < half[0] < arm.joints[2][0] + 20


def test_facing_mirrors_about_the_origin():
    figure = STARTERS["bird"].figure
    right, left = (bones(figure, rest(figure, spine__turn=20, facing=way)) for way in (1, -1))
    for name, bone in figure.bones.items():
        np.testing.assert_allclose(moved(left[name], bone.end), moved(right[name], bone.end) * [-1, 1], atol=1e-9)


def test_what_hangs_on_a_bone_goes_along_about_its_own_pivot():
    figure = STARTERS["two-legs"].figure
    walker = {
        "id": "w",
        "name": "W",
        "kind": "figure",
        "figure": figure.model_dump(mode="json"),
        "channels": {"x": 300, "y": 400, "head.turn": 30, "hips.y": 7},
    }
    cap = shape("cap", parent="w", x=6, y=-190, rotation=15) | {"bone": "head.1"}
    one = bake(scene(walker, cap))
    m, head = one.objects["cap"].world, one.objects["w"].bones["head.1"]
    np.testing.assert_allclose(m[:, 4:6], moved(head, (6, -190)), atol=1e-9)
    assert np.degrees(np.arctan2(m[0, 1], m[0, 0])) == pytest.approx(45)
    plain = bake(scene(walker, shape("cap", parent="w", x=6, y=-190)))
    np.testing.assert_allclose(plain.objects["cap"].world[0, 4:6], [306, 210], atol=1e-9)


def test_what_does_not_fit_is_refused_with_its_place():
    figure = STARTERS["two-legs"].figure.model_dump(mode="json")
    walker = {"id": "w", "name": "W", "kind": "figure", "figure": figure}
    with pytest.raises(SceneFileError, match="'Cap' is attached to the bone 'wing' of 'W'; there is hips, spine.1"):
        scene(walker, shape("cap", parent="w") | {"bone": "wing"})
    with pytest.raises(SceneFileError, match="its parent is not a figure"):
        scene(shape("box"), shape("cap", parent="box") | {"bone": "hips"})
    with pytest.raises(SceneFileError, match="two parts of the figure are called 'Near leg'"):
        scene(walker | {"figure": figure | {"limbs": [figure["limbs"][0], figure["limbs"][0] | {"id": "other"}]}})
    with pytest.raises(SceneFileError, match="'Spine' has no length; pull its joints apart"):
        scene(walker | {"figure": figure | {"spine": [[0, -90], [0, -90]]}})
    with pytest.raises(SceneFileError, match="moves joints, which only figures have"):
        scene(shape("mango", rules=[{"id": "g", "kind": "gait"}]))


def test_a_figure_twice_as_large_is_the_same_figure():
    figure = STARTERS["four-legs"].figure
    large = scaled(figure, 2)
    assert large.leg_length == pytest.approx(2 * figure.leg_length, rel=1e-3)
    assert set(large.bones) == set(figure.bones)
