"""Painting in several processes of this machine: the engine that needs nothing else.

Pictures come back through shared memory, in blocks of a few; their number is limited, so that painters never run far ahead of the encoder. The
processes are forked where the system can, so that the scene and its pictures are in each of them without being sent.
"""

import multiprocessing
import os
import secrets
import signal
from collections import deque
from collections.abc import Iterator, Sequence
from concurrent.futures import Future, ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from multiprocessing.shared_memory import SharedMemory

import numpy as np

from vine_swing.formats.engine.painting import Painting, Windows
from vine_swing.formats.engine.thread import ThreadEngine
from vine_swing.formats.export import Pixels
from vine_swing.formats.orphans import end_with_parent
from vine_swing.motion.basics.contents import FONT_FILES, PICTURE_FILES

#: Pictures painted in one go, and the bytes that all blocks may take together.
AT_ONCE, MOST_BYTES = 4, 400_000_000
#: Fewer pictures than this are not worth starting processes for.
_FEW = 8
#: How often blocks whose painter died are painted again.
_TRIES = 3


class Pool:
    """An engine of as many painting processes as there are cores."""

    def __init__(self, processes: int | None = None) -> None:
        self._processes = processes or os.cpu_count() or 1

    def painted(self, painting: Painting, rows: Sequence[int]) -> Iterator[Pixels]:
        """See Engine. A process that dies is replaced, and what it had not finished is painted again."""
        if len(rows) < _FEW or self._processes < 2:
            return ThreadEngine().painted(painting, rows)
        whole = self._whole(painting, rows)
        # The first picture is taken now, so that processes are forked by whoever asks, not by the thread that takes the pictures.
        return _begun(next(whole), whole)

    def _whole(self, painting: Painting, rows: Sequence[int]) -> Iterator[Pixels]:
        tries, at = _TRIES, 0
        while at < len(rows):
            try:
                for pixels in self._once(painting, rows[at:]):
                    yield pixels
                    at += 1
            except BrokenProcessPool:
                tries -= 1
                if not tries:
                    raise

    def _once(self, painting: Painting, rows: Sequence[int]) -> Iterator[Pixels]:
        width, height = painting.size
        parts = [rows[at : at + AT_ONCE] for at in range(0, len(rows), AT_ONCE)]
        most = max(2, min(2 * self._processes, MOST_BYTES // (AT_ONCE * painting.bytes_each)))
        size = AT_ONCE * painting.bytes_each
        blocks = [SharedMemory(f"{own_blocks()}{secrets.token_hex(4)}", create=True, size=size) for _ in range(min(most, len(parts)))]
        method = "fork" if "fork" in multiprocessing.get_all_start_methods() else "spawn"
        context = multiprocessing.get_context(method)
        held = {picture.id: PICTURE_FILES.data_of(picture.id) for picture in painting.scene.pictures}
        executor = ProcessPoolExecutor(self._processes, context, initializer=_begin, initargs=(painting, held))
        waiting: deque[tuple[Future[None], SharedMemory, int]] = deque()
        free, left = deque(blocks), iter(parts)
        try:
            while True:
                while free and (part := next(left, None)) is not None:
                    block = free.popleft()
                    waiting.append((executor.submit(_paint, block.name, list(part)), block, len(part)))
                if not waiting:
                    return
                future, block, count = waiting.popleft()
                future.result()
                pixels = np.ndarray((count, height, width, 4), np.uint8, block.buf)
                yield from pixels
                # The block cannot be released while an array looks into it.
                del pixels
                free.append(block)
        finally:
            executor.shutdown(wait=True, cancel_futures=True)
            for block in blocks:
                _let_go(block)

    def close(self) -> None:
        """There is nothing to released: processes end with what they paint."""


def _begun(first: Pixels, rest: Iterator[Pixels]) -> Iterator[Pixels]:
    yield first
    del first
    yield from rest


def own_blocks() -> str:
    """How the names of this process's blocks of shared memory begin."""
    return f"vine-{os.getpid()}-"


def _let_go(block: SharedMemory) -> None:
    block.unlink()
    try:
        block.close()
    except BufferError:
        # Whoever took the last picture still looks at it; the memory goes with that.
        block._mmap = None  # type: ignore[attr-defined]  # else its finalizer would complain
        block._buf = None  # type: ignore[attr-defined]


_windows: Windows


def _begin(painting: Painting, held: dict[str, bytes]) -> None:
    """Set a painting process up."""
    global _windows
    # Only whoever started it handles being stopped.
    signal.signal(signal.SIGTERM, signal.SIG_DFL)
    for content in held.values():
        PICTURE_FILES.keep(content)
    for font in painting.scene.fonts:
        FONT_FILES.keep(font.content)
    _windows = Windows(painting)
    end_with_parent()


def _paint(block_name: str, rows: list[int]) -> None:
    """Paint some rows into a block."""
    width, height = _windows.painting.size
    block = _attached(block_name)
    pixels = np.ndarray((len(rows), height, width, 4), np.uint8, block.buf)
    for place, row in enumerate(rows):
        _windows.paint_into(pixels[place], row)
    del pixels


_known_blocks: dict[str, SharedMemory] = {}


def _attached(name: str) -> SharedMemory:
    """A block that its maker releases, not this process."""
    if name not in _known_blocks:
        _known_blocks[name] = SharedMemory(name)
    return _known_blocks[name]
