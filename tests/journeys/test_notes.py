"""Notes: six planted faults put right from the notes alone, by mouse and by keyboard; a seam closed for good; a hushed note; a walk mended."""

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.journeys.scenes import keys, opened, shape
from tests.journeys.servers import Server
from vine_swing.faults import pieces


def looped(*stops: tuple[float, object]) -> dict:
    return keys(*stops) | {"after": {"mode": "loop"}}


def six_faults() -> dict:
    """A fade that stops at 3 %, a leaf whose loop has a seam, an arrow that goes the long way, a lone key, a rule of nothing, and an idle dial."""
    nothing = {"id": "sway", "kind": "oscillator", "channels": ["rotation"], "settings": {"amplitude": 0, "frequency": 1}}
    return {
        "objects": [
            shape("Fading mango", x=200, y=200, width=120, height=100, opacity=keys((4, 1), (60, 0.03))),
            shape("Swaying leaf", x=500, y=200, width=200, height=80, fill="#3D8B5F", rotation=looped((0, -20), (12, 20), (24, 12))),
            shape("Arrow", "rectangle", x=900, y=200, width=240, height=40, rotation=keys((6, 170), (60, -170))),
            shape("Lone papaya", x=keys((10, 300)), y=500, width=80, height=110),
            shape("Still nut", x=700, y=520, width=60, height=60, rules=[nothing]),
        ],
        "dials": [{"id": "wind", "name": "Wind", "channel": {"base": 0.4}}],
    }


def panel(page: Page) -> Locator:
    return page.get_by_role("region", name="Notes")


def count(page: Page, number: int) -> None:
    said = "nothing to remark" if number == 0 else "1 remark" if number == 1 else f"{number} remarks"
    expect(page.get_by_role("button", name=f"Notes: {said}")).to_be_visible()


def test_six_faults_are_put_right_by_mouse(page: Page, server: Server):
    w = opened(page, server.address, **six_faults())
    count(page, 6)
    page.get_by_role("button", name="Notes: 6 remarks").click()
    notes = panel(page)
    expect(notes.get_by_role("heading", name="6 notes")).to_be_visible()
    # Pointed at, a note shows where it is; clicked, one goes there.
    long_way = notes.get_by_role("article", name="The long way round")
    long_way.hover()
    ring, on_sheet = page.get_by_test_id("note-in-picture").bounding_box(), page.get_by_test_id("note-on-sheet").bounding_box()
    x, y = w.on_screen(900, 200)
    assert ring["x"] < x < ring["x"] + ring["width"]
    assert ring["y"] < y < ring["y"] + ring["height"]
    assert on_sheet["width"] > 200
    long_way.locator(".where").click()
    assert w.frame() == 6
    expect(w.item("Arrow")).to_have_attribute("aria-selected", "true")
    # Rested on, a mend is seen before it is made; moved away from, nothing has changed.
    mend = long_way.get_by_role("button", name="Turn the short way")
    mend.hover()
    w.painted()
    notes.get_by_role("heading", name="6 notes").hover()
    assert w.keys("Arrow", "rotation") == [(6, 170), (60, -170)]
    for left in range(5, -1, -1):
        notes.get_by_role("article").first.locator(".mends .chip").first.click()
        w.saved()
        count(page, left)
    kept = w.kept()["scene"]
    assert w.keys("Fading mango", "opacity") == [(4, 1), (60, 0)]
    assert w.keys("Arrow", "rotation") == [(6, 170), (60, 190)]
    assert w.keys("Swaying leaf", "rotation")[-1] == (24, -20)
    assert w.channel("Lone papaya", "x") == {
        "base": 300,
        "keys": [],
        "before": {"mode": "hold", "times": None},
        "after": {"mode": "hold", "times": None},
    } | {"formula": w.channel("Lone papaya", "x").get("formula")}
    assert kept["dials"] == []
    assert next(one for one in kept["objects"] if one["name"] == "Still nut")["rules"] == []
    expect(notes.get_by_text("Nothing to remark")).to_be_visible()
    # Each was one step.
    for _ in range(6):
        page.get_by_role("button", name="Undo").click()
        w.saved()
    count(page, 6)


def test_six_faults_are_put_right_by_keyboard_alone(page: Page, server: Server):
    w = opened(page, server.address, **six_faults())
    count(page, 6)
    page.keyboard.press("Alt+n")
    notes = panel(page)
    expect(notes).to_be_visible()
    page.evaluate("document.querySelector('[aria-label=\"Close the notes\"]').focus()")
    page.keyboard.press("Tab")
    expect(notes.locator(".where").first).to_be_focused()
    page.keyboard.press("ArrowDown")
    expect(notes.locator(".where").nth(1)).to_be_focused()
    page.keyboard.press("ArrowUp")
    for left in range(5, -1, -1):
        expect(notes.locator(".where").first).to_be_focused()
        page.keyboard.press("Tab")
        expect(notes.locator(".mends .chip").first).to_be_focused()
        page.keyboard.press("Enter")
        w.saved()
        count(page, left)
    assert w.kept()["scene"]["dials"] == []


def test_a_seam_is_found_closed_and_stays_closed(page: Page, server: Server):
    leaf = shape("Leaf", x=400, y=300, width=200, height=80, rotation=looped((0, -20), (12, 20), (24, 12)))
    w = opened(page, server.address, objects=[leaf])
    count(page, 1)
    page.keyboard.press("Alt+n")
    panel(page).get_by_role("button", name="Close the loop").click()
    w.saved()
    count(page, 0)
    # After another change of the loop, and after the page is opened again.
    page.keyboard.press("Alt+n")
    w.pick("Leaf")
    w.go_to("12")
    w.type_value("Rotation turn", "35")
    count(page, 0)
    page.reload()
    w.saved()
    count(page, 0)


def test_a_note_that_is_not_wanted_stays_hushed_after_a_restart(page: Page, server: Server):
    w = opened(page, server.address, **six_faults())
    count(page, 6)
    page.keyboard.press("Alt+n")
    notes = panel(page)
    notes.get_by_role("button", name="Hush: One lone key").click()
    page.get_by_role("menuitem", name="Hush this one").click()
    w.saved()
    count(page, 5)
    notes.get_by_role("button", name="Hush: The long way round").click()
    page.get_by_role("menuitem", name="Hush all of this kind").click()
    w.saved()
    count(page, 4)
    server.stop()
    server.start()
    page.reload()
    w.saved()
    count(page, 4)
    page.keyboard.press("Alt+n")
    notes.get_by_role("button", name="Show them again").click()
    w.saved()
    count(page, 6)


def test_a_walk_whose_stride_was_keyed_too_long_is_mended(page: Page, server: Server):
    made = pieces.made_foot_slides(True)
    stride = made["objects"][1]["rules"][0]["settings"]
    stride["stride"] = keys((0, 70), (20, 420))
    w = opened(page, server.address, **{name: made[name] for name in ("objects", "length", "size")})
    count(page, 1)
    page.keyboard.press("Alt+n")
    note = panel(page).get_by_role("article", name="A foot that slides")
    note.locator(".where").click()
    expect(w.item("Postie")).to_have_attribute("aria-selected", "true")
    mend = note.get_by_role("button", name="Take strides of")
    mend.click()
    w.saved()
    count(page, 0)
    rule = next(one for one in w.kept()["scene"]["objects"] if one["name"] == "Postie")["rules"][0]
    assert [key["value"] for key in rule["settings"]["stride"]["keys"]] == [70, pytest.approx(270, abs=30)]


def test_the_guide_shows_every_kind_with_its_mend(page: Page, server: Server):
    page.goto(f"{server.address}/notes")
    cards = page.get_by_role("article")
    expect(cards).to_have_count(25)
    expect(cards.first.locator("canvas")).to_have_count(2)
    page.get_by_label("Find a kind of note").fill("seam")
    expect(cards.first).to_contain_text("A seam in a loop")
