"""The scene model, which is also the scene file format (design section 9).

Every part is frozen: an edit makes a new scene that shares all unchanged parts with the old one, so "what changed" is
answered by identity.
"""

from collections.abc import Collection, Iterable, Iterator
from functools import cached_property
from typing import Annotated, Literal, Self, TypeVar

from pydantic import Field, model_validator

from vine_swing.motion.basics.values import Colour
from vine_swing.motion.scene.dial import DIAL, Dial
from vine_swing.motion.scene.hanging import parts_of
from vine_swing.motion.scene.kept import MAX_FONTS, MAX_PICTURES, KeptPicture, OwnFont
from vine_swing.motion.scene.objects import CameraObject, SceneObject
from vine_swing.motion.scene.shapes import TextShape
from vine_swing.motion.scene.sounds import MAX_SOUNDS, KeptSound
from vine_swing.motion.scene.timeline import MAX_INSETS, InnerScene, Timeline, check_insets, insets_shown

#: Colours of the palette of a scene.
MAX_PALETTE = 64


class Scene(Timeline):
    """One timeline, with all that is kept for it: fonts, pictures, sounds, colours, and the scenes inside it."""

    format: Literal["vine-swing-scene"] = "vine-swing-scene"
    version: Literal[1] = 1
    fonts: Annotated[tuple[OwnFont, ...], Field(max_length=MAX_FONTS)] = ()
    pictures: Annotated[tuple[KeptPicture, ...], Field(max_length=MAX_PICTURES)] = ()
    sounds: Annotated[tuple[KeptSound, ...], Field(max_length=MAX_SOUNDS)] = ()
    palette: Annotated[tuple[Colour, ...], Field(max_length=MAX_PALETTE)] = ()
    insets: Annotated[tuple[InnerScene, ...], Field(max_length=MAX_INSETS)] = ()

    @model_validator(mode="after")
    def _kept_once(self) -> Self:
        if len({font.id for font in self.fonts}) < len(self.fonts):
            raise ValueError("a font file is kept twice; keep it once")
        if len(self.pictures_by_id) < len(self.pictures):
            raise ValueError("a picture is kept twice; keep it once")
        if len(self.sounds_by_id) < len(self.sounds):
            raise ValueError("two sounds share an id; give each its own")
        check_insets(self, self.insets)
        for part in self.timelines:
            for thing in part.objects:
                gone = [one for one in thing.pictured.pictures if one not in self.pictures_by_id] if thing.pictured is not None else []
                if gone:
                    raise ValueError(f"'{thing.name}' shows the picture '{gone[0]}', which is not kept with this scene")
        return self

    @property
    def timelines(self) -> tuple[Timeline, ...]:
        """The scene itself, and all that are kept inside it."""
        return (self, *self.insets)

    def reached(self, inset_ids: Iterable[str]) -> tuple[InnerScene, ...]:
        """Some inner scenes and all that they show, however deep, each once."""
        found: dict[str, InnerScene] = {}
        waiting = list(inset_ids)
        while waiting:
            one = waiting.pop()
            if one not in found:
                found[one] = self.insets_by_id[one]
                waiting += insets_shown(found[one])
        return tuple(found.values())

    @cached_property
    def camera(self) -> CameraObject | None:
        """Its camera, if it has one."""
        return next((thing for thing in self.objects if isinstance(thing, CameraObject)), None)

    @cached_property
    def by_name(self) -> dict[str, SceneObject]:
        """The objects by name, in drawing order."""
        return {thing.name: thing for thing in self.objects}

    @cached_property
    def dials_by_id(self) -> dict[str, Dial]:
        """The dials by `dial:` and their id."""
        return {f"{DIAL}{dial.id}": dial for dial in self.dials}

    @cached_property
    def dials_by_name(self) -> dict[str, Dial]:
        """The dials by name."""
        return {dial.name: dial for dial in self.dials}

    @cached_property
    def pictures_by_id(self) -> dict[str, KeptPicture]:
        """The pictures by id."""
        return {one.id: one for one in self.pictures}

    @cached_property
    def sounds_by_id(self) -> dict[str, KeptSound]:
        """The sounds by id."""
        return {one.id: one for one in self.sounds}

    @cached_property
    def insets_by_id(self) -> dict[str, InnerScene]:
        """The inner scenes by id."""
        return {one.id: one for one in self.insets}

    def inner_as_scene(self, inset_id: str) -> "Scene":
        """An inner scene as a scene of its own, with the fonts, pictures, colours and inner scenes of this one."""
        inner = self.insets_by_id[inset_id]
        # Sounds belong to the time of the whole scene: inside, none is heard.
        return self.copy_with(sounds=(), **{name: getattr(inner, name) for name in Timeline.model_fields})

    def with_inner(self, inset_id: str, changed: "Scene") -> "Scene":
        """This scene with an inner one, as `inner_as_scene` gives it, replaced by its changed version."""
        inner = InnerScene.model_construct(id=inset_id, **{name: getattr(changed, name) for name in Timeline.model_fields})
        before = self.insets_by_id[inset_id]
        same = all(getattr(inner, name) is getattr(before, name) for name in Timeline.model_fields)
        insets = tuple((before if same else inner) if one.id == inset_id else one for one in changed.insets)
        # Files removed inside may be used outside.
        fonts, pictures = (_with_used(getattr(changed, name), getattr(self, name), self._used()) for name in ("fonts", "pictures"))
        return self.copy_with(
            fonts=fonts, pictures=pictures, palette=changed.palette, insets=_with_used(insets, self.insets, {inset_id, *self._used()})
        )

    def with_contents_of(self, other: "Scene") -> "Scene":
        """This scene with the inner scenes, pictures and fonts that it uses and only another one keeps."""
        shown = [one for part in self.timelines for one in insets_shown(part)]
        missing = [one for one in shown if one not in self.insets_by_id and one in other.insets_by_id]
        scene = self.copy_with(insets=_with_used(self.insets, other.insets, {one.id for one in other.reached(missing)})) if missing else self
        used = _files_used(scene.timelines)
        return scene.copy_with(fonts=_with_used(scene.fonts, other.fonts, used), pictures=_with_used(scene.pictures, other.pictures, used))

    def _used(self) -> set[str]:
        """The ids of the fonts, pictures and inner scenes that objects of this scene use themselves, and of what the inner scenes among them show."""
        shown = self.reached(insets_shown(self))
        return {one.id for one in shown} | _files_used((self, *shown))

    @cached_property
    def by_id(self) -> dict[str, SceneObject]:
        """The objects by id, in drawing order."""
        return {thing.id: thing for thing in self.objects}

    @cached_property
    def children(self) -> dict[str, list[str]]:
        """The ids of what hangs directly on each object, in drawing order; only of objects on which something hangs."""
        return parts_of(self.objects)

    def upwards(self, object_id: str | None) -> Iterator[SceneObject]:
        """An object, its parent, that's parent, and so on; nothing for None."""
        while object_id is not None:
            thing = self.by_id[object_id]
            yield thing
            object_id = thing.parent

    @cached_property
    def places(self) -> dict[str, int]:
        """Where each object is in the drawing order."""
        return {thing.id: place for place, thing in enumerate(self.objects)}

    def with_object(self, changed: SceneObject) -> Self:
        """The scene with the object of this id replaced. Its tables by id go along, so that many edits at once cost in line with their number."""
        place = self.places[changed.id]
        scene = self.copy_with(objects=(*self.objects[:place], changed, *self.objects[place + 1 :]))
        scene.__dict__["places"] = self.places
        scene.__dict__["by_id"] = {**self.by_id, changed.id: changed}
        if self.objects[place].name == changed.name:
            scene.__dict__["names"] = self.names
        return scene

    def with_objects(self, changed: Iterable[SceneObject]) -> Self:
        """The scene with objects replaced by those of the same ids, whose names stay."""
        by_id = {thing.id: thing for thing in changed}
        if not by_id:
            return self
        scene = self.copy_with(objects=tuple(by_id.get(thing.id, thing) for thing in self.objects))
        scene.__dict__["places"], scene.__dict__["names"] = self.places, self.names
        return scene

    def with_added(self, added: SceneObject, place: int) -> Self:
        """The scene with one more object at a place of the drawing order."""
        scene = self.copy_with(objects=(*self.objects[:place], added, *self.objects[place:]))
        if place >= len(self.objects):
            scene.__dict__["by_id"] = {**self.by_id, added.id: added}
            scene.__dict__["places"] = {**self.places, added.id: len(self.objects)}
        scene.__dict__["names"] = self.names | {added.name}
        return scene

    @cached_property
    def names(self) -> frozenset[str]:
        """The names of all objects."""
        return frozenset(thing.name for thing in self.objects)


def _files_used(parts: Iterable[Timeline]) -> set[str]:
    """The ids of the fonts and pictures that objects show."""
    used: set[str] = set()
    for part in parts:
        for thing in part.objects:
            used |= set(thing.pictured.pictures) if thing.pictured is not None else set()
            used |= {thing.drawn_shape.font} if isinstance(thing.drawn_shape, TextShape) else set()
    return used


_Kept = TypeVar("_Kept", OwnFont, KeptPicture, InnerScene)


def _with_used(now: tuple[_Kept, ...], before: tuple[_Kept, ...], used: Collection[str]) -> tuple[_Kept, ...]:
    """Return the current files, and earlier ones that are still used."""
    there = {one.id for one in now}
    return now + tuple(one for one in before if one.id not in there and one.id in used)
