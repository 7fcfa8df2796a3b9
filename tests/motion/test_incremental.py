"""An edit bakes only what reads what changed; what is shared is the very same array."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter

from tests.motion.figure.walkers import branch, data
from tests.motion.scenes import channel, scene, shape
from vine_swing.motion import MotionError, Scene, bake
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.scene.dial import Dial
from vine_swing.motion.scene.graph import followers_of
from vine_swing.motion.timing.channel import Channel

EDITS: TypeAdapter[list[AnyEdit]] = TypeAdapter(list[AnyEdit])
SWING = {"id": "s", "kind": "oscillator", "channels": ["rotation"], "settings": {"amplitude": 5}}


def rule(kind, channels, **settings):
    return {"id": kind, "kind": kind, "channels": channels, "settings": settings}


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


def reading() -> Scene:
    """A scene in which much reads much: links by name, a follower, a face, a walk on a ground that a linked rule bends."""
    ripple = {"id": "bend", "kind": "ripple", "settings": {"amplitude": {"base": 4, "formula": "{Wind} * 10"}}}
    ground = branch() | {"id": "ground", "name": "Ground", "parent": "boat", "rules": [ripple]}
    return scene(
        shape("boat", y=channel((0, 0), (20, 5))),
        ground,
        data(ground="ground"),
        shape("gear", rotation=channel((0, 0), (20, 90))),
        shape("pin", rules=[rule("link", ["rotation"], formula="{Gear.rotation} * 2 + {Pod.x}"), rule("face", ["skew"], target="pod")]),
        shape("pod", x=channel((0, 0), (20, 60)), rules=[rule("follow", ["y"], leader="boat", delay=2)]),
        length=30,
    ).copy_with(dials=(Dial(id="wind", name="Wind", low=0.0, high=1.0, channel=Channel(base=0.2)),))


READING_EDITS = st.lists(
    st.one_of(
        st.fixed_dictionaries({"edit": st.just("set-value"), "object": st.just("dial:wind"), "channel": st.just("value"), "value": st.floats(0, 1)}),
        st.fixed_dictionaries(
            {
                "edit": st.just("set-key"),
                "object": st.sampled_from(["boat", "gear", "pod", "walker"]),
                "channel": st.sampled_from(["x", "y", "rotation"]),
                "frame": st.integers(0, 29),
                "value": st.floats(-90, 90),
            }
        ),
        st.fixed_dictionaries({"edit": st.just("rename-object"), "id": st.sampled_from(["gear", "pod"]), "name": st.sampled_from(["Cog", "Seed"])}),
        st.fixed_dictionaries({"edit": st.just("reparent-object"), "id": st.just("ground"), "parent": st.sampled_from([None, "boat", "gear"])}),
        st.fixed_dictionaries(
            {
                "edit": st.just("set-setting"),
                "object": st.just("ground"),
                "rule": st.just("bend"),
                "setting": st.just("waves"),
                "value": st.floats(1, 9),
            }
        ),
        st.fixed_dictionaries({"edit": st.just("set-rule"), "object": st.just("ground"), "rule": st.just("bend"), "on": st.booleans()}),
        st.fixed_dictionaries(
            {
                "edit": st.just("set-shape"),
                "id": st.just("ground"),
                "shape": st.sampled_from(["M-400 0 L4000 0", "M-400 0 L4000 -400", "M-400 0 C0 -120 1000 120 4000 0"]).map(
                    lambda d: {"type": "outline", "d": d}
                ),
            }
        ),
        st.fixed_dictionaries({"edit": st.just("delete-object"), "id": st.sampled_from(["gear", "pod", "boat"])}),
        st.just({"edit": "add-object", "object": shape("gear", rotation=7)}),
    ),
    max_size=6,
)


@settings(max_examples=40, deadline=None)
@given(READING_EDITS)
def test_after_edits_of_what_others_read_the_result_is_that_of_a_fresh_bake(edits):
    now = reading()
    baked = bake(now)
    for edit in edits:
        written = EDITS.validate_python([edit])
        try:
            now = apply_all(now, written)
        except (MotionError, ValueError):
            continue
        baked = bake(now, previous=baked)
        fresh = bake(now)
        for object_id, one in fresh.objects.items():
            for name, values in one.channels.items():
                np.testing.assert_array_equal(baked.objects[object_id].channels[name], values, err_msg=f"{object_id} {name} after {edit}")
            np.testing.assert_array_equal(baked.objects[object_id].world, one.world)


@settings(max_examples=40, deadline=None)
@given(
    st.sampled_from([("boat", "x"), ("boat", "y"), ("gear", "rotation"), ("pod", "x"), ("pod", "y"), ("walker", "rotation"), ("dial:wind", "value")]),
    st.floats(0, 1),
)
def test_nothing_is_worked_out_but_what_reads_what_was_edited(ref, value):
    one = reading()
    first, (owner, name) = bake(one), ref
    keyed = owner != "dial:wind"
    edit = {"object": owner, "channel": name, "value": value}
    after = edited(one, edit | ({"edit": "set-key", "frame": 7} if keyed else {"edit": "set-value"}))
    second = bake(after, previous=first)
    followers = followers_of(after, [ref])
    made = {
        (object_id, channel_name)
        for object_id, baked in second.objects.items()
        for channel_name, values in baked.channels.items()
        if values is not first.objects[object_id].channels[channel_name]
    }
    assert made <= followers, f"made anew without need: {made - followers}"


def test_a_ground_that_a_dial_bends_moves_the_feet_on_it():
    one = reading()
    first = bake(one)
    after = edited(one, {"edit": "set-value", "object": "dial:wind", "channel": "value", "value": 0.9})
    second = bake(after, previous=first)
    assert np.abs(second["Walker", "near-leg.y"] - first["Walker", "near-leg.y"]).max() > 1
    assert second.objects["pin"] is first.objects["pin"]


def test_names_that_come_to_mean_other_things_make_a_link_anew():
    one = scene(shape("a", x=1), shape("b", x=2), shape("pin", rules=[rule("link", ["x"], formula="{A.x} - {B.x}")]))
    a, b, pin = one.objects
    swapped = one.copy_with(objects=(a.copy_with(name="B"), b.copy_with(name="A"), pin))
    first = bake(one)
    assert (first["Pin", "x"][0], bake(swapped, previous=first)["Pin", "x"][0]) == (-1, 1)


def test_keyed_settings_are_baked_and_shared():
    wave = {"amplitude": {"keys": [{"frame": 0, "value": 0}, {"frame": 20, "value": 10}]}}
    one = scene(shape("arm", rules=[SWING | {"settings": wave}]), length=24)
    first = bake(one)
    np.testing.assert_allclose(first.objects["arm"].channels["s:amplitude"][:21], np.arange(21) / 2)
    moved = bake(edited(one, {"edit": "set-value", "object": "arm", "channel": "x", "value": 4}), previous=first)
    assert moved.objects["arm"].channels["s:amplitude"] is first.objects["arm"].channels["s:amplitude"]
    keyed = edited(one, {"edit": "set-key", "object": "arm", "channel": "s:amplitude", "frame": 20, "value": 20})
    assert bake(keyed, previous=first).objects["arm"].channels["s:amplitude"][10] == 10
