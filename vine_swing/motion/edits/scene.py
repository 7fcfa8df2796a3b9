"""Edits of the scene itself: its name, timing, size and background."""

from typing import Annotated, Literal

from pydantic import Field

from vine_swing.motion.edits.base import Edit
from vine_swing.motion.model import Scene
from vine_swing.motion.values import MAX_LENGTH, Colour, Name


class RenameScene(Edit):
    """Give the scene another name."""

    edit: Literal["rename-scene"]
    name: Name

    def apply(self, scene: Scene) -> Scene:
        return scene.but(name=self.name.strip())

    def label(self, scene: Scene) -> str:
        return f"rename the scene to {self.name}"


class SetFps(Edit):
    """Change the frames per second. Keys stay on their frames, so the motion gets faster or slower."""

    edit: Literal["set-fps"]
    fps: Annotated[float, Field(strict=True, ge=1, le=240)]

    def apply(self, scene: Scene) -> Scene:
        return scene.but(fps=self.fps)

    def label(self, scene: Scene) -> str:
        return f"{self.fps:g} frames per second"


class SetLength(Edit):
    """Change how many frames the scene shows. Keys beyond the end stay, unseen."""

    edit: Literal["set-length"]
    length: Annotated[int, Field(strict=True, ge=1, le=MAX_LENGTH)]

    def apply(self, scene: Scene) -> Scene:
        return scene.but(length=self.length)

    def label(self, scene: Scene) -> str:
        return f"length of {self.length} frames"


class SetSize(Edit):
    """Change the size of the picture, in pixels."""

    edit: Literal["set-size"]
    width: Annotated[int, Field(strict=True, ge=1, le=8192)]
    height: Annotated[int, Field(strict=True, ge=1, le=8192)]

    def apply(self, scene: Scene) -> Scene:
        return scene.but(size=(self.width, self.height))

    def label(self, scene: Scene) -> str:
        return f"picture of {self.width} × {self.height}"


class SetBackground(Edit):
    """Change the colour behind everything."""

    edit: Literal["set-background"]
    colour: Colour

    def apply(self, scene: Scene) -> Scene:
        return scene.but(background=self.colour)

    def label(self, scene: Scene) -> str:
        return "background colour"
