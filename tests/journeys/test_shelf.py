"""The Shelf, the troupe and the export, as a person uses them."""

import json
import re
import subprocess
import urllib.request

import pytest
from playwright.sync_api import expect

from demo.make import MAKERS
from tests.journeys.scenes import opened, shape
from tests.journeys.workspace import Workspace

DEMO = sorted(make()["name"] for make in MAKERS.values())


def names(page):
    return sorted(text.removeprefix("Open").strip() for text in page.get_by_role("main").get_by_role("heading", level=2).all_inner_texts())


def test_scenes_are_copied_deleted_and_brought_back(page, demo_server):
    page.goto(demo_server.address)
    expect(page.get_by_role("link", name="Open Thrown mango")).to_be_visible()
    assert names(page) == DEMO
    page.get_by_role("button", name="More for Toucan glide").click()
    page.get_by_role("menu", name="More for Toucan glide", exact=True).get_by_role("menuitem", name="Duplicate").click()
    expect(page.get_by_role("link", name="Open Toucan glide 2")).to_be_visible()
    page.get_by_role("button", name="More for Thrown mango").click()
    page.get_by_role("menu", name="More for Thrown mango").get_by_role("menuitem", name="Delete").click()
    expect(page.get_by_role("link", name="Open Thrown mango")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("link", name="Open Thrown mango")).to_be_visible()
    assert len(names(page)) == len(DEMO) + 1


def test_what_another_page_does_is_seen_once_the_shelf_is_looked_at_again(page, demo_server):
    page.goto(demo_server.address)
    expect(page.get_by_role("link", name="Open Thrown mango")).to_be_visible()
    other = page.context.new_page()
    other.goto(demo_server.address)
    other.get_by_role("button", name="More for Thrown mango").click()
    other.get_by_role("menu", name="More for Thrown mango").get_by_role("menuitem", name="Delete").click()
    expect(other.get_by_role("link", name="Open Thrown mango")).to_have_count(0)
    other.close()
    expect(page.get_by_role("link", name="Open Thrown mango")).to_be_visible()
    # Pages of this browser all believe that they are looked at, so none is told when it is.
    page.evaluate("window.dispatchEvent(new Event('focus'))")
    expect(page.get_by_role("link", name="Open Thrown mango")).to_have_count(0)
    expect(page.get_by_role("link", name="Open Toucan glide")).to_be_visible()


def test_thumbnails_are_stills_that_move_when_pointed_at(page, demo_server):
    asked = []
    page.on("request", lambda request: asked.append(request.url))
    page.goto(demo_server.address)
    card = page.get_by_role("link", name="Open Thrown mango")
    # A still made by the server, with something in it; no motion is fetched for it.
    still = card.locator("img")
    expect(still).to_have_js_property("complete", True)
    assert still.evaluate("i => i.naturalWidth") == 560
    colours = """i => { const c = new OffscreenCanvas(56, 32).getContext('2d'); c.drawImage(i, 0, 0, 56, 32);
      const d = c.getImageData(0, 0, 56, 32).data; return new Set([...Array(56 * 32)].map((_, n) => d.slice(4 * n, 4 * n + 3).join())).size }"""
    assert still.evaluate(colours) > 5
    page.wait_for_load_state("networkidle")
    assert not [url for url in asked if url.endswith("/motion")]
    card.hover()
    canvas = card.locator("canvas")
    pixels = "c => c.toDataURL()"
    before = canvas.evaluate(pixels)
    page.wait_for_timeout(400)
    assert canvas.evaluate(pixels) != before


def test_a_scene_file_goes_out_and_comes_in_again(page, demo_server, tmp_path):
    page.goto(demo_server.address)
    page.get_by_role("link", name="Open Up the liana").click()
    w = Workspace(page, demo_server.address)
    with page.expect_download() as download:
        page.get_by_role("link", name="Save as file").click()
    path = tmp_path / "liana.json"
    download.value.save_as(path)
    before = w.kept()["scene"]
    page.get_by_role("link", name="Vine Swing").click()
    page.get_by_label("Scene file").set_input_files(path)
    page.wait_for_url("**/scenes/*")
    again = Workspace(page, demo_server.address)
    assert again.kept()["scene"] == before


def test_the_troupe_is_named_ordered_hung_and_hidden(workspace):
    w = workspace
    for kind, name in (("Ellipse", "Body"), ("Rectangle", "Bag"), ("Group", "Courier")):
        w.add(kind, name)
    w.pick("Bag")
    w.page.keyboard.press("F2")
    field = w.page.get_by_role("textbox", name="New name of Bag")
    field.fill("Satchel")
    field.press("Enter")
    w.saved()

    def choose(name, item):
        w.item(name).hover()
        w.page.get_by_role("button", name=f"More for {name}").click()
        w.page.get_by_role("menu", name=f"More for {name}").get_by_role("menuitem", name=item).click()

    choose("Satchel", "Hang on…")
    w.page.get_by_role("combobox", name="Parent").click()
    w.page.get_by_role("option", name="Courier").last.click()
    w.page.get_by_role("button", name="Hang it there").click()
    w.saved()
    by_name = {one["name"]: one for one in w.kept()["scene"]["objects"]}
    assert by_name["Satchel"]["parent"] == by_name["Courier"]["id"]
    # Hung on a group in the middle of the picture, it keeps its place there.
    assert w.channel("Satchel", "x")["base"] == pytest.approx(0, abs=1e-9)

    choose("Body", "Hide")
    w.saved()
    assert next(one for one in w.kept()["scene"]["objects"] if one["name"] == "Body")["shown"] is False
    choose("Body", "Bring forward")
    w.saved()
    assert [one["name"] for one in w.kept()["scene"]["objects"]] == ["Satchel", "Courier", "Body"], "in front of Courier and all that hangs on it"
    w.pick("Courier")
    w.page.locator(".stage").focus()
    w.page.keyboard.press("Control+d")
    w.saved()
    assert len(w.kept()["scene"]["objects"]) == 5
    w.page.keyboard.press("Delete")
    expect(w.page.get_by_text("is deleted, with 1 on it")).to_be_visible()
    w.page.locator(".said-undo").click()
    w.saved()
    w.page.wait_for_timeout(100)
    assert len(w.kept()["scene"]["objects"]) == 5


@pytest.mark.parametrize(("choice", "codec", "fps"), [("MP4 video", "h264", 24.0), ("GIF", "gif", 24.0)])
def test_export_with_progress(page, demo_server, tmp_path, choice, codec, fps):
    page.goto(demo_server.address)
    page.get_by_role("link", name="Open Thrown mango").click()
    Workspace(page, demo_server.address)
    page.get_by_role("button", name="Export", exact=True).click()
    dialog = page.get_by_role("dialog", name="Export")
    dialog.get_by_text(choice, exact=True).click()
    dialog.get_by_text("640 × 360").click()
    with page.expect_download(timeout=180_000) as download:
        dialog.get_by_role("button", name="Export", exact=True).click()
        expect(dialog.get_by_role("progressbar")).to_be_visible()
    expect(dialog.get_by_text("Done: 96 frames.")).to_be_visible()
    path = tmp_path / download.value.suggested_filename
    download.value.save_as(path)
    assert path.name.startswith("Thrown mango.")
    probe = json.loads(
        subprocess.run(
            ["ffprobe", "-v", "error", "-count_frames", "-show_streams", "-of", "json", str(path)], capture_output=True, text=True, check=True
        ).stdout
    )["streams"][0]
    assert (probe["codec_name"], probe["width"], probe["height"], int(probe["nb_read_frames"])) == (codec, 640, 360, 96)
    over, under = map(int, probe["avg_frame_rate"].split("/"))
    assert over / under == pytest.approx(fps, rel=0.01)


def test_export_can_be_stopped(page, demo_server):
    page.goto(demo_server.address)
    page.get_by_role("link", name="Open Toucan glide").click()
    Workspace(page, demo_server.address)
    page.get_by_role("button", name="Export", exact=True).click()
    dialog = page.get_by_role("dialog", name="Export")
    dialog.get_by_role("button", name="Export", exact=True).click()
    dialog.get_by_role("button", name="Stop").click()
    expect(dialog.get_by_text("Stopped. Nothing was kept.")).to_be_visible()
    expect(dialog.get_by_role("button", name="Export", exact=True)).to_be_enabled()


def test_scene_settings_are_kept_as_one_step(workspace):
    w = workspace
    w.page.get_by_role("button", name="Scene settings").click()
    for label, text in (("Width of the picture", "640"), ("Length in frames", "48"), ("Frames per second", "12.5")):
        field = w.page.get_by_role("spinbutton", name=label)
        field.fill(text)
        field.press("Enter")
    w.page.get_by_role("button", name="Keep").click()
    w.saved()
    scene = w.kept()["scene"]
    assert (scene["size"], scene["length"], scene["fps"]) == ([640, 720], 48, 12.5)
    w.page.get_by_role("button", name="Undo").click()
    w.saved()
    w.page.wait_for_timeout(100)
    assert w.kept()["scene"]["length"] == 120


def test_the_api_docs_page_needs_no_network(page, server):
    page.goto(f"{server.address}/api/docs")
    expect(page.get_by_role("button", name="POST /api/scenes Create Scene")).to_be_visible()
    hosts = page.evaluate("performance.getEntriesByType('resource').map(e => new URL(e.name).host)")
    assert set(hosts) == {server.address.removeprefix("http://")}
    with urllib.request.urlopen(server.address) as answer:
        assert "script-src" not in answer.headers["content-security-policy"], "only the docs page may run an inline script"


def test_all_scenes_are_brought_back_from_the_copy_of_the_day_and_that_is_undone(page, server):
    opened(page, server.address, name="Mango fall", length=24)
    # The first change after a start finds that no copy was made today.
    server.stop()
    server.start()
    page.goto(server.address)
    card = page.get_by_role("link", name="Open Mango fall")
    page.get_by_role("button", name="More for Mango fall").click()
    page.get_by_role("menuitem", name="Delete").click()
    expect(card).to_have_count(0)
    page.reload()
    page.get_by_role("button", name="Backups of all scenes (1)").click()
    copies = page.get_by_role("list", name="Backups of all scenes")
    bring = copies.get_by_role("button").first
    bring.click()
    expect(card).to_have_count(0)
    copies.get_by_role("button", name="Yes, all scenes as they were then").click()
    expect(card).to_be_visible()
    expect(copies.get_by_text("before another copy was brought back")).to_be_visible()
    page.get_by_role("button", name="Undo", exact=True).click()
    expect(card).to_have_count(0)


def test_a_scenes_size_is_shown_its_old_history_forgotten_and_a_deleted_scene_erased(page, server):
    w = opened(page, server.address, name="Mango fall", length=24, objects=[shape("Mango", x=300, y=200)])
    address = f"{server.address}/api/scenes/{w.scene_id}"
    for revision in range(30):
        edit = {"edit": "set-value", "object": "mango", "channel": "x", "value": revision}
        body = json.dumps({"revision": revision, "edits": [edit]}).encode()
        urllib.request.urlopen(urllib.request.Request(f"{address}/edits", body, {"content-type": "application/json"})).close()
    page.goto(server.address)
    page.get_by_role("button", name="More for Mango fall").click()
    page.get_by_role("menuitem", name="Size and history…").click()
    dialog = page.get_by_role("dialog", name="Size and history of Mango fall")
    expect(dialog.get_by_role("row", name=re.compile("history: 30 steps"))).to_be_visible()
    dialog.get_by_role("button", name="Forget old history…").click()
    dialog.get_by_role("button", name="Yes, forget 10 steps for good").click()
    expect(dialog.get_by_role("row", name=re.compile("history: 20 steps"))).to_be_visible()
    expect(dialog.get_by_text("the last 20 steps are always kept")).to_be_visible()
    page.keyboard.press("Escape")
    page.get_by_role("button", name="More for Mango fall").click()
    page.get_by_role("menuitem", name="Delete").click()
    page.get_by_role("button", name="Deleted scenes (1)").click()
    page.get_by_role("button", name="Delete for good…").click()
    page.get_by_role("button", name="Yes, delete it for good").click()
    expect(page.get_by_role("button", name="Deleted scenes (1)")).to_have_count(0)
    with urllib.request.urlopen(f"{server.address}/api/scenes") as answer:
        assert json.load(answer) == {"scenes": [], "deleted": []}
