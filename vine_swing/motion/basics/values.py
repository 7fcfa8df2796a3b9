"""The plain values a scene is written with, and their limits.

The limits are far beyond any picture, and keep every later computation finite in float64.
"""

from typing import Annotated, Any, Literal, Self

from pydantic import BaseModel, ConfigDict, Discriminator, Field, GetCoreSchemaHandler, Tag

MAX_FRAME = 1_000_000
MAX_NUMBER = 1e9
MAX_LENGTH = 20_000

#: A frame, counted from 0, as a real number.
Frame = Annotated[float, Field(strict=True, ge=-MAX_FRAME, le=MAX_FRAME)]
#: Any finite number a channel can hold: pixels, degrees, factors, Hz.
Number = Annotated[float, Field(strict=True, ge=-MAX_NUMBER, le=MAX_NUMBER)]
#: An sRGB colour as CSS writes it in hex, with or without alpha.
Colour = Annotated[str, Field(pattern=r"^#(?:[0-9A-Fa-f]{3,4}|[0-9A-Fa-f]{6}|[0-9A-Fa-f]{8})$")]


#: A point of the picture (or of the parent's space): [x, y] in pixels.
Point = tuple[Number, Number]


#: The blend modes of "Compositing and Blending Level 1" (W3C), by their names there.
Blend = Literal[
    "normal",
    "multiply",
    "screen",
    "overlay",
    "darken",
    "lighten",
    "color-dodge",
    "color-burn",
    "hard-light",
    "soft-light",
    "difference",
    "exclusion",
    "hue",
    "saturation",
    "color",
    "luminosity",
]

#: Characters of SVG path data of one outline.
MAX_PATH_DATA = 200_000
#: An outline as SVG path data (SVG 2, section 9.3), which begins with a move.
PathData = Annotated[str, Field(min_length=1, max_length=MAX_PATH_DATA, pattern=r"^\s*[Mm][^\x00-\x08\x0b\x0c\x0e-\x1f\x7f]*$")]


#: Any text without control characters but tabs and line breaks: others are no writing, and end a text early in some programs.
Text = Annotated[str, Field(pattern=r"^[^\x00-\x08\x0b\x0c\x0e-\x1f\x7f]*$")]
#: Characters of one text.
MAX_TEXT = 2_000


def _fail_fast(schema: Any, *, root: bool = True) -> None:
    """Make the lists of a core schema stop at their first fault. Models within it have done so for themselves."""
    if isinstance(schema, dict):
        kind = schema.get("type")
        if kind == "model" and not root:
            return
        if kind in ("list", "tuple", "set", "frozenset"):
            schema["fail_fast"] = True
        for name, part in schema.items():
            if name not in ("metadata", "serialization"):
                _fail_fast(part, root=root and kind != "model")
    elif isinstance(schema, list):
        for part in schema:
            _fail_fast(part, root=False)


class Bounded(BaseModel):
    """A model whose lists report their first fault only: a file with millions of faults must not fill the memory with messages."""

    @classmethod
    def __get_pydantic_core_schema__(cls, source: Any, handler: GetCoreSchemaHandler) -> Any:
        """Return the schema of the model, with all its lists failing fast."""
        schema = handler(source)
        _fail_fast(schema)
        return schema


class Frozen(Bounded):
    """A part of a scene: never changed in place, so that unchanged parts can be shared between versions."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)

    def checked(self, **changes: Any) -> Self:
        """As `copy_with`, with everything checked.

        Raises:
            ValidationError: if the fields do not fit.
        """
        return type(self).model_validate({name: getattr(self, name) for name in type(self).model_fields} | changes)

    def copy_with(self, **changes: Any) -> Self:
        """The same part with some fields changed. Nothing is checked again: callers hand in checked parts."""
        kind = type(self)
        copy = kind.__new__(kind)
        # As Pydantic's own `model_copy`, at a third of its cost. Cached values of the old fields must not be copied.
        fields = kind.__pydantic_fields__
        values = {name: value for name, value in self.__dict__.items() if name in fields}
        values.update(changes)
        object.__setattr__(copy, "__dict__", values)
        object.__setattr__(copy, "__pydantic_fields_set__", self.__pydantic_fields_set__ | changes.keys())
        object.__setattr__(copy, "__pydantic_extra__", None)
        object.__setattr__(copy, "__pydantic_private__", None)
        return copy


class Words(Frozen):
    """The words of a text. In a file they are in braces, `{"text": "Mail!"}`, to distinguish them from colours and path data."""

    text: Annotated[Text, Field(max_length=MAX_TEXT)]


def _kind_of_value(value: Any) -> str:
    # Nearly all of the many keys of a scene hold numbers.
    if type(value) is float or type(value) is int:
        return "as number"
    if isinstance(value, str):
        return "as outline" if value.lstrip()[:1] in ("M", "m") else "as colour"
    if isinstance(value, list | tuple):
        return "as point"
    return "as words" if isinstance(value, dict | Words) else "as number"


#: A number, a colour, a point, an outline or words; the form decides which limits apply, so that a fault names only those.
Value = Annotated[
    Annotated[Number, Tag("as number")]
    | Annotated[Colour, Tag("as colour")]
    | Annotated[Point, Tag("as point")]
    | Annotated[PathData, Tag("as outline")]
    | Annotated[Words, Tag("as words")],
    Discriminator(_kind_of_value),
]
#: The number of a point of an outline, counted through all its parts from 0.
PointNumber = Annotated[int, Field(strict=True, ge=0, le=100_000)]
#: Frames per second of a scene, and how many frames it shows.
Fps = Annotated[float, Field(strict=True, ge=1, le=240)]
Length = Annotated[int, Field(strict=True, ge=1, le=MAX_LENGTH)]
#: What ties objects together inside a file; never shown to people.
Id = Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{1,64}$")]
#: What owns a channel: an object by its id, or a dial as `dial:` and its id.
Owner = Annotated[str, Field(pattern=r"^(?:dial:)?[A-Za-z0-9_-]{1,64}$")]
#: What people call an object. Braces and @ are kept free, since formulas write names inside braces.
Name = Annotated[str, Field(min_length=1, max_length=80, pattern=r"^[^\x00-\x1f{}@]*[^\s\x00-\x1f{}@][^\x00-\x1f{}@]*$")]
