"""Stored exports: the request and its result. They are not part of a scene, so undo does not affect them."""

import json
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any, Literal

from vine_swing.store.database import Database

#: waiting for its turn; under way; finished; stopped by whoever asked; gone wrong; cut short by the end of the server.
ExportState = Literal["waiting", "running", "done", "cancelled", "failed", "stopped"]
_FIELDS = "id, scene, revision, name, format, options, asked, state, done, total, size, said, remarks"


@dataclass(frozen=True)
class KeptExport:
    """One export. name: of its file. options: as JSON data. done, total: pictures. size: of the file, bytes. said: why it is missing, if so.
    remarks: what could not be kept."""

    id: str
    scene: str
    revision: int
    name: str
    format: str
    options: dict[str, Any]
    asked: str
    state: ExportState
    done: int
    total: int
    size: int | None = None
    said: str | None = None
    remarks: tuple[str, ...] = ()


class ExportStore:
    """The exports of a data file, in the order they were asked for."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def add(self, one: KeptExport) -> None:
        """Keep a new export."""
        with self._database.transaction() as db:
            db.execute(
                "INSERT INTO export (id, scene, revision, name, format, options, asked, state, done, total) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
                (one.id, one.scene, one.revision, one.name, one.format, json.dumps(one.options), one.asked, one.state, one.done, one.total),
            )

    def all(self) -> list[KeptExport]:
        """All exports, the last asked for first."""
        with self._database.reading() as db:
            return [_read(row) for row in db.execute(f"SELECT {_FIELDS} FROM export ORDER BY asked DESC, rowid DESC")]

    def find(self, export_id: str) -> KeptExport | None:
        """An export by its id."""
        with self._database.reading() as db:
            row = db.execute(f"SELECT {_FIELDS} FROM export WHERE id = ?", (export_id,)).fetchone()
        return _read(row) if row is not None else None

    def still(self, export_id: str) -> bytes | None:
        """The small picture of an export, PNG."""
        with self._database.reading() as db:
            row = db.execute("SELECT still FROM export WHERE id = ?", (export_id,)).fetchone()
        return bytes(row["still"]) if row is not None and row["still"] is not None else None

    def running(self, export_id: str) -> None:
        """Say that an export is under way."""
        with self._database.transaction() as db:
            db.execute("UPDATE export SET state = 'running' WHERE id = ?", (export_id,))

    def ended(
        self,
        export_id: str,
        state: ExportState,
        *,
        done: int,
        size: int | None = None,
        said: str | None = None,
        remarks: Iterable[str] = (),
        still: bytes | None = None,
    ) -> None:
        """Say how an export ended."""
        with self._database.transaction() as db:
            db.execute(
                "UPDATE export SET state = ?, done = ?, size = ?, said = ?, remarks = ?, still = ? WHERE id = ?",
                (state, done, size, said, json.dumps(list(remarks)), still, export_id),
            )

    def stop_unfinished(self, said: str) -> None:
        """Say of all that were waiting or under way that they were stopped."""
        with self._database.transaction() as db:
            db.execute("UPDATE export SET state = 'stopped', said = ? WHERE state IN ('waiting', 'running')", (said,))

    def forget(self, export_id: str) -> None:
        """Keep an export no longer."""
        with self._database.transaction() as db:
            db.execute("DELETE FROM export WHERE id = ?", (export_id,))


def _read(row: Any) -> KeptExport:
    values = dict(row)
    values["options"], values["remarks"] = json.loads(values["options"]), tuple(json.loads(values["remarks"]))
    return KeptExport(**values)
