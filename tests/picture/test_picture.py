"""Outlines and painting."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.motion.scenes import channel, scene, shape
from vine_swing.cli.serving import DEMO_SCENES
from vine_swing.motion import MotionError, bake, load
from vine_swing.motion.basics.specs import SHAPE_CHANNELS, within
from vine_swing.motion.curves import svg_path
from vine_swing.motion.curves.outline import CLOSE, CUBIC, MOVE, POINTS_TAKEN
from vine_swing.motion.curves.svg_path import parse_path
from vine_swing.motion.outline.drawing import check_drawn
from vine_swing.motion.outline.shapes import DRAWN, ellipse, polygon, rectangle, star
from vine_swing.picture.drawable import drawables
from vine_swing.picture.listing import hidden
from vine_swing.picture.paint import Painter
from vine_swing.picture.preview import preview

sizes = st.floats(0, 500)


@given(st.sampled_from([name for name in DRAWN if name != "line"]), sizes, sizes, st.floats(-1, 12), st.floats(-0.5, 1.5))
def test_every_shape_lies_within_its_size_and_is_closed(name, width, height, points, share):
    draw, words = DRAWN[name]
    given_values = {"width": width, "height": height, "points": points, "roundness": share, "inner": share}
    # Values come to it as they are read: within their limits, and whole where they count.
    outline = draw(**{word: within(SHAPE_CHANNELS[name][channel], given_values[channel]) for channel, word in words.items()})
    assert np.isfinite(outline.points).all()
    assert (np.abs(outline.points) <= np.array([width, height]) / 2 + 1e-9).all()
    assert sum(POINTS_TAKEN[verb] for verb in outline.verbs) == len(outline.points)
    assert outline.verbs[0] == MOVE
    assert outline.verbs[-1] == CLOSE


def test_an_ellipse_is_round_within_a_three_thousandth():
    outline = ellipse(width=200, height=200)
    curves = [outline.points[i : i + 4] for i in range(1, len(outline.points), 4)]
    s = np.linspace(0, 1, 50)[:, None]
    for a, b, c, d in curves:
        on = (1 - s) ** 3 * a + 3 * (1 - s) ** 2 * s * b + 3 * (1 - s) * s**2 * c + s**3 * d
        assert abs(np.hypot(on[:, 0], on[:, 1]) - 100).max() < 0.03


def test_corners():
    assert polygon(width=2, height=2, points=4).points.round(9).tolist() == [[0, -1], [1, 0], [0, 1], [-1, 0]]
    assert len(star(width=2, height=2, points=5, inner=0.4).points) == 10
    assert rectangle(width=8, height=4, roundness=0).points.tolist() == [[-4, -2], [4, -2], [4, 2], [-4, 2]]
    assert rectangle(width=8, height=4, roundness=1).bounds() == (-4, -2, 4, 2)


def test_svg_paths_of_every_command():
    outline = parse_path("M10 10 h20 v20 l-5 5 Q 0 50 0 30 t 4 4 C 1 2 3 4 5 6 s 1 1 2 2 A 10 10 0 0 1 30 30 z m 5 5 l 3 3")
    assert outline.verbs.count(MOVE) == 2
    assert outline.verbs.count(CLOSE) == 1
    assert outline.verbs.count(CUBIC) >= 5
    quadratic = parse_path("M0 0 Q 3 6 6 0")
    assert quadratic.points.tolist() == [[0, 0], [2, 4], [4, 4], [6, 0]]


@pytest.mark.parametrize(
    ("data", "says"),
    [("hello", "draws nothing|not SVG"), ("M 5 5", "draws nothing"), ("M0 0 L 1e300 0", "ten million"), ("M0 0 L x y", "draws nothing|not SVG")],
)
def test_bad_paths_are_refused_by_the_objects_name(data, says):
    one = shape("hill") | {"shape": {"type": "outline", "d": data}}
    with pytest.raises(MotionError, match=f"'Hill': .*({says})"):
        check_drawn(scene(one))


def test_outlines_over_time_are_kept_once_each():
    baked = bake(scene(shape("pod", width=channel((0, 10, "hold"), (5, 20))), length=10))
    track = drawables(baked)["pod"].outline
    assert len(track.outlines) == 2
    assert track.which.tolist() == [0] * 5 + [1] * 5


def test_drawables_are_shared_where_nothing_changed():
    one = scene(shape("pod"), shape("nut", x=3))
    first = bake(one)
    drawn = drawables(first)
    again = drawables(bake(one.copy_with(objects=(one.objects[0].copy_with(shown=False), one.objects[1])), previous=first), drawn)
    assert again["nut"] is drawn["nut"]
    assert again["pod"].outline is drawn["pod"].outline


def test_hidden_things_hide_what_hangs_on_them():
    one = scene(shape("a") | {"shown": False}, shape("b", parent="a"), shape("c", parent="b"), shape("d"))
    assert hidden(one) == ["a", "b", "c"]


def colour_at(picture, x, y):
    return tuple(picture[y, x, :3])


def test_painting_order_opacity_and_matrices():
    one = scene(
        shape("back", type="rectangle", x=50, y=50, width=60, height=60, fill="#FF0000"),
        shape("front", type="rectangle", x=channel((0, 50), (1, 90)), y=50, width=20, height=20, fill="#0000FF", opacity=0.5),
        size=[100, 100],
        background="#FFFFFF",
        length=2,
    )
    painter = Painter(bake(one))
    first, second = painter.frame(0), painter.frame(1)
    assert colour_at(first, 5, 5) == (255, 255, 255)
    assert colour_at(first, 25, 50) == (255, 0, 0)
    assert colour_at(first, 50, 50) == (128, 0, 127) or abs(int(first[50, 50, 0]) - 128) <= 1
    assert colour_at(second, 50, 50) == (255, 0, 0)
    assert abs(int(second[50, 90, 0]) - 128) <= 1
    small = Painter(bake(one), scale=0.5).frame(0)
    assert small.shape == (50, 50, 4)
    assert colour_at(small, 12, 25) == (255, 0, 0)


def test_strokes_are_scaled_with_their_object():
    one = scene(
        shape("rope", type="line", x=10, y=50, end_x=8, stroke="#000000", stroke_width=2, scale_x=10, scale_y=10),
        size=[100, 100],
        background="#FFFFFF",
        length=1,
    )
    picture = Painter(bake(one)).frame(0)
    assert colour_at(picture, 50, 50) == (0, 0, 0)
    assert colour_at(picture, 50, 42) == (0, 0, 0)
    assert colour_at(picture, 50, 38) == (255, 255, 255)


def test_paths_of_many_closed_parts_are_read_as_ever(monkeypatch):
    data = "M1 2 h5v5z m 3 4 l 5 5 z L 9 9 z l 1 1 h 3 z M 5 5 a 3 3 0 1 0 4 4 z"
    at_once = parse_path(data)
    monkeypatch.setattr(svg_path, "_FEW_CLOSES", 0)
    in_parts = parse_path.__wrapped__(data)
    assert in_parts.verbs == at_once.verbs
    np.testing.assert_array_equal(in_parts.points, at_once.points)


def test_long_paths_take_time_in_line_with_their_length():
    """Arcs and close-paths by the thousand: each would take minutes if every one looked back at all before it."""
    assert len(parse_path("M0 0" + "a5 5 0 1 1 9 0" * 6000).verbs) > 12_000
    assert len(parse_path("M0 0" + "h5v5z" * 12_000).verbs) == 1 + 36_000


def test_arcs_keep_to_their_circle():
    outline = parse_path("M 100 0 A 100 100 0 1 1 -100 0 A 100 100 0 1 1 100 0 z")
    points = np.concatenate(outline.lines(parts=8))
    np.testing.assert_allclose(np.hypot(*points.T), 100, rtol=1e-5)


def test_a_line_without_length_is_not_drawn():
    still = scene(shape("line", type="line", end_x=0, stroke_width=20, stroke="#000000", x=100, y=100), size=[200, 200])
    assert np.ptp(Painter(bake(still)).frame(0), axis=(0, 1)).max() == 0


@pytest.mark.parametrize("size", [(1, 1), (1, 90), (3, 2)])
def test_a_thumbnail_of_a_demo_scene_in_a_tiny_frame(size):
    for path in sorted(DEMO_SCENES.glob("*.json")):
        assert preview(bake(load(path).copy_with(size=size)))[8:12] == b"WEBP"
