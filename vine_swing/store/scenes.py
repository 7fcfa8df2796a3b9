"""Keeping scenes: reading, editing with undo and redo, and the list of all scenes."""

import secrets
import sqlite3
from collections.abc import Callable, Collection
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path

from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.scene.model import Scene
from vine_swing.store import packs, rows, sizes, steps, undo
from vine_swing.store.backups import Backup, Backups
from vine_swing.store.database import Database
from vine_swing.store.exports import ExportStore
from vine_swing.store.feels import FeelStore, OwnFeel
from vine_swing.store.previews import PreviewStore
from vine_swing.store.reduced import ReducedStore
from vine_swing.store.rehearsals import RehearsalStore
from vine_swing.store.steps import Author, History

_ON_SHELF = "id = ? AND within IS NULL AND deleted IS NULL"


class SceneNotFound(LookupError):
    """There is no such scene, or it has been deleted."""


class OldRevision(Exception):
    """The change was made against an older revision than the scene now has."""

    def __init__(self, asked: int, current: int) -> None:
        self.asked, self.current = asked, current
        super().__init__(f"the scene has moved on to revision {current} since revision {asked}; look at it again, then repeat the change")


@dataclass(frozen=True)
class Stored:
    """A scene as kept, with its revision and what can be undone."""

    scene: Scene
    revision: int
    history: History


@dataclass(frozen=True)
class SceneSummary:
    """A line of the Shelf."""

    id: str
    name: str
    fps: float
    length: int
    width: int
    height: int
    objects: int
    revision: int
    changed: str


class SceneStore:
    """All scenes of one data file. Safe to use from several threads."""

    def __init__(self, path: Path, *, clock: Callable[[], datetime] = lambda: datetime.now(UTC), restore: str | None = None) -> None:
        """Open or make a data file; raises as `Database`, which explains `restore`."""
        self._database = Database(path, Backups(path, lambda: clock().astimezone()), restore=restore)
        self._clock = clock
        self.feels = FeelStore(self._database)
        self.previews = PreviewStore(self._database)
        self.reduced = ReducedStore(self._database)
        self.exports = ExportStore(self._database)
        self.rehearsals = RehearsalStore(self._database, self.now)
        self.folder = path.parent

    def content(self, content_id: str) -> bytes | None:
        """The picture or sound with an id that some scene keeps, or None."""
        digits = content_id.rpartition("-")[2]
        with self._database.reading() as db:
            row = db.execute("SELECT data FROM blob WHERE hash >= ? AND hash < ? LIMIT 1", (digits, digits + "g")).fetchone()
        return bytes(row["data"]) if row is not None and len(digits) == 16 else None

    def backups(self) -> list[Backup]:
        """The copies of the whole data file, the newest first."""
        return self._database.backups.all()

    def bring_back(self, name: str) -> Backup:
        """Replace all scenes by those of a copy; exports stay as they are. Returns the copy of the state until now.

        Raises:
            StoreError: if the copy does not exist, or it is damaged; nothing is changed then.
        """
        return self._database.bring_back(name, _carry_over)

    @property
    def restored(self) -> str | None:
        """The name of the copy that replaced the data file when it was opened, if any."""
        return self._database.restored

    def close(self) -> None:
        """Finish with the data file."""
        self._database.close()

    def keep_feel(self, feel: OwnFeel) -> None:
        """Keep a drawn feel for all scenes."""
        self.feels.keep(feel, self.now())

    def summaries(self, *, deleted: bool = False) -> list[SceneSummary]:
        """All scenes (or all deleted ones), the last changed first."""
        with self._database.reading() as db:
            found = db.execute(
                "SELECT id, name, fps, length, width, height, (SELECT count(*) FROM object WHERE object.scene = scene.id) AS objects,"
                f" revision, changed FROM scene WHERE within IS NULL AND deleted IS {'NOT ' if deleted else ''}NULL ORDER BY changed DESC, id"
            )
            return [SceneSummary(**dict(row)) for row in found]

    def create(self, scene: Scene) -> str:
        """Keep a new scene; returns its id."""
        scene_id = secrets.token_urlsafe(9)
        with self._database.transaction() as db:
            rows.insert(db, scene_id, scene, self.now())
        return scene_id

    def load(self, scene_id: str) -> Stored:
        """A scene as it is kept now.

        Raises:
            SceneNotFound: if it is missing of this id.
        """
        with self._database.reading() as db:
            return self._load(db, scene_id)

    def line(self, scene_id: str) -> tuple[str, int] | None:
        """The name and the revision of a scene, or None of this id."""
        with self._database.reading() as db:
            row = db.execute(f"SELECT name, revision FROM scene WHERE {_ON_SHELF}", (scene_id,)).fetchone()
        return (row["name"], row["revision"]) if row is not None else None

    def revision(self, scene_id: str) -> int:
        """The revision a scene is at now.

        Raises:
            SceneNotFound: if it is missing of this id.
        """
        with self._database.reading() as db:
            return _revision(db, scene_id)

    def save(
        self, scene_id: str, before: Scene, after: Scene, *, label: str, revision: int, author: Author | None = None, others: Collection[str] = ()
    ) -> Stored:
        """Keep an edit as one step of undo.

        Args:
            before: the scene at `revision`; only where `after` differs from it is anything written.
            label: what undo will say it takes back.
            author: the page that makes it; others: other pages that have the scene open, and keep what they could redo.

        Raises:
            OldRevision: if the scene is at another revision by now; nothing is written.
        """
        with self._database.transaction() as db:
            self._expect(db, scene_id, revision)
            steps.forget_undone(db, scene_id, others)
            page, name = (author.page, author.name) if author is not None else (None, None)
            with undo.recording(db, scene_id, "undo", label, page=page, author=name):
                rows.write_difference(db, scene_id, before, after)
            packs.pack(db, scene_id)
            new = self._touch(db, scene_id)
            return Stored(after, new, steps.history(db, scene_id, others))

    def step_back(
        self, scene_id: str, kind: steps.Kind, *, revision: int, others: Collection[str] = (), check: Callable[[Scene], object] | None = None
    ) -> Stored | None:
        """Take back the last step ("undo"), or do the last undone one again ("redo"), or None.

        Args:
            others: other pages that have the scene open: their steps are theirs to take back.
            check: is asked about the scene, where later steps of others were passed over and it is one nobody has seen yet.

        Raises:
            InTheWay: if others have changed the same objects since; nothing is changed then.
        """
        with self._database.transaction() as db:
            self._expect(db, scene_id, revision)
            try:
                passed_over = steps.take_back(db, scene_id, kind, others)
                if passed_over is None:
                    return None
                self._touch(db, scene_id)
                stored = self._load(db, scene_id, others)
                if passed_over and check is not None:
                    check(stored.scene)
            except (sqlite3.IntegrityError, ValueError, MotionError) as error:
                if not others:
                    raise
                raise steps.InTheWay(kind, "what you did last", f"what others have done since would not work any more ({error})") from error
            return stored

    def undo(self, scene_id: str, *, revision: int) -> Stored | None:
        """Take back the last step, or None."""
        return self.step_back(scene_id, "undo", revision=revision)

    def redo(self, scene_id: str, *, revision: int) -> Stored | None:
        """Do the last undone step again, or None."""
        return self.step_back(scene_id, "redo", revision=revision)

    def history(self, scene_id: str, others: Collection[str] = ()) -> History:
        """What undo and redo would do for whoever is none of these other pages."""
        with self._database.reading() as db:
            return steps.history(db, scene_id, others)

    def delete(self, scene_id: str) -> None:
        """Take a scene off the Shelf. It stays in the file, with its history, until it is restored."""
        self._mark(scene_id, self.now(), "deleted IS NULL")

    def size(self, scene_id: str) -> sizes.SceneSize:
        """How many bytes a scene takes, one that was deleted too.

        Raises:
            SceneNotFound: if it is missing of this id.
        """
        with self._database.reading() as db:
            self._expect_kept(db, scene_id)
            return sizes.size_of(db, scene_id)

    def forget_history(self, scene_id: str, *, keep: int) -> None:
        """Forget all steps of undo of a scene but the last ones, and the files that only they need; raises as `size`."""
        with self._database.transaction() as db:
            self._expect_kept(db, scene_id)
            sizes.forget_history(db, scene_id, keep)
        self._database.shrink()

    def erase(self, scene_id: str) -> None:
        """Take a deleted scene out of the file for good, with its history and its rehearsals.

        Raises:
            SceneNotFound: if no deleted scene has this id.
        """
        with self._database.transaction() as db:
            if not db.execute("SELECT 1 FROM scene WHERE id = ? AND within IS NULL AND deleted IS NOT NULL", (scene_id,)).fetchone():
                raise SceneNotFound(f"there is no deleted scene '{scene_id}'; only what was deleted before can be erased")
            sizes.erase(db, scene_id)
        self._database.shrink()

    def restore(self, scene_id: str) -> None:
        """Put a deleted scene back on the Shelf."""
        self._mark(scene_id, None, "deleted IS NOT NULL")

    def _mark(self, scene_id: str, deleted: str | None, only: str) -> None:
        with self._database.transaction() as db:
            if not db.execute(f"UPDATE scene SET deleted = ? WHERE id = ? AND within IS NULL AND {only}", (deleted, scene_id)).rowcount:
                raise SceneNotFound(_missing(scene_id))

    def _expect_kept(self, db: sqlite3.Connection, scene_id: str) -> None:
        """Refuse an id that no scene has, on the Shelf or deleted."""
        if not db.execute("SELECT 1 FROM scene WHERE id = ? AND within IS NULL", (scene_id,)).fetchone():
            raise SceneNotFound(_missing(scene_id))

    def _expect(self, db: sqlite3.Connection, scene_id: str, revision: int) -> None:
        current = _revision(db, scene_id)
        if current != revision:
            raise OldRevision(revision, current)

    def _touch(self, db: sqlite3.Connection, scene_id: str) -> int:
        db.execute("UPDATE scene SET revision = revision + 1, changed = ? WHERE id = ?", (self.now(), scene_id))
        return _revision(db, scene_id)

    def _load(self, db: sqlite3.Connection, scene_id: str, others: Collection[str] = ()) -> Stored:
        revision, scene = _revision(db, scene_id), rows.read(db, scene_id)
        if scene is None:
            raise SceneNotFound(_missing(scene_id))
        return Stored(scene, revision, steps.history(db, scene_id, others))

    def now(self) -> str:
        """The time of day, as it is kept."""
        return self._clock().isoformat(timespec="milliseconds")


def _revision(db: sqlite3.Connection, scene_id: str) -> int:
    """The revision of a scene on the Shelf.

    Raises:
        SceneNotFound: if it is missing of this id.
    """
    row = db.execute(f"SELECT revision FROM scene WHERE {_ON_SHELF}", (scene_id,)).fetchone()
    if row is None:
        raise SceneNotFound(_missing(scene_id))
    revision: int = row["revision"]
    return revision


def _missing(scene_id: str) -> str:
    return f"there is no scene '{scene_id}'; it may have been deleted"


def _carry_over(copy: sqlite3.Connection, current: sqlite3.Connection) -> None:
    """Prepare a copy to take the place of the current data.

    Revisions only ever rise, so that every page that has a scene open sees that it is another one now. Exports are files beside the data file, and
    no part of a copy: the list of them stays that of today.
    """
    (highest,) = current.execute("SELECT coalesce(max(revision), 0) FROM scene").fetchone()
    copy.execute("UPDATE scene SET revision = revision + ?", (highest + 1,))
    copy.execute("DELETE FROM preview")
    copy.execute("DELETE FROM export")
    rows = [tuple(row) for row in current.execute("SELECT * FROM export ORDER BY rowid")]
    if rows:
        copy.executemany(f"INSERT INTO export VALUES ({', '.join('?' * len(rows[0]))})", rows)
