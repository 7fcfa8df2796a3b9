"""The time sheet under load, in the browser the journeys use: `python -m tests.bench.sheet`.

5,000 keys on 50 lanes: frames per second while scrolling in time and while sliding, and how soon the page answers when 500
picked keys are dragged. Figures are of this machine, painting without a graphics card.
"""

import json
import statistics
import urllib.request

from tests.bench.browser import page_and_server
from tests.journeys.workspace import Workspace

OBJECTS, KEYS = 50, 100
COUNT = """() => new Promise(done => { const times = []; const tick = t => { times.push(t); times.length < 80 ? requestAnimationFrame(tick) : done(times) };
  requestAnimationFrame(tick) })"""


def scene():
    keys = [{"frame": 5 * n, "value": (n * 37) % 900} for n in range(KEYS)]
    things = [
        {"id": f"pod-{i}", "name": f"Pod {i}", "kind": "shape", "shape": {"type": "ellipse"}, "channels": {"x": {"keys": keys}, "y": 14 * i}}
        for i in range(OBJECTS)
    ]
    return {"format": "vine-swing-scene", "version": 1, "name": "Many keys", "length": 500, "objects": things}


def pace(times):
    gaps = [b - a for a, b in zip(times, times[1:], strict=False)]
    return 1000 / statistics.mean(gaps), sorted(gaps)[int(len(gaps) * 0.95)]


def main():
    with page_and_server(bypass_csp=True) as (page, server):
        request = urllib.request.Request(f"{server.address}/api/scenes", json.dumps(scene()).encode(), {"content-type": "application/json"})
        made = json.load(urllib.request.urlopen(request))
        page.goto(f"{server.address}/scenes/{made['id']}")
        work = Workspace(page, server.address)
        page.evaluate("localStorage.setItem('sheet-height', '420')")
        page.reload()
        page.wait_for_timeout(1500)
        lanes = page.locator(".lanes").bounding_box()
        x, y = lanes["x"] + 500, lanes["y"] + 100
        page.mouse.move(x, y)
        page.keyboard.down("Control")
        page.mouse.wheel(0, -300)
        page.keyboard.up("Control")

        for what, moves in (
            ("scrolling in time", lambda n: page.mouse.wheel(12 if n % 60 < 30 else -12, 0)),
            ("scrolling lanes", lambda n: page.mouse.wheel(0, 20 if n % 60 < 30 else -20)),
        ):
            page.evaluate("window.counted = null")
            page.evaluate(f"({COUNT})().then(times => window.counted = times)")
            for n in range(400):
                moves(n)
                if n % 20 == 0 and page.evaluate("window.counted !== null"):
                    break
            page.wait_for_function("window.counted !== null")
            fps, p95 = pace(page.evaluate("window.counted"))
            print(f"{what}: {fps:.0f} frames/s, 95th percentile {p95:.0f} ms")

        page.keyboard.press("u")
        page.wait_for_timeout(300)
        # Five lanes of a hundred keys, picked with a box; then one of them is dragged step by step.
        page.mouse.move(lanes["x"] + 226, lanes["y"] + 2)
        page.mouse.down()
        page.mouse.move(lanes["x"] + 1040, lanes["y"] + 24 * 6 + 20, steps=4)
        page.mouse.up()
        page.wait_for_timeout(300)
        print(page.get_by_role("toolbar", name="Picked leaves").locator("strong").inner_text(), "picked")
        leaf = work.page.get_by_role("button", name="Key of Pod 46 at frame 15", exact=True).bounding_box()
        page.mouse.move(leaf["x"] + 10, leaf["y"] + 10)
        page.mouse.down()
        # The answer is the first frame painted after the hand has moved.
        page.evaluate(
            "window.addEventListener('pointermove', event => requestAnimationFrame(() => setTimeout(() => (window.shown ??= performance.now() -"
            " event.timeStamp))), true)"
        )
        waits = []
        for n in range(1, 16):
            page.evaluate("window.shown = null")
            page.mouse.move(leaf["x"] + 10 + 4 * n, leaf["y"] + 10)
            page.wait_for_function("window.shown !== null")
            waits.append(page.evaluate("window.shown"))
            page.wait_for_timeout(60)
        page.mouse.up()
        print(f"dragging: answered in {statistics.median(waits):.0f} ms, 95th percentile {sorted(waits)[-1]:.0f} ms")


if __name__ == "__main__":
    main()
