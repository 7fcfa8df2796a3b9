"""Keeping the feels people have drawn, for all scenes."""

import json
from dataclasses import dataclass

from vine_swing.store.database import Database


@dataclass(frozen=True)
class OwnFeel:
    """A drawn feel: its name, the [u, p] points it was drawn through, and whether the curve through them is smooth."""

    name: str
    points: list[tuple[float, float]]
    smooth: bool


class FeelStore:
    """The drawn feels of a data file, by name."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def all(self) -> list[OwnFeel]:
        """Every feel, the oldest first."""
        with self._database.reading() as db:
            found = db.execute("SELECT name, points, smooth FROM feel ORDER BY made, rowid").fetchall()
        return [OwnFeel(row["name"], [(u, p) for u, p in json.loads(row["points"])], bool(row["smooth"])) for row in found]

    def keep(self, feel: OwnFeel, now: str) -> None:
        """Keep a feel; one that has its name already is drawn again."""
        with self._database.transaction() as db:
            db.execute(
                "INSERT INTO feel (name, points, smooth, made) VALUES (?, ?, ?, ?)"
                " ON CONFLICT (name) DO UPDATE SET points = excluded.points, smooth = excluded.smooth",
                (feel.name, json.dumps(feel.points), int(feel.smooth), now),
            )

    def forget(self, name: str) -> bool:
        """Let a feel go; False if it is missing with this name. Keys that have it keep its curve."""
        with self._database.transaction() as db:
            return db.execute("DELETE FROM feel WHERE name = ?", (name,)).rowcount > 0
