"""Scenes ↔ rows: reading a scene, and writing down only what differs between two versions of it.

Objects, rules, dials, cues and channels are lists of parts with an id; each is compared with its counterpart, and parts that both
versions share are not looked at. A scene inside another is a row of `scene` too, with what is in it like that of any other.
"""

import base64
import hashlib
import json
import sqlite3
from collections import defaultdict
from collections.abc import Iterable, Mapping
from functools import lru_cache
from typing import Any

from pydantic import TypeAdapter

from vine_swing.motion.basics.contents import PICTURE_FILES, SOUND_FILES
from vine_swing.motion.rules.rule import Rule
from vine_swing.motion.scene.cues import Cue
from vine_swing.motion.scene.dial import DIAL_CHANNEL, Dial
from vine_swing.motion.scene.kept import KeptPicture, OwnFont
from vine_swing.motion.scene.kinds import CONTENT_COLUMNS, KINDS
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.shapes import LineStyle, Paints
from vine_swing.motion.scene.sounds import KeptSound
from vine_swing.motion.scene.timeline import InnerScene, Timeline
from vine_swing.motion.timing.channel import Channel, Key
from vine_swing.motion.timing.ease import Ease

_EASE: TypeAdapter[Ease] = TypeAdapter(Ease)
_TIMELINE = ("name", "fps", "length", "width", "height", "background", "blur", "hushed", "markers", "beat")
_INSIDE = "SELECT * FROM scene WHERE within = ? ORDER BY position"
_OBJECT = (
    *("position", "name", "kind", "parent", "shown", "first_frame", "last_frame", "bone", "pinned", "blurred", "blend", "line", "paints"),
    *("locked", "tag"),
    *CONTENT_COLUMNS,
)
_RULE = ("position", "kind", '"on"', "channels", "mode", "words")
_DIAL = ("position", "name", "unit", "low", "high", "follows")
_SOUND = ("position", "name", "seconds", "first_frame", "begins", "ends", '"on"', "gain", "dial")
_CUE = ("position", "name", "first_frame", "last_frame", "objects", "key", "click", "plays")
_CHANNEL = ("base", "before_mode", "before_times", "after_mode", "after_times", "formula")
_KEY = ("value", "ease", "out_frames", "out_value", "in_frames", "in_value", "tension", "continuity", "bias", "way", "value_y", "meets")


def read(db: sqlite3.Connection, scene_id: str) -> Scene | None:
    """The scene with this id, or None."""
    row = db.execute("SELECT * FROM scene WHERE id = ?", (scene_id,)).fetchone()
    if row is None:
        return None
    fonts = [
        {"id": font["id"], "name": font["name"], "licence": font["licence"], "data": base64.b64encode(font["data"]).decode()}
        for font in db.execute("SELECT font.*, blob.data FROM font JOIN blob ON blob.hash = font.hash WHERE scene = ? ORDER BY position", (scene_id,))
    ]
    pictures = []
    kept = "SELECT picture.*, blob.data FROM picture JOIN blob ON blob.hash = picture.hash WHERE scene = ? ORDER BY position"
    for one in db.execute(kept, (scene_id,)):
        PICTURE_FILES.keep(one["data"])
        pictures.append({name: one[name] for name in ("id", "name", "width", "height")})
    sounds = []
    heard = "SELECT sound.*, blob.data FROM sound JOIN blob ON blob.hash = sound.hash WHERE scene = ? ORDER BY position"
    for one in db.execute(heard, (scene_id,)):
        sound = {name: one[name] for name in ("id", "name", "seconds", "gain", "dial")} | {"file": SOUND_FILES.keep(one["data"])}
        sounds.append(sound | {"first": one["first_frame"], "begin": one["begins"], "end": one["ends"], "on": bool(one["on"])})
    insets = [{"id": one["part"]} | _read_timeline(db, one) for one in db.execute(_INSIDE, (scene_id,)).fetchall()]
    parts = {"fonts": fonts, "pictures": pictures, "sounds": sounds, "insets": insets, "palette": tuple(json.loads(row["palette"]))}
    return Scene.model_validate(_read_timeline(db, row) | parts)


def _read_timeline(db: sqlite3.Connection, row: sqlite3.Row) -> dict[str, Any]:
    """What a row of `scene` holds, for a whole scene or one inside another."""
    scene_id = row["id"]
    channels = _read_channels(db, scene_id)
    rules: dict[int, list[dict[str, Any]]] = defaultdict(list)
    for rule in db.execute("SELECT rule.* FROM rule JOIN object ON object.row = rule.object WHERE scene = ? ORDER BY rule.position", (scene_id,)):
        rules[rule["object"]].append(
            {"id": rule["id"], "kind": rule["kind"], "on": bool(rule["on"]), "mode": rule["mode"]}
            | {"channels": json.loads(rule["channels"]), "settings": json.loads(rule["words"]) | channels["rule", rule["row"]]}
        )
    objects = []
    for thing in db.execute("SELECT * FROM object WHERE scene = ? ORDER BY position, row", (scene_id,)):
        data = {"id": thing["id"], "name": thing["name"], "kind": thing["kind"], "parent": thing["parent"], "shown": bool(thing["shown"])}
        data["span"] = {"first": thing["first_frame"], "last": thing["last_frame"]}
        data |= {"channels": channels["object", thing["row"]], "rules": rules[thing["row"]]}
        data |= {"bone": thing["bone"], "pinned": bool(thing["pinned"]), "blurred": thing["blurred"] != 0}
        data |= {"locked": bool(thing["locked"]), "tag": thing["tag"]}
        data |= {"blend": thing["blend"]} if thing["blend"] is not None else {}
        data |= {"line": json.loads(thing["line"])} if thing["line"] is not None else {}
        data |= {"paints": json.loads(thing["paints"])} if thing["paints"] is not None else {}
        for column in CONTENT_COLUMNS:
            if thing[column] is not None:
                data[column] = json.loads(thing[column])
        objects.append(data)
    dials = [
        {name: dial[name] for name in ("id", "name", "unit", "low", "high")}
        | {"channel": channels["dial", dial["row"]][DIAL_CHANNEL], "follows": json.loads(dial["follows"] or "null")}
        for dial in db.execute("SELECT * FROM dial WHERE scene = ? ORDER BY position", (scene_id,))
    ]
    cues = [
        {name: cue[name] for name in ("id", "name", "key", "click", "plays")}
        | {"first": cue["first_frame"], "last": cue["last_frame"], "objects": json.loads(cue["objects"])}
        for cue in db.execute("SELECT * FROM cue WHERE scene = ? ORDER BY position", (scene_id,))
    ]
    head = {name: row[name] for name in ("name", "fps", "length", "background")} | {"size": (row["width"], row["height"])}
    head["blur"] = json.loads(row["blur"]) if row["blur"] is not None else None
    head["hushed"] = tuple(json.loads(row["hushed"] or "[]"))
    head |= {"markers": tuple(json.loads(row["markers"] or "[]")), "beat": json.loads(row["beat"] or "null")}
    return head | {"objects": objects, "dials": dials, "cues": cues}


def insert(db: sqlite3.Connection, scene_id: str, scene: Scene, now: str) -> None:
    """Write a whole new scene."""
    values = (*_timeline_values(scene), json.dumps(scene.palette))
    _insert(db, "scene", ("id", *_TIMELINE, "palette", "made", "changed"), (scene_id, *values, now, now))
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
    _insert(db, "scene", ("id", "within", "part", "position", *_TIMELINE), (row, scene_id, inner.id, position, *_timeline_values(inner)))
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
    for change, _, now in _changes(before.pictures, after.pictures):
        if change is None:
            _insert_picture(db, scene_id, *now)
        elif now is None:
            db.execute("DELETE FROM picture WHERE scene = ? AND id = ?", (scene_id, change))
        else:
            _update(db, "picture", ("position", "name"), (now[1], now[0].name), "row", _row(db, "picture", "scene", scene_id, change))
    for change, was, now in _changes(before.sounds, after.sounds):
        if change is None:
            _insert_sound(db, scene_id, *now)
        elif now is None:
            db.execute("DELETE FROM sound WHERE scene = ? AND id = ?", (scene_id, change))
        else:
            at = _row(db, "sound", "scene", scene_id, change)
            _update(db, "sound", _SOUND, _sound_values(*now), "row", at)
            # Files are large: one is looked at again only where the sound has another.
            if was[0].file != now[0].file:
                _update(db, "sound", ("hash",), (kept_blob(db, "audio/*", now[0].content),), "row", at)
    for change, _, now in _changes(before.fonts, after.fonts):
        if change is None:
            _insert_font(db, scene_id, *now)
        elif now is None:
            db.execute("DELETE FROM font WHERE scene = ? AND id = ?", (scene_id, change))
        else:
            values = (now[1], now[0].name, now[0].licence)
            _update(db, "font", ("position", "name", "licence"), values, "row", _row(db, "font", "scene", scene_id, change))


def _write_timeline(db: sqlite3.Connection, scene_id: str, before: Timeline, after: Timeline) -> None:
    """Write what differs between two versions of a row of `scene` and of what is in it."""
    if _timeline_values(before) != _timeline_values(after):
        _update(db, "scene", _TIMELINE, _timeline_values(after), "id", scene_id)
    for change, was, now in _changes(before.objects, after.objects):
        if change is None:
            _insert_object(db, scene_id, *now)
        elif now is None:
            _delete_object(db, _row(db, "object", "scene", scene_id, change))
        else:
            _update_object(db, _row(db, "object", "scene", scene_id, change), was, now)
    for change, was, now in _changes(before.dials, after.dials):
        if change is None:
            _insert_dial(db, scene_id, *now)
            continue
        row = _row(db, "dial", "scene", scene_id, change)
        if now is None:
            _delete_with_channels(db, "dial", row)
        else:
            if _dial_values(*was) != _dial_values(*now):
                _update(db, "dial", _DIAL, _dial_values(*now), "row", row)
            _update_channels(db, "dial", row, {DIAL_CHANNEL: was[0].channel}, {DIAL_CHANNEL: now[0].channel})
    for change, was, now in _changes(before.cues, after.cues):
        if change is None:
            _insert_cue(db, scene_id, *now)
        elif now is None:
            db.execute("DELETE FROM cue WHERE scene = ? AND id = ?", (scene_id, change))
        elif _cue_values(*was) != _cue_values(*now):
            _update(db, "cue", _CUE, _cue_values(*now), "row", _row(db, "cue", "scene", scene_id, change))


def _changes(before: Iterable[Any], after: Iterable[Any]) -> list[tuple[str | None, Any, Any]]:
    """What differs between two lists of parts: (id, (old, position), (new, position)); new parts come without an id,
    deleted ones without the new part."""
    if before is after:
        return []
    old = {part.id: (part, position) for position, part in enumerate(before)}
    new = {part.id: (part, position) for position, part in enumerate(after)}
    gone: list[tuple[str | None, Any, Any]] = [(i, was, None) for i, was in old.items() if i not in new]
    kept = [(i, old[i], now) for i, now in new.items() if i in old and (old[i][0] is not now[0] or old[i][1] != now[1])]
    return [*gone, *kept, *((None, None, now) for i, now in new.items() if i not in old)]


def _update_object(db: sqlite3.Connection, row: int, was: tuple[SceneObject, int], now: tuple[SceneObject, int]) -> None:
    if _object_values(*was) != _object_values(*now):
        _update(db, "object", _OBJECT, _object_values(*now), "row", row)
    _update_channels(db, "object", row, was[0].channels, now[0].channels)
    for change, rule_was, rule_now in _changes(was[0].rules, now[0].rules):
        if change is None:
            _insert_rule(db, row, *rule_now)
            continue
        rule_row = _row(db, "rule", "object", row, change)
        if rule_now is None:
            _delete_with_channels(db, "rule", rule_row)
        else:
            if _rule_values(*rule_was) != _rule_values(*rule_now):
                _update(db, "rule", _RULE, _rule_values(*rule_now), "row", rule_row)
            _update_channels(db, "rule", rule_row, _numbers(rule_was[0]), _numbers(rule_now[0]))


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
    if _channel_values(old) != _channel_values(new):
        _update(db, "channel", _CHANNEL, _channel_values(new), "row", row)
    before = {key.frame: key for key in old.keys}
    after = {key.frame: key for key in new.keys}
    db.executemany("DELETE FROM key WHERE channel = ? AND frame = ?", [(row, frame) for frame in before if frame not in after])
    changed = [key for frame, key in after.items() if frame in before and before[frame] is not key and before[frame] != key]
    assignments = ", ".join(f"{column} = ?" for column in _KEY)
    db.executemany(f"UPDATE key SET {assignments} WHERE channel = ? AND frame = ?", [(*_key_values(k), row, k.frame) for k in changed])
    _insert_keys(db, row, [key for frame, key in after.items() if frame not in before])


def _insert_object(db: sqlite3.Connection, scene_id: str, thing: SceneObject, position: int) -> None:
    row = _insert(db, "object", ("scene", "id", *_OBJECT), (scene_id, thing.id, *_object_values(thing, position)))
    for name, channel in thing.channels.items():
        _insert_channel(db, "object", row, name, channel)
    for place, rule in enumerate(thing.rules):
        _insert_rule(db, row, rule, place)


def _insert_rule(db: sqlite3.Connection, object_row: int, rule: Rule, position: int) -> None:
    row = _insert(db, "rule", ("object", "id", *_RULE), (object_row, rule.id, *_rule_values(rule, position)))
    for name, channel in _numbers(rule).items():
        _insert_channel(db, "rule", row, name, channel)


def _insert_dial(db: sqlite3.Connection, scene_id: str, dial: Dial, position: int) -> None:
    row = _insert(db, "dial", ("scene", "id", *_DIAL), (scene_id, dial.id, *_dial_values(dial, position)))
    _insert_channel(db, "dial", row, DIAL_CHANNEL, dial.channel)


def kept_blob(db: sqlite3.Connection, media_type: str, content: bytes) -> str:
    """Keep a content, once whoever uses it, and give the SHA-256 it is found by."""
    digest = hashlib.sha256(content).hexdigest()
    db.execute("INSERT OR IGNORE INTO blob (hash, media_type, data) VALUES (?, ?, ?)", (digest, media_type, content))
    return digest


def _insert_font(db: sqlite3.Connection, scene_id: str, font: OwnFont, position: int) -> None:
    digest = kept_blob(db, "font/sfnt", font.content)
    _insert(db, "font", ("scene", "id", "position", "name", "licence", "hash"), (scene_id, font.id, position, font.name, font.licence, digest))


def _insert_picture(db: sqlite3.Connection, scene_id: str, picture: KeptPicture, position: int) -> None:
    digest = kept_blob(db, "image/*", picture.content)
    columns = ("scene", "id", "position", "name", "width", "height", "hash")
    _insert(db, "picture", columns, (scene_id, picture.id, position, picture.name, picture.width, picture.height, digest))


def _insert_sound(db: sqlite3.Connection, scene_id: str, sound: KeptSound, position: int) -> None:
    digest = kept_blob(db, "audio/*", sound.content)
    _insert(db, "sound", ("scene", "id", "hash", *_SOUND), (scene_id, sound.id, digest, *_sound_values(sound, position)))


def _sound_values(sound: KeptSound, position: int) -> tuple[Any, ...]:
    return position, sound.name, sound.seconds, sound.first, sound.begin, sound.end, int(sound.on), sound.gain, sound.dial


def _insert_cue(db: sqlite3.Connection, scene_id: str, cue: Cue, position: int) -> None:
    _insert(db, "cue", ("scene", "id", *_CUE), (scene_id, cue.id, *_cue_values(cue, position)))


def _insert_channel(db: sqlite3.Connection, owner: str, owner_row: int, name: str, channel: Channel) -> None:
    row = _insert(db, "channel", (owner, "name", *_CHANNEL), (owner_row, name, *_channel_values(channel)))
    _insert_keys(db, row, channel.keys)


def _insert_keys(db: sqlite3.Connection, row: int, keys: Iterable[Key]) -> None:
    places = ", ".join("?" * (len(_KEY) + 2))
    db.executemany(f"INSERT INTO key (channel, frame, {', '.join(_KEY)}) VALUES ({places})", [(row, k.frame, *_key_values(k)) for k in keys])


def _delete_object(db: sqlite3.Connection, row: int) -> None:
    for (rule,) in db.execute("SELECT row FROM rule WHERE object = ?", (row,)).fetchall():
        _delete_with_channels(db, "rule", rule)
    _delete_with_channels(db, "object", row)


def _delete_with_channels(db: sqlite3.Connection, owner: str, row: int) -> None:
    for (channel,) in db.execute(f"SELECT row FROM channel WHERE {owner} = ?", (row,)).fetchall():
        _delete_channel(db, channel)
    db.execute(f"DELETE FROM {owner} WHERE row = ?", (row,))


def _delete_channel(db: sqlite3.Connection, row: int) -> None:
    db.execute("DELETE FROM key WHERE channel = ?", (row,))
    db.execute("DELETE FROM channel WHERE row = ?", (row,))


def _read_channels(db: sqlite3.Connection, scene_id: str) -> dict[tuple[str, int], dict[str, dict[str, Any]]]:
    """All channels of a scene by owner ("object", "rule" or "dial" and its row), then by name."""
    owned = (
        "SELECT row FROM channel WHERE object IN (SELECT row FROM object WHERE scene = :scene)"
        " OR rule IN (SELECT row FROM rule WHERE object IN (SELECT row FROM object WHERE scene = :scene))"
        " OR dial IN (SELECT row FROM dial WHERE scene = :scene)"
    )
    keys: dict[int, list[dict[str, Any]]] = defaultdict(list)
    for key in db.execute(f"SELECT * FROM key WHERE channel IN ({owned}) ORDER BY channel, frame", {"scene": scene_id}):
        keys[key["channel"]].append(_read_key(key))
    channels: dict[tuple[str, int], dict[str, dict[str, Any]]] = defaultdict(dict)
    for row in db.execute(f"SELECT * FROM channel WHERE row IN ({owned}) ORDER BY row", {"scene": scene_id}):
        owner = next(name for name in ("object", "rule", "dial") if row[name] is not None)
        channels[owner, row[owner]][row["name"]] = {
            "base": row["base"],
            "keys": keys[row["row"]],
            "before": {"mode": row["before_mode"], "times": row["before_times"]},
            "after": {"mode": row["after_mode"], "times": row["after_times"]},
            "formula": row["formula"],
        }
    return channels


def _row(db: sqlite3.Connection, table: str, within: str, owner: str | int, part_id: str) -> int:
    row: int = db.execute(f"SELECT row FROM {table} WHERE {within} = ? AND id = ?", (owner, part_id)).fetchone()[0]
    return row


def _channel_row(db: sqlite3.Connection, owner: str, owner_row: int, name: str) -> int:
    row: int = db.execute(f"SELECT row FROM channel WHERE {owner} = ? AND name = ?", (owner_row, name)).fetchone()[0]
    return row


def _insert(db: sqlite3.Connection, table: str, columns: tuple[str, ...], values: tuple[Any, ...]) -> int:
    row = db.execute(f"INSERT INTO {table} ({', '.join(columns)}) VALUES ({', '.join('?' * len(columns))})", values).lastrowid
    assert row is not None
    return row


def _update(db: sqlite3.Connection, table: str, columns: tuple[str, ...], values: tuple[Any, ...], by: str, key: str | int) -> None:
    db.execute(f"UPDATE {table} SET {', '.join(f'{column} = ?' for column in columns)} WHERE {by} = ?", (*values, key))


def _timeline_values(scene: Timeline) -> tuple[Any, ...]:
    blur = scene.blur.model_dump_json() if scene.blur is not None else None
    hushed = json.dumps([one.model_dump() for one in scene.hushed]) if scene.hushed else None
    markers = json.dumps([one.model_dump() for one in scene.markers]) if scene.markers else None
    beat = scene.beat.model_dump_json() if scene.beat is not None else None
    return scene.name, scene.fps, scene.length, *scene.size, scene.background, blur, hushed, markers, beat


def _object_values(thing: SceneObject, position: int) -> tuple[Any, ...]:
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


def _rule_values(rule: Rule, position: int) -> tuple[Any, ...]:
    words = {name: setting for name, setting in rule.settings.items() if isinstance(setting, str)}
    return position, rule.kind, int(rule.on), json.dumps(rule.channels), rule.mode, json.dumps(words)


def _dial_values(dial: Dial, position: int) -> tuple[Any, ...]:
    follows = dial.follows.model_dump_json() if dial.follows is not None else None
    return position, dial.name, dial.unit, dial.low, dial.high, follows


def _cue_values(cue: Cue, position: int) -> tuple[Any, ...]:
    return position, cue.name, cue.first, cue.last, json.dumps(cue.objects), cue.key, cue.click, cue.plays


def _channel_values(channel: Channel) -> tuple[Any, ...]:
    return channel.base, channel.before.mode, channel.before.times, channel.after.mode, channel.after.times, channel.formula


def _numbers(rule: Rule) -> dict[str, Channel]:
    return {name: setting for name, setting in rule.settings.items() if isinstance(setting, Channel)}


def _read_key(row: sqlite3.Row) -> dict[str, Any]:
    key = {name: row[name] for name in ("frame", "value", "tension", "continuity", "bias", "way")}
    for name, handle in (("out", (row["out_frames"], row["out_value"])), ("in", (row["in_frames"], row["in_value"]))):
        key[name] = None if handle[0] is None else handle
    if row["value_y"] is not None:
        key["value"] = (row["value"], row["value_y"])
    if row["meets"] is not None:
        key["meets"] = tuple(json.loads(row["meets"]))
    return key | {"ease": _ease_data(row["ease"])}


#: Thousands of keys share a few eases.
@lru_cache(maxsize=4096)
def _ease_text(ease: Ease) -> str:
    return _EASE.dump_json(ease).decode()


@lru_cache(maxsize=4096)
def _ease_data(text: str) -> Any:
    return json.loads(text)


def _key_values(key: Key) -> tuple[Any, ...]:
    ease = _ease_text(key.ease)
    # A point takes two columns; whatever else a key holds takes the first.
    value, y = key.value if isinstance(key.value, tuple) else (key.value, None)
    meets = None if key.meets is None else json.dumps(key.meets)
    return value, ease, *(key.out or (None, None)), *(key.into or (None, None)), key.tension, key.continuity, key.bias, key.way, y, meets
