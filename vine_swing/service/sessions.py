"""Sessions: the open scenes in memory, with their motion, over the store.

The order of every change: make the new scene in memory, check it whole, find who reads whom, bake it, write it, answer. A failure anywhere
leaves nothing behind, neither in the file nor in memory. What the file holds is the truth: memory follows its revision.
"""

import threading
from collections import OrderedDict
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from typing import Any

from vine_swing.motion.baking.cost import check_cost
from vine_swing.motion.basics.errors import NoSuchThing
from vine_swing.motion.edits import Edit
from vine_swing.motion.edits.sounds import check_heard
from vine_swing.motion.outline.drawing import check_drawn
from vine_swing.motion.scene.model import Scene
from vine_swing.service.deadline import Deadline
from vine_swing.service.motion import Motion
from vine_swing.service.reading import check_new_contents
from vine_swing.service.session import InUse, Session, refuse_beyond
from vine_swing.service.watching import How, News, PageWords, SceneChanged, SceneGone, Watchers
from vine_swing.store import Author, History, OldRevision, SceneStore, Stored
from vine_swing.store.steps import Kind

#: The scenes kept in memory may take this many bytes together; the one used longest ago is released first, the one in use never.
MOST_BYTES = 1_500_000_000
#: And no more of them than this: what each takes besides its arrays is not counted.
MOST_SCENES = 48
#: Requests that may use one scene or wait for it at a time: the others are told to come again, so that one slow scene cannot take every thread.
MOST_WAITING = 8
#: Between the id of a scene and that of one inside it, in the address of the latter.
INSIDE = "~"


class SceneBusy(Exception):
    """A scene is being worked on for so long, or by this many, that this request was not taken."""

    def __init__(self, scene_id: str) -> None:
        super().__init__(f"the scene '{scene_id}' is still being worked out for others; try again in a moment")


class Sessions:
    """The scenes in use, the least recently used released first. A scene inside another is addressed by both ids, `whole~inner`."""

    def __init__(self, store: SceneStore) -> None:
        self.store = store
        #: The pages that have scenes open.
        self.watchers = Watchers()
        self._lock = threading.Lock()
        self._open: OrderedDict[str, Session] = OrderedDict()
        #: How many threads use a session or wait for it: it must not be released meanwhile, or two would live side by side.
        self._users: dict[str, int] = {}
        #: How many of these are requests of their own, and which thread holds a scene now.
        self._waiting: dict[str, int] = {}
        self._holders: dict[str, int] = {}

    @contextmanager
    def use(self, address: str, deadline: Deadline | None = None) -> Iterator[InUse]:
        """A scene, held by one thread at a time, at the revision the file holds.

        Raises:
            SceneNotFound: if the scene does not exist.
            SceneBusy: if too many wait for it already, or it is not free in time.
        """
        scene_id, _, inset = address.partition(INSIDE)
        with self._lock:
            # A request that holds the scene already takes no second slot, and does not wait: its use is nested.
            nested = self._holders.get(scene_id) == threading.get_ident()
            if not nested and self._waiting.get(scene_id, 0) >= MOST_WAITING:
                raise SceneBusy(scene_id)
            session = self._open.get(scene_id)
            self._users[scene_id] = self._users.get(scene_id, 0) + 1
            self._waiting[scene_id] = self._waiting.get(scene_id, 0) + (not nested)
        try:
            if session is None:
                session = self._opened(scene_id)
            with _held(session.lock, deadline, scene_id), self._holding(scene_id, nested):
                if session.stored.revision != self.store.revision(scene_id):
                    session.catch_up(self.store.load(scene_id))
                yield InUse(session, inset or None)
        finally:
            with self._lock:
                self._users[scene_id] -= 1
                self._waiting[scene_id] -= not nested
                if not self._users[scene_id]:
                    del self._users[scene_id], self._waiting[scene_id]
                self._let_go()

    @contextmanager
    def _holding(self, scene_id: str, nested: bool) -> Iterator[None]:
        """Note which thread holds a scene; only its outermost use does so."""
        if not nested:
            self._holders[scene_id] = threading.get_ident()
        try:
            yield
        finally:
            if not nested:
                del self._holders[scene_id]

    def edit(self, address: str, edits: Sequence[Edit], *, revision: int, deadline: Deadline, page: str | None = None) -> InUse:
        """Apply edits as one step of undo: all of them, or none. page: who makes them."""
        check_new_contents(edits, deadline)
        with self.use(address, deadline) as used:
            session, whole = used.session, whole_of(address)
            _expect(session, revision)
            before = session.stored.scene
            after, label, motion = session.changed(edits, deadline, used.inset)
            if after != before:
                motions = {used.inset: motion} | ({} if used.inset is None else {None: session.outside(after, deadline)})
                author, others = self.watchers.author(whole, page), self.watchers.others(whole, page)
                stored = self.store.save(whole, before, after, label=label, revision=revision, author=author, others=others)
                session.move_on(stored, motions)
                self._tell(whole, stored.revision, label, "made", author)
            return used

    def look(self, address: str, edits: Sequence[Edit], *, revision: int, deadline: Deadline) -> bytes:
        """The motion as it would be after some edits, without making them: what differs from now."""
        check_new_contents(edits, deadline)
        with self.use(address, deadline) as used:
            _expect(used.session, revision)
            return used.session.changed(edits, deadline, used.inset)[2].message(since=revision)

    def beside(self, address: str, edits: Sequence[Edit], *, revision: int, deadline: Deadline) -> tuple[Motion, Motion]:
        """The motion as it is, and as it would be after some edits, without making them."""
        check_new_contents(edits, deadline)
        with self.use(address, deadline) as used:
            _expect(used.session, revision)
            return used.motion(deadline), used.session.changed(edits, deadline, used.inset)[2]

    def undo(self, address: str, *, revision: int, deadline: Deadline, page: str | None = None) -> InUse:
        """Take back the last step of a page, if there is one; steps of other pages that have the scene open are theirs.

        Raises:
            InTheWay: if others have changed the same objects since.
        """
        return self._step_back(address, "undo", revision, deadline, page)

    def redo(self, address: str, *, revision: int, deadline: Deadline, page: str | None = None) -> InUse:
        """Do the last undone step of a page again, if there is one; raises as `undo`."""
        return self._step_back(address, "redo", revision, deadline, page)

    def history(self, address: str, page: str | None) -> History:
        """What undo and redo would do for a page."""
        whole = whole_of(address)
        return self.store.history(whole, self.watchers.others(whole, page))

    def _step_back(self, address: str, kind: Kind, revision: int, deadline: Deadline, page: str | None) -> InUse:
        with self.use(address, deadline) as used:
            whole = whole_of(address)
            how: How = "undone" if kind == "undo" else "redone"
            others = self.watchers.others(whole, page)
            stored = self.store.step_back(whole, kind, revision=revision, others=others, check=lambda scene: _checked_motion(scene, deadline))
            if stored is not None:
                used.session.step(stored, deadline)
                # The undone step can now be redone, and vice versa.
                what = stored.history.redo if kind == "undo" else stored.history.undo
                self._tell(whole, stored.revision, what or "", how, self.watchers.author(whole, page))
            return used

    def _tell(self, scene_id: str, revision: int, what: str, how: How, author: Author | None) -> None:
        by = PageWords(id=author.page, name=author.name) if author is not None else None
        self.watchers.tell(scene_id, SceneChanged(revision=revision, what=what, how=how, by=by))

    def create(self, scene: Scene, *, deadline: Deadline) -> str:
        """Keep a new scene, if it can be baked; returns its id."""
        check_cost(scene)
        motion = _checked_motion(scene, deadline)
        scene_id = self.store.create(scene)
        # The very parts that were baked, so that "what changed" is answered by identity.
        session = Session(Stored(scene, 0, History(None, None)))
        session.move_on(session.stored, {None: motion})
        with self._lock:
            self._open[scene_id] = session
        return scene_id

    def forget(self, scene_id: str) -> None:
        """Let a scene go from memory once it has been deleted, and tell those who have it open."""
        with self._lock:
            self._open.pop(scene_id, None)
        self.watchers.tell(scene_id, SceneGone())

    def bring_back(self, name: str) -> None:
        """Put all scenes as they were in a copy of the data file. Edits that are under way come to their end first."""
        if all(one.name != name for one in self.store.backups()):
            raise NoSuchThing(f"there is no copy '{name}'; only the newest are kept")
        with self._lock:
            self.store.bring_back(name)
            self._open.clear()
        for scene_id in self.watchers.scenes():
            line = self.store.line(scene_id)
            gone_or_changed: News = SceneGone() if line is None else SceneChanged(revision=line[1], what="bring back a copy", how="made", by=None)
            self.watchers.tell(scene_id, gone_or_changed)

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


def whole_of(address: str) -> str:
    """The id of the scene that is kept, of its address or that of one inside it."""
    return address.partition(INSIDE)[0]


@contextmanager
def _held(lock: Any, deadline: Deadline | None, scene_id: str) -> Iterator[None]:
    """Hold a lock; waiting for it ends with the deadline of whoever asks."""
    waits = deadline or Deadline()
    while not lock.acquire(timeout=0.1):
        if waits.is_over:
            raise SceneBusy(scene_id)
    try:
        yield
    finally:
        lock.release()


def _checked_motion(scene: Scene, deadline: Deadline) -> Motion:
    """The motion of a scene that nothing of has been checked yet.

    Raises:
        MotionError: if it cannot be drawn, heard or baked, or reaches too far to be shown.
    """
    check_drawn(scene)
    check_heard(scene)
    motion = Motion.of(scene, 0, effort=deadline.effort())
    refuse_beyond(motion, None)
    return motion


def _expect(session: Session, revision: int) -> None:
    if session.stored.revision != revision:
        raise OldRevision(revision, session.stored.revision)
