"""After whatever was edited, notes are found, those of a scene are those of it looked at afresh, and what they offer can be done."""

import json
import random

import pytest

from tests.hard.any_changes import FIRST, ROUNDS, changes
from vine_swing.motion import MotionError
from vine_swing.motion.edits import apply_all
from vine_swing.motion.notes import find_notes

#: So often notes are looked for after an edit: they take longer than the edit.
OFTEN = 0.3


@pytest.mark.parametrize("number", range(FIRST, FIRST + ROUNDS))
def test_notes_after_edits_are_those_of_a_fresh_look_and_their_mends_can_be_made(number):
    draw, known = random.Random(number), None
    for changed in changes(number):
        if draw.random() > OFTEN:
            continue
        told = f"{number}, {changed.scene.name}: {json.dumps(changed.edits)[-2000:]}"
        known = find_notes(changed.motion.baked, known)
        assert known.notes == find_notes(changed.motion.baked).notes, told
        for note in known.notes:
            for mend in note.mends:
                try:
                    changed.motion.updated(apply_all(changed.scene, mend.edits), changed.motion.revision + 1)
                except MotionError as error:
                    pytest.fail(f"{told}: '{mend.label}' of {note.kind}: {error}")
