"""Copies of a parade bent by rules on outlines of the parade, or of its parent: each copy where it stands."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from functools import partial

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.baked import Element
from vine_swing.motion.baking.outlines import ReadOutlines, benders, drawn_series
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.baking.reading import Reader
from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.rows import rows_of
from vine_swing.motion.basics.specs import OUTLINE, limited
from vine_swing.motion.curves.series import OutlineSeries
from vine_swing.motion.outline.drawing import drawing_of
from vine_swing.motion.parade.arranging import Places
from vine_swing.motion.parade.frames import Layout
from vine_swing.motion.rules.bending import Box
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject

Array = NDArray[np.float64]


def bends_copies(scene: Scene, parade: SceneObject) -> bool:
    """Whether anything bends the copies of a parade."""
    return bool(parade.rules_on(OUTLINE)) or bool(benders(scene, parade))


def with_bent_copies(
    scene: Scene, parade: SceneObject, element: Element, own: Sequence[Element], layout: Layout, places: Places, grid: Array, reader: Reader
) -> tuple[Element, ...]:
    """Differences of each copy, with the outlines of all that is drawn of it bent.

    Args:
        scene, parade: which parade of which scene.
        element: what all copies share.
        own: what differs of each copy so far; none where nothing does.
        layout, places: at which frames copies read, and where they stand.
        grid: the frames of the parade, (m,): rules on it do not wait for its copies.
        reader: reads the scene there.
    """
    count = len(places.matrices)
    before = own or (Element({}, {}),) * count
    standing = [_standing({**element.objects, **before[k].objects}, layout.rows(k, len(grid)), places.matrices[k]) for k in range(count)]
    above = ([parade] if parade.rules_on(OUTLINE) else []) + benders(scene, parade)
    spaces = [(item, reader.filler.run(partial(reader.places.between, parade.id, item.id, grid[None]))) for item in above]
    boxes = {item.id: partial(_box_of, standing) if item is parade else partial(reader.outlines.box, item) for item in above}
    result = []
    for k in range(count):
        objects = dict(before[k].objects)
        for object_id, (series, there) in standing[k].items():
            read: ReadOutlines = partial(_nearest, series, grid)
            for entry, space in spaces:
                read = reader.outlines.bent_by(entry, read, partial(_rows_near, matrix.multiply(space, there), grid), boxes[entry.id])
            bent = read(grid)
            base = objects.get(object_id, element.objects[object_id])
            objects[object_id] = replace(base, bent=bent.compact(), bent_from=None)
        result.append(Element(objects, before[k].parades))
    return tuple(result)


def _row_near(grid: Array, t: Array) -> NDArray[np.intp]:
    """The rows of `grid` (m,) whose frames are nearest to frames t (n,): rules of timing read a copy where it is known."""
    result: NDArray[np.intp] = np.argmin(np.abs(t[:, None] - grid[None]), axis=1)
    return result


def _nearest(series: OutlineSeries, grid: Array, t: Array) -> OutlineSeries:
    return series if t is grid else series.read(_row_near(grid, t))


def _rows_near(values: Array, grid: Array, t: Array) -> Array:
    return values if t is grid or len(values) == 1 else values[_row_near(grid, t)]


def _standing(objects: Mapping[str, BakedObject], rows: NDArray[np.intp], place: Array) -> dict[str, tuple[OutlineSeries, Array]]:
    """The outline of each drawn object of a copy, and where it is in the parade's space, at the copy's own rows."""
    result = {}
    for object_id, obj in objects.items():
        shape = obj.source.drawn_shape
        if shape is None:
            continue
        if obj.bent is not None:
            series = obj.bent if len(obj.bent.which) == len(rows) else obj.bent.read(rows)
        else:
            drawing = drawing_of(shape, fine=True)
            values = [limited(obj.source.specs[name], _own_rows(obj.channels[name], rows)) for name in drawing.names]
            series = drawn_series(drawing, values, obj.source.name)
        result[object_id] = series, matrix.multiply(place, _own_rows(obj.world, rows))
    return result


def _own_rows(values: Array, rows: NDArray[np.intp]) -> Array:
    """Values at the rows of a copy. Some of what a copy has of its own is shared by all: such values represent the frames of all copies, which are
    more than those of one unless all read the same."""
    return values if len(values) == len(rows) else rows_of(values, rows)


def _box_of(standing: Sequence[Mapping[str, tuple[OutlineSeries, Array]]]) -> Box:
    """The bounds of all copies at the first of the frames."""
    boxes = []
    for copy in standing:
        for series, there in copy.values():
            outline = series.at(0)
            if len(outline.points):
                points = matrix.apply(there[:1], *outline.points.T)
                boxes.append((*points.min(axis=0), *points.max(axis=0)))
    if not boxes:
        return 0.0, 0.0, 0.0, 0.0
    low, high = np.min(boxes, axis=0)[:2], np.max(boxes, axis=0)[2:]
    return float(low[0]), float(low[1]), float(high[0]), float(high[1])
