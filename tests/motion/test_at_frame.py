"""A scene baked at one frame copies from the version before it, and is what a fresh bake would be."""

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.motion.scenes import channel, scene, shape
from vine_swing.motion.baking.at_frame import baked_at
from vine_swing.motion.baking.bake import bake
from vine_swing.motion.edits.arranging import MoveObjects
from vine_swing.motion.scene.model import Scene


def troupe() -> Scene:
    """A group with a moth on it, and a leaf that follows the moth."""
    follow = {"id": "f", "kind": "follow", "channels": ["x"], "settings": {"leader": "moth", "delay": 2.0}}
    return scene(
        {"id": "nest", "name": "Nest", "kind": "group", "channels": {"rotation": {"base": 30}}},
        shape("moth", x=channel((0, 0), (24, 90)), y=5) | {"parent": "nest"},
        shape("leaf", rules=[follow]),
    )


def same(one: Scene, frame: float) -> None:
    """What is kept is what a bake from nothing gives, bit for bit."""
    kept, fresh = baked_at(one, frame), bake(one, np.array([frame]))
    assert kept.objects.keys() == fresh.objects.keys()
    for object_id, thing in fresh.objects.items():
        assert np.array_equal(kept.objects[object_id].view, thing.view)
        for name, values in thing.channels.items():
            assert np.array_equal(kept.objects[object_id].channels[name], values), (object_id, name)


@settings(max_examples=25, deadline=None)
@given(
    st.lists(
        st.tuples(st.sampled_from(["nest", "moth", "leaf"]), st.floats(-50, 50), st.sampled_from([0.0, 3.0, 7.5]), st.booleans()),
        min_size=1,
        max_size=6,
    )
)
def test_versions_one_after_the_other_are_baked_as_from_nothing(moves):
    now = troupe()
    for object_id, by, frame, key in moves:
        now = MoveObjects(edit="move-objects", objects=(object_id,), frame=frame, dx=by, dy=-by, key=key).apply(now)
        for one in (0.0, 3.0, 7.5):
            same(now, one)


def test_the_same_scene_is_not_baked_again():
    now = troupe()
    assert baked_at(now, 3.0) is baked_at(now, 3.0)
    assert baked_at(now, 4.0) is not baked_at(now, 3.0)


def test_another_scene_with_the_same_ids_is_itself():
    first, other = troupe(), troupe().copy_with(fps=12.0)
    same(first, 3.0)
    same(other, 3.0)
    same(first, 3.0)
