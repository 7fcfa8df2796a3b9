"""The words journeys are told in: what a person does in the workspace, and what they read there."""

import json
import re
import time
import urllib.request
from dataclasses import dataclass

from playwright.sync_api import Locator, Page, Request, WebSocket, expect

#: Waits until all is saved and two frames of the browser have been painted since. It asks for a label alone, within the page: to look for a button by
#: its role, the names of all elements are computed, and this is asked more often than anything else.
SAVED = """() => new Promise((done, fail) => {
  const last = performance.now() + 60_000;
  let calm = 0;
  const look = () => {
    calm = document.querySelector('[aria-label^="Scene settings: saved"]') ? calm + 1 : 0;
    if (calm > 2) done();
    else if (performance.now() > last) fail(new Error('the page does not say that all is saved'));
    else requestAnimationFrame(look);
  };
  look();
})"""


@dataclass(eq=False)
class Look:
    """A look that was sent over a WebSocket."""

    url: str


class Workspace:
    """One scene, open in a page."""

    def __init__(self, page: Page, address: str):
        self.page, self.address = page, address
        self.under_way: set[Request | Look] = set()
        page.on("request", lambda request: self.under_way.add(request))
        page.on("requestfinished", lambda request: self.under_way.discard(request))
        page.on("requestfailed", lambda request: self.under_way.discard(request))
        page.on("websocket", self._watch_looks)
        expect(page.get_by_role("region", name="Time sheet")).to_be_visible()

    def _watch_looks(self, socket: WebSocket) -> None:
        """Looks that are sent over a WebSocket are under way until they are answered."""
        if not socket.url.endswith("/looks"):
            return
        sent: list[Look] = []

        def asked(_: object) -> None:
            sent.append(Look(socket.url))
            self.under_way.add(sent[-1])

        def answered(_: object) -> None:
            if sent:
                self.under_way.discard(sent.pop(0))

        socket.on("framesent", asked)
        socket.on("framereceived", answered)
        socket.on("close", lambda _: self.under_way.difference_update(sent))

    # -- what the service keeps, to compare with what the page shows

    @property
    def scene_id(self) -> str:
        return self.page.url.rsplit("/", 1)[-1]

    def kept(self) -> dict:
        with urllib.request.urlopen(f"{self.address}/api/scenes/{self.scene_id}") as answer:
            return json.load(answer)

    def channel(self, name: str, channel: str) -> dict:
        thing = next(one for one in self.kept()["scene"]["objects"] if one["name"] == name)
        return thing["channels"].get(channel, {"base": None, "keys": []})

    def keys(self, name: str, channel: str) -> list[tuple[float, float]]:
        return [(key["frame"], key["value"]) for key in self.channel(name, channel)["keys"]]

    # -- doing

    def add(self, kind: str, name: str | None = None) -> None:
        self.page.get_by_role("button", name="Add to the picture").click()
        self.page.get_by_role("menuitem", name=kind).click()
        field = self.page.get_by_role("textbox", name=re.compile("New name of"))
        field.fill(name or kind)
        field.press("Enter")
        self.saved()

    def go_to(self, text: str) -> None:
        field = self.page.get_by_label("Frame", exact=True)
        field.fill(text)
        field.press("Enter")
        self.painted()

    def painted(self) -> None:
        """Wait until the page shows what it knows: two frames of the browser in which it asks the service for nothing more."""
        deadline = time.monotonic() + 60
        asking = True
        while asking and time.monotonic() < deadline:
            self.page.evaluate("() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))")
            asking = bool(self.under_way)
        assert not asking, f"still asking for {', '.join(one.url for one in self.under_way)}"

    def pick(self, name: str) -> None:
        self.item(name).click()

    def item(self, name: str) -> Locator:
        """An object's line in the troupe."""
        return self.page.get_by_role("region", name="Troupe").get_by_role("treeitem", name=name, exact=True)

    def key(self, row: str) -> None:
        """Click the leaf beside a row of values."""
        self.row(row).get_by_role("button").last.click()
        self.saved()

    def type_value(self, label: str, text: str) -> None:
        field = self.value_field(label)
        field.fill(text)
        field.press("Enter")
        self.saved()

    def drag(self, start: tuple[float, float], end: tuple[float, float], *, steps: int = 8, keys: str | None = None, release: bool = True) -> None:
        mouse = self.page.mouse
        mouse.move(*start)
        mouse.down()
        if keys:
            self.page.keyboard.down(keys)
        mouse.move((start[0] + end[0]) / 2, (start[1] + end[1]) / 2, steps=steps)
        mouse.move(*end, steps=steps)
        if release:
            mouse.up()
            if keys:
                self.page.keyboard.up(keys)
            self.saved()

    def drag_in_picture(self, start: tuple[float, float], end: tuple[float, float], **how) -> None:
        """Drag between two points given in pixels of the scene."""
        self.drag(self.on_screen(*start), self.on_screen(*end), **how)

    def drag_handle(self, handle: str, by: tuple[float, float], **how) -> None:
        box = self.page.get_by_test_id(handle).bounding_box()
        start = (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
        self.drag(start, (start[0] + by[0], start[1] + by[1]), **how)

    def choose_feel(self, label: str) -> None:
        self.page.get_by_role("button", name="Feel", exact=True).click()
        self.page.get_by_role("radio", name=label, exact=True).click()
        self.saved()
        self.page.keyboard.press("Escape")

    def choose_end(self, label: str, side: str = "After the last key") -> None:
        self.page.get_by_role("button", name="Ends", exact=True).click()
        self.page.get_by_role("radiogroup", name=side).get_by_role("radio", name=label).click()
        self.saved()
        self.page.keyboard.press("Escape")

    # -- reading

    def saved(self) -> None:
        """Wait until every edit is kept, and shown."""
        self.page.evaluate(SAVED)
        if self.under_way:
            self.painted()

    def row(self, name: str) -> Locator:
        return self.page.get_by_role("region", name="Values at this frame").locator(".row").filter(has=self.page.get_by_text(name, exact=True))

    def value_field(self, label: str) -> Locator:
        return self.page.get_by_role("region", name="Values at this frame").get_by_role("spinbutton", name=label, exact=True)

    def value(self, label: str) -> float:
        self.painted()
        return float(self.value_field(label).input_value().replace("−", "-"))

    def shows(self, label: str, value: float, within: float) -> None:
        """Wait until a value is shown that only a look brings: nothing tells when the answer to a look is there."""
        deadline = time.monotonic() + 60
        while abs(self.value(label) - value) > within:
            assert time.monotonic() < deadline, f"{label} is {self.value(label)}, not {value}"
            self.page.wait_for_timeout(50)

    def cards(self) -> list[str]:
        """The names of the cards of the vine, left to right."""
        self.painted()
        cards = self.page.get_by_role("region", name="Vine").get_by_role("article")
        return [label.split(":")[0] for label in cards.evaluate_all("all => all.map(one => one.ariaLabel)")]

    def leaves(self, name: str, row: str) -> Locator:
        return self.page.get_by_role("button", name=re.compile(rf"^Key of {re.escape(name)} {re.escape(row)} at frame"))

    def leaf(self, name: str, row: str, frame: int) -> Locator:
        return self.page.get_by_role("button", name=f"Key of {name} {row} at frame {frame}", exact=True)

    def canvas(self) -> dict:
        return self.page.get_by_test_id("picture-canvas").bounding_box()

    def on_screen(self, x: float, y: float) -> tuple[float, float]:
        box, size = self.canvas(), self.kept()["scene"]["size"]
        return box["x"] + x * box["width"] / size[0], box["y"] + y * box["height"] / size[1]

    def dots(self) -> list[tuple[float, float]]:
        """The spacing dots of the picked object's path, in scene pixels."""
        self.painted()
        data = self.page.locator("[data-testid=path-dots] path.dots").first.get_attribute("d")
        stage, box, size = self.page.locator(".stage").bounding_box(), self.canvas(), self.kept()["scene"]["size"]
        found = re.findall(r"M([-\d.]+) ([-\d.]+)", data)
        scale = size[0] / box["width"]
        return [((float(x) + stage["x"] - box["x"]) * scale, (float(y) + stage["y"] - box["y"]) * scale) for x, y in found]

    def frame(self) -> int:
        return int(self.page.get_by_label("Frame", exact=True).input_value())
