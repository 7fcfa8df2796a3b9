"""Channels: in-betweens, many at once, and colours."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.motion.scenes import channel, channels
from vine_swing.motion.basics import colour
from vine_swing.motion.timing.channel import Channel
from vine_swing.motion.timing.evaluate import evaluate, evaluate_colours

T = np.arange(-50, 150, 0.5)


@given(st.lists(channels(), min_size=1, max_size=6))
def test_many_channels_together_are_as_each_alone(some):
    together = evaluate(some, T)
    assert together.shape == (len(some), len(T))
    for row, one in zip(together, some, strict=True):
        assert row.tolist() == evaluate([one], T)[0].tolist()


@given(channels())
def test_every_key_is_met_exactly(one):
    frames = np.array([key.frame for key in one.keys])
    assert evaluate([one], frames)[0].tolist() == [key.value for key in one.keys]


def test_each_channel_can_have_its_own_frames():
    some = [channel((0, 0), (10, 10)), channel((0, 0), (10, 20))]
    assert evaluate(some, np.array([[1.0, 2.0], [3.0, 4.0]])).tolist() == [[1, 2], [6, 8]]


def test_hold_keeps_its_value_to_the_last_moment():
    one = channel((0, 1, "hold"), (10, 5, "hold"), (20, 9))
    assert evaluate([one], np.array([0, 9.999, 10, 19.999, 20]))[0].tolist() == [1, 1, 5, 5, 9]


def test_keys_are_put_in_order_and_must_not_share_a_frame():
    assert [key.frame for key in channel((9, 1), (3, 2)).keys] == [3, 9]
    with pytest.raises(ValueError, match="two keys share frame 3"):
        channel((3, 1), (3, 2))


def test_a_plain_value_is_a_channel_that_never_changes():
    assert Channel.model_validate(4.5) == Channel(base=4.5)
    assert Channel.model_validate("#FFF") == Channel(base="#FFF")
    with pytest.raises(ValueError, match="valid"):
        Channel.model_validate(True)


def test_colours_blend_in_oklab():
    one = channel((0, "#FF0000"), (10, "#0000FF"))
    rgba = evaluate_colours([one], np.array([0.0, 5.0, 10.0]))[0]
    assert [colour.to_hex(c) for c in rgba] == ["#FF0000", "#8C53A2", "#0000FF"]


def test_fading_colours_keep_their_hue():
    one = channel((0, "#D0365BFF"), (10, "#00FF0000"))
    (half,) = evaluate_colours([one], np.array([5.0]))[0]
    assert half[3] == pytest.approx(0.5)
    assert colour.to_hex(np.append(half[:3], 1)) == "#D0365B"


@given(st.integers(0, 0xFFFFFFFF))
def test_every_hex_colour_survives_oklab(number):
    text = f"#{number:08X}"
    back = colour.to_hex(colour.from_oklab(colour.to_oklab(colour.parse_hex(text))))
    if text.endswith("00"):
        assert back == "#00000000"
    else:
        # Premultiplying by a small alpha costs nothing but the last bit of a float.
        assert back == (text[:7] if text.endswith("FF") else text)


@pytest.mark.parametrize(("short", "whole"), [("#abc", "#AABBCC"), ("#abc8", "#AABBCC88"), ("#A1B2C3FF", "#A1B2C3")])
def test_short_forms(short, whole):
    assert colour.to_hex(colour.parse_hex(short)) == whole
