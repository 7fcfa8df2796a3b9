"""Edits of parades: making one of what there is, laying it out, giving its copies values."""

from typing import Annotated, Literal

from pydantic import Field

from vine_swing.motion.baking.bake import placed_at
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.values import Frame, Id, Name, Number
from vine_swing.motion.edits.base import Edit, check_new, object_in, with_object
from vine_swing.motion.edits.objects import cues_without, free_name, kept_object
from vine_swing.motion.parade.channels import NAMES
from vine_swing.motion.parade.model import Parade
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import ParadeObject, SceneObject
from vine_swing.motion.timing.channel import Channel


class MakeParade(Edit):
    """Hang some objects on a new parade. It stands where the first of them is at `frame`, and each looks the same as before where nothing copies it.

    parts: the ids of the objects, which are attached to the same object. values: channels of the parade, by name.
    """

    edit: Literal["make-parade"]
    id: Id
    name: Name
    parts: Annotated[tuple[Id, ...], Field(min_length=1, max_length=500)]
    frame: Frame
    parade: Parade = Parade()
    values: Annotated[dict[str, Number], Field(max_length=60, default_factory=dict)]

    def apply(self, scene: Scene) -> Scene:
        parts = [object_in(scene, one) for one in dict.fromkeys(self.parts)]
        check_new(scene, self.id)
        unknown = [name for name in self.values if name not in NAMES]
        if unknown:
            raise EditError(f"a parade has no channel '{unknown[0]}'; it has {', '.join(NAMES)}")
        hangs_on = {(one.parent, one.bone) for one in parts}
        if len(hangs_on) > 1:
            raise EditError(f"{_listed(parts)} have different parents; attach them to the same parent first, or group them")
        ((parent, bone),) = hangs_on
        # Of the first, its own place in its parent.
        first = placed_at(scene, parts[0].id, self.frame)
        place = {name: Channel(base=float(first.channels[name][0])) for name in ("x", "y")}
        channels = place | {name: Channel(base=float(value)) for name, value in self.values.items()}
        made = ParadeObject(
            id=self.id, name=free_name(scene, self.name), kind="parade", parent=parent, bone=bone, parade=self.parade, channels=channels
        )
        # In front of its children, so that it is painted where the foremost of it was.
        last = max(scene.places[one.id] for one in parts)
        hung = scene.with_added(made, last + 1)
        for one in parts:
            hung = with_object(hung, one.copy_with(parent=self.id, bone=None))
        kept = [kept_object(scene, hung, one.id, self.frame) for one in parts]
        for one in kept:
            hung = with_object(hung, one)
        return hung

    def label(self, scene: Scene) -> str:
        return f"make a parade of {_listed([object_in(scene, one) for one in self.parts])}"


class SetParade(Edit):
    """Lay a parade out again, with its lists and the values that single copies have."""

    edit: Literal["set-parade"]
    id: Id
    parade: Parade

    def apply(self, scene: Scene) -> Scene:
        thing = parade_in(scene, self.id)
        guide = self.parade.guide
        if guide is not None:
            object_in(scene, guide)
            if any(one.id == self.id for one in scene.upwards(guide)):
                raise EditError(f"'{scene.by_id[guide].name}' is attached to '{thing.name}' itself; choose another object to follow")
        return with_object(scene, thing.copy_with(parade=self.parade))

    def label(self, scene: Scene) -> str:
        return f"parade {object_in(scene, self.id).name}"


class OpenParade(Edit):
    """Take a parade away and leave its children, once, where it is at a frame."""

    edit: Literal["open-parade"]
    id: Id
    frame: Frame

    def apply(self, scene: Scene) -> Scene:
        thing = parade_in(scene, self.id)
        freed = scene
        parts = [one for one in scene.objects if one.parent == self.id]
        for one in parts:
            freed = with_object(freed, one.copy_with(parent=thing.parent, bone=thing.bone))
        for one in parts:
            freed = with_object(freed, kept_object(scene, freed, one.id, self.frame))
        objects = tuple(one for one in freed.objects if one.id != self.id)
        return freed.copy_with(objects=objects, cues=cues_without(scene.cues, {self.id}))

    def label(self, scene: Scene) -> str:
        return f"one of {object_in(scene, self.id).name} alone"


def parade_in(scene: Scene, object_id: str) -> ParadeObject:
    """The parade with this id.

    Raises:
        NoSuchThing: if the object does not exist.
        EditError: if it is no parade.
    """
    thing = object_in(scene, object_id)
    if not isinstance(thing, ParadeObject):
        raise EditError(f"'{thing.name}' is not a parade; convert it to a parade first")
    return thing


def _listed(things: list[SceneObject]) -> str:
    names = [thing.name for thing in things]
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}" if len(names) < 4 else f"{len(names)} objects"
