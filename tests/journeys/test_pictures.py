"""Pictures and flipbooks: dropped, turned, paced, and never lost."""

import base64

import pytest
from playwright.sync_api import Page, expect

from tests.journeys.scenes import opened
from tests.journeys.servers import Server
from tests.journeys.workspace import Workspace
from tests.pictures import moving, numbered, saved


def run(names: list[str]) -> list[dict]:
    """Files with one page each, of which the bar is the longer the later they come."""
    return [{"name": name, "mimeType": "image/png", "buffer": saved(numbered(n, (160, 120)), "PNG")} for n, name in enumerate(names)]


def drop(w: Workspace, files: list[dict], x: float, y: float) -> None:
    """Let files fall onto a place of the picture."""
    given = [{"name": one["name"], "type": one["mimeType"], "data": base64.b64encode(one["buffer"]).decode()} for one in files]
    transfer = w.page.evaluate_handle(
        """files => {
            const transfer = new DataTransfer();
            for (const { name, type, data } of files)
                transfer.items.add(new File([Uint8Array.from(atob(data), (c) => c.charCodeAt(0))], name, { type }));
            return transfer;
        }""",
        given,
    )
    at = dict(zip(("clientX", "clientY"), w.on_screen(x, y), strict=True))
    for event in ("dragover", "drop"):
        w.page.dispatch_event(".stage", event, {"dataTransfer": transfer, **at})


def bring(w: Workspace, files: list[dict]) -> None:
    w.page.get_by_label("Pictures to bring in").first.set_input_files(files)


def told(w: Workspace):
    return w.page.get_by_role("status", name="Importing files")


def page_shown(w: Workspace) -> int:
    """The number of the page that the picture shows, told by its bar in the middle of the canvas."""
    w.painted()
    wide = w.page.evaluate(
        """() => {
            const canvas = document.querySelector('[data-testid=picture-canvas]');
            const row = canvas.getContext('2d').getImageData(0, canvas.height / 2, canvas.width, 1).data;
            let green = 0;
            for (let x = 0; x < canvas.width; x++) if (row[4 * x] < 110 && row[4 * x + 1] > 110) green++;
            return (green * 1280) / canvas.width;
        }"""
    )
    return round(wide / 4) - 1


def test_twelve_numbered_pictures_dropped_at_once_run_across_for_ever(page: Page, server: Server):
    w = opened(page, server.address, length=120)
    drop(w, run([f"run_{n:03d}.png" for n in range(1, 13)]), 300, 360)
    expect(told(w)).to_contain_text("run: 12 pages")
    told(w).get_by_role("button", name="OK").click()
    w.saved()
    (thing,) = w.kept()["scene"]["objects"]
    assert (thing["name"], thing["kind"], len(thing["picture"]["pictures"])) == ("run", "picture", 12)
    assert [(key["frame"], key["value"]) for key in thing["channels"]["page"]["keys"]] == [(0, 0), (24, 12)]
    for frame, number in ((0, 0), (5, 2), (23, 11), (24, 0), (113, 8)):
        w.go_to(str(frame))
        assert page_shown(w) == number, f"at frame {frame}"
    # It runs on the spot; a drift takes it across at a speed that is typed in.
    w.row("Travel").locator(".label").click()
    page.get_by_role("button", name="Add a rule").click()
    page.get_by_role("button", name="Crossing the picture").click()
    w.saved()
    page.get_by_role("button", name="Settings of Drift").click()
    speed = page.get_by_role("spinbutton", name="speed", exact=True)
    speed.fill("120")
    speed.press("Enter")
    w.saved()
    page.keyboard.press("Escape")
    w.go_to("48")
    assert w.value("Travel x") == pytest.approx(300 + 240, abs=1)


def test_a_misnamed_one_is_told_of_and_pages_are_ordered_left_out_and_paced(page: Page, server: Server):
    w = opened(page, server.address, length=120)
    names = ["wing_1.png", "wing 02.PNG", "wing-3.png", "wing_5.png", "feather.png"]
    bring(w, [*run(names), {"name": "notes.png", "mimeType": "image/png", "buffer": b"no"}])
    expect(told(w)).to_contain_text("wing: 4 pages, without 4.")
    expect(told(w)).to_contain_text("Not numbered like the others, so by itself: feather.png.")
    expect(told(w)).to_contain_text("'notes.png' is no picture that can be read")
    told(w).get_by_role("button", name="OK").click()
    w.saved()
    assert [one["name"] for one in w.kept()["scene"]["objects"]] == ["wing", "feather"]
    pages = page.get_by_role("group", name="Pages")
    before = w.kept()["scene"]["objects"][0]["picture"]["pictures"]
    pages.get_by_role("button", name="Page 1", exact=True).drag_to(pages.get_by_role("button", name="Page 3", exact=True))
    w.saved()
    moved = w.kept()["scene"]["objects"][0]["picture"]["pictures"]
    assert moved == [before[1], before[2], before[0], before[3]]
    pages.get_by_role("button", name="Leave page 4 out").click(force=True)
    w.saved()
    pace = pages.get_by_role("spinbutton", name="Frames a page")
    pace.fill("5")
    pace.press("Enter")
    w.saved()
    thing = w.kept()["scene"]["objects"][0]
    assert thing["picture"]["pictures"] == moved[:3]
    assert thing["channels"]["page"]["keys"][1]["frame"] == 15
    pages.get_by_role("button", name="All pictures…").click()
    listed = page.get_by_role("dialog", name="Pictures of this scene")
    expect(listed.get_by_role("listitem").filter(has_text="wing_5")).to_contain_text("not shown")
    listed.get_by_role("button", name="Let 1 unused picture go").click()
    w.saved()
    assert len(w.kept()["scene"]["pictures"]) == 4
    expect(listed.get_by_role("listitem")).to_have_count(4)


def test_pictures_dropped_on_the_shelf_make_a_scene_and_one_becomes_an_endless_background(page: Page, server: Server):
    page.goto(server.address)
    page.get_by_role("button", name="New scene").first.wait_for()
    half = numbered(9, (80, 60))
    data = base64.b64encode(saved(half, "PNG")).decode()
    transfer = page.evaluate_handle(
        """data => {
            const transfer = new DataTransfer();
            transfer.items.add(new File([Uint8Array.from(atob(data), (c) => c.charCodeAt(0))], "hills.png", { type: "image/png" }));
            return transfer;
        }""",
        data,
    )
    page.dispatch_event("main", "drop", {"dataTransfer": transfer})
    expect(page).to_have_title("hills · Vine Swing")
    w = Workspace(page, server.address)
    page.get_by_role("group", name="As background").get_by_role("button", name="tile").click()
    w.saved()
    # Tiles of 960 × 720 px, the middle one in the middle; their left halves are green.
    green = [round(255 * x) for x in (63 / 255, 143 / 255, 99 / 255)]

    def along() -> list[bool]:
        w.painted()
        row = page.evaluate(
            """() => {
                const canvas = document.querySelector('[data-testid=picture-canvas]');
                const ctx = canvas.getContext('2d');
                return [20, 80, 300, 600, 800, 1100, 1200].map((x) => [...ctx.getImageData((x / 1280) * canvas.width, 40, 1, 1).data].slice(0, 3));
            }"""
        )
        return [one == green for one in row]

    page.wait_for_function("() => performance.getEntriesByType('resource').some((one) => one.name.includes('/pictures/'))")
    assert along() == [False, False, True, True, False, False, True]
    # A pan as long as anyone likes never comes to its end.
    w.type_value("Travel x", "640 - 960 * 50")
    assert along() == [False, False, True, True, False, False, True]
    page.get_by_role("group", name="As background").get_by_role("button", name="fill").click()
    w.saved()
    thing = w.kept()["scene"]["objects"][0]
    assert (thing["picture"]["fit"], thing["picture"]["tile"], thing["channels"]["x"]["base"]) == ("cover", "none", 640)


def test_a_moving_picture_is_played_at_half_pace_and_survives_a_moved_folder(page: Page, server: Server):
    w = opened(page, server.address, length=96)
    bring(w, [{"name": "flutter.gif", "mimeType": "image/gif", "buffer": moving("GIF", 6, 250)}])
    page.get_by_role("group", name="Pages").wait_for()
    w.saved()
    # 250 ms are six frames of 24 a second.
    keys = w.channel("flutter", "page")["keys"]
    assert keys[1]["frame"] == pytest.approx(36)
    pace = page.get_by_role("spinbutton", name="Frames a page")
    pace.fill("12")
    pace.press("Enter")
    w.saved()
    assert w.channel("flutter", "page")["keys"][1]["frame"] == 72
    scene_id = w.scene_id
    server.stop()
    elsewhere = server.data.with_name(f"{server.data.name}-elsewhere")
    server.data.rename(elsewhere)
    server.data = elsewhere
    server.start()
    page.goto(f"{server.address}/scenes/{scene_id}")
    w = Workspace(page, server.address)
    w.pick("flutter")
    expect(page.get_by_role("group", name="Pages").get_by_role("button", name="Page 6", exact=True).locator("img")).to_have_js_property(
        "naturalWidth", 60
    )
