"""The workspace in the smallest window it is made for: nothing lies over anything else at the top."""

import pytest

from tests.journeys.scenes import opened, shape


@pytest.mark.parametrize("size", [(1024, 700), (1130, 700), (1280, 800), (1920, 1080)])
def test_the_top_bar_has_room_for_all_it_holds(page, server, size):
    page.set_viewport_size({"width": size[0], "height": size[1]})
    w = opened(page, server.address, name="Letters for the far bank of the river", length=1200, objects=[shape("Leaf")])
    w.go_to("1199")
    boxes = (
        w.page.locator("header.top")
        .locator("button, a, .frame, .seconds")
        .evaluate_all(
            "all => all.map((one) => ({ name: one.ariaLabel || one.textContent.trim(), ...one.getBoundingClientRect().toJSON() })).filter((one) => one.width > 0)"
        )
    )
    boxes.sort(key=lambda box: box["left"])
    assert len(boxes) > 10
    assert boxes[-1]["right"] <= size[0]
    for left, right in zip(boxes, boxes[1:], strict=False):
        assert left["right"] <= right["left"] + 0.5, f"{left['name']} lies under {right['name']}"
