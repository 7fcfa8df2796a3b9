"""How a figure walks: the settings of its gait at some frames, and the phases its legs keep to one another."""

from dataclasses import dataclass, fields

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.figure.model import Figure, Limb

Array = NDArray[np.float64]
#: Ways in which the legs keep to one another.
ORDERS = ("alternate", "wave", "pace", "bound", "together")


@dataclass(frozen=True)
class Style:
    """The number settings of a gait at frames (n,); each (n,) or (1,). Pixels are the figure's own."""

    stride: Array
    stance: Array
    lift: Array
    bob: Array
    sway: Array
    lean: Array
    knee: Array
    roll: Array
    arm_swing: Array
    elbow: Array
    tail: Array
    weight: Array
    overlap: Array
    share: Array

    @classmethod
    def names(cls) -> tuple[str, ...]:
        """What its settings are called."""
        return tuple(field.name for field in fields(cls))

    def at(self, chosen: NDArray[np.intp] | slice) -> "Style":
        """At some of its frames only."""
        return Style(**{f.name: v[chosen] if len(v := getattr(self, f.name)) > 1 else v for f in fields(Style)})

    @property
    def is_steady(self) -> bool:
        """Whether nothing in it changes over time."""
        return all(len(getattr(self, field.name)) == 1 for field in fields(Style))


def phases(figure: Figure, order: str) -> dict[str, float]:
    """By how much of a cycle each leg is ahead, 0…1, by the leg's id.

    Pairs of legs are ranked from the hindmost to the foremost. `alternate`: a leg and its neighbours, beside it and before it, take turns (two
    legs walk, four trot, six follow tripods). `wave`: the pairs one after the other, each half a cycle from its other side (four legs
    walk). `pace`: both legs of a side together. `bound`: both legs of a pair together, pair after pair. `together`: all at once.
    """
    legs = figure.legs
    rank = {leg.id: n for side in ("near", "far") for n, leg in enumerate(sorted((one for one in legs if one.side == side), key=_root_x))}
    pairs = max(rank.values(), default=0) + 1
    found = {}
    for leg in legs:
        side, n = int(leg.side == "far"), rank[leg.id]
        match order:
            case "wave":
                found[leg.id] = (side / 2 - n / (2 * pairs)) % 1.0
            case "pace":
                found[leg.id] = side / 2
            case "bound":
                found[leg.id] = -n / pairs % 1.0
            case "together":
                found[leg.id] = 0.0
            case _:
                found[leg.id] = (side + n) % 2 / 2
    return found


def _root_x(leg: Limb) -> float:
    return leg.joints[0][0]
