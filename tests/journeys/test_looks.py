"""Looks through the page: shadows keyed on, words behind a plate, a moving spotlight, fringes pulled outward, one look for six objects, gradients."""

import re

from playwright.sync_api import Page, expect

from tests.journeys.scenes import keys, opened, shape
from tests.journeys.servers import Server
from tests.journeys.test_insets import colour
from tests.journeys.test_principles import add_rule, number, rules_of
from tests.journeys.test_rules import close, panel, put
from tests.journeys.workspace import Workspace

PAPER = [247, 242, 231]


def look_of(w: Workspace, name: str) -> None:
    w.pick(name)
    w.row("Look").locator(".label").click()
    # Its cards come a moment later, and what stands after them moves.
    expect(w.page.get_by_role("region", name="Vine")).to_contain_text("Drawn")


def key_setting(w: Workspace, rule: str, label: str, *stops: tuple[int, str]) -> None:
    """Key a setting of a rule at some frames."""
    for n, (frame, text) in enumerate(stops):
        w.go_to(str(frame))
        panel(w, rule)
        if n == 0:
            w.page.get_by_role("button", name=f"Key {label} at frame {frame}").click()
            w.saved()
        put(w, label, text)
        close(w)


def dark(w: Workspace, x: float, y: float) -> bool:
    return sum(colour(w, x, y)) < sum(PAPER) - 60


def test_a_fade_is_slid_later_and_a_shadow_lies_there_only_while_it_stands(page: Page, server: Server):
    title = shape("Title", "rectangle", x=640, y=120, width=400, height=60, fill="#2F6B4F", opacity=keys((4, 0), (12, 1)))
    token = shape("Token", "ellipse", y=400, width=100, height=100, x=keys((0, 1200), (30, 640), (60, 640), (90, 80)))
    w = opened(page, server.address, objects=[title, token], background="#F7F2E7")
    # The fade begins too early: both of its leaves are slid later together.
    w.pick("Title")
    w.row("Opacity").locator(".label").click()
    page.keyboard.press("Control+a")
    leaf = w.leaf("Title", "Opacity", 4).bounding_box()
    ruler = w.leaf("Title", "Opacity", 12).bounding_box()
    a_frame = (ruler["x"] - leaf["x"]) / 8
    at = (leaf["x"] + leaf["width"] / 2, leaf["y"] + leaf["height"] / 2)
    w.drag(at, (at[0] + 20 * a_frame, at[1]))
    assert [frame for frame, _ in w.keys("Title", "opacity")] == [24, 32]
    w.go_to("20")
    assert colour(w, 640, 120) == PAPER

    look_of(w, "Token")
    assert w.cards() == ["Drawn", "Result"]
    add_rule(w, "Shadow")
    assert w.cards() == ["Drawn", "Shadow", "Result"]
    key_setting(w, "Shadow", "strength", (28, "0"), (34, "0.6"), (56, "0.6"), (62, "0"))
    w.go_to("45")
    # The shadow is pulled down by its handle in the picture.
    w.drag_handle("rule-shadow", (0, 40))
    assert number(rules_of(w, "Token")[0], "dy") > 60
    below = 400 + 50 + 50
    assert dark(w, 640, below), "it stands and throws a shadow"
    w.go_to("15")
    x = w.value("Travel x")
    assert not dark(w, x, below), "it moves and throws none"
    # Every key of the setting is on the time sheet, as any other.
    expect(w.leaves("Token", "Shadow strength")).to_have_count(4)


def test_a_line_of_text_crawls_behind_a_plate_and_disappears_softly(page: Page, server: Server):
    words = shape("Words", "rectangle", x=keys((0, 900), (24, 420)), y=360, width=300, height=60, fill="#1F2A25")
    plate = shape("Plate", "rectangle", x=360, y=360, width=400, height=240, fill="#6E4B2A")
    w = opened(page, server.address, length=25, objects=[words, plate], background="#F7F2E7")
    look_of(w, "Words")
    add_rule(w, "Mask")
    # What lies over it is chosen by itself; it is to be seen outside that, with a soft edge.
    assert rules_of(w, "Words")[0]["settings"]["by"] == "plate"
    panel(w, "Mask")
    page.get_by_label("seen", exact=True).select_option("outside")
    w.saved()
    put(w, "feather", "20")
    close(w)
    w.go_to("16")
    ink, half, paper = sum(colour(w, 700, 360)), sum(colour(w, 562, 360)), sum(PAPER)
    assert ink < 130, "in full well beside the plate"
    assert ink + 0.3 * (paper - ink) < half < ink + 0.7 * (paper - ink), "half gone at the plate's edge"
    assert ink < sum(colour(w, 580, 360)) < half
    # With its mask off it ends at the plate as if it were cut.
    look_of(w, "Words")
    page.get_by_role("switch", name="Mask on").click()
    w.saved()
    assert sum(colour(w, 562, 360)) == ink


def test_a_spotlight_that_moves_masks_what_is_seen(page: Page, server: Server):
    scenery = shape("Scenery", "rectangle", x=640, y=360, width=1280, height=720, fill="#3F8F63")
    spot = shape("Spot", "ellipse", x=keys((0, 200), (24, 1080)), y=360, width=200, height=200, fill="#FFFFFF")
    w = opened(page, server.address, length=25, objects=[scenery, spot], background="#101418")
    look_of(w, "Scenery")
    add_rule(w, "Mask")
    # What masks need not be seen itself.
    w.item("Spot").hover()
    page.get_by_role("button", name="Hide Spot").click()
    w.saved()
    night, green = [16, 20, 24], [63, 143, 99]
    for frame, lit, unlit in ((0, 200, 1080), (24, 1080, 200), (12, 640, 200)):
        w.go_to(str(frame))
        assert (colour(w, lit, 360), colour(w, unlit, 360)) == (green, night)
    # Its edge is pulled softer in the picture.
    w.pick("Scenery")
    w.go_to("12")
    w.drag_handle("rule-feather", (20, 0))
    assert number(rules_of(w, "Scenery")[0], "feather") > 15
    # Masking each other in a ring is refused, in words, and nothing is lost.
    look_of(w, "Spot")
    page.get_by_role("button", name="Add a rule").click()
    page.locator(".el-popper").get_by_role("button", name=re.compile("^Mask ")).first.click()
    w.saved()
    panel(w, "Mask")
    page.get_by_label("by", exact=True).select_option("scenery")
    expect(page.get_by_role("alert").filter(visible=True)).to_contain_text("mask each other")


def test_fringes_are_pulled_outward_on_hypnotic_rings(page: Page, demo_server: Server):
    page.goto(demo_server.address)
    page.get_by_role("link", name="Open Hypnotic hibiscus").click()
    w = Workspace(page, demo_server.address)
    whole = next(one["name"] for one in w.kept()["scene"]["objects"] if one["kind"] == "parade" and one["parent"] is None)
    look_of(w, whole)
    add_rule(w, "Fringe")
    panel(w, "Fringe")
    page.get_by_label("way", exact=True).select_option("outward")
    w.saved()
    close(w)
    before = number(rules_of(w, whole)[0], "distance") if "distance" in rules_of(w, whole)[0]["settings"] else 4
    w.drag_handle("rule-fringe", (12, 0))
    assert number(rules_of(w, whole)[0], "distance") > before + 5
    page.keyboard.press("Control+z")
    w.saved()
    page.keyboard.press("Control+y")
    w.saved()
    assert number(rules_of(w, whole)[0], "distance") > before + 5


def test_a_look_is_copied_to_six_things(page: Page, server: Server):
    pods = [shape(f"Pod {n}", "ellipse", x=120 + 160 * n, y=300, width=90, height=90) for n in range(7)]
    w = opened(page, server.address, length=24, objects=pods, background="#F7F2E7")
    look_of(w, "Pod 0")
    page.get_by_role("button", name="Add a rule").click()
    page.get_by_role("button", name="Paper cut-out").click()
    w.saved()
    panel(w, "Shadow")
    put(w, "down", "30")
    close(w)
    page.get_by_role("button", name="More for Shadow").click()
    page.get_by_role("menuitem", name="Copy to…").click()
    dialog = page.get_by_role("dialog")
    for n in range(1, 7):
        dialog.get_by_label(f"Pod {n}", exact=True).check()
    dialog.get_by_role("button", name=re.compile("^(Copy|Put)")).click()
    w.saved()
    for n in range(7):
        assert [number(rule, "dy") for rule in rules_of(w, f"Pod {n}")] == [30]
        assert dark(w, 120 + 160 * n, 300 + 45 + 24)


def test_a_gradient_is_made_pulled_and_given_another_stop_and_a_shadow_goes_along_on_the_ground(page: Page, server: Server):
    sky = shape("Sky", "rectangle", x=640, y=260, width=1280, height=520, fill="#204060")
    mango = shape("Mango", "ellipse", x=640, width=120, height=120, y=keys((0, 100), (24, 500)))
    w = opened(page, server.address, length=25, objects=[sky, mango])
    w.pick("Sky")
    page.get_by_label("Colours of the fill").select_option("linear")
    w.saved()
    assert sum(colour(w, 40, 4)) < 200
    assert sum(colour(w, 40, 510)) > sum(colour(w, 40, 260)) > sum(colour(w, 40, 4))
    w.row("From").locator(".label").click()
    w.drag_handle("gradient-to", (0, -100))
    assert w.keys("Sky", "fill.to.y")[0][1] < 200, "keyed as it was moved"
    page.get_by_role("button", name="Add a stop").click()
    w.saved()
    w.row("Stop 2").locator(".label").click()
    w.row("Stop 2").get_by_role("textbox").fill("#D0365B")
    w.row("Stop 2").get_by_role("textbox").press("Enter")
    w.saved()
    w.drag_handle("gradient-stop-2", (0, -40))
    page.get_by_role("button", name="Take out stop 2").click()
    w.saved()
    assert next(one for one in w.kept()["scene"]["objects"] if one["id"] == "sky")["paints"]["fill"]["stops"] == 2

    look_of(w, "Mango")
    page.get_by_role("button", name="Add a rule").click()
    page.get_by_role("button", name="Soft shadow on the ground").click()
    w.saved()
    w.pick("Mango shadow")
    sizes = []
    for frame in ("0", "24"):
        w.go_to(frame)
        sizes.append(w.value("Size wide"))
    assert sizes[0] < 40 < 99 < sizes[1]
