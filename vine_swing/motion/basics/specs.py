"""What each channel is: its default, unit, family and limits.

The families give the colour of a channel on screen: travel, turn, size and look. `row` names the line of the values
panel and the lane of the time sheet that channels share (x and y travel together).
"""

from dataclasses import dataclass, replace
from math import floor
from typing import Literal

import numpy as np
from numpy.typing import NDArray

Family = Literal["travel", "turn", "size", "look"]
Unit = Literal["px", "°", "%", "", "colour", "point", "outline", "look", "words"]
#: How a number that counts is read: the nearest whole number, or the whole part.
Whole = Literal["nearest", "part"]
Kind = Literal["number", "colour", "point", "outline", "look", "words"]


@dataclass(frozen=True)
class ChannelSpec:
    """One channel an object can have.

    `default` and the limits are in the model's own units (1 = 100 %); `shown` is the factor between the model's number
    and the one people read; `step` is what one press of an arrow key changes, in the model's units. `whole` says how what
    counts is read: as the nearest whole number, or as its whole part; in between it goes as smoothly as any number.
    """

    name: str
    label: str
    row: str
    family: Family
    unit: Unit
    default: float | str | tuple[float, float]
    low: float | None = None
    high: float | None = None
    step: float = 1.0
    about: str = ""
    whole: Whole | None = None

    @property
    def kind(self) -> Kind:
        """What its values are."""
        return self.unit if self.unit in ("colour", "point", "outline", "look", "words") else "number"

    @property
    def row_says_all(self) -> bool:
        """Whether its row names it well enough, so that its label need not be added: `Opacity`, but `Travel x`."""
        return self.label.lower() == self.row.lower() or self.row == "Rotation"

    @property
    def is_colour(self) -> bool:
        """Whether its values are colours."""
        return self.unit == "colour"

    @property
    def has_array(self) -> bool:
        """Whether it has one value a frame, a number, a colour or which words are said: paths, outlines and looks are kept in other ways."""
        return self.unit not in ("point", "outline", "look")

    @property
    def shown(self) -> float:
        """By how much a value is multiplied where people read it: factors are shown in percent."""
        return 100.0 if self.unit == "%" else 1.0


def within(spec: ChannelSpec, value: float) -> float:
    """Return a value clamped to its channel's limits, and rounded where the channel counts."""
    value = min(max(value, spec.low if spec.low is not None else value), spec.high if spec.high is not None else value)
    return value if spec.whole is None else float(round(value) if spec.whole == "nearest" else floor(value))


def limited(spec: ChannelSpec, values: NDArray[np.float64]) -> NDArray[np.float64]:
    """Values as they are read: cut off at the limits of their channel, and whole where that counts; else the very same array."""
    if spec.low is not None or spec.high is not None:
        values = np.clip(values, spec.low, spec.high)
    return values if spec.whole is None else np.round(values) if spec.whole == "nearest" else np.floor(values)


#: The name of the channel whose values are outlines.
OUTLINE = "outline"
#: The name of the channel that rules on looks act on: the picture of an object with its descendants.
LOOK = "look"

#: The name of the channel that says what a text says. Its values are words; its array tells by a number from 0 which of its keys' words are said.
WORDS = "text"

#: The channels an object's matrix is made from.
GEOMETRY = ("x", "y", "rotation", "scale.x", "scale.y", "skew", "pivot.x", "pivot.y", "stretch", "stretch.angle")

COMMON = (
    ChannelSpec("path", "path", "Travel", "travel", "point", (0.0, 0.0), about="A way through the picture; where it has keys, x and y follow it."),
    ChannelSpec("x", "x", "Travel", "travel", "px", 0.0, about="Where the pivot is, from the left edge (or from its parent)."),
    ChannelSpec("y", "y", "Travel", "travel", "px", 0.0, about="Where the pivot is, from the top edge (or from its parent)."),
    ChannelSpec("rotation", "turn", "Rotation", "turn", "°", 0.0, about="Clockwise about the pivot; 360° more is one whole turn more."),
    ChannelSpec("scale.x", "wide", "Size", "size", "%", 1.0, step=0.01, about="Width against the drawn size; negative flips it."),
    ChannelSpec("scale.y", "high", "Size", "size", "%", 1.0, step=0.01, about="Height against the drawn size; negative flips it."),
    ChannelSpec("stretch", "stretch", "Stretch", "size", "", 1.0, 0.01, 100.0, 0.01, "Longer one way and thinner the other; the area is kept."),
    ChannelSpec("stretch.angle", "along", "Stretch", "size", "°", 0.0, about="The direction the stretch pulls in; 0° is to the right."),
    ChannelSpec("skew", "slant", "Skew", "turn", "°", 0.0, -89.0, 89.0, about="Slants the upright lines."),
    ChannelSpec("pivot.x", "x", "Pivot", "turn", "px", 0.0, about="The point it turns and grows about, from its own middle."),
    ChannelSpec("pivot.y", "y", "Pivot", "turn", "px", 0.0, about="The point it turns and grows about, from its own middle."),
    ChannelSpec("opacity", "opacity", "Opacity", "look", "%", 1.0, 0.0, 1.0, 0.01, "0 % cannot be seen; parts fade with their parent."),
    ChannelSpec(
        OUTLINE,
        "outline",
        "Outline",
        "size",
        "outline",
        "",
        about="Its points, keyed or bent; of a group, those of all that hangs on it.",
    ),
    ChannelSpec(LOOK, "look", "Look", "look", "look", "", about="Its picture, with all that hangs on it: shadows, glow, blur, masks."),
    ChannelSpec(
        "depth",
        "far",
        "Depth",
        "travel",
        "",
        0.0,
        -0.9,
        1000.0,
        0.1,
        "How far behind the stage, for the camera: 0 is the stage, below 0 nearer.",
    ),
)
PAINT = (
    ChannelSpec("fill", "fill", "Fill", "look", "colour", "#F2932B", about="The colour inside."),
    ChannelSpec("stroke", "stroke", "Stroke", "look", "colour", "#1F2A25", about="The colour of the outline."),
    ChannelSpec("stroke.width", "width", "Stroke", "look", "px", 0.0, 0.0, 10_000.0, 0.5, "How thick the outline is; 0 draws none."),
    ChannelSpec("dash.offset", "offset", "Dashes", "look", "px", 0.0, about="How far into its dashes a line begins: keyed, they crawl along it."),
)


def _side(name: str, label: str, default: float) -> ChannelSpec:
    return ChannelSpec(name, label, "Shape", "size", "px", default, 0.0, 100_000.0, about=f"The drawn {name}, before any scaling.")


_WIDTH, _HEIGHT = _side("width", "w", 120.0), _side("height", "h", 120.0)
_POINTS = ChannelSpec("points", "points", "Corners", "size", "", 5.0, 3.0, 200.0, about="How many corners it has.", whole="nearest")

#: The channels each type of shape adds to COMMON and PAINT.
SHAPES: dict[str, tuple[ChannelSpec, ...]] = {
    "ellipse": (_WIDTH, _HEIGHT),
    "rectangle": (
        _WIDTH,
        _HEIGHT,
        ChannelSpec(
            "roundness", "roundness", "Corners", "size", "%", 0.0, 0.0, 1.0, 0.01, "0 % is a sharp corner; 100 % rounds the short side fully."
        ),
    ),
    "polygon": (_WIDTH, _HEIGHT, _POINTS),
    "star": (
        _WIDTH,
        _HEIGHT,
        _POINTS,
        ChannelSpec("inner", "inner", "Corners", "size", "%", 0.5, 0.0, 1.0, 0.01, "How far out the inner corners lie."),
    ),
    "line": (
        ChannelSpec("end.x", "x", "End", "size", "px", 120.0, about="Where the line ends, from where it begins."),
        ChannelSpec("end.y", "y", "End", "size", "px", 0.0, about="Where the line ends, from where it begins."),
    ),
    "outline": (),
    "text": (
        ChannelSpec(WORDS, "words", "Words", "look", "words", 0.0, about="What it says; other words from each key on."),
        ChannelSpec(
            "text.size", "size", "Text", "size", "px", 72.0, 0.0, 10_000.0, about="How large it is set: the height of its line without leading."
        ),
        ChannelSpec("tracking", "tracking", "Spacing", "size", "%", 0.0, -1.0, 10.0, 0.01, "More room after each letter, as a share of the size."),
        ChannelSpec("leading", "leading", "Spacing", "size", "%", 1.2, 0.0, 20.0, 0.01, "From one line to the next, as a share of the size."),
        ChannelSpec("number", "number", "Text", "look", "", 0.0, about="What {number} in the text shows."),
    ),
}

_PAINT_DEFAULTS: dict[str, dict[str, float | str]] = {
    # A line has no inside: it shows by its stroke alone.
    "line": {"fill": "#00000000", "stroke.width": 6.0},
    "text": {"fill": "#1F2A25"},
}


def _paint(shape: str) -> tuple[ChannelSpec, ...]:
    changed = _PAINT_DEFAULTS.get(shape, {})
    return tuple(replace(spec, default=changed.get(spec.name, spec.default)) for spec in PAINT)


#: What a picture has besides.
PICTURE = (
    _WIDTH,
    _HEIGHT,
    ChannelSpec(
        "page", "page", "Page", "look", "", 0.0, step=1.0, about="Which page is shown: the whole part, counted round and round from 0.", whole="part"
    ),
)
#: A picture has no outline that could be bent.
PICTURE_CHANNELS: dict[str, ChannelSpec] = {spec.name: spec for spec in (*COMMON, *PICTURE) if spec.name != OUTLINE}
GROUP_CHANNELS: dict[str, ChannelSpec] = {spec.name: spec for spec in COMMON}
_ZOOM = ChannelSpec("zoom", "zoom", "Zoom", "size", "%", 1.0, 0.01, 100.0, 0.01, "How much closer it looks: at 200 % everything is twice as large.")
#: Of a camera, x and y are the middle of what is seen.
CAMERA_CHANNELS: dict[str, ChannelSpec] = {spec.name: spec for spec in (*COMMON, _ZOOM) if spec.name not in (OUTLINE, LOOK, "depth")}
#: The name of the channel that says which frame of its inner scene an inset shows.
INNER = "inner"
_INNER_FRAME = ChannelSpec(
    INNER,
    "frame",
    "Inside",
    "look",
    "",
    0.0,
    about="Which frame of the scene inside is shown. Without keys it runs by itself from where the object begins.",
)
#: What is inside an inset has no outline here that could be bent.
INSET_CHANNELS: dict[str, ChannelSpec] = {spec.name: spec for spec in (*COMMON, _INNER_FRAME) if spec.name != OUTLINE}
SHAPE_CHANNELS: dict[str, dict[str, ChannelSpec]] = {
    shape: {spec.name: spec for spec in (*COMMON, *own, *_paint(shape))} for shape, own in SHAPES.items()
}
