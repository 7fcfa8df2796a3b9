"""Sounds of scenes: dials that follow them, held against the root mean square by its definition; and what becomes of them in edits."""

import numpy as np
import pytest
from pydantic import TypeAdapter

from tests.motion.scenes import scene, shape
from tests.sounds import RATE, kept, struck
from vine_swing.motion import MotionError, bake
from vine_swing.motion.baking.explain import explain
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.edits.parcels import parcel_of
from vine_swing.motion.notes import find_notes
from vine_swing.motion.scene.scene_file import SceneFileError, from_data, to_data
from vine_swing.motion.sound.mixing import Placed, mixed, within_full_scale
from vine_swing.motion.sound.reading import sound_of

EDITS = TypeAdapter(list[AnyEdit])
NOISE = np.random.default_rng(4).normal(size=3 * RATE) * np.linspace(0.02, 0.2, 3 * RATE)


def edited(of, *edits):
    return apply_all(of, EDITS.validate_python(list(edits)))


def heard(sound, **follows):
    """A scene in which a mango's size reads a dial that follows a sound."""
    mango = shape("mango", x=100, rules=[{"id": "r", "kind": "link", "channels": ["width"], "settings": {"formula": "100 + 50 * {Loud}"}}])
    made = scene(mango, dials=[{"id": "loud", "name": "Loud", "low": 0, "high": 1, "channel": {"base": 0.5}}])
    added = {"edit": "add-sound", "sound": sound.model_dump()}
    follow = {"sound": sound.id, "attack": 0, "release": 0} | follows
    return edited(made, added, {"edit": "set-dial", "id": "loud", "follows": follow})


def test_a_dial_follows_the_root_mean_square_of_each_frame():
    sound = kept(NOISE, first=10, begin=0.5)
    baked = bake(heard(sound))
    samples = sound_of(sound.file).samples.astype(float)[round(0.5 * RATE) :]
    edges = np.round(np.arange(62) * RATE / 24).astype(int)
    rms = np.array([np.sqrt(np.mean(samples[a:b] ** 2)) for a, b in zip(edges, edges[1:], strict=False) if a < len(samples)])
    expected = np.zeros(120)
    expected[10 : 10 + len(rms)] = rms / rms.max()
    np.testing.assert_allclose(baked.dials["loud"], expected, atol=1e-6)
    np.testing.assert_allclose(baked["Mango", "width"], 100 + 50 * expected, atol=1e-4)
    assert explain(baked.scene, "dial:loud", "value")[0].kind == "sound"


def test_between_frames_it_goes_in_a_straight_line_and_its_range_is_the_dials():
    made = edited(heard(kept(NOISE)), {"edit": "set-dial", "id": "loud", "low": -2, "high": 6})
    at = bake(made, np.array([20.0, 20.25, 21.0])).dials["loud"]
    assert at[1] == pytest.approx(0.75 * at[0] + 0.25 * at[2])
    whole = bake(made).dials["loud"]
    assert (whole[72:] == -2).all()
    assert whole.max() == pytest.approx(6)


def test_moving_the_sound_moves_what_follows_it_also_in_an_incremental_bake():
    made = heard(kept(NOISE))
    before = bake(made)
    moved = edited(made, {"edit": "set-sound", "id": "drum", "first": 24})
    after = bake(moved, previous=before)
    np.testing.assert_array_equal(after["Mango", "width"], bake(moved)["Mango", "width"])
    np.testing.assert_allclose(after.dials["loud"][24:96], before.dials["loud"][:72], atol=1e-9)


def test_without_its_sound_a_dial_goes_by_its_keys():
    made = edited(heard(kept(NOISE)), {"edit": "delete-sound", "id": "drum"})
    assert (bake(made).dials["loud"] == 0.5).all()
    with pytest.raises(MotionError, match="there is no sound 'drum'"):
        edited(made, {"edit": "set-dial", "id": "loud", "follows": {"sound": "drum"}})


def test_a_sound_and_what_follows_it_come_back_from_a_file():
    made = edited(heard(kept(NOISE)), {"edit": "set-markers", "markers": [{"frame": 9}, {"frame": 3, "name": "hop"}]})
    twice = edited(made, {"edit": "add-sound", "sound": made.sounds[0].model_dump() | {"id": "again", "first": 80}})
    assert [one.name for one in twice.sounds] == ["Drum", "Drum 2"]
    data = to_data(twice)
    assert ["data" in one for one in data["sounds"]] == [True, False]
    assert from_data(data) == twice
    assert [one.frame for one in twice.markers] == [3, 9]


@pytest.mark.parametrize(
    ("change", "fault"),
    [
        ({"begin": 5.0}, "where it has ended already"),
        ({"file": "sound-0123456789abcdef"}, "has no content"),
        ({"seconds": 2.0}, "said to be 2 s long"),
        ({"first": 2e7}, "1000000|integer"),
    ],
)
def test_a_sound_that_cannot_be_heard_is_refused(change, fault):
    with pytest.raises((MotionError, ValueError), match=fault):
        edited(scene(), {"edit": "add-sound", "sound": kept(NOISE).model_dump() | change})


def test_a_file_whose_sound_is_another_is_refused():
    data = to_data(heard(kept(NOISE)))
    data["sounds"][0]["data"] = "AAAA"
    with pytest.raises(SceneFileError, match="its content is that of"):
        from_data(data)


def test_trimming_with_keep_leaves_what_is_heard_on_its_frames():
    made = heard(kept(NOISE, first=10))
    before = bake(made).dials["loud"]
    trimmed = edited(made, {"edit": "set-sound", "id": "drum", "begin": 1.01, "keep": True})
    assert trimmed.sounds[0].first == 34
    assert trimmed.sounds[0].begin == pytest.approx(1.0)
    np.testing.assert_allclose(bake(trimmed).dials["loud"][34:], before[34:], atol=1e-9)


def test_other_frames_a_second_keep_sounds_and_markers_at_their_seconds():
    made = edited(
        heard(kept(NOISE, first=12)),
        {"edit": "set-markers", "markers": [{"frame": 24}]},
        {"edit": "set-beat", "beat": {"minute": 120, "first": 6}},
        {"edit": "set-fps", "fps": 48, "keep": "seconds"},
    )
    assert (made.sounds[0].first, made.markers[0].frame, made.beat.first, made.beat.minute) == (24, 48, 12, 120)


def test_a_copied_object_brings_the_sound_along_that_its_dial_follows():
    made = heard(kept(NOISE))
    parcel = parcel_of(made, ["mango"], 0).scene
    assert [one.id for one in parcel.sounds] == ["drum"]
    pasted = edited(scene(), {"edit": "place-parcel", "parcel": to_data(parcel), "prefix": "p"})
    np.testing.assert_allclose(bake(pasted)["Mango", "width"], bake(made)["Mango", "width"])
    # Where the same sound is heard already it is not heard twice.
    again = edited(pasted, {"edit": "delete-dial", "id": "loud"}, {"edit": "place-parcel", "parcel": to_data(parcel), "prefix": "q"})
    assert [one.id for one in again.sounds] == ["drum"]


def test_a_mix_is_the_sum_of_its_sounds_at_their_moments():
    rate = 1000
    one = Placed(np.full((2, 500), 0.5, np.float32), 0.25, np.array([0.0, 1.0]), np.array([1.0, 1.0]))
    other = Placed(np.tile(np.float32([1, -1]), (2, 400)), -0.1, np.array([0.0, 0.5, 1.0]), np.array([0.0, 1.0, 1.0]))
    found = mixed([one, other], rate, 0.0, 1.0)
    t = np.arange(1000) / rate
    expected = np.where((t >= 0.25) & (t < 0.75), 0.5, 0.0)
    wave = np.where(np.arange(100, 1100) % 2 == 0, 1.0, -1.0) * (t < 0.7)
    np.testing.assert_allclose(found[0], expected + wave * np.minimum(1, t * 2), atol=1e-6)
    turned, by = within_full_scale(found)
    assert np.abs(turned).max() == pytest.approx(1)
    assert by == pytest.approx(20 * np.log10(np.abs(found).max()))


def test_strokes_of_one_sound_are_no_onsets_of_its_end():
    sound = kept(struck([0.5, 1.0], 1.2))
    from vine_swing.motion.sound.analysis import onsets_of, peaks_of

    np.testing.assert_allclose(onsets_of(sound.file), [0.5, 1.0], atol=1 / 24)
    peaks = peaks_of(sound.file)
    assert peaks.shape == (120, 2)
    samples = sound_of(sound.file).samples
    assert peaks[:, 1].max() == round(float(samples.max()) * 127)
    assert (peaks[:40] == 0).all()


def test_notes_tell_of_a_dial_whose_sound_is_gone_and_know_that_a_sound_reads_its_dial():
    made = edited(heard(kept(NOISE)), {"edit": "delete-sound", "id": "drum"})
    (note,) = [one for one in find_notes(bake(made)).notes if one.kind == "dead-link"]
    assert (note.object, note.text) == ("dial:loud", "The dial Loud follows a sound that is not here any more, so it goes by its keys.")
    mended = apply_all(made, note.mends[0].edits)
    assert mended.dials[0].follows is None
    # A dial by which a sound is turned up and down is used.
    fade = {"edit": "add-dial", "dial": {"id": "fade", "name": "Fade"}}
    turned = edited(scene(), {"edit": "add-sound", "sound": kept(NOISE).model_dump()}, fade)
    assert [one.kind for one in find_notes(bake(turned)).notes] == ["unused-dial"]
    assert [one.kind for one in find_notes(bake(edited(turned, {"edit": "set-sound", "id": "drum", "dial": "fade"}))).notes] == []
