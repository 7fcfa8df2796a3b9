"""Samples written as keys as keys, and keys copied from a file."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.motion.scenes import channel, scene, shape
from vine_swing.formats.keys import keys_data
from vine_swing.motion import EditError, bake, dump
from vine_swing.motion.edits import apply_all
from vine_swing.motion.edits.laying import BringKeys, LaySamples


def laid(one, times, values, *, channel_name="rotation", tolerance=0.0, first=0.0, pace=1.0, **track):
    edit = {"edit": "lay-samples", "tracks": [{"object": "vane", "channel": channel_name, "times": times, "values": values} | track]}
    return apply_all(one, [LaySamples.model_validate(edit | {"first": first, "pace": pace, "tolerance": tolerance})])


VANE = scene(shape("vane", x=50, rotation=channel((0, 5), (40, 9), (90, 1))), length=100)


def test_every_sample_becomes_a_key_in_place_of_those_in_its_stretch():
    after = laid(VANE, [0, 0.5, 1], [10, 20, 15], first=24, pace=24, scale=2, offset=1)
    keys = after.by_id["vane"].channels["rotation"].keys
    assert [(key.frame, key.value) for key in keys] == [(0, 5), (24, 21), (36, 41), (48, 31), (90, 1)]
    assert bake(after)["Vane", "rotation"][[24, 30, 36]].tolist() == [21, 31, 41]


def test_of_two_samples_on_one_frame_the_later_counts_and_order_does_not_matter():
    keys = laid(VANE, [3, 1, 1], [30, 10, 11]).by_id["vane"].channels["rotation"].keys
    assert [(key.frame, key.value) for key in keys if key.frame in (1, 3)] == [(1, 11), (3, 30)]


@given(seed=st.integers(0, 10_000), noise=st.floats(0, 2), tolerance=st.floats(0.3, 8))
def test_few_keys_pass_every_sample_within_the_tolerance(seed, noise, tolerance):
    chance = np.random.default_rng(seed)
    times = np.arange(100.0)
    values = 20 * np.sin(times / 9) + chance.uniform(-noise, noise, 100)
    after = laid(VANE, times.tolist(), values.tolist(), tolerance=tolerance)
    assert np.abs(bake(after)["Vane", "rotation"] - values).max() <= tolerance + 1e-6
    keys = len(after.by_id["vane"].channels["rotation"].keys)
    if tolerance > 1.6 * noise + 0.5:
        assert keys < 40, f"{keys} keys for 100 samples"


def test_colours_and_what_does_not_fit():
    after = laid(VANE, [0, 10], ["#FF0000", "#0000FF"], channel_name="fill")
    assert after.by_id["vane"].channels["fill"].keys[1].value == "#0000FF"
    with pytest.raises(EditError, match="takes colours"):
        laid(VANE, [0, 10], [1, 2], channel_name="fill")
    with pytest.raises(EditError, match="takes numbers"):
        laid(VANE, [0, 10], ["#FF0000", "#0000FF"])
    with pytest.raises(EditError, match="at most"):
        laid(VANE, np.arange(20_001).tolist(), [0.0] * 20_001)
    with pytest.raises(ValueError, match="one of each"):
        laid(VANE, [0, 1], [1])


def test_keys_of_one_scene_are_taken_over_by_another_by_name():
    source = scene(
        shape("vane", x=channel((0, 1), (9, 4)), rotation=channel((2, 7), (5, 8), after=("ping-pong", 3))), shape("crow", y=channel((0, 0), (3, 3)))
    )
    tracks = keys_data(source)["tracks"]
    assert [(one["object"], one["channel"]) for one in tracks] == [("Vane", "x"), ("Vane", "rotation"), ("Crow", "y")]
    after = apply_all(VANE, [BringKeys.model_validate({"edit": "bring-keys", "tracks": tracks})])
    ours, theirs = VANE.by_id["vane"].channels["rotation"], source.by_id["vane"].channels["rotation"]
    assert after.by_id["vane"].channels["rotation"] == ours.copy_with(keys=theirs.keys, before=theirs.before, after=theirs.after)
    bare = [{name: one[name] for name in ("object", "channel", "keys")} for one in tracks]
    as_it_was = apply_all(after, [BringKeys.model_validate({"edit": "bring-keys", "tracks": bare})])
    assert as_it_was == after, "ends that are not told stay"
    assert dump(apply_all(source, [BringKeys.model_validate({"edit": "bring-keys", "tracks": tracks})])) == dump(source), (
        "its own keys change nothing"
    )
    with pytest.raises(EditError, match="nothing here is called"):
        apply_all(scene(shape("owl")), [BringKeys.model_validate({"edit": "bring-keys", "tracks": tracks})])
