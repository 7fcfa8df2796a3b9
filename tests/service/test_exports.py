"""Export jobs: progress, stopping, and the file at the end."""

import io
import time

import av
import pytest

from tests.motion.scenes import EXAMPLE
from vine_swing.service.exports import Exports


def start(client, **body):
    small = EXAMPLE | {"size": [64, 36], "length": 30}
    scene = client.post("/api/scenes", json=small).json()
    return client.post(f"/api/scenes/{scene['id']}/exports", json=body)


def wait(client, job):
    for _ in range(400):
        state = client.get(f"/api/exports/{job['id']}").json()
        if state["state"] != "running":
            return state
        time.sleep(0.02)
    raise AssertionError("the export did not end")


@pytest.mark.parametrize("name", ["mp4", "gif"])
def test_an_export_ends_with_its_file(client, name):
    job = start(client, format=name).json()
    assert (job["total"], job["file_name"]) == (30, f"Example.{name}")
    state = wait(client, job)
    assert (state["state"], state["done"], state["error"]) == ("done", 30, None)
    file = client.get(f"/api/exports/{job['id']}/file")
    assert file.headers["content-type"] == {"mp4": "video/mp4", "gif": "image/gif"}[name]
    with av.open(io.BytesIO(file.content)) as video:
        frames = list(video.decode(video=0))
    assert len(frames) == 30
    assert (frames[0].width, frames[0].height) == (64, 36)


def test_unknown_formats_jobs_and_sizes_are_refused(client):
    assert start(client, format="exe").status_code == 422
    assert "there are mp4, gif, " in start(client, format="exe").json()["detail"]
    assert start(client, format="mp4", scale=50).status_code == 422
    for call in (client.get, client.delete):
        assert call("/api/exports/none").status_code == 404
    assert client.get("/api/exports/none/file").status_code == 404


def test_a_stopped_export_leaves_no_file(client):
    scene = client.post("/api/scenes", json=EXAMPLE | {"length": 2000}).json()
    job = client.post(f"/api/scenes/{scene['id']}/exports", json={"format": "mp4"}).json()
    client.delete(f"/api/exports/{job['id']}")
    assert wait(client, job)["state"] == "cancelled"
    assert client.get(f"/api/exports/{job['id']}/file").status_code == 404


def test_a_failing_export_says_why():
    exports = Exports()
    job = exports.start(lambda: (_ for _ in ()).throw(OSError("no space left")), 5, name="Ω / x", format_name="mp4", scale=1)
    for _ in range(200):
        if job.state != "running":
            break
        time.sleep(0.01)
    assert job.state == "failed"
    assert "no space left" in job.error
    assert job.file_name == "Ω - x.mp4"
    exports.close()
