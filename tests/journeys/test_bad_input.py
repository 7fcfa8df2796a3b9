"""What goes wrong is said in plain words on the page, and nothing is lost."""

import json
import re
import signal
import urllib.request

import pytest
from playwright.sync_api import expect

from demo.make import MAKERS
from tests.journeys.scenes import keys, shape
from tests.journeys.workspace import Workspace

GOOD = {"format": "vine-swing-scene", "version": 1, "name": "Good", "objects": []}


def mango(**key):
    shape = {"id": "m", "name": "Mango", "kind": "shape", "shape": {"type": "ellipse"}}
    return GOOD | {"objects": [shape | {"channels": {"x": {"keys": [{"frame": 0, "value": 1} | key]}}}]}


CASES = {
    "broken": ('{"format": "vine-swing-scene", ', "not JSON"),
    "not a scene": ('{"hello": 1}', "not a scene file"),
    "unknown field": (json.dumps(GOOD | {"wobble": 3}), "wobble: this field is unknown"),
    "NaN": (json.dumps(mango(value=float("nan"))), "NaN is not a number JSON knows"),
    "far key": (json.dumps(mango(frame=1e12)), "objects[0].channels.x.keys[0].frame: should be less than or equal to 1000000"),
    "bad path": (
        json.dumps(GOOD | {"objects": [{"id": "o", "name": "Hill", "kind": "shape", "shape": {"type": "outline", "d": "hello"}}]}),
        "'Hill'",
    ),
    "50 MB": (json.dumps(GOOD | {"name": "x" * 50_000_000}), "name: should have at most 80 characters"),
}


@pytest.mark.parametrize("case", CASES)
def test_a_bad_scene_file_is_refused_with_its_fault(page, demo_server, tmp_path, case):
    text, says = CASES[case]
    path = tmp_path / "bad.json"
    path.write_text(text)
    page.goto(demo_server.address)
    expect(page.get_by_role("link", name="Open Thrown mango")).to_be_visible()
    page.get_by_label("Scene file").set_input_files(path)
    expect(page.get_by_role("alert").filter(has_text=says)).to_be_visible()
    with urllib.request.urlopen(f"{demo_server.address}/api/scenes") as answer:
        assert len(json.load(answer)["scenes"]) == len(MAKERS), "only the shipped scenes are there"


def test_a_page_that_hears_nothing_of_another_catches_up_when_it_is_refused(workspace, page, server):
    w = workspace
    w.add("Ellipse", "Drop")
    # Its line to the service is there, and silent: as if the news were late.
    page.route_web_socket(re.compile("/watch"), lambda line: None)
    page.reload()
    w = Workspace(page, server.address)
    other = page.context.new_page()
    other.goto(page.url)
    second = Workspace(other, server.address)
    second.pick("Drop")
    second.type_value("Travel x", "111")
    w.pick("Drop")
    w.type_value("Travel y", "222")
    expect(page.get_by_text("Your last change was not made")).to_be_visible()
    assert w.value("Travel x") == 111
    assert w.channel("Drop", "y")["base"] == 360, "the refused change was not made"
    w.type_value("Travel y", "222")
    assert w.channel("Drop", "y")["base"] == 222
    assert w.channel("Drop", "x")["base"] == 111


def test_fields_refuse_what_is_no_number(workspace):
    w = workspace
    w.add("Ellipse", "Drop")
    field = w.value_field("Travel x")
    field.fill("soon")
    field.press("Enter")
    expect(field).to_have_attribute("aria-invalid", "true")
    field.press("Escape")
    expect(field).to_have_value("640.0")
    frame = w.page.get_by_label("Frame", exact=True)
    frame.fill("later")
    frame.press("Enter")
    expect(frame).to_have_attribute("aria-invalid", "true")
    w.type_value("Opacity opacity", "400")
    assert w.channel("Drop", "opacity")["base"] == 1


def test_a_server_that_is_gone_is_said_and_work_goes_on_when_it_is_back(workspace, server):
    w = workspace
    w.add("Ellipse", "Drop")
    server.stop(signal.SIGKILL)
    field = w.value_field("Travel x")
    field.fill("100")
    field.press("Enter")
    expect(w.page.get_by_text("server does not answer")).to_be_visible()
    expect(w.page.get_by_role("button", name="Scene settings")).to_contain_text("not saved")
    server.start()
    w.type_value("Travel x", "100")
    assert w.channel("Drop", "x")["base"] == 100


def test_a_scene_that_is_not_there(page, server):
    page.goto(f"{server.address}/scenes/nowhere")
    expect(page.get_by_role("heading", name="This scene is not on the Shelf")).to_be_visible()
    page.get_by_role("link", name="Go to the Shelf").click()
    expect(page.get_by_role("heading", name="The Shelf is empty")).to_be_visible()


def test_what_takes_long_says_so_and_can_be_stopped(workspace, page):
    w = workspace
    w.add("Ellipse", "Drop")
    # The service is as slow as it could be: it never answers.
    page.route("**/edits", lambda route: None)
    field = w.value_field("Travel x")
    field.fill("111")
    field.press("Enter")
    working = page.get_by_role("status").filter(has_text="Working it out")
    expect(working).to_contain_text(re.compile("[1-9] s"))
    working.get_by_role("button", name="Stop").click()
    expect(page.get_by_text("Stopped. Nothing was changed.")).to_be_visible()
    expect(working).to_have_count(0)
    expect(w.value_field("Travel x")).to_have_value("640.0")
    page.unroute("**/edits")
    w.type_value("Travel x", "111")
    assert w.channel("Drop", "x")["base"] == 111


def test_what_takes_long_is_told_after_the_shelf_was_read_late(page, server):
    reading, opening = [], []
    page.route("**/api/scenes", lambda route: reading.append(route))
    page.goto(server.address)
    expect(page.get_by_text("Looking at the Shelf…")).to_be_visible()
    page.route("**/api/bundles*", lambda route: opening.append(route))
    page.get_by_label("Scene file").set_input_files({"name": "good.json", "mimeType": "application/json", "buffer": json.dumps(GOOD).encode()})
    expect(page.get_by_text("Opening good.json…")).to_be_visible()
    with page.expect_response("**/api/scenes"):
        reading[0].continue_()
    expect(page.get_by_role("heading", name="The Shelf is empty")).to_be_visible()
    expect(page.get_by_text("Opening good.json…")).to_be_visible()
    expect(page.get_by_role("status").filter(has_text="Working it out")).to_be_visible()
    opening[0].continue_()
    expect(page.get_by_role("button", name="Scene settings")).to_contain_text("saved")


#: Notes what is informed of work while it is done, which may be for a moment only: its words, and how much is done.
TOLD = """() => {
  window.__told = { words: new Set(), shares: new Set() };
  const look = () => {
    const line = document.querySelector('.work[role=status]');
    if (line) window.__told.words.add(line.textContent);
    const share = line?.querySelector('progress')?.value;
    if (share !== undefined) window.__told.shares.add(share);
  };
  new MutationObserver(look).observe(document.body, { subtree: true, childList: true, attributes: true, characterData: true });
}"""


def test_what_takes_long_says_how_far_it_has_come(page, server):
    def moths(cards):
        rules = [{"id": f"s{n}", "kind": "spring", "channels": ["x"]} for n in range(cards)]
        many = [shape(f"Moth {n}", x=keys((0, 0), (400, n)), y=n, width=20, height=20) | {"rules": rules} for n in range(900)]
        data = {"format": "vine-swing-scene", "version": 1, "name": "Moths", "length": 1200, "objects": many}
        return {"name": "moths.json", "mimeType": "application/json", "buffer": json.dumps(data).encode()}

    page.goto(server.address)
    page.evaluate(TOLD)
    page.get_by_label("Scene file").set_input_files(moths(8))
    expect(page.get_by_role("button", name="Scene settings")).to_contain_text("saved")
    working = page.get_by_role("status").filter(has_text="Working it out")
    expect(working).to_have_count(0)
    words, shares = page.evaluate("[[...window.__told.words], [...window.__told.shares]]")
    assert any(re.search(r"Working it out.* [0-9.]+ s · [0-9]+ %", one) for one in words), words
    assert len(shares) > 1, "how much is done grows"
    # Giving it up leaves the Shelf as it is. It would take long enough on any machine for Stop to be pressed.
    page.goto(server.address)
    page.get_by_label("Scene file").set_input_files(moths(24))
    working.get_by_role("button", name="Stop").click()
    expect(page.get_by_text("Stopped. Nothing was changed.")).to_be_visible()
    page.reload()
    expect(page.get_by_role("article")).to_have_count(1)
