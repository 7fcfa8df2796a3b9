"""How one channel is made, step by step: the vine."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion import colour
from vine_swing.motion.channel import Channel
from vine_swing.motion.ends import HOLD
from vine_swing.motion.errors import NoSuchThing
from vine_swing.motion.evaluate import evaluate, evaluate_colours
from vine_swing.motion.model import Scene
from vine_swing.motion.rule import apply_rules
from vine_swing.motion.rules import Timing

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Step:
    """One card: `kind` is keys, ends, the kind of a rule, or result; `values` (n,) is the curve so far, (n, 4) for colours."""

    kind: str
    label: str
    rule: str | None
    on: bool
    values: Array


def explain(scene: Scene, object_id: str, channel: str) -> list[Step]:
    """The steps that make a channel, each with the curve after it over frames 0 … length−1.

    Raises:
        NoSuchThing: if the scene has no such object or channel.
    """
    thing = scene.by_id.get(object_id)
    if thing is None or channel not in thing.specs:
        raise NoSuchThing(f"there is no channel '{channel}' of an object '{object_id}' in this scene")
    spec, source = thing.specs[channel], thing.channels.get(channel, Channel())
    t = np.arange(scene.length, dtype=float)

    def read(one: Channel) -> Array:
        if one.keys:
            rows: Array = (evaluate_colours if spec.is_colour else evaluate)([one], t)[0]
            return rows
        base = spec.default if one.base is None else one.base
        return np.tile(colour.parse_hex(str(base)), (len(t), 1)) if spec.is_colour else np.full(len(t), float(base))

    value = read(source.but(before=HOLD, after=HOLD))
    steps = [Step("keys", "Keys", None, True, value)]
    value = read(source)
    steps.append(Step("ends", "Ends", None, True, value))
    timing = Timing(scene.fps, scene.length)
    for rule in thing.rules_for(channel):
        if rule.on:
            value = apply_rules(value, t, [rule], timing)
        steps.append(Step(rule.kind, rule.spec.label, rule.id, rule.on, value))
    return [*steps, Step("result", "Result", None, True, value)]
