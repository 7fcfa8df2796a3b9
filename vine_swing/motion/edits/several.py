"""Putting several objects into a scene at once, as they stand together elsewhere."""

from collections.abc import Collection, Mapping
from types import MappingProxyType
from typing import Annotated, Literal

from pydantic import Field, ValidationError

from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.values import Id, Number
from vine_swing.motion.edits.base import Edit, check_room
from vine_swing.motion.edits.objects import RenameObject, name_beside, shifted
from vine_swing.motion.rules.rule import Rule
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.scene_file import faults

#: What the ids of objects that are put into a scene begin with there.
Prefix = Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{1,20}$")]


class AddObjects(Edit):
    """Put several objects into the troupe, in front of all others. References among them (parents, leaders, lists, formulas) are kept, even where
    ids and names exist in this scene.

    prefix: what their ids begin with here. x, y: offset of objects without a parent, px.
    """

    edit: Literal["add-objects"]
    objects: Annotated[tuple[SceneObject, ...], Field(min_length=1, max_length=500)]
    prefix: Prefix
    x: Number = 0.0
    y: Number = 0.0

    def apply(self, scene: Scene) -> Scene:
        check_room(scene, len(self.objects))
        try:
            alone = Scene(objects=self.objects)
        except ValidationError as error:
            raise EditError("; ".join(faults(error))) from error
        alone = with_free_names(alone, scene.names)
        ids: dict[str, Id] = {thing.id: f"{self.prefix}-{thing.id}"[:64] for thing in self.objects}
        check_free(scene, self.prefix, ids.values())
        for thing in alone.objects:
            moved = shifted(thing, {"x": float(self.x), "y": float(self.y)}) if thing.parent is None else thing
            scene = scene.with_added(with_ids(moved, ids), len(scene.objects))
        return scene

    def label(self, scene: Scene) -> str:
        return f"add {self.objects[-1].name}"


def check_free(scene: Scene, prefix: str, ids: Collection[str]) -> None:
    """Refuse ids for new objects, all with one prefix, that are accepted a scene or by one another.

    Raises:
        EditError: naming the prefix.
    """
    if len(set(ids)) < len(ids) or set(ids) & scene.by_id.keys():
        raise EditError(f"ids that begin with '{prefix}' exist in this scene; choose another prefix")


def with_free_names(scene: Scene, names: Collection[str]) -> Scene:
    """A scene whose objects are renamed where they have one of some names; formulas follow."""
    taken = set(names)
    for thing in scene.objects:
        name = thing.name
        if name in taken:
            name = name_beside(taken | scene.names, name)
            scene = RenameObject(edit="rename-object", id=thing.id, name=name).apply(scene)
        taken.add(name)
    return scene


def with_ids(thing: SceneObject, ids: Mapping[str, str], dials: Mapping[str, str] = MappingProxyType({})) -> SceneObject:
    """An object that names others, and dials, by their ids here."""
    changed = thing.copy_with(id=ids[thing.id], parent=ids[thing.parent] if thing.parent is not None else None)
    changed = changed.copy_with(rules=tuple(rule_with_ids(rule, ids, dials) for rule in thing.rules))
    parade = thing.copying
    if parade is None:
        return changed
    return changed.copy_with(parade=parade.with_ids(ids))


def rule_with_ids(rule: Rule, ids: Mapping[str, str], dials: Mapping[str, str] = MappingProxyType({})) -> Rule:
    """A rule that names other objects, and dials, by their ids here."""
    words = {name: word for name, word in rule.settings.items() if isinstance(word, str)}
    by_kind = {"object": ids, "dial": dials}
    named = {name: by_kind[kind].get(word, word) for name, word in words.items() if (kind := rule.spec.settings[name].names) in by_kind}
    return rule.copy_with(settings=rule.settings | named) if named else rule
