"""What a parade is told besides its channels, as it is in the scene file."""

import re
from collections.abc import Mapping
from typing import Annotated, Any, Literal, Self

from pydantic import Field, field_validator

from vine_swing.motion.basics.values import MAX_TEXT, Frame, Frozen, Id, Number, Text
from vine_swing.motion.timing.ease import BezierEase, PointsEase
from vine_swing.motion.timing.ease.spec import FeelName

#: Copies of one parade.
MAX_COPIES = 2_000
#: Rows of one list, and lists of one parade.
MAX_ROWS = 5_000
MAX_LISTS = 50

Arrange = Literal["row", "column", "free", "grid", "ring", "along", "points", "letters", "words", "lines", "nest"]
TextPartName = Literal["letters", "words", "lines"]
Order = Literal["first", "last", "middle", "ends", "chance"]
#: In place of a channel: the number that formulas call `item`.
ITEM = "item"

_COLOUR = re.compile(r"#(?:[0-9A-Fa-f]{3,4}|[0-9A-Fa-f]{6}|[0-9A-Fa-f]{8})")
_Words = Annotated[Text, Field(max_length=MAX_TEXT)]


class ItemList(Frozen):
    """A value for each copy: of a channel of a part, of the words of a text (`text`), or for formulas (`item`, of no part).

    object: the part; None for `item`. values: one a row; None leaves the object's own value.
    fill: what copies beyond the last row get: the first rows again (`cycle`), the last one (`once`), or all rows, blended across all copies
        (`spread`; words are not blended).
    mode: whether the value takes the place of what the part has, is added to it, or multiplied with it.
    """

    object: Id | None = None
    channel: Annotated[str, Field(max_length=80)]
    values: Annotated[tuple[Number | _Words | None, ...], Field(max_length=MAX_ROWS)]
    fill: Literal["cycle", "once", "spread"] = "cycle"
    mode: Literal["replace", "add", "multiply"] = "replace"

    @field_validator("values", mode="before")
    @classmethod
    def _numbers_as_they_are(cls, values: Any) -> Any:
        return tuple(values) if isinstance(values, list) else values


class Overrule(Frozen):
    """One value that one copy alone has, whatever the lists say: the `copy`-th (from 0) is red."""

    copy_: Annotated[int, Field(strict=True, ge=0, lt=MAX_COPIES, alias="copy")]
    object: Id
    channel: Annotated[str, Field(max_length=80)]
    value: Number | _Words

    model_config = Frozen.model_config | {"populate_by_name": True}


class Parade(Frozen):
    """How copies are laid out.

    arrange: how they stand, as in a row or a ring. columns: of a grid. turned: whether copies of a ring or along a way turn with it.
    guide: the object whose path or outline they stand along, or at whose points.
    order: who starts first; `seed` is for an order by chance. feel: how what goes from one value to another over the copies is eased.
    wraps: whether places are counted round, so that a copy shifted past the end is at the start again.
    front: which copy is in front. geometric: whether scale grows by equal factors instead of equal steps.
    measured_at: the frame at which the width and height of the element are taken for rows, columns and grids.
    """

    arrange: Arrange = "row"
    columns: Annotated[int, Field(strict=True, ge=1, le=MAX_COPIES)] = 4
    turned: bool = False
    guide: Id | None = None
    order: Order = "first"
    seed: Annotated[int, Field(strict=True, ge=0, le=999_999)] = 0
    feel: FeelName | BezierEase | PointsEase = "even"
    wraps: bool = False
    front: Literal["last", "first", "smallest"] = "last"
    geometric: bool = False
    measured_at: Frame = 0.0
    lists: Annotated[tuple[ItemList, ...], Field(max_length=MAX_LISTS)] = ()
    overrules: Annotated[tuple[Overrule, ...], Field(max_length=MAX_COPIES)] = ()

    @property
    def text_part(self) -> TextPartName | None:
        """What its copies show of a text, one each; None where they show the element whole."""
        return self.arrange if self.arrange in ("letters", "words", "lines") else None

    @property
    def is_measured(self) -> bool:
        """Whether copies stand as far apart as the element is wide or high."""
        return self.arrange in ("row", "column", "grid")

    def with_ids(self, ids: Mapping[str, str]) -> Self:
        """The same, with the ids of objects it names replaced; those not among `ids` stay."""
        lists = tuple(one.copy_with(object=ids.get(one.object or "", one.object)) for one in self.lists)
        overrules = tuple(one.copy_with(object=ids.get(one.object, one.object)) for one in self.overrules)
        return self.copy_with(lists=lists, overrules=overrules, guide=ids.get(self.guide or "", self.guide))


def fault_of(value: float | str | None, kind: str) -> str | None:
    """Return why a list value does not fit a kind of channel, or None."""
    if value is None:
        return None
    if kind == "number" and isinstance(value, str):
        return f"'{value[:30]}' is no number"
    if kind == "colour" and not (isinstance(value, str) and _COLOUR.fullmatch(value)):
        return f"{value!r} is no colour such as '#F2932B'"
    return "a path or an outline cannot have a list" if kind in ("point", "outline") else None
