"""A test of a test: page and export are compared pixel by pixel, and that comparison must notice a missing object."""

from dataclasses import replace

import numpy as np
import pytest

from demo.make import SCENES
from vine_swing.motion import bake, load
from vine_swing.picture.paint import Painter
from vine_swing.picture.paint_list import Copies, Group, Instance, leaves

#: Edges are smoothed by two different programs. Of the pixels of two pictures, at most this many may differ by more than so much of 255: where an
#: edge is nearly level, the two count what it covers differently.
ALLOWED = ((20, 12), (2, 16), (0, 32))


def differ(one, other):
    """Whether two pictures, or as many pixels of both, arrays of integers of shape (…, channels), differ by more than the smoothing of edges."""
    far = np.abs(one - other).max(axis=-1)
    return any((far > beyond).sum() > most for most, beyond in ALLOWED)


def pixels(picture):
    """The pixels of an 8-bit RGBA picture, (height, width), as one number each."""
    return np.ascontiguousarray(picture).view(np.uint32)[..., 0]


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
        picture = painter.frame(frame)
        for step in leaves(whole.steps):
            painter.list = replace(whole, steps=without(whole.steps, step))
            less = painter.frame(frame)
            # Most of a picture is the same without one step: only the other pixels are compared.
            others = pixels(less) != pixels(picture)
            shown += others.any()
            noticed += differ(less[others].astype(np.int16), picture[others].astype(np.int16))
    assert shown
    # What is nearly see-through, or of nearly the colour of what lies behind it, may be missed.
    assert noticed >= 0.92 * shown, f"{shown - noticed} of {shown} would not be missed"
