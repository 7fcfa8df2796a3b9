"""Dials through the page: a wind for twelve leaves, keyed to a gust; one light for several objects; names, ranges, what is deleted."""

import re

import pytest
from playwright.sync_api import expect

from tests.journeys.scenes import opened, shape


def leaves(count=12):
    def sway(n):
        settings = {"amplitude": {"base": 10.0 + n}, "frequency": {"base": 1.0}, "seed": {"base": float(n)}}
        return {"id": f"sway{n}", "kind": "noise", "channels": ["rotation"], "settings": settings}

    return [shape(f"Leaf {n + 1}", x=100 + 90 * n, y=300, width=70, height=30, rules=[sway(n)]) for n in range(count)]


@pytest.fixture
def leafy(page, server):
    return opened(page, server.address, objects=leaves(), dials=[{"id": "wind", "name": "Wind", "low": 0, "high": 1, "channel": {"base": 0.5}}])


def dials(w):
    return w.page.get_by_role("region", name="Dials")


def pick_dial(w, name):
    dials(w).get_by_role("treeitem", name=name, exact=True).click()


def takers(w, name):
    pick_dial(w, name)
    w.page.get_by_role("button", name="Link objects to it…").click()
    return w.page.get_by_role("dialog", name=f"Link objects to {name}")


def turn_of(w, name, frame):
    w.pick(name)
    w.go_to(str(frame))
    return w.value("Rotation turn")


def test_twelve_leaves_take_the_wind_in_one_step_and_a_gust_is_keyed(leafy):
    w = leafy
    before = [turn_of(w, name, 30) for name in ("Leaf 1", "Leaf 12")]
    w.go_to("0")
    dialog = takers(w, "Wind")
    expect(dialog.get_by_label("Linked channels")).to_have_value("Noise: amplitude")
    dialog.get_by_text("all 12").click()
    expect(dialog.locator("code")).to_have_text("value * {Wind} / 0.5")
    dialog.get_by_role("button", name="Let 12 take it").click()
    expect(dialog).to_have_count(0)
    rules = [one["rules"][0] for one in w.kept()["scene"]["objects"]]
    assert {rule["settings"]["amplitude"]["formula"] for rule in rules} == {"value * {Wind} / 0.5"}
    assert [rule["settings"]["amplitude"]["base"] for rule in rules] == [10.0 + n for n in range(12)], "each keeps its own strength"
    assert [turn_of(w, name, 30) for name in ("Leaf 1", "Leaf 12")] == pytest.approx(before, abs=0.1), "nothing jumped"
    # A gust, keyed on the dial alone.
    pick_dial(w, "Wind")
    for frame, strength in ((0, "0.5"), (30, "1"), (60, "0")):
        w.go_to(str(frame))
        if frame == 0:
            w.key("Value")
        else:
            w.type_value("Value value", strength)
    expect(w.leaves("Wind", "Value")).to_have_count(3)
    assert [turn_of(w, name, 30) for name in ("Leaf 1", "Leaf 12")] == pytest.approx([2 * turn for turn in before], abs=0.2)
    assert [turn_of(w, name, 60) for name in ("Leaf 1", "Leaf 12")] == pytest.approx([0, 0], abs=0.05), "calm again"
    # Who uses it is told, and leads there.
    pick_dial(w, "Wind")
    values = w.page.get_by_role("region", name="Values at this frame")
    values.get_by_role("button", name="Leaf 7 rotation (noise amplitude)").click()
    expect(values.get_by_role("heading", name=re.compile("^Leaf 7"))).to_be_visible()


def test_a_dial_is_dragged_onto_a_setting_and_unlinked_again(leafy):
    w = leafy
    w.pick("Leaf 3")
    w.row("Rotation").locator(".label").click()
    w.page.get_by_role("button", name="Settings of Noise").click()
    field = w.page.get_by_role("spinbutton", name="amplitude", exact=True).bounding_box()
    face = dials(w).locator(".face").first.bounding_box()
    w.drag((face["x"] + 14, face["y"] + 14), (field["x"] + 20, field["y"] + 8))
    dialog = w.page.get_by_role("dialog", name="Link by hand")
    expect(dialog.get_by_label("Formula")).to_have_value("value * {Wind} / 0.5")
    dialog.get_by_role("button", name="Link", exact=True).click()
    expect(dialog).to_have_count(0)
    assert w.kept()["scene"]["objects"][2]["rules"][0]["settings"]["amplitude"]["formula"] == "value * {Wind} / 0.5"
    w.page.get_by_role("button", name="Settings of Noise").click()
    formula = w.page.get_by_label("Formula of amplitude")
    expect(formula).to_have_value("value * {Wind} / 0.5")
    formula.fill("value * {Wnid}")
    formula.press("Enter")
    expect(w.page.get_by_role("alert").filter(has_text="did you mean 'Wind'?")).to_be_visible()
    w.page.get_by_role("button", name="Unlink amplitude").click()
    w.saved()
    assert w.kept()["scene"]["objects"][2]["rules"][0]["settings"]["amplitude"]["formula"] is None


def test_a_dial_is_added_named_ranged_and_deleted_with_an_offer_to_freeze(leafy):
    w = leafy
    dials(w).get_by_role("button", name="Add a dial").click()
    w.page.get_by_role("menuitem", name=re.compile("number")).click()
    field = dials(w).get_by_role("textbox", name="New name")
    field.fill("Rain")
    field.press("Enter")
    w.saved()
    most = w.page.get_by_role("spinbutton", name="Most")
    most.fill("200")
    most.press("Enter")
    w.saved()
    w.type_value("Value value", "120")
    dial = w.kept()["scene"]["dials"][1]
    assert (dial["name"], dial["high"], dial["channel"]["base"]) == ("Rain", 200, 120)
    least = w.page.get_by_role("spinbutton", name="Least")
    least.fill("150")
    least.press("Enter")
    expect(w.page.get_by_role("alert")).to_contain_text("range is 150 to 200")
    # Renaming the one that is read keeps its readers.
    dialog = takers(w, "Wind")
    dialog.get_by_text("all 12").click()
    dialog.get_by_role("button", name="Let 12 take it").click()
    expect(dialog).to_have_count(0)
    turn = turn_of(w, "Leaf 5", 40)
    pick_dial(w, "Wind")
    dials(w).get_by_role("treeitem", name="Wind").press("F2")
    field = dials(w).get_by_role("textbox", name="New name")
    field.fill("Breeze")
    field.press("Enter")
    w.saved()
    assert w.kept()["scene"]["objects"][4]["rules"][0]["settings"]["amplitude"]["formula"] == "value * {Breeze} / 0.5"
    assert turn_of(w, "Leaf 5", 40) == turn
    pick_dial(w, "Breeze")
    dials(w).get_by_role("treeitem", name="Breeze").hover()
    dials(w).get_by_role("button", name="More for Breeze").click()
    w.page.get_by_role("menuitem", name="Delete").click()
    expect(w.page.get_by_role("dialog", name="Breeze is read by others")).to_contain_text("Leaf 12 rotation (noise amplitude)")
    w.page.get_by_role("button", name="Freeze, then delete").click()
    w.saved()
    assert [one["name"] for one in w.kept()["scene"]["dials"]] == ["Rain"]
    assert turn_of(w, "Leaf 5", 40) == pytest.approx(turn, abs=0.2)


def test_one_light_tints_several_things(page, server):
    w = opened(page, server.address, objects=[shape("Hill", fill="#7FB791", x=300, y=300), shape("Hut", fill="#C9A46B", x=600, y=300)])
    dials(w).get_by_role("button", name="Add a dial").click()
    page.get_by_role("menuitem", name=re.compile("colour")).click()
    field = dials(w).get_by_role("textbox", name="New name")
    field.fill("Dusk")
    field.press("Enter")
    w.saved()
    dialog = takers(w, "Dusk")
    dialog.get_by_text("all 2").click()
    dialog.get_by_role("button", name="Let 2 take it").click()
    expect(dialog).to_have_count(0)
    fill = page.get_by_role("region", name="Values at this frame").get_by_label("Fill fill", exact=True)
    w.pick("Hill")
    expect(fill).to_have_value("#7FB791")
    pick_dial(w, "Dusk")
    value = page.get_by_role("region", name="Values at this frame").get_by_label("Value value", exact=True)
    value.fill("#3D4A86")
    value.press("Enter")
    w.saved()
    w.pick("Hill")
    expect(fill).not_to_have_value("#7FB791")
    w.row("Fill").locator(".label").click()
    assert w.cards() == ["Keys", "Ends", "Tint", "Result"]
