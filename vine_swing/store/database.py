"""The one SQLite connection: settings, transactions, and copies of the file."""

import contextlib
import os
import sqlite3
import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import date
from pathlib import Path

from vine_swing.store import sizes
from vine_swing.store.backups import Backup, Backups
from vine_swing.store.errors import StoreError, StoreNotWritable, translated
from vine_swing.store.lock import FolderLock
from vine_swing.store.restoring import finish_restore, read_copy, restore_file
from vine_swing.store.schema import check_file, migrate


class Database:
    """A connection shared by all threads, one at a time.

    WAL with `synchronous = FULL`: what a transaction committed is on disk before it is acknowledged.
    """

    def __init__(self, path: Path, backups: Backups | None = None, *, restore: str | None = None) -> None:
        """Open or make the data file. The folder's lock is taken before anything in the folder is renamed, copied or migrated.

        Args:
            path: the data file.
            backups: its copies.
            restore: the name of a copy that replaces the data file first ("last": the newest one); the file is set aside.

        Raises:
            StoreError: if it is not a data file of ours, is damaged, is from a newer version, or is open elsewhere, or if there is no copy
                `restore`. The file is unchanged then.
        """
        self._lock = threading.RLock()
        self._path = path
        self.backups = backups or Backups(path)
        #: The name of the copy that the file was replaced by when it was opened.
        self.restored: str | None = None
        #: The day of the last change, so that the first of another one is noticed without looking into a folder.
        self._day: date | None = None
        try:
            path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
            self._held = FolderLock(path)
        except OSError as error:
            raise _cannot_open(path, error) from error
        try:
            finish_restore(path, self.backups)
            if restore is not None:
                self.restored = restore_file(path, restore, self.backups)
            check_file(path)
            # Made by us, so that only its owner can read it; SQLite gives its own files beside it the same rights.
            os.close(os.open(path, os.O_RDWR | os.O_CREAT, 0o600))
            self._connection = sqlite3.connect(path, check_same_thread=False, isolation_level=None, timeout=10)
            self._connection.row_factory = sqlite3.Row
            for pragma in ("journal_mode = WAL", "synchronous = FULL"):
                self._connection.execute(f"PRAGMA {pragma}")
            migrate(self._connection, before=lambda: self.backups.make(self._connection, "schema"))
        except BaseException as error:
            if hasattr(self, "_connection"):
                self._connection.close()
            self._held.release()
            if isinstance(error, sqlite3.Error | OSError):
                raise _cannot_open(path, error) from error
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
        """Before the first change of a day, copy everything unchanged. A disk without room for a copy keeps nobody from working."""
        today = self.backups.today()
        if self._day == today:
            return
        self._day = today
        if self.backups.due() and self._connection.execute("SELECT 1 FROM scene LIMIT 1").fetchone():
            with contextlib.suppress(StoreError):
                self.backups.make(self._connection, "day")

    def bring_back(self, name: str, prepare: Callable[[sqlite3.Connection, sqlite3.Connection], None]) -> Backup:
        """Replace everything by the contents of a copy, in one transaction; the current state becomes a copy first. Returns that copy.

        Args:
            name: of the copy.
            prepare: called with the copy, in memory, and the current database, to carry over what is not part of a copy.

        Raises:
            StoreError: if the copy does not exist, or it is damaged or from a newer version; nothing is changed then.
        """
        path = self.backups.path_of(name)
        if path is None:
            raise StoreError(f"there is no copy '{name}'; only the newest are kept")
        with self._lock:
            try:
                # Read whole before anything is replaced: making the next copy may delete this one.
                with contextlib.closing(read_copy(path)) as held:
                    made = self.backups.make(self._connection, "before")
                    prepare(held, self._connection)
                    held.backup(self._connection)
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


def _cannot_open(path: Path, error: Exception) -> StoreError:
    """Return the error for a data file that the system does not let us open."""
    if isinstance(error, PermissionError) or getattr(error, "sqlite_errorname", "").startswith(("SQLITE_READONLY", "SQLITE_CANTOPEN", "SQLITE_PERM")):
        return StoreNotWritable(
            f"{path} cannot be opened for writing; allow writing to this file and its folder, or give Vine Swing another folder with --data"
        )
    reason = error.strerror if isinstance(error, OSError) and error.strerror else error
    return StoreError(f"{path} cannot be opened as a Vine Swing data file: {reason}")
