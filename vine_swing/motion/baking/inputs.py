"""Inputs of results. Equal inputs give equal results, so an array of an earlier bake is either reused or computed again.

Reads of other channels are listed by the graph (scene/graph.py) and compared array by array; this module has all other inputs.
"""

from dataclasses import dataclass

from vine_swing.motion.basics.specs import GROUP_CHANNELS, OUTLINE
from vine_swing.motion.scene.objects import SceneObject


@dataclass(frozen=True, eq=False)
class Inputs:
    """The inputs of one result.

    parts: large ones that never change in place, compared by identity.
    values: small ones, compared by value.
    """

    parts: tuple[object, ...]
    values: tuple[object, ...] = ()

    def same_as(self, other: "Inputs | None") -> bool:
        """Whether another result with these inputs is the same."""
        return (
            other is not None
            and len(self.parts) == len(other.parts)
            and all(mine is theirs for mine, theirs in zip(self.parts, other.parts, strict=True))
            and self.values == other.values
        )


def inputs_of_channel(obj: SceneObject, name: str) -> Inputs:
    """Return the inputs of a channel, apart from reads of other channels: keys, limits and rules."""
    rules = obj.rules_on(name)
    keyed = [name, *(other for rule in rules for other in rule.spec.own_keys_read), *(("path",) if name in ("x", "y") else ())]
    parts = [obj.channels.get(item) for item in keyed]
    skeleton = obj.skeleton if name not in GROUP_CHANNELS else None
    running = (obj.span, obj.inset_of) if obj.is_running(name) else ()
    return Inputs((*parts, skeleton), (obj.specs.get(name), rules, running))


def inputs_of_drawing(obj: SceneObject) -> Inputs:
    """Return the inputs of a drawing, apart from channels: the shape, and the keys and rules of its outline."""
    return Inputs((obj.channels.get(OUTLINE),), (obj.drawn_shape, obj.rules_on(OUTLINE)))
