"""Pictures brought in: still ones, and moving ones taken apart into pages.

PNG, JPEG and WebP files are stored unchanged where possible. Files with an EXIF rotation, a colour profile or several pages become PNG pages in
sRGB. Sizes are read before pixels are decoded, so that no file can ask for more than it may.
"""

import io
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from PIL import Image, ImageCms, ImageOps, UnidentifiedImageError

from vine_swing.motion import MotionError
from vine_swing.motion.basics.report import Report, unreported
from vine_swing.motion.sound.containers import FILM_CODECS, SOUND_CODECS, demuxer_of, first_listed, opened

MOST_PIXELS = 40_000_000
#: Pages of one file, and the pixels they may have together.
MOST_PAGES, MOST_PIXELS_TOGETHER = 1_200, 1_000_000_000
#: Bytes of a file, and of all its pages.
MOST_BYTES, MOST_KEPT = 60_000_000, 300_000_000
#: What is kept as it is, by its name in Pillow.
_KEPT = ("PNG", "JPEG", "WEBP")
_STILL_READ = "bring PNG, JPEG, WebP, GIF or APNG pictures, or a short MP4 or WebM"


@dataclass(frozen=True)
class Page:
    """One page: PNG, JPEG or WebP data and its size in px."""

    data: bytes
    width: int
    height: int


@dataclass(frozen=True)
class BroughtIn:
    """The pages of a file, and how many seconds each is shown; None for a still picture."""

    pages: tuple[Page, ...]
    seconds: float | None


def bring_in(data: bytes, name: str, *, report: Report = unreported) -> BroughtIn:
    """Read a picture or a short film.

    Args:
        data: the file.
        name: what messages call it.
        report: called with the share of its pages that are read, 0…1.

    Raises:
        MotionError: if it is no picture, is damaged, or is too large; saying what would work.
    """
    if len(data) > MOST_BYTES:
        raise MotionError(f"'{name}' has {len(data) / 1e6:.0f} MB; at most {MOST_BYTES / 1e6:.0f} MB are taken, so make it smaller")
    if demuxer_of(data) in ("mov", "matroska"):
        return _film(data, name, report)
    try:
        with Image.open(io.BytesIO(data), formats=(*_KEPT, "GIF")) as image:
            return _still_or_moving(image, data, name, report)
    except UnidentifiedImageError as error:
        raise MotionError(f"'{name}' is no picture that can be read; {_STILL_READ}") from error
    except Image.DecompressionBombError as error:
        raise MotionError(f"'{name}' has too many pixels; at most {MOST_PIXELS / 1e6:.0f} million are taken") from error
    except (MotionError, MemoryError):
        raise
    except Exception as error:
        # Decoders meet damaged data with whatever they happen to stumble over: a KeyError here, a struct.error there.
        raise MotionError(f"'{name}' is damaged: it ends too early or is not what it says; save it again") from error


def check_picture(data: bytes, name: str, size: tuple[int, int]) -> None:
    """Refuse a kept picture whose file is no picture, or not of the size it should be; its pixels are not decoded.

    Raises:
        MotionError: saying which.
    """
    try:
        with Image.open(io.BytesIO(data), formats=_KEPT) as image:
            result = image.size
    except Exception as error:
        raise MotionError(f"'{name}' is no picture that can be read; {_STILL_READ}") from error
    if result != size:
        raise MotionError(f"the picture '{name}' should have {size[0]} × {size[1]} pixels, but its file has {result[0]} × {result[1]}; keep it again")
    _check(*result, 1, name)


def _still_or_moving(image: Any, data: bytes, name: str, report: Report) -> BroughtIn:
    count = getattr(image, "n_frames", 1)
    _check(image.width, image.height, count, name)
    if count == 1 and image.format in _KEPT and _is_plain(image):
        # Decoded once, so that a damaged file is informed of now.
        image.load()
        return BroughtIn((Page(data, image.width, image.height),), None)
    pages, durations = _Pages(name), []
    for number in range(count):
        image.seek(number)
        pages.add(_page(image))
        report((number + 1) / count)
        durations.append(float(image.info.get("duration", 100) or 100))
    return BroughtIn(pages.all(), None if count == 1 else sum(durations) / len(durations) / 1000)


def _is_plain(image: Any) -> bool:
    turned = image.getexif().get(0x0112, 1) not in (0, 1)
    return not turned and not image.info.get("icc_profile") and image.mode in ("RGB", "RGBA", "L", "LA", "P", "1")


def _page(image: Any) -> Page:
    """A page in sRGB, upright, as PNG."""
    upright: Any = ImageOps.exif_transpose(image)
    profile = image.info.get("icc_profile")
    rgba = upright.convert("RGBA") if upright.mode != "CMYK" else upright
    if profile:
        try:
            source = ImageCms.ImageCmsProfile(io.BytesIO(profile))
            if upright.mode in ("RGB", "RGBA", "CMYK"):
                alpha = rgba.getchannel("A") if rgba.mode == "RGBA" else None
                base = upright.convert("RGB") if upright.mode == "RGBA" else upright
                turned: Any = ImageCms.profileToProfile(base, source, ImageCms.createProfile("sRGB"), outputMode="RGB")
                rgba = turned.convert("RGBA")
                if alpha is not None:
                    rgba.putalpha(alpha)
        except (ImageCms.PyCMSError, OSError):
            # A profile that cannot be read is none.
            rgba = upright.convert("RGBA")
    return _png(rgba.convert("RGBA"))


def _png(image: Any) -> Page:
    written = io.BytesIO()
    image.save(written, "PNG", compress_level=4)
    return Page(written.getvalue(), image.width, image.height)


def reduced(data: bytes, wide: int) -> bytes:
    """A picture halved as often as leaves it at least `wide` pixels wide, as PNG; the same data where that is never. Each pixel is the mean of
    those it represents, as in the smaller pictures that painters make for themselves."""
    with Image.open(io.BytesIO(data), formats=_KEPT) as image:
        factor = 1
        while image.width // (2 * factor) >= wide and image.height // (2 * factor) >= 1:
            factor *= 2
        if factor == 1:
            return data
        whole = image.width
        if image.format == "JPEG":
            # Read at a part of its size, which is quicker by far.
            image.draft("RGB", (image.width // factor, image.height // factor))
            factor = max(1, round(factor * image.width / whole))
        # Colours are weighed by how much of them there is, so that see-through pixels do not bleed into the edges.
        small = image.convert("RGBa").reduce(factor).convert("RGBA")
    written = io.BytesIO()
    small.save(written, "PNG", compress_level=1)
    return written.getvalue()


class _Pages:
    """The pages of a file, as long as they are not too much to keep."""

    def __init__(self, name: str) -> None:
        self._name, self._pages, self._bytes = name, list[Page](), 0

    def add(self, page: Page) -> None:
        """Add a page.

        Raises:
            MotionError: if all pages together have too many bytes.
        """
        self._pages.append(page)
        self._bytes += len(page.data)
        if self._bytes > MOST_KEPT:
            raise MotionError(f"the pages of '{self._name}' take more than {MOST_KEPT / 1e6:.0f} MB; make it smaller or shorter")

    def all(self) -> tuple[Page, ...]:
        """Return all pages."""
        return tuple(self._pages)


def _film(data: bytes, name: str, report: Report) -> BroughtIn:
    try:
        with opened(data, demuxer_of(data) or "mov", (*FILM_CODECS, *SOUND_CODECS)) as film:
            stream = first_listed(film.streams.video, FILM_CODECS)
            if stream is None:
                raise MotionError(f"'{name}' has no pictures in it that can be read; {_STILL_READ}")
            rate = stream.average_rate or Fraction(24)
            seconds = (film.duration or 0) / 1e6
            expected = max(1, stream.frames or round(seconds * float(rate)))
            _check(stream.width, stream.height, expected if seconds < 86_400 else 1, name)
            pages = _frames(film, stream, name, expected, report)
    except (MotionError, MemoryError):
        raise
    except Exception as error:
        # As for pictures: a damaged stream may even lack what every stream has.
        raise MotionError(f"'{name}' is damaged, or of a kind that cannot be read; {_STILL_READ}") from error
    if not pages:
        raise MotionError(f"'{name}' has no pictures in it; {_STILL_READ}")
    return BroughtIn(pages, float(1 / rate))


def _frames(film: Any, stream: Any, name: str, expected: int, report: Report) -> tuple[Page, ...]:
    pages = _Pages(name)
    for number, frame in enumerate(film.decode(stream)):
        _check(frame.width, frame.height, number + 1, name)
        pages.add(_png(frame.to_image()))
        report((number + 1) / expected)
    return pages.all()


def _check(width: int, height: int, count: int, name: str) -> None:
    if width * height > MOST_PIXELS:
        raise MotionError(f"'{name}' has {width} × {height} pixels; at most {MOST_PIXELS / 1e6:.0f} million are taken, so make it smaller")
    if count > MOST_PAGES:
        raise MotionError(f"'{name}' has {count} pages; at most {MOST_PAGES} are taken, so cut it shorter")
    if width * height * count > MOST_PIXELS_TOGETHER:
        raise MotionError(f"'{name}' has {count} pages of {width} × {height} pixels; make it smaller or shorter")
