"""Feels: an arrival that settles, speed pulled by hand, and feels of one's own."""

import pytest
from playwright.sync_api import expect

from tests.journeys.workspace import Workspace


@pytest.fixture
def trip(workspace):
    w = workspace
    travelling(w, "Parcel")
    return w


def travelling(w, name):
    w.add("Rectangle", name)
    w.go_to("0")
    w.type_value("Travel x", "100")
    w.key("Travel")
    w.go_to("40")
    w.type_value("Travel x", "900")


def steps(w):
    xs = [x for x, _ in w.dots()]
    return [b - a for a, b in zip(xs, xs[1:], strict=False)]


def test_an_arrival_slows_and_settles(trip):
    w = trip
    assert steps(w)[38] == pytest.approx(20, abs=0.5)
    w.page.get_by_role("tab", name="Speed").click()
    ring = w.page.get_by_test_id("speed-arriving-0").bounding_box()
    start = (ring["x"] + 6, ring["y"] + 6)
    w.drag(start, (start[0], start[1] + 200))
    late = steps(w)[34:40]
    assert late == sorted(late, reverse=True), "it goes slower and slower"
    assert late[-1] < 2
    assert w.keys("Parcel", "x") == [(0, 100), (40, 900)], "the keys stay"
    ring = w.page.get_by_test_id("speed-leaving-0").bounding_box()
    start = (ring["x"] + 6, ring["y"] + 6)
    w.drag(start, (start[0], start[1] + 300))
    assert steps(w)[0] < 2


def test_a_feel_is_seen_before_it_is_chosen_and_left_with_one_click(trip):
    w = trip
    w.page.get_by_role("button", name="Feel", exact=True).click()
    before = steps(w)
    w.page.get_by_role("radio", name="Snap", exact=True).hover()
    w.page.wait_for_timeout(500)
    assert steps(w)[0] > before[0] * 2
    assert w.channel("Parcel", "x")["keys"][0]["ease"] == "linear", "looking changes nothing"
    w.page.get_by_role("heading", name="From frame 0 to 40").hover()
    w.page.wait_for_timeout(400)
    assert steps(w) == before
    w.page.get_by_role("radio", name="Heavy", exact=True).click()
    w.saved()
    assert w.channel("Parcel", "x")["keys"][0]["ease"] == "heavy"
    w.page.get_by_role("button", name="Back to even").click()
    w.saved()
    assert w.channel("Parcel", "x")["keys"][0]["ease"] == "linear"


def test_a_feel_of_ones_own_is_drawn_kept_and_used_in_another_scene(trip, server):
    w = trip
    w.page.get_by_role("button", name="Feel", exact=True).click()
    w.page.get_by_role("button", name="Draw your own…").click()
    dialog = w.page.get_by_role("dialog", name="Draw a feel")
    area = dialog.get_by_role("application", name="Curve of the feel").bounding_box()
    w.page.mouse.click(area["x"] + area["width"] * 0.7, area["y"] + area["height"] * 0.15)
    expect(dialog.get_by_test_id("feel-point-3")).to_be_visible()
    point = dialog.get_by_test_id("feel-point-1").bounding_box()
    start = (point["x"] + 7, point["y"] + 7)
    w.drag(start, (start[0] + 20, start[1] + 30), release=False)
    w.page.mouse.up()
    dialog.get_by_label("Name of the feel").fill("Late settle")
    dialog.get_by_role("button", name="Keep and use").click()
    expect(dialog).to_be_hidden()
    w.saved()
    ease = w.channel("Parcel", "x")["keys"][0]["ease"]
    assert max(p for _, p in ease["points"]) > 1.1
    xs = [x for x, _ in w.dots()]
    assert max(xs) > 950, "it goes past its key"

    w.page.goto(server.address)
    w.page.get_by_role("button", name="New scene").first.click()
    other = Workspace(w.page, server.address)
    travelling(other, "Crate")
    other.choose_feel("Late settle")
    assert other.channel("Crate", "x")["keys"][0]["ease"] == ease
    other.page.get_by_role("button", name="Feel", exact=True).click()
    other.page.get_by_role("radio", name="Late settle").hover()
    other.page.get_by_role("button", name="Take Late settle off the list").click()
    expect(other.page.get_by_role("radio", name="Late settle")).to_have_count(0)
    assert other.channel("Crate", "x")["keys"][0]["ease"] == ease, "what moves by it still does"


def test_one_channel_can_have_a_feel_of_its_own(trip):
    w = trip
    w.type_value("Travel y", "600")
    w.page.get_by_role("radio", name="y", exact=True).click()
    w.page.get_by_role("button", name="Feel", exact=True).click()
    w.page.get_by_text("only y").click()
    w.page.get_by_role("radio", name="Slow in", exact=True).click()
    w.saved()
    assert [w.channel("Parcel", name)["keys"][0]["ease"] for name in "xy"] == ["linear", "slow-in"]
