"""The one SQLite connection: settings, checks, migrations and transactions."""

import contextlib
import os
import sqlite3
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import date
from importlib import resources
from pathlib import Path

from vine_swing.store import sizes, undo
from vine_swing.store.backups import Backup, Backups
from vine_swing.store.errors import StoreError, translated
from vine_swing.store.lock import FolderLock

#: "ViSw": what SQLite's `application_id` says in our files from schema 6 on.
APPLICATION_ID = int.from_bytes(b"ViSw", "big")
#: Tables that every file of ours has, of whichever schema.
_OUR_TABLES = {"scene", "object", "channel", "key", "step", "inverse", "recording"}


class Database:
    """A connection shared by all threads, one at a time.

    WAL with `synchronous = FULL`: what a transaction committed is on disk before it is acknowledged.
    """

    def __init__(self, path: Path, backups: Backups | None = None) -> None:
        """Open or make the data file.

        Raises:
            StoreError: if it is not a data file of ours, is damaged, is from a newer version, or is open elsewhere. The file is then as it was.
        """
        self._lock = threading.RLock()
        self._path = path
        self.backups = backups or Backups(path)
        #: The day of the last change, so that the first of another one is noticed without looking into a folder.
        self._day: date | None = None
        try:
            path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
            self._held = FolderLock(path)
        except OSError as error:
            raise StoreError(f"{path} cannot be opened as a Vine Swing data file: {error.strerror or error}") from error
        try:
            _check(path)
            # Made by us, so that only its owner can read it; SQLite gives its own files beside it the same rights.
            os.close(os.open(path, os.O_RDWR | os.O_CREAT, 0o600))
            self._connection = sqlite3.connect(path, check_same_thread=False, isolation_level=None, timeout=10)
            self._connection.row_factory = sqlite3.Row
            for pragma in ("journal_mode = WAL", "synchronous = FULL"):
                self._connection.execute(f"PRAGMA {pragma}")
            self._migrate()
            self._connection.execute("PRAGMA foreign_keys = ON")
        except BaseException as error:
            if hasattr(self, "_connection"):
                self._connection.close()
            self._held.release()
            if isinstance(error, sqlite3.Error | OSError):
                raise StoreError(f"{path} cannot be opened as a Vine Swing data file: {error}") from error
            raise

    @contextmanager
    def transaction(self) -> Iterator[sqlite3.Connection]:
        """All or nothing; waits for other threads. Not to be nested.

        Raises:
            StoreError: if the file does not take what is written; nothing is changed then.
        """
        with self._lock:
            try:
                self._copy_of_the_day()
                self._connection.execute("BEGIN IMMEDIATE")
                try:
                    yield self._connection
                    self._connection.execute("COMMIT")
                except BaseException:
                    if self._connection.in_transaction:
                        self._connection.execute("ROLLBACK")
                    raise
            except sqlite3.Error as error:
                raise translated(error) from error

    @contextmanager
    def reading(self) -> Iterator[sqlite3.Connection]:
        """The connection, for statements that only read.

        Raises:
            StoreError: if the file cannot be read.
        """
        with self._lock:
            try:
                yield self._connection
            except sqlite3.Error as error:
                raise translated(error) from error

    def _copy_of_the_day(self) -> None:
        """Before the first change of a day, copy everything as it was. A disk without room for a copy keeps nobody from working."""
        today = self.backups.today()
        if self._day == today:
            return
        self._day = today
        if self.backups.due() and self._connection.execute("SELECT 1 FROM scene LIMIT 1").fetchone():
            with contextlib.suppress(StoreError):
                self.backups.make(self._connection, "day")

    def bring_back(self, name: str) -> Backup:
        """Put everything as it was in a copy; what there is now becomes a copy itself.

        Raises:
            StoreError: if there is no such copy, or it is damaged; nothing is changed then.
        """
        path = self.backups.path_of(name)
        if path is None:
            raise StoreError(f"there is no copy '{name}'; it may have been let go, as only the newest are kept")
        with self._lock:
            _check(path)
            with contextlib.closing(sqlite3.connect(path)) as copy:
                # Read whole before anything is replaced: making the next copy may let this one go.
                held = sqlite3.connect(":memory:")
                copy.backup(held)
            with contextlib.closing(held):
                made = self.backups.make(self._connection, "before")
                try:
                    held.backup(self._connection)
                    self._migrate()
                    self._connection.execute("PRAGMA foreign_keys = ON")
                except sqlite3.Error as error:
                    raise translated(error) from error
        return made

    def shrink(self) -> None:
        """Give free pages back to the disk, where they are much of the file. Needs room for a copy meanwhile; without it the file stays as it is."""
        with self._lock, contextlib.suppress(sqlite3.Error):
            if sizes.is_worth_shrinking(self._connection):
                self._connection.execute("VACUUM")
                self._connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")

    def close(self) -> None:
        """Finish; the write-ahead log is folded into the file."""
        with self._lock:
            self._connection.close()
            self._held.release()

    def _migrate(self) -> None:
        """Bring the file to the newest schema: all pending migrations in one transaction, so that a failing one changes nothing."""
        files = _scripts("migrations")
        (done,) = self._connection.execute("PRAGMA user_version").fetchone()
        if done > len(files):
            raise StoreError(f"the data file is from a newer Vine Swing (schema {done}, this one knows {len(files)}); update Vine Swing")
        if done == len(files):
            return
        if done:
            self.backups.make(self._connection, "schema")
        # Tables are made anew under another name and renamed, as SQLite's documentation of ALTER TABLE describes; references are checked after it.
        self._connection.execute("PRAGMA foreign_keys = OFF")
        self._connection.execute("BEGIN IMMEDIATE")
        try:
            if done and not self._connection.execute("SELECT 1 FROM sqlite_schema WHERE name = 'dial'").fetchone():
                self._run(*_scripts("repairs"))
            self._run(*files[done:])
            undo.install(self._connection)
            broken = self._connection.execute("PRAGMA foreign_key_check").fetchone()
            if broken is not None:
                raise StoreError(f"the data file cannot be brought to the newest schema: a row of '{broken[0]}' refers to nothing")
            self._connection.execute(f"PRAGMA user_version = {len(files)}")
            self._connection.execute("COMMIT")
        except BaseException:
            self._connection.execute("ROLLBACK")
            raise

    def _run(self, *scripts: str) -> None:
        """The statements of some scripts, one by one within the transaction at hand (`executescript` would end it)."""
        for script in scripts:
            statement = ""
            for line in script.splitlines(keepends=True):
                statement += line
                if sqlite3.complete_statement(statement):
                    self._connection.execute(statement)
                    statement = ""


def _scripts(folder: str) -> list[str]:
    """The SQL files of a folder of this package, in the order of their names."""
    files = resources.files("vine_swing.store").joinpath(folder).iterdir()
    return [file.read_text(encoding="utf-8") for file in sorted(files, key=lambda file: file.name) if file.name.endswith(".sql")]


def _check(path: Path) -> None:
    """Refuse a file that is not ours or is damaged, without writing to it.

    Raises:
        StoreError: saying which.
        sqlite3.Error: if it is no SQLite file at all.
    """
    if not path.exists() or path.stat().st_size == 0:
        return
    # Without `immutable`, so that what a killed server left in the write-ahead log is read too.
    reader = sqlite3.connect(path, timeout=10)
    try:
        reader.execute("PRAGMA query_only = ON")
        (application,) = reader.execute("PRAGMA application_id").fetchone()
        (version,) = reader.execute("PRAGMA user_version").fetchone()
        tables = {row[0] for row in reader.execute("SELECT name FROM sqlite_schema WHERE type = 'table'")}
        ours = application == APPLICATION_ID or (application == 0 and (tables >= _OUR_TABLES or (not tables and version > 0)))
        if not ours and (tables or application):
            raise StoreError(f"{path} is a data file of another program; give Vine Swing another folder with --data")
        (fault,) = reader.execute("PRAGMA quick_check(1)").fetchone()
        if fault != "ok":
            raise StoreError(f"{path} is damaged ({str(fault)[:120]}); bring back a copy of it from before")
    except sqlite3.DatabaseError as error:
        if getattr(error, "sqlite_errorname", "").startswith("SQLITE_CORRUPT"):
            raise StoreError(f"{path} is damaged ({error}); bring back a copy of it from before") from error
        raise
    finally:
        reader.close()
