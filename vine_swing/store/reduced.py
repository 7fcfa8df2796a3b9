"""Smaller versions of large pictures: made when they are first asked for, and kept."""

from vine_swing.motion.basics.contents import PICTURE_FILES
from vine_swing.store.database import Database


class ReducedStore:
    """Reduced pictures in the data file, by the id of the picture and how wide it was asked for; a cache, of which undo does not know."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def find(self, picture_id: str, wide: int) -> bytes | None:
        """The picture at least so wide, if it was kept."""
        with self._database.reading() as db:
            row = db.execute("SELECT data FROM reduced WHERE picture = ? AND wide = ?", (_digits(picture_id), wide)).fetchone()
        return bytes(row["data"]) if row is not None else None

    def keep(self, picture_id: str, wide: int, data: bytes) -> None:
        """Keep a picture at least so wide."""
        with self._database.transaction() as db:
            db.execute("INSERT OR REPLACE INTO reduced (picture, wide, data) VALUES (?, ?, ?)", (_digits(picture_id), wide, data))


def _digits(picture_id: str) -> str:
    return picture_id.removeprefix(PICTURE_FILES.prefix)
