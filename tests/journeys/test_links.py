"""Links by hand: two gears, a range onto a range, rings that are refused, what reads what is deleted."""

import re

import pytest
from playwright.sync_api import expect

from tests.journeys.scenes import opened, shape

TURN = {"keys": [{"frame": 0, "value": 0}, {"frame": 95, "value": 380}]}


@pytest.fixture
def gears(page, server):
    """A great gear that turns, and a small one beside it."""
    great = shape("Great gear", "star", x=440, y=360, width=300, height=300, points=24, rotation=TURN)
    small = shape("Small gear", "star", x=680, y=360, width=120, height=120, points=9, rotation=12)
    return opened(page, server.address, objects=[great, small])


def link_in_picture(w, start, end):
    """Pull a thread between two objects of the picture."""
    w.page.get_by_role("button", name="Link by hand").click()
    w.drag_in_picture(start, end)
    return w.page.get_by_role("dialog", name="Link by hand")


def turns(w, name, frames):
    w.pick(name)
    found = []
    for frame in frames:
        w.go_to(str(frame))
        found.append(w.value("Rotation turn"))
    return found


def test_two_gears_are_linked_by_hand(gears):
    w = gears
    w.pick("Great gear")
    w.row("Rotation").locator(".label").click()
    dialog = link_in_picture(w, (440, 360), (680, 360))
    expect(dialog.get_by_label("What drives", exact=True)).to_have_value("great-gear")
    expect(dialog.get_by_label("Driven channel", exact=True)).to_have_value("small-gear")
    # Two rotations are geared at first, by the sizes of the objects themselves.
    expect(dialog.get_by_role("radio", name="geared")).to_have_attribute("aria-checked", "true")
    expect(dialog.get_by_label("Formula")).to_have_value("{Great gear.rotation} * -150 / 60 + 12")
    for label, teeth in (("Driver's radius or teeth", "24"), ("Its own radius or teeth", "9")):
        field = dialog.get_by_role("spinbutton", name=label)
        field.fill(teeth)
        field.press("Enter")
    expect(dialog.get_by_label("Formula")).to_have_value("{Great gear.rotation} * -24 / 9 + 12")
    dialog.get_by_role("button", name="Link", exact=True).click()
    expect(dialog).to_have_count(0)
    rule = w.kept()["scene"]["objects"][1]["rules"][0]
    assert (rule["kind"], rule["channels"], rule["settings"]["formula"]) == ("link", ["rotation"], "{Great gear.rotation} * -24 / 9 + 12")
    w.page.get_by_role("button", name="Pick and move").click()
    great, small = turns(w, "Great gear", (0, 40, 95)), turns(w, "Small gear", (0, 40, 95))
    assert small[0] == pytest.approx(12, abs=0.1), "nothing jumped where it was put on"
    for a, b in zip(great, small, strict=True):
        assert b - 12 == pytest.approx(-a * 24 / 9, abs=0.1), "the other way round, by their teeth"
    # The page says who drives whom, in the picture and beside the values.
    expect(w.page.get_by_test_id("driver-lines")).to_have_attribute("data-count", "1")
    values = w.page.get_by_role("region", name="Values at this frame")
    values.get_by_role("button", name="Great gear rotation").click()
    expect(values.get_by_role("heading", name=re.compile("^Great gear"))).to_be_visible()
    w.page.get_by_role("tab", name="Links").click()
    w.page.locator(".links").get_by_role("button", name="Small gear").click()
    expect(values.get_by_role("heading", name=re.compile("^Small gear"))).to_be_visible()
    w.page.get_by_role("tab", name="Sheet").click()
    w.page.get_by_role("button", name="Undo").click()
    w.saved()
    assert w.kept()["scene"]["objects"][1]["rules"] == []


def test_a_value_dragged_onto_another_goes_from_range_to_range(page, server):
    ball = shape("Mango", x=300, y={"keys": [{"frame": 0, "value": 100}, {"frame": 48, "value": 500}]})
    w = opened(page, server.address, objects=[shape("Shadow", x=300, y=600, opacity=1), ball])
    w.pick("Mango")
    w.row("Travel").locator(".label").click()
    page.get_by_role("radio", name="y", exact=True).click()
    dot, item = w.row("Travel").locator(".dot").bounding_box(), w.item("Shadow").bounding_box()
    w.drag((dot["x"] + 4, dot["y"] + 4), (item["x"] + 60, item["y"] + 15))
    dialog = page.get_by_role("dialog", name="Link by hand")
    dialog.get_by_label("Channel that is driven").select_option("opacity")
    dialog.get_by_role("radio", name="range to range").click()
    dialog.get_by_text("keep how it looks").click()
    for label, number in (("Driver from", "100"), ("Driver to", "500"), ("This from", "0.1"), ("This to", "0.9")):
        field = dialog.get_by_role("spinbutton", name=label)
        field.fill(number)
        field.press("Enter")
    expect(dialog.get_by_label("Formula")).to_have_value("mix(0.1, 0.9, clamp(({Mango.y} - 100) / 400, 0, 1))")
    # The end of the range is dragged on the small graph.
    end = dialog.get_by_role("slider", name=re.compile("^End"))
    box = end.bounding_box()
    middle = (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    w.drag(middle, (middle[0], middle[1] + 20))
    dialog.get_by_role("button", name="Link", exact=True).click()
    expect(dialog).to_have_count(0)
    # Linked is what the hand drew last, whether its formula had been shown already or was still on its way.
    formula = w.kept()["scene"]["objects"][0]["rules"][0]["settings"]["formula"]
    reached = float(re.match(r"mix\(0\.1, ([\d.]+),", formula)[1])
    assert 0.6 < reached < 0.85
    w.pick("Shadow")
    w.go_to("0")
    assert w.value("Opacity opacity") == pytest.approx(10, abs=0.2)
    w.go_to("48")
    assert w.value("Opacity opacity") == pytest.approx(reached * 100, abs=0.2)


def test_a_pair_that_is_linked_is_duplicated_and_the_copies_are_linked_to_each_other(page, server):
    link = {"id": "turns", "kind": "link", "channels": ["rotation"], "settings": {"formula": "{Great gear.rotation} * -2"}}
    great = shape("Great gear", "star", x=440, y=360, width=300, height=300, points=24, rotation=TURN)
    small = shape("Small gear", "star", rules=[link], x=680, y=360, width=120, height=120, points=12)
    w = opened(page, server.address, objects=[great, small, shape("Lid", x=440, y=360)])
    w.pick("Great gear")
    w.item("Small gear").click(modifiers=["Control"])
    page.locator(".stage").focus()
    page.keyboard.press("Control+d")
    w.saved()
    names = [one["name"] for one in w.kept()["scene"]["objects"]]
    assert names == ["Great gear", "Great gear 2", "Small gear", "Small gear 2", "Lid"], "each lies right in front of its original"
    copies = [one for one in w.kept()["scene"]["objects"] if one["name"].endswith(" 2")]
    assert copies[1]["rules"][0]["settings"]["formula"] == "{Great gear 2.rotation} * -2"
    expect(w.item("Great gear 2")).to_have_attribute("aria-selected", "true")
    # The copy is taken back in one step.
    page.keyboard.press("Control+z")
    w.saved()
    assert len(w.kept()["scene"]["objects"]) == 3
    for name in ("Great gear", "Small gear"):
        expect(w.item(name), "what the copy was made of is picked again").to_have_attribute("aria-selected", "true")


def test_a_ring_of_two_links_is_refused_with_its_chain(gears):
    w = gears
    w.pick("Great gear")
    w.row("Rotation").locator(".label").click()
    dialog = link_in_picture(w, (440, 360), (680, 360))
    dialog.get_by_role("button", name="Link", exact=True).click()
    expect(dialog).to_have_count(0)
    dialog = link_in_picture(w, (680, 360), (440, 360))
    dialog.get_by_role("button", name="Link", exact=True).click()
    alert = dialog.get_by_role("alert")
    expect(alert).to_contain_text("ring")
    expect(alert).to_contain_text("Great gear.rotation")
    expect(alert).to_contain_text("Small gear.rotation")
    dialog.get_by_role("button", name="Cancel").click()
    assert w.kept()["scene"]["objects"][0]["rules"] == [], "nothing was put on"


def test_deleting_what_is_read_says_who_reads_it_and_freezes_them(gears):
    w = gears
    w.pick("Great gear")
    w.row("Rotation").locator(".label").click()
    dialog = link_in_picture(w, (440, 360), (680, 360))
    dialog.get_by_role("button", name="Link", exact=True).click()
    expect(dialog).to_have_count(0)
    before = turns(w, "Small gear", (0, 40, 95))
    w.pick("Great gear")
    w.page.get_by_role("application").focus()
    w.page.keyboard.press("Delete")
    asked = w.page.get_by_role("dialog", name="Great gear is read by others")
    expect(asked).to_contain_text("Small gear rotation")
    asked.get_by_role("button", name="Cancel").click()
    assert len(w.kept()["scene"]["objects"]) == 2
    w.page.get_by_role("application").focus()
    w.page.keyboard.press("Delete")
    w.page.get_by_role("button", name="Freeze, then delete").click()
    w.saved()
    assert [one["name"] for one in w.kept()["scene"]["objects"]] == ["Small gear"]
    assert turns(w, "Small gear", (0, 40, 95)) == pytest.approx(before, abs=1)
    assert w.keys("Small gear", "rotation"), "it moves by keys of its own"


def test_a_link_made_from_the_menu_with_the_keyboard_alone(gears):
    w = gears
    w.pick("Small gear")
    w.row("Rotation").locator(".label").click()
    w.page.get_by_role("button", name="Add a rule").press("Enter")
    w.page.get_by_role("button", name="Link by hand…").press("Enter")
    dialog = w.page.get_by_role("dialog", name="Link by hand")
    dialog.get_by_role("radio", name="later").press("Enter")
    field = dialog.get_by_role("spinbutton", name="Later by")
    field.fill("12")
    field.press("Enter")
    dialog.get_by_text("keep how it looks").locator("input").press("Space")
    expect(dialog.get_by_label("Formula")).to_have_value("{Great gear.rotation @ -12f}")
    dialog.get_by_role("button", name="Link", exact=True).press("Enter")
    w.saved()
    assert turns(w, "Small gear", (52,)) == pytest.approx([160], abs=0.1)


def test_a_formula_that_comes_back_late_does_not_take_the_place_of_a_newer_one(gears):
    w = gears
    held = []
    w.page.route("**/link-drafts", lambda route: held.append(route) if not held else route.continue_())
    w.pick("Great gear")
    w.row("Rotation").locator(".label").click()
    w.page.get_by_role("button", name="Link by hand").click()
    # As `link_in_picture`, which would wait for the answer that is held back.
    w.drag_in_picture((440, 360), (680, 360), release=False)
    w.page.mouse.up()
    dialog = w.page.get_by_role("dialog", name="Link by hand")
    dialog.get_by_role("radio", name="mirrored").click()
    formula = dialog.get_by_label("Formula")
    expect(formula).not_to_have_value("")
    newer = formula.input_value()
    with w.page.expect_response("**/link-drafts"):
        held[0].continue_()
    w.painted()
    expect(formula).to_have_value(newer)
    dialog.get_by_role("button", name="Link", exact=True).click()
    expect(dialog).to_have_count(0)
    assert w.kept()["scene"]["objects"][1]["rules"][0]["settings"]["formula"] == newer
