"""Fitting what a hand drew, editing points, and combining outlines."""

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import quad
from scipy.spatial import cKDTree

from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.curves import joints
from vine_swing.motion.curves.combining import combined, of_line
from vine_swing.motion.curves.contours import area, contours_of
from vine_swing.motion.curves.fitting import fitted
from vine_swing.motion.curves.length import ArcLengths
from vine_swing.motion.curves.outline import Outline
from vine_swing.motion.curves.svg_path import parse_path, path_data

SQUARE = parse_path("M 0 0 L 100 0 L 100 100 L 0 100 Z")
OPEN = parse_path("M 0 0 L 100 0 L 100 100")


def size(outline: Outline) -> float:
    return sum(float(area(one)[0]) for one in contours_of(outline.verbs, outline.points[None]))


# -- free drawing


def hand(seed: int, count: int = 400) -> np.ndarray:
    """A wandering hand: smooth strokes with a little trembling, as a pointer reports it."""
    chance = np.random.default_rng(seed)
    t = np.linspace(0, 1, count)
    x, y = (sum(chance.normal(0, 90 / n) * np.sin(2 * np.pi * n * t + chance.uniform(0, 6)) for n in range(1, 5)) for _ in "xy")
    return np.stack([x, y], axis=1) + chance.normal(0, 0.2, (count, 2))


@pytest.mark.parametrize("tolerance", [1.5, 3.0, 8.0])
@pytest.mark.parametrize("seed", range(6))
def test_the_fitted_outline_passes_every_place_within_its_tolerance_and_has_few_points(seed, tolerance):
    places = hand(seed)
    outline = fitted(places, tolerance)
    near, _ = cKDTree(np.concatenate(outline.lines(parts=200))).query(places)
    assert near.max() <= tolerance + 0.05
    assert len(outline.points) <= len(places) / 5


def test_a_wider_tolerance_takes_fewer_points():
    places = hand(1)
    counts = [len(fitted(places, tolerance).points) for tolerance in (0.8, 2, 6, 20)]
    assert counts == sorted(counts, reverse=True)
    assert counts[-1] < counts[0] / 3


def test_a_corner_of_the_hand_stays_a_corner():
    places = np.concatenate([np.linspace([0, 0], [100, 0], 60), np.linspace([100, 0], [100, 80], 60)])
    outline = fitted(places, 1.0)
    assert np.abs(outline.points - [100, 0]).sum(axis=1).min() < 1e-9
    (contour,) = contours_of(outline.verbs, outline.points[None])
    assert contour.corners().sum() == 3


def test_a_closed_one_comes_back_smoothly():
    t = np.linspace(0, 2 * np.pi, 200, endpoint=False)
    outline = fitted(np.stack([100 * np.cos(t), 60 * np.sin(t)], axis=1), 1.0, closed=True)
    (contour,) = contours_of(outline.verbs, outline.points[None])
    assert contour.closed
    assert not contour.corners().any()
    assert abs(abs(size(outline)) - np.pi * 6000) < 200


@settings(max_examples=60, deadline=None)
@given(st.lists(st.tuples(st.floats(-500, 500), st.floats(-500, 500)), max_size=40), st.floats(0.1, 50), st.booleans())
def test_any_places_can_be_fitted(places, tolerance, closed):
    outline = fitted(np.array(places, float).reshape(-1, 2), tolerance, closed=closed)
    assert np.isfinite(outline.points).all()


# -- points


def test_points_move_with_their_handles():
    curve = parse_path("M 0 0 C 10 -20 40 -20 50 0 C 60 20 90 20 100 0")
    moved = joints.moved(curve, [1], 5, 7)
    np.testing.assert_allclose(moved.points[2:5], curve.points[2:5] + np.array([5, 7]))
    np.testing.assert_allclose(np.delete(moved.points, [2, 3, 4], axis=0), np.delete(curve.points, [2, 3, 4], axis=0))


@pytest.mark.parametrize("share", [0.2, 0.5, 0.9])
@pytest.mark.parametrize("piece", [0, 3])
def test_one_more_point_keeps_the_look(piece, share):
    blob = parse_path("M 0 -50 C 30 -50 50 -30 50 0 C 50 30 20 60 0 40 C -30 20 -50 30 -50 0 C -50 -30 -30 -50 0 -50 Z")
    more = joints.with_joint(blob, piece, share)
    assert len(joints.strands_of(more)[0].joints) == 5
    assert size(more) == pytest.approx(size(blob), rel=1e-9)
    near, _ = cKDTree(np.concatenate(blob.lines(parts=400))).query(np.concatenate(more.lines(parts=40)))
    assert near.max() < 0.3


def test_a_corner_becomes_smooth_and_a_corner_again():
    smooth = joints.smoothed(SQUARE, [1])
    assert joints.strands_of(smooth)[0].joints[1].is_smooth
    assert path_data(joints.cornered(smooth, [0, 1, 2])).count("C") == 0


def test_the_other_handle_turns_along_unless_they_are_broken_apart():
    smooth = joints.smoothed(SQUARE, [1])
    before = joints.strands_of(smooth)[0].joints[1]
    turned = joints.strands_of(joints.with_handle(smooth, 1, "out", (130.0, 0.0), broken=False))[0].joints[1]
    assert turned.is_smooth
    assert turned.into == pytest.approx((100 - np.hypot(*np.subtract(before.into, before.at)), 0))
    broken = joints.strands_of(joints.with_handle(smooth, 1, "out", (130.0, 0.0), broken=True))[0].joints[1]
    assert broken.into == before.into
    assert not broken.is_smooth


def test_an_outline_is_cut_open_joined_reversed_and_begun_elsewhere():
    opened = joints.cut_open(SQUARE, 2)
    assert path_data(opened) == "M 100 100 L 0 100 L 0 0 L 100 0 L 100 100"
    assert path_data(joints.ends_joined(opened, 0, 4)) == "M 100 100 L 0 100 L 0 0 L 100 0 Z"
    two = joints.cut_open(OPEN, 1)
    assert path_data(two) == "M 0 0 L 100 0 M 100 0 L 100 100"
    assert path_data(joints.ends_joined(two, 1, 2)) == "M 0 0 L 100 0 L 100 100"
    assert path_data(joints.ends_joined(two, 0, 3)) == "M 100 0 L 0 0 L 100 100 L 100 0"
    assert path_data(joints.way_reversed(SQUARE)) == "M 0 0 L 0 100 L 100 100 L 100 0 Z"
    assert path_data(joints.begun_at(SQUARE, 2)) == "M 100 100 L 0 100 L 0 0 L 100 0 Z"
    assert path_data(joints.begun_at(OPEN, 2)) == "M 100 100 L 100 0 L 0 0"


def test_points_are_taken_out_as_long_as_something_is_left():
    assert path_data(joints.without(SQUARE, [1])) == "M 0 0 L 100 100 L 0 100 Z"
    with pytest.raises(MotionError, match="two points at least"):
        joints.without(OPEN, [0, 1])


@pytest.mark.parametrize(
    "change",
    [
        lambda: joints.moved(SQUARE, [4], 1, 1),
        lambda: joints.with_joint(OPEN, 2, 0.5),
        lambda: joints.cut_open(OPEN, 0),
        lambda: joints.ends_joined(SQUARE, 0, 1),
        lambda: joints.begun_at(OPEN, 1),
    ],
)
def test_what_cannot_be_done_is_said(change):
    with pytest.raises(MotionError, match=r"\w+"):
        change()


# -- combining


def star(seed: int) -> Outline:
    chance = np.random.default_rng(seed)
    count = int(chance.integers(5, 40))
    angle = np.sort(chance.uniform(0, 2 * np.pi, count))
    radius = chance.uniform(30, 100, count)
    x, y = radius * np.cos(angle) + chance.uniform(-40, 40), radius * np.sin(angle) + chance.uniform(-40, 40)
    return parse_path("M " + " L ".join(f"{a} {b}" for a, b in zip(x, y, strict=True)) + " Z")


@pytest.mark.parametrize("how", ["unite", "cut-out", "overlap", "exclude"])
@pytest.mark.parametrize("seed", range(8))
def test_combined_outlines_cover_what_polygons_of_another_library_do(how, seed):
    one, other = star(seed), star(seed + 100)
    a, b = (shapely.Polygon(outline.points).buffer(0) for outline in (one, other))
    wanted = {"unite": a.union(b), "cut-out": a.difference(b), "overlap": a.intersection(b), "exclude": a.symmetric_difference(b)}[how].area
    assert abs(size(combined([one, other], how))) == pytest.approx(wanted, rel=1e-3)


def test_a_line_becomes_its_outline():
    outline = of_line(parse_path("M 0 0 L 100 0"), 20)
    assert abs(size(outline)) == pytest.approx(2000 + np.pi * 100, rel=1e-3)
    assert outline.extent() == pytest.approx((-10, -10, 110, 10), abs=0.01)


def test_the_length_of_curves_is_exact():
    curve = parse_path("M 100 0 C 180 90 -40 120 0 100")
    p = curve.points

    def speed(u):
        a, b, c = np.diff(p, axis=0)
        return np.hypot(*(3 * ((1 - u) ** 2 * a + 2 * u * (1 - u) * b + u**2 * c)))

    exact, _ = quad(speed, 0, 1, epsabs=1e-10, limit=400)
    assert ArcLengths.of(contours_of(curve.verbs, p[None])[0]).total[0] == pytest.approx(exact, rel=1e-6)
