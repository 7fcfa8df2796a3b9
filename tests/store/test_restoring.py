"""Restoring a copy: never while another server is at work, never half, and never with a copy that a wrong clock hides."""

import sqlite3
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest

from tests.motion.scenes import scene, shape
from tests.store.test_backups import Clock, frames, keyed
from vine_swing.cli import main
from vine_swing.store import SceneStore, StoreError
from vine_swing.store.exports import KeptExport


@pytest.fixture
def clock():
    return Clock()


@pytest.fixture
def path(tmp_path):
    return tmp_path / "vine-swing.db"


def with_copy(path, clock):
    """A store with a scene whose copy has one key and whose current state has three; returns it and the id of the scene."""
    store = SceneStore(path, clock=clock)
    scene_id = store.create(scene(shape("mango")))
    keyed(store, scene_id, 1)
    clock.now += timedelta(days=1)
    keyed(store, scene_id, 2)
    keyed(store, scene_id, 3)
    return store, scene_id


def test_a_restore_while_a_server_runs_is_refused_and_loses_no_edit(path, clock, capsys):
    running, scene_id = with_copy(path, clock)
    assert main(["serve", "--data", str(path.parent), "--port", "18125", "--bring-back", "last"]) == 1
    assert "another Vine Swing" in capsys.readouterr().err
    for frame in range(4, 14):
        keyed(running, scene_id, frame)
    running.close()
    again = SceneStore(path, clock=clock)
    assert frames(again, scene_id) == list(range(1, 14))
    assert not list(path.parent.glob("backups/set-aside*"))
    again.close()


class Killed(BaseException):
    """Stands for a kill of the process."""


@pytest.mark.parametrize("calls", range(1, 5))
def test_a_restore_that_is_killed_is_finished_by_the_next_start(path, clock, monkeypatch, calls):
    store, scene_id = with_copy(path, clock)
    # A write-ahead log is left as by a killed server.
    log = Path(f"{path}-wal").read_bytes()
    store.close()
    Path(f"{path}-wal").write_bytes(log)
    renamed, rename = [], Path.rename

    def until_killed(self, target):
        if len(renamed) == calls:
            raise Killed
        renamed.append(self.name)
        return rename(self, target)

    monkeypatch.setattr(Path, "rename", until_killed)
    try:
        SceneStore(path, clock=clock, restore="last").close()
        was_killed = False
    except Killed:
        was_killed = True
    monkeypatch.undo()
    assert was_killed == (calls < 4), renamed
    again = SceneStore(path, clock=clock)
    assert frames(again, scene_id) == [1]
    again.close()
    kept = next(one for one in (path.parent / "backups").glob("set-aside*") if one.name.endswith(".db"))
    with sqlite3.connect(kept) as db:
        assert db.execute("SELECT count(*) FROM key").fetchone() == (3,), "the file that was there is kept, with its log"


def test_a_copy_that_is_damaged_is_refused_before_anything_is_renamed(path, clock):
    store, scene_id = with_copy(path, clock)
    copy = path.parent / "backups" / store.backups()[0].name
    store.close()
    copy.write_bytes(copy.read_bytes()[:5000])
    with pytest.raises(StoreError):
        SceneStore(path, clock=clock, restore="last")
    again = SceneStore(path, clock=clock)
    assert frames(again, scene_id) == [1, 2, 3]
    again.close()


def test_two_restores_within_a_second_keep_a_copy_each(path, clock):
    store, scene_id = with_copy(path, clock)
    (first,) = store.backups()
    second = store.bring_back(first.name)
    keyed(store, scene_id, 9)
    third = store.bring_back(first.name)
    assert len({one.name for one in store.backups()}) == 3
    store.bring_back(second.name)
    assert frames(store, scene_id) == [1, 2, 3]
    store.bring_back(third.name)
    assert frames(store, scene_id) == [1, 9]
    store.close()


def test_a_restore_leaves_the_list_of_exports_as_it_is(path, clock):
    store, _ = with_copy(path, clock)
    (copy,) = store.backups()
    store.exports.add(KeptExport("made-after", "s", 0, "film.mp4", "mp4", {}, store.now(), "done", 1, 1))
    store.bring_back(copy.name)
    assert [one.id for one in store.exports.all()] == ["made-after"]
    store.close()


def test_a_copy_of_a_newer_version_changes_nothing(path, clock):
    store, scene_id = with_copy(path, clock)
    (copy,) = store.backups()
    with sqlite3.connect(path.parent / "backups" / copy.name) as db:
        db.execute("PRAGMA user_version = 999")
    db.close()
    with pytest.raises(StoreError, match="from a newer Vine Swing"):
        store.bring_back(copy.name)
    assert frames(store, scene_id) == [1, 2, 3]
    store.close()


def test_copies_of_a_clock_that_was_wrong_do_not_keep_the_server_from_starting(path, clock):
    store, scene_id = with_copy(path, clock)
    store.close()
    folder = path.parent / "backups"
    (real,) = folder.glob("*.db")
    for day in range(1, 8):
        (folder / f"2099-01-0{day}T000000-day.db").write_bytes(real.read_bytes())
    (folder / "2026-13-45T990000-day.db").write_bytes(b"no date")
    again = SceneStore(path, clock=clock)
    clock.now += timedelta(days=1)
    keyed(again, scene_id, 4)
    newest = again.backups()[0]
    assert newest.made.date() == clock.now.astimezone().date(), "the copy of today is the newest, though others say they are of 2099"
    assert len(again.backups()) == 7
    again.close()
    last = SceneStore(path, clock=clock, restore="last")
    assert frames(last, scene_id) == [1, 2, 3]
    last.close()
    assert (folder / "2026-13-45T990000-day.db").exists(), "what is no copy is left alone"


def test_a_clock_that_goes_back_still_makes_a_copy_a_day(path):
    clock = Clock()
    clock.now = datetime(2099, 5, 1, tzinfo=UTC)
    store, scene_id = with_copy(path, clock)
    clock.now = datetime(2026, 5, 1, tzinfo=UTC)
    keyed(store, scene_id, 4)
    clock.now += timedelta(days=1)
    keyed(store, scene_id, 5)
    assert [one.made.year for one in store.backups()] == [2026, 2026, 2099]
    store.close()
