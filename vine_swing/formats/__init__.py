"""Open formats, one per file; EXPORTS is the table of those a scene's motion can be written in."""

from dataclasses import dataclass
from pathlib import Path
from typing import Protocol

from vine_swing.formats.export import Progress, always
from vine_swing.motion.baking.baked import Baked


class Writer(Protocol):
    """Writes all baked frames to a file; see write_mp4."""

    def __call__(self, baked: Baked, path: Path, *, progress: Progress = ..., scale: float = ...) -> None: ...


@dataclass(frozen=True)
class ExportFormat:
    """A format to export to, and what to say about it."""

    name: str
    label: str
    suffix: str
    media_type: str
    about: str
    write: Writer
    #: Whether nothing can be seen through its pictures, so that a see-through background needs a colour under it.
    opaque: bool = False


# Encoders and painter take a good part of a second to load, so each format is loaded when it is first written.


def _write_mp4(baked: Baked, path: Path, *, progress: Progress = always, scale: float = 1.0) -> None:
    from vine_swing.formats.mp4 import write_mp4

    write_mp4(baked, path, progress=progress, scale=scale)


def _write_gif(baked: Baked, path: Path, *, progress: Progress = always, scale: float = 1.0) -> None:
    from vine_swing.formats.gif import write_gif

    write_gif(baked, path, progress=progress, scale=scale)


def _write_flipbook(baked: Baked, path: Path, *, progress: Progress = always, scale: float = 1.0) -> None:
    from vine_swing.formats.flipbook import write_flipbook

    write_flipbook(baked, path, progress=progress, scale=scale)


def _write_webm(baked: Baked, path: Path, *, progress: Progress = always, scale: float = 1.0) -> None:
    from vine_swing.formats.film import write_film
    from vine_swing.formats.webm import WEBM

    write_film(WEBM, baked, path, progress=progress, scale=scale)


def _write_apng(baked: Baked, path: Path, *, progress: Progress = always, scale: float = 1.0) -> None:
    from vine_swing.formats.apng import APNG
    from vine_swing.formats.film import write_film

    write_film(APNG, baked, path, progress=progress, scale=scale)


def _write_webp(baked: Baked, path: Path, *, progress: Progress = always, scale: float = 1.0) -> None:
    from vine_swing.formats.film import write_film
    from vine_swing.formats.webp import WEBP

    write_film(WEBP, baked, path, progress=progress, scale=scale)


_ALL = [
    ExportFormat("mp4", "MP4 video", "mp4", "video/mp4", "H.264: plays anywhere, and can be cut with other film.", _write_mp4, opaque=True),
    ExportFormat("gif", "GIF", "gif", "image/gif", "Loops by itself in messages and on pages; 256 colours.", _write_gif),
    ExportFormat("webm", "WebM video", "webm", "video/webm", "VP9: for pages; see-through where the background is.", _write_webm),
    ExportFormat("apng", "Animated PNG", "apng", "image/apng", "Every colour, see-through; loops by itself on pages.", _write_apng),
    ExportFormat("webp", "Animated WebP", "webp", "image/webp", "Small, see-through; loops by itself on pages.", _write_webp),
    ExportFormat("flipbook", "Flipbook", "zip", "application/zip", "A see-through PNG picture a frame, in one ZIP file.", _write_flipbook),
]
EXPORTS: dict[str, ExportFormat] = {one.name: one for one in _ALL}
