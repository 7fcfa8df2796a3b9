"""Reading a number channel as its keys and ends give it, at any frames: what the first rule reads."""

import hashlib
from functools import partial

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.channel import Channel
from vine_swing.motion.ends import turn_marks
from vine_swing.motion.evaluate import evaluate
from vine_swing.motion.model import SceneObject
from vine_swing.motion.path import evaluate_path
from vine_swing.motion.rules import Source, Timing

Array = NDArray[np.float64]


def read_channel(thing: SceneObject, name: str, timing: Timing, *, known: tuple[Array, Array] | None = None) -> Source:
    """A number channel before its rules.

    Args:
        thing: the object.
        name: the channel, which holds numbers.
        timing: the scene's.
        known: frames and the values there, if they are worked out already; reading at those very frames gives them.
    """
    channel = thing.channels.get(name, Channel())
    path = thing.channels.get("path", Channel())
    follows = name in ("x", "y") and not channel.keys and bool(path.keys)
    read = partial(_along, path, 0 if name == "x" else 1) if follows else partial(_plain, channel, thing.specs[name].default)
    moving = path if follows else channel

    def at(t: Array) -> Array:
        return known[1] if known is not None and t is known[0] else read(t)

    return Source(at, _breaks(moving, timing), timing, _stream(thing.id, name))


def _plain(channel: Channel, default: object, t: Array) -> Array:
    if channel.keys:
        row: Array = evaluate([channel], t)[0]
        return row
    base = channel.base if channel.base is not None else default
    assert isinstance(base, int | float)
    return np.full(t.shape, float(base))


def _along(path: Channel, axis: int, t: Array) -> Array:
    column: Array = evaluate_path(path, t)[:, axis]
    return column


def _breaks(channel: Channel, timing: Timing) -> Array:
    """Frames at which a keyed channel may jump or bend: its keys, and where its turns begin."""
    frames = {key.frame for key in channel.keys}
    if len(channel.keys) > 1:
        first, last = channel.keys[0].frame, channel.keys[-1].frame
        marks = turn_marks(first, last, channel.before, channel.after, timing.length)
        repeating = {channel.before.mode, channel.after.mode} & {"loop", "climb", "ping-pong"}
        if repeating and marks:
            # Within a turn lie the keys again, forwards and backwards.
            inner = [key.frame - first for key in channel.keys]
            frames |= {mark + way for mark in marks for offset in inner for way in (offset, last - first - offset)}
        frames |= set(marks)
    return np.array(sorted(frames), dtype=float)


def _stream(object_id: str, name: str) -> int:
    """A number for this channel alone, the same on every machine."""
    return int.from_bytes(hashlib.blake2b(f"{object_id} {name}".encode(), digest_size=8).digest(), "big")
