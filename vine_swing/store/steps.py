"""Undo and redo where several pages work on one scene: each page undoes its own last step, unless a later step conflicts.

A page that is not there any more leaves its steps to the others: whoever comes back tomorrow, on another page, takes back what was done today.
"""

import json
import sqlite3
from collections.abc import Collection
from dataclasses import dataclass
from typing import Literal

from vine_swing.store import packs, rows, undo

Kind = Literal["undo", "redo"]
_OTHER: dict[Kind, Kind] = {"undo": "redo", "redo": "undo"}
_OURS = "(page IS NULL OR page NOT IN (SELECT value FROM json_each(?)))"


@dataclass(frozen=True)
class Author:
    """Who makes a step: a page, by the id it gave itself, and what its user is called."""

    page: str
    name: str


@dataclass(frozen=True)
class History:
    """What undo and redo would do next; None where nothing exists."""

    undo: str | None
    redo: str | None


class InTheWay(Exception):
    """A step cannot be taken back, because others have changed the same objects since."""

    def __init__(self, kind: Kind, label: str, why: str) -> None:
        verb = "taken back" if kind == "undo" else "done again"
        super().__init__(f"'{label}' cannot be {verb}: {why}")


def history(db: sqlite3.Connection, scene_id: str, others: Collection[str] = ()) -> History:
    """What undo and redo would do for whoever is none of these other pages."""
    found = (_last(db, scene_id, kind, others) for kind in _OTHER)
    return History(*(row["label"] if row is not None else None for row in found))


def forget_undone(db: sqlite3.Connection, scene_id: str, others: Collection[str]) -> None:
    """Forget what could be redone, as a new step makes it; what other pages could redo stays theirs."""
    db.execute(f"DELETE FROM step WHERE scene = ? AND kind = 'redo' AND {_OURS}", (scene_id, json.dumps(list(others))))


def take_back(db: sqlite3.Connection, scene_id: str, kind: Kind, others: Collection[str]) -> bool | None:
    """Take back the last step of a kind that is none of other pages'.

    Returns:
        Whether later steps of others were passed over, so that the scene is one that was not seen before; None if there is no step.

    Raises:
        InTheWay: if a later step of somebody else changed the same rows, or added to what would go.
    """
    step = _last(db, scene_id, kind, others)
    if step is None:
        if others and db.execute("SELECT 1 FROM pack WHERE scene = ? LIMIT 1", (scene_id,)).fetchone():
            raise InTheWay(kind, "what you did last", "others have done too much since; ask them to undo first")
        return None
    top = _top(db, scene_id)
    # Steps of files from before schema 20 say nothing of what was beneath them, and were made by one page after the other.
    in_turn = step["id"] == top if kind == "undo" else step["was"] is None or step["over"] == top
    if not in_turn:
        _check_free(db, scene_id, step, kind)
    back_in_place = step["was"] if kind == "redo" and in_turn else None
    with undo.recording(db, scene_id, _OTHER[kind], step["label"], page=step["page"], author=step["author"], number=back_in_place) as new:
        undo.take_back(db, step["id"])
        if not in_turn:
            rows.renumber(db, scene_id)
    if not in_turn and any(db.execute(f"PRAGMA foreign_key_check({table})").fetchone() for table in ("rule", "channel", "key")):
        raise InTheWay(kind, step["label"], "others have added to it since, and that would be lost; ask them to undo it first")
    db.execute("DELETE FROM step WHERE id = ?", (step["id"],))
    packs.unpack_if_due(db, scene_id)
    if kind == "undo":
        db.execute("UPDATE step SET was = ?, over = ? WHERE id = ?", (step["id"], _top(db, scene_id), new))
    return not in_turn


def _last(db: sqlite3.Connection, scene_id: str, kind: Kind, others: Collection[str]) -> sqlite3.Row | None:
    """The last step of a kind that is none of other pages'."""
    found = f"SELECT * FROM step WHERE scene = ? AND kind = ? AND {_OURS} ORDER BY id DESC LIMIT 1"
    row: sqlite3.Row | None = db.execute(found, (scene_id, kind, json.dumps(list(others)))).fetchone()
    return row


def _top(db: sqlite3.Connection, scene_id: str) -> int | None:
    """The number of the last step that undo would take back, whoever made it."""
    top: int | None = db.execute("SELECT max(id) FROM step WHERE scene = ? AND kind = 'undo'", (scene_id,)).fetchone()[0]
    return top


def _check_free(db: sqlite3.Connection, scene_id: str, step: sqlite3.Row, kind: Kind) -> None:
    """Refuse a step whose rows were changed by a later one.

    Raises:
        InTheWay: naming the later step and who made it.
    """
    mine, whole = _rows(db, step["id"]), "SELECT * FROM step WHERE scene = ? AND kind = 'undo' AND id > ? ORDER BY id"
    since = step["id"] if kind == "undo" else step["was"]
    for later in db.execute(whole, (scene_id, since)).fetchall():
        theirs = _rows(db, later["id"])
        if mine is None or theirs is None or mine & theirs:
            who = later["author"] or "somebody else"
            raise InTheWay(kind, step["label"], f"{who} has changed the same values since ('{later['label']}'), and would have to undo that first")


def _rows(db: sqlite3.Connection, step: int) -> set[tuple[str, str]] | None:
    """The rows that a step changes; None if it does not say, as one from before schema 6."""
    found = db.execute("SELECT action, part_of, part FROM inverse WHERE step = ?", (step,)).fetchall()
    return None if any(row["action"] is None for row in found) else {(row["part_of"], str(row["part"])) for row in found}
