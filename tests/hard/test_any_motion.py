"""After whatever was edited, the motion a page is sent is that of the scene in its current state, baked from nothing."""

import json
from typing import Any

import msgpack
import numpy as np
import pytest

from tests.hard.any_changes import FIRST, ROUNDS, changes
from tests.service.following import described
from vine_swing.motion import MotionError
from vine_swing.service.motion import Motion

#: How far numbers may be apart, px or degrees and as a share: what is computed beside other objects may be rounded otherwise.
CLOSE = {"atol": 0.01, "rtol": 1e-4}


def numbers(data: bytes) -> np.ndarray:
    return np.frombuffer(data, "<f4").astype(float)


def differences(one: Any, other: Any, place: str = "") -> list[str]:
    """Where two messages differ."""
    if isinstance(one, dict) and isinstance(other, dict):
        if one.keys() != other.keys():
            return [f"{place}: {sorted(one.keys() ^ other.keys())}"]
        return [found for name in one for found in differences(one[name], other[name], f"{place}/{name}")]
    if isinstance(one, bytes) and isinstance(other, bytes) and place.rpartition("/")[2] in ("d", "points", "bounds"):
        same = len(one) == len(other) and np.allclose(numbers(one), numbers(other), **CLOSE)
    elif isinstance(one, list) and isinstance(other, list) and len(one) == len(other):
        return [found for n, pair in enumerate(zip(one, other, strict=True)) for found in differences(*pair, f"{place}/{n}")]
    else:
        same = bool(np.isclose(one, other, **CLOSE)) if isinstance(one, float) and isinstance(other, float) else one == other
    return [] if same else [place]


def sent(motion: Motion) -> dict[str, Any]:
    return described(msgpack.unpackb(motion.message()))


@pytest.mark.parametrize("number", range(FIRST, FIRST + ROUNDS))
def test_the_motion_after_edits_is_that_of_a_fresh_bake(number):
    for changed in changes(number):
        try:
            fresh = Motion.of(changed.scene, changed.motion.revision)
        except MotionError:
            continue
        found = differences(sent(changed.motion), sent(fresh))
        assert found == [], f"{number}, {changed.scene.name}: {json.dumps(changed.edits)[-2000:]}"
