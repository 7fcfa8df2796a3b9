"""Two people at one scene: each sees at once what the other does, nothing is overwritten, and undo takes back one's own."""

import re
import time

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.journeys.scenes import keys, opened, shape
from tests.journeys.servers import Server
from tests.journeys.workspace import Workspace

FROG, MANGO = shape("Frog", x=300, y=300, width=80, height=80), shape("Mango", x=800, y=300, width=80, height=80)


@pytest.fixture
def second(browser: Browser, server: Server):
    """The page of a second person: another profile, as on another machine."""
    context = browser.new_context(viewport={"width": 1280, "height": 800})
    yield context.new_page()
    context.close()


def together(page: Page, second: Page, address: str, objects: list | None = None) -> tuple[Workspace, Workspace]:
    one = opened(page, address, objects=objects or [FROG, MANGO])
    second.goto(page.url)
    two = Workspace(second, address)
    for who in (page, second):
        expect(who.get_by_role("button", name="has this scene open too")).to_be_visible()
    return one, two


def shown(w: Workspace, name: str, label: str, value: float) -> None:
    """The value that a page shows of an object, without asking anybody."""
    w.pick(name)
    expect(w.value_field(label)).to_have_value(f"{value:.1f}")


def test_a_page_shows_what_another_does_and_says_who_did_it(page: Page, second: Page, server: Server):
    one, two = together(page, second, server.address)
    shown(two, "Frog", "Travel x", 300)
    one.pick("Frog")
    one.type_value("Travel x", "420")
    expect(two.value_field("Travel x")).to_have_value("420.0")
    expect(second.get_by_role("status").filter(has_text=re.compile("Page 1: .*Frog"))).to_be_visible()
    second.get_by_role("button", name="has this scene open too").click()
    second.get_by_role("textbox", name="you, called").fill("Otter")
    second.get_by_role("textbox", name="you, called").press("Enter")
    expect(page.get_by_role("button", name="Otter has this scene open too")).to_be_visible()
    second.keyboard.press("Escape")
    two.pick("Mango")
    two.type_value("Travel x", "900")
    shown(one, "Mango", "Travel x", 900)
    page.get_by_role("button", name="Otter has this scene open too").click()
    expect(page.get_by_role("listitem").filter(has_text=re.compile(r"Otter: .*Mango"))).to_be_visible()


def test_undo_takes_back_ones_own_last_step_or_says_why_not(page: Page, second: Page, server: Server):
    one, two = together(page, second, server.address)
    one.pick("Frog")
    one.type_value("Travel x", "420")
    two.pick("Mango")
    two.type_value("Travel x", "900")
    expect(page.get_by_role("button", name="Undo", exact=True)).to_have_attribute("title", re.compile("Frog"))
    page.get_by_role("button", name="Undo", exact=True).click()
    shown(one, "Frog", "Travel x", 300)
    shown(two, "Frog", "Travel x", 300)
    shown(two, "Mango", "Travel x", 900)
    page.get_by_role("button", name="Redo", exact=True).click()
    shown(two, "Frog", "Travel x", 420)
    two.type_value("Travel x", "500")
    shown(one, "Frog", "Travel x", 500)
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(page.get_by_text(re.compile(r"cannot be taken back: Page 2 has changed the same values since .*undo that first"))).to_be_visible()
    shown(one, "Frog", "Travel x", 500)
    # Once the other has gone, everything is one's own.
    second.close()
    expect(page.get_by_role("button", name="has this scene open too")).to_have_count(0)
    page.get_by_role("button", name="Undo", exact=True).click()
    shown(one, "Frog", "Travel x", 420)


def test_edits_of_both_at_the_same_time_are_all_kept(page: Page, second: Page, server: Server):
    one, two = together(page, second, server.address)
    one.pick("Frog")
    two.pick("Mango")
    for w in (one, two):
        w.page.keyboard.press("m")
        w.page.locator(".stage").focus()
    # Nothing waits for anything: both nudge as quickly as keys can be pressed.
    for _ in range(12):
        page.keyboard.press("ArrowRight")
        second.keyboard.press("ArrowRight")
    deadline = time.monotonic() + 60
    while (one.channel("Frog", "x")["base"], one.channel("Mango", "x")["base"]) != (312, 812):
        assert time.monotonic() < deadline, "an edit was lost"
        page.wait_for_timeout(100)
    for w in (one, two):
        shown(w, "Frog", "Travel x", 312)
        shown(w, "Mango", "Travel x", 812)
    expect(page.get_by_text("was not made")).to_have_count(0)


def test_a_drag_does_not_end_in_the_place_of_what_another_did_meanwhile(page: Page, second: Page, server: Server):
    one, two = together(page, second, server.address)
    one.pick("Frog")
    two.pick("Frog")
    spot = one.on_screen(300, 300)
    page.mouse.move(*spot)
    page.mouse.down()
    page.mouse.move(spot[0] + 40, spot[1], steps=4)
    one.painted()
    two.type_value("Travel y", "420")
    expect(page.get_by_role("status").filter(has_text=re.compile("Page 2: .*Frog"))).to_be_visible()
    page.mouse.move(spot[0] + 80, spot[1], steps=4)
    page.mouse.up()
    expect(page.get_by_text("Page 2 changed the same value while you were dragging")).to_be_visible()
    assert (one.channel("Frog", "x")["base"], one.channel("Frog", "y")["base"]) == (300, 420)
    # The next drag is made as ever.
    one.drag_in_picture((300, 420), (400, 420))
    assert [round(value, -1) for _, value in one.keys("Frog", "x")] == [400]


def test_who_comes_back_to_a_scene_that_is_gone_is_told(page: Page, second: Page, server: Server):
    together(page, second, server.address, [shape("Frog", x=keys((0, 300), (24, 600)), y=300)])
    second.get_by_role("link", name="Vine Swing").click()
    second.get_by_role("button", name="More for Journey").click()
    second.get_by_role("menuitem", name="Delete").click()
    expect(page.get_by_text("This scene was deleted on another page")).to_be_visible()
    expect(page).to_have_url(re.compile("/$"))
