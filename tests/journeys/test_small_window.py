"""The workspace in small windows: nothing at the top lies over anything else and nothing is cut off; in the smallest it is made for, and larger ones, the
page does not scroll."""

import pytest
from playwright.sync_api import expect

from tests.journeys.scenes import keys, opened, shape
from tests.journeys.test_figures import begin


@pytest.mark.parametrize("size", [(1024, 700), (1130, 700), (1280, 800), (1920, 1080)])
def test_the_top_bar_has_room_for_all_it_holds(page, server, size):
    page.set_viewport_size({"width": size[0], "height": size[1]})
    w = opened(page, server.address, name="Letters for the far bank of the river", length=1200, objects=[shape("Leaf")])
    w.go_to("1199")
    boxes = (
        w.page.locator("header.top")
        .locator("button, a, .frame, .seconds")
        .evaluate_all(
            "all => all.map((one) => ({ name: one.ariaLabel || one.textContent.trim(), ...one.getBoundingClientRect().toJSON() })).filter((one) => one.width > 0)"
        )
    )
    boxes.sort(key=lambda box: box["left"])
    assert len(boxes) > 10
    assert boxes[-1]["right"] <= size[0]
    for left, right in zip(boxes, boxes[1:], strict=False):
        assert left["right"] <= right["left"] + 0.5, f"{left['name']} lies under {right['name']}"


def test_all_that_is_seen_over_the_picture_is_in_reach(page, server):
    page.set_viewport_size({"width": 1024, "height": 700})
    camera = {"id": "camera", "name": "Camera", "kind": "camera", "channels": {"x": 640, "y": 360}}
    opened(page, server.address, objects=[shape("Leaf"), camera])
    chips = page.get_by_role("toolbar", name="Overlays of the picture")
    expect(chips.get_by_role("switch", name="whole stage")).to_be_visible()
    edges = chips.evaluate("(all) => [all, ...all.children].map((one) => one.getBoundingClientRect().left)")
    assert min(edges) == edges[0]


def test_a_page_twice_as_large_is_scrolled_and_not_cut_off(page, server):
    """A window of 1280 × 800 whose page is enlarged to 200 % has 640 × 400 px of its own (WCAG 2.2, 1.4.4)."""
    w = opened(page, server.address, name="Letters", objects=[shape("Leaf", x=keys((0, 640), (24, 900)), y=360, width=200, height=200)])
    w.pick("Leaf")
    page.set_viewport_size({"width": 640, "height": 400})
    # Nothing hides what it takes to export, to write a value or to read how the result is made.
    for one in (
        page.get_by_role("button", name="Export"),
        page.get_by_role("button", name="Scene settings"),
        w.value_field("Travel y"),
        page.get_by_role("region", name="Vine").get_by_role("article").last,
        page.get_by_role("switch", name="big picture"),
    ):
        one.scroll_into_view_if_needed()
        expect(one).to_be_in_viewport(ratio=0.99)
    # A drag in the picture goes where the pointer goes, scrolled or not.
    page.evaluate("scrollTo(200, 40)")
    assert page.evaluate("[scrollX, scrollY]") == [200, 40]
    w.drag_in_picture((640, 360), (740, 360))
    w.shows("Travel x", 740, within=6)
    w.shows("Travel y", 360, within=6)


def test_the_other_pages_need_no_sideways_scrolling_twice_as_large(page, demo_server):
    page.set_viewport_size({"width": 640, "height": 400})
    beyond = (
        "() => [...document.querySelectorAll('a, button, input, h1, h2, p')].filter((one) => one.getBoundingClientRect().right > innerWidth).length"
    )
    for path, heading in (("", "Vine Swing"), ("principles", "Principles"), ("notes", "Notes"), ("help", "Help")):
        page.goto(f"{demo_server.address}/{path}")
        expect(page.get_by_role("heading", name=heading, exact=True)).to_be_visible()
        page.wait_for_load_state("networkidle")
        assert page.evaluate(beyond) == 0, path
        assert page.evaluate("document.documentElement.scrollWidth <= innerWidth"), path


def test_menus_stay_in_the_window_and_the_page_where_it_is(page, server):
    """The menu of the time sheet is taller than the room below and above its button."""
    w = opened(page, server.address, objects=[shape("Leaf", x=keys((0, 0), (24, 300)))])
    for height in (800, 700, 420):
        w.page.set_viewport_size({"width": 1280, "height": height})
        # A window so low that not all has room is scrolled, but by nobody's menu.
        beyond = 0 if height > 600 else 48 + 200 + 100 + 150 - height
        w.page.get_by_role("button", name="More for the time sheet").click()
        menu = w.page.get_by_role("menu")
        expect(menu).to_be_visible()
        # The last item can be reached with the keyboard, too.
        w.page.keyboard.press("End")
        expect(w.page.get_by_role("menuitem", name="Delete all keys of the scene…")).to_be_in_viewport(ratio=1)
        box = w.page.locator(".el-dropdown__popper").bounding_box()
        assert box["y"] >= 0
        assert box["y"] + box["height"] <= height
        assert w.page.evaluate("[scrollY, document.documentElement.scrollHeight - innerHeight]") == [0, beyond]
        w.page.keyboard.press("Escape")
        expect(menu).to_have_count(0)


@pytest.mark.parametrize("size", [(1024, 700), (1366, 620), (1024, 600)])
def test_neither_a_tool_nor_the_word_saved_is_cut_off(page, server, size):
    page.set_viewport_size({"width": size[0], "height": size[1]})
    w = opened(page, server.address, name="Letters for the far bank of the river", objects=[])
    # A figure has a tool more than anything else.
    begin(w, "Upright", "Postie")
    expect(w.page.get_by_role("button", name="Shape the joints")).to_be_visible()
    tools = w.page.get_by_role("toolbar", name="Tools").locator("button")
    hit = "all => all.map((one) => { const box = one.getBoundingClientRect(); return one.contains(document.elementFromPoint(box.x + box.width / 2, box.bottom - 3)) })"
    assert tools.evaluate_all(hit) == [True] * tools.count()
    assert w.page.locator("header.top .state").evaluate("one => one.scrollWidth <= one.clientWidth")
    # Neither do they lie over the picture, nor are the cards of the vine cut off.
    right = max(box["right"] for box in tools.evaluate_all("all => all.map((one) => one.getBoundingClientRect().toJSON())"))
    assert right <= w.canvas()["x"]
    cards = w.page.get_by_role("region", name="Vine").get_by_role("article")
    assert max(cards.evaluate_all("all => all.map((one) => one.getBoundingClientRect().bottom)")) <= size[1]


def test_a_long_name_leaves_the_frame_its_room_and_is_read_from_its_beginning(page, server):
    long, to_the_left = (
        "The left wing of the second letter carrier on the far bank of the river",
        "جناح الرسول الطائر فوق النهر الكبير في الغابة المطيرة",
    )
    things = [shape(long) | {"id": "wing"}, shape(to_the_left) | {"id": "other-wing"}]
    w = opened(page, server.address, objects=things)
    for name, direction in ((long, "ltr"), (to_the_left, "rtl")):
        w.pick(name)
        heading = page.get_by_role("heading", name=f"{name} at frame 0")
        expect(heading.get_by_text("at frame 0")).to_be_in_viewport(ratio=1)
        for shown in (heading.get_by_text(name), w.item(name).get_by_text(name)):
            # What is cut off is the end named, which lies to the right or, in scripts that go to the left, to the left.
            assert shown.evaluate("(one) => [getComputedStyle(one).direction, one.scrollWidth > one.clientWidth]") == [direction, True]
