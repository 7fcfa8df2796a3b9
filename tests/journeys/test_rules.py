"""The vine at work: rules put on, set, keyed, ordered, switched, copied and frozen."""

import re
import urllib.request

import pytest
from playwright.sync_api import expect

from tests.journeys.scenes import keys, opened, shape
from vine_swing.motion import bake, parse


@pytest.fixture
def leaf(page, server):
    w = opened(page, server.address, name="New scene", length=120, objects=[shape("Leaf", x=640, y=360)])
    w.pick("Leaf")
    w.row("Rotation").locator(".label").click()
    return w


def add(w, name):
    w.page.get_by_role("button", name="Add a rule").click()
    w.page.get_by_role("button", name=re.compile(f"^{name}")).last.click()
    w.saved()


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
    assert w.cards() == ["Keys", "Ends", "Noise", "Result"]
    frames = range(5, 65, 10)
    moving = turns(w, frames)
    assert len(set(moving)) > 3
    assert max(map(abs, moving)) <= 4
    setting(w, "Noise", "amplitude", "20")
    assert rules(w)[0]["settings"]["amplitude"]["base"] == 20
    # Five times the amplitude is five times the turn, at every frame; the page shows a tenth of a degree.
    assert turns(w, frames) == pytest.approx([5 * turn for turn in moving], abs=0.31)
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
    # The setting's keys are on the time sheet like any others, and slide.
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
    assert w.cards() == ["Keys", "Ends", "Oscillator", "Steps", "Result"]
    assert turns(w, (10, 11)) == [turns(w, (10,))[0]] * 2, "held on twos"
    w.page.get_by_role("button", name="More for Steps").click()
    w.page.get_by_role("menuitem", name="Earlier").click()
    w.saved()
    assert w.cards() == ["Keys", "Ends", "Steps", "Oscillator", "Result"]
    a, b = turns(w, (10, 11))
    assert a != b, "what swings after the steps is not held by them"
    w.page.get_by_role("button", name="More for Oscillator").click()
    w.page.get_by_role("menu", name="More for Oscillator").get_by_role("menuitem", name="Copy to…").click()
    w.page.get_by_role("checkbox", name="Twig").check()
    w.page.get_by_role("button", name="Copy to 1").click()
    w.saved()
    assert [rule["kind"] for rule in rules(w)] == ["oscillator"]
    w.page.get_by_role("button", name="More for Steps").click()
    w.page.get_by_role("menu", name="More for Steps").get_by_role("menuitem", name="Remove").click()
    w.saved()
    assert w.cards() == ["Keys", "Ends", "Oscillator", "Result"]
    w.page.keyboard.press("Control+z")
    expect(w.page.get_by_role("article", name=re.compile("^Steps"))).to_be_visible()


def test_what_rules_make_is_frozen_to_few_keys(leaf):
    w = leaf
    add(w, "Rocking")
    before = turns(w, (0, 7, 33, 80))
    w.page.get_by_role("button", name="Freeze").click()
    w.saved()
    assert w.cards() == ["Keys", "Ends", "Result"]
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
    assert w.cards() == ["Keys", "Ends", "Steps", "Oscillator", "Result"]


# -- the journeys of issue 4


def panel(w, rule):
    """Open a rule's settings."""
    w.page.get_by_role("button", name=f"Settings of {rule}").click()


def close(w):
    w.page.get_by_role("heading", name=re.compile(" at frame ")).click()
    expect(w.page.get_by_role("tooltip").filter(visible=True)).to_have_count(0)
    # Once it has faded the panel hands the focus back to its button: what is typed before that is lost.
    w.page.wait_for_timeout(400)


def put(w, name, text):
    field = w.page.get_by_role("spinbutton", name=name, exact=True)
    field.fill(text)
    field.press("Enter")
    w.saved()


def test_a_pendulum_sign_swings_dies_down_and_is_started_again(workspace):
    w = workspace
    w.add("Rectangle", "Sign")
    # It hangs by its top.
    w.type_value("Pivot y", "-60")
    w.row("Rotation").locator(".label").click()
    add(w, "Oscillator")
    panel(w, "Oscillator")
    put(w, "amplitude", "20")
    put(w, "frequency", "1")
    put(w, "phase", "90")
    close(w)
    assert turns(w, (0, 6, 12, 24)) == pytest.approx([20, 0, -20, 20], abs=0.05), "it begins at its peak"
    # Two seconds later it has come to rest; at frame 96 someone gives it a push.
    for frame, text in ((0, "20"), (48, "0"), (95, "0"), (96, "20")):
        w.go_to(str(frame))
        panel(w, "Oscillator")
        if frame == 0:
            w.page.get_by_role("button", name="Key amplitude at frame 0").click()
            w.saved()
        put(w, "amplitude", text)
        close(w)
    keys = rules(w)[0]["settings"]["amplitude"]["keys"]
    assert [(key["frame"], key["value"]) for key in keys] == [(0, 20), (48, 0), (95, 0), (96, 20)]
    assert turns(w, (24, 48, 72, 96)) == pytest.approx([10, 0, 0, 20], abs=0.05)
    expect(w.leaves("Sign", "Oscillator amplitude")).to_have_count(4)


def test_a_firefly_blinks_square_without_in_betweens(workspace):
    w = workspace
    w.add("Ellipse", "Firefly")
    w.type_value("Opacity opacity", "50")
    w.row("Opacity").locator(".label").click()
    add(w, "Oscillator")
    panel(w, "Oscillator")
    w.page.get_by_role("combobox", name="wave").select_option("square")
    w.saved()
    put(w, "amplitude", "50")
    put(w, "frequency", "2")
    close(w)
    seen = []
    for frame in range(0, 25):
        w.go_to(str(frame))
        seen.append(w.value("Opacity opacity"))
    assert seen == [100] * 6 + [0] * 6 + [100] * 6 + [0] * 6 + [100]


@pytest.fixture
def hopper(page, server):
    there = keys((0, 100), (20, 300), (40, 100))
    w = opened(page, server.address, name="New scene", length=120, objects=[shape("Hopper", x=there, y=360)])
    w.pick("Hopper")
    w.go_to("40")
    w.row("Travel").locator(".label").click()
    return w


def travels(w, frames):
    found = []
    for frame in frames:
        w.go_to(str(frame))
        found.append(w.value("Travel x"))
    return found


def test_delay_and_speed_are_dragged_on_the_lane_and_the_keys_stay(hopper):
    w = hopper
    before = w.keys("Hopper", "x")
    bar = w.page.get_by_role("button", name=re.compile("^Delay of Hopper travel"))
    lane = w.leaf("Hopper", "Travel", 40)
    first = centre(w.leaf("Hopper", "Travel", 0))
    per_frame = (centre(lane)[0] - first[0]) / 40
    box = bar.bounding_box()
    at = (box["x"] + box["width"] / 4, box["y"] + box["height"] / 2)
    w.drag(at, (at[0] + 20 * per_frame, at[1]))
    assert travels(w, (20, 40, 60)) == [100, 300, 100]
    pace = w.page.get_by_role("button", name=re.compile("^Speed of Hopper travel"))
    x, y = centre(pace)
    w.drag((x, y), (x + 40 * per_frame, y))
    rule = rules(w)[0]
    assert (rule["kind"], rule["channels"]) == ("retime", ["x"]) or set(rule["channels"]) == {"x", "y"}
    assert {name: one["base"] for name, one in rule["settings"].items()} == {"delay": 20, "speed": 0.5}
    assert travels(w, (20, 60, 100)) == [100, 300, 100], "half as fast, 20 frames late"
    assert w.keys("Hopper", "x") == before
    expect(bar).to_have_accessible_name("Delay of Hopper travel: 20 frames later, 0.5 × as fast")
    bar.dblclick(position={"x": 30, "y": 2})
    w.saved()
    assert travels(w, (0, 20, 40)) == [100, 300, 100]
    w.page.keyboard.press("Control+z")
    expect(bar).to_have_accessible_name(re.compile("20 frames later"))


def test_the_same_keys_on_fours(hopper):
    w = hopper
    before, moving = w.keys("Hopper", "x"), travels(w, (0, 4, 8, 12))
    add(w, "Steps")
    panel(w, "Steps")
    put(w, "every", "4")
    close(w)
    held = travels(w, range(0, 16))
    assert held == [value for value in moving for _ in range(4)]
    assert w.keys("Hopper", "x") == before


def test_noise_on_y_only(hopper):
    w = hopper
    still = travels(w, (5, 25))
    add(w, "Gust")
    panel(w, "Noise")
    acts_on, shown = w.page.get_by_role("group", name="Acts on"), w.page.get_by_role("radiogroup", name="Channel")
    expect(shown.get_by_role("radio", name="x")).to_be_checked()
    acts_on.get_by_role("checkbox", name="x", exact=True).uncheck()
    w.saved()
    # The vine goes on to what the rule still acts on, its settings stay.
    expect(shown.get_by_role("radio", name="y")).to_be_checked()
    expect(acts_on.get_by_role("checkbox", name="y", exact=True)).to_be_checked()
    close(w)
    assert rules(w)[0]["channels"] == ["y"]
    assert travels(w, (5, 25)) == still
    heights = set()
    for frame in range(0, 45, 5):
        w.go_to(str(frame))
        heights.add(w.value("Travel y"))
    assert len(heights) > 4
    # All keys are on x: with every keyed channel the vine goes back there.
    panel(w, "Noise")
    acts_on.get_by_role("checkbox", name="all keyed").check()
    w.saved()
    expect(shown.get_by_role("radio", name="x")).to_be_checked()
    expect(acts_on.get_by_role("checkbox", name="all keyed")).to_be_checked()


def test_a_rule_is_copied_to_three_others_with_seeds_of_their_own(workspace):
    w = workspace
    for name in ("Fern", "Moss", "Vine", "Reed"):
        w.add("Ellipse", name)
    w.pick("Fern")
    w.row("Rotation").locator(".label").click()
    add(w, "Gentle breeze")
    w.page.get_by_role("button", name="More for Noise").click()
    w.page.get_by_role("menuitem", name="Copy to…").click()
    dialog = w.page.get_by_role("dialog", name="Copy noise of Fern")
    for name in ("Moss", "Vine", "Reed"):
        dialog.get_by_role("checkbox", name=name).check()
    expect(dialog.get_by_role("checkbox", name="Fern")).to_be_disabled()
    dialog.get_by_role("button", name="Copy to 3").click()
    w.saved()
    objects = w.kept()["scene"]["objects"]
    seeds = [thing["rules"][0]["settings"].get("seed", {"base": 1})["base"] for thing in objects]
    assert len(set(seeds)) == 4
    assert len({thing["rules"][0]["id"] for thing in objects}) == 4
    with urllib.request.urlopen(f"{w.address}/api/scenes/{w.scene_id}/file") as answer:
        one = bake(parse(answer.read()))
    assert len({round(float(one[name, "rotation"][30]), 6) for name in ("Fern", "Moss", "Vine", "Reed")}) == 4, "no two move alike"
    w.page.keyboard.press("Control+z")
    w.saved()
    assert [len(thing["rules"]) for thing in w.kept()["scene"]["objects"]] == [1, 0, 0, 0], "one step of undo takes back all three"


def test_bad_settings_are_refused_on_the_card_in_plain_words(leaf):
    w = leaf
    add(w, "Dying swing")
    panel(w, "Oscillator")
    alert = w.page.get_by_role("alert").filter(visible=True)
    put(w, "frequency", "1000000000")
    expect(alert).to_have_text("frequency is 1000000000; it must be between -240 and 240 Hz")
    put(w, "half-life", "-1")
    expect(alert).to_have_text("half-life is -1; it must be 0.000001 s or more")
    box = w.page.get_by_role("group", name="Acts on").get_by_role("checkbox", name="turn", exact=True)
    box.click()
    expect(alert).to_contain_text("no channel is left for the rule to act on")
    expect(box).to_be_checked()
    kept = rules(w)[0]
    assert kept["settings"]["frequency"]["base"] == 1.2
    assert kept["settings"]["half_life"]["base"] == 0.6
    assert kept["channels"] == ["rotation"]
    put(w, "frequency", "2")
    expect(alert).to_have_count(0)


def test_a_wave_is_shaped_on_its_curve(leaf):
    w = leaf
    add(w, "Rocking")
    w.page.get_by_role("tab", name="Curves").click()
    swing = w.page.get_by_role("button", name="Amplitude and phase of the oscillator")
    pace = w.page.get_by_role("button", name="Frequency of the oscillator")
    x, y = centre(swing)
    next_x = centre(pace)[0]
    period = next_x - x
    w.drag((x, y), (x, y - 20))
    settings = rules(w)[0]["settings"]
    assert settings["amplitude"]["base"] > 10
    assert settings["frequency"]["base"] == 0.6
    x, y = centre(swing)
    w.drag(centre(pace), (x + period / 2, centre(pace)[1]))
    settings = rules(w)[0]["settings"]
    assert settings["frequency"]["base"] == pytest.approx(1.2, abs=0.05), "twice as fast"
    assert centre(swing)[0] == pytest.approx(x, abs=2), "the first swing stays"
    before = settings["phase"]["base"]
    w.drag((x, y), (x + period / 8, y), keys="Shift")
    settings = rules(w)[0]["settings"]
    assert (before - settings["phase"]["base"]) % 360 == pytest.approx(90, abs=4), "a quarter of the new swing later"
    assert settings["amplitude"]["base"] > 10
    pace.press("ArrowRight")
    w.saved()
    assert rules(w)[0]["settings"]["frequency"]["base"] < settings["frequency"]["base"]


def test_a_slider_shows_its_number_while_it_is_dragged(leaf):
    w = leaf
    add(w, "Rocking")
    panel(w, "Oscillator")
    slider = w.page.get_by_role("slider", name="Slide amplitude")
    slider.fill("40")
    w.saved()
    expect(w.page.get_by_role("spinbutton", name="amplitude", exact=True)).to_have_value("40.0")
    assert rules(w)[0]["settings"]["amplitude"]["base"] == 40
    # Whole swings over the scene: a loop without a seam.
    w.page.get_by_role("button", name="Switch whole cycles on").click()
    w.saved()
    close(w)
    assert rules(w)[0]["settings"]["cycles"]["base"] == 3
    assert turns(w, (0,)) == pytest.approx(turns(w, (120,)), abs=8)
