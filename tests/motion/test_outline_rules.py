"""Rules on outlines against closed forms on circles, lines and rectangles (design 11.2)."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from vine_swing.motion import bake
from vine_swing.motion.curves.contours import contours_of
from vine_swing.motion.curves.length import ArcLengths
from vine_swing.motion.curves.outline import Outline
from vine_swing.motion.edits import apply_all
from vine_swing.motion.edits.keys import SetValue
from vine_swing.motion.rules import RULES
from vine_swing.motion.scene.scene_file import from_data

R = 100.0
FPS = 24


def scene(shape, *rules, length=24, channels=None, **more):
    things = [{"id": "o", "name": "O", "kind": "shape", "shape": shape, "channels": channels or {}, "rules": list(rules)}]
    return from_data({"format": "vine-swing-scene", "version": 1, "name": "S", "fps": FPS, "length": length, "objects": things} | more)


def rule(kind, rule_id="r", **given):
    numbers = {name: value for name, value in given.items() if name not in ("channels", "on")}
    return {"id": rule_id, "kind": kind, "settings": numbers} | {k: given[k] for k in ("channels", "on") if k in given}


CIRCLE = {"type": "ellipse"}
ROUND = {"width": 2 * R, "height": 2 * R}


def joints(outline: Outline, part: int = 0) -> np.ndarray:
    """The points an outline passes, (j, 2)."""
    return contours_of(outline.verbs, outline.points[None])[part].joints[0]


def bent(one, row=0, name="O") -> Outline:
    return bake(one).named(name).bent.at(row)


def circle(*rules, **more) -> Outline:
    return bent(scene(CIRCLE, *rules, channels=ROUND, **more))


# -- ripple


@pytest.mark.parametrize("wave", ["sine", "cosine", "triangle"])
def test_a_ripple_on_a_circle_has_the_radius_of_its_wave(wave):
    points = joints(circle(rule("ripple", amplitude=12, waves=5, phase=30, wave=wave)))
    share = np.arange(len(points)) / len(points)
    turns = 5 * share + 30 / 360
    w = {"sine": np.sin(2 * np.pi * turns), "cosine": np.cos(2 * np.pi * turns), "triangle": 1 - np.abs((4 * turns + 1) % 4 - 2)}[wave]
    assert len(points) == 5 * 48
    np.testing.assert_allclose(np.hypot(*points.T), R + 12 * w, atol=1e-6)


@pytest.mark.parametrize(("wave", "sides"), [("square", {R - 10, R + 10}), ("sawtooth", None)])
def test_waves_with_jumps_reach_in_and_out(wave, sides):
    radii = np.hypot(*joints(circle(rule("ripple", amplitude=10, waves=4, wave=wave))).T)
    if sides:
        assert {round(r, 6) for r in radii} == sides
    assert radii.min() == pytest.approx(R - 10, abs=1e-6)
    assert radii.max() <= R + 10 + 1e-6


def test_a_whole_number_of_waves_closes_and_another_leaves_a_seam_only_where_wanted():
    whole = joints(circle(rule("ripple", amplitude=10, waves=4.4)))
    np.testing.assert_allclose(np.hypot(*whole.T), R + 10 * np.sin(2 * np.pi * 4 * np.arange(len(whole)) / len(whole)), atol=1e-6)
    radii = np.hypot(*joints(circle(rule("ripple", amplitude=10, waves=4.25, whole="any"))).T)
    assert abs(radii[-1] - radii[0]) > 5, "the seam that was asked for"


def test_after_one_wave_has_passed_the_picture_is_the_same():
    one = bake(scene(CIRCLE, rule("ripple", amplitude=10, waves=6, speed=2), channels=ROUND, length=25)).named("O").bent
    np.testing.assert_allclose(one.at(0).points, one.at(12).points, atol=1e-9)
    assert np.abs(one.at(0).points - one.at(5).points).max() > 1


def test_a_ripple_runs_along_a_straight_line_at_right_angles_to_it():
    line = bent(scene({"type": "line"}, rule("ripple", amplitude=7, waves=3), channels={"end.x": 300, "end.y": 0}))
    points = joints(line)
    np.testing.assert_allclose(points[:, 0], np.linspace(0, 300, len(points)), atol=1e-9)
    np.testing.assert_allclose(points[:, 1], -7 * np.sin(2 * np.pi * 3 * points[:, 0] / 300), atol=1e-6)


def test_a_ripple_on_a_rectangle_pushes_each_side_outwards():
    box = {"width": 200, "height": 100}
    one = bent(scene({"type": "rectangle"}, rule("ripple", amplitude=5, waves=6), channels=box))
    points = joints(one)
    share = np.arange(len(points)) / len(points)
    top = (share > 0) & (share < 1 / 3)
    # The sides are passed from the corner above on the left, clockwise.
    np.testing.assert_allclose(points[top, 0], -100 + 600 * share[top], atol=1e-6)
    np.testing.assert_allclose(points[top, 1], -50 - 5 * np.sin(2 * np.pi * 6 * share[top]), atol=1e-6)


def test_a_ripple_through_moves_both_edges_together_and_grows_from_the_pole():
    box = {"width": 240, "height": 60}
    one = bent(scene({"type": "rectangle"}, rule("ripple", goes="through", amplitude=8, waves=2, grow=1, phase=40), channels=box))
    points = joints(one)
    u = (points[:, 0] + 120) / 240
    push = 8 * u * np.sin(2 * np.pi * (2 * u + 40 / 360))
    edges = (np.abs(u) > 1e-9) & (np.abs(u - 1) > 1e-9)
    np.testing.assert_allclose(np.abs(points[edges, 1] + push[edges]), 30, atol=1e-6)


def test_more_places_are_smoother():
    def off(places):
        outline = circle(rule("ripple", amplitude=20, waves=6, places=places))
        contour = contours_of(outline.verbs, outline.points[None])[0]
        middles = (contour.pieces[0, :, 0] + 3 * contour.pieces[0, :, 1] + 3 * contour.pieces[0, :, 2] + contour.pieces[0, :, 3]) / 8
        angle = np.arctan2(middles[:, 1], middles[:, 0])
        return np.abs(np.hypot(*middles.T) - (R + 20 * np.sin(6 * angle))).max()

    assert off(24) < off(8) / 5
    assert off(48) < 0.01


# -- taper, bend, swirl


@pytest.mark.parametrize("curve", [0, 0.7, -1])
def test_a_tapered_rectangle_has_the_width_of_the_formula(curve):
    box = {"width": 200, "height": 100}
    points = joints(bent(scene({"type": "rectangle"}, rule("taper", size=0.25, curve=curve), channels=box)))
    u = (points[:, 0] + 100) / 200
    wide = 50 * (1 + (0.25 - 1) * (u + curve * u * (1 - u)))
    inner = (u > 1e-9) & (u < 1 - 1e-9)
    np.testing.assert_allclose(np.abs(points[inner, 1]), wide[inner], atol=1e-6)


def test_a_taper_has_its_end_where_its_direction_points():
    box = {"width": 100, "height": 100}
    points = joints(bent(scene({"type": "rectangle"}, rule("taper", size=0, direction=90), channels=box)))
    low = points[np.argmax(points[:, 1])]
    np.testing.assert_allclose(low, [0, 50], atol=1e-9)


@pytest.mark.parametrize("angle", [30, 180, -90, 360])
@pytest.mark.parametrize("held", ["start", "middle", "end"])
def test_a_bent_line_is_an_arc_of_the_same_length(angle, held):
    outline = bent(scene({"type": "line"}, rule("bend", angle=angle, held=held), channels={"end.x": 300, "end.y": 0}))
    contour = contours_of(outline.verbs, outline.points[None])[0]
    assert ArcLengths.of(contour).total[0] == pytest.approx(300, abs=1e-3)
    points = joints(outline)
    radius = 300 / np.radians(abs(angle))
    anchor = {"start": 0.0, "middle": 150.0, "end": 300.0}[held]
    centre = np.array([anchor, np.sign(angle) * radius])
    np.testing.assert_allclose(np.hypot(*(points - centre).T), radius, atol=1e-6)
    # Its places keep their distance along the middle line.
    along = np.linspace(0, 300, len(points)) - anchor
    np.testing.assert_allclose(points[:, 0], anchor + radius * np.sin(along / radius), atol=1e-6)


def test_what_lies_beside_a_bent_middle_line_keeps_its_distance():
    box = {"width": 200, "height": 40}
    points = joints(bent(scene({"type": "rectangle"}, rule("bend", angle=90), channels=box)))
    radius = 200 / np.radians(90)
    off = np.abs(np.hypot(points[:, 0], points[:, 1] - radius) - radius)
    assert off.max() == pytest.approx(20, abs=1e-6)


def test_a_swirl_turns_by_the_square_of_how_near_it_is():
    line = bent(scene({"type": "line"}, rule("swirl", angle=120, radius=90), channels={"end.x": 200, "end.y": 0}))
    points = joints(line) - [100, 0]
    start = np.linspace(-100, 100, len(points))
    turn = np.radians(120) * np.clip(1 - np.abs(start) / 90, 0, None) ** 2
    np.testing.assert_allclose(points, np.stack([start * np.cos(turn), start * np.sin(turn)], axis=1), atol=1e-6)


# -- rough, draw-on, round


def test_rough_stays_within_its_amplitude_closes_and_boils_in_time():
    still = bake(scene(CIRCLE, rule("rough", amplitude=6, size=20), channels=ROUND)).named("O").bent
    assert still.count == 1
    radii = np.hypot(*joints(still.at(0)).T)
    assert 1 < np.abs(radii - R).max() <= 6
    assert np.abs(np.diff(np.append(radii, radii[0]))).max() < 6, "no seam"
    boiling = bake(scene(CIRCLE, rule("rough", amplitude=6, changes=12), channels=ROUND)).named("O").bent
    assert boiling.count == 12
    assert boiling.which[0] == boiling.which[1] != boiling.which[2]


def test_the_same_seed_gives_the_same_line_and_another_another():
    one, same, other = (circle(rule("rough", amplitude=6, seed=seed)).points for seed in (3, 3, 4))
    np.testing.assert_array_equal(one, same)
    assert np.abs(one - other).max() > 0.5


PATHS = ["M 0 0 L 100 0 L 100 100", "M 0 0 C 40 -80 90 60 200 0", "M 0 0 L 100 0 L 100 50 L 0 50 Z", "M 0 0 L 60 0 M 0 20 C 20 0 40 60 80 20"]


@settings(max_examples=60, deadline=None)
@given(
    st.sampled_from(PATHS),
    st.floats(0, 1),
    st.floats(0, 1),
    st.floats(-2, 2),
)
def test_what_is_drawn_on_is_as_long_as_its_share(path, start, end, shift):
    outline = bent(scene({"type": "outline", "d": path}, rule("draw-on", **{"from": start, "to": end, "shift": shift}), length=1))
    whole = bent(scene({"type": "outline", "d": path}, rule("draw-on"), length=1))
    drawn, all_ = (sum(ArcLengths.of(one).total[0] for one in contours_of(o.verbs, o.points[None])) for o in (outline, whole))
    assert drawn == pytest.approx(abs(end - start) * all_, abs=1e-4 * all_)


def test_what_passes_the_seam_of_a_closed_outline_is_one_line():
    square = "M 0 0 L 100 0 L 100 100 L 0 100 Z"
    outline = bent(scene({"type": "outline", "d": square}, rule("draw-on", **{"from": 0.9, "to": 1, "shift": 0.05})))
    assert outline.verbs.count(0) == 1
    np.testing.assert_allclose(outline.points[0], [0, 20], atol=1e-9)
    np.testing.assert_allclose(outline.points[-1], [20, 0], atol=1e-9)


def test_a_line_that_draws_itself_is_made_once_for_frames_that_are_alike():
    keys = [{"frame": 0, "value": 0}, {"frame": 10, "value": 1}]
    one = bake(scene({"type": "line"}, rule("draw-on", to={"keys": keys}))).named("O").bent
    assert one.count == 11
    assert len(one.at(0).points) == 0


def test_rounded_corners_are_arcs_as_large_as_there_is_room():
    box = {"width": 200, "height": 100}
    outline = bent(scene({"type": "rectangle"}, rule("round", radius=30), channels=box))
    assert outline.extent() == pytest.approx((-100, -50, 100, 50), abs=1e-9)
    (contour,) = contours_of(outline.verbs, outline.points[None])
    arc = contour.pieces[0, 0]
    middle = (arc[0] + 3 * arc[1] + 3 * arc[2] + arc[3]) / 8
    assert np.hypot(*(middle - [-70, -20])) == pytest.approx(30, abs=0.01)
    most = bent(scene({"type": "rectangle"}, rule("round", radius=1000), channels=box))
    assert ArcLengths.of(contours_of(most.verbs, most.points[None])[0]).total[0] == pytest.approx(2 * np.pi * 50 + 200, abs=0.1)


# -- together


def test_order_matters():
    ripple, taper = rule("ripple", "a", amplitude=20, waves=3), rule("taper", "b", size=0.2)
    one, other = circle(ripple, taper), circle(taper, ripple)
    assert np.abs(one.extent() - np.array(other.extent())).max() > 1


def test_settings_may_have_keys_links_and_dials():
    dials = [{"id": "wind", "name": "Wind", "channel": {"keys": [{"frame": 0, "value": 0}, {"frame": 20, "value": 20}]}}]
    linked = rule("ripple", amplitude={"formula": "{Wind}"}, waves=4)
    baked = bake(scene(CIRCLE, linked, channels=ROUND, dials=dials))
    radii = [np.hypot(*joints(baked.named("O").bent.at(row)).T).max() for row in (0, 10, 20)]
    np.testing.assert_allclose(radii, [R, R + 10, R + 20], atol=1e-3)


def test_time_rules_read_the_outline_at_other_frames():
    rippling = rule("ripple", "a", amplitude=10, waves=4, speed=1)
    steps = rule("steps", "b", every=4, channels=["outline"])
    baked = bake(scene(CIRCLE, rippling, steps, channels=ROUND)).named("O").bent
    plain = bake(scene(CIRCLE, rippling, channels=ROUND)).named("O").bent
    assert baked.count == 6
    np.testing.assert_array_equal(baked.at(7).points, plain.at(4).points)
    later = bake(scene(CIRCLE, rippling, rule("retime", "b", delay=3, channels=["outline"]), channels=ROUND)).named("O").bent
    np.testing.assert_allclose(later.at(10).points, plain.at(7).points, atol=1e-9)


def test_a_group_bends_all_that_hangs_on_it_in_its_own_space():
    parts = [
        {"id": "g", "name": "G", "kind": "group", "channels": {"x": 400, "y": 200, "rotation": 30}, "rules": [rule("bend", angle=180, held="start")]},
        {"id": "a", "name": "A", "kind": "shape", "shape": {"type": "line"}, "parent": "g", "channels": {"end.x": 150, "end.y": 0}},
        {"id": "b", "name": "B", "kind": "shape", "shape": {"type": "line"}, "parent": "g", "channels": {"x": 150, "end.x": 150, "end.y": 0}},
    ]
    baked = bake(from_data({"format": "vine-swing-scene", "version": 1, "objects": parts}))
    a, b = (joints(baked.named(name).bent.at(0)) for name in "AB")
    radius = 300 / np.pi
    for points, moved in ((a, 0), (b, 150)):
        np.testing.assert_allclose(np.hypot(points[:, 0] + moved, points[:, 1] - radius), radius, atol=1e-6)
    np.testing.assert_allclose(a[-1], b[0] + [150, 0], atol=1e-6)


def test_what_a_group_bends_goes_by_the_bounds_of_all_of_it_after_an_edit_of_one():
    parts = [
        {"id": "g", "name": "G", "kind": "group", "rules": [rule("bend", angle=180, held="start")]},
        {"id": "a", "name": "A", "kind": "shape", "shape": {"type": "line"}, "parent": "g", "channels": {"end.x": 150, "end.y": 0}},
        {"id": "b", "name": "B", "kind": "shape", "shape": {"type": "line"}, "parent": "g", "channels": {"x": 150, "end.x": 150, "end.y": 0}},
        {"id": "c", "name": "C", "kind": "shape", "shape": {"type": "line"}, "channels": {"end.x": 150, "end.y": 0}},
    ]
    before = from_data({"format": "vine-swing-scene", "version": 1, "objects": parts})
    baked = bake(before)
    longer = apply_all(before, [SetValue(edit="set-value", object="b", channel="end.x", value=450)])
    after, fresh = bake(longer, previous=baked), bake(longer)
    # It is twice as long now, so that A is bent half as much.
    np.testing.assert_array_equal(after.named("A").bent.at(0).points, fresh.named("A").bent.at(0).points)
    assert after.named("G") is not baked.named("G")
    # A change beside it changes nothing.
    beside = apply_all(longer, [SetValue(edit="set-value", object="c", channel="x", value=7)])
    again = bake(beside, previous=after)
    assert all(again.named(name) is after.named(name) for name in "GAB")


def test_grounds_and_parades_see_what_is_bent():
    parts = [
        {"id": "l", "name": "L", "kind": "shape", "shape": {"type": "line"}, "channels": {"end.x": 300}, "rules": [rule("bend", angle=180)]},
        {"id": "p", "name": "P", "kind": "parade", "parade": {"arrange": "along", "guide": "l"}, "channels": {"count": 3}},
        {"id": "d", "name": "D", "kind": "shape", "shape": {"type": "ellipse"}, "parent": "p"},
    ]
    baked = bake(from_data({"format": "vine-swing-scene", "version": 1, "objects": parts}))
    places = baked.parades["p"].places.matrices[:, 0, 4:6]
    radius = 300 / np.pi
    np.testing.assert_allclose(np.hypot(places[:, 0] - 150, places[:, 1] - radius), radius, atol=0.05)


def test_an_edit_keeps_what_it_cannot_have_changed():
    before = scene(CIRCLE, rule("ripple", amplitude=10, waves=4, speed=1), channels=ROUND)
    baked = bake(before)
    moved = before.with_object(before.by_id["o"].copy_with(channels=before.by_id["o"].channels | {"x": before.by_id["o"].channels["width"]}))
    again = bake(moved, previous=baked)
    assert again.named("O").bent is baked.named("O").bent
    turned = before.with_object(before.by_id["o"].copy_with(rules=(before.by_id["o"].rules[0].copy_with(on=False),)))
    assert bake(turned, previous=again).named("O").bent is None


@settings(max_examples=25, deadline=None)
@given(
    st.lists(st.sampled_from(["ripple", "taper", "bend", "swirl", "rough", "draw-on", "round", "steps", "spring", "smooth"]), max_size=4),
    st.sampled_from(PATHS),
)
def test_any_chain_of_rules_on_any_outline_gives_finite_points(kinds, path):
    rules = [rule(kind, f"r{n}", **({"channels": ["outline"]} if kind in ("steps", "spring", "smooth") else {})) for n, kind in enumerate(kinds)]
    baked = bake(scene({"type": "outline", "d": path}, *rules, length=6))
    series = baked.named("O").bent
    if kinds:
        assert all(np.isfinite(outline.points).all() for outline in series.outlines)


@pytest.mark.parametrize("kind", sorted(kind for kind, spec in RULES.items() if spec.value_kind == "outline"))
@pytest.mark.parametrize("drawn", ["rectangle", "ellipse", "polygon"])
def test_what_grows_out_of_a_line_is_bent_and_a_frame_alone_is_that_of_the_whole(kind, drawn):
    """Flat at first, the last piece of a closed outline has no length there and is one all the same."""
    height = {"keys": [{"frame": 0, "value": 1e-9}, {"frame": 5, "value": 0.3}, {"frame": 20, "value": 280}]}
    one = scene({"type": drawn}, rule(kind), channels={"width": 120, "height": height})
    whole = bake(one).named("O").bent
    for frame in (0, 1, 12, 23):
        alone = bake(one, np.array([float(frame)])).named("O").bent.at(0)
        assert np.isfinite(alone.points).all()
        # Of how many pieces it is made follows the frames that are bent together; where it lies does not, but for a line without any area.
        if frame:
            np.testing.assert_allclose(alone.extent(), whole.at(frame).extent(), atol=0.05)


def test_a_parade_bends_each_copy_where_it_stands():
    parts = [
        {
            "id": "p",
            "name": "P",
            "kind": "parade",
            "parade": {"arrange": "row"},
            "channels": {"count": 4, "gap": 0, "x": 100},
            "rules": [rule("bend", angle=180, held="start")],
        },
        {"id": "d", "name": "D", "kind": "shape", "shape": {"type": "line"}, "parent": "p", "channels": {"end.x": 50}},
    ]
    baked = bake(from_data({"format": "vine-swing-scene", "version": 1, "objects": parts}))
    parade = baked.parades["p"]
    radius = 200 / np.pi
    for k in range(4):
        points = joints(parade.own[k].objects["d"].bent.at(0)) + parade.places.matrices[k, 0, 4:6]
        np.testing.assert_allclose(np.hypot(points[:, 0], points[:, 1] - radius), radius, atol=1e-6)


def test_copies_that_are_later_and_have_a_colour_each_are_bent_as_without_it():
    """A copy that has something of its own shares its places with the others, which are known at more frames than one copy shows."""
    hop = {"keys": [{"frame": 0, "value": 0}, {"frame": 11, "value": 40}]}
    line = {"id": "d", "name": "D", "kind": "shape", "shape": {"type": "line"}, "parent": "p", "channels": {"end.x": 60, "y": hop}}
    colours = {"object": "d", "channel": "stroke", "values": ["#112233", "#445566", "#778899"]}

    def outlines(lists):
        parade = {"id": "p", "name": "P", "kind": "parade", "parade": {"arrange": "row", "lists": lists}}
        parade |= {"channels": {"count": 3, "gap": 10, "delay": 2}, "rules": [rule("bend", angle=90)]}
        baked = bake(from_data({"format": "vine-swing-scene", "version": 1, "length": 12, "objects": [parade, line]}))
        return [[joints(copy.objects["d"].bent.at(row)) for row in (0, 5, 11)] for copy in baked.parades["p"].own]

    np.testing.assert_array_equal(outlines([colours]), outlines([]))


@pytest.mark.parametrize("kind", ["steps", "retime", "spring", "smooth"])
def test_rules_of_timing_work_on_groups_and_parades_too(kind):
    settings = {"steps": {"every": 4}, "retime": {"delay": 3}}.get(kind, {})
    timing = rule(kind, "t", channels=["outline"], **settings)
    waves = rule("ripple", "w", amplitude=6, waves=3, speed=1)
    line = {
        "kind": "shape",
        "shape": {"type": "line"},
        "channels": {"end.x": 60, "rotation": {"keys": [{"frame": 0, "value": 0}, {"frame": 11, "value": 40}]}},
    }
    parts = [
        {"id": "g", "name": "G", "kind": "group", "rules": [waves, timing]},
        line | {"id": "a", "name": "A", "parent": "g"},
        {"id": "p", "name": "P", "kind": "parade", "channels": {"count": 2, "delay": 2}, "rules": [waves, timing]},
        line | {"id": "b", "name": "B", "parent": "p"},
    ]
    baked = bake(from_data({"format": "vine-swing-scene", "version": 1, "length": 12, "objects": parts}))
    bent = baked.named("A").bent
    assert all(np.isfinite(outline.points).all() for outline in (*bent.outlines, *baked.parades["p"].own[1].objects["b"].bent.outlines))
    assert bent.count > 1
    if kind == "retime":
        # In the group's space it is what it was three frames before.
        before = bake(from_data({"format": "vine-swing-scene", "version": 1, "length": 12, "objects": [parts[0] | {"rules": [waves]}, parts[1]]}))
        turn = {row: baked.named("A").world[row][:4].reshape(2, 2) for row in (5, 8)}
        now, then = (one.named("A").bent.at(row).points @ turn[row] for one, row in ((baked, 8), (before, 5)))
        np.testing.assert_allclose(now, then, atol=1e-6)
