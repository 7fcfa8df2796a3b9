"""How quick pictures and insets are on the page. Run with `python -m tests.bench.pictures` after the page is built; it prints and asserts nothing."""

import time

import numpy as np
from PIL import Image
from playwright.sync_api import Page

from tests.bench.browser import page_and_server
from tests.bench.page import playing
from tests.journeys.scenes import keys, opened, shape
from tests.journeys.workspace import Workspace
from tests.pictures import saved


def painted(w: Workspace) -> str:
    return w.page.evaluate(
        "() => { const c = document.querySelector('[data-testid=picture-canvas]');"
        " return [...c.getContext('2d').getImageData(c.width / 2, c.height / 2, 1, 1).data].join() }"
    )


def bring(w: Workspace, files: list[dict]) -> float:
    """Seconds from choosing files until the middle of the picture shows them."""
    before, begun = painted(w), time.perf_counter()
    w.page.get_by_label("Pictures to bring in").first.set_input_files(files)
    while painted(w) == before and time.perf_counter() - begun < 60:
        w.page.wait_for_timeout(20)
    return time.perf_counter() - begun


def photograph(width: int, height: int, seed: int = 0) -> bytes:
    """Smooth hills of colour, as large as a photograph and as hard to pack as a drawing."""
    x, y = np.meshgrid(np.linspace(0, 9, width, dtype=np.float32), np.linspace(0, 7, height, dtype=np.float32))
    rgb = np.stack([np.sin(x + seed) * np.cos(y), np.sin(x * 1.3 - y), np.cos(x - y * 0.7 + seed)], axis=2)
    return saved(Image.fromarray(((rgb * 0.5 + 0.5) * 255).astype(np.uint8)), "JPEG", quality=90)


def large(page: Page, address: str) -> None:
    w = opened(page, address, length=48)
    seconds = bring(w, [{"name": "valley.jpg", "mimeType": "image/jpeg", "buffer": photograph(4000, 3000)}])
    print(f"a picture of 4,000 × 3,000 px, from choosing the file to seeing it: {seconds:.2f} s (bar 1.5 s)")


def flipbook(page: Page, address: str) -> None:
    w = opened(page, address, length=120)
    pages = [{"name": f"wave_{n:03}.jpg", "mimeType": "image/jpeg", "buffer": photograph(1280, 720, n)} for n in range(60)]
    seconds = bring(w, pages)
    w.page.get_by_role("button", name="Good").click()
    w.page.wait_for_timeout(2000)
    rate, slow = playing(w)
    print(f"60 pages of 1,280 × 720 px: there after {seconds:.1f} s; played at {rate:.0f} pictures/s, 95 of 100 within {slow:.0f} ms (bar: 24 fps)")


def crews(page: Page, address: str) -> None:
    """100 insets of one scene of 20 parts, each from its own frame."""
    parts = [shape(f"Part {n}", width=30, height=30, x=20 + 18 * n, y=keys((0, 60 + 5 * n), (12, 300 - 5 * n), (24, 60 + 5 * n))) for n in range(20)]
    inner = {"id": "crew", "name": "Crew", "length": 24, "size": [400, 400], "objects": parts}
    uses = [
        {
            "id": f"use-{n}",
            "name": f"Use {n}",
            "kind": "inset",
            "inset": {"scene": "crew", "past": "loop"},
            "channels": {"x": 70 + 128 * (n % 10), "y": 40 + 72 * (n // 10), "scale.x": 0.2, "scale.y": 0.2, "inner": n % 24},
        }
        for n in range(100)
    ]
    w = opened(page, address, length=120, objects=uses, insets=[inner])
    rate, slow = playing(w)
    print(f"100 insets of 20 parts each: played at {rate:.0f} pictures/s, 95 of 100 within {slow:.0f} ms")


def main() -> None:
    with page_and_server() as (page, server):
        for measure in (large, flipbook, crews):
            measure(page, server.address)


if __name__ == "__main__":
    main()
