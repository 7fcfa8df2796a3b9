"""Scenes that come from outside: read in a process of their own, unless they are too small and too plain to do harm."""

from collections.abc import Iterable, Iterator, Sequence
from typing import Any

from fastapi import HTTPException

from vine_swing.formats.isolated import Kind
from vine_swing.motion.basics.contents import FONT_FILES, PICTURE_FILES, SOUND_FILES, Contents
from vine_swing.motion.basics.errors import NotJson
from vine_swing.motion.edits import Edit
from vine_swing.motion.scene.kept import OwnFont
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.scene_file import parse, parse_fields
from vine_swing.service.deadline import Deadline

#: Bytes of a scene file that is read in this process if no contents of files are in it: starting another process would take longer.
_SMALL = 200_000
#: The share of the work of keeping a new scene that reading it is; the rest is its first bake.
READING = 0.4


def scene_of(text: bytes, deadline: Deadline, *, fields_only: bool = False) -> Scene:
    """Return the scene that the text of a scene file describes.

    Args:
        text: JSON.
        deadline: ends the reading.
        fields_only: whether `format` and `version` may be missing.

    Raises:
        MotionError: listing the first faults with their locations.
    """
    if len(text) <= _SMALL and b'"data"' not in text:
        if not fields_only:
            return parse(text)
        try:
            return parse_fields(text)
        except NotJson as error:
            raise HTTPException(400, str(error)) from error
    kind: Kind = "scene fields" if fields_only else "scene"
    scene: Scene = deadline.read(kind, text, "this scene", part=READING).scene
    return scene


def check_new_contents(edits: Sequence[Edit], deadline: Deadline) -> None:
    """Read the fonts, pictures and sounds that edits bring along in a process of their own, before anything in this one decodes them.

    Raises:
        MotionError: naming the file that is refused.
    """
    for kind, files, content_id, name in _brought(edits):
        if not files.is_checked(content_id):
            deadline.read(kind, files.data_of(content_id), name)
            files.keep(files.data_of(content_id), checked=True)


def _brought(edits: Iterable[Edit]) -> Iterator[tuple[Kind, Contents, str, str]]:
    """Yield the contents in edits: the reader for each, where it is kept, its id and its name."""
    for edit in edits:
        for value in (getattr(edit, name) for name in type(edit).model_fields):
            for font in (value,) if isinstance(value, OwnFont) else value.fonts if isinstance(value, Scene) else ():
                yield "font", FONT_FILES, font.id, font.name
            for picture in _files(value, "pictures"):
                yield "picture", PICTURE_FILES, picture.id, picture.name
            for sound in _files(value, "sounds"):
                yield "sound", SOUND_FILES, sound.file, sound.name


def _files(value: Any, name: str) -> Iterable[Any]:
    """Return the kept files of one kind of a scene in an edit."""
    return getattr(value, name) if isinstance(value, Scene) else ()
