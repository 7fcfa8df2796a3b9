"""Old steps of undo, packed: many of them in one row, about a tenth as large as they were.

The newest steps of a scene are in tables, where they can be taken back at once. When there are many, the oldest of them become a pack; when all
have been taken back, the newest pack is unpacked again. A pack tells the columns by name, so that one from before a column came can be unpacked
after it.
"""

import sqlite3
import zlib
from typing import Any

import msgpack

from vine_swing.store import undo

#: Steps in one pack. Twice as many are in tables at most.
STEPS = 64


def pack(db: sqlite3.Connection, scene_id: str) -> None:
    """Pack the oldest steps of a scene, if there are many."""
    (loose,) = db.execute("SELECT count(*) FROM step WHERE scene = ? AND kind = 'undo'", (scene_id,)).fetchone()
    if loose < 2 * STEPS:
        return
    found = db.execute("SELECT * FROM step WHERE scene = ? AND kind = 'undo' ORDER BY id LIMIT ?", (scene_id, STEPS)).fetchall()
    last = found[-1]["id"]
    packed = {"step": _table(found)}
    within = "IN (SELECT id FROM step WHERE scene = ? AND kind = 'undo' AND id <= ?)"
    packed["inverse"] = _table(db.execute(f"SELECT * FROM inverse WHERE step {within} ORDER BY id", (scene_id, last)).fetchall())
    for table in undo.RECORDED:
        kept = f"SELECT * FROM {table}_before WHERE inverse IN (SELECT id FROM inverse WHERE step {within})"
        packed[f"{table}_before"] = _table(db.execute(kept, (scene_id, last)).fetchall())
    content = closed({name: table for name, table in packed.items() if table["rows"]})
    db.execute("INSERT INTO pack (scene, steps, content) VALUES (?, ?, ?)", (scene_id, len(found), content))
    # Inverses and old rows go along: they refer to their step.
    db.execute("DELETE FROM step WHERE scene = ? AND kind = 'undo' AND id <= ?", (scene_id, last))


def unpack_if_due(db: sqlite3.Connection, scene_id: str) -> None:
    """Unpack the newest pack of a scene, if all steps in tables have been taken back."""
    if db.execute("SELECT 1 FROM step WHERE scene = ? AND kind = 'undo' LIMIT 1", (scene_id,)).fetchone():
        return
    newest = db.execute("SELECT id, content FROM pack WHERE scene = ? ORDER BY id DESC LIMIT 1", (scene_id,)).fetchone()
    if newest is None:
        return
    for name, table in opened(newest["content"]).items():
        _put_back(db, name, table)
    db.execute("DELETE FROM pack WHERE id = ?", (newest["id"],))


def opened(content: bytes) -> dict[str, Any]:
    """The tables in a pack: of each, its columns and its rows."""
    tables: dict[str, Any] = msgpack.unpackb(zlib.decompress(content))
    return tables


def closed(tables: dict[str, Any]) -> bytes:
    """The content of a pack with these tables; `opened` the other way."""
    return zlib.compress(msgpack.packb(tables), 9)


def _table(found: list[sqlite3.Row]) -> dict[str, Any]:
    return {"columns": list(found[0].keys()) if found else [], "rows": [tuple(row) for row in found]}


def _put_back(db: sqlite3.Connection, name: str, table: dict[str, Any]) -> None:
    """Insert the rows of a packed table; columns that came since have what they have in rows of before."""
    known = {row[1] for row in db.execute(f"PRAGMA table_info({name})")}
    at = [place for place, column in enumerate(table["columns"]) if column in known]
    columns = [table["columns"][place] for place in at]
    missing = undo.defaults(db, name.removesuffix("_before")) if name.endswith("_before") else []
    missing = [(column, default) for column, default in missing if column in known and column not in columns]
    listed = ", ".join(f'"{column}"' for column in [*columns, *(column for column, _ in missing)])
    places = ", ".join(["?"] * len(columns) + [default for _, default in missing])
    db.executemany(f"INSERT INTO {name} ({listed}) VALUES ({places})", [[row[place] for place in at] for row in table["rows"]])
