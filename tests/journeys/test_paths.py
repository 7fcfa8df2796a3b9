"""Paths drawn and bent in the picture."""

import numpy as np
import pytest
from playwright.sync_api import expect

from tests.journeys.scenes import keys, opened, shape

CORNERS = [(200, 500), (600, 500), (600, 150), (1000, 150)]


@pytest.fixture
def courier(page, server):
    """An object with a path of four points, 12 frames from one to the next, under the path tool."""
    path = keys(*((12 * n, corner) for n, corner in enumerate(CORNERS)))
    w = opened(page, server.address, name="New scene", length=120, objects=[shape("Courier", x=640, y=360, path=path)])
    w.pick("Courier")
    w.page.get_by_role("button", name="Draw and bend paths").click()
    return w


def test_a_path_is_drawn_by_clicking(workspace):
    w = workspace
    w.add("Ellipse", "Courier")
    w.page.get_by_role("button", name="Draw and bend paths").click()
    for n, corner in enumerate(CORNERS):
        w.page.mouse.click(*w.on_screen(*corner))
        expect(w.page.get_by_test_id(f"path-point-{12 * n}")).to_be_visible()
        w.saved()
    assert points(w) == [(12 * n, *corner) for n, corner in enumerate(CORNERS)]


def points(w):
    return [(key["frame"], *(round(v) for v in key["value"])) for key in w.channel("Courier", "path")["keys"]]


def on_bar(w, label, role="button"):
    w.page.get_by_role("toolbar", name="Path").get_by_role(role, name=label, exact=True).click()
    w.saved()
    w.page.wait_for_timeout(120)


def off_the_corner(w):
    """How far the dots come within the second corner: 0 where it is not cut."""
    dots = np.array(w.dots()[8:17])
    return max(min(abs(y - 500), abs(x - 600)) for x, y in dots)


def test_a_path_is_drawn_by_clicking_and_passed_at_one_speed(courier):
    w = courier
    assert [frame for frame, *_ in points(w)] == [0, 12, 24, 36]
    for (_, x, y), corner in zip(points(w), CORNERS, strict=True):
        assert (x, y) == pytest.approx(corner, abs=2)
    on_bar(w, "Even speed")
    steps = np.hypot(*np.diff(np.array(w.dots()[:37]), axis=0).T)
    # The steps across the two corners are short cuts.
    assert np.sort(steps)[2:].std() < 0.02 * steps.mean()


def test_a_corner_is_passed_sharply_then_rounded(courier):
    w = courier
    on_bar(w, "Spline", "radio")
    assert off_the_corner(w) > 8, "a smooth spline swings wide of the corner"
    on_bar(w, "Sharp")
    assert [key["tension"] for key in w.channel("Courier", "path")["keys"]] == [1, 1, 1, 1]
    assert off_the_corner(w) < 1, "with tension 1 the corner is reached, and not cut"
    w.page.get_by_test_id("path-point-12").dblclick()
    w.saved()
    w.page.wait_for_timeout(120)
    assert [key["tension"] for key in w.channel("Courier", "path")["keys"]] == [1, 0, 1, 1]
    assert off_the_corner(w) > 4


def test_points_and_handles_are_dragged(courier):
    w = courier
    w.drag(w.on_screen(600, 500), w.on_screen(650, 560))
    assert points(w)[1] == pytest.approx((12, 650, 560), abs=3)
    on_bar(w, "Bezier", "radio")
    handle = w.page.get_by_test_id("path-out-12").bounding_box()
    start = (handle["x"] + handle["width"] / 2, handle["y"] + handle["height"] / 2)
    w.drag(start, (start[0] + 60, start[1] + 20))
    key = w.channel("Courier", "path")["keys"][1]
    assert key["out"][0] > 50
    assert np.cross([*key["out"], 0], [*key["in"], 0])[2] == pytest.approx(0, abs=60), "its partner swings along"
    w.page.keyboard.press("Control+z")
    w.page.keyboard.press("Control+z")
    w.saved()
    w.page.wait_for_timeout(120)
    assert points(w)[1] == pytest.approx((12, 650, 560), abs=3)


def test_a_click_on_the_path_puts_a_point_there_and_keeps_the_shape(courier):
    w = courier
    on_bar(w, "Spline", "radio")
    before = w.dots()
    w.page.mouse.click(*w.on_screen(*before[18]))
    expect(w.page.get_by_test_id("path-point-18")).to_be_visible()
    w.saved()
    np.testing.assert_allclose(w.dots()[18], before[18], atol=0.5)
    # The two new stretches have each their own even pace, but lie where the one did.
    after = np.array(w.dots()[12:25])
    way = np.array(before[12:25])
    gaps = [min(np.hypot(*(way[:-1] + s * np.diff(way, axis=0) - dot).T).min() for s in np.linspace(0, 1, 21)) for dot in after]
    assert max(gaps) < 4


def test_split_and_join_keep_the_motion(courier):
    w = courier
    on_bar(w, "Spline", "radio")
    before = np.array(w.dots()[:37])
    on_bar(w, "Split into x and y")
    assert w.channel("Courier", "path")["keys"] == []
    assert len(w.keys("Courier", "x")) >= 4
    np.testing.assert_allclose(w.dots()[:37], before, atol=0.6)
    on_bar(w, "Join x and y")
    assert w.channel("Courier", "x")["keys"] == []
    np.testing.assert_allclose(w.dots()[:37], before, atol=0.6)


def test_moving_what_follows_a_path_puts_a_point_on_it(courier):
    w = courier
    w.page.get_by_role("button", name="Pick and move").click()
    w.go_to("18")
    x, y = w.value("Travel x"), w.value("Travel y")
    w.drag_in_picture((x, y), (x + 120, y + 30), keys="Alt")
    assert points(w)[2] == pytest.approx((18, x + 120, y + 30), abs=4)
    w.type_value("Travel x", "640")
    assert points(w)[2][1] == 640


def test_a_path_is_flipped(courier):
    w = courier
    on_bar(w, "Flip the path left to right")
    assert [x for _, x, _ in points(w)] == pytest.approx([1000, 600, 600, 200], abs=3)
