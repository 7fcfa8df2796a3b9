"""Whatever is accepted can be read, baked, kept and undone; whatever is refused leaves nothing behind.

Random edits of random scenes, valid and not, on two scenes in turn, through the service in process. Few sequences in CI; `make hard` runs many
(`SEQUENCES`), and `FIRST` runs again from a sequence that failed.
"""

import json
import os
import random

import msgpack
import numpy as np
import pytest
from fastapi.testclient import TestClient

from tests.hard.any_changes import FIRST
from tests.hard.any_edits import AnyEdits
from tests.service.following import described, taken_up
from vine_swing.motion import bake
from vine_swing.service.app import create_app
from vine_swing.store import SceneStore

SEQUENCES = int(os.environ.get("SEQUENCES", "40"))
STEPS = 24


def sent(data):
    """JSON as a hostile client would write it: lone surrogates and infinities included."""
    return json.dumps(data).encode("utf-8", "surrogatepass")


def finite(scene):
    baked = bake(scene)
    inside = [one for inset in baked.insets.values() for one in inset.inner.objects.values()]
    for one in (*baked.objects.values(), *inside):
        for values in (*one.channels.values(), one.world, one.opacity, one.place, *one.bones.values()):
            assert np.isfinite(values).all(), f"{one.source.name} is not finite"


@pytest.mark.parametrize("number", range(FIRST, FIRST + SEQUENCES))
def test_any_sequence_of_edits(tmp_path, request, number):
    draw = random.Random(number)
    anything = AnyEdits(draw)
    store = SceneStore(tmp_path / "kept.db")
    request.addfinalizer(store.close)
    app = create_app(store)
    headers = {"content-type": "application/json"}
    with TestClient(app, base_url="http://127.0.0.1:8137", raise_server_exceptions=False) as client:

        def refused(answer, what):
            assert answer.status_code < 500, f"{what}: {answer.text}"
            assert answer.headers["content-type"] == "application/problem+json", what
            assert answer.json()["detail"], what

        def follow(scene_id, what):
            """Have a page adopt what is new, and compare what it holds then with what a page is sent that opens the scene."""
            since = {"since": held[scene_id]["revision"]} if scene_id in held else {}
            news, whole = (client.get(f"/api/scenes/{scene_id}/motion", params=params) for params in (since, {}))
            assert (news.status_code, whole.status_code) == (200, 200), what
            held[scene_id] = taken_up(held.get(scene_id), msgpack.unpackb(news.content))
            assert described(held[scene_id]) == described(msgpack.unpackb(whole.content)), f"{what}: a page that follows holds something else"

        scenes: list[str] = []
        held: dict[str, dict] = {}
        for _ in range(200):
            if len(scenes) == 2:
                break
            written = anything.scene()
            answer = client.post("/api/scene-files", content=sent(written), headers=headers)
            if answer.status_code == 201:
                scenes.append(answer.json()["id"])
            else:
                refused(answer, written)
        assert len(scenes) == 2
        for scene_id in scenes:
            follow(scene_id, "as it was read")
        for step in range(STEPS):
            scene_id = scenes[step % 2]
            before = store.load(scene_id)
            # Now and then inside one of its inner scenes.
            inner = draw.choice([one.id for one in before.scene.insets]) if before.scene.insets and draw.random() < 0.3 else None
            address, seen = (scene_id, before.scene) if inner is None else (f"{scene_id}~{inner}", before.scene.inner_as_scene(inner))
            edits = [anything.edit(seen) for _ in range(draw.choice([1, 1, 1, 2]))]
            body = sent({"revision": before.revision, "edits": edits})
            what = f"sequence {number}, step {step}: {json.dumps(edits)[:2000]}"
            answer = client.post(f"/api/scenes/{address}/edits", content=body, headers=headers)
            after = store.load(scene_id)
            if answer.status_code != 200:
                refused(answer, what)
                assert after == before, f"{what} was refused and changed something"
                continue
            state = client.get(f"/api/scenes/{scene_id}").json()
            assert state["revision"] == after.revision == answer.json()["revision"], what
            assert type(after.scene).model_validate(state["scene"]) == after.scene, f"{what}: what was written is not what was answered"
            finite(after.scene)
            follow(scene_id, what)
            if after.revision == before.revision:
                continue
            undone = client.post(f"/api/scenes/{scene_id}/undo", json={"revision": after.revision})
            assert undone.status_code == 200, f"{what}: undo: {undone.text}"
            assert store.load(scene_id).scene == before.scene, f"{what}: undo did not bring the scene back"
            follow(scene_id, f"{what}: undo")
            redone = client.post(f"/api/scenes/{scene_id}/redo", json={"revision": undone.json()["revision"]})
            assert redone.status_code == 200, f"{what}: redo: {redone.text}"
            assert store.load(scene_id).scene == after.scene, f"{what}: redo did not bring the edit back"
