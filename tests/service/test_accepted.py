"""What is accepted can be read, baked, kept and undone; what cannot is refused before anything is written."""

import threading
import time

import pytest
from fastapi.testclient import TestClient

from tests.motion.scenes import EXAMPLE, channel, scene, shape
from tests.service.test_service import edit, made, problem
from vine_swing.motion.basics.specs import SHAPES
from vine_swing.motion.scene.scene_file import to_data
from vine_swing.service import deadline, sessions
from vine_swing.service.app import create_app
from vine_swing.store import SceneStore, StoreError


def data(*things, **rest):
    return to_data(scene(*things, **rest))


def reopened(client):
    """A client of a new server on the same data file: nothing is in memory."""
    store = client.app.state.sessions.store
    return TestClient(create_app(store), base_url="http://127.0.0.1:8137")


def still_there(client, made_scene, revision):
    """Whether a scene is unchanged, in memory and in the file, and can be seen."""
    for one in (client, reopened(client)):
        assert one.get(f"/api/scenes/{made_scene['id']}").json()["revision"] == revision
        assert one.get(f"/api/scenes/{made_scene['id']}/motion").status_code == 200


#: What shapes have besides their channels.
OWN = {"outline": {"d": "M 0 0 L 40 0 L 20 30 Z"}, "text": {"text": "Mail"}}


@pytest.mark.parametrize("to", sorted(SHAPES))
@pytest.mark.parametrize("of", sorted(set(SHAPES) - {"outline"}))
def test_another_shape_takes_rules_on_channels_it_has_not_along(client, of, to):
    rules = [
        {"id": "r", "kind": "oscillator", "channels": [spec.name], "settings": {"amplitude": 3}} for spec in SHAPES[of] if spec.kind == "number"
    ][:1]
    rules += [{"id": "w", "kind": "noise", "channels": ["x", *[spec.name for spec in SHAPES[of] if spec.kind == "number"]]}]
    one = made(client, data(shape("a", rules=rules) | {"shape": {"type": of} | OWN.get(of, {})}))
    shape_to = {"type": to} | OWN.get(to, {})
    answer = edit(client, one, {"edit": "set-shape", "id": "a", "shape": shape_to})
    assert answer.status_code == 200, answer.text
    still_there(client, one, 1 if to != of else 0)


@pytest.mark.parametrize(
    ("edits", "says"),
    [
        ([{"edit": "add-object", "object": shape("b") | {"bone": "hips", "parent": "a"}}], "is attached to the bone 'hips'"),
        ([{"edit": "stretch-keys", "keys": [{"object": "a", "channel": "x", "frames": [0, 24, 2000]}], "about": 0, "factor": 1000}], "out of reach"),
        ([{"edit": "move-pivot", "id": "a", "frame": 0, "x": 1e9, "y": -1e9}], ""),
        ([{"edit": "turn-times", "object": "a", "frame": 0, "times": 10_000_000, "clockwise": True}], ""),
        ([{"edit": "set-setting", "object": "a", "rule": "l", "setting": "formula", "value": "{A.rotation} + 1"}], "A.rotation ← A.rotation"),
        ([{"edit": "rename-object", "id": "a", "name": "x\x00y"}], "name"),
        ([{"edit": "set-setting", "object": "a", "rule": "l", "setting": "formula", "value": "f\x00 + 1"}], "does not fit here"),
        ([{"edit": "add-cue", "cue": {"id": "c", "name": "C", "first": 0, "last": 3, "key": "\x00"}}], "key"),
    ],
)
def test_what_would_not_be_a_scene_leaves_nothing_behind(client, edits, says):
    link = {"id": "l", "kind": "link", "channels": ["rotation"], "settings": {"formula": "f"}}
    one = made(client, data(shape("a", x=channel((0, 0), (24, 9e8), (2000, 0)), rotation=channel((0, 0), (24, 90)), rules=[link])))
    assert says in problem(edit(client, one, *edits), 422)
    still_there(client, one, 0)


def test_two_rules_of_one_id_are_refused(client):
    rule = {"id": "r", "kind": "noise", "channels": ["x"]}
    written = data(shape("a"))
    written["objects"][0]["rules"] = [rule, rule]
    assert "two rules of 'A' have the id 'r'" in problem(client.post("/api/scenes", json=written), 422)


@pytest.mark.parametrize("address", ["/api/scenes", "/api/scene-files"])
def test_rings_are_refused_at_every_door(client, address):
    def link(of):
        return [{"id": "l", "kind": "link", "channels": ["x"], "settings": {"formula": f"{{{of}.x}}"}}]

    written = data(shape("a"), shape("b"))
    for thing, of in zip(written["objects"], ("B", "A"), strict=True):
        thing["rules"] = link(of)
    assert "A.x ← B.x ← A.x" in problem(client.post(address, json=written), 422)
    assert client.get("/api/scenes").json()["scenes"] == []


@pytest.mark.parametrize("kind", ["wind-up", "overshoot"])
def test_rules_on_keyed_moves_act_on_what_follows_a_path(client, kind):
    path = {"keys": [{"frame": 0, "value": [0, 0]}, {"frame": 24, "value": [0, 0]}, {"frame": 48, "value": [300, 100]}]}
    one = made(client, data(shape("a", path=path)))
    answer = edit(client, one, {"edit": "add-rule", "object": "a", "rule": {"id": "r", "kind": kind, "channels": ["x", "y"]}})
    assert answer.status_code == 200, answer.text
    still_there(client, one, 1)


@pytest.mark.parametrize("kind", ["wind-up", "overshoot"])
def test_a_path_is_made_under_rules_on_keyed_moves(client, kind):
    moves = channel((0, 0), (24, 100), (48, 20))
    one = made(client, data(shape("a", x=moves, y=moves, rules=[{"id": "r", "kind": kind, "channels": ["x"]}])))
    assert edit(client, one, {"edit": "join-path", "object": "a"}).status_code == 200
    still_there(client, one, 1)


def test_a_value_that_grows_out_of_reach_is_refused(client):
    rules = [{"id": f"r{n}", "kind": "exaggerate", "channels": ["x"], "settings": {"amount": 100.0}} for n in range(4)]
    one = made(client, data(shape("a", x=channel((0, 0), (24, 1e8)), rules=rules[:3])))
    assert "A.x would grow out of reach at frame" in problem(edit(client, one, {"edit": "add-rule", "object": "a", "rule": rules[3]}), 422)
    still_there(client, one, 0)


def test_the_file_s_revision_is_the_truth(client):
    one = made(client)
    other = reopened(client)
    assert edit(client, one, {"edit": "set-length", "length": 60}).status_code == 200
    assert edit(other, one, {"edit": "set-length", "length": 61}, revision=1).status_code == 200
    # The first server's memory is behind the file; it catches up instead of refusing everything.
    assert edit(client, one, {"edit": "set-length", "length": 62}, revision=2).status_code == 200
    assert client.get(f"/api/scenes/{one['id']}").json()["scene"]["length"] == 62


def test_a_scene_in_use_is_not_let_go(client, monkeypatch):
    monkeypatch.setattr(sessions, "MOST_SCENES", 2)
    held = client.app.state.sessions
    first = made(client)
    with held.use(first["id"]) as session:
        for _ in range(4):
            made(client)
            assert client.get("/api/scenes").status_code == 200
        with held.use(first["id"]) as again:
            assert again.session is session.session
    assert len(held._open) <= 2


def test_what_takes_too_long_is_refused_in_words(client, monkeypatch):
    monkeypatch.setattr(deadline, "LONGEST", -1.0)
    smooth = shape("a", x=channel((0, 0), (24, 9)), rules=[{"id": "s", "kind": "smooth", "channels": ["x"]}])
    assert "would take longer than" in problem(client.post("/api/scenes", json=data(smooth)), 422)
    assert client.get("/api/scenes").json()["scenes"] == []


def test_too_many_that_wait_for_one_scene_are_told_to_come_again(client):
    one = made(client)
    held = client.app.state.sessions
    codes = []

    def ask():
        codes.append(client.get(f"/api/scenes/{one['id']}").status_code)

    with held.use(one["id"]):
        threads = [threading.Thread(target=ask) for _ in range(12)]
        for thread in threads:
            thread.start()
        deadline = time.monotonic() + 60
        while codes.count(429) < 5 and time.monotonic() < deadline:
            time.sleep(0.01)
        assert client.get("/api/scenes").status_code == 200, "other addresses answer meanwhile"
    for thread in threads:
        thread.join()
    assert sorted(codes) == [200] * 7 + [429] * 5


def test_an_edit_takes_one_of_the_places_of_a_scene(client):
    one = made(client)
    held = client.app.state.sessions
    codes = []

    def edit(n):
        body = {"revision": 0, "edits": [{"edit": "set-fps", "fps": 10.0 + n}]}
        codes.append(client.post(f"/api/scenes/{one['id']}/edits", json=body).status_code)

    with held.use(one["id"]):
        threads = [threading.Thread(target=edit, args=(n,)) for n in range(7)]
        for thread in threads:
            thread.start()
        deadline = time.monotonic() + 60
        while held._waiting[one["id"]] < 8:
            assert time.monotonic() < deadline, f"{held._waiting} requests wait; {codes} were answered"
            time.sleep(0.01)
    for thread in threads:
        thread.join()
    assert sorted(codes) == [200] + [409] * 6, "all had their turn, and the first was made"


def test_an_unforeseen_error_is_a_problem_document_with_the_usual_headers(client, monkeypatch, caplog):
    one = made(client)
    quiet = TestClient(client.app, base_url="http://127.0.0.1:8137", raise_server_exceptions=False)

    def broken(*args, **more):
        raise RuntimeError("secret detail")

    monkeypatch.setattr(SceneStore, "load", broken)
    client.app.state.sessions.forget(one["id"])
    answer = quiet.get(f"/api/scenes/{one['id']}")
    assert "went wrong" in problem(answer, 500)
    assert "secret" not in answer.text
    assert answer.headers["x-content-type-options"] == "nosniff"
    assert "frame-ancestors 'none'" in answer.headers["content-security-policy"]
    assert sum("nobody foresaw" in record.message for record in caplog.records) == 1


@pytest.mark.parametrize(("error", "status"), [(StoreError("the data file cannot be written to"), 500)])
def test_what_the_store_says_is_passed_on(client, monkeypatch, error, status):
    def failing(*args, **more):
        raise error

    monkeypatch.setattr(SceneStore, "create", failing)
    assert str(error) in problem(client.post("/api/scenes", json=EXAMPLE), status)


@pytest.mark.parametrize("path", ["/%00", "/api/scenes/%00", "/" + "x" * 300, "/%0A", "/..%2f..%2fetc", "/assets/" + "y" * 5000])
def test_odd_addresses_never_break_the_service(client, path):
    answer = client.get(path)
    assert answer.status_code in (200, 400, 404, 503)
    assert answer.headers["referrer-policy"] == "no-referrer"


@pytest.mark.parametrize("host", ["127.0.0.1:abc", "x@127.0.0.1", "127.0.0.1:99999", "127.0.0.1.evil.example", "", "[::1", "localhost/x"])
def test_only_a_host_that_is_ours_to_the_letter(client, host):
    assert "answers to 127.0.0.1" in problem(client.get("/api/scenes", headers={"host": host}), 403)


def test_other_sites_and_other_kinds_of_bodies_are_kept_out(client):
    assert "other sites" in problem(client.get("/api/scenes", headers={"sec-fetch-site": "cross-site"}), 403)
    assert "application/json" in problem(client.post("/api/scenes", content=b"{}", headers={"content-type": "text/plain"}), 415)
    assert "frame-ancestors 'none'" in client.get("/api/docs").headers["content-security-policy"]
    page = client.get("/api/scenes").headers
    assert (page["cross-origin-resource-policy"], page["cross-origin-opener-policy"]) == ("same-origin", "same-origin")
    assert all(part in page["content-security-policy"] for part in ("base-uri 'none'", "form-action 'none'"))


def test_a_feel_may_have_a_slash_in_its_name(client):
    feel = {"points": [[0, 0], [1, 1]], "smooth": False}
    assert client.put("/api/feels/in%2Fout", json=feel).status_code == 200
    assert [one["name"] for one in client.get("/api/feels").json()] == ["in/out"]
    assert client.delete("/api/feels/in%2Fout").status_code == 204


def test_a_kept_edit_brings_its_motion_along(client):
    import msgpack

    one = made(client)
    body = {"revision": 0, "edits": [{"edit": "set-key", "object": "mango", "channel": "y", "frame": 0, "value": 12}]}
    answer = client.post(f"/api/scenes/{one['id']}/edits", json=body, headers={"accept": "application/vnd.msgpack"})
    found = msgpack.unpackb(answer.content)
    assert found["motion"] == client.get(f"/api/scenes/{one['id']}/motion?since=0").content
    assert b'"revision":1' in found["changed"]


def test_a_drag_that_is_kept_is_not_baked_again(client, monkeypatch):
    from vine_swing.service.motion import Motion

    one = made(client)
    edits = [{"edit": "set-key", "object": "mango", "channel": "y", "frame": 0, "value": 12}]
    baked = []
    updated = Motion.updated
    monkeypatch.setattr(Motion, "updated", lambda self, *args, **more: baked.append(1) or updated(self, *args, **more))
    assert client.post(f"/api/scenes/{one['id']}/look", json={"revision": 0, "edits": edits}).status_code == 200
    assert edit(client, one, *edits).status_code == 200
    assert len(baked) == 1
