"""Every shortcut in the sheet of shortcuts is pressed, where it has something to do, and does something."""

import itertools
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.journeys.scenes import kept, keys, opened, shape
from tests.journeys.servers import Server
from tests.journeys.workspace import Workspace

DEMO = Path(__file__).resolve().parents[2] / "demo" / "scenes"
MOVES = keys((0, 200), (12, 500), (24, 300))
BLINK = {"id": "blink", "name": "Blink", "length": 12, "size": [100, 100], "objects": [shape("Eye", width=40, height=40)]}
SCENE = {
    "objects": [
        shape("Twig", "rectangle", x=900, y=500, width=80, height=40),
        {"id": "bud", "name": "Bud", "kind": "inset", "inset": {"scene": "blink"}, "channels": {"x": {"base": 1000}, "y": {"base": 200}}},
        shape("Frog", x=MOVES, y=400, width=90, height=90, rotation=keys((0, 0), (24, 90))) | {"tag": "#3D8B5F"},
        shape("Mango", x=700, y=200, width=80, height=80) | {"tag": "#3D8B5F"},
        {"id": "camera", "name": "Camera", "kind": "camera", "channels": {"x": {"base": 640}, "y": {"base": 360}}},
    ],
    "insets": [BLINK],
    "cues": [{"id": "hop", "name": "Hop", "first": 0, "last": 20, "objects": ["frog"], "key": "r"}],
}
#: All that is seen on the page, and what has the focus; messages come and follow themselves.
SEEN = """() => {
  const page = document.body.cloneNode(true);
  for (const one of page.querySelectorAll('.el-message, .latest')) one.remove();
  const fields = [...document.querySelectorAll('input, textarea')].map((field) => field.value).join('|');
  const focus = document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.id ?? '';
  return page.innerHTML + fields + focus + location.pathname;
}"""


def nothing(w: Workspace) -> None:
    pass


def pressed(*before: str) -> Callable[[Workspace], None]:
    """Some keys, pressed one after the other, each when the page is at rest again."""

    def press(w: Workspace) -> None:
        for key in before:
            w.page.keyboard.press(key)
            w.saved()

    return press


def looked(w: Workspace) -> None:
    """A keyed object moved for looking only."""
    pressed("m", "ArrowRight")(w)
    w.page.wait_for_timeout(200)


def drawn(w: Workspace) -> None:
    """An outline of two points, not finished."""
    w.page.keyboard.press("b")
    for at in ((400, 300), (500, 350)):
        w.page.mouse.click(*w.on_screen(*at))


def picked(name: str) -> Callable[[Workspace], None]:
    return lambda w: w.pick(name)


def inside(w: Workspace) -> None:
    w.pick("Bud")
    w.page.keyboard.press("h")
    expect(w.page.get_by_role("treeitem", name="Eye")).to_be_visible()
    w.saved()


@dataclass(frozen=True)
class Case:
    """A line of the sheet. before: what is done first, with Frog and its Travel picked at frame 5, or, if it goes on, on the page as the line before it
    left that: opening a page takes longer than all its keys."""

    says: str
    keys: tuple[str, ...]
    before: Callable[[Workspace], None] = nothing
    goes_on: bool = False


def case(says: str, keys: str, before: Callable[[Workspace], None] = nothing) -> Case:
    return Case(says, tuple(keys.split()), before)


def then(says: str, keys: str, before: Callable[[Workspace], None] = nothing) -> Case:
    return Case(says, tuple(keys.split()), before, goes_on=True)


ARROWS = ("ArrowLeft", "ArrowRight", "ArrowUp", "ArrowDown")
CASES = [
    case("Play or pause", "Space"),
    case("One frame back", ","),
    then("One frame on", "."),
    then("Previous key (Shift and ,)", "<"),
    then("Next key (Shift and .)", ">"),
    then("First frame of the play range", "Home"),
    then("Last frame of the play range", "End"),
    then("Type a frame", "f"),
    case("Loop playback: on or off", "l"),
    then("Zoom the time sheet in or out", "i o", pressed("i")),
    then("Show the whole scene on the time sheet", "u", pressed("i")),
    then("Show the selected keys on the time sheet", "y", pressed("Control+a")),
    then("Add or remove a marker; tap along during playback", "s"),
    then("Add or remove a key of the selected row", "k"),
    then("Key as I move: on or off", "m"),
    case("Key a trial change; finish a drawing", "Enter", looked),
    case("Remove the last point of the drawing", "Backspace", drawn),
    case("Cancel the trial change; deselect keys, then the object", "Escape"),
    case("Select every key of the row", "Control+a"),
    then("Select every key on this frame", "a", pressed("Home")),
    then("Select every key of the object", "Control+Shift+a"),
    case("Paste keys from the playhead on, or paste objects", "Control+v", pressed("Control+a", "Control+c", "End")),
    case("Cut the selected keys, or the selected objects", "Control+x"),
    case("Paste special: onto several objects", "Control+Shift+v", pressed("Control+a", "Control+c")),
    case("Choose the ease between keys", "Control+Alt+f"),
    case("Choose what happens before and after the keys", "Control+Alt+e"),
    case("Add a rule to the selected row", "Control+Alt+r"),
    case("Previous or next key of the selected row", "( )"),
    case("Select every unattached object", "Control+Alt+a"),
    then("Invert the selection", "Control+Alt+i"),
    case("Bring forward", "Alt+PageUp"),
    then("Send backward", "Alt+PageDown"),
    then("Bring to front", "Alt+Home"),
    then("Send to back", "Alt+End"),
    then("Lock against picking and moving in the picture, or unlock", "Control+Alt+l"),
    then("Group the selection", "Control+g"),
    case("Select all of the same kind", "Control+Alt+k"),
    case("Select all of the same colour", "Control+Alt+c"),
    case("Select all with the same tag", "Control+Alt+t"),
    case("Select the next object in the Troupe", "PageDown"),
    then("Select the previous object", "PageUp"),
    Case("Move by 1 px", ARROWS, picked("Mango")),
    Case("Move by 10 px", tuple(f"Shift+{arrow}" for arrow in ARROWS), goes_on=True),
    Case("Move the pivot by 1 px", tuple(f"Alt+{arrow}" for arrow in ARROWS), goes_on=True),
    then("Rotate by 1° left or right", "[ ]"),
    then("Rotate by 15° left or right", "{ }"),
    then("A little smaller, a little larger", "- ="),
    then("Rename", "r"),
    case("Duplicate", "Control+d"),
    then("Delete the selected keys or points, or the object", "Delete"),
    case("Go inside an inset", "h", picked("Bud")),
    case("Go back out", "Shift+h", inside),
    case("Whole stage or camera view", "c"),
    then("Fold or unfold Troupe, values, time sheet or vine", "1 2 3 4"),
    then("Zoom: fit the picture", "5", pressed("7")),
    then("Zoom to the selection", "6"),
    then("Zoom to 100 %", "7"),
    then("Pick and move", "v", pressed("p")),
    then("Move the pivot", "p"),
    then("Draw and bend paths", "w"),
    then("Draw outlines, by points or freely", "b"),
    then("Edit the points of an outline", "e"),
    then("Link: drag from the driver to the driven object", "d"),
    case("Big picture: hide or show all panels", "q"),
    case("Play live: cues wait for their keys", "x"),
    case("Onion skin: show or hide", "g"),
    then("Path and spacing: show or hide", "t"),
    then("Add an object", "n"),
    case("Undo", "Control+z", pressed("k")),
    case("Redo", "Control+Shift+z", pressed("k", "Control+z")),
    case("Redo", "Control+y", pressed("k", "Control+z")),
    case("Export", "Control+e"),
    case("Find by name", "Control+k"),
    case("Rehearsals: saved versions, to compare and restore", "Alt+r"),
    case("Sound: files, markers and the beat", "Alt+s"),
    case("Put motion on beats", "Alt+b"),
    case("Notes: what could be better about the motion", "Alt+n"),
    case("First scene: start, continue or close the guide", "F1"),
    case("Help: a guide by task, to read and to search", "Shift+F1"),
    case("This sheet", "?"),
]
#: What needs a figure, two scenes or a held key, and is pressed by the journeys below.
OTHERS = {
    "Previous or next pose of the figure's footsteps",
    "Joints: drag a figure's joints in its rest pose",
    "Copy the selected keys, or the selected objects",
    "Hold and drag to pan the picture",
}


@pytest.fixture
def seen(page: Page):
    """What is seen, once it is at rest."""

    def look(w: Workspace) -> str:
        w.painted()
        before = page.evaluate(SEEN)
        for _ in range(100):
            page.wait_for_timeout(60)
            now = page.evaluate(SEEN)
            if now == before:
                break
            before = now
        return before

    return look


def does_something(w: Workspace, seen: Callable[[Workspace], str], key: str) -> bool:
    """Whether the page is another one after a key is pressed: at once, or after the service has answered."""
    before = seen(w)
    w.page.keyboard.press(key.replace("Shift+a", "Shift+A").replace("Shift+v", "Shift+V").replace("Shift+z", "Shift+Z").replace("Shift+h", "Shift+H"))
    for _ in range(200):
        if w.page.evaluate(SEEN) != before:
            return True
        w.page.wait_for_timeout(50)
    return False


def ready(page: Page, address: str) -> Workspace:
    """A scene of its own, so that what other shortcuts did stays out of the way, on a page that remembers nothing: Frog and its Travel, at frame 5."""
    if page.url.startswith(address):
        page.evaluate("localStorage.clear()")
    w = opened(page, address, **SCENE)
    w.pick("Frog")
    w.row("Travel").locator(".label").click()
    w.go_to("5")
    w.page.locator(".stage").focus()
    w.saved()
    return w


def parts(count: int) -> list[list[Case]]:
    """The lines in this many parts, each about as long, that begin on pages of their own."""
    begin = [place for place, one in enumerate(CASES) if not one.goes_on]
    cuts = [begin[len(begin) * part // count] for part in range(count)] + [len(CASES)]
    return [CASES[first:last] for first, last in itertools.pairwise(cuts)]


@pytest.mark.parametrize("part", range(4))
def test_every_shortcut_does_something(page: Page, server: Server, seen, part: int):
    idle = []
    w: Workspace | None = None
    for one in parts(4)[part]:
        if w is None or not one.goes_on:
            w = ready(page, server.address)
        one.before(w)
        if one.before is not nothing:
            page.locator(".stage").focus()
        idle += [f"{key}: {one.says}" for key in one.keys if not does_something(w, seen, key)]
    assert idle == []


def test_the_sheet_lists_just_these(page: Page, server: Server):
    opened(page, server.address, **SCENE)
    page.locator(".stage").focus()
    page.keyboard.press("?")
    sheet = page.get_by_role("dialog", name="Keyboard shortcuts")
    expect(sheet.get_by_text("Play or pause")).to_be_visible()
    assert set(sheet.locator("dd").all_inner_texts()) == {one.says for one in CASES} | OTHERS


def test_what_is_copied_is_pasted_and_what_is_held_moves_the_picture(page: Page, server: Server, seen):
    w = ready(page, server.address)
    page.keyboard.press("Escape")
    w.pick("Mango")
    page.locator(".stage").focus()
    page.keyboard.press("Control+c")
    page.wait_for_timeout(300)
    page.keyboard.press("Control+v")
    expect(w.item("Mango 2")).to_be_visible()
    w.saved()
    page.keyboard.press("7")
    before, spot = seen(w), w.on_screen(640, 360)
    page.mouse.move(*spot)
    page.keyboard.down("z")
    page.mouse.down()
    page.mouse.move(spot[0] + 60, spot[1] + 40, steps=4)
    page.mouse.up()
    page.keyboard.up("z")
    assert seen(w) != before
    assert w.on_screen(640, 360) != spot


def test_a_figures_poses_and_joints(page: Page, server: Server, seen):
    page.goto(kept(server.address, DEMO, "Morning round"))
    w = Workspace(page, server.address)
    w.pick("Postie")
    w.go_to("60")
    for key in ("j", "v", ";", "'"):
        page.locator(".stage").focus()
        assert does_something(w, seen, key), key
