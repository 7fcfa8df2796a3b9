"""Several pages on one scene: each takes back its own steps; and old steps, packed, are taken back like new ones."""

import sqlite3

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.motion.scenes import scene, shape
from tests.store.working import back, edit, key, others
from vine_swing.motion.timing.channel import Channel
from vine_swing.store import InTheWay, SceneStore, packs


@pytest.fixture
def scene_id(store):
    return store.create(scene(shape("frog"), shape("mango")))


def base(thing, value):
    return {"edit": "set-value", "object": thing, "channel": "x", "value": value}


def x(one, thing):
    return one.by_id[thing].channels.get("x", Channel())


def test_each_page_takes_back_its_own_last_step_and_does_it_again(store, scene_id):
    edit(store, scene_id, "a", key("frog", 0, 1))
    edit(store, scene_id, "b", key("mango", 0, 2))
    both = edit(store, scene_id, "b", key("mango", 9, 3))
    undone = back(store, scene_id, "undo", "a")
    assert (x(undone, "frog").keys, x(undone, "mango")) == ((), x(both, "mango"))
    assert store.load(scene_id).scene == undone
    assert back(store, scene_id, "undo", "a") is None
    assert back(store, scene_id, "redo", "a") == both
    assert len(x(back(store, scene_id, "undo", "b"), "mango").keys) == 1


def test_what_each_page_would_take_back_is_told_to_it(store, scene_id):
    edit(store, scene_id, "a", key("frog", 0, 1))
    edit(store, scene_id, "b", {"edit": "rename-object", "id": "mango", "name": "Papaya"})
    told = {page: store.history(scene_id, others(page, "ab")).undo for page in "ab"}
    assert "frog" in told["a"].lower()
    assert "Papaya" in told["b"]


def test_a_step_is_not_taken_back_where_others_changed_the_same_since(store, scene_id):
    edit(store, scene_id, "a", key("frog", 0, 1))
    now = edit(store, scene_id, "b", key("frog", 0, 2))
    with pytest.raises(InTheWay, match=r"Otter has changed the same values since .*undo that first"):
        back(store, scene_id, "undo", "a")
    assert store.load(scene_id).scene == now
    assert [k.value for k in x(back(store, scene_id, "undo", "b"), "frog").keys] == [1]
    assert x(back(store, scene_id, "undo", "a"), "frog").keys == ()


def test_an_object_is_not_taken_back_where_others_added_to_it(store, scene_id):
    edit(store, scene_id, "a", {"edit": "add-object", "object": {"id": "leaf", "name": "Leaf", "kind": "shape", "shape": {"type": "ellipse"}}})
    now = edit(store, scene_id, "b", key("leaf", 4, 2))
    with pytest.raises(InTheWay, match="others have added to it since|Otter has changed the same"):
        back(store, scene_id, "undo", "a")
    assert store.load(scene_id).scene == now


def test_a_parent_is_not_taken_back_where_others_hung_something_on_it(store, scene_id):
    edit(store, scene_id, "a", {"edit": "add-object", "object": {"id": "leaf", "name": "Leaf", "kind": "shape", "shape": {"type": "ellipse"}}})
    now = edit(store, scene_id, "b", {"edit": "reparent-object", "id": "frog", "parent": "leaf"})
    with pytest.raises(InTheWay):
        back(store, scene_id, "undo", "a")
    assert store.load(scene_id).scene == now


def test_a_page_that_has_gone_leaves_its_steps_to_the_others(store, scene_id):
    edit(store, scene_id, "b", key("mango", 0, 2))
    edit(store, scene_id, "a", key("frog", 0, 1))
    assert x(back(store, scene_id, "undo", "b", here="b"), "frog").keys == ()
    assert x(back(store, scene_id, "undo", "b", here="b"), "mango").keys == ()
    # And in turn again, though they were made by two.
    assert x(back(store, scene_id, "redo", "b", here="b"), "mango").keys != ()
    assert x(back(store, scene_id, "redo", "b", here="b"), "frog").keys != ()
    assert back(store, scene_id, "redo", "b", here="b") is None


def test_a_new_step_of_one_page_leaves_the_other_what_it_could_redo(store, scene_id):
    first = edit(store, scene_id, "a", key("frog", 0, 1))
    back(store, scene_id, "undo", "a")
    edit(store, scene_id, "b", key("mango", 0, 2))
    redone = back(store, scene_id, "redo", "a")
    assert (x(redone, "frog"), len(x(redone, "mango").keys)) == (x(first, "frog"), 1)
    assert len(x(back(store, scene_id, "undo", "a"), "mango").keys) == 1


def test_what_was_taken_back_is_not_done_again_over_what_others_did_to_it(store, scene_id):
    edit(store, scene_id, "a", base("frog", 5.0))
    edit(store, scene_id, "a", base("frog", 7.0))
    back(store, scene_id, "undo", "a")
    now = edit(store, scene_id, "b", base("frog", 9.0))
    with pytest.raises(InTheWay, match="cannot be done again"):
        back(store, scene_id, "redo", "a")
    assert store.load(scene_id).scene == now


PLACES = st.tuples(st.sampled_from(["frog", "mango"]), st.integers(0, 3), st.integers(-50, 50))
WORK = st.lists(
    st.tuples(st.sampled_from("ab"), st.one_of(st.just("undo"), st.just("redo"), PLACES, st.sampled_from(["add", "remove"]))), max_size=30
)


@settings(max_examples=60, deadline=None)
@given(WORK)
def test_whatever_two_pages_do_in_turn_the_scene_stays_whole_and_all_can_be_taken_back(tmp_path_factory, work):
    store = SceneStore(tmp_path_factory.mktemp("two") / "kept.db")
    start = scene(shape("frog"), shape("mango"))
    scene_id = store.create(start)
    added = 0
    for page, what in work:
        before = store.load(scene_id).scene
        try:
            match what:
                case "undo" | "redo":
                    back(store, scene_id, what, page)
                case "add":
                    added += 1
                    thing = {"id": f"leaf{added}", "name": f"Leaf {added}", "kind": "shape", "shape": {"type": "ellipse"}}
                    edit(store, scene_id, page, {"edit": "add-object", "object": thing, "index": 0})
                case "remove":
                    leaf = next((one for one in before.objects if one.id.startswith("leaf")), None)
                    if leaf is not None:
                        edit(store, scene_id, page, {"edit": "delete-object", "id": leaf.id})
                case thing, frame, value:
                    edit(store, scene_id, page, key(thing, frame, float(value)))
        except InTheWay:
            assert store.load(scene_id).scene == before
    # Places in lists are what they are: an edit writes only those that differ from the scene in memory.
    now = store.load(scene_id).scene
    db = sqlite3.connect(tmp_path_factory.getbasetemp() / store.folder.name / "kept.db")
    assert [row[0] for row in db.execute("SELECT position FROM object ORDER BY position")] == list(range(len(now.objects)))
    db.close()
    # Alone again, somebody takes everything back; what steps out of turn left is taken back last to first like the rest.
    while back(store, scene_id, "undo", "c", here="c") is not None:
        pass
    assert {thing.id for thing in store.load(scene_id).scene.objects} == {"frog", "mango"}
    store.close()


def test_old_steps_are_packed_small_and_taken_back_to_the_first_one(store, scene_id, tmp_path):
    states = [store.load(scene_id).scene]
    count = 5 * packs.STEPS
    for n in range(count):
        states.append(edit(store, scene_id, None, key("frog", n % 7, n / 3), here=""))
    db = sqlite3.connect(tmp_path / "kept.db")
    packed, size = db.execute("SELECT sum(steps), sum(length(content)) FROM pack").fetchone()
    assert packed >= 3 * packs.STEPS
    # 270 bytes a step in tables.
    assert size / packed < 40
    for state in reversed(states[:-1]):
        assert back(store, scene_id, "undo", None, here="") == state
    assert back(store, scene_id, "undo", None, here="") is None
    assert db.execute("SELECT count(*) FROM pack").fetchone() == (0,)
    for state in states[1:]:
        assert back(store, scene_id, "redo", None, here="") == state
    db.close()


def test_a_pack_from_before_a_column_came_is_unpacked_with_its_default(store, scene_id, tmp_path):
    before = store.load(scene_id).scene
    for n in range(2 * packs.STEPS):
        edit(store, scene_id, None, {"edit": "rename-scene", "name": f"Gorge {n}"}, here="")
    with store._database.transaction() as db:
        (number, content) = db.execute("SELECT id, content FROM pack").fetchone()
        tables = packs.opened(content)
        scenes = tables["scene_before"]
        gone = scenes["columns"].index("palette")
        scenes["columns"].pop(gone)
        scenes["rows"] = [[*row[:gone], *row[gone + 1 :]] for row in scenes["rows"]]
        db.execute("UPDATE pack SET content = ? WHERE id = ?", (packs.closed(tables), number))
    while (now := back(store, scene_id, "undo", None, here="")) is not None:
        last = now
    assert last == before
