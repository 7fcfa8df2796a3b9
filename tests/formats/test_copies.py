"""The copies of parades in tables, and outlines as points."""

import csv
import io
import json

import numpy as np
import pytest

from tests.motion.scenes import channel, parade, scene, shape
from vine_swing.formats.outlines import write_outlines
from vine_swing.formats.table import write_csv
from vine_swing.motion.basics.errors import MotionError


def columns(one, **how):
    file = io.StringIO()
    write_csv(one, file, **how)
    file.seek(0)
    head, *rows = csv.reader(file)
    return {name: np.array([float(row[at]) for row in rows]) for at, name in enumerate(head) if "fill" not in name}


def test_every_copy_has_its_columns():
    ant = shape("ant", parent="p", x=channel((0, 0), (20, 40)), rotation=5)
    one = scene(ant, parade(settings={"arrange": "free"}, count=3, delay=4, x=100, y=20, spread_x=50, spread_y=7), length=24)
    found = columns(one, world=True)
    x = np.clip(2 * np.arange(24.0), 0, 40)
    for k in range(3):
        later = np.clip(2 * (np.arange(24.0) - 4 * k), 0, 40)
        np.testing.assert_allclose(found[f"Ant#{k}.x"], later)
        np.testing.assert_allclose(found[f"Ant#{k}.world.x"], 100 + 50 * k + later)
        np.testing.assert_allclose(found[f"Ant#{k}.world.y"], 20 + 7 * k)
        np.testing.assert_allclose(found[f"Ant#{k}.world.rotation"], 5)
    np.testing.assert_allclose(found["Ant.x"], x)


def test_copies_of_copies_are_named_by_both():
    dot = shape("dot", parent="q", y=channel((0, 0), (50, 50)))
    inner = parade("q", parent="p", settings={"arrange": "free"}, count=2, delay=3, spread_x=10)
    one = scene(dot, inner, parade("p", settings={"arrange": "free"}, count=2, delay=10, spread_x=100), length=40)
    found = columns(one, world=True)
    np.testing.assert_allclose(found["Dot#1#1.world.x"], 110)
    np.testing.assert_allclose(found["Dot#1#1.world.y"], np.clip(np.arange(40.0) - 13, 0, None))


def test_what_lists_change_is_the_copys_own():
    lists = [{"object": "bar", "channel": "height", "values": [10, 20, 30], "mode": "add"}]
    bar = shape("bar", parent="p", height=channel((0, 0), (10, 100)))
    found = columns(scene(bar, parade(settings={"lists": lists}, count=3, delay=2), length=12))
    np.testing.assert_allclose(found["Bar#2.height"], np.clip(10 * (np.arange(12.0) - 4), 0, 100) + 30)


def test_outlines_as_points():
    circle = shape("circle", width=channel((0, 100), (10, 200)), height=100)
    file = io.StringIO()
    write_outlines(scene(circle, length=11), file, places=8)
    data = json.loads(file.getvalue())
    assert data["frames"] == list(range(11))
    assert len(data["outlines"]["Circle"]) == 11
    last = np.array(data["outlines"]["Circle"][10])
    np.testing.assert_allclose(np.hypot(last[:, 0] / 100, last[:, 1] / 50), 1, atol=1e-3)
    with pytest.raises(MotionError, match="--places is 0"):
        write_outlines(scene(circle), io.StringIO(), places=0)
