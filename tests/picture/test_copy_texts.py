"""Texts in parades, whose copies say and show something of their own: what each copy paints at a frame is what its values there draw."""

import numpy as np
import pytest
from pydantic import TypeAdapter

from tests.motion.scenes import channel, parade, scene, text
from vine_swing.motion import bake
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.outline.drawing import drawing_of
from vine_swing.picture.drawable import drawn_scene
from vine_swing.picture.paint import Painter

NUMBERS = [3, 14, 159]
KEYED = {"text.size": (20, 60), "tracking": (0.0, 0.5), "leading": (1.0, 2.0)}
LENGTH = 24
EDIT = TypeAdapter(AnyEdit)


def report(lists, delay=0.0, **keyed):
    said = text("Post {number}\nof today", **{name: one.model_dump(by_alias=True) for name, one in keyed.items()}) | {"parent": "p"}
    return scene(said, parade(settings={"lists": lists}, count=3, delay=delay), length=LENGTH)


def own_outline(one, copy, frame):
    """The outline of the text in a copy at a frame of the scene, as painters take it."""
    drawn = drawn_scene(one).parades["p"]
    own = drawn.own[copy].drawn.get("title") if drawn.own else None
    if own is None or own is drawn.element.drawn["title"]:
        row = int(drawn.baked.layout.offsets[copy]) + frame
        return drawn.element.drawn["title"].outline.series.at(row)
    return own.outline.series.at(min(frame, len(own.outline.series.which) - 1))


@pytest.mark.parametrize("delay", [0.0, 5.0, 2.5])
@pytest.mark.parametrize("name", KEYED)
def test_a_keyed_channel_of_a_text_with_a_list_on_its_number(name, delay):
    low, high = KEYED[name]
    numbers = [{"object": "title", "channel": "number", "values": NUMBERS}]
    one = bake(report(numbers, delay, **{name.replace(".", "_"): channel((0, low), (20, high))}))
    Painter(one, scale=0.1).frame(10)
    shared = one.parades["p"].element.objects["title"]
    drawing = drawing_of(shared.source.drawn_shape)
    for copy, number in enumerate(NUMBERS):
        for frame in (0, 7, 20, 23):
            t = np.clip(frame - delay * copy, 0, 20)
            still = {key: float(shared.channels[key][0]) for key in drawing.names}
            values = still | {"number": float(number), name: low + (high - low) * t / 20}
            wanted = drawing.draw(values)
            found = own_outline(one, copy, frame)
            np.testing.assert_allclose(found.points, wanted.points, atol=1e-6)


@pytest.mark.parametrize("delay", [0.0, 5.0])
def test_a_keyed_size_of_a_text_with_words_of_its_own_in_each_copy(delay):
    words = [{"object": "title", "channel": "text", "values": ["Mon", "Tue", "Wed"]}]
    one = bake(report(words, delay, text_size=channel((0, 20), (20, 60))))
    Painter(one, scale=0.1).frame(10)
    for copy in range(3):
        heights = [np.ptp(own_outline(one, copy, frame).points[:, 1]) for frame in (0, 10, 20)]
        later = [np.ptp(own_outline(one, 0, frame).points[:, 1]) for frame in (0, 10, 20)]
        if delay == 0:
            np.testing.assert_allclose(np.divide(heights, heights[0]), np.divide(later, later[0]), rtol=1e-6)
        assert heights[0] <= heights[1] <= heights[2]


def test_an_edit_gives_what_a_fresh_bake_gives():
    numbers = [{"object": "title", "channel": "number", "values": NUMBERS}]
    before = report(numbers, 4.0)
    baked = bake(before)
    keys = [
        EDIT.validate_python({"edit": "set-key", "object": "title", "channel": "text.size", "frame": float(f), "value": v})
        for f, v in ((0, 30.0), (20, 60.0))
    ]
    after = apply_all(before, keys)
    changed, fresh = bake(after, previous=baked), bake(after)
    for copy in range(3):
        for frame in (0, 9, 23):
            np.testing.assert_array_equal(own_outline(changed, copy, frame).points, own_outline(fresh, copy, frame).points)
