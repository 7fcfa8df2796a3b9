"""What a painter needs of each baked object, whatever its kind: per-frame arrays and outlines.

The Skia painter and the page both paint drawables and nothing else.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.bake import Baked
from vine_swing.motion.model import OutlineShape, Scene, SceneObject, ShapeObject
from vine_swing.motion.outline import Outline
from vine_swing.motion.placing import BakedObject
from vine_swing.motion.shapes import DRAWN
from vine_swing.motion.svg_path import parse_path

Array = NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class OutlineTrack:
    """The outlines an object has over time: `which` (n,) or (1,) picks one of `outlines` for each frame."""

    outlines: list[Outline]
    which: NDArray[np.uint16]


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
        elif isinstance(one.source, ShapeObject):
            ch = one.channels
            result[object_id] = Drawable(object_id, one, _track(one, one.source, was), ch["fill"], ch["stroke"], ch["stroke.width"])
    return result


def hidden(scene: Scene) -> list[str]:
    """The ids of objects that are not shown: themselves, or something they hang on."""
    return [thing.id for thing in scene.objects if not _is_shown(scene, thing)]


def _is_shown(scene: Scene, thing: SceneObject) -> bool:
    at: SceneObject | None = thing
    while at is not None and at.shown:
        at = scene.by_id[at.parent] if at.parent is not None else None
    return at is None


def _track(one: BakedObject, source: ShapeObject, was: Drawable | None) -> OutlineTrack:
    shape = source.shape
    before = was.baked if was is not None else None
    names = [] if isinstance(shape, OutlineShape) else list(DRAWN[shape.type][1])
    same_shape = before is not None and isinstance(before.source, ShapeObject) and before.source.shape == shape
    if was is not None and same_shape and all(one.channels[name] is was.baked.channels[name] for name in names):
        return was.outline
    if isinstance(shape, OutlineShape):
        return OutlineTrack([parse_path(shape.d)], np.zeros(1, np.uint16))
    draw, words = DRAWN[shape.type]
    values = np.stack(np.broadcast_arrays(*(_within(one, name) for name in names)), axis=-1)
    distinct, which = np.unique(values, axis=0, return_inverse=True)
    outlines = [draw(**{words[name]: float(v) for name, v in zip(names, row, strict=True)}) for row in distinct]
    return OutlineTrack(outlines, which.reshape(-1).astype(np.uint16))


def _within(one: BakedObject, name: str) -> Array:
    spec = one.source.specs[name]
    return np.clip(one.channels[name], spec.low, spec.high) if spec.low is not None else one.channels[name]
