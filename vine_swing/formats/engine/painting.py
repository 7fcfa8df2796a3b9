"""A painting task, and painting it in windows of frames, so that memory does not grow with the length of a scene."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.formats.export import Pixels
from vine_swing.motion.baking.bake import bake
from vine_swing.motion.scene.model import Scene
from vine_swing.picture.blur import FramePainter, painter_of
from vine_swing.picture.paint import painted_size

#: Frames that are baked together. All engines cut the frames at the same places, so that they paint the same bytes.
WINDOW = 120


@dataclass(frozen=True, eq=False)
class Painting:
    """The pictures of a scene at some moments, (n,) in its frames, at its size times `scale`, with or without its background."""

    scene: Scene
    frames: NDArray[np.float64]
    scale: float = 1.0
    background: bool = True

    @property
    def size(self) -> tuple[int, int]:
        """The width and height of the pictures, px."""
        return painted_size(self.scene.size, self.scale)

    @property
    def bytes_each(self) -> int:
        """Bytes of one rendered frame."""
        width, height = self.size
        return 4 * width * height


class Windows:
    """Paints single pictures of a painting; those near each other share a bake."""

    def __init__(self, painting: Painting) -> None:
        self.painting = painting
        self._number = -1
        self._painter: FramePainter | None = None

    def paint(self, row: int) -> Pixels:
        """The picture at a row: RGBA, premultiplied, (height, width, 4)."""
        width, height = self.painting.size
        pixels = np.zeros((height, width, 4), np.uint8)
        self.paint_into(pixels, row)
        return pixels

    def paint_into(self, pixels: Pixels, row: int) -> None:
        """The same, into an array of that shape."""
        number, within = divmod(row, WINDOW)
        if self._painter is None or number != self._number:
            painting = self.painting
            baked = bake(painting.scene, painting.frames[number * WINDOW : (number + 1) * WINDOW])
            self._painter, self._number = painter_of(baked, scale=painting.scale, background=painting.background), number
        self._painter.paint_into(pixels, within)
