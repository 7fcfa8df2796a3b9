"""Two versions of a jump: kept, compared in three ways, and the better arms of one brought into the other; two eases of one move beside each other."""

import numpy as np
from playwright.sync_api import Page, expect

from tests.journeys.scenes import keys, opened, shape
from tests.journeys.servers import Server
from tests.journeys.shots import pixels_of
from tests.journeys.workspace import Workspace


def jump(page: Page, server: Server) -> Workspace:
    frog = shape("Frog", x=keys((0, 100), (20, 540)), y=keys((0, 300), (10, 120), (20, 300)), width=60, height=60, fill="#2F6B4F")
    arms = [
        shape(name, "rectangle", x=x, y=0, rotation=keys((0, 0), (10, 20), (20, 0)), fill="#F2932B", width=60, height=16) | {"parent": "frog"}
        for name, x in (("Left arm", -50), ("Right arm", 50))
    ]
    return opened(page, server.address, name="Jump", size=[640, 360], length=24, objects=[frog, *arms])


def seen(page: Page) -> np.ndarray:
    return pixels_of(page.get_by_test_id("compare-canvas"))


def middle_of(pixels: np.ndarray, colour: tuple[int, int, int]) -> np.ndarray:
    """The middle of all pixels of a colour, as shares of the picture."""
    rows, columns = np.nonzero(np.abs(pixels - colour).max(axis=2) < 10)
    assert len(rows), f"nothing of {colour} is seen"
    return np.array([columns.mean() / pixels.shape[1], rows.mean() / pixels.shape[0]])


def test_two_versions_of_a_jump_are_compared_and_the_better_arms_brought_over(page: Page, server: Server):
    w = jump(page, server)
    page.keyboard.press("Alt+r")
    panel = page.get_by_role("region", name="Rehearsals")
    expect(panel.get_by_text("Save a version before you change the scene")).to_be_visible()
    panel.get_by_role("button", name="Save this version").click()
    field = panel.get_by_role("textbox", name="New name of Take 1")
    field.fill("Low jump")
    field.press("Enter")
    expect(panel.get_by_text("Low jump")).to_be_visible()
    kept = w.kept()["scene"]
    # The second version: higher, with other arms.
    panel.get_by_role("button", name="Close the rehearsals").click()
    w.pick("Frog")
    w.go_to("10")
    w.type_value("Travel y", "40")
    page.get_by_role("button", name="Show the parts of Frog").click()
    for arm in ("Left arm", "Right arm"):
        w.pick(arm)
        w.type_value("Rotation turn", "70")
    higher = w.kept()["scene"]
    page.get_by_role("button", name="Rehearsals: 1 kept version (Alt+R)").click()
    panel.get_by_role("button", name="Compare", exact=True).click()
    dialog = page.get_by_role("dialog", name="Compare with Low jump")
    rows = dialog.get_by_role("region", name="Differences")
    expect(rows.get_by_role("button", name="Travel y up to 80 px frames 1–19")).to_be_visible()
    expect(dialog.get_by_text("3 differences").first).to_be_visible()
    # Side by side: at the top of the jump, the frog is higher in what is now.
    pixels = seen(page)
    left, right = np.split(pixels[:, : pixels.shape[1] // 2 * 2], 2, axis=1)
    now, before = middle_of(left, (0x2F, 0x6B, 0x4F)), middle_of(right, (0x2F, 0x6B, 0x4F))
    assert now[1] < before[1] - 0.1
    assert dialog.locator("[data-way]").count() >= 2
    # Both play in step.
    dialog.get_by_role("button", name="Play both").click()
    page.wait_for_timeout(300)
    dialog.get_by_role("button", name="Pause both").click()
    # Over each other: both are seen at once, each in its tint.
    page.keyboard.press("2")
    expect(dialog.get_by_role("radio", name="Over each other")).to_be_checked()
    dialog.get_by_role("slider", name="Frame of both").fill("10")
    rows.get_by_role("button", name="Travel y").click()
    w.painted()
    tinted = seen(page)
    assert (tinted[..., 1] > tinted[..., 0] + 30).sum() > 100, "green: what is now"
    assert (tinted[..., 0] > tinted[..., 1] + 30).sum() > 100, "orange: what was kept"
    # With a line between them, which the arrow keys move too.
    dialog.get_by_role("radio", name="Wipe").click()
    line = dialog.get_by_role("slider", name="Position of the wipe")
    box = line.bounding_box()
    w.drag((box["x"] + 12, box["y"] + 60), (box["x"] + 212, box["y"] + 60), release=False)
    page.mouse.up()
    moved = int(line.get_attribute("aria-valuenow"))
    assert moved > 60
    line.press("ArrowLeft")
    assert int(line.get_attribute("aria-valuenow")) == moved - 2
    # The arms of the kept version come into what is now; the jump stays high.
    for arm in ("Left arm", "Right arm"):
        rows.get_by_role("checkbox", name=f"All of {arm}").check()
    dialog.get_by_role("button", name="Bring back ticked (2)").click()
    expect(dialog.get_by_text("One difference").first).to_be_visible()
    w.saved()
    after = {one["id"]: one for one in w.kept()["scene"]["objects"]}
    assert after["frog"] == next(one for one in higher["objects"] if one["id"] == "frog")
    for arm in ("left-arm", "right-arm"):
        assert after[arm] == next(one for one in kept["objects"] if one["id"] == arm)
    dialog.get_by_role("button", name="Bring back all of Low jump").click()
    expect(rows.get_by_text("Nothing differs")).to_be_visible()
    w.saved()
    assert w.kept()["scene"] == kept
    dialog.get_by_role("button", name="Go on").click()
    for _ in range(2):
        page.keyboard.press("Control+z")
        w.saved()
    assert w.kept()["scene"] == higher


def test_two_eases_of_one_move_side_by_side_from_one_click(page: Page, server: Server):
    w = jump(page, server)
    w.pick("Frog")
    w.go_to("3")
    page.get_by_role("button", name="Feel", exact=True).click()
    page.get_by_role("button", name="Slow out beside what it is now").click(force=True)
    dialog = page.get_by_role("dialog", name="Even or Slow out?")
    expect(dialog.get_by_role("region", name="Differences").get_by_role("button", name="Travel x")).to_be_visible()
    pixels = seen(page)
    left, right = np.split(pixels[:, : pixels.shape[1] // 2 * 2], 2, axis=1)
    assert middle_of(right, (0x2F, 0x6B, 0x4F))[0] < middle_of(left, (0x2F, 0x6B, 0x4F))[0], "what sets off slowly is behind"
    assert w.channel("Frog", "x")["keys"][0]["ease"] == "linear"
    dialog.get_by_role("button", name="Take Slow out").click()
    w.saved()
    assert w.channel("Frog", "x")["keys"][0]["ease"] == "slow-out"


def test_a_variant_is_tried_and_left_or_taken(page: Page, server: Server):
    w = jump(page, server)
    before = w.kept()["scene"]
    page.keyboard.press("Alt+r")
    page.get_by_role("button", name="Try a variant").click()
    variant = page.get_by_role("group", name="Variant of Take 1")
    expect(variant).to_be_visible()
    w.pick("Frog")
    w.go_to("10")
    w.type_value("Travel y", "60")
    # It is still one after the page is loaded again.
    page.reload()
    w = Workspace(page, server.address)
    variant.get_by_role("button", name="compare").click()
    expect(page.get_by_role("dialog", name="Compare with Take 1").get_by_role("button", name="Travel y")).to_be_visible()
    page.keyboard.press("Escape")
    variant.get_by_role("button", name="go back").click()
    expect(variant).to_have_count(0)
    w.saved()
    assert w.kept()["scene"] == before
    page.get_by_role("button", name="Undo", exact=True).first.click()
    w.saved()
    assert w.keys("Frog", "y")[1] == (10, 60)
    # A rehearsal that was removed can be put back.
    page.get_by_role("button", name="Rehearsals: 1 kept version (Alt+R)").click()
    panel = page.get_by_role("region", name="Rehearsals")
    panel.get_by_role("button", name="Remove Take 1").click()
    expect(panel.get_by_role("listitem")).to_have_count(0)
    page.get_by_role("button", name="Put it back").click()
    expect(panel.get_by_role("listitem")).to_have_count(1)
