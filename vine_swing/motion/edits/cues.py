"""Edits of cues, and of performances kept as keys."""

from itertools import pairwise
from typing import Annotated, Literal

from pydantic import Field

from vine_swing.motion.basics.errors import EditError, NoSuchThing
from vine_swing.motion.basics.values import MAX_LENGTH, Frozen, Id
from vine_swing.motion.edits.base import Edit, object_in, with_channel
from vine_swing.motion.edits.stretches import leaning, posed, stretch_keys
from vine_swing.motion.scene.cues import MAX_CUES, Cue, check_cues
from vine_swing.motion.scene.hanging import with_parts
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.timing.channel import MAX_KEYS, Channel, Key
from vine_swing.motion.timing.ends import HOLD

#: A whole frame within a scene.
PlainFrame = Annotated[int, Field(strict=True, ge=0, le=MAX_LENGTH)]


class _CueEdit(Edit):
    cue: Cue

    def _checked(self, scene: Scene, cues: tuple[Cue, ...]) -> Scene:
        try:
            check_cues(cues, scene.by_id)
        except ValueError as error:
            raise EditError(str(error)) from error
        return scene.copy_with(cues=cues)


class AddCue(_CueEdit):
    """Name a stretch of the timeline that a key press or a click starts."""

    edit: Literal["add-cue"]

    def apply(self, scene: Scene) -> Scene:
        if len(scene.cues) >= MAX_CUES:
            raise EditError(f"a scene holds at most {MAX_CUES} cues; delete some first")
        return self._checked(scene, (*scene.cues, self.cue))

    def label(self, scene: Scene) -> str:
        return f"add the cue {self.cue.name}"


class SetCue(_CueEdit):
    """Put a cue in the place of the one with its id."""

    edit: Literal["set-cue"]

    def apply(self, scene: Scene) -> Scene:
        before = cue_in(scene, self.cue.id)
        return self._checked(scene, tuple(self.cue if cue is before else cue for cue in scene.cues))

    def label(self, scene: Scene) -> str:
        return f"change the cue {cue_in(scene, self.cue.id).name}"


class DeleteCue(Edit):
    """Take a cue away. The stretch and its keys stay."""

    edit: Literal["delete-cue"]
    id: Id

    def apply(self, scene: Scene) -> Scene:
        travelled = cue_in(scene, self.id)
        return scene.copy_with(cues=tuple(cue for cue in scene.cues if cue is not travelled))

    def label(self, scene: Scene) -> str:
        return f"delete the cue {cue_in(scene, self.id).name}"


class Press(Frozen):
    """One press while playing live: which cue, how many frames after playing began, and how many frames it ran."""

    cue: Id
    at: Annotated[int, Field(strict=True, ge=0, le=MAX_LENGTH)]
    runs: Annotated[int, Field(strict=True, ge=1, le=MAX_LENGTH)]


class LayPresses(Edit):
    """Lay what was played down as keys, so that from the frame `start` on the scene shows what the presses showed: everything a cue
    moves waits at the pose of the frame `rest` until its first press, and stays where a run leaves it. Keys from `start` on give way; the scene
    gets longer where it has to. Rules go on working on the keys written as keys."""

    edit: Literal["lay-presses"]
    start: PlainFrame
    rest: PlainFrame
    presses: Annotated[tuple[Press, ...], Field(min_length=1, max_length=2000)]

    def apply(self, scene: Scene) -> Scene:
        end = self.start + max(press.at + press.runs for press in self.presses)
        if end > MAX_LENGTH:
            raise EditError(f"the performance would end at frame {end}; a scene has at most {MAX_LENGTH} frames")
        placed = False
        cues = {press.cue: cue_in(scene, press.cue) for press in self.presses}
        for object_id, presses in self._by_object(scene).items():
            obj = object_in(scene, object_id)
            for name in [name for name, channel in obj.channels.items() if channel.keys]:
                placed = True
                keys = [*self._before(obj, name), *self._keys(cues, obj, name, presses)]
                scene = with_channel(scene, object_id, name, lambda channel, keys=keys: self._joined(channel, keys))  # type: ignore[misc]
        if not placed:
            raise EditError("no object of these cues has keys within their ranges; add keys there first")
        return scene if scene.length >= end else scene.copy_with(length=end)

    def label(self, scene: Scene) -> str:
        return f"lay down {len(self.presses)} {'press' if len(self.presses) == 1 else 'presses'}"

    def _by_object(self, scene: Scene) -> dict[str, list[Press]]:
        """What moved each object, in order of time; children move with their object."""
        result: dict[str, list[Press]] = {}
        moved: dict[str, list[str]] = {}
        for press in sorted(self.presses, key=lambda item: item.at):
            if press.cue not in moved:
                moved[press.cue] = with_parts(cue_in(scene, press.cue).objects, scene.children)
            for object_id in moved[press.cue]:
                result.setdefault(object_id, []).append(press)
        return result

    def _keys(self, cues: dict[str, Cue], obj: SceneObject, name: str, presses: list[Press]) -> list[Key]:
        stretches: dict[tuple[int, int], list[Key]] = {}
        rest = posed(obj, name, self.rest).copy_with(frame=float(self.start), ease="hold")
        keys = {rest.frame: rest}
        for press, after in pairwise([*presses, None]):
            assert press is not None
            cue = cues[press.cue]
            # A press ends what the object was doing.
            runs = press.runs if after is None else min(press.runs, after.at - press.at)
            for begun in range(0, runs, cue.last - cue.first + 1):
                last = cue.first + min(runs - begun - 1, cue.last - cue.first)
                by = self.start + press.at + begun - cue.first
                if (cue.first, last) not in stretches:
                    stretches[cue.first, last] = stretch_keys(obj, name, cue.first, last)
                # In place: a copy for each press would make the cost grow with their square.
                keys.update({key.frame + by: key.copy_with(frame=key.frame + by) for key in stretches[cue.first, last]})
        return list(keys.values())

    def _before(self, obj: SceneObject, name: str) -> list[Key]:
        """The keys before `start`, and what represents the end that went on from them up to there."""
        channel = obj.channels[name]
        first, last = channel.keys[0].frame, channel.keys[-1].frame
        stored = [key for key in channel.keys if key.frame < self.start]
        if len(stored) > 1 and leaning(stored):
            # Splines follow their neighbours, and get new ones: curves that go the same way represent them.
            stored = stretch_keys(obj, name, first, stored[-1].frame)
        if channel.before.mode != "hold" and 0 < first < self.start:
            # More keys would make another turn of it.
            begun = stretch_keys(obj, name, 0.0, first)
            stored = [*begun[:-1], stored[0].copy_with(into=begun[-1].into), *stored[1:]]
        if not stored or stored[-1].frame < last:
            # The stretch towards a key that gives way is cut off where the presses begin.
            begin = stored[-1].frame if stored else min(0.0, self.start - 1.0)
            return _going_on(stored, stretch_keys(obj, name, begin, self.start - 1)) if self.start - 1 > begin else stored
        if channel.after.mode == "hold" or self.start - 1 <= last:
            return [*stored[:-1], stored[-1].copy_with(ease="hold")]
        return _going_on(stored, stretch_keys(obj, name, last, self.start - 1))

    @staticmethod
    def _joined(channel: Channel, keys: list[Key]) -> Channel:
        if len(keys) > MAX_KEYS:
            raise EditError(f"a channel holds at most {MAX_KEYS} keys, and this would give {len(keys)}; play fewer presses")
        return channel.copy_with(keys=tuple(sorted(keys, key=lambda key: key.frame)), before=HOLD, after=HOLD)


def _going_on(keys: list[Key], more: list[Key]) -> list[Key]:
    """Some keys and those that go on from the last of them, which is arrived at unchanged."""
    return [*keys[:-1], more[0].copy_with(into=keys[-1].into), *more[1:]] if keys else more


def cue_in(scene: Scene, cue_id: str) -> Cue:
    """The cue with this id.

    Raises:
        NoSuchThing: if it is missing.
    """
    for cue in scene.cues:
        if cue.id == cue_id:
            return cue
    raise NoSuchThing(f"there is no cue '{cue_id}' in this scene; it may have been deleted")
