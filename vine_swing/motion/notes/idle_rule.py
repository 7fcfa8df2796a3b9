"""A rule without effect."""

from collections.abc import Iterator
from itertools import pairwise

import numpy as np

from vine_swing.motion.baking.explain import explain
from vine_swing.motion.baking.keyed import before_rules
from vine_swing.motion.basics.specs import LOOK, OUTLINE
from vine_swing.motion.edits.rules import DeleteRule
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.scene.objects import SceneObject

#: What changes a value by less than this, in its own unit, changes nothing.
_NOTHING = 1e-9


def find(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """A rule of numbers, switched on, after which every channel it acts on is what it was before it."""
    idle = {rule.id: rule for rule in thing.rules if rule.on and not rule.spec.joints and not rule.linked}
    if not idle:
        return
    worked: set[str] = set()
    acted: dict[str, list[str]] = {}
    for name, spec in thing.specs.items():
        if name in (OUTLINE, LOOK) or spec.kind not in ("number", "colour"):
            continue
        rules = [rule.id for rule in thing.rules_on(name)]
        if not rules or set(rules) <= worked or not idle.keys() & set(rules):
            continue
        if len(rules) == 1 and _changed(measures, thing, name):
            worked.add(rules[0])
            continue
        steps = explain(measures.scene, thing.id, name, reader=measures.reader)
        for before, step in pairwise(steps):
            if step.rule is None or step.rule not in idle:
                continue
            acted.setdefault(step.rule, []).append(name)
            if (
                step.remark is not None
                or step.values.shape != before.values.shape
                or not np.allclose(step.values, before.values, rtol=0, atol=_NOTHING)
            ):
                worked.add(step.rule)
    for rule_id, names in acted.items():
        if rule_id in worked:
            continue
        rule = idle[rule_id]
        mend = Mend("Take it off", (DeleteRule(edit="delete-rule", object=thing.id, rule=rule_id),))
        text = f"{rule.spec.label} on {thing.name} changes nothing: its {', '.join(names)} would be the same without it."
        yield Note("idle-rule", thing.id, names[0], (0, float(measures.length - 1)), text, sure=0.7, bad=0.2, mends=(mend,))


def _changed(measures: SceneMeasures, thing: SceneObject, name: str) -> bool:
    """Whether a channel of numbers is other than its keys say: the quick way to see that a lone rule works."""
    if thing.specs[name].kind != "number":
        return False
    keyed = before_rules([(thing, name)], measures.scene)(measures.baked.frames[None])[0]
    return not np.allclose(measures.value(thing, name), keyed, rtol=0, atol=_NOTHING)


KIND = NoteKind(
    name="idle-rule",
    label="A rule without effect",
    why=(
        "A rule that changes nothing was put on the wrong value, has an amount of 0, or waits for keys that are not there. Meant, "
        "while it is being set up."
    ),
    about="object",
    of_object=find,
)
