"""When objects are shown, and their children with that."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.motion.scenes import channel, scene, shape
from tests.motion.test_timing import do
from vine_swing.motion import EditError, bake


def keys(one, name):
    return one.objects[0].channels[name].keys


def test_a_span_hides_what_lies_outside_it_and_all_that_hangs_on_it():
    both = scene(shape("pod", opacity=0.5), shape("seed", parent="pod"), length=10)
    after = do(both, {"edit": "set-span", "id": "pod", "first": 3, "last": 6})
    baked = bake(after, np.array([2.9, 3, 6, 6.9, 7]))
    np.testing.assert_array_equal(baked.objects["pod"].opacity, [0, 0.5, 0.5, 0.5, 0])
    np.testing.assert_array_equal(baked.objects["seed"].opacity, [0, 0.5, 0.5, 0.5, 0])
    with pytest.raises(EditError, match="before its first"):
        do(both, {"edit": "set-span", "id": "pod", "first": 6, "last": 3})


def test_a_span_takes_its_keys_along_when_asked():
    before = do(scene(shape("pod", x=channel((0, 0), (20, 50), (40, 9))), length=41), {"edit": "set-span", "id": "pod", "first": 0, "last": 20})
    stretched = do(before, {"edit": "set-span", "id": "pod", "first": 10, "last": 20, "stretch": True})
    assert [key.frame for key in keys(stretched, "x")] == [10, 20, 30]
    left = do(before, {"edit": "set-span", "id": "pod", "first": 10, "last": 20})
    assert keys(left, "x") == keys(before, "x")


SWAY = {
    "id": "s",
    "kind": "oscillator",
    "channels": ["y"],
    "settings": {"amplitude": {"keys": [{"frame": 0, "value": 1}, {"frame": 40, "value": 9}]}},
}


def bird(**spans):
    """A bird with a wing on it, a feather on that, and a hat that comes and goes; the spans of some of them."""
    parts = [
        shape("bird", x=channel((0, 0), (40, 50))),
        shape("wing", parent="bird", rotation=channel((0, 0), (20, 90), (40, 0)), rules=[SWAY]),
        shape("feather", parent="wing", y=channel((10, 3), (30, 8))),
        shape("hat", parent="bird"),
    ]
    first = scene(*parts, length=101)
    for name, (begin, end) in spans.items():
        first = do(first, {"edit": "set-span", "id": name, "first": begin, "last": end})
    return first


def spans(one):
    return {thing.id: (thing.span.first, thing.span.last) for thing in one.objects}


def frames(one, name, channel_name):
    return [key.frame for key in one.by_id[name].channels[channel_name].keys]


def test_parts_that_ended_with_what_they_hang_on_do_so_again():
    before = bird(bird=(None, 40), wing=(None, 40), feather=(5, 44), hat=(10, 20))
    longer = do(before, {"edit": "set-span", "id": "bird", "first": None, "last": 80})
    after = do(longer, {"edit": "fit-parts", "id": "bird", "first": None, "last": 40, "how": "extend"})
    assert spans(after) == {"bird": (None, 80), "wing": (None, 80), "feather": (5, 80), "hat": (10, 20)}
    assert frames(after, "wing", "rotation") == [0, 20, 40]
    whole = do(after, {"edit": "set-span", "id": "bird"})
    after = do(whole, {"edit": "fit-parts", "id": "bird", "last": 80, "how": "extend"})
    assert spans(after)["wing"] == (None, None), "an end that is the scene's own is that of the parts too"


def test_keys_and_spans_of_parts_are_stretched_along():
    before = bird(bird=(0, 40), wing=(0, 40), hat=(10, 20))
    longer = do(before, {"edit": "set-span", "id": "bird", "first": 20, "last": 100})
    after = do(longer, {"edit": "fit-parts", "id": "bird", "first": 0, "last": 40, "how": "stretch"})
    assert spans(after) == {"bird": (20, 100), "wing": (20, 100), "feather": (None, None), "hat": (40, 60)}
    assert frames(after, "bird", "x") == [0, 40], "its own keys are those of `set-span`"
    assert frames(after, "wing", "rotation") == [20, 60, 100]
    assert frames(after, "feather", "y") == [40, 80]
    amplitude = after.by_id["wing"].rules[0].settings["amplitude"]
    assert [key.frame for key in amplitude.keys] == [20, 100], "settings of rules go along"


@given(st.integers(1, 90), st.integers(0, 60), st.integers(1, 200))
def test_a_stretched_part_turns_the_same_way_in_its_own_time(last, first, length):
    before = bird(bird=(0, last))
    after = do(
        before,
        {"edit": "set-span", "id": "bird", "first": first, "last": first + length},
        {"edit": "fit-parts", "id": "bird", "first": 0, "last": last, "how": "stretch"},
    )
    t = np.linspace(0, last, 25)
    np.testing.assert_allclose(
        bake(after, first + t * length / last).objects["wing"].channels["rotation"],
        bake(before, t).objects["wing"].channels["rotation"],
        atol=1e-7,
    )


def test_a_span_changed_and_changed_back_leaves_parts_as_they_were():
    before = bird(bird=(None, 40), wing=(None, 40), hat=(10, 20))
    there = do(before, {"edit": "set-span", "id": "bird", "last": 80}, {"edit": "fit-parts", "id": "bird", "last": 40, "how": "stretch"})
    back = do(there, {"edit": "set-span", "id": "bird", "last": 40}, {"edit": "fit-parts", "id": "bird", "last": 80, "how": "stretch"})
    assert back == before


def test_what_cannot_follow_is_said():
    before = bird(bird=(4, 4))
    with pytest.raises(EditError, match="nothing is attached to 'Hat'"):
        do(before, {"edit": "fit-parts", "id": "hat", "how": "extend"})
    with pytest.raises(EditError, match="single frame"):
        do(before, {"edit": "fit-parts", "id": "bird", "first": 0, "last": 40, "how": "stretch"})
    with pytest.raises(EditError, match="before its first"):
        do(before, {"edit": "fit-parts", "id": "bird", "first": 9, "last": 4, "how": "extend"})
