"""Scenes ↔ rows: reading a scene, and writing down only what differs between two versions of it."""

import json
import sqlite3
from collections import defaultdict
from typing import Any

from pydantic import TypeAdapter

from vine_swing.motion.channel import Channel, Key
from vine_swing.motion.ease import Ease
from vine_swing.motion.model import GroupObject, Scene, SceneObject

_EASE: TypeAdapter[Ease] = TypeAdapter(Ease)
_SCENE_COLUMNS = ("name", "fps", "length", "width", "height", "background")


def read(db: sqlite3.Connection, scene_id: str) -> Scene | None:
    """The scene with this id, or None."""
    row = db.execute("SELECT * FROM scene WHERE id = ?", (scene_id,)).fetchone()
    if row is None:
        return None
    keys: dict[int, list[dict[str, Any]]] = defaultdict(list)
    for key in db.execute(
        "SELECT key.* FROM key JOIN channel ON channel.row = key.channel JOIN object ON object.row = channel.object"
        " WHERE object.scene = ? ORDER BY key.channel, key.frame",
        (scene_id,),
    ):
        keys[key["channel"]].append({"frame": key["frame"], "value": key["value"], "ease": json.loads(key["ease"])})
    channels: dict[int, dict[str, dict[str, Any]]] = defaultdict(dict)
    for channel in db.execute(
        "SELECT channel.* FROM channel JOIN object ON object.row = channel.object WHERE object.scene = ? ORDER BY channel.row", (scene_id,)
    ):
        channels[channel["object"]][channel["name"]] = {
            "base": channel["base"],
            "keys": keys[channel["row"]],
            "before": {"mode": channel["before_mode"], "times": channel["before_times"]},
            "after": {"mode": channel["after_mode"], "times": channel["after_times"]},
        }
    objects = []
    for thing in db.execute("SELECT * FROM object WHERE scene = ? ORDER BY position, row", (scene_id,)):
        data = {"id": thing["id"], "name": thing["name"], "kind": thing["kind"], "parent": thing["parent"]}
        data |= {"shown": bool(thing["shown"]), "channels": channels[thing["row"]]}
        if thing["shape"] is not None:
            data["shape"] = json.loads(thing["shape"])
        objects.append(data)
    return Scene.model_validate(
        {
            "name": row["name"],
            "fps": row["fps"],
            "length": row["length"],
            "size": (row["width"], row["height"]),
            "background": row["background"],
            "objects": objects,
        }
    )


def insert(db: sqlite3.Connection, scene_id: str, scene: Scene, now: str) -> None:
    """Write a whole new scene."""
    db.execute(
        f"INSERT INTO scene (id, {', '.join(_SCENE_COLUMNS)}, made, changed) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)",
        (scene_id, *_scene_values(scene), now, now),
    )
    for position, thing in enumerate(scene.objects):
        _insert_object(db, scene_id, thing, position)


def write_difference(db: sqlite3.Connection, scene_id: str, before: Scene, after: Scene) -> None:
    """Write what differs; parts that both versions share are not looked at."""
    if _scene_values(before) != _scene_values(after):
        db.execute(f"UPDATE scene SET {_assignments(_SCENE_COLUMNS)} WHERE id = ?", (*_scene_values(after), scene_id))
    if before.objects is after.objects:
        return
    old = {thing.id: (position, thing) for position, thing in enumerate(before.objects)}
    kept = after.by_id
    for object_id in old:
        if object_id not in kept:
            _delete_object(db, scene_id, object_id)
    for position, thing in enumerate(after.objects):
        was = old.get(thing.id)
        if was is None:
            _insert_object(db, scene_id, thing, position)
        elif was != (position, thing):
            _update_object(db, scene_id, was, (position, thing))


def _update_object(db: sqlite3.Connection, scene_id: str, was: tuple[int, SceneObject], now: tuple[int, SceneObject]) -> None:
    old, new = was[1], now[1]
    (row,) = db.execute("SELECT row FROM object WHERE scene = ? AND id = ?", (scene_id, new.id)).fetchone()
    if _object_values(old, was[0]) != _object_values(new, now[0]):
        db.execute(f"UPDATE object SET {_assignments(_OBJECT_COLUMNS)} WHERE row = ?", (*_object_values(new, now[0]), row))
    for name, channel in old.channels.items():
        if name not in new.channels:
            _delete_channel(db, _channel_row(db, row, name))
        elif new.channels[name] is not channel:
            _update_channel(db, _channel_row(db, row, name), channel, new.channels[name])
    for name, channel in new.channels.items():
        if name not in old.channels:
            _insert_channel(db, row, name, channel)


def _update_channel(db: sqlite3.Connection, row: int, old: Channel, new: Channel) -> None:
    if _channel_values(old) != _channel_values(new):
        db.execute(f"UPDATE channel SET {_assignments(_CHANNEL_COLUMNS)} WHERE row = ?", (*_channel_values(new), row))
    before = {key.frame: key for key in old.keys}
    after = {key.frame: key for key in new.keys}
    db.executemany("DELETE FROM key WHERE channel = ? AND frame = ?", [(row, frame) for frame in before if frame not in after])
    for frame, key in after.items():
        if frame not in before:
            _insert_key(db, row, key)
        elif before[frame] != key:
            db.execute("UPDATE key SET value = ?, ease = ? WHERE channel = ? AND frame = ?", (key.value, _ease(key), row, frame))


def _insert_object(db: sqlite3.Connection, scene_id: str, thing: SceneObject, position: int) -> None:
    row = db.execute(
        f"INSERT INTO object (scene, id, {', '.join(_OBJECT_COLUMNS)}) VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
        (scene_id, thing.id, *_object_values(thing, position)),
    ).lastrowid
    assert row is not None
    for name, channel in thing.channels.items():
        _insert_channel(db, row, name, channel)


def _insert_channel(db: sqlite3.Connection, object_row: int, name: str, channel: Channel) -> None:
    row = db.execute(
        f"INSERT INTO channel (object, name, {', '.join(_CHANNEL_COLUMNS)}) VALUES (?, ?, ?, ?, ?, ?, ?)",
        (object_row, name, *_channel_values(channel)),
    ).lastrowid
    assert row is not None
    for key in channel.keys:
        _insert_key(db, row, key)


def _insert_key(db: sqlite3.Connection, channel_row: int, key: Key) -> None:
    db.execute("INSERT INTO key (channel, frame, value, ease) VALUES (?, ?, ?, ?)", (channel_row, key.frame, key.value, _ease(key)))


def _delete_object(db: sqlite3.Connection, scene_id: str, object_id: str) -> None:
    (row,) = db.execute("SELECT row FROM object WHERE scene = ? AND id = ?", (scene_id, object_id)).fetchone()
    for (channel,) in db.execute("SELECT row FROM channel WHERE object = ?", (row,)).fetchall():
        _delete_channel(db, channel)
    db.execute("DELETE FROM object WHERE row = ?", (row,))


def _delete_channel(db: sqlite3.Connection, row: int) -> None:
    db.execute("DELETE FROM key WHERE channel = ?", (row,))
    db.execute("DELETE FROM channel WHERE row = ?", (row,))


def _channel_row(db: sqlite3.Connection, object_row: int, name: str) -> int:
    row: int = db.execute("SELECT row FROM channel WHERE object = ? AND name = ?", (object_row, name)).fetchone()[0]
    return row


_OBJECT_COLUMNS = ("position", "name", "kind", "parent", "shown", "shape")
_CHANNEL_COLUMNS = ("base", "before_mode", "before_times", "after_mode", "after_times")


def _scene_values(scene: Scene) -> tuple[Any, ...]:
    return scene.name, scene.fps, scene.length, *scene.size, scene.background


def _object_values(thing: SceneObject, position: int) -> tuple[Any, ...]:
    shape = None if isinstance(thing, GroupObject) else thing.shape.model_dump_json()
    return position, thing.name, thing.kind, thing.parent, int(thing.shown), shape


def _channel_values(channel: Channel) -> tuple[Any, ...]:
    return channel.base, channel.before.mode, channel.before.times, channel.after.mode, channel.after.times


def _ease(key: Key) -> str:
    return _EASE.dump_json(key.ease).decode()


def _assignments(columns: tuple[str, ...]) -> str:
    return ", ".join(f"{column} = ?" for column in columns)
