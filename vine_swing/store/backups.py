"""Copies of the whole data file, made by SQLite's backup API while it is in use: one at the first change of a day, one before every migration, and
one before another copy is brought back.

They are in the folder `backups` beside the data file, and are data files themselves. The newest seven are kept. Copies are numbered, and "newest"
follows that number: a clock that was wrong for a while must neither hide new copies nor push them out.
"""

import contextlib
import os
import re
import sqlite3
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date, datetime
from pathlib import Path
from typing import Literal

from vine_swing.store.errors import StoreError, translated

#: How many copies are kept.
KEPT = 7
#: What made a copy be made: the first change of a day, a migration, or another copy that was brought back.
Why = Literal["day", "schema", "before"]
#: Copies made before copies were numbered have no number, and count as older than all that have one.
_NAME = re.compile(r"(?P<when>\d{4}-\d\d-\d\dT\d{6})-(?:(?P<number>\d{1,9})-)?(?P<why>day|schema|before)\.db")


@dataclass(frozen=True)
class Backup:
    """A copy of the data file. name: of its file. made: when, local time. size: bytes. number: counts up from 1, 0 for copies without one."""

    name: str
    made: datetime
    why: Why
    size: int
    number: int = 0


class Backups:
    """The copies beside a data file."""

    def __init__(self, data_file: Path, now: Callable[[], datetime] = datetime.now) -> None:
        self.folder, self._now = data_file.parent / "backups", now

    def all(self) -> list[Backup]:
        """Return the copies, the newest first. Files whose name is not that of a copy are ignored, as are those with an impossible date."""
        if not self.folder.is_dir():
            return []
        copies = [copy for path in self.folder.iterdir() if (copy := _read_name(path)) is not None]
        return sorted(copies, key=lambda copy: (copy.number, copy.made, copy.name), reverse=True)

    def path_of(self, name: str) -> Path | None:
        """Where a copy lies, or None with this name."""
        return next((self.folder / one.name for one in self.all() if one.name == name), None)

    def today(self) -> date:
        """The day it is here."""
        return self._now().date()

    def due(self) -> bool:
        """True if the newest daily copy was not made today, so that another one is due before the next change."""
        newest = next((copy for copy in self.all() if copy.why == "day"), None)
        return newest is None or newest.made.date() != self.today()

    def make(self, connection: sqlite3.Connection, why: Why) -> Backup:
        """Copy the database of a connection, and delete copies beyond the newest seven.

        Raises:
            StoreError: if the copy cannot be written; no partial file is left then, and the other copies stay.
        """
        made = self._now().replace(microsecond=0)
        number = max((copy.number for copy in self.all()), default=0) + 1
        path = self.folder / f"{made:%Y-%m-%dT%H%M%S}-{number:06d}-{why}.db"
        part = path.with_suffix(".part")
        try:
            self.folder.mkdir(mode=0o700, exist_ok=True)
            os.close(os.open(part, os.O_RDWR | os.O_CREAT | os.O_TRUNC, 0o600))
            with contextlib.closing(sqlite3.connect(part)) as copy:
                connection.backup(copy)
            part.replace(path)
        except sqlite3.Error as error:
            part.unlink(missing_ok=True)
            raise translated(error) from error
        except OSError as error:
            with contextlib.suppress(OSError):
                part.unlink(missing_ok=True)
            raise StoreError(f"no copy of the data file could be made in {self.folder}: {error.strerror or error}") from error
        for old in self.all()[KEPT:]:
            (self.folder / old.name).unlink(missing_ok=True)
        return Backup(path.name, made, why, path.stat().st_size, number)


def _read_name(path: Path) -> Backup | None:
    """Return the copy that a file is, by its name; None if it is not one."""
    parts = _NAME.fullmatch(path.name)
    if parts is None or not path.is_file():
        return None
    try:
        made = datetime.strptime(parts["when"], "%Y-%m-%dT%H%M%S")
    except ValueError:
        return None
    why: Why = parts["why"]  # type: ignore[assignment]
    return Backup(path.name, made, why, path.stat().st_size, int(parts["number"] or 0))
