"""Edits of the font files that people bring along."""

from typing import Literal

from vine_swing.motion.basics.errors import EditError, NoSuchThing
from vine_swing.motion.basics.values import Id
from vine_swing.motion.edits.base import Edit
from vine_swing.motion.outline.drawing import check_font
from vine_swing.motion.scene.kept import MAX_FONTS, OwnFont
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.shapes import TextShape


class AddFont(Edit):
    """Keep a font file with the scene, so that texts can be set in it."""

    edit: Literal["add-font"]
    font: OwnFont

    def apply(self, scene: Scene) -> Scene:
        if any(one.id == self.font.id for one in scene.fonts):
            return scene
        if len(scene.fonts) >= MAX_FONTS:
            raise EditError(f"a scene keeps at most {MAX_FONTS} font files; take one out first")
        check_font(self.font)
        return scene.copy_with(fonts=(*scene.fonts, self.font))

    def label(self, scene: Scene) -> str:
        return f"keep the font {self.font.name}"


class RemoveFont(Edit):
    """Take a font file out that no text is set in."""

    edit: Literal["remove-font"]
    id: Id

    def apply(self, scene: Scene) -> Scene:
        if all(one.id != self.id for one in scene.fonts):
            raise NoSuchThing(f"there is no font '{self.id}' in this scene; it may have been removed")
        used = next(
            (
                thing.name
                for part in scene.timelines
                for thing in part.objects
                if isinstance(thing.drawn_shape, TextShape) and thing.drawn_shape.font == self.id
            ),
            None,
        )
        if used is not None:
            raise EditError(f"'{used}' is set in this font; set it in another one first")
        return scene.copy_with(fonts=tuple(one for one in scene.fonts if one.id != self.id))

    def label(self, scene: Scene) -> str:
        return "take a font out"
