"""Scenes and exports that ask for too much are refused before they take it, in a sentence that says what is too much and what would fit."""

import re
import resource
import time

import pytest

LONGEST, MOST_MEMORY = 12.0, 500_000_000
MOVES = {"keys": [{"frame": 0, "value": 0}, {"frame": 90, "value": 40}]}
NOISE = {"id": "n", "kind": "noise", "channels": ["x", "y", "rotation", "scale.x", "scale.y", "skew"], "settings": {"octaves": 8}}


def shape(n: int, **fields) -> dict:
    return {"id": f"o{n}", "name": f"O{n}", "kind": "shape", "shape": {"type": "star"}, "channels": {}} | fields


def parades(*counts: int) -> list[dict]:
    """Parades within parades, and a star in the innermost."""
    rows = [
        {"id": f"p{n}", "name": f"P{n}", "kind": "parade", "parade": {}, "parent": f"p{n - 1}" if n else None, "channels": {"count": count}}
        for n, count in enumerate(counts)
    ]
    return [*rows, shape(0, parent=f"p{len(counts) - 1}", channels={"x": MOVES})]


SCENES = {
    "things that move for long": {"length": 20_000, "objects": [shape(n, channels={"x": MOVES, "y": MOVES}) for n in range(1500)]},
    "rules on many for long": {"length": 20_000, "objects": [shape(n, rules=[NOISE]) for n in range(400)]},
    "copies of copies": {"length": 240, "objects": parades(200, 200, 200)},
    "frames": {"length": 20_001},
    "a picture's size": {"size": [100_000, 100]},
    "an outline's data": {"objects": [shape(0, shape={"type": "outline", "d": "M 0 0 " + "L 1 1 " * 60_000})]},
}


@pytest.mark.parametrize("what", SCENES)
def test_a_scene_that_costs_too_much_is_refused_with_what_would_fit(client, what):
    before, began = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss * 1024, time.process_time()
    answer = client.post("/api/scenes", json=SCENES[what])
    assert answer.status_code == 422, answer.text[:300]
    assert re.search(r"at most|less than or equal|shorter|fewer", answer.json()["detail"]), answer.json()["detail"]
    assert time.process_time() - began < LONGEST
    assert resource.getrusage(resource.RUSAGE_SELF).ru_maxrss * 1024 - before < MOST_MEMORY
    assert client.get("/api/scenes").json()["scenes"] == []


@pytest.mark.parametrize(
    ("options", "says"),
    [
        ({"format": "mp4", "scale": 1000}, "scale"),
        ({"format": "mp4", "blur": 100_000}, "blur"),
        ({"format": "gif", "fps": 1e9}, "fps"),
    ],
)
def test_an_export_that_costs_too_much_is_refused(client, options, says):
    scene_id = client.post("/api/scenes", json={"objects": [shape(0, channels={"x": MOVES})]}).json()["id"]
    answer = client.post(f"/api/scenes/{scene_id}/exports", json={"formats": [options["format"]], "options": options})
    assert answer.status_code == 422, answer.text[:300]
    assert says in answer.json()["detail"]
    assert client.get("/api/exports").json() == []
