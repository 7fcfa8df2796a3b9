"""Edits of the scene itself: its name, timing, size and background."""

from typing import Annotated, Literal

from pydantic import Field

from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.values import MAX_LENGTH, Colour, Fps, Id, Length, Name
from vine_swing.motion.edits.base import Edit, object_in, with_object
from vine_swing.motion.edits.time_map import TimeMap
from vine_swing.motion.scene.model import MAX_PALETTE, Scene
from vine_swing.motion.scene.timeline import MotionBlur


class RenameScene(Edit):
    """Give the scene another name."""

    edit: Literal["rename-scene"]
    name: Name

    def apply(self, scene: Scene) -> Scene:
        return scene.copy_with(name=self.name.strip())

    def label(self, scene: Scene) -> str:
        return f"rename the scene to {self.name}"


class SetFps(Edit):
    """Change the frames per second. Keys stay on their frames, so that the motion gets faster or slower; or they keep
    their seconds, and keys, spans and length are stretched."""

    edit: Literal["set-fps"]
    fps: Fps
    keep: Literal["frames", "seconds"] = "frames"

    def apply(self, scene: Scene) -> Scene:
        changed = scene.copy_with(fps=self.fps)
        if self.keep == "frames":
            return changed
        factor = self.fps / scene.fps
        length = max(1, round(scene.length * factor))
        if length > MAX_LENGTH:
            raise EditError(f"the scene would have {length} frames; at most {MAX_LENGTH} can be, so keep the frames or shorten it first")
        return _stretched(changed.copy_with(length=length), factor)

    def label(self, scene: Scene) -> str:
        return f"{self.fps:g} frames per second"


class SetLength(Edit):
    """Change how many frames the scene shows. Keys stay where they are, those beyond the end unseen; with `stretch` all
    keys and spans are stretched so that what ended the scene still ends it."""

    edit: Literal["set-length"]
    length: Length
    stretch: bool = False

    def apply(self, scene: Scene) -> Scene:
        changed = scene.copy_with(length=self.length)
        if not self.stretch or self.length == scene.length:
            return changed
        if min(self.length, scene.length) < 2:
            raise EditError("a scene of a single frame has no time to stretch; leave the keys where they are")
        return _stretched(changed, (self.length - 1) / (scene.length - 1))

    def label(self, scene: Scene) -> str:
        return f"length of {self.length} frames"


def _stretched(scene: Scene, factor: float) -> Scene:
    """The scene with all its keys, spans, markers and sounds at `factor` times their frames, dials and settings of rules included."""

    time = TimeMap(factor)
    dials = tuple(dial.copy_with(channel=time.channel(dial.channel)) for dial in scene.dials)
    markers = tuple({(frame := round(one.frame * factor)): one.copy_with(frame=frame) for one in scene.markers}.values())
    # A sound keeps its duration: it begins at its new frame, and the beat keeps its seconds.
    sounds = tuple(one.copy_with(first=round(one.first * factor)) for one in scene.sounds)
    beat = scene.beat.copy_with(first=scene.beat.first * factor) if scene.beat is not None else None
    return scene.copy_with(objects=tuple(map(time.whole, scene.objects)), dials=dials, markers=markers, sounds=sounds, beat=beat)


class SetSize(Edit):
    """Change the size of the picture, in pixels."""

    edit: Literal["set-size"]
    width: Annotated[int, Field(strict=True, ge=1, le=8192)]
    height: Annotated[int, Field(strict=True, ge=1, le=8192)]

    def apply(self, scene: Scene) -> Scene:
        return scene.copy_with(size=(self.width, self.height))

    def label(self, scene: Scene) -> str:
        return f"picture of {self.width} × {self.height}"


class SetBackground(Edit):
    """Change the colour behind everything."""

    edit: Literal["set-background"]
    colour: Colour

    def apply(self, scene: Scene) -> Scene:
        return scene.copy_with(background=self.colour)

    def label(self, scene: Scene) -> str:
        return "background colour"


class SetBlur(Edit):
    """Blur the motion of the scene, or null: not."""

    edit: Literal["set-blur"]
    blur: MotionBlur | None

    def apply(self, scene: Scene) -> Scene:
        return scene.copy_with(blur=self.blur)

    def label(self, scene: Scene) -> str:
        return "motion blur" if self.blur is not None else "no motion blur"


class BlurObject(Edit):
    """Let an object's motion be blurred where the scene's is, or not."""

    edit: Literal["blur-object"]
    id: Id
    blurred: bool

    def apply(self, scene: Scene) -> Scene:
        return with_object(scene, object_in(scene, self.id).copy_with(blurred=self.blurred))

    def label(self, scene: Scene) -> str:
        return f"{'blur' if self.blurred else 'keep sharp'} {object_in(scene, self.id).name}"


class SetPalette(Edit):
    """Keep some colours with the scene."""

    edit: Literal["set-palette"]
    colours: Annotated[tuple[Colour, ...], Field(max_length=MAX_PALETTE)]

    def apply(self, scene: Scene) -> Scene:
        return scene.copy_with(palette=tuple(dict.fromkeys(self.colours)))

    def label(self, scene: Scene) -> str:
        return "palette"
