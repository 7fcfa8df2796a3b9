"""The time sheet at work: many lanes, many leaves, zoom, spans and the scene's own time."""

import re

import pytest
from playwright.sync_api import expect

from tests.journeys.scenes import keys, opened, shape


def moving(name, start, **more):
    """An object with travel keys at 0, 24 and 48: from the middle of the picture to x `start` + 240 and on by 240."""
    x = [{"frame": frame, "value": 640 if frame == 0 else start + 10 * frame} for frame in (0, 24, 48)]
    return shape(name, x={"keys": x}, y={"keys": [{"frame": 0, "value": 360}]}, **more)


@pytest.fixture
def pair(page, server):
    """Two objects with travel keys at 0, 24 and 48, the second with a fade at 10 and 20; the second is picked, at frame 20."""
    fade = {"keys": [{"frame": 10, "value": 1}, {"frame": 20, "value": 0}]}
    w = opened(page, server.address, name="New scene", length=120, objects=[moving("Mango", 100), moving("Papaya", 300, opacity=fade)])
    w.pick("Papaya")
    w.row("Opacity").locator(".label").click()
    w.go_to("20")
    return w


def lane_row(w, name, row, frame):
    box = w.leaf(name, row, frame).bounding_box()
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def object_leaf(w, name, frame):
    return w.page.get_by_role("button", name=f"Key of {name} at frame {frame}", exact=True)


def middle(locator):
    box = locator.bounding_box()
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def per_frame(w, name="Papaya"):
    return (middle(object_leaf(w, name, 48))[0] - middle(object_leaf(w, name, 0))[0]) / 48


def menu(w, item):
    w.page.get_by_role("button", name="More for the time sheet").click()
    w.page.get_by_role("menuitem", name=item).click()
    w.page.wait_for_timeout(250)


def test_a_box_picks_leaves_on_several_lanes_and_they_slide_together(pair):
    w = pair
    w.page.get_by_role("button", name="Open the rows of Mango").click()
    step = per_frame(w)
    (x0, y0), (x1, y1) = middle(object_leaf(w, "Papaya", 24)), middle(w.leaf("Mango", "Travel", 48))
    w.drag((x0 - 2 * step, y0 - 8), (x1 + 3 * step, y1 + 6))
    # Papaya's travel at 24 and 48, Mango's too; x is keyed with y only at the first key.
    toolbar = w.page.get_by_role("toolbar", name="Picked leaves")
    expect(toolbar).to_contain_text("4 keys")
    x, y = middle(w.leaf("Papaya", "Travel", 48))
    w.drag((x, y), (x + 6 * step, y))
    for name in ("Mango", "Papaya"):
        assert [frame for frame, _ in w.keys(name, "x")] == [0, 30, 54]
    assert [frame for frame, _ in w.keys("Papaya", "opacity")] == [10, 20]
    w.page.keyboard.press("Control+z")
    expect(w.leaf("Papaya", "Travel", 48)).to_have_count(1)


def test_a_fade_starts_later_by_sliding_one_leaf(pair):
    w = pair
    w.go_to("12")
    before = w.value("Opacity opacity")
    assert before == pytest.approx(80)
    x, y = middle(w.leaf("Papaya", "Opacity", 10))
    w.drag((x, y), (x + 5 * per_frame(w), y))
    assert w.keys("Papaya", "opacity") == [(15, 1), (20, 0)]
    assert w.value("Opacity opacity") == 100


def test_leaves_snap_to_other_keys_and_with_alt_to_nothing(pair):
    w = pair
    step = per_frame(w)
    x, y = middle(w.leaf("Papaya", "Opacity", 20))
    w.drag((x, y), (x + 4 * step + 3, y))
    assert w.keys("Papaya", "opacity")[1][0] == 24, "it snaps to the travel key"
    x, y = middle(w.leaf("Papaya", "Opacity", 24))
    w.drag((x, y), (x + 3.4 * step, y), keys="Alt")
    frame = w.keys("Papaya", "opacity")[1][0]
    assert frame != round(frame)
    assert frame == pytest.approx(27.4, abs=0.2)


def test_all_on_this_frame_and_all_of_the_scene(pair):
    w = pair
    w.go_to("24")
    menu(w, "Pick all leaves on frame 24")
    expect(w.page.get_by_role("toolbar", name="Picked leaves")).to_contain_text("2 keys")
    menu(w, "Pick all of the scene")
    expect(w.page.get_by_role("toolbar", name="Picked leaves")).to_contain_text("10 keys")
    before = w.kept()["scene"]["objects"]
    menu(w, "Delete all keys of the scene")
    dialog = w.page.get_by_role("dialog", name="Delete all these keys?")
    expect(dialog).to_contain_text("10 keys")
    dialog.get_by_text("that of this frame").click()
    dialog.get_by_role("button", name="Delete the keys").click()
    w.saved()
    expect(w.page.get_by_role("button", name=re.compile("^Key of"))).to_have_count(0)
    assert w.channel("Papaya", "x")["base"] == 540
    expect(dialog).to_be_hidden()
    w.page.keyboard.press("Control+z")
    expect(object_leaf(w, "Papaya", 48)).to_have_count(1)
    assert w.kept()["scene"]["objects"] == before


def test_zoom_scroll_and_back_to_the_whole(pair):
    w = pair
    whole = per_frame(w)
    lanes = w.page.get_by_role("region", name="Time sheet")
    x, y = middle(object_leaf(w, "Papaya", 24))
    w.page.mouse.move(x, y)
    w.page.keyboard.down("Control")
    w.page.mouse.wheel(0, -300)
    w.page.keyboard.up("Control")
    w.page.wait_for_timeout(200)
    assert middle(object_leaf(w, "Papaya", 24))[0] == pytest.approx(x, abs=2), "what lies under the pointer stays there"
    zoomed = middle(object_leaf(w, "Papaya", 48))[0] - x
    assert zoomed > 24 * whole * 2
    w.page.mouse.wheel(200, 0)
    w.page.wait_for_timeout(200)
    assert middle(object_leaf(w, "Papaya", 24))[0] == pytest.approx(x - 200, abs=3)
    expect(lanes.get_by_text("Papaya", exact=True)).to_be_visible()
    w.page.locator(".stage").focus()
    w.page.keyboard.press("u")
    w.page.wait_for_timeout(200)
    assert per_frame(w) == pytest.approx(whole)


def test_the_key_that_closes_a_loop_is_in_reach_and_later_ones_are_counted(page, server):
    """It lies where the last frame ends, on the frame after it."""
    turning = {"keys": [{"frame": frame, "value": 7.5 * frame} for frame in (0, 24, 60)], "after": {"mode": "loop"}}
    for length, seen, beyond in ((60, True, 0), (50, False, 1)):
        w = opened(page, server.address, name=f"{length} frames", length=length, objects=[shape("Wheel", rotation=turning)])
        w.pick("Wheel")
        expect(w.leaf("Wheel", "Rotation", 24)).to_be_in_viewport(ratio=1)
        closing = w.leaf("Wheel", "Rotation", 60)
        expect(closing).to_be_in_viewport(ratio=1) if seen else expect(closing).not_to_be_in_viewport()
        expect(page.get_by_title("Keys after the end of the scene")).to_have_count(2 * beyond)
        if seen:
            (left, y), (right, _) = lane_row(w, "Wheel", "Rotation", 24), lane_row(w, "Wheel", "Rotation", 60)
            w.drag((right, y), (left + (right - left) * 24 / 36, y))
            assert w.keys("Wheel", "rotation") == [(0, 0), (24, 180), (48, 450)]


def test_an_object_is_shown_for_a_while(pair):
    w = pair
    w.pick("Mango")
    step = per_frame(w)
    x, y = middle(w.page.get_by_role("button", name=re.compile("^Last frame Mango is shown")))
    w.drag((x, y), (x - 60 * step, y))
    (thing,) = (one for one in w.kept()["scene"]["objects"] if one["name"] == "Mango")
    assert thing["span"] == {"first": None, "last": 59}
    x, y = middle(w.page.get_by_role("button", name=re.compile("^Last frame Mango is shown: 59")))
    w.drag((x, y), (x + 30 * step, y), keys="Shift")
    assert [frame for frame, _ in w.keys("Mango", "x")] == pytest.approx([0, 24 * 89 / 59, 48 * 89 / 59])
    w.page.get_by_role("button", name=re.compile("^Last frame Mango is shown: 89")).dblclick()
    w.saved()
    (thing,) = (one for one in w.kept()["scene"]["objects"] if one["name"] == "Mango")
    assert thing["span"] == {"first": None, "last": None}


def spans(w):
    return {one["name"]: (one["span"]["first"], one["span"]["last"]) for one in w.kept()["scene"]["objects"]}


def test_a_part_that_ends_too_early_is_found_and_extended(page, server):
    frog = moving("Frog", 100)
    hat = shape("Hat", y=keys((0, 0), (20, -60), (40, 0))) | {"parent": "frog", "span": {"first": None, "last": 59}}
    bell = shape("Bell", rotation=keys((0, 0), (40, 90))) | {"parent": "hat", "span": {"first": None, "last": 59}}
    w = opened(page, server.address, name="New scene", length=120, objects=[frog, hat, bell])
    w.pick("Hat")
    lane = w.page.locator(".lane.object", has_text="Hat")
    expect(lane).to_contain_text("ends 60 frames before Frog")
    lane.get_by_role("button", name="extend").click()
    w.saved()
    assert spans(w) == {"Frog": (None, None), "Hat": (None, None), "Bell": (None, None)}
    expect(lane).not_to_contain_text("before Frog")
    w.page.keyboard.press("Control+z")
    w.saved()
    lane.get_by_role("button", name="stretch along").click()
    w.saved()
    assert spans(w)["Bell"] == (None, 119)
    assert [frame for frame, _ in w.keys("Bell", "rotation")] == pytest.approx([0, 40 * 119 / 59])
    assert [frame for frame, _ in w.keys("Hat", "y")] == pytest.approx([0, 20 * 119 / 59, 40 * 119 / 59])


def test_what_hangs_on_an_object_can_follow_its_span(page, server):
    frog = moving("Frog", 100) | {"span": {"first": None, "last": 60}}
    hat = shape("Hat", y=keys((0, 0), (30, -60))) | {"parent": "frog", "span": {"first": 12, "last": 60}}
    w = opened(page, server.address, name="New scene", length=120, objects=[frog, hat])
    w.pick("Frog")
    lane = w.page.locator(".lane.object", has_text="Frog")
    w.page.get_by_role("button", name="Last frame Frog is shown: 60").focus()
    w.page.keyboard.press("ArrowRight")
    w.saved()
    lane.get_by_role("button", name="ends with it").click()
    w.saved()
    assert spans(w) == {"Frog": (None, 61), "Hat": (12, 61)}
    expect(lane).not_to_contain_text("What hangs on it")
    x, y = middle(w.page.get_by_role("button", name="Last frame Frog is shown: 61"))
    w.drag((x, y), (x + 40 * per_frame(w, "Frog"), y))
    last = spans(w)["Frog"][1]
    assert last > 90
    assert spans(w)["Hat"] == (12, 61), "nothing inside is touched unasked"
    lane.get_by_role("button", name="stretch with it").click()
    w.saved()
    assert spans(w)["Hat"] == (round(12 * last / 61), last)
    assert [frame for frame, _ in w.keys("Hat", "y")] == pytest.approx([0, 30 * last / 61])
    w.page.keyboard.press("Control+z")
    w.saved()
    assert spans(w) == {"Frog": (None, last), "Hat": (12, 61)}


@pytest.mark.parametrize(("choice", "frames"), [("stay on their frames", [0, 24, 48]), ("are stretched to the new length", [0, 48, 96])])
def test_a_change_of_length_says_what_becomes_of_keys(pair, choice, frames):
    w = pair
    w.page.get_by_role("button", name="Scene settings").click()
    field = w.page.get_by_role("spinbutton", name="Length in frames")
    field.fill("239")
    field.press("Enter")
    w.page.get_by_text(choice).click()
    w.page.get_by_role("button", name="Keep", exact=True).click()
    w.saved()
    expect(w.page.get_by_role("button", name="Scene settings")).to_contain_text("239 frames")
    assert [frame for frame, _ in w.keys("Mango", "x")] == frames


def test_a_change_of_fps_can_keep_seconds(pair):
    w = pair
    w.page.get_by_role("button", name="Scene settings").click()
    field = w.page.get_by_role("spinbutton", name="Frames per second")
    field.fill("12")
    field.press("Enter")
    w.page.get_by_text("keep their seconds").click()
    w.page.get_by_role("button", name="Keep", exact=True).click()
    expect(w.page.get_by_role("button", name="Scene settings")).to_contain_text("12 fps · 60 frames")
    assert [frame for frame, _ in w.keys("Mango", "x")] == [0, 12, 24]


def test_picked_leaves_are_cut_and_pasted_elsewhere(pair):
    w = pair
    w.pick("Mango")
    before = w.keys("Mango", "x")
    beside = w.keys("Papaya", "x")
    w.page.locator(".stage").focus()
    w.page.keyboard.press("Home")
    w.page.keyboard.press("a")
    w.page.keyboard.press("Control+x")
    w.saved()
    assert w.keys("Mango", "x") == before[1:]
    assert w.keys("Papaya", "x") == beside, "picked too, but of another object: only what is copied is taken out"
    w.go_to("8")
    w.page.locator(".stage").focus()
    w.page.keyboard.press("Control+v")
    w.saved()
    assert w.keys("Mango", "x") == [(8, before[0][1]), *before[1:]]
    w.page.keyboard.press("Control+z")
    w.saved()
    w.page.keyboard.press("Control+z")
    w.saved()
    assert w.keys("Mango", "x") == before


def test_keys_go_onto_several_objects_in_one_step(pair):
    w = pair
    for name in ("Second", "Third"):
        w.add("Star", name)
    w.pick("Mango")
    w.page.locator(".stage").focus()
    w.page.keyboard.press("Control+c")
    w.go_to("6")
    w.page.locator(".stage").focus()
    w.page.keyboard.press("Control+Shift+V")
    dialog = w.page.get_by_role("dialog", name="Paste keys")
    dialog.get_by_label("Mango", exact=True).uncheck()
    for name in ("Second", "Third"):
        dialog.get_by_label(name, exact=True).check()
    delay = dialog.get_by_role("spinbutton", name="Delay from object to object")
    delay.fill("6")
    delay.press("Enter")
    dialog.get_by_text("from its own start").click()
    dialog.get_by_role("button", name="Paste", exact=True).click()
    w.saved()
    w.page.wait_for_timeout(100)
    # Mango went from the middle, 640, to 340 and 580; the others go as far from where they are.
    assert w.keys("Second", "x") == [(6, 640), (30, 340), (54, 580)]
    assert w.keys("Third", "x") == [(12, 640), (36, 340), (60, 580)]
    w.page.locator(".stage").focus()
    w.page.keyboard.press("Control+z")
    w.saved()
    w.page.wait_for_timeout(100)
    assert w.keys("Second", "x") == w.keys("Third", "x") == []


def test_one_revolution_exactly_over_a_distance(pair):
    w = pair
    w.pick("Mango")
    w.go_to("0")
    w.key("Rotation")
    w.go_to("48")
    w.key("Rotation")
    w.leaf("Mango", "Rotation", 0).click()
    w.page.get_by_role("button", name="Turn…").click()
    w.page.get_by_label("anticlockwise").check()
    w.page.get_by_role("button", name="Turn from 0").click()
    w.saved()
    w.page.wait_for_timeout(100)
    assert w.keys("Mango", "rotation") == [(0, 0), (48, -360)]
    w.go_to("12")
    assert w.value("Rotation turn") == -90
