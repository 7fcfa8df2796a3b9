"""Ready-made gaits, for legs of any length."""

from dataclasses import dataclass

from vine_swing.motion.figure.model import Figure


@dataclass(frozen=True)
class GaitPreset:
    """A gait. `legs` are lengths as shares of the leg; `settings` are the others; `pairs` for how many pairs of legs it is."""

    name: str
    label: str
    about: str
    pairs: tuple[int, ...]
    order: str
    legs: dict[str, float]
    settings: dict[str, float]

    def for_figure(self, figure: Figure) -> dict[str, float | str]:
        """Its settings for a figure, in the figure's own pixels."""
        length = figure.leg_length
        return {"order": self.order} | {name: round(share * length, 2) for name, share in self.legs.items()} | self.settings


def _two(name: str, label: str, about: str, stride: float, stance: float, lift: float, bob: float, **rest: float) -> GaitPreset:
    legs = {"stride": stride, "lift": lift, "bob": bob}
    return GaitPreset(name, label, about, (1,), "alternate", legs, {"stance": stance} | rest)


def _many(
    name: str, label: str, about: str, pairs: tuple[int, ...], order: str, stride: float, stance: float, lift: float, bob: float, **rest: float
) -> GaitPreset:
    legs = {"stride": stride, "lift": lift, "bob": bob}
    return GaitPreset(name, label, about, pairs, order, legs, {"stance": stance, "lean": 0.0, "knee": 0.0} | rest)


_ALL = (
    _two(
        "stroll",
        "Stroll",
        "Easy, nothing to hurry for.",
        1.35,
        0.62,
        0.14,
        0.08,
        sway=3.0,
        lean=2.0,
        knee=0.0,
        roll=26.0,
        arm_swing=20.0,
        elbow=8.0,
        tail=9.0,
        weight=0.2,
        overlap=2.0,
    ),
    _two(
        "brisk",
        "Brisk",
        "Knows where it is going.",
        1.7,
        0.57,
        0.18,
        0.1,
        sway=4.0,
        lean=6.0,
        knee=0.0,
        roll=34.0,
        arm_swing=34.0,
        elbow=22.0,
        tail=12.0,
        weight=0.15,
        overlap=1.5,
    ),
    _two(
        "proud",
        "Proud",
        "Chest out, long steps, chin up.",
        1.55,
        0.6,
        0.2,
        0.11,
        sway=5.0,
        lean=-7.0,
        knee=0.0,
        roll=30.0,
        arm_swing=30.0,
        elbow=14.0,
        tail=14.0,
        weight=0.1,
        overlap=2.0,
    ),
    _two(
        "tired",
        "Tired",
        "Dragging its feet at the end of the round.",
        0.95,
        0.7,
        0.05,
        0.07,
        sway=2.0,
        lean=16.0,
        knee=0.25,
        roll=16.0,
        arm_swing=9.0,
        elbow=4.0,
        tail=4.0,
        weight=0.8,
        overlap=4.0,
    ),
    _two(
        "heavy",
        "Heavy",
        "A full satchel: wide, slow to rise.",
        1.15,
        0.68,
        0.1,
        0.13,
        sway=6.0,
        lean=9.0,
        knee=0.2,
        roll=20.0,
        arm_swing=14.0,
        elbow=18.0,
        tail=7.0,
        weight=1.0,
        overlap=3.0,
    ),
    _two(
        "sneak",
        "Sneak",
        "Bent low, feet set down with care.",
        1.0,
        0.66,
        0.34,
        0.05,
        sway=2.0,
        lean=22.0,
        knee=0.75,
        roll=22.0,
        arm_swing=10.0,
        elbow=62.0,
        tail=6.0,
        weight=0.3,
        overlap=3.0,
    ),
    _two(
        "march",
        "March",
        "Knees up, arms out.",
        1.4,
        0.6,
        0.42,
        0.12,
        sway=1.0,
        lean=0.0,
        knee=0.0,
        roll=18.0,
        arm_swing=46.0,
        elbow=6.0,
        tail=8.0,
        weight=0.0,
        overlap=1.0,
    ),
    _two(
        "jog",
        "Jog",
        "A small hop in every step.",
        1.9,
        0.42,
        0.3,
        0.16,
        sway=4.0,
        lean=8.0,
        knee=0.1,
        roll=30.0,
        arm_swing=28.0,
        elbow=75.0,
        tail=14.0,
        weight=0.1,
        overlap=1.5,
    ),
    _two(
        "run",
        "Run",
        "Both feet off the ground for long.",
        3.0,
        0.32,
        0.36,
        0.24,
        sway=6.0,
        lean=16.0,
        knee=0.12,
        roll=38.0,
        arm_swing=46.0,
        elbow=88.0,
        tail=18.0,
        weight=0.0,
        overlap=1.0,
    ),
    _many(
        "amble",
        "Walk",
        "One foot after the other, three on the ground.",
        (2, 3),
        "wave",
        1.2,
        0.72,
        0.16,
        0.05,
        sway=1.5,
        roll=22.0,
        tail=9.0,
        weight=0.3,
        overlap=2.0,
    ),
    _many(
        "trot",
        "Trot",
        "Feet across from one another together.",
        (2,),
        "alternate",
        1.7,
        0.46,
        0.26,
        0.12,
        sway=0.5,
        roll=26.0,
        tail=12.0,
        weight=0.1,
        overlap=1.5,
    ),
    _many(
        "pace",
        "Pace",
        "Both feet of a side together: it rolls.",
        (2,),
        "pace",
        1.6,
        0.54,
        0.2,
        0.08,
        sway=2.5,
        roll=24.0,
        tail=10.0,
        weight=0.2,
        overlap=2.0,
    ),
    _many(
        "bound",
        "Bound",
        "Off with both hind feet, down on both forefeet.",
        (2,),
        "bound",
        2.4,
        0.34,
        0.4,
        0.22,
        sway=7.0,
        roll=30.0,
        tail=16.0,
        weight=0.0,
        overlap=1.5,
    ),
    _many(
        "tripod",
        "Tripod",
        "Three feet down, three feet up.",
        (3,),
        "alternate",
        0.9,
        0.58,
        0.2,
        0.04,
        sway=0.6,
        roll=10.0,
        tail=12.0,
        weight=0.0,
        overlap=1.0,
    ),
    _many(
        "ripple",
        "Ripple",
        "A wave from the last leg to the first.",
        (3,),
        "wave",
        0.7,
        0.72,
        0.18,
        0.03,
        sway=0.6,
        roll=10.0,
        tail=10.0,
        weight=0.2,
        overlap=1.5,
    ),
)
GAITS: dict[str, GaitPreset] = {one.name: one for one in _ALL}


def pairs_of(figure: Figure) -> int:
    """How many pairs of legs a figure has."""
    return max(sum(leg.side == side for leg in figure.legs) for side in ("near", "far")) if figure.legs else 0


def fitting(figure: Figure) -> list[GaitPreset]:
    """The gaits for as many legs as a figure has."""
    pairs = pairs_of(figure)
    return [one for one in GAITS.values() if pairs in one.pairs or (pairs not in (1, 2, 3) and one.pairs != (1,))]
