"""The page under load: 1,000 objects with 20,000 keys and 100 parades: opened, played, scrolled, dragged; how soon another page follows; and what
fifty open scenes take in memory. Run with `python -m tests.bench.load` after the page is built."""

import json
import statistics
import time
import urllib.request
from pathlib import Path

from playwright.sync_api import Page

from tests.bench.browser import page_and_server
from tests.bench.many import scrolled
from tests.bench.page import PLAYED, WATCHED
from tests.journeys.scenes import opened, shape
from tests.journeys.servers import Server
from tests.journeys.workspace import Workspace

#: The moment at which a page shows that somebody else did something, in ms since the epoch.
FOLLOWED = """() => new Promise((done) => {
  const told = () => document.querySelector('.latest')?.textContent ?? '';
  const before = told();
  const look = () => {
    if (told() && told() !== before) done(performance.timeOrigin + performance.now());
    else requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
})"""


def loaded() -> list[dict]:
    """800 shapes with 25 keys each, and 100 parades of a shape, with a delay, five copies each."""
    objects: list[dict] = []
    for n in range(100):
        x, y = 30 + (n % 20) * 62, 620 + (n // 20) * 20
        parade = {"id": f"row-{n}", "name": f"Row {n + 1}", "kind": "parade", "parade": {}, "channels": {"x": x, "y": y, "count": 5, "delay": 3}}
        hop = {"base": 0, "keys": [{"frame": 0, "value": 0}, {"frame": 12, "value": -9}, {"frame": 24, "value": 0}], "after": {"mode": "loop"}}
        objects += [parade, shape(f"Ant {n + 1}", y=hop, width=6, height=6) | {"parent": f"row-{n}"}]
    for n in range(800):
        x, y = 40 + (n % 40) * 31, 40 + (n // 40) * 32
        keys = [{"frame": f, "value": x + 12 * (f // 10 % 2), "ease": "slow-out-in"} for f in range(0, 240, 10)]
        objects.append(shape(f"Moth {n + 1}", kind="star", x={"base": x, "keys": [*keys, {"frame": 240, "value": x}]}, y=y, width=20, height=20))
    return objects


def dragged(w: Workspace) -> tuple[float, float]:
    """Milliseconds from a move of the pointer to the new picture while the last object is dragged: median and 95th percentile."""
    w.pick("Moth 800")
    w.painted()
    w.page.evaluate(WATCHED)
    x, y = w.on_screen(40 + 39 * 31, 40 + 19 * 32)
    w.page.mouse.move(x, y)
    w.page.mouse.down()
    for n in range(60):
        w.page.mouse.move(x - 4 - n, y)
        w.page.wait_for_timeout(40)
    w.page.mouse.up()
    w.saved()
    # The first move releases what is painted once for all that rests.
    times = sorted(w.page.evaluate("window.__times")[1:])
    return statistics.median(times), times[int(len(times) * 0.95)]


def following(page: Page, address: str) -> list[float]:
    """Milliseconds from asking for an edit to another page's having shown who did it, with a small scene."""
    w = opened(page, address, objects=[shape("Frog", x=300, y=300, width=80, height=80)])
    browser = page.context.browser
    assert browser is not None
    second = browser.new_context(viewport={"width": 1280, "height": 800}).new_page()
    second.goto(page.url)
    Workspace(second, address)
    page.get_by_role("button", name="has this scene open too").wait_for()
    w.pick("Frog")
    page.locator(".stage").focus()
    took = []
    for n in range(12):
        second.evaluate(f"void (window.__seen = ({FOLLOWED})())")
        begun = page.evaluate("performance.timeOrigin + performance.now()")
        page.keyboard.press("[" if n % 2 else "ArrowRight")
        took.append(second.evaluate("window.__seen") - begun)
        w.saved()
    second.close()
    return took


def memory(server: Server) -> tuple[float, float]:
    """Megabytes that the server takes with one scene of 300 objects open, and with fifty."""

    def taken() -> float:
        status = Path(f"/proc/{server.pid}/status").read_text(encoding="utf-8")
        return int(status.split("VmRSS:")[1].split()[0]) / 1024

    objects = loaded()[:300]
    one = 0.0
    for n in range(50):
        body = json.dumps({"name": f"Gorge {n}", "length": 241, "objects": objects}).encode()
        request = urllib.request.Request(f"{server.address}/api/scenes", body, {"content-type": "application/json"})
        urllib.request.urlopen(request).close()
        one = one or taken()
    return one, taken()


def main() -> None:
    """Measure and print."""
    with page_and_server() as (page, server):
        begun = time.perf_counter()
        w = opened(page, server.address, length=241, objects=loaded(), name="Load")
        w.painted()
        print(f"kept and opened: {time.perf_counter() - begun:.1f} s")
        page.get_by_role("button", name="Play", exact=True).click()
        page.wait_for_timeout(1000)
        played = page.evaluate(f"({PLAYED})(3)")
        page.get_by_role("button", name="Pause", exact=True).click()
        print(f"played: {played['frames'] / 3:.0f} frames/s")
        print(f"time sheet scrolled: {scrolled(page.get_by_role('list', name='Lanes')):.0f} frames/s")
        half, most = dragged(w)
        print(f"dragged: {half:.0f} ms for half of the moves, {most:.0f} ms for 95 of 100")
        took = following(page, server.address)
        print(f"another page follows: {statistics.median(took):.0f} ms (at most {max(took):.0f})")
        one, fifty = memory(server)
        print(f"memory of the server: {one:.0f} MB with these and one scene of 300 objects, {fifty:.0f} MB with fifty")


if __name__ == "__main__":
    main()
