"""Copies of the data file: made by the day and before migrations, seven kept, brought back; and a damaged file that says what to do."""

import sqlite3
from datetime import UTC, datetime, timedelta

import pytest

from tests.motion.scenes import scene, shape
from tests.store.test_data_file import SCHEMAS, save, written
from vine_swing.cli import main
from vine_swing.store import SceneStore, StoreError

KEY = {"edit": "set-key", "object": "mango", "channel": "x", "frame": 9.0, "value": 0.1}


class Clock:
    """A time of day that goes on only when it is told to."""

    def __init__(self):
        self.now = datetime(2026, 11, 2, 9, tzinfo=UTC)

    def __call__(self):
        return self.now


@pytest.fixture
def clock():
    return Clock()


@pytest.fixture
def store(tmp_path, clock):
    one = SceneStore(tmp_path / "scenes.db", clock=clock)
    yield one
    one.close()


def keyed(store, scene_id, frame):
    save(store, scene_id, KEY | {"frame": float(frame)})


def frames(store, scene_id):
    return [key.frame for key in store.load(scene_id).scene.by_id["mango"].channels["x"].keys]


def test_the_first_change_of_a_day_finds_a_copy_made_before_it_and_seven_are_kept(store, clock):
    scene_id = store.create(scene(shape("mango")))
    assert store.backups() == [], "there was nothing to copy yet"
    for day in range(10):
        clock.now += timedelta(days=1)
        keyed(store, scene_id, day)
        keyed(store, scene_id, day + 0.5)
    copies = store.backups()
    assert [one.why for one in copies] == ["day"] * 7
    assert len({one.made.date() for one in copies}) == 7
    # A copy holds what there was before that day's first change.
    with sqlite3.connect(store.folder / "backups" / copies[0].name) as db:
        assert db.execute("SELECT count(*) FROM key").fetchone() == (18,)


def test_a_copy_is_brought_back_and_that_is_taken_back_by_another(store, clock):
    scene_id = store.create(scene(shape("mango")))
    keyed(store, scene_id, 1)
    clock.now += timedelta(days=1)
    keyed(store, scene_id, 2)
    revision = store.load(scene_id).revision
    (copy,) = store.backups()
    made = store.bring_back(copy.name)
    assert frames(store, scene_id) == [1]
    assert store.load(scene_id).revision > revision, "pages that have it open must see that it is another one"
    assert store.undo(scene_id, revision=store.load(scene_id).revision).scene.by_id["mango"].channels == {}
    clock.now += timedelta(minutes=1)
    store.bring_back(made.name)
    assert frames(store, scene_id) == [1, 2]
    with pytest.raises(StoreError, match="there is no copy"):
        store.bring_back("2020-01-01T000000-day.db")


def test_a_damaged_copy_is_refused_and_nothing_is_changed(store, clock):
    scene_id = store.create(scene(shape("mango")))
    clock.now += timedelta(days=1)
    keyed(store, scene_id, 2)
    (copy,) = store.backups()
    path = store.folder / "backups" / copy.name
    data = bytearray(path.read_bytes())
    data[4096:] = b"\xa5" * (len(data) - 4096)
    path.write_bytes(data)
    with pytest.raises(StoreError, match="damaged"):
        store.bring_back(copy.name)
    assert frames(store, scene_id) == [2]


def test_an_older_file_is_copied_before_it_is_brought_to_the_newest_schema(tmp_path, clock):
    written(tmp_path / "scenes.db", SCHEMAS[-1].read_text(encoding="utf-8"))
    before = (tmp_path / "scenes.db").read_bytes()
    store = SceneStore(tmp_path / "scenes.db", clock=clock)
    assert [one.why for one in store.backups()] == ["schema"]
    store.close()
    with sqlite3.connect(tmp_path / "backups" / store.backups()[0].name) as copy, sqlite3.connect(":memory:") as was:
        was.deserialize(before)
        assert list(copy.iterdump()) == list(was.iterdump())
        assert copy.execute("PRAGMA user_version").fetchone() == was.execute("PRAGMA user_version").fetchone()


def test_a_folder_that_takes_no_copy_keeps_nobody_from_working(store, clock):
    scene_id = store.create(scene(shape("mango")))
    (store.folder / "backups").write_text("in the way", encoding="utf-8")
    clock.now += timedelta(days=1)
    keyed(store, scene_id, 3)
    assert frames(store, scene_id) == [3]
    assert store.backups() == []


def test_a_damaged_file_names_the_last_copy_and_starts_with_it(tmp_path, clock, capsys, monkeypatch):
    path = tmp_path / "vine-swing.db"
    store = SceneStore(path, clock=clock)
    scene_id = store.create(scene(shape("mango")))
    clock.now += timedelta(days=1)
    keyed(store, scene_id, 2)
    store.close()
    data = bytearray(path.read_bytes())
    data[4096:] = b"\xa5" * (len(data) - 4096)
    path.write_bytes(data)
    command = ["serve", "--data", str(tmp_path), "--port", "18123"]
    assert main(command) == 1
    said = capsys.readouterr().err
    assert "is damaged" in said
    assert "--bring-back last" in said
    assert main([*command, "--bring-back", "never"]) == 1
    assert "there is no copy 'never'" in capsys.readouterr().err
    monkeypatch.setattr("vine_swing.cli.ending.EndingServer.run", lambda server: None)
    assert main([*command, "--bring-back", "last"]) == 0
    again = SceneStore(path)
    assert [line.id for line in again.summaries()] == [scene_id]
    again.close()
    assert any(one.name.startswith("set-aside") and one.read_bytes() == data for one in (tmp_path / "backups").iterdir())
