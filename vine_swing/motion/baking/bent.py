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
        objects: by id; those nothing bends are given back as they are.
        scene, grid: what was baked, and its frames (n,).
        reader: reads outlines of the scene.
        old: objects of an earlier bake at the same frames; outlines made from the same are taken from them.
        around: all objects of the bake, to find those that others are attached to.
        anew: whether to recompute all outlines.
    """
    found = dict(objects)
    for object_id, one in objects.items():
        reader.effort.advance(1 / len(objects))
        if not is_bent(scene, one.source):
            found[object_id] = _not_bent(one, reader, old.get(object_id))
            continue
        inputs = _inputs(one, scene, reader, around)
        was = old.get(object_id)
        if was is not None and not anew(object_id) and inputs.same_as(was.bent_from):
            if one is not was:
                found[object_id] = replace(one, bent=was.bent, bent_from=was.bent_from)
            continue
        shape = one.source.drawn_shape if one.source is not scene.by_id[object_id] else None
        bent = reader.seen(scene.by_id[object_id], grid, shape=shape, worlds=lambda other: around[other].world)
        found[object_id] = replace(one, bent=bent, bent_from=inputs)
    return found


def bent_beside(scene: Scene, plan: Plan, object_ids: Iterable[str]) -> set[str]:
    """What bends some objects from above, and its descendants: how it bends one follows the bounds of all."""
    above = {one.id for object_id in object_ids for one in scene.upwards(scene.by_id[object_id].parent) if one.rules_on(OUTLINE)}
    return plan.below(above)


def _not_bent(one: BakedObject, reader: OutlineReader, was: BakedObject | None) -> BakedObject:
    """An object that nothing bends; one that bends its children is another as soon as the bounds of that are."""
    box = Inputs((), (reader.box(one.source),)) if one.source.rules_on(OUTLINE) else None
    if box is not None and was is not None and box.same_as(was.bent_from):
        box = was.bent_from
    return one if one.bent is None and one.bent_from is box else replace(one, bent=None, bent_from=box)


def _inputs(one: BakedObject, scene: Scene, reader: OutlineReader, around: Mapping[str, BakedObject]) -> Inputs:
    thing = one.source
    shape = thing.drawn_shape
    assert shape is not None
    parts: list[object] = [thing.channels.get(OUTLINE)]
    parts += [one.channels[name] for name in drawing_of(shape).names]
    boxes = []
    for owner in (one, *(around[above.id] for above in benders(scene, thing))):
        rules = owner.source.rules_on(OUTLINE)
        parts += rules
        ids = {rule.id for rule in rules}
        parts += [values for name, values in owner.channels.items() if SETTING in name and name.partition(SETTING)[0] in ids]
        if owner is not one and owner.world is not None:
            parts += [owner.world, one.world]
            boxes.append(reader.box(owner.source))
    return Inputs(tuple(parts), (shape, boxes))
