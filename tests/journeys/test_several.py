"""Several objects at once: picked by clicks and by a box, moved, aligned, distributed, spread in time, grouped, copied and deleted together."""

import re

from playwright.sync_api import Page, expect

from tests.journeys.scenes import keys, opened, shape
from tests.journeys.servers import Server
from tests.journeys.workspace import Workspace


def parcels(**changes) -> list[dict]:
    """Six parcels of different sizes on no line, and a belt behind them."""
    sizes = [(60, 40), (100, 80), (50, 70), (80, 50), (70, 90), (60, 60)]
    made = [
        shape(f"Parcel {n + 1}", "rectangle", x=160 + 150 * n + 9 * n * n, y=250 + 20 * (n % 3), width=w, height=h, fill="#C98A4B", **changes)
        for n, (w, h) in enumerate(sizes)
    ]
    return [shape("Belt", "rectangle", x=640, y=420, width=1280, height=120, fill="#6E4B2A"), *made]


def values(w: Workspace, name: str) -> list[float]:
    return [w.channel(f"Parcel {n}", name)["base"] for n in range(1, 7)]


def test_six_parcels_are_boxed_aligned_on_a_belt_with_equal_gaps_and_moved(page: Page, server: Server):
    w = opened(page, server.address, objects=parcels())
    w.pick("Belt")
    # Without "key as I move", what has no keys is moved for good.
    page.keyboard.press("m")
    w.drag_in_picture((70, 150), (1270, 350))
    expect(page.get_by_role("heading", name="6 objects at frame 0")).to_be_visible()
    panel = page.get_by_role("region", name="Objects picked together")
    panel.get_by_role("button", name="Lower edges on one line").click()
    w.saved()
    heights = [w.channel(f"Parcel {n}", "height")["base"] for n in range(1, 7)]
    bottoms = [y + high / 2 for y, high in zip(values(w, "y"), heights, strict=True)]
    assert max(bottoms) - min(bottoms) < 1e-6
    panel.get_by_role("button", name="Equal gaps from left to right").click()
    w.saved()
    x, wide = values(w, "x"), [w.channel(f"Parcel {n}", "width")["base"] for n in range(1, 7)]
    gaps = [x[n + 1] - wide[n + 1] / 2 - x[n] - wide[n] / 2 for n in range(5)]
    assert max(gaps) - min(gaps) < 1e-6
    # Dragged together down onto the belt, and by the arrow keys.
    w.drag_in_picture((x[1], values(w, "y")[1]), (x[1] + 40, values(w, "y")[1] + 60))
    moved = values(w, "x")
    assert all(abs(now - was - 40) < 2 for now, was in zip(moved, x, strict=True))
    page.keyboard.press("Shift+ArrowRight")
    w.saved()
    assert all(abs(now - was - 10) < 1e-6 for now, was in zip(values(w, "x"), moved, strict=True))
    # One step of undo for each of these.
    for _ in range(2):
        page.keyboard.press("Control+z")
        w.saved()
    assert values(w, "x") == x


def test_picked_things_are_spread_in_depth_and_the_others_stay(page: Page, server: Server):
    camera = {"id": "camera", "name": "Camera", "kind": "camera", "channels": {"x": 640, "y": 360}}
    w = opened(page, server.address, objects=[*parcels(), camera])
    w.pick("Parcel 1")
    for n in (2, 3):
        w.item(f"Parcel {n}").click(modifiers=["Control"])
    page.get_by_role("tab", name="Depth").click()
    page.get_by_role("button", name="Spread these 3 in depth").click()
    w.saved()
    # By the troupe, the foremost nearest; each the same steps farther than the one before.
    assert [w.channel(f"Parcel {n}", "depth")["base"] for n in (3, 2, 1, 4)] == [0, 1, 3, None]
    page.get_by_role("button", name="Fog by distance").click()
    w.saved()
    fogged = [one["name"] for one in w.kept()["scene"]["objects"] if one["rules"]]
    assert sorted(fogged) == ["Parcel 1", "Parcel 2", "Parcel 3"]
    page.get_by_role("tab", name="Sheet").click()


def test_four_leaves_are_picked_one_by_one_spread_in_time_grouped_copied_and_deleted(page: Page, server: Server):
    falls = keys((0, 100), (12, 500))
    leaves = [shape(f"Leaf {n}", x=200 + 200 * n, y=falls, width=60, height=60) for n in range(4)]
    w = opened(page, server.address, length=60, objects=leaves)
    w.pick("Leaf 0")
    for n in (1, 2, 3):
        w.item(f"Leaf {n}").click(modifiers=["Control"])
    w.item("Leaf 2").click(modifiers=["Shift"])
    expect(page.get_by_role("heading", name="3 objects at frame 0")).to_be_visible()
    w.item("Leaf 2").click(modifiers=["Shift"])
    panel = page.get_by_role("region", name="Objects picked together")
    panel.get_by_label("Starting order").select_option("left-to-right")
    panel.get_by_role("button", name="Spread in time").click()
    w.saved()
    assert [w.keys(f"Leaf {n}", "y")[0][0] for n in range(4)] == [0, 6, 12, 18]
    page.keyboard.press("Control+d")
    w.saved()
    assert len(w.kept()["scene"]["objects"]) == 8
    page.keyboard.press("Delete")
    w.saved()
    assert len(w.kept()["scene"]["objects"]) == 4
    # Picked by keyboard alone, and grouped: they stay where they are.
    page.keyboard.press("Control+Alt+a")
    expect(page.get_by_role("heading", name="4 objects at frame 0")).to_be_visible()
    panel.get_by_role("button", name="Group").click()
    w.saved()
    field = page.get_by_role("textbox", name=re.compile("New name of"))
    field.fill("Twig")
    field.press("Enter")
    w.saved()
    kept = w.kept()["scene"]["objects"]
    twig = next(one["id"] for one in kept if one["name"] == "Twig")
    assert sum(one["parent"] == twig for one in kept) == 4
    # Children of different objects is not grouped, and it says why.
    w.add("Ellipse", "Stone")
    page.get_by_role("button", name="Show the parts of Twig").click()
    w.item("Leaf 1").click(modifiers=["Control"])
    panel.get_by_role("button", name="Group").click()
    expect(panel.get_by_role("alert")).to_contain_text("Attach them to the same parent first")
