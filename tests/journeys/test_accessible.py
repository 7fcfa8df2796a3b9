"""Everybody can use it: no serious finding of axe-core on any view or dialog, visible focus, little motion where that is asked for, and fingers."""

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Locator, Page, expect

from tests.formats.test_drawing import STAMP
from tests.journeys.conftest import WITHOUT_TRANSITIONS
from tests.journeys.scenes import keys, opened, shape
from tests.journeys.servers import Server
from tests.journeys.workspace import Workspace

AXE = (Path(__file__).resolve().parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js").read_text(encoding="utf-8")
SERIOUS = """async (within) => {
  const found = await axe.run(within ?? document, { resultTypes: ['violations'] });
  return found.violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .flatMap(({ id, nodes }) => nodes.map((node) => `${id}: ${node.html.slice(0, 300)}`));
}"""


def check(page: Page, where: str, within: Locator | None = None) -> None:
    """No serious finding in what the page shows now, or in some part of it: looking through all takes seconds."""
    if not page.evaluate("typeof axe === 'object'"):
        page.evaluate(AXE)
    found = page.evaluate(SERIOUS, within.element_handle() if within else None)
    assert not found, f"{where}: {found[:5]}"


def open_scene(page: Page, server: Server, name: str) -> Workspace:
    page.goto(server.address)
    page.get_by_role("link", name=f"Open {name}").click()
    return Workspace(page, server.address)


def test_axe_finds_a_fault_that_is_put_in(page: Page, server: Server):
    page.goto(server.address)
    page.evaluate("document.body.insertAdjacentHTML('beforeend', '<button></button>')")
    with pytest.raises(AssertionError, match="button-name"):
        check(page, "Shelf with a nameless button")


def test_every_view_and_panel_passes(page: Page, demo_server: Server):
    page.goto(demo_server.address)
    expect(page.get_by_role("link", name="Open Weather")).to_be_visible()
    check(page, "Shelf")
    page.goto(f"{demo_server.address}/principles")
    expect(page.get_by_role("article").last).to_be_visible()
    check(page, "Principles")
    page.goto(f"{demo_server.address}/notes")
    expect(page.get_by_role("article").last).to_be_visible()
    check(page, "guide to notes")
    open_scene(page, demo_server, "Signal tree")
    page.get_by_role("button", name="Notes: 2 remarks").click()
    check(page, "notes")
    open_scene(page, demo_server, "Log drum")
    page.keyboard.press("Alt+s")
    expect(page.get_by_text("about 120 beats a minute")).to_be_visible()
    check(page, "sound")
    page.keyboard.press("Alt+b")
    shown(page, "Motion on beats")
    w = open_scene(page, demo_server, "Toucan glide")
    check(page, "workspace")
    for tab in ("Curves", "Speed", "Depth", "Links"):
        chosen = page.get_by_role("tab", name=tab)
        if chosen.count():
            chosen.click()
            check(page, f"workspace, {tab}", page.get_by_role("region", name="Time sheet"))
    page.get_by_role("tab", name="Sheet").click()
    page.keyboard.press("Control+Alt+a")
    expect(page.get_by_role("region", name="Objects picked together")).to_be_visible()
    check(page, "several objects")
    for key, tool in (("w", "path"), ("b", "draw"), ("e", "points"), ("d", "link"), ("p", "pivot")):
        page.keyboard.press(key)
        check(page, f"tool {tool}", page.get_by_role("region", name="Picture"))
    page.keyboard.press("v")
    page.keyboard.press("F1")
    check(page, "guide")
    page.keyboard.press("F1")
    w = open_scene(page, demo_server, "Morning round")
    w.pick("Postie")
    page.get_by_role("button", name="Near leg").first.click()
    check(page, "figure")
    for name, thing in (("Signal tree", None), ("Stamp sheet", None), ("River raft", None), ("Post report", None)):
        open_scene(page, demo_server, name)
        check(page, f"{name} {thing or ''}")


#: What of a dialog lies beyond the sides of the window and cannot be scrolled to within it.
CUT_OFF = """(dialog) => {
  const scrolled = (one) => one !== dialog && (getComputedStyle(one).overflowX === 'auto' || scrolled(one.parentElement));
  return [...dialog.querySelectorAll('a, button, input, select, h2, p')]
    .filter((one) => one.getBoundingClientRect().width > 0 && !scrolled(one))
    .filter((one) => one.getBoundingClientRect().left < 0 || one.getBoundingClientRect().right > innerWidth)
    .map((one) => one.ariaLabel || one.textContent);
}"""


@contextmanager
def enlarged(page: Page) -> Iterator[None]:
    """The page as a window of 1280 × 800 px shows it when enlarged to 200 % (WCAG 2.2, 1.4.4)."""
    page.set_viewport_size({"width": 640, "height": 400})
    yield
    page.set_viewport_size({"width": 1280, "height": 800})


def shown(page: Page, name: str) -> None:
    """Look at an open dialog, also in an enlarged page, and close it."""
    dialog = page.get_by_role("dialog", name=name)
    expect(dialog).to_be_visible()
    check(page, f"dialog {name}", dialog)
    with enlarged(page):
        assert dialog.evaluate(CUT_OFF) == [], f"cut off in the dialog {name}"
        last = dialog.locator("button, input").filter(visible=True).last
        last.scroll_into_view_if_needed()
        expect(last).to_be_in_viewport()
    page.keyboard.press("Escape")
    expect(dialog).to_have_count(0)


def test_every_dialog_and_menu_passes(page: Page, server: Server):
    mango = shape("Mango", x=keys((0, 100), (24, 900)), y=300, fill="#F2932B")
    legs = shape("Twig", "rectangle", x=600, y=500, width=200, height=20)
    w = opened(page, server.address, objects=[mango, legs], dials=[{"id": "wind", "name": "Wind", "low": 0, "high": 1, "channel": {"base": 0.5}}])
    w.pick("Mango")
    page.keyboard.press("Control+e")
    dialog = page.get_by_role("dialog", name="Export")
    dialog.get_by_text("One picture, PNG", exact=True).click()
    dialog.get_by_role("button", name="Export", exact=True).click()
    dialog.get_by_role("tab", name="Made (1)").click()
    check(page, "exports made")
    dialog.get_by_role("tab", name="New").click()
    shown(page, "Export")
    for name, content in (("wind.csv", b"seconds,wind\n0,1\n1,4\n2,2\n"), ("stamp.svg", STAMP)):
        page.get_by_label("Drawing, table, sound or scene to bring in").first.set_input_files([{"name": name, "mimeType": "", "buffer": content}])
        shown(page, name)
    w.pick("Mango")
    page.keyboard.press("Alt+r")
    page.get_by_role("button", name="Try a variant").click()
    expect(page.get_by_role("group", name="Variant of Take 1")).to_be_visible()
    w.type_value("Travel x", "120")
    page.get_by_role("button", name="Rehearsals: 1 kept version (Alt+R)").click()
    check(page, "rehearsals")
    page.get_by_role("button", name="Compare", exact=True).click()
    for way in "123":
        page.keyboard.press(way)
        check(page, f"compared, {way}", page.get_by_role("dialog", name="Compare with Take 1"))
    shown(page, "Compare with Take 1")
    page.keyboard.press("?")
    shown(page, "Keyboard")
    page.keyboard.press("Control+k")
    shown(page, "Find")
    page.get_by_role("button", name="Scene settings").click()
    shown(page, "Scene settings")
    for which, group in (("f", "Feel"), ("e", "After the last key")):
        page.keyboard.press(f"Control+Alt+{which}")
        expect(page.get_by_role("radiogroup", name=group)).to_be_visible()
        check(page, group)
        page.keyboard.press("Escape")
    page.keyboard.press("Control+Alt+r")
    expect(page.get_by_label("Find a rule")).to_be_visible()
    check(page, "rules")
    with enlarged(page):
        for one in (page.get_by_label("Find a rule"), page.get_by_role("button", name="Follow down a chain…")):
            expect(one).to_be_in_viewport(ratio=1)
    page.get_by_role("button", name="Link by hand…").click()
    shown(page, "Link by hand")
    expect(page.get_by_role("heading", name="Mango at frame 0"), "Escape closes the dialog and lets go of nothing else").to_be_visible()
    page.keyboard.press("Control+Alt+r")
    page.get_by_label("Find a rule").fill("bounce")
    page.keyboard.press("Enter")
    w.saved()
    check(page, "vine with a rule")
    page.keyboard.press("Control+Shift+a")
    page.keyboard.press("Control+c")
    page.keyboard.press("Control+Shift+V")
    shown(page, "Paste keys")
    for command, title in (("Make a parade of this…", "parade"), ("Hang on…", "What does Mango hang on?")):
        w.item("Mango").hover()
        w.item("Mango").get_by_role("button", name="More for Mango").click()
        check(page, "menu of an object")
        page.get_by_role("menuitem", name=command).click()
        shown(page, title)
    for kind, title in (("Ready element…", "Ready elements"), ("Figure that walks…", "figure"), ("Inset: a scene inside…", "inset")):
        page.get_by_role("button", name="Add to the picture").click()
        page.get_by_role("menuitem", name=kind).click()
        shown(page, title)
    page.get_by_role("button", name="Add a cue").click()
    shown(page, "cue")


#: Whether what has the focus, or what it is in, looks other than without the focus.
SHOWS_FOCUS = """() => {
  const one = document.activeElement;
  if (one === document.body) return true;
  const around = [one, one.parentElement, one.parentElement?.parentElement].filter(Boolean);
  const look = () => JSON.stringify(around.map((it) => {
    const { outline, boxShadow, borderColor, backgroundColor } = getComputedStyle(it);
    return [outline, boxShadow, borderColor, backgroundColor];
  }));
  const focused = look();
  one.blur();
  const plain = look();
  one.focus();
  return focused !== plain || one.outerHTML.slice(0, 200);
}"""


def test_the_focus_can_be_seen_wherever_tab_takes_it(page: Page, server: Server):
    opened(page, server.address, objects=[shape("Mango", x=keys((0, 100), (24, 900)))])
    page.evaluate("document.activeElement.blur()")
    unseen = []
    for _ in range(60):
        page.keyboard.press("Tab")
        seen = page.evaluate(SHOWS_FOCUS)
        if seen is not True:
            unseen.append(seen)
    assert not unseen


def test_little_motion_outside_the_picture_where_it_is_asked_for(browser: Browser, server: Server):
    context = browser.new_context(viewport={"width": 1280, "height": 800}, reduced_motion="reduce")
    page = context.new_page()
    w = opened(page, server.address, objects=[shape("Mango", x=keys((0, 100), (24, 900)))])
    slow = page.evaluate(
        """() => [...document.querySelectorAll('*')].flatMap((one) => {
          const { transitionDuration, animationName, animationDuration } = getComputedStyle(one);
          const moves = transitionDuration.split(',').some((it) => parseFloat(it) > 0.01)
            || (animationName !== 'none' && parseFloat(animationDuration) > 0.01);
          return moves ? [one.outerHTML.slice(0, 120)] : [];
        })"""
    )
    assert not slow
    # The picture is what one came for: it plays.
    page.keyboard.press("Space")
    expect(page.get_by_label("Frame", exact=True)).not_to_have_value("0")
    page.keyboard.press("Space")
    assert w.frame() > 0
    context.close()


def test_fingers_move_a_thing_and_two_of_them_the_picture(browser: Browser, server: Server):
    context = browser.new_context(viewport={"width": 1280, "height": 800}, has_touch=True)
    page = context.new_page()
    page.add_init_script(WITHOUT_TRANSITIONS)
    w = opened(page, server.address, objects=[shape("Mango", x=400, y=300, width=160, height=160)])
    page.keyboard.press("m")
    touch = context.new_cdp_session(page)

    def fingers(kind: str, *points: tuple[float, float]) -> None:
        at = [{"x": x, "y": y, "id": n} for n, (x, y) in enumerate(points)]
        touch.send("Input.dispatchTouchEvent", {"type": f"touch{kind}", "touchPoints": at})

    x, y = w.on_screen(400, 300)
    fingers("Start", (x, y))
    for step in range(1, 9):
        fingers("Move", (x + 10 * step, y))
    fingers("End")
    w.saved()
    moved = w.channel("Mango", "x")["base"]
    # Give or take what it snaps to.
    assert abs(moved - 400 - 80 * 1280 / w.canvas()["width"]) < 15
    # Two fingers that part zoom, and go on to pan; what the first one took hold of stays where it is.
    before = w.canvas()
    x, y = w.on_screen(moved, 300)
    fingers("Start", (x, y))
    fingers("Start", (x, y), (x + 60, y))
    for step in range(1, 11):
        fingers("Move", (x - 3 * step, y), (x + 60 + 3 * step, y))
    w.painted()
    zoomed = w.canvas()
    assert zoomed["width"] / before["width"] == pytest.approx(2, rel=0.05)
    for step in range(1, 11):
        fingers("Move", (x - 30, y + 5 * step), (x + 90, y + 5 * step))
    w.painted()
    assert w.canvas()["y"] - zoomed["y"] == pytest.approx(50, abs=3)
    fingers("End")
    w.saved()
    assert w.channel("Mango", "x")["base"] == moved
    # The selection as large as there is room for, and back.
    page.locator(".stage").focus()
    page.keyboard.press("6")
    assert w.canvas()["width"] > 1.5 * before["width"]
    page.keyboard.press("5")
    assert w.canvas()["width"] == pytest.approx(before["width"], abs=1)
    # A leaf on the time sheet slides under a finger.
    page.keyboard.press("m")
    w.item("Mango").click()
    w.row("Travel").get_by_role("button").last.click()
    w.saved()
    leaf = w.leaf("Mango", "Travel", 0).bounding_box()
    x, y = leaf["x"] + leaf["width"] / 2, leaf["y"] + leaf["height"] / 2
    fingers("Start", (x, y))
    for step in range(1, 9):
        fingers("Move", (x + 12 * step, y))
    fingers("End")
    w.saved()
    assert w.keys("Mango", "x")[0][0] > 4
    page.locator(".stage").focus()
    # Held Z, a drag moves the picture about and picks nothing.
    page.keyboard.down("z")
    w.drag_in_picture((900, 600), (1000, 600))
    page.keyboard.up("z")
    assert w.canvas()["x"] - before["x"] == pytest.approx(100 * before["width"] / 1280, abs=2)
    context.close()
