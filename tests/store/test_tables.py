"""The description of tables says every column there is, and reads back what it writes."""

import sqlite3
from contextlib import closing

import pytest

from tests.motion.scenes import channel, scene, shape
from vine_swing.motion.timing.channel import Channel
from vine_swing.store import SceneStore
from vine_swing.store.rows.keys import KEY, PLAIN, is_plain
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


@pytest.mark.parametrize("more", [{"in": (-3, 5)}, {"tension": 0.5}, {"out": (1, 2), "way": "spline"}, {"meets": (0, 1)}])
def test_keys_that_say_more_than_a_value_are_written_whole(more):
    (key,) = Channel.model_validate({"keys": [{"frame": 0, "value": 1.0, "ease": "hold"} | more]}).keys
    assert not is_plain(key)
    # What is removed of it again is still told, which does no harm.
    assert not is_plain(key.copy_with(out=None, into=None))


def test_a_plain_key_takes_the_same_row_as_one_that_says_everything(tmp_path):
    short = channel((0, 1.25, "hold"), (10, -2), (20, 1e-9, {"bezier": [0.1, 0.2, 0.3, 0.4]}))
    whole = Channel.model_validate(short.model_dump(by_alias=True))
    assert [all(map(is_plain, one.keys)) for one in (short, whole)] == [True, False]
    # A point and words take more than the plain columns.
    assert not any(is_plain(key) for one in (channel((0, (1, 2))), channel((0, {"text": "Mail!"}))) for key in one.keys)
    # Keys of both kinds are in one channel, in the order of their frames.
    mixed = channel((0, 1), (5, 2), (9, 3)).copy_with(keys=(short.keys[0], whole.keys[1], short.keys[2]))
    one = scene({"id": "moth", "name": "Moth", "kind": "shape", "shape": {"type": "ellipse"}})
    (thing,) = one.objects
    one = one.copy_with(objects=(thing.copy_with(channels={"x": short, "y": whole, "rotation": mixed}),))
    store = SceneStore(tmp_path / "kept.db")
    kept = store.load(store.create(one)).scene
    store.close()
    assert kept == one
    with closing(sqlite3.connect(tmp_path / "kept.db")) as db:
        found = db.execute(f"SELECT name, frame, {', '.join(KEY)} FROM key JOIN channel ON channel.row = key.channel ORDER BY frame").fetchall()
    rows = [{row[1:] for row in found if row[0] == name} for name in ("x", "y", "rotation")]
    assert len(rows[0]) == 3
    assert rows[0] == rows[1] == rows[2]
    assert {row[1 + len(PLAIN) :] for row in rows[0]} == {(None, None, None, None, 0.0, 0.0, 0.0, None, None, None)}
