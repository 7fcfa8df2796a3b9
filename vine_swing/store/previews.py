"""The small pictures of scenes for the Shelf: one a scene, with the revision it shows."""

from vine_swing.store.database import Database


class PreviewStore:
    """Previews in the data file; they are a cache and no part of a scene, so undo does not know of them."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def find(self, scene_id: str, revision: int) -> bytes | None:
        """The encoded picture of a scene at a revision, or None, or one of another revision."""
        with self._database.reading() as db:
            row = db.execute("SELECT data FROM preview WHERE scene = ? AND revision = ?", (scene_id, revision)).fetchone()
        return bytes(row["data"]) if row is not None else None

    def keep(self, scene_id: str, revision: int, data: bytes) -> None:
        """Keep a picture in the place of an older one; one that is older than what is kept is released."""
        with self._database.transaction() as db:
            db.execute(
                "INSERT INTO preview (scene, revision, data) VALUES (?, ?, ?)"
                " ON CONFLICT (scene) DO UPDATE SET revision = excluded.revision, data = excluded.data WHERE excluded.revision >= revision",
                (scene_id, revision, data),
            )
