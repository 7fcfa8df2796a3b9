"""How it feels. What depends on the machine is printed, not asserted; `pytest -s` shows it."""

import json
import time
import urllib.request

import numpy as np
from playwright.sync_api import expect

from tests.journeys.workspace import Workspace

#: Times every drag step from the moment it is asked, over the WebSocket of looks, until the picture has been painted again.
WATCH = """() => {
  window.took = [];
  const send = WebSocket.prototype.send;
  WebSocket.prototype.send = function (data) {
    const begun = performance.now();
    const answered = () => requestAnimationFrame(() => window.took.push(performance.now() - begun));
    if (this.url.endsWith('/looks')) this.addEventListener('message', answered, { once: true });
    return send.call(this, data);
  };
}"""


def test_a_drag_answers_while_the_hand_moves(page, demo_server):
    page.goto(demo_server.address)
    page.get_by_role("link", name="Open Toucan glide").click()
    w = Workspace(page, demo_server.address)
    w.go_to("48")
    page.evaluate(WATCH)
    x, y = w.value("Travel x"), w.value("Travel y")
    (left, top), (right, bottom) = w.on_screen(x, y), w.on_screen(x + 90, y + 120)
    page.mouse.move(left, top)
    page.mouse.down()
    # The hand moves on until it has been followed often enough, however slow the machine is.
    deadline, moves = time.monotonic() + 60, 0
    while len(took := page.evaluate("window.took")) <= 10 and time.monotonic() < deadline:
        moves += 1
        page.mouse.move(left + (right - left) * np.sin(moves / 20), top + (bottom - top) * np.sin(moves / 20))
    page.mouse.up()
    assert len(took) > 10, "the picture followed the hand, not only its end"
    print(f"\ndrag steps answered: {len(took)} of {moves}, median {np.percentile(took, 50):.0f} ms, 95th percentile {np.percentile(took, 95):.0f} ms")


def test_the_second_start_finds_what_the_first_left(demo_server, page):
    demo_server.stop()
    begun = time.monotonic()
    demo_server.start()
    page.goto(demo_server.address)
    expect(page.get_by_role("link", name="Open Thrown mango")).to_be_visible()
    print(f"\nusable {time.monotonic() - begun:.1f} s after the second start")
    expect(page.get_by_role("link", name="Open Thrown mango 2")).to_have_count(0)


def test_playback_keeps_its_pace_with_many_objects(page, server):
    swing = {"keys": [{"frame": 0, "value": 0, "ease": "slow-out-in"}, {"frame": 24, "value": 90}], "after": {"mode": "ping-pong"}}
    objects = [
        {
            "id": f"o{n}",
            "name": f"Leaf {n}",
            "kind": "shape",
            "shape": {"type": "star"},
            "channels": {"x": 40 + n % 20 * 60, "y": 40 + n // 20 * 44, "width": 40, "height": 40, "rotation": swing},
        }
        for n in range(300)
    ]
    scene = {"name": "Many leaves", "objects": objects}
    request = urllib.request.Request(f"{server.address}/api/scenes", json.dumps(scene).encode(), {"content-type": "application/json"})
    with urllib.request.urlopen(request) as answer:
        scene_id = json.load(answer)["id"]
    page.goto(f"{server.address}/scenes/{scene_id}")
    Workspace(page, server.address)
    page.get_by_role("button", name="Play", exact=True).click()
    page.wait_for_timeout(500)
    seen = page.evaluate(
        """() => new Promise((done) => {
          const frames = new Set();
          const begun = performance.now();
          const look = () => {
            frames.add(document.getElementById('frame-field').value);
            const seconds = (performance.now() - begun) / 1000;
            frames.size <= 12 && seconds < 60 ? requestAnimationFrame(look) : done({ count: frames.size, seconds });
          };
          look();
        })"""
    )
    print(f"\n{seen['count']} frames were shown in {seen['seconds']:.1f} seconds")
    assert seen["count"] > 12, "playback moves on, even on a machine busy with other things"
