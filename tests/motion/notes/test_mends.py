"""What notes offer, and where they offer nothing."""

import pytest

from tests.motion.scenes import channel, scene, shape
from vine_swing.motion import bake
from vine_swing.motion.notes import find_notes


@pytest.mark.parametrize(("last", "offered"), [(19_999, ["Make the scene 20000 frames long"]), (20_000, []), (1_000_000, [])])
def test_a_scene_is_only_made_as_long_as_scenes_may_be(last, offered):
    fig = shape("fig", name="Fig", x=channel((0, 0), (last, 300)))
    note = next(one for one in find_notes(bake(scene(fig, length=48))).notes if one.kind == "keys-outside")
    assert [mend.label for mend in note.mends] == offered
