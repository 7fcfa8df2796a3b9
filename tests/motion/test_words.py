"""Texts whose words are keyed: what they say at each frame, in the picture, in copies, in files and in exports."""

import json
from io import StringIO

import numpy as np
import pytest
from pydantic import TypeAdapter

from tests.motion.scenes import channel, scene, shape, text
from vine_swing.formats.keys import keys_data
from vine_swing.formats.table import write_csv
from vine_swing.motion import bake
from vine_swing.motion.baking.explain import explain
from vine_swing.motion.basics.errors import EditError, MotionError, SceneFileError
from vine_swing.motion.basics.values import Words
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.outline.drawing import check_drawn, missing_in
from vine_swing.motion.outline.text import Setting, typeset
from vine_swing.motion.scene.scene_file import dump, parse
from vine_swing.picture.drawable import drawn_scene

PLAIN = Setting("figtree", 400, "middle", None, 0.0, 1.2)


def says(*stops, **ends):
    return channel(*((frame, {"text": said}) for frame, said in stops), **ends)


def keyed(*stops, length=24, **ends):
    return scene(text("Closed", text=says(*stops, **ends).model_dump(mode="json", by_alias=True)), length=length)


def edited(before, *edits):
    after = apply_all(before, TypeAdapter(list[AnyEdit]).validate_python(list(edits)))
    check_drawn(after, since=before)
    return after


def said_at(made, frame):
    thing = made.by_id["title"]
    which = bake(made).objects["title"].channels["text"]
    return thing.drawn_shape.saying(which[min(frame, len(which) - 1)])


def test_words_are_said_from_their_key_to_the_next():
    made = keyed((4, "Open"), (10, "Lunch"), (15.5, "Closed"))
    which = bake(made).objects["title"].channels["text"]
    assert which.tolist() == [0.0] * 10 + [1.0] * 6 + [2.0] * 8


def test_each_frame_shows_the_outline_of_what_is_said_there():
    made = keyed((0, "Open"), (10, "Lunch"))
    track = drawn_scene(bake(made)).things["title"].outline
    for frame, said in ((9, "Open"), (10, "Lunch")):
        assert np.array_equal(track.series.at(frame).points, typeset(said, PLAIN).outline(72.0).points)
    # Two texts are drawn, not one for each frame.
    assert len(track.outlines) == 2


@pytest.mark.parametrize(
    ("after", "which"),
    [
        ("hold", [0, 0, 0, 1, 1, 1, 2, 2, 2, 2, 2, 2, 2]),
        ("coast", [0, 0, 0, 1, 1, 1, 2, 2, 2, 2, 2, 2, 2]),
        ("loop", [0, 0, 0, 1, 1, 1, 2, 0, 0, 1, 1, 1, 0]),
        # What climbs starts over: words have no sum.
        ("climb", [0, 0, 0, 1, 1, 1, 2, 0, 0, 1, 1, 1, 0]),
    ],
)
def test_ends_repeat_words_as_they_do_held_numbers(after, which):
    made = keyed((0, "One"), (3, "Two"), (6, "Three"), length=13, after=after)
    held = channel((0, 0, "hold"), (3, 1, "hold"), (6, 2, "hold"), after="loop" if after == "climb" else after)
    assert bake(made).objects["title"].channels["text"].tolist() == which
    assert bake(scene(shape("leaf", x=held), length=13)).objects["leaf"].channels["x"].tolist() == which


def test_a_key_takes_up_what_is_said_and_the_last_one_leaves_it_in_the_shape():
    made = scene(text("Closed"), length=24)
    made = edited(made, {"edit": "set-key", "object": "title", "channel": "text", "frame": 0})
    assert made.by_id["title"].channels["text"].said == ["Closed"]
    made = edited(made, {"edit": "set-key", "object": "title", "channel": "text", "frame": 12, "value": {"text": "Open"}})
    assert [said_at(made, frame) for frame in (0, 11, 12, 23)] == ["Closed", "Closed", "Open", "Open"]
    # A key without words says what is said there.
    made = edited(made, {"edit": "set-key", "object": "title", "channel": "text", "frame": 20})
    assert made.by_id["title"].channels["text"].said == ["Closed", "Open", "Open"]
    gone = {"edit": "delete-keys", "object": "title", "channel": "text", "frames": [0, 12, 20], "keep": "frame", "at": 14}
    left = edited(made, gone)
    assert left.by_id["title"].shape.text == "Open"
    assert not left.by_id["title"].channels["text"].keys
    # Of a text without keys, the value is what its shape says.
    plain = edited(scene(text("Closed")), {"edit": "set-value", "object": "title", "channel": "text", "value": {"text": "Open"}})
    assert plain.by_id["title"].shape.text == "Open"


def test_words_slide_hold_and_paste_as_other_keys_do():
    made = keyed((0, "Open"), (10, "Lunch"))
    slid = edited(made, {"edit": "move-keys", "object": "title", "channel": "text", "frames": [10], "by": 4})
    assert [said_at(slid, frame) for frame in (13, 14)] == ["Open", "Lunch"]
    held = edited(made, {"edit": "hold-here", "object": "title", "channels": ["text"], "frame": 2, "frames": 3, "push": True})
    assert [said_at(held, frame) for frame in (12, 13)] == ["Open", "Lunch"]


def test_numbers_count_within_keyed_words():
    one = text("", text=says((0, "None yet"), (5, "{number} letters")).model_dump(mode="json", by_alias=True), number=channel((0, 0), (10, 100)))
    track = drawn_scene(bake(scene(one, length=11))).things["title"].outline
    assert np.array_equal(track.series.at(6).points, typeset("60 letters", PLAIN).outline(72.0).points)
    assert np.array_equal(track.series.at(4).points, typeset("None yet", PLAIN).outline(72.0).points)


def test_letters_of_a_parade_follow_what_is_said():
    letters = {"id": "row", "name": "Row", "kind": "parade", "parade": {"arrange": "letters"}, "channels": {"delay": 0.0}}
    one = text("", text=says((0, "ab"), (5, "abcd")).model_dump(mode="json", by_alias=True)) | {"parent": "row"}
    parade = bake(scene(letters, one, length=10)).parades["row"]
    drawn = [drawn_scene(bake(scene(letters, one, length=10))).parades["row"].own[k].drawn["title"].outline.series for k in range(len(parade.own))]
    assert [[len(series.at(frame).points) > 0 for series in drawn] for frame in (0, 5)] == [[True, True, False, False], [True] * 4]


def test_a_list_of_words_goes_before_keyed_ones():
    listed = {"object": "title", "channel": "text", "values": ["Monday", None]}
    row = {"id": "row", "name": "Row", "kind": "parade", "parade": {"lists": [listed]}, "channels": {"count": 2.0, "delay": 0.0}}
    one = text("", text=says((0, "Open"), (5, "Closed")).model_dump(mode="json", by_alias=True)) | {"parent": "row"}
    made = scene(row, one, length=10)
    parade = drawn_scene(bake(made)).parades["row"]
    own = parade.own[0].drawn["title"].outline.series
    for frame in (0, 6):
        assert np.array_equal(own.at(frame).points, typeset("Monday", PLAIN).outline(72.0).points)
    shared = parade.element.drawn["title"].outline.series
    assert np.array_equal(shared.at(6).points, typeset("Closed", PLAIN).outline(72.0).points)
    # Taken apart, each copy says by itself what it said in the parade.
    apart = edited(made, {"edit": "take-apart", "id": "row", "frame": 0})
    first, second = (one for one in apart.objects if one.kind == "shape")
    assert (first.shape.text, first.is_keyed("text")) == ("Monday", False)
    assert second.channels["text"].said == ["Open", "Closed"]


def test_files_and_exports_hold_words():
    made = keyed((0, "Open"), (10, "Lunch,\n1 to 2"))
    assert parse(dump(made)) == made
    (track,) = json.loads(json.dumps(keys_data(made)))["tracks"]
    assert [key["value"] for key in track["keys"]] == [{"text": "Open"}, {"text": "Lunch,\n1 to 2"}]
    table = StringIO()
    write_csv(made, table)
    assert '"Lunch,\n1 to 2"' in table.getvalue()


def test_the_vine_shows_which_words_are_said():
    made = keyed((0, "Open"), (10, "Lunch"), after="loop")
    steps = explain(made, "title", "text")
    assert [step.kind for step in steps] == ["keys", "ends", "result"]
    assert steps[0].values[[0, 10, 20]].tolist() == [0, 1, 1]
    assert steps[-1].values[[0, 10, 11]].tolist() == [0, 1, 0]


def test_an_outline_is_made_of_what_is_said_at_a_frame():
    made = edited(keyed((0, "Open"), (10, "Lunch")), {"edit": "make-outline", "id": "title", "frame": 12})
    (drawn,) = drawn_scene(bake(made)).things["title"].outline.outlines
    assert np.allclose(drawn.points, typeset("Lunch", PLAIN).outline(72.0).points, atol=1e-3)
    assert "text" not in made.by_id["title"].channels


def test_what_no_font_has_is_named_of_all_that_is_said():
    assert missing_in(keyed((0, "Mail ☃"), (5, "Mail"), (9, "☎")).by_id["title"].drawn_shape) == ["☃", "☎"]


@pytest.mark.parametrize(
    ("value", "message"),
    [
        ({"edit": "set-key", "object": "title", "channel": "text", "frame": 0, "value": 3}, "it must be words such as"),
        ({"edit": "set-key", "object": "title", "channel": "x", "frame": 0, "value": {"text": "Open"}}, "it must be a number"),
        ({"edit": "set-key", "object": "title", "channel": "text", "frame": 0, "value": {"text": "{number:q}"}}, "has a format that is none"),
        ({"edit": "even-speed", "object": "title", "channels": ["text"]}, "words have no speed"),
    ],
)
def test_what_cannot_be_said_is_refused_with_a_sentence(value, message):
    with pytest.raises((EditError, MotionError), match=message):
        edited(scene(text("Closed")), value)


def test_words_have_no_base_and_no_handles():
    with pytest.raises(SceneFileError, match="words have no base"):
        scene(text("Closed", text={"base": {"text": "Open"}}))
    with pytest.raises(SceneFileError, match="has handles, which words cannot have"):
        scene(text("Closed", text={"keys": [{"frame": 0, "value": {"text": "Open"}, "out": [1, 0]}]}))
    assert Words(text="Open") == Words.model_validate({"text": "Open"})


def test_an_edit_elsewhere_on_the_text_keeps_its_outlines():
    before = bake(made := keyed((0, "Open"), (10, "Lunch")))
    drawn = drawn_scene(before)
    moved = edited(made, {"edit": "set-value", "object": "title", "channel": "x", "value": 40})
    after = drawn_scene(bake(moved, previous=before), drawn)
    assert after.things["title"].outline is drawn.things["title"].outline
