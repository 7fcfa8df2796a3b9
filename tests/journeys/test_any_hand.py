"""Hands that press, drag and type anything in the workspace: the page complains of nothing, the service fails nowhere, and undo takes all back.

One round in CI; `make hard` runs many (`HANDS`), and `FIRST` begins at one that failed.
"""

import json
import os
import random
import re

import pytest
from playwright.sync_api import Page

from demo.make import SCENES
from tests.hard.any_changes import FIRST
from tests.journeys.scenes import kept
from tests.journeys.servers import Server, ask
from tests.journeys.workspace import SAVED

NAMES = [json.loads(path.read_text(encoding="utf-8"))["name"] for path in sorted(SCENES.glob("*.json"))]
HANDS = int(os.environ.get("HANDS", "1"))
ACTIONS = 90
NAMED = [
    "Space",
    "ArrowRight",
    "ArrowLeft",
    "ArrowUp",
    "ArrowDown",
    "Home",
    "End",
    "Delete",
    "Enter",
    "Tab",
    "Shift+Tab",
    "Escape",
    "PageDown",
    "PageUp",
    "F2",
]
WITH_CONTROL = [
    "Control+a",
    "Control+c",
    "Control+d",
    "Control+f",
    "Control+g",
    "Control+v",
    "Control+z",
    "Control+Alt+a",
    "Control+Shift+g",
    "Control+Shift+z",
]
KEYS = [*NAMED, *WITH_CONTROL, *"[]-=,.?12345abcdefghijklmnopqrstuvwxyz"]
WORDS = ["0", "1", "-5", "12.5", "100", "abc", "1e9", "50%", "Ünï 🦜", "{Wind} * 2", "t * 10", "99999999"]
#: What can be taken hold of at a place that nothing else covers: its middle, its kind and its name. What opened last lies last.
IN_REACH = """() => [...document.querySelectorAll('button, a[href^="/scenes"], input, select, [role], circle, [data-testid], .lane, .leaf')].flatMap((one) => {
  const { x, y, width, height } = one.getBoundingClientRect();
  const [cx, cy] = [x + width / 2, y + height / 2];
  const there = width && height && cx >= 0 && cy >= 0 && cx < innerWidth && cy < innerHeight && document.elementFromPoint(cx, cy);
  const name = one.ariaLabel || one.title || one.textContent || '';
  return there && one.contains(there) ? [[cx, cy, one.tagName, name.trim().slice(0, 40)]] : [];
})"""
#: Steps that are forgotten cannot be undone, and files are chosen outside the page.
LEFT_ALONE = re.compile("forget|open a scene file|bring in|save", re.I)


@pytest.mark.parametrize("number", range(FIRST, FIRST + HANDS))
def test_whatever_hands_do_nothing_fails_and_undo_takes_it_back(page: Page, server: Server, number: int):
    chance = random.Random(number)
    address = kept(server.address, SCENES, NAMES[number % len(NAMES)])
    scene = f"{server.address}/api/scenes/{address.rsplit('/', 1)[1]}"
    before = ask(f"{scene}/file")
    failed: list[str] = []
    page.on("response", lambda answer: failed.append(f"{answer.status} {answer.request.method} {answer.url}") if answer.status >= 500 else None)
    page.on("filechooser", lambda chooser: None)
    page.goto(address)
    page.wait_for_function(SAVED)
    done: list[str] = []
    for _ in range(ACTIONS):
        if not page.url.startswith(address):
            page.goto(address)
            page.wait_for_function(SAVED)
        done.append(_act(page, chance))
        assert not failed, f"{failed} after {done}"
    # What is under way is answered before the page goes.
    page.reload()
    page.wait_for_function(SAVED)
    page.goto("about:blank")
    assert not failed, f"{failed} after {done}"
    state = ask(scene)
    while state["history"]["undo"]:
        state = ask(f"{scene}/undo", {"revision": state["revision"]})
    assert ask(f"{scene}/file") == before, f"undo took not all of it back: {done}"


def _act(page: Page, chance: random.Random) -> str:
    """Do something, and say what."""
    kind = chance.random()
    if kind < 0.55:
        within = [one for one in page.evaluate(IN_REACH) if not LEFT_ALONE.search(one[3])]
        if not within:
            return "nothing"
        x, y, tag, name = chance.choice(within if chance.random() < 0.6 else within[-25:])
        page.mouse.click(x, y, button="right" if chance.random() < 0.08 else "left")
        if tag == "SELECT":
            page.keyboard.press("ArrowDown")
            page.keyboard.press("Enter")
        elif tag == "INPUT":
            page.keyboard.press("Control+a")
            page.keyboard.type(chance.choice(WORDS))
            page.keyboard.press(chance.choice(["Enter", "Tab", "Escape"]))
        return f"{tag} {name!r}"
    if kind < 0.75:
        key = chance.choice(KEYS)
        page.keyboard.press(key)
        return key
    if kind < 0.95:
        x, y = (chance.uniform(320, 920), chance.uniform(65, 400)) if chance.random() < 0.6 else (chance.uniform(5, 1275), chance.uniform(50, 795))
        to = x + chance.gauss(0, 80), y + chance.gauss(0, 60)
        page.mouse.move(x, y)
        page.mouse.down()
        page.mouse.move(*to, steps=3)
        if chance.random() < 0.1:
            page.keyboard.press("Escape")
        page.mouse.up()
        return f"drag {x:.0f},{y:.0f} to {to[0]:.0f},{to[1]:.0f}"
    page.keyboard.press("Escape")
    page.mouse.wheel(chance.gauss(0, 200), chance.gauss(0, 200))
    return "wheel"
