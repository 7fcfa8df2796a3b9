"""The curve view: keys and handles dragged, and the curve that answers."""

import re

import pytest
from playwright.sync_api import expect

from tests.journeys.scenes import keys, opened, shape


@pytest.fixture
def curve(page, server):
    """A kite whose rotation has keys at 0 (0°), 30 (60°) and 60 (0°), shown in the curve view."""
    kite = shape("Kite", "polygon", x=640, y=360, rotation=keys((0, 0), (30, 60), (60, 0)))
    w = opened(page, server.address, name="New scene", length=120, objects=[kite])
    w.pick("Kite")
    w.row("Rotation").locator(".label").click()
    w.go_to("60")
    w.page.get_by_role("tab", name="Curves").click()
    return w


def key_at(w, frame):
    return w.page.get_by_role("button", name=re.compile(rf"^Key of Rotation turn at frame {frame},"))


def middle(locator):
    box = locator.bounding_box()
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def test_a_key_is_dragged_in_time_and_value(curve):
    w = curve
    (x0, _), (x, y), (x1, _) = (middle(key_at(w, frame)) for frame in (0, 30, 60))
    per_frame = (x1 - x0) / 60
    w.drag((x, y), (x + 10 * per_frame, y + 20))
    keys = w.keys("Kite", "rotation")
    assert [frame for frame, _ in keys] == [0, 40, 60]
    assert 20 < keys[1][1] < 58
    w.drag(middle(key_at(w, 40)), (x, y + 60), keys="Shift")
    frames = [frame for frame, _ in w.keys("Kite", "rotation")]
    assert frames in ([0, 40, 60], [0, 30, 60]), "Shift keeps to one direction"
    w.page.keyboard.press("Control+z")
    w.saved()
    w.page.wait_for_timeout(100)
    assert w.keys("Kite", "rotation") == keys


def test_handles_bend_the_curve_together_or_alone(curve):
    w = curve
    w.page.get_by_role("button", name="Handles").click()
    w.saved()
    w.go_to("15")
    before = w.value("Rotation turn")
    assert before == pytest.approx(30, abs=0.1), "handles begin on the straight line"
    handle = w.page.get_by_test_id("handle-out-30")
    x, y = middle(handle)
    w.drag((x, y), (x + 20, y - 25))
    key = w.channel("Kite", "rotation")["keys"][1]
    assert key["out"][0] > 10
    slope = key["out"][1] / key["out"][0]
    assert key["in"][1] / key["in"][0] == pytest.approx(slope, abs=0.01), "its partner swings along"
    assert w.value("Rotation turn") != before

    x, y = middle(w.page.get_by_test_id("handle-out-30"))
    w.drag((x, y), (x - 5, y + 40), keys="Alt")
    broken = w.channel("Kite", "rotation")["keys"][1]
    assert broken["in"] == key["in"]
    assert broken["out"] != key["out"]


def test_a_spline_answers_to_its_tension(curve):
    w = curve
    w.page.get_by_role("button", name="Spline").click()
    w.saved()
    w.go_to("22")
    smooth = w.value("Rotation turn")
    field = w.page.get_by_role("spinbutton", name="tension")
    field.fill("1")
    field.press("Enter")
    w.saved()
    w.page.wait_for_timeout(100)
    assert [key["tension"] for key in w.channel("Kite", "rotation")["keys"]] == [1, 1, 1], "with no key picked, all are meant"
    assert w.value("Rotation turn") != smooth
    # While the field is dragged the curve answers, and nothing is kept before the hand releases.
    w.page.locator(".stage").focus()
    curve = w.page.get_by_role("group", name="Curve of Rotation turn").locator("path.on")
    before, box = curve.get_attribute("d"), field.bounding_box()
    w.drag((box["x"] + 60, box["y"] + 6), (box["x"] + 20, box["y"] + 6), release=False)
    expect(curve).not_to_have_attribute("d", before)
    assert [key["tension"] for key in w.channel("Kite", "rotation")["keys"]] == [1, 1, 1]
    w.page.mouse.up()
    w.saved()
    w.page.wait_for_timeout(100)
    assert w.channel("Kite", "rotation")["keys"][0]["tension"] < 1
    field.fill("1")
    field.press("Enter")
    w.saved()
    key_at(w, 30).click()
    field.fill("0.5")
    field.press("Enter")
    w.saved()
    w.page.wait_for_timeout(100)
    assert [key["tension"] for key in w.channel("Kite", "rotation")["keys"]] == [1, 0.5, 1]


def test_a_double_click_adds_a_key_on_the_curve(curve):
    w = curve
    (x0, _), (x1, y1) = middle(key_at(w, 0)), middle(key_at(w, 30))
    w.page.mouse.dblclick(x0 + (x1 - x0) / 2, y1 + 5)
    expect(key_at(w, 15)).to_have_count(1)
    assert w.keys("Kite", "rotation")[1] == (15, 30)
