"""The data file: opened from every schema that ever landed, refused where it is not ours, and never shared by two servers."""

import os
import sqlite3
import stat
import subprocess
import sys
from pathlib import Path

import pytest

from tests.motion.scenes import EXAMPLE, scene, shape
from tests.store.test_store import EDITS
from vine_swing.motion.edits import apply_all
from vine_swing.motion.scene.scene_file import from_data
from vine_swing.store import SceneStore, StoreBusy, StoreError, StoreFull, schema

SCHEMAS = sorted((Path(__file__).parent / "schemas").glob("*.sql"))
KEY = {"edit": "set-key", "object": "mango", "channel": "x", "frame": 9, "value": 0.1}


def save(store, scene_id, *edits):
    now = store.load(scene_id)
    return store.save(scene_id, now.scene, apply_all(now.scene, EDITS.validate_python(list(edits))), label="step", revision=now.revision)


def written(path, text):
    db = sqlite3.connect(path)
    db.executescript(text)
    db.close()


@pytest.mark.parametrize("schema", SCHEMAS, ids=lambda path: path.stem)
def test_a_file_of_every_landed_schema_opens_with_its_history(tmp_path, schema):
    written(tmp_path / "old.db", schema.read_text(encoding="utf-8"))
    store = SceneStore(tmp_path / "old.db")
    (line,) = store.summaries()
    now = store.load(line.id)
    assert [key.frame for key in now.scene.objects[0].channels["x"].keys] == [0, 24]
    assert now.scene.objects[0].name == "Papaya"
    redone = store.redo(line.id, revision=now.revision)
    assert [key.value for key in redone.scene.objects[0].channels["y"].keys] == [7]
    for _ in range(4):
        now = store.undo(line.id, revision=store.load(line.id).revision)
    assert now.history.undo is None
    assert now.scene.objects[0].name == "Mango"
    assert [key.frame for key in now.scene.objects[0].channels["x"].keys] == [0, 24]
    # What was done before the new schema can be done again after it.
    for _ in range(4):
        now = store.redo(line.id, revision=store.load(line.id).revision)
    assert now.scene == redone.scene
    store.close()


def test_a_step_from_before_a_column_came_is_taken_back_with_its_default(tmp_path):
    """What a step of schema 8 kept of a scene knows nothing of its colours, which must not be missing."""
    text = (Path(__file__).parent / "schemas" / "schema-8.sql").read_text(encoding="utf-8")
    written(tmp_path / "old.db", text)
    db = sqlite3.connect(tmp_path / "old.db")
    (scene_id,) = db.execute("SELECT id FROM scene").fetchone()
    db.execute("INSERT INTO step (id, scene, kind, label) VALUES (90, ?, 'undo', 'rename')", (scene_id,))
    db.execute("INSERT INTO inverse (id, step, action, part_of, part) VALUES (900, 90, 'update', 'scene', ?)", (scene_id,))
    columns = "id, name, fps, length, width, height, background"
    db.execute(f"INSERT INTO scene_before (inverse, {columns}) SELECT 900, {columns.replace('name', quoted('Before'))} FROM scene")
    db.commit()
    db.close()
    store = SceneStore(tmp_path / "old.db")
    undone = store.undo(scene_id, revision=store.load(scene_id).revision)
    assert undone.scene.name == "Before"
    assert undone.scene.palette == ()
    store.close()


def quoted(text):
    return f"'{text}'"


def test_numbers_that_old_steps_ask_for_are_not_given_away(tmp_path):
    written(tmp_path / "old.db", (Path(__file__).parent / "schemas" / "schema-5.sql").read_text(encoding="utf-8"))
    store = SceneStore(tmp_path / "old.db")
    (line,) = store.summaries()
    # The key that undo will put back has a row number that is free now: another scene must not get it.
    store.create(from_data(EXAMPLE))
    for _ in range(3):
        now = store.undo(line.id, revision=store.load(line.id).revision)
    assert now.history.undo is None
    store.close()


@pytest.mark.parametrize("last", range(1, len(schema._scripts("migrations")) + 1))
def test_a_failing_migration_changes_nothing(tmp_path, monkeypatch, last):
    path = tmp_path / "old.db"
    written(path, (Path(__file__).parent / "schemas" / "schema-1a.sql").read_text(encoding="utf-8"))

    def dumped():
        db = sqlite3.connect(path)
        lines = list(db.iterdump()), db.execute("PRAGMA user_version").fetchone()
        db.close()
        return lines

    before, scripts = dumped(), schema._scripts
    broken = {"migrations": [*scripts("migrations")[:last], "SELECT * FROM no_such_table;"], "repairs": scripts("repairs")}
    monkeypatch.setattr(schema, "_scripts", broken.get)
    with pytest.raises(StoreError, match="no such table: no_such_table"):
        SceneStore(path)
    assert dumped() == before
    monkeypatch.undo()
    SceneStore(path).close()


def test_undo_in_one_scene_whatever_was_done_in_another(tmp_path):
    store = SceneStore(tmp_path / "kept.db")
    first, second = store.create(from_data(EXAMPLE)), store.create(from_data(EXAMPLE))
    wanted = save(store, first, KEY).scene
    save(store, first, {"edit": "delete-keys", "object": "mango", "channel": "x", "frames": [9]})
    # The row that the deletion freed must not go to the other scene.
    other = save(store, second, KEY).scene
    assert store.undo(first, revision=2).scene == wanted
    assert store.load(second).scene == other
    store.close()


def test_undo_keeps_every_bit_and_every_character(tmp_path):
    store = SceneStore(tmp_path / "kept.db")
    odd = [0.1 + 0.2, 5e-324, -0.0, 1 / 3, 123456789.12345679, -1e9]
    keys = [{"frame": n + 1 / 3, "value": value, "ease": {"bezier": [0.1, 1 / 3, 0.7, -5e-324]}} for n, value in enumerate(odd)]
    one = scene(shape("a", name="quote ' \" \u2028 é", x={"keys": keys}))
    scene_id = store.create(one)
    save(store, scene_id, {"edit": "delete-keys", "object": "a", "channel": "x", "frames": [key["frame"] for key in keys]})
    after = store.undo(scene_id, revision=1).scene
    assert after == one
    assert [key.value.hex() for key in after.objects[0].channels["x"].keys] == [value.hex() for value in odd]
    store.close()


def test_one_server_a_folder(tmp_path):
    store = SceneStore(tmp_path / "kept.db")
    with pytest.raises(StoreError, match=f"another Vine Swing \\(process {os.getpid()}\\) has .*kept.db open; end it first"):
        SceneStore(tmp_path / "kept.db")
    store.close()
    SceneStore(tmp_path / "kept.db").close()


def test_the_lock_ends_with_the_process_that_holds_it(tmp_path):
    code = "import os, sys, pathlib; from vine_swing.store import SceneStore; SceneStore(pathlib.Path(sys.argv[1])); os.kill(os.getpid(), 9)"
    assert subprocess.run([sys.executable, "-c", code, str(tmp_path / "kept.db")], check=False).returncode == -9
    SceneStore(tmp_path / "kept.db").close()


def test_only_its_owner_reads_it(tmp_path):
    store = SceneStore(tmp_path / "data" / "kept.db")
    store.create(from_data(EXAMPLE))
    assert stat.S_IMODE((tmp_path / "data").stat().st_mode) == 0o700
    for file in (tmp_path / "data").iterdir():
        assert stat.S_IMODE(file.stat().st_mode) == 0o600, file.name
    store.close()


def test_a_file_of_another_program_is_left_as_it_is(tmp_path):
    written(tmp_path / "other.db", "CREATE TABLE recipe (name TEXT); INSERT INTO recipe VALUES ('mango chutney');")
    before = (tmp_path / "other.db").read_bytes()
    with pytest.raises(StoreError, match="data file of another program; give Vine Swing another folder"):
        SceneStore(tmp_path / "other.db")
    assert (tmp_path / "other.db").read_bytes() == before


def test_a_damaged_file_is_told(tmp_path):
    path = tmp_path / "kept.db"
    store = SceneStore(path)
    for _ in range(40):
        store.create(from_data(EXAMPLE))
    store.close()
    data = bytearray(path.read_bytes())
    for page in range(8, len(data) // 4096, 3):
        data[page * 4096 : page * 4096 + 2048] = b"\x5a" * 2048
    path.write_bytes(data)
    with pytest.raises(StoreError, match="is damaged .*restore an earlier copy"):
        SceneStore(path)
    assert path.read_bytes() == bytes(data)


def test_a_full_disk_is_told_and_changes_nothing(tmp_path):
    store = SceneStore(tmp_path / "kept.db")
    scene_id = store.create(from_data(EXAMPLE))
    db = store._database._connection
    pages = db.execute("PRAGMA page_count").fetchone()[0]
    db.execute(f"PRAGMA max_page_count = {pages}")
    big = scene(*(shape(f"o{n}", x=n) for n in range(2000)))
    with pytest.raises(StoreFull, match="the disk is full, so nothing was changed"):
        store.create(big)
    db.execute("PRAGMA max_page_count = 100000")
    assert [line.id for line in store.summaries()] == [scene_id]
    assert save(store, scene_id, KEY).revision == 1
    store.close()


def test_a_locked_and_a_read_only_file_are_told(tmp_path):
    store = SceneStore(tmp_path / "kept.db")
    store._database._connection.execute("PRAGMA busy_timeout = 0")
    other = sqlite3.connect(tmp_path / "kept.db", isolation_level=None)
    other.execute("BEGIN IMMEDIATE")
    with pytest.raises(StoreBusy, match="another program has the data file locked"):
        store.create(from_data(EXAMPLE))
    other.execute("ROLLBACK")
    other.close()
    store._database._connection.execute("PRAGMA query_only = ON")
    with pytest.raises(StoreError, match="cannot be written to"):
        store.create(from_data(EXAMPLE))
    store._database._connection.execute("PRAGMA query_only = OFF")
    store.create(from_data(EXAMPLE))
    store.close()
