"""Exports over HTTP: the queue, progress, stopping, what is kept and told, and what is left after a server that was killed."""

import base64
import io
import json
import os
import signal
import subprocess
import sys
import time
from pathlib import Path

import av
import numpy as np
import pytest
from fastapi.testclient import TestClient
from PIL import Image

from tests.motion.scenes import EXAMPLE
from vine_swing.service.app import create_app
from vine_swing.service.exports import Exports, file_stem
from vine_swing.store import SceneStore, StoreError
from vine_swing.store.exports import KeptExport

SMALL = EXAMPLE | {"size": [64, 36], "length": 30}
LONG = EXAMPLE | {"size": [640, 360], "length": 4000}


def made(client, data=SMALL):
    return client.post("/api/scenes", json=data).json()


def asked(client, scene, *formats, **options):
    return client.post(f"/api/scenes/{scene['id']}/exports", json={"formats": list(formats), "options": options})


def wait(client, job, *states):
    """The report of an export once it has ended, or has reached one of some states."""
    for _ in range(1500):
        report = client.get(f"/api/exports/{job['id']}").json()
        if report["state"] in (states or ("done", "failed", "cancelled", "stopped")):
            return report
        time.sleep(0.02)
    raise AssertionError(f"the export is {report['state']}: {report}")


def started(exports, pictures=0):
    """The process of the export under way, once it has made some pictures."""
    for _ in range(500):
        running = exports._running
        if running is not None and running.process is not None and running.done >= pictures:
            return running.process
        time.sleep(0.02)
    raise AssertionError("no export is under way")


@pytest.fixture
def folder(tmp_path):
    return tmp_path / "exports"


def test_an_export_ends_with_its_file_its_picture_and_what_it_was_made_from(client, folder):
    scene = made(client)
    (job,) = asked(client, scene, "mp4", first=0, last=19).json()
    report = wait(client, job)
    assert (report["state"], report["done"], report["total"], report["error"]) == ("done", 20, 20, None)
    assert (report["name"], report["label"], report["scene_name"], report["current"]) == ("Example.mp4", "MP4 video", "Example", True)
    assert report["options"]["last"] == 19
    file = client.get(f"/api/exports/{job['id']}/file")
    assert file.headers["content-type"] == "video/mp4"
    assert len(file.content) == report["size"]
    with av.open(io.BytesIO(file.content)) as video:
        frames = list(video.decode(video=0))
    assert (len(frames), frames[0].width, frames[0].height) == (20, 64, 36)
    still = Image.open(io.BytesIO(client.get(f"/api/exports/{job['id']}/still").content))
    assert still.size == (64, 36)
    assert [one.name for one in folder.iterdir()] == [f"{job['id']}.mp4"], "nothing else is left"
    # An edit later, the list says that it is not what the scene is now.
    client.post(f"/api/scenes/{scene['id']}/edits", json={"revision": 0, "edits": [{"edit": "set-fps", "fps": 12.0}]})
    assert client.get(f"/api/exports/{job['id']}").json()["current"] is False


def test_several_formats_in_one_go_are_made_one_after_the_other(client):
    scene = made(client)
    jobs = asked(client, scene, "gif", "svg", "csv", "bundle", background="own").json()
    assert [one["place"] for one in jobs] in ([0, 1, 2, 3], [1, 2, 3, 4])
    reports = [wait(client, one) for one in jobs]
    assert [one["state"] for one in reports] == ["done"] * 4
    assert [one["name"] for one in reports] == ["Example.gif", "Example.svg", "Example.csv", "Example.vine"]
    listed = client.get("/api/exports").json()
    assert [one["id"] for one in listed] == [one["id"] for one in reversed(jobs)]
    svg = client.get(f"/api/exports/{jobs[1]['id']}/file")
    assert "sandbox" in svg.headers["content-security-policy"], "a picture of ours runs nothing"


def test_only_one_runs_at_a_time_the_queue_has_an_order_and_can_be_changed(client):
    scene = made(client, LONG)
    jobs = asked(client, scene, "mp4", "gif", "webm", "apng").json()
    wait(client, jobs[0], "running")
    assert [client.get(f"/api/exports/{one['id']}").json()["state"] for one in jobs[1:]] == ["waiting"] * 3
    assert client.post(f"/api/exports/{jobs[3]['id']}/first").json()["place"] == 1
    assert client.get(f"/api/exports/{jobs[1]['id']}").json()["place"] == 2
    for one in jobs[1:]:
        assert client.post(f"/api/exports/{one['id']}/cancel").json()["state"] == "cancelled"
    client.post(f"/api/exports/{jobs[0]['id']}/cancel")
    assert wait(client, jobs[0])["state"] == "cancelled"


def test_progress_and_time_left_are_told_and_a_stopped_export_leaves_nothing(client, folder):
    scene = made(client, LONG)
    (job,) = asked(client, scene, "mp4").json()
    for _ in range(1000):
        report = client.get(f"/api/exports/{job['id']}").json()
        if report["done"] > 50:
            break
        time.sleep(0.02)
    assert report["total"] == 4000
    assert 0 < report["left"] < 600
    client.post(f"/api/exports/{job['id']}/cancel")
    assert wait(client, job)["state"] == "cancelled"
    assert client.get(f"/api/exports/{job['id']}/file").status_code == 404
    assert list(folder.iterdir()) == []
    client.delete(f"/api/exports/{job['id']}")
    assert client.get(f"/api/exports/{job['id']}").status_code == 404


def test_what_cannot_be_is_refused_before_it_waits(client):
    scene = made(client)
    assert "there are mp4, gif, " in asked(client, scene, "exe").json()["detail"]
    assert asked(client, scene, "mp4", scale=50).status_code == 422
    assert asked(client, scene, "gif", first=20, last=5).status_code == 422
    assert "frames 0 to 29" in asked(client, scene, "gif", last=500).json()["detail"]
    huge = made(client, EXAMPLE | {"size": [8192, 8192]})
    assert "would fit" in asked(client, huge, "mp4", scale=2.0).json()["detail"]
    for call in (client.get, client.delete):
        assert call("/api/exports/none").status_code == 404
    assert client.get("/api/exports/none/file").status_code == 404


@pytest.mark.parametrize(("format_name", "is_picture"), [("gif", True), ("mp4", True), ("svg", True), ("csv", False), ("bundle", False)])
def test_a_look_shows_a_frame_and_how_large_the_whole_will_be(client, format_name, is_picture):
    scene = made(client, SMALL)
    look = client.post(f"/api/scenes/{scene['id']}/exports/look", json={"options": {"format": format_name}, "frame": 12}).json()
    assert (look["width"], look["height"], look["pictures"]) == (64, 36, 30)
    assert bool(look["picture"]) == is_picture
    report = wait(client, asked(client, scene, format_name).json()[0])
    size = client.post(f"/api/scenes/{scene['id']}/exports/size", json={"options": {"format": format_name}, "frame": 12}).json()["size"]
    assert 0.4 < size / report["size"] < 2.5
    if format_name == "gif":
        shown = np.asarray(Image.open(io.BytesIO(base64.b64decode(look["picture"].split(",")[1]))).convert("RGB"))
        with Image.open(io.BytesIO(client.get(f"/api/exports/{report['id']}/file").content)) as film:
            film.seek(12)
            assert np.abs(shown.astype(int) - np.asarray(film.convert("RGB"))).mean() < 3


def test_a_disk_without_room_is_told_in_a_sentence_and_no_half_file_stays(tmp_path):
    """A limit on the size of files represents a full disk: the system refuses to write on in the same way."""
    code = (
        "import json, resource, sys\n"
        "resource.setrlimit(resource.RLIMIT_FSIZE, (30_000, 30_000))\n"
        "from vine_swing.formats.worker import main\n"
        "sys.exit(main())\n"
    )
    (tmp_path / "scene.json").write_text(json.dumps(EXAMPLE), encoding="utf-8")
    for name in ("mp4", "flipbook", "svg"):
        out = tmp_path / f"out.{name}"
        order = {"folder": str(tmp_path), "scene": "scene.json", "options": {"format": name, "tolerance": 0.001}, "out": out.name}
        done = subprocess.run([sys.executable, "-c", code], input=json.dumps(order), capture_output=True, text=True)
        if name == "svg" and out.exists() and out.stat().st_size < 30_000:
            continue
        assert done.returncode == 0
        assert "there is no room left on the disk" in done.stdout, done.stdout[-300:]
        assert not list(tmp_path.glob(f"out.{name}*"))


def test_a_process_that_dies_is_a_failure_that_is_told(client, folder):
    scene = made(client, LONG)
    (job,) = asked(client, scene, "mp4").json()
    wait(client, job, "running")
    os.killpg(started(client.app.state.exports, pictures=6).pid, signal.SIGKILL)
    report = wait(client, job)
    assert report["state"] == "failed"
    assert "ended without a word" in report["error"]
    assert list(folder.iterdir()) == []
    # The next one is made as if nothing had been.
    assert wait(client, asked(client, made(client), "gif").json()[0])["state"] == "done"


def test_after_a_killed_server_exports_are_told_as_stopped_and_no_half_file_stays(tmp_path):
    store = SceneStore(tmp_path / "kept.db")
    with TestClient(create_app(store), base_url="http://127.0.0.1:8137") as client:
        finished = wait(client, asked(client, made(client), "gif").json()[0])
        jobs = asked(client, made(client, LONG), "mp4", "gif").json()
        wait(client, jobs[0], "running")
        # As kill −9 leaves it: the process of the export ends with its reader, and the data file says nothing of it.
        exports = client.app.state.exports
        exports._closed = True
        os.killpg(started(exports).pid, signal.SIGKILL)
        (tmp_path / "exports" / f"{jobs[0]['id']}.mp4.part").write_bytes(b"half")
        again = Exports(store)
        assert [(one.id, one.state) for one in again.all()] == [(jobs[1]["id"], "stopped"), (jobs[0]["id"], "stopped"), (finished["id"], "done")]
        assert "run it again" in again.all()[0].said
        assert [one.name for one in (tmp_path / "exports").iterdir()] == [f"{finished['id']}.gif"]
    store.close()


def test_a_server_that_ends_leaves_no_thread_at_its_store(tmp_path):
    store = SceneStore(tmp_path / "kept.db")
    with TestClient(create_app(store), base_url="http://127.0.0.1:8137") as client:
        (job,) = asked(client, made(client, LONG), "mp4").json()
        thread = client.app.state.exports._thread
        assert thread.is_alive()
    assert not thread.is_alive()
    assert store.exports.find(job["id"]).state == "stopped"
    store.close()


def test_an_export_whose_end_cannot_be_kept_lets_the_next_one_have_its_turn(client, monkeypatch):
    """As on a full disk. pytest would tell of a thread that ends by an error."""
    scene, kept = made(client), client.app.state.exports._store.exports
    ended, failures = kept.ended, []

    def full(*args, **kwargs):
        if not failures:
            failures.append(args)
            raise StoreError("there is no room left on the disk")
        ended(*args, **kwargs)

    monkeypatch.setattr(kept, "ended", full)
    first, second = asked(client, scene, "gif", "csv", last=3).json()
    assert wait(client, second)["state"] == "done"
    assert [args[0] for args in failures] == [first["id"]]


def test_a_store_that_closes_before_its_server_is_no_error_in_the_thread_of_an_export(tmp_path):
    store = SceneStore(tmp_path / "kept.db")
    client = TestClient(create_app(store), base_url="http://127.0.0.1:8137")
    (job,) = asked(client, made(client, LONG), "mp4").json()
    wait(client, job, "running")
    exports = client.app.state.exports
    store.close()
    os.killpg(started(exports).pid, signal.SIGKILL)
    exports._thread.join(10)
    assert not exports._thread.is_alive()
    again = SceneStore(tmp_path / "kept.db")
    assert Exports(again).find(job["id"]).state == "stopped"
    again.close()


def test_names_of_files_suit_every_system():
    assert file_stem("Ω / x") == "Ω - x"
    assert file_stem("../../etc") == "etc"
    assert file_stem("  ") == "scene"
    assert len(file_stem("a" * 300)) == 80


def test_files_of_the_animator_in_the_folder_of_exports_are_left_alone(tmp_path, folder):
    elsewhere = tmp_path / "elsewhere"
    elsewhere.mkdir()
    for path in (elsewhere / "holiday.mp4", folder / "my film.mp4", folder / "of mine" / "a.mp4", tmp_path / "target.txt"):
        path.parent.mkdir(exist_ok=True)
        path.write_bytes(b"mine")
    (folder / "link.mp4").symlink_to(elsewhere / "holiday.mp4")
    (folder / "away").symlink_to(elsewhere)
    store = SceneStore(tmp_path / "kept.db")
    with TestClient(create_app(store), base_url="http://127.0.0.1:8137") as client:
        scene = made(client)
        (job,) = asked(client, scene, "gif").json()
        wait(client, job)
    unfinished = store.exports.find(job["id"])
    store._database._connection.execute("UPDATE export SET state = 'running'")
    half = [folder / f"{unfinished.id}.gif.part", folder / f"{unfinished.id}.scene.part"]
    for path in half:
        path.write_bytes(b"half")
    (folder / f"{unfinished.id}.folder").mkdir()
    store.close()
    again = SceneStore(tmp_path / "kept.db")
    with TestClient(create_app(again), base_url="http://127.0.0.1:8137") as client:
        assert [one["state"] for one in client.get("/api/exports").json()] == ["stopped"]
    again.close()
    assert not any(path.exists() for path in (*half, folder / f"{unfinished.id}.gif")), "what a killed server wrote is removed"
    for path in (elsewhere / "holiday.mp4", folder / "my film.mp4", folder / "of mine" / "a.mp4", folder / "link.mp4"):
        assert path.read_bytes() == b"mine"


def test_a_file_in_place_of_the_folder_keeps_no_server_from_starting(tmp_path):
    (tmp_path / "exports").write_bytes(b"mine")
    store = SceneStore(tmp_path / "kept.db")
    with TestClient(create_app(store), base_url="http://127.0.0.1:8137") as client:
        (job,) = asked(client, made(client), "gif").json()
        assert "could not begin" in wait(client, job)["error"]
    store.close()
    assert (tmp_path / "exports").read_bytes() == b"mine"


def test_the_list_of_exports_is_no_longer_after_a_restart(tmp_path, monkeypatch):
    store = SceneStore(tmp_path / "kept.db")
    for n in range(70):
        store.exports.add(KeptExport(f"old-{n}", "s", 0, "film.mp4", "mp4", {}, f"2026-01-01T00:00:{n:02d}", "done", 1, 1, 1))
    exports = Exports(store)
    assert len(exports.all()) == 60
    exports.close()
    store.close()


@pytest.mark.skipif(sys.platform == "darwin", reason="paths are UTF-8 there")
def test_an_export_from_a_folder_whose_path_is_not_utf_8(tmp_path):
    odd = Path(os.fsdecode(os.fsencode(tmp_path) + b"/caf\xe9"))
    store = SceneStore(odd / "kept.db")
    with TestClient(create_app(store), base_url="http://127.0.0.1:8137") as client:
        scene = made(client)
        for job in asked(client, scene, "mp4", "gif", "png", "svg", last=3).json():
            report = wait(client, job)
            assert (report["state"], report["error"]) == ("done", None)
            assert len(client.get(f"/api/exports/{job['id']}/file").content) == report["size"]
    store.close()
