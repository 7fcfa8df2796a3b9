"""The store: what goes in comes out, every step can be taken back, and nothing acknowledged is lost."""

import os
import signal
import sqlite3
import subprocess
import sys
import threading
from datetime import UTC, datetime

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter

from tests.motion.scenes import EXAMPLE, channels, scene, shape
from tests.sounds import kept, struck
from vine_swing.motion import EditError
from vine_swing.motion.edits import AnyEdit, apply_all, label_of
from vine_swing.motion.scene.scene_file import from_data
from vine_swing.store import OldRevision, OwnFeel, SceneNotFound, SceneStore, StoreError

EDITS: TypeAdapter[list[AnyEdit]] = TypeAdapter(list[AnyEdit])


def save(store, scene_id, *edits):
    now = store.load(scene_id)
    made = EDITS.validate_python(list(edits))
    return store.save(scene_id, now.scene, apply_all(now.scene, made), label=label_of(now.scene, made), revision=now.revision)


KEY = {"edit": "set-key", "object": "mango", "channel": "x", "frame": 9, "value": 0.1}


def test_a_scene_comes_out_as_it_went_in(store):
    one = from_data(EXAMPLE)
    assert store.load(store.create(one)).scene == one


@settings(max_examples=25, deadline=None)
@given(st.lists(channels(least=0), min_size=1, max_size=4), st.text(min_size=1, max_size=20))
def test_any_channels_and_names_survive(tmp_path_factory, some, text):
    name = "".join(c for c in text if c.isprintable() and c not in "{}@").strip() or "x"
    one = scene(*(shape(f"o{i}", name=f"{i} {name} ' \"", x=ch, rotation=ch) for i, ch in enumerate(some)), name=name)
    store = SceneStore(tmp_path_factory.mktemp("any") / "kept.db")
    scene_id = store.create(one)
    assert store.load(scene_id).scene == one
    store.close()


RANDOM_EDITS = st.lists(
    st.one_of(
        st.fixed_dictionaries(
            {
                "edit": st.just("set-key"),
                "object": st.sampled_from("abc"),
                "channel": st.sampled_from(["x", "y", "scale.x"]),
                "frame": st.integers(0, 9),
                "value": st.floats(-9, 9),
            }
        ),
        st.fixed_dictionaries(
            {
                "edit": st.just("set-key"),
                "object": st.sampled_from("abc"),
                "channel": st.just("fill"),
                "frame": st.integers(0, 9),
                "value": st.sampled_from(["#123", "#45678901"]),
            }
        ),
        st.fixed_dictionaries(
            {
                "edit": st.just("delete-keys"),
                "object": st.sampled_from("abc"),
                "channel": st.sampled_from(["x", "y"]),
                "frames": st.lists(st.integers(0, 9), min_size=1, max_size=2),
            }
        ),
        st.fixed_dictionaries(
            {
                "edit": st.just("set-ends"),
                "object": st.sampled_from("abc"),
                "channel": st.just("x"),
                "after": st.sampled_from([{"mode": "loop", "times": 2}, {"mode": "coast"}]),
            }
        ),
        st.fixed_dictionaries({"edit": st.just("delete-object"), "id": st.sampled_from("abc")}),
        st.sampled_from([{"edit": "add-object", "object": shape(i, name=f"New {i}", x=3)} for i in "abcd"]),
        st.fixed_dictionaries({"edit": st.just("reorder-object"), "id": st.sampled_from("abc"), "index": st.integers(0, 2)}),
        st.fixed_dictionaries({"edit": st.just("reparent-object"), "id": st.sampled_from("abc"), "parent": st.sampled_from([None, "a", "b"])}),
        st.fixed_dictionaries(
            {"edit": st.just("rename-object"), "id": st.sampled_from("abc"), "name": st.sampled_from(["Ada's leaf", 'say "hi"', "Ω"])}
        ),
        st.fixed_dictionaries(
            {
                "edit": st.just("set-key"),
                "object": st.sampled_from("abc"),
                "channel": st.just("path"),
                "frame": st.integers(0, 30),
                "value": st.tuples(st.floats(-99, 99), st.floats(-99, 99)),
            }
        ),
        st.sampled_from([{"edit": kind, "object": "b"} for kind in ("join-path", "split-path")]),
        st.fixed_dictionaries(
            {
                "edit": st.just("set-span"),
                "id": st.sampled_from("abc"),
                "first": st.none() | st.integers(0, 9),
                "last": st.none() | st.integers(10, 20),
            }
        ),
        st.fixed_dictionaries({"edit": st.just("fit-parts"), "id": st.just("a"), "last": st.integers(5, 20), "how": st.just("stretch")}),
        st.fixed_dictionaries({"edit": st.just("set-size"), "width": st.integers(1, 99), "height": st.integers(1, 99)}),
    ),
    max_size=14,
)


@settings(max_examples=40, deadline=None)
@given(RANDOM_EDITS)
def test_undo_all_and_redo_all_pass_through_the_same_scenes(tmp_path_factory, edits):
    path = tmp_path_factory.mktemp("undo") / "kept.db"
    store = SceneStore(path)
    rule = {
        "id": "o",
        "kind": "oscillator",
        "channels": ["x"],
        "settings": {"amplitude": {"keys": [{"frame": 0, "value": 1}, {"frame": 9, "value": 2}]}, "wave": "square"},
    }
    scene_id = store.create(scene(shape("a", rules=[rule]), shape("b", parent="a"), shape("c")))
    passed = [store.load(scene_id).scene]
    for edit in edits:
        try:
            passed.append(save(store, scene_id, edit).scene)
        except EditError:
            continue
        assert store.load(scene_id).scene == passed[-1], "what was written is what was meant"
    # A restart in between changes nothing.
    store.close()
    store = SceneStore(path)
    for wanted in reversed(passed[:-1]):
        assert store.undo(scene_id, revision=store.load(scene_id).revision).scene == wanted
    assert store.undo(scene_id, revision=store.load(scene_id).revision) is None
    for wanted in passed[1:]:
        assert store.redo(scene_id, revision=store.load(scene_id).revision).scene == wanted
    assert store.redo(scene_id, revision=store.load(scene_id).revision) is None
    store.close()


def test_a_new_edit_after_undo_ends_what_could_be_redone(store):
    scene_id = store.create(from_data(EXAMPLE))
    save(store, scene_id, KEY)
    undone = store.undo(scene_id, revision=1)
    assert (undone.history.undo, undone.history.redo) == (None, "key Mango travel x at 9")
    after = save(store, scene_id, {"edit": "rename-object", "id": "mango", "name": "Papaya"})
    assert (after.history.undo, after.history.redo) == ("rename Mango to Papaya", None)


def test_an_edit_against_an_old_revision_is_refused_and_writes_nothing(store):
    scene_id = store.create(from_data(EXAMPLE))
    old = store.load(scene_id)
    save(store, scene_id, KEY)
    now = store.load(scene_id)
    with pytest.raises(OldRevision, match="revision 1 since revision 0"):
        store.save(scene_id, old.scene, old.scene.copy_with(name="Late"), label="late", revision=0)
    with pytest.raises(OldRevision):
        store.undo(scene_id, revision=0)
    assert store.load(scene_id) == now


def test_deleted_scenes_can_be_brought_back_with_their_history(store):
    scene_id = store.create(from_data(EXAMPLE))
    save(store, scene_id, KEY)
    store.delete(scene_id)
    with pytest.raises(SceneNotFound):
        store.load(scene_id)
    with pytest.raises(SceneNotFound):
        store.undo(scene_id, revision=1)
    assert [line.id for line in store.summaries(deleted=True)] == [scene_id]
    store.restore(scene_id)
    assert store.undo(scene_id, revision=1).scene == from_data(EXAMPLE)
    with pytest.raises(SceneNotFound):
        store.restore(scene_id)


def test_the_shelf_lists_the_last_changed_first(tmp_path):
    times = iter(datetime(2030, 1, 1, hour, tzinfo=UTC) for hour in range(9))
    store = SceneStore(tmp_path / "kept.db", clock=lambda: next(times))
    first, second = store.create(from_data(EXAMPLE)), store.create(scene(name="Empty"))
    assert [line.id for line in store.summaries()] == [second, first]
    save(store, first, KEY)
    line = store.summaries()[0]
    assert (line.id, line.name, line.objects, line.revision) == (first, "Example", 1, 1)
    store.close()


def test_an_edit_writes_only_what_differs(store, tmp_path):
    scene_id = store.create(from_data(EXAMPLE))
    seen = []
    store._database._connection.set_trace_callback(seen.append)
    save(store, scene_id, KEY)
    store._database._connection.set_trace_callback(None)
    written = [
        s for s in seen if s.startswith(("INSERT INTO key", "UPDATE key", "DELETE FROM key", "INSERT INTO object", "UPDATE object", "UPDATE channel"))
    ]
    # A statement is told again for each trigger it sets off.
    assert [s.split(" (")[0] for s in dict.fromkeys(written)] == ["INSERT INTO key"]


def test_a_failing_write_leaves_nothing_behind(store, monkeypatch):
    from vine_swing.store.rows import writing

    scene_id = store.create(from_data(EXAMPLE))
    before = store.load(scene_id)
    monkeypatch.setattr(writing, "_insert_keys", lambda *a: (_ for _ in ()).throw(RuntimeError("disk full")))
    with pytest.raises(RuntimeError):
        save(store, scene_id, KEY)
    assert store.load(scene_id) == before
    monkeypatch.undo()
    assert save(store, scene_id, KEY).revision == 1


def test_threads_take_turns(store):
    scene_id = store.create(scene(shape("a")))
    done = []

    def work(number):
        for frame in range(10):
            while True:
                try:
                    save(store, scene_id, {"edit": "set-key", "object": "a", "channel": "x", "frame": number * 10 + frame, "value": 1})
                    done.append(1)
                    break
                except OldRevision:
                    continue

    threads = [threading.Thread(target=work, args=(n,)) for n in range(4)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert len(done) == 40
    assert store.load(scene_id).revision == 40
    assert len(store.load(scene_id).scene.objects[0].channels["x"].keys) == 40


BURST = """
import sys
from pathlib import Path
from vine_swing.motion.edits import apply_all
from vine_swing.motion.edits.keys import SetKey
from vine_swing.store import SceneStore
store = SceneStore(Path(sys.argv[1]))
now = store.load(sys.argv[2])
for n in range(500):
    after = apply_all(now.scene, [SetKey(edit="set-key", object="a", channel="x", frame=float(n), value=float(n))])
    now = store.save(sys.argv[2], now.scene, after, label="burst", revision=now.revision)
    print(n, flush=True)
"""


@pytest.mark.parametrize("after", [1, 60, 240])
def test_no_acknowledged_edit_is_lost_when_the_process_is_killed(tmp_path, after):
    path = tmp_path / "kept.db"
    store = SceneStore(path)
    scene_id = store.create(scene(shape("a")))
    store.close()
    worker = subprocess.Popen([sys.executable, "-c", BURST, str(path), scene_id], stdout=subprocess.PIPE, text=True)
    acknowledged = -1
    for line in worker.stdout:
        acknowledged = int(line)
        if acknowledged >= after:
            os.kill(worker.pid, signal.SIGKILL)
            break
    acknowledged = max([acknowledged, *map(int, worker.stdout)])
    worker.wait()
    worker.stdout.close()
    store = SceneStore(path)
    now = store.load(scene_id)
    kept = [key.frame for key in now.scene.objects[0].channels["x"].keys]
    assert kept == list(range(len(kept)))
    assert len(kept) in (acknowledged + 1, acknowledged + 2), "at most one more was kept than could be told"
    assert now.revision == len(kept)
    for _ in kept:
        now = store.undo(scene_id, revision=now.revision)
    assert now.scene == scene(shape("a"))
    store.close()


def test_a_file_that_is_no_data_file_or_from_the_future_is_refused(tmp_path):
    (tmp_path / "note.db").write_text("dear diary " * 100)
    with pytest.raises(StoreError, match="cannot be opened as a Vine Swing data file"):
        SceneStore(tmp_path / "note.db")
    later = sqlite3.connect(tmp_path / "later.db")
    later.execute("PRAGMA user_version = 999")
    later.close()
    with pytest.raises(StoreError, match="from a newer Vine Swing"):
        SceneStore(tmp_path / "later.db")


def test_feels_are_kept_for_all_scenes_and_survive_a_restart(tmp_path):
    path = tmp_path / "kept.db"
    store = SceneStore(path)
    settle = OwnFeel('Settle\'s "own"', [(0.0, 0.0), (0.4, 1.1), (1.0, 1.0)], True)
    store.keep_feel(settle)
    store.keep_feel(OwnFeel("Lurch", [(0.0, 0.0), (1.0, 1.0)], False))
    store.close()
    store = SceneStore(path)
    assert store.feels.all() == [settle, OwnFeel("Lurch", [(0.0, 0.0), (1.0, 1.0)], False)]
    store.keep_feel(OwnFeel("Lurch", [(0.0, 0.0), (0.5, 0.1), (1.0, 1.0)], True))
    assert [len(feel.points) for feel in store.feels.all()] == [3, 3], "the same name is drawn anew"
    assert store.feels.forget("Lurch")
    assert not store.feels.forget("Lurch")
    store.close()


def test_a_sound_that_gets_another_file_is_kept_with_it_and_undo_brings_the_first_back(store):
    first, other = kept(struck([0.1], 0.5)), kept(struck([0.3], 0.6), begin=0.1)
    before = scene().copy_with(sounds=(first,))
    scene_id = store.create(before)
    store.save(scene_id, before, before.copy_with(sounds=(other,)), label="another file", revision=0)
    assert store.load(scene_id).scene.sounds == (other,)
    assert store.undo(scene_id, revision=1).scene.sounds == (first,)
