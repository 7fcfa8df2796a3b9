"""Giving memory back to the system.

Bakes allocate and free arrays in many threads. The C library keeps freed memory in a pool of its own for each thread, so a server with several users
would hold on to several times what it needs.
"""

import ctypes
import threading
from collections.abc import Callable
from pathlib import Path

#: How often memory is looked at, s, and how many bytes the server may have grown since it was last given back before that is done again.
_EVERY, _GROWN = 10.0, 50_000_000
_STATM = Path("/proc/self/statm")
_PAGE = 4096


def resident() -> int:
    """Return the bytes of memory that this process takes; 0 where the system does not say."""
    try:
        return int(_STATM.read_text(encoding="ascii").split()[1]) * _PAGE
    except (OSError, IndexError, ValueError):
        return 0


class Trimmer:
    """A thread that gives freed memory back whenever the server has grown."""

    def __init__(self) -> None:
        self._over = threading.Event()
        self._trim = _trim_of_the_system()
        if self._trim is not None:
            threading.Thread(target=self._run, name="trimming", daemon=True).start()

    def close(self) -> None:
        """End the thread."""
        self._over.set()

    def _run(self) -> None:
        assert self._trim is not None
        last = resident()
        while not self._over.wait(_EVERY):
            if resident() > last + _GROWN:
                self._trim(0)
                last = resident()


def _trim_of_the_system() -> Callable[[int], object] | None:
    """Return the function of the GNU C library that gives freed memory back (`malloc_trim`), or None."""
    try:
        trim: Callable[[int], object] = ctypes.CDLL(None).malloc_trim
    except (OSError, AttributeError, TypeError):
        return None
    return trim
