"""What each kind of foreign file becomes: read in the child process, sent as plain data, and made usable in the parent.

A reader's `read` runs in the child and returns what msgpack can hold; `unpacked` runs in the parent and must do no work that depends on what the file
says about itself.
"""

from collections.abc import Callable
from dataclasses import asdict, dataclass
from typing import Any, Literal

from vine_swing.formats.bring_in import BroughtIn, Page, bring_in, check_picture
from vine_swing.formats.bundle import read_scene
from vine_swing.formats.drawing import read_svg
from vine_swing.formats.samples import Column, Table, read_table
from vine_swing.motion.basics.contents import FONT_FILES, PICTURE_FILES, SOUND_FILES
from vine_swing.motion.basics.report import Report
from vine_swing.motion.edits.sounds import check_heard
from vine_swing.motion.outline.drawing import check_drawn
from vine_swing.motion.outline.text.face import Face
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.scene_file import from_data, parse_fields, to_data
from vine_swing.motion.sound.reading import read_sound

Kind = Literal["drawing or scene", "scene", "scene fields", "pictures", "picture", "sound", "font", "table"]


@dataclass(frozen=True)
class Reader:
    """How one kind of file is read.

    read: its contents, its name and a function for progress to plain data. Raises MotionError.
    unpacked: that plain data to what the caller gets.
    """

    read: Callable[[bytes, str, Report], Any]
    unpacked: Callable[[Any], Any]


@dataclass(frozen=True)
class ReadScene:
    """A scene from a scene file, a bundle or a drawing. lost: sentences about what could not be kept."""

    scene: Scene
    lost: tuple[str, ...]


@dataclass(frozen=True)
class ReadSound:
    """A sound file. file: the id of its content. seconds: its duration. cut: whether only its beginning is used."""

    file: str
    seconds: float
    cut: bool


@dataclass(frozen=True)
class ReadPictures:
    """The pages of a picture file. ids: of their contents. seconds: how long each is shown, None for a still one."""

    ids: tuple[str, ...]
    pages: tuple[Page, ...]
    seconds: float | None


@dataclass(frozen=True)
class ReadFont:
    """A font file. id: of its content. weights: to choose from, as CSS counts them."""

    id: str
    weights: tuple[int, ...]


def check_contents(scene: Scene) -> None:
    """Refuse a scene with a font, sound or picture that cannot be used, or a shape that cannot be drawn.

    Raises:
        MotionError: naming it.
    """
    for picture in scene.pictures:
        check_picture(picture.content, picture.name, (picture.width, picture.height))
    check_drawn(scene)
    check_heard(scene)


def _read_scene(data: bytes, name: str, report: Report) -> dict[str, Any]:
    return _packed(read_scene(data, report=report), ())


def _read_fields(data: bytes, name: str, report: Report) -> dict[str, Any]:
    return _packed(parse_fields(data, report=report), ())


def _read_drawing_or_scene(data: bytes, name: str, report: Report) -> dict[str, Any]:
    if not _is_drawing(data):
        return _read_scene(data, name, report)
    drawing = read_svg(data, name, report=report)
    return _packed(drawing.scene, drawing.lost)


def _is_drawing(data: bytes) -> bool:
    """True if some bytes begin as XML does."""
    return data.lstrip(b"\xef\xbb\xbf \t\r\n\xff\xfe\0")[:1] == b"<"


def _packed(scene: Scene, lost: tuple[str, ...]) -> dict[str, Any]:
    """Return a scene as plain data, with the contents it needs beside it, each once."""
    check_contents(scene)
    return {
        "scene": to_data(scene, contents=False),
        "pictures": list({picture.id: picture.content for picture in scene.pictures}.values()),
        "sounds": list({sound.file: sound.content for sound in scene.sounds}.values()),
        "lost": list(lost),
    }


def _unpacked_scene(result: Any) -> ReadScene:
    for content in result["pictures"]:
        PICTURE_FILES.keep(content, checked=True)
    for content in result["sounds"]:
        SOUND_FILES.keep(content, checked=True)
    scene = from_data(result["scene"])
    for font in scene.fonts:
        FONT_FILES.keep(font.content, checked=True)
    return ReadScene(scene, tuple(result["lost"]))


def _read_pictures(data: bytes, name: str, report: Report) -> dict[str, Any]:
    result = bring_in(data, name, report=report)
    return {"seconds": result.seconds, "pages": [asdict(page) for page in result.pages]}


def _unpacked_pictures(result: Any) -> ReadPictures:
    results = BroughtIn(tuple(Page(**page) for page in result["pages"]), result["seconds"])
    return ReadPictures(tuple(PICTURE_FILES.keep(page.data, checked=True) for page in results.pages), results.pages, results.seconds)


def _read_picture(data: bytes, name: str, report: Report) -> None:
    bring_in(data, name)


def _read_sound(data: bytes, name: str, report: Report) -> dict[str, Any]:
    sound = read_sound(data, name, report=report)
    return {"file": SOUND_FILES.id_of(data), "seconds": sound.seconds, "cut": sound.cut}


def _read_font(data: bytes, name: str, report: Report) -> dict[str, Any]:
    return {"id": FONT_FILES.keep(data), "weights": list(Face.checked(name, data).weights)}


def _read_table(data: bytes, name: str, report: Report) -> dict[str, Any]:
    return asdict(read_table(data, name))


def _unpacked_table(result: Any) -> Table:
    columns = tuple(Column(item["name"], item["kind"], tuple(item["cells"])) for item in result["columns"])
    return Table(columns, result["rows"], result["time"], result["unit"], tuple(result["remarks"]))


READERS: dict[Kind, Reader] = {
    "drawing or scene": Reader(_read_drawing_or_scene, _unpacked_scene),
    "scene": Reader(_read_scene, _unpacked_scene),
    "scene fields": Reader(_read_fields, _unpacked_scene),
    "pictures": Reader(_read_pictures, _unpacked_pictures),
    "picture": Reader(_read_picture, lambda result: result),
    "sound": Reader(_read_sound, lambda result: ReadSound(**result)),
    "font": Reader(_read_font, lambda result: ReadFont(result["id"], tuple(result["weights"]))),
    "table": Reader(_read_table, _unpacked_table),
}
