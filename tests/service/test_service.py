"""The service: thin routes, plain problems, and only our own pages let in."""

import gzip
import io
import json

import msgpack
import numpy as np
import pytest
from fastapi.testclient import TestClient
from PIL import Image

from tests.motion.scenes import EXAMPLE
from tests.pictures import saved
from vine_swing.motion import bake, parse
from vine_swing.picture.paint import Painter
from vine_swing.service.app import create_app
from vine_swing.service.routes import motion as motion_routes
from vine_swing.store import SceneStore

KEY = {"edit": "set-key", "object": "mango", "channel": "y", "frame": 0, "value": 12}

JSON = {"content-type": "application/json"}


def made(client, data=EXAMPLE):
    answer = client.post("/api/scenes", json=data)
    assert answer.status_code == 201, answer.text
    return answer.json()


def edit(client, scene, *edits, revision=0):
    return client.post(f"/api/scenes/{scene['id']}/edits", json={"revision": revision, "edits": list(edits)})


def problem(answer, status):
    assert answer.status_code == status, answer.text
    assert answer.headers["content-type"] == "application/problem+json"
    body = answer.json()
    assert body["status"] == status
    assert body["title"]
    return body["detail"]


def motion(client, scene, since=None):
    answer = client.get(f"/api/scenes/{scene['id']}/motion", params={} if since is None else {"since": since})
    assert answer.status_code == 200
    return msgpack.unpackb(answer.content)


def rows(array):
    return np.frombuffer(array["d"], "<f4").reshape(-1, array["w"])


def test_motion_is_the_bake_as_float32(client):
    scene = made(client)
    sent = motion(client, scene)
    baked = bake(parse(json.dumps(EXAMPLE)))
    mango = sent["objects"]["mango"]
    np.testing.assert_array_equal(rows(mango["channels"]["x"])[:, 0], baked["Mango", "x"].astype("<f4"))
    np.testing.assert_array_equal(rows(mango["view"]), baked.objects["mango"].view.astype("<f4"))
    assert rows(mango["channels"]["width"]).tolist() == [[120]], "what never changes is one row"
    assert mango["turns"] == {"x": [24, 48, 72, 96]}
    assert (sent["revision"], sent["length"], sent["order"], sent["hidden"]) == (0, 120, ["mango"], [])


def test_after_an_edit_only_what_changed_is_sent(client):
    data = EXAMPLE | {"objects": [*EXAMPLE["objects"], EXAMPLE["objects"][0] | {"id": "nut", "name": "Nut"}]}
    scene = made(client, data)
    motion(client, scene)
    changed = edit(client, scene, KEY).json()
    assert [one["id"] for one in changed["objects"]] == ["mango"]
    assert changed["history"]["undo"] == "key Mango travel y at 0"
    sent = motion(client, scene, since=0)
    assert sent["whole"] is False
    assert set(sent["objects"]) == {"mango"}
    assert set(sent["objects"]["mango"]) == {"view", "local", "place", "middle", "channels"}
    assert set(sent["objects"]["mango"]["channels"]) == {"y"}
    assert motion(client, scene, since=1)["objects"] == {}


def test_what_is_gone_is_told(client):
    scene = made(client)
    assert motion(client, scene)["objects"]["mango"]["turns"] == {"x": [24, 48, 72, 96]}
    edit(client, scene, {"edit": "delete-keys", "object": "mango", "channel": "x", "frames": [24]})
    # With a single key left nothing goes round any more.
    assert motion(client, scene, since=0)["objects"]["mango"]["turns"] == {"x": None}
    assert "turns" not in motion(client, scene)["objects"]["mango"]


def test_who_was_away_while_one_went_and_another_came_is_told_all_of_it(client):
    scene = made(client)
    motion(client, scene)
    edit(client, scene, {"edit": "delete-object", "id": "mango"})
    edit(client, scene, {"edit": "add-object", "object": {"id": "mango", "name": "Nut", "kind": "shape", "shape": {"type": "star"}}}, revision=1)
    assert motion(client, scene, since=0)["objects"]["mango"]["whole"] is True
    edit(client, scene, {"edit": "set-value", "object": "mango", "channel": "x", "value": 4}, revision=2)
    assert "whole" not in motion(client, scene, since=2)["objects"]["mango"]


def test_undo_sends_what_it_changed_back(client):
    scene = made(client)
    edit(client, scene, KEY)
    undone = client.post(f"/api/scenes/{scene['id']}/undo", json={"revision": 1}).json()
    assert undone["revision"] == 2
    sent = motion(client, scene, since=1)
    assert rows(sent["objects"]["mango"]["channels"]["y"]).tolist() == [[0]]
    redone = client.post(f"/api/scenes/{scene['id']}/redo", json={"revision": 2}).json()
    assert redone["history"] == {"undo": "key Mango travel y at 0", "redo": None}


def test_a_look_keeps_nothing(client):
    scene = made(client)
    body = {"revision": 0, "edits": [KEY]}
    answer = client.post(f"/api/scenes/{scene['id']}/look", json=body)
    sent = msgpack.unpackb(answer.content)
    assert rows(sent["objects"]["mango"]["channels"]["y"])[0, 0] == 12
    assert client.get(f"/api/scenes/{scene['id']}").json() == scene
    assert motion(client, scene, since=0)["objects"] == {}


def test_deleting_and_hiding_are_told(client):
    scene = made(client)
    edit(client, scene, {"edit": "show-object", "id": "mango", "shown": False})
    assert motion(client, scene, since=0)["hidden"] == ["mango"]
    edit(client, scene, {"edit": "delete-object", "id": "mango"}, revision=1)
    assert motion(client, scene, since=1)["order"] == []


def test_the_vine_is_told_step_by_step(client):
    scene = made(client)
    steps = client.get(f"/api/scenes/{scene['id']}/vine", params={"object": "mango", "channel": "rotation"}).json()["steps"]
    assert [step["kind"] for step in steps] == ["keys", "ends", "oscillator", "result"]
    assert len(steps[-1]["values"]) == 120
    assert "no channel 'wings'" in problem(client.get(f"/api/scenes/{scene['id']}/vine", params={"object": "mango", "channel": "wings"}), 404)


def test_scene_files_out_and_in(client):
    scene = made(client)
    file = client.get(f"/api/scenes/{scene['id']}/file")
    assert "attachment" in file.headers["content-disposition"]
    again = client.post("/api/scene-files", content=file.content, headers=JSON)
    assert again.status_code == 201
    assert again.json()["scene"] == scene["scene"]


def test_copies_get_a_name_of_their_own(client):
    scene = made(client)
    names = [client.post(f"/api/scenes/{scene['id']}/copies", json={}).json()["scene"]["name"] for _ in range(2)]
    assert names == ["Example 2", "Example 3"]


def test_deleting_and_restoring(client):
    scene = made(client)
    assert client.delete(f"/api/scenes/{scene['id']}").status_code == 204
    assert "may have been deleted" in problem(client.get(f"/api/scenes/{scene['id']}"), 404)
    assert "may have been deleted" in problem(edit(client, scene, KEY), 404)
    assert client.get("/api/scenes").json()["deleted"][0]["id"] == scene["id"]
    assert client.post(f"/api/scenes/{scene['id']}/restore").json()["scene"] == scene["scene"]


def test_an_old_revision_is_a_conflict_that_tells_the_new_one(client):
    scene = made(client)
    edit(client, scene, KEY)
    answer = edit(client, scene, KEY | {"frame": 3}, revision=0)
    assert "moved on to revision 1" in problem(answer, 409)
    assert answer.json()["revision"] == 1
    for what in ("undo", "redo"):
        problem(client.post(f"/api/scenes/{scene['id']}/{what}", json={"revision": 0}), 409)
    problem(client.post(f"/api/scenes/{scene['id']}/look", json={"revision": 0, "edits": [KEY]}), 409)


BAD = [
    (
        {"edit": "set-key", "object": "mango", "channel": "x", "frame": 1e12, "value": 1},
        422,
        "edits[1].frame: should be less than or equal to 1000000; it is 1000000000000.0",
    ),
    ({"edit": "set-key", "object": "mango", "channel": "x", "frame": 0, "value": 1, "wobble": 2}, 422, "edits[1].wobble: this field is unknown"),
    ({"edit": "fly"}, 422, "edits[1].edit: should be one of 'add-object', 'add-objects', 'duplicate-objects'"),
    ({"edit": "set-key", "object": "ghost", "channel": "x", "frame": 0, "value": 1}, 404, "there is no object 'ghost'"),
    ({"edit": "set-value", "object": "mango", "channel": "x", "value": 1}, 422, "has keys"),
    ({"edit": "set-shape", "id": "mango", "shape": {"type": "outline", "d": "M 0 0"}}, 422, "'Mango': this SVG path draws nothing"),
    ({"edit": "set-shape", "id": "mango", "shape": {"type": "blob"}}, 422, "edits[1].shape.type: should be one of"),
]


@pytest.mark.parametrize(("bad", "status", "says"), BAD)
def test_bad_edits_are_refused_in_words_and_change_nothing(client, bad, status, says):
    scene = made(client)
    assert says in problem(edit(client, scene, KEY, bad), status)
    assert client.get(f"/api/scenes/{scene['id']}").json() == scene


@pytest.mark.parametrize(
    ("body", "status", "says"),
    [
        (b"{", 400, "not JSON"),
        (b"[]", 422, "should be"),
        (b'{"fps": NaN}', 422, "fps: must be a finite number"),
        (b'{"hello": 1}', 422, "hello: this field is unknown"),
        (b"\xff", 400, ""),
    ],
)
def test_bad_bodies(client, body, status, says):
    assert says in problem(client.post("/api/scenes", content=body, headers={"content-type": "application/json"}), status)
    assert client.get("/api/scenes").json()["scenes"] == []


def test_a_body_of_50_mb_is_refused_whether_or_not_it_says_its_length(client):
    assert "at most 16 MB" in problem(client.post("/api/scene-files", content=b" " * 50_000_000, headers=JSON), 413)

    def pieces():
        for _ in range(50):
            yield b" " * 1_000_000

    assert "at most 16 MB" in problem(client.post("/api/scene-files", content=pieces(), headers=JSON), 413)


@pytest.mark.parametrize("host", ["evil.example", "127.0.0.1.evil.example", "", "[::1", "localhost@evil.example"])
def test_foreign_hosts_are_refused(client, host):
    assert client.get("/api/scenes", headers={"host": host}).status_code == 403


def test_foreign_origins_are_refused_and_our_own_let_in(client):
    for origin in ("http://evil.example", "http://127.0.0.1:9999", "null", "https://localhost.evil.example"):
        assert "refused" in problem(client.post("/api/scenes", json={}, headers={"origin": origin}), 403)
    assert client.post("/api/scenes", json={}, headers={"origin": "http://127.0.0.1:8137"}).status_code == 201
    assert client.get("/api/scenes", headers={"host": "localhost:8137"}).status_code == 200
    two = [("origin", "http://127.0.0.1:8137"), ("origin", "http://evil.example")]
    for headers in (two, two[::-1]):
        assert "names its origin" in problem(client.post("/api/scenes", json={}, headers=headers), 403)


def test_a_message_has_at_most_500_characters_on_one_line(client):
    detail = problem(client.post("/api/scenes", json={"objects": [{"kind": "x\n" * 400}] * 30}), 422)
    assert len(detail) <= 500
    assert detail.isprintable()


def test_addresses_that_are_not_there(client):
    problem(client.get("/api/nothing"), 404)
    problem(client.get("/api/scenes/..%2f..%2fsecret"), 404)
    problem(client.delete("/api/scenes"), 405)
    page = client.get("/../../pyproject.toml")
    assert "[project]" not in page.text


def test_the_vocabulary_has_what_menus_need(client):
    words = client.get("/api/vocabulary").json()
    assert {feel["name"] for feel in words["feels"]} >= {"even", "slow-in", "snap", "heavy", "spring", "bounce"}
    assert [end["mode"] for end in words["ends"]] == ["hold", "coast", "loop", "climb", "ping-pong"]
    assert set(words["channels"]) == {
        "ellipse",
        "rectangle",
        "polygon",
        "star",
        "line",
        "outline",
        "text",
        "group",
        "parade",
        "picture",
        "inset",
        "camera",
    }
    for feel in words["feels"]:
        assert (feel["curve"][0], feel["curve"][-1]) == (0, 1)
        assert feel["about"]


def test_large_pictures_are_handed_out_in_smaller_sizes_that_are_kept(client):
    data = saved(Image.new("RGB", (2400, 40), (63, 143, 99)), "PNG")
    one = client.post("/api/pictures", params={"name": "hills.png"}, content=data, headers={"content-type": "application/octet-stream"}).json()
    address = f"/api/pictures/{one['pictures'][0]['id']}"
    whole, small = client.get(address).content, client.get(address, params={"wide": 512}).content
    assert whole == data
    assert Image.open(io.BytesIO(small)).size == (600, 10)
    assert client.app.state.sessions.store.reduced.find(one["pictures"][0]["id"], 512) == small
    # There is nothing to be halved.
    assert client.get(address, params={"wide": 2048}).content == data
    problem(client.get(address, params={"wide": 7}), 422)


def test_feels_are_looked_at_kept_and_let_go(client):
    points = [[0, 0], [0.5, 1.2], [1, 1]]
    looked = client.post("/api/feels/look", json={"points": points})
    assert looked.status_code == 200
    assert client.get("/api/feels").json() == [], "looking keeps nothing"
    kept = client.put("/api/feels/Late settle", json={"points": points, "smooth": True}).json()
    assert kept["ease"] == looked.json()["ease"]
    assert max(kept["curve"]) == pytest.approx(1.2, abs=1e-3)
    assert [feel["name"] for feel in client.get("/api/feels").json()] == ["Late settle"]
    scene = made(client)
    key = {"edit": "set-ease", "object": "mango", "channel": "x", "frames": [0], "ease": kept["ease"]}
    assert edit(client, scene, key).status_code == 200
    assert client.delete("/api/feels/Late settle").status_code == 204
    assert "no feel 'Late settle'" in problem(client.delete("/api/feels/Late settle"), 404)
    assert "u 0 to u 1" in problem(client.put("/api/feels/Half", json={"points": [[0, 0], [0.5, 1]]}), 422)
    assert "share one u" in problem(client.post("/api/feels/look", json={"points": [[0, 0], [0.5, 1], [0.5, 0], [1, 1]]}), 422)


def test_a_path_is_sent_and_explained(client):
    scene = made(client)
    ok = edit(client, scene, *({"edit": "set-key", "object": "mango", "channel": "path", "frame": f, "value": [f * 3, f * 4]} for f in (0, 24)))
    assert ok.status_code == 200
    thing = motion(client, scene)["objects"]["mango"]
    assert thing["channels"]["path"]["w"] == 2
    vine = client.get(f"/api/scenes/{scene['id']}/vine", params={"object": "mango", "channel": "path"}).json()
    assert vine["steps"][-1]["values"][24] == pytest.approx(120), "the way passed, in px"
    y = client.get(f"/api/scenes/{scene['id']}/vine", params={"object": "mango", "channel": "y"}).json()
    assert y["steps"][0]["values"][12] == pytest.approx(48)


def test_principles_are_told_painted_and_opened(client):
    told = client.get("/api/principles").json()
    assert len(told) == 12
    for one in told:
        assert one["about"], one["name"]
        motion = msgpack.unpackb(client.get(f"/api/principles/{one['name']}/motion").content)
        assert motion["whole"]
        assert motion["objects"]
        made = client.post("/api/scene-files", content=client.get(f"/api/principles/{one['name']}/file").content, headers=JSON)
        assert made.status_code in (200, 201), made.text
    missing = client.get("/api/principles/none/motion")
    assert missing.status_code == 404
    assert "there is no principle 'none'" in missing.json()["detail"]


def test_contacts_are_sent_with_the_motion_and_called_off(client):
    bounce = {"id": "b", "kind": "bounce", "channels": ["y"], "settings": {"floor": 300, "fall": 10, "keep": 0.1}}
    mango = {**EXAMPLE["objects"][0], "rules": [bounce], "channels": {"y": 100}}
    state = made(client, {**EXAMPLE, "objects": [mango]})
    first = motion(client, state)["objects"]["mango"]
    assert first["contacts"][:2] == [10, pytest.approx(10 + 20 * 0.1**0.5, abs=1e-3)]
    changed = edit(client, state, {"edit": "set-rule", "object": "mango", "rule": "b", "on": False}, revision=state["revision"])
    assert changed.status_code == 200, changed.text
    assert motion(client, state, since=state["revision"])["objects"]["mango"]["contacts"] is None


def test_the_shelfs_still_is_made_once_a_revision(client, monkeypatch):
    made = []
    real = motion_routes.preview
    monkeypatch.setattr(motion_routes, "preview", lambda baked: made.append(1) or real(baked))
    opened = client.post("/api/scenes", json=EXAMPLE).json()
    address = f"/api/scenes/{opened['id']}/preview"
    first = client.get(f"{address}?revision=0")
    picture = Image.open(io.BytesIO(first.content))
    assert (picture.format, picture.size) == ("WEBP", (560, 315))
    # The picture is the export's own, at the frame a third of the way in.
    painted = Painter(bake(parse(json.dumps(EXAMPLE))), scale=560 / 1280).frame(40)
    assert np.abs(np.asarray(picture.convert("RGB"), float) - painted[..., :3]).mean() < 3
    assert client.get(address).content == first.content
    assert len(made) == 1
    assert "immutable" in first.headers["cache-control"]
    client.post(f"/api/scenes/{opened['id']}/edits", json={"revision": 0, "edits": [KEY | {"value": 300}]})
    later = client.get(f"{address}?revision=0")
    assert later.content != first.content
    assert len(made) == 2
    assert later.headers["cache-control"] == "no-cache"


def test_the_page_is_sent_compressed_to_those_who_take_it(tmp_path):
    web = tmp_path / "web"
    (web / "assets").mkdir(parents=True)
    text = "const leaf = 'green';\n" * 500
    (web / "assets" / "page.js").write_text(text)
    (web / "assets" / "page.js.gz").write_bytes(gzip.compress(text.encode()))
    (web / "assets" / "small.js").write_text("1")
    (web / "index.html").write_text("<p>page</p>")
    store = SceneStore(tmp_path / "kept.db")
    with TestClient(create_app(store, web=web), base_url="http://127.0.0.1:8137") as client:
        for asked, told in (("gzip, br", "gzip"), ("identity", None)):
            answer = client.get("/assets/page.js", headers={"accept-encoding": asked})
            assert (answer.text, answer.headers.get("content-encoding")) == (text, told)
            assert "immutable" in answer.headers["cache-control"]
            assert answer.headers["content-type"].startswith("text/javascript")
        assert int(client.get("/assets/page.js", headers={"accept-encoding": "gzip"}).headers["content-length"]) < len(text) / 10
        # What is too small to be worth it was not compressed.
        assert "content-encoding" not in client.get("/assets/small.js", headers={"accept-encoding": "gzip"}).headers
        assert client.get("/scenes/any").text == "<p>page</p>"
    store.close()


def test_steps_of_the_paint_list_are_sent_only_where_they_change(client):
    opened = client.post("/api/scenes", json=EXAMPLE).json()
    address = f"/api/scenes/{opened['id']}"

    def look(**edit):
        answer = client.post(f"{address}/look", json={"revision": 0, "edits": [{"object": "mango", "frame": 0} | edit]})
        return msgpack.unpackb(answer.content)

    whole = msgpack.unpackb(client.get(f"{address}/motion").content)
    assert [step["op"] for step in whole["steps"]] == ["fill"]
    assert "steps" not in look(edit="set-key", channel="x", value=7)
    assert "steps" not in look(edit="set-key", channel="fill", value="#123456")
    # A line appears: one more step. It fades: a group.
    assert [step["op"] for step in look(edit="set-key", channel="stroke.width", value=5)["steps"]] == ["fill", "stroke"]
    both = {
        "revision": 0,
        "edits": [
            {"edit": "set-key", "object": "mango", "channel": name, "frame": 0, "value": value}
            for name, value in (("stroke.width", 5), ("opacity", 0.5))
        ],
    }
    client.post(f"{address}/edits", json=both)
    (group,) = msgpack.unpackb(client.get(f"{address}/motion?since=0").content)["steps"]
    assert (group["op"], group["opacity"]) == ("group", [["mango", "fade"]])
    client.post(f"{address}/undo", json={"revision": 1})
    assert [step["op"] for step in msgpack.unpackb(client.get(f"{address}/motion?since=1").content)["steps"]] == ["fill"]
    # Another fill rule is no other track, but another step.
    square = {"type": "outline", "d": "M 0 0 H 9 V 9 H 0 Z"}
    for revision, rule in ((2, "nonzero"), (3, "evenodd")):
        set_shape = {"edit": "set-shape", "id": "mango", "shape": square | {"fill_rule": rule}}
        client.post(f"{address}/edits", json={"revision": revision, "edits": [set_shape]})
    (fill,) = msgpack.unpackb(client.get(f"{address}/motion?since=3").content)["steps"]
    assert fill["rule"] == "evenodd"
