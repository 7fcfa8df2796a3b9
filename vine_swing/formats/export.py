"""What all exports share: frames painted one by one, progress, and stopping early."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from queue import Queue
from threading import Event, Thread
from typing import TYPE_CHECKING, TypeVar

import numpy as np
from numpy.typing import NDArray

if TYPE_CHECKING:
    # Painting is loaded by the formats that paint, when they are used.
    from vine_swing.picture.blur import FramePainter

Pixels = NDArray[np.uint8]
#: Told how many frames are done; returns False to stop.
Progress = Callable[[int], bool]
_Made = TypeVar("_Made")


@dataclass(frozen=True)
class _Failed:
    """What went wrong while a frame was made."""

    error: BaseException


def always(done: int) -> bool:
    """Progress that nobody follows: the export goes on to its end."""
    return True


class Cancelled(Exception):
    """The export was stopped before its end."""


def painted(painter: "FramePainter", frames: range, *, ahead: int = 3) -> Iterator[Pixels]:
    """The frames as arrays, painted in a thread of their own a few ahead of whoever encodes them."""
    return made_ahead(painter.frame, frames, ahead=ahead)


def made_ahead(make: Callable[[int], _Made], frames: range, *, ahead: int = 3) -> Iterator[_Made]:
    """What `make` makes of each frame's index, in order, made in a thread of its own at most `ahead` frames before it is taken."""
    ready: Queue[_Made | _Failed] = Queue(maxsize=ahead)
    stop = Event()

    def work() -> None:
        try:
            for index in frames:
                if stop.is_set():
                    return
                ready.put(make(index))
        except BaseException as error:  # handed over: the reader raises it
            ready.put(_Failed(error))

    thread = Thread(target=work, name="painter", daemon=True)
    thread.start()
    try:
        for _ in frames:
            item = ready.get()
            if isinstance(item, _Failed):
                raise item.error
            yield item
    finally:
        stop.set()
        while thread.is_alive():
            # A painter that waits for room in the queue is let go on, and sees that it is to stop.
            while not ready.empty():
                ready.get_nowait()
            thread.join(0.05)
