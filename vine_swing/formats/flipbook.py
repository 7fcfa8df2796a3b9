"""A flipbook: every frame a PNG picture (ISO/IEC 15948) of its own in one ZIP file; and one such picture by itself."""

import zipfile
from fractions import Fraction
from pathlib import Path

import av

from vine_swing.formats.export import Cancelled, Pixels, Progress, never_cancelled
from vine_swing.formats.film import Film
from vine_swing.formats.straight import straight


def write_flipbook(film: Film, path: Path, *, progress: Progress = never_cancelled) -> tuple[str, ...]:
    """Paint every picture, without a background unless one was asked for, and put them into a ZIP file as `frame-0000.png` and so on.

    Raises:
        Cancelled: if `progress` returns False; the unfinished file is left for the caller to remove.
    """
    digits = max(4, len(str(len(film.frames) - 1)))
    # PNG is compressed already.
    with zipfile.ZipFile(path, "w", zipfile.ZIP_STORED) as book:
        for number, pixels in enumerate(film.pictures()):
            # The same pictures make the same file: no time of day is written down.
            book.writestr(zipfile.ZipInfo(f"frame-{number:0{digits}d}.png"), png(pixels))
            if not progress(number + 1):
                raise Cancelled
    return ()


def write_png(film: Film, path: Path, *, progress: Progress = never_cancelled) -> tuple[str, ...]:
    """One picture: the first of the film."""
    path.write_bytes(png(next(iter(film.pictures([0])))))
    progress(1)
    return ()


def png(pixels: Pixels) -> bytes:
    """One picture: PNG keeps colours as they are, where painting has them multiplied by how much they cover."""
    height, width, _ = pixels.shape
    encoder = av.CodecContext.create("png", "w")
    assert isinstance(encoder, av.VideoCodecContext)
    encoder.width, encoder.height, encoder.pix_fmt, encoder.time_base = width, height, "rgba", Fraction(1, 1)
    frame = av.VideoFrame.from_ndarray(straight(pixels), format="rgba")
    frame.pts = 0
    return b"".join(bytes(packet) for packet in [*encoder.encode(frame), *encoder.encode(None)])
