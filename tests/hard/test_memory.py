"""Fifty scenes open at once: what a server keeps in memory stays within its budget, and what is released comes back unchanged."""

from fastapi.testclient import TestClient

from tests.motion.scenes import channel, scene, shape
from vine_swing.motion.scene.scene_file import to_data
from vine_swing.service import sessions as sessions_module
from vine_swing.service.app import create_app
from vine_swing.store import SceneStore


def large(n):
    moves = channel((0, n), (200, 100 + n))
    return to_data(scene(*(shape(f"o{i}", x=moves, y=moves, rotation=moves) for i in range(60)), name=f"Gorge {n}", length=240))


def test_scenes_used_longest_ago_are_let_go_and_come_back(tmp_path, monkeypatch):
    store = SceneStore(tmp_path / "kept.db")
    app = create_app(store)
    with TestClient(app, base_url="http://127.0.0.1:8137") as client:
        ids = [client.post("/api/scenes", json=large(n)).json()["id"] for n in range(3)]
        one = next(iter(app.state.sessions._open.values())).size
        assert one > 100_000
        # Room for ten of them, while fifty are worked on in turn.
        monkeypatch.setattr(sessions_module, "MOST_BYTES", 10 * one)
        ids += [client.post("/api/scenes", json=large(n)).json()["id"] for n in range(3, 50)]
        motions = {}
        for scene_id in ids:
            motions[scene_id] = client.get(f"/api/scenes/{scene_id}/motion").content
            held = sum(session.size for session in app.state.sessions._open.values())
            assert held <= 10 * one
        assert len(app.state.sessions._open) <= 11
        for scene_id in (ids[0], ids[25], ids[-1]):
            assert client.get(f"/api/scenes/{scene_id}/motion").content == motions[scene_id]
    store.close()
