"""A server that is killed at any moment loses nothing that it acknowledged, keeps no half file, and starts again with what it had.

Few rounds in CI; `make hard` runs many (`ROUNDS`).
"""

import contextlib
import http.client
import json
import multiprocessing
import os
import random
import signal
import sqlite3
import time
import urllib.error
import urllib.request
from pathlib import Path
from threading import Thread

import pytest

from tests.journeys.servers import Server, ask
from tests.motion.scenes import EXAMPLE
from vine_swing.store import SceneStore

ROUNDS = int(os.environ.get("ROUNDS", "2"))
SCHEMAS = sorted((Path(__file__).parents[1] / "store" / "schemas").glob("*.sql"))


class Client(Thread):
    """Sets one object's values, one after the other, until the server is missing; `acknowledged` is the last one it was told is kept."""

    def __init__(self, scene: str, thing: str, first: int) -> None:
        super().__init__(daemon=True)
        self.scene, self.thing, self.first, self.acknowledged, self.asked = scene, thing, first, first - 1, first - 1

    def run(self) -> None:
        value = self.first
        # A server that is killed breaks off before its answer, or (IncompleteRead) in the middle of it: that edit is not acknowledged.
        with contextlib.suppress(OSError, ValueError, http.client.HTTPException):
            revision = ask(self.scene)["revision"]
            while True:
                self.asked = value
                edit = {"edit": "set-value", "object": self.thing, "channel": "y", "value": value}
                try:
                    revision = ask(f"{self.scene}/edits", {"revision": revision, "page": self.thing, "edits": [edit]})["revision"]
                except urllib.error.HTTPError as refusal:
                    # The other client was quicker; nothing else is refused.
                    if refusal.code != 409:
                        raise
                    revision = json.load(refusal)["revision"]
                    continue
                self.acknowledged = value
                value += 1


def two_things() -> dict:
    plain = {"kind": "shape", "shape": {"type": "ellipse"}}
    return EXAMPLE | {
        "objects": [{"id": name, "name": name.title(), **plain, "channels": {"y": {"base": 0}}} for name in ("frog", "mango")],
        "dials": [],
    }


def test_no_edit_of_two_clients_that_was_acknowledged_is_lost(tmp_path):
    draw = random.Random(11)
    server = Server(tmp_path / "data")
    scene = f"{server.address}/api/scenes/{ask(f'{server.address}/api/scenes', two_things())['id']}"
    edits = 0
    for _ in range(ROUNDS):
        state = ask(scene)
        at = {one["id"]: int(one["channels"]["y"]["base"]) for one in state["scene"]["objects"]}
        clients = [Client(scene, thing, at[thing] + 1) for thing in at]
        for one in clients:
            one.start()
        time.sleep(draw.uniform(0.2, 1.5))
        server.stop(signal.SIGKILL)
        for one in clients:
            one.join(60)
            edits += one.acknowledged - one.first + 1
        server.start()
        kept = {one["id"]: int(one["channels"]["y"]["base"]) for one in ask(scene)["scene"]["objects"]}
        for one in clients:
            # What was asked for last may have been kept without the answer having come.
            assert one.acknowledged <= kept[one.thing] <= one.asked
        # And all can still be taken back, by a page that comes now.
        revision = ask(scene)["revision"]
        assert ask(f"{scene}/undo", {"revision": revision})["revision"] == revision + 1
        assert ask(f"{scene}/redo", {"revision": revision + 1})["revision"] == revision + 2
    assert edits > 5 * ROUNDS
    server.stop(signal.SIGKILL)


def test_a_restore_that_is_killed_while_clients_edit_leaves_the_copy_or_the_scenes_as_they_were(tmp_path):
    draw = random.Random(21)
    server = Server(tmp_path / "data")
    scene = f"{server.address}/api/scenes/{ask(f'{server.address}/api/scenes', two_things())['id']}"
    server.stop()
    # What is copied is a scene whose values are all 0.
    (tmp_path / "data" / "backups").mkdir(exist_ok=True)
    with sqlite3.connect(tmp_path / "data" / "vine-swing.db") as db, sqlite3.connect(tmp_path / "data" / "backups" / COPY) as copy:
        db.backup(copy)
    db.close()
    copy.close()
    server.start()
    for _ in range(ROUNDS):
        clients = [Client(scene, thing, 1_000 * (number + 1)) for number, thing in enumerate(("frog", "mango"))]
        for one in clients:
            one.start()
        ask(f"{scene}/exports", {"formats": ["gif"], "options": {"format": "gif"}})
        time.sleep(draw.uniform(0.1, 0.4))
        restoring = Thread(target=quietly, args=(f"{server.address}/api/backups/{COPY}/bring-back", {}), daemon=True)
        restoring.start()
        time.sleep(draw.uniform(0.0, 0.15))
        server.stop(signal.SIGKILL)
        for one in (*clients, restoring):
            one.join(60)
        server.start()
        kept = {one["id"]: int(one["channels"]["y"]["base"]) for one in ask(scene)["scene"]["objects"]}
        for one in clients:
            before = range(one.acknowledged, one.asked + 1) if one.asked >= one.first else range(0)
            # Values of the copy, those before the restore, or those that were set after it.
            assert kept[one.thing] == 0 or kept[one.thing] in before or kept[one.thing] >= one.first
        revision = ask(scene)["revision"]
        edit = {"edit": "set-value", "object": "frog", "channel": "y", "value": 5}
        assert ask(f"{scene}/edits", {"revision": revision, "edits": [edit]})["revision"] == revision + 1
        assert all(one["name"].endswith(".db") for one in ask(f"{server.address}/api/backups"))
    server.stop(signal.SIGKILL)


COPY = "2026-01-02T030405-000001-day.db"


def quietly(address: str, body: object) -> None:
    """Ask for something of a server that may be killed meanwhile."""
    with contextlib.suppress(OSError, ValueError, http.client.HTTPException):
        ask(address, body)


def test_an_export_that_was_under_way_leaves_no_half_file(tmp_path):
    draw = random.Random(5)
    server = Server(tmp_path / "data")
    scene = f"{server.address}/api/scenes/{ask(f'{server.address}/api/scenes', EXAMPLE)['id']}"
    for _ in range(ROUNDS):
        ask(f"{scene}/exports", {"formats": ["mp4"], "options": {"format": "mp4"}})
        time.sleep(draw.uniform(0.05, 2.5))
        server.stop(signal.SIGKILL)
        server.start()
        jobs = ask(f"{server.address}/api/exports")
        assert {one["state"] for one in jobs} <= {"done", "stopped"}
        whole = {one["id"] for one in jobs if one["state"] == "done"}
        # The process that wrote the file outlives its server until it has something to say to it: then it removes what it wrote.
        deadline = time.monotonic() + 20
        while len(left := [path for path in (tmp_path / "data" / "exports").rglob("*") if path.is_file()]) != len(whole):
            assert time.monotonic() < deadline, f"half files were left: {left}"
            time.sleep(0.1)
        assert ask(scene)["revision"] == 0
    server.stop(signal.SIGKILL)


def migrate(path: str) -> None:
    """Open a data file, which brings it to the newest schema."""
    SceneStore(Path(path)).close()


@pytest.mark.parametrize("schema", SCHEMAS, ids=lambda path: path.stem)
def test_a_file_of_every_schema_survives_being_killed_while_it_is_brought_up_to_date(tmp_path, schema):
    draw = random.Random(schema.stem)
    path = tmp_path / "old.db"
    db = sqlite3.connect(path)
    db.executescript(schema.read_text(encoding="utf-8"))
    db.close()
    context = multiprocessing.get_context("fork")
    for _ in range(max(1, ROUNDS // 2)):
        process = context.Process(target=migrate, args=(str(path),))
        process.start()
        # Opening and bringing up to date take some hundredths of a second.
        time.sleep(draw.uniform(0.0, 0.06))
        if process.pid is not None and process.is_alive():
            os.kill(process.pid, signal.SIGKILL)
        process.join(60)
    store = SceneStore(path)
    (line,) = store.summaries()
    now = store.load(line.id)
    assert now.scene.objects[0].name == "Papaya"
    while now.history.undo is not None:
        now = store.undo(line.id, revision=now.revision)
    assert now.scene.objects[0].name == "Mango"
    store.close()
