"""Exports through the page: every format in one go, one cancelled and run again, a disk without room, and a bundle on another machine."""

import io
import json
import resource
import signal
import time
import zipfile

import av
import numpy as np
from PIL import Image
from playwright.sync_api import Page, Route, expect

from tests.journeys.scenes import keys, opened, shape
from tests.journeys.servers import Server, ask
from tests.journeys.shots import pixels_of
from tests.journeys.workspace import Workspace

LENGTH = 24


def dialog_of(page: Page):
    page.get_by_role("button", name="Export", exact=True).click()
    return page.get_by_role("dialog", name="Export")


def small_scene(page, server, **changes):
    mango = shape("Mango", x=keys((0, 40), (LENGTH - 1, 280)), y=90, width=50, height=50, fill="#F2932B")
    title = shape("Title", "rectangle", x=160, y=150, width=120, height=20, fill="#2F6B4F", opacity=keys((0, 0), (12, 1)))
    return opened(page, server.address, name="Post card", size=[320, 180], length=LENGTH, objects=[mango, title], **changes)


def pictured(page: Page) -> np.ndarray:
    return pixels_of(page.get_by_test_id("picture-canvas"))


def test_a_scene_goes_out_in_every_format_in_one_go(page: Page, server: Server):
    small_scene(page, server)
    dialog = dialog_of(page)
    files = {}
    page.on("download", lambda download: files.update({download.suggested_filename: download}))
    dialog.get_by_text("GIF", exact=True).click()
    others = dialog.get_by_role("button", name="Also ")
    for name in others.evaluate_all("(found) => found.map((one) => one.getAttribute('aria-label'))"):
        dialog.get_by_role("button", name=name, exact=True).click()
    expect(dialog.get_by_text("15 formats in one go")).to_be_visible()
    expect(dialog.get_by_role("img", name="The frame at the playhead as GIF")).to_be_visible()
    expect(dialog.get_by_text("320 × 180 px · 24 pictures · 1.0 s · about")).to_be_visible()
    dialog.get_by_role("textbox", name="Name of the file").fill("Card 7")

    # The page hears of them when all are done, as where it was slow: browsers save no more than ten files at once.
    def once_all_are_done(route: Route) -> None:
        while any(one["state"] in ("waiting", "running") for one in ask(f"{server.address}/api/exports")):
            time.sleep(0.1)
        route.continue_()

    page.route("**/api/exports", once_all_are_done)
    dialog.get_by_role("button", name="Export", exact=True).click()
    expect(dialog.get_by_role("listitem").filter(has_text="Done:")).to_have_count(15, timeout=240_000)
    deadline = time.monotonic() + 60
    while len(files) < 15 and time.monotonic() < deadline:
        page.wait_for_timeout(50)
    content = {name: download.path().read_bytes() for name, download in files.items()}
    assert len(content) == 15
    for name in ("Card 7.mp4", "Card 7.webm"):
        with av.open(io.BytesIO(content[name])) as film:
            assert len(list(film.decode(video=0))) == LENGTH
    for name in ("Card 7.gif", "Card 7.apng", "Card 7.webp"):
        with Image.open(io.BytesIO(content[name])) as film:
            assert (film.size, film.n_frames) == ((320, 180), LENGTH)
    assert Image.open(io.BytesIO(content["Card 7.png"])).size == (320, 180)
    assert len(zipfile.ZipFile(io.BytesIO(content["Card 7.zip"])).namelist()) == LENGTH
    assert b"<animate" in content["Card 7.svg"]
    assert b"<animate" not in content["Card 7.still.svg"]
    assert b"@keyframes" in content["Card 7.html"]
    assert content["Card 7.pdf"].startswith(b"%PDF")
    assert content["Card 7.csv"].decode().startswith("frame,Mango.x,Title.opacity")
    assert len(json.loads(content["Card 7.keys.json"])["tracks"]) == 2
    assert json.loads(content["Card 7.json"])["format"] == "vine-swing-scene"
    assert "scene.json" in zipfile.ZipFile(io.BytesIO(content["Card 7.vine"])).namelist()


def test_an_export_is_stopped_half_way_and_run_again(page: Page, server: Server):
    opened(page, server.address, name="Long way", size=[640, 360], length=3000, objects=[shape("Mango", x=keys((0, 0), (2999, 640)), y=180)])
    dialog = dialog_of(page)
    dialog.get_by_role("button", name="Export", exact=True).click()
    expect(dialog.get_by_text("left")).to_be_visible()
    # The dialog can be left meanwhile; how far it is, is seen at the top.
    dialog.get_by_role("button", name="Go on working").click()
    expect(page.get_by_title("% of 1 made")).to_be_visible()
    dialog = dialog_of(page)
    dialog.get_by_role("tab", name="Made (1)").click()
    line = dialog.get_by_role("listitem").filter(has_text="Long way.mp4")
    line.get_by_role("button", name="Stop Long way.mp4").click()
    expect(line.get_by_text("stopped; nothing was kept")).to_be_visible()
    assert list((server.data / "exports").iterdir()) == []
    line.get_by_role("button", name="Run again").click()
    again = dialog.get_by_role("listitem").filter(has=page.get_by_role("progressbar"))
    expect(again).to_have_count(1)
    again.get_by_role("button", name="Stop Long way.mp4").click()
    expect(dialog.get_by_text("stopped; nothing was kept")).to_have_count(2)
    line.first.get_by_role("button", name="Remove Long way.mp4").click()
    expect(dialog.get_by_role("tab", name="Made (1)")).to_be_visible()


def test_a_disk_without_room_is_told_and_leaves_no_half_file(page: Page, server: Server):
    """The limit on the size of files that the server and all it starts may write represents a disk that is full."""
    opened(
        page,
        server.address,
        size=[1280, 720],
        length=LENGTH,
        objects=[shape("Mango", x=keys((0, 40), (LENGTH - 1, 1240)), y=360, width=300, height=300)],
    )
    most = max(file.stat().st_size for file in server.data.iterdir() if file.is_file()) + 1_000_000
    resource.prlimit(server._process.pid, resource.RLIMIT_FSIZE, (most, most))
    dialog = dialog_of(page)
    dialog.get_by_text("Flipbook", exact=True).click()
    width = dialog.get_by_role("spinbutton", name="Width in px; the height follows")
    width.fill("3840")
    width.press("Enter")
    pace = dialog.get_by_role("spinbutton", name="Pictures a second")
    pace.fill("120")
    pace.press("Enter")
    expect(dialog.get_by_text("3840 × 2160 px · 120 pictures")).to_be_visible(timeout=120_000)
    dialog.get_by_role("button", name="Export", exact=True).click()
    expect(dialog.get_by_role("alert")).to_contain_text("there is no room left on the disk", timeout=120_000)
    assert list((server.data / "exports").iterdir()) == []


def test_a_bundle_moves_to_an_empty_data_folder_and_looks_the_same(page: Page, demo_server: Server, server: Server, tmp_path):
    page.goto(demo_server.address)
    page.get_by_role("link", name="Open Hummingbird courier").click()
    w = Workspace(page, demo_server.address)
    w.go_to("30")
    w.painted()
    before, names = pictured(page), [one["name"] for one in w.kept()["scene"]["objects"]]
    dialog = dialog_of(page)
    dialog.get_by_text("Bundle", exact=True).click()
    with page.expect_download() as downloading:
        dialog.get_by_role("button", name="Export", exact=True).click()
    path = tmp_path / downloading.value.suggested_filename
    downloading.value.save_as(path)
    demo_server.stop(signal.SIGKILL)
    page.goto(server.address)
    page.get_by_label("Scene file").set_input_files(path)
    page.wait_for_url("**/scenes/**")
    w = Workspace(page, server.address)
    assert [one["name"] for one in w.kept()["scene"]["objects"]] == names
    page.get_by_test_id("picture-canvas").wait_for()
    w.go_to("30")
    w.painted()
    assert np.abs(pictured(page) - before).max() <= 2
    assert w.kept()["scene"]["pictures"]


def test_one_picture_is_that_of_the_playhead(page: Page, server: Server):
    w = small_scene(page, server)
    w.go_to("23")
    dialog = dialog_of(page)
    dialog.get_by_text("One picture, PNG", exact=True).click()
    expect(dialog.get_by_role("spinbutton", name="Frame to take")).to_have_value("23")
    dialog.get_by_role("button", name="none", exact=True).click()
    with page.expect_download() as downloading:
        dialog.get_by_role("button", name="Export", exact=True).click()
    pixels = np.asarray(Image.open(downloading.value.path()))
    assert pixels[90, 280].tolist() == [0xF2, 0x93, 0x2B, 255]
    assert pixels[10, 10, 3] == 0


def test_what_cannot_be_made_is_said_beside_the_question(page: Page, server: Server):
    opened(page, server.address, size=[8192, 8192], length=4, objects=[shape("Mango", x=10)])
    dialog = dialog_of(page)
    expect(dialog.get_by_role("alert")).to_contain_text("% of the scene's size would fit")
    expect(dialog.get_by_role("button", name="Export", exact=True)).to_be_disabled()
    field = dialog.get_by_role("spinbutton", name="Width in px; the height follows")
    field.fill("640")
    field.press("Enter")
    expect(dialog.get_by_role("button", name="Export", exact=True)).to_be_enabled()
