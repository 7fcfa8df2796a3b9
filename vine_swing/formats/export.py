"""What all exports share: frames painted one by one, progress, and stopping early."""

from collections.abc import Callable, Iterator
from queue import Queue
from threading import Event, Thread

import numpy as np
from numpy.typing import NDArray

from vine_swing.picture.paint import Painter

Pixels = NDArray[np.uint8]
#: Told how many frames are done; returns False to stop.
Progress = Callable[[int], bool]


class Cancelled(Exception):
    """The export was stopped before its end."""


def painted(painter: Painter, frames: range, *, ahead: int = 3) -> Iterator[Pixels]:
    """The frames, painted in a thread of their own a few ahead of whoever encodes them."""
    ready: Queue[Pixels | BaseException] = Queue(maxsize=ahead)
    stop = Event()

    def work() -> None:
        try:
            for index in frames:
                if stop.is_set():
                    return
                ready.put(painter.frame(index))
        except BaseException as error:  # handed over: the reader raises it
            ready.put(error)

    thread = Thread(target=work, name="painter", daemon=True)
    thread.start()
    try:
        for _ in frames:
            item = ready.get()
            if isinstance(item, BaseException):
                raise item
            yield item
    finally:
        stop.set()
        while not ready.empty():
            ready.get_nowait()
        thread.join()
