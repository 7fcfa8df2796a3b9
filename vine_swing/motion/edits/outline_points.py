"""Edits of the points of outlines: where they lie, their handles, where an outline begins, and what meets in the next key."""

from abc import abstractmethod
from typing import Annotated, ClassVar, Literal

import numpy as np
from pydantic import Field

from vine_swing.motion.basics.errors import EditError, MotionError
from vine_swing.motion.basics.specs import OUTLINE
from vine_swing.motion.basics.values import MAX_PATH_DATA, Frame, Id, Number, PathData, Point, PointNumber
from vine_swing.motion.curves import joints
from vine_swing.motion.curves.outline import Outline
from vine_swing.motion.curves.svg_path import parse_path, path_data
from vine_swing.motion.edits.base import Edit, object_in, with_channel, with_object
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import ShapeObject
from vine_swing.motion.scene.shapes import OutlineShape
from vine_swing.motion.timing.channel import Channel, Key, Meeting
from vine_swing.motion.timing.outlines import KeyedOutlines, outline_of

Points = Annotated[tuple[PointNumber, ...], Field(min_length=1, max_length=20_000)]


def outlined_in(scene: Scene, object_id: str) -> tuple[ShapeObject, OutlineShape]:
    """The object with this id, which has an outline of its own.

    Raises:
        EditError: if it is drawn in another way.
    """
    thing = object_in(scene, object_id)
    if not isinstance(thing, ShapeObject) or not isinstance(thing.shape, OutlineShape):
        raise EditError(f"'{thing.name}' has no points of its own; make an outline of it first")
    return thing, thing.shape


def outline_at(thing: ShapeObject, shape: OutlineShape, frame: float | None) -> Outline:
    """Return the outline of an object before its rules: keyed, at a frame, or without keys."""
    channel = thing.channels.get(OUTLINE)
    if channel is None or not channel.keys or frame is None:
        return parse_path(shape.d)
    own = channel.key_at(frame)
    return outline_of(own) if own is not None else KeyedOutlines(channel).at(np.array([frame])).at(0)


def written(outline: Outline, name: str) -> str:
    """An outline as path data to be kept.

    Raises:
        EditError: if it draws nothing, or is too long to be kept.
    """
    data = path_data(outline)
    if len(outline.verbs) < 2:
        raise EditError(f"nothing would be left of '{name}'; delete it instead, or choose less")
    if len(data) > MAX_PATH_DATA:
        raise EditError(f"'{name}' would take {len(data)} characters of path data; at most {MAX_PATH_DATA} are kept, so divide it first")
    return data


class _OutlineEdit(Edit):
    """A change of an outline: with a frame, of its key there, which is made if it is missing; without, of the shape itself."""

    object: Id
    frame: Frame | None = None
    #: Whether other keys whose outlines have the same points are changed alike, so that points go on meeting.
    _of_all_keys: ClassVar[bool] = False

    @abstractmethod
    def changed(self, outline: Outline) -> Outline:
        """The outline after the change.

        Raises:
            MotionError: if it does not fit.
        """

    def apply(self, scene: Scene) -> Scene:
        thing, shape = outlined_in(scene, self.object)
        if self.frame is None:
            if thing.is_keyed(OUTLINE):
                raise EditError(f"the outline of '{thing.name}' has keys, so its points come from them; say at which frame to change it")
            changed = self._tried(parse_path(shape.d), thing.name)
            return with_object(scene, thing.copy_with(shape=shape.copy_with(d=changed, hand=None)))
        before = outline_at(thing, shape, self.frame)
        now = self._tried(before, thing.name)

        def change(channel: Channel) -> Channel:
            keys = channel.keys
            if self._of_all_keys:
                alike = [outline_of(key).verbs == before.verbs for key in keys]
                keys = tuple(
                    key.copy_with(value=self._tried(outline_of(key), thing.name), meets=None) if one else key
                    for key, one in zip(keys, alike, strict=True)
                )
            return keyed_with(channel.copy_with(keys=keys), self.frame or 0.0, now)

        return with_channel(scene, self.object, OUTLINE, change)

    def _tried(self, outline: Outline, name: str) -> str:
        try:
            return written(self.changed(outline), name)
        except EditError:
            raise
        except MotionError as error:
            raise EditError(f"'{name}': {error}") from error

    def _name(self, scene: Scene) -> str:
        return object_in(scene, self.object).name


def keyed_with(channel: Channel, frame: float, value: str) -> Channel:
    """A channel of outlines with a key at a frame; a new one divides the stretch it is in and takes its ease."""
    there = channel.key_at(frame)
    earlier = [key for key in channel.keys if key.frame < frame]
    later = [key for key in channel.keys if key.frame > frame]
    if there is not None:
        key = there.copy_with(value=value)
    else:
        key = Key(frame=frame, value=value, ease=earlier[-1].ease if earlier and later else "linear")
        # Which point met which was said of the whole stretch.
        earlier = [*earlier[:-1], earlier[-1].copy_with(meets=None)] if earlier else []
    return channel.copy_with(keys=(*earlier, key, *later))


class SetOutline(_OutlineEdit):
    """Give an outline other path data."""

    edit: Literal["set-outline"]
    d: PathData

    def changed(self, outline: Outline) -> Outline:
        return parse_path(self.d)

    def label(self, scene: Scene) -> str:
        return f"outline of {self._name(scene)}"


class MovePoints(_OutlineEdit):
    """Move points of an outline, with their handles."""

    edit: Literal["move-points"]
    points: Points
    dx: Number
    dy: Number

    def changed(self, outline: Outline) -> Outline:
        return joints.moved(outline, self.points, self.dx, self.dy)

    def label(self, scene: Scene) -> str:
        return f"move {_points(len(self.points))} of {self._name(scene)}"


class SetPointHandle(_OutlineEdit):
    """Put a handle of a point elsewhere, or take it away with null. The other handle turns with it unless they are broken apart."""

    edit: Literal["set-point-handle"]
    point: PointNumber
    side: Literal["in", "out"]
    to: Point | None
    broken: bool = False

    def changed(self, outline: Outline) -> Outline:
        return joints.with_handle(outline, self.point, self.side, self.to, broken=self.broken)

    def label(self, scene: Scene) -> str:
        return f"handle of {self._name(scene)}"


class AddPoint(_OutlineEdit):
    """Put one more point on the line or curve that leaves a point, at a share of it; the outline keeps its look, in all keys with the same points."""

    edit: Literal["add-point"]
    after: PointNumber
    share: Annotated[float, Field(strict=True, gt=0, lt=1)] = 0.5
    _of_all_keys = True

    def changed(self, outline: Outline) -> Outline:
        return joints.with_joint(outline, self.after, self.share)

    def label(self, scene: Scene) -> str:
        return f"one more point of {self._name(scene)}"


class RemovePoints(_OutlineEdit):
    """Take points out, in all keys with the same points; lines and curves go on from the one before to the one after."""

    edit: Literal["remove-points"]
    points: Points
    _of_all_keys = True

    def changed(self, outline: Outline) -> Outline:
        return joints.without(outline, self.points)

    def label(self, scene: Scene) -> str:
        return f"take {_points(len(self.points))} out of {self._name(scene)}"


class SetPoints(_OutlineEdit):
    """Make points smooth, with handles in one line, or corners, without handles."""

    edit: Literal["set-points"]
    points: Points
    kind: Literal["smooth", "corner"]

    def changed(self, outline: Outline) -> Outline:
        return (joints.smoothed if self.kind == "smooth" else joints.cornered)(outline, self.points)

    def label(self, scene: Scene) -> str:
        return f"{self.kind} {_points(len(self.points))} of {self._name(scene)}"


class CutOutline(_OutlineEdit):
    """Cut an outline at a point: a closed one opens there, an open one becomes two."""

    edit: Literal["cut-outline"]
    point: PointNumber
    _of_all_keys = True

    def changed(self, outline: Outline) -> Outline:
        return joints.cut_open(outline, self.point)

    def label(self, scene: Scene) -> str:
        return f"cut {self._name(scene)} open"


class JoinEnds(_OutlineEdit):
    """Join two ends of open outlines: with a straight line, or into one point where they meet."""

    edit: Literal["join-ends"]
    one: PointNumber
    other: PointNumber
    _of_all_keys = True

    def changed(self, outline: Outline) -> Outline:
        return joints.ends_joined(outline, self.one, self.other)

    def label(self, scene: Scene) -> str:
        return f"join ends of {self._name(scene)}"


class ReverseOutline(_OutlineEdit):
    """Let an outline be removed the other way."""

    edit: Literal["reverse-outline"]
    _of_all_keys = True

    def changed(self, outline: Outline) -> Outline:
        return joints.way_reversed(outline)

    def label(self, scene: Scene) -> str:
        return f"reverse {self._name(scene)}"


class FirstPoint(_OutlineEdit):
    """Let an outline begin at another of its points."""

    edit: Literal["first-point"]
    point: PointNumber

    def changed(self, outline: Outline) -> Outline:
        return joints.begun_at(outline, self.point)

    def label(self, scene: Scene) -> str:
        return f"first point of {self._name(scene)}"


class MeetPoints(Edit):
    """Say which point of a key's outline goes to which of the next key's; null leaves it to the least way."""

    edit: Literal["meet-points"]
    object: Id
    frame: Frame
    meets: Meeting | None

    def apply(self, scene: Scene) -> Scene:
        thing, _ = outlined_in(scene, self.object)

        def change(channel: Channel) -> Channel:
            place = next((n for n, key in enumerate(channel.keys) if key.frame == self.frame), None)
            if place is None or place + 1 >= len(channel.keys):
                raise EditError(f"the outline of '{thing.name}' has no stretch that leaves frame {self.frame:g}; choose a key with another behind it")
            for key, number in zip(channel.keys[place : place + 2], self.meets or (), strict=False):
                count = joints.joint_count(outline_of(key))
                if number >= count:
                    raise EditError(f"the outline of '{thing.name}' at frame {key.frame:g} has {count} points; there is no point {number + 1}")
            return channel.copy_with(keys=tuple(key.copy_with(meets=self.meets) if n == place else key for n, key in enumerate(channel.keys)))

        return with_channel(scene, self.object, OUTLINE, change)

    def label(self, scene: Scene) -> str:
        return f"which points of {object_in(scene, self.object).name} meet"


def _points(count: int) -> str:
    return "a point" if count == 1 else f"{count} points"
