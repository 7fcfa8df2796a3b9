"""Edits of the troupe: which objects there are, in what order and under which parent."""

from collections.abc import Collection, Iterable
from typing import Annotated, Any, Literal

import numpy as np
from pydantic import Field, ValidationError

from vine_swing.motion.baking.bake import placed_at
from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.values import Frame, Id, Name, Number
from vine_swing.motion.edits.base import Edit, check_new, object_in, shape_in, with_object
from vine_swing.motion.edits.renaming import with_formulas
from vine_swing.motion.formula import renamed
from vine_swing.motion.scene.cues import MAX_OBJECTS, Cue
from vine_swing.motion.scene.hanging import with_parts
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject, ShapeObject
from vine_swing.motion.scene.relations import check_parents
from vine_swing.motion.scene.shapes import OutlineShape, Shape
from vine_swing.motion.timing.channel import Channel

Index = Annotated[int, Field(strict=True, ge=0, le=MAX_OBJECTS)]


class AddObject(Edit):
    """Put an object into the troupe, in front of all others unless an index is given."""

    edit: Literal["add-object"]
    object: SceneObject
    index: Index | None = None

    def apply(self, scene: Scene) -> Scene:
        check_new(scene, self.object.id)
        if self.object.parent is not None:
            object_in(scene, self.object.parent)
        added = self.object.copy_with(name=free_name(scene, self.object.name))
        return scene.with_added(added, len(scene.objects) if self.index is None else self.index)

    def label(self, scene: Scene) -> str:
        return f"add {self.object.name}"


class _ObjectEdit(Edit):
    id: Id

    def _name(self, scene: Scene) -> str:
        return object_in(scene, self.id).name


class RenameObject(_ObjectEdit):
    """Give an object another name, its own within the scene."""

    edit: Literal["rename-object"]
    name: Name

    def apply(self, scene: Scene) -> Scene:
        thing = object_in(scene, self.id)
        name = self.name.strip()
        if name == thing.name:
            return scene
        if name in scene.names:
            raise EditError(f"there already is a '{name}'; try '{free_name(scene, name)}'")
        changed = with_object(scene, thing.copy_with(name=name))
        return with_formulas(changed, lambda text: renamed(text, scene.names, objects={thing.name: name}))

    def label(self, scene: Scene) -> str:
        return f"rename {self._name(scene)} to {self.name}"


class ReorderObject(_ObjectEdit):
    """Move an object within the drawing order; index 0 is at the back."""

    edit: Literal["reorder-object"]
    index: Index

    def apply(self, scene: Scene) -> Scene:
        thing = object_in(scene, self.id)
        others = [other for other in scene.objects if other is not thing]
        others.insert(self.index, thing)
        return scene.copy_with(objects=tuple(others))

    def label(self, scene: Scene) -> str:
        return f"reorder {self._name(scene)}"


class ShowObject(_ObjectEdit):
    """Show or hide an object in picture and export."""

    edit: Literal["show-object"]
    shown: bool

    def apply(self, scene: Scene) -> Scene:
        return with_object(scene, object_in(scene, self.id).copy_with(shown=self.shown))

    def label(self, scene: Scene) -> str:
        return f"{'show' if self.shown else 'hide'} {self._name(scene)}"


class DeleteObject(_ObjectEdit):
    """Take an object out of the troupe, with all descendants of it."""

    edit: Literal["delete-object"]

    def apply(self, scene: Scene) -> Scene:
        object_in(scene, self.id)
        gone = set(with_parts((self.id,), scene.children))
        return scene.copy_with(objects=tuple(thing for thing in scene.objects if thing.id not in gone), cues=cues_without(scene.cues, gone))

    def label(self, scene: Scene) -> str:
        return f"delete {self._name(scene)}"


class SetShape(_ObjectEdit):
    """Give a drawn object another shape. Channels the new shape does not have are released, with the rules that act on nothing else."""

    edit: Literal["set-shape"]
    shape: Shape

    def apply(self, scene: Scene) -> Scene:
        return with_object(scene, fitted(shape_in(scene, self.id, "shape").copy_with(shape=self.shape)))

    def label(self, scene: Scene) -> str:
        return f"shape of {self._name(scene)}"


class ReparentObject(_ObjectEdit):
    """Hang an object on another, or on nothing. With `keep_at`, it looks the same as before at that frame."""

    edit: Literal["reparent-object"]
    parent: Id | None
    keep_at: Frame | None = None

    def apply(self, scene: Scene) -> Scene:
        thing = object_in(scene, self.id)
        if self.parent is not None:
            object_in(scene, self.parent)
        moved = with_object(scene, thing.copy_with(parent=self.parent, bone=None))
        try:
            check_parents(moved.objects)
        except ValueError as error:
            raise EditError(str(error)) from error
        return moved if self.keep_at is None else kept_at(scene, moved, self.id, self.keep_at)

    def label(self, scene: Scene) -> str:
        name = self._name(scene)
        return f"free {name}" if self.parent is None else f"hang {name} on {object_in(scene, self.parent).name}"


class MovePivot(_ObjectEdit):
    """Put the pivot elsewhere without moving the picture at a frame: x and y move along with it."""

    edit: Literal["move-pivot"]
    frame: Frame
    x: Number
    y: Number

    def apply(self, scene: Scene) -> Scene:
        thing = object_in(scene, self.id)
        one = placed_at(scene, self.id, self.frame)
        at = {name: float(one.channels[name][0]) for name in ("x", "y", "pivot.x", "pivot.y")}
        place = matrix.apply(one.local, np.array([self.x]), np.array([self.y]))[0]
        by = {"x": place[0] - at["x"], "y": place[1] - at["y"], "pivot.x": self.x - at["pivot.x"], "pivot.y": self.y - at["pivot.y"]}
        return with_object(scene, shifted(thing, {name: float(amount) for name, amount in by.items()}))

    def label(self, scene: Scene) -> str:
        return f"pivot of {self._name(scene)}"


def cues_without(cues: Iterable[Cue], gone: Collection[str]) -> tuple[Cue, ...]:
    """Cues that no longer name objects that are missing."""
    return tuple(
        cue.copy_with(objects=tuple(one for one in cue.objects if one not in gone), click=None if cue.click in gone else cue.click)
        if any(one in gone for one in (*cue.objects, cue.click))
        else cue
        for cue in cues
    )


def outlined(thing: ShapeObject, data: str) -> SceneObject:
    """A drawn object with SVG path data as its shape, in the colours it has; what only its old shape had is released."""
    # Shapes differ in what colours they have where none was chosen.
    paint = {name: Channel(base=thing.specs[name].default) for name in ("fill", "stroke", "stroke.width") if name not in thing.channels}
    return fitted(thing.copy_with(shape=OutlineShape(type="outline", d=data), channels=thing.channels | paint))


def free_name(scene: Scene, wanted: str) -> str:
    """The wanted name, with the first number that makes it the scene's only one name."""
    return name_beside(scene.names, wanted)


def name_beside(taken: Collection[str], wanted: str) -> str:
    """The wanted name, with the first number that tells it from those taken."""
    name, n = wanted.strip(), 2
    while name in taken:
        name, n = f"{wanted.strip()[:74]} {n}", n + 1
    return name


def fitted(thing: SceneObject) -> SceneObject:
    """An object of which some channels are missing, without what it had on them: keys, and rules that act on nothing else."""
    rules = (
        rule if rule.channels == "keyed" else rule.copy_with(channels=tuple(name for name in rule.channels if name in thing.specs))
        for rule in thing.rules
    )
    return thing.copy_with(
        channels={name: one for name, one in thing.channels.items() if name in thing.specs}, rules=tuple(r for r in rules if r.channels)
    )


def kept_at(before: Scene, after: Scene, object_id: str, frame: float) -> Scene:
    """`after`, with the object's travel, rotation, skew and size shifted so that it lies at `frame` where it lay in `before`."""
    return with_object(after, kept_object(before, after, object_id, frame))


def kept_object(before: Scene, after: Scene, object_id: str, frame: float) -> SceneObject:
    """The object of `kept_at` alone."""
    with np.errstate(all="ignore"):
        # Errors of numeric limits are reported below.
        return _kept_object(before, after, object_id, frame)


def _kept_object(before: Scene, after: Scene, object_id: str, frame: float) -> SceneObject:
    old, new = placed_at(before, object_id, frame), placed_at(after, object_id, frame)
    thing = new.source
    above = placed_at(after, thing.parent, frame).carrier(thing.bone) if thing.parent is not None else matrix.IDENTITY
    wanted = matrix.multiply(matrix.inverse(above), old.world)
    if not np.isfinite(wanted).all():
        raise EditError(f"'{thing.name}' cannot keep its look here, because its new parent is flattened to nothing at frame {frame:g}")
    now = {name: float(array[0]) for name, array in matrix.geometry_of(new.channels).items()}
    pull = matrix.columns(
        *matrix.linear_part(*(np.array([v]) for v in (0.0, 0.0, 1.0, 1.0, now["stretch"], now["stretch.angle"]))), np.zeros(1), np.zeros(1)
    )
    a, b, c, d, _, _ = matrix.multiply(matrix.inverse(pull), wanted)[0]
    place = matrix.apply(wanted, np.array([now["pivot.x"]]), np.array([now["pivot.y"]]))[0]
    # R(rotation) · K(skew) · S: the first column is turned and scaled, the second is slanted against it.
    wide = float(np.hypot(a, b))
    if wide == 0:
        raise EditError(f"'{thing.name}' cannot keep its look here, because it is flattened to nothing at frame {frame:g}")
    high = float(a * d - b * c) / wide
    slant = float(a * c + b * d) / wide / high if high else 0.0
    turn = float(np.degrees(np.arctan2(b, a)))
    if not np.isfinite([wide, high, slant, turn, *place]).all():
        raise EditError(f"'{thing.name}' cannot keep its look here, because it lies out of reach at frame {frame:g}")
    turn += 360 * round((now["rotation"] - turn) / 360)
    target = {"x": place[0], "y": place[1], "rotation": turn, "skew": float(np.degrees(np.arctan(slant)))}
    moved = shifted(thing, {name: float(value) - now[name] for name, value in target.items()})
    factors = {"scale.x": wide / now["scale.x"] if now["scale.x"] else 1.0, "scale.y": high / now["scale.y"] if now["scale.y"] else 1.0}
    return _scaled(moved, factors)


def shifted(thing: SceneObject, by: dict[str, float]) -> SceneObject:
    """The object with the base and every key of some number channels moved by an amount."""
    moved = remade(thing, {name: (1.0, amount) for name, amount in by.items() if amount})
    path = moved.channels.get("path")
    if path is None or not path.keys:
        return moved
    dx, dy = by.get("x", 0.0), by.get("y", 0.0)
    keys = tuple(key.copy_with(value=(key.value[0] + dx, key.value[1] + dy)) for key in path.keys if isinstance(key.value, tuple))
    return moved.copy_with(channels=moved.channels | {"path": path.copy_with(keys=keys)})


def _scaled(thing: SceneObject, by: dict[str, float]) -> SceneObject:
    return remade(thing, {name: (factor, 0.0) for name, factor in by.items() if factor != 1})


def remade(thing: SceneObject, changes: dict[str, tuple[float, float]]) -> SceneObject:
    """The object with the base and every key of some number channels times a factor, plus an amount."""
    channels = dict(thing.channels)
    for name, (factor, amount) in changes.items():
        channel = channels.get(name, Channel())
        base: Any = channel.base if channel.base is not None else thing.specs[name].default
        keys = tuple(key.scaled(factor).copy_with(value=key.number * factor + amount) for key in channel.keys)
        channels[name] = channel.copy_with(base=float(base) * factor + amount, keys=keys)
    try:
        for name in changes:
            Channel.model_validate(channels[name].model_dump(by_alias=True))
    except ValidationError as error:
        raise EditError(f"that would put '{thing.name}' out of reach; numbers stay within a thousand million") from error
    return thing.copy_with(channels=channels)
