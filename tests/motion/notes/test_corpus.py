"""Every fault is found, and its sound twin is left alone; ready mends put it right; size and rate of the picture change nothing."""

from pathlib import Path

import numpy as np
import pytest
from pydantic import TypeAdapter

from tests.motion.notes.more_faults import PAIRS
from vine_swing.elements import elements
from vine_swing.faults import faults
from vine_swing.motion import bake
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.edits.scene import SetFps
from vine_swing.motion.notes import KINDS, find_notes
from vine_swing.motion.scene.scene_file import from_data, load, to_data
from vine_swing.principles import principles

ALL = [(name, "", one.fault, one.sound) for name, one in faults().items()] + [(kind, what, from_data(a), from_data(b)) for kind, what, a, b in PAIRS]
IDS = [f"{kind} {what}".strip() for kind, what, *_ in ALL]
SHIPPED = {path.stem: path for path in sorted((Path(__file__).resolve().parents[3] / "demo" / "scenes").glob("*.json"))}
EDITS: TypeAdapter[list[AnyEdit]] = TypeAdapter(list[AnyEdit])


def notes(scene):
    return find_notes(bake(scene)).notes


def kinds(scene):
    return {note.kind for note in notes(scene)}


def test_every_kind_has_a_pair_a_label_and_a_reason():
    assert faults().keys() == KINDS.keys()
    for name, kind in KINDS.items():
        assert kind.name == name
        assert kind.label
        assert "Meant" in kind.why or "Never meant" in kind.why
        assert (kind.of_object is None) is (kind.about == "scene") or kind.of_scene is not None


def test_the_corpus_is_large():
    assert len(ALL) >= 60


@pytest.mark.parametrize(("kind", "what", "fault", "sound"), ALL, ids=IDS)
def test_the_fault_is_found_and_nothing_else_and_its_twin_is_left_alone(kind, what, fault, sound):
    assert kinds(fault) == {kind}
    assert [note.text for note in notes(sound)] == []


@pytest.mark.parametrize(("kind", "what", "fault", "sound"), ALL, ids=IDS)
def test_mends_take_their_note_away_and_bring_no_other(kind, what, fault, sound):
    for note in notes(fault):
        for mend in note.mends:
            mended = apply_all(fault, mend.edits)
            left = notes(mended)
            assert (note.kind, note.object, note.frames) not in {(other.kind, other.object, other.frames) for other in left}, mend.label
            assert len(left) < len(notes(fault)), (mend.label, [other.text for other in left])


@pytest.mark.parametrize(("kind", "what", "fault", "sound"), ALL, ids=IDS)
def test_twice_the_frames_a_second_and_half_the_size_give_the_same_notes(kind, what, fault, sound):
    for one in (fault, sound):
        told = [(note.kind, note.object, note.channel) for note in notes(one)]
        quick = SetFps(edit="set-fps", fps=2 * one.fps, keep="seconds").apply(one)
        # Formulas follow frames, and are left out; so is what flashes at every this many of them.
        if not any(rule.kind == "link" for thing in one.objects for rule in thing.rules):
            assert [(note.kind, note.object, note.channel) for note in notes(quick)] == told
        small = halved(one)
        assert [(note.kind, note.object, note.channel) for note in notes(small)] == told


def halved(one):
    """A scene at half its size: every length of its channels and figures, and the picture."""
    data = to_data(one)
    data["size"] = [side // 2 for side in data["size"]]
    for thing, written in zip(one.objects, data["objects"], strict=True):
        for name, channel in written.get("channels", {}).items():
            spec = thing.specs[name]
            if spec.unit == "px" or spec.kind == "point":
                channel["base"] = half(channel["base"]) if channel.get("base") is not None else None
                for key in channel.get("keys", []):
                    key["value"] = half(key["value"])
        # What has no place of its own in a channel has its size from a default.
        for name in ("width", "height", "text.size"):
            if name in thing.specs and name not in thing.channels:
                written["channels"][name] = {"base": thing.specs[name].default / 2}
        for rule in written.get("rules", []):
            for name in ("stride", "amplitude", "low", "high"):
                if name in rule.get("settings", {}) and rule["kind"] in ("gait", "limit", "noise"):
                    rule["settings"][name]["base"] = rule["settings"][name]["base"] / 2
        if written["kind"] == "figure":
            figure = written["figure"]
            figure["spine"], figure["head"] = half(figure["spine"]), half(figure["head"])
            for limb in figure["limbs"]:
                limb["joints"] = half(limb["joints"])
    return from_data(data)


def half(value):
    return [half(one) for one in value] if isinstance(value, list | tuple) else value / 2


@pytest.mark.parametrize("name", [*SHIPPED, *principles(), *elements()])
def test_what_is_shipped_has_at_most_two_notes(name):
    scene = load(SHIPPED[name]) if name in SHIPPED else (principles() | elements())[name].scene
    for part in (scene, *(scene.inner_as_scene(inner.id) for inner in scene.insets)):
        assert len(notes(part)) <= 2, [note.text for note in notes(part)]


def test_after_an_edit_only_what_changed_is_looked_at_again():
    """The notes are those of a look from nothing, and objects of which nothing changed keep theirs."""
    one = from_data(PAIRS[0][2]).copy_with(name="x")
    first = find_notes(bake(one))
    edit = EDITS.validate_python([{"edit": "set-key", "object": "mango", "channel": "opacity", "frame": 40, "value": 0.99}])
    after = apply_all(one, edit)
    again = find_notes(bake(after, previous=first.measures.baked), first)
    assert again.notes == find_notes(bake(after)).notes != first.notes
    assert again.by_object["ground"] is first.by_object["ground"]
    assert again.by_object["mango"] is not first.by_object["mango"]


@pytest.mark.parametrize("what", [{}, {"object": "mango"}, {"object": "mango", "channel": "opacity"}])
def test_hushed_notes_stay_hushed_and_can_be_heard_again(what):
    one = from_data(PAIRS[0][2])
    hush = EDITS.validate_python([{"edit": "hush-note", "kind": "nearly"} | what])
    silent = apply_all(one, hush)
    found = find_notes(bake(silent))
    assert (found.notes, found.hushed) == ((), 1)
    assert from_data(to_data(silent)) == silent
    heard = apply_all(silent, EDITS.validate_python([{"edit": "hush-note", "kind": "nearly", "hushed": False} | what]))
    assert heard == one
    elsewhere = EDITS.validate_python([{"edit": "hush-note", "kind": "nearly", "object": "ground"}])
    assert len(notes(apply_all(one, elsewhere))) == 1


def test_notes_are_sorted_by_how_sure_and_how_bad():
    pair = faults()
    objects = [*pair["flashing"].fault.objects, *(one.copy_with(id="other", name="Other") for one in pair["lone-key"].fault.objects[1:])]
    found = notes(pair["flashing"].fault.copy_with(objects=tuple(objects)))
    assert [note.kind for note in found] == ["flashing", "lone-key"]
    weights = [note.sure * (0.5 + note.bad) for note in found]
    assert weights == sorted(weights, reverse=True)
    assert np.all([0 <= note.sure <= 1 and 0 <= note.bad <= 1 for note in found])
