"""Outlines as points, frame by frame, in JSON: for whoever wants to measure or to draw them elsewhere."""

import json
from typing import TextIO

import numpy as np

from vine_swing.formats.table import frames_of
from vine_swing.motion import MotionError, bake
from vine_swing.motion.scene.model import Scene
from vine_swing.picture.drawable import drawables

#: More points than this are surely a mistyped number.
MAX_POINTS = 20_000_000


def write_outlines(scene: Scene, file: TextIO, *, every: float = 1.0, places: int = 16) -> None:
    """Write `{"frames": [...], "outlines": {"Name": [[[x, y], ...] for each frame]}}`: points along the outline of each drawn object, in its own
    space, the sub-paths of an outline one after the other.

    Args:
        every: frames between two.
        places: points on every curve.

    Raises:
        MotionError: if there are too many points, or none to a curve.
    """
    if not 1 <= places <= 1000:
        raise MotionError(f"--places is {places}; it must be between 1 and 1000")
    baked = bake(scene, frames_of(scene, every))
    result: dict[str, list[list[list[float]]]] = {}
    written = 0
    for drawable in drawables(baked).values():
        points = [np.concatenate([*outline.lines(parts=places), np.empty((0, 2))]).tolist() for outline in drawable.outline.outlines]
        frames = [points[drawable.outline.index_at(row)] for row in range(len(baked.frames))]
        written += sum(map(len, frames))
        if written > MAX_POINTS:
            raise MotionError(f"that would be more than {MAX_POINTS} points; take larger steps, or fewer places on a curve")
        result[drawable.baked.source.name] = frames
    json.dump({"frames": baked.frames.tolist(), "outlines": result}, file)
