"""A scene of a thousand objects: only rows in view exist, and what is picked comes into view."""

import pytest
from playwright.sync_api import expect

from tests.journeys.scenes import opened, shape

COUNT = 1000


@pytest.fixture
def swarm(page, server):
    keys = [{"frame": 0, "value": 0}, {"frame": 24, "value": 90}]
    moths = [shape(f"Moth {n + 1}", x=20 + 30 * (n % 40), y=20 + 25 * (n // 40), width=12, height=12, rotation={"keys": keys}) for n in range(COUNT)]
    return opened(page, server.address, objects=moths)


def test_only_rows_in_view_exist_and_what_is_picked_comes_into_view(swarm):
    w = swarm
    troupe = w.page.get_by_role("region", name="Troupe").get_by_role("treeitem")
    lanes = w.page.locator(".lane.object")
    expect(w.item(f"Moth {COUNT}")).to_be_visible()
    assert troupe.count() < 120
    assert lanes.count() < 150
    # The hindmost is picked in the picture: both lists go to it.
    w.page.mouse.click(*w.on_screen(20, 20))
    expect(w.item("Moth 1")).to_be_in_viewport()
    expect(w.item("Moth 1")).to_have_attribute("aria-selected", "true")
    expect(w.leaf("Moth 1", "Rotation", 24)).to_be_in_viewport()
    expect(w.item(f"Moth {COUNT}")).to_have_count(0)
    # By the keyboard, one after the other, the line goes along.
    for _ in range(40):
        w.page.keyboard.press("PageUp")
    expect(w.item("Moth 41")).to_be_in_viewport()
    # Scrolled by hand, other lines come and none is missing.
    w.page.locator(".troupe .list").evaluate("list => (list.scrollTop = 36 * 500)")
    expect(w.item("Moth 500")).to_be_in_viewport()
    names = troupe.evaluate_all("all => all.map((one) => Number(one.ariaLabel.slice(5)))")
    assert names == list(range(names[0], names[0] - len(names), -1))
