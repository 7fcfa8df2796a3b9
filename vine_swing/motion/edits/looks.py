"""Edits of how objects are painted: their lines, and how they are composited onto what lies below."""

from typing import Literal

from vine_swing.motion.basics.values import Blend, Id
from vine_swing.motion.edits.base import Edit, object_in, shape_in, with_object
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.shapes import LineStyle


class SetLine(Edit):
    """Choose how the line of a shape ends, goes round corners, and is dashed."""

    edit: Literal["set-line"]
    id: Id
    line: LineStyle

    def apply(self, scene: Scene) -> Scene:
        return with_object(scene, shape_in(scene, self.id, "line").copy_with(line=self.line))

    def label(self, scene: Scene) -> str:
        return f"line of {object_in(scene, self.id).name}"


class SetBlend(Edit):
    """Choose how an object, with its descendants, is composited onto what lies below."""

    edit: Literal["set-blend"]
    id: Id
    blend: Blend

    def apply(self, scene: Scene) -> Scene:
        return with_object(scene, object_in(scene, self.id).copy_with(blend=self.blend))

    def label(self, scene: Scene) -> str:
        return f"blend {object_in(scene, self.id).name}"
