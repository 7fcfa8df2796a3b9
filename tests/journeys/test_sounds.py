"""Sounds through the page: a drum loop is heard in step, moved and trimmed; motion follows it; a walk keeps step; the film is heard."""

import io
import json
import urllib.request

import av
import numpy as np
from playwright.sync_api import Page, expect

from tests.formats.test_soundtrack import strokes
from tests.journeys.scenes import keys, opened, shape
from tests.journeys.servers import Server
from tests.journeys.test_bringing_in import brought
from tests.journeys.test_figures import begin
from tests.motion.test_beats import landings
from tests.sounds import struck, wav
from vine_swing.motion import bake
from vine_swing.motion.scene.scene_file import from_data

#: A loop of two seconds: a stroke every half second.
LOOP = wav(struck([0.0, 0.5, 1.0, 1.5], 2, sound="log"))
#: Writes down what is asked for of Web Audio, and what is seen at which moment of what is heard.
LISTEN = """
  window.asked = []; window.seen = [];
  const start = AudioBufferSourceNode.prototype.start;
  AudioBufferSourceNode.prototype.start = function (...how) {
    window.asked.push(how);
    window.heard = this.context;
    return start.apply(this, how);
  };
  const look = () => {
    const frame = document.getElementById('frame-field');
    if (window.heard && frame) {
      const now = window.heard.currentTime - (window.heard.outputLatency || 0);
      // Read once the page has done its part of this turn of the browser.
      setTimeout(() => window.seen.push([now, Number(frame.value), window.heard.currentTime]));
    }
    requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
"""


def sound_of(w, at=0):
    return w.kept()["scene"]["sounds"][at]


def filed(w):
    """The scene, with the contents of its sounds."""
    with urllib.request.urlopen(f"{w.address}/api/scenes/{w.scene_id}/file") as answer:
        return from_data(json.load(answer))


def panel(page: Page):
    return page.get_by_role("region", name="Sound", exact=True)


def test_a_drum_loop_is_heard_in_step_at_play_scrub_and_loop_and_moved_on_the_sheet(page: Page, server: Server):
    page.add_init_script(LISTEN)
    w = opened(page, server.address, length=48, objects=[shape("Mango", x=keys((0, 100), (47, 900)), y=300)])
    brought(page, "drum loop.wav", LOOP)
    w.saved()
    lanes = page.get_by_role("list", name="Sounds")
    box = lanes.get_by_role("button", name="Move drum loop: begins at frame 0")
    expect(box).to_be_visible()
    expect(panel(page).get_by_text("2.0 s, frames 0 to 48 · about 120 beats a minute")).to_be_visible()
    # Its picture is high where it is struck, and flat before the next stroke.
    page.wait_for_function("() => document.querySelector('[aria-label=Sounds] canvas')?.width > 500")
    page.wait_for_function("""() => {
      const at = document.querySelector('[aria-label=Sounds] canvas');
      const rows = at.getContext('2d').getImageData(0, 0, at.width, at.height).data;
      const high = (x) => Array.from({ length: at.height }, (_, y) => rows[4 * (y * at.width + x) + 3] > 0).filter(Boolean).length;
      const stroke = Math.max(...Array.from({ length: 20 }, (_, n) => high(22 + n)));
      return stroke > 8 && high(Math.round(at.width * 0.24)) < stroke / 2;
    }""")

    page.get_by_role("button", name="Play", exact=True).click()
    page.wait_for_function("() => window.asked.length >= 3", timeout=180_000)
    # Taken while it plays: afterwards the frame is still, and what is heard goes on being counted.
    asked, seen = page.evaluate("[window.asked, window.seen]")
    page.get_by_role("button", name="Pause", exact=True).click()
    seen = np.array(seen)
    begun = asked[0][0]
    # Round after round without a gap, all of the loop each time.
    np.testing.assert_allclose([one[0] - begun for one in asked[:3]], [0, 2, 4], atol=1e-3)
    assert [one[1:] for one in asked[:3]] == [[0, 2]] * 3
    before, after = ((seen[:, column] - begun) * 24 for column in (0, 2))
    playing = (before > 2) & (after < 90)
    # What is seen is a frame that was heard while it was painted, or the one beside it, however slowly the page is painted.
    seen_at, first, last = seen[playing, 1], np.floor(before[playing]) - 1, np.floor(after[playing]) + 1
    assert playing.sum() > 5
    assert ((seen_at - first) % 48 <= last - first).all(), np.stack([first, seen_at, last], axis=1)
    # A frame that is missing to is heard too.
    before = len(page.evaluate("window.asked"))
    w.go_to("24")
    page.wait_for_function(f"() => window.asked.length > {before}")
    assert page.evaluate("window.asked")[-1][1] == 1.0

    place = box.bounding_box()
    per_frame = place["width"] / 48
    end = lanes.get_by_role("button", name="End of drum loop").bounding_box()
    at = (end["x"] + 4, end["y"] + 11)
    w.drag(at, (at[0] - 12 * per_frame, at[1]))
    assert abs(sound_of(w)["end"] - 1.5) < 0.1
    middle = (place["x"] + place["width"] / 4, place["y"] + place["height"] / 2)
    page.keyboard.down("Alt")
    w.drag(middle, (middle[0] + 6 * per_frame, middle[1]))
    page.keyboard.up("Alt")
    assert sound_of(w)["first"] == 6
    beginning = lanes.get_by_role("button", name="Beginning of drum loop")
    beginning.focus()
    for _ in range(3):
        page.keyboard.press("ArrowRight")
        w.saved()
    trimmed = sound_of(w)
    assert (trimmed["first"], round(trimmed["begin"] * 24)) == (9, 3)
    lanes.get_by_role("button", name="Mute drum loop").click()
    w.saved()
    assert not sound_of(w)["on"]
    # An end beyond the scene is taken hold of at the scene's own, and trims from there.
    page.keyboard.down("Alt")
    w.drag(middle, (middle[0] + 20 * per_frame, middle[1]))
    page.keyboard.up("Alt")
    late = sound_of(w)
    assert late["first"] + 24 * (late["end"] - late["begin"]) > 48
    end = lanes.get_by_role("button", name="End of drum loop").bounding_box()
    at = (end["x"] + 4, end["y"] + 11)
    page.keyboard.down("Alt")
    w.drag(at, (at[0] - 6 * per_frame, at[1]))
    page.keyboard.up("Alt")
    cut = sound_of(w)
    assert round(cut["first"] + 24 * (cut["end"] - cut["begin"])) == 42
    # All of it can be taken back.
    for _ in range(9):
        page.keyboard.press("Control+z")
        w.saved()
    assert w.kept()["scene"]["sounds"] == []
    expect(lanes).to_have_count(0)


def test_a_bounce_on_its_beats_a_lamp_that_glows_with_it_and_markers_by_hand(page: Page, server: Server):
    lamp = shape("Lamp", x=900, y=200, width=120, height=120, fill="#F2932B")
    w = opened(page, server.address, length=96, objects=[lamp, shape("Ball", x=300, y=600, width=80, height=80)])
    w.pick("Ball")
    brought(page, "drum loop.wav", LOOP)
    w.saved()
    panel(page).get_by_role("button", name="Motion on its beats…").click()
    dialog = page.get_by_role("dialog", name="Motion on beats")
    dialog.get_by_role("combobox", name="Value to link").select_option(value="y")
    dialog.get_by_role("radio", name="Bounce").click()
    top = dialog.get_by_role("spinbutton", name="On the beat")
    top.fill("300")
    top.press("Enter")
    expect(dialog.get_by_text("4 beats within the scene.")).to_be_visible()
    dialog.get_by_role("button", name="Fit to the beats").click()
    w.saved()
    assert [(frame, value) for frame, value in w.keys("Ball", "y")][:3] == [(0, 600), (6, 300), (12, 600)]

    # A dial that follows the sound; the lamp reads it.
    panel(page).get_by_role("button", name="Dial from loudness").click()
    w.saved()
    expect(page.get_by_role("region", name="Values at this frame").get_by_text("it goes up and down with drum loop")).to_be_visible()
    dial = w.kept()["scene"]["dials"][0]
    assert (dial["name"], dial["follows"]["sound"], dial["follows"]["band"]) == ("drum loop level", sound_of(w)["id"], "all")
    fall = page.get_by_role("spinbutton", name="Seconds to fall")
    fall.fill("0.1")
    fall.press("Enter")
    w.saved()
    face, item = page.get_by_role("region", name="Dials").locator(".face").first.bounding_box(), w.item("Lamp").bounding_box()
    w.drag((face["x"] + 14, face["y"] + 14), (item["x"] + 60, item["y"] + 15))
    dialog = page.get_by_role("dialog", name="Link by hand")
    dialog.get_by_label("Channel that is driven").select_option("opacity")
    formula = dialog.get_by_label("Formula")
    expect(formula).not_to_have_value("")
    formula.fill("0.2 + 0.8 * {drum loop level}")
    dialog.get_by_role("button", name="Link", exact=True).click()
    expect(dialog).to_have_count(0)
    w.saved()
    glows = bake(filed(w))["Lamp", "opacity"]
    assert glows[:48].argmax() % 12 <= 1
    assert glows[12:15].max() > 0.6 > 0.45 > glows[22:24].max()

    # Markers: tapped where the playhead is; a leaf that is dragged near one goes onto it.
    page.keyboard.press("Escape")
    w.go_to("29")
    page.get_by_role("button", name="Pause", exact=True).or_(page.get_by_role("button", name="Play", exact=True)).focus()
    page.keyboard.press("s")
    w.saved()
    assert [one["frame"] for one in w.kept()["scene"]["markers"]] == [29]
    w.go_to("60")
    w.pick("Ball")
    page.get_by_role("button", name="Sound: 1 sound").focus()
    leaf = w.leaf("Ball", "Travel", 24)
    start = leaf.bounding_box()
    at = (start["x"] + start["width"] / 2, start["y"] + start["height"] / 2)
    per_frame = (w.leaf("Ball", "Travel", 36).bounding_box()["x"] - start["x"]) / 12
    w.drag(at, (at[0] + 5 * per_frame - 3, at[1]))
    assert 29 in [frame for frame, _ in w.keys("Ball", "y")]
    page.get_by_role("button", name="Marker at frame 29").focus()
    page.keyboard.press("ArrowRight")
    w.saved()
    assert [one["frame"] for one in w.kept()["scene"]["markers"]] == [30]


def test_a_walk_keeps_step_with_a_drum_and_both_are_in_the_film(page: Page, server: Server, tmp_path):
    w = opened(page, server.address, length=96, size=[640, 360])
    page.get_by_role("button", name="Sound: none yet").click()
    panel(page).get_by_role("button", name="+ Log drum").click()
    w.saved()
    kept = w.kept()["scene"]
    assert (kept["beat"]["minute"], kept["sounds"][0]["first"]) == (120, 0)
    panel(page).get_by_role("button", name="Close the sounds").click()
    begin(w, "Upright", "Postie")
    figure = page.get_by_role("group", name="Gait of Postie")
    figure.get_by_role("button", name="March", exact=True).click()
    w.saved()
    figure.get_by_role("checkbox", name="on the spot").check()
    w.saved()
    figure.get_by_role("button", name="Steps on beats…").click()
    beats = page.get_by_role("dialog", name="Motion on beats")
    expect(beats.get_by_role("radio", name="Steps")).to_be_checked()
    beats.get_by_role("button", name="Fit to the beats").click()
    w.saved()
    found = filed(w)
    figure_id = next(thing.id for thing in found.objects if thing.kind == "figure")
    lands = landings(found, figure_id)
    for beat in range(12, 84, 12):
        assert np.abs(lands - beat).min() <= 1

    page.get_by_role("button", name="Export", exact=True).click()
    export = page.get_by_role("dialog", name="Export")
    export.get_by_text("MP4 video", exact=True).click()
    expect(export.get_by_role("group", name="Sound")).to_be_visible()
    with page.expect_download() as downloading:
        export.get_by_role("button", name="Export", exact=True).click()
    path = tmp_path / "walk.mp4"
    downloading.value.save_as(path)
    np.testing.assert_allclose(strokes(path, 0.2), np.arange(8) * 0.5, atol=0.012)
    with av.open(io.BytesIO(path.read_bytes())) as film:
        assert len(list(film.decode(video=0))) == 96
