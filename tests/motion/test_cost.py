"""What the motion of a scene would keep is reckoned before it is baked: never far from what it then is, and refused in words beyond what fits."""

import time

import pytest

from demo.make import MAKERS
from tests.motion.scenes import channel, scene, shape
from vine_swing.motion import MotionError, bake
from vine_swing.motion.baking.cost import check_cost, kept_numbers
from vine_swing.motion.basics.limits import MOST_KEPT
from vine_swing.motion.scene.scene_file import from_data
from vine_swing.service.motion import Motion

MOVES = channel((0, 0), (100, 50))


def many(count, length):
    return scene(*(shape(f"o{n}", x=MOVES, y=MOVES, rotation=MOVES) for n in range(count)), length=length)


@pytest.mark.parametrize("name", ["mango-drop", "sorting-mill", "river-raft"])
def test_it_is_reckoned_about_right(name):
    one = from_data(MAKERS[next(key for key in MAKERS if name in key)]())
    kept = Motion.of(one, 0).size / 8
    assert 0.5 * kept < kept_numbers(one) < 4 * kept


def test_what_rests_costs_nothing_and_what_hangs_on_something_that_moves_does():
    rests = scene(shape("stone", x=5), shape("moss", parent="stone"), length=100)
    assert kept_numbers(rests) == 0
    hangs = scene(shape("bird", x=MOVES), shape("wing", parent="bird"), shape("tip", parent="wing"), length=100)
    assert kept_numbers(hangs) == 100 * (1 + 3 * 18)


def test_too_much_is_refused_at_once_with_what_would_fit():
    large = many(1000, 20_000)
    began = time.process_time()
    with pytest.raises(MotionError, match=r"420 million numbers.*at most 60 million are kept, so make it no longer than 2,857 frames"):
        check_cost(large)
    assert time.process_time() - began < 1
    fits = large.copy_with(length=2857)
    check_cost(fits)
    assert kept_numbers(fits) <= MOST_KEPT < kept_numbers(large.copy_with(length=2858))


def test_what_was_too_large_before_may_still_be_changed_and_made_smaller():
    large = many(1000, 20_000)
    check_cost(large.copy_with(name="Gorge"), since=large)
    check_cost(large.copy_with(length=19_999), since=large)
    with pytest.raises(MotionError, match="fewer things move"):
        check_cost(many(1001, 20_000), since=large)


def test_scenes_inside_count_as_often_as_they_are_shown():
    inner = {"id": "blink", "name": "Blink", "length": 12, "size": [100, 100], "objects": [shape("eye", x=MOVES)]}
    inset = {"kind": "inset", "inset": {"scene": "blink"}, "channels": {}}
    one = scene(*({"id": f"i{n}", "name": f"Bud {n}", **inset} for n in range(3)), insets=[inner], length=50)
    assert kept_numbers(one) == 50 * 3 * (1 + 18)
    assert bake(one)
