"""Figures over HTTP: starters and gaits told, bones and steps on the wire, kept and undone; flipbooks of a cycle."""

import copy
import io
import time
import zipfile

import msgpack
import numpy as np
import pytest
from PIL import Image

FIGURE = {"edit": "add-figure", "id": "postie", "name": "Postie", "starter": "two-legs", "x": 200.0, "y": 300.0}
WALK = [
    {"edit": "set-gait", "id": "postie", "preset": "stroll"},
    {"edit": "set-key", "object": "postie", "channel": "x", "frame": 0.0, "value": 100.0},
    {"edit": "set-key", "object": "postie", "channel": "x", "frame": 90.0, "value": 700.0},
]


@pytest.fixture
def walker(client):
    """An empty scene, a function that makes edits in it, and one that reads its motion."""
    address = f"/api/scenes/{client.post('/api/scenes', json={'length': 96, 'size': [800, 400]}).json()['id']}"

    def edit(*edits, status=200):
        answer = client.post(f"{address}/edits", json={"revision": client.get(address).json()["revision"], "edits": list(edits)})
        assert answer.status_code == status, answer.text
        return answer.json()

    def motion(since=None):
        return msgpack.unpackb(client.get(f"{address}/motion" + (f"?since={since}" if since is not None else "")).content)

    return address, edit, motion


def test_the_vocabulary_tells_of_figures(client):
    words = client.get("/api/vocabulary").json()
    assert [one["name"] for one in words["starters"]] == ["two-legs", "four-legs", "six-legs", "bird"]
    assert all(one["parts"] for one in words["starters"])
    assert {"stroll", "run", "trot", "tripod"} <= {one["name"] for one in words["gaits"]}
    assert [one["name"] for one in words["joints"]["leg"]] == [f"PART.{part}" for part in ("x", "y", "end", "reach", "upper", "lower", "free")]
    gait = next(one for one in words["rules"] if one["kind"] == "gait")
    assert gait["joints"]
    assert len(set(gait["after"])) > 10, "its picture moves"


def test_bones_and_steps_are_sent_and_only_what_changed_after_an_edit(walker):
    _, edit, motion = walker
    revision = edit(FIGURE, *WALK)["revision"]
    whole = motion()
    one = whole["objects"]["postie"]
    assert one["bones"]["near-leg.end"]["w"] == 6
    assert len(np.frombuffer(one["bones"]["near-leg.end"]["d"], "<f4")) == 6 * 96
    assert {pose for _, pose, _ in one["steps"]["poses"]} == {"contact", "down", "passing", "up"}
    assert all(0 <= a <= b <= 95 for spans in one["steps"]["down"].values() for a, b in spans)
    edit({"edit": "set-value", "object": "postie", "channel": "near-arm.upper", "value": 25.0})
    fresh = motion(since=revision)["objects"]
    assert "near-arm.upper" in fresh["postie"]["bones"]
    assert all(name.startswith("near-arm") for name in fresh["postie"]["bones"])
    assert "steps" not in fresh["postie"]
    assert any("near-arm-forearm" in name for name in fresh)
    assert not any("leg-foot" in name for name in fresh)


def test_figures_are_kept_and_every_step_comes_back(client, walker):
    address, edit, _ = walker
    empty = client.get(address).json()["scene"]
    edit(FIGURE, *WALK)
    begun = client.get(address).json()
    figure = copy.deepcopy(begun["scene"]["objects"][0]["figure"])
    figure["limbs"][0]["joints"][1] = [20, -51]
    edit({"edit": "set-figure", "id": "postie", "figure": figure}, {"edit": "freeze-walk", "id": "postie", "first": 20, "last": 40})
    changed = client.get(address).json()
    client.post(f"{address}/undo", json={"revision": changed["revision"]})
    again = client.get(address).json()
    assert again["scene"] == begun["scene"]
    client.post(f"{address}/undo", json={"revision": again["revision"]})
    gone = client.get(address).json()
    assert gone["scene"] == empty
    client.post(f"{address}/redo", json={"revision": gone["revision"]})
    assert client.get(address).json()["scene"] == begun["scene"]


def test_what_is_wrong_with_a_figure_is_a_plain_answer(client, walker):
    _, edit, _ = walker
    edit(FIGURE)
    answer = edit({"edit": "set-gait", "id": "postie", "preset": "hop"}, status=422)
    assert "there is no gait 'hop'" in answer["detail"]
    answer = edit({"edit": "set-figure", "id": "postie", "figure": {"spine": [[0, -9]]}}, status=422)
    assert "spine" in answer["detail"]


def test_a_cycle_is_exported_as_a_see_through_flipbook(client, walker):
    address, edit, _ = walker
    edit(FIGURE, WALK[0], {"edit": "set-setting", "object": "postie", "rule": "gait", "setting": "treadmill", "value": 24.0})
    (job,) = client.post(f"{address}/exports", json={"formats": ["flipbook"], "options": {"scale": 0.5, "first": 0, "last": 23}}).json()
    for _ in range(400):
        state = client.get(f"/api/exports/{job['id']}").json()
        if state["state"] not in ("waiting", "running"):
            break
        time.sleep(0.02)
    assert (state["state"], state["done"], state["name"]) == ("done", 24, "Untitled scene.zip")
    with zipfile.ZipFile(io.BytesIO(client.get(f"/api/exports/{job['id']}/file").content)) as book:
        names = book.namelist()
        pictures = [np.asarray(Image.open(io.BytesIO(book.read(name)))) for name in names]
    assert names == [f"frame-{n:04d}.png" for n in range(24)]
    assert pictures[0].shape == (200, 400, 4)
    assert pictures[0][0, 0, 3] == 0, "no background"
    assert (pictures[0][..., 3] > 0).sum() > 500
    assert any((pictures[0] != one).any() for one in pictures[1:])
