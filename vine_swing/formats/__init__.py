"""Open formats, one per file; EXPORTS is the table of those a scene can be written in."""

from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path
from typing import Protocol

from vine_swing.formats.engine import Engine
from vine_swing.formats.export import Progress
from vine_swing.formats.film import Film
from vine_swing.formats.opaque import over_colour
from vine_swing.formats.options import ExportOptions
from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.scene.model import Scene


class Writer(Protocol):
    """Writes a film to a file and returns sentences about what could not be kept; see write_mp4."""

    def __call__(self, film: Film, path: Path, *, progress: Progress = ...) -> tuple[str, ...]: ...


@dataclass(frozen=True)
class ExportFormat:
    """An export format with its description.

    load: returns its writer. takes: the options that affect it, apart from the frames.
    opaque: whether nothing can be seen through its pictures, so that a see-through background needs a colour under it.
    single: whether it is one picture. ending: of file names, where several formats share a suffix.
    """

    name: str
    label: str
    suffix: str
    media_type: str
    about: str
    load: Callable[[], Writer]
    takes: tuple[str, ...] = ()
    opaque: bool = False
    single: bool = False
    family: str = "film"
    ending: str = field(default="")

    @property
    def write(self) -> Writer:
        """What writes it."""
        return self.load()

    @property
    def is_painted(self) -> bool:
        """Whether it consists of pictures."""
        return self.family not in ("data", "sound")

    @property
    def ends_with(self) -> str:
        """What file names end with, such as `.mp4`."""
        return self.ending or f".{self.suffix}"


# Encoders and painter take a good part of a second to load, so each format is loaded when it is first written.


def _encoded(module: str, name: str) -> Callable[[], Writer]:
    def load() -> Writer:
        from functools import partial
        from importlib import import_module

        from vine_swing.formats.codec import write_encoded

        return partial(write_encoded, getattr(import_module(f"vine_swing.formats.{module}"), name))

    return load


def _written(module: str, name: str) -> Callable[[], Writer]:
    def load() -> Writer:
        from importlib import import_module

        result: Writer = getattr(import_module(f"vine_swing.formats.{module}"), name)
        return result

    return load


_PICTURES = ("size", "background", "blur")
_FILM = (*_PICTURES, "fps")
_ALL = [
    ExportFormat(
        "mp4",
        "MP4 video",
        "mp4",
        "video/mp4",
        "H.264: plays anywhere, and can be cut with other film.",
        _written("mp4", "write_mp4"),
        (*_FILM, "quality", "sound"),
        opaque=True,
    ),
    ExportFormat(
        "gif",
        "GIF",
        "gif",
        "image/gif",
        "Loops by itself in messages and on pages; 256 colours.",
        _written("gif", "write_gif"),
        (*_FILM, "loops", "dither"),
    ),
    ExportFormat(
        "webm",
        "WebM video",
        "webm",
        "video/webm",
        "VP9: for pages; see-through where the background is.",
        _encoded("webm", "WEBM"),
        (*_FILM, "quality", "sound"),
    ),
    ExportFormat(
        "apng",
        "Animated PNG",
        "apng",
        "image/apng",
        "Every colour, see-through; loops by itself on pages.",
        _encoded("apng", "APNG"),
        (*_FILM, "loops"),
    ),
    ExportFormat(
        "webp",
        "Animated WebP",
        "webp",
        "image/webp",
        "Small, see-through; loops by itself on pages.",
        _encoded("webp", "WEBP"),
        (*_FILM, "loops", "quality"),
    ),
    ExportFormat(
        "svg",
        "Animated SVG",
        "svg",
        "image/svg+xml",
        "Sharp at any size, moves by itself in any browser.",
        _written("svg", "write_svg"),
        ("size", "background", "fps", "loops", "tolerance"),
        family="page",
    ),
    ExportFormat(
        "html",
        "HTML and CSS",
        "html",
        "text/html",
        "The same as a page by itself, by CSS keyframes.",
        _written("svg", "write_html"),
        ("size", "background", "fps", "loops", "tolerance"),
        family="page",
    ),
    ExportFormat(
        "flipbook",
        "Flipbook",
        "zip",
        "application/zip",
        "A see-through PNG picture a frame, in one ZIP file.",
        _written("flipbook", "write_flipbook"),
        _FILM,
        family="pictures",
    ),
    ExportFormat(
        "png",
        "One picture, PNG",
        "png",
        "image/png",
        "A single frame, every colour.",
        _written("flipbook", "write_png"),
        _PICTURES,
        single=True,
        family="pictures",
    ),
    ExportFormat(
        "still",
        "One picture, SVG",
        "svg",
        "image/svg+xml",
        "A single frame, sharp at any size.",
        _written("svg", "write_still"),
        ("size", "background"),
        single=True,
        family="pictures",
        ending=".still.svg",
    ),
    ExportFormat(
        "sheet",
        "Contact sheet",
        "pdf",
        "application/pdf",
        "Frames in rows to print, with a list of keys beside them.",
        _written("sheet", "write_sheet"),
        (*_PICTURES, "columns", "every"),
        opaque=True,
        family="pictures",
    ),
    ExportFormat(
        "wav",
        "Sound alone, WAV",
        "wav",
        "audio/wav",
        "What is heard with the scene, mixed, for an editor of sound.",
        _written("soundtrack", "write_wav"),
        family="sound",
    ),
    ExportFormat(
        "csv",
        "Table of values",
        "csv",
        "text/csv",
        "Every moving channel, a row a frame, at full precision.",
        _written("texts", "write_table"),
        ("every",),
        family="data",
    ),
    ExportFormat(
        "keys",
        "Keys",
        "json",
        "application/json",
        "Frames, values and eases of all keys, as JSON.",
        _written("texts", "write_keys"),
        family="data",
        ending=".keys.json",
    ),
    ExportFormat(
        "scene",
        "Scene file",
        "json",
        "application/json",
        "All that was made here, as one documented JSON file.",
        _written("texts", "write_scene"),
        family="data",
    ),
    ExportFormat(
        "bundle",
        "Bundle",
        "vine",
        "application/zip",
        "Scene, pictures, sounds and fonts in one ZIP file: nothing goes missing.",
        _written("bundle", "write_bundle"),
        family="data",
    ),
]
EXPORTS: dict[str, ExportFormat] = {item.name: item for item in _ALL}


def format_of(options: ExportOptions) -> ExportFormat:
    """The format that options ask for.

    Raises:
        MotionError: if it is missing with this name.
    """
    result = EXPORTS.get(options.format)
    if result is None:
        raise MotionError(f"there is no export format '{options.format[:40]}'; there are {', '.join(EXPORTS)}")
    return result


def format_by_name(name: str) -> ExportFormat:
    """The format that the ending of a file's name asks for.

    Raises:
        MotionError: if it asks for none.
    """
    lower = name.lower()
    fitting = [entry for entry in EXPORTS.values() if lower.endswith(entry.ends_with)]
    if not fitting:
        endings = dict.fromkeys(entry.ends_with for entry in EXPORTS.values())
        raise MotionError(f"'{Path(name).suffix}' is no format to export to; name the file with {' or '.join(endings)}")
    return max(fitting, key=lambda one: len(one.ends_with))


def film_of(scene: Scene, options: ExportOptions, engine: Engine | None = None) -> Film:
    """Return the input of a format: a scene prepared by the options.

    Raises:
        MotionError: if the format or frame does not exist, or the frames would be too many or too large.
    """
    chosen = format_of(options)
    if not chosen.is_painted:
        # Formats that do not paint take the unchanged scene.
        options = options.copy_with(background="own", blur="own", scale=1.0, fps=None)
    if chosen.single:
        options = options.copy_with(last=options.first or 0, fps=None)
    film = Film.of(scene, options, engine)
    return Film(over_colour(film.scene, options.under), options, film.frames, film.size, film.engine) if chosen.opaque else film
