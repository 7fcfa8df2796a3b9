"""The guide: its words are followed in the application, and it is read and searched there."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.journeys.scenes import kept
from tests.journeys.workspace import Workspace

ROOT = Path(__file__).resolve().parents[2]
PAGES = sorted((ROOT / "docs" / "guide").glob("*.md"))
#: What a control can be, to whoever looks for it by its name.
ROLES = ("button", "menuitem", "tab", "radio", "switch", "checkbox", "treeitem", "textbox", "spinbutton", "combobox", "link", "option")
FIELDS = ("textbox", "spinbutton", "combobox")


def walk(page: Path) -> tuple[str, list[str]]:
    """The scene that a page's steps are accepted, and the steps."""
    text = page.read_text(encoding="utf-8")
    part = re.search(r"^## Try it\n\n(.+?)\n\n((?:\d+\. .+\n)+)", text, flags=re.MULTILINE)
    assert part is not None, f"{page.name} has no steps to try"
    scene = re.search(r"\*(.+?)\*", part[1])
    return scene[1] if scene else "", re.findall(r"^\d+\. (.+)$", part[2], flags=re.MULTILINE)


def control(page: Page, name: str) -> tuple[str, Locator]:
    """The control of a name that is seen, and what it is; one whose name only begins with these words, where none is called just that."""
    beginning = re.compile(f"^\\W*{re.escape(name)}", re.IGNORECASE)
    for _ in range(600):
        for called in (name, beginning):
            for role in ROLES:
                found = page.get_by_role(role, name=called, exact=True) if called is name else page.get_by_role(role, name=called)
                # What came last is on top.
                for n in reversed(range(found.count())):
                    if found.nth(n).is_visible():
                        return role, found.nth(n)
        page.wait_for_timeout(50)
    raise AssertionError(f"there is no '{name}' to be seen")


@pytest.mark.parametrize("file", PAGES, ids=lambda page: page.stem)
def test_its_steps_are_followed_word_for_word(page: Page, server, file: Path):
    """Bold words are controls, which are pressed; what is in backticks is written into a field that was just named, or else pressed as keys."""
    name, steps = walk(file)
    address = kept(server.address, ROOT / "demo" / "scenes", name) if name else kept(server.address)
    page.goto(address)
    w = Workspace(page, server.address)
    named = 0
    for step in steps:
        field = None
        for bold, code in re.findall(r"\*\*(.+?)\*\*|`(.+?)`", step):
            if bold:
                named += 1
                role, found = control(page, bold)
                field = found if role in FIELDS else None
                found.click()
            elif field is not None and not re.match(r"Ctrl\+", code):
                field.fill(code)
                # Enter is a new line in what has several.
                if field.evaluate("field => field.tagName") == "INPUT":
                    field.press("Enter")
            else:
                page.keyboard.press(code.replace("Ctrl", "Control"))
        w.painted()
    assert named >= 2, f"{file.name} names no controls"
    expect(page.get_by_role("button", name="Scene settings")).to_contain_text("saved")
    expect(page.locator(".el-message--error")).to_have_count(0)


def test_it_is_read_and_searched_over_the_scene_at_work(page: Page, server):
    page.goto(kept(server.address))
    Workspace(page, server.address).painted()
    page.keyboard.press("Shift+F1")
    help_ = page.get_by_role("dialog", name="Help")
    expect(help_.get_by_role("heading", name="Your first motion")).to_be_visible()
    field = help_.get_by_role("searchbox", name="Search the guide")
    field.fill("onion")
    field.press("Enter")
    expect(help_.get_by_role("heading", name="Onion skin")).to_be_in_viewport()
    field.fill("xqzzyv")
    expect(help_.get_by_text("No results")).to_be_visible()
    field.fill("")
    help_.get_by_role("button", name="How it is built").click()
    expect(help_.get_by_role("heading", name="One edit, from click to picture")).to_be_visible()
    page.keyboard.press("Escape")
    expect(help_).to_be_hidden()


def test_it_is_a_page_of_its_own_too(page: Page, server):
    page.goto(server.address)
    page.get_by_role("link", name="Help").click()
    page.get_by_role("button", name="Figures that walk").click()
    expect(page).to_have_url(re.compile("/help/walking$"))
    expect(page.get_by_role("article", name="Figures that walk").get_by_role("img")).to_be_visible()
    page.get_by_role("link", name="Shelf", exact=True).last.click()
    expect(page.get_by_role("heading", name="Vine Swing")).to_be_visible()
