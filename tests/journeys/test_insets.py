"""Insets: an object of parts made one, animated inside, sent across, shown many times, and its length followed."""

import re

from playwright.sync_api import Page, expect

from tests.journeys.scenes import keys, opened, shape
from tests.journeys.servers import Server
from tests.journeys.workspace import Workspace


def group(name: str, **channels) -> dict:
    return {"id": name.lower(), "name": name, "kind": "group", "channels": channels}


def inset(name: str, shows: str, past: str, **channels) -> dict:
    return {"id": name.lower(), "name": name, "kind": "inset", "inset": {"scene": shows, "past": past}, "channels": channels}


def choose(w: Workspace, name: str, what: str) -> None:
    """Choose something from the menu of an object in the troupe."""
    w.item(name).hover()
    w.page.get_by_role("button", name=f"More for {name}", exact=True).click()
    w.page.get_by_role("menu", name=f"More for {name}", exact=True).get_by_role("menuitem", name=what).click()


def colour(w: Workspace, x: float, y: float) -> list[int]:
    """The colour seen at a point of the picture."""
    w.painted()
    return w.page.evaluate(
        """([x, y]) => {
            const canvas = document.querySelector('[data-testid=picture-canvas]');
            return [...canvas.getContext('2d').getImageData(x * canvas.width, y * canvas.height, 1, 1).data].slice(0, 3);
        }""",
        [x / 1280, y / 720],
    )


def trail(w: Workspace):
    return w.page.get_by_role("navigation", name="Scenes around this one")


def inside(w: Workspace, name: str) -> None:
    """Wait until the page is inside a scene of a name."""
    expect(w.page).to_have_title(f"{name} · Vine Swing")
    w.painted()


GREEN, DARK = [63, 143, 99], [38, 51, 44]


def test_a_frog_of_parts_blinks_inside_and_crosses_on_its_raft(page: Page, server: Server):
    parts = [
        group("Frog", x=640, y=360),
        shape("Body", width=200, height=200, fill="#3F8F63") | {"parent": "frog"},
        shape("Lid", width=80, height=80, fill="#26332C") | {"parent": "frog"},
    ]
    w = opened(page, server.address, length=48, objects=[group("Raft", x=640, y=360), *parts])
    choose(w, "Frog", "Make an inset of this")
    w.saved()
    page.mouse.dblclick(*w.on_screen(640, 440))
    inside(w, "Frog")
    expect(trail(w)).to_have_text(re.compile("Journey"))
    # The picture is unchanged, with the parts on a group in its middle.
    assert colour(w, 640, 440) == GREEN
    assert colour(w, 640, 360) == DARK
    page.get_by_role("button", name="Show the parts of Frog parts").click()
    w.pick("Lid")
    w.go_to("12")
    w.key("Opacity")
    w.go_to("0")
    w.type_value("Opacity opacity", "0")
    assert colour(w, 640, 360) == GREEN

    trail(w).get_by_role("button", name="Journey").click()
    inside(w, "Journey")
    expect(w.item("Frog")).to_have_attribute("aria-selected", "true")
    choose(w, "Frog", "Hang on…")
    page.get_by_role("combobox", name="Parent").click()
    page.get_by_role("option", name="Raft").last.click()
    page.get_by_role("button", name="Hang it there").click()
    w.saved()
    w.pick("Raft")
    w.go_to("0")
    w.type_value("Travel x", "200")
    w.key("Travel")
    w.go_to("40")
    w.type_value("Travel x", "1000")
    assert colour(w, 1000, 360) == DARK
    w.go_to("0")
    assert colour(w, 200, 360) == GREEN

    # Undo takes the inset away under the feet of who is inside, who is then outside again.
    page.get_by_role("button", name="Show the parts of Raft").click()
    page.get_by_role("button", name="Show the parts of Frog").click()
    expect(w.item("Lid, inside"), "what is inside has a line in the troupe, and no lane here").to_be_visible()
    expect(page.get_by_role("list", name="Lanes").get_by_text("Frog", exact=True)).to_have_count(1)
    w.pick("Frog")
    page.keyboard.press("h")
    inside(w, "Frog")
    for _ in range(12):
        if not trail(w).is_visible():
            break
        page.keyboard.press("Control+z")
        w.painted()
    inside(w, "Journey")
    expect(page.get_by_text("What you were inside of is no more")).to_be_visible()
    assert [one["kind"] for one in w.kept()["scene"]["objects"]] == ["group", "group", "shape", "shape"]


def test_one_inset_is_shown_three_times_each_from_its_own_frame(page: Page, server: Server):
    dot = shape("Dot", width=100, height=100, x=200, fill="#3F8F63", y=keys((0, 60), (12, 340), (24, 60)))
    hop = {"id": "hop", "name": "Hop", "length": 24, "size": [400, 400], "objects": [dot]}
    w = opened(page, server.address, length=48, objects=[inset("Frog", "hop", "loop", x=300, y=360)], insets=[hop])
    for name, x, begins in (("Frog 2", "640", "12"), ("Frog 3", "980", "18")):
        w.pick("Frog")
        page.keyboard.press("Control+d")
        expect(w.item(name)).to_have_attribute("aria-selected", "true")
        w.type_value("Travel x", x)
        w.type_value("Begins at inner frame", begins)
    high = {x: [colour(w, x, y) == GREEN for y in (220, 360, 500)] for x in (300, 640, 980)}
    assert high == {300: [True, False, False], 640: [False, False, True], 980: [False, True, False]}

    page.get_by_role("button", name="Make its scene unique").click()
    w.saved()
    w.pick("Frog")
    page.keyboard.press("h")
    inside(w, "Hop")
    w.pick("Dot")
    field = page.get_by_role("textbox", name="Fill fill")
    field.fill("#D0365B")
    field.press("Enter")
    w.saved()
    w.pick("Dot")
    page.keyboard.press("Shift+H")
    inside(w, "Journey")
    red = [208, 54, 91]
    assert [colour(w, x, y) for x, y in ((300, 220), (640, 500), (980, 360))] == [red, red, GREEN]
    # In a parade each copy is so much later inside.
    w.pick("Frog 3")
    choose(w, "Frog 3", "Convert to a group")
    expect(page.get_by_text("is shown longer than its inside lasts")).to_be_visible()


def test_what_is_shown_longer_than_its_inside_lasts_is_told_and_followed(page: Page, server: Server):
    dot = shape("Dot", width=100, height=100, x=keys((0, 60), (23, 340)))
    hop = {"id": "hop", "name": "Hop", "length": 24, "size": [400, 400], "objects": [dot]}
    w = opened(page, server.address, length=48, objects=[inset("Frog", "hop", "hold", x=300, y=360)], insets=[hop])
    w.pick("Frog")
    sheet = page.get_by_role("region", name="Time sheet")
    expect(sheet.get_by_text("its inside ends 24 frames earlier")).to_be_visible()
    sheet.get_by_role("button", name="end with it").click()
    w.saved()
    assert w.kept()["scene"]["objects"][0]["span"]["last"] == 23
    page.keyboard.press("Control+z")
    sheet.get_by_role("button", name="stretch it").click()
    w.saved()
    inner = w.kept()["scene"]["insets"][0]
    assert inner["length"] == 48
    assert [key["frame"] for key in inner["objects"][0]["channels"]["x"]["keys"]] == [0, 47]
    expect(sheet.get_by_text("its inside ends")).to_have_count(0)
    # Its frame keyed goes on as it ran, until a key says otherwise.
    w.go_to("24")
    w.key("Inside")
    assert w.keys("Frog", "inner") == [(0, 0), (24, 24), (47, 47)]
    w.type_value("Inside frame", "6")
    assert w.keys("Frog", "inner") == [(0, 0), (24, 6), (47, 47)]
    page.get_by_role("button", name="Run automatically").click()
    w.saved()
    assert w.value("Inside frame") == 24
