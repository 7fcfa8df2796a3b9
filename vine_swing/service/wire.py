"""Baked motion on the wire: msgpack with little-endian float32 arrays.

An array is `{"w": width of a row, "d": bytes}`; one row per frame, or a single row for what never changes.
"""

from typing import Any

import msgpack
import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.curves.series import Block
from vine_swing.picture.tracks import OutlineTrack

MEDIA_TYPE = "application/vnd.msgpack"


def pack(data: Any) -> bytes:
    """The bytes of a message."""
    packed: bytes = msgpack.packb(data)
    return packed


class Arrays:
    """The arrays of one message, which `fill` converts to float32 together: hundreds of calls of NumPy would take longer than their work."""

    def __init__(self) -> None:
        self._waiting: list[tuple[dict[str, Any], NDArray[np.float64]]] = []

    def add(self, values: NDArray[np.float64]) -> dict[str, Any]:
        """An array of shape (n,) or (n, w), as it is in the message; its numbers come with `fill`."""
        place: dict[str, Any] = {"w": 1 if values.ndim == 1 else values.shape[1]}
        self._waiting.append((place, values))
        return place

    def fill(self) -> None:
        """Give all arrays their numbers. Those beyond float32 are cut to its range."""
        numbers = np.empty(sum(values.size for _, values in self._waiting), dtype="<f4")
        ends = np.cumsum([values.size for _, values in self._waiting]).tolist()
        with np.errstate(over="ignore"):
            for end, (_, values) in zip(ends, self._waiting, strict=True):
                numbers[end - values.size : end].reshape(values.shape)[...] = values
        beyond = ~np.isfinite(numbers)
        if beyond.any():
            limit = float(np.finfo(np.float32).max)
            numbers[beyond] = np.nan_to_num(numbers[beyond], posinf=limit, neginf=-limit)
        data = numbers.view(np.uint8).data
        for end, (place, values) in zip(ends, self._waiting, strict=True):
            place["d"] = data[numbers.itemsize * (end - values.size) : numbers.itemsize * end]
        self._waiting = []


def outline_track(track: OutlineTrack) -> dict[str, Any]:
    """The different outlines, and which of them each frame shows (as uint16); those with equal verbs are one block of points."""
    return {"which": track.series.which.astype("<u2").tobytes(), "blocks": [_block(block) for block in track.series.blocks], "boxed": track.boxed}


def _block(block: Block) -> dict[str, Any]:
    """`points` and `bounds` (left, top, right, bottom of all control points) of `count` outlines, one after the other."""
    points = block.points
    bounds = np.concatenate([points.min(axis=1), points.max(axis=1)], axis=1) if points.shape[1] else np.zeros((len(points), 4))
    return {"verbs": block.verbs, "count": len(points), "points": points.astype("<f4").tobytes(), "bounds": bounds.astype("<f4").tobytes()}
