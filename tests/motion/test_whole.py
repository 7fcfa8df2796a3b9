"""Channels that count: they go smoothly from key to key, and are read as whole numbers."""

import numpy as np
import pytest

from tests.motion.scenes import channel, scene, shape, text
from vine_swing.motion import bake
from vine_swing.motion.basics.specs import PICTURE_CHANNELS, SHAPE_CHANNELS, limited, within
from vine_swing.motion.parade.channels import PARADE_CHANNELS
from vine_swing.picture.drawable import drawn_scene

POINTS = SHAPE_CHANNELS["star"]["points"]


@pytest.mark.parametrize(
    ("spec", "value", "read"),
    [
        (POINTS, 4.4, 4),
        (POINTS, 4.6, 5),
        (POINTS, -8.0, 3),
        (POINTS, 1e6, 200),
        (PARADE_CHANNELS["count"], 4.9, 4),
        (PARADE_CHANNELS["count"], -0.5, 0),
        (PICTURE_CHANNELS["page"], -0.2, -1),
        (PICTURE_CHANNELS["page"], 2.99, 2),
        (SHAPE_CHANNELS["star"]["inner"], 0.7, 0.7),
    ],
)
def test_what_counts_is_read_whole_and_within_its_limits(spec, value, read):
    assert within(spec, value) == read
    assert limited(spec, np.array([value])).tolist() == [read]


def test_what_does_not_count_and_has_no_limits_is_read_as_it_is():
    values = np.array([0.25, 7.5])
    assert limited(SHAPE_CHANNELS["star"]["x"], values) is values


def test_a_star_is_drawn_once_for_each_number_of_its_corners():
    made = scene(shape("star", type="star", points=channel((0, 3, "linear"), (400, 23)), width=100.0, height=100.0), length=401)
    baked = bake(made)
    track = drawn_scene(baked).things["star"].outline
    assert len(track.outlines) == 21
    corners = [len(track.series.at(frame).points) // 2 for frame in range(401)]
    assert corners == np.round(baked.objects["star"].channels["points"]).astype(int).tolist()


def test_copies_come_one_by_one():
    row = {
        "id": "row",
        "name": "Row",
        "kind": "parade",
        "channels": {"count": channel((0, 0, "linear"), (30, 3)).model_dump(mode="json", by_alias=True)},
    }
    parade = bake(scene(row, text("Mail") | {"parent": "row"}, length=31)).parades["row"]
    shown = (parade.places.opacity > 0).sum(axis=0)
    assert shown.tolist() == [frame // 10 for frame in range(31)]
