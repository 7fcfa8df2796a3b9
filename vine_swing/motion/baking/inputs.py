"""What something is made from. Made from the same inputs, it is the same: so an array of an earlier bake is copied, or made again.

What a channel reads of other channels is told by the graph (scene/graph.py) and compared array by array; here is the rest.
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


def inputs_of_channel(thing: SceneObject, name: str) -> Inputs:
    """What a channel of an object is made from besides what its rules read of other channels: keys, limits, and the rules themselves."""
    rules = thing.rules_on(name)
    keyed = [name, *(other for rule in rules for other in rule.spec.own_keys_read), *(("path",) if name in ("x", "y") else ())]
    parts = [thing.channels.get(one) for one in keyed]
    skeleton = thing.skeleton if name not in GROUP_CHANNELS else None
    running = (thing.span, thing.inset_of) if thing.is_running(name) else ()
    return Inputs((*parts, skeleton), (thing.specs.get(name), rules, running))


def inputs_of_drawing(thing: SceneObject) -> Inputs:
    """What an object is drawn from besides its channels: its shape, and the keys and rules of its outline."""
    return Inputs((thing.channels.get(OUTLINE),), (thing.drawn_shape, thing.rules_on(OUTLINE)))
