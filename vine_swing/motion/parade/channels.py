"""The channels a parade has besides those of every object."""

from vine_swing.motion.basics.specs import GROUP_CHANNELS, ChannelSpec
from vine_swing.motion.parade.model import MAX_COPIES

PARADE = (
    ChannelSpec(
        "count", "count", "Copies", "look", "", 6.0, 0.0, float(MAX_COPIES), about="How many copies are shown: the whole part.", whole="part"
    ),
    ChannelSpec("delay", "delay", "Delay", "travel", "", 4.0, step=1.0, about="Frames from the start of one copy to that of the next in order."),
    ChannelSpec("shift", "shift", "Shift", "travel", "", 0.0, step=0.1, about="Moves all copies on, by so many places."),
    ChannelSpec("gap", "gap", "Gap", "travel", "px", 20.0, about="Room from one copy to the next, in a row, a column or a grid."),
    ChannelSpec("gap.down", "down", "Gap", "travel", "px", 20.0, about="Room from one line of a grid to the next."),
    ChannelSpec("spread.x", "x", "Spread", "travel", "px", 80.0, about="How much further right each copy of a free arrangement is."),
    ChannelSpec("spread.y", "y", "Spread", "travel", "px", 0.0, about="How much further down each copy of a free arrangement is."),
    ChannelSpec("radius", "radius", "Ring", "travel", "px", 200.0, about="From the middle of the ring to each copy."),
    ChannelSpec("arc", "arc", "Ring", "turn", "°", 360.0, about="How much of a ring: 360° closes it, with equal room everywhere."),
    ChannelSpec("along.from", "from", "Along", "travel", "%", 0.0, step=0.01, about="Where along the way the first copy stands."),
    ChannelSpec("along.to", "to", "Along", "travel", "%", 1.0, step=0.01, about="Where along the way the last copy stands."),
    ChannelSpec("from.scale", "first", "Copy size", "size", "%", 1.0, step=0.01, about="The size of the first copy; the others lie between."),
    ChannelSpec("to.scale", "last", "Copy size", "size", "%", 1.0, step=0.01, about="The size of the last copy; the others lie between."),
    ChannelSpec("from.rotation", "first", "Copy turn", "turn", "°", 0.0, about="How far the first copy is turned; the others lie between."),
    ChannelSpec("to.rotation", "last", "Copy turn", "turn", "°", 0.0, about="How far the last copy is turned; the others lie between."),
    ChannelSpec("from.skew", "first", "Copy slant", "turn", "°", 0.0, -89.0, 89.0, about="How far the first copy is slanted."),
    ChannelSpec("to.skew", "last", "Copy slant", "turn", "°", 0.0, -89.0, 89.0, about="How far the last copy is slanted."),
    ChannelSpec("from.opacity", "first", "Copy opacity", "look", "%", 1.0, 0.0, 1.0, 0.01, "How much of the first copy can be seen."),
    ChannelSpec("to.opacity", "last", "Copy opacity", "look", "%", 1.0, 0.0, 1.0, 0.01, "How much of the last copy can be seen."),
)
NAMES: tuple[str, ...] = tuple(spec.name for spec in PARADE)
#: All channels of a parade, by name.
PARADE_CHANNELS: dict[str, ChannelSpec] = GROUP_CHANNELS | {spec.name: spec for spec in PARADE}
