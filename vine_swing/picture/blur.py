"""Motion blur: each frame as the mean of moments while a shutter is open, averaged in linear light (IEC 61966-2-1 for sRGB)."""

from collections.abc import Collection, Iterable
from dataclasses import replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.bake import bake
from vine_swing.motion.baking.baked import Baked
from vine_swing.motion.basics import matrix
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.timeline import MotionBlur
from vine_swing.picture.listing import paint_list
from vine_swing.picture.paint import Painter, painted_size
from vine_swing.picture.paint_list import Group, Instance, Step
from vine_swing.picture.tracks import Track

Pixels = NDArray[np.uint8]
#: Moments baked at once: more frames share what a bake costs once.
_AT_ONCE = 520
_UNMOVED = Track("", "", matrix.IDENTITY)

_CODES = np.arange(256) / 255
_LIGHT = np.where(_CODES <= 0.04045, _CODES / 12.92, ((_CODES + 0.055) / 1.055) ** 2.4)
#: From a code of sRGB to linear light: as a share of 1, and in steps of 1/65535, and from those back to the code.
_LINEAR, _LINEAR_STEPS = _LIGHT.astype(np.float32), np.rint(_LIGHT * 65535).astype(np.uint64)
#: Two codes at once, as they are in memory, to the steps of both in the two halves of a number: half as many to look up.
_PAIRS = np.ascontiguousarray(_LINEAR_STEPS[None, :] | (_LINEAR_STEPS[:, None] << np.uint64(32))).reshape(-1)
_STEPS = np.arange(65536) / 65535
_SRGB = np.rint(255 * np.where(_STEPS <= 0.0031308, _STEPS * 12.92, 1.055 * _STEPS ** (1 / 2.4) - 0.055)).astype(np.uint8)


def painter_of(baked: Baked, *, scale: float = 1.0, background: bool = True) -> "FramePainter":
    """What paints the frames of a baked scene, blurred where the scene says so."""
    if baked.scene.blur is None:
        return Painter(baked, scale=scale, background=background)
    return BlurredPainter(baked, baked.scene.blur, scale=scale, background=background)


def moments(frame: float, blur: MotionBlur) -> NDArray[np.float64]:
    """The moments that make a frame, spread evenly while the shutter is open around it: (samples,)."""
    shares = (np.arange(blur.samples) + 0.5) / blur.samples - 0.5
    found: NDArray[np.float64] = frame + shares * blur.shutter / 360
    return found


class BlurredPainter:
    """Paints frames as a painter does, each as the mean of the moments around it."""

    def __init__(self, baked: Baked, blur: MotionBlur, *, scale: float = 1.0, background: bool = True) -> None:
        self._baked, self._blur, self._scale, self._background = baked, blur, scale, background
        self._sharp = sharp_objects(baked.scene)
        self.width, self.height = painted_size(baked.scene.size, scale)
        #: The frames whose moments are baked, and what paints them.
        self._known: range = range(0)
        self._painter: Painter | None = None

    def frame(self, index: int) -> Pixels:
        """The picture at row `index` of the baked frames: RGBA, premultiplied, (height, width, 4)."""
        begin, painter = self._moments_of(index)
        return mean_of(painter.frame(begin + n) for n in range(self._blur.samples))

    def paint_into(self, memory: Any, index: int, *, row_bytes: int = 0) -> None:
        """As `frame`, into a writable buffer whose rows lie `row_bytes` apart (as wide as they are, if left out)."""
        rows = np.frombuffer(memory, np.uint8).reshape(self.height, row_bytes or 4 * self.width)
        rows[:, : 4 * self.width] = self.frame(index).reshape(self.height, 4 * self.width)

    def _moments_of(self, index: int) -> tuple[int, Painter]:
        """The first row of a frame's moments, and what paints them; many frames are baked together."""
        each = self._blur.samples + 1
        if self._painter is None or index not in self._known:
            count = max(1, _AT_ONCE // each)
            self._known = range(index, min(index + count, len(self._baked.frames)))
            frames = [float(self._baked.frames[n]) for n in self._known]
            grid = np.concatenate([[*moments(frame, self._blur), frame] for frame in frames])
            listed = paint_list(bake(self._baked.scene, grid))
            if self._sharp:
                # Sharp objects are painted at the frame itself, the last of its moments.
                rows = np.arange(len(grid))
                listed = replace(listed, steps=_sharpened(listed.steps, self._sharp, rows - rows % each + self._blur.samples))
            self._painter = Painter(listed, scale=self._scale, background=self._background)
        return (index - self._known.start) * each, self._painter


FramePainter = Painter | BlurredPainter


def mean_of(pictures: Iterable[Pixels]) -> Pixels:
    """The mean of pictures (RGBA, premultiplied) in linear light."""
    solid: NDArray[np.uint64] | None = None
    thin: NDArray[np.float32] | None = None
    steps: NDArray[np.uint64] | None = None
    count = 0
    for pixels in pictures:
        count += 1
        if (pixels[..., 3] == 255).all():
            # Opaque pixels, as in most pictures, are summed in whole numbers: half the work.
            steps = np.take(_PAIRS, pixels.view("<u2"), out=steps, mode="clip")
            solid = steps.copy() if solid is None else np.add(solid, steps, out=solid)
        else:
            light = _light(pixels)
            thin = light if thin is None else np.add(thin, light, out=thin)
    summed = solid.view("<u4") if solid is not None else None
    if thin is None:
        assert summed is not None
        # The alpha of 255 is as many steps as the full light.
        found: Pixels = _SRGB[(summed + np.uint32(count // 2)) // np.uint32(count)]
        return found
    total = thin / count if summed is None else (thin + summed.astype(np.float32) / 65535) / count
    cover = total[..., 3:]
    with np.errstate(divide="ignore", invalid="ignore"):
        straight = np.where(cover > 0, total[..., :3] / cover, 0.0)
    found = np.empty(total.shape, np.uint8)
    found[..., :3] = np.rint(_SRGB[np.clip(np.rint(straight * 65535), 0, 65535).astype(np.uint16)] * cover)
    found[..., 3:] = np.rint(cover * 255)
    return found


def _light(pixels: Pixels) -> NDArray[np.float32]:
    """A picture in linear light, each colour multiplied by how much it covers."""
    cover = pixels[..., 3:].astype(np.float32) / np.float32(255)
    light = np.empty(pixels.shape, np.float32)
    straight = np.divide(pixels[..., :3], cover, out=np.zeros((*cover.shape[:2], 3), np.float32), where=cover > 0)
    light[..., :3] = _LINEAR[np.clip(np.rint(straight), 0, 255).astype(np.uint8)] * cover
    light[..., 3:] = cover
    return light


def sharp_objects(scene: Scene) -> set[str]:
    """The ids of the objects whose motion is not blurred: themselves, or something they are attached to."""
    return {thing.id for thing in scene.objects if any(not one.blurred for one in scene.upwards(thing.id))}


def _sharpened(steps: tuple[Step, ...], sharp: Collection[str], rows: NDArray[np.intp]) -> tuple[Step, ...]:
    """Steps of which those of some objects are painted, at each moment, as they are at another: at that of its row in `rows` (n,)."""
    at = Track("", "", rows.astype(float))

    def one(step: Step) -> Step:
        if step.id in sharp:
            return Instance(step.id, (step,), _UNMOVED, frames=at, shown=step.shown)
        return replace(step, children=tuple(map(one, step.children))) if isinstance(step, Group) else step

    return tuple(map(one, steps))
