"""Channels as their keys and ends give them, before any rule, and which of them can be evaluated together."""

import hashlib
from collections.abc import Callable, Hashable, Sequence
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics.colour import parse_hex
from vine_swing.motion.basics.specs import INNER
from vine_swing.motion.rules import Timing
from vine_swing.motion.scene.dial import Dial
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.sound.analysis import level_of
from vine_swing.motion.timing.channel import Channel
from vine_swing.motion.timing.evaluate import KeyedChannels, evaluate_colours
from vine_swing.motion.timing.path import evaluate_path

Array = NDArray[np.float64]
#: A channel of an object.
Row = tuple[SceneObject, str]
_NEVER_TOUCHED = Channel()


def dial_values(scene: Scene, dial: Dial, t: Array) -> Array:
    """The values of a dial of a scene at frames t (1, n), within its range: (1, n), or colours as sRGB with alpha, (1, n, 4)."""
    channel = dial.channel
    if followed(scene, dial):
        return _heard(scene, dial, t)
    if dial.is_colour:
        return evaluate_colours([channel], t[0]) if channel.keys else np.tile(parse_hex(str(channel.base)), (*t.shape, 1))
    if not channel.keys:
        base = channel.base if isinstance(channel.base, int | float) else dial.spec.default
        return np.full(t.shape, float(base))  # type: ignore[arg-type]
    values = KeyedChannels([channel]).at(t)
    return values if dial.low is None and dial.high is None else np.clip(values, dial.low, dial.high)


def followed(scene: Scene, dial: Dial) -> bool:
    """Whether a dial follows a sound that the scene has."""
    return dial.follows is not None and dial.follows.sound in scene.sounds_by_id


def _heard(scene: Scene, dial: Dial, t: Array) -> Array:
    """How loud the sound is that a dial follows; between whole frames in a straight line, 0 before and after it."""
    follows = dial.follows
    assert follows is not None
    sound = scene.sounds_by_id[follows.sound]
    levels = level_of(sound.file, sound.begin, sound.until, scene.fps, follows.band, follows.attack, follows.release)
    result: Array = np.interp(t, sound.first + np.arange(-1, len(levels) + 1), np.concatenate([[0.0], levels, [0.0]]))
    return result if dial.low is None or dial.high is None else dial.low + (dial.high - dial.low) * result


def batch_key(obj: SceneObject, name: str, timing: Timing) -> Hashable:
    """Channels with equal batch keys are evaluated together, one row each: they and what they look at differ in nothing but numbers."""
    rules = obj.rules_on(name)
    if not rules:
        return kind_of(obj, name), tuple(breaks_of(obj, name, timing)), ()
    if any(rule.spec.unbatched for rule in rules):
        return obj.id, name
    others = {ref for rule in rules for ref in rule.dependencies(obj.id, name)}
    if any(owner != obj.id or other not in obj.specs for owner, other in others) or obj.specs[name].is_colour:
        return obj.id, name
    beside = {item for rule in rules for item in rule.spec.own_keys_read}
    keys = tuple((item, kind_of(obj, item), tuple(breaks_of(obj, item, timing))) for item in sorted(beside) if item in obj.specs)
    own = tuple((other, batch_key(obj, other, timing)) for _, other in sorted(others))
    # Rules for certain channels may treat each of them by itself.
    named = name if own or keys or kind_of(obj, name) == "along" or any(rule.spec.for_channels for rule in rules) else ""
    return kind_of(obj, name), tuple(breaks_of(obj, name, timing)), tuple(rule.batch_key for rule in rules), keys, own, named


def kind_of(obj: SceneObject, name: str) -> str:
    """What makes a channel before its rules: its own keys ("keyed"), the path it goes along ("along"), time itself ("running"), or nothing
    ("still")."""
    if obj.is_keyed(name):
        return "keyed"
    if obj.is_running(name):
        return "running"
    return "along" if name in ("x", "y") and obj.is_keyed("path") else "still"


def moving_channel(obj: SceneObject, name: str) -> Channel:
    """The channel whose keys move another: itself, or the path it follows."""
    return obj.channels.get("path" if kind_of(obj, name) == "along" else name, _NEVER_TOUCHED)


def before_rules(rows: Sequence[Row], scene: Scene) -> Callable[[Array], Array]:
    """A function that reads channels of a scene with one batch key, one a row, at any frames (1 or r, n)."""
    if rows[0][0].specs[rows[0][1]].is_colour:
        return lambda t: np.stack([_colours(obj, name, t[n % len(t)]) for n, (obj, name) in enumerate(rows)])
    match kind_of(*rows[0]):
        case "keyed":
            return KeyedChannels([obj.channels[name].as_numbers for obj, name in rows]).at
        case "along":
            return lambda t: np.stack([_along(obj.channels["path"], name, t[n % len(t)]) for n, (obj, name) in enumerate(rows)])
        case "running":
            starts, firsts, paces = (np.array(column)[:, None] for column in zip(*(run_of(obj, scene) for obj, _ in rows), strict=True))
            return lambda t: starts + (t - firsts) * paces
        case _:
            values = np.array([plain_value(obj, name) for obj, name in rows])[:, None]
            return lambda t: np.repeat(values, t.shape[1], axis=1)


def run_of(obj: SceneObject, scene: Scene) -> tuple[float, float, float]:
    """How an inset runs where nothing keys it: its inner frame at the first frame of its span, that frame, and inner frames a frame."""
    use = obj.inset_of
    assert use is not None
    first, _ = obj.span.within(scene.length)
    return plain_value(obj, INNER), float(first), scene.insets_by_id[use.scene].fps / scene.fps


def _along(path: Channel, name: str, t: Array) -> Array:
    column: Array = evaluate_path(path, t)[:, 0 if name == "x" else 1]
    return column


def _colours(obj: SceneObject, name: str, t: Array) -> Array:
    """A colour channel as its keys give it at frames t (n,): (n, 4)."""
    channel = obj.channels.get(name, _NEVER_TOUCHED)
    if channel.keys:
        rows: Array = evaluate_colours([channel], t)[0]
        return rows
    return np.tile(parse_hex(str(channel.base if channel.base is not None else obj.specs[name].default)), (len(t), 1))


def plain_value(obj: SceneObject, name: str) -> float:
    """A number channel without keys."""
    base = obj.channels.get(name, _NEVER_TOUCHED).base
    value = base if base is not None else obj.specs[name].default
    assert isinstance(value, int | float)
    return float(value)


def breaks_of(obj: SceneObject, name: str, timing: Timing) -> Array:
    """Frames between whole ones at which a keyed channel may jump or bend: its keys, and where its turns begin."""
    channel = moving_channel(obj, name)
    if channel.whole:
        return np.empty(0)
    frames = {key.frame for key in channel.keys}
    if len(channel.keys) > 1:
        first, last = channel.keys[0].frame, channel.keys[-1].frame
        marks = channel.turns(timing.length)
        repeating = {channel.before.mode, channel.after.mode} & {"loop", "climb", "ping-pong"}
        if repeating and marks:
            # Within a turn lie the keys again, forwards and backwards.
            inner = [key.frame - first for key in channel.keys]
            frames |= {mark + direction for mark in marks for offset in inner for direction in (offset, last - first - offset)}
        frames |= set(marks)
    return np.array(sorted(frame for frame in frames if frame != round(frame)), dtype=float)


@lru_cache(maxsize=65536)
def stream_of(object_id: str, name: str) -> int:
    """A number for this channel alone, the same on every machine."""
    return int.from_bytes(hashlib.blake2b(f"{object_id} {name}".encode(), digest_size=8).digest(), "big")
