"""Keys as notes read them."""

import re
from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.timing.channel import Channel, Key

Array = NDArray[np.float64]
#: What tells one of a pair from the other in their names.
_SIDES = re.compile(r"\b(left|right|near|far|front|back|fore|hind|first|second|upper|lower|other|one|two|a|b|[0-9]+)\b", re.IGNORECASE)
#: Channels that say where, how turned, how large and how visible an object is: of these notes speak.
PLACES, TURNS, SIZES = ("x", "y", "path"), ("rotation", "skew"), ("scale.x", "scale.y")
#: The row that channels share on the page, where one channel alone is no lone key.
_ROWS = {"x": "travel", "y": "travel", "path": "travel", "scale.x": "size", "scale.y": "size", "pivot.x": "pivot", "pivot.y": "pivot"}


def row_of(channel: str) -> str:
    """What tells channels that are keyed together: x, y and path, both scales, a limb of a figure."""
    return _ROWS.get(channel, channel.partition(".")[0] if "." in channel else channel)


def pair_name(thing: SceneObject) -> str:
    """What both of a pair, such as a left and a right leg, are called."""
    return _SIDES.sub("", thing.name).strip().lower()


def keyed(thing: SceneObject) -> Iterator[tuple[str, Channel]]:
    """The channels of an object that have keys."""
    return ((name, channel) for name, channel in thing.channels.items() if channel.keys)


def stretches(channel: Channel) -> Iterator[tuple[Key, Key]]:
    """Each key with the next."""
    return zip(channel.keys, channel.keys[1:], strict=False)


def numbers(channel: Channel) -> Array:
    """The values of keys that hold numbers."""
    return np.array([key.number for key in channel.keys])


def span_of(channel: Channel) -> tuple[float, float]:
    """The frames of the first and the last key."""
    return channel.keys[0].frame, channel.keys[-1].frame


def changes(channel: Channel) -> bool:
    """Whether two keys hold different values."""
    return any(one.value != other.value for one, other in stretches(channel))


def moving(thing: SceneObject) -> dict[str, Channel]:
    """The channels of an object with keys of different values."""
    return {name: channel for name, channel in keyed(thing) if changes(channel)}


def goes_on(channel: Channel) -> bool:
    """Whether it repeats or goes on past its last key."""
    return channel.after.mode != "hold" or channel.before.mode != "hold"


def is_free(thing: SceneObject, name: str) -> bool:
    """Whether no rule is at work on a channel, so that its keys say all."""
    return not thing.rules_on(name) and not (name in ("x", "y") and thing.is_keyed("path"))
