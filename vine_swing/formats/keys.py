"""The keys of a scene as JSON: of every channel, setting and dial that has any, their frames, values, eases and ends, and nothing else."""

import json
from typing import Any

from vine_swing.motion.scene.model import Scene
from vine_swing.motion.timing.channel import Channel

KEYS_FORMAT = "vine-swing-keys"


def keys_data(scene: Scene) -> dict[str, Any]:
    """The keys as plain data: `tracks` is a list of `{"object", "channel", "keys": [{"frame", "value", "ease"}, …], "before", "after"}`, the ends as
    in scene files; settings of rules are called `rule:setting`, dials have the name of the dial as their object and `value` as their channel."""
    tracks = []
    for obj in scene.objects:
        for name, channel in (*obj.channels.items(), *obj.moving_settings.items()):
            tracks += _track(obj.name, name, channel)
    for dial in scene.dials:
        tracks += _track(dial.name, "value", dial.channel)
    return {"format": KEYS_FORMAT, "version": 1, "name": scene.name, "fps": scene.fps, "length": scene.length, "tracks": tracks}


def keys_text(scene: Scene) -> str:
    """The same as the text of a file."""
    return json.dumps(keys_data(scene), ensure_ascii=False, indent=1)


def _track(owner: str, name: str, channel: Channel) -> list[dict[str, Any]]:
    if not channel.keys:
        return []
    keys = [key.model_dump(mode="json", by_alias=True, exclude_defaults=True) for key in channel.keys]
    ends = {"before": channel.before.model_dump(mode="json"), "after": channel.after.model_dump(mode="json")}
    return [{"object": owner, "channel": name, "keys": keys} | ends]
