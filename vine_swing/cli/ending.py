"""The end of the server: Ctrl+C ends it within three seconds, whatever it is doing."""

import logging
import os
import signal
import threading
from collections.abc import Callable
from types import FrameType

import uvicorn

#: How long requests and web clients have to finish after a signal, s. What is not finished by then is cut off: every acknowledged edit is on disk.
LONGEST_END = 2.5


class EndingServer(uvicorn.Server):
    """A server that ends by force if it does not end by itself soon after a signal."""

    def __init__(self, config: uvicorn.Config, *, at_last: Callable[[], object]) -> None:
        """at_last: called before the process is ended by force, to end the processes it started."""
        super().__init__(config)
        self._at_last = at_last
        self._timer: threading.Timer | None = None

    def handle_exit(self, sig: int, frame: FrameType | None) -> None:
        """Begin to end. The timer does not wait for threads that compute or read; the second signal is answered as the first."""
        super().handle_exit(signal.Signals(sig), frame)
        # Requests that are cut off would each be logged with a traceback.
        logging.getLogger("uvicorn.error").setLevel(logging.CRITICAL)
        if self._timer is None:
            self._timer = threading.Timer(LONGEST_END, self._end_now)
            self._timer.daemon = True
            self._timer.start()

    def ended(self) -> None:
        """Say that everything is closed. Threads that still compute would keep the process alive, so it is ended here if a signal asked for it."""
        if self._timer is not None and any(not thread.daemon for thread in threading.enumerate() if thread is not threading.main_thread()):
            self._end_now()

    def _end_now(self) -> None:
        self._at_last()
        os._exit(0)
