"""How steps of undo are recorded and taken back, as SQLite's own documentation of automatic undo describes it.

While a step is being recorded, triggers on every recorded table write down the action that takes each change back: for a new row that it is
to be deleted, for a deleted or changed row its old values, copied as they are into `<table>_before`. So numbers keep every bit and texts every
character. Taking a step back runs its actions last to first while a step of the other kind is recorded.
"""

import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager

#: Recorded tables and the column that tells their rows apart.
RECORDED = {"scene": "id"} | dict.fromkeys(("object", "rule", "dial", "channel", "key", "cue", "font", "picture", "sound"), "row")
#: What undo leaves alone: a revision only ever rises, and the Shelf's marks are no part of a scene.
_NOT_RECORDED = {"scene": {"revision", "made", "changed", "deleted"}}
_RECORDING = "(SELECT step FROM recording)"


def install(db: sqlite3.Connection) -> None:
    """Make the tables of old rows and the triggers fit the recorded tables in their current state; to be called after every migration."""
    for table, key in RECORDED.items():
        columns = _columns(db, table)
        listed = ", ".join(map(_quoted, columns))
        before = f"{table}_before"
        kept = {row[1] for row in db.execute(f"PRAGMA table_info({before})")}
        if not kept:
            db.execute(
                f"CREATE TABLE {before} (inverse INTEGER PRIMARY KEY REFERENCES inverse (id) ON DELETE CASCADE,"
                f" {', '.join(f'{_quoted(column)} ANY' for column in columns)}) STRICT"
            )
        else:
            for column in columns:
                if column not in kept:
                    db.execute(f"ALTER TABLE {before} ADD COLUMN {_quoted(column)} ANY")
            # Rows stored before a column existed get its default: a row without one could not be restored.
            for column, default in defaults(db, table):
                db.execute(f"UPDATE {before} SET {_quoted(column)} = {default} WHERE {_quoted(column)} IS NULL")
        keep_old = f"INSERT INTO {before} (inverse, {listed}) VALUES (last_insert_rowid(), {', '.join(f'old.{_quoted(c)}' for c in columns)});"
        for trigger, event, action, row, then in (
            ("added", "INSERT", "delete", "new", ""),
            ("deleted", "DELETE", "insert", "old", keep_old),
            ("changed", f"UPDATE OF {listed}", "update", "old", keep_old),
        ):
            db.execute(f"DROP TRIGGER IF EXISTS {table}_{trigger}")
            db.execute(
                f"CREATE TRIGGER {table}_{trigger} AFTER {event} ON {table} WHEN {_RECORDING} IS NOT NULL BEGIN"
                f" INSERT INTO inverse (step, action, part_of, part) VALUES ({_RECORDING}, '{action}', '{table}', {row}.{_quoted(key)});"
                f" {then} END"
            )


@contextmanager
def recording(
    db: sqlite3.Connection, scene_id: str, kind: str, label: str, *, page: str | None = None, author: str | None = None, number: int | None = None
) -> Iterator[int]:
    """Record what is written meanwhile as one step ("undo" or "redo") of a scene, made by a page whose user is called `author`; gives its number, the
    next free one if none is given."""
    columns = "(id, scene, kind, label, page, author)"
    step = db.execute(f"INSERT INTO step {columns} VALUES (?, ?, ?, ?, ?, ?)", (number, scene_id, kind, label, page, author)).lastrowid
    assert step is not None
    db.execute("UPDATE recording SET step = ?", (step,))
    yield step
    db.execute("UPDATE recording SET step = NULL")


def take_back(db: sqlite3.Connection, step: int) -> None:
    """Run the actions of a step, last to first."""
    columns = {table: ", ".join(map(_quoted, _columns(db, table))) for table in RECORDED}
    for row in db.execute("SELECT id, statement, action, part_of, part FROM inverse WHERE step = ? ORDER BY id DESC", (step,)).fetchall():
        table, listed = row["part_of"], columns.get(row["part_of"], "")
        match row["action"]:
            case None:
                # A step of a file from before schema 6.
                db.execute(row["statement"])
            case "delete":
                db.execute(f"DELETE FROM {table} WHERE {RECORDED[table]} = ?", (row["part"],))
            case "insert":
                db.execute(f"INSERT INTO {table} ({listed}) SELECT {listed} FROM {table}_before WHERE inverse = ?", (row["id"],))
            case "update":
                db.execute(
                    f"UPDATE {table} SET ({listed}) = (SELECT {listed} FROM {table}_before WHERE inverse = ?) WHERE {RECORDED[table]} = ?",
                    (row["id"], row["part"]),
                )


def _columns(db: sqlite3.Connection, table: str) -> list[str]:
    left_out = _NOT_RECORDED.get(table, set())
    return [row[1] for row in db.execute(f"PRAGMA table_info({table})") if row[1] not in left_out]


def defaults(db: sqlite3.Connection, table: str) -> list[tuple[str, str]]:
    """The columns of a table that must not be NULL and have a default, with that as SQL."""
    listed = set(_columns(db, table))
    return [(row[1], row[4]) for row in db.execute(f"PRAGMA table_info({table})") if row[1] in listed and row[3] and row[4] is not None]


def _quoted(name: str) -> str:
    return '"' + name.replace('"', '""') + '"'
