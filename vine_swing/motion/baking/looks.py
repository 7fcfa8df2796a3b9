"""Looks over time: the settings of rules on looks, and which objects mask which.

What a look is like is up to the painters; the core says when and how much.
"""

from collections.abc import Callable, Mapping
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.look import BakedLook
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.basics import colour
from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.basics.specs import LOOK
from vine_swing.motion.rules.rule import SETTING, Rule
from vine_swing.motion.rules.spec import LookValues
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject

Array = NDArray[np.float64]


def with_looks(
    objects: Mapping[str, BakedObject], frames: Array, setting: Callable[[str, str], Array], old: Mapping[str, BakedObject]
) -> dict[str, BakedObject]:
    """Some baked objects with the rules at work on their looks.

    Args:
        objects: by id.
        frames: (n,).
        setting: gives a setting that has keys or a formula, by the object's id and `rule:setting`.
        old: the objects of an earlier bake; unchanged arrays are taken from them.
    """
    result = dict(objects)
    for object_id, obj in objects.items():
        rules = obj.source.rules_on(LOOK)
        was = old.get(object_id)
        if obj is was or (not rules and not obj.look):
            continue
        before = {look.rule.id: look for look in was.look} if was is not None else {}
        looks = tuple(_baked(rule, obj, frames, setting, before.get(rule.id)) for rule in rules)
        same = was is not None and len(was.look) == len(looks) and all(a is b for a, b in zip(was.look, looks, strict=True))
        result[object_id] = replace(obj, look=was.look if was is not None and same else looks)
    return result


def _baked(rule: Rule, baked: BakedObject, frames: Array, setting: Callable[[str, str], Array], was: BakedLook | None) -> BakedLook:
    values = {}
    for name, spec in rule.spec.settings.items():
        if spec.is_word:
            continue
        called = f"{rule.id}{SETTING}{name}"
        if called in baked.source.moving_settings:
            array = setting(baked.source.id, called)
            values[name] = np.clip(array, spec.low, spec.high) if spec.low is not None or spec.high is not None else array
            cached = was.values[name] if was is not None else None
            if cached is not None and np.array_equal(cached, values[name]):
                values[name] = cached
        elif was is not None and was.rule is rule:
            values[name] = was.values[name]
        else:
            values[name] = colour.parse_hex(rule.colour(name))[None] if spec.holds == "colour" else np.array([rule.plain(name) or 0.0])
    place = baked.place if rule.spec.derived is not None else None
    if was is not None and was.rule is rule and was.made_from is place and all(was.values[name] is array for name, array in values.items()):
        return was
    derived = rule.spec.derived(LookValues(values, rule.word, baked.place, frames)) if rule.spec.derived is not None else {}
    return BakedLook(rule, values, derived, place)


def check_masks(scene: Scene) -> None:
    """Refuse objects that mask each other in a ring.

    Raises:
        MotionError: naming the ring.
    """
    masked = {obj.id: masks for obj in scene.objects if obj.rules and (masks := _masks(scene, obj))}
    if not masked:
        return
    #: What the picture of an object takes: by whom each mask in it is asked for, and what masks.
    takes: dict[str, list[tuple[str, str]]] = {}
    for object_id, masks in masked.items():
        for above in scene.upwards(object_id):
            takes.setdefault(above.id, []).extend((object_id, mask) for mask in masks)
    done: set[str] = set()
    for first in takes:
        path: list[tuple[str, str]] = []
        waiting: list[tuple[str, str] | None] = [("", first)]
        while waiting:
            step = waiting.pop()
            if step is None:
                done.add(path.pop()[1])
                continue
            pictures = [picture for _, picture in path]
            if step[1] in pictures:
                ring = [*path[pictures.index(step[1]) + 1 :], step]
                message = ", ".join(f"'{scene.by_id[item].name}' by '{scene.by_id[mask].name}'" for item, mask in ring)
                raise MotionError(f"these mask each other, or something they are part of, in a ring: {message}; choose another mask for one of them")
            if step[1] not in done:
                path.append(step)
                waiting += [None, *takes.get(step[1], ())]


def _masks(scene: Scene, obj: SceneObject) -> list[str]:
    return [by for rule in obj.rules_on(LOOK) if rule.kind == "mask" and (by := rule.word("by")) in scene.by_id]


def remark_on_mask(scene: Scene, obj: SceneObject, rule: Rule) -> str | None:
    """What keeps a mask from doing its work, in a sentence; None where all is well."""
    by = rule.word("by")
    if not by:
        return "choose the object it is masked by; until then all of it is seen"
    other = scene.by_id.get(by)
    if other is None:
        return "the object it was masked by is gone; all of it is seen"
    if other.kind == "camera":
        return "a camera has no picture to mask by; choose another object"
    if _parade_of(scene, obj) != _parade_of(scene, other):
        return f"'{other.name}' is not in the same parade; put the mask on the parade, or both into it"
    return None


def _parade_of(scene: Scene, obj: SceneObject) -> str | None:
    return next((above.id for above in scene.upwards(obj.parent) if above.copying is not None), None)
