"""What a shape object is drawn as: a plain shape, an outline or a text, and how its line is drawn."""

from collections.abc import Sequence
from typing import Annotated, Any, Literal, Self

from pydantic import Field, field_validator, model_validator

from vine_swing.motion.basics.gradients import FEWEST_STOPS, MOST_STOPS, Painted
from vine_swing.motion.basics.values import MAX_PATH_DATA, MAX_TEXT, Frozen, Id, Point, Text

#: Places that a hand went, kept with what was drawn through them.
MAX_HAND = 5_000


class PlainShape(Frozen):
    """A shape drawn from its channels alone, about its own middle."""

    type: Literal["ellipse", "rectangle", "polygon", "star", "line"]


class Hand(Frozen):
    """The places a hand went that an outline was fitted through, in px, and how far from them the outline may stray."""

    places: Annotated[tuple[Point, ...], Field(min_length=2, max_length=MAX_HAND)]
    tolerance: Annotated[float, Field(strict=True, ge=0.01, le=200)] = 2.0
    closed: bool = False

    @field_validator("places", mode="before")
    @classmethod
    def _places_from_json(cls, places: Any) -> Any:
        return tuple(tuple(one) if isinstance(one, list) else one for one in places) if isinstance(places, list) else places


class OutlineShape(Frozen):
    """Any outline, as SVG path data (SVG 2, section 9.3).

    fill_rule: what is inside where lines cross, as SVG and CSS call it. hand: of one that was drawn freely and not changed since, where the hand
    went.
    """

    type: Literal["outline"]
    d: Annotated[Text, Field(min_length=1, max_length=MAX_PATH_DATA)]
    fill_rule: Literal["nonzero", "evenodd"] = "nonzero"
    hand: Hand | None = None


class TextShape(Frozen):
    """A text set in a font. `{number}` in it shows the channel `number`.

    text: what it says where its channel `text` has no keys. font: the name of a family. weight: 400 for regular, 700 for bold, as CSS counts.
    wrap: how wide lines may be, in px; None for any width.
    """

    type: Literal["text"]
    text: Annotated[Text, Field(max_length=MAX_TEXT)]
    font: Id = "figtree"
    weight: Annotated[int, Field(strict=True, ge=1, le=1000)] = 400
    align: Literal["left", "middle", "right"] = "middle"
    wrap: Annotated[float, Field(strict=True, ge=1, le=100_000)] | None = None

    @property
    def texts(self) -> tuple[str, ...]:
        """All that it says in turn."""
        return (self.text,)

    def saying(self, which: float) -> str:
        """What it says where its channel `text` has a value."""
        texts = self.texts
        return texts[min(int(which), len(texts) - 1)]


class SaidText(TextShape):
    """A text that says several objects in turn; built from one whose words are keyed, or of a copy with words of its own, and never kept.

    said: what it says where its channel `text` is 0, 1 …; the last where it is more.
    """

    said: tuple[str, ...]

    @classmethod
    def of(cls, shape: TextShape, said: Sequence[str]) -> Self:
        """A text set as another one that says these objects."""
        return cls(**shape.__dict__ | {"said": tuple(said)})

    @property
    def texts(self) -> tuple[str, ...]:
        return self.said


#: How lines end and go round corners, as SVG 2 calls it (stroke-linecap, stroke-linejoin).
Cap = Literal["round", "butt", "square"]
Join = Literal["round", "miter", "bevel"]


class LineStyle(Frozen):
    """How the line of a shape is drawn. dash: the lengths of dashes and gaps in turn, px; none for a whole line."""

    cap: Cap = "round"
    join: Join = "round"
    dash: Annotated[tuple[Annotated[float, Field(strict=True, ge=0, le=10_000)], ...], Field(max_length=8)] = ()

    @field_validator("dash", mode="before")
    @classmethod
    def _dash_from_json(cls, dash: Any) -> Any:
        return tuple(dash) if isinstance(dash, list) else dash

    @model_validator(mode="after")
    def _some_length(self) -> Self:
        if self.dash and sum(self.dash) < 0.1:
            raise ValueError("dashes and gaps of no length cannot be drawn; give one of them some px, or take them out")
        return self


class Gradient(Frozen):
    """Several colours that go over into each other: along a line, or from a middle outward. Where its ends lie, and the place and colour of each
    stop, are channels of the object (gradients.py)."""

    kind: Literal["linear", "radial"]
    stops: Annotated[int, Field(strict=True, ge=FEWEST_STOPS, le=MOST_STOPS)] = FEWEST_STOPS


class Paints(Frozen):
    """What colours the fill and the stroke of a shape: a gradient, or, with none, one colour."""

    fill: Gradient | None = None
    stroke: Gradient | None = None

    def of(self, part: Painted) -> Gradient | None:
        """The gradient of one of both."""
        return self.fill if part == "fill" else self.stroke


Shape = Annotated[PlainShape | OutlineShape | TextShape, Field(discriminator="type")]
