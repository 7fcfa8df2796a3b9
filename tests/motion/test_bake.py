"""The first thing that has to hold: two keys, and the frames between them."""

import numpy as np

from vine_swing.motion import bake, parse

MANGO = """{"format": "vine-swing-scene", "version": 1, "name": "Throw", "objects": [{"id": "mango", "name": "Mango",
  "kind": "shape", "shape": {"type": "ellipse"}, "channels": {"x": {"base": 100,
    "keys": [{"frame": 0, "value": 100, "ease": "linear"}, {"frame": 24, "value": 340, "ease": "linear"}],
    "after": {"mode": "ping-pong", "times": null}}}}]}"""


def test_two_keys_rock_for_ever():
    x = bake(parse(MANGO))["Mango", "x"]
    assert x.shape == (120,)
    assert x.dtype == np.float64
    assert x[[0, 12, 24, 36, 48, 60, 72]].tolist() == [100, 220, 340, 220, 100, 220, 340]


def test_any_frames_can_be_baked():
    baked = bake(parse(MANGO), np.array([6.5, -3.0, 1e6 + 6]))
    np.testing.assert_allclose(baked["Mango", "x"], [165, 100, 100 + 10 * abs((1e6 + 6 + 24) % 48 - 24)], rtol=0, atol=1e-9)
