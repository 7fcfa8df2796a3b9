"""The schema of a data file: the check that a file is ours, and the migrations that bring it to the newest schema."""

import sqlite3
from collections.abc import Callable
from importlib import resources
from pathlib import Path

from vine_swing.store import undo
from vine_swing.store.errors import StoreError

#: "ViSw": SQLite's `application_id` in our data files from schema 6 on.
APPLICATION_ID = int.from_bytes(b"ViSw", "big")
#: Tables that every data file has, whatever its schema.
_OUR_TABLES = {"scene", "object", "channel", "key", "step", "inverse", "recording"}


def migrate(connection: sqlite3.Connection, *, before: Callable[[], object] = lambda: None) -> None:
    """Bring a data file to the newest schema, in one transaction: a migration that fails changes nothing. Foreign keys are enforced afterwards.

    Args:
        connection: a connection in autocommit mode.
        before: called before an existing file is changed, so that the caller can copy it.

    Raises:
        StoreError: if the file is from a newer version, or a row refers to a missing one.
    """
    scripts = _scripts("migrations")
    (version,) = connection.execute("PRAGMA user_version").fetchone()
    if version > len(scripts):
        raise StoreError(f"the data file is from a newer Vine Swing (schema {version}; this version knows {len(scripts)}); update Vine Swing")
    if version < len(scripts):
        if version:
            before()
        _run_migrations(connection, version, scripts)
    connection.execute("PRAGMA foreign_keys = ON")


def _run_migrations(connection: sqlite3.Connection, version: int, scripts: list[str]) -> None:
    # Migrations rebuild tables under a temporary name and rename them, as SQLite's documentation of ALTER TABLE describes, so references are
    # checked once at the end.
    connection.execute("PRAGMA foreign_keys = OFF")
    connection.execute("BEGIN IMMEDIATE")
    try:
        if version and not connection.execute("SELECT 1 FROM sqlite_schema WHERE name = 'dial'").fetchone():
            _run(connection, _scripts("repairs"))
        _run(connection, scripts[version:])
        undo.install(connection)
        broken = connection.execute("PRAGMA foreign_key_check").fetchone()
        if broken is not None:
            raise StoreError(f"the data file cannot be brought to the newest schema: a row of '{broken[0]}' refers to a missing row")
        connection.execute(f"PRAGMA user_version = {len(scripts)}")
        connection.execute("COMMIT")
    except BaseException:
        connection.execute("ROLLBACK")
        raise


def _run(connection: sqlite3.Connection, scripts: list[str]) -> None:
    """Execute the statements of some scripts within the open transaction (`executescript` would commit it)."""
    for script in scripts:
        statement = ""
        for line in script.splitlines(keepends=True):
            statement += line
            if sqlite3.complete_statement(statement):
                connection.execute(statement)
                statement = ""


def _scripts(folder: str) -> list[str]:
    """Return the SQL files of a folder of this package, in the order of their names."""
    files = resources.files("vine_swing.store").joinpath(folder).iterdir()
    return [file.read_text(encoding="utf-8") for file in sorted(files, key=lambda file: file.name) if file.name.endswith(".sql")]


def check_file(path: Path) -> None:
    """Refuse a file that is not a data file of ours, or is damaged, without writing to it. A missing or empty file passes.

    Raises:
        StoreError: saying which.
        sqlite3.Error: if it is not an SQLite file at all.
    """
    if not path.exists() or path.stat().st_size == 0:
        return
    # Opened without `immutable`, so that the write-ahead log of a killed server is read too.
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
            raise StoreError(f"{path} is damaged ({str(fault)[:120]}); restore an earlier copy of it")
    except sqlite3.DatabaseError as error:
        if getattr(error, "sqlite_errorname", "").startswith("SQLITE_CORRUPT"):
            raise StoreError(f"{path} is damaged ({error}); restore an earlier copy of it") from error
        raise
    finally:
        reader.close()
