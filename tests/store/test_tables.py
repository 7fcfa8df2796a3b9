"""The description of tables says every column there is, and reads back what it writes."""

import sqlite3
from contextlib import closing

import pytest

from tests.motion.scenes import channel, scene, shape
from vine_swing.store import SceneStore
from vine_swing.store.rows.tables import CHANNEL, CUE, DIAL, OBJECT, RULE, SOUND, TIMELINE

#: What rows have besides: what they are called, what they belong to, and what is written by other means.
BESIDES = {
    "scene": {"id", "palette", "made", "changed", "deleted", "revision", "within", "part", "position"},
    "object": {"row", "scene", "id"},
    "rule": {"row", "object", "id"},
    "dial": {"row", "scene", "id"},
    "sound": {"row", "scene", "id", "hash"},
    "cue": {"row", "scene", "id"},
    "channel": {"row", "object", "rule", "dial", "name"},
}
TABLES = {"scene": TIMELINE, "object": OBJECT, "rule": RULE, "dial": DIAL, "sound": SOUND, "cue": CUE, "channel": CHANNEL}


@pytest.mark.parametrize("name", TABLES)
def test_every_column_is_told_once(name, tmp_path):
    path = tmp_path / "kept.db"
    SceneStore(path).close()
    with closing(sqlite3.connect(path)) as db:
        columns = [row[1] for row in db.execute(f"PRAGMA table_info({name})")]
    told = [one.strip('"') for one in TABLES[name].names]
    assert sorted(told) == sorted(set(columns) - BESIDES[name])


def test_what_is_as_by_default_takes_no_room():
    (thing,) = scene(shape("moth")).objects
    row = dict(zip((one.strip('"') for one in OBJECT.names), OBJECT.values(thing, 3), strict=True))
    assert row["position"] == 3
    assert (row["line"], row["paints"], row["tag"], row["picture"]) == (None, None, None, None)
    assert "line" not in OBJECT.data(row)
    assert OBJECT.data(row)["span"] == {"first": None, "last": None}


def test_a_channel_is_read_back_as_it_was_written():
    one = channel((0, 1), (10, 2), before="climb", after=("loop", 3))
    row = dict(zip((name.strip('"') for name in CHANNEL.names), CHANNEL.values(one), strict=True))
    read = type(one).model_validate(CHANNEL.data(row) | {"keys": one.keys})
    assert read == one
