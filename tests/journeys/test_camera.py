"""The camera: a walk through a layered valley, framed by hand, with objects near and far."""

from playwright.sync_api import Page, expect

from tests.journeys.scenes import opened, shape
from tests.journeys.servers import Server
from tests.journeys.test_insets import choose, colour


def test_a_valley_is_walked_through_with_camera_and_depths_set_by_hand(page: Page, server: Server):
    layers = [
        shape("Hill", "rectangle", x=640, y=200, width=80, height=80, fill="#7FB791"),
        shape("Frog", "rectangle", x=640, y=360, width=80, height=80, fill="#3F8F63"),
        shape("Fern", "rectangle", x=640, y=540, width=80, height=80, fill="#26332C"),
        shape("Title", "rectangle", x=100, y=60, width=80, height=40, fill="#D0365B"),
    ]
    hill, frog, fern, red = [127, 183, 145], [63, 143, 99], [38, 51, 44], [208, 54, 91]
    w = opened(page, server.address, length=48, objects=layers)
    page.get_by_role("button", name="Add to the picture").click()
    page.get_by_role("menuitem", name="Camera").click()
    w.saved()
    expect(page.get_by_role("switch", name="whole stage")).to_have_attribute("aria-checked", "true")
    choose(w, "Title", "Pin to the picture")
    w.saved()

    # From the side: the hill farther away, the fern nearer.
    page.get_by_role("tab", name="Depth").click()
    # One more tab, and the menu beside the tabs is not covered by the playhead at frame 0.
    more = page.get_by_role("button", name="More for the time sheet")
    assert more.evaluate(
        "(one) => { const { x, right, y } = one.getBoundingClientRect(); return [x + 3, right - 3].every((at) => one.contains(document.elementFromPoint(at, y + 12))) }"
    )
    depths = page.get_by_role("region", name="Depths")
    expect(depths.get_by_role("button", name="Depth of Title")).to_have_count(0)
    far = depths.get_by_role("button", name="Depth of Hill")
    box = far.bounding_box()
    start = (box["x"] + 13, box["y"] + 13)
    w.drag(start, (start[0] + 200, start[1]))
    assert w.channel("Hill", "depth")["keys"][0]["value"] > 0.5
    w.type_value("Depth far", "1")
    w.pick("Fern")
    w.type_value("Depth far", "-0.5")
    page.get_by_role("tab", name="Sheet").click()

    # The frame of the camera is keyed at home, then dragged 160 px to the right.
    w.pick("Camera")
    w.key("Travel")
    w.go_to("40")
    frame = page.get_by_test_id("camera-frame").bounding_box()
    edge = (frame["x"] + frame["width"] * 0.1, frame["y"] + 7)
    w.drag(edge, (edge[0] + 160 * (frame["width"] - 14) / 1280, edge[1]))
    assert abs(w.keys("Camera", "x")[1][1] - 800) < 2
    w.type_value("Travel x", "800")
    w.type_value("Travel y", "360")
    page.keyboard.press("Escape")
    page.get_by_role("switch", name="whole stage").click()
    # Twice as far away it passes half as fast, twice as near twice as fast; what is pinned stays.
    assert [colour(w, x, y) for x, y in ((560, 200), (480, 360), (320, 540), (100, 60))] == [hill, frog, fern, red]

    # Seen closer by the corner of its frame, and a push-in by one click.
    page.keyboard.press("c")
    w.pick("Camera")
    w.drag_handle("handle-corner-2", (-100, -56))
    assert w.keys("Camera", "zoom")[0][1] > 1.2
    page.get_by_role("button", name="Undo").click()
    w.saved()
    w.go_to("0")
    page.get_by_role("group", name="Camera").get_by_role("button", name="Slow push-in").click()
    w.saved()
    assert w.keys("Camera", "zoom") == [(0, 1), (47, 1.25)]
    page.get_by_role("group", name="Camera").get_by_role("button", name="Hand-held").click()
    w.saved()
    assert [rule["kind"] for rule in w.kept()["scene"]["objects"][-1]["rules"]] == ["noise", "noise"]
