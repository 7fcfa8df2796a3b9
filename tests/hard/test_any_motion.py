"""After whatever was edited, the motion a page is sent is that of the scene as it is now, baked from nothing.

Random edits of the demo scenes and of random ones, some of them taken back. Few rounds in CI; `make hard` runs many (`SEQUENCES`, `FIRST`).
"""

import json
import os
import random
from typing import Any

import msgpack
import numpy as np
import pytest
from pydantic import TypeAdapter, ValidationError

from demo.make import SCENES
from tests.hard.any_edits import AnyEdits
from tests.service.following import described
from vine_swing.motion import MotionError, Scene, load
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.scene.scene_file import from_data
from vine_swing.service.motion import Motion
from vine_swing.service.session import refuse_beyond

ROUNDS = max(16, int(os.environ.get("SEQUENCES", "0")) // 20)
FIRST = int(os.environ.get("FIRST", "0"))
STEPS = 14
EDITS: TypeAdapter[list[AnyEdit]] = TypeAdapter(list[AnyEdit])
#: How far numbers may be apart, px or degrees and as a share: what is worked out beside other things may be rounded otherwise.
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


def drawn_scene(anything: AnyEdits) -> Scene:
    """A demo scene, or a random one."""
    while anything.chance(0.6):
        try:
            return from_data(anything.scene())
        except (MotionError, ValidationError):
            continue
    return load(anything.draw.choice(sorted(SCENES.glob("*.json"))))


def edited(scene: Scene, edit: dict[str, Any]) -> Scene | None:
    """A scene after an edit; None if that is refused."""
    try:
        return apply_all(scene, EDITS.validate_python([edit]))
    except (MotionError, ValidationError):
        return None


@pytest.mark.parametrize("number", range(FIRST, FIRST + ROUNDS))
def test_the_motion_after_edits_is_that_of_a_fresh_bake(number):
    draw = random.Random(number)
    anything = AnyEdits(draw)
    scene = drawn_scene(anything)
    motion, past, trail = Motion.of(scene, 0), [scene], list[Any]()
    for _ in range(STEPS):
        undone = len(past) > 1 and draw.random() < 0.25
        edit = "undo" if undone else anything.edit(scene)
        after = past.pop() if undone else edited(scene, edit)
        if after is None or after is scene:
            continue
        try:
            updated = motion.updated(after, motion.revision + 1)
            refuse_beyond(updated, motion)
            fresh = Motion.of(after, updated.revision)
        except MotionError:
            continue
        if not undone:
            past.append(scene)
        scene, motion = after, updated
        trail.append(edit)
        assert differences(sent(updated), sent(fresh)) == [], f"{number}, {scene.name}: {json.dumps(trail)[-2000:]}"
