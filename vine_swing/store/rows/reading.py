"""Rows to scenes."""

import base64
import json
import sqlite3
from collections import defaultdict
from typing import Any

from vine_swing.motion.basics.contents import PICTURE_FILES, SOUND_FILES
from vine_swing.motion.scene.dial import DIAL_CHANNEL
from vine_swing.motion.scene.kinds import CONTENT_COLUMNS
from vine_swing.motion.scene.model import Scene
from vine_swing.store.rows.columns import KEY, read_key

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
        channels[owner, row[owner]][row["name"]] = {
            "base": row["base"],
            "keys": keys[row["row"]],
            "before": {"mode": row["before_mode"], "times": row["before_times"]},
            "after": {"mode": row["after_mode"], "times": row["after_times"]},
            "formula": row["formula"],
        }
    return channels
