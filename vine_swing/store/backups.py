"""Copies of the whole data file, made by SQLite's backup API while it is in use: one at the first change of a day, one before every migration, and
one before another copy is brought back.

They lie in the folder `backups` beside the data file, and are data files themselves. The newest seven are kept.
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
_NAME = re.compile(r"(?P<when>\d{4}-\d\d-\d\dT\d{6})-(?P<why>day|schema|before)\.db")


@dataclass(frozen=True)
class Backup:
    """A copy of the data file. name: of its file. made: when, local time. size: bytes."""

    name: str
    made: datetime
    why: Why
    size: int


class Backups:
    """The copies beside a data file."""

    def __init__(self, data_file: Path, now: Callable[[], datetime] = datetime.now) -> None:
        self.folder, self._now = data_file.parent / "backups", now

    def all(self) -> list[Backup]:
        """The copies there are, the newest first."""
        if not self.folder.is_dir():
            return []
        found = []
        for path in self.folder.iterdir():
            told = _NAME.fullmatch(path.name)
            if told is not None and path.is_file():
                why: Why = told["why"]  # type: ignore[assignment]
                found.append(Backup(path.name, datetime.strptime(told["when"], "%Y-%m-%dT%H%M%S"), why, path.stat().st_size))
        return sorted(found, key=lambda one: (one.made, one.name), reverse=True)

    def path_of(self, name: str) -> Path | None:
        """Where a copy lies; None if there is none of this name."""
        return next((self.folder / one.name for one in self.all() if one.name == name), None)

    def today(self) -> date:
        """The day it is here."""
        return self._now().date()

    def due(self) -> bool:
        """Whether no copy of today's first change was made yet."""
        today = self.today()
        return all(one.made.date() != today or one.why != "day" for one in self.all())

    def make(self, connection: sqlite3.Connection, why: Why) -> Backup:
        """Copy what a connection has open, and let copies beyond the newest seven go.

        Raises:
            StoreError: if the copy cannot be written; none is left then, and the others stay.
        """
        made = self._now().replace(microsecond=0)
        path = self.folder / f"{made:%Y-%m-%dT%H%M%S}-{why}.db"
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
        return Backup(path.name, made, why, path.stat().st_size)
