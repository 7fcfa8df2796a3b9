"""Bundles: a scene with everything it needs in one ZIP file, whose parts any program can open.

    scene.json                       the scene, without what is beside it
    pictures/<id>.png|jpg|webp       every kept picture, unchanged brought in
    sounds/<id>.wav|mp3|ogg|flac|m4a every sound
    fonts/<id>.ttf|otf               every kept font file
    fonts/<id>.licence.txt           what allows its use
    fonts/shipped/<family>/…         the files and licences of the shipped families that its texts use

Reading one trusts nothing in it: names that lead elsewhere, parts that unpack to far more than they should, and contents that are not what the
scene says they are, are refused.
"""

import base64
import io
import json
import zipfile
from pathlib import Path
from typing import Any

from vine_swing.formats.export import Progress, never_cancelled
from vine_swing.formats.film import Film
from vine_swing.motion import MotionError, Scene
from vine_swing.motion.basics.json_size import checked_object
from vine_swing.motion.basics.report import Report, unreported
from vine_swing.motion.outline.text.families import FAMILIES, FONTS
from vine_swing.motion.scene.kept import MAX_FONTS, MAX_PICTURES
from vine_swing.motion.scene.scene_file import from_data, parse, to_data
from vine_swing.motion.scene.shapes import TextShape
from vine_swing.motion.scene.sounds import MAX_SOUNDS

SCENE, PICTURES, SOUNDS, FONT_FOLDER = "scene.json", "pictures", "sounds", "fonts"
#: Bytes that all parts may take when unpacked, those of one part, and how many parts there may be.
MOST_UNPACKED, MOST_PART, MOST_PARTS = 400_000_000, 100_000_000, 5_000
#: Files of each kind that a scene may keep; counted before any is unpacked.
_MOST_FILES = {PICTURES: MAX_PICTURES, SOUNDS: MAX_SOUNDS, FONT_FOLDER: MAX_FONTS}
#: Bytes of a scene file by itself.
MOST_TEXT = 64_000_000
#: How many times larger than in the file a part may be, beyond the first million bytes: text shrinks to a twentieth at most, bombs to a thousandth.
_MOST_RATIO = 200


def write_bundle(film: Film, path: Path, *, progress: Progress = never_cancelled) -> tuple[str, ...]:
    """Write a scene with all it needs. The same scene makes the same bytes."""
    path.write_bytes(bundle(film.scene))
    progress(len(film.frames))
    return ()


def bundle(scene: Scene) -> bytes:
    """The bytes of a scene's bundle."""
    data = to_data(scene)
    parts: dict[str, bytes] = {}
    for picture, written in zip(scene.pictures, data.get("pictures", ()), strict=True):
        content = picture.content
        written["data"] = f"{PICTURES}/{picture.id}.{_picture_ending(content)}"
        parts[written["data"]] = content
    for sound, written in zip(scene.sounds, data.get("sounds", ()), strict=True):
        if "data" in written:
            written["data"] = f"{SOUNDS}/{sound.file}.{sound_ending(sound.content)}"
            parts[written["data"]] = sound.content
    for font, written in zip(scene.fonts, data.get("fonts", ()), strict=True):
        ending = "otf" if font.content[:4] == b"OTTO" else "ttf"
        written["data"] = f"{FONT_FOLDER}/{font.id}.{ending}"
        parts[written["data"]] = font.content
        parts[f"{FONT_FOLDER}/{font.id}.licence.txt"] = font.licence.encode()
    for family in sorted({obj.drawn_shape.font for part in scene.timelines for obj in part.objects if isinstance(obj.drawn_shape, TextShape)}):
        if family in FAMILIES:
            for part in sorted((FONTS / family).iterdir(), key=lambda item: item.name):
                parts[f"{FONT_FOLDER}/shipped/{family}/{part.name}"] = part.read_bytes()
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w") as book:
        text = json.dumps(data, ensure_ascii=False, indent=1).encode()
        book.writestr(zipfile.ZipInfo(SCENE), text, zipfile.ZIP_DEFLATED)
        for name, content in parts.items():
            # Pictures and most sounds are compressed already.
            stored = name.startswith((PICTURES, SOUNDS)) and not name.endswith(".wav")
            book.writestr(zipfile.ZipInfo(name), content, zipfile.ZIP_STORED if stored else zipfile.ZIP_DEFLATED)
    return packed.getvalue()


def is_bundle(data: bytes) -> bool:
    """Whether some bytes begin as a ZIP file does."""
    return data[:4] == b"PK\x03\x04"


def read_bundle(data: bytes, *, report: Report = unreported) -> Scene:
    """Return the scene of a bundle, with everything it needs.

    Args:
        data: the file.
        report: called with the share that is done, 0…1.

    Raises:
        MotionError: if it is none, is damaged, or holds more than it should; saying what.
    """
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as book:
            return from_data(_data_of(book), report=report)
    except zipfile.BadZipFile as error:
        raise MotionError("this bundle is damaged: it ends too early or is no ZIP file; export it again from the program that made it") from error
    except (NotImplementedError, RuntimeError, EOFError) as error:
        raise MotionError("this bundle is locked or packed in a way that cannot be read; pack it as a plain ZIP file") from error


def read_scene(data: bytes, *, report: Report = unreported) -> Scene:
    """Return the scene of a scene file or a bundle; reports as `read_bundle`.

    Raises:
        MotionError: if it is neither.
    """
    if is_bundle(data):
        return read_bundle(data, report=report)
    if len(data) > MOST_TEXT:
        raise MotionError(f"this scene file has {len(data) / 1e6:.0f} MB; at most {MOST_TEXT / 1e6:.0f} MB of text are read, so bring it as a bundle")
    return parse(data, report=report)


def _data_of(book: zipfile.ZipFile) -> Any:
    parts = _checked(book)
    if SCENE not in parts:
        raise MotionError(f"there is no '{SCENE}' in this ZIP file, so it is no bundle of a scene")
    try:
        data = json.loads(_read(book, parts[SCENE]), object_hook=checked_object)
    except (ValueError, RecursionError) as error:
        raise MotionError(f"the '{SCENE}' of this bundle is not JSON that can be read") from error
    for kind, most in _MOST_FILES.items():
        stored = data.get(kind) if isinstance(data, dict) else None
        if isinstance(stored, list) and len(stored) > most:
            raise MotionError(f"this bundle has {len(stored)} {kind}; a scene keeps at most {most}")
        named: set[str] = set()
        for item in stored if isinstance(stored, list) else ():
            name = item.get("data") if isinstance(item, dict) else None
            if not isinstance(name, str) or not name.startswith(f"{kind}/"):
                continue
            if name not in parts:
                raise MotionError(f"'{name}' is missing from this bundle; export it again from the program that made it")
            if name in named:
                raise MotionError(f"'{name}' stands twice in the {kind} of this bundle; keep it once")
            named.add(name)
            item["data"] = base64.b64encode(_read(book, parts[name])).decode()
    return data


def _checked(book: zipfile.ZipFile) -> dict[str, zipfile.ZipInfo]:
    """Return the entries of the file by name, without unpacking them."""
    parts = book.infolist()
    if len(parts) > MOST_PARTS:
        raise MotionError(f"this bundle has {len(parts)} parts; at most {MOST_PARTS} are read")
    for item in parts:
        if item.filename.startswith(("/", "\\")) or ".." in Path(item.filename.replace("\\", "/")).parts or ":" in item.filename:
            raise MotionError(f"the part '{item.filename[:80]}' of this bundle leads out of it; nothing was read")
        too_dense = item.file_size > 1_000_000 and item.file_size > _MOST_RATIO * max(1, item.compress_size)
        if item.file_size > (MOST_TEXT if item.filename == SCENE else MOST_PART) or too_dense:
            raise MotionError(f"the part '{item.filename[:80]}' of this bundle would unpack to {item.file_size / 1e6:.0f} MB; nothing was read")
    if sum(part.file_size for part in parts) > MOST_UNPACKED:
        raise MotionError(f"this bundle would unpack to more than {MOST_UNPACKED / 1e6:.0f} MB; nothing was read")
    return {part.filename: part for part in parts}


def _read(book: zipfile.ZipFile, part: zipfile.ZipInfo) -> bytes:
    """The content of a part, no more of it than it says it has."""
    with book.open(part) as file:
        content = file.read(part.file_size + 1)
    if len(content) > part.file_size:
        raise MotionError(f"the part '{part.filename[:80]}' of this bundle is larger than it says; nothing was read")
    return content


def sound_ending(content: bytes) -> str:
    """Return the file name suffix of a sound, by its first bytes."""
    if content[4:8] == b"ftyp":
        return "m4a"
    return {b"RIFF": "wav", b"OggS": "ogg", b"fLaC": "flac"}.get(content[:4], "mp3")


def _picture_ending(content: bytes) -> str:
    if content[:3] == b"\xff\xd8\xff":
        return "jpg"
    return "webp" if content[8:12] == b"WEBP" else "png"
