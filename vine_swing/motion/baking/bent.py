"""The outlines of a bake: those of objects that keys or rules bend, copied from an earlier bake where they are made from the same."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.inputs import Inputs
from vine_swing.motion.baking.outlines import OutlineReader, benders, is_bent
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.baking.plan import Plan
from vine_swing.motion.basics.specs import OUTLINE
from vine_swing.motion.outline.drawing import drawing_of
from vine_swing.motion.rules.rule import SETTING
from vine_swing.motion.scene.model import Scene

Array = NDArray[np.float64]


def with_outlines(
    objects: Mapping[str, BakedObject],
    scene: Scene,
    grid: Array,
    reader: OutlineReader,
    old: Mapping[str, BakedObject],
    around: Mapping[str, BakedObject],
    *,
    anew: Callable[[str], bool] = lambda object_id: False,
) -> dict[str, BakedObject]:
    """Some baked objects with the outlines that keys and rules make of them.

    Args:
        objects: by id; unbent objects are returned unchanged.
        scene, grid: what was baked, and its frames (n,).
        reader: reads outlines of the scene.
        old: objects of an earlier bake at the same frames; outlines made from the same are taken from them.
        around: all objects of the bake, to find those that others are attached to.
        anew: whether to recompute all outlines.
    """
    result = dict(objects)
    for object_id, obj in objects.items():
        reader.effort.advance(1 / len(objects))
        if not is_bent(scene, obj.source):
            result[object_id] = _not_bent(obj, reader, old.get(object_id))
            continue
        inputs = _inputs(obj, scene, reader, around)
        was = old.get(object_id)
        if was is not None and not anew(object_id) and inputs.same_as(was.bent_from):
            if obj is not was:
                result[object_id] = replace(obj, bent=was.bent, bent_from=was.bent_from)
            continue
        shape = obj.source.drawn_shape if obj.source is not scene.by_id[object_id] else None
        bent = reader.seen(scene.by_id[object_id], grid, shape=shape, worlds=lambda other: around[other].world)
        result[object_id] = replace(obj, bent=bent, bent_from=inputs)
    return result


def bent_beside(scene: Scene, plan: Plan, object_ids: Iterable[str]) -> set[str]:
    """What bends some objects from above, and its descendants: how it bends one follows the bounds of all."""
    above = {upward.id for object_id in object_ids for upward in scene.upwards(scene.by_id[object_id].parent) if upward.rules_on(OUTLINE)}
    return plan.below(above)


def _not_bent(baked: BakedObject, reader: OutlineReader, was: BakedObject | None) -> BakedObject:
    """An object that nothing bends; one that bends its children is a new object as soon as their bounds change."""
    box = Inputs((), (reader.box(baked.source),)) if baked.source.rules_on(OUTLINE) else None
    if box is not None and was is not None and box.same_as(was.bent_from):
        box = was.bent_from
    return baked if baked.bent is None and baked.bent_from is box else replace(baked, bent=None, bent_from=box)


def _inputs(baked: BakedObject, scene: Scene, reader: OutlineReader, around: Mapping[str, BakedObject]) -> Inputs:
    obj = baked.source
    shape = obj.drawn_shape
    assert shape is not None
    parts: list[object] = [obj.channels.get(OUTLINE)]
    parts += [baked.channels[name] for name in drawing_of(shape).names]
    boxes = []
    for owner in (baked, *(around[above.id] for above in benders(scene, obj))):
        rules = owner.source.rules_on(OUTLINE)
        parts += rules
        ids = {rule.id for rule in rules}
        parts += [values for name, values in owner.channels.items() if SETTING in name and name.partition(SETTING)[0] in ids]
        if owner is not baked and owner.world is not None:
            parts += [owner.world, baked.world]
            boxes.append(reader.box(owner.source))
    return Inputs(tuple(parts), (shape, boxes))
