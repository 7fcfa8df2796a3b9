"""Foreign files over HTTP: read beside the service, refused in words, and checked before anything of the service decodes them."""

import base64
import json

import pytest

from tests.motion.scenes import EXAMPLE
from tests.sounds import struck, wav
from vine_swing.formats.isolated import isolated
from vine_swing.motion.basics.contents import FONT_FILES, PICTURE_FILES, SOUND_FILES
from vine_swing.motion.outline.text.families import FONTS
from vine_swing.service.deadline import ClientGone, Deadline

HOST = {"host": "127.0.0.1:8137"}
BYTES = {"content-type": "application/octet-stream"}
RECT = b'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><rect width="3" height="2"/></svg>'


def detail(answer, status=422):
    assert answer.status_code == status, answer.text
    return answer.json()["detail"]


def font_of(data, name="Own"):
    return {"id": FONT_FILES.id_of(data), "name": name, "licence": "made up", "data": base64.b64encode(data).decode()}


def test_a_file_that_takes_too_long_is_refused_in_words(client, monkeypatch):
    monkeypatch.setattr(isolated, "LONGEST", 0.0)
    assert "takes more than 0 seconds to read" in detail(client.post("/api/drawings?name=hut.svg", content=RECT, headers=BYTES))
    monkeypatch.undo()
    assert client.post("/api/drawings?name=hut.svg", content=RECT, headers=BYTES).status_code == 200


def test_reading_ends_with_the_deadline_of_the_request():
    deadline = Deadline()
    deadline.gone.set()
    with pytest.raises(ClientGone):
        deadline.read("drawing or scene", RECT, "hut.svg")


def test_a_scene_says_its_first_faults_only(client):
    faulty = {"objects": [{"id": "a", "name": "A", "kind": "shape", "oops": n} for n in range(5000)]}
    sentence = detail(client.post("/api/scenes", json=faulty))
    assert sentence.startswith("objects[0]")
    assert len(sentence) <= 500


def test_an_object_with_too_many_fields_is_refused(client):
    fields = {f"f{n}": 0 for n in range(20_000)}
    assert "an object has 20000 fields; at most 10000 are read" in detail(client.post("/api/scenes", json=fields))
    scene_id = client.post("/api/scenes", json={}).json()["id"]
    body = {"revision": 0, "edits": [{"edit": "set-dial-value"} | fields]}
    assert "an object has" in detail(client.post(f"/api/scenes/{scene_id}/edits", json=body), 400)


@pytest.mark.parametrize("text", ['"\\ud800"', '"a\\udfffb"'])
def test_half_of_a_surrogate_pair_is_refused_wherever_text_is_taken(client, text):
    scene_id = client.post("/api/scenes", json=EXAMPLE).json()["id"]
    kind = {"content-type": "application/json"}
    assert "surrogate" in detail(client.post("/api/scenes", content=f'{{"name": {text}}}', headers=kind))
    edit = f'{{"revision": 0, "edits": [{{"edit": "rename-scene", "name": {text}}}]}}'
    assert "not JSON" in detail(client.post(f"/api/scenes/{scene_id}/edits", content=edit, headers=kind), 400)
    with client.websocket_connect(f"/api/scenes/{scene_id}/looks", headers=HOST) as socket:
        socket.send_text(edit)
        assert json.loads(socket.receive_text())["status"] == 400
    assert client.get(f"/api/scenes/{scene_id}").json()["revision"] == 0


def test_fonts_pictures_and_sounds_in_edits_are_read_beside_the_service_first(client, monkeypatch):
    read = []
    known = Deadline.read
    monkeypatch.setattr(Deadline, "read", lambda self, kind, data, name, **how: (read.append(kind), known(self, kind, data, name, **how))[1])
    scene_id = client.post("/api/scenes", json={}).json()["id"]
    # Bytes after the tables of a font file mean nothing, and make it one that nobody has seen.
    data = (FONTS / "caveat" / "latin.ttf").read_bytes() + b"canopy post"
    edits = {"revision": 0, "edits": [{"edit": "add-font", "font": font_of(data)}]}
    assert client.post(f"/api/scenes/{scene_id}/edits", json=edits).status_code == 200
    assert read == ["font"]
    broken = {"revision": 1, "edits": [{"edit": "add-font", "font": font_of(b"\0\1\0\0" + b"\xff" * 400, "Bad")}]}
    assert "'Bad' is no font that can be read" in detail(client.post(f"/api/scenes/{scene_id}/edits", json=broken))


def test_a_scene_with_contents_is_read_beside_the_service(client):
    drum = wav(struck([0.1], 0.4, seed=77))
    sound = {"id": "s", "name": "Drum", "file": SOUND_FILES.id_of(drum), "seconds": 0.4, "data": base64.b64encode(drum).decode()}
    assert client.post("/api/scenes", json=EXAMPLE | {"sounds": [sound]}).status_code == 201
    lying = PICTURE_FILES.id_of(b"\x89PNG no picture")
    picture = {"id": lying, "name": "Owl", "width": 3, "height": 2, "data": base64.b64encode(b"\x89PNG no picture").decode()}
    assert "'Owl' is no picture" in detail(client.post("/api/scenes", json=EXAMPLE | {"pictures": [picture]}))


@pytest.mark.parametrize(
    "text",
    [
        b"v=0\r\no=- 0 0 IN IP4 127.0.0.1\r\ns=a\r\nc=IN IP4 127.0.0.1\r\nt=0 0\r\nm=audio 19999 RTP/AVP 0\r\n",
        b"ffconcat version 1.0\nfile drum.wav\n",
        b"#EXTM3U\n#EXTINF:1,\ndrum.wav\n",
    ],
)
def test_texts_that_name_other_media_are_no_sounds(client, tmp_path, monkeypatch, text):
    (tmp_path / "drum.wav").write_bytes(wav(struck([0.1], 0.4)))
    monkeypatch.chdir(tmp_path)
    assert "cannot be read as a sound" in detail(client.post("/api/sounds?name=a.wav", content=text, headers=BYTES))
    assert "is no picture" in detail(client.post("/api/pictures?name=a.mp4", content=text, headers=BYTES))
