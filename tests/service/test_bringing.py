"""Files brought in over HTTP: drawings, bundles, tables, and what is too large or hostile."""

import json

import pytest

from demo.make import SCENES
from tests.formats.test_bundle import BAD
from tests.formats.test_drawing import HOSTILE, STAMP
from tests.motion.scenes import EXAMPLE
from vine_swing.formats.bundle import bundle
from vine_swing.motion import dump, load
from vine_swing.motion.scene.scene_file import to_data

FILE = {"content-type": "application/octet-stream"}


def sent(client, path, data, name="it"):
    return client.post(f"/api/{path}", params={"name": name}, content=data, headers=FILE)


def test_a_drawing_goes_into_a_scene_as_one_step(client):
    brought = sent(client, "drawings", STAMP, "stamp.svg").json()
    assert "scripts" in brought["lost"]
    scene = client.post("/api/scenes", json=EXAMPLE).json()
    edit = {"edit": "place-parcel", "parcel": brought["scene"], "prefix": "in", "x": 40, "y": 20}
    answer = client.post(f"/api/scenes/{scene['id']}/edits", json={"revision": 0, "edits": [edit]})
    assert answer.status_code == 200, answer.text
    names = [one["name"] for one in client.get(f"/api/scenes/{scene['id']}").json()["scene"]["objects"]]
    assert names[1:4] == ["stamp", "paper", "Toucan"]
    client.post(f"/api/scenes/{scene['id']}/undo", json={"revision": 1})
    assert len(client.get(f"/api/scenes/{scene['id']}").json()["scene"]["objects"]) == 1


@pytest.mark.parametrize("name", ["13-post-report", "18-hummingbird-courier", "19-river-raft"])
def test_a_bundle_becomes_the_same_scene_on_another_machine(client, name):
    scene = load(SCENES / f"{name}.json")
    opened = sent(client, "bundles", bundle(scene), "it.vine")
    assert opened.status_code == 201
    kept = client.get(f"/api/scenes/{opened.json()['id']}/file").json()
    assert kept == json.loads(dump(scene)) == to_data(scene)


def test_drawings_and_scene_files_open_as_scenes_too(client):
    opened = sent(client, "bundles", STAMP, "stamp.svg").json()
    assert "scripts" in opened["lost"]
    assert client.get(f"/api/scenes/{opened['id']}").json()["scene"]["size"] == [400, 320]
    assert sent(client, "bundles", json.dumps(EXAMPLE).encode(), "it.json").status_code == 201


def test_a_table_becomes_columns_and_a_look_at_its_keys(client):
    table = sent(client, "tables", b"time,wind\n0,3\n0.5,5\n1,4\n", "wind.csv").json()
    assert (table["rows"], table["time"], table["unit"]) == (3, 0, "seconds")
    scene = client.post("/api/scenes", json=EXAMPLE).json()
    track = {"object": "mango", "channel": "rotation", "times": table["columns"][0]["cells"], "values": table["columns"][1]["cells"]}
    edit = {"edit": "lay-samples", "tracks": [track], "pace": 24.0}
    (look,) = client.post(f"/api/scenes/{scene['id']}/samples/look", json=edit).json()
    assert (look["frames"], look["values"]) == ([0, 12, 24], [3, 5, 4])
    assert client.post(f"/api/scenes/{scene['id']}/edits", json={"revision": 0, "edits": [edit]}).status_code == 200
    wrong = edit | {"tracks": [track | {"channel": "gone"}]}
    assert "has no channel 'gone'" in client.post(f"/api/scenes/{scene['id']}/samples/look", json=wrong).json()["detail"]


@pytest.mark.parametrize("name", HOSTILE)
def test_hostile_drawings_get_a_plain_answer(client, name):
    answer = sent(client, "drawings", HOSTILE[name][0], "hostile.svg")
    assert answer.status_code == 422
    assert answer.json()["detail"]


@pytest.mark.parametrize("name", BAD)
def test_hostile_bundles_get_a_plain_answer(client, name):
    assert sent(client, "bundles", BAD[name].data, "hostile.vine").status_code == 422
    assert client.get("/api/scenes").json()["scenes"] == []


def test_files_of_hundreds_of_megabytes_are_refused_unread(client):
    answer = client.post("/api/bundles", params={"name": "x"}, content=b"x", headers=FILE | {"content-length": str(200 * 1024 * 1024)})
    assert answer.status_code == 413
    assert "at most 128 MB" in answer.json()["detail"]
