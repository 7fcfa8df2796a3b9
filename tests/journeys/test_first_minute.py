"""The first minute: ways to begin in an empty scene, and the guided first scene, followed by keyboard alone, left and adopted again."""

from playwright.sync_api import Page, expect

from tests.journeys.scenes import opened
from tests.journeys.servers import Server


def test_an_empty_scene_offers_four_ways_to_begin(page: Page, server: Server):
    w = opened(page, server.address)
    ways = page.get_by_role("region", name="Ways to start")
    expect(ways.get_by_role("button")).to_have_count(5)
    ways.get_by_role("button", name="A ready motion").click()
    dialog = page.get_by_role("dialog", name="Ready elements")
    expect(dialog.locator(".cards > *")).not_to_have_count(0)
    every = dialog.locator(".cards > *").count()
    dialog.get_by_label("Find an element").fill("wax")
    expect(dialog.locator(".cards > *")).to_have_count(1)
    assert every > 5
    page.keyboard.press("Escape")
    ways.get_by_role("button", name="Draw").click()
    expect(ways).to_have_count(0)
    page.keyboard.press("v")
    ways.get_by_role("button", name="A figure").click()
    expect(page.get_by_role("dialog", name="figure")).to_be_visible()
    page.keyboard.press("Escape")
    ways.get_by_role("button", name="A shape").click()
    expect(page.get_by_role("textbox", name="New name of")).to_be_focused()
    page.keyboard.press("Enter")
    w.saved()
    assert len(w.kept()["scene"]["objects"]) == 1
    expect(ways).to_have_count(0)


def tab_to(page: Page, label: str) -> None:
    """Go on with Tab until what has the focus is named so."""
    for _ in range(40):
        if page.evaluate("document.activeElement.textContent.trim().toLowerCase()").startswith(label):
            return
        page.keyboard.press("Tab")
    raise AssertionError(f"nothing called '{label}' can be reached")


def test_the_first_scene_is_followed_to_its_end_by_keyboard_alone(page: Page, server: Server):
    w = opened(page, server.address)
    guide = page.get_by_role("complementary", name="First scene")
    press = page.keyboard.press
    press("F1")
    expect(guide).to_contain_text("1 of 8")
    # The ring lies around what the words speak of, and covers nothing.
    ring, tool = page.locator(".guide-ring").bounding_box(), page.get_by_role("button", name="Add to the picture").bounding_box()
    assert ring["x"] < tool["x"]
    assert ring["x"] + ring["width"] > tool["x"] + tool["width"]
    press("n")
    expect(page.get_by_role("menuitem", name="Ellipse")).to_be_visible()
    press("ArrowDown")
    press("Enter")
    expect(page.get_by_role("textbox", name="New name of")).to_be_focused()
    press("Enter")
    expect(guide).to_contain_text("2 of 8")
    for _ in range(20):
        press("Shift+ArrowUp")
    expect(guide).to_contain_text("3 of 8")
    # It can be left and adopted again, and is where it was after the page is opened again.
    press("F1")
    expect(guide).to_have_count(0)
    page.reload()
    w.saved()
    press("F1")
    expect(guide).to_contain_text("3 of 8")
    press("f")
    page.keyboard.insert_text("18")
    press("Enter")
    press("Escape")
    expect(guide).to_contain_text("4 of 8")
    press("PageDown")
    for _ in range(40):
        press("Shift+ArrowDown")
    expect(guide).to_contain_text("5 of 8")
    w.saved()
    press("Control+Alt+e")
    expect(page.get_by_role("radiogroup", name="After the last key").get_by_role("radio").first).to_be_focused()
    tab_to(page, "ping-pong")
    press("Enter")
    expect(guide).to_contain_text("6 of 8")
    press("Escape")
    press("Control+Alt+f")
    expect(page.get_by_role("radiogroup", name="Feel").get_by_role("radio").first).to_be_focused()
    tab_to(page, "slow out")
    press("Enter")
    expect(guide).to_contain_text("7 of 8")
    press("Escape")
    press("Control+Alt+r")
    expect(page.get_by_label("Find a rule")).to_be_focused()
    page.keyboard.insert_text("squash")
    press("Enter")
    expect(guide).to_contain_text("8 of 8")
    w.saved()
    page.evaluate("document.activeElement.blur()")
    press("Space")
    expect(guide).to_contain_text("That is a scene")
    press("Space")
    kept = w.kept()["scene"]["objects"][0]
    assert [key["frame"] for key in kept["channels"]["y"]["keys"]] == [0, 18]
    assert kept["channels"]["y"]["after"]["mode"] == "ping-pong"
    assert kept["channels"]["y"]["keys"][0]["ease"] == "slow-out"
    assert kept["rules"][0]["kind"] == "squash-stretch"
    press("F1")
    expect(guide).to_have_count(0)
