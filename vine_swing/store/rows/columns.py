"""What each column holds: parts of a scene as the values of a row, and keys back from their row."""

import json
from collections.abc import Sequence
from functools import lru_cache
from typing import Any

from pydantic import TypeAdapter

from vine_swing.motion.rules.rule import Rule
from vine_swing.motion.scene.cues import Cue
from vine_swing.motion.scene.dial import Dial
from vine_swing.motion.scene.kinds import CONTENT_COLUMNS, KINDS
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.shapes import LineStyle, Paints
from vine_swing.motion.scene.sounds import KeptSound
from vine_swing.motion.scene.timeline import Timeline
from vine_swing.motion.timing.channel import Channel, Key
from vine_swing.motion.timing.ease import Ease

_EASE: TypeAdapter[Ease] = TypeAdapter(Ease)
TIMELINE = ("name", "fps", "length", "width", "height", "background", "blur", "hushed", "markers", "beat")
OBJECT = (
    *("position", "name", "kind", "parent", "shown", "first_frame", "last_frame", "bone", "pinned", "blurred", "blend", "line", "paints"),
    *("locked", "tag"),
    *CONTENT_COLUMNS,
)
RULE = ("position", "kind", '"on"', "channels", "mode", "words")
DIAL = ("position", "name", "unit", "low", "high", "follows")
SOUND = ("position", "name", "seconds", "first_frame", "begins", "ends", '"on"', "gain", "dial")
CUE = ("position", "name", "first_frame", "last_frame", "objects", "key", "click", "plays")
CHANNEL = ("base", "before_mode", "before_times", "after_mode", "after_times", "formula")
KEY = ("value", "ease", "out_frames", "out_value", "in_frames", "in_value", "tension", "continuity", "bias", "way", "value_y", "meets")


def timeline_values(scene: Timeline) -> tuple[Any, ...]:
    """What the columns `TIMELINE` hold of a scene, or of one inside another."""
    blur = scene.blur.model_dump_json() if scene.blur is not None else None
    hushed = json.dumps([one.model_dump() for one in scene.hushed]) if scene.hushed else None
    markers = json.dumps([one.model_dump() for one in scene.markers]) if scene.markers else None
    beat = scene.beat.model_dump_json() if scene.beat is not None else None
    return scene.name, scene.fps, scene.length, *scene.size, scene.background, blur, hushed, markers, beat


def object_values(thing: SceneObject, position: int) -> tuple[Any, ...]:
    """What the columns `OBJECT` hold of an object at a place in its list."""
    own, kept = KINDS[thing.kind].content, thing.content.model_dump_json(by_alias=True) if thing.content is not None else None
    contents = (kept if column == own else None for column in CONTENT_COLUMNS)
    return (
        position,
        thing.name,
        thing.kind,
        thing.parent,
        int(thing.shown),
        thing.span.first,
        thing.span.last,
        thing.bone,
        int(thing.pinned),
        int(thing.blurred),
        thing.blend,
        thing.line_style.model_dump_json() if thing.line_style != LineStyle() else None,
        thing.painted_with.model_dump_json() if thing.painted_with != Paints() else None,
        int(thing.locked),
        thing.tag,
        *contents,
    )


def rule_values(rule: Rule, position: int) -> tuple[Any, ...]:
    """What the columns `RULE` hold of a rule at a place in its list."""
    words = {name: setting for name, setting in rule.settings.items() if isinstance(setting, str)}
    return position, rule.kind, int(rule.on), json.dumps(rule.channels), rule.mode, json.dumps(words)


def dial_values(dial: Dial, position: int) -> tuple[Any, ...]:
    """What the columns `DIAL` hold of a dial at a place in its list."""
    follows = dial.follows.model_dump_json() if dial.follows is not None else None
    return position, dial.name, dial.unit, dial.low, dial.high, follows


def cue_values(cue: Cue, position: int) -> tuple[Any, ...]:
    """What the columns `CUE` hold of a cue at a place in its list."""
    return position, cue.name, cue.first, cue.last, json.dumps(cue.objects), cue.key, cue.click, cue.plays


def channel_values(channel: Channel) -> tuple[Any, ...]:
    """What the columns `CHANNEL` hold of a channel."""
    return channel.base, channel.before.mode, channel.before.times, channel.after.mode, channel.after.times, channel.formula


def numbers(rule: Rule) -> dict[str, Channel]:
    """The settings of a rule that have a channel of their own."""
    return {name: setting for name, setting in rule.settings.items() if isinstance(setting, Channel)}


def sound_values(sound: KeptSound, position: int) -> tuple[Any, ...]:
    """What the columns `SOUND` hold of a sound at a place in its list."""
    return position, sound.name, sound.seconds, sound.first, sound.begin, sound.end, int(sound.on), sound.gain, sound.dial


def read_key(frame: float, columns: Sequence[Any]) -> dict[str, Any]:
    """A key as the model takes it, from its frame and its columns `KEY`. There are very many, so what is as by default is left to the model."""
    value, ease, out_frames, out_value, in_frames, in_value, tension, continuity, bias, way, value_y, meets = columns
    key: dict[str, Any] = {"frame": frame, "value": value if value_y is None else (value, value_y), "ease": ease_data(ease)}
    if out_frames is not None:
        key["out"] = out_frames, out_value
    if in_frames is not None:
        key["in"] = in_frames, in_value
    if tension or continuity or bias:
        key |= {"tension": tension, "continuity": continuity, "bias": bias}
    if way is not None:
        key["way"] = way
    if meets is not None:
        key["meets"] = tuple(json.loads(meets))
    return key


#: Thousands of keys share a few eases.
@lru_cache(maxsize=4096)
def _ease_text(ease: Ease) -> str:
    return _EASE.dump_json(ease).decode()


@lru_cache(maxsize=4096)
def ease_data(text: str) -> Any:
    """An ease as the model takes it, from what its column holds."""
    return json.loads(text)


def key_values(key: Key) -> tuple[Any, ...]:
    """What the columns `KEY` hold of a key."""
    ease = _ease_text(key.ease)
    # A point takes two columns; whatever else a key holds takes the first.
    value, y = key.value if isinstance(key.value, tuple) else (key.value, None)
    meets = None if key.meets is None else json.dumps(key.meets)
    return value, ease, *(key.out or (None, None)), *(key.into or (None, None)), key.tension, key.continuity, key.bias, key.way, y, meets
