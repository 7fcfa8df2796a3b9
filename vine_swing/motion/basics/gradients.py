"""The channels of gradients: their ends, and the place and colour of each stop, in the space of the object they colour."""

from functools import lru_cache
from typing import Literal

from vine_swing.motion.basics.specs import SHAPE_CHANNELS, ChannelSpec

#: What of a shape a gradient colours.
Painted = Literal["fill", "stroke"]
FEWEST_STOPS, MOST_STOPS = 2, 8
_ROWS = {"fill": "", "stroke": "Line "}
_FIRST, _LAST = "#F2932B", "#FBF3DF"


def end_names(of: Painted) -> tuple[str, str, str, str]:
    """The channels of both ends: x and y of the first, x and y of the last."""
    return f"{of}.from.x", f"{of}.from.y", f"{of}.to.x", f"{of}.to.y"


def stop_names(of: Painted, stop: int) -> tuple[str, str]:
    """The channels of one stop, counted from 1: its place and its colour."""
    return f"{of}.{stop}.place", f"{of}.{stop}.colour"


@lru_cache(maxsize=64)
def gradient_channels(of: Painted, stops: int) -> tuple[ChannelSpec, ...]:
    """What each channel of a gradient with this many stops is."""
    ends = []
    for name, end, default in zip(end_names(of), ("from", "from", "to", "to"), (0.0, -60.0, 0.0, 60.0), strict=True):
        row = (_ROWS[of] + end).capitalize()
        about = f"Where the colours {'begin' if end == 'from' else 'end'}, from the object's own middle."
        ends.append(ChannelSpec(name, name[-1], row, "look", "px", default, about=about))
    result = []
    for stop in range(1, stops + 1):
        place, colour = stop_names(of, stop)
        row = f"{_ROWS[of]}Stop {stop}".capitalize()
        share = (stop - 1) / (stops - 1)
        result += [
            ChannelSpec(place, "place", row, "look", "%", share, 0.0, 1.0, 0.01, "How far along from the first end to the last this colour lies."),
            ChannelSpec(colour, "colour", row, "look", "colour", _FIRST if stop == 1 else _LAST, about="The colour there."),
        ]
    return (*ends, *result)


@lru_cache(maxsize=512)
def shape_channels(shape: str, fill_stops: int, stroke_stops: int) -> dict[str, ChannelSpec]:
    """The channels of a shape with gradients of this many stops; 0 for none. The same table for the same arguments."""
    own = SHAPE_CHANNELS[shape]
    more = [*(gradient_channels("fill", fill_stops) if fill_stops else ()), *(gradient_channels("stroke", stroke_stops) if stroke_stops else ())]
    return own | {spec.name: spec for spec in more} if more else own
