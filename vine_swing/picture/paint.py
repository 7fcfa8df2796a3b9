"""Painting frames with Skia: an interpreter of the paint list, which decides nothing that the list does not say."""

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from math import ceil, floor, hypot
from typing import Any

import numpy as np
import skia
from numpy.typing import NDArray

from vine_swing.motion.baking.baked import Baked
from vine_swing.motion.basics.values import Blend
from vine_swing.motion.curves.combining import skia_path
from vine_swing.picture.fingerprints import Fingerprints
from vine_swing.picture.listing import paint_list
from vine_swing.picture.paint_effects import Layer, Measure, applied, reach_of
from vine_swing.picture.paint_list import Copies, Fill, Gradient, Group, Instance, PaintList, Picture, Step, Stroke
from vine_swing.picture.tracks import OutlineTrack, Track

_BLENDS = {
    "normal": skia.BlendMode.kSrcOver,
    "multiply": skia.BlendMode.kMultiply,
    "screen": skia.BlendMode.kScreen,
    "overlay": skia.BlendMode.kOverlay,
    "darken": skia.BlendMode.kDarken,
    "lighten": skia.BlendMode.kLighten,
    "color-dodge": skia.BlendMode.kColorDodge,
    "color-burn": skia.BlendMode.kColorBurn,
    "hard-light": skia.BlendMode.kHardLight,
    "soft-light": skia.BlendMode.kSoftLight,
    "difference": skia.BlendMode.kDifference,
    "exclusion": skia.BlendMode.kExclusion,
    "hue": skia.BlendMode.kHue,
    "saturation": skia.BlendMode.kSaturation,
    "color": skia.BlendMode.kColor,
    "luminosity": skia.BlendMode.kLuminosity,
}


#: Between pixels: straight from one to the next, from pictures made half as large as often as it takes. Browsers call it quality "medium".
_SMOOTH = skia.SamplingOptions(skia.FilterMode.kLinear, skia.MipmapMode.kLinear)
#: Half of what is repeated without end, as far as layers are concerned: px, beyond every picture.
_ENDLESS = 1e7
#: Bytes of layers that are kept while they rest.
_MOST_HELD = 300_000_000
#: Layers go on this many px beyond what is needed of them: edges that are cut are not smoothed as others.
_ROOM = 8
#: Gradients whose ends lie nearer, px, have no length.
_NOWHERE = 1e-6
_CRISP = skia.SamplingOptions(skia.FilterMode.kNearest)


def painted_size(size: tuple[int, int], scale: float) -> tuple[int, int]:
    """The width and height in pixels at which a picture of a size is painted."""
    return max(1, round(size[0] * scale)), max(1, round(size[1] * scale))


class Painter:
    """Paints any frame of one baked scene, or of a paint list, at its size times `scale`."""

    def __init__(self, painted: Baked | PaintList, *, scale: float = 1.0, background: bool = True) -> None:
        """Without its background, the picture is see-through where nothing is painted."""
        self.list = painted if isinstance(painted, PaintList) else paint_list(painted)
        self.width, self.height = painted_size(self.list.size, scale)
        self._scale = scale
        self._background = _colour(self.list.background, 1.0) if background else skia.Color4f(0, 0, 0, 0)
        self._assets = _Assets()

    def frame(self, index: int) -> NDArray[np.uint8]:
        """The picture at row `index` of the baked frames: RGBA, premultiplied, shape (height, width, 4)."""
        pixels = np.zeros((self.height, self.width, 4), np.uint8)
        self.paint_into(pixels, index)
        return pixels

    def paint_into(self, memory: Any, index: int, *, row_bytes: int = 0) -> None:
        """As `frame`, into a writable buffer the caller keeps, whose rows lie `row_bytes` apart (as wide as they are, if left out)."""
        info = skia.ImageInfo.Make(self.width, self.height, skia.kRGBA_8888_ColorType, skia.kPremul_AlphaType)
        surface = skia.Surface.MakeRasterDirect(info, memory, row_bytes or 4 * self.width)
        canvas = surface.getCanvas()
        canvas.clear(self._background)
        canvas.scale(self._scale, self._scale)
        _Interpreter(canvas, self._assets).all(self.list.steps, index)


@dataclass
class _Assets:
    """Skia's own form of outlines and pictures, made when they are first painted."""

    paths: dict[tuple[int, int, bool], skia.Path] = field(default_factory=dict)
    fingerprints: Fingerprints = field(default_factory=Fingerprints)
    #: Of groups with effects, what they were last painted from, and their layer where they were painted from that more than once.
    layers: dict[int, tuple[tuple[float, ...], Layer | None]] = field(default_factory=dict)
    images: dict[int, list[skia.Image]] = field(default_factory=dict)

    @property
    def held(self) -> int:
        """The bytes of all layers that are kept."""
        return sum(layer.pixels.nbytes for _, layer in self.layers.values() if layer is not None)

    def path(self, track: OutlineTrack, frame: float, rule: str = "nonzero") -> skia.Path:
        """The outline of a track at a frame. The list painted keeps its tracks alive, so that their identity is their own."""
        index, even_odd = track.index_at(frame), rule == "evenodd"
        key = (id(track.series), index, even_odd)
        if key not in self.paths:
            path = self.paths[key] = skia_path(track.series.outlines[index])
            path.setFillType(skia.PathFillType.kEvenOdd if even_odd else skia.PathFillType.kWinding)
        return self.paths[key]

    def image(self, step: Picture, frame: float) -> skia.Image:
        """The picture a step shows at a frame."""
        if id(step.pictures) not in self.images:
            self.images[id(step.pictures)] = [skia.Image.MakeFromEncoded(data) for data in step.pictures]
        images = self.images[id(step.pictures)]
        return images[floor(float(step.page.at(frame))) % len(images)]


class _Interpreter:
    """Paints steps on a canvas, one after the other."""

    def __init__(self, canvas: skia.Canvas, assets: _Assets) -> None:
        self._canvas, self._assets = canvas, assets

    def all(self, steps: tuple[Step, ...], frame: float) -> None:
        """Paint those of some steps that are shown."""
        for step in steps:
            if step.shown and (opacity := _opacity(step.opacity, frame)) > 0:
                self.paint(step, frame, opacity)

    def paint(self, step: Step, frame: float, opacity: float) -> None:
        """Paint one step."""
        match step:
            case Fill():
                brush = skia.Paint(Color4f=_colour(step.colour.at(frame), opacity), AntiAlias=True)
                _tint(brush, step.gradient, frame, opacity)
                with self._within(step.matrix, frame):
                    self._canvas.drawPath(self._assets.path(step.outline, frame, rule=step.rule), brush)
            case Stroke():
                if (width := float(step.width.at(frame))) > 0:
                    with self._within(step.matrix, frame):
                        self._canvas.drawPath(self._assets.path(step.outline, frame), _pen(step, frame, opacity, width))
            case Picture():
                with self._within(step.matrix, frame):
                    self._picture(step, frame, opacity)
            case Group() if step.effects:
                self._with_effects(step, frame, opacity)
            case Group():
                self._layer(step.children, frame, opacity, step.blend)
            case Instance():
                with self._within(step.matrix, frame):
                    self._layer(step.children, step.own_frame(frame), opacity, "normal")
            case Copies():
                self._layer(tuple(step.in_order(frame)), frame, opacity, "normal")

    def _picture(self, step: Picture, frame: float, opacity: float) -> None:
        """Paint a picture in the space of its step."""
        width, height = (float(side) for side in step.size.at(frame))
        image, brush = self._assets.image(step, frame), skia.Paint(Alphaf=opacity, AntiAlias=True)
        sampling, box = _SMOOTH if step.smooth else _CRISP, skia.Rect.MakeXYWH(-width / 2, -height / 2, width, height)
        if not (width > 0 and height > 0):
            return
        if not any(step.endless):
            whole = box
            if step.fit == "cover":
                share = max(width / image.width(), height / image.height())
                across, down = image.width() * share, image.height() * share
                whole = skia.Rect.MakeXYWH(-across / 2, -down / 2, across, down)
                self._canvas.clipRect(box, True)
            self._canvas.drawImageRect(image, whole, sampling, brush)
            return
        placed = skia.Matrix.MakeRectToRect(skia.Rect.MakeWH(image.width(), image.height()), box, skia.Matrix.kFill_ScaleToFit)
        brush.setShader(image.makeShader(skia.TileMode.kRepeat, skia.TileMode.kRepeat, sampling, placed))
        seen = self._canvas.getLocalClipBounds()
        sides = (seen.left(), seen.top(), seen.right(), seen.bottom())
        across, down = step.endless
        left, right = (sides[0], sides[2]) if across else (box.left(), box.right())
        top, bottom = (sides[1], sides[3]) if down else (box.top(), box.bottom())
        self._canvas.drawRect(skia.Rect.MakeLTRB(left, top, right, bottom), brush)

    def _layer(self, steps: tuple[Step, ...], frame: float, opacity: float, blend: Blend) -> None:
        """Paint some steps as one picture; on a layer of their own only where that shows."""
        if opacity >= 1 and blend == "normal":
            self.all(steps, frame)
            return
        # No larger than what is painted on it: a whole frame for every leaf that fades would cost more than all the rest.
        # Two pixels of the picture more all round, for edges that are smoothed.
        margin = 2 / max(self._canvas.getTotalMatrix().getMinScale(), 0.01)
        box = self._extent(steps, frame).makeOutset(margin, margin)
        self._canvas.saveLayer(box, skia.Paint(Alphaf=opacity, BlendMode=_BLENDS[blend]))
        self.all(steps, frame)
        self._canvas.restore()

    def _with_effects(self, step: Group, frame: float, opacity: float) -> None:
        """Paint a group on a layer of its own, apply its effects there, and lay it on."""
        total = self._canvas.getTotalMatrix()
        measures = [Measure(skia.Matrix.Concat(total, _matrix(effect.matrix.at(frame))) if effect.matrix else total) for effect in step.effects]
        box = total.mapRect(self._extent(step.children, frame))
        reach = sum(reach_of(effect, frame, measure, box) for effect, measure in zip(step.effects, measures, strict=True))
        # Objects farther off the canvas than effects reach are never visible.
        room = ceil(reach) + _ROOM
        around = self._canvas.getDeviceClipBounds().makeOutset(room, room)
        if not box.intersect(skia.Rect.Make(around)):
            return
        layer = self._kept(step, frame, box.roundOut().makeOutset(1, 1), measures)
        self._canvas.save()
        self._canvas.resetMatrix()
        self._canvas.drawImage(layer.image, layer.left, layer.top, _CRISP, skia.Paint(Alphaf=opacity, BlendMode=_BLENDS[step.blend]))
        self._canvas.restore()

    def _kept(self, step: Group, frame: float, box: skia.IRect, measures: list[Measure]) -> Layer:
        """The layer of a group after its effects: the one from before, if what is in it rests."""
        total = [self._canvas.getTotalMatrix().get(n) for n in range(6)]
        fingerprint = (*total, box.left(), box.top(), box.right(), box.bottom(), *self._assets.fingerprints.of(step, frame))
        before, kept = self._assets.layers.get(id(step), ((), None))
        if before == fingerprint and kept is not None:
            return kept
        layer = self._painted(step.children, box, frame)
        for effect, measure in zip(step.effects, measures, strict=True):
            layer = applied(effect, layer, frame, measure, self._painted)
        # Layers of what moves would only take memory.
        rests = before == fingerprint and self._assets.held + layer.pixels.nbytes <= _MOST_HELD
        self._assets.layers[id(step)] = fingerprint, layer if rests else None
        return layer

    def _painted(self, steps: tuple[Step, ...], box: skia.IRect, frame: float) -> Layer:
        """Some steps on a layer of their own, of the device pixels in a box."""
        layer, total = Layer.empty(box), self._canvas.getTotalMatrix()
        with layer.canvas() as canvas:
            canvas.translate(-box.left(), -box.top())
            canvas.concat(total)
            _Interpreter(canvas, self._assets).all(steps, frame)
        return layer

    def _extent(self, steps: tuple[Step, ...], frame: float) -> skia.Rect:
        """The box that some steps can paint in, in the space they are in."""
        whole = skia.Rect.MakeEmpty()
        for step in steps:
            match step:
                case Group():
                    box = self._extent(step.children, frame)
                    for effect in step.effects:
                        reach = reach_of(effect, frame, Measure(_matrix(effect.matrix.at(frame)) if effect.matrix else skia.Matrix()), box)
                        box = box.makeOutset(reach, reach)
                    whole.join(box)
                    continue
                case Copies():
                    whole.join(self._extent(step.instances, frame))
                    continue
                case Instance():
                    box = self._extent(step.children, step.own_frame(frame))
                case Picture():
                    width, height = (float(side) / 2 for side in step.size.at(frame))
                    across, down = step.endless
                    wide, high = _ENDLESS if across else width, _ENDLESS if down else height
                    box = skia.Rect.MakeLTRB(-wide, -high, wide, high)
                case Fill() | Stroke():
                    box = self._assets.path(step.outline, frame).getBounds()
                    if isinstance(step, Stroke):
                        half = max(0.0, float(step.width.at(frame))) / 2 * step.reach
                        box = box.makeOutset(half, half)
            whole.join(_matrix(step.matrix.at(frame)).mapRect(box))
        return whole

    @contextmanager
    def _within(self, matrix: Track, frame: float) -> Iterator[None]:
        """In the space that a matrix maps from."""
        self._canvas.save()
        self._canvas.concat(_matrix(matrix.at(frame)))
        try:
            yield
        finally:
            self._canvas.restore()


_CAPS = {"round": skia.Paint.kRound_Cap, "butt": skia.Paint.kButt_Cap, "square": skia.Paint.kSquare_Cap}
_JOINS = {"round": skia.Paint.kRound_Join, "miter": skia.Paint.kMiter_Join, "bevel": skia.Paint.kBevel_Join}


def _pen(step: Stroke, frame: float, opacity: float, width: float) -> skia.Paint:
    pen = skia.Paint(Color4f=_colour(step.colour.at(frame), opacity), AntiAlias=True, Style=skia.Paint.kStroke_Style, StrokeWidth=width)
    _tint(pen, step.gradient, frame, opacity)
    pen.setStrokeJoin(_JOINS[step.join])
    pen.setStrokeCap(_CAPS[step.cap])
    # As SVG and the canvas of pages have it.
    pen.setStrokeMiter(10)
    if step.dash:
        pen.setPathEffect(skia.DashPathEffect.Make(list(step.dash), float(step.offset.at(frame)) if step.offset is not None else 0.0))
    return pen


def _tint(brush: skia.Paint, gradient: Gradient | None, frame: float, opacity: float) -> None:
    """Have a brush paint with a gradient, if there is one."""
    if gradient is None:
        return
    x0, y0, x1, y1 = (float(end.at(frame)) for end in gradient.ends)
    colours = [_colour(written.at(frame), 1.0) for _, written in gradient.stops]
    places = np.maximum.accumulate([min(max(float(place.at(frame)), 0.0), 1.0) for place, _ in gradient.stops]).tolist()
    brush.setColor4f(skia.Color4f(0, 0, 0, opacity))
    if hypot(x1 - x0, y1 - y0) < _NOWHERE:
        # As SVG has it, a gradient of no length is its last colour.
        r, g, b, a = (getattr(colours[-1], part) for part in ("fR", "fG", "fB", "fA"))
        brush.setColor4f(skia.Color4f(r, g, b, a * opacity))
        return
    shades = [colour.toColor() for colour in colours]
    if gradient.kind == "linear":
        brush.setShader(skia.GradientShader.MakeLinear([(x0, y0), (x1, y1)], shades, places))
    else:
        brush.setShader(skia.GradientShader.MakeRadial((x0, y0), hypot(x1 - x0, y1 - y0), shades, places))


def _matrix(row: NDArray[np.float64]) -> skia.Matrix:
    a, b, c, d, e, f = (float(part) for part in row)
    return skia.Matrix.MakeAll(a, c, e, b, d, f, 0, 0, 1)


def _opacity(tracks: tuple[Track, ...], frame: float) -> float:
    opacity = 1.0
    for track in tracks:
        opacity *= float(track.at(frame))
    return min(1.0, opacity)


def _colour(rgba: NDArray[np.float64], opacity: float) -> skia.Color4f:
    r, g, b, a = (float(part) for part in rgba)
    return skia.Color4f(r, g, b, a * opacity)
