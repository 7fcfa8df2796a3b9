"""How a scene is to be exported: one model for the dialog, the command line and stored results."""

from typing import Annotated, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.basics.values import MAX_LENGTH, Colour, Fps, Frozen
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.timeline import MotionBlur

#: The largest side of an exported picture, px, and the most pixels it may have: those of 8K film.
MOST_SIDE, MOST_PIXELS = 8192, 7680 * 4320
#: Pictures of one export.
MOST_PICTURES = 60_000
#: Formats whose pictures are put over others elsewhere, and which have no background unless one is asked for.
WITHOUT_BACKGROUND = ("flipbook",)
Quality = Literal["small", "good", "best"]
WholeFrame = Annotated[int, Field(strict=True, ge=0, le=MAX_LENGTH)]


class ExportOptions(Frozen):
    """The exported range of a scene, and its settings.

    scale: its size as a share of the scene's. first, last: frames of the scene; the whole of it if left out. Formats of one picture take `first`.
    fps: pictures a second; the scene's own if left out. Moments between its frames are computed, not repeated.
    background: the scene's own, `none`, a colour, or as is usual for the format. under: the colour beneath what can be seen through, in formats
    that cannot be.
    loops: how often it plays, in formats that say so; 0 forever. blur: motion blur as the scene has it, `off`, or this many moments a picture.
    quality: of formats that lose something. dither: how GIF mixes colours it has not. columns: pictures in a row of a contact sheet.
    every: frames between rows of a table. tolerance: how far from the exact place anything may be in animated SVG and HTML, px. sound: whether films
    are heard, in formats that can be.
    """

    format: Annotated[str, Field(max_length=40)] = "mp4"
    scale: Annotated[float, Field(gt=0, le=8)] = 1.0
    first: WholeFrame | None = None
    last: WholeFrame | None = None
    fps: Fps | None = None
    background: Literal["usual", "own", "none"] | Colour = "usual"
    under: Colour = "#FFFFFF"
    loops: Annotated[int, Field(strict=True, ge=0, le=65_535)] = 0
    blur: Literal["own", "off"] | Annotated[int, Field(strict=True, ge=2, le=64)] = "own"
    quality: Quality = "good"
    dither: Literal["none", "ordered", "diffused"] = "diffused"
    columns: Annotated[int, Field(strict=True, ge=1, le=12)] = 4
    every: Annotated[float, Field(gt=0, le=1000)] = 1.0
    tolerance: Annotated[float, Field(gt=0, le=2)] = 0.1
    sound: bool = True

    def stretch(self, scene: Scene) -> tuple[int, int]:
        """The first and the last frame that are exported.

        Raises:
            MotionError: if the scene does not have them.
        """
        first, last = self.first or 0, scene.length - 1 if self.last is None else self.last
        if not first <= last < scene.length:
            raise MotionError(f"there are no frames {first} to {last}; the scene has frames 0 to {scene.length - 1}")
        return first, last

    def frames(self, scene: Scene) -> NDArray[np.float64]:
        """The moments that become pictures, (n,), in frames of the scene: as far apart as the pictures are in time, from the first frame on, while
        the last frame is still shown.

        Raises:
            MotionError: if the scene does not have them, or they are too many.
        """
        first, last = self.stretch(scene)
        if self.fps is None or self.fps == scene.fps:
            return np.arange(first, last + 1, dtype=float)
        step = scene.fps / self.fps
        count = int(np.ceil((last + 1 - first) / step - 1e-9))
        if count > MOST_PICTURES:
            raise MotionError(f"that would be {count} pictures; at most {MOST_PICTURES} are made, so take fewer frames or fewer a second")
        return np.asarray(first + np.arange(count) * step, np.float64)

    def size(self, scene: Scene) -> tuple[int, int]:
        """The width and height of the pictures, px.

        Raises:
            MotionError: if they would be too large.
        """
        width, height = (max(1, round(side * self.scale)) for side in scene.size)
        if max(width, height) > MOST_SIDE or width * height > MOST_PIXELS:
            fits = min(MOST_SIDE / max(scene.size), (MOST_PIXELS / (scene.size[0] * scene.size[1])) ** 0.5)
            raise MotionError(
                f"pictures of {width} × {height} px are too large; at most {MOST_SIDE} px a side and {MOST_PIXELS / 1e6:.0f} million pixels are made:"
                f" {int(fits * 100)} % of the scene's size would fit"
            )
        return width, height

    def changed(self, scene: Scene) -> Scene:
        """The scene with the background and the motion blur that are asked for."""
        requested = self.background
        if requested == "usual":
            requested = "none" if self.format in WITHOUT_BACKGROUND else "own"
        background = {"own": scene.background, "none": "#00000000"}.get(requested, requested)
        blur = scene.blur
        if self.blur == "off":
            blur = None
        elif not isinstance(self.blur, str):
            blur = (blur or MotionBlur()).copy_with(samples=self.blur)
        return scene if (background, blur) == (scene.background, scene.blur) else scene.copy_with(background=background, blur=blur)
