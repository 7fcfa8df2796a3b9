"""Sessions of work: the scenes in use, kept in memory with their motion, over the store that keeps them for good."""

import threading
from collections import OrderedDict
from collections.abc import Iterator, Sequence
from contextlib import contextmanager

from vine_swing.motion.edits import Edit, apply_all, label_of
from vine_swing.motion.model import Scene, SceneObject
from vine_swing.motion.svg_path import check_outlines
from vine_swing.service.motion import Motion
from vine_swing.store import OldRevision, SceneStore, Stored

#: Scenes kept in memory at once.
KEPT = 8


class Session:
    """One scene in use."""

    def __init__(self, stored: Stored) -> None:
        self.lock = threading.RLock()
        self.stored = stored
        self._motion: Motion | None = None

    @property
    def motion(self) -> Motion:
        """The baked motion of the scene as it is now; baked when first asked for."""
        if self._motion is None:
            self._motion = Motion.of(self.stored.scene, self.stored.revision)
        return self._motion

    def move_on(self, stored: Stored) -> None:
        """Take up a newer version, sharing what it has in common with the one at hand."""
        scene = _shared(self.stored.scene, stored.scene)
        self.stored = Stored(scene, stored.revision, stored.history)
        if self._motion is not None:
            self._motion = self._motion.moved_on(scene, stored.revision)


class Sessions:
    """The scenes in use, the least used let go first."""

    def __init__(self, store: SceneStore) -> None:
        self.store = store
        self._lock = threading.Lock()
        self._open: OrderedDict[str, Session] = OrderedDict()

    @contextmanager
    def use(self, scene_id: str) -> Iterator[Session]:
        """A session, held by one thread at a time."""
        with self._lock:
            session = self._open.get(scene_id)
            if session is None:
                session = self._open[scene_id] = Session(self.store.load(scene_id))
            self._open.move_to_end(scene_id)
            while len(self._open) > KEPT:
                self._open.popitem(last=False)
        with session.lock:
            yield session

    def edit(self, scene_id: str, edits: Sequence[Edit], *, revision: int) -> Session:
        """Apply edits as one step of undo: all of them, or none."""
        with self.use(scene_id) as session:
            before = session.stored.scene
            _expect(session, revision)
            after = apply_all(before, edits)
            check_outlines(after, since=before)
            if after != before:
                stored = self.store.save(scene_id, before, after, label=label_of(before, edits), revision=revision)
                session.move_on(stored)
            return session

    def look(self, scene_id: str, edits: Sequence[Edit], *, revision: int) -> bytes:
        """The motion as it would be after some edits, without making them: what differs from now."""
        with self.use(scene_id) as session:
            _expect(session, revision)
            before = session.stored.scene
            after = apply_all(before, edits)
            check_outlines(after, since=before)
            return session.motion.moved_on(after, revision + 1).message(since=revision)

    def undo(self, scene_id: str, *, revision: int) -> Session:
        """Take back the last step, if there is one."""
        with self.use(scene_id) as session:
            if stored := self.store.undo(scene_id, revision=revision):
                session.move_on(stored)
            return session

    def redo(self, scene_id: str, *, revision: int) -> Session:
        """Do the last undone step again, if there is one."""
        with self.use(scene_id) as session:
            if stored := self.store.redo(scene_id, revision=revision):
                session.move_on(stored)
            return session

    def forget(self, scene_id: str) -> None:
        """Let a scene go from memory, as when it has been deleted."""
        with self._lock:
            self._open.pop(scene_id, None)


def _expect(session: Session, revision: int) -> None:
    if session.stored.revision != revision:
        raise OldRevision(revision, session.stored.revision)


def _shared(before: Scene, after: Scene) -> Scene:
    """`after`, with every part that equals its counterpart in `before` replaced by that very part."""
    if before is after:
        return after
    objects = tuple(_shared_object(before.by_id.get(thing.id), thing) for thing in after.objects)
    dials = tuple(was if (was := before.dials_by_id.get(owner)) == dial else dial for owner, dial in after.dials_by_id.items())
    return after.but(objects=objects, dials=dials)


def _shared_object(before: SceneObject | None, after: SceneObject) -> SceneObject:
    if before is None or before is after:
        return after
    if before == after:
        return before
    channels = {name: was if (was := before.channels.get(name)) == channel else channel for name, channel in after.channels.items()}
    return after.but(channels=channels)
