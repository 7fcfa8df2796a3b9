"""Every fault is found, and its sound twin is left alone; ready mends put it right; size and rate of the picture change nothing."""

import pytest
from pydantic import TypeAdapter

from vine_swing.faults import faults
from vine_swing.motion import bake
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.notes import KINDS, look

EDITS: TypeAdapter[list[AnyEdit]] = TypeAdapter(list[AnyEdit])


def notes(scene):
    return look(bake(scene)).notes


def kinds(scene):
    return {note.kind for note in notes(scene)}


def test_every_kind_has_a_pair_a_label_and_a_reason():
    assert faults().keys() == KINDS.keys()
    for name, kind in KINDS.items():
        assert kind.name == name
        assert kind.label
        assert "Meant" in kind.why or "Never meant" in kind.why
        assert (kind.of_object is None) is (kind.about == "scene") or kind.of_scene is not None


@pytest.mark.parametrize("name", list(KINDS))
def test_the_fault_is_found_and_nothing_else_and_its_twin_is_left_alone(name):
    pair = faults()[name]
    assert kinds(pair.fault) == {name}
    assert notes(pair.sound) == ()


@pytest.mark.parametrize("name", list(KINDS))
def test_mends_take_their_note_away_and_bring_no_other(name):
    pair = faults()[name]
    for note in notes(pair.fault):
        for mend in note.mends:
            mended = apply_all(pair.fault, mend.edits)
            left = notes(mended)
            assert (note.kind, note.object, note.frames) not in {(other.kind, other.object, other.frames) for other in left}, mend.label
            assert len(left) < len(notes(pair.fault)), (mend.label, [other.text for other in left])
