"""Motion blur: switched on for a swinging chime, looked at on the resting frame, and exported."""

import io
import zipfile

import numpy as np
from PIL import Image
from playwright.sync_api import Page, expect

from tests.journeys.scenes import keys, opened, shape
from tests.journeys.servers import Server
from tests.journeys.test_insets import choose


def lit(pixels: np.ndarray) -> int:
    """How many pixels of the middle row are not of the background."""
    row = pixels[pixels.shape[0] // 2, :, :3].astype(int)
    return int((np.abs(row - row[0]).max(axis=1) > 4).sum())


def shown(page: Page) -> np.ndarray:
    """The picture that is laid over the canvas."""
    frame = page.get_by_test_id("blurred-frame")
    expect(frame).to_be_visible()
    answer = page.request.get(page.evaluate("() => document.querySelector('[data-testid=blurred-frame]').src"))
    return np.asarray(Image.open(io.BytesIO(answer.body())).convert("RGB"))


def test_a_chime_is_blurred_looked_at_and_exported(page: Page, server: Server):
    chime = shape("Chime", "rectangle", y=360, width=60, height=300, x=keys((0, 200), (12, 1080), (24, 200)))
    w = opened(page, server.address, length=8, objects=[chime], background="#F7F2E7")
    w.go_to("6")
    page.get_by_role("button", name="Scene settings").click()
    page.get_by_label("motion blur").check()
    field = page.get_by_role("spinbutton", name="Shutter of the motion blur")
    field.fill("360")
    field.press("Enter")
    page.get_by_role("button", name="Keep", exact=True).click()
    w.saved()
    assert w.kept()["scene"]["blur"] == {"samples": 16, "shutter": 360.0}
    # 60 px of chime, and 73 px that it goes in a frame.
    blurred = shown(page)
    share = blurred.shape[1] / 1280
    assert abs(lit(blurred) - (60 + 880 / 12 * 15 / 16) * share) < 4
    # It is missing while the scene plays, or when it is not wanted.
    page.get_by_role("switch", name="blur").click()
    expect(page.get_by_test_id("blurred-frame")).to_have_count(0)
    page.get_by_role("switch", name="blur").click()
    choose(w, "Chime", "Keep its motion sharp")
    w.saved()
    page.wait_for_function("() => document.querySelector('[data-testid=blurred-frame]')?.src.includes('revision=2')")
    assert abs(lit(shown(page)) - 60 * share) < 4
    page.keyboard.press("Control+z")
    w.saved()
    page.get_by_role("button", name="Export", exact=True).click()
    dialog = page.get_by_role("dialog", name="Export")
    dialog.get_by_text("Flipbook").click()
    with page.expect_download(timeout=180_000) as downloading:
        dialog.get_by_role("button", name="Export", exact=True).click()
    with zipfile.ZipFile(io.BytesIO(downloading.value.path().read_bytes())) as book:
        pixels = np.asarray(Image.open(io.BytesIO(book.read("frame-0006.png"))).convert("RGBA"))
    row = pixels[pixels.shape[0] // 2, :, 3]
    assert abs(int((row > 4).sum()) - (60 + 880 / 12 * 15 / 16) * len(row) / 1280) < 4
