"""The one SQLite connection: settings, migrations and transactions."""

import sqlite3
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from importlib import resources
from pathlib import Path


class StoreError(Exception):
    """The data file cannot be used; the message says why."""


class Database:
    """A connection shared by all threads, one at a time.

    WAL with `synchronous = FULL`: what a transaction committed is on disk before it is acknowledged.
    """

    def __init__(self, path: Path) -> None:
        self._lock = threading.RLock()
        path.parent.mkdir(parents=True, exist_ok=True)
        try:
            self._connection = sqlite3.connect(path, check_same_thread=False, isolation_level=None, timeout=10)
            self._connection.row_factory = sqlite3.Row
            for pragma in ("journal_mode = WAL", "synchronous = FULL", "foreign_keys = ON"):
                self._connection.execute(f"PRAGMA {pragma}")
            self._migrate()
        except sqlite3.DatabaseError as error:
            raise StoreError(f"{path} cannot be opened as a Vine Swing data file: {error}") from error

    @contextmanager
    def transaction(self) -> Iterator[sqlite3.Connection]:
        """All or nothing; waits for other threads. Not to be nested."""
        with self._lock:
            self._connection.execute("BEGIN IMMEDIATE")
            try:
                yield self._connection
                self._connection.execute("COMMIT")
            except BaseException:
                if self._connection.in_transaction:
                    self._connection.execute("ROLLBACK")
                raise

    @contextmanager
    def reading(self) -> Iterator[sqlite3.Connection]:
        """The connection, for statements that only read."""
        with self._lock:
            yield self._connection

    def close(self) -> None:
        """Finish; the write-ahead log is folded into the file."""
        with self._lock:
            self._connection.close()

    def _migrate(self) -> None:
        """Bring the file to the newest schema; each migration is one transaction together with its number."""
        files = sorted(
            (file for file in resources.files("vine_swing.store").joinpath("migrations").iterdir() if file.name.endswith(".sql")),
            key=lambda file: file.name,
        )
        (done,) = self._connection.execute("PRAGMA user_version").fetchone()
        if done > len(files):
            raise StoreError(f"the data file is from a newer Vine Swing (schema {done}, this one knows {len(files)}); update Vine Swing")
        for number, file in enumerate(files[done:], start=done + 1):
            self._connection.executescript(f"BEGIN IMMEDIATE;\n{file.read_text(encoding='utf-8')}\nPRAGMA user_version = {number};\nCOMMIT;")
