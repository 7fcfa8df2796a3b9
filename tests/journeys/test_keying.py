"""What a change by hand does: key, only look, or set; on, off, first and existing keys."""

import pytest
from playwright.sync_api import expect

from tests.journeys.scenes import keys, opened, shape


@pytest.fixture
def pod(page, server):
    """A pod with travel keys at 0 (640) and 24 (840)."""
    w = opened(page, server.address, name="New scene", length=120, objects=[shape("Pod", x=keys((0, 640), (24, 840)), y=keys((0, 360)))])
    w.pick("Pod")
    w.row("Travel").locator(".label").click()
    w.go_to("24")
    return w


def off(w):
    w.page.get_by_role("switch", name="key as I move").click()


def test_off_a_drag_is_for_looking_only(pod):
    w = pod
    off(w)
    before = w.kept()
    w.go_to("12")
    w.drag_in_picture((740, 360), (740, 200))
    line = w.page.get_by_role("status").filter(has_text="For looking only")
    expect(line).to_contain_text("Pod’s travel at frame 12 is not keyed")
    # The picture shows the look.
    w.shows("Travel y", 200, within=2)
    assert w.kept() == before, "nothing is kept"

    w.page.get_by_role("button", name="Let it go").click()
    expect(line).to_have_count(0)
    assert w.value("Travel y") == 360
    assert w.kept() == before

    w.drag_in_picture((740, 360), (740, 200))
    w.page.get_by_role("button", name="Key it").click()
    w.saved()
    expect(line).to_have_count(0)
    assert [frame for frame, _ in w.keys("Pod", "y")] == [0, 12]
    assert w.keys("Pod", "y")[1][1] == pytest.approx(200, abs=2)


def test_off_a_typed_value_on_keys_only_looks_too_and_enter_keys_it(pod):
    w = pod
    off(w)
    w.go_to("6")
    w.type_value("Travel x", "500")
    expect(w.page.get_by_text("For looking only")).to_be_visible()
    w.page.locator(".stage").focus()
    w.page.keyboard.press("Enter")
    w.saved()
    assert (6, 500) in w.keys("Pod", "x")


def test_off_what_has_no_keys_is_simply_set(pod):
    w = pod
    off(w)
    w.drag_handle("handle-turn", (0, 0), release=True)
    w.type_value("Rotation turn", "33")
    assert w.channel("Pod", "rotation")["base"] == 33
    expect(w.page.get_by_text("For looking only")).to_have_count(0)


def test_moving_on_the_frame_of_a_key_changes_that_key(pod):
    w = pod
    w.go_to("24")
    w.drag_in_picture((840, 360), (900, 300))
    keys = w.keys("Pod", "x")
    assert [frame for frame, _ in keys] == [0, 24]
    assert keys[1][1] == pytest.approx(900, abs=2)


def test_turning_keys_without_asking_and_says_that_one_key_moves_nothing(pod):
    w = pod
    w.go_to("10")
    stage = w.page.locator(".stage").bounding_box()
    ring = w.page.get_by_test_id("handle-turn")
    cx, cy, r = (float(ring.get_attribute(name)) for name in ("cx", "cy", "r"))
    cx, cy = cx + stage["x"], cy + stage["y"]
    w.drag((cx + r, cy), (cx, cy + r))
    ((frame, angle),) = w.keys("Pod", "rotation")
    assert frame == 10
    assert angle == pytest.approx(90, abs=3)
    expect(w.page.get_by_text("One key makes no motion yet")).to_be_visible()
    expect(w.page.get_by_role("dialog")).to_have_count(0)
    w.drag((cx + r, cy), (cx, cy - r))
    assert len(w.keys("Pod", "rotation")) == 1
    assert w.keys("Pod", "rotation")[0][1] == pytest.approx(0, abs=3)


def test_shift_keeps_one_direction(pod):
    w = pod
    w.go_to("24")
    w.drag_in_picture((840, 360), (940, 390), keys="Shift")
    assert w.keys("Pod", "y")[-1] == (24, 360)
    assert w.keys("Pod", "x")[-1][1] == pytest.approx(940, abs=2)


def test_escape_during_a_drag_leaves_all_as_it_was(pod):
    w = pod
    before = w.kept()
    w.go_to("24")
    w.drag_in_picture((840, 360), (400, 100), release=False)
    w.page.keyboard.press("Escape")
    w.page.mouse.up()
    w.page.wait_for_timeout(200)
    assert w.kept() == before
    assert w.value("Travel x") == 840


def test_a_corner_sizes_and_the_pivot_is_moved_without_moving_the_picture(pod):
    w = pod
    w.go_to("0")
    w.drag_handle("handle-corner-2", (30, 30), keys="Shift")
    assert w.keys("Pod", "scale.x")[0][1] > 1.3
    assert w.keys("Pod", "scale.x")[0][1] == pytest.approx(w.keys("Pod", "scale.y")[0][1], abs=0.01)

    middle = w.dots()
    w.page.get_by_role("button", name="Move the pivot").click()
    w.drag_handle("handle-pivot", (0, -25))
    pivot = w.channel("Pod", "pivot.y")["base"]
    assert pivot < -20
    moved = [y for _, y in w.dots()]
    assert moved[0] == pytest.approx(middle[0][1] + pivot * w.keys("Pod", "scale.y")[0][1], abs=1.5), "the path is now the pivot's"


def test_everything_in_the_picture_can_be_done_from_the_keyboard(workspace):
    w = workspace
    press = w.page.keyboard.press
    w.add("Polygon", "Kite")
    w.add("Star", "Spark")
    w.page.locator(".stage").focus()
    press("PageDown")
    w.page.wait_for_timeout(100)
    expect(w.page.get_by_role("heading", name="Kite at frame 0")).to_be_visible()
    for key in ("ArrowRight", "Shift+ArrowDown", "]", "}", "="):
        press(key)
        w.saved()
    assert w.keys("Kite", "x") == [(0, 641)]
    assert w.keys("Kite", "y") == [(0, 370)]
    assert w.keys("Kite", "rotation") == [(0, 16)]
    assert w.keys("Kite", "scale.x") == [(0, 1.02)]
    press("Alt+ArrowUp")
    w.saved()
    assert w.channel("Kite", "pivot.y")["base"] == -1
    press(".")
    press(".")
    assert w.frame() == 2
    press("<")
    assert w.frame() == 0
    press("k")
    w.saved()
    press("m")
    expect(w.page.get_by_role("switch", name="key as I move")).to_have_attribute("aria-checked", "false")
    press("?")
    sheet = w.page.get_by_role("dialog", name="Keyboard shortcuts")
    expect(sheet).to_contain_text("Play or pause")
    press("Escape")
    expect(sheet).to_be_hidden()
    press("PageDown")
    press("Delete")
    w.saved()
    assert len(w.kept()["scene"]["objects"]) == 1
    press("Control+z")
    w.saved()
    assert len(w.kept()["scene"]["objects"]) == 2
