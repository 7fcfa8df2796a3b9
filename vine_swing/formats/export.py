"""What all exports share: pictures made ahead, progress, and stopping early."""

from collections.abc import Callable, Generator, Iterable, Iterator
from dataclasses import dataclass
from queue import Queue
from threading import Event, Thread
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

Pixels = NDArray[np.uint8]
#: Told how many frames are done; returns False to stop.
Progress = Callable[[int], bool]
_Of = TypeVar("_Of")
_Made = TypeVar("_Made")


@dataclass(frozen=True)
class _Failed:
    """What went wrong while a frame was made."""

    error: BaseException


class _End:
    """After the last of all that was made."""


_END = _End()


def never_cancelled(done: int) -> bool:
    """Progress that nobody follows: the export goes on to its end."""
    return True


class Cancelled(Exception):
    """The export was stopped before its end."""


def made_ahead(make: Callable[[_Of], _Made], of: Iterable[_Of], *, ahead: int = 3) -> Iterator[_Made]:
    """Yield `make(item)` for each item in order, computed by another thread at most `ahead` items in advance."""
    ready: Queue[_Made | _Failed | _End] = Queue(maxsize=ahead)
    stop = Event()

    def work() -> None:
        try:
            for entry in of:
                if stop.is_set():
                    return
                ready.put(make(entry))
            ready.put(_END)
        except BaseException as error:  # handed over: the reader raises it
            ready.put(_Failed(error))
        finally:
            if isinstance(of, Generator):
                of.close()

    thread = Thread(target=work, name="painter", daemon=True)
    thread.start()
    try:
        while not isinstance(item := ready.get(), _End):
            if isinstance(item, _Failed):
                raise item.error
            yield item
    finally:
        stop.set()
        while thread.is_alive():
            # A painter that waits for room in the queue is released on, and sees that it is to stop.
            while not ready.empty():
                ready.get_nowait()
            thread.join(0.05)
