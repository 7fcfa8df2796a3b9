"""The columns of each table: how a column stores part of a scene, and how it is read back.

A new column is one line here and one in a migration. Keys, of which there may be hundreds of thousands, have functions of their own in `keys.py`.
"""

import json
import sqlite3
from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from operator import attrgetter
from typing import Any

from vine_swing.motion.rules.rule import Rule
from vine_swing.motion.scene.kinds import CONTENT_COLUMNS, KINDS
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.shapes import LineStyle, Paints

Data = dict[str, Any]


@dataclass(frozen=True, slots=True)
class Column:
    """One column of a table.

    name: in the table. write: what it holds of a part. read: puts what it holds into the part's data.
    """

    name: str
    write: Callable[[Any], Any]
    read: Callable[[Any, Data], None]


@dataclass(frozen=True)
class Table:
    """The columns of a table beside those that say what a row belongs to.

    name: of the table. listed: whether its rows have a place in a list, in the column `position`.
    """

    name: str
    columns: tuple[Column, ...]
    listed: bool = True

    @cached_property
    def names(self) -> tuple[str, ...]:
        """The columns as SQL names them."""
        place = ("position",) if self.listed else ()
        return *place, *(f'"{column.name}"' for column in self.columns)

    def values(self, part: Any, *place: int) -> tuple[Any, ...]:
        """What the columns hold of a part, which in a list has a place."""
        return *place, *(column.write(part) for column in self.columns)

    def data(self, row: sqlite3.Row) -> Data:
        """What a row gives of the part's data, as the model takes it."""
        found: Data = {}
        for column in self.columns:
            column.read(row[column.name], found)
        return found


def _put(path: str) -> Callable[[Any, Data], None]:
    """Sets a field; `span.first` is that of a part within."""
    *within, field = path.split(".")

    def put(value: Any, data: Data) -> None:
        for name in within:
            data = data.setdefault(name, {})
        data[field] = value

    return put


def _plain(name: str, path: str = "") -> Column:
    """A field as it is."""
    return Column(name, attrgetter(path or name), _put(path or name))


def _flag(name: str, *, unset: bool = False) -> Column:
    """A field that is true or false; `unset` is what NULL means, from before there was the column."""
    put = _put(name)
    return Column(name, lambda part: int(getattr(part, name)), lambda held, data: put(unset if held is None else bool(held), data))


def _json(name: str) -> Column:
    """A field of texts or lists of them, as JSON."""
    put = _put(name)
    return Column(name, lambda part: json.dumps(getattr(part, name)), lambda held, data: put(json.loads(held), data))


def _given(name: str, write: Callable[[Any], Any], read: Callable[[Any], Any] = json.loads) -> Column:
    """A field that is left out where the column is NULL, so that the model's default holds."""

    def put(held: Any, data: Data) -> None:
        if held is not None:
            data[name] = read(held)

    return Column(name, write, put)


def _model(name: str, field: str = "", default: Any = None) -> Column:
    """A model as JSON; NULL where it is as by default."""
    value = attrgetter(field or name)
    return _given(name, lambda part: value(part).model_dump_json() if value(part) != default else None)


def _models(name: str) -> Column:
    """A field of any number of models, as JSON; NULL for none."""
    return _given(name, lambda part: json.dumps([one.model_dump() for one in getattr(part, name)]) if getattr(part, name) else None)


def _content(column: str) -> Column:
    """What only objects of one kind hold, as JSON."""

    def write(thing: SceneObject) -> str | None:
        if thing.content is None or KINDS[thing.kind].content != column:
            return None
        return thing.content.model_dump_json(by_alias=True)

    return _given(column, write)


def _put_side(side: int) -> Callable[[Any, Data], None]:
    """Sets the width (0) or the height (1) of a size."""

    def put(held: Any, data: Data) -> None:
        data.setdefault("size", [0, 0])[side] = held

    return put


def _words(rule: Rule) -> str:
    """The settings of a rule that have no channel of their own."""
    return json.dumps({name: setting for name, setting in rule.settings.items() if isinstance(setting, str)})


#: A scene, or one inside another.
TIMELINE = Table(
    "scene",
    (
        _plain("name"),
        _plain("fps"),
        _plain("length"),
        Column("width", lambda scene: scene.size[0], _put_side(0)),
        Column("height", lambda scene: scene.size[1], _put_side(1)),
        _plain("background"),
        _model("blur"),
        _models("hushed"),
        _models("markers"),
        _model("beat"),
    ),
    listed=False,
)
OBJECT = Table(
    "object",
    (
        _plain("name"),
        _plain("kind"),
        _plain("parent"),
        _flag("shown"),
        _plain("first_frame", "span.first"),
        _plain("last_frame", "span.last"),
        _plain("bone"),
        _flag("pinned"),
        _flag("blurred", unset=True),
        _given("blend", attrgetter("blend"), str),
        _model("line", "line_style", LineStyle()),
        _model("paints", "painted_with", Paints()),
        _flag("locked"),
        _plain("tag"),
        *map(_content, CONTENT_COLUMNS),
    ),
)
RULE = Table(
    "rule",
    (
        _plain("kind"),
        _flag("on"),
        _json("channels"),
        _plain("mode"),
        Column("words", _words, lambda held, data: data.update(settings=json.loads(held))),
    ),
)
DIAL = Table("dial", (_plain("name"), _plain("unit"), _plain("low"), _plain("high"), _model("follows")))
SOUND = Table(
    "sound",
    (
        _plain("name"),
        _plain("seconds"),
        _plain("first_frame", "first"),
        _plain("begins", "begin"),
        _plain("ends", "end"),
        _flag("on"),
        _plain("gain"),
        _plain("dial"),
    ),
)
CUE = Table(
    "cue",
    (
        _plain("name"),
        _plain("first_frame", "first"),
        _plain("last_frame", "last"),
        _json("objects"),
        _plain("key"),
        _plain("click"),
        _plain("plays"),
    ),
)
CHANNEL = Table(
    "channel",
    (
        _plain("base"),
        _plain("before_mode", "before.mode"),
        _plain("before_times", "before.times"),
        _plain("after_mode", "after.mode"),
        _plain("after_times", "after.times"),
        _plain("formula"),
    ),
    listed=False,
)
