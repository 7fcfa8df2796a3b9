"""Bundles: a round trip is the identity, and nothing hostile gets in."""

import io
import json
import zipfile
from dataclasses import dataclass

import pytest

from demo.make import SCENES
from tests.motion.scenes import EXAMPLE
from vine_swing.formats.bundle import MOST_PARTS, bundle, read_bundle, read_scene
from vine_swing.motion import MotionError, dump, load
from vine_swing.motion.scene.scene_file import from_data

ALL = sorted(SCENES.glob("*.json"))


@pytest.mark.parametrize("path", ALL, ids=lambda path: path.stem)
def test_a_round_trip_is_the_identity(path):
    scene = load(path)
    packed = bundle(scene)
    again = read_bundle(packed)
    assert dump(again) == dump(scene)
    assert [one.content for one in again.pictures] == [one.content for one in scene.pictures]
    assert [one.content for one in again.fonts] == [one.content for one in scene.fonts]
    assert bundle(again) == packed, "the same scene makes the same bytes"


def test_what_it_needs_lies_beside_it_for_any_program_to_open():
    packed = zipfile.ZipFile(io.BytesIO(bundle(load(SCENES / "18-hummingbird-courier.json"))))
    names = packed.namelist()
    assert "scene.json" in names
    pictures = [name for name in names if name.startswith("pictures/")]
    assert pictures
    assert all(packed.read(name)[:4] in (b"\x89PNG", b"RIFF") or packed.read(name)[:2] == b"\xff\xd8" for name in pictures)
    report = zipfile.ZipFile(io.BytesIO(bundle(load(SCENES / "13-post-report.json")))).namelist()
    assert any(name.endswith("OFL.txt") for name in report), "the licences of shipped fonts"


def zipped(parts, **how):
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as book:
        for name, content in parts:
            book.writestr(name, content, **how)
    return packed.getvalue()


@dataclass(frozen=True)
class Bad:
    data: bytes
    says: str


SCENE = json.dumps(EXAMPLE)
BAD = {
    "traversal": Bad(zipped([("scene.json", SCENE), ("../../etc/passwd", "x")]), "leads out of it"),
    "absolute": Bad(zipped([("/etc/passwd", "x"), ("scene.json", SCENE)]), "leads out of it"),
    "windows": Bad(zipped([("scene.json", SCENE), ("..\\evil", "x")]), "leads out of it"),
    "bomb": Bad(zipped([("scene.json", SCENE), ("pictures/a.png", b"\0" * 90_000_000)]), "would unpack to 90 MB"),
    "bomb of many": Bad(zipped([("scene.json", b" " * 5_000_000)]), "would unpack to"),
    "many parts": Bad(zipped([(f"part-{n}", "") for n in range(MOST_PARTS + 1)]), f"{MOST_PARTS + 1} parts"),
    "no scene": Bad(zipped([("other.json", "{}")]), "no 'scene.json'"),
    "no JSON": Bad(zipped([("scene.json", "{")]), "not JSON"),
    "missing": Bad(
        zipped([("scene.json", json.dumps(EXAMPLE | {"pictures": [{"id": "picture-" + "0" * 16, "data": "pictures/x.png"}]}))]), "is missing"
    ),
    "cut short": Bad(bundle(from_data(EXAMPLE))[:300], "damaged"),
    "other content": Bad(
        zipped(
            [
                (
                    "scene.json",
                    json.dumps(
                        EXAMPLE | {"pictures": [{"id": "picture-" + "0" * 16, "name": "a", "width": 1, "height": 1, "data": "pictures/x.png"}]}
                    ),
                ),
                ("pictures/x.png", b"not what it says"),
            ]
        ),
        "its content is that of",
    ),
}


@pytest.mark.parametrize("name", BAD)
def test_hostile_bundles_are_refused_in_plain_words(name):
    with pytest.raises(MotionError, match=BAD[name].says.replace("'", "'")):
        read_scene(BAD[name].data)


def test_a_scene_file_of_too_much_text_is_refused_before_it_is_read():
    with pytest.raises(MotionError, match="at most 64 MB of text are read, so bring it as a bundle"):
        read_scene(b" " * 64_000_001)
