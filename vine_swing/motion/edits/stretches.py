"""The keys of a stretch of one channel, cut out of it so that they go the same way elsewhere."""

from itertools import pairwise

import numpy as np

from vine_swing.motion.edits.base import check_traced
from vine_swing.motion.edits.keys import keyed_value
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.timing.channel import Channel, Key
from vine_swing.motion.timing.fit import fit_keys
from vine_swing.motion.timing.path import way_of

#: How far keys that represent a piece of a stretch may stray from it, as a share of how far it goes.
_STRAY = 1e-4


def posed(thing: SceneObject, name: str, frame: float) -> Key:
    """A key with the value an object's channel has at a frame by its keys and ends."""
    spec = thing.specs[name]
    way = "straight" if spec.kind == "point" else None
    return Key(frame=frame, value=keyed_value(thing.channels[name], spec, frame, thing), way=way)


def stretch_keys(thing: SceneObject, name: str, first: float, last: float) -> list[Key]:
    """Keys from frame `first` to `last` of a keyed channel, the last on hold: its own where a stretch between two of them is within, and
    fitted ones for what begins or ends between keys or depends on keys outside."""
    channel = thing.channels[name]
    stops = sorted({float(first), *(key.frame for key in channel.keys if first < key.frame < last), float(last)})
    keys: dict[float, Key] = {}
    for a, b in pairwise(stops):
        before, after = channel.key_at(a), channel.key_at(b)
        if before is not None and after is not None and not _leans_on_others(before, after):
            into = keys[a].into if a in keys else None
            keys[a] = before.copy_with(into=into)
            keys[b] = posed(thing, name, b).copy_with(into=after.into)
        else:
            into = keys[a].into if a in keys else None
            fitted = _fitted(thing, name, channel, a, b)
            keys |= {key.frame: key for key in fitted}
            keys[a] = keys[a].copy_with(into=into)
    if float(first) in keys:
        own = channel.key_at(first)
        keys[first] = keys[first].copy_with(into=own.into) if own is not None else keys[first]
    end = keys.get(float(last)) or posed(thing, name, last)
    return [*(key for frame, key in keys.items() if frame < last), end.copy_with(frame=float(last), ease="hold")]


def leaning(keys: list[Key]) -> bool:
    """Whether the way between some keys depends on keys outside it."""
    return any(_leans_on_others(before, after) for before, after in pairwise(keys))


def _leans_on_others(before: Key, after: Key) -> bool:
    return before.ease == "spline" or (before.is_point and way_of(before, after) == "spline")


def _fitted(thing: SceneObject, name: str, channel: Channel, a: float, b: float) -> list[Key]:
    check_traced(a, b)
    frames = np.unique([a, *np.arange(np.ceil(a), b), b])
    shown = [posed(thing, name, float(frame)) for frame in frames]
    if thing.specs[name].kind != "number" or len(frames) < 3:
        return shown
    values = np.array([key.number for key in shown])
    return fit_keys(frames, values, max(float(np.ptp(values)) * _STRAY, 1e-9))
