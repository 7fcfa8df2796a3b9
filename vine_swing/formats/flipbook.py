"""A flipbook: every frame a PNG picture (ISO/IEC 15948) of its own, see-through where nothing is painted, in one ZIP file."""

import zipfile
from fractions import Fraction
from pathlib import Path

import av

from vine_swing.formats.export import Cancelled, Pixels, Progress, painted
from vine_swing.formats.straight import straight
from vine_swing.motion.baking.baked import Baked
from vine_swing.picture.blur import painter_of


def write_flipbook(baked: Baked, path: Path, *, progress: Progress = lambda done: True, scale: float = 1.0) -> None:
    """Paint every baked frame without its background, and put them into a ZIP file as `frame-0000.png` and so on.

    Raises:
        Cancelled: if `progress` returns False; the unfinished file is left for the caller to remove.
    """
    painter = painter_of(baked, scale=scale, background=False)
    # PNG is compressed already.
    with zipfile.ZipFile(path, "w", zipfile.ZIP_STORED) as book:
        for number, pixels in enumerate(painted(painter, range(len(baked.frames)))):
            # The same pictures make the same file: no time of day is written down.
            book.writestr(zipfile.ZipInfo(f"frame-{number:04d}.png"), _png(pixels))
            if not progress(number + 1):
                raise Cancelled


def _png(pixels: Pixels) -> bytes:
    """One picture: PNG keeps colours as they are, where painting has them multiplied by how much they cover."""
    height, width, _ = pixels.shape
    encoder = av.CodecContext.create("png", "w")
    assert isinstance(encoder, av.VideoCodecContext)
    encoder.width, encoder.height, encoder.pix_fmt, encoder.time_base = width, height, "rgba", Fraction(1, 1)
    frame = av.VideoFrame.from_ndarray(straight(pixels), format="rgba")
    frame.pts = 0
    return b"".join(bytes(packet) for packet in [*encoder.encode(frame), *encoder.encode(None)])
