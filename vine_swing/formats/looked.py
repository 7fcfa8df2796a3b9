"""A look at an export before it is made: about how large it will be, and one frame of it, encoded as the whole will be."""

import io
import tempfile
import zipfile
from dataclasses import dataclass
from pathlib import Path

import av

from vine_swing.formats import ExportFormat, film_of, format_of
from vine_swing.formats.engine import Here
from vine_swing.formats.film import Film
from vine_swing.formats.flipbook import png
from vine_swing.formats.options import ExportOptions
from vine_swing.motion.scene.model import Scene

#: Pictures that stand for all when a size is estimated, and the first characters of a text that are shown.
TRIED, SHOWN = 6, 1200


@dataclass(frozen=True)
class Looked:
    """What an export will be. size: bytes, estimated. pictures: how many. seconds: how long it plays; 0 for one picture. picture: a frame of it as
    PNG or SVG, or text: how it begins. remarks: what cannot be kept."""

    width: int
    height: int
    pictures: int
    seconds: float
    size: int
    remarks: tuple[str, ...]
    picture: bytes | None
    media_type: str
    text: str | None


def look(scene: Scene, options: ExportOptions, frame: float) -> Looked:
    """A look at one frame of an export, the nearest to `frame` that it has.

    Raises:
        MotionError: if it cannot be made, saying why.
    """
    chosen, film = format_of(options), film_of(scene, options, Here())
    row = int(abs(film.frames - frame).argmin())
    with tempfile.TemporaryDirectory() as folder:
        one, few = Path(folder) / "one", Path(folder) / "few"
        if chosen.family == "data":
            chosen.write(film, one)
            text = None if chosen.name == "bundle" else one.read_text(encoding="utf-8")[:SHOWN]
            return _looked(film, chosen, one.stat().st_size, (), None, "", text)
        remarks = chosen.write(film.part(slice(row, row + 1)), one)
        size = one.stat().st_size
        if chosen.family == "page" or (len(film.frames) > 1 and chosen.name != "sheet"):
            size = _estimated(film, chosen, row, size, few)
        picture, media_type = _picture(chosen, one, film, row)
        return _looked(film, chosen, size, remarks, picture, media_type, None)


def _estimated(film: Film, chosen: ExportFormat, row: int, size: int, few: Path) -> int:
    """The size of one picture, and of each other what a few more of them take."""
    first = max(0, min(row - TRIED // 2, len(film.frames) - TRIED))
    part = film.part(slice(first, first + TRIED))
    chosen.write(part, few)
    each = max(0.0, (few.stat().st_size - size) / max(1, len(part.frames) - 1))
    return round(size + each * (len(film.frames) - 1))


def _picture(chosen: ExportFormat, file: Path, film: Film, row: int) -> tuple[bytes, str]:
    """The picture in a file of one frame."""
    if chosen.suffix == "svg":
        return file.read_bytes(), "image/svg+xml"
    if chosen.suffix == "png":
        return file.read_bytes(), "image/png"
    if chosen.name == "flipbook":
        with zipfile.ZipFile(file) as book:
            return book.read(book.namelist()[0]), "image/png"
    if chosen.name in ("mp4", "gif", "apng", "webp"):
        from PIL import Image

        packed = io.BytesIO()
        if chosen.name == "mp4":
            with av.open(str(file)) as played:
                next(played.decode(video=0)).to_image().save(packed, "PNG")  # type: ignore[no-untyped-call]
        else:
            with Image.open(file) as image:
                image.convert("RGBA").save(packed, "PNG")
        return packed.getvalue(), "image/png"
    # What a browser or a printer will make of the others is what is painted.
    return png(next(iter(film.pictures([row])))), "image/png"


def _looked(
    film: Film, chosen: ExportFormat, size: int, remarks: tuple[str, ...], picture: bytes | None, media_type: str, text: str | None
) -> Looked:
    count = len(film.frames)
    seconds = 0.0 if chosen.single else count / film.fps
    return Looked(*film.size, count, seconds, size, remarks, picture, media_type, text)
