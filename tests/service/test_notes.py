"""Notes over HTTP: found, mended by the edits they offer, hushed, and never in the way."""

import threading

import pytest

from vine_swing.faults import faults
from vine_swing.motion.notes import KINDS
from vine_swing.motion.scene.scene_file import to_data
from vine_swing.service import wire


@pytest.fixture
def scene_id(client):
    return client.post("/api/scenes", json=to_data(faults()["nearly"].fault)).json()["id"]


def told(client, scene_id):
    answer = client.get(f"/api/scenes/{scene_id}/notes")
    assert answer.status_code == 200
    return answer.json()


def test_a_note_is_told_with_its_mends_and_gone_once_one_is_made(client, scene_id):
    state = told(client, scene_id)
    (note,) = state["notes"]
    assert (note["kind"], note["object"], note["channel"], note["frames"]) == ("nearly", "mango", "opacity", [40, 40])
    assert note["label"] == KINDS["nearly"].label
    (mend,) = note["mends"]
    made = client.post(f"/api/scenes/{scene_id}/edits", json={"revision": state["revision"], "edits": mend["edits"]})
    assert made.status_code == 200
    after = told(client, scene_id)
    assert (after["notes"], after["revision"]) == ([], state["revision"] + 1)


def test_hushed_notes_are_counted_and_told_again_after_undo(client, scene_id):
    hush = {"edit": "hush-note", "kind": "nearly", "object": "mango", "channel": "opacity"}
    client.post(f"/api/scenes/{scene_id}/edits", json={"revision": 0, "edits": [hush]})
    state = told(client, scene_id)
    assert (state["notes"], state["silent"]) == ([], 1)
    assert state["hushed"] == [{"kind": "nearly", "object": "mango", "channel": "opacity"}]
    client.post(f"/api/scenes/{scene_id}/undo", json={"revision": 1})
    assert len(told(client, scene_id)["notes"]) == 1


def test_notes_inside_an_inset_are_those_of_the_scene_inside(client):
    inner = to_data(faults()["seam"].fault)
    part = {name: inner[name] for name in ("name", "objects", "length", "size")} | {"id": "inner"}
    outer = {"length": 48, "insets": [part], "objects": [{"id": "raft", "name": "Raft", "kind": "inset", "inset": {"scene": "inner"}}]}
    scene_id = client.post("/api/scenes", json=outer).json()["id"]
    assert told(client, scene_id)["notes"] == []
    assert [note["kind"] for note in told(client, f"{scene_id}~inner")["notes"]] == ["seam"]


def test_two_pages_that_ask_at_once_get_the_same(client, scene_id):
    answers = []
    threads = [threading.Thread(target=lambda: answers.append(told(client, scene_id))) for _ in range(4)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert len(answers) == 4
    assert all(answer == answers[0] for answer in answers)


def test_the_guide_has_words_and_two_moving_pictures_for_each_kind(client):
    kinds = client.get("/api/note-kinds").json()
    assert [kind["name"] for kind in kinds] == list(KINDS)
    assert [kind["name"] for kind in kinds if kind["harmful"]] == ["flashing"]
    for which in ("fault", "sound"):
        answer = client.get(f"/api/note-kinds/seam/{which}/motion")
        assert (answer.status_code, answer.headers["content-type"]) == (200, wire.MEDIA_TYPE)
    assert client.get("/api/note-kinds/wings/fault/motion").status_code == 404
    assert client.get("/api/note-kinds/seam/other/motion").status_code == 422
    assert client.get("/api/scenes/gone/notes").status_code == 404
