"""An open scene: its stored state, its motion, and its inner scenes."""

import threading
from collections import OrderedDict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from pydantic import ValidationError

from vine_swing.motion.baking.cost import check_cost
from vine_swing.motion.basics.errors import EditError, MotionError
from vine_swing.motion.edits import Edit, apply_labelled
from vine_swing.motion.edits.sounds import check_heard
from vine_swing.motion.outline.drawing import check_drawn
from vine_swing.motion.scene.checking import checked
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.scene_file import faults
from vine_swing.service.deadline import Deadline
from vine_swing.service.motion import Motion
from vine_swing.service.sharing import shared
from vine_swing.store import SceneNotFound, Stored

#: Revisions of a scene that are remembered, so that a page that is behind is sent only what it does not know. They share what they have in common.
MOST_PAST = 32


class Session:
    """One scene in use, with the scenes inside it."""

    def __init__(self, stored: Stored) -> None:
        self.lock = threading.RLock()
        self.stored = stored
        #: The motion of the whole (None) and of the inner scenes that are looked at, each unchanged when it was last asked for.
        self._motions: dict[str | None, Motion] = {}
        self._inner_scenes: dict[str, Scene] = {}
        #: The scene at its last revisions, for pages that are a little behind.
        self._past: OrderedDict[int, Scene] = OrderedDict({stored.revision: stored.scene})
        #: The last look at edits that were not kept, by what they were: a drag ends with the edit it showed last.
        self._look: tuple[Scene, Sequence[Edit], Scene, str, Motion] | None = None

    def seen(self, inset: str | None) -> Scene:
        """The whole scene in its current state, or one inside it.

        Raises:
            SceneNotFound: if the inner does not exist scene, or no longer.
        """
        if inset is None:
            return self.stored.scene
        if inset not in self.stored.scene.insets_by_id:
            raise SceneNotFound(f"there is no scene '{inset}' inside '{self.stored.scene.name}'; it may have been deleted")
        if inset not in self._inner_scenes:
            self._inner_scenes[inset] = self.stored.scene.inner_as_scene(inset)
        return self._inner_scenes[inset]

    def before(self, revision: int, inset: str | None) -> Scene | None:
        """The whole scene at an earlier revision, or the one inside it; None if that is not known any more."""
        past = self._past.get(revision)
        if past is None or inset is None:
            return past
        return past.inner_as_scene(inset) if inset in past.insets_by_id else None

    def motion(self, deadline: Deadline, inset: str | None = None) -> Motion:
        """The baked motion of the scene, or of one inside it, in its current state; baked when first asked for."""
        known, scene, revision = self._motions.get(inset), self.seen(inset), self.stored.revision
        if known is None:
            known = self._motions[inset] = Motion.of(scene, revision, effort=deadline.effort())
        elif known.revision != revision:
            known = self._motions[inset] = known.updated(scene, revision, effort=deadline.effort())
        return known

    def changed(self, edits: Sequence[Edit], deadline: Deadline, inset: str | None = None) -> tuple[Scene, str, Motion]:
        """The whole scene after some edits of it or of one inside it, what undo calls them, and the motion of what was edited; nothing is kept but
        what it showed."""
        before = self.seen(inset)
        if self._look is not None and self._look[0] is before and self._look[1] == edits:
            return self._look[2:]
        after, label = apply_labelled(before, edits)
        check_drawn(after, since=before)
        check_heard(after, since=before)
        whole = after if inset is None else with_inner(self.stored.scene, inset, after)
        check_cost(whole, since=self.stored.scene)
        motion = self.motion(deadline, inset)
        if after is not before:
            motion = motion.updated(after, self.stored.revision + 1, effort=deadline.effort())
            refuse_beyond(motion, self.motion(deadline, inset))
        self._look = before, list(edits), whole, label, motion
        return whole, label, motion

    def outside(self, whole: Scene, deadline: Deadline) -> Motion:
        """The motion of the whole scene after one inside it was edited: what is kept must be one that can be baked."""
        motion = self.motion(deadline).updated(whole, self.stored.revision + 1, effort=deadline.effort())
        refuse_beyond(motion, self.motion(deadline))
        return motion

    def move_on(self, stored: Stored, motions: Mapping[str | None, Motion]) -> None:
        """Take up a newer version, and the motions that are known of it; the others are computed when they are asked for."""
        self._take_up(stored)
        self._motions |= motions

    def step(self, stored: Stored, deadline: Deadline) -> None:
        """Take up the version that undo or redo has come to, sharing what it has in common with the one at hand."""
        scene = shared(self.stored.scene, stored.scene)
        self.move_on(Stored(scene, stored.revision, stored.history), {})
        for inset in list(self._motions):
            try:
                self.motion(deadline, inset)
            except (MotionError, SceneNotFound):
                # Undo must never be refused: a motion that cannot be computed now is asked for again by whoever wants to see it.
                del self._motions[inset]

    def catch_up(self, stored: Stored) -> None:
        """Take up what the file holds, where somebody else has changed it."""
        self._take_up(Stored(shared(self.stored.scene, stored.scene), stored.revision, stored.history))
        self._motions = {}

    def _take_up(self, stored: Stored) -> None:
        # A past scene is kept without what was looked up in it, which would take more memory than the scene.
        self._past[self.stored.revision] = self.stored.scene.copy_with()
        self.stored, self._inner_scenes, self._look = stored, {}, None
        self._past[stored.revision] = stored.scene
        self._past.move_to_end(stored.revision)
        while len(self._past) > MOST_PAST:
            self._past.popitem(last=False)

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

    def motion(self, deadline: Deadline) -> Motion:
        """Its baked motion in its current state."""
        return self.session.motion(deadline, self.inset)


def with_inner(whole: Scene, inset: str, after: Scene) -> Scene:
    """A scene after one inside it was changed.

    Raises:
        EditError: if the whole would not be a scene any more, as when it came to be in itself.
    """
    try:
        return checked(whole.with_inner(inset, after), since=whole)
    except ValidationError as error:
        raise EditError(f"that would not be a scene any more: {'; '.join(faults(error))}") from error


def refuse_beyond(motion: Motion, before: Motion | None) -> None:
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
