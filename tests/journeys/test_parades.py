"""Parades: one animated thing becomes many, and stays changeable."""

import math
import re

import pytest
from playwright.sync_api import expect

from tests.journeys.scenes import opened, shape
from tests.journeys.test_cues import shows
from tests.pictures import numbered, saved

RED = [0xD0, 0x36, 0x5B]
GROWS = {"keys": [{"frame": 0, "value": 0, "ease": "overshoot"}, {"frame": 20, "value": 1}]}


def text(name, words, **channels):
    return shape(name, "text", **channels) | {"shape": {"type": "text", "text": words, "weight": 700}}


def make(w, name, arrangement, **fields):
    """Make a parade of an object in the dialog."""
    page = w.page
    w.item(name).hover()
    page.get_by_role("button", name=f"More for {name}", exact=True).click()
    page.get_by_role("menuitem", name="Make a parade of this").click()
    dialog = page.get_by_role("dialog", name=f"Parade of {name}")
    dialog.get_by_role("radio", name=arrangement).click()
    for label, value in fields.items():
        field = dialog.get_by_role("spinbutton", name=label.replace("_", " "), exact=True)
        field.fill(value)
        field.press("Enter")
    return dialog


def keep(w, dialog):
    dialog.get_by_role("button", name="Make the parade").click()
    expect(dialog).to_have_count(0)
    w.saved()


def copies(w, name="parade"):
    """How many copies the page has of the only parade, and how many frames each is behind."""
    w.painted()
    lanes = w.page.get_by_role("listitem", name=re.compile(r"^Copy \d+ of"))
    return [re.sub(r"\D", "", text) for text in lanes.locator("small").all_inner_texts()]


def thing(w, kind):
    return next(one for one in w.kept()["scene"]["objects"] if one["kind"] == kind)


def add_list(w, dialog, label):
    dialog.get_by_label("Add a list for").select_option(label=label)


def test_one_keyed_seal_becomes_six_with_own_numbers_and_colours(page, server):
    seal = shape("Seal", "star", x=200, y=90, width=70, height=70, points=12, inner=0.8, scale_x=GROWS, scale_y=GROWS)
    w = opened(page, server.address, objects=[seal, text("Number", "1", x=200, y=104, text_size=40, fill="#FFFFFF")], length=160)
    w.go_to("30")
    dialog = make(w, "Seal", "Column", How_many="6", Gap="30", Each_later_by="20")
    dialog.get_by_text("More objects to include").click()
    dialog.get_by_role("checkbox", name="Number").check()
    keep(w, dialog)
    assert copies(w) == ["", "20", "40", "60", "80", "100"]
    # Twenty apart is too slow: the second copy's lane is pulled to eight.
    lane = page.get_by_test_id("copy-lane-2").bounding_box()
    ruler = page.get_by_test_id("copy-lane-3").bounding_box()["x"] - lane["x"]
    at = (lane["x"] + 20, lane["y"] + 5)
    w.drag(at, (at[0] - 12 * ruler / 20, at[1]))
    assert thing(w, "parade")["channels"]["delay"]["base"] == 8
    assert copies(w) == ["", "8", "16", "24", "32", "40"]
    panel = page.get_by_role("group", name="Parade Seal parade")
    panel.get_by_label("Who begins").select_option(label="the last starts")
    w.saved()
    assert copies(w)[0] == "40"
    # Each its own number, and two colours in turn; a list that is too short says what becomes of it.
    panel.get_by_role("button", name="Lists").click()
    lists = page.get_by_role("dialog", name="Lists of Seal parade")
    add_list(w, lists, "Number: words")
    lists.get_by_role("button", name="Step").click()
    add_list(w, lists, "Seal: fill")
    lists.get_by_label("Seal: fill, copy 1").fill("#D0365B")
    lists.get_by_label("Seal: fill, copy 2").fill("#3F8F63")
    expect(lists).to_contain_text("2 rows for 6 copies: the list begins again")
    lists.get_by_label("Beyond the list of Seal: fill").select_option(label="keep the last value")
    expect(lists).to_contain_text("2 rows for 6 copies: the last row stays")
    lists.get_by_role("button", name="Keep the lists").click()
    expect(lists).to_have_count(0)
    w.saved()
    kept = thing(w, "parade")["parade"]["lists"]
    assert kept[0]["values"] == ["1", "2", "3", "4", "5", "6"]
    assert kept[1] | {"values": ["#D0365B", "#3F8F63"], "fill": "once", "channel": "fill"} == kept[1]
    # The second copy is pulled apart in the picture, and one undo brings it back.
    before = thing(w, "parade")["channels"]["gap"]["base"]
    w.drag_handle("parade-gap", (0, 20))
    assert thing(w, "parade")["channels"]["gap"]["base"] > before + 10
    page.get_by_role("button", name=re.compile("^Undo")).click()
    w.saved()
    assert thing(w, "parade")["channels"]["gap"]["base"] == before
    panel.get_by_role("button", name="Take apart").click()
    w.saved()
    objects = w.kept()["scene"]["objects"]
    assert [one["shape"]["text"] for one in objects if one["kind"] == "shape" and one["shape"]["type"] == "text"] == ["1", "2", "3", "4", "5", "6"]


def test_a_bar_chart_from_pasted_rows(page, server):
    bar = shape(
        "Bar",
        "rectangle",
        x=200,
        y=600,
        width=50,
        height=300,
        pivot_y=150,
        scale_y={"keys": [{"frame": 0, "value": 0, "ease": "slow-in"}, {"frame": 24, "value": 1}]},
    )
    w = opened(page, server.address, objects=[bar, text("Day", "day", x=200, y=640, text_size=24)], length=96)
    w.go_to("40")
    dialog = make(w, "Bar", "Row", How_many="5", Gap="60", Each_later_by="4")
    dialog.get_by_text("More objects to include").click()
    dialog.get_by_role("checkbox", name="Day").check()
    keep(w, dialog)
    page.get_by_role("button", name="Lists").click()
    lists = page.get_by_role("dialog", name="Lists of Bar parade")
    add_list(w, lists, "Day: words")
    add_list(w, lists, "Bar: size high")
    lists.get_by_label("How Bar: size high takes it").select_option(label="times")
    first = lists.get_by_label("Day: words, copy 1")
    first.focus()
    rows = "Mon\t0.4\nTue\t0.9\nWed\t0.25\nThu\t1\nFri\t0.6"
    first.evaluate(
        "(field, text) => { const data = new DataTransfer(); data.setData('text', text);"
        " field.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true })); }",
        rows,
    )
    expect(lists.get_by_label("Bar: size high, copy 4")).to_have_value("1")
    lists.get_by_role("button", name="Keep the lists").click()
    expect(lists).to_have_count(0)
    w.saved()
    kept = thing(w, "parade")["parade"]["lists"]
    assert kept[0]["values"] == ["Mon", "Tue", "Wed", "Thu", "Fri"]
    assert kept[1]["values"] == [0.4, 0.9, 0.25, 1, 0.6]
    # What does not fit is refused with a sentence, and nothing is lost.
    page.get_by_role("button", name="Lists").click()
    lists.get_by_label("Bar: size high, copy 2").fill("high")
    lists.get_by_role("button", name="Keep the lists").click()
    expect(page.get_by_role("alert").filter(has_text="row 2: 'high' is no number")).to_be_visible()
    expect(lists.get_by_label("Bar: size high, copy 3")).to_have_value("0.25")


def test_letters_drop_along_a_curve_and_lines_come_in_one_after_the_other(page, server):
    drop = {"keys": [{"frame": 0, "value": -200, "ease": "bounce"}, {"frame": 24, "value": 0}]}
    hill = shape("Hill", x=640, y=500, width=700, height=300, fill="#7FB791")
    lines = text(
        "Lines",
        "First the frogs\nthen the ants\nlast the sloth",
        x=400,
        y=200,
        text_size=40,
        opacity={"keys": [{"frame": 0, "value": 0}, {"frame": 12, "value": 1}]},
    )
    w = opened(page, server.address, objects=[hill, text("Word", "Post", x=640, text_size=60, y=drop), lines], length=96)
    w.go_to("24")
    keep(w, make(w, "Word", "Letters", Each_later_by="5"))
    assert copies(w) == ["", "5", "10", "15"]
    panel = page.get_by_role("group", name="Parade Word parade")
    panel.get_by_label("Along").select_option(label="Hill")
    w.saved()
    panel.get_by_role("checkbox", name="with the way").check()
    w.saved()
    kept = thing(w, "parade")
    assert (kept["parade"]["arrange"], kept["parade"]["turned"]) == ("letters", True)
    # Other words: as many copies as letters.
    w.pick("Word")
    words = page.get_by_role("group", name="Text", exact=True).get_by_label("Words")
    words.fill("Canopy")
    words.press("Control+Enter")
    w.saved()
    w.pick("Word parade")
    assert len(copies(w)) == 6
    keep(w, make(w, "Lines", "Lines", Each_later_by="12"))
    assert copies(w) == ["", "12", "24"]


def test_hypnotic_rings_close_their_loop(page, server):
    w = opened(page, server.address, objects=[shape("Blossom", "star", x=640, y=360, width=300, height=300, points=8)], length=48)
    dialog = make(w, "Blossom", "Nest", How_many="10", Each_later_by="0")
    keep(w, dialog)
    panel = page.get_by_role("group", name="Parade Blossom parade")
    panel.get_by_text("More differences between copies").click()
    panel.get_by_role("checkbox", name="go round").check()
    w.saved()
    panel.get_by_role("checkbox", name="grow by equal factors").check()
    w.saved()
    # Shift by all ten places from the first frame to the one after the last.
    w.key("Shift")
    w.go_to("48")
    w.type_value("Shift shift", "10")
    shots = []
    for frame in ("0", "48"):
        w.go_to(frame)
        w.painted()
        shots.append(page.get_by_test_id("picture-canvas").evaluate("(c) => c.toDataURL()"))
    assert shots[0] == shots[1]
    w.go_to("20")
    assert page.get_by_test_id("picture-canvas").evaluate("(c) => c.toDataURL()") != shots[0]
    # The count can be typed, and the copies follow.
    w.type_value("Copies count", "4")
    assert thing(w, "parade")["channels"]["count"]["base"] == 4
    w.type_value("Delay delay", "2")
    assert copies(w) == ["", "2", "4", "6"]


@pytest.mark.parametrize("arrangement", ["Ring"])
def test_ants_walk_around_a_ring(page, server, arrangement):
    w = opened(page, server.address, objects=[], length=48)
    page.get_by_role("button", name="Add to the picture").click()
    page.get_by_role("menuitem", name="Figure that walks").click()
    figures = page.get_by_role("dialog", name="New figure")
    figures.get_by_role("radio", name=re.compile("^Six legs")).click()
    figures.get_by_role("button", name="Add to the scene").click()
    w.saved()
    name = thing(w, "figure")["name"]
    keep(w, make(w, name, arrangement, How_many="8", Radius="220", Each_later_by="3"))
    assert len(copies(w)) == 8
    w.drag_handle("parade-radius", (0, -15))
    assert thing(w, "parade")["channels"]["radius"]["base"] > 235
    assert [one["kind"] for one in w.kept()["scene"]["objects"]].count("figure") == 1


def test_a_ready_list_is_put_in_and_gets_other_words(page, server):
    w = opened(page, server.address, objects=[], length=72)
    page.get_by_role("button", name="Add to the picture").click()
    page.get_by_role("menuitem", name="Ready element").click()
    page.get_by_role("dialog", name="Ready elements").get_by_role("button", name="Add List of texts").click()
    expect(w.item("List of texts")).to_have_attribute("aria-selected", "true")
    w.saved()
    page.get_by_role("button", name="Lists").click()
    lists = page.get_by_role("dialog", name="Lists of List of texts")
    lists.get_by_label("Line words: words, copy 2").fill("Wake the sloth")
    lists.get_by_role("button", name="Keep the lists").click()
    expect(lists).to_have_count(0)
    w.saved()
    assert thing(w, "parade")["parade"]["lists"][0]["values"] == ["Sort the letters", "Wake the sloth", "Fly at noon"]
    # Leaving one takes the parade away, and nothing else.
    page.get_by_role("button", name="Leave one").click()
    w.saved()
    assert [one["kind"] for one in w.kept()["scene"]["objects"]] == ["group", "shape", "shape"]


def test_a_cue_plays_a_parade(page, server):
    seal = shape("Seal", y={"keys": [{"frame": 0, "value": 0}, {"frame": 12, "value": -400}]}, fill="#D0365B") | {"parent": "row"}
    row = {"id": "row", "name": "Row", "kind": "parade", "channels": {"x": 200, "y": 600, "count": 3, "delay": 4, "gap": 200}}
    cues = [{"id": "up", "name": "Up", "first": 0, "last": 24, "objects": ["row"], "key": "r"}]
    w = opened(page, server.address, objects=[seal, row], cues=cues, length=48)
    page.get_by_role("button", name="Play live").click()
    for x in (200, 520, 840):
        shows(w, x, 600, RED)
    page.keyboard.press("r")
    # Each arrives, the last eight frames after the first.
    for x in (200, 520, 840):
        shows(w, x, 200, RED)
    assert w.frame() == 0, "the playhead waits"


def row_of(*parts, arrange="row", **channels):
    """A parade that is kept already, with its children."""
    row = {"id": "row", "name": "Row", "kind": "parade", "parade": {"arrange": arrange}, "channels": channels}
    return [row, *(part | {"parent": "row"} for part in parts)]


def test_one_copy_alone_is_red_and_more_are_pulled_out_of_a_ring(page, server):
    tile = shape("Tile", "rectangle", width=100, height=100, fill="#3F8F63")
    w = opened(page, server.address, objects=row_of(tile, x=200, y=360, count=3, gap=20))
    w.pick("Row")
    page.mouse.click(*w.on_screen(440, 360))
    panel = page.get_by_role("group", name="Parade Row")
    panel.get_by_text("One copy alone").click()
    expect(panel.get_by_role("spinbutton", name="Copy", exact=True)).to_have_value("3")
    panel.get_by_label("Values of this copy").select_option(label="Tile: fill")
    w.saved()
    field = panel.get_by_role("textbox", name="Copy 3, Tile: fill")
    field.fill("#D0365B")
    field.press("Enter")
    w.saved()
    assert thing(w, "parade")["parade"]["overrules"] == [{"copy": 2, "object": "tile", "channel": "fill", "value": "#D0365B"}]
    colours = "x => [...document.querySelector('[data-testid=picture-canvas]').getContext('2d').getImageData(x, 180, 1, 1).data].slice(0, 3)"
    assert [page.evaluate(colours, x * w.canvas()["width"] / 1280) for x in (200, 320, 440)] == [[63, 143, 99], [63, 143, 99], [208, 54, 91]]
    panel.get_by_role("button", name="Copy 3 like the others").click()
    w.saved()
    assert thing(w, "parade")["parade"]["overrules"] == []

    w = opened(page, server.address, objects=row_of(tile, arrange="ring", x=640, y=360, count=6, radius=200, arc=360))
    w.pick("Row")
    # From the middle between the last copy and the first, two steps of a sixth of the ring on.
    grip = page.get_by_test_id("parade-count").bounding_box()
    start = (grip["x"] + grip["width"] / 2, grip["y"] + grip["height"] / 2)
    middle = w.on_screen(640, 360)
    dx, dy = start[0] - middle[0], start[1] - middle[1]
    turn = math.radians(120)
    w.drag(start, (middle[0] + dx * math.cos(turn) - dy * math.sin(turn), middle[1] + dx * math.sin(turn) + dy * math.cos(turn)))
    assert thing(w, "parade")["channels"]["count"]["base"] == 8


def test_a_list_gives_each_copy_a_picture_of_its_own(page, server):
    w = opened(page, server.address)
    files = [{"name": f"{name}.png", "mimeType": "image/png", "buffer": saved(numbered(n), "PNG")} for n, name in enumerate(("ada", "bim", "cleo"))]
    page.get_by_label("Pictures to bring in").first.set_input_files(files[0])
    page.get_by_role("group", name="Pages").wait_for()
    w.saved()
    keep(w, make(w, "ada", "Row", How_many="3"))
    page.get_by_role("group", name="Parade ada parade").get_by_role("button", name="Lists").click()
    lists = page.get_by_role("dialog", name="Lists of ada parade")
    add_list(w, lists, "ada: page")
    lists.get_by_role("button", name="Pictures…").wait_for()
    lists.get_by_label("ada: page, copy 1").select_option("0")
    with page.expect_file_chooser() as chooser:
        lists.get_by_role("button", name="Pictures…").click()
    chooser.value.set_files(files[1:])
    expect(lists.get_by_label("ada: page, copy 3")).to_have_value("2")
    lists.get_by_role("button", name="Keep the lists").click()
    w.saved()
    (kept,) = thing(w, "parade")["parade"]["lists"]
    assert (kept["channel"], kept["values"]) == ("page", [0, 1, 2])
    assert len(next(one for one in w.kept()["scene"]["objects"] if one["kind"] == "picture")["picture"]["pictures"]) == 3
