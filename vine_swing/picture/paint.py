"""Painting baked frames with Skia."""

from typing import Any

import numpy as np
import skia
from numpy.typing import NDArray

from vine_swing.motion import colour
from vine_swing.motion.bake import Baked
from vine_swing.motion.outline import CLOSE, CUBIC, LINE, MOVE, POINTS_TAKEN, Outline
from vine_swing.picture.drawable import Drawable, drawables, hidden


class Painter:
    """Paints any frame of one baked scene, at the scene's size times `scale`."""

    def __init__(self, baked: Baked, *, scale: float = 1.0, background: bool = True) -> None:
        """Without its background, the picture is see-through where nothing is painted."""
        self.width, self.height = (max(1, round(side * scale)) for side in baked.scene.size)
        self._scale = scale
        self._background = _colour(colour.parse_hex(baked.scene.background), 1.0) if background else skia.Color4f(0, 0, 0, 0)
        unseen = set(hidden(baked.scene))
        self._things = [_Thing(drawable) for drawable in drawables(baked).values() if drawable.id not in unseen]

    def frame(self, index: int) -> NDArray[np.uint8]:
        """The picture at row `index` of the baked frames: RGBA, premultiplied, shape (height, width, 4)."""
        pixels = np.zeros((self.height, self.width, 4), np.uint8)
        self.paint_into(pixels, index)
        return pixels

    def paint_into(self, pixels: NDArray[np.uint8], index: int) -> None:
        """As `frame`, into an array the caller keeps."""
        surface = skia.Surface.MakeRasterDirect(
            skia.ImageInfo.Make(self.width, self.height, skia.kRGBA_8888_ColorType, skia.kPremul_AlphaType), pixels
        )
        canvas = surface.getCanvas()
        canvas.clear(self._background)
        canvas.scale(self._scale, self._scale)
        for thing in self._things:
            thing.paint(canvas, index)


class _Thing:
    """One drawable with its Skia paths."""

    def __init__(self, drawable: Drawable) -> None:
        self._drawable = drawable
        self._paths = [_path(outline) for outline in drawable.outline.outlines]

    def paint(self, canvas: skia.Canvas, index: int) -> None:
        d = self._drawable
        opacity = float(_at(d.baked.opacity, index))
        if opacity <= 0:
            return
        a, b, c, dd, e, f = (float(v) for v in _at(d.baked.world, index))
        path = self._paths[int(_at(d.outline.which, index))]
        canvas.save()
        canvas.concat(skia.Matrix.MakeAll(a, c, e, b, dd, f, 0, 0, 1))
        fill, stroke, width = _at(d.fill, index), _at(d.stroke, index), float(_at(d.stroke_width, index))
        if fill[3] > 0:
            canvas.drawPath(path, skia.Paint(Color4f=_colour(fill, opacity), AntiAlias=True))
        if width > 0 and stroke[3] > 0:
            pen = skia.Paint(Color4f=_colour(stroke, opacity), AntiAlias=True, Style=skia.Paint.kStroke_Style, StrokeWidth=width)
            pen.setStrokeJoin(skia.Paint.kRound_Join)
            pen.setStrokeCap(skia.Paint.kRound_Cap)
            canvas.drawPath(path, pen)
        canvas.restore()


def _at(array: NDArray[Any], index: int) -> Any:
    """The row of an index; an array of one row has the same for all."""
    return array[index if len(array) > 1 else 0]


def _colour(rgba: NDArray[np.float64], opacity: float) -> skia.Color4f:
    r, g, b, a = (float(part) for part in rgba)
    return skia.Color4f(r, g, b, a * opacity)


def _path(outline: Outline) -> skia.Path:
    path = skia.Path()
    at = 0
    for verb in outline.verbs:
        taken = outline.points[at : at + POINTS_TAKEN[verb]]
        at += POINTS_TAKEN[verb]
        match verb:
            case _ if verb == MOVE:
                path.moveTo(*map(float, taken[0]))
            case _ if verb == LINE:
                path.lineTo(*map(float, taken[0]))
            case _ if verb == CUBIC:
                path.cubicTo(*(float(v) for point in taken for v in point))
            case _ if verb == CLOSE:
                path.close()
    return path
