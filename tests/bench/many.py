"""Many objects in the page: 1,000 lines scrolled, and 200 objects picked, moved and keyed at once. Run with `python -m tests.bench.many`."""

import time

from playwright.sync_api import Locator, Page, expect

from tests.bench.browser import page_and_server
from tests.bench.page import PLAYED, moving
from tests.journeys.scenes import opened


def scrolled(list_: Locator) -> float:
    """Pictures a second while a list is scrolled by a wheel all the time."""
    page, box = list_.page, list_.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 40, box["y"] + 40)
    # Not waited for: the wheel turns while the pictures are counted.
    page.evaluate(f"void (window.__played = ({PLAYED})(2))")
    for n in range(60):
        page.mouse.wheel(0, 400 if n < 40 else -400)
        page.wait_for_timeout(30)
    told = page.evaluate("window.__played")
    return float(told["frames"]) / 2


def timed(page: Page, key: str, kind: str) -> float:
    """Milliseconds that the service copies what a key asks for, in the page: until its answer is there."""
    begun = time.perf_counter()
    with page.expect_response(lambda answer: answer.url.endswith(kind)) as answer:
        page.keyboard.press(key)
    answer.value.finished()
    return (time.perf_counter() - begun) * 1000


def main() -> None:
    """Measure and print."""
    with page_and_server() as (page, server):
        opened(page, server.address, length=120, objects=moving(1000), name="Moths")
        print(f"scrolling the troupe of 1,000 objects: {scrolled(page.get_by_role('tree', name='Objects, the foremost first')):.0f} frames/s")
        w = opened(page, server.address, length=120, objects=moving(200), name="Moths")
        # Looked for at every picture: what is waited for by itself is looked forever more rarely.
        begun = time.perf_counter()
        page.keyboard.press("Control+Alt+a")
        page.wait_for_function("() => [...document.querySelectorAll('h2')].some((one) => one.textContent.includes('200 objects'))", polling="raf")
        print(f"picking 200 objects: {(time.perf_counter() - begun) * 1000:.0f} ms")
        expect(page.get_by_role("heading", name="200 objects at frame 0")).to_be_visible()
        page.locator(".stage").focus()
        w.go_to("7")
        page.locator(".stage").focus()
        moves = [timed(page, "ArrowRight", "/edits") for _ in range(5)]
        print(f"moving them: {min(moves):.0f} ms (mean {sum(moves) / 5:.0f})")
        keys = [timed(page, "k", "/edits") for _ in range(4)]
        print(f"keying them: {min(keys):.0f} ms (mean {sum(keys) / 4:.0f})")


if __name__ == "__main__":
    main()
