"""Rehearsals: versions of a scene kept under a name, whole, each packed into one row; pictures, fonts and sounds lie where those of scenes lie."""

import base64
import json
import secrets
import sqlite3
import zlib
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from vine_swing.motion.basics.errors import EditError, NoSuchThing
from vine_swing.motion.scene.kept import KeptPicture, OwnFont
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.scene_file import from_data, to_data
from vine_swing.motion.scene.sounds import KeptSound
from vine_swing.store.database import Database
from vine_swing.store.rows import kept_blob

#: Rehearsals of one scene, those that were removed counted in.
MOST = 500
_FIELDS = "id, scene, name, kept, revision, length(content) + length(still) AS size, removed"


@dataclass(frozen=True)
class Rehearsal:
    """A version of a scene. kept: when, in UTC. revision: of the scene then. size: bytes it takes. removed: when it was removed, if it was."""

    id: str
    scene: str
    name: str
    kept: str
    revision: int
    size: int
    removed: str | None


class RehearsalStore:
    """The rehearsals of a data file."""

    def __init__(self, database: Database, now: Callable[[], str]) -> None:
        self._database, self._now = database, now

    def keep(self, scene_id: str, scene: Scene, *, revision: int, name: str | None, still: bytes) -> Rehearsal:
        """Keep a version of a scene; without a name, it is called by its number.

        Raises:
            EditError: if the scene has too many already.
        """
        rehearsal_id = secrets.token_urlsafe(9)
        with self._database.transaction() as db:
            (count,) = db.execute("SELECT count(*) FROM rehearsal WHERE scene = ?", (scene_id,)).fetchone()
            if count >= MOST:
                raise EditError(f"a scene has at most {MOST} rehearsals, removed ones counted in; make a copy of the scene, and go on with that")
            content = zlib.compress(json.dumps(_packed(db, scene), ensure_ascii=False, separators=(",", ":")).encode(), 9)
            values = (rehearsal_id, scene_id, name or f"Take {count + 1}", self._now(), revision, content, still)
            db.execute("INSERT INTO rehearsal (id, scene, name, kept, revision, content, still) VALUES (?, ?, ?, ?, ?, ?, ?)", values)
        return self.find(scene_id, rehearsal_id)

    def all(self, scene_id: str) -> list[Rehearsal]:
        """The rehearsals of a scene, the last kept first; those that were removed too."""
        with self._database.reading() as db:
            found = db.execute(f"SELECT {_FIELDS} FROM rehearsal WHERE scene = ? ORDER BY kept DESC, rowid DESC", (scene_id,))
            return [Rehearsal(**dict(row)) for row in found]

    def find(self, scene_id: str, rehearsal_id: str) -> Rehearsal:
        """A rehearsal of a scene.

        Raises:
            NoSuchThing: if it has none of this id.
        """
        return Rehearsal(**dict(self._row(_FIELDS, scene_id, rehearsal_id)))

    def scene(self, scene_id: str, rehearsal_id: str) -> Scene:
        """Return the stored scene; raises as `find`."""
        data = json.loads(zlib.decompress(self._row("content", scene_id, rehearsal_id)["content"]))
        with self._database.reading() as db:
            for one in (one for kind in ("pictures", "fonts", "sounds") for one in data.get(kind, ()) if "hash" in one):
                blob = db.execute("SELECT data FROM blob WHERE hash = ?", (one.pop("hash"),)).fetchone()
                one["data"] = base64.b64encode(blob["data"]).decode()
        return from_data(data)

    def still(self, scene_id: str, rehearsal_id: str) -> bytes:
        """Its small picture, WebP; raises as `find`."""
        return bytes(self._row("still", scene_id, rehearsal_id)["still"])

    def rename(self, scene_id: str, rehearsal_id: str, name: str) -> Rehearsal:
        """Give it another name; raises as `find`."""
        return self._changed(scene_id, rehearsal_id, "name", name)

    def remove(self, scene_id: str, rehearsal_id: str) -> Rehearsal:
        """Take it off the list; it can be put back. Raises as `find`."""
        return self._changed(scene_id, rehearsal_id, "removed", self._now())

    def put_back(self, scene_id: str, rehearsal_id: str) -> Rehearsal:
        """Put a removed one back; raises as `find`."""
        return self._changed(scene_id, rehearsal_id, "removed", None)

    def _changed(self, scene_id: str, rehearsal_id: str, column: str, value: str | None) -> Rehearsal:
        with self._database.transaction() as db:
            db.execute(f"UPDATE rehearsal SET {column} = ? WHERE id = ? AND scene = ?", (value, rehearsal_id, scene_id))
        return self.find(scene_id, rehearsal_id)

    def _row(self, columns: str, scene_id: str, rehearsal_id: str) -> sqlite3.Row:
        with self._database.reading() as db:
            row: sqlite3.Row | None = db.execute(f"SELECT {columns} FROM rehearsal WHERE id = ? AND scene = ?", (rehearsal_id, scene_id)).fetchone()
        if row is None:
            raise NoSuchThing(f"there is no rehearsal '{rehearsal_id}' of this scene")
        return row


def _packed(db: sqlite3.Connection, scene: Scene) -> dict[str, Any]:
    """A scene as data in which pictures, fonts and sounds are named by the hash of their content, which is kept."""
    data = to_data(scene)
    kinds: tuple[tuple[str, str, Sequence[KeptPicture | OwnFont | KeptSound]], ...] = (
        ("pictures", "image/*", scene.pictures),
        ("fonts", "font/sfnt", scene.fonts),
        ("sounds", "audio/*", scene.sounds),
    )
    for name, media_type, kept in kinds:
        for one, written in zip(kept, data.get(name, ()), strict=True):
            written["hash"] = kept_blob(db, media_type, one.content)
            written.pop("data", None)
    return data
