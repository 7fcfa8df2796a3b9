"""Open formats, one per file; EXPORTS is the table of those a scene's motion can be written in."""

from dataclasses import dataclass
from pathlib import Path
from typing import Protocol

from vine_swing.formats.export import Progress
from vine_swing.formats.flipbook import write_flipbook
from vine_swing.formats.gif import write_gif
from vine_swing.formats.mp4 import write_mp4
from vine_swing.motion.bake import Baked


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


_ALL = [
    ExportFormat("mp4", "MP4 video", "mp4", "video/mp4", "H.264: plays anywhere, and can be cut with other film.", write_mp4),
    ExportFormat("gif", "GIF", "gif", "image/gif", "Loops by itself in messages and on pages; 256 colours.", write_gif),
    ExportFormat("flipbook", "Flipbook", "zip", "application/zip", "A see-through PNG picture a frame, in one ZIP file.", write_flipbook),
]
EXPORTS: dict[str, ExportFormat] = {one.name: one for one in _ALL}
