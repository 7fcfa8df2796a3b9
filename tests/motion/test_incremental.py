"""An edit bakes only what reads what changed; what is shared is the very same array."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter

from tests.motion.scenes import channel, scene, shape
from vine_swing.motion import bake
from vine_swing.motion.edits import AnyEdit, apply_all

EDITS: TypeAdapter[list[AnyEdit]] = TypeAdapter(list[AnyEdit])
SWING = {"id": "s", "kind": "oscillator", "channels": ["rotation"], "settings": {"amplitude": 5}}


@pytest.fixture
def family():
    return scene(
        shape("body", x=channel((0, 0), (20, 100)), fill=channel((0, "#FF0000"), (9, "#00FF00"))),
        shape("arm", parent="body", rotation=channel((0, 0), (20, 90)), rules=[SWING]),
        shape("stone", x=5),
        length=24,
    )


def edited(before, *edits):
    return apply_all(before, EDITS.validate_python(edits))


def test_one_key_changes_one_channel_and_what_hangs_on_it(family):
    first = bake(family)
    after = edited(family, {"edit": "set-key", "object": "body", "channel": "x", "frame": 20, "value": 200})
    second = bake(after, previous=first)
    body, was = second.objects["body"], first.objects["body"]
    assert body.channels["x"] is not was.channels["x"]
    assert all(body.channels[name] is was.channels[name] for name in was.channels if name != "x")
    assert body.opacity is was.opacity
    assert second.objects["stone"] is first.objects["stone"]
    arm, arm_was = second.objects["arm"], first.objects["arm"]
    assert all(arm.channels[name] is arm_was.channels[name] for name in arm_was.channels)
    assert arm.local is arm_was.local
    assert arm.world is not arm_was.world


def test_a_rename_moves_nothing(family):
    first = bake(family)
    second = bake(edited(family, {"edit": "rename-object", "id": "body", "name": "Trunk"}), previous=first)
    assert second.objects["body"].world is first.objects["body"].world
    assert second["Trunk", "x"].tolist() == first["Body", "x"].tolist()


SOME_EDITS = st.lists(
    st.one_of(
        st.fixed_dictionaries(
            {
                "edit": st.just("set-key"),
                "object": st.sampled_from(["body", "arm", "stone"]),
                "channel": st.sampled_from(["x", "y", "rotation", "opacity", "scale.x"]),
                "frame": st.integers(0, 23),
                "value": st.floats(0.1, 2),
            }
        ),
        st.fixed_dictionaries({"edit": st.just("reparent-object"), "id": st.just("stone"), "parent": st.sampled_from([None, "body", "arm"])}),
        st.fixed_dictionaries(
            {
                "edit": st.just("set-key"),
                "object": st.sampled_from(["body", "stone"]),
                "channel": st.just("path"),
                "frame": st.integers(0, 23),
                "value": st.tuples(st.floats(-9, 9), st.floats(-9, 9)),
            }
        ),
        st.sampled_from([{"edit": "split-path", "object": "body"}, {"edit": "join-path", "object": "body"}]),
        st.fixed_dictionaries({"edit": st.just("set-span"), "id": st.sampled_from(["body", "arm"]), "first": st.integers(0, 9)}),
        st.fixed_dictionaries(
            {"edit": st.just("fit-parts"), "id": st.just("body"), "last": st.integers(5, 20), "how": st.sampled_from(["extend", "stretch"])}
        ),
        st.fixed_dictionaries({"edit": st.just("set-length"), "length": st.integers(10, 30)}),
        st.fixed_dictionaries({"edit": st.just("set-fps"), "fps": st.sampled_from([12, 24, 30])}),
        st.fixed_dictionaries({"edit": st.just("reorder-object"), "id": st.just("arm"), "index": st.integers(0, 2)}),
        st.fixed_dictionaries({"edit": st.just("set-value"), "object": st.just("stone"), "channel": st.just("y"), "value": st.floats(-9, 9)}),
    ),
    max_size=8,
)


@settings(max_examples=60, deadline=None)
@given(SOME_EDITS)
def test_after_any_edits_the_result_is_that_of_a_fresh_bake(edits):
    now = scene(
        shape("body", x=channel((0, 0), (20, 100))),
        shape("arm", parent="body", rotation=channel((0, 0), (20, 90)), rules=[SWING]),
        shape("stone", x=5),
        length=24,
    )
    baked = bake(now)
    for edit in edits:
        try:
            now = edited(now, edit)
        except ValueError:
            continue
        baked = bake(now, previous=baked)
    fresh = bake(now)
    assert list(baked.objects) == list(fresh.objects)
    for object_id, one in fresh.objects.items():
        again = baked.objects[object_id]
        for what in ("world", "opacity", "place", "middle", "local"):
            np.testing.assert_array_equal(getattr(again, what), getattr(one, what))
        for name, values in one.channels.items():
            np.testing.assert_array_equal(again.channels[name], values)


def test_keyed_settings_are_baked_and_shared():
    wave = {"amplitude": {"keys": [{"frame": 0, "value": 0}, {"frame": 20, "value": 10}]}}
    one = scene(shape("arm", rules=[SWING | {"settings": wave}]), length=24)
    first = bake(one)
    np.testing.assert_allclose(first.objects["arm"].channels["s:amplitude"][:21], np.arange(21) / 2)
    moved = bake(edited(one, {"edit": "set-value", "object": "arm", "channel": "x", "value": 4}), previous=first)
    assert moved.objects["arm"].channels["s:amplitude"] is first.objects["arm"].channels["s:amplitude"]
    keyed = edited(one, {"edit": "set-key", "object": "arm", "channel": "s:amplitude", "frame": 20, "value": 20})
    assert bake(keyed, previous=first).objects["arm"].channels["s:amplitude"][10] == 10
