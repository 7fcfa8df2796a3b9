"""The example of the scene file format, against hand calculation."""

import json
import math

import numpy as np
import pytest

from tests.motion.scenes import EXAMPLE
from vine_swing.motion import MotionError, bake, dump, load, parse


def test_the_mango_rocks_for_ever_and_swings():
    baked = bake(parse(json.dumps(EXAMPLE)))
    x = baked["Mango", "x"]
    assert x.dtype == np.float64
    assert x.shape == (120,)
    assert x.tolist() == [100 + 10 * (f % 48 if f % 48 <= 24 else 48 - f % 48) for f in range(120)]
    np.testing.assert_allclose(baked["Mango", "rotation"], [15 * math.sin(2 * math.pi * 0.6 * f / 24) for f in range(120)], atol=1e-12)
    assert baked.dials["wind"].tolist() == [0.4]


def test_any_frames_in_any_order():
    baked = bake(parse(json.dumps(EXAMPLE)), np.array([6.5, -3.0, 1e6 + 6, 24.0]))
    np.testing.assert_allclose(baked["Mango", "x"], [165, 100, 100 + 10 * (24 - abs((1e6 + 6) % 48 - 24)), 340], rtol=0, atol=1e-8)


def test_load_reads_files_and_dump_writes_what_parse_reads(tmp_path):
    path = tmp_path / "mango.json"
    path.write_text(json.dumps(EXAMPLE), encoding="utf-8")
    scene = load(path)
    assert parse(dump(scene)) == scene
    assert '"hold"' not in dump(scene), "defaults are left out"


def test_asking_for_what_is_not_there_says_what_is():
    baked = bake(parse(json.dumps(EXAMPLE)))
    with pytest.raises(MotionError, match="there is no object 'Papaya'; there are Mango"):
        _ = baked["Papaya", "x"]
    with pytest.raises(MotionError, match="'Mango' has no channel 'z'; it has x, y,"):
        _ = baked["Mango", "z"]
    with pytest.raises(MotionError, match="finite"):
        bake(parse(json.dumps(EXAMPLE)), np.array([np.nan]))
