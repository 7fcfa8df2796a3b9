"""Sounds over HTTP: brought in, heard, seen, kept through undo, restarts, files, bundles and rehearsals; what is none is refused."""

import io
import time
import wave

import numpy as np
import pytest
from fastapi.testclient import TestClient

from tests.sounds import RATE, struck, wav
from vine_swing.motion.basics.contents import SOUND_FILES
from vine_swing.service.app import create_app
from vine_swing.service.routes import sounds
from vine_swing.store import SceneStore

DRUM = wav(struck([0.25, 0.75, 1.25, 1.75], 2))
BYTES = {"content-type": "application/octet-stream"}


def bring(client, data=DRUM, name="drum.wav"):
    return client.post(f"/api/sounds?name={name}", content=data, headers=BYTES)


def edit(client, scene, *edits):
    revision = client.get(f"/api/scenes/{scene}").json()["revision"]
    return client.post(f"/api/scenes/{scene}/edits", json={"revision": revision, "edits": list(edits)})


@pytest.fixture
def drummed(client):
    """A scene with a drum in it, by its id."""
    scene = client.post("/api/scenes", json={"name": "Drummed", "length": 60}).json()["id"]
    one = bring(client).json()
    sound = {"id": "drum", "name": one["name"], "file": one["file"], "seconds": one["seconds"], "first": 6}
    assert edit(client, scene, {"edit": "add-sound", "sound": sound}).status_code == 200
    return scene


def kept(client, scene):
    return client.get(f"/api/scenes/{scene}").json()["scene"]


def test_a_sound_is_brought_in_heard_and_seen(client, drummed):
    (sound,) = kept(client, drummed)["sounds"]
    assert (sound["name"], sound["seconds"], sound["data"]) == ("drum", 2.0, None)
    place = f"/api/sounds/{sound['file']}"
    answer = client.get(place)
    assert (answer.content, answer.headers["content-type"]) == (DRUM, "audio/wav")
    peaks = np.frombuffer(client.get(f"{place}/peaks").content, np.int8).reshape(-1, 2)
    assert len(peaks) == 200
    assert np.flatnonzero(peaks[:, 1] > 20)[0] == 25
    with wave.open(io.BytesIO(client.get(f"{place}?plain=true").content)) as plain:
        assert (plain.getnchannels(), plain.getframerate(), plain.getnframes()) == (2, 48_000, 96_000)
    beats = client.get(f"/api/scenes/{drummed}/sounds/drum/beats").json()
    np.testing.assert_allclose(beats["frames"], [12, 24, 36, 48], atol=1)
    assert beats["minute"] == pytest.approx(120, abs=2)
    assert client.get(f"{place}/table?fps=24").json()["columns"][1]["name"] == "level"
    assert client.get("/api/sounds/sound-0000000000000000").status_code == 404
    assert client.get(f"/api/scenes/{drummed}/sounds/none/beats").status_code == 404


def test_sounds_that_ship_can_be_put_into_a_scene(client, drummed):
    ready = client.get("/api/ready-sounds").json()
    assert [one["name"] for one in ready] == ["Log drum", "Rain", "Bird calls"]
    one = ready[0] | {"id": "log"}
    sound = {name: one[name] for name in ("id", "name", "file", "seconds")}
    assert edit(client, drummed, {"edit": "add-sound", "sound": sound}).status_code == 200


def test_what_is_done_to_sounds_markers_and_beats_is_undone_and_outlives_a_restart(tmp_path):
    store = SceneStore(tmp_path / "scenes.db")
    client = TestClient(create_app(store), base_url="http://localhost")
    scene = client.post("/api/scenes", json={"name": "Drummed", "dials": [{"id": "loud", "name": "Loud"}]}).json()["id"]
    one = bring(client).json()
    sound = {"id": "drum", "name": one["name"], "file": one["file"], "seconds": one["seconds"]}
    steps = [
        {"edit": "add-sound", "sound": sound},
        {"edit": "set-sound", "id": "drum", "first": 12, "begin": 0.5, "end": 1.5, "gain": 0.5, "dial": "loud"},
        {"edit": "set-dial", "id": "loud", "follows": {"sound": "drum", "band": "low", "attack": 0.1, "release": 0.3}},
        {"edit": "set-markers", "markers": [{"frame": 3, "name": "hop"}, {"frame": 9}]},
        {"edit": "set-beat", "beat": {"minute": 96, "first": 2.5, "bar": 3}},
        {"edit": "delete-sound", "id": "drum"},
    ]
    states = [kept(client, scene)]
    for step in steps:
        assert edit(client, scene, step).status_code == 200
        states.append(kept(client, scene))
    store.close()
    again = SceneStore(tmp_path / "scenes.db")
    client = TestClient(create_app(again), base_url="http://localhost")
    assert kept(client, scene) == states[-1]
    for state in reversed(states[:-1]):
        revision = client.get(f"/api/scenes/{scene}").json()["revision"]
        assert client.post(f"/api/scenes/{scene}/undo", json={"revision": revision}).status_code == 200
        assert kept(client, scene) == state
    for state in states[1:]:
        revision = client.get(f"/api/scenes/{scene}").json()["revision"]
        client.post(f"/api/scenes/{scene}/redo", json={"revision": revision})
        assert kept(client, scene) == state
    again.close()


def test_files_bundles_and_rehearsals_keep_the_sound(client, drummed):
    before = kept(client, drummed)["sounds"]
    text = client.get(f"/api/scenes/{drummed}/file").content
    opened = client.post("/api/scene-files", content=text, headers={"content-type": "application/json"}).json()
    assert opened["scene"]["sounds"] == before
    take = client.post(f"/api/scenes/{drummed}/rehearsals", json={}).json()["id"]
    edit(client, drummed, {"edit": "delete-sound", "id": "drum"})
    revision = client.get(f"/api/scenes/{drummed}").json()["revision"]
    answer = client.post(f"/api/scenes/{drummed}/rehearsals/{take}/bring-back", json={"revision": revision})
    assert answer.status_code == 200, answer.text
    assert kept(client, drummed)["sounds"] == before


@pytest.mark.parametrize("data", [b"", b"RIFF", DRUM[:40], b"<svg/>" * 9, bytes(5000)])
def test_what_is_no_sound_is_refused_in_words(client, data):
    answer = bring(client, data, "odd.wav")
    assert answer.status_code == 422
    assert "'odd.wav'" in answer.json()["detail"]


def test_what_is_no_sound_is_refused_under_its_own_name_even_if_it_is_known(client):
    SOUND_FILES.keep(b"no sound at all")
    answer = bring(client, b"no sound at all", "odd.wav")
    assert answer.status_code == 422
    assert "'odd.wav'" in answer.json()["detail"]


def test_a_sound_of_hours_is_cut_and_one_of_too_many_bytes_refused(client, monkeypatch):
    hours = io.BytesIO()
    with wave.open(hours, "wb") as out:
        out.setnchannels(1)
        out.setsampwidth(1)
        out.setframerate(50)
        out.writeframes(b"\x80\x90" * 90_000)
    assert bring(client, hours.getvalue()).json() | {"file": ""} == {"file": "", "name": "drum", "seconds": 1200.0, "cut": True}
    monkeypatch.setattr(sounds, "MOST_BYTES", 1000)
    answer = bring(client, wav(struck([0.2], 3, seed=9)))
    assert answer.status_code == 422
    assert "save it compressed" in answer.json()["detail"]


def test_a_scene_with_a_damaged_sound_is_refused(client):
    import base64

    from vine_swing.motion.basics.contents import SOUND_FILES

    data = DRUM[:40] + b"damaged"
    sound = {"id": "s", "name": "Odd", "file": SOUND_FILES.id_of(data), "seconds": 2.0, "data": base64.b64encode(data).decode()}
    answer = client.post("/api/scenes", json={"sounds": [sound]})
    assert answer.status_code == 422
    assert "sound" in answer.json()["detail"]


@pytest.mark.slow
def test_ten_minutes_come_in_and_are_seen_in_seconds(client):
    data = wav(struck(np.arange(0.5, 590, 1.0), 600), RATE)
    begun = time.perf_counter()
    one = bring(client, data).json()
    peaks = client.get(f"/api/sounds/{one['file']}/peaks").content
    took = time.perf_counter() - begun
    print(f"\nten minutes are on the sheet after {took:.2f} s")
    assert len(peaks) == 2 * 60_000
    assert took < 60, "this is no benchmark: it would take minutes if something were quadratic"
