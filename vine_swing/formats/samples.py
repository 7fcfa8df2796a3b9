"""Tables brought in: CSV and its relatives (RFC 4180; semicolons, tabs, decimal commas), as columns of numbers, colours, moments or words."""

import csv
import io
import re
from dataclasses import dataclass
from datetime import datetime
from itertools import islice, pairwise
from typing import Literal

from vine_swing.motion import MotionError

MOST_BYTES, MOST_ROWS, MOST_COLUMNS = 12_000_000, 100_000, 200
Kind = Literal["number", "colour", "moment", "words"]
Unit = Literal["frames", "seconds", "rows"]
Cell = float | str | None
_COLOUR = re.compile(r"#(?:[0-9A-Fa-f]{3,4}|[0-9A-Fa-f]{6}|[0-9A-Fa-f]{8})")
#: Characters of a moment: the longest form of ISO 8601 and a little more.
_LONGEST_MOMENT = 40
_CLOCK = re.compile(r"(?:(\d+):)?(\d{1,2}):(\d{1,2}(?:\.\d+)?)")
#: So large a share of a column must be of a kind for it to be of that kind.
_MOST = 0.8


@dataclass(frozen=True)
class Column:
    """One column. kind: numbers, colours as hex, moments as seconds since the first, or words. cells: one a row, None where it is missing of the
    kind."""

    name: str
    kind: Kind
    cells: tuple[Cell, ...]


@dataclass(frozen=True)
class Table:
    """A table. time: the column that looks like time, if any does, and what it counts in. remarks: irregularities."""

    columns: tuple[Column, ...]
    rows: int
    time: int | None
    unit: Unit
    remarks: tuple[str, ...]


def read_table(data: bytes, name: str) -> Table:
    """Read a table.

    Raises:
        MotionError: if it is none, or is too large; saying what would work.
    """
    if len(data) > MOST_BYTES:
        raise MotionError(f"'{name}' has {len(data) / 1e6:.0f} MB; at most {MOST_BYTES / 1e6:.0f} MB are read, so take fewer rows or columns")
    if b"\0" in data[:4000]:
        raise MotionError(f"'{name}' is no table of text; save it as CSV")
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        text = data.decode("latin-1")
    delimiter = _delimiter(text)
    try:
        rows = (line for line in csv.reader(io.StringIO(text), delimiter=delimiter) if any(cell.strip() for cell in line))
        # Rows beyond the limit and a head are never parsed.
        lines = list(islice(rows, MOST_ROWS + 2))
    except csv.Error as error:
        raise MotionError(f"'{name}' cannot be read as a table: {error}; save it as CSV") from error
    if not lines:
        raise MotionError(f"'{name}' is empty; a table has a row for each moment")
    wide = max(map(len, lines))
    if len(lines) > MOST_ROWS or wide > MOST_COLUMNS:
        rows_found = f"more than {MOST_ROWS}" if len(lines) > MOST_ROWS else str(len(lines))
        raise MotionError(f"'{name}' has {rows_found} rows and {wide} columns; at most {MOST_ROWS} rows and {MOST_COLUMNS} columns are read")
    decimal_comma = delimiter != ","
    has_head = all(_number(cell, decimal_comma) is None and not _COLOUR.fullmatch(cell.strip()) for cell in lines[0] if cell.strip())
    head, body = (lines[0], lines[1:]) if has_head else ([], lines)
    if not body:
        raise MotionError(f"'{name}' has a head and no rows below it")
    remarks: list[str] = []
    columns = tuple(_column(head, body, at, decimal_comma, remarks) for at in range(wide))
    if any(len(line) != wide for line in body):
        remarks.append("some rows are shorter than others; what is missing is left out")
    time, unit = _time_of(columns)
    return Table(columns, len(body), time, unit, tuple(remarks))


def _delimiter(text: str) -> str:
    """Return the delimiter: the character that the first lines have most evenly."""
    lines = [line for line in text.splitlines()[:20] if line.strip()]
    counts = {mark: [line.count(mark) for line in lines] for mark in ("\t", ";", ",", "|")}
    even = {mark: min(count) for mark, count in counts.items() if count and min(count) > 0}
    return max(even, key=lambda mark: even[mark]) if even else ","


def _number(cell: str, decimal_comma: bool) -> float | None:
    text = cell.strip().rstrip("%").strip()
    if decimal_comma and "," in text and "." not in text:
        text = text.replace(",", ".")
    try:
        value = float(text)
    except ValueError:
        return None
    return value if abs(value) < 1e9 else None


def _moment(cell: str) -> float | None:
    """A time of day (h:m:s or m:s) or a date with one (ISO 8601), in seconds."""
    text = cell.strip()
    if len(text) > _LONGEST_MOMENT:
        return None
    clock = _CLOCK.fullmatch(text)
    if clock is not None:
        return int(clock[1] or 0) * 3600.0 + int(clock[2]) * 60.0 + float(clock[3])
    try:
        return datetime.fromisoformat(text).timestamp() if len(text) >= 10 else None
    except (ValueError, OverflowError, OSError):
        return None


def _column(head: list[str], body: list[list[str]], at: int, decimal_comma: bool, remarks: list[str]) -> Column:
    written = [line[at] if at < len(line) else "" for line in body]
    message = head[at].strip()[:60] if at < len(head) else ""
    name = message or f"Column {at + 1}"
    filled = sum(bool(cell.strip()) for cell in written) or 1
    numbers = [_number(cell, decimal_comma) for cell in written]
    if sum(number is not None for number in numbers) >= _MOST * filled:
        _tell(remarks, name, numbers, written, "numbers")
        return Column(name, "number", tuple(numbers))
    colours = [cell.strip().upper() if _COLOUR.fullmatch(cell.strip()) else None for cell in written]
    if sum(colour is not None for colour in colours) >= _MOST * filled:
        _tell(remarks, name, colours, written, "colours")
        return Column(name, "colour", tuple(colours))
    moments = [_moment(cell) for cell in written]
    if sum(moment is not None for moment in moments) >= _MOST * filled:
        begin = next(moment for moment in moments if moment is not None)
        return Column(name, "moment", tuple(None if moment is None else moment - begin for moment in moments))
    return Column(name, "words", tuple(cell.strip()[:80] or None for cell in written))


def _tell(remarks: list[str], name: str, cells: list[float | None] | list[str | None], written: list[str], what: str) -> None:
    odd = sum(cell is None and bool(text.strip()) for cell, text in zip(cells, written, strict=True))
    empty = sum(not text.strip() for text in written)
    if odd:
        remarks.append(f"{name}: {odd} cells are no {what} and are left out")
    if empty:
        remarks.append(f"{name}: {empty} cells are empty and are left out")


def _time_of(columns: tuple[Column, ...]) -> tuple[int | None, Unit]:
    """Return the time column: one with a name such as "time", or the first whose numbers only rise."""
    for at, column in enumerate(columns):
        if column.kind == "moment":
            return at, "seconds"
    for at, column in enumerate(columns):
        word = column.name.lower()
        if column.kind == "number" and re.search(r"\b(frame|frames|f)\b", word):
            return at, "frames"
        if column.kind == "number" and re.search(r"\b(time|seconds?|secs?|s|t)\b", word):
            return at, "seconds"
    first = columns[0]
    numbers = [float(cell) for cell in first.cells if isinstance(cell, float)]
    if len(columns) > 1 and first.kind == "number" and len(numbers) > 2 and all(b > a for a, b in pairwise(numbers)):
        whole = all(number == int(number) for number in numbers)
        return 0, "frames" if whole else "seconds"
    return None, "rows"
