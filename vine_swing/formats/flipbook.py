"""A flipbook: every frame a PNG picture (ISO/IEC 15948) of its own, see-through where nothing is painted, in one ZIP file."""

import zipfile
from pathlib import Path

import skia

from vine_swing.formats.export import Cancelled, Pixels, Progress, painted
from vine_swing.motion.bake import Baked
from vine_swing.picture.paint import Painter


def write_flipbook(baked: Baked, path: Path, *, progress: Progress = lambda done: True, scale: float = 1.0) -> None:
    """Paint every baked frame without its background, and put them into a ZIP file as `frame-0000.png` and so on.

    Raises:
        Cancelled: if `progress` returns False; the unfinished file is left for the caller to remove.
    """
    painter = Painter(baked, scale=scale, background=False)
    # PNG is compressed already.
    with zipfile.ZipFile(path, "w", zipfile.ZIP_STORED) as book:
        for number, pixels in enumerate(painted(painter, range(len(baked.frames)))):
            # The same pictures make the same file: no time of day is written down.
            book.writestr(zipfile.ZipInfo(f"frame-{number:04d}.png"), _png(pixels))
            if not progress(number + 1):
                raise Cancelled


def _png(pixels: Pixels) -> bytes:
    height, width, _ = pixels.shape
    info = skia.ImageInfo.Make(width, height, skia.kRGBA_8888_ColorType, skia.kPremul_AlphaType)
    return bytes(skia.Image.MakeRasterData(info, skia.Data.MakeWithCopy(pixels.tobytes()), width * 4).encodeToData(skia.kPNG, 100))
