"""Sessions of work: the scenes in use, kept in memory with their motion, over the store that keeps them for good.

The order of every change: make the new scene in memory, check it whole, find who reads whom, bake it, write it, answer. A failure anywhere
leaves nothing behind, neither in the file nor in memory. What the file holds is the truth: memory follows its revision.
"""

import threading
from collections import OrderedDict
from collections.abc import Iterator, Mapping, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any

from pydantic import ValidationError

from vine_swing.motion.basics.errors import EditError, MotionError, NoSuchThing
from vine_swing.motion.edits import Edit, apply_labelled
from vine_swing.motion.edits.sounds import check_heard
from vine_swing.motion.outline.drawing import check_drawn
from vine_swing.motion.scene.checking import checked
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.scene_file import faults
from vine_swing.motion.scene.timeline import InnerScene, Timeline
from vine_swing.service.motion import Motion
from vine_swing.service.patience import Patience
from vine_swing.store import History, OldRevision, SceneNotFound, SceneStore, Stored

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


#: Between the id of a scene and that of one inside it, in the address of the latter.
INSIDE = "~"


class Session:
    """One scene in use, with the scenes inside it."""

    def __init__(self, stored: Stored) -> None:
        self.lock = threading.RLock()
        self.stored = stored
        #: The motion of the whole (None) and of the inner scenes that are looked at, each as it was when it was last asked for.
        self._motions: dict[str | None, Motion] = {}
        self._entered: dict[str, Scene] = {}
        #: The last look at edits that were not kept, by what they were: a drag ends with the edit it showed last.
        self._look: tuple[Scene, Sequence[Edit], Scene, str, Motion] | None = None

    def seen(self, inset: str | None) -> Scene:
        """The whole scene as it is now, or one inside it.

        Raises:
            SceneNotFound: if there is no such inner scene, or no longer.
        """
        if inset is None:
            return self.stored.scene
        if inset not in self.stored.scene.insets_by_id:
            raise SceneNotFound(f"there is no scene '{inset}' inside '{self.stored.scene.name}'; it may have been deleted")
        if inset not in self._entered:
            self._entered[inset] = self.stored.scene.entered(inset)
        return self._entered[inset]

    def motion(self, patience: Patience, inset: str | None = None) -> Motion:
        """The baked motion of the scene, or of one inside it, as it is now; baked when first asked for."""
        known, scene, revision = self._motions.get(inset), self.seen(inset), self.stored.revision
        if known is None:
            known = self._motions[inset] = Motion.of(scene, revision, effort=patience.effort())
        elif known.revision != revision:
            known = self._motions[inset] = known.moved_on(scene, revision, effort=patience.effort())
        return known

    def changed(self, edits: Sequence[Edit], patience: Patience, inset: str | None = None) -> tuple[Scene, str, Motion]:
        """The whole scene after some edits of it or of one inside it, what undo calls them, and the motion of what was edited; nothing is kept but
        what it showed."""
        before = self.seen(inset)
        if self._look is not None and self._look[0] is before and self._look[1] == edits:
            return self._look[2:]
        after, label = apply_labelled(before, edits)
        check_drawn(after, since=before)
        check_heard(after, since=before)
        motion = self.motion(patience, inset)
        if after is not before:
            motion = motion.moved_on(after, self.stored.revision + 1, effort=patience.effort())
            _refuse_beyond(motion, self.motion(patience, inset))
        whole = after if inset is None else _with_inner(self.stored.scene, inset, after)
        self._look = before, list(edits), whole, label, motion
        return whole, label, motion

    def outside(self, whole: Scene, patience: Patience) -> Motion:
        """The motion of the whole scene after one inside it was edited: what is kept must be one that can be baked."""
        motion = self.motion(patience).moved_on(whole, self.stored.revision + 1, effort=patience.effort())
        _refuse_beyond(motion, self.motion(patience))
        return motion

    def move_on(self, stored: Stored, motions: Mapping[str | None, Motion]) -> None:
        """Take up a newer version, and the motions that are known of it; the others are worked out when they are asked for."""
        self.stored, self._entered, self._look = stored, {}, None
        self._motions |= motions

    def step(self, stored: Stored, patience: Patience) -> None:
        """Take up the version that undo or redo has come to, sharing what it has in common with the one at hand."""
        scene = _shared(self.stored.scene, stored.scene)
        self.move_on(Stored(scene, stored.revision, stored.history), {})
        for inset in list(self._motions):
            try:
                self.motion(patience, inset)
            except (MotionError, SceneNotFound):
                # Undo must never be refused: a motion that cannot be worked out now is asked for again by whoever wants to see it.
                del self._motions[inset]

    def catch_up(self, stored: Stored) -> None:
        """Take up what the file holds, where somebody else has changed it."""
        self.stored = Stored(_shared(self.stored.scene, stored.scene), stored.revision, stored.history)
        self._motions, self._entered, self._look = {}, {}, None

    @property
    def size(self) -> int:
        """About how many bytes its motions take."""
        return sum(motion.size for motion in self._motions.values())


@dataclass(frozen=True)
class InUse:
    """A scene in use as its address says: the whole, or one inside it."""

    session: Session
    inset: str | None

    @property
    def stored(self) -> Stored:
        """What is kept of it now; the revision and the history are those of the whole."""
        whole = self.session.stored
        return whole if self.inset is None else Stored(self.session.seen(self.inset), whole.revision, whole.history)

    def motion(self, patience: Patience) -> Motion:
        """Its baked motion as it is now."""
        return self.session.motion(patience, self.inset)


class Sessions:
    """The scenes in use, the least recently used let go first. A scene inside another is addressed by both ids, `whole~inner`."""

    def __init__(self, store: SceneStore) -> None:
        self.store = store
        self._lock = threading.Lock()
        self._open: OrderedDict[str, Session] = OrderedDict()
        #: How many threads use a session or wait for it: it must not be let go meanwhile, or two would live side by side.
        self._users: dict[str, int] = {}

    @contextmanager
    def use(self, address: str, patience: Patience | None = None) -> Iterator[InUse]:
        """A scene, held by one thread at a time, at the revision the file holds.

        Raises:
            SceneNotFound: if there is no such scene.
            SceneBusy: if too many wait for it already, or it is not free in time.
        """
        scene_id, _, inset = address.partition(INSIDE)
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
                yield InUse(session, inset or None)
        finally:
            with self._lock:
                self._users[scene_id] -= 1
                if not self._users[scene_id]:
                    del self._users[scene_id]
                self._let_go()

    def edit(self, address: str, edits: Sequence[Edit], *, revision: int, patience: Patience) -> InUse:
        """Apply edits as one step of undo: all of them, or none."""
        with self.use(address, patience) as used:
            session = used.session
            _expect(session, revision)
            before = session.stored.scene
            after, label, motion = session.changed(edits, patience, used.inset)
            if after != before:
                motions = {used.inset: motion} | ({} if used.inset is None else {None: session.outside(after, patience)})
                session.move_on(self.store.save(whole_of(address), before, after, label=label, revision=revision), motions)
            return used

    def look(self, address: str, edits: Sequence[Edit], *, revision: int, patience: Patience) -> bytes:
        """The motion as it would be after some edits, without making them: what differs from now."""
        with self.use(address, patience) as used:
            _expect(used.session, revision)
            return used.session.changed(edits, patience, used.inset)[2].message(since=revision)

    def beside(self, address: str, edits: Sequence[Edit], *, revision: int, patience: Patience) -> tuple[Motion, Motion]:
        """The motion as it is, and as it would be after some edits, without making them."""
        with self.use(address, patience) as used:
            _expect(used.session, revision)
            return used.motion(patience), used.session.changed(edits, patience, used.inset)[2]

    def undo(self, address: str, *, revision: int, patience: Patience) -> InUse:
        """Take back the last step, if there is one."""
        with self.use(address, patience) as used:
            if stored := self.store.undo(whole_of(address), revision=revision):
                used.session.step(stored, patience)
            return used

    def redo(self, address: str, *, revision: int, patience: Patience) -> InUse:
        """Do the last undone step again, if there is one."""
        with self.use(address, patience) as used:
            if stored := self.store.redo(whole_of(address), revision=revision):
                used.session.step(stored, patience)
            return used

    def create(self, scene: Scene, *, patience: Patience) -> str:
        """Keep a new scene, if it can be baked; returns its id."""
        check_drawn(scene)
        check_heard(scene)
        motion = Motion.of(scene, 0, effort=patience.effort())
        _refuse_beyond(motion, None)
        scene_id = self.store.create(scene)
        # The very parts that were baked, so that "what changed" is answered by identity.
        session = Session(Stored(scene, 0, History(None, None)))
        session.move_on(session.stored, {None: motion})
        with self._lock:
            self._open[scene_id] = session
        return scene_id

    def forget(self, scene_id: str) -> None:
        """Let a scene go from memory, as when it has been deleted."""
        with self._lock:
            self._open.pop(scene_id, None)

    def bring_back(self, name: str) -> None:
        """Put all scenes as they were in a copy of the data file. Edits that are under way come to their end first."""
        if all(one.name != name for one in self.store.backups()):
            raise NoSuchThing(f"there is no copy '{name}'; only the newest are kept")
        with self._lock:
            self.store.bring_back(name)
            self._open.clear()

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


def _with_inner(whole: Scene, inset: str, after: Scene) -> Scene:
    """A scene after one inside it was changed.

    Raises:
        EditError: if the whole would not be a scene any more, as when it came to stand in itself.
    """
    try:
        return checked(whole.left(inset, after), since=whole)
    except ValidationError as error:
        raise EditError(f"that would not be a scene any more: {'; '.join(faults(error))}") from error


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
    known = before.insets_by_id
    heard = before.sounds_by_id
    sounds = tuple(was if (was := heard.get(one.id)) == one else one for one in after.sounds)
    sounds = before.sounds if sounds == before.sounds else sounds
    insets = tuple(_shared_inner(known.get(inner.id), inner) for inner in after.insets)
    return after.but(**_shared_parts(before, after), insets=insets, sounds=sounds)


def _shared_inner(before: InnerScene | None, after: InnerScene) -> InnerScene:
    if before is None or before is after:
        return after
    return before if before == after else after.but(**_shared_parts(before, after))


def _shared_parts(before: Timeline, after: Timeline) -> dict[str, Any]:
    things, turned = {thing.id: thing for thing in before.objects}, {dial.id: dial for dial in before.dials}
    objects = tuple(_shared_object(things.get(thing.id), thing) for thing in after.objects)
    dials = tuple(was if (was := turned.get(dial.id)) == dial else dial for dial in after.dials)
    return {"objects": objects, "dials": dials}


def _shared_object(before: SceneObject | None, after: SceneObject) -> SceneObject:
    if before is None or before is after:
        return after
    if before == after:
        return before
    channels = {name: was if (was := before.channels.get(name)) == channel else channel for name, channel in after.channels.items()}
    return after.but(channels=channels)
