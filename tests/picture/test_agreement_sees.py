"""A test of a test: page and export are compared pixel by pixel, and that comparison must notice a missing object."""

from dataclasses import replace

import numpy as np
import pytest

from demo.make import SCENES
from vine_swing.motion import bake, load
from vine_swing.picture.paint import Painter
from vine_swing.picture.paint_list import Copies, Group, Instance, leaves

#: The most that a pixel of the page may differ from the export's, of 255: edges are smoothed by two different programs.
FARTHEST = 12


def without(steps, left_out):
    """Steps without one that paints something."""
    kept = []
    for step in steps:
        if isinstance(step, Group | Instance):
            kept.append(replace(step, children=without(step.children, left_out)))
        elif isinstance(step, Copies):
            kept.append(replace(step, each=tuple(without(one, left_out) for one in step.each)))
        elif step is not left_out:
            kept.append(step)
    return tuple(kept)


@pytest.mark.parametrize("path", sorted(SCENES.glob("*.json")), ids=lambda path: path.stem)
def test_a_step_that_is_left_out_is_noticed(path):
    scene = load(path)
    painter = Painter(bake(scene))
    whole = painter.list
    noticed, shown = 0, 0
    for frame in (0, 17, scene.length - 1):
        painter.list = whole
        picture = painter.frame(frame).astype(np.int16)
        for step in leaves(whole.steps):
            painter.list = replace(whole, steps=without(whole.steps, step))
            far = np.abs(painter.frame(frame) - picture).max()
            shown += far > 0
            noticed += far > FARTHEST
    assert shown
    # What is nearly see-through, or of nearly the colour of what lies behind it, may be missed.
    assert noticed >= 0.95 * shown, f"{shown - noticed} of {shown} would not be missed"
