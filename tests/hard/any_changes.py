"""Random edits of the demo scenes and of random ones, some of them taken back, with the motion that is kept up with them."""

import os
import random
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from pydantic import TypeAdapter, ValidationError

from demo.make import SCENES
from tests.hard.any_edits import AnyEdits
from vine_swing.motion import MotionError, Scene, load
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.scene.scene_file import from_data
from vine_swing.service.motion import Motion
from vine_swing.service.session import refuse_beyond, with_inner

#: Few rounds in CI; `make hard` runs many (`SEQUENCES`), and `FIRST` runs again from one that failed.
ROUNDS = max(16, int(os.environ.get("SEQUENCES", "0")) // 20)
FIRST = int(os.environ.get("FIRST", "0"))
_STEPS = 14
_EDITS: TypeAdapter[list[AnyEdit]] = TypeAdapter(list[AnyEdit])


@dataclass(frozen=True)
class Changed:
    """A scene after some edits, its motion unchanged kept up with them, and the edits, to be told where something is wrong."""

    scene: Scene
    motion: Motion
    edits: list[Any]


def changes(number: int) -> Iterator[Changed]:
    """What a scene is after each of some random edits that are accepted; equal numbers, equal edits."""
    draw = random.Random(number)
    anything = AnyEdits(draw)
    scene, motion = _drawn_scene(anything)
    past, edits = [scene], list[Any]()
    for _ in range(_STEPS):
        undone = len(past) > 1 and draw.random() < 0.25
        # Now and then inside one of its inner scenes.
        inner = draw.choice(scene.insets).id if not undone and scene.insets and draw.random() < 0.3 else None
        edit = "undo" if undone else anything.edit(scene if inner is None else scene.inner_as_scene(inner))
        after = past.pop() if undone else _edited(scene, edit, inner)
        if after is None or after is scene:
            continue
        try:
            updated = motion.updated(after, motion.revision + 1)
            refuse_beyond(updated, motion)
        except MotionError:
            continue
        if not undone:
            past.append(scene)
        scene, motion = after, updated
        edits.append(edit if inner is None else {"inside": inner, **edit})
        yield Changed(scene, motion, edits)


def _drawn_scene(anything: AnyEdits) -> tuple[Scene, Motion]:
    """A demo scene, or a random one that the service would take."""
    while anything.chance(0.6):
        try:
            scene = from_data(anything.scene())
            return scene, Motion.of(scene, 0)
        except (MotionError, ValidationError):
            continue
    scene = load(anything.draw.choice(sorted(SCENES.glob("*.json"))))
    return scene, Motion.of(scene, 0)


def _edited(scene: Scene, edit: dict[str, Any], inner: str | None) -> Scene | None:
    """A scene after an edit of it, or of one inside it; None if that is refused."""
    before = scene if inner is None else scene.inner_as_scene(inner)
    try:
        after = apply_all(before, _EDITS.validate_python([edit]))
        if after is before:
            return scene
        return after if inner is None else with_inner(scene, inner, after)
    except (MotionError, ValidationError):
        return None
