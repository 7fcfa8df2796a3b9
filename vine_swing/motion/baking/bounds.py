"""Where objects lie at one frame, in the picture or in the scene: the boxes around what is drawn of them."""

from collections.abc import Iterable

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.at_frame import baked_at
from vine_swing.motion.baking.baked import Baked
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.baking.surroundings import drawn_outlines
from vine_swing.motion.basics import matrix
from vine_swing.motion.scene.model import Scene

#: left, top, right, bottom, px.
Bounds = tuple[float, float, float, float]
Array = NDArray[np.float64]


def bounds_at(scene: Scene, ids: Iterable[str], frame: float, *, seen: bool = True) -> tuple[Baked, dict[str, Bounds]]:
    """The scene baked at one frame, and the box of each of some objects with its descendants: in the picture, or in the scene unless `seen`.
    Curves are measured themselves, lines without their width; objects without a drawing are a point at their pivot."""
    baked = baked_at(scene, frame)
    copied = baked.plan.below(set(baked.parades)) - baked.parades.keys()
    return baked, {item: _bounds(baked, baked.plan.below({item}) - copied, baked.objects[item], seen) for item in ids}


def _bounds(baked: Baked, below: set[str], top: BakedObject, visited: bool) -> Bounds:
    lens = top.lens if visited and top.lens is not None else matrix.IDENTITY
    objects = {obj: baked.objects[obj] for obj in baked.objects if obj in below}
    boxes = [drawn_outline.extent() for drawn_outline in drawn_outlines(objects, baked.parades, baked.insets, lens, 0) if len(drawn_outline.points)]
    for item in objects.values():
        if item.shown_size is not None and item.source.shown:
            wide, high = item.shown_size[0] / 2
            corners = matrix.apply(item.view if visited else item.world, np.array([-wide, wide, wide, -wide]), np.array([-high, -high, high, high]))
            boxes.append((*corners.min(axis=0), *corners.max(axis=0)))
    if not boxes:
        x, y = matrix.apply(lens, *top.place.T)[0]
        return float(x), float(y), float(x), float(y)
    left, top_, right, bottom = (np.array(side, float) for side in zip(*boxes, strict=True))
    return float(left.min()), float(top_.min()), float(right.max()), float(bottom.max())
