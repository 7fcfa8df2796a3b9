"""The vine's steps are the very stages the bake goes through."""

import numpy as np
import pytest

from tests.motion.scenes import channel, scene, shape
from vine_swing.motion import NoSuchThing, bake
from vine_swing.motion.baking.explain import explain

SWING = {"id": "s", "kind": "oscillator", "channels": ["x"], "settings": {"amplitude": 5}}


def test_keys_ends_rules_result():
    one = scene(shape("pod", x=channel((5, 0), (10, 50), after="loop"), rules=[SWING, SWING | {"id": "off", "on": False}]), length=40)
    steps = explain(one, "pod", "x")
    assert [step.kind for step in steps] == ["keys", "ends", "oscillator", "oscillator", "result"]
    keys, ends, swing, off, result = (step.values for step in steps)
    assert keys[30] == 50
    assert ends[12] == 20
    np.testing.assert_array_equal(keys[:11], ends[:11])
    assert not np.array_equal(swing, ends)
    np.testing.assert_array_equal(off, swing)
    np.testing.assert_array_equal(result, bake(one)["Pod", "x"])


def test_still_channels_and_colours_are_explained_too():
    one = scene(shape("pod", fill=channel((0, "#FFFFFF"), (9, "#000000"))), length=10)
    assert explain(one, "pod", "y")[-1].values.tolist() == [0] * 10
    assert explain(one, "pod", "fill")[-1].values.shape == (10, 4)
    with pytest.raises(NoSuchThing):
        explain(one, "pod", "wings")
