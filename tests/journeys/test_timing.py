"""Pushing timing: leaves stretched, reversed, spread, held, copied and cleared on the time sheet."""

import pytest
from playwright.sync_api import expect

from tests.journeys.scenes import keys, opened, shape


@pytest.fixture
def tour(page, server):
    """A courier with travel keys at 0, 40 and 50: x 100, 300, 900. The last leg is far too fast."""
    courier = shape("Courier", x=keys((0, 100), (40, 300), (50, 900)) | {"base": 100}, y=keys((0, 360)) | {"base": 360})
    w = opened(page, server.address, name="New scene", length=120, objects=[courier])
    w.pick("Courier")
    w.row("Travel").locator(".label").click()
    w.go_to("50")
    return w


def pick_all(w):
    w.leaf(w.kept()["scene"]["objects"][0]["name"], "Travel", 0).click()
    w.page.keyboard.press("Control+a")


def act(w, label):
    w.page.get_by_role("toolbar", name="Picked leaves").get_by_role("button", name=label).click()
    w.saved()
    w.page.wait_for_timeout(80)


def test_a_tour_gets_equal_speed_throughout(tour):
    w = tour
    pick_all(w)
    act(w, "Even speed")
    assert w.keys("Courier", "x") == [(0, 100), (12.5, 300), (50, 900)]
    steps = [b[0] - a[0] for a, b in zip(w.dots()[:50], w.dots()[1:51], strict=True)]
    assert max(steps) - min(steps) < 1


def test_the_end_of_the_picked_leaves_stretches_their_time(tour):
    w = tour
    pick_all(w)
    near, far = (w.leaf("Courier", "Travel", f).bounding_box() for f in (0, 50))
    per_frame = (far["x"] - near["x"]) / 50
    grip = w.page.get_by_role("button", name="Stretch from the last picked leaf").bounding_box()
    start = (grip["x"] + 3, grip["y"] + 8)
    w.drag(start, (start[0] + 50 * per_frame, start[1]))
    assert w.keys("Courier", "x") == [(0, 100), (80, 300), (100, 900)]
    w.page.keyboard.press("Control+z")
    expect(w.leaf("Courier", "Travel", 40)).to_have_count(1)


def test_reverse_spread_and_close_the_loop(tour):
    w = tour
    pick_all(w)
    act(w, "Reverse")
    assert w.keys("Courier", "x") == [(0, 900), (10, 300), (50, 100)]
    pick_all(w)
    act(w, "Spread evenly")
    assert w.keys("Courier", "x") == [(0, 900), (25, 300), (50, 100)]
    pick_all(w)
    act(w, "Close the loop")
    assert w.keys("Courier", "x")[-1] == (50, 900)


def test_a_stop_in_the_middle_for_20_frames(tour):
    w = tour
    w.leaf("Courier", "Travel", 40).click()
    w.page.get_by_role("button", name="Hold here…").click()
    field = w.page.get_by_role("spinbutton", name="Hold for how many frames")
    field.fill("20")
    field.press("Enter")
    w.page.get_by_role("button", name="Hold from 40").click()
    w.saved()
    w.page.wait_for_timeout(80)
    assert w.keys("Courier", "x") == [(0, 100), (40, 300), (60, 300), (70, 900)]
    for frame in (40, 50, 60):
        w.go_to(str(frame))
        assert w.value("Travel x") == 300


def test_the_same_move_on_two_other_objects_with_six_frames_delay_each(tour):
    w = tour
    w.page.locator(".stage").focus()
    w.page.keyboard.press("Escape")
    w.pick("Courier")
    w.page.locator(".stage").focus()
    w.page.keyboard.press("Control+Shift+a")
    w.page.keyboard.press("Control+c")
    for n, name in enumerate(("Second", "Third"), start=1):
        w.add("Star", name)
        w.go_to(str(6 * n))
        w.page.locator(".stage").focus()
        w.page.keyboard.press("Control+v")
        expect(w.leaves(name, "Travel")).to_have_count(3)
        w.saved()
        assert w.keys(name, "x") == [(0 + 6 * n, 100), (40 + 6 * n, 300), (50 + 6 * n, 900)]


@pytest.mark.parametrize(("choice", "value"), [("that of the first key", 100), ("that of this frame", 200), ("the one it had before", 100)])
def test_all_keys_cleared_with_a_chosen_value_then_undone(tour, choice, value):
    w = tour
    before = w.keys("Courier", "x")
    w.go_to("20")
    pick_all(w)
    w.page.keyboard.press("Delete")
    dialog = w.page.get_by_role("dialog", name="Delete all these keys?")
    dialog.get_by_text(choice).click()
    w.page.wait_for_timeout(200)
    assert w.value("Travel x") == value, "the picture shows what would stay"
    assert w.keys("Courier", "x") == before, "nothing is deleted yet"
    dialog.get_by_role("button", name="Delete the keys").click()
    w.saved()
    expect(w.leaves("Courier", "Travel")).to_have_count(0)
    assert w.channel("Courier", "x")["base"] == value
    w.page.keyboard.press("Control+z")
    expect(w.leaves("Courier", "Travel")).to_have_count(3)
    assert w.keys("Courier", "x") == before


def test_clearing_can_be_let_be(tour):
    w = tour
    before = w.kept()
    pick_all(w)
    w.page.keyboard.press("Delete")
    w.page.get_by_role("button", name="Keep the keys").click()
    expect(w.page.get_by_role("dialog")).to_have_count(0)
    assert w.kept() == before
    w.go_to("40")
    assert w.value("Travel x") == 300
