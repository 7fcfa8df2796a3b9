"""What a painter needs of each baked object, whatever its kind: per-frame arrays and outlines.

The paint list is made of them (listing.py).
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.bake import Baked
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.outline.shapes import DRAWN
from vine_swing.motion.outline.svg_path import parse_path
from vine_swing.motion.scene.model import OutlineShape, Shape
from vine_swing.picture.paint_list import OutlineTrack

Array = NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class Drawable:
    """One painted thing. Arrays have a row per frame or a single one; colours are sRGB with alpha, 0…1."""

    id: str
    baked: BakedObject
    outline: OutlineTrack
    fill: Array
    stroke: Array
    stroke_width: Array


def drawables(baked: Baked, previous: dict[str, Drawable] | None = None) -> dict[str, Drawable]:
    """The drawables of a scene in drawing order, taken from `previous` where the object is the same. Groups have none."""
    old = previous or {}
    result: dict[str, Drawable] = {}
    for object_id, one in baked.objects.items():
        was = old.get(object_id)
        if was is not None and was.baked is one:
            result[object_id] = was
        elif (shape := one.source.drawn_shape) is not None:
            ch = one.channels
            result[object_id] = Drawable(object_id, one, _track(one, shape, was), ch["fill"], ch["stroke"], ch["stroke.width"])
    return result


def _track(one: BakedObject, shape: Shape, was: Drawable | None) -> OutlineTrack:
    before = was.baked if was is not None else None
    names = [] if isinstance(shape, OutlineShape) else list(DRAWN[shape.type][1])
    same_shape = before is not None and before.source.drawn_shape == shape
    if was is not None and same_shape and all(one.channels[name] is was.baked.channels[name] for name in names):
        return was.outline
    if isinstance(shape, OutlineShape):
        return OutlineTrack([parse_path(shape.d)], np.zeros(1, np.uint16), one.source.id)
    draw, words = DRAWN[shape.type]
    values = np.stack(np.broadcast_arrays(*(_within(one, name) for name in names)), axis=-1)
    distinct, which = np.unique(values, axis=0, return_inverse=True)
    outlines = [draw(**{words[name]: float(v) for name, v in zip(names, row, strict=True)}) for row in distinct]
    return OutlineTrack(outlines, which.reshape(-1).astype(np.uint16), one.source.id)


def _within(one: BakedObject, name: str) -> Array:
    spec = one.source.specs[name]
    return np.clip(one.channels[name], spec.low, spec.high) if spec.low is not None else one.channels[name]
