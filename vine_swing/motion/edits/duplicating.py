"""Copies of objects beside them, in the same scene."""

from typing import Literal

from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.edits.base import OfObjects, check_room
from vine_swing.motion.edits.objects import name_beside
from vine_swing.motion.edits.renaming import object_with_formulas
from vine_swing.motion.edits.several import Prefix, check_free, with_ids
from vine_swing.motion.formula import renamed
from vine_swing.motion.scene.hanging import with_parts
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject


class DuplicateObjects(OfObjects):
    """Copy objects with their descendants. A copy is attached to what its original is attached to and lies right in front of it.

    What the copied ones name among themselves (parents, leaders, lists, formulas), the copies name among themselves; what else they name is the same.

    objects: whose copies are wanted; one that is attached to another of them is copied with that. prefix: the copies get the ids `<prefix>-1`,
    `<prefix>-2`, …: first those of `objects`, in their order here, and then those of their parts in drawing order.
    """

    edit: Literal["duplicate-objects"]
    prefix: Prefix

    def apply(self, scene: Scene) -> Scene:
        wholes = {top: sorted(with_parts([top], scene.children), key=scene.places.__getitem__) for top in self.tops(scene)}
        parts = sorted((item for top, whole in wholes.items() for item in whole if item != top), key=scene.places.__getitem__)
        copied = [*wholes, *parts]
        if any(scene.by_id[item].kind == "camera" for item in copied):
            raise EditError("a scene has only one camera; duplicate the others without it")
        check_room(scene, len(copied))
        ids = {old: f"{self.prefix}-{n}" for n, old in enumerate(copied, 1)}
        check_free(scene, self.prefix, ids.values())
        copies = _copies(scene, ids)
        # Each copy is in front of the frontmost part of what is copied as a whole.
        front = {whole[-1]: [copies[item] for item in whole] for whole in wholes.values()}
        return scene.copy_with(objects=tuple(item for obj in scene.objects for item in (obj, *front.get(obj.id, ()))))

    def label(self, scene: Scene) -> str:
        tops = self.tops(scene)
        return f"duplicate {scene.by_id[tops[0]].name if len(tops) == 1 else f'{len(tops)} objects'}"


def _copies(scene: Scene, ids: dict[str, str]) -> dict[str, SceneObject]:
    """The copies by the ids of their originals, with names that are free and rules that name each other."""
    here = {obj.id: ids.get(obj.id, obj.id) for obj in scene.objects}
    used = set(scene.names)
    names: dict[str, str] = {}
    for old in sorted(ids, key=scene.places.__getitem__):
        was = scene.by_id[old].name
        names[was] = name_beside(used, was)
        used.add(names[was])

    def formula(text: str) -> str:
        return renamed(text, scene.names, objects=names)

    originals = (scene.by_id[old] for old in ids)
    return {original.id: object_with_formulas(with_ids(original, here), formula).copy_with(name=names[original.name]) for original in originals}
