"""Keeping formulas true when what they name gets another name."""

from collections.abc import Callable

from vine_swing.motion.rules.rule import Rule, Setting
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.timing.channel import Channel


def with_formulas(scene: Scene, changed: Callable[[str], str]) -> Scene:
    """The scene with all its formulas changed."""
    return scene.copy_with(objects=tuple(object_with_formulas(thing, changed) for thing in scene.objects))


def object_with_formulas(thing: SceneObject, changed: Callable[[str], str]) -> SceneObject:
    """An object with its formulas changed; the same object if none became another."""
    rules = tuple(_rule_with_formulas(rule, changed) for rule in thing.rules)
    same = all(new is old for new, old in zip(rules, thing.rules, strict=True))
    return thing if same else thing.copy_with(rules=rules)


def _rule_with_formulas(rule: Rule, changed: Callable[[str], str]) -> Rule:
    def setting(name: str, before: Setting) -> Setting:
        if not isinstance(before, Channel):
            return changed(before) if rule.spec.settings[name].names == "formula" else before
        after = None if before.formula is None else changed(before.formula)
        return before if after == before.formula else before.copy_with(formula=after)

    settings = {name: setting(name, before) for name, before in rule.settings.items()}
    return rule if settings == rule.settings else rule.copy_with(settings=settings)
