"""Servers for journeys: forked from a process that has imported the application already, so that one is ready in a few tenths of a second.

Each server is a process of its own with its own port and data folder. tests/test_cli.py starts the real
command instead, so that the way a person starts it is covered too.
"""

import contextlib
import itertools
import json
import multiprocessing
import os
import signal
import socket
import time
import urllib.request
from collections.abc import Iterator
from pathlib import Path
from threading import Thread

from vine_swing import cli

# Threads of a numeric library do not live on in a process that is forked from theirs; with one there are none. Two workers share two cores besides.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
FORK_SERVER = multiprocessing.get_context("forkserver")
#: Imported once in the fork server, before any server process is forked from it; the second row is what uvicorn and anyio import when they start.
PRELOAD = [
    *("uvicorn", "vine_swing.service.app", "vine_swing.store", "vine_swing.cli", "tests.journeys.warm"),
    *("uvicorn.lifespan.on", "uvicorn.loops.asyncio", "uvicorn.protocols.http.h11_impl", "uvicorn.protocols.websockets.websockets_sansio_impl"),
    *("anyio._backends._asyncio", "encodings.idna"),
]
FORK_SERVER.set_forkserver_preload(PRELOAD)


def run_command(arguments: list[str]) -> None:
    """The target of a server process: the command line with `arguments`, its output thrown away."""
    # It ends with the tests, as daemons do; but a server starts processes of its own, which daemons must not.
    multiprocessing.current_process()._config["daemon"] = False
    with Path(os.devnull).open("w", encoding="utf-8") as nowhere, contextlib.redirect_stdout(nowhere):
        cli.main(arguments)


#: Ports of servers lie below those that the system gives to whoever asks for any (from 32768 on Linux), such as a browser for its own end of a
#: connection, so that nobody takes one between its choice and its use.
PORTS = range(11_000, 32_000)


def own_ports() -> Iterator[int]:
    """The ports of this process of the test run, round and round: no other process of the run is given any of them."""
    share = len(PORTS) // int(os.environ.get("PYTEST_XDIST_WORKER_COUNT", "1"))
    first = share * int(os.environ.get("PYTEST_XDIST_WORKER", "gw0").removeprefix("gw"))
    mine = PORTS[first : first + share]
    # Another run on this machine starts elsewhere in the same row.
    start = os.getpid() * 97 % len(mine)
    return itertools.cycle([*mine[start:], *mine[:start]])


OWN_PORTS = own_ports()


def free_port() -> int:
    """A port of 127.0.0.1 that nothing listens on, and that is given to no other server of this run."""
    for port in itertools.islice(OWN_PORTS, len(PORTS)):
        with socket.socket() as probe, contextlib.suppress(OSError):
            probe.bind(("127.0.0.1", port))
            return port
    raise AssertionError(f"no port from {PORTS.start} to {PORTS.stop - 1} is free")


def ask(address: str, body: object | None = None) -> dict:
    """What a service answers to GET or, with a body, to POST."""
    data = None if body is None else json.dumps(body).encode()
    with urllib.request.urlopen(urllib.request.Request(address, data, {"content-type": "application/json"}), timeout=60) as answer:
        return json.load(answer)


class Server:
    """`vine-swing serve` on a free port; can be stopped, killed and started again on the same data."""

    def __init__(self, data: Path, command: str = "serve"):
        self.data = data
        self._command = command
        self.port = free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self.start()

    @property
    def pid(self) -> int:
        """The number of its process."""
        assert self._process.pid is not None
        return self._process.pid

    def start(self) -> None:
        """Start the server and wait until its port answers."""
        arguments = [self._command, "--data", str(self.data), "--port", str(self.port)]
        self._process = FORK_SERVER.Process(target=run_command, args=(arguments,), daemon=True)
        self._process.start()
        deadline = time.monotonic() + 60
        while time.monotonic() < deadline:
            try:
                socket.create_connection(("127.0.0.1", self.port), timeout=1).close()
                assert self._process.is_alive(), f"something else answers on port {self.port}"
                return
            except OSError:
                assert self._process.is_alive(), f"the server ended with exit code {self._process.exitcode}"
                time.sleep(0.01)
        raise AssertionError("the server did not answer within 60 seconds")

    def stop(self, how: signal.Signals = signal.SIGINT) -> None:
        """End the server by a signal and wait until it is missing."""
        if self._process.pid is not None and self._process.is_alive():
            os.kill(self._process.pid, how)
        self._process.join(60)


class Prepared:
    """Hands out servers that are ready already: while a test uses one, the next is started on an empty data folder of its own."""

    def __init__(self, root: Path) -> None:
        self._root, self._count = root, 0
        self._starting: Thread | None = None
        self._ready: Server | None = None
        self._prepare()

    def take(self) -> Server:
        """A running server that nobody has used."""
        assert self._starting is not None
        self._starting.join()
        server = self._ready
        # If it did not come up in the background, it is started here, so that its error is seen.
        self._ready = None
        self._prepare()
        return server if server is not None else Server(self._folder())

    def close(self) -> None:
        """End the server that was prepared for nobody."""
        if self._starting is not None:
            self._starting.join()
        if self._ready is not None:
            self._ready.stop(signal.SIGKILL)

    def _folder(self) -> Path:
        self._count += 1
        return self._root / f"data-{self._count}"

    def _prepare(self) -> None:
        folder = self._folder()

        def start() -> None:
            with contextlib.suppress(AssertionError, OSError):
                self._ready = Server(folder)

        self._starting = Thread(target=start)
        self._starting.start()
