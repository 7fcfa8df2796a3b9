"""Bodies that come a little later than the head of their request, as over a busy line: nobody but the route may read of them."""

import asyncio
import json

import pytest

from tests.motion.scenes import scene, shape
from vine_swing.motion.scene.scene_file import to_data
from vine_swing.service.app import create_app
from vine_swing.store import SceneStore

#: Seconds between one part and the next: the watch for clients that are missing looks every quarter of a second.
LATE = 0.4


async def posted(app, path, parts):
    """The status and body of the answer to a POST whose body comes in parts, and the most that waited for messages at once before it was whole."""
    waiting, most, sent = 0, 0, []
    gone = asyncio.Event()
    left = list(parts)

    async def receive():
        nonlocal waiting, most
        if not left:
            await gone.wait()
            return {"type": "http.disconnect"}
        waiting += 1
        most = max(most, waiting)
        try:
            await asyncio.sleep(LATE)
            body = left.pop(0) if left else b""
        finally:
            waiting -= 1
        return {"type": "http.request", "body": body, "more_body": bool(left)}

    async def send(message):
        sent.append(message)

    headers = {"host": "127.0.0.1:8137", "content-type": "application/octet-stream", "content-length": str(sum(map(len, parts)))}
    address, _, query = path.partition("?")
    scope = {
        **{"type": "http", "asgi": {"version": "3.0"}, "http_version": "1.1", "method": "POST", "scheme": "http"},
        **{"path": address, "raw_path": address.encode(), "query_string": query.encode(), "root_path": ""},
        **{"headers": [(name.encode(), value.encode()) for name, value in headers.items()]},
        **{"client": ("127.0.0.1", 1), "server": ("127.0.0.1", 8137)},
    }
    await app(scope, receive, send)
    gone.set()
    status = next(message["status"] for message in sent if message["type"] == "http.response.start")
    return status, b"".join(message.get("body", b"") for message in sent), most


@pytest.mark.parametrize("path", ["/api/bundles?name=leaf.json", "/api/scene-files"])
def test_a_file_that_comes_late_and_in_parts_arrives_whole(tmp_path, path):
    store = SceneStore(tmp_path / "kept.db")
    data = json.dumps(to_data(scene(shape("leaf", x=4)))).encode()
    parts = [data[:40], data[40:90], data[90:]]
    status, answer, most = asyncio.run(posted(create_app(store), path, parts))
    assert (status, most) == (201, 1), answer
    assert len(store.summaries()) == 1
    store.close()
