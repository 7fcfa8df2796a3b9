"""Sessions of work: the scenes in use, kept in memory with their motion, over the store that keeps them for good.

The order of every change: make the new scene in memory, check it whole, find who reads whom, bake it, write it, answer. A failure anywhere
leaves nothing behind, neither in the file nor in memory. What the file holds is the truth: memory follows its revision.
"""

import threading
from collections import OrderedDict
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from typing import Any

from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.edits import Edit, apply_labelled
from vine_swing.motion.outline.drawing import check_drawn
from vine_swing.motion.scene.model import Scene, SceneObject
from vine_swing.service.motion import Motion
from vine_swing.service.patience import Patience
from vine_swing.store import History, OldRevision, SceneStore, Stored

#: The scenes kept in memory may take this many bytes together; the one used longest ago is let go first, the one in use never.
MOST_BYTES = 1_500_000_000
#: And no more of them than this: what each takes besides its arrays is not counted.
MOST_SCENES = 48


#: Requests that may use one scene or wait for it at a time: the others are told to come again, so that one slow scene cannot take every thread.
MOST_WAITING = 8


class SceneBusy(Exception):
    """A scene is being worked on for so long, or by so many, that this request was not taken."""

    def __init__(self, scene_id: str) -> None:
        super().__init__(f"the scene '{scene_id}' is still being worked out for others; try again in a moment")


class Session:
    """One scene in use."""

    def __init__(self, stored: Stored) -> None:
        self.lock = threading.RLock()
        self.stored = stored
        self._motion: Motion | None = None
        #: The last look at edits that were not kept, by what they were: a drag ends with the edit it showed last.
        self._look: tuple[Scene, Sequence[Edit], Scene, str, Motion] | None = None

    def motion(self, patience: Patience) -> Motion:
        """The baked motion of the scene as it is now; baked when first asked for."""
        if self._motion is None:
            self._motion = Motion.of(self.stored.scene, self.stored.revision, effort=patience.effort())
        return self._motion

    def changed(self, edits: Sequence[Edit], patience: Patience) -> tuple[Scene, str, Motion]:
        """The scene after some edits, what undo calls them, and its motion; nothing is kept but what it showed."""
        before = self.stored.scene
        if self._look is not None and self._look[0] is before and self._look[1] == edits:
            return self._look[2:]
        after, label = apply_labelled(before, edits)
        check_drawn(after, since=before)
        motion = self.motion(patience)
        if after is not before:
            motion = motion.moved_on(after, self.stored.revision + 1, effort=patience.effort())
            _refuse_beyond(motion, self.motion(patience))
        self._look = before, list(edits), after, label, motion
        return after, label, motion

    def move_on(self, stored: Stored, motion: Motion | None) -> None:
        """Take up a newer version and its motion; None to work it out when it is asked for."""
        self.stored, self._motion, self._look = stored, motion, None

    def step(self, stored: Stored, patience: Patience) -> None:
        """Take up the version that undo or redo has come to, sharing what it has in common with the one at hand."""
        scene, motion = _shared(self.stored.scene, stored.scene), self._motion
        if motion is not None:
            try:
                motion = motion.moved_on(scene, stored.revision, effort=patience.effort())
            except MotionError:
                # Undo must never be refused: a motion that cannot be worked out now is asked for again by whoever wants to see it.
                motion = None
        self.move_on(Stored(scene, stored.revision, stored.history), motion)

    def catch_up(self, stored: Stored) -> None:
        """Take up what the file holds, where somebody else has changed it."""
        self.stored = Stored(_shared(self.stored.scene, stored.scene), stored.revision, stored.history)
        self._motion = self._look = None

    @property
    def size(self) -> int:
        """About how many bytes its motion takes."""
        return self._motion.size if self._motion is not None else 0


class Sessions:
    """The scenes in use, the least recently used let go first."""

    def __init__(self, store: SceneStore) -> None:
        self.store = store
        self._lock = threading.Lock()
        self._open: OrderedDict[str, Session] = OrderedDict()
        #: How many threads use a session or wait for it: it must not be let go meanwhile, or two would live side by side.
        self._users: dict[str, int] = {}

    @contextmanager
    def use(self, scene_id: str, patience: Patience | None = None) -> Iterator[Session]:
        """A session, held by one thread at a time, at the revision the file holds.

        Raises:
            SceneNotFound: if there is no such scene.
            SceneBusy: if too many wait for it already, or it is not free in time.
        """
        with self._lock:
            if self._users.get(scene_id, 0) >= MOST_WAITING:
                raise SceneBusy(scene_id)
            session = self._open.get(scene_id)
            self._users[scene_id] = self._users.get(scene_id, 0) + 1
        try:
            if session is None:
                session = self._opened(scene_id)
            with _held(session.lock, patience, scene_id):
                if session.stored.revision != self.store.revision(scene_id):
                    session.catch_up(self.store.load(scene_id))
                yield session
        finally:
            with self._lock:
                self._users[scene_id] -= 1
                if not self._users[scene_id]:
                    del self._users[scene_id]
                self._let_go()

    def edit(self, scene_id: str, edits: Sequence[Edit], *, revision: int, patience: Patience) -> Session:
        """Apply edits as one step of undo: all of them, or none."""
        with self.use(scene_id, patience) as session:
            _expect(session, revision)
            before = session.stored.scene
            after, label, motion = session.changed(edits, patience)
            if after != before:
                stored = self.store.save(scene_id, before, after, label=label, revision=revision)
                session.move_on(stored, motion)
            return session

    def look(self, scene_id: str, edits: Sequence[Edit], *, revision: int, patience: Patience) -> bytes:
        """The motion as it would be after some edits, without making them: what differs from now."""
        with self.use(scene_id, patience) as session:
            _expect(session, revision)
            return session.changed(edits, patience)[2].message(since=revision)

    def undo(self, scene_id: str, *, revision: int, patience: Patience) -> Session:
        """Take back the last step, if there is one."""
        with self.use(scene_id, patience) as session:
            if stored := self.store.undo(scene_id, revision=revision):
                session.step(stored, patience)
            return session

    def redo(self, scene_id: str, *, revision: int, patience: Patience) -> Session:
        """Do the last undone step again, if there is one."""
        with self.use(scene_id, patience) as session:
            if stored := self.store.redo(scene_id, revision=revision):
                session.step(stored, patience)
            return session

    def create(self, scene: Scene, *, patience: Patience) -> str:
        """Keep a new scene, if it can be baked; returns its id."""
        check_drawn(scene)
        motion = Motion.of(scene, 0, effort=patience.effort())
        _refuse_beyond(motion, None)
        scene_id = self.store.create(scene)
        # The very parts that were baked, so that "what changed" is answered by identity.
        session = Session(Stored(scene, 0, History(None, None)))
        session.move_on(session.stored, motion)
        with self._lock:
            self._open[scene_id] = session
        return scene_id

    def forget(self, scene_id: str) -> None:
        """Let a scene go from memory, as when it has been deleted."""
        with self._lock:
            self._open.pop(scene_id, None)

    def _opened(self, scene_id: str) -> Session:
        """The session of a scene, loaded if it is not open; of several threads that load it at once, all get the same one."""
        stored = self.store.load(scene_id)
        with self._lock:
            return self._open.setdefault(scene_id, Session(stored))

    def _let_go(self) -> None:
        """Let go of what was used longest ago until the rest fits."""
        for scene_id in list(self._users):
            if scene_id in self._open:
                self._open.move_to_end(scene_id)
        total = sum(session.size for session in self._open.values())
        for scene_id in list(self._open)[:-1]:
            if total <= MOST_BYTES and len(self._open) <= MOST_SCENES:
                break
            if scene_id not in self._users:
                total -= self._open.pop(scene_id).size


@contextmanager
def _held(lock: Any, patience: Patience | None, scene_id: str) -> Iterator[None]:
    """Hold a lock; waiting for it ends with the patience of whoever asks."""
    waits = patience or Patience()
    while not lock.acquire(timeout=0.1):
        if waits.is_over:
            raise SceneBusy(scene_id)
    try:
        yield
    finally:
        lock.release()


def _expect(session: Session, revision: int) -> None:
    if session.stored.revision != revision:
        raise OldRevision(revision, session.stored.revision)


def _refuse_beyond(motion: Motion, before: Motion | None) -> None:
    """Refuse a change by which channels reach too far to be shown.

    Raises:
        MotionError: naming the channel and the frame.
    """
    known = before.baked.beyond if before is not None else {}
    for (object_id, channel), frame in motion.baked.beyond.items():
        if (object_id, channel) not in known:
            thing = motion.baked.scene.by_id[object_id]
            raise MotionError(
                f"{thing.name}.{channel} would grow out of reach at frame {frame:g}; take smaller numbers, or let fewer rules multiply them"
            )


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
