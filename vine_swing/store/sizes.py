"""How many bytes a scene accepts the data file, and making that less: forgetting old steps of undo, and scenes that were deleted."""

import json
import sqlite3
import zlib
from dataclasses import dataclass

from vine_swing.store import packs, undo

#: The file is written again, without its free pages, where these are at least this many bytes and this share of it.
_FREE_BYTES, _FREE_SHARE = 4_000_000, 0.2
_SCENES = "SELECT id FROM scene WHERE id = :scene OR within = :scene"
_OBJECTS = f"SELECT row FROM object WHERE scene IN ({_SCENES})"
_CHANNELS = (
    f"SELECT row FROM channel WHERE object IN ({_OBJECTS}) OR rule IN (SELECT row FROM rule WHERE object IN ({_OBJECTS}))"
    f" OR dial IN (SELECT row FROM dial WHERE scene IN ({_SCENES}))"
)
#: The rows of a scene, by table, those that others belong to last: so they can be deleted in this order.
_ROWS = {
    "key": f"channel IN ({_CHANNELS})",
    "channel": f"row IN ({_CHANNELS})",
    "rule": f"object IN ({_OBJECTS})",
    "object": f"scene IN ({_SCENES})",
    **dict.fromkeys(("dial", "cue", "font", "picture", "sound"), f"scene IN ({_SCENES})"),
    "scene": "id = :scene OR within = :scene",
}
#: The bytes of one value.
_BYTES = "CASE typeof({0}) WHEN 'null' THEN 1 WHEN 'text' THEN length(CAST({0} AS BLOB)) WHEN 'blob' THEN length({0}) ELSE 8 END"
#: The tables whose rows have a file, by its hash.
_WITH_FILES = ("font", "picture", "sound")


@dataclass(frozen=True)
class SceneSize:
    """Bytes of a scene in the data file. scene: itself. files: its pictures, sounds and fonts. rehearsals: its kept versions, without their files.
    steps: how many steps of undo and redo it has, which take `history` bytes."""

    scene: int
    files: int
    rehearsals: int
    steps: int
    history: int


def size_of(db: sqlite3.Connection, scene_id: str) -> SceneSize:
    """How much a scene takes."""
    at = {"scene": scene_id}
    scene = sum(_bytes(db, table, within, at) for table, within in _ROWS.items())
    hashes = " UNION ".join(f"SELECT hash FROM {table} WHERE scene IN ({_SCENES})" for table in _WITH_FILES)
    (files,) = db.execute(f"SELECT coalesce(sum(length(data)), 0) FROM blob WHERE hash IN ({hashes})", at).fetchone()
    (rehearsals,) = db.execute("SELECT coalesce(sum(length(content) + length(still)), 0) FROM rehearsal WHERE scene = :scene", at).fetchone()
    (loose,) = db.execute("SELECT count(*) FROM step WHERE scene = :scene", at).fetchone()
    packed, history = db.execute("SELECT coalesce(sum(steps), 0), coalesce(sum(length(content)), 0) FROM pack WHERE scene = :scene", at).fetchone()
    inverses = "SELECT id FROM inverse WHERE step IN (SELECT id FROM step WHERE scene = :scene)"
    history += _bytes(db, "inverse", f"id IN ({inverses})", at) + _bytes(db, "step", "scene = :scene", at)
    history += sum(_bytes(db, f"{table}_before", f"inverse IN ({inverses})", at) for table in undo.RECORDED)
    return SceneSize(scene, files, rehearsals, loose + packed, history)


def forget_history(db: sqlite3.Connection, scene_id: str, keep: int) -> None:
    """Forget all steps of undo but the last ones; a pack of which one is wanted is kept whole. What could be redone stays."""
    (loose,) = db.execute("SELECT count(*) FROM step WHERE scene = ? AND kind = 'undo'", (scene_id,)).fetchone()
    wanted = keep - loose
    for pack, count in db.execute("SELECT id, steps FROM pack WHERE scene = ? ORDER BY id DESC", (scene_id,)).fetchall():
        if wanted <= 0:
            db.execute("DELETE FROM pack WHERE id = ?", (pack,))
        wanted -= count
    newest = "SELECT id FROM step WHERE scene = ? AND kind = 'undo' ORDER BY id DESC LIMIT ?"
    db.execute(f"DELETE FROM step WHERE scene = ? AND kind = 'undo' AND id NOT IN ({newest})", (scene_id, scene_id, keep))
    drop_unused_files(db)


def erase(db: sqlite3.Connection, scene_id: str) -> None:
    """Take a scene out of the file, with its history and its rehearsals."""
    at = {"scene": scene_id}
    for table in ("pack", "step", "rehearsal", "preview"):
        db.execute(f"DELETE FROM {table} WHERE scene = :scene", at)
    for table, within in _ROWS.items():
        db.execute(f"DELETE FROM {table} WHERE {within}", at)
    drop_unused_files(db)


def drop_unused_files(db: sqlite3.Connection) -> None:
    """Drop the files that no scene has, nor could have again by undo, nor any rehearsal."""
    tables = [*_WITH_FILES, *(f"{table}_before" for table in _WITH_FILES)]
    used = " UNION ".join(f"SELECT hash FROM {table} WHERE hash IS NOT NULL" for table in tables)
    unused = {row[0] for row in db.execute(f"SELECT hash FROM blob WHERE hash NOT IN ({used})")}
    if unused:
        for (content,) in db.execute("SELECT content FROM pack"):
            unused -= _packed_hashes(content)
        for (content,) in db.execute("SELECT content FROM rehearsal"):
            data = json.loads(zlib.decompress(content))
            unused -= {one["hash"] for kind in ("pictures", "fonts", "sounds") for one in data.get(kind, ()) if "hash" in one}
    db.executemany("DELETE FROM blob WHERE hash = ?", [(digest,) for digest in unused])
    db.executemany("DELETE FROM reduced WHERE picture = substr(?, 1, 16)", [(digest,) for digest in unused])


def is_worth_shrinking(db: sqlite3.Connection) -> bool:
    """Whether much of the file is free."""
    pages, free, size = (db.execute(f"PRAGMA {name}").fetchone()[0] for name in ("page_count", "freelist_count", "page_size"))
    return bool(free * size >= _FREE_BYTES and free >= _FREE_SHARE * pages)


def _packed_hashes(content: bytes) -> set[str]:
    found = set()
    for name, table in packs.opened(content).items():
        if name.removesuffix("_before") in _WITH_FILES and "hash" in table["columns"]:
            at = table["columns"].index("hash")
            found |= {row[at] for row in table["rows"]}
    return found


def _bytes(db: sqlite3.Connection, table: str, within: str, at: dict[str, str]) -> int:
    """About how many bytes some rows take: texts and blobs as they are, each number as eight."""
    columns = [row[1] for row in db.execute(f"PRAGMA table_info({table})")]
    each = " + ".join(_BYTES.format(f'"{column}"') for column in columns)
    total: int = db.execute(f"SELECT coalesce(sum({each}), 0) FROM {table} WHERE {within}", at).fetchone()[0]
    return total
