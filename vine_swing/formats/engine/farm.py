"""Painting on many machines, by Dask distributed (an optional extra: `pip install 'vine-swing[farm]'`).

The scene with its pictures and fonts goes to the machines once, as the bytes of a scene file; after that each task is a few numbers, and what comes
back are pictures packed by zlib at its quickest, which flat colours shrink twenty times and more. Workers paint the same windows as the processes
of one machine, so the bytes are the same. The scheduler has another worker repeat the tasks of a lost one.
"""

import hashlib
import zlib
from collections import OrderedDict, deque
from collections.abc import Iterator, Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

from vine_swing.formats.engine.painting import Painting, Windows
from vine_swing.formats.export import Pixels
from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.scene.scene_file import dump, parse

#: Pictures of one task, and tasks that may be ahead of whoever takes the pictures, for each worker.
AT_ONCE, AHEAD = 4, 3
#: How often a task is begun again on another worker, and how long a scheduler is waited for, s.
_RETRIES, _PATIENCE = 5, 10
#: Paintings that a worker keeps ready.
_KEPT = 2


class Farm:
    """An engine of all workers that a scheduler has."""

    def __init__(self, address: str) -> None:
        """Reach the scheduler at an address such as `tcp://10.0.0.5:8786`.

        Raises:
            MotionError: if it is missing, or Dask is not installed.
        """
        try:
            from distributed import Client
        except ImportError as error:
            raise MotionError("a farm needs Dask: install it with  pip install 'vine-swing[farm]'") from error
        try:
            self._client: Any = Client(address, timeout=_PATIENCE, set_as_default=False)
        except (OSError, ValueError) as error:
            raise MotionError(f"there is no scheduler at '{address}'; start one with  dask scheduler  and give its address") from error

    def painted(self, painting: Painting, rows: Sequence[int]) -> Iterator[Pixels]:
        """See Engine. If a worker is lost with the only copy of the scene, it is sent again and painting goes on where it was."""
        from concurrent.futures import CancelledError

        tries, at = _RETRIES, 0
        while at < len(rows):
            try:
                for pixels in self._once(painting, rows[at:]):
                    yield pixels
                    at += 1
            except CancelledError:
                tries -= 1
                if not tries:
                    raise

    def _once(self, painting: Painting, rows: Sequence[int]) -> Iterator[Pixels]:
        text = dump(painting.scene, indent=None).encode()
        settings = (painting.frames.tobytes(), painting.scale, painting.background)
        key = hashlib.sha256(repr((hashlib.sha256(text).digest(), settings)).encode()).hexdigest()
        scene = self._client.scatter(text, broadcast=True, hash=False)
        width, height = painting.size
        parts = deque(rows[at : at + AT_ONCE] for at in range(0, len(rows), AT_ONCE))
        waiting: deque[tuple[Any, int]] = deque()
        try:
            while parts or waiting:
                most = AHEAD * max(1, len(self._client.scheduler_info()["workers"]))
                while parts and len(waiting) < most:
                    part = parts.popleft()
                    future = self._client.submit(paint, key, scene, *settings, list(part), pure=False, retries=_RETRIES)
                    waiting.append((future, len(part)))
                future, count = waiting.popleft()
                packed = future.result()
                yield from np.frombuffer(zlib.decompress(packed), np.uint8).reshape(count, height, width, 4)
        finally:
            for future, _ in waiting:
                future.cancel()

    def close(self) -> None:
        """Leave the farm; its workers go on for others."""
        self._client.close()


_ready: OrderedDict[str, Windows] = OrderedDict()


def paint(key: str, scene: bytes, frames: bytes, scale: float, background: bool, rows: list[int]) -> bytes:
    """On a worker: some pictures of a painting, one after the other, packed by zlib."""
    if key not in _ready:
        moments: NDArray[np.float64] = np.frombuffer(frames, np.float64)
        _ready[key] = Windows(Painting(parse(scene), moments, scale, background))
        while len(_ready) > _KEPT:
            _ready.popitem(last=False)
    windows = _ready[key]
    return zlib.compress(b"".join(windows.paint(row).tobytes() for row in rows), 1)
