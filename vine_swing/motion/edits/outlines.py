"""Edits of outlines: their points and handles, where they begin, how they are drawn and combined."""

from abc import abstractmethod
from typing import Annotated, ClassVar, Literal, Self

import numpy as np
from pydantic import Field, model_validator

from vine_swing.motion.baking.bake import placed_at
from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.errors import EditError, MotionError
from vine_swing.motion.basics.specs import OUTLINE, within
from vine_swing.motion.basics.values import MAX_PATH_DATA, Colour, Frame, Id, Name, Number, PathData, Point
from vine_swing.motion.curves import joints
from vine_swing.motion.curves.combining import How, combined, of_line
from vine_swing.motion.curves.fitting import fitted
from vine_swing.motion.curves.matching import joint_count
from vine_swing.motion.curves.outline import Outline
from vine_swing.motion.curves.svg_path import parse_path, path_data
from vine_swing.motion.edits.base import Edit, object_in, with_channel, with_object
from vine_swing.motion.edits.objects import cues_without, free_name, outlined
from vine_swing.motion.outline.drawing import drawing_of
from vine_swing.motion.rules.rule import Rule
from vine_swing.motion.scene.model import MAX_OBJECTS, MAX_PALETTE, Hand, OutlineShape, Scene, ShapeObject
from vine_swing.motion.timing.channel import Channel, Key
from vine_swing.motion.timing.outlines import KeyedOutlines, outline_of

#: The number of a point, counted through all parts of an outline from 0.
PointNumber = Annotated[int, Field(strict=True, ge=0, le=100_000)]
Points = Annotated[tuple[PointNumber, ...], Field(min_length=1, max_length=20_000)]
#: The most objects that are combined at once.
_MOST_COMBINED = 200


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
    """The outline of an object before its rules: as its keys give it at a frame, or as it is without keys."""
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
    """A change of an outline: with a frame, of its key there, which is made if there is none; without, of the shape itself."""

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
            return with_object(scene, thing.but(shape=shape.but(d=changed, hand=None)))
        before = outline_at(thing, shape, self.frame)
        now = self._tried(before, thing.name)

        def change(channel: Channel) -> Channel:
            keys = channel.keys
            if self._of_all_keys:
                alike = [outline_of(key).verbs == before.verbs for key in keys]
                keys = tuple(
                    key.but(value=self._tried(outline_of(key), thing.name), meets=None) if one else key for key, one in zip(keys, alike, strict=True)
                )
            return keyed_with(channel.but(keys=keys), self.frame or 0.0, now)

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
    """A channel of outlines with a key at a frame; a new one divides the stretch it lies in and takes its ease."""
    there = channel.key_at(frame)
    earlier = [key for key in channel.keys if key.frame < frame]
    later = [key for key in channel.keys if key.frame > frame]
    if there is not None:
        key = there.but(value=value)
    else:
        key = Key(frame=frame, value=value, ease=earlier[-1].ease if earlier and later else "linear")
        # Which point met which was said of the whole stretch.
        earlier = [*earlier[:-1], earlier[-1].but(meets=None)] if earlier else []
    return channel.but(keys=(*earlier, key, *later))


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
    """Let an outline be gone the other way."""

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
    meets: tuple[PointNumber, PointNumber] | None

    def apply(self, scene: Scene) -> Scene:
        thing, _ = outlined_in(scene, self.object)

        def change(channel: Channel) -> Channel:
            place = next((n for n, key in enumerate(channel.keys) if key.frame == self.frame), None)
            if place is None or place + 1 >= len(channel.keys):
                raise EditError(f"the outline of '{thing.name}' has no stretch that leaves frame {self.frame:g}; choose a key with another behind it")
            for key, number in zip(channel.keys[place : place + 2], self.meets or (), strict=False):
                count = joint_count(outline_of(key))
                if number >= count:
                    raise EditError(f"the outline of '{thing.name}' at frame {key.frame:g} has {count} points; there is no point {number + 1}")
            return channel.but(keys=tuple(key.but(meets=self.meets) if n == place else key for n, key in enumerate(channel.keys)))

        return with_channel(scene, self.object, OUTLINE, change)

    def label(self, scene: Scene) -> str:
        return f"which points of {object_in(scene, self.object).name} meet"


class DrawOutline(Edit):
    """Draw a new object: an outline from path data, or fitted through the places a hand went; both in the picture. It is put about its own middle."""

    edit: Literal["draw-outline"]
    id: Id
    name: Name
    d: PathData | None = None
    hand: Hand | None = None
    channels: dict[str, Channel] = Field(default_factory=dict)

    @model_validator(mode="after")
    def _one_of_both(self) -> Self:
        if (self.d is None) == (self.hand is None):
            raise ValueError("an outline is drawn from path data or from the places of a hand; give one of them")
        return self

    def apply(self, scene: Scene) -> Scene:
        if len(scene.objects) >= MAX_OBJECTS:
            raise EditError(f"a scene holds at most {MAX_OBJECTS} objects; delete some first")
        if self.id in scene.by_id:
            raise EditError(f"there already is an object with the id '{self.id}'; give the new one its own")
        drawn = parse_path(self.d) if self.d is not None else _fit(self.hand)
        if not len(drawn.points):
            raise EditError("nothing was drawn: all places lie on one point; move the pointer while its button is held down")
        left, top, right, bottom = drawn.extent()
        # Whole pixels, so that the place reads well.
        x, y = round((left + right) / 2), round((top + bottom) / 2)
        hand = None if self.hand is None else self.hand.but(places=tuple((px - x, py - y) for px, py in self.hand.places))
        data = written(Outline(drawn.verbs, drawn.points - [x, y]), self.name)
        shape = OutlineShape(type="outline", d=data, hand=hand)
        place = {"x": Channel(base=float(x)), "y": Channel(base=float(y))}
        added = ShapeObject(id=self.id, name=free_name(scene, self.name), kind="shape", shape=shape, channels=place | self.channels)
        return scene.with_added(added, len(scene.objects))

    def label(self, scene: Scene) -> str:
        return f"draw {self.name}"


class RefitOutline(Edit):
    """Fit an outline that was drawn freely once more, with another tolerance; only as long as its points were not changed by hand."""

    edit: Literal["refit-outline"]
    object: Id
    tolerance: Annotated[float, Field(strict=True, ge=0.01, le=200)]

    def apply(self, scene: Scene) -> Scene:
        thing, shape = outlined_in(scene, self.object)
        if shape.hand is None:
            raise EditError(f"'{thing.name}' was not drawn freely, or its points were changed since; draw it anew to fit it")
        hand = shape.hand.but(tolerance=self.tolerance)
        return with_object(scene, thing.but(shape=shape.but(d=written(_fit(hand), thing.name), hand=hand)))

    def label(self, scene: Scene) -> str:
        return f"fit {object_in(scene, self.object).name} within {self.tolerance:g} px"


class CombineOutlines(Edit):
    """Make one outline of several objects as they are at a frame: unite them, cut the others out of the first, keep what all share, or leave out
    what two share. The first keeps its name, colours and place; the others are let go."""

    edit: Literal["combine-outlines"]
    objects: Annotated[tuple[Id, ...], Field(min_length=2, max_length=_MOST_COMBINED)]
    how: How
    frame: Frame = 0.0

    def apply(self, scene: Scene) -> Scene:
        if len(set(self.objects)) < len(self.objects):
            raise EditError("an object is named twice; name each once")
        first, *others = (_drawn_in(scene, one) for one in self.objects)
        home = matrix.home(placed_at(scene, first.id, self.frame).world)
        shapes = []
        for thing in (first, *others):
            outline = drawn_at(scene, thing, self.frame)
            there = matrix.multiply(home, placed_at(scene, thing.id, self.frame).world)
            shapes.append(Outline(outline.verbs, matrix.apply(there, *outline.points.T)) if len(outline.points) else outline)
        made = combined(shapes, self.how)
        if not len(made.points):
            raise EditError(f"nothing would be left of '{first.name}'; {_INSTEAD[self.how]}")
        gone = {one.id for one in others}
        changed = outlined(first, written(made, first.name))
        kept = with_object(scene, changed.but(channels={name: one for name, one in changed.channels.items() if name != OUTLINE}))
        # What hangs on those that go, hangs on the first from now on.
        moved = tuple(thing.but(parent=first.id, bone=None) if thing.parent in gone else thing for thing in kept.objects if thing.id not in gone)
        return kept.but(objects=moved, cues=cues_without(scene.cues, gone))

    def label(self, scene: Scene) -> str:
        return (
            f"{_SAID[self.how]} {' and '.join(object_in(scene, one).name for one in self.objects[:2])}{' and more' if len(self.objects) > 2 else ''}"
        )


_SAID: dict[How, str] = {"unite": "unite", "cut-out": "cut out of one another", "overlap": "overlap of", "exclude": "exclude"}
_INSTEAD: dict[How, str] = {
    "unite": "choose something that is drawn",
    "cut-out": "what is cut out of it covers all of it",
    "overlap": "they do not overlap at this frame",
    "exclude": "they cover one another",
}


class OutlineLine(Edit):
    """Make the line of an object an outline of its own, as it is at a frame: what was its line becomes its inside."""

    edit: Literal["outline-line"]
    object: Id
    frame: Frame = 0.0

    def apply(self, scene: Scene) -> Scene:
        thing = _drawn_in(scene, self.object)
        values = placed_at(scene, thing.id, self.frame).channels
        width = float(values["stroke.width"][0])
        if width <= 0:
            raise EditError(f"'{thing.name}' has no line at frame {self.frame:g}; give its stroke a width first")
        made = outlined(thing, written(of_line(drawn_at(scene, thing, self.frame), width), thing.name))
        channels = {name: one for name, one in made.channels.items() if name not in (OUTLINE, "fill", "stroke.width")}
        if "stroke" in made.channels:
            channels["fill"] = made.channels["stroke"]
        else:
            channels["fill"] = Channel(base=thing.specs["stroke"].default)
        rules = tuple(_moved_rule(rule) for rule in made.rules if rule.channels == "keyed" or set(rule.channels) - {"fill", "stroke.width"})
        return with_object(scene, made.but(channels=channels, rules=rules))

    def label(self, scene: Scene) -> str:
        return f"outline of the line of {object_in(scene, self.object).name}"


class SetPalette(Edit):
    """Keep some colours with the scene."""

    edit: Literal["set-palette"]
    colours: Annotated[tuple[Colour, ...], Field(max_length=MAX_PALETTE)]

    def apply(self, scene: Scene) -> Scene:
        return scene.but(palette=tuple(dict.fromkeys(self.colours)))

    def label(self, scene: Scene) -> str:
        return "palette"


def drawn_at(scene: Scene, thing: ShapeObject, frame: float) -> Outline:
    """The outline of a drawn object at a frame, before its rules on outlines."""
    if isinstance(thing.shape, OutlineShape):
        return outline_at(thing, thing.shape, frame)
    drawing, values = drawing_of(thing.shape), placed_at(scene, thing.id, frame).channels
    return drawing.draw({name: within(thing.specs[name], float(values[name][0])) for name in drawing.names})


def _drawn_in(scene: Scene, object_id: str) -> ShapeObject:
    thing = object_in(scene, object_id)
    if not isinstance(thing, ShapeObject):
        raise EditError(f"'{thing.name}' is a {thing.kind} and has no outline of its own; choose its parts")
    return thing


def _moved_rule(rule: Rule) -> Rule:
    """A rule on the stroke's colour acts on the fill from now on."""
    if rule.channels == "keyed" or "stroke" not in rule.channels:
        return rule
    names = [name for name in ("fill" if one == "stroke" else one for one in rule.channels) if name != "stroke.width"]
    return rule.but(channels=tuple(dict.fromkeys(names)))


def _fit(hand: Hand | None) -> Outline:
    assert hand is not None, "what is not path data comes from a hand"
    return fitted(np.array(hand.places, float), hand.tolerance, closed=hand.closed)


def _points(count: int) -> str:
    return "a point" if count == 1 else f"{count} points"
