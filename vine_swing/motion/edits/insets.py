"""Edits of insets: making one of what there is, adding one, choosing what it shows."""

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field

from vine_swing.motion.baking.bake import placed_at
from vine_swing.motion.baking.keyed import followed
from vine_swing.motion.baking.outlines import benders
from vine_swing.motion.basics.errors import EditError, NoSuchThing
from vine_swing.motion.basics.specs import INNER, OUTLINE
from vine_swing.motion.basics.values import Fps, Frame, Id, Length, Name, Number
from vine_swing.motion.edits.base import PAINTED, Edit, check_new, object_in, with_object
from vine_swing.motion.edits.objects import cues_without, fitted, free_name, name_beside
from vine_swing.motion.rules.rule import Rule
from vine_swing.motion.scene.dial import DIAL, Dial
from vine_swing.motion.scene.graph import resolved
from vine_swing.motion.scene.hanging import with_parts
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import WHOLE, GroupObject, InsetObject, InsetUse, SceneObject
from vine_swing.motion.scene.timeline import InnerScene, insets_shown
from vine_swing.motion.timing.channel import Channel


class MakeInset(Edit):
    """Put some objects, with their descendants, into a scene of its own that an inset shows in their place: it looks and moves as before.

    A single group becomes the inset itself, and keeps its place, its keys and its rules; anything else moves as it did inside an inset that
    stands where the first of it is at `frame`.

    id: of the new object: the inset or, where a group becomes one, the group inside that holds its parts. scene: the id of the new inner scene.
    parts: the ids of the objects, which are attached to the same object.
    """

    edit: Literal["make-inset"]
    id: Id
    scene: Id
    name: Name
    parts: Annotated[tuple[Id, ...], Field(min_length=1, max_length=500)]
    frame: Frame = 0.0

    def apply(self, scene: Scene) -> Scene:
        check_new(scene, self.id)
        _check_new_inner(scene, self.scene)
        parts = [object_in(scene, one) for one in dict.fromkeys(self.parts)]
        if len({(one.parent, one.bone) for one in parts}) > 1:
            raise EditError("objects of one inset must have the same parent; attach them to the same parent first, or group them")
        group = parts[0] if len(parts) == 1 and isinstance(parts[0], GroupObject) else None
        inside = set(with_parts(tuple(one.id for one in parts), scene.children))
        if group is not None:
            inside.discard(group.id)
            if not inside:
                raise EditError(f"nothing is attached to '{group.name}' to put inside; attach an object first")
        _refuse_across(scene, inside)
        bending = [one for part in parts for one in benders(scene, part)]
        if bending:
            raise EditError(f"'{bending[0].name}' bends its attached objects, which an inset does not allow; remove that rule first")
        return self._with_group(scene, group, inside) if group is not None else self._with_parts(scene, parts, inside)

    def _with_group(self, scene: Scene, group: GroupObject, inside: set[str]) -> Scene:
        """A group becomes the inset; what bent its parts goes inside with them."""
        bends = tuple(rule.copy_with(channels=(OUTLINE,)) for rule in group.rules_for(OUTLINE))
        inner = self._inner(scene, inside, {group.id}, (0.0, 0.0), self.id, bends)
        first = group.span.within(scene.length)[0]
        channels = dict(group.channels) | ({INNER: Channel(base=float(first))} if first else {})
        fields = {name: getattr(group, name) for name in ("id", "name", "parent", "bone", *PAINTED, "rules")}
        inset = InsetObject.model_construct(**fields, kind="inset", inset=InsetUse(scene=self.scene), channels=channels)
        left = with_object(scene, fitted(inset))
        return _without(left, inside, inner)

    def _with_parts(self, scene: Scene, parts: list[SceneObject], inside: set[str]) -> Scene:
        """Objects go inside as they are."""
        first = placed_at(scene, parts[0].id, self.frame)
        x, y = (float(first.channels[name][0]) for name in ("x", "y"))
        holder = f"{self.id[:57]}-inside"
        inner = self._inner(scene, inside, {parts[0].parent}, (x, y), holder, ())
        inset = InsetObject(
            id=self.id,
            name=free_name(scene, self.name),
            kind="inset",
            parent=parts[0].parent,
            bone=parts[0].bone,
            inset=InsetUse(scene=self.scene),
            channels={"x": Channel(base=x), "y": Channel(base=y)},
        )
        # In front of all, as what is painted together is painted where the foremost of it was.
        place = max(scene.places[one.id] for one in parts) + 1
        return _without(scene.with_added(inset, place), inside, inner)

    def _inner(
        self, scene: Scene, inside: set[str], above: set[str | None], at: tuple[float, float], holder: str, bends: tuple[Rule, ...]
    ) -> InnerScene:
        """The scene inside: a group in the middle of its picture holds what came in, so that nothing in it has to be moved."""
        moved = [one for one in scene.objects if one.id in inside]
        if holder in inside:
            raise EditError(f"there already is an object with the id '{holder}'; give the new one its own")
        held = [one.copy_with(parent=holder, bone=None) if one.parent in above else one for one in moved]
        name = name_beside({one.name for one in moved}, f"{self.name.strip()[:70]} parts")
        middle = {"x": Channel(base=scene.size[0] / 2 - at[0]), "y": Channel(base=scene.size[1] / 2 - at[1])}
        group = GroupObject.model_construct(
            id=holder, name=name, kind="group", parent=None, bone=None, shown=True, span=WHOLE, channels=middle, rules=bends
        )
        fields = {field: getattr(scene, field) for field in ("fps", "length", "size", "background")}
        dials = tuple(dials_read(scene, moved))
        hears = next((dial for dial in dials if followed(scene, dial)), None)
        if hears is not None:
            raise EditError(
                f"the dial '{hears.name}' follows a sound, which plays only in the outer scene; give it keys instead, or keep its readers outside"
            )
        return InnerScene.model_construct(id=self.scene, name=_free_inner(scene, self.name), **fields, dials=dials, objects=(group, *held), cues=())

    def label(self, scene: Scene) -> str:
        return f"make an inset of {object_in(scene, self.parts[0]).name}"


class AddInset(Edit):
    """Put an inset into the troupe that shows an inner scene, or a new empty one of a name, fps and length; x and y are its middle."""

    edit: Literal["add-inset"]
    id: Id
    name: Name
    scene: Id
    x: Number
    y: Number
    fps: Fps | None = None
    length: Length | None = None

    def apply(self, scene: Scene) -> Scene:
        check_new(scene, self.id)
        made = scene
        if self.scene not in scene.insets_by_id:
            fps, length = self.fps if self.fps is not None else scene.fps, self.length if self.length is not None else scene.length
            inner = InnerScene(
                id=self.scene, name=_free_inner(scene, self.name), fps=fps, length=length, size=scene.size, background=scene.background
            )
            made = scene.copy_with(insets=(*scene.insets, inner))
        place = {"x": Channel(base=self.x), "y": Channel(base=self.y)}
        added = InsetObject(id=self.id, name=free_name(scene, self.name), kind="inset", inset=InsetUse(scene=self.scene), channels=place)
        return made.with_added(added, len(scene.objects))

    def label(self, scene: Scene) -> str:
        return f"add {self.name}"


class SetInset(Edit):
    """Choose which inner scene an inset shows, and what it shows past the ends of it."""

    edit: Literal["set-inset"]
    id: Id
    inset: InsetUse

    def apply(self, scene: Scene) -> Scene:
        thing = inset_in(scene, self.id)
        inner_in(scene, self.inset.scene)
        return with_object(scene, thing.copy_with(inset=self.inset))

    def label(self, scene: Scene) -> str:
        return f"inside of {object_in(scene, self.id).name}"


class OwnInset(Edit):
    """Give an inset an inner scene of its own: a copy of the one it shares with others."""

    edit: Literal["own-inset"]
    id: Id
    scene: Id

    def apply(self, scene: Scene) -> Scene:
        thing = inset_in(scene, self.id)
        _check_new_inner(scene, self.scene)
        inner = inner_in(scene, thing.inset.scene)
        copy = inner.copy_with(id=self.scene, name=_free_inner(scene, inner.name))
        changed = with_object(scene, thing.copy_with(inset=thing.inset.copy_with(scene=self.scene)))
        return changed.copy_with(insets=(*scene.insets, copy))

    def label(self, scene: Scene) -> str:
        return f"an inside of its own for {object_in(scene, self.id).name}"


class DropInsets(Edit):
    """Let go of all inner scenes that nothing shows."""

    edit: Literal["drop-insets"]

    def apply(self, scene: Scene) -> Scene:
        used = {one.id for one in scene.reached(insets_shown(scene))}
        return scene.copy_with(insets=tuple(one for one in scene.insets if one.id in used))

    def label(self, scene: Scene) -> str:
        return "let unused inner scenes go"


def inset_in(scene: Scene, object_id: str) -> InsetObject:
    """The inset with this id.

    Raises:
        EditError: if it is none.
    """
    thing = object_in(scene, object_id)
    if not isinstance(thing, InsetObject):
        raise EditError(f"'{thing.name}' is not an inset; convert it to an inset first")
    return thing


def inner_in(scene: Scene, inset_id: str) -> InnerScene:
    """The inner scene with this id."""
    found = scene.insets_by_id.get(inset_id)
    if found is None:
        raise NoSuchThing(f"there is no inner scene '{inset_id}' in this scene; it may have been deleted")
    return found


def named_by(scene: Scene, thing: SceneObject) -> Iterator[str]:
    """The ids of the objects, and the dials as `dial:` and their id, that the rules and lists of an object name."""
    for rule in thing.rules:
        for name in thing.specs:
            if rule in thing.rules_for(name):
                yield from (ref[0] for one in rule.dependencies(thing.id, name) if (ref := resolved(scene, one)) is not None)
        for refs in rule.linked.values():
            yield from (ref[0] for one in refs if (ref := resolved(scene, one)) is not None)
        for setting, word in rule.settings.items():
            names = rule.spec.settings[setting].names if isinstance(word, str) else ""
            if names in ("object", "dial"):
                yield f"{DIAL}{word}" if names == "dial" else str(word)
    parade = thing.copying
    if parade is not None:
        given = [one.object for one in parade.lists] + [one.object for one in parade.overrules]
        yield from (one for one in (parade.guide, *given) if one is not None)


def dials_read(scene: Scene, things: list[SceneObject]) -> list[Dial]:
    """The dials of a scene that some objects read."""
    named = {one for thing in things for one in named_by(scene, thing)}
    return [dial for owner, dial in scene.dials_by_id.items() if owner in named]


def _refuse_across(scene: Scene, inside: set[str]) -> None:
    """Refuse to part objects of which one reads another.

    Raises:
        EditError: naming both.
    """
    for thing in scene.objects:
        for other in named_by(scene, thing):
            if other in scene.by_id and (thing.id in inside) != (other in inside):
                where = "outside" if thing.id in inside else "inside"
                raise EditError(f"'{thing.name}' reads '{scene.by_id[other].name}', which would be {where}; put both inside, or unlink them first")


def _without(scene: Scene, inside: set[str], inner: InnerScene) -> Scene:
    """The scene without what went into an inner one."""
    objects = tuple(one for one in scene.objects if one.id not in inside)
    return scene.copy_with(objects=objects, cues=cues_without(scene.cues, inside), insets=(*scene.insets, inner))


def _check_new_inner(scene: Scene, inset_id: str) -> None:
    if inset_id in scene.insets_by_id:
        raise EditError(f"there already is an inner scene with the id '{inset_id}'; give the new one its own")


def _free_inner(scene: Scene, wanted: str) -> str:
    return name_beside({one.name for one in scene.insets}, wanted)
