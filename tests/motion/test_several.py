"""Several objects put in at once: what they name among themselves stays theirs."""

import pytest

from tests.motion.scenes import channel, parade, scene, shape
from vine_swing.elements import elements
from vine_swing.motion import bake
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.edits import apply_all
from vine_swing.motion.edits.several import AddObjects


def added(to, what, prefix="a", **place):
    return apply_all(to, [AddObjects(edit="add-objects", objects=what.objects, prefix=prefix, **place)])


def test_names_that_are_taken_are_other_ones_and_formulas_follow():
    link = {"id": "l", "kind": "link", "channels": ["y"], "settings": {"formula": "{Bar.x} + {Bar 2.x}"}}
    what = scene(shape("bar", x=channel((0, 1), (10, 11))), shape("second", name="Bar 2", x=100), shape("label", name="Label", rules=[link]))
    both = added(scene(shape("bar", x=5000)), what)
    assert [thing.name for thing in both.objects] == ["Bar", "Bar 3", "Bar 2", "Label"]
    assert bake(both)["Label", "y"][10] == 111
    twice = added(both, what, prefix="b")
    assert bake(twice)["Label 2", "y"][10] == 111


def test_leaders_lists_and_parents_are_those_put_in():
    follow = {"id": "f", "kind": "follow", "channels": ["x"], "settings": {"leader": "head", "delay": 2}}
    lists = [{"object": "tail", "channel": "width", "values": [5, 9]}]
    what = scene(shape("head", parent="p"), shape("tail", parent="p", rules=[follow]), parade(settings={"lists": lists}, count=2))
    both = added(scene(), what, x=30, y=-4)
    head, tail, row = both.objects
    assert (head.parent, tail.rules[0].settings["leader"], row.parade.lists[0].object) == ("a-p", "a-head", "a-tail")
    assert (row.channels["x"].base, row.channels["y"].base) == (30, -4)
    assert "x" not in head.channels


def test_ids_that_are_taken_are_refused():
    what = scene(shape("bar"))
    once = added(scene(), what)
    with pytest.raises(EditError, match="begin with 'a' exist in this scene"):
        added(once, what)


@pytest.mark.parametrize("name", list(elements()))
def test_every_ready_element_can_be_put_in_twice(name):
    one = elements()[name].scene
    assert sum(thing.parent is None for thing in one.objects) == 1, "all of it hangs on one object"
    both = added(added(scene(), one), one, prefix="b", x=50)
    assert len(both.objects) == 2 * len(one.objects)
    baked = bake(both)
    assert not baked.beyond
