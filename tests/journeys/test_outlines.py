"""Outlines: drawn by hand, edited point by point, keyed, combined and moved by rules."""

import math
import re

import pytest
from playwright.sync_api import Page, expect

from tests.journeys.scenes import opened, shape
from tests.journeys.servers import Server
from tests.journeys.workspace import Workspace

BLOB = "M 0 -80 C 50 -80 90 -40 90 0 C 90 50 40 80 0 80 C -50 80 -90 40 -90 0 C -90 -50 -40 -80 0 -80 Z"


def outlined(name: str, d: str, **channels) -> dict:
    return shape(name, **channels) | {"shape": {"type": "outline", "d": d}}


def tool(w: Workspace, name: str) -> None:
    w.page.get_by_role("button", name=name, exact=True).click()


def draw_freely(w: Workspace, places: list[tuple[float, float]]) -> None:
    """Hold the button and go along some places of the picture."""
    w.page.mouse.move(*w.on_screen(*places[0]))
    w.page.mouse.down()
    for place in places[1:]:
        w.page.mouse.move(*w.on_screen(*place))
    w.page.mouse.up()
    w.saved()


def ring(x: float, y: float, radius: float, count: int = 40) -> list[tuple[float, float]]:
    return [(x + radius * math.sin(2 * math.pi * n / count), y - 0.8 * radius * math.cos(2 * math.pi * n / count)) for n in range(count + 1)]


def object_named(w: Workspace, name: str) -> dict:
    return next(one for one in w.kept()["scene"]["objects"] if one["name"] == name)


def rename(w: Workspace, name: str) -> None:
    w.page.keyboard.press("r")
    field = w.page.get_by_role("textbox", name=re.compile("New name of"))
    field.fill(name)
    field.press("Enter")
    w.saved()


def outline_row(w: Workspace) -> None:
    w.row("Outline").locator(".label").click()


def ready_made(w: Workspace, name: str) -> None:
    w.page.get_by_role("button", name="Add a rule").click()
    w.page.get_by_role("button", name=name, exact=True).click()
    w.saved()


def test_a_character_is_drawn_and_a_leaf_cut_with_a_hole(workspace: Workspace):
    w, page = workspace, workspace.page
    tool(w, "Draw outlines")
    page.get_by_role("radio", name="Freely").click()
    # An uneven hand.
    draw_freely(w, [(x + 9 * math.sin(n * 0.7), y) for n, (x, y) in enumerate(ring(500, 360, 160, 90))])
    rename(w, "Body")
    body = object_named(w, "Body")["shape"]
    assert body["hand"]["closed"]
    # The fit is turned down afterwards: fewer points.
    page.keyboard.press("e")
    fit = page.get_by_role("toolbar", name="Points of the outline").get_by_role("slider", name="Tolerance")
    fit.fill("20")
    w.saved()
    assert object_named(w, "Body")["shape"]["d"].count("C") < body["d"].count("C")
    # Eyes by points: corners by clicks, smooth points by pulling, closed on the first.
    page.keyboard.press("b")
    page.get_by_role("radio", name="By points").click()
    corners = [(440, 320), (470, 290), (500, 320), (470, 350)]
    page.mouse.click(*w.on_screen(*corners[0]))
    w.drag_in_picture(corners[1], (490, 290))
    page.mouse.click(*w.on_screen(*corners[2]))
    page.mouse.click(*w.on_screen(*corners[3]))
    expect(page.get_by_role("toolbar", name="Draw an outline")).to_contain_text("4 points")
    page.mouse.click(*w.on_screen(*corners[0]))
    w.saved()
    rename(w, "Eye")
    assert re.fullmatch(r"M [-\d. ]+(C [-\d. ]+){2}(L [-\d. ]+)+Z", object_named(w, "Eye")["shape"]["d"])
    # A hole: the eye is cut out of the body, seen before it is made.
    w.pick("Body")
    page.keyboard.press("v")
    page.get_by_role("button", name="Combine…").click()
    dialog = page.get_by_role("dialog", name="Combine Body with others")
    dialog.get_by_role("radio", name="Cut out").click()
    dialog.locator("label", has_text="Eye").click()
    dialog.get_by_role("button", name="Combine", exact=True).click()
    w.saved()
    (only,) = w.kept()["scene"]["objects"]
    assert only["name"] == "Body"
    assert only["shape"]["d"].count("M") >= 2, "the hole is a part of its own"
    page.get_by_role("button", name=re.compile("^Undo")).click()
    w.saved()
    assert len(w.kept()["scene"]["objects"]) == 2


def test_points_are_moved_bent_added_cut_and_joined(page: Page, server: Server):
    square = outlined("Tile", "M -100 -80 L 100 -80 L 100 80 L -100 80 Z", x=640, y=360)
    w = opened(page, server.address, objects=[square])
    w.pick("Tile")
    # Without "key as I move" the shape itself is changed.
    page.keyboard.press("m")
    page.keyboard.press("e")
    expect(page.get_by_test_id("outline-point-3")).to_be_visible()
    w.drag_handle("outline-point-1", (30, 0))
    d = object_named(w, "Tile")["shape"]["d"]
    assert float(d.split(" ")[4]) > 130, "the second point went to the right"
    bar = page.get_by_role("toolbar", name="Points of the outline")
    bar.get_by_role("button", name="Smooth").click()
    w.saved()
    w.drag_handle("outline-out-1", (20, 30))
    assert object_named(w, "Tile")["shape"]["d"].count("C") == 2
    x, y = w.on_screen(640, 440)
    page.mouse.click(x, y)
    w.saved()
    expect(page.get_by_test_id("outline-point-4")).to_be_visible()
    # Two points of a box, nudged together, then removed.
    page.keyboard.press("Escape")
    w.drag_in_picture((500, 400), (660, 500))
    expect(bar).to_contain_text("2 points")
    page.keyboard.press("Shift+ArrowDown")
    w.saved()
    page.keyboard.press("Delete")
    w.saved()
    expect(page.get_by_test_id("outline-point-3")).to_have_count(0)
    page.get_by_test_id("outline-point-0").click()
    bar.get_by_role("button", name="Cut").click()
    w.saved()
    assert not object_named(w, "Tile")["shape"]["d"].endswith("Z")
    page.get_by_test_id("outline-point-0").click(force=True)
    page.keyboard.press("Escape")
    bar.get_by_role("button", name="All").click()
    bar.get_by_role("button", name="Join").click()
    w.saved()
    assert object_named(w, "Tile")["shape"]["d"].endswith("Z")


def test_a_circle_becomes_petals_a_saw_and_notches(page: Page, server: Server):
    w = opened(page, server.address, objects=[shape("Disc", x=640, y=360, width=240, height=240)])
    w.pick("Disc")
    outline_row(w)
    assert w.cards() == ["Shape", "Result"]
    ready_made(w, "Petals")
    assert w.cards() == ["Shape", "Ripple", "Result"]
    # The wave is pulled out in the picture, and one more wave.
    w.drag_handle("rule-amplitude", (0, -12))
    w.drag_handle("rule-waves", (6, 0))
    settings = object_named(w, "Disc")["rules"][0]["settings"]
    assert settings["amplitude"]["base"] > 30
    assert settings["waves"]["base"] >= 9
    page.get_by_role("button", name="Settings of Ripple").click()
    for wave in ("sawtooth", "square"):
        page.get_by_label("wave", exact=True).select_option(wave)
        w.saved()
    places = page.get_by_role("spinbutton", name="places", exact=True)
    places.fill("96")
    places.press("Enter")
    w.saved()
    page.keyboard.press("Escape")
    settings = object_named(w, "Disc")["rules"][0]["settings"]
    assert (settings["wave"], settings["places"]["base"]) == ("square", 96)
    # Another rule before it, by order: rounded petals are not petals of something round.
    ready_made(w, "Melting")
    assert w.cards() == ["Shape", "Ripple", "Taper", "Result"]
    assert [key["value"] for key in object_named(w, "Disc")["rules"][1]["settings"]["size"]["keys"]] == [1.0, 1.8]


def test_a_taper_is_keyed_held_by_a_copied_key_and_let_go_again(page: Page, server: Server):
    size = {"keys": [{"frame": 0, "value": 1}, {"frame": 20, "value": 0.4}]}
    bag = shape("Bag", "rectangle", [{"id": "t", "kind": "taper", "settings": {"size": size, "direction": -90}}], x=640, y=360, width=200, height=200)
    w = opened(page, server.address, objects=[bag])
    w.pick("Bag")
    leaf = w.leaf("Bag", "Taper size", 20)
    leaf.click()
    page.keyboard.press("Control+c")
    w.go_to("40")
    page.keyboard.press("Control+v")
    w.saved()
    keys = object_named(w, "Bag")["rules"][0]["settings"]["size"]["keys"]
    assert [(key["frame"], key["value"]) for key in keys] == [(0, 1), (20, 0.4), (40, 0.4)]
    w.leaf("Bag", "Taper size", 40).click()
    page.keyboard.press("Delete")
    w.saved()
    assert len(object_named(w, "Bag")["rules"][0]["settings"]["size"]["keys"]) == 2


def test_a_mouth_takes_three_shapes_on_twos_in_a_head_that_travels(page: Page, server: Server):
    head = shape("Head", x={"keys": [{"frame": 0, "value": 300}, {"frame": 48, "value": 900}]}, y=360, width=300, height=300)
    mouth = outlined("Mouth", "M -60 0 C -20 20 20 20 60 0 C 20 30 -20 30 -60 0 Z", fill="#D0365B") | {"parent": "head"}
    w = opened(page, server.address, objects=[head, mouth])
    # A double click opens what has points of its own to them.
    page.mouse.dblclick(*w.on_screen(300, 378))
    expect(page.get_by_test_id("outline-point-1")).to_be_visible()
    w.row("Outline").get_by_role("button").last.click()
    w.saved()
    for frame, by in ((12, 30), (24, -20)):
        w.go_to(str(frame))
        page.get_by_test_id("outline-point-0").click()
        w.drag_handle("outline-point-1", (0, by))
    keys = w.channel("Mouth", "outline")["keys"]
    assert [key["frame"] for key in keys] == [0, 12, 24]
    assert len({key["value"] for key in keys}) == 3
    outline_row(w)
    page.get_by_role("button", name="Add a rule").click()
    page.get_by_role("button", name=re.compile("^Steps")).click()
    w.saved()
    assert w.cards() == ["Keys", "Ends", "Steps", "Result"]
    assert object_named(w, "Mouth")["rules"][0]["channels"] == ["outline"]
    # What the morph does with its points can be told: the lines to the next key are shown, and one is drawn again.
    w.go_to("0")
    page.get_by_test_id("outline-point-0").click()
    target = page.get_by_test_id("outline-then-1").bounding_box()
    handle = page.get_by_test_id("outline-meet").bounding_box()
    middle = [(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2) for box in (handle, target)]
    w.drag(*middle)
    assert w.channel("Mouth", "outline")["keys"][0]["meets"] == [0, 1]
    page.get_by_role("button", name="Match automatically").click()
    w.saved()
    assert w.channel("Mouth", "outline")["keys"][0].get("meets") is None


def test_an_underline_draws_itself_and_a_flag_reads_the_wind(page: Page, server: Server):
    line = shape("Underline", "line", x=300, y=600, end_x=500)
    flag = shape("Flag", "rectangle", x=600, y=250, width=300, height=180)
    dials = [{"id": "wind", "name": "Wind", "channel": {"base": 20}}]
    w = opened(page, server.address, objects=[line, flag], dials=dials)
    w.pick("Underline")
    outline_row(w)
    ready_made(w, "Draws itself")
    to = object_named(w, "Underline")["rules"][0]["settings"]["to"]
    assert [(key["frame"], key["value"]) for key in to["keys"]] == [(0, 0), (24, 1)]
    w.go_to("12")
    expect(page.get_by_test_id("rule-to")).to_be_visible()
    w.drag_handle("rule-to", (40, 0))
    assert len(object_named(w, "Underline")["rules"][0]["settings"]["to"]["keys"]) == 3
    w.pick("Flag")
    outline_row(w)
    ready_made(w, "Flag in the wind")
    page.get_by_role("button", name="Settings of Ripple").click()
    page.get_by_role("button", name="Link amplitude").click()
    field = page.get_by_role("textbox", name="Formula of amplitude")
    field.fill("{Wind} * 2")
    field.press("Enter")
    w.saved()
    assert object_named(w, "Flag")["rules"][0]["settings"]["amplitude"]["formula"] == "{Wind} * 2"


def test_colours_are_kept_and_taken_from_the_picture(page: Page, server: Server):
    w = opened(page, server.address, objects=[shape("Mango", x=300, y=360, width=200, height=200, fill="#3F8F63"), shape("Nut", x=900, y=360)])
    w.pick("Mango")
    page.get_by_role("button", name="Fill fill: palette").click()
    page.get_by_role("button", name="Keep this one").click()
    w.saved()
    assert w.kept()["scene"]["palette"] == ["#3F8F63"]
    page.keyboard.press("Escape")
    w.pick("Nut")
    page.get_by_role("button", name="Fill fill: palette").click()
    page.get_by_role("button", name="Palette #3F8F63").click()
    w.saved()
    assert w.channel("Nut", "fill")["base"] == "#3F8F63"
    page.get_by_role("button", name="Fill fill: palette").click()
    page.get_by_role("button", name="Pick a colour from the picture").click()
    page.mouse.click(*w.on_screen(640, 100))
    w.saved()
    assert w.channel("Nut", "fill")["base"] == "#F7F2E7"


@pytest.mark.parametrize("how", ["outline", "line"])
def test_what_is_drawn_in_another_way_becomes_an_outline(page: Page, server: Server, how: str):
    w = opened(page, server.address, objects=[shape("Star", "star", x=640, y=360, stroke_width=12)])
    w.pick("Star")
    page.get_by_role("button", name="Convert to an outline" if how == "outline" else "Convert the stroke").click()
    w.saved()
    kept = object_named(w, "Star")["shape"]
    assert (kept["type"], kept["d"].count("M")) == ("outline", 1 if how == "outline" else 2)


def test_a_line_is_dashed_and_a_light_is_laid_onto_it(page, server):
    w = opened(
        page,
        server.address,
        length=24,
        objects=[
            shape("Box", "rectangle", x=400, y=360, width=400, height=400, fill="#808080", stroke="#000000", stroke_width=20),
            shape("Light", "rectangle", x=500, y=360, width=100, height=100, fill="#808080"),
        ],
    )
    look = page.get_by_role("group", name="Paint type")
    w.pick("Light")
    look.get_by_label("Blend mode").select_option("screen")
    w.saved()
    w.pick("Box")
    dashes = look.get_by_label("Dashes of the line")
    dashes.fill("30 x")
    dashes.press("Enter")
    expect(dashes).to_have_class(re.compile("wrong"))
    dashes.fill("40 40")
    dashes.press("Enter")
    w.saved()
    look.get_by_label("Ends of the line").select_option("butt")
    w.saved()
    kept = w.kept()["scene"]["objects"]
    assert kept[0]["line"] == {"cap": "butt", "join": "round", "dash": [40, 40]}
    assert kept[1]["blend"] == "screen"

    def grey(x, y):
        w.painted()
        return page.evaluate(
            "([x, y]) => { const c = document.querySelector('[data-testid=picture-canvas]');"
            " return c.getContext('2d').getImageData(x * c.width / 1280, y * c.height / 720, 1, 1).data[0] }",
            [x, y],
        )

    # By W3C's formula for screen: b + s - b * s.
    assert abs(grey(500, 360) - (0x80 + 0x80 - 0x80 * 0x80 / 255)) <= 1
    before = [grey(x, 165) for x in (220, 260)]
    assert sorted(one < 64 for one in before) == [False, True]
    # Half a turn of the dashes later, each dash is where a gap was.
    w.type_value("Dashes offset", "40")
    assert [one < 64 for one in before] == [grey(x, 165) >= 64 for x in (220, 260)]
