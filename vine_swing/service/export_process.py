"""The process in which a server's exports are made, and how it is started, followed and ended."""

import os
import signal
import subprocess
import sys
import threading
from collections.abc import Iterator
from contextlib import suppress

#: How long a process may take to end by itself, s.
_GRACE = 5.0


class ExportProcess:
    """A process that makes one export after the other, see `vine_swing/formats/worker.py`.

    It leads a group of its own, so that those it starts end with it.
    """

    def __init__(self) -> None:
        self._process = subprocess.Popen(
            [sys.executable, "-m", "vine_swing.formats.worker"],
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            stderr=subprocess.DEVNULL,
            text=True,
            start_new_session=True,
        )

    @property
    def pid(self) -> int:
        """The number of the process and of its group."""
        return self._process.pid

    def run(self, order: str) -> Iterator[str]:
        """Give it an order, a line of JSON; gives the lines it says, until it is stopped or nobody wants more."""
        assert self._process.stdin is not None
        assert self._process.stdout is not None
        # A process that has just ended is recognised by its empty output.
        with suppress(BrokenPipeError):
            self._process.stdin.write(order + "\n")
            self._process.stdin.flush()
        # Not "yield from": that would close the pipe as soon as nobody wants more.
        for line in self._process.stdout:  # noqa: UP028
            yield line

    def stop(self) -> None:
        """Ask it to end now, and end it soon if it does not."""
        self._end(signal.SIGTERM)
        threading.Timer(_GRACE, self._end, (signal.SIGKILL,)).start()

    def kill(self) -> None:
        """End it at once."""
        self._end(signal.SIGKILL)

    def close(self) -> None:
        """Let it end, as nothing more will be asked of it; waits for that."""
        assert self._process.stdin is not None
        assert self._process.stdout is not None
        with suppress(BrokenPipeError):
            self._process.stdin.close()
        try:
            self._process.wait(_GRACE)
        except subprocess.TimeoutExpired:
            self._end(signal.SIGKILL)
            self._process.wait()
        self._process.stdout.close()

    def _end(self, how: signal.Signals) -> None:
        if self._process.poll() is None:
            with suppress(ProcessLookupError):
                os.killpg(self._process.pid, how)
