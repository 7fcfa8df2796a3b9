"""Text: written in the picture, set in the panel, counting, and made an outline."""

import re

from playwright.sync_api import expect

from tests.journeys.workspace import Workspace
from vine_swing.motion.outline.text.families import FONTS


def begin(page):
    """A new text, about to be written."""
    page.get_by_role("button", name="Add to the picture").click()
    page.get_by_role("menuitem", name="Text").click()
    expect(page.get_by_role("textbox", name=re.compile("Words of"))).to_be_focused()


def write(w, text):
    """A new text that says this, kept."""
    begin(w.page)
    w.page.keyboard.type(text)
    w.page.keyboard.press("Control+Enter")
    w.saved()


def test_a_title_is_written_set_and_counts(workspace: Workspace):
    w, page = workspace, workspace.page
    begin(page)
    page.keyboard.type("Letters today\n{number:,d} ☃")
    # Seen before it is kept: the panel names what no font has.
    expect(page.get_by_role("status").filter(has_text="No font here has ☃")).to_be_visible()
    page.keyboard.press("Backspace")
    page.keyboard.press("Backspace")
    page.keyboard.press("Control+Enter")
    w.saved()
    (title,) = w.kept()["scene"]["objects"]
    assert (title["name"], title["shape"]["text"]) == ("Letters today", "Letters today\n{number:,d}")
    # The number is a value as any other: keyed, it counts.
    w.key("Text")
    w.go_to("48")
    w.type_value("Text number", "1200")
    w.go_to("24")
    assert w.value("Text number") == 600
    group = page.get_by_role("group", name="Text", exact=True)
    group.locator(".font").click()
    page.get_by_role("option", name="Bricolage Grotesque").click()
    w.saved()
    group.get_by_role("combobox", name="Weight").select_option("Extra bold")
    w.saved()
    group.get_by_role("radio", name="Align left").click()
    w.saved()
    group.get_by_role("button", name="Wrap").click()
    w.saved()
    shape = w.kept()["scene"]["objects"][0]["shape"]
    assert [shape[name] for name in ("font", "weight", "align", "wrap")] == ["bricolage-grotesque", 800, "left", 480]


def test_keyed_words_change_and_are_taken_back(workspace: Workspace):
    w, page = workspace, workspace.page
    write(w, "Closed")
    field = page.get_by_role("group", name="Text", exact=True).get_by_role("textbox", name="Words")
    w.key("Words")
    w.go_to("30")
    field.fill("Mail is in")
    page.keyboard.press("Control+Enter")
    w.saved()

    def keys():
        return [(one["frame"], one["value"]) for one in w.kept()["scene"]["objects"][0]["channels"]["text"]["keys"]]

    assert keys() == [(0, {"text": "Closed"}), (30, {"text": "Mail is in"})]
    # Each frame says its own, in the field and in the row.
    row = page.locator(".value-row").filter(has_text="Words")
    for frame, said in (("29", "Closed"), ("31", "Mail is in"), ("30", "Mail is in")):
        w.go_to(frame)
        expect(field).to_have_value(said)
        expect(row).to_contain_text(f"“{said}”")
    # The vine tells what it says; nothing there offers rules, which words cannot have.
    row.click()
    vine = page.get_by_role("region", name="Vine")
    expect(vine).to_contain_text("How Closed’s words are made")
    expect(vine).to_contain_text("“Mail is in” at frame 30")
    # A leaf tells what it holds, and taking the last ones away leaves what is said here.
    expect(page.get_by_role("button", name="Key of Closed Words at frame 30")).to_have_attribute("title", re.compile("“Mail is in”"))
    w.key("Words")
    w.go_to("0")
    expect(field).to_have_value("Closed")
    w.key("Words")
    assert keys() == []
    assert w.kept()["scene"]["objects"][0]["shape"]["text"] == "Closed"
    page.keyboard.press("Control+z")
    w.saved()
    page.keyboard.press("Control+z")
    w.saved()
    assert keys() == [(0, {"text": "Closed"}), (30, {"text": "Mail is in"})]


def test_words_are_changed_where_they_stand_and_brought_back(workspace: Workspace):
    w, page = workspace, workspace.page
    write(w, "Post")
    x, y = w.on_screen(640, 340)
    page.mouse.dblclick(x, y)
    field = page.get_by_role("textbox", name="Words of Post")
    expect(field).to_be_focused()
    page.keyboard.type("Canopy Post")
    page.keyboard.press("Escape")
    expect(field).to_have_count(0)
    assert w.kept()["scene"]["objects"][0]["shape"]["text"] == "Post"
    page.mouse.dblclick(x, y)
    page.keyboard.type("Mail")
    page.keyboard.press("Control+Enter")
    w.saved()
    assert w.kept()["scene"]["objects"][0]["shape"]["text"] == "Mail"
    page.get_by_role("button", name="Outline it").click()
    w.saved()
    assert w.kept()["scene"]["objects"][0]["shape"]["type"] == "outline"
    page.get_by_role("button", name=re.compile("^Undo")).click()
    w.saved()
    assert w.kept()["scene"]["objects"][0]["shape"]["text"] == "Mail"


def test_an_own_font_is_kept_with_the_scene(workspace: Workspace):
    w, page = workspace, workspace.page
    write(w, "Dear frog")
    page.get_by_role("group", name="Text", exact=True).locator(".font").click()
    page.get_by_role("option", name="Own font file…").click()
    dialog = page.get_by_role("dialog", name="Own font file")
    dialog.get_by_label("Font file").set_input_files(FONTS / "caveat" / "latin.ttf")
    expect(dialog.get_by_role("button", name="Store and use it")).to_be_disabled()
    dialog.get_by_label("Licence").fill("SIL Open Font License")
    dialog.get_by_role("button", name="Store and use it").click()
    expect(dialog).to_have_count(0)
    w.saved()
    scene = w.kept()["scene"]
    assert scene["objects"][0]["shape"]["font"] == scene["fonts"][0]["id"]
    assert (scene["fonts"][0]["name"], scene["fonts"][0]["licence"]) == ("latin", "SIL Open Font License")
    page.reload()
    w.pick("Dear frog")
    expect(page.get_by_role("group", name="Text", exact=True).locator(".font")).to_contain_text("latin")
