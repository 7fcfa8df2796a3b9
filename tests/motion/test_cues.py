"""Cues, and laying down what was played with them: the keys written as keys show exactly what the presses showed."""

import numpy as np
import pytest
from hypothesis import example, given, note, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter

from tests.motion.scenes import channel, channels, scene, shape
from vine_swing.motion import EditError, SceneFileError, bake
from vine_swing.motion.basics import colour
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.timing.channel import Channel

EDITS: TypeAdapter[list[AnyEdit]] = TypeAdapter(list[AnyEdit])
RAISE = {"id": "raise", "name": "Raise", "first": 4, "last": 16, "objects": ["flag"], "key": "r"}
LOWER = {"id": "lower", "name": "Lower", "first": 20, "last": 30, "objects": ["flag"], "key": "l", "plays": "held"}
FLAG = channel((4, 0, "slow-out-in"), (10, -60, "slow-out-in"), (16, -90), (20, -90, "slow-in"), (30, 0))


def do(one, *edits):
    return apply_all(one, EDITS.validate_python(list(edits)))


def played(source, presses, cues, start, rest, frames):
    """What an object shows frame by frame while presses are played: the frame of the source it stands at."""
    at = np.full(frames, float(rest))
    for n, (cue, pressed, runs) in enumerate(presses):
        until = presses[n + 1][1] if n + 1 < len(presses) else frames
        length = cues[cue]["last"] - cues[cue]["first"] + 1
        stood = cues[cue]["first"] + (min(runs, until - pressed) - 1) % length
        for f in range(pressed, min(until, frames)):
            at[f] = cues[cue]["first"] + (f - pressed) % length if f - pressed < runs else stood
    return source[at.astype(int)]


#: A key with a handle of its own, arrived at on a slope.
HANDLED = Channel.model_validate({"keys": [{"frame": 2, "value": 0, "ease": "hold", "in": [0, 1]}], "before": {"mode": "coast"}})


@given(
    data=channels(most=5),
    gaps=st.lists(st.tuples(st.sampled_from(["raise", "lower"]), st.integers(1, 40), st.integers(1, 45)), min_size=1, max_size=5),
    rest=st.integers(0, 30),
)
@example(data=HANDLED, gaps=[("raise", 1, 1)], rest=0)
@settings(max_examples=40, deadline=None)
def test_keys_laid_down_show_what_was_played(data, gaps, rest):
    at, presses = 0, []
    for cue, gap, runs in gaps:
        at += gap
        presses.append((cue, at, runs))
    one = scene(shape("flag", name="Flag", rotation=data), length=48, cues=[RAISE, LOWER])
    source = bake(one)["Flag", "rotation"]
    if not data.keys:
        return
    laid = do(one, {"edit": "lay-presses", "start": 40, "rest": rest, "presses": [{"cue": c, "at": a, "runs": r} for c, a, r in presses]})
    frames = laid.length - 40
    assert laid.length >= 40 + max(a + r for _, a, r in presses)
    expected = played(source, presses, {"raise": RAISE, "lower": LOWER}, 40, rest, frames)
    note(data.model_dump_json(exclude_defaults=True, by_alias=True))
    reach = float(np.ptp([*source, *(key.value for key in data.keys)])) or 1.0
    found = bake(laid)["Flag", "rotation"]
    np.testing.assert_allclose(found[40:], expected, atol=reach * 2e-3)
    np.testing.assert_allclose(found[:40], source[:40], atol=reach * 2e-3, err_msg="what was there before stays")


def test_a_press_lays_the_very_keys_of_its_stretch():
    one = scene(shape("flag", name="Flag", rotation=FLAG), length=40, cues=[RAISE])
    laid = do(one, {"edit": "lay-presses", "start": 50, "rest": 0, "presses": [{"cue": "raise", "at": 10, "runs": 13}]})
    keys = {key.frame: (key.value, key.ease) for key in laid.by_id["flag"].channels["rotation"].keys if key.frame >= 50}
    assert keys == {50: (0, "hold"), 60: (0, "slow-out-in"), 66: (-60, "slow-out-in"), 72: (-90, "hold")}
    before, after = (each.by_id["flag"].channels["rotation"].keys for each in (one, laid))
    assert after[:5] == (*before[:4], before[4].copy_with(ease="hold")), "what was there stays, and stands still until the presses begin"
    assert laid.length == 73


def test_cues_move_what_hangs_on_their_objects_and_nothing_else():
    things = [shape("mast", name="Mast"), shape("flag", name="Flag", parent="mast", rotation=FLAG), shape("bee", name="Bee", x=FLAG)]
    one = scene(*things, length=40, cues=[RAISE | {"objects": ["mast"]}])
    laid = do(one, {"edit": "lay-presses", "start": 50, "rest": 0, "presses": [{"cue": "raise", "at": 0, "runs": 5}]})
    assert laid.by_id["bee"] is one.by_id["bee"]
    assert bake(laid)["Flag", "rotation"][54] == pytest.approx(bake(one)["Flag", "rotation"][8], abs=0.1)


def test_colours_and_paths_are_laid_down_too():
    path = {"keys": [{"frame": 4, "value": [0, 0]}, {"frame": 16, "value": [60, 90]}]}
    flag = shape("flag", name="Flag", fill=channel((0, "#FF0000"), (24, "#0000FF")))
    flag["channels"]["path"] = path
    one = scene(flag, length=40, cues=[RAISE])
    laid = bake(do(one, {"edit": "lay-presses", "start": 50, "rest": 0, "presses": [{"cue": "raise", "at": 0, "runs": 9}]}))
    plain = bake(one)
    np.testing.assert_allclose(laid["Flag", "x"][50:59], plain["Flag", "x"][4:13], atol=1e-6)
    np.testing.assert_allclose(laid["Flag", "fill"][50:59], plain["Flag", "fill"][4:13], atol=1 / 255)
    assert colour.to_hex(plain["Flag", "fill"][12]) == colour.to_hex(laid["Flag", "fill"][58])


@pytest.mark.parametrize(
    ("cue", "match"),
    [
        ({"last": 2}, "before it begins"),
        ({"objects": ["nobody"]}, "no object of this scene"),
        ({"click": "nobody"}, "no object of this scene"),
        ({"key": "R"}, "should"),
        ({"key": "rr"}, "should"),
        ({"plays": "twice"}, "should"),
    ],
)
def test_bad_cues_are_refused_by_files_and_edits(cue, match):
    with pytest.raises(SceneFileError, match=match):
        scene(shape("flag", name="Flag"), cues=[RAISE | cue])
    with pytest.raises(Exception, match=match):
        do(scene(shape("flag", name="Flag")), {"edit": "add-cue", "cue": RAISE | cue})


def test_cues_are_edited_and_let_go_of_what_is_deleted():
    one = do(scene(shape("flag", name="Flag"), shape("bell", name="Bell")), {"edit": "add-cue", "cue": RAISE | {"click": "bell"}})
    changed = do(one, {"edit": "set-cue", "cue": RAISE | {"name": "Up", "objects": ["flag", "bell"], "click": "bell"}})
    assert changed.cues[0].name == "Up"
    without = do(changed, {"edit": "delete-object", "id": "bell"})
    assert (without.cues[0].objects, without.cues[0].click) == (("flag",), None)
    assert not do(changed, {"edit": "delete-cue", "id": "raise"}).cues
    with pytest.raises(EditError, match="add keys there first"):
        do(changed, {"edit": "lay-presses", "start": 0, "rest": 0, "presses": [{"cue": "raise", "at": 0, "runs": 5}]})
    with pytest.raises(EditError, match="two cues"):
        do(changed, {"edit": "add-cue", "cue": RAISE})
