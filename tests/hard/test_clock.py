"""A clock that jumps, back or far ahead, loses nothing and stops nobody."""

from datetime import UTC, datetime, timedelta

from tests.motion.scenes import EXAMPLE
from tests.store.working import back, edit, key
from vine_swing.motion.scene.scene_file import from_data
from vine_swing.store import SceneStore


def test_edits_copies_and_the_shelf_go_on_whatever_the_clock_says(tmp_path):
    now = [datetime(2026, 3, 1, 12, tzinfo=UTC)]
    store = SceneStore(tmp_path / "kept.db", clock=lambda: now[0])
    scene_id = store.create(from_data(EXAMPLE))
    start = store.load(scene_id).scene
    jumps = (timedelta(days=400), timedelta(days=-900), timedelta(seconds=-1), timedelta(days=365 * 60), timedelta(0), timedelta(days=-365 * 90))
    for n, jump in enumerate(jumps):
        now[0] += jump
        edit(store, scene_id, None, key("mango", 30 + n, float(n)), here="")
        assert store.summaries()[0].id == scene_id
        assert 1 <= len(store.backups()) <= 7
        store.rehearsals.keep(scene_id, store.load(scene_id).scene, revision=n, name=None, still=b"")
    assert len(store.rehearsals.all(scene_id)) == len(jumps)
    while (undone := back(store, scene_id, "undo", None, here="")) is not None:
        last = undone
    assert last == start
    # The newest copy by its name is one that can be brought back, whenever the clock said it was made.
    store.bring_back(store.backups()[0].name)
    assert store.summaries()
    store.close()
