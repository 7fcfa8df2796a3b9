"""The principles at work: fruit dropped and tuned, two versions side by side, a nut rolled, a tail that follows, a leaf that glides."""

import re

import numpy as np
import pytest
from playwright.sync_api import expect

from tests.journeys.test_rules import close, panel, put
from tests.journeys.workspace import Workspace
from vine_swing.motion import bake
from vine_swing.motion.scene.scene_file import from_data


def baked(w):
    return bake(from_data(w.kept()["scene"]))


def rules_of(w, name):
    return next(one for one in w.kept()["scene"]["objects"] if one["name"] == name)["rules"]


def number(rule, setting):
    return rule["settings"][setting]["base"]


def keyed(w, row, label, *stops):
    for n, (frame, text) in enumerate(stops):
        w.go_to(str(frame))
        w.type_value(label, text)
        if n == 0:
            w.key(row)


def add_rule(w, name):
    w.page.get_by_role("button", name="Add a rule").click()
    # What the menu says of a rule comes after its name; a tool of the picture may be called alike.
    w.page.locator(".el-popper").get_by_role("button", name=re.compile(f"^{name} ")).first.click()
    w.saved()
    w.page.wait_for_timeout(300)


def test_a_fruit_is_dropped_and_tuned_until_it_is_heavy_then_light(workspace):
    w = workspace
    w.add("Ellipse", "Mango")
    w.type_value("Travel y", "120")
    w.row("Travel").locator(".label").click()
    add_rule(w, "Bounce")
    bounce = rules_of(w, "Mango")[0]
    assert bounce["channels"] == ["y", "x"]
    # The floor is pulled up in the picture, the next bounce down: soft and heavy.
    w.drag_handle("rule-floor", (0, -30))
    lifted = rules_of(w, "Mango")[0]
    assert number(lifted, "floor") == pytest.approx(number(bounce, "floor") - 60, abs=4)
    w.drag_handle("rule-apex", (0, 60))
    heavy = rules_of(w, "Mango")[0]
    assert number(heavy, "keep") < 0.4
    floor = number(heavy, "floor")
    y = baked(w)["Mango", "y"]
    assert y[0] == 120
    assert y[12] == pytest.approx(floor), "it meets the floor on the frame it says"
    assert (y <= floor + 1e-9).all()
    # Light: longer to fall, keeps more of its height.
    panel(w, "Bounce")
    put(w, "fall", "16")
    put(w, "keep", "0.8")
    close(w)
    light = baked(w)["Mango", "y"]
    apex = light[16 : 16 + 30].min()
    assert floor - apex == pytest.approx(0.8 * (floor - 120), abs=3)
    # By physics instead: the fall follows from the gravity.
    panel(w, "Bounce")
    w.page.get_by_role("button", name="Switch gravity on").click()
    w.saved()
    put(w, "gravity", "2000")
    close(w)
    fall = 24 * np.sqrt(2 * (floor - 120) / 2000)
    y = baked(w)["Mango", "y"]
    assert y[int(fall)] < floor
    assert abs(y[round(fall)] - floor) < 40
    w.page.get_by_role("tab", name="Sheet").click()
    assert w.page.locator("path.contact").count() > 3, "contacts are marked on the time sheet"


def test_the_same_jump_twice_plain_and_with_principles(workspace):
    w = workspace
    for name, x in (("Plain", "400"), ("Lively", "880")):
        w.add("Ellipse", name)
        w.type_value("Travel x", x)
        keyed(w, "Travel", "Travel y", (12, "560"), (20, "300"), (28, "560"))
    w.row("Travel").locator(".label").click()
    w.page.get_by_role("radio", name="y", exact=True).click()
    for name in ("Wind-up", "Overshoot", "Squash & stretch"):
        add_rule(w, name)
    kinds = [rule["kind"] for rule in rules_of(w, "Lively")]
    assert kinds == ["wind-up", "overshoot", "squash-stretch"]
    one = baked(w)
    plain, lively = one["Plain", "y"], one["Lively", "y"]
    assert lively[[12, 20, 28]] == pytest.approx(plain[[12, 20, 28]]), "the keys are where they were"
    assert lively[5:12].max() > plain[5:12].max() + 20, "it dips before it leaps"
    assert np.abs(lively[28:40] - plain[28:40]).max() > 10, "it settles on its landing"
    assert (one["Plain", "stretch"] == 1).all()
    stretch = one["Lively", "stretch"]
    assert stretch.max() > 1.1
    area = one.objects[next(i for i, o in one.objects.items() if o.source.name == "Lively")].local
    np.testing.assert_allclose(area[:, 0] * area[:, 3] - area[:, 1] * area[:, 2], 1, atol=1e-9)
    # The vine went along to what the last rule changes; its dots along the way show the stretch.
    expect(w.page.get_by_role("heading", name=re.compile("How Lively’s stretch"))).to_be_visible()


def test_a_nut_rolls_exactly_once_a_circumference(workspace):
    w = workspace
    w.add("Ellipse", "Nut")
    w.type_value("Shape w", "100")
    w.type_value("Shape h", "100")
    keyed(w, "Travel", "Travel x", (0, "200"), (48, f"{200 + 100 * np.pi:.6f}"))
    add_rule(w, "Roll")
    assert number(rules_of(w, "Nut")[0], "radius") == 50, "it takes its own radius"
    w.go_to("48")
    assert w.value("Rotation turn") == pytest.approx(360, abs=0.05)
    w.drag_handle("rule-radius", (0, 25))
    assert number(rules_of(w, "Nut")[0], "radius") == pytest.approx(100, abs=3)
    w.go_to("48")
    assert w.value("Rotation turn") == pytest.approx(180, abs=6)


def test_a_tail_of_three_follows_a_body(workspace):
    w = workspace
    for n in range(1, 4):
        w.add("Ellipse", f"Link {n}")
        w.type_value("Travel x", "200")
    w.add("Ellipse", "Body")
    keyed(w, "Travel", "Travel x", (0, "200"), (20, "500"), (40, "500"))
    w.row("Travel").locator(".label").click()
    w.page.get_by_role("button", name="Add a rule").click()
    w.page.get_by_role("button", name="Follow down a chain…").click()
    dialog = w.page.get_by_role("dialog", name="Follow Body down a chain")
    for n in range(1, 4):
        dialog.get_by_role("checkbox", name=f"Link {n}").check()
    dialog.get_by_role("button", name="Follow with 3").click()
    w.saved()
    one = baked(w)
    body = one["Body", "x"]
    for n in range(1, 4):
        np.testing.assert_allclose(one[f"Link {n}", "x"][9:], body[9 - 3 * n : -3 * n], atol=1e-9)
    # A ring is refused in words.
    w.pick("Body")
    w.row("Travel").locator(".label").click()
    w.page.get_by_role("button", name="Add a rule").click()
    w.page.get_by_role("button", name=re.compile("^Follow Does")).click()
    w.saved()
    panel(w, "Follow")
    w.page.get_by_role("combobox", name="leader").select_option("Link 3")
    expect(w.page.get_by_role("alert").filter(visible=True)).to_contain_text("these read each other in a ring")
    close(w)
    w.page.keyboard.press("Control+z")
    w.page.keyboard.press("Control+z")
    w.saved()
    assert all(not one["rules"] for one in w.kept()["scene"]["objects"]), "one step of undo takes the chain back"


def test_a_leaf_points_along_its_curved_way(workspace):
    w = workspace
    w.add("Ellipse", "Leaf")
    w.page.get_by_role("button", name="Draw and bend paths").click()
    for frame, at in ((0, (300, 500)), (30, (640, 200)), (60, (1000, 500))):
        w.go_to(str(frame))
        w.page.mouse.click(*w.on_screen(*at))
        w.saved()
    w.page.keyboard.press("v")
    w.row("Rotation").locator(".label").click()
    add_rule(w, "Face")
    one = baked(w)
    x, y, turn = (one["Leaf", name] for name in ("x", "y", "rotation"))
    moving = np.hypot(np.diff(x), np.diff(y)) > 0.5
    way = np.degrees(np.arctan2(np.diff(y), np.diff(x)))
    mean = (turn[1:] + turn[:-1]) / 2
    off = (mean - way + 180) % 360 - 180
    assert moving.sum() > 20
    assert np.median(np.abs(off[moving])) < 2
    assert np.abs(np.diff(turn)).max() < 90, "it never spins round"
    w.go_to("10")
    w.drag_handle("rule-front", (0, 30))
    assert number(rules_of(w, "Leaf")[0], "offset") != 0


def test_every_principle_opens_as_a_scene(page, demo_server):
    page.goto(demo_server.address)
    page.get_by_role("link", name="Principles").click()
    expect(page.get_by_role("article")).to_have_count(12)
    card = page.get_by_role("article", name="Squash and stretch")
    canvas = card.locator("canvas")
    # A busy machine may take a while to the first picture, so it is watched until it changes.
    first = canvas.evaluate("(c) => c.toDataURL()")
    page.wait_for_function("([c, first]) => c.toDataURL() !== first", arg=[canvas.element_handle(), first])
    painted = canvas.evaluate("(c) => c.toDataURL()")
    page.wait_for_function("([c, painted]) => c.toDataURL() !== painted", arg=[canvas.element_handle(), painted])
    page.get_by_role("button", name="Open as a scene: Squash and stretch").click()
    w = Workspace(page, demo_server.address)
    assert [rule["kind"] for one in w.kept()["scene"]["objects"] for rule in one["rules"]] == ["squash-stretch"]


def test_a_formula_with_a_mistake_is_mended_from_its_message(workspace):
    w = workspace
    w.add("Rectangle", "Mill wheel")
    keyed(w, "Rotation", "Rotation turn", (0, "0"), (24, "360"))
    w.add("Rectangle", "Gear")
    w.row("Rotation").locator(".label").click()
    add_rule(w, "Link")
    panel(w, "Link")
    field = w.page.get_by_role("textbox", name="formula")
    alert = w.page.get_by_role("alert").filter(visible=True)
    field.fill("-{Mill whel.rotation} * 2")
    field.press("Enter")
    expect(alert).to_have_text(re.compile(r"^at character 3: there is no 'Mill whel.rotation' in this scene; did you mean 'Mill wheel'\?"))
    expect(w.page.locator("pre.under mark")).to_have_text("M")
    # Names are offered while one types.
    field.fill("-{mill")
    w.page.get_by_role("group", name="Matching names").get_by_role("button", name="{Mill wheel.rotation}").click()
    field.press("End")
    field.type(" * 24 / 12")
    field.press("Enter")
    w.saved()
    expect(alert).to_have_count(0)
    close(w)
    one = baked(w)
    np.testing.assert_allclose(one["Gear", "rotation"], -2 * one["Mill wheel", "rotation"], atol=1e-9)
    w.page.get_by_role("article", name=re.compile("^Link: .* now · -{Mill wheel.rotation}")).wait_for()
    # The wheel gets another name, and the gear still turns with it.
    w.item("Mill wheel").dblclick()
    name = w.page.get_by_role("textbox", name=re.compile("New name of"))
    name.fill("Great wheel")
    name.press("Enter")
    w.saved()
    assert rules_of(w, "Gear")[0]["settings"]["formula"] == "-{Great wheel.rotation} * 24 / 12"
    one = baked(w)
    np.testing.assert_allclose(one["Gear", "rotation"], -2 * one["Great wheel", "rotation"], atol=1e-9)
    # Without it, the gear's card says so.
    w.item("Great wheel").click()
    w.page.keyboard.press("Delete")
    w.page.get_by_role("button", name="Delete without freezing").click()
    w.saved()
    w.pick("Gear")
    w.row("Rotation").locator(".label").click()
    expect(w.page.get_by_role("article", name=re.compile("^Link: there is no 'Great wheel.rotation' any more"))).to_be_visible()
