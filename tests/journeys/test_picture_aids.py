"""What helps the hand: snapping and guides, onion skin, arithmetic and scrubbing in fields, exact curves."""

import re

import pytest
from playwright.sync_api import expect

from tests.journeys.scenes import opened, shape


@pytest.fixture
def seed(page, server):
    w = opened(page, server.address, name="New scene", length=120, objects=[shape("Seed", x=300, y=200, fill="#F2932B")])
    w.pick("Seed")
    w.row("Travel").locator(".label").click()
    return w


def test_what_is_moved_snaps_to_the_picture_and_to_others(seed):
    w = seed
    w.drag_in_picture((300, 200), (643, 356), release=False)
    expect(w.page.locator(".overlay").get_by_text("centre").first).to_be_visible()
    w.page.mouse.up()
    w.saved()
    assert (w.value("Travel x"), w.value("Travel y")) == (640, 360)
    w.drag_in_picture((640, 360), (643, 366), keys="Alt")
    assert (w.value("Travel x"), w.value("Travel y")) != (640, 360), "Alt lets go of all guides"
    w.add("Star", "Compass")
    w.type_value("Travel x", "1000")
    w.type_value("Travel y", "471")
    w.pick("Seed")
    x, y = w.value("Travel x"), w.value("Travel y")
    w.drag_in_picture((x, y), (500, 474))
    assert w.value("Travel y") == 471, "in line with the other's middle"


def test_a_grid_to_snap_to_and_snapping_off(seed):
    w = seed
    w.page.get_by_role("button", name="snap", exact=True).click()
    columns = w.page.get_by_role("spinbutton", name="Columns of the grid")
    columns.fill("16")
    columns.press("Enter")
    w.page.keyboard.press("Escape")
    expect(w.page.locator(".overlay line.grid")).to_have_count(15)
    w.drag_in_picture((300, 200), (559, 231))
    assert w.value("Travel x") == 560
    w.page.get_by_role("button", name="snap", exact=True).click()
    w.page.get_by_text("snap to thirds").click()
    w.page.keyboard.press("Escape")
    w.drag_in_picture((560, 231), (643, 300))
    assert w.value("Travel x") != 640


@pytest.mark.parametrize(("text", "value"), [("960/2", 480), ("+20", 320), ("*1.5", 450), ("(3+4)*2 px", 14), ("−40", -40), ("/4", 75)])
def test_fields_reckon(seed, text, value):
    seed.type_value("Travel x", text)
    assert seed.value("Travel x") == value


def test_a_field_is_scrubbed(seed):
    w = seed
    box = w.value_field("Travel x").bounding_box()
    w.page.locator(".stage").focus()
    start = (box["x"] + 20, box["y"] + 8)
    w.drag(start, (start[0] + 60, start[1]))
    assert w.value("Travel x") == pytest.approx(360, abs=1)
    assert w.channel("Seed", "x")["base"] == pytest.approx(360, abs=1)
    w.page.keyboard.press("Control+z")
    w.saved()
    w.page.wait_for_timeout(100)
    assert w.value("Travel x") == 300
    w.value_field("Travel x").click()
    assert w.page.evaluate("document.activeElement.getAttribute('role')") == "spinbutton", "a click still types"


def painted(w):
    return w.page.get_by_test_id("onion").evaluate(
        "canvas => canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height).data.reduce((n, v, i) => n + (i % 4 === 3 && v > 0 ? 1 : 0), 0)"
    )


def test_onion_skin_shows_before_and_after(seed):
    w = seed
    w.go_to("0")
    w.key("Travel")
    w.go_to("40")
    w.type_value("Travel x", "1100")
    w.go_to("20")
    w.page.get_by_role("button", name=re.compile("^onion")).click()
    w.page.get_by_text("show onion skin").click()
    w.page.wait_for_timeout(200)
    four = painted(w)
    assert four > 1000
    before = w.page.get_by_role("spinbutton", name="Ghosts before")
    before.fill("0")
    before.press("Enter")
    w.page.wait_for_timeout(200)
    assert painted(w) < four * 0.8
    w.page.get_by_text("on keys only").click()
    w.page.wait_for_timeout(200)
    assert 0 < painted(w) < four * 0.6, "one key lies ahead"
    w.page.keyboard.press("Escape")


def test_several_channels_with_exact_numbers(seed):
    w = seed
    w.go_to("0")
    w.key("Travel")
    for frame, x, y in ((20, 500, 300), (40, 900, 250)):
        w.go_to(str(frame))
        w.type_value("Travel x", str(x))
        w.type_value("Travel y", str(y))
    w.page.get_by_role("tab", name="Curves").click()
    w.page.get_by_role("button", name="Travel x", exact=True).click()
    w.page.get_by_role("button", name="Travel y", exact=True).click(modifiers=["Shift"])

    def keys(axis):
        return w.page.get_by_role("button", name=re.compile(f"^Key of Travel {axis} at frame"))

    expect(keys("x")).to_have_count(3)
    expect(keys("y")).to_have_count(3)
    w.page.get_by_role("button", name=re.compile("^Key of Travel x at frame 20,")).click()
    frame = w.page.get_by_role("spinbutton", name="Frame of the key")
    frame.fill("22.5")
    frame.press("Enter")
    w.saved()
    w.page.wait_for_timeout(100)
    value = w.page.get_by_role("spinbutton", name="Value of the key")
    value.fill("960/2")
    value.press("Enter")
    w.saved()
    w.page.wait_for_timeout(100)
    assert w.keys("Seed", "x") == [(0, 300), (22.5, 480), (40, 900)]
    # One more is picked, and both slide together.
    w.page.get_by_role("button", name=re.compile("^Key of Travel y at frame 20,")).click(modifiers=["Shift"])
    both = w.page.get_by_role("button", name=re.compile("^Key of Travel y at frame 20,")).bounding_box()
    start = (both["x"] + 10, both["y"] + 10)
    w.drag(start, (start[0] + 60, start[1]), keys="Shift")
    moved_x, moved_y = w.keys("Seed", "x")[1][0], w.keys("Seed", "y")[1][0]
    assert moved_x - 22.5 == moved_y - 20 > 3
    own = w.page.get_by_role("switch", name="own heights")
    before = keys("y").nth(1).bounding_box()["y"]
    own.click()
    w.page.wait_for_timeout(150)
    assert keys("y").nth(1).bounding_box()["y"] != before
