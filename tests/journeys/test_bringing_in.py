"""Files through the page: a stamp drawn elsewhere comes in with a warning, is animated and leaves as animated SVG; wind measurements drive a vane."""

import math
import re

import numpy as np
from playwright.sync_api import Page, expect

from tests.formats.test_drawing import STAMP
from tests.journeys.scenes import keys, opened, shape
from tests.journeys.servers import Server
from tests.journeys.test_svg import SEEK
from tests.sounds import struck, wav


def brought(page: Page, name: str, data: bytes) -> None:
    """Choose a file, as from the menu."""
    page.get_by_label("Drawing, table, sound or scene to bring in").first.set_input_files([{"name": name, "mimeType": "", "buffer": data}])


def test_a_stamp_comes_in_is_animated_and_leaves_as_animated_svg(page: Page, server: Server, browser, tmp_path):
    w = opened(page, server.address, name="Stamp", size=[400, 320], length=24)
    brought(page, "stamp.svg", STAMP)
    report = page.get_by_role("dialog", name="Brought in: stamp.svg")
    for lost in ("filters", "scripts", "pictures that lie outside the file", "the font Wanderlust"):
        expect(report.get_by_text(lost)).to_be_visible()
    expect(report.get_by_role("list", name="Parts brought in").get_by_text("Toucan", exact=True)).to_be_visible()
    report.get_by_role("button", name="sun", exact=True).click()
    report.get_by_role("button", name="OK").click()
    w.saved()
    # Its sun is moved: from here to there in a second.
    w.key("Travel")
    w.go_to("23")
    w.type_value("Travel x", "100")
    w.saved()
    assert [frame for frame, _ in w.keys("sun", "x")] == [0, 23]
    (start, end) = (value for _, value in w.keys("sun", "x"))
    page.get_by_role("button", name="Export", exact=True).click()
    dialog = page.get_by_role("dialog", name="Export")
    dialog.get_by_text("Animated SVG", exact=True).click()
    with page.expect_download() as downloading:
        dialog.get_by_role("button", name="Export", exact=True).click()
    path = tmp_path / "stamp.svg"
    downloading.value.save_as(path)
    plain = browser.new_page()
    plain.goto(f"file://{path}")
    places = []
    for frame in (0, 23):
        plain.evaluate(SEEK, (frame + 1e-3) / 24)
        places.append(plain.evaluate("() => document.querySelector('[fill=\"#ffd700\"]').getCTM().e"))
    plain.close()
    assert places[1] - places[0] == end - start != 0 or abs(places[1] - places[0] - (end - start)) < 0.25
    # All of it is removed again by undo, the keys first.
    for _ in range(3):
        page.keyboard.press("Escape")
        page.keyboard.press("Control+z")
        w.saved()
    assert w.kept()["scene"]["objects"] == []


def test_wind_measurements_drive_a_weather_vane(page: Page, server: Server):
    w = opened(page, server.address, length=96, objects=[shape("Weather vane", "rectangle", x=640, y=360, width=200, height=20)])
    w.pick("Weather vane")
    chance = np.random.default_rng(4)
    rows = [(n * 0.05, 20 + 15 * math.sin(n / 9) + chance.uniform(-1, 1)) for n in range(80)]
    text = "time (s);wind\n" + "\n".join(f"{t:.2f};{v:.3f}".replace(".", ",") for t, v in rows)
    brought(page, "wind.csv", text.encode())
    dialog = page.get_by_role("dialog", name="Table: wind.csv")
    expect(dialog.get_by_role("combobox", name="Column of time")).to_contain_text("time (s)")
    dialog.get_by_role("combobox", name="What wind moves").select_option(label="Weather vane")
    dialog.get_by_role("combobox", name="Channel for wind").select_option(value="rotation")
    times = dialog.get_by_role("spinbutton", name="wind times")
    times.fill("2")
    times.press("Enter")
    expect(dialog.get_by_text("80 samples become 80 keys.")).to_be_visible()
    # The picture shows it before it is taken, and nothing is kept yet.
    page.wait_for_function("() => document.querySelector('[data-testid=picture-canvas]') !== null")
    assert w.keys("Weather vane", "rotation") == []
    dialog.get_by_label("few keys instead of noisy samples").check()
    within = dialog.get_by_role("spinbutton", name="How far from any sample the motion may pass")
    within.fill("4")
    within.press("Enter")
    expect(dialog.get_by_text("80 samples become 80 keys.")).to_have_count(0)
    dialog.get_by_role("button", name="Convert to keys").click()
    w.saved()
    found = w.keys("Weather vane", "rotation")
    assert 4 < len(found) < 40
    for second, value in rows[::10]:
        w.go_to(str(second * 24))
        w.shows("Rotation turn", 2 * value, 4.1)
    page.keyboard.press("Control+z")
    w.saved()
    assert w.keys("Weather vane", "rotation") == []


def test_a_lamp_glows_with_a_drum(page: Page, server: Server):
    w = opened(page, server.address, length=96, objects=[shape("Lamp", x=640, y=360, width=200, height=200, fill="#F2932B")])
    w.pick("Lamp")
    w.row("Opacity").locator(".label").click()
    strokes = [0.5, 1.5, 2.5]
    brought(page, "log drum.wav", wav(struck(strokes, 4, sound="log")))
    w.saved()
    page.get_by_role("region", name="Sound").get_by_role("button", name="Levels as keys…").click()
    dialog = page.get_by_role("dialog", name="Sound: log drum")
    expect(dialog.get_by_text("something begins 3 times")).to_be_visible()
    # The first column is the level, and it goes to what is picked.
    expect(dialog.get_by_role("combobox", name="Channel for level")).to_have_value("opacity")
    dialog.get_by_role("button", name="Convert to keys").click()
    w.saved()
    found = dict(w.keys("Lamp", "opacity"))
    for stroke in strokes:
        around = [found[frame] for frame in range(int(stroke * 24) - 1, int(stroke * 24) + 3)]
        assert max(around) > 0.9
        assert found[int(stroke * 24) - 3] < 0.1
        assert found[int(stroke * 24) + 14] < 0.5
    brought(page, "odd.mp3", b"no sound")
    expect(page.get_by_text("'odd.mp3' cannot be read as a sound")).to_be_visible()


def test_what_cannot_be_read_is_said_and_keys_of_another_scene_are_taken_over(page: Page, server: Server):
    w = opened(page, server.address, length=48, objects=[shape("Mango", x=keys((0, 10), (9, 90)))])
    brought(page, "bomb.svg", b'<!DOCTYPE svg [<!ENTITY a SYSTEM "x">]><svg xmlns="http://www.w3.org/2000/svg"><text>&a;</text></svg>')
    expect(page.get_by_text("declares entities")).to_be_visible()
    tracks = b'{"format": "vine-swing-keys", "tracks": [{"object": "Mango", "channel": "y", "keys": [{"frame": 0, "value": 3}, {"frame": 20, "value": 300}]}]}'
    brought(page, "other.keys.json", tracks)
    w.saved()
    expect(page.get_by_text("keys imported")).to_be_visible()
    assert w.keys("Mango", "y") == [(0, 3), (20, 300)]


def test_a_drawing_that_takes_long_shows_its_progress_and_can_be_stopped(page: Page, server: Server):
    w = opened(page, server.address, name="Vines", objects=[shape("Leaf")])
    path = f'<path d="M0 0{" l3 1 l-2 4" * 7_000}"/>'
    vines = f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 90 60">{path * 40}</svg>'
    brought(page, "vines.svg", vines.encode())
    importing = page.get_by_role("status", name="Importing files")
    expect(importing.get_by_text("vines.svg")).to_be_visible()
    expect(importing.get_by_text(re.compile(r"[1-9]\d? %"))).to_be_visible(timeout=30_000)
    importing.get_by_role("button", name="Stop").click()
    expect(importing.get_by_text("Stopped. Nothing was changed.")).to_be_visible()
    importing.get_by_role("button", name="OK").click()
    expect(importing).to_have_count(0)
    # The scene is unchanged, and can be worked on.
    w.pick("Leaf")
    w.type_value("Travel x", "77")
    w.saved()
    assert [one["name"] for one in w.kept()["scene"]["objects"]] == ["Leaf"]


def test_a_drawing_that_repeats_itself_without_end_is_refused_in_words(page: Page, server: Server):
    w = opened(page, server.address, name="Vines", objects=[shape("Leaf")])
    groups = "".join(f'<g id="l{n}"><use href="#l{n - 1}"/><use href="#l{n - 1}"/></g>' for n in range(1, 12))
    drawing = f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 90 60"><g id="l0"><rect width="3" height="2"/></g>{groups}</svg>'
    brought(page, "vines.svg", drawing.encode())
    importing = page.get_by_role("status", name="Importing files")
    expect(importing.get_by_text(re.compile("more than 3000 parts; join some of them"))).to_be_visible(timeout=30_000)
    assert [one["name"] for one in w.kept()["scene"]["objects"]] == ["Leaf"]
