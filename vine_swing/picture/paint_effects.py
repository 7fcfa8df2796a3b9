"""Painting effects with Skia and NumPy: what each does to one picture, on a layer that grows with it. docs/paint-list.md defines them."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from math import ceil, cos, hypot, radians, sin, sqrt

import numpy as np
import skia
from numpy.typing import NDArray

from vine_swing.motion.rules.recolour import LIGHTNESS
from vine_swing.picture.effects import Blur, Fringe, Glow, Mask, Recolour, Shadow
from vine_swing.picture.paint_list import Effect, Step

Pixels = NDArray[np.uint8]
#: This many standard deviations away from its edge, nothing of a blurred picture is left.
_FAR = 3.0
#: The largest standard deviation of a blur, px.
MOST_SIGMA = 532.0
#: Blurs with smaller standard deviations, px of the picture painted, are left out.
_SHARP = 0.05
_SMOOTH = skia.SamplingOptions(skia.FilterMode.kLinear)


@dataclass(frozen=True)
class Layer:
    """A picture on whole device pixels: RGBA, premultiplied, (height, width, 4), with its left top corner at (left, top)."""

    left: int
    top: int
    pixels: Pixels

    @classmethod
    def empty(cls, box: skia.IRect) -> "Layer":
        """A layer with nothing on it yet."""
        return cls(box.left(), box.top(), np.zeros((box.height(), box.width(), 4), np.uint8))

    @property
    def box(self) -> skia.IRect:
        """Where it lies."""
        height, width = self.pixels.shape[:2]
        return skia.IRect.MakeXYWH(self.left, self.top, width, height)

    @property
    def image(self) -> skia.Image:
        """The same as Skia has it."""
        return skia.Image.fromarray(self.pixels, skia.kRGBA_8888_ColorType, skia.kPremul_AlphaType)

    @contextmanager
    def canvas(self) -> Iterator[skia.Canvas]:
        """What paints on it, in its own pixels."""
        height, width = self.pixels.shape[:2]
        info = skia.ImageInfo.Make(width, height, skia.kRGBA_8888_ColorType, skia.kPremul_AlphaType)
        surface = skia.Surface.MakeRasterDirect(info, self.pixels, 4 * width)
        yield surface.getCanvas()

    def draw(self, other: "Layer", brush: skia.Paint | None = None, *, dx: float = 0.0, dy: float = 0.0) -> None:
        """Paint another layer on it, moved by this many px."""
        with self.canvas() as canvas:
            canvas.drawImage(other.image, other.left - self.left + dx, other.top - self.top + dy, _SMOOTH, brush or skia.Paint())

    def grown(self, by: float) -> skia.IRect:
        """Its box with room all round."""
        room = ceil(by) + 1
        return self.box.makeOutset(room, room)


#: Paints steps on a layer of their own, of the device pixels in a box, at a frame.
PaintMask = Callable[[tuple[Step, ...], skia.IRect, float], Layer]


@dataclass(frozen=True)
class Measure:
    """How lengths and directions of an effect come out in pixels: by the transform from its space to device pixels."""

    matrix: skia.Matrix

    @property
    def scale(self) -> float:
        """How many px one of its own is, whichever the direction."""
        m = self.matrix
        return sqrt(abs(m.getScaleX() * m.getScaleY() - m.getSkewX() * m.getSkewY()))

    def sigma(self, size: float) -> float:
        """Return the standard deviation in px of a blur of some size. Skia blurs no further than MOST_SIGMA, so no layer needs room for more."""
        return min(self.scale * size, MOST_SIGMA)

    def moved(self, dx: float, dy: float) -> tuple[float, float]:
        """A move in px."""
        vector = self.matrix.mapVector(dx, dy)
        return vector.x(), vector.y()

    def direction(self, angle: float) -> float:
        """A direction in radians in the picture."""
        x, y = self.moved(cos(radians(angle)), sin(radians(angle)))
        return float(np.arctan2(y, x))


def reach_of(effect: Effect, frame: float, measure: Measure, box: skia.Rect) -> float:
    """How far beyond a box an effect can paint, in px."""
    match effect:
        case Shadow():
            return hypot(*measure.moved(float(effect.dx.at(frame)), float(effect.dy.at(frame)))) + _FAR * measure.sigma(float(effect.blur.at(frame)))
        case Glow() | Blur():
            return _FAR * measure.sigma(float(effect.size.at(frame)))
        case Fringe():
            distance = abs(float(effect.distance.at(frame)))
            if effect.middle is None:
                return distance * measure.scale
            x, y = _middle(effect, frame, measure)
            return distance / 100 * max(hypot(px - x, py - y) for px in (box.left(), box.right()) for py in (box.top(), box.bottom()))
    return 0.0


def applied(effect: Effect, layer: Layer, frame: float, measure: Measure, mask_of: PaintMask) -> Layer:
    """A layer after an effect at a frame; `mask_of` paints steps on a layer of their own."""
    match effect:
        case Shadow():
            return _shadowed(effect, layer, frame, measure)
        case Glow():
            return _glowing(effect, layer, frame, measure)
        case Blur():
            sigma = measure.sigma(float(effect.size.at(frame)))
            return blurred(layer, sigma, None if effect.angle is None else measure.direction(float(effect.angle.at(frame))))
        case Fringe():
            return _fringed(effect, layer, frame, measure)
        case Mask():
            return _masked(effect, layer, frame, measure, mask_of)
        case Recolour():
            return Layer(layer.left, layer.top, recoloured(layer.pixels, effect.colours.at(frame)))


def _shadowed(effect: Shadow, layer: Layer, frame: float, measure: Measure) -> Layer:
    r, g, b, alpha = effect.colour.at(frame)
    alpha *= float(effect.opacity.at(frame))
    if alpha <= 0:
        return layer
    (dx, dy), sigma = measure.moved(float(effect.dx.at(frame)), float(effect.dy.at(frame))), measure.sigma(float(effect.blur.at(frame)))
    out = Layer.empty(layer.grown(hypot(dx, dy) + _FAR * sigma))
    colour = skia.Color4f(float(r), float(g), float(b), float(alpha)).toColor()
    out.draw(layer, skia.Paint(ImageFilter=skia.ImageFilters.DropShadow(dx, dy, sigma, sigma, colour)))
    return out


def _glowing(effect: Glow, layer: Layer, frame: float, measure: Measure) -> Layer:
    strength, sigma = float(effect.strength.at(frame)), measure.sigma(float(effect.size.at(frame)))
    r, g, b, alpha = (float(part) for part in effect.colour.at(frame))
    if strength <= 0 or alpha <= 0:
        return layer
    out = Layer.empty(layer.grown(_FAR * sigma))
    light = Layer.empty(out.box)
    inked = skia.ColorFilters.Blend(skia.Color4f(r, g, b, alpha).toColor(), skia.BlendMode.kSrcIn)
    light.draw(layer, skia.Paint(ColorFilter=inked, ImageFilter=_gaussian(sigma, sigma)))
    if effect.lies == "over":
        out.draw(layer)
    left = strength
    while left > 0:
        out.draw(light, skia.Paint(Alphaf=min(1.0, left), BlendMode=skia.BlendMode.kPlus))
        left -= 1
    if effect.lies == "behind":
        out.draw(layer)
    return out


def blurred(layer: Layer, sigma: float, direction: float | None) -> Layer:
    """A layer blurred by a Gaussian of a standard deviation in px, all round or in one direction (radians)."""
    if sigma < _SHARP:
        return layer
    out = Layer.empty(layer.grown(_FAR * sigma))
    if direction is None or abs(sin(direction)) < 1e-6:
        out.draw(layer, skia.Paint(ImageFilter=_gaussian(sigma, sigma if direction is None else 0.0)))
        return out
    if abs(cos(direction)) < 1e-6:
        out.draw(layer, skia.Paint(ImageFilter=_gaussian(0.0, sigma)))
        return out
    # Turned so that the direction goes to the right, blurred along it, and turned back.
    height, width = layer.pixels.shape[:2]
    room = ceil(hypot(width, height) / 2) + 1
    wide = room + ceil(_FAR * sigma) + 1
    turned, smeared = Layer.empty(skia.IRect.MakeLTRB(-room, -room, room, room)), Layer.empty(skia.IRect.MakeLTRB(-wide, -room, wide, room))
    x, y = layer.left + width / 2, layer.top + height / 2
    there = skia.Matrix().setTranslate(-x, -y).postRotate(-np.degrees(direction))
    _transformed(turned, layer, there)
    smeared.draw(turned, skia.Paint(ImageFilter=_gaussian(sigma, 0.0)))
    back = skia.Matrix().setRotate(np.degrees(direction)).postTranslate(x, y)
    _transformed(out, smeared, back)
    return out


def _transformed(on: Layer, other: Layer, matrix: skia.Matrix) -> None:
    """Paint one layer on another through a matrix between device pixels."""
    with on.canvas() as canvas:
        canvas.translate(-on.left, -on.top)
        canvas.concat(matrix)
        canvas.drawImage(other.image, other.left, other.top, _SMOOTH)


def _fringed(effect: Fringe, layer: Layer, frame: float, measure: Measure) -> Layer:
    distance = float(effect.distance.at(frame))
    if distance == 0:
        return layer
    out = layer.grown(reach_of(effect, frame, measure, skia.Rect.Make(layer.box)))
    red, green, blue = (Layer.empty(out) for _ in range(3))
    green.draw(layer)
    if effect.middle is None:
        angle = radians(float(effect.angle.at(frame)))
        dx, dy = measure.moved(distance * cos(angle), distance * sin(angle))
        red.draw(layer, dx=dx, dy=dy)
        blue.draw(layer, dx=-dx, dy=-dy)
    else:
        x, y = _middle(effect, frame, measure)
        for side, share in ((red, 1 + distance / 100), (blue, 1 - distance / 100)):
            _transformed(side, layer, skia.Matrix().setTranslate(-x, -y).postScale(share, share).postTranslate(x, y))
    cover = np.rint((red.pixels[..., 3].astype(np.uint16) + green.pixels[..., 3] + blue.pixels[..., 3]) / 3)
    green.pixels[..., 0], green.pixels[..., 2] = red.pixels[..., 0], blue.pixels[..., 2]
    green.pixels[..., 3] = np.maximum(cover, green.pixels[..., :3].max(axis=-1))
    return green


def _middle(effect: Fringe, frame: float, measure: Measure) -> tuple[float, float]:
    assert effect.middle is not None
    x, y = (float(part) for part in effect.middle.at(frame))
    point = measure.matrix.mapXY(x, y)
    return point.x(), point.y()


def _masked(effect: Mask[Step], layer: Layer, frame: float, measure: Measure, mask_of: PaintMask) -> Layer:
    sigma = measure.sigma(float(effect.feather.at(frame)))
    mask = mask_of(effect.steps, layer.grown(_FAR * sigma), frame)
    if effect.reads == "lightness":
        mask.pixels[..., 3] = np.rint(mask.pixels[..., :3] @ LIGHTNESS)
        mask.pixels[..., :3] = 0
    out = Layer(layer.left, layer.top, layer.pixels.copy())
    mode = skia.BlendMode.kDstIn if effect.side == "inside" else skia.BlendMode.kDstOut
    brush = skia.Paint(BlendMode=mode)
    if sigma >= _SHARP:
        brush.setImageFilter(_gaussian(sigma, sigma))
    out.draw(mask, brush)
    return out


def recoloured(pixels: Pixels, matrix: NDArray[np.float64]) -> Pixels:
    """A picture (RGBA, premultiplied) with other colours, by a matrix (12,) of three rows of four."""
    alpha = pixels[..., 3:].astype(np.float32) / 255
    straight = np.divide(pixels[..., :3] / np.float32(255), alpha, out=np.zeros(pixels[..., :3].shape, np.float32), where=alpha > 0)
    rows = np.asarray(matrix, np.float32).reshape(3, 4)
    changed = np.clip(straight @ rows[:, :3].T + rows[:, 3], 0, 1) * alpha
    found = np.empty_like(pixels)
    found[..., :3], found[..., 3] = np.rint(changed * 255), pixels[..., 3]
    return found


def _gaussian(across: float, down: float) -> skia.ImageFilter:
    return skia.ImageFilters.Blur(across, down) if max(across, down) >= _SHARP else skia.ImageFilters.Offset(0, 0)
