"""The drawing order of several objects, with their descendants."""

from typing import Annotated, Literal

from pydantic import Field

from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.values import Id
from vine_swing.motion.edits.base import Edit, object_in
from vine_swing.motion.scene.cues import MAX_OBJECTS
from vine_swing.motion.scene.hanging import with_parts
from vine_swing.motion.scene.model import Scene


class OrderObjects(Edit):
    """Move some objects, with their descendants, within the drawing order; among themselves they keep theirs.

    to: in front of or behind all others with the same parent (`front`, `back`), past the nearest of those (`forward`, `backward`), or just
    in front of or behind `other` with its descendants (`before`, `behind`).
    """

    edit: Literal["order-objects"]
    objects: Annotated[tuple[Id, ...], Field(min_length=1, max_length=MAX_OBJECTS)]
    to: Literal["front", "forward", "backward", "back", "before", "behind"]
    other: Id | None = None

    def apply(self, scene: Scene) -> Scene:
        chosen = {object_in(scene, one).id for one in self.objects}
        tops = [one.id for one in scene.objects if one.id in chosen and not any(up.id in chosen for up in scene.upwards(one.parent))]
        if self.to in ("before", "behind"):
            return self._beside(scene, tops)
        by_parent: dict[str | None, list[str]] = {}
        for one in tops:
            by_parent.setdefault(scene.by_id[one].parent, []).append(one)
        for parent, siblings in by_parent.items():
            scene = self._among_siblings(scene, parent, siblings)
        return scene

    def _beside(self, scene: Scene, tops: list[str]) -> Scene:
        if self.other is None:
            raise EditError("say which other object they shall be in front of or behind")
        other = object_in(scene, self.other).id
        block = with_parts(tuple(tops), scene.children)
        if other in block:
            raise EditError(f"'{scene.by_id[other].name}' goes along with them, so they cannot be put beside it; choose another one")
        return _moved(scene, block, with_parts((other,), scene.children), in_front=self.to == "before")

    def _among_siblings(self, scene: Scene, parent: str | None, tops: list[str]) -> Scene:
        """Objects that are attached to one object are moved past others that do."""
        siblings = [one.id for one in scene.objects if one.parent == parent]
        others = [one for one in siblings if one not in tops]
        if not others:
            return scene
        block = with_parts(tuple(tops), scene.children)
        in_front = self.to in ("front", "forward")
        if self.to in ("front", "back"):
            return _moved(scene, block, with_parts(tuple(others), scene.children), in_front=in_front)
        # The first of the others that lies past the foremost, or before the hindmost, of them.
        order = siblings if in_front else siblings[::-1]
        furthest = max(order.index(one) for one in tops)
        past = next((one for one in order[furthest + 1 :] if one not in tops), None)
        if past is None:
            past = next(one for one in reversed(order) if one not in tops)
        return _moved(scene, block, with_parts((past,), scene.children), in_front=in_front)

    def label(self, scene: Scene) -> str:
        count = len(self.objects)
        return f"reorder {object_in(scene, self.objects[0]).name if count == 1 else f'{count} objects'}"


def _moved(scene: Scene, block: list[str], others: list[str], *, in_front: bool) -> Scene:
    """The scene with a block of objects, in the order they have, just in front of the foremost or behind the hindmost of some others."""
    moving, beside = set(block), set(others)
    left = [one for one in scene.objects if one.id not in moving]
    places = [place for place, one in enumerate(left) if one.id in beside]
    at = places[-1] + 1 if in_front else places[0]
    objects = (*left[:at], *(one for one in scene.objects if one.id in moving), *left[at:])
    return scene if objects == scene.objects else scene.copy_with(objects=objects)
