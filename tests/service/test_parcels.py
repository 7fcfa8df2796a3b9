"""Objects copied from one kept scene into another, over HTTP: what they show is kept with the other scene too."""

from fastapi.testclient import TestClient

from tests.motion.scenes import shape
from tests.pictures import png
from vine_swing.service.app import create_app
from vine_swing.store import SceneStore

WIND = {"id": "wind", "name": "Wind", "channel": {"base": 4}}


def kept(client, **scene):
    return client.post("/api/scenes", json=scene).json()["id"]


def edit(client, scene_id, revision, **one):
    return client.post(f"/api/scenes/{scene_id}/edits", json={"revision": revision, "edits": [one]})


def test_a_picture_and_a_dial_come_along_and_last_over_a_restart(tmp_path):
    store = SceneStore(tmp_path / "kept.db")
    sway = {"id": "sway", "kind": "link", "channels": ["rotation"], "settings": {"formula": "{Wind} * f"}}
    with TestClient(create_app(store), base_url="http://127.0.0.1:8137") as client:
        brought = client.post("/api/pictures?name=leaf.png", content=png(size=(4, 4)), headers={"content-type": "application/octet-stream"}).json()
        one = kept(client, objects=[shape("reed", rules=[sway])], dials=[WIND])
        assert edit(client, one, 0, edit="add-picture", id="leaf", name="Leaf", pictures=brought["pictures"], x=5, y=5).status_code == 200
        other = kept(client, objects=[shape("reed")])
        parcel = client.post(f"/api/scenes/{one}/parcel", json={"objects": ["reed", "leaf"], "frame": 3}).json()
        assert parcel["behind"] == []
        assert edit(client, other, 0, edit="place-parcel", parcel=parcel["scene"], prefix="n").status_code == 200
        # The scene they came from can go.
        assert client.delete(f"/api/scenes/{one}").status_code == 204
    store.close()
    again = SceneStore(tmp_path / "kept.db")
    scene = again.load(other).scene
    assert [thing.name for thing in scene.objects] == ["Reed", "Reed 2", "Leaf"]
    assert [dial.name for dial in scene.dials] == ["Wind"]
    assert scene.pictures[0].content == png(size=(4, 4))
    assert again.undo(other, revision=1).scene.pictures == ()
    again.close()


def test_what_is_not_there_is_said(client):
    scene_id = kept(client, objects=[shape("reed")])
    assert client.post(f"/api/scenes/{scene_id}/parcel", json={"objects": ["gone"]}).status_code == 404
    assert client.post(f"/api/scenes/{scene_id}/parcel", json={"objects": []}).status_code == 422
    refused = edit(client, scene_id, 0, edit="place-parcel", parcel={}, prefix="n")
    assert refused.status_code == 422
    assert "nothing was copied" in refused.json()["detail"]
