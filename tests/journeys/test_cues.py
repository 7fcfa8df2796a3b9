"""Cues through the page: made, played live with keys and clicks, recorded and written as keys."""

import re

import pytest
from playwright.sync_api import expect

from tests.journeys.scenes import opened, shape

RAISE = {"keys": [{"frame": 0, "value": 600, "ease": "slow-out-in"}, {"frame": 12, "value": 200}]}
BOB = {"keys": [{"frame": 20, "value": 300}, {"frame": 26, "value": 500}, {"frame": 32, "value": 300}]}


@pytest.fixture
def signals(page, server):
    flag = shape("Flag", "rectangle", x=300, y=RAISE, width=160, height=120, fill="#D0365B")
    owl = shape("Owl", x=900, y=BOB, width=160, height=160, fill="#8A6844")
    return opened(page, server.address, objects=[flag, owl], length=48)


def add_cue(w, name, first, last, key, who, **more):
    w.page.get_by_role("button", name="Add a cue").click()
    dialog = w.page.get_by_role("dialog", name="A new cue")
    dialog.get_by_label("name", exact=True).fill(name)
    for label, frame in (("First", first), ("Last", last)):
        field = dialog.get_by_role("spinbutton", name=f"{label} frame of the cue")
        field.fill(str(frame))
        field.press("Enter")
    dialog.get_by_label("key", exact=True).press(key)
    for box in dialog.get_by_role("group", name="Objects it moves").get_by_role("checkbox").all():
        box.uncheck()
    dialog.get_by_role("group", name="Objects it moves").get_by_text(who).click()
    if "click" in more:
        dialog.get_by_label("or a click on").select_option(label=more["click"])
    if "plays" in more:
        dialog.get_by_role("radio", name=more["plays"]).click()
    dialog.get_by_role("button", name="Add the cue").click()
    expect(dialog).to_have_count(0)


def colour_at(w, x, y):
    """What the picture shows at a point of the scene, as three numbers."""
    return w.page.evaluate(
        """([x, y]) => { const c = document.querySelector("[data-testid=picture-canvas]");
        return [...c.getContext("2d").getImageData(Math.round(x * c.width / 1280), Math.round(y * c.height / 720), 1, 1).data].slice(0, 3); }""",
        [x, y],
    )


FLAG, OWL = [0xD0, 0x36, 0x5B], [0x8A, 0x68, 0x44]


def shows(w, x, y, colour):
    w.page.wait_for_function(
        """([x, y, colour]) => { const c = document.querySelector("[data-testid=picture-canvas]");
        const d = c.getContext("2d").getImageData(Math.round(x * c.width / 1280), Math.round(y * c.height / 720), 1, 1).data;
        return colour.every((part, i) => Math.abs(part - d[i]) < 6); }""",
        arg=[x, y, colour],
        timeout=60_000,
    )


def test_cues_are_made_played_with_keys_and_clicks_and_laid_down(signals):
    w = signals
    add_cue(w, "Raise", 0, 12, "r", "Flag")
    add_cue(w, "Bob", 20, 32, "b", "Owl", click="Owl", plays="while held")
    kept = w.kept()["scene"]["cues"]
    assert [(one["name"], one["first"], one["last"], one["key"], one["click"], one["plays"]) for one in kept] == [
        ("Raise", 0, 12, "r", None, "once"),
        ("Bob", 20, 32, "b", "owl", "held"),
    ]
    w.go_to("0")
    w.page.get_by_role("button", name="Play live").click()
    bar = w.page.get_by_role("status", name="Playing live")
    expect(bar).to_contain_text("waiting for a press")
    shows(w, 300, 600, FLAG)
    w.page.keyboard.press("r")
    shows(w, 300, 200, FLAG)
    assert w.frame() == 0, "the playhead waits"
    # A click on the owl sets it off while the flag stays up: each at a time of its own.
    x, y = w.on_screen(900, 300)
    w.page.mouse.move(x, y)
    w.page.mouse.down()
    shows(w, 900, 560, OWL)
    w.page.mouse.up()
    shows(w, 900, 300, OWL)
    assert colour_at(w, 300, 200) == pytest.approx(FLAG, abs=6)
    expect(bar).to_contain_text("2 recorded")
    w.page.keyboard.press("Escape")
    expect(bar).to_have_count(0)
    dialog = w.page.get_by_role("dialog", name="Keep the performance as keys?")
    expect(dialog.get_by_role("listitem")).to_have_count(2)
    dialog.get_by_role("button", name="Lay down 2 presses").click()
    w.saved()
    scene = w.kept()["scene"]
    assert scene["length"] > 48
    laid = [frame for frame, _ in w.keys("Flag", "y")]
    assert laid[:2] == [0, 12]
    assert laid[2] == 48
    assert laid[-1] - laid[-2] == 12, "the very stretch of the cue"
    assert w.frame() == 48
    w.pick("Flag")
    w.go_to(str(int(laid[-1])))
    assert w.value("Travel y") == pytest.approx(200, abs=0.1)
    w.page.get_by_role("button", name="Undo").click()
    w.saved()
    assert [frame for frame, _ in w.keys("Flag", "y")] == [0, 12]


def test_a_press_is_answered_by_the_next_picture(signals):
    w = signals
    add_cue(w, "Raise", 11, 12, "r", "Flag")
    w.go_to("0")
    w.page.get_by_role("button", name="Play live").click()
    shows(w, 300, 600, FLAG)
    # Counted in the page itself: how many pictures pass from the press to the change.
    frames = w.page.evaluate(
        """() => new Promise((done) => {
        const c = document.querySelector("[data-testid=picture-canvas]"), at = () => c.getContext("2d").getImageData(c.width * 300 / 1280, c.height * 200 / 720, 1, 1).data[0];
        const before = at(); let count = 0;
        window.dispatchEvent(new KeyboardEvent("keydown", { key: "r", bubbles: true }));
        const look = () => (at() !== before ? done(count) : ++count > 60 ? done(count) : requestAnimationFrame(look));
        requestAnimationFrame(look);
        })"""
    )
    assert frames <= 1
    w.page.keyboard.press("Escape")
    w.page.get_by_role("button", name="Forget it").click()
    assert w.kept()["scene"]["length"] == 48


def test_a_cue_is_changed_and_deleted_and_says_what_is_wrong(signals):
    w = signals
    add_cue(w, "Raise", 0, 12, "r", "Flag")
    cues = w.page.get_by_role("region", name="Cues")
    cues.get_by_role("button", name=re.compile("Raise")).first.click()
    dialog = w.page.get_by_role("dialog", name="The cue Raise")
    field = dialog.get_by_role("spinbutton", name="First frame of the cue")
    field.fill("30")
    field.press("Enter")
    dialog.get_by_role("button", name="Keep it").click()
    expect(dialog.get_by_role("alert")).to_contain_text("before it begins")
    field.fill("6")
    field.press("Enter")
    dialog.get_by_label("key", exact=True).press("Space")
    dialog.get_by_role("button", name="Keep it").click()
    expect(dialog).to_have_count(0)
    cue = w.kept()["scene"]["cues"][0]
    assert (cue["first"], cue["key"]) == (6, "space")
    cues.get_by_role("button", name=re.compile("Raise")).first.hover()
    cues.get_by_role("button", name="More for the cue Raise").click()
    w.page.get_by_role("menuitem", name="Delete").click()
    w.saved()
    assert w.kept()["scene"]["cues"] == []
    expect(cues.get_by_role("button", name="Play live")).to_be_disabled()
