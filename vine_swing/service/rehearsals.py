"""Kept versions of scenes, baked to be compared with the scenes in their current state."""

import threading
from collections import OrderedDict

from vine_swing.motion.baking.differences import Difference, differences
from vine_swing.motion.scene.model import Scene
from vine_swing.picture.preview import preview
from vine_swing.service.deadline import Deadline
from vine_swing.service.motion import Motion
from vine_swing.service.sessions import Sessions, whole_of
from vine_swing.store import Rehearsal

#: Baked versions that are held: the two that are compared, and a few before them.
_HELD = 4


class Rehearsals:
    """The kept versions of all scenes. A version never changes, so it is baked once and held for a while."""

    def __init__(self, sessions: Sessions) -> None:
        self._sessions = sessions
        self._lock = threading.Lock()
        self._held: OrderedDict[str, Motion] = OrderedDict()

    def keep(self, address: str, name: str | None, deadline: Deadline) -> Rehearsal:
        """Keep a scene in its current state, the whole of it where the address is of one inside."""
        scene_id = whole_of(address)
        with self._sessions.use(scene_id, deadline) as used:
            stored, motion = used.stored, used.motion(deadline)
        kept = self._sessions.store.rehearsals.keep(scene_id, stored.scene, revision=stored.revision, name=name, still=preview(motion.baked))
        self._hold(kept.id, motion)
        return kept

    def scene(self, address: str, rehearsal_id: str) -> Scene:
        """A stored version.

        Raises:
            NoSuchThing: if the scene has no such version.
        """
        return self._sessions.store.rehearsals.scene(whole_of(address), rehearsal_id)

    def motion(self, address: str, rehearsal_id: str, deadline: Deadline) -> Motion:
        """The baked motion of a version; raises as `scene`."""
        # Whether it is of this scene is asked even of one that is held.
        self._sessions.store.rehearsals.find(whole_of(address), rehearsal_id)
        with self._lock:
            held = self._held.get(rehearsal_id)
        if held is None:
            held = Motion.of(self.scene(address, rehearsal_id), 0, effort=deadline.effort())
        self._hold(rehearsal_id, held)
        return held

    def differences(self, address: str, rehearsal_id: str, deadline: Deadline) -> tuple[int, list[Difference]]:
        """How the scene in its current state differs from a version, and the revision it has now; raises as `scene`."""
        kept = self.motion(address, rehearsal_id, deadline)
        with self._sessions.use(whole_of(address), deadline) as used:
            now, revision = used.motion(deadline), used.stored.revision
        return revision, differences(now.baked, kept.baked)

    def _hold(self, rehearsal_id: str, motion: Motion) -> None:
        with self._lock:
            self._held[rehearsal_id] = motion
            self._held.move_to_end(rehearsal_id)
            while len(self._held) > _HELD:
                self._held.popitem(last=False)
