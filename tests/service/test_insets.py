"""Scenes inside others, by their own address: read, edited, undone and exported like any scene, and kept with the whole."""

import numpy as np

from tests.motion.test_insets import blink, dot, inset
from tests.service.test_service import edit, made, motion, problem, rows
from vine_swing.service.sessions import INSIDE

WHOLE = {"format": "vine-swing-scene", "name": "River", "length": 24, "insets": [blink()]}
WHOLE |= {"objects": [dot("moon"), inset("frog", "blink", "loop"), inset("toad", "blink", inner=4.0)]}
KEY = {"edit": "set-key", "object": "eye", "channel": "x", "frame": 23, "value": 99.0}


def inside(client, scene, inner="blink"):
    answer = client.get(f"/api/scenes/{scene['id']}{INSIDE}{inner}")
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_a_scene_inside_is_read_like_any_and_tells_what_it_is_inside_of(client):
    whole = made(client, WHOLE)
    inner = inside(client, whole)
    assert inner["scene"]["name"] == "Blink"
    assert inner["whole"] == {"id": whole["id"], "name": "River"}
    assert whole["whole"] is None
    assert [(one["id"], one["shown"], [part["name"] for part in one["parts"]]) for one in whole["inner"]] == [("blink", 2, ["Eye"])]
    assert rows(motion(client, inner)["objects"]["eye"]["channels"]["x"])[11, 0] > 280
    problem(client.get(f"/api/scenes/{whole['id']}{INSIDE}nobody"), 404)
    assert [line["name"] for line in client.get("/api/scenes").json()["scenes"]] == ["River"]


def test_an_edit_inside_is_a_step_of_the_whole_and_is_seen_in_every_inset(client):
    whole = made(client, WHOLE)
    inner = inside(client, whole)
    before = motion(client, whole)
    changed = edit(client, inner, KEY).json()
    assert changed["revision"] == 1
    assert [one["id"] for one in changed["objects"]] == ["eye"]
    assert changed["head"]["inner"][0]["shown"] == 2
    fresh = motion(client, whole, since=0)
    assert set(fresh["objects"]) == {"eye@frog"}
    assert rows(fresh["objects"]["eye@frog"]["view"])[23, 4] != rows(before["objects"]["eye@frog"]["view"])[23, 4]
    assert "moon" not in fresh["objects"]
    undone = client.post(f"/api/scenes/{whole['id']}/undo", json={"revision": 1}).json()
    assert undone["history"] == {"undo": None, "redo": "key Eye travel x at 23"}
    assert rows(motion(client, inner)["objects"]["eye"]["view"])[23, 4] == rows(before["objects"]["eye@frog"]["view"])[23, 4]
    problem(edit(client, inner, KEY, revision=0), 409)


def test_undo_of_making_an_inset_takes_its_address_away_and_redo_gives_it_back(client):
    whole = made(client, {"format": "vine-swing-scene", "objects": [dot("moon")]})
    make = {"edit": "make-inset", "id": "crew", "scene": "inside", "name": "Crew", "parts": ["moon"]}
    assert edit(client, whole, make).status_code == 200
    inner = inside(client, whole, "inside")
    named = edit(client, inner, {"edit": "rename-object", "id": "moon", "name": "Sun"}, revision=1)
    assert named.status_code == 200
    for revision in (2, 3):
        client.post(f"/api/scenes/{whole['id']}/undo", json={"revision": revision})
    problem(client.get(f"/api/scenes/{inner['id']}"), 404)
    for revision in (4, 5):
        client.post(f"/api/scenes/{whole['id']}/redo", json={"revision": revision})
    assert inside(client, whole, "inside")["scene"]["objects"][1]["name"] == "Sun"


def test_a_scene_cannot_come_to_stand_in_itself(client):
    raft = {"id": "raft", "name": "Raft", "objects": [inset("crew", "blink")]}
    whole = made(client, WHOLE | {"insets": [blink(), raft]})
    add = {"edit": "add-inset", "id": "me", "name": "Me", "scene": "raft", "x": 0.0, "y": 0.0}
    assert "Blink → Raft → Blink" in problem(edit(client, inside(client, whole), add), 422)
    assert inside(client, whole)["revision"] == 0


def test_looks_inside_show_what_would_be_and_keep_nothing(client):
    whole = made(client, WHOLE)
    inner = inside(client, whole)
    look = client.post(f"/api/scenes/{inner['id']}/look", json={"revision": 0, "edits": [KEY]})
    assert look.status_code == 200
    assert inside(client, whole)["revision"] == 0
    assert np.array_equal(rows(motion(client, inner)["objects"]["eye"]["view"]), rows(motion(client, whole)["objects"]["eye@frog"]["view"]))


def test_a_scene_inside_is_exported_by_itself(client):
    whole = made(client, WHOLE)
    inner = inside(client, whole)
    job = client.post(f"/api/scenes/{inner['id']}/exports", json={"formats": ["gif"], "options": {"first": 0, "last": 3}})
    assert job.status_code in (200, 201, 202), job.text
