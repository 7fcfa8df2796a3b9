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


def array(values: NDArray[np.float64]) -> dict[str, Any]:
    """An array of shape (n,) or (n, w). Values beyond float32 are cut to its range."""
    with np.errstate(over="ignore"):
        flat = values.astype("<f4")
    if not np.isfinite(flat).all():
        limit = np.finfo(np.float32).max
        flat = np.clip(np.nan_to_num(values), -limit, limit).astype("<f4")
    return {"w": 1 if values.ndim == 1 else values.shape[1], "d": flat.tobytes()}


def outline_track(track: OutlineTrack) -> dict[str, Any]:
    """The different outlines, and which of them each frame shows (as uint16); those with equal verbs are one block of points."""
    return {"which": track.series.which.astype("<u2").tobytes(), "blocks": [_block(block) for block in track.series.blocks], "boxed": track.boxed}


def _block(block: Block) -> dict[str, Any]:
    """`points` and `bounds` (left, top, right, bottom of all control points) of `count` outlines, one after the other."""
    points = block.points
    bounds = np.concatenate([points.min(axis=1), points.max(axis=1)], axis=1) if points.shape[1] else np.zeros((len(points), 4))
    return {"verbs": block.verbs, "count": len(points), "points": points.astype("<f4").tobytes(), "bounds": bounds.astype("<f4").tobytes()}
