"""Rows to scenes."""

import base64
import json
import sqlite3
from collections import defaultdict
from typing import Any

from vine_swing.motion.basics.contents import PICTURE_FILES, SOUND_FILES
from vine_swing.motion.scene.dial import DIAL_CHANNEL
from vine_swing.motion.scene.model import Scene
from vine_swing.store.rows.keys import KEY, read_key
from vine_swing.store.rows.tables import CHANNEL, CUE, DIAL, OBJECT, RULE, SOUND, TIMELINE

_INSIDE = "SELECT * FROM scene WHERE within = ? ORDER BY position"


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
        PICTURE_FILES.keep(one["data"], checked=True)
        pictures.append({name: one[name] for name in ("id", "name", "width", "height")})
    sounds = []
    heard = "SELECT sound.*, blob.data FROM sound JOIN blob ON blob.hash = sound.hash WHERE scene = ? ORDER BY position"
    for one in db.execute(heard, (scene_id,)):
        sounds.append({"id": one["id"], "file": SOUND_FILES.keep(one["data"], checked=True)} | SOUND.data(one))
    insets = [{"id": one["part"]} | _read_timeline(db, one) for one in db.execute(_INSIDE, (scene_id,)).fetchall()]
    parts = {"fonts": fonts, "pictures": pictures, "sounds": sounds, "insets": insets, "palette": tuple(json.loads(row["palette"]))}
    return Scene.model_validate(_read_timeline(db, row) | parts)


def _read_timeline(db: sqlite3.Connection, row: sqlite3.Row) -> dict[str, Any]:
    """What a row of `scene` holds, for a whole scene or one inside another."""
    scene_id = row["id"]
    channels = _read_channels(db, scene_id)
    rules: dict[int, list[dict[str, Any]]] = defaultdict(list)
    for rule in db.execute("SELECT rule.* FROM rule JOIN object ON object.row = rule.object WHERE scene = ? ORDER BY rule.position", (scene_id,)):
        data = {"id": rule["id"]} | RULE.data(rule)
        data["settings"] |= channels["rule", rule["row"]]
        rules[rule["object"]].append(data)
    objects = [
        {"id": thing["id"], "channels": channels["object", thing["row"]], "rules": rules[thing["row"]]} | OBJECT.data(thing)
        for thing in db.execute("SELECT * FROM object WHERE scene = ? ORDER BY position, row", (scene_id,))
    ]
    dials = [
        {"id": dial["id"], "channel": channels["dial", dial["row"]][DIAL_CHANNEL]} | DIAL.data(dial)
        for dial in db.execute("SELECT * FROM dial WHERE scene = ? ORDER BY position", (scene_id,))
    ]
    cues = [{"id": cue["id"]} | CUE.data(cue) for cue in db.execute("SELECT * FROM cue WHERE scene = ? ORDER BY position", (scene_id,))]
    return TIMELINE.data(row) | {"objects": objects, "dials": dials, "cues": cues}


def _read_channels(db: sqlite3.Connection, scene_id: str) -> dict[tuple[str, int], dict[str, dict[str, Any]]]:
    """All channels of a scene by owner ("object", "rule" or "dial" and its row), then by name."""
    owned = (
        "SELECT row FROM channel WHERE object IN (SELECT row FROM object WHERE scene = :scene)"
        " OR rule IN (SELECT row FROM rule WHERE object IN (SELECT row FROM object WHERE scene = :scene))"
        " OR dial IN (SELECT row FROM dial WHERE scene = :scene)"
    )
    keys: dict[int, list[dict[str, Any]]] = defaultdict(list)
    columns = ", ".join(("channel", "frame", *KEY))
    for channel, frame, *key in db.execute(f"SELECT {columns} FROM key WHERE channel IN ({owned}) ORDER BY channel, frame", {"scene": scene_id}):
        keys[channel].append(read_key(frame, key))
    channels: dict[tuple[str, int], dict[str, dict[str, Any]]] = defaultdict(dict)
    for row in db.execute(f"SELECT * FROM channel WHERE row IN ({owned}) ORDER BY row", {"scene": scene_id}):
        owner = next(name for name in ("object", "rule", "dial") if row[name] is not None)
        channels[owner, row[owner]][row["name"]] = {"keys": keys[row["row"]]} | CHANNEL.data(row)
    return channels
