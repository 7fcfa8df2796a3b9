"""Room to work: panels sized and folded away, the picture large, and everything found by its name."""

import re

import pytest
from playwright.sync_api import Page, expect

from tests.journeys.scenes import keys, opened, shape
from tests.journeys.servers import Server
from tests.journeys.workspace import Workspace


def edges_are_free(w: Workspace) -> bool:
    """Whether the page shows the picture, and nothing else, all along its edges."""
    return w.page.evaluate(
        """() => {
          const canvas = document.querySelector('[data-testid=picture-canvas]');
          const { left, top, right, bottom } = canvas.getBoundingClientRect();
          const stage = canvas.closest('.stage');
          for (let share = 0.01; share < 1; share += 0.02) {
            const [x, y] = [left + (right - left) * share, top + (bottom - top) * share];
            for (const [px, py] of [[x, top + 2], [x, bottom - 2], [left + 2, y], [right - 2, y]])
              if (!stage.contains(document.elementFromPoint(px, py))) return false;
          }
          return true;
        }"""
    )


def grown_to(w: Workspace, wide: float) -> None:
    """Wait until the picture is wider than this many px: it takes its new place in a frame of the browser after panels made room."""
    w.page.wait_for_function("(wide) => document.querySelector('[data-testid=picture-canvas]').getBoundingClientRect().width > wide", arg=wide)


@pytest.mark.parametrize("size", [(1024, 700), (1280, 800), (2560, 1440)])
def test_nothing_covers_the_picture_and_panels_make_room_for_it(page: Page, server: Server, size):
    page.set_viewport_size({"width": size[0], "height": size[1]})
    w = opened(page, server.address, objects=[shape("Mango", x=keys((0, 100), (24, 900)))])
    assert edges_are_free(w)
    small = w.canvas()["width"]
    page.get_by_role("separator", name="time sheet").dblclick()
    page.get_by_role("separator", name="vine").focus()
    page.keyboard.press("Enter")
    page.keyboard.press("Escape")
    page.keyboard.press("1")
    expect(page.get_by_role("region", name="Time sheet")).to_have_count(0)
    expect(page.get_by_role("region", name="Vine")).to_have_count(0)
    expect(page.get_by_role("region", name="Troupe")).to_have_count(0)
    grown_to(w, 1.2 * small)
    assert edges_are_free(w)
    # What was folded is still folded after the page was left; a click on its strip brings it back.
    page.reload()
    strip = page.get_by_role("separator", name="Bring the time sheet back")
    strip.click()
    expect(page.get_by_role("region", name="Time sheet")).to_be_visible()
    # The picture takes all there is, and gives it back.
    page.keyboard.press("q")
    expect(page.get_by_role("region", name="Time sheet")).to_have_count(0)
    grown_to(w, 1.3 * small)
    assert edges_are_free(w)
    page.keyboard.press("Space")
    expect(page.get_by_role("button", name="Pause")).to_be_visible()
    page.keyboard.press("Space")
    page.keyboard.press("Escape")
    expect(page.get_by_role("region", name="Time sheet")).to_be_visible()


def test_panels_are_sized_by_hand_and_by_keys(page: Page, server: Server):
    w = opened(page, server.address, objects=[shape("Mango")])
    edge = page.get_by_role("separator", name="troupe")
    box = edge.bounding_box()
    start = (box["x"] + 4, box["y"] + 100)
    w.drag(start, (start[0] + 90, start[1]))
    assert abs(page.get_by_role("region", name="Troupe").bounding_box()["width"] - 298) < 4
    edge.focus()
    page.keyboard.press("ArrowLeft")
    assert abs(page.get_by_role("region", name="Troupe").bounding_box()["width"] - 282) < 4
    # Dragged far past its least it folds; dragged back it opens again.
    box = edge.bounding_box()
    start = (box["x"] + 4, box["y"] + 100)
    w.drag(start, (start[0] - 240, start[1]))
    expect(page.get_by_role("region", name="Troupe")).to_have_count(0)
    w.drag((7, start[1]), (230, start[1]))
    expect(page.get_by_role("region", name="Troupe")).to_be_visible()


def test_everything_is_found_by_its_name(page: Page, server: Server):
    wobble = {"id": "w", "kind": "oscillator", "channels": ["rotation"], "settings": {"amplitude": 5}}
    objects = [shape("Mango"), shape("Mill wheel", rules=[wobble]), shape("Moss")]
    dials = [{"id": "wind", "name": "Wind", "channel": {"base": 0.4}}]
    cues = [{"id": "land", "name": "Landing", "first": 12, "last": 30, "objects": ["mango"], "key": "l"}]
    w = opened(page, server.address, objects=objects, dials=dials, cues=cues)

    def find(text: str) -> None:
        page.keyboard.press("Control+k")
        field = page.get_by_role("combobox", name="Search text")
        expect(field).to_be_focused()
        field.fill(text)
        field.press("Enter")
        expect(field).to_have_count(0)
        w.painted()

    heading = page.get_by_role("heading", name=re.compile(" at frame "))
    find("mill")
    expect(heading).to_have_text(re.compile("^Mill wheel at frame"))
    find("oscillator freq")
    assert "Oscillator" in w.cards()
    find("wind")
    expect(heading).to_have_text(re.compile("^Wind at frame"))
    find("17")
    assert w.frame() == 17
    find("landing")
    assert w.frame() == 12
    # A command says its keys, and is done.
    page.get_by_role("button", name="Find anything").click()
    page.get_by_role("combobox", name="Search text").fill("big picture")
    first = page.get_by_role("listbox", name="Found").get_by_role("option").first
    expect(first).to_contain_text("Q")
    first.click()
    expect(page.get_by_role("region", name="Troupe")).to_have_count(0)
    page.keyboard.press("q")
    # Long menus are searched by typing, too.
    w.pick("Mango")
    w.row("Rotation").locator(".label").click()
    page.get_by_role("button", name="Add a rule").click()
    page.get_by_label("Find a rule").fill("pendul")
    page.get_by_label("Find a rule").press("Enter")
    w.saved()
    assert "Pendulum" in w.cards()
