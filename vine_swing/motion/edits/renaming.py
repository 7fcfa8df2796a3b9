"""Keeping formulas true when what they name gets another name."""

from vine_swing.motion.formula import renamed
from vine_swing.motion.rules.rule import Rule, Setting
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.timing.channel import Channel


def formulas_renamed(scene: Scene, was: str, now: str, names: list[str]) -> Scene:
    """The scene with all formulas true after an object or a dial got another name; `names` are those of objects before."""

    def setting(rule: Rule, name: str, one: Setting) -> Setting:
        if isinstance(one, Channel):
            return one if one.formula is None else _same_or(one, one.copy_with(formula=renamed(one.formula, was, now, names)))
        return renamed(one, was, now, names) if rule.spec.settings[name].names == "formula" else one

    def rule(one: Rule) -> Rule:
        changed = {name: setting(one, name, before) for name, before in one.settings.items()}
        return (
            one
            if all(changed[name] is before or changed[name] == before for name, before in one.settings.items())
            else one.copy_with(settings=changed)
        )

    objects = []
    for thing in scene.objects:
        rules = tuple(rule(one) for one in thing.rules)
        same = all(new is old for new, old in zip(rules, thing.rules, strict=True))
        objects.append(thing if same else thing.copy_with(rules=rules))
    return scene.copy_with(objects=tuple(objects))


def _same_or(before: Channel, after: Channel) -> Channel:
    return before if before.formula == after.formula else after
