"""Edits that draw outlines, and make one of several or of a line."""

from typing import Annotated, Literal, Self

import numpy as np
from pydantic import Field, model_validator

from vine_swing.motion.baking.bake import placed_at
from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.specs import OUTLINE, within
from vine_swing.motion.basics.values import Frame, Id, Name, PathData
from vine_swing.motion.curves.combining import How, combined, of_line
from vine_swing.motion.curves.fitting import fitted
from vine_swing.motion.curves.outline import Outline
from vine_swing.motion.curves.svg_path import parse_path
from vine_swing.motion.edits.base import Edit, check_new, object_in, shape_in, with_object
from vine_swing.motion.edits.objects import cues_without, free_name, outlined
from vine_swing.motion.edits.outline_points import outline_at, outlined_in, written
from vine_swing.motion.outline.drawing import drawing_of
from vine_swing.motion.rules.rule import Rule
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import ShapeObject
from vine_swing.motion.scene.shapes import Hand, OutlineShape
from vine_swing.motion.timing.channel import Channel

#: The most objects that are combined at once.
_MOST_COMBINED = 200


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
        check_new(scene, self.id)
        drawn = parse_path(self.d) if self.d is not None else _fit(self.hand)
        if not len(drawn.points):
            raise EditError("nothing was drawn: all points are at one position; move the pointer while you hold its button")
        left, top, right, bottom = drawn.extent()
        # Whole pixels, so that the place reads well.
        x, y = round((left + right) / 2), round((top + bottom) / 2)
        hand = None if self.hand is None else self.hand.copy_with(places=tuple((px - x, py - y) for px, py in self.hand.places))
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
            raise EditError(f"'{thing.name}' was not drawn freehand, or its points have changed since; draw it again to fit it")
        hand = shape.hand.copy_with(tolerance=self.tolerance)
        return with_object(scene, thing.copy_with(shape=shape.copy_with(d=written(_fit(hand), thing.name), hand=hand)))

    def label(self, scene: Scene) -> str:
        return f"fit {object_in(scene, self.object).name} within {self.tolerance:g} px"


class CombineOutlines(Edit):
    """Make one outline of several objects as they are at a frame: unite them, cut the others out of the first, keep what all share, or leave out
    what two share. The first keeps its name, colours and place; the others are released."""

    edit: Literal["combine-outlines"]
    objects: Annotated[tuple[Id, ...], Field(min_length=2, max_length=_MOST_COMBINED)]
    how: How
    frame: Frame = 0.0

    def apply(self, scene: Scene) -> Scene:
        if len(set(self.objects)) < len(self.objects):
            raise EditError("an object is named twice; name each once")
        first, *others = (shape_in(scene, one, "outline") for one in self.objects)
        home = matrix.safe_inverse(placed_at(scene, first.id, self.frame).world)
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
        kept = with_object(scene, changed.copy_with(channels={name: one for name, one in changed.channels.items() if name != OUTLINE}))
        # Children of those that go, is attached to the first from now on.
        moved = tuple(
            thing.copy_with(parent=first.id, bone=None) if thing.parent in gone else thing for thing in kept.objects if thing.id not in gone
        )
        return kept.copy_with(objects=moved, cues=cues_without(scene.cues, gone))

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


class MakeOutline(Edit):
    """Turn a drawn object into a plain outline that looks as it does at a frame, to be changed point by point."""

    edit: Literal["make-outline"]
    id: Id
    frame: Frame

    def apply(self, scene: Scene) -> Scene:
        thing = shape_in(scene, self.id, "outline")
        if isinstance(thing.shape, OutlineShape):
            return scene
        outline = drawn_at(scene, thing, self.frame)
        if not outline.verbs:
            raise EditError(f"'{thing.name}' shows nothing at frame {self.frame:g}; go to a frame at which it can be seen")
        return with_object(scene, outlined(thing, written(outline, thing.name)))

    def label(self, scene: Scene) -> str:
        return f"make an outline of {object_in(scene, self.id).name}"


class OutlineLine(Edit):
    """Convert an object's stroke at a frame to an outline, which is filled."""

    edit: Literal["outline-line"]
    object: Id
    frame: Frame = 0.0

    def apply(self, scene: Scene) -> Scene:
        thing = shape_in(scene, self.object, "outline")
        values = placed_at(scene, thing.id, self.frame).channels
        width = float(values["stroke.width"][0])
        if width <= 0:
            raise EditError(f"'{thing.name}' has no line at frame {self.frame:g}; give its stroke a width first")
        style, offset = thing.line, float(values["dash.offset"][0])
        line = of_line(drawn_at(scene, thing, self.frame), width, style.cap, style.join, style.dash, offset)
        made = outlined(thing, written(line, thing.name))
        channels = {name: one for name, one in made.channels.items() if name not in (OUTLINE, "fill", "stroke.width")}
        if "stroke" in made.channels:
            channels["fill"] = made.channels["stroke"]
        else:
            channels["fill"] = Channel(base=thing.specs["stroke"].default)
        rules = tuple(_moved_rule(rule) for rule in made.rules if rule.channels == "keyed" or set(rule.channels) - {"fill", "stroke.width"})
        return with_object(scene, made.copy_with(channels=channels, rules=rules))

    def label(self, scene: Scene) -> str:
        return f"outline of the line of {object_in(scene, self.object).name}"


def drawn_at(scene: Scene, thing: ShapeObject, frame: float) -> Outline:
    """The outline of a drawn object at a frame, before its rules on outlines."""
    if isinstance(thing.shape, OutlineShape):
        return outline_at(thing, thing.shape, frame)
    drawing, values = drawing_of(thing.drawn_shape), placed_at(scene, thing.id, frame).channels
    return drawing.draw({name: within(thing.specs[name], float(values[name][0])) for name in drawing.names})


def _moved_rule(rule: Rule) -> Rule:
    """A rule on the stroke's colour acts on the fill from now on."""
    if rule.channels == "keyed" or "stroke" not in rule.channels:
        return rule
    names = [name for name in ("fill" if one == "stroke" else one for one in rule.channels) if name != "stroke.width"]
    return rule.copy_with(channels=tuple(dict.fromkeys(names)))


def _fit(hand: Hand | None) -> Outline:
    assert hand is not None, "what is not path data comes from a hand"
    return fitted(np.array(hand.places, float), hand.tolerance, closed=hand.closed)
