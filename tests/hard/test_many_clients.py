"""Eight clients that edit at random for a while: no answer is an error, and memory, open files and the write-ahead log stay within bounds.

Some seconds in CI; `make hard` goes on for twenty minutes (`SECONDS`).
"""

import http.client
import json
import os
import random
import time
from pathlib import Path
from threading import Thread

from tests.hard.any_edits import AnyEdits
from tests.journeys.servers import Server
from vine_swing.cli.serving import DEMO_SCENES
from vine_swing.motion import load

SECONDS = float(os.environ.get("SECONDS", "12"))
#: Bytes of memory at rest, open files, and bytes of the write-ahead log.
MOST_MEMORY, MOST_FILES, MOST_LOG = 700_000_000, 120, 200_000_000


class Animator(Thread):
    """Makes random edits of a demo scene of its own, undoes some, and looks at the motion now and then."""

    def __init__(self, server: Server, number: int, until: float) -> None:
        super().__init__(daemon=True)
        self._server, self._draw, self._until = server, random.Random(number), until
        path = sorted(DEMO_SCENES.glob("*.json"))[number]
        self._text, self._scene = path.read_bytes(), load(path)
        self.edits, self.faults = 0, list[str]()

    def run(self) -> None:
        client = http.client.HTTPConnection("127.0.0.1", self._server.port, timeout=120)

        def ask(method: str, address: str, body: bytes | None = None) -> tuple[int, bytes]:
            client.request(method, address, body, {"content-type": "application/json"})
            answer = client.getresponse()
            text = answer.read()
            if answer.status >= 500:
                self.faults.append(f"{method} {address} {(body or b'')[:300]!r}: {answer.status} {text[:200]!r}")
            return answer.status, text

        scene_id, revision = json.loads(ask("POST", "/api/scene-files", self._text)[1])["id"], 0
        while time.monotonic() < self._until and not self.faults:
            action = self._draw.random()
            if action < 0.1:
                ask("GET", f"/api/scenes/{scene_id}/motion")
                continue
            body: dict[str, object] = {"revision": revision}
            if action < 0.8:
                body["edits"] = [AnyEdits(self._draw).edit(self._scene)]
            address = "edits" if action < 0.8 else "undo" if action < 0.95 else "redo"
            status, text = ask("POST", f"/api/scenes/{scene_id}/{address}", json.dumps(body).encode())
            if status == 200:
                revision = json.loads(text)["revision"]
                self.edits += 1
        client.close()


def test_many_clients_at_work_leave_memory_files_and_log_within_bounds(tmp_path):
    server = Server(tmp_path / "data")
    animators = [Animator(server, number, time.monotonic() + SECONDS) for number in range(8)]
    for one in animators:
        one.start()
    for one in animators:
        one.join(SECONDS + 240)
    assert [fault for one in animators for fault in one.faults] == []
    assert sum(one.edits for one in animators) > 20
    # What was freed is given back within ten seconds.
    deadline = time.monotonic() + 30
    while (memory := resident(server.pid)) > MOST_MEMORY:
        assert time.monotonic() < deadline, f"the server takes {memory / 1e6:.0f} MB"
        time.sleep(0.5)
    assert len(list(Path(f"/proc/{server.pid}/fd").iterdir())) < MOST_FILES
    assert (tmp_path / "data" / "vine-swing.db-wal").stat().st_size < MOST_LOG
    server.stop()


def resident(pid: int) -> int:
    """The bytes of memory that a process takes."""
    return int(Path(f"/proc/{pid}/statm").read_text(encoding="ascii").split()[1]) * os.sysconf("SC_PAGE_SIZE")
