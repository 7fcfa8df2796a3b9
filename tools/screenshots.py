"""Take the pictures in docs/screenshots/ again, from the demo data, at 1280 × 800: `make screenshots`."""

import tempfile
from pathlib import Path

from playwright.sync_api import Page, expect, sync_playwright

from tests.formats.test_drawing import STAMP
from tests.journeys.conftest import CHROMIUM, FLAGS
from tests.journeys.servers import Server
from tests.journeys.workspace import Workspace

expect.set_options(timeout=30_000)
SHOTS = Path(__file__).resolve().parents[1] / "docs" / "screenshots"


def take(page: Page, name: str) -> None:
    page.wait_for_timeout(600)
    page.screenshot(path=SHOTS / f"{name}.png")


def open_scene(page: Page, server: Server, name: str, frame: int) -> Workspace:
    page.goto(server.address)
    page.get_by_role("link", name=f"Open {name}").click()
    workspace = Workspace(page, server.address)
    workspace.go_to(str(frame))
    return workspace


def links(page: Page, server: Server) -> None:
    """Links, dials and cues: who drives whom in the mill, and a link being made."""
    workspace = open_scene(page, server, "Sorting mill", 63)
    page.get_by_role("tab", name="Links").click()
    workspace.pick("Small gear")
    workspace.row("Rotation").locator(".label").click()
    take(page, "mill")
    page.get_by_role("button", name="Link by hand").click()
    workspace.drag_in_picture((640, 395), (880, 640), release=False)
    page.mouse.up()
    page.keyboard.press("Escape")
    page.get_by_role("tab", name="Sheet").click()
    page.get_by_role("button", name="Pick and move").click()


def figures(page: Page, server: Server) -> None:
    """A figure of the morning round: its skeleton, with the feet on the time sheet."""
    workspace = open_scene(page, server, "Morning round", 140)
    workspace.pick("Postie")
    page.get_by_role("switch", name="links").click()
    page.get_by_role("switch", name="path & spacing").click()
    workspace.go_to("64")
    for _ in range(2):
        page.keyboard.press("i")
    x, y = workspace.on_screen(420, 210)
    page.mouse.move(x, y)
    page.keyboard.down("Control")
    for _ in range(3):
        page.mouse.wheel(0, -90)
    page.keyboard.up("Control")
    page.get_by_role("region", name="Values at this frame").get_by_role("button", name="Body").click()
    workspace.row("Hips").locator(".label").click()
    page.get_by_role("radio", name="y", exact=True).click()
    take(page, "figure")
    page.keyboard.press("Escape")


def parades(page: Page, server: Server) -> None:
    """Parades and text: a chart with its table, a title by letters."""
    workspace = open_scene(page, server, "Post report", 40)
    workspace.pick("Week")
    page.get_by_role("button", name="Lists").click()
    take(page, "parade-lists")
    page.keyboard.press("Escape")


def outlines(page: Page, server: Server) -> None:
    """Outlines: the points of one that becomes another."""
    workspace = open_scene(page, server, "Envelope bird", 34)
    workspace.pick("Letter")
    workspace.pick("Body")
    page.get_by_role("button", name="Edit points").click()
    page.get_by_test_id("outline-point-1").click()
    workspace.row("Outline").locator(".label").click()
    take(page, "outline-points")
    page.get_by_role("button", name="Pick and move").click()


def insets(page: Page, server: Server) -> None:
    """Inside a raft that crosses a river, which lies around it, dimmed; the second frog of its crew is picked."""
    workspace = open_scene(page, server, "River raft", 96)
    workspace.pick("Raft")
    page.keyboard.press("h")
    page.wait_for_function("() => document.title.startsWith('Raft')")
    workspace.pick("Frog 2")
    workspace.row("Travel").locator(".label").click()
    take(page, "inset")


def looks(page: Page, server: Server) -> None:
    """Looks: their vine with an open card, and depths from the side."""
    workspace = open_scene(page, server, "Departures", 130)
    workspace.pick("Ferry token")
    workspace.row("Look").locator(".label").click()
    page.get_by_role("button", name="Settings of Shadow").click()
    take(page, "look")
    page.keyboard.press("Escape")
    workspace = open_scene(page, server, "Mist over the gorge", 150)
    page.get_by_role("tab", name="Depth").click()
    workspace.pick("Moon")
    workspace.row("Look").locator(".label").click()
    take(page, "depth")
    page.get_by_role("tab", name="Sheet").click()


def several(page: Page, server: Server) -> None:
    """Four parcels as one, with what they share."""
    workspace = open_scene(page, server, "Sorting mill", 63)
    workspace.pick("Parcel 1")
    for n in (2, 3, 4):
        workspace.item(f"Parcel {n}").click(modifiers=["Control"])
    take(page, "several")


def notes(page: Page, server: Server) -> None:
    """A note with its mend looked at before it is taken, and a scene that is still empty."""
    workspace = open_scene(page, server, "Signal tree", 0)
    page.get_by_role("button", name="Notes: 2 remarks").click()
    page.get_by_role("article").first.locator(".where").click()
    workspace.go_to("39")
    page.get_by_role("button", name="Let it squash").first.hover()
    take(page, "notes")
    page.keyboard.press("Alt+n")
    page.get_by_role("link", name="Vine Swing").click()
    page.get_by_role("button", name="New scene").click()
    page.get_by_role("region", name="Ways to start").wait_for()
    take(page, "first-minute")


def exports(page: Page, server: Server) -> None:
    """The question what to export, what was made, and a drawing that came in."""
    open_scene(page, server, "Toucan glide", 44)
    page.get_by_role("button", name="Export", exact=True).click()
    dialog = page.get_by_role("dialog", name="Export")
    dialog.get_by_text("GIF", exact=True).click()
    for name in ("Also Animated SVG", "Also Contact sheet", "Also Bundle"):
        dialog.get_by_role("button", name=name).click()
    dialog.get_by_text("4 formats in one go").wait_for()
    page.wait_for_timeout(2000)
    take(page, "export")
    dialog.get_by_role("button", name="Export", exact=True).click()
    expect(dialog.get_by_role("listitem").filter(has_text="Done:")).to_have_count(4, timeout=90_000)
    page.keyboard.press("Escape")
    open_scene(page, server, "Post report", 30)
    page.get_by_label("Drawing, table, sound or scene to bring in").first.set_input_files([{"name": "stamp.svg", "mimeType": "", "buffer": STAMP}])
    page.get_by_role("dialog", name="Brought in: stamp.svg").wait_for()
    take(page, "brought-in")
    page.get_by_role("button", name="OK").click()


def rehearsals(page: Page, server: Server) -> None:
    """Two versions beside each other, and over each other."""
    w = open_scene(page, server, "Toucan glide", 44)
    page.keyboard.press("Alt+r")
    page.get_by_role("button", name="Try a variant").click()
    w.pick("Toucan")
    w.type_value("Travel y", "330")
    w.go_to("62")
    w.type_value("Rotation turn", "16")
    page.get_by_role("button", name="Rehearsals: 1 kept version (Alt+R)").click()
    page.get_by_role("button", name="Compare", exact=True).click()
    page.get_by_text("2 differences").first.wait_for()
    take(page, "compare")
    page.keyboard.press("2")
    take(page, "compare-over")
    page.get_by_role("button", name="Go on").click()


def sounds(page: Page, server: Server) -> None:
    """A drum on the time sheet, with markers, its beat, and what follows it."""
    open_scene(page, server, "Log drum", 24)
    page.keyboard.press("Alt+s")
    page.wait_for_function("() => document.querySelector('[aria-label=Sounds] canvas')?.width > 500")
    page.get_by_text("about 120 beats a minute").wait_for()
    take(page, "sound")
    page.keyboard.press("Alt+s")


def main() -> None:
    SHOTS.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = Server(Path(folder), "demo")
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(server.address)
        page.wait_for_selector(".card img")
        page.wait_for_function('() => [...document.querySelectorAll(".card img")].slice(0, 9).every((one) => one.complete && one.naturalWidth)')
        take(page, "shelf")
        open_scene(page, server, "Thrown mango", 8)
        page.get_by_role("button", name="More for the time sheet").click()
        page.get_by_role("menuitem", name="Only keyed objects").click()
        # Away from the edge of the troupe, which shows where it would be dragged.
        page.mouse.move(900, 720)
        take(page, "workspace")
        open_scene(page, server, "Up the liana", 66)
        page.get_by_role("tab", name="Curves").click()
        page.get_by_role("radio", name="y", exact=True).click()
        take(page, "curves")
        page.get_by_role("tab", name="Sheet").click()
        page.goto(f"{server.address}/principles")
        page.wait_for_selector("canvas")
        take(page, "principles")
        exports(page, server)
        rehearsals(page, server)
        sounds(page, server)
        links(page, server)
        figures(page, server)
        parades(page, server)
        outlines(page, server)
        insets(page, server)
        looks(page, server)
        several(page, server)
        notes(page, server)
        browser.close()
        server.stop()


if __name__ == "__main__":
    main()
