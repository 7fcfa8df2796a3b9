"""Copies of objects beside them, in the same scene."""

from typing import Annotated, Literal

from pydantic import Field

from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.values import Id
from vine_swing.motion.edits.base import Edit, check_room, object_in
from vine_swing.motion.edits.objects import name_beside
from vine_swing.motion.edits.renaming import object_with_formulas
from vine_swing.motion.edits.several import with_ids
from vine_swing.motion.formula import renamed
from vine_swing.motion.scene.hanging import with_parts
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject


class DuplicateObjects(Edit):
    """Copy objects with all that hangs on them. A copy hangs on what its original hangs on and lies right in front of it.

    What the copied ones name among themselves (parents, leaders, lists, formulas), the copies name among themselves; what else they name is the same.

    objects: whose copies are wanted; one that hangs on another of them is copied with that. prefix: the copies get the ids `<prefix>-1`,
    `<prefix>-2`, …: first those of `objects`, in their order here, and then those of their parts in drawing order.
    """

    edit: Literal["duplicate-objects"]
    objects: Annotated[tuple[Id, ...], Field(min_length=1, max_length=5_000)]
    prefix: Annotated[str, Field(pattern=r"^[A-Za-z0-9_-]{1,20}$")]

    def apply(self, scene: Scene) -> Scene:
        copied = self._copied(scene)
        if any(scene.by_id[one].kind == "camera" for one in copied):
            raise EditError("a scene has only one camera; duplicate the others without it")
        check_room(scene, len(copied))
        ids = {old: f"{self.prefix}-{n}" for n, old in enumerate(copied, 1)}
        if set(ids.values()) & scene.by_id.keys():
            raise EditError(f"ids that begin with '{self.prefix}' are taken in this scene; begin them with something else")
        copies = _copies(scene, ids)
        # By the place after which each copy goes: that of the frontmost part of what is copied as a whole.
        front: dict[str, list[SceneObject]] = {}
        for whole in (with_parts([top], scene.children) for top in self._tops(scene)):
            inside = sorted(whole, key=scene.places.__getitem__)
            front.setdefault(inside[-1], []).extend(copies[one] for one in inside)
        return scene.copy_with(objects=tuple(one for thing in scene.objects for one in (thing, *front.get(thing.id, ()))))

    def _tops(self, scene: Scene) -> list[str]:
        """The objects that hang on no other of them."""
        chosen = list(dict.fromkeys(object_in(scene, one).id for one in self.objects))
        under = {part for one in chosen for part in with_parts([one], scene.children)[1:]}
        return [one for one in chosen if one not in under]

    def _copied(self, scene: Scene) -> list[str]:
        """All that is copied, in the order in which the copies get their ids."""
        tops = self._tops(scene)
        parts = set(with_parts(tops, scene.children)) - set(tops)
        return [*tops, *sorted(parts, key=scene.places.__getitem__)]

    def label(self, scene: Scene) -> str:
        tops = self._tops(scene)
        return f"duplicate {scene.by_id[tops[0]].name if len(tops) == 1 else f'{len(tops)} objects'}"


def _copies(scene: Scene, ids: dict[str, str]) -> dict[str, SceneObject]:
    """The copies by the ids of their originals, with names that are free and rules that name each other."""
    here = {one.id: ids.get(one.id, one.id) for one in scene.objects}
    taken = set(scene.names)
    names: dict[str, str] = {}
    for old in sorted(ids, key=scene.places.__getitem__):
        was = scene.by_id[old].name
        names[was] = name_beside(taken, was)
        taken.add(names[was])
    return {
        old: object_with_formulas(with_ids(scene.by_id[old], here), lambda text: renamed(text, scene.names, objects=names)).copy_with(
            name=names[scene.by_id[old].name]
        )
        for old in ids
    }
