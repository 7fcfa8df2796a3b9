"""One export from beginning to end: a scene and options become a file, or nothing at all.

What is written goes to a file beside the one asked for, which takes its name only when it is whole: nobody ever finds half a file.
"""

import base64
import errno
from dataclasses import dataclass
from pathlib import Path

import av

from vine_swing.formats import film_of, format_of
from vine_swing.formats.engine import Engine
from vine_swing.formats.export import Progress, never_cancelled
from vine_swing.formats.film import Film
from vine_swing.formats.options import ExportOptions
from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.scene.model import Scene

#: What is added to the name of a file that is not whole yet.
UNFINISHED = ".part"
#: Errors of a system that has no room for what is written: a full disk, a quota, the largest file allowed.
_NO_ROOM = {errno.ENOSPC, errno.EDQUOT, errno.EFBIG}
#: The width of the pictures that lists show, px.
_STILL = 192


@dataclass(frozen=True)
class Written:
    """The result of an export: remarks, the size of the file in bytes, and a PNG thumbnail from its middle."""

    remarks: tuple[str, ...]
    size: int
    still: bytes


def write(scene: Scene, options: ExportOptions, out: Path, *, engine: Engine | None = None, progress: Progress = never_cancelled) -> Written:
    """Export a scene.

    Raises:
        MotionError: saying what is wrong with what was asked for, or that there is no room for the file.
        Cancelled: if `progress` returns False. In every case, no file is left.
    """
    chosen, film = format_of(options), film_of(scene, options, engine)
    part = out.with_name(out.name + UNFINISHED)
    try:
        remarks = chosen.write(film, part, progress=progress)
        part.replace(out)
    except (OSError, av.FFmpegError) as error:
        part.unlink(missing_ok=True)
        if error.errno in _NO_ROOM:
            raise MotionError(f"there is no room left on the disk for '{out.name}'; free some, or take fewer frames or a smaller size") from error
        raise MotionError(f"'{out.name}' could not be written: {error.strerror or error}") from error
    except BaseException:
        part.unlink(missing_ok=True)
        raise
    return Written(remarks, out.stat().st_size, still_of(film))


def still_of(film: Film) -> bytes:
    """A small PNG picture from the middle of a film."""
    from vine_swing.formats.flipbook import png

    middle = film.part(slice(len(film.frames) // 2, len(film.frames) // 2 + 1))
    small = Film(middle.scene, middle.options.copy_with(scale=min(1.0, _STILL / film.scene.size[0])), middle.frames, middle.size)
    return png(next(iter(small.pictures())))


def in_text(data: bytes) -> str:
    """Bytes as they travel in JSON."""
    return base64.b64encode(data).decode()
