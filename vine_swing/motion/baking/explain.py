"""How one channel is made, step by step: the vine."""

from dataclasses import dataclass
from functools import partial
from typing import Any

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.effort import Effort
from vine_swing.motion.baking.keyed import before_rules, dial_values, followed
from vine_swing.motion.baking.looks import remark_on_mask
from vine_swing.motion.baking.reading import Reader
from vine_swing.motion.basics import colour
from vine_swing.motion.basics.errors import NoSuchThing
from vine_swing.motion.basics.specs import LOOK, OUTLINE
from vine_swing.motion.curves.series import OutlineSeries
from vine_swing.motion.rules import Source
from vine_swing.motion.rules.rule import SETTING, Rule, RuleSettings
from vine_swing.motion.scene.dial import DIAL_CHANNEL, Dial
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.timing.channel import Channel
from vine_swing.motion.timing.ends import HOLD
from vine_swing.motion.timing.evaluate import evaluate, evaluate_colours
from vine_swing.motion.timing.outlines import KeyedOutlines
from vine_swing.motion.timing.path import evaluate_path

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Step:
    """One card: `kind` is keys, ends, the kind of a rule, or result; `values` (n,) is the curve so far, (n, 4) for
    colours, (n, 2) for paths; of outlines, `outlines` are those so far, and there are no values."""

    kind: str
    label: str
    rule: str | None
    on: bool
    values: Array
    #: What keeps a rule from doing its work, in a sentence.
    remark: str | None = None
    outlines: OutlineSeries | None = None


def explain(scene: Scene, object_id: str, channel: str, *, effort: Effort | None = None, reader: Reader | None = None) -> list[Step]:
    """The steps that make a channel, each with the curve after it over frames 0 … length−1.

    reader: one of the scene over these frames, that has read part already.

    Raises:
        NoSuchThing: if the scene has no such object or channel.
    """
    dial = scene.dials_by_id.get(object_id)
    if dial is not None and channel == DIAL_CHANNEL:
        return _explain_dial(scene, dial)
    obj = scene.by_id.get(object_id)
    if obj is not None and SETTING in channel:
        return _explain_setting(scene, obj, channel, effort)
    if obj is None or channel not in obj.specs:
        raise NoSuchThing(f"there is no channel '{channel}' of an object '{object_id}' in this scene")
    if channel == OUTLINE:
        return _explain_outline(scene, obj, effort)
    if channel == LOOK:
        return _explain_look(scene, obj)
    spec, source = obj.specs[channel], obj.channels.get(channel, Channel())
    t = np.arange(scene.length, dtype=float)

    path = obj.channels.get("path", Channel())

    def read(item: Channel) -> Array:
        if spec.kind == "point":
            return evaluate_path(item, t) if item.keys else np.zeros((len(t), 2))
        if not item.keys and channel in ("x", "y") and path.keys:
            whole = evaluate_path(path.copy_with(before=item.before, after=item.after) if item is keys_only else path, t)
            return whole[:, 0 if channel == "x" else 1]
        if item.keys:
            rows: Array = (evaluate_colours if spec.is_colour else evaluate)([item.as_numbers], t)[0]
            return rows
        if obj.is_running(channel):
            running: Array = before_rules([(obj, channel)], scene)(t[None])[0]
            return running
        base: Any = spec.default if item.base is None else item.base
        return np.tile(colour.parse_hex(base), (len(t), 1)) if spec.is_colour else np.full(len(t), float(base))

    keys_only = source.copy_with(before=HOLD, after=HOLD)
    value = read(keys_only)
    steps = [Step("keys", "Keys", None, True, value)]
    value = read(source)
    steps.append(Step("ends", "Ends", None, True, value))
    rules = obj.rules_for(channel)
    reader, grid = reader or Reader(scene, effort=effort), t[None, :]
    chain = reader.keyed([(obj, channel)]) if rules else None
    for rule in rules:
        remark = None
        if rule.on and chain is not None:
            value, remark, chain = reader.filler.run(partial(_card, reader, chain, rule, grid))
        steps.append(Step(rule.kind, rule.spec.label, rule.id, rule.on, value, remark))
    return [*steps, Step("result", "Result", None, True, value)]


def _explain_outline(scene: Scene, obj: SceneObject, effort: Effort | None) -> list[Step]:
    """The cards of an outline; of what is not drawn itself, of its descendants as one outline."""
    t = np.arange(scene.length, dtype=float)
    reader = Reader(scene, t, effort=effort)
    nothing = np.empty(0)
    acting = obj.rules_for(OUTLINE)
    if obj.drawn_shape is None:
        created = [reader.outlines.gathered(obj, upto, t) for upto in range(len(acting) + 1)]
        first = Step("parts", "Parts", None, True, nothing, outlines=created[0])
        cards = [Step(rule.kind, rule.spec.label, rule.id, rule.on, nothing, outlines=item) for rule, item in zip(acting, created[1:], strict=True)]
        return [first, *cards, Step("result", "Result", None, True, nothing, outlines=created[-1])]
    read = reader.outlines.cards(obj)
    so_far = read[0][1](t)
    steps = [Step("shape", "Shape", None, True, nothing, outlines=so_far)]
    if obj.is_keyed(OUTLINE):
        keyed = obj.channels[OUTLINE]
        held = KeyedOutlines(keyed.copy_with(before=HOLD, after=HOLD)).at(t)
        steps = [Step("keys", "Keys", None, True, nothing, outlines=held), Step("ends", "Ends", None, True, nothing, outlines=so_far)]
    after = {rule.id: reading for rule, reading in read if rule is not None}
    for rule in acting:
        so_far = after[rule.id](t) if rule.id in after else so_far
        steps.append(Step(rule.kind, rule.spec.label, rule.id, rule.on, nothing, outlines=so_far.compact()))
    return [*steps, Step("result", "Result", None, True, nothing, outlines=reader.outlines.seen(obj, t))]


def _explain_look(scene: Scene, obj: SceneObject) -> list[Step]:
    """Return the cards of a look, each with its effect on the picture."""
    nothing = np.empty(0)
    cards = []
    for rule in obj.rules_for(LOOK):
        remark = remark_on_mask(scene, obj, rule) if rule.on and rule.kind == "mask" else None
        cards.append(Step(rule.kind, rule.spec.label, rule.id, rule.on, nothing, remark))
    return [Step("drawn", "Drawn", None, True, nothing), *cards, Step("result", "Result", None, True, nothing)]


def _card(reader: Reader, before: Source, rule: Rule, grid: Array) -> tuple[Array, str | None, Source]:
    """Return a card's values at frames (1, n), its remark, and the channel after it."""
    remark = rule.spec.remark(before, RuleSettings([rule], before), grid) if rule.spec.remark is not None else None
    after = reader.after_card(before, rule)
    value = after.at(grid)
    return value[0], remark, reader.kept(_seen(after, grid, value[0]))


def _seen(source: Source, grid: Array, values: Array) -> Source:
    """A source that answers from known values on one grid."""
    return source.reading(lambda t: values[None, :].copy() if t is grid else source.at(t))


def _explain_setting(scene: Scene, obj: SceneObject, name: str, effort: Effort | None) -> list[Step]:
    """The steps of a rule's setting, named `rule:setting`: no rules act on it."""
    rule_id, _, setting = name.partition(SETTING)
    rule = next((rule for rule in obj.rules if rule.id == rule_id), None)
    if rule is None or setting not in rule.spec.settings or rule.spec.settings[setting].is_word:
        raise NoSuchThing(f"there is no setting '{name}' of '{obj.name}' that changes over time")
    t = np.arange(scene.length, dtype=float)
    written = rule.settings.get(setting)
    channel = written if isinstance(written, Channel) else Channel()
    default = rule.spec.settings[setting].default

    def read(item: Channel) -> Array:
        is_colour = rule.spec.settings[setting].holds == "colour"
        if item.keys:
            row: Array = (evaluate_colours if is_colour else evaluate)([item], t)[0]
            return row
        base: Any = item.base if item.base is not None else default
        if is_colour:
            return np.tile(colour.parse_hex(base), (len(t), 1))
        return np.full(len(t), float(base) if base is not None else 0.0)

    values = read(channel)
    steps = [Step("keys", "Keys", None, True, read(channel.copy_with(before=HOLD, after=HOLD))), Step("ends", "Ends", None, True, values)]
    if channel.formula is not None:
        reader = Reader(scene, effort=effort)
        source = reader.filler.run(lambda: reader.final(obj.id, name))
        steps.append(Step("formula", "Formula", None, True, reader.filler.run(lambda: source.at(t[None, :]))[0]))
    return [*steps, Step("result", "Result", None, True, steps[-1].values)]


def _explain_dial(scene: Scene, dial: Dial) -> list[Step]:
    t = np.arange(scene.length, dtype=float)[None, :]
    if followed(scene, dial):
        heard = dial_values(scene, dial, t)[0]
        return [Step("sound", "Sound", None, True, heard), Step("result", "Result", None, True, heard)]
    held = dial.copy_with(channel=dial.channel.copy_with(before=HOLD, after=HOLD))
    values = dial_values(scene, dial, t)[0]
    return [
        Step("keys", "Keys", None, True, dial_values(scene, held, t)[0]),
        Step("ends", "Ends", None, True, values),
        Step("result", "Result", None, True, values),
    ]
