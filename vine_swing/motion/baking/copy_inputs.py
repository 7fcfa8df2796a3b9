"""What lists, overrules and formulas give each copy of a parade: which channels differ from copy to copy, and what becomes of them."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.plan import Plan
from vine_swing.motion.basics.specs import WORDS
from vine_swing.motion.formula import tells_copies_apart
from vine_swing.motion.parade.lists import colours_for, numbers_for, words_for
from vine_swing.motion.parade.model import ITEM, ItemList, Parade
from vine_swing.motion.rules.link import tree_of
from vine_swing.motion.rules.rule import SETTING, Rule
from vine_swing.motion.scene.graph import Ref
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.shapes import TextShape
from vine_swing.motion.timing.channel import Channel

Array = NDArray[np.float64]
#: From a channel's values (1, n) or (1, n, 4) to those of one copy.
Change = Callable[[Array], Array]


@dataclass(frozen=True)
class CopyInputs:
    """What each of `count` copies is given.

    varying: the channels that may differ from copy to copy.
    changes: for each copy, what becomes of a channel after all its rules.
    words: for each copy, the words of texts by the id of their object.
    items: for each copy, the number that formulas call `item`.
    lists_only: whether lists are all that differs, and nothing else reads what they change.
    """

    count: int
    varying: frozenset[Ref]
    changes: tuple[Mapping[Ref, Change], ...]
    words: tuple[Mapping[str, str], ...]
    items: tuple[float, ...]
    lists_only: bool


def inputs_of_copies(scene: Scene, plan: Plan, parade: Parade, below: list[str], parts: list[SceneObject], count: int) -> CopyInputs:
    """Return the per-copy inputs of a parade.

    Args:
        scene, plan: of the parade.
        parade: what says it.
        below: the ids of its descendants, however deep.
        parts: the same as objects, without what is in a parade among it: their formulas know which copy they are for.
        count: of copies.
    """
    inside = set(below)
    changes: list[dict[Ref, Change]] = [{} for _ in range(count)]
    words: list[dict[str, str]] = [{} for _ in range(count)]
    items = [0.0] * count
    for item in parade.lists:
        if item.channel == ITEM and item.object is None:
            items = [0.0 if value is None else value for value in numbers_for(item, count)]
        elif item.object in inside:
            _from_list(scene.by_id[item.object], item, count, changes, words)
    for overrule in parade.overrules:
        if overrule.object in inside and overrule.copy_ < count:
            single = ItemList(object=overrule.object, channel=overrule.channel, values=(overrule.value,), fill="once")
            _from_list(scene.by_id[overrule.object], single, 1, [changes[overrule.copy_]], [words[overrule.copy_]])
    listed = {ref for change in changes for ref in change}
    told_apart = {(obj.id, name) for obj in parts for name in _asks(obj)}
    start = listed | told_apart
    varying = {ref for ref in start | plan.followers(list(start)) if ref[0] in inside} if start else set()
    return CopyInputs(count, frozenset(varying), tuple(changes), tuple(words), tuple(items), varying == listed)


def _asks(obj: SceneObject) -> list[str]:
    """The channels of an object whose rules ask which copy they are for, and the settings of its look that do."""
    asking = [rule for rule in obj.rules if rule.on and any(_tells_apart(formula) for formula in _formulas(rule))]
    settings = [
        f"{rule.id}{SETTING}{name}"
        for rule in asking
        if rule.spec.value_kind == "look"
        for name, setting in rule.settings.items()
        if isinstance(setting, Channel) and setting.formula is not None and _tells_apart(setting.formula)
    ]
    return settings + [name for name in obj.specs if asking and any(rule in asking for rule in obj.rules_on(name))]


def _formulas(rule: Rule) -> list[str]:
    own = [rule.word("formula")] if "formula" in rule.spec.settings else []
    return own + [setting.formula for setting in rule.settings.values() if isinstance(setting, Channel) and setting.formula is not None]


def _tells_apart(formula: str) -> bool:
    node = tree_of(formula)
    return node is not None and tells_copies_apart(node)


def _from_list(obj: SceneObject, item_list: ItemList, count: int, changes: list[dict[Ref, Change]], words: list[dict[str, str]]) -> None:
    """Add what one list gives to each copy."""
    if item_list.channel == WORDS and isinstance(obj.drawn_shape, TextShape):
        for k, message in enumerate(words_for(item_list, count)):
            if message is not None:
                words[k][obj.id] = message
        return
    spec = obj.specs.get(item_list.channel)
    if spec is None or not spec.has_array:
        return
    values: list[float | None] | list[Array | None] = colours_for(item_list, count) if spec.is_colour else numbers_for(item_list, count)
    for k, value in enumerate(values):
        if value is not None:
            before = changes[k].get((obj.id, item_list.channel))
            changes[k][obj.id, item_list.channel] = _change(item_list.mode, np.asarray(value, float), before)


def _change(mode: str, row: Array, before: Change | None) -> Change:
    def change(values: Array) -> Array:
        so_far = before(values) if before is not None else values
        if mode == "replace":
            return np.broadcast_to(row, so_far.shape).copy()
        created = so_far + row if mode == "add" else so_far * row
        return np.clip(created, 0.0, 1.0) if row.ndim else created

    return change
