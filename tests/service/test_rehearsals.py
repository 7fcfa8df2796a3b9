"""Rehearsals over HTTP: kept, compared, brought back whole and in part, and what they cost."""

import json

import msgpack
import pytest
from fastapi.testclient import TestClient

from demo.make import SCENES
from tests.pictures import png
from vine_swing.motion import load
from vine_swing.motion.scene.scene_file import to_data
from vine_swing.service.app import create_app
from vine_swing.store import SceneStore

HEAVIEST = SCENES / "12-morning-round.json"


def keyed(*values):
    return {"keys": [{"frame": 10 * n, "value": value} for n, value in enumerate(values)]}


FROG = {"id": "frog", "name": "Frog", "kind": "shape", "shape": {"type": "ellipse"}, "channels": {"x": keyed(0, 90), "y": keyed(5, 2, 5)}}


@pytest.fixture
def scene(client):
    return client.post("/api/scenes", json={"name": "Jump", "length": 30, "objects": [FROG, FROG | {"id": "moth", "name": "Moth"}]}).json()["id"]


def edit(client, scene, *edits):
    revision = client.get(f"/api/scenes/{scene}").json()["revision"]
    answer = client.post(f"/api/scenes/{scene}/edits", json={"revision": revision, "edits": list(edits)})
    assert answer.status_code == 200, answer.text
    return answer.json()["revision"]


def kept_scene(client, scene):
    return client.get(f"/api/scenes/{scene}").json()["scene"]


def moved(value, thing="frog"):
    return {"edit": "set-key", "object": thing, "channel": "y", "frame": 10, "value": value}


def test_a_version_is_kept_renamed_removed_and_put_back(client, scene):
    first = client.post(f"/api/scenes/{scene}/rehearsals", json={}).json()
    second = client.post(f"/api/scenes/{scene}/rehearsals", json={"name": "Higher"}).json()
    assert (first["name"], second["name"], first["removed"]) == ("Take 1", "Higher", None)
    place = f"/api/scenes/{scene}/rehearsals"
    assert [one["id"] for one in client.get(place).json()] == [second["id"], first["id"]]
    assert client.patch(f"{place}/{first['id']}", json={"name": "  Low  "}).json()["name"] == "Low"
    assert client.delete(f"{place}/{first['id']}").json()["removed"]
    assert client.post(f"{place}/{first['id']}/put-back").json()["removed"] is None
    assert client.get(f"{place}/{first['id']}/still").content[8:12] == b"WEBP"
    assert client.get("/api/scenes/none/rehearsals").status_code == 404
    for path in ("still", "motion", "differences"):
        assert client.get(f"{place}/none/{path}").status_code == 404
    # Keeping a version is no step of undo.
    assert client.get(f"/api/scenes/{scene}").json()["history"]["undo"] is None


def test_differences_and_the_motion_of_a_version(client, scene):
    take = client.post(f"/api/scenes/{scene}/rehearsals", json={}).json()
    place = f"/api/scenes/{scene}/rehearsals/{take['id']}"
    assert client.get(f"{place}/differences").json()["differences"] == []
    revision = edit(client, scene, moved(-40))
    told = client.get(f"{place}/differences").json()
    assert told["revision"] == revision
    (one,) = told["differences"]
    assert (one["object"], one["channel"], one["most"], one["at"], one["frames"]) == ("frog", "y", 42.0, 10, [1, 19])
    motion = msgpack.unpackb(client.get(f"{place}/motion").content)
    assert motion["whole"]
    assert set(motion["objects"]) == {"frog", "moth"}
    # It lasts beyond a restart.
    again = TestClient(create_app(client.app.state.sessions.store), base_url="http://127.0.0.1:8137")
    assert again.get(f"{place}/differences").json() == told


def test_parts_and_the_whole_come_back_each_as_one_step_of_undo(client, scene):
    before = kept_scene(client, scene)
    take = client.post(f"/api/scenes/{scene}/rehearsals", json={"name": "First"}).json()
    place = f"/api/scenes/{scene}/rehearsals/{take['id']}"
    revision = edit(client, scene, moved(-40), moved(-70, "moth"), {"edit": "set-length", "length": 50})
    changed = kept_scene(client, scene)
    parts = [{"object": "frog", "what": "channel", "channel": "y"}]
    answer = client.post(f"{place}/bring-back", json={"revision": revision, "parts": parts})
    assert answer.json()["history"]["undo"] == "bring Frog back from First"
    after = kept_scene(client, scene)
    assert after["objects"][0] == before["objects"][0]
    assert after["objects"][1:] == changed["objects"][1:]
    assert after["length"] == 50
    answer = client.post(f"{place}/bring-back", json={"revision": answer.json()["revision"]})
    assert answer.json()["history"]["undo"] == "bring back First"
    assert kept_scene(client, scene) == before
    client.post(f"/api/scenes/{scene}/undo", json={"revision": answer.json()["revision"]})
    assert kept_scene(client, scene) == after
    assert client.post(f"{place}/bring-back", json={"revision": 0}).status_code == 409
    wrong = {"revision": answer.json()["revision"] + 1, "parts": [{"object": "owl", "what": "motion"}]}
    assert "neither version" in client.post(f"{place}/bring-back", json=wrong).json()["detail"]


def test_what_edits_would_make_is_seen_beside_what_is(client, scene):
    before = client.get(f"/api/scenes/{scene}").json()
    ease = {"edit": "set-ease", "object": "frog", "channel": "x", "frames": [0], "ease": "bounce"}
    answer = msgpack.unpackb(client.post(f"/api/scenes/{scene}/beside", json={"revision": 0, "edits": [ease]}).content)
    assert msgpack.unpackb(answer["motion"])["whole"]
    (one,) = json.loads(answer["differences"])["differences"]
    assert (one["object"], one["channel"]) == ("frog", "x")
    assert one["most"] > 10
    assert client.get(f"/api/scenes/{scene}").json() == before


def test_pictures_come_back_with_what_shows_them(client, scene):
    brought = client.post("/api/pictures?name=leaf.png", content=png(size=(4, 4)), headers={"content-type": "application/octet-stream"}).json()
    edit(client, scene, {"edit": "add-picture", "id": "leaf", "name": "Leaf", "pictures": brought["pictures"], "x": 5, "y": 5})
    before = kept_scene(client, scene)
    take = client.post(f"/api/scenes/{scene}/rehearsals", json={}).json()
    revision = edit(client, scene, {"edit": "delete-object", "id": "leaf"}, {"edit": "drop-pictures"})
    assert kept_scene(client, scene).get("pictures", []) == []
    parts = {"revision": revision, "parts": [{"object": "leaf", "what": "all"}]}
    assert client.post(f"/api/scenes/{scene}/rehearsals/{take['id']}/bring-back", json=parts).status_code == 200
    assert kept_scene(client, scene) == before


def test_ten_rehearsals_of_the_heaviest_demo_cost_less_than_twice_its_size(tmp_path):
    store = SceneStore(tmp_path / "kept.db")
    heavy = load(HEAVIEST)
    with TestClient(create_app(store), base_url="http://127.0.0.1:8137") as client:
        scene = client.post("/api/scenes", json=to_data(heavy)).json()["id"]
        size = _size(store)
        for _ in range(10):
            assert client.post(f"/api/scenes/{scene}/rehearsals", json={}).status_code == 201
        assert _size(store) - size < 2 * size
        take = client.get(f"/api/scenes/{scene}/rehearsals").json()[0]
        assert client.get(f"/api/scenes/{scene}/rehearsals/{take['id']}/differences").json()["differences"] == []
        assert store.rehearsals.scene(scene, take["id"]) == heavy
    store.close()


def _size(store):
    """Bytes of the data file, with what is not folded into it yet."""
    with store._database.reading() as db:
        (pages,) = db.execute("PRAGMA page_count").fetchone()
        (each,) = db.execute("PRAGMA page_size").fetchone()
    return pages * each
