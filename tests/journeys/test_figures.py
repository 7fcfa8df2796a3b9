"""Figures through the page: from a starter to a walk across the picture, tuned, stopped, led uphill, acted on top, looped and exported; one with
six legs; one of objects that were there."""

import io
import json
import re
import time
import urllib.request
import zipfile

import numpy as np
import pytest
from playwright.sync_api import expect

from tests.journeys.scenes import opened, shape
from tests.motion.figure.walkers import drift
from vine_swing.motion import bake, parse


def begin(w, starter, name):
    w.page.get_by_role("button", name="Add to the picture").click()
    w.page.get_by_role("menuitem", name="Figure that walks…").click()
    dialog = w.page.get_by_role("dialog", name="New figure")
    dialog.get_by_role("radio", name=re.compile(f"^{starter}")).click()
    dialog.get_by_label("Name of the figure").fill(name)
    dialog.get_by_role("button", name="Add to the scene").click()
    expect(dialog).to_have_count(0)
    w.saved()
    expect(w.item(name)).to_have_attribute("aria-selected", "true")


def gait(w, name):
    w.page.get_by_role("group", name=re.compile("^Gait of")).get_by_role("button", name=name, exact=True).click()
    w.saved()


def across(w, *stops):
    """Key the picked figure across the picture."""
    for n, (frame, x) in enumerate(stops):
        w.go_to(str(frame))
        w.type_value("Travel x", str(x))
        if n == 0:
            w.key("Travel")


def kept(w):
    with urllib.request.urlopen(f"{w.address}/api/scenes/{w.scene_id}/file") as answer:
        return parse(answer.read())


def slides(one, name="Postie"):
    """How far planted feet slide in a scene, in px."""
    thing = next(thing for thing in one.objects if thing.name == name)
    alone = one.copy_with(
        objects=tuple(t.copy_with(id="walker") if t is thing else t.copy_with(parent="walker") if t.parent == thing.id else t for t in one.objects)
    )
    return drift(bake(alone, np.arange(0, one.length - 1, 0.25)))


@pytest.fixture
def postie(workspace):
    begin(workspace, "Upright", "Postie")
    return workspace


def test_from_a_starter_to_a_walk_across_the_picture_in_under_a_minute(workspace):
    w, begun = workspace, time.monotonic()
    begin(w, "Upright", "Postie")
    gait(w, "Stroll")
    hint = w.page.get_by_text("The figure stands still")
    expect(hint).to_be_visible()
    across(w, (0, "150"), (100, "1100"))
    expect(hint).to_have_count(0)
    print(f"\na walk across the picture after {time.monotonic() - begun:.0f} s")
    one = kept(w)
    assert slides(one) <= 0.25
    # The time sheet shows which foot is on the ground when, and the poses can be removed to.
    lane = w.page.get_by_role("listitem", name="Near leg on the ground")
    assert int(lane.get_attribute("data-down")) >= 5
    w.go_to("0")
    contact = lane.get_by_role("button", name=re.compile("^contact of Near leg")).nth(2)
    frame = round(float(re.search(r"frame ([\d.]+)", contact.get_attribute("aria-label"))[1]))
    contact.click()
    assert abs(w.frame() - frame) <= 1
    before = w.frame()
    w.page.get_by_role("application").focus()
    w.page.keyboard.press("'")
    w.painted()
    assert w.frame() > before, "on to the next pose"
    w.page.keyboard.press(";")
    w.painted()
    assert w.frame() <= before
    # What is seen is what is kept: the skeleton lies over the drawn leg.
    expect(w.page.get_by_test_id("skeleton")).to_be_visible()


def test_tuned_from_tired_to_proud_with_settings_alone(postie):
    w = postie
    gait(w, "Tired")
    across(w, (0, "150"), (100, "900"))
    w.go_to("50")
    tired = bake(kept(w))
    w.page.get_by_role("button", name="Tune…").click()
    dialog = w.page.get_by_role("dialog", name="How Postie walks")
    for label, value in (
        ("stride", "130"),
        ("stance", "0.58"),
        ("lean", "-8"),
        ("knee", "0"),
        ("lift", "20"),
        ("arm swing", "32"),
        ("weight", "0.1"),
    ):
        field = dialog.get_by_role("spinbutton", name=label, exact=True)
        field.fill(value)
        field.press("Enter")
        w.saved()
    # A slider shows what it does while it is dragged, and makes one step of undo.
    slider = dialog.get_by_role("slider", name="Slide bob")
    slider.fill("12")
    w.saved()
    w.page.keyboard.press("Escape")
    one = kept(w)
    proud = bake(one)
    assert one.objects[0].rules[0].settings["bob"].base == 12
    assert proud["Postie", "spine.turn"][50] < 0 < tired["Postie", "spine.turn"][50], "chest out, not hanging"
    assert np.mean(proud["Postie", "hips.y"][20:90]) < np.mean(tired["Postie", "hips.y"][20:90]) - 3, "it stands higher"
    assert slides(one) <= 0.25


def test_it_stops_at_a_mark_and_goes_on(postie):
    w = postie
    gait(w, "Brisk")
    across(w, (0, "150"), (40, "600"), (64, "600"), (110, "1100"))
    one = kept(w)
    baked = bake(one)
    assert baked["Postie", "x"][52] == pytest.approx(600)
    for leg in ("near-leg", "far-leg"):
        feet = baked["Postie", f"{leg}.x"][46:62] + baked["Postie", "x"][46:62]
        assert np.ptp(feet) < 0.01, "it stands on both feet"
        assert np.abs(baked["Postie", f"{leg}.y"][52]) < 0.01
    assert slides(one) <= 0.25
    lane = w.page.get_by_role("listitem", name="Far leg on the ground")
    w.go_to("52")
    expect(lane).to_contain_text("down")


def test_a_slope_is_put_under_it(page, server):
    slope = shape("Slope", "outline", x=0, y=620, fill="#4D8C66") | {
        "shape": {"type": "outline", "d": "M-50 0 L400 -30 L900 -210 L1400 -260 V200 H-50 Z"}
    }
    w = opened(page, server.address, objects=[slope])
    begin(w, "Upright", "Postie")
    gait(w, "Stroll")
    across(w, (0, "120"), (46, "1100"))
    w.page.get_by_role("combobox", name="Ground").select_option(label="Slope")
    w.saved()
    one = kept(w)
    baked = bake(one)
    assert one.objects[1].rules[0].settings["ground"] == "slope"
    assert baked["Postie", "hips.y"][45] < baked["Postie", "hips.y"][2] - 150, "it climbs"
    assert slides(one) <= 0.25
    foot = next(thing for thing in one.objects if thing.name == "Postie near leg foot")
    turned = np.degrees(np.arctan2(*baked.objects[foot.id].world[:, [1, 0]].T))
    assert turned.min() < -15, "feet tilt to it"
    # The ground is not taken away from under its feet without a word: frozen, they go on as they did.
    w.pick("Slope")
    w.page.get_by_role("application").focus()
    w.page.keyboard.press("Delete")
    expect(w.page.get_by_role("dialog", name="Slope is read by others")).to_contain_text("Postie gait")
    w.page.get_by_role("button", name="Freeze, then delete").click()
    w.saved()
    frozen = bake(kept(w))
    np.testing.assert_allclose(frozen["Postie", "hips.y"], baked["Postie", "hips.y"], atol=0.06)


def test_a_wave_of_the_hand_is_keyed_over_the_walk(postie):
    w = postie
    gait(w, "Stroll")
    across(w, (0, "150"), (100, "1000"))
    plain = bake(kept(w))
    # The rows of a limb are folded until it is opened.
    limb = w.page.get_by_role("region", name="Values at this frame").get_by_role("button", name="Near arm")
    expect(limb).to_have_attribute("aria-expanded", "false")
    limb.click()
    # The hand is pulled up in the picture; before and after it hangs as it did.
    for frame in (30, 70):
        w.go_to(str(frame))
        w.row("Near arm joints").locator(".label").click()
        w.key("Near arm joints")
    w.go_to("50")
    elbow = w.page.get_by_test_id("pull Near arm: elbow turn").bounding_box()
    x, y = elbow["x"] + elbow["width"] / 2, elbow["y"] + elbow["height"] / 2
    w.drag((x, y), (x + 40, y - 60))
    one = kept(w)
    keys = {key.frame: key.number for key in one.objects[0].channels["near-arm.upper"].keys}
    assert keys[30] == keys[70] == 0
    assert abs(keys[50]) > 40
    waved = bake(one)
    np.testing.assert_allclose(waved["Postie", "near-leg.x"], plain["Postie", "near-leg.x"], atol=1e-9)
    np.testing.assert_allclose(waved["Postie", "near-arm.upper"][:31], plain["Postie", "near-arm.upper"][:31], atol=1e-9)
    assert waved["Postie", "near-arm.upper"][50] - plain["Postie", "near-arm.upper"][50] == pytest.approx(keys[50], abs=1e-6)
    # A value typed is the value seen: the gait stays under it.
    w.go_to("50")
    w.type_value("Near arm joints upper", "-90")
    assert bake(kept(w))["Postie", "near-arm.upper"][50] == pytest.approx(-90, abs=0.1)
    w.page.get_by_role("button", name="Undo").click()
    w.page.get_by_role("button", name="Undo").click()
    w.saved()
    assert 50 not in {key.frame for key in kept(w).objects[0].channels["near-arm.upper"].keys}


def test_a_loop_of_24_frames_on_the_spot_is_made_and_exported(postie):
    w = postie
    gait(w, "March")
    w.page.get_by_text("on the spot", exact=True).click()
    w.saved()
    expect(w.page.get_by_role("spinbutton", name="Frames of a cycle")).to_have_value("24")
    one = kept(w)
    baked = bake(one)
    for name, values in baked.objects[one.objects[0].id].channels.items():
        if len(values) > 1:
            np.testing.assert_array_equal(values[0], values[24], err_msg=name)
    w.page.get_by_role("button", name="Export", exact=True).click()
    dialog = w.page.get_by_role("dialog", name="Export")
    dialog.get_by_text("Flipbook").click()
    dialog.get_by_role("button", name="one cycle").click()
    with w.page.expect_download(timeout=180_000) as downloading:
        dialog.get_by_role("button", name="Export", exact=True).click()
    with zipfile.ZipFile(io.BytesIO(downloading.value.path().read_bytes())) as book:
        assert len(book.namelist()) == 24
    w.page.keyboard.press("Escape")
    # The same cycle goes on across the picture.
    w.page.get_by_role("button", name="Repeat this cycle").click()
    w.saved()
    going = kept(w)
    stride = going.objects[0].rules[0].settings["stride"].base
    x = bake(going)["Postie", "x"]
    assert x[72] - x[48] == pytest.approx(stride)
    assert slides(going) <= 0.25


def test_one_with_six_legs_is_built_and_shaped(workspace):
    w = workspace
    begin(w, "Six legs", "Ant")
    gait(w, "Tripod")
    across(w, (0, "150"), (100, "700"))
    one = kept(w)
    assert len(one.objects[0].figure.legs) == 6
    assert slides(one, "Ant") <= 0.25
    # A foot is dragged further out where it rests; its parts go along.
    before = one.objects[0].figure.limbs[0].joints
    w.go_to("0")
    w.page.get_by_role("button", name="Shape the joints").click()
    joint = w.page.get_by_test_id("joint Near hind leg: knee").bounding_box()
    x, y = joint["x"] + joint["width"] / 2, joint["y"] + joint["height"] / 2
    w.drag((x, y), (x - 8, y - 6))
    after = kept(w)
    moved = after.objects[0].figure.limbs[0].joints[1]
    assert moved[0] < before[1][0] - 6
    shin = [next(thing for thing in s.objects if thing.name == "Ant near hind leg shin") for s in (one, after)]
    assert shin[1].channels["rotation"].base != 0
    assert shin[1].channels["x"].base == pytest.approx(moved[0])
    assert slides(after, "Ant") <= 0.25
    w.page.get_by_role("button", name="Undo").click()
    w.saved()
    assert kept(w).objects[0].figure.limbs[0].joints == before


def test_things_that_are_there_become_the_parts_of_a_figure(page, server):
    box = {"x": 330, "y": 460, "width": 60, "height": 50}
    w = opened(page, server.address, objects=[shape("Barrel", "rectangle", **box), shape("Bucket", "ellipse", x=335, y=380, width=50, height=40)])
    page.get_by_role("button", name="Add to the picture").click()
    page.get_by_role("menuitem", name="Figure that walks…").click()
    dialog = page.get_by_role("dialog", name="New figure")
    dialog.get_by_text("with drawn parts").click()
    dialog.get_by_label("Name of the figure").fill("Tin man")
    dialog.get_by_role("button", name="Add to the scene").click()
    w.saved()
    page.get_by_role("button", name="Parts…").click()
    dialog = page.get_by_role("dialog", name="Parts of Tin man")
    for bone, thing in (("Spine 1", "Barrel"), ("Head", "Bucket")):
        # By the keyboard alone: type what it is called, take the first that fits.
        dialog.get_by_label(f"On the bone {bone}", exact=True).focus()
        page.keyboard.type(thing)
        option = page.locator(".el-select-dropdown").get_by_role("option", name=thing).filter(visible=True)
        expect(option).to_be_visible()
        page.keyboard.press("ArrowDown")
        page.keyboard.press("Enter")
        expect(dialog.locator(".el-tag").filter(has_text=thing)).to_be_visible()
        page.keyboard.press("Tab")
    dialog.get_by_role("button", name="Attach them").click()
    expect(dialog).to_have_count(0)
    one = kept(w)
    hung = {thing.name: thing.bone for thing in one.objects if thing.bone}
    assert hung == {"Barrel": "spine.1", "Bucket": "head.1"}
    place = bake(one).objects["barrel"].place
    np.testing.assert_allclose(place[0], [330, 460], atol=0.01)


def test_a_stretch_is_frozen_and_other_rules_come_from_the_menu(postie):
    w = postie
    gait(w, "Stroll")
    across(w, (0, "150"), (100, "1000"))
    before = bake(kept(w))
    w.page.get_by_role("button", name="Freeze frames…").click()
    for label, frame in (("Freeze from", "30"), ("Freeze to", "60")):
        field = w.page.get_by_role("spinbutton", name=label, exact=True)
        field.fill(frame)
        field.press("Enter")
    w.page.get_by_role("button", name="Freeze", exact=True).filter(visible=True).first.click()
    w.saved()
    one = kept(w)
    assert len(one.objects[0].channels["near-leg.x"].keys) > 3
    np.testing.assert_allclose(bake(one)["Postie", "near-leg.x"], before["Postie", "near-leg.x"], atol=0.06)
    w.page.get_by_role("button", name="Undo").click()
    w.saved()
    # A head that looks at something, from the menu of rules.
    w.page.get_by_role("region", name="Values at this frame").get_by_role("button", name="Body").click()
    w.row("Back").locator(".label").click()
    w.page.get_by_role("button", name="Add a rule").click()
    w.page.locator(".el-popper").get_by_role("button", name=re.compile("^Look at ")).first.click()
    w.saved()
    rules = kept(w).objects[0].rules
    assert [rule.kind for rule in rules] == ["gait", "look-at"]
    assert json.loads(rules[1].model_dump_json())["channels"] == "keyed"
