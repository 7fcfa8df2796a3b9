"""The channels a figure has for its joints: all are what is added to where it rests, so that 0 is the pose it was drawn in.

Feet and hands have a place, `x` and `y`, in the figure's own space, and `reach`: at 100 % the limb bends so that it gets there, at 0 % its
joints turn by the angles given. Legs reach unless told otherwise, arms hang.
"""

from functools import lru_cache

from vine_swing.motion.basics.specs import ChannelSpec
from vine_swing.motion.figure.model import HEAD, HIPS, SPINE, Chain, Figure, Limb

FACING = "facing"
#: The channels of every limb after its id and a dot, in the order of the values panel.
LIMB_CHANNELS = ("x", "y", "end", "reach", "upper", "lower", "free")


@lru_cache(maxsize=256)
def joint_channels(figure: Figure) -> dict[str, ChannelSpec]:
    """The channels of a figure's joints, by name."""
    specs = [
        ChannelSpec(f"{HIPS}.x", "x", "Hips", "travel", "px", 0.0, about="How far the hips are from where they rest: forward."),
        ChannelSpec(f"{HIPS}.y", "y", "Hips", "travel", "px", 0.0, about="How far the hips are from where they rest: down."),
        ChannelSpec(f"{HIPS}.turn", "turn", "Hips tilt", "turn", "°", 0.0, about="Tilts hips and all above them."),
        ChannelSpec(f"{SPINE}.turn", "bend", "Back", "turn", "°", 0.0, about="Bends the spine, all of its bones alike: forward with more."),
    ]
    if figure.head:
        specs.append(ChannelSpec(f"{HEAD}.turn", "turn", "Head", "turn", "°", 0.0, about="Turns the head: down with more."))
    for limb in figure.limbs:
        specs += _limb(limb)
    for chain in figure.chains:
        specs += _chain(chain)
    specs.append(ChannelSpec(FACING, "facing", "Facing", "look", "", 1.0, -1.0, 1.0, 1.0, "1 faces as drawn, −1 the other way."))
    return {spec.name: spec for spec in specs}


@lru_cache(maxsize=256)
def walked(figure: Figure) -> frozenset[str]:
    """The channels a gait moves: all but how a limb is controlled."""
    return frozenset(name for name in joint_channels(figure) if not name.endswith((".free", ".reach")))


def _limb(limb: Limb) -> list[ChannelSpec]:
    tip, middle = ("foot", "knee") if limb.kind == "leg" else ("hand", "elbow")
    row, turns = limb.name, f"{limb.name} joints"
    return [
        ChannelSpec(f"{limb.id}.x", "x", row, "travel", "px", 0.0, about=f"How far the {tip} is from where it rests: forward."),
        ChannelSpec(f"{limb.id}.y", "y", row, "travel", "px", 0.0, about=f"How far the {tip} is from where it rests: down."),
        ChannelSpec(f"{limb.id}.end", "turn", f"{limb.name} {tip}", "turn", "°", 0.0, about=f"Turns the {tip}."),
        ChannelSpec(
            f"{limb.id}.reach",
            "reach",
            f"{limb.name} control",
            "look",
            "%",
            1.0 if limb.kind == "leg" else 0.0,
            0.0,
            1.0,
            0.01,
            f"100 %: the limb bends so that the {tip} gets to its place. 0 %: its joints turn by their own angles.",
        ),
        ChannelSpec(f"{limb.id}.upper", "upper", turns, "turn", "°", 0.0, about="Turns the upper bone, as far as the limb does not reach."),
        ChannelSpec(f"{limb.id}.lower", middle, turns, "turn", "°", 0.0, about="Turns the lower bone, as far as the limb does not reach."),
        ChannelSpec(
            f"{limb.id}.free",
            "free",
            f"{limb.name} control",
            "look",
            "%",
            0.0,
            0.0,
            1.0,
            0.01,
            "0 %: the gait moves it, and keys come on top. 100 %: its keys alone.",
        ),
    ]


def _chain(chain: Chain) -> list[ChannelSpec]:
    links = range(1, len(chain.joints))
    return [ChannelSpec(f"{chain.id}.{n}", str(n), chain.name, "turn", "°", 0.0, about="Turns this link and all after it.") for n in links]
