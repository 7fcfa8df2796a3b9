"""What a scene takes, and what forgetting gives back: nothing that is still needed."""

import sqlite3

import pytest

from tests.motion.scenes import EXAMPLE
from tests.sounds import kept, struck
from tests.store.working import back, edit, key
from vine_swing.motion.scene.scene_file import from_data
from vine_swing.store import SceneNotFound, SceneStore, packs


@pytest.fixture
def scene_id(store):
    return store.create(from_data(EXAMPLE))


def many(store, scene_id, count):
    for n in range(count):
        edit(store, scene_id, None, key("mango", n % 5 + 30, n / 3), here="")


def files(store):
    with store._database.reading() as db:
        return db.execute("SELECT count(*) FROM blob").fetchone()[0]


def sounding(store, scene_id):
    """A scene with a sound of its own, added as an edit."""
    now = store.load(scene_id)
    sound = kept(struck([0.2], 1.0))
    after = now.scene.copy_with(sounds=(sound,))
    store.save(scene_id, now.scene, after, label="add a sound", revision=now.revision)
    return len(sound.content)


def test_the_size_counts_the_scene_its_files_and_its_steps(store, scene_id):
    fresh = store.size(scene_id)
    assert (fresh.files, fresh.rehearsals, fresh.steps, fresh.history) == (0, 0, 0, 0)
    assert fresh.scene > 500
    many(store, scene_id, 3 * packs.STEPS)
    size = store.size(scene_id)
    assert size.steps == 3 * packs.STEPS
    assert size.history > fresh.history
    content = sounding(store, scene_id)
    assert store.size(scene_id).files == content
    with pytest.raises(SceneNotFound):
        store.size("nothing")


def test_forgetting_keeps_the_last_steps_and_gives_the_rest_back(store, scene_id):
    many(store, scene_id, 3 * packs.STEPS)
    back(store, scene_id, "undo", None, here="")
    before, now = store.size(scene_id), store.load(scene_id)
    store.forget_history(scene_id, keep=20)
    after = store.size(scene_id)
    assert after.steps == 21
    assert after.history < before.history / 3
    assert store.load(scene_id) == now
    for _ in range(20):
        assert back(store, scene_id, "undo", None, here="") is not None
    assert back(store, scene_id, "undo", None, here="") is None
    for _ in range(20):
        assert back(store, scene_id, "redo", None, here="") is not None
    assert store.load(scene_id).scene == now.scene


def test_forgetting_keeps_as_many_steps_as_it_is_told_even_if_they_are_packed(store, scene_id):
    many(store, scene_id, 5 * packs.STEPS)
    before = store.size(scene_id).steps
    assert before == 5 * packs.STEPS
    keep = 3 * packs.STEPS - 10
    store.forget_history(scene_id, keep=keep)
    # Packs are kept whole.
    assert keep <= store.size(scene_id).steps < keep + packs.STEPS
    for _ in range(keep):
        assert back(store, scene_id, "undo", None, here="") is not None
    store.forget_history(scene_id, keep=0)
    assert back(store, scene_id, "undo", None, here="") is None


def test_files_stay_as_long_as_a_scene_a_step_a_pack_or_a_rehearsal_needs_them(store, scene_id):
    sounding(store, scene_id)
    store.rehearsals.keep(scene_id, store.load(scene_id).scene, revision=1, name=None, still=b"")
    now = store.load(scene_id)
    store.save(scene_id, now.scene, now.scene.copy_with(sounds=()), label="take it out", revision=now.revision)
    store.forget_history(scene_id, keep=20)
    assert files(store) == 1
    # Packed away, the step that took it out still needs it.
    many(store, scene_id, 2 * packs.STEPS)
    other = store.create(from_data(EXAMPLE))
    store.forget_history(other, keep=0)
    assert files(store) == 1
    store.forget_history(scene_id, keep=0)
    assert files(store) == 1
    assert store.rehearsals.scene(scene_id, store.rehearsals.all(scene_id)[0].id).sounds
    store.delete(scene_id)
    store.erase(scene_id)
    assert files(store) == 0


def test_only_what_was_deleted_is_erased_and_nothing_of_it_stays(store, scene_id, tmp_path):
    other = store.create(from_data(EXAMPLE))
    many(store, scene_id, 2 * packs.STEPS)
    sounding(store, scene_id)
    with pytest.raises(SceneNotFound, match="deleted before"):
        store.erase(scene_id)
    store.delete(scene_id)
    store.erase(scene_id)
    assert [line.id for line in store.summaries()] == [other]
    assert store.summaries(deleted=True) == []
    db = sqlite3.connect(tmp_path / "kept.db")
    assert db.execute("PRAGMA foreign_key_check").fetchall() == []
    counted = {
        table: db.execute(f"SELECT count(*) FROM {table}").fetchone()[0] for table in ("step", "inverse", "pack", "blob", "key_before", "object")
    }
    assert counted == {"step": 0, "inverse": 0, "pack": 0, "blob": 0, "key_before": 0, "object": len(EXAMPLE["objects"])}
    db.close()


def test_the_file_shrinks_where_much_of_it_is_free(tmp_path):
    store = SceneStore(tmp_path / "kept.db")
    scene_id = store.create(from_data(EXAMPLE))
    with store._database.transaction() as db:
        db.execute("INSERT INTO blob (hash, media_type, data) VALUES (?, 'image/*', randomblob(9000000))", ("0" * 64,))
    store.forget_history(scene_id, keep=0)
    assert (tmp_path / "kept.db").stat().st_size < 1_000_000
    assert store.load(scene_id).scene == from_data(EXAMPLE)
    store.close()
