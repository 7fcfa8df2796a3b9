"""How quick the page is: opening, playing, dragging. Run with `python -m tests.bench.page` after the page is built.

It drives the real service and Chromium, as journeys do, and prints milliseconds and pictures a second; it asserts nothing.
"""

import json
import statistics
import sys
import time
import urllib.request

from playwright.sync_api import Page

from tests.bench.browser import page_and_server
from tests.journeys.scenes import opened, shape
from tests.journeys.workspace import Workspace

#: Counts the frames in which the page changed its frame field while it plays, and the time they took.
PLAYED = """(seconds) => new Promise((done) => {
  const field = document.querySelector('[aria-label="Frame"]');
  const begun = performance.now();
  const lengths = [];
  let before = begun;
  const tick = (now) => {
    lengths.push(now - before);
    before = now;
    if (now - begun > seconds * 1000) done({ frames: lengths.length, lengths, field: field?.value });
    else requestAnimationFrame(tick);
  };
  requestAnimationFrame(tick);
})"""


def moving(count: int) -> list[dict]:
    """`count` objects that travel and turn by keys."""
    objects = []
    for n in range(count):
        x, y = 40 + (n % 20) * 62, 40 + (n // 20) * 44
        keys = [{"frame": f, "value": x + 30 * (f // 24 % 2), "ease": "slow-out-in"} for f in range(0, 121, 24)]
        turns = [{"frame": 0, "value": 0, "ease": "even"}, {"frame": 119, "value": 360, "ease": "even"}]
        objects.append(
            shape(f"Moth {n + 1}", kind="star", x={"base": x, "keys": keys}, y=y, rotation={"base": 0, "keys": turns}, width=30, height=30)
        )
    return objects


def scene_ids(address: str) -> dict[str, str]:
    """The ids of the kept scenes by name."""
    with urllib.request.urlopen(f"{address}/api/scenes") as answer:
        found = json.load(answer)
    return {one["name"]: one["id"] for one in (found if isinstance(found, list) else found["scenes"])}


def opening(page: Page, address: str, scene_id: str) -> float:
    """Milliseconds from asking for the workspace's address to its first painted picture."""
    begun = time.perf_counter()
    page.goto(f"{address}/scenes/{scene_id}", wait_until="commit")
    page.wait_for_function(
        "() => { const c = document.querySelector('[data-testid=picture-canvas]'); return c && c.width > 300 && document.querySelector('.lane') }",
        polling="raf",
    )
    page.evaluate("() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))")
    return (time.perf_counter() - begun) * 1000


def playing(w: Workspace, seconds: float = 4) -> tuple[float, float]:
    """Frames a second of the browser while the scene plays, and the 95th percentile of a frame in ms."""
    w.page.keyboard.press("Escape")
    w.page.get_by_role("button", name="Play").first.click()
    w.page.wait_for_timeout(500)
    told = w.page.evaluate(PLAYED, seconds)
    w.page.get_by_role("button", name="Pause").first.click()
    return told["frames"] / seconds, sorted(told["lengths"])[int(len(told["lengths"]) * 0.95)]


#: Notes when the pointer moves and when the picture is painted after it.
WATCHED = """() => {
  const canvas = document.querySelector('[data-testid=picture-canvas]');
  const ctx = canvas.getContext('2d');
  const fill = CanvasRenderingContext2D.prototype.fillRect;
  window.__times = [];
  let moved = null;
  window.addEventListener('pointermove', () => (moved ??= performance.now()), true);
  ctx.fillRect = function (...all) {
    fill.apply(this, all);
    if (moved !== null) window.__times.push(performance.now() - moved);
    moved = null;
  };
}"""


def dragging(w: Workspace, name: str, frame: int = 10) -> tuple[float, float] | None:
    """Milliseconds from a move of the pointer to the new picture while `name` is dragged: median and 95th percentile; None if it has no handles."""
    w.go_to(str(frame))
    w.pick(name)
    w.painted()
    # Key as I move may be off: a drag moves the whole then.
    box = w.page.locator(".overlay [data-testid^=handle]").first
    if not box.count():
        return None
    w.page.evaluate(WATCHED)
    canvas = w.canvas()
    boxes = w.page.locator(".overlay [data-testid^=handle]").evaluate_all("all => all.map((e) => e.getBoundingClientRect().toJSON())")
    x, y = statistics.mean(b["x"] for b in boxes), statistics.mean(b["y"] for b in boxes)
    x, y = min(max(x, canvas["x"] + 5), canvas["x"] + canvas["width"] - 60), min(max(y, canvas["y"] + 5), canvas["y"] + canvas["height"] - 5)
    w.page.mouse.move(x, y)
    w.page.mouse.down()
    for i in range(60):
        w.page.mouse.move(x + 4 + i, y)
        w.page.wait_for_timeout(40)
    w.page.mouse.up()
    w.saved()
    times = sorted(w.page.evaluate("window.__times"))[1:]
    w.page.keyboard.press("Control+z")
    w.saved()
    return (statistics.median(times), times[int(len(times) * 0.95)]) if len(times) > 10 else None


def main() -> None:
    """Measure and print."""
    with page_and_server("demo") as (page, server):
        ids = scene_ids(server.address)
        for name in ("Morning round", "Toucan glide"):
            page.goto(f"{server.address}/")
            page.wait_for_timeout(800)
            times = [opening(page, server.address, ids[name]) for _ in range(4)]
            print(f"opening {name}: {min(times):.0f} ms (first {times[0]:.0f})", flush=True)
            w = Workspace(page, server.address)
            top = (
                w.page.get_by_role("tree", name="Objects, the foremost first")
                .get_by_role("treeitem")
                .evaluate_all("all => all.map((one) => one.ariaLabel)")
            )
            for one in top:
                if told := dragging(w, one):
                    print(f"  dragging {one}: {told[0]:.0f} ms, 95 % within {told[1]:.0f} ms", flush=True)
        w = opened(page, server.address, length=120, objects=moving(300), name="Moths")
        told, slow = playing(w)
        nodes = page.evaluate("() => document.querySelectorAll('*').length")
        print(f"playing 300 objects: {told:.1f} frames/s, 95 % within {slow:.0f} ms; {nodes} nodes", flush=True)
        # The foremost stands first in the Troupe, which makes rows only for what is in view.
        w.pick("Moth 300")
        told, slow = playing(w)
        print(f"… one picked: {told:.1f} frames/s, 95 % within {slow:.0f} ms", flush=True)


if __name__ == "__main__":
    sys.exit(main())
