"""Scenes to rows: whole new ones, and only what differs between two versions of one.

Objects, rules, dials, cues and channels are lists of parts with an id; each is compared with its counterpart, and parts that both versions share are
not looked at. A scene inside another is a row of `scene` too, with what is in it like that of any other.
"""

import json
import sqlite3
from collections.abc import Callable, Iterable, Mapping, Sequence
from itertools import chain
from typing import Any

from vine_swing.motion.rules.rule import Rule
from vine_swing.motion.scene.cues import Cue
from vine_swing.motion.scene.dial import DIAL_CHANNEL, Dial
from vine_swing.motion.scene.kept import KeptPicture, OwnFont
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.sounds import KeptSound
from vine_swing.motion.scene.timeline import InnerScene, Timeline
from vine_swing.motion.timing.channel import Channel, Key
from vine_swing.store.rows.files import kept_blob
from vine_swing.store.rows.keys import KEY, PLAIN, is_plain, key_values, plain_values
from vine_swing.store.rows.tables import CHANNEL, CUE, DIAL, OBJECT, RULE, SOUND, TIMELINE, Table

#: Keys inserted by one statement.
_KEYS_AT_ONCE = 40


def insert(db: sqlite3.Connection, scene_id: str, scene: Scene, now: str) -> None:
    """Write a whole new scene."""
    values = (*TIMELINE.values(scene), json.dumps(scene.palette))
    _insert(db, "scene", ("id", *TIMELINE.names, "palette", "made", "changed"), (scene_id, *values, now, now))
    _insert_parts(db, scene_id, scene)
    for position, font in enumerate(scene.fonts):
        _insert_font(db, scene_id, font, position)
    for position, picture in enumerate(scene.pictures):
        _insert_picture(db, scene_id, picture, position)
    for position, sound in enumerate(scene.sounds):
        _insert_sound(db, scene_id, sound, position)
    for position, inner in enumerate(scene.insets):
        _insert_inner(db, scene_id, inner, position)


def _insert_parts(db: sqlite3.Connection, scene_id: str, timeline: Timeline) -> None:
    for position, thing in enumerate(timeline.objects):
        _insert_object(db, scene_id, thing, position)
    for position, dial in enumerate(timeline.dials):
        _insert_dial(db, scene_id, dial, position)
    for position, cue in enumerate(timeline.cues):
        _insert_cue(db, scene_id, cue, position)


def _insert_inner(db: sqlite3.Connection, scene_id: str, inner: InnerScene, position: int) -> None:
    row = _inner_id(scene_id, inner.id)
    _insert(db, "scene", ("id", "within", "part", "position", *TIMELINE.names), (row, scene_id, inner.id, position, *TIMELINE.values(inner)))
    _insert_parts(db, row, inner)


def _inner_id(scene_id: str, inset_id: str) -> str:
    """The id of the row of a scene inside another: ids that scenes get by themselves have no stroke."""
    return f"{scene_id}/{inset_id}"


def write_difference(db: sqlite3.Connection, scene_id: str, before: Scene, after: Scene) -> None:
    """Write what differs between two versions of a scene."""
    if before.palette != after.palette:
        _update(db, "scene", ("palette",), (json.dumps(after.palette),), "id", scene_id)
    _write_timeline(db, scene_id, before, after)
    for change, was, now in _changes(before.insets, after.insets):
        if change is None:
            _insert_inner(db, scene_id, *now)
            continue
        row = _inner_id(scene_id, change)
        _write_timeline(db, row, was[0], now[0] if now is not None else InnerScene(id=change))
        if now is None:
            db.execute("DELETE FROM scene WHERE id = ?", (row,))
        elif was[1] != now[1]:
            _update(db, "scene", ("position",), (now[1],), "id", row)
    _write_parts(db, "picture", scene_id, before.pictures, after.pictures, insert=_insert_picture, update=_update_picture)
    _write_parts(db, "sound", scene_id, before.sounds, after.sounds, insert=_insert_sound, update=_update_sound)
    _write_parts(db, "font", scene_id, before.fonts, after.fonts, insert=_insert_font, update=_update_font)


def _write_timeline(db: sqlite3.Connection, scene_id: str, before: Timeline, after: Timeline) -> None:
    """Write what differs between two versions of a row of `scene` and of what is in it."""
    _update_columns(db, TIMELINE, scene_id, (before,), (after,), by="id")
    _write_parts(db, "object", scene_id, before.objects, after.objects, insert=_insert_object, update=_update_object, delete=_delete_object)
    _write_parts(db, "dial", scene_id, before.dials, after.dials, insert=_insert_dial, update=_update_dial, delete=_delete_dial)
    _write_parts(db, "cue", scene_id, before.cues, after.cues, insert=_insert_cue, update=_update_cue)


def _write_parts(
    db: sqlite3.Connection,
    table: str,
    owner: str | int,
    before: Iterable[Any],
    after: Iterable[Any],
    *,
    insert: Callable[..., None],
    update: Callable[..., None],
    delete: Callable[[sqlite3.Connection, int], None] | None = None,
    within: str = "scene",
) -> None:
    """Write what differs between two lists of parts with a row each in one table.

    Args:
        owner: what the parts belong to, named by the column `within`.
        insert: writes a new part; takes (db, owner, part, position).
        update: writes what differs in one that both lists have; takes (db, row, (part, position) before, (part, position) after).
        delete: deletes the row of one that is missing, where others belong to that row.
    """
    for change, was, now in _changes(before, after):
        if change is None:
            insert(db, owner, *now)
            continue
        row = _row(db, table, within, owner, change)
        if now is not None:
            update(db, row, was, now)
        elif delete is not None:
            delete(db, row)
        else:
            db.execute(f"DELETE FROM {table} WHERE row = ?", (row,))


def _changes(before: Iterable[Any], after: Iterable[Any]) -> list[tuple[str | None, Any, Any]]:
    """Differences between two lists of parts: (id, (old, position), (new, position)); new parts come without an id,
    deleted ones without the new part."""
    if before is after:
        return []
    old = {part.id: (part, position) for position, part in enumerate(before)}
    new = {part.id: (part, position) for position, part in enumerate(after)}
    gone: list[tuple[str | None, Any, Any]] = [(i, was, None) for i, was in old.items() if i not in new]
    kept = [(i, old[i], now) for i, now in new.items() if i in old and (old[i][0] is not now[0] or old[i][1] != now[1])]
    return [*gone, *kept, *((None, None, now) for i, now in new.items() if i not in old)]


def _update_object(db: sqlite3.Connection, row: int, was: tuple[SceneObject, int], now: tuple[SceneObject, int]) -> None:
    _update_columns(db, OBJECT, row, was, now)
    _update_channels(db, "object", row, was[0].channels, now[0].channels)
    _write_parts(db, "rule", row, was[0].rules, now[0].rules, insert=_insert_rule, update=_update_rule, delete=_delete_rule, within="object")


def _update_rule(db: sqlite3.Connection, row: int, was: tuple[Rule, int], now: tuple[Rule, int]) -> None:
    _update_columns(db, RULE, row, was, now)
    _update_channels(db, "rule", row, _numbers(was[0]), _numbers(now[0]))


def _update_dial(db: sqlite3.Connection, row: int, was: tuple[Dial, int], now: tuple[Dial, int]) -> None:
    _update_columns(db, DIAL, row, was, now)
    _update_channels(db, "dial", row, {DIAL_CHANNEL: was[0].channel}, {DIAL_CHANNEL: now[0].channel})


def _update_cue(db: sqlite3.Connection, row: int, was: tuple[Cue, int], now: tuple[Cue, int]) -> None:
    _update_columns(db, CUE, row, was, now)


def _update_picture(db: sqlite3.Connection, row: int, _: tuple[KeptPicture, int], now: tuple[KeptPicture, int]) -> None:
    picture, position = now
    _update(db, "picture", ("position", "name"), (position, picture.name), "row", row)


def _update_sound(db: sqlite3.Connection, row: int, was: tuple[KeptSound, int], now: tuple[KeptSound, int]) -> None:
    _update_columns(db, SOUND, row, was, now)
    # Files are large: one is looked at again only where the sound has another.
    if was[0].file != now[0].file:
        _update(db, "sound", ("hash",), (kept_blob(db, "audio/*", now[0].content),), "row", row)


def _update_font(db: sqlite3.Connection, row: int, _: tuple[OwnFont, int], now: tuple[OwnFont, int]) -> None:
    font, position = now
    _update(db, "font", ("position", "name", "licence"), (position, font.name, font.licence), "row", row)


def _update_channels(db: sqlite3.Connection, owner: str, owner_row: int, before: Mapping[str, Channel], after: Mapping[str, Channel]) -> None:
    if before is after:
        return
    for name, channel in before.items():
        if name not in after:
            _delete_channel(db, _channel_row(db, owner, owner_row, name))
        elif after[name] is not channel:
            _update_channel(db, _channel_row(db, owner, owner_row, name), channel, after[name])
    for name, channel in after.items():
        if name not in before:
            _insert_channel(db, owner, owner_row, name, channel)


def _update_channel(db: sqlite3.Connection, row: int, old: Channel, new: Channel) -> None:
    _update_columns(db, CHANNEL, row, (old,), (new,))
    before = {key.frame: key for key in old.keys}
    after = {key.frame: key for key in new.keys}
    db.executemany("DELETE FROM key WHERE channel = ? AND frame = ?", [(row, frame) for frame in before if frame not in after])
    changed = [key for frame, key in after.items() if frame in before and before[frame] is not key and before[frame] != key]
    assignments = ", ".join(f"{column} = ?" for column in KEY)
    db.executemany(f"UPDATE key SET {assignments} WHERE channel = ? AND frame = ?", [(*key_values(k), row, k.frame) for k in changed])
    _insert_keys(db, row, [key for frame, key in after.items() if frame not in before])


def _numbers(rule: Rule) -> dict[str, Channel]:
    """The settings of a rule that have a channel of their own."""
    return {name: setting for name, setting in rule.settings.items() if isinstance(setting, Channel)}


def _insert_object(db: sqlite3.Connection, scene_id: str, thing: SceneObject, position: int) -> None:
    row = _insert(db, "object", ("scene", "id", *OBJECT.names), (scene_id, thing.id, *OBJECT.values(thing, position)))
    for name, channel in thing.channels.items():
        _insert_channel(db, "object", row, name, channel)
    for place, rule in enumerate(thing.rules):
        _insert_rule(db, row, rule, place)


def _insert_rule(db: sqlite3.Connection, object_row: int, rule: Rule, position: int) -> None:
    row = _insert(db, "rule", ("object", "id", *RULE.names), (object_row, rule.id, *RULE.values(rule, position)))
    for name, channel in _numbers(rule).items():
        _insert_channel(db, "rule", row, name, channel)


def _insert_dial(db: sqlite3.Connection, scene_id: str, dial: Dial, position: int) -> None:
    row = _insert(db, "dial", ("scene", "id", *DIAL.names), (scene_id, dial.id, *DIAL.values(dial, position)))
    _insert_channel(db, "dial", row, DIAL_CHANNEL, dial.channel)


def _insert_font(db: sqlite3.Connection, scene_id: str, font: OwnFont, position: int) -> None:
    digest = kept_blob(db, "font/sfnt", font.content)
    _insert(db, "font", ("scene", "id", "position", "name", "licence", "hash"), (scene_id, font.id, position, font.name, font.licence, digest))


def _insert_picture(db: sqlite3.Connection, scene_id: str, picture: KeptPicture, position: int) -> None:
    digest = kept_blob(db, "image/*", picture.content)
    columns = ("scene", "id", "position", "name", "width", "height", "hash")
    _insert(db, "picture", columns, (scene_id, picture.id, position, picture.name, picture.width, picture.height, digest))


def _insert_sound(db: sqlite3.Connection, scene_id: str, sound: KeptSound, position: int) -> None:
    digest = kept_blob(db, "audio/*", sound.content)
    _insert(db, "sound", ("scene", "id", "hash", *SOUND.names), (scene_id, sound.id, digest, *SOUND.values(sound, position)))


def _insert_cue(db: sqlite3.Connection, scene_id: str, cue: Cue, position: int) -> None:
    _insert(db, "cue", ("scene", "id", *CUE.names), (scene_id, cue.id, *CUE.values(cue, position)))


def _insert_channel(db: sqlite3.Connection, owner: str, owner_row: int, name: str, channel: Channel) -> None:
    row = _insert(db, "channel", (owner, "name", *CHANNEL.names), (owner_row, name, *CHANNEL.values(channel)))
    _insert_keys(db, row, channel.keys)


def _insert_keys(db: sqlite3.Connection, row: int, keys: Iterable[Key]) -> None:
    """Insert the keys of a channel. Plain keys bind a third as many values, which takes a third of the time."""
    plain, others = [], []
    for key in keys:
        if is_plain(key):
            plain.append((row, key.frame, *plain_values(key)))
        else:
            others.append((row, key.frame, *key_values(key)))
    _insert_key_rows(db, PLAIN, plain)
    _insert_key_rows(db, KEY, others)


def _insert_key_rows(db: sqlite3.Connection, columns: tuple[str, ...], rows: Sequence[tuple[Any, ...]]) -> None:
    """Insert rows of `key` with some of its columns after channel and frame, many with each statement: every statement also writes down which
    numbers of rows were given away."""
    names = ", ".join(("channel", "frame", *columns))
    a_row = f"({', '.join('?' * (len(columns) + 2))})"
    for first in range(0, len(rows), _KEYS_AT_ONCE):
        some = rows[first : first + _KEYS_AT_ONCE]
        db.execute(f"INSERT INTO key ({names}) VALUES {', '.join([a_row] * len(some))}", list(chain.from_iterable(some)))


def _delete_object(db: sqlite3.Connection, row: int) -> None:
    for (rule,) in db.execute("SELECT row FROM rule WHERE object = ?", (row,)).fetchall():
        _delete_rule(db, rule)
    _delete_with_channels(db, "object", row)


def _delete_rule(db: sqlite3.Connection, row: int) -> None:
    _delete_with_channels(db, "rule", row)


def _delete_dial(db: sqlite3.Connection, row: int) -> None:
    _delete_with_channels(db, "dial", row)


def _delete_with_channels(db: sqlite3.Connection, owner: str, row: int) -> None:
    for (channel,) in db.execute(f"SELECT row FROM channel WHERE {owner} = ?", (row,)).fetchall():
        _delete_channel(db, channel)
    db.execute(f"DELETE FROM {owner} WHERE row = ?", (row,))


def _delete_channel(db: sqlite3.Connection, row: int) -> None:
    db.execute("DELETE FROM key WHERE channel = ?", (row,))
    db.execute("DELETE FROM channel WHERE row = ?", (row,))


def _row(db: sqlite3.Connection, table: str, within: str, owner: str | int, part_id: str) -> int:
    row: int = db.execute(f"SELECT row FROM {table} WHERE {within} = ? AND id = ?", (owner, part_id)).fetchone()[0]
    return row


def _channel_row(db: sqlite3.Connection, owner: str, owner_row: int, name: str) -> int:
    row: int = db.execute(f"SELECT row FROM channel WHERE {owner} = ? AND name = ?", (owner_row, name)).fetchone()[0]
    return row


def _update_columns(db: sqlite3.Connection, table: Table, row: int | str, was: tuple[Any, ...], now: tuple[Any, ...], *, by: str = "row") -> None:
    """Write the columns of a part, told with its place if it is in a list, where one of them holds something else now."""
    values = table.values(*now)
    if table.values(*was) != values:
        _update(db, table.name, table.names, values, by, row)


def _insert(db: sqlite3.Connection, table: str, columns: tuple[str, ...], values: tuple[Any, ...]) -> int:
    row = db.execute(f"INSERT INTO {table} ({', '.join(columns)}) VALUES ({', '.join('?' * len(columns))})", values).lastrowid
    assert row is not None
    return row


def _update(db: sqlite3.Connection, table: str, columns: tuple[str, ...], values: tuple[Any, ...], by: str, key: str | int) -> None:
    db.execute(f"UPDATE {table} SET {', '.join(f'{column} = ?' for column in columns)} WHERE {by} = ?", (*values, key))
