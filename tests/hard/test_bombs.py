"""Files made to exhaust whoever reads them: each is read or refused in words, in time, in little memory, and while nobody else waits.

Small ones in CI; `make hard` sends them at full size (`BOMBS=1`) and prints a table.
"""

import http.client
import json
import os
import statistics
import time
from pathlib import Path
from threading import Event, Thread

import pytest

from tests.hard.bombs import BOMBS, Bomb
from tests.journeys.servers import Server

SCALE = float(os.environ.get("BOMBS", "0.02"))
#: Seconds until a file is answered, bytes that its reader may take, and seconds that anybody else may wait meanwhile.
LONGEST, MOST_MEMORY, LONGEST_WAIT = 20.0, 1_000_000_000, 0.3


@pytest.fixture(scope="module")
def server(tmp_path_factory):
    one = Server(tmp_path_factory.mktemp("bombs") / "data")
    # The first file of a server starts the process that readers are forked from.
    send(one, "/api/tables", b"a,b\n1,2\n")
    yield one
    one.stop()


def send(server: Server, address: str, body: bytes, *, wait: float = 60.0) -> tuple[int, str]:
    """Send a file; returns the status and, of a refusal, the sentence."""
    kind = "application/json" if address.startswith("/api/scene") else "application/octet-stream"
    client = http.client.HTTPConnection("127.0.0.1", server.port, timeout=wait)
    client.request("POST", f"{address}?name=bomb", body, {"content-type": kind})
    answer = client.getresponse()
    text = answer.read().decode()
    client.close()
    return answer.status, json.loads(text).get("detail", "") if answer.status >= 400 else ""


class Others(Thread):
    """Somebody else, who asks for the Shelf all the time; `waits` are the seconds until each answer."""

    def __init__(self, server: Server) -> None:
        super().__init__(daemon=True)
        self._server, self._over = server, Event()
        self.waits: list[float] = []

    def run(self) -> None:
        client = http.client.HTTPConnection("127.0.0.1", self._server.port, timeout=60)
        while not self._over.is_set():
            began = time.perf_counter()
            client.request("GET", "/api/scenes")
            client.getresponse().read()
            self.waits.append(time.perf_counter() - began)
            time.sleep(0.02)
        client.close()

    def stop(self) -> list[float]:
        self._over.set()
        self.join()
        return self.waits


class Memory(Thread):
    """Watches the processes that readers run in; `most` is the largest resident size any of them had, in bytes."""

    def __init__(self) -> None:
        super().__init__(daemon=True)
        self._over = Event()
        self._before = readers()
        self.most = 0

    def run(self) -> None:
        while not self._over.is_set():
            self.most = max([self.most, *(size for pid, size in readers().items() if pid not in self._before)])
            time.sleep(0.02)

    def stop(self) -> int:
        self._over.set()
        self.join()
        return self.most


def readers() -> dict[int, int]:
    """Resident sizes of the processes of this machine that were forked from a fork server, by their numbers."""
    found = {}
    for folder in Path("/proc").iterdir():
        try:
            if folder.name.isdigit() and b"multiprocessing.forkserver" in (folder / "cmdline").read_bytes():
                found[int(folder.name)] = int((folder / "statm").read_text(encoding="ascii").split()[1]) * os.sysconf("SC_PAGE_SIZE")
        except OSError:
            continue
    return found


@pytest.mark.parametrize("bomb", BOMBS, ids=lambda bomb: bomb.name)
def test_a_bomb_is_read_or_refused_in_time_while_nobody_else_waits(server, bomb: Bomb, record_property):
    body = bomb.made(SCALE)
    others, memory = Others(server), Memory()
    others.start()
    memory.start()
    began = time.perf_counter()
    status, sentence = send(server, bomb.address, body)
    took = time.perf_counter() - began
    waits, most = others.stop(), memory.stop()
    line = f"{bomb.name} | {len(body) / 1e6:.1f} | {took:.1f} | {most / 1e6:.0f} | {max(waits):.2f} | {status} {sentence}"
    record_property("bomb", line)
    if path := os.environ.get("BOMB_TABLE"):
        with Path(path).open("a", encoding="utf-8") as table:
            table.write(line + "\n")
    assert status in (200, 201, 400, 413, 422), line
    assert status < 400 or 20 < len(sentence) <= 500, line
    assert took < LONGEST, line
    assert most < MOST_MEMORY, line
    # One slow answer may be the machine's; more are ours.
    assert statistics.quantiles(waits, n=20)[-1] < LONGEST_WAIT if len(waits) > 20 else sorted(waits)[-2:][0] < LONGEST_WAIT, line


def test_reading_stops_when_nobody_waits_any_more(server):
    client, reader = reading(server)
    client.close()
    wait_for(lambda: not (readers().keys() & reader), "the reader goes on for nobody")


def test_a_server_ends_within_three_seconds_while_it_reads(tmp_path):
    server = Server(tmp_path / "data")
    client, reader = reading(server)
    began = time.perf_counter()
    server.stop()
    # Three seconds of its own, and what a busy machine adds.
    assert time.perf_counter() - began < 4.5
    client.close()
    wait_for(lambda: not (readers().keys() & reader), "the reader outlives its server")


def reading(server: Server) -> tuple[http.client.HTTPConnection, set[int]]:
    """Send a file that takes long to read; returns the connection, and the number of the process that reads it."""
    bomb = next(one for one in BOMBS if one.name == "svg: paths of 19 MB")
    client = http.client.HTTPConnection("127.0.0.1", server.port, timeout=60)
    before = readers()
    client.request("POST", f"{bomb.address}?name=bomb", bomb.made(1), {"content-type": "application/octet-stream"})
    wait_for(lambda: readers().keys() - before.keys(), "no reader was started")
    return client, readers().keys() - before.keys()


def wait_for(happened, otherwise: str) -> None:
    """Wait until something has happened."""
    deadline = time.monotonic() + 20
    while not happened():
        assert time.monotonic() < deadline, otherwise
        time.sleep(0.02)
