"""The vine at work: rules put on, set, keyed, ordered, switched, copied and frozen."""

import re

import pytest
from playwright.sync_api import expect


@pytest.fixture
def leaf(workspace):
    w = workspace
    w.add("Ellipse", "Leaf")
    w.row("Rotation").locator(".label").click()
    return w


def add(w, name):
    w.page.get_by_role("button", name="Add a rule").click()
    w.page.get_by_role("button", name=re.compile(f"^{name}")).last.click()
    w.saved()
    w.page.wait_for_timeout(300)


def cards(w):
    return [
        card.split(":")[0]
        for card in w.page.get_by_role("region", name="Vine").get_by_role("article").evaluate_all("all => all.map(one => one.ariaLabel)")
    ]


def centre(locator):
    box = locator.bounding_box()
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def setting(w, rule, name, text):
    w.page.get_by_role("button", name=f"Settings of {rule}").click()
    field = w.page.get_by_role("spinbutton", name=name, exact=True)
    field.fill(text)
    field.press("Enter")
    w.saved()
    w.page.keyboard.press("Escape")


def rules(w):
    return w.kept()["scene"]["objects"][-1]["rules"]


def turns(w, frames):
    found = []
    for frame in frames:
        w.go_to(str(frame))
        found.append(w.value("Rotation turn"))
    return found


def test_a_breeze_is_put_on_set_keyed_and_switched_off(leaf):
    w = leaf
    add(w, "Gentle breeze")
    assert cards(w) == ["Keys", "Ends", "Noise", "Result"]
    moving = turns(w, (5, 30, 60))
    assert len(set(moving)) == 3
    assert max(map(abs, moving)) <= 4
    setting(w, "Noise", "amplitude", "20")
    assert rules(w)[0]["settings"]["amplitude"]["base"] == 20
    assert max(map(abs, turns(w, range(0, 100, 10)))) > 4
    # The wind rises: the amplitude is keyed right in the settings.
    w.go_to("0")
    w.page.get_by_role("button", name="Settings of Noise").click()
    w.page.get_by_role("button", name="Key amplitude at frame 0").click()
    w.saved()
    w.page.keyboard.press("Escape")
    w.go_to("60")
    setting(w, "Noise", "amplitude", "0")
    keys = rules(w)[0]["settings"]["amplitude"]["keys"]
    assert [(key["frame"], key["value"]) for key in keys] == [(0, 20), (60, 0)]
    assert turns(w, (60, 100)) == [0, 0]
    w.go_to("30")
    w.page.get_by_role("button", name="Settings of Noise").click()
    expect(w.page.get_by_role("spinbutton", name="amplitude", exact=True)).to_have_value("10.0")
    w.page.get_by_role("heading", name="Leaf at frame 30").click()
    expect(w.page.get_by_role("spinbutton", name="amplitude", exact=True)).to_be_hidden()
    # The setting's keys lie on the time sheet like any others, and slide.
    x, y = centre(w.leaf("Leaf", "Noise amplitude", 60))
    per_frame = (x - centre(w.leaf("Leaf", "Noise amplitude", 0))[0]) / 60
    w.drag((x, y), (x + 20 * per_frame, y))
    assert [key["frame"] for key in rules(w)[0]["settings"]["amplitude"]["keys"]] == [0, 80]
    w.page.get_by_role("tab", name="Curves").click()
    expect(w.page.get_by_role("button", name="Noise amplitude", exact=False).first).to_be_visible()
    w.page.get_by_role("tab", name="Sheet").click()
    w.row("Rotation").locator(".label").click()
    w.page.get_by_role("switch", name="Noise on").click()
    w.saved()
    assert turns(w, (5, 30)) == [0, 0]


def test_rules_are_ordered_copied_and_removed(leaf):
    w = leaf
    w.add("Star", "Twig")
    w.pick("Leaf")
    w.row("Rotation").locator(".label").click()
    add(w, "Rocking")
    add(w, "On twos")
    assert cards(w) == ["Keys", "Ends", "Oscillator", "Steps", "Result"]
    assert turns(w, (10, 11)) == [turns(w, (10,))[0]] * 2, "held on twos"
    w.page.get_by_role("button", name="More for Steps").click()
    w.page.get_by_role("menuitem", name="Earlier").click()
    w.saved()
    w.page.wait_for_timeout(300)
    assert cards(w) == ["Keys", "Ends", "Steps", "Oscillator", "Result"]
    a, b = turns(w, (10, 11))
    assert a != b, "what swings after the steps is not held by them"
    w.page.get_by_role("button", name="More for Oscillator").click()
    w.page.get_by_role("menu", name="More for Oscillator").get_by_role("menuitem", name="Copy to Twig").click()
    w.saved()
    assert [rule["kind"] for rule in rules(w)] == ["oscillator"]
    w.page.get_by_role("button", name="More for Steps").click()
    w.page.get_by_role("menu", name="More for Steps").get_by_role("menuitem", name="Remove").click()
    w.saved()
    w.page.wait_for_timeout(300)
    assert cards(w) == ["Keys", "Ends", "Oscillator", "Result"]
    w.page.keyboard.press("Control+z")
    expect(w.page.get_by_role("article", name=re.compile("^Steps"))).to_be_visible()


def test_what_rules_make_is_frozen_to_few_keys(leaf):
    w = leaf
    add(w, "Rocking")
    before = turns(w, (0, 7, 33, 80))
    w.page.get_by_role("button", name="Freeze").click()
    w.saved()
    w.page.wait_for_timeout(300)
    assert cards(w) == ["Keys", "Ends", "Result"]
    count = len(w.keys("Leaf", "rotation"))
    assert 5 < count < 60
    assert turns(w, (0, 7, 33, 80)) == pytest.approx(before, abs=0.6)
    w.page.locator(".stage").focus()
    w.page.keyboard.press("Control+z")
    expect(w.page.get_by_role("article", name=re.compile("^Oscillator"))).to_be_visible()
    assert w.keys("Leaf", "rotation") == []


def test_a_card_is_dragged_to_another_place(leaf):
    w = leaf
    add(w, "Rocking")
    add(w, "On twos")
    vine = w.page.get_by_role("region", name="Vine")
    vine.get_by_role("article", name=re.compile("^Steps")).locator("svg.chart").drag_to(vine.get_by_role("article", name=re.compile("^Oscillator")))
    w.saved()
    w.page.wait_for_timeout(300)
    assert cards(w) == ["Keys", "Ends", "Steps", "Oscillator", "Result"]
