"""Dials, cues, drives and drafted links over HTTP, kept and undone like everything else."""

import msgpack
import numpy as np
import pytest

GEAR = {"id": "gear", "name": "Gear", "kind": "shape", "shape": {"type": "ellipse"}}
WHEEL = {
    "id": "wheel",
    "name": "Mill wheel",
    "kind": "shape",
    "shape": {"type": "ellipse"},
    "channels": {"rotation": {"keys": [{"frame": 0, "value": 0}, {"frame": 24, "value": 90}]}},
}
WIND = {"id": "wind", "name": "Wind", "unit": "%", "low": 0, "high": 1, "channel": {"base": 0.5}}
CUE = {"id": "turn", "name": "Turn", "first": 0, "last": 24, "objects": ["wheel"], "key": "t", "plays": "loop"}


@pytest.fixture
def mill(client):
    """A scene of two wheels: its address, and a function that makes edits against its newest revision."""
    scene = {"format": "vine-swing-scene", "version": 1, "name": "Mill", "length": 48, "objects": [GEAR, WHEEL], "dials": [WIND], "cues": [CUE]}
    address = f"/api/scenes/{client.post('/api/scenes', json=scene).json()['id']}"

    def edit(*edits, status=200):
        answer = client.post(f"{address}/edits", json={"revision": client.get(address).json()["revision"], "edits": list(edits)})
        assert answer.status_code == status, answer.text
        return answer.json()

    return address, edit


def values(message, owner, channel):
    return np.frombuffer(message["objects"][owner]["channels"][channel]["d"], dtype="<f4")


def test_dials_and_cues_are_kept_and_come_back_undone(client, mill):
    address, edit = mill
    before = client.get(address).json()["scene"]
    head = edit(
        {"edit": "set-key", "object": "dial:wind", "channel": "value", "frame": 12, "value": 1.0},
        {"edit": "set-dial", "id": "wind", "name": "Breeze", "unit": ""},
        {"edit": "set-cue", "cue": CUE | {"last": 12}},
    )["head"]
    assert (head["dials"][0]["name"], head["cues"][0]["last"]) == ("Breeze", 12)
    after = client.get(address).json()
    assert after["scene"]["dials"][0]["channel"]["keys"][0]["value"] == 1
    client.post(f"{address}/undo", json={"revision": after["revision"]})
    assert client.get(address).json()["scene"] == before
    edit({"edit": "delete-dial", "id": "wind"}, {"edit": "delete-cue", "id": "turn"})
    gone = client.get(address).json()
    assert (gone["scene"]["dials"], gone["scene"]["cues"]) == ([], [])
    client.post(f"{address}/undo", json={"revision": gone["revision"]})
    assert client.get(address).json()["scene"] == before


def test_a_setting_s_formula_is_kept(client, mill):
    address, edit = mill
    rule = {"id": "n", "kind": "noise", "channels": ["y"], "settings": {"amplitude": {"base": 6.0, "formula": "value * {Wind}"}}}
    edit({"edit": "add-rule", "object": "gear", "rule": rule})
    settings = client.get(address).json()["scene"]["objects"][0]["rules"][0]["settings"]
    assert (settings["amplitude"]["base"], settings["amplitude"]["formula"]) == (6, "value * {Wind}")
    edit({"edit": "link-setting", "object": "gear", "rule": "n", "setting": "amplitude", "formula": None})
    state = client.get(address).json()
    assert state["scene"]["objects"][0]["rules"][0]["settings"]["amplitude"]["formula"] is None
    client.post(f"{address}/undo", json={"revision": state["revision"]})
    assert client.get(address).json()["scene"]["objects"][0]["rules"][0]["settings"]["amplitude"]["formula"] == "value * {Wind}"


def test_the_motion_of_dials_is_sent_and_only_when_it_changes(client, mill):
    address, edit = mill
    whole = msgpack.unpackb(client.get(f"{address}/motion").content)
    assert whole["dials"] == ["dial:wind"]
    assert values(whole, "dial:wind", "value").tolist() == [0.5]
    revision = edit({"edit": "set-value", "object": "gear", "channel": "x", "value": 5.0})["revision"]
    assert "dial:wind" not in msgpack.unpackb(client.get(f"{address}/motion?since={revision - 1}").content)["objects"]
    revision = edit({"edit": "set-value", "object": "dial:wind", "channel": "value", "value": 0.75})["revision"]
    changed = msgpack.unpackb(client.get(f"{address}/motion?since={revision - 1}").content)
    assert list(changed["objects"]) == ["dial:wind"]
    assert values(changed, "dial:wind", "value").tolist() == [0.75]


def test_links_are_drafted_put_on_and_listed(client, mill):
    address, edit = mill
    how = {"how": "geared", "driver_size": 24, "own_size": 12}
    draft = {"driver": {"object": "wheel", "channel": "rotation"}, "driven": [{"object": "gear", "channel": "rotation"}], "how": how, "keep_at": 0}
    (formula,) = client.post(f"{address}/link-drafts", json=draft).json()["formulas"]
    assert formula == "{Mill wheel.rotation} * -24 / 12"
    rule = {"id": "l", "kind": "link", "channels": ["rotation"], "mode": "replace", "settings": {"formula": formula}}
    edit({"edit": "add-rule", "object": "gear", "rule": rule})
    listed = client.get(f"{address}/drives").json()["drives"]
    assert listed == [
        {
            "driver": {"object": "wheel", "channel": "rotation"},
            "driven": {"object": "gear", "channel": "rotation"},
            "rule": "l",
            "kind": "link",
            "setting": None,
        }
    ]
    vine = client.get(f"{address}/vine", params={"object": "dial:wind", "channel": "value"}).json()
    assert [step["kind"] for step in vine["steps"]] == ["keys", "ends", "result"]


@pytest.mark.parametrize(
    ("change", "status", "says"),
    [
        ({"driver": {"object": "dial:rain", "channel": "value"}}, 404, "no channel"),
        ({"driven": []}, 422, "at least 1"),
        ({"how": {"how": "remapped", "low": 2, "high": 2}}, 422, "let its ends differ"),
        ({"how": {"how": "sideways"}}, 422, "how"),
        ({"driven": [{"object": "gear", "channel": "fill"}]}, 422, "no numbers"),
    ],
)
def test_bad_drafts_are_refused_in_words(client, mill, change, status, says):
    draft = {
        "driver": {"object": "wheel", "channel": "rotation"},
        "driven": [{"object": "gear", "channel": "x"}],
        "how": {"how": "same"},
        "keep_at": 0,
    }
    answer = client.post(f"{mill[0]}/link-drafts", json=draft | change)
    assert answer.status_code == status
    assert answer.headers["content-type"] == "application/problem+json"
    assert says in answer.json()["detail"]
