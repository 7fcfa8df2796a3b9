"""Several objects as one: turned and sized about a pivot, valued, keyed, ruled, ordered, locked, marked, and copied to another scene."""

from playwright.sync_api import Page, expect

from tests.journeys.scenes import keys, opened, shape
from tests.journeys.servers import Server
from tests.journeys.workspace import Workspace


def leaves(count: int = 4, **changes) -> list[dict]:
    return [shape(f"Leaf {n + 1}", x=300 + 160 * n, y=300, width=60, height=60, fill="#3D8B5F", **changes) for n in range(count)]


def picked(w: Workspace, *names: str) -> None:
    w.pick(names[0])
    for name in names[1:]:
        w.item(name).click(modifiers=["Control"])


def shared(w: Workspace, label: str):
    return w.page.get_by_role("region", name="Values at this frame").get_by_role("spinbutton", name=f"{label} of all", exact=True)


def order(w: Workspace) -> list[str]:
    """From the back to the front."""
    return [one["name"] for one in w.kept()["scene"]["objects"]]


def test_four_leaves_are_boxed_keyed_together_moved_and_each_comes_six_frames_later(page: Page, server: Server):
    w = opened(page, server.address, objects=leaves())
    w.drag_in_picture((220, 200), (880, 400))
    expect(page.get_by_role("heading", name="4 objects at frame 0")).to_be_visible()
    w.row("Travel").locator(".label").click()
    page.keyboard.press("k")
    w.saved()
    assert all(w.keys(f"Leaf {n}", "y") == [(0, 300)] for n in (1, 2, 3, 4))
    w.go_to("12")
    w.drag_in_picture((300, 300), (300, 500), keys="Shift")
    assert all([frame for frame, _ in w.keys(f"Leaf {n}", "y")] == [0, 12] for n in (1, 2, 3, 4))
    landed = [w.keys(f"Leaf {n}", "y")[1][1] for n in (1, 2, 3, 4)]
    assert max(landed) - min(landed) < 1e-6
    assert abs(landed[0] - 500) < 3
    panel = page.get_by_role("region", name="Objects picked together")
    panel.get_by_label("Starting order").select_option("left-to-right")
    panel.get_by_role("button", name="Spread in time").click()
    w.saved()
    assert [w.keys(f"Leaf {n}", "y")[0][0] for n in (1, 2, 3, 4)] == [0, 6, 12, 18]
    # A feel and an end for all of them at once, and a rule.
    w.choose_feel("Slow out")
    assert all(w.channel(f"Leaf {n}", "y")["keys"][0]["ease"] == "slow-out" for n in (1, 2, 3, 4))
    w.choose_end("Loop")
    assert all(w.channel(f"Leaf {n}", "y")["after"]["mode"] == "loop" for n in (1, 2, 3, 4))
    page.get_by_role("button", name="Add a rule").click()
    page.get_by_label("Find a rule").fill("oscill")
    page.keyboard.press("Enter")
    w.saved()
    ruled = [one["rules"] for one in w.kept()["scene"]["objects"]]
    assert [len(rules) for rules in ruled] == [1, 1, 1, 1]
    assert len({rules[0]["id"] for rules in ruled}) == 4


def test_what_they_share_is_shown_set_and_added_to_for_all(page: Page, server: Server):
    w = opened(page, server.address, objects=[*leaves(2), shape("Stone", "rectangle", x=900, y=500, width=60, height=90, rotation=30)])
    picked(w, "Leaf 1", "Stone")
    expect(shared(w, "Shape w")).to_have_value("60.0")
    height = shared(w, "Shape h")
    expect(height).to_have_value("")
    expect(height).to_have_attribute("placeholder", "mixed")
    height.fill("+20")
    height.press("Enter")
    w.saved()
    assert [w.channel(name, "height")["base"] for name in ("Leaf 1", "Stone")] == [80, 110]
    turn = shared(w, "Rotation turn")
    turn.fill("*2")
    turn.press("Enter")
    w.saved()
    assert [w.channel(name, "rotation")["base"] for name in ("Leaf 1", "Stone")] == [0, 60]
    turn.fill("twice")
    turn.press("Enter")
    expect(turn).to_have_attribute("aria-invalid", "true")
    turn.press("Escape")
    colour = page.get_by_role("textbox", name="Fill fill of all")
    colour.fill("#C02030")
    colour.press("Enter")
    w.saved()
    assert [w.channel(name, "fill")["base"] for name in ("Leaf 1", "Leaf 2", "Stone")] == ["#C02030", "#3D8B5F", "#C02030"]
    page.locator(".stage").focus()
    page.keyboard.press("Control+z")
    w.saved()
    assert w.channel("Stone", "fill")["base"] != "#C02030"


def test_they_are_turned_and_sized_about_a_pivot_that_is_placed(page: Page, server: Server):
    w = opened(page, server.address, objects=leaves(3))
    page.keyboard.press("m")
    w.drag_in_picture((220, 200), (720, 400))
    # About the middle of all three: the middle one stays, the first comes to be above it.
    w.drag(centre(w, "together-turn"), at(w, 460, 480), steps=12)
    assert abs(w.channel("Leaf 2", "x")["base"] - 460) < 1
    assert abs(w.channel("Leaf 2", "y")["base"] - 300) < 1
    assert all(abs(w.channel(f"Leaf {n}", "rotation")["base"] - 90) < 2 for n in (1, 2, 3))
    assert abs(w.channel("Leaf 1", "x")["base"] - 460) < 5
    assert abs(w.channel("Leaf 1", "y")["base"] - 140) < 5
    page.keyboard.press("Control+z")
    w.saved()
    # About a pivot of their own choice, by the keyboard; each press is one step.
    w.drag(centre(w, "together-pivot"), at(w, 300, 300))
    for _ in range(2):
        page.keyboard.press("{")
    w.saved()
    assert [w.channel("Leaf 1", name)["base"] for name in ("x", "y", "rotation")] == [300, 300, -30]
    x, y = (w.channel("Leaf 3", name)["base"] for name in ("x", "y"))
    assert abs(x - (300 + 320 * 0.8660254)) < 1
    assert abs(y - (300 - 160)) < 1
    page.keyboard.press("=")
    w.saved()
    assert all(abs(w.channel(f"Leaf {n}", "scale.x")["base"] - 1.02) < 1e-6 for n in (1, 2, 3))
    w.drag_handle("together-corner-2", (40, 20), keys="Shift")
    assert w.channel("Leaf 1", "scale.x")["base"] > 1.05
    assert abs(w.channel("Leaf 1", "scale.x")["base"] - w.channel("Leaf 1", "scale.y")["base"]) < 1e-6


def centre(w: Workspace, handle: str) -> tuple[float, float]:
    box = w.page.get_by_test_id(handle).bounding_box()
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def at(w: Workspace, x: float, y: float) -> tuple[float, float]:
    return w.on_screen(x, y)


def test_they_are_ordered_locked_marked_and_hung_on_another(page: Page, server: Server):
    hat = shape("Hat", x=0, y=-30, width=20, height=20) | {"parent": "leaf-1"}
    w = opened(page, server.address, objects=[*leaves(3), hat, shape("Twig", "rectangle", x=640, y=600, width=300, height=20)])
    picked(w, "Leaf 1", "Leaf 2")
    page.keyboard.press("Alt+Home")
    w.saved()
    assert order(w) == ["Leaf 3", "Twig", "Leaf 1", "Leaf 2", "Hat"], "what hangs on them goes along"
    page.keyboard.press("Alt+PageDown")
    w.saved()
    assert order(w) == ["Leaf 3", "Leaf 1", "Leaf 2", "Hat", "Twig"]
    w.item("Leaf 2").drag_to(w.item("Leaf 3"), target_position={"x": 90, "y": 32})
    w.saved()
    assert order(w) == ["Leaf 1", "Leaf 2", "Hat", "Leaf 3", "Twig"]
    # A mark in the lists; all that have it are picked by it.
    panel = page.get_by_role("region", name="Objects picked together")
    panel.get_by_role("radio", name="Tag: mango").click()
    w.saved()
    w.pick("Leaf 2")
    page.keyboard.press("Control+Alt+t")
    expect(page.get_by_role("heading", name="2 objects at frame 0")).to_be_visible()
    expect(w.item("Leaf 1").locator(".mark")).to_be_visible()
    panel.get_by_role("button", name="Lock").click()
    w.saved()
    # What is locked is passed by clicks and boxes in the picture, and by the arrow keys.
    w.pick("Twig")
    page.mouse.click(*w.on_screen(300, 300))
    expect(page.get_by_role("heading", name="Values", exact=True)).to_be_visible()
    w.drag_in_picture((220, 200), (760, 400))
    expect(page.get_by_role("heading", name="Leaf 3 at frame 0")).to_be_visible()
    w.pick("Leaf 1")
    page.locator(".stage").focus()
    page.keyboard.press("ArrowRight")
    expect(page.get_by_text("Leaf 1 is locked")).to_be_visible()
    assert w.channel("Leaf 1", "x")["base"] == 300
    w.item("Leaf 1").get_by_role("button", name="Unlock Leaf 1").click()
    w.saved()
    page.mouse.click(*w.on_screen(300, 300))
    expect(page.get_by_role("heading", name="Leaf 1 at frame 0")).to_be_visible()
    page.keyboard.press("Control+Alt+k")
    expect(page.get_by_role("heading", name="3 objects at frame 0"), "without the one that is locked").to_be_visible()
    panel.get_by_role("button", name="Hang on…").click()
    dialog = page.get_by_role("dialog", name="What do these 3 objects hang on?")
    dialog.get_by_label("Parent").click()
    page.get_by_role("option", name="Twig", exact=True).last.click()
    dialog.get_by_role("button", name="Hang it there").click()
    w.saved()
    twig = next(one["id"] for one in w.kept()["scene"]["objects"] if one["name"] == "Twig")
    assert [one["name"] for one in w.kept()["scene"]["objects"] if one["parent"] == twig] == ["Leaf 1", "Leaf 3"], "Hat goes along with Leaf 1"


def test_a_group_goes_to_another_scene_with_its_dial(page: Page, server: Server):
    sway = {"id": "sway", "kind": "link", "channels": ["rotation"], "settings": {"formula": "{Wind} * f"}}
    chase = {"id": "chase", "kind": "follow", "channels": ["y"], "settings": {"leader": "bird", "delay": 2}}
    tree = {"id": "tree", "name": "Tree", "kind": "group", "channels": {"x": 640, "y": 360}}
    frond = shape("Frond", x=40, y=0, rules=[sway, chase]) | {"parent": "tree"}
    wind = {"id": "wind", "name": "Wind", "channel": {"base": 3}}
    one = opened(page, server.address, name="Grove", objects=[tree, frond, shape("Bird", x=100, y=keys((0, 100), (10, 200)))], dials=[wind])
    one.pick("Tree")
    page.keyboard.press("Control+c")
    expect(page.get_by_text("Tree is copied")).to_be_visible()
    # Within the scene it is pasted beside itself, and follows the same bird.
    page.keyboard.press("Control+v")
    expect(one.item("Tree 2")).to_be_visible()
    one.saved()
    assert len(one.kept()["scene"]["dials"]) == 1
    two = opened(page, server.address, name="Clearing", objects=[shape("Tree", x=200, y=200)])
    page.keyboard.press("Control+v")
    expect(page.get_by_text("Frond reads Bird, which was not copied")).to_be_visible()
    two.saved()
    kept = two.kept()["scene"]
    assert [one["name"] for one in kept["objects"]] == ["Tree", "Tree 2", "Frond"]
    assert [dial["name"] for dial in kept["dials"]] == ["Wind"]
    page.get_by_role("button", name="Show the parts of Tree 2").click()
    two.pick("Frond")
    two.go_to("10")
    assert two.value("Rotation turn") == 30
    page.keyboard.press("Control+z")
    two.saved()
    assert [one["name"] for one in two.kept()["scene"]["objects"]] == ["Tree"]


def test_a_dial_drives_all_that_are_picked(page: Page, server: Server):
    wind = {"id": "wind", "name": "Wind", "low": 0, "high": 1, "channel": {"base": 0.5}}
    w = opened(page, server.address, objects=leaves(3), dials=[wind])
    picked(w, "Leaf 1", "Leaf 2", "Leaf 3")
    w.row("Rotation").locator(".label").click()
    page.get_by_role("button", name="Add a rule").click()
    page.get_by_role("button", name="Link by hand…").click()
    dialog = page.get_by_role("dialog", name="Link by hand")
    dialog.get_by_label("What drives").select_option("Wind")
    expect(dialog.get_by_text("all 3 picked objects")).to_be_visible()
    dialog.get_by_role("button", name="Link", exact=True).click()
    expect(dialog).to_have_count(0)
    w.saved()
    formulas = [one["rules"][0]["settings"]["formula"] for one in w.kept()["scene"]["objects"]]
    assert len(formulas) == 3
    assert all("{Wind}" in one for one in formulas)
