"""Looks over a WebSocket: the answers are those of requests, in order, and nothing is kept."""

import json
import threading

import pytest
from starlette.websockets import WebSocketDisconnect

from tests.motion.scenes import EXAMPLE
from tests.service.test_watching import HOST
from vine_swing.service.sessions import Sessions


@pytest.fixture
def scene_id(client):
    return client.post("/api/scenes", json=EXAMPLE).json()["id"]


def connected(client, scene_id, headers=HOST):
    return client.websocket_connect(f"/api/scenes/{scene_id}/looks", headers=headers)


def batch(value=5.0, revision=0, **changes):
    key = {"edit": "set-key", "object": "mango", "channel": "x", "frame": 9, "value": value} | changes
    return {"revision": revision, "edits": [key]}


def test_the_answers_are_those_of_requests(client, scene_id):
    with connected(client, scene_id) as page:
        for value in (5.0, 6.5, -40.0):
            page.send_text(json.dumps(batch(value)))
            asked = client.post(f"/api/scenes/{scene_id}/look", json=batch(value))
            assert page.receive_bytes() == asked.content
    assert client.get(f"/api/scenes/{scene_id}").json()["revision"] == 0


@pytest.mark.parametrize(
    ("text", "status", "says"),
    [
        ("{", 400, "not JSON"),
        ("{}", 422, "this field is missing"),
        (json.dumps(batch(object="nobody")), 404, "nobody"),
        (json.dumps(batch(value="#12")), 422, "edits"),
        (json.dumps(batch(revision=7)), 409, "revision"),
    ],
)
def test_what_is_refused_is_told_as_by_requests_and_the_connection_stays(client, scene_id, text, status, says):
    with connected(client, scene_id) as page:
        page.send_text(text)
        told = page.receive_json()
        asked = client.post(f"/api/scenes/{scene_id}/look", content=text, headers={"content-type": "application/json"})
        assert (told["status"], asked.status_code) == (status, status)
        assert says in told["detail"]
        # Where it is no JSON, each says in its own words why.
        assert told == asked.json() or status == 400
        page.send_text(json.dumps(batch()))
        assert page.receive_bytes()


def test_a_scene_there_is_not_is_told(client):
    with connected(client, "nothing") as page:
        page.send_text(json.dumps(batch()))
        assert page.receive_json()["status"] == 404


def test_many_at_once_are_answered_in_order(client, scene_id):
    values = [float(value) for value in range(12)]
    with connected(client, scene_id) as page:
        for value in values:
            page.send_text(json.dumps(batch(value)))
        told = [page.receive_bytes() for _ in values]
    assert told == [client.post(f"/api/scenes/{scene_id}/look", json=batch(value)).content for value in values]


def test_pages_of_other_sites_are_not_connected(client, scene_id):
    with pytest.raises(WebSocketDisconnect), connected(client, scene_id, HOST | {"origin": "http://elsewhere.example"}):
        pass


def test_bytes_are_refused_with_a_reason(client, scene_id):
    with connected(client, scene_id) as page:
        page.send_bytes(b"{}")
        with pytest.raises(WebSocketDisconnect) as closed:
            page.receive_text()
    assert (closed.value.code, closed.value.reason) == (1003, "what to look at is sent as text")


def test_what_nobody_waits_for_any_more_is_given_up(client, scene_id, monkeypatch):
    begun, given_up = threading.Event(), threading.Event()

    def look(self, address, edits, *, revision, deadline):
        begun.set()
        if deadline.gone.wait(20):
            given_up.set()
        return b""

    monkeypatch.setattr(Sessions, "look", look)
    with connected(client, scene_id) as page:
        page.send_text(json.dumps(batch()))
        assert begun.wait(20)
    assert given_up.wait(20)
