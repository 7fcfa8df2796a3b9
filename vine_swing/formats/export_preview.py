"""A look at an export before it is made: about how large it will be, and one frame of it, encoded as the whole will be."""

import io
import tempfile
import zipfile
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from pathlib import Path

import av

from vine_swing.formats import ExportFormat, film_of, format_of
from vine_swing.formats.engine import Painting, Windows
from vine_swing.formats.export import Pixels
from vine_swing.formats.film import Film
from vine_swing.formats.flipbook import png
from vine_swing.formats.options import ExportOptions
from vine_swing.motion.scene.model import Scene

#: Pictures that represent all when a size is estimated, and the first characters of a text that are shown.
TRIED, SHOWN = 6, 1200


@dataclass(frozen=True)
class ExportPreview:
    """An export preview. pictures: their number. seconds: duration; 0 for one picture. picture: a frame of it as PNG or SVG; or text: how
    it begins. remarks: what cannot be kept."""

    width: int
    height: int
    pictures: int
    seconds: float
    remarks: tuple[str, ...]
    picture: bytes | None
    media_type: str
    text: str | None


class _Once:
    """An engine that paints each picture once, however often it is asked for: a palette is chosen from the picture it is for."""

    def __init__(self) -> None:
        self._known: dict[tuple[float, float], Pixels] = {}

    def painted(self, painting: Painting, rows: Sequence[int]) -> Iterator[Pixels]:
        """See Engine."""
        windows = Windows(painting)
        for row in rows:
            key = float(painting.frames[row]), painting.scale
            if key not in self._known:
                self._known[key] = windows.paint(row)
            yield self._known[key]

    def close(self) -> None:
        """There is nothing to released."""


def preview_export(scene: Scene, options: ExportOptions, frame: float) -> ExportPreview:
    """A look at one frame of an export, the nearest to `frame` that it has.

    Raises:
        MotionError: if it cannot be made, saying why.
    """
    chosen, film = format_of(options), film_of(scene, options, _Once())
    row = int(abs(film.frames - frame).argmin())
    count, seconds = len(film.frames), 0.0 if format_of(options).single else len(film.frames) / film.fps
    with tempfile.TemporaryDirectory() as folder:
        item = Path(folder) / "one"
        remarks = chosen.write(film if not chosen.is_painted else film.part(slice(row, row + 1)), item)
        if not chosen.is_painted:
            text = None if chosen.name in ("bundle", "wav") else item.read_text(encoding="utf-8")[:SHOWN]
            return ExportPreview(*film.size, count, seconds, remarks, None, "", text)
        picture, media_type = _picture(chosen, item, film, row)
        return ExportPreview(*film.size, count, seconds, remarks, picture, media_type, None)


def estimated(scene: Scene, options: ExportOptions, frame: float) -> int:
    """About how many bytes an export will have: those of one picture, and for each other what a few more around it take.

    Raises:
        MotionError: if it cannot be made, saying why.
    """
    chosen, film = format_of(options), film_of(scene, options, _Once())
    # Without blur, which takes many times as long and changes sizes little.
    film = replace(film, scene=film.scene.copy_with(blur=None))
    with tempfile.TemporaryDirectory() as folder:
        item, few = Path(folder) / "one", Path(folder) / "few"
        if not chosen.is_painted or chosen.family == "page":
            chosen.write(film, item)
            return item.stat().st_size
        row = int(abs(film.frames - frame).argmin())
        first = max(0, min(row - TRIED // 2, len(film.frames) - TRIED))
        part = film.part(slice(first, first + TRIED))
        chosen.write(part.part(slice(0, 1)), item)
        size = item.stat().st_size
        if len(part.frames) == 1:
            return size
        chosen.write(part, few)
        each = max(0.0, (few.stat().st_size - size) / (len(part.frames) - 1))
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
    # Other formats look in a browser or in print as they are painted here.
    return png(next(iter(film.pictures([row])))), "image/png"
