"""From nothing to a first motion: keys, spacing, ends, and the way back."""

import json

import pytest
from playwright.sync_api import expect


def test_start_from_nothing(workspace, server):
    w = workspace
    expect(w.page.get_by_text("No objects yet. Objects that you add are listed here.")).to_be_visible()
    w.add("Ellipse", "Seed pod")
    w.key("Travel")
    assert w.keys("Seed pod", "x") == [(0, 640)]
    expect(w.page.get_by_text("One key makes no motion yet")).to_be_visible()

    w.go_to("24")
    w.drag_in_picture((640, 360), (1000, 360))
    (_, start), (second, end) = w.keys("Seed pod", "x")
    assert second == 24
    assert end == pytest.approx(1000, abs=2)
    expect(w.leaves("Seed pod", "Travel")).to_have_count(2)
    expect(w.page.get_by_text("One key makes no motion yet")).to_have_count(0)

    w.page.get_by_role("button", name="Play", exact=True).click()
    w.page.wait_for_timeout(700)
    w.page.get_by_role("button", name="Pause").click()
    assert w.frame() > 24, "playback moved on from frame 24"

    w.go_to("12")
    assert w.value("Travel x") == pytest.approx((start + end) / 2, abs=0.06)
    even = [x for x, _ in w.dots()]
    steps = [b - a for a, b in zip(even[:24], even[1:25], strict=True)]
    assert max(steps) - min(steps) < 1, "dots are evenly spaced while the feel is even"

    w.choose_feel("Slow out & in")
    eased = [x for x, _ in w.dots()]
    steps = [b - a for a, b in zip(eased[:24], eased[1:25], strict=True)]
    assert steps[0] < steps[12] / 4, "dots bunch up where it is slow"
    assert steps[23] < steps[12] / 4
    assert w.value("Travel x") == pytest.approx((start + end) / 2, abs=0.06)

    full = w.kept()
    w.page.reload()
    expect(w.leaves("Seed pod", "Travel")).to_have_count(2)
    assert w.kept() == full

    undo = w.page.get_by_role("button", name="Undo")
    while undo.is_enabled():
        undo.click()
        w.saved()
        w.page.wait_for_timeout(60)
    assert w.kept()["scene"]["objects"] == []
    expect(w.page.get_by_text("No objects yet. Objects that you add are listed here.")).to_be_visible()
    redo = w.page.get_by_role("button", name="Redo")
    while redo.is_enabled():
        redo.click()
        w.saved()
        w.page.wait_for_timeout(60)
    assert w.kept()["scene"] == full["scene"]
    w.pick("Seed pod")
    expect(w.leaves("Seed pod", "Travel")).to_have_count(2)


def test_undo_reaches_back_across_a_restart(workspace, server):
    w = workspace
    w.add("Star", "Firefly")
    w.type_value("Travel x", "200")
    server.stop()
    server.start()
    w.page.reload()
    w.page.get_by_role("button", name="Undo").click()
    w.saved()
    assert w.channel("Firefly", "x")["base"] == 640


def test_two_keys_become_an_endless_rocking(workspace):
    w = workspace
    w.add("Rectangle", "Sign")
    w.key("Rotation")
    w.go_to("1s")
    assert w.frame() == 24
    w.type_value("Rotation turn", "40")
    w.choose_end("Ping-pong")
    for frame, value in ((24, 40), (36, 20), (48, 0), (60, 20), (72, 40), (119, 23 / 24 * 40)):
        w.go_to(str(frame))
        assert w.value("Rotation turn") == pytest.approx(value, abs=0.06)

    # Stretch the second key to frame 40: every turn follows.
    leaf = w.leaf("Sign", "Rotation", 24).bounding_box()
    near = w.leaf("Sign", "Rotation", 0).bounding_box()
    per_frame = (leaf["x"] - near["x"]) / 24
    middle = (leaf["x"] + leaf["width"] / 2, leaf["y"] + leaf["height"] / 2)
    w.drag(middle, (middle[0] + 16 * per_frame, middle[1]))
    assert w.keys("Sign", "rotation") == [(0, 0), (40, 40)]
    for frame, value in ((40, 40), (60, 20), (80, 0), (100, 20)):
        w.go_to(str(frame))
        assert w.value("Rotation turn") == pytest.approx(value, abs=0.06)


def test_a_leaf_is_slid_and_deleted_from_the_keyboard(workspace):
    w = workspace
    w.add("Ellipse", "Nut")
    w.key("Travel")
    w.go_to("+30")
    w.type_value("Travel y", "600")
    leaf = w.leaf("Nut", "Travel", 30)
    leaf.focus()
    w.page.keyboard.press("ArrowLeft")
    expect(w.leaf("Nut", "Travel", 29)).to_have_count(1)
    w.saved()
    assert w.keys("Nut", "y") == [(0, 360), (29, 600)]
    w.leaf("Nut", "Travel", 29).focus()
    w.page.keyboard.press("Delete")
    expect(w.leaves("Nut", "Travel")).to_have_count(1)
    w.page.keyboard.press("Control+z")
    expect(w.leaves("Nut", "Travel")).to_have_count(2)


def test_every_end_can_be_chosen_for_either_side(workspace):
    w = workspace
    w.add("Ellipse", "Bead")
    w.go_to("40")
    w.key("Travel")
    w.go_to("60")
    w.type_value("Travel x", "840")
    modes = {"Hold": "hold", "Coast": "coast", "Loop": "loop", "Climb": "climb", "Ping-pong": "ping-pong"}
    w.page.get_by_role("button", name="Ends", exact=True).click()
    for label, mode in modes.items():
        for side, words in (("after", "After the last key"), ("before", "Before the first key")):
            w.page.get_by_role("radiogroup", name=words).get_by_role("radio", name=label).click()
            w.saved()
            assert w.channel("Bead", "x")[side]["mode"] == mode
    forever = w.page.get_by_label("for ever").first
    forever.uncheck()
    w.saved()
    times = w.page.get_by_role("spinbutton", name="After the last key: how many times")
    times.fill("2")
    times.press("Enter")
    w.saved()
    assert json.dumps(w.channel("Bead", "x")["after"]) == '{"mode": "ping-pong", "times": 2}'
