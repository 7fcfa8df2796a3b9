"""Outlines that become one another, by keys."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import TypeAdapter

from vine_swing.motion import bake
from vine_swing.motion.curves.contours import area, contours_of
from vine_swing.motion.curves.matching import matched
from vine_swing.motion.curves.outline import Outline
from vine_swing.motion.curves.svg_path import parse_path, path_data
from vine_swing.motion.edits import AnyEdit, apply_all
from vine_swing.motion.scene.scene_file import from_data

SQUARE = "M 0 0 L 100 0 L 100 100 L 0 100 Z"
DIAMOND = "M 50 -20 L 120 50 L 50 120 L -20 50 Z"
#: The same as a square, from another corner and the other way.
TURNED = "M 100 100 L 100 0 L 0 0 L 0 100 Z"
TRIANGLE = "M 0 0 L 90 10 L 30 80 Z"
BLOB = "M 0 -50 C 30 -50 50 -30 50 0 C 50 30 20 60 0 40 C -30 20 -50 30 -50 0 C -50 -30 -30 -50 0 -50 Z"
RING = "M 0 0 L 100 0 L 100 100 L 0 100 Z M 30 30 L 30 70 L 70 70 L 70 30 Z"
WAVE = "M 0 0 C 30 -40 60 40 100 0"
ALL = [SQUARE, DIAMOND, TURNED, TRIANGLE, BLOB, RING, WAVE, "M 0 0 L 50 0 L 50 50"]


def keyed(*keys, length=21, after=None, rules=()):
    channel = {"keys": [dict(zip(("frame", "value", "ease"), key, strict=False)) for key in keys]} | ({"after": after} if after else {})
    thing = {
        "id": "o",
        "name": "O",
        "kind": "shape",
        "shape": {"type": "outline", "d": SQUARE},
        "channels": {"outline": channel},
        "rules": list(rules),
    }
    return from_data({"format": "vine-swing-scene", "version": 1, "length": length, "objects": [thing]})


def series(*keys, **more):
    return bake(keyed(*keys, **more)).named("O").bent


def areas(outline: Outline) -> float:
    return sum(float(area(one)[0]) for one in contours_of(outline.verbs, outline.points[None]))


def dense(outline: Outline) -> np.ndarray:
    return np.concatenate(outline.lines(parts=40))


def test_at_a_key_the_outline_is_the_keys_own():
    one = series((0, SQUARE), (10, BLOB), (20, RING))
    for frame, path in ((0, SQUARE), (10, BLOB), (20, RING)):
        assert one.at(frame).verbs == parse_path(path).verbs
        np.testing.assert_array_equal(one.at(frame).points, parse_path(path).points)


def test_equal_commands_go_straight_by_the_ease():
    one = series((0, SQUARE, {"bezier": [0.42, 0, 0.58, 1]}), (20, DIAMOND))
    a, b = parse_path(SQUARE).points, parse_path(DIAMOND).points
    share = (one.at(7).points - a)[0, 0] / (b - a)[0, 0]
    np.testing.assert_allclose(one.at(7).points, a + share * (b - a), atol=1e-9)
    assert one.at(10).points == pytest.approx((a + b) / 2, abs=1e-4)


def test_the_first_point_and_the_direction_with_the_least_way_are_found():
    match = matched(parse_path(BLOB.replace("Z", "L 0 -50 Z")), parse_path(SQUARE))
    assert len(match.first) == len(match.second)
    # The curve is on the lower side, evenly.
    square, turned = parse_path(SQUARE.replace("L 0 100", f"C {200 / 3} 100 {100 / 3} 100 0 100")), parse_path(TURNED)
    same = matched(square, turned)
    np.testing.assert_allclose(same.first, same.second, atol=1e-6, err_msg="the same square stays where it is")


def test_corners_stay_corners_where_both_have_as_many():
    rounder = "M 0 0 C 40 -30 60 -30 100 0 L 140 120 L 0 100 Z"
    match = matched(parse_path(SQUARE), parse_path(rounder))
    corners = {tuple(point) for point in parse_path(SQUARE).points.tolist()}
    met = {tuple(match.first[n]): tuple(match.second[n].tolist()) for n in range(len(match.first)) if tuple(match.first[n]) in corners}
    assert met[100.0, 0.0] == (100.0, 0.0)
    assert met[100.0, 100.0] == (140.0, 120.0)


@pytest.mark.parametrize("first", ALL)
@pytest.mark.parametrize("second", ALL)
def test_neither_outline_changes_its_look_by_being_matched(first, second):
    a, b = parse_path(first), parse_path(second)
    match = matched(a, b)
    for outline, points in ((a, match.first), (b, match.second)):
        made = Outline(match.verbs, points)
        assert made.extent() == pytest.approx(outline.extent(), abs=1e-6) or len(contours_of(a.verbs, a.points[None])) != len(
            contours_of(b.verbs, b.points[None])
        )
        assert abs(abs(areas(made)) - abs(areas(outline))) < 1e-6 * max(1, abs(areas(outline))) or made.verbs.count(3) != outline.verbs.count(3)


@pytest.mark.parametrize(("first", "second"), [(SQUARE, BLOB), (RING, TRIANGLE), (WAVE, SQUARE), (BLOB, RING)])
def test_reversed_keys_reverse_the_morph(first, second):
    there, back = series((0, first), (20, second)), series((0, second), (20, first))
    for frame in (3, 10, 17):
        one, other = there.at(frame), back.at(20 - frame)
        assert one.verbs == other.verbs
        np.testing.assert_allclose(one.points, other.points, atol=1e-9)


@st.composite
def outlines(draw):
    count = draw(st.integers(3, 9))
    radii = draw(st.lists(st.floats(20, 120), min_size=count, max_size=count))
    curved = draw(st.booleans())
    at = [(r * np.cos(2 * np.pi * n / count), r * np.sin(2 * np.pi * n / count)) for n, r in enumerate(radii)]
    if curved:
        mids = [((a[0] + b[0]) / 2, (a[1] + b[1]) / 2) for a, b in zip(at, [*at[1:], at[0]], strict=True)]
        body = " ".join(f"C {a[0]} {a[1]} {a[0]} {a[1]} {m[0]} {m[1]}" for a, m in zip([*at[1:], at[0]], [*mids[1:], mids[0]], strict=True))
        return f"M {mids[0][0]} {mids[0][1]} {body} Z"
    return "M " + " L ".join(f"{x} {y}" for x, y in at) + " Z"


@settings(max_examples=40, deadline=None)
@given(outlines(), outlines())
def test_neither_area_nor_points_jump(first, second):
    one = series((0, first), (40, second), length=41)
    all_ = [one.at(frame) for frame in range(41)]
    sizes = np.array([abs(areas(outline)) for outline in all_])
    widest = max(np.ptp(dense(outline), axis=0).max() for outline in (all_[0], all_[-1]))
    # Each point goes a fortieth of its way a frame, which is no longer than both outlines together.
    assert np.abs(np.diff(sizes)).max() <= 2 * widest * 4 * widest / 40 + 1e-6
    counts = {len(outline.points) for outline in all_[1:-1]}
    assert len(counts) == 1
    assert counts.pop() <= 3 * (len(all_[0].points) + len(all_[-1].points)) + 8


def test_an_animator_can_choose_which_points_meet():
    plain = series((0, SQUARE), (20, DIAMOND))
    channel = keyed((0, SQUARE), (20, DIAMOND)).by_id["o"].channels["outline"]
    met = channel.copy_with(keys=(channel.keys[0].copy_with(meets=(0, 1)), channel.keys[1]))
    scene = keyed((0, SQUARE), (20, DIAMOND))
    thing = scene.by_id["o"]
    mended = bake(scene.with_object(thing.copy_with(channels={"outline": met}))).named("O").bent
    middle = mended.at(10).points
    np.testing.assert_allclose(middle[0], [60, 25], atol=1e-9)
    assert np.abs(middle - plain.at(10).points[: len(middle)]).max() > 10


def test_ends_and_eases_work_on_outlines_as_on_any_keys():
    one = series((0, SQUARE, "hold"), (10, DIAMOND), (15, SQUARE), length=31, after={"mode": "loop"})
    np.testing.assert_array_equal(one.at(9).points, parse_path(SQUARE).points)
    np.testing.assert_array_equal(one.at(25).points, parse_path(DIAMOND).points)
    pong = series((0, SQUARE), (10, BLOB), length=31, after={"mode": "ping-pong"})
    np.testing.assert_allclose(pong.at(13).points, pong.at(7).points, atol=1e-9)


def test_a_spline_through_keys_of_other_commands_goes_from_one_to_the_next():
    one = series((0, SQUARE, "spline"), (10, BLOB, "spline"), (20, TRIANGLE))
    sizes = [abs(areas(one.at(frame))) for frame in range(21)]
    assert np.isfinite(sizes).all()
    assert np.abs(np.diff(sizes)).max() < 2500


def test_springs_on_points_lag_behind_the_keys():
    spring = {"id": "s", "kind": "spring", "channels": ["outline"], "settings": {"frequency": 2, "damping": 0.3}}
    one = series((0, SQUARE), (2, DIAMOND), length=48, rules=[spring])
    assert np.abs(one.at(2).points - parse_path(DIAMOND).points).max() > 5
    np.testing.assert_allclose(one.at(47).points, parse_path(DIAMOND).points, atol=3)


def test_path_data_that_is_written_is_read_the_same():
    for path in ALL:
        outline = parse_path(path)
        np.testing.assert_allclose(parse_path(path_data(outline)).points, outline.points, atol=1e-6)


def test_what_rules_make_of_an_outline_is_frozen_into_keys():
    rough = {"id": "r", "kind": "rough", "settings": {"changes": 12, "amplitude": 5}}
    scene = keyed((0, SQUARE), (20, DIAMOND), rules=[rough])
    edit = {"edit": "freeze-channel", "object": "o", "channel": "outline"}
    frozen = apply_all(scene, TypeAdapter(list[AnyEdit]).validate_python([edit]))
    assert not frozen.by_id["o"].rules
    before, after = (bake(one).named("O").bent for one in (scene, frozen))
    for frame in (0, 3, 11, 20):
        np.testing.assert_allclose(after.at(frame).points, before.at(frame).points, atol=1e-5)
