"""Inputs of a parade's arrangement: its element's size, the positions of a text's letters, its guide."""

from collections.abc import Mapping

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.baked import BakedInset, BakedParade, Element
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.baking.reading import Reader
from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.rows import shrunk
from vine_swing.motion.basics.specs import limited, within
from vine_swing.motion.curves.outline import CUBIC, MOVE, Outline
from vine_swing.motion.outline.drawing import drawing_of, middles_of_parts
from vine_swing.motion.outline.measured import MeasuredWay
from vine_swing.motion.parade.arranging import Surroundings
from vine_swing.motion.parade.model import TextPartName
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.shapes import TextShape

Array = NDArray[np.float64]


def surroundings_of(
    scene: Scene, obj: SceneObject, text: SceneObject | None, width: float, height: float, grid: Array, reader: Reader
) -> Surroundings:
    """Return the inputs of an arrangement at frames (m,).

    Args:
        scene: of the parade.
        obj: the parade.
        text: the text that is attached to it, if there is one.
        width, height: of its element.
        grid: the frames.
        reader: reads the scene.
    """
    parade = obj.copying
    assert parade is not None
    guide = scene.by_id.get(parade.guide) if parade.guide is not None else None
    points: Array | None = None
    by = parade.text_part
    if by is not None:
        points = _text_points(text, by, grid, reader) if text is not None else np.empty((0, 2))
    elif parade.arrange == "points":
        points = _corner_points(guide, obj, grid, reader) if guide is not None else np.empty((0, 2))
    if guide is None or (by is None and parade.arrange != "along"):
        return Surroundings(width, height, points)
    way = MeasuredWay.of_path(guide.channels["path"]) if guide.is_keyed("path") else _way_of_shape(guide, reader)
    if way is None:
        return Surroundings(width, height, points)
    # A path is in the space of what its object is attached to, an outline in the object's own.
    carrier = guide.parent if guide.is_keyed("path") else guide.id
    there = _between(carrier, obj.id, grid, reader)

    def at(share: Array) -> tuple[Array, Array, Array]:
        place, direction = way.at(share)
        a, b, c, d, e, f = (column[None, :] for column in there.T)
        x, y = place[..., 0], place[..., 1]
        dx, dy = direction[..., 0], direction[..., 1]
        return a * x + c * y + e, b * x + d * y + f, np.degrees(np.arctan2(b * dx + d * dy, a * dx + c * dy))

    return Surroundings(width, height, points, at, way.closed, way.length)


def measured(element: Element) -> tuple[float, float, float, float]:
    """left, top, right, bottom of what is drawn of an element, computed at a single frame; curves are measured themselves, lines without their
    width."""
    drawn = drawn_outlines(element.objects, element.parades, element.insets, matrix.IDENTITY, 0)
    boxes = [moved.extent() for moved in drawn if len(moved.points)]
    if not boxes:
        return 0.0, 0.0, 0.0, 0.0
    left, top, right, bottom = zip(*boxes, strict=True)
    return min(left), min(top), max(right), max(bottom)


def drawn_outlines(
    objects: Mapping[str, BakedObject], parades: Mapping[str, BakedParade], insets: Mapping[str, BakedInset], above: Array, row: int
) -> list[Outline]:
    """The outlines of some objects, and of the copies and the scenes inside them, at a row, moved by a matrix (1, 6)."""
    result = []
    for object_id, entry in objects.items():
        world = matrix.multiply(above, _row(entry.world, row))
        if entry.source.drawn_shape is not None and entry.source.shown:
            outline = own_outline(entry, row)
            result.append(Outline(outline.verbs, matrix.apply(world, *outline.points.T)) if len(outline.points) else outline)
        if (copies := parades.get(object_id)) is not None:
            element = copies.element
            for k in range(copies.count):
                if copies.places.opacity[k, 0] > 0:
                    result += drawn_outlines(
                        element.objects, element.parades, element.insets, matrix.multiply(world, copies.places.matrices[k, :1]), 0
                    )
        if (inset := insets.get(object_id)) is not None:
            inner, at = inset.inner, int(_row(inset.rows, row)[0])
            copied = inner.plan.below(set(inner.parades)) - inner.parades.keys()
            shown = {item: obj for item, obj in inner.objects.items() if item not in copied}
            result += drawn_outlines(shown, inner.parades, inner.insets, matrix.multiply(world, inset.corner), at)
    return result


def _row(array: Array, row: int) -> Array:
    """One row of an array that may have a single one for all, as an array of that row."""
    at = min(row, len(array) - 1)
    return array[at : at + 1]


def own_outline(baked: BakedObject, row: int) -> Outline:
    """The outline of a drawn object at a row, in its own space."""
    shape = baked.source.drawn_shape
    assert shape is not None
    if baked.bent is not None:
        return baked.bent.at(row)
    drawing = drawing_of(shape)
    return drawing.draw({name: within(baked.source.specs[name], float(_row(baked.channels[name], row)[0])) for name in drawing.names})


def _values(obj: SceneObject, names: tuple[str, ...], t: Array, reader: Reader) -> Array:
    """Some channels of an object at frames t (1, m): (names, m), within their limits."""
    rows = [reader.filler.run(lambda name=name: reader.final(obj.id, name).at(t))[0] for name in names]  # type: ignore[misc]
    return np.stack([limited(obj.specs[name], row) for name, row in zip(names, rows, strict=True)])


def _text_points(text: SceneObject, by: TextPartName, grid: Array, reader: Reader) -> Array:
    """The middles of the letters, words or lines of a text, (n, 2), or (m, n, 2) where its setting changes; as many as at the first frame."""
    shape = text.drawn_shape
    assert isinstance(shape, TextShape)
    names = drawing_of(shape).names
    rows = _values(text, names, grid[None], reader).T if len(grid) else np.zeros((1, len(names)))
    distinct, which = np.unique(rows, axis=0, return_inverse=True)
    sets = [middles_of_parts(shape, by, dict(zip(names, map(float, row), strict=True))) for row in distinct]
    most = max(len(item) for item in sets)
    padded = np.stack([np.concatenate([item, np.zeros((most - len(item), 2))]) for item in sets])
    result: Array = padded[0] if len(padded) == 1 else padded[which.reshape(-1)]
    return result


def _corner_points(guide: SceneObject, obj: SceneObject, grid: Array, reader: Reader) -> Array:
    """The points an outline passes at the first frame, in the parade's space: (n, 2), or (m, n, 2) where either moves."""
    if guide.drawn_shape is None:
        return np.empty((0, 2))
    outline = reader.outlines.seen(guide, np.zeros(1)).at(0)
    points = np.array([used[-1] for _, used in outline.segments() if len(used)]).reshape(-1, 2)
    # A closed outline may come back to its first point by a line or a curve of its own.
    if len(points) > 1 and np.hypot(*(points[0] - points[-1])) < 1e-6 and outline.verbs.count(MOVE) == 1 and CUBIC in outline.verbs:
        points = points[:-1]
    there = _between(guide.id, obj.id, grid, reader)
    moved = np.stack([matrix.apply(row[None], *points.T) for row in there])
    return moved[0] if len(moved) == 1 else moved


def _way_of_shape(guide: SceneObject, reader: Reader) -> MeasuredWay | None:
    return MeasuredWay.of_outline(reader.outlines.seen(guide, np.zeros(1)).at(0)) if guide.drawn_shape is not None else None


def _between(of: str | None, to: str, grid: Array, reader: Reader) -> Array:
    """From the space of one object (the scene, for None) to that of another, (m, 6), or (1, 6) where it never changes."""
    return shrunk(reader.filler.run(lambda: reader.places.between(of, to, grid[None])))
