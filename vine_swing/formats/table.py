"""Baked values as CSV (RFC 4180): a row per frame, a column per moving channel, numbers at full precision."""

import csv
from typing import TextIO

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion import MotionError, bake
from vine_swing.motion.baking.baked import Baked, BakedParade
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.basics import colour, matrix
from vine_swing.motion.basics.specs import WORDS
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.shapes import TextShape

Array = NDArray[np.float64]

#: More rows than this are surely a mistyped step.
MAX_ROWS = 2_000_000


def write_csv(scene: Scene, file: TextIO, *, every: float = 1.0, world: bool = False, view: bool = False, frames: Array | None = None) -> None:
    """Write `frame`, then `Name.channel` for every channel that is keyed or ruled; colours as hex. Of a part of a parade, `Name#k.channel` is that
    of copy k, from 0; of a part of a parade within a parade, `Name#k#j.channel` that of copy j of copy k.

    Args:
        every: frames between rows; rows run from 0 to length − 1.
        frames: the frames of the rows, (n,), in place of those.
        view: add `Name.view.x` and `.y`, where the pivot is in the picture, camera included.
        world: add `Name.world.x`, `.y` (the pivot in the scene) and `.rotation` (degrees, unwrapped) for every object and copy.

    Raises:
        MotionError: if `every` is not above 0, or makes too many rows.
    """
    baked = bake(scene, frames_of(scene, every) if frames is None else frames)
    columns = [("frame", [_number(frame) for frame in baked.frames])]
    for obj in baked.objects.values():
        columns += _channels(baked, obj)
        if world:
            columns += _world(baked, obj)
        if view:
            columns += _view(baked, obj)
    for object_id, parade in baked.parades.items():
        columns += _copies(baked, parade, baked.objects[object_id].world, np.arange(len(baked.frames)), "", world)
    writer = csv.writer(file)
    writer.writerow([name for name, _ in columns])
    writer.writerows(zip(*(values for _, values in columns), strict=True))


def frames_of(scene: Scene, every: float) -> Array:
    """The frames of a scene, this many apart, from 0 to length − 1.

    Raises:
        MotionError: if `every` is not above 0, or makes too many rows.
    """
    if not 0 < every < np.inf:
        raise MotionError(f"rows every {every:g} frames cannot be; give a number above 0, such as 0.5")
    count = int(np.floor((scene.length - 1) / every + 1e-9)) + 1
    if count > MAX_ROWS:
        raise MotionError(f"that would be {count} rows; at most {MAX_ROWS} are written, so take larger steps")
    # Each frame is multiplied out, so that no rounding adds up along the way.
    return np.arange(count, dtype=np.float64) * every


def _copies(baked: Baked, parade: BakedParade, above: Array, at: NDArray[np.intp], suffix: str, world: bool) -> list[tuple[str, list[str]]]:
    """The columns of every copy of a parade.

    Args:
        above: from the parade's space to the scene, at the rows written.
        at: the rows of the parade's own frames that are written.
        suffix: which copy it is in itself.
    """
    columns = []
    for k in range(parade.count):
        called = f"{suffix}#{k}"
        carrier = matrix.multiply(above, _rows(parade.places.matrices[k], at))
        own = parade.own[k] if parade.own else None
        for object_id, shared in parade.element.objects.items():
            item = own.objects.get(object_id, shared) if own is not None else shared
            visited = at + int(parade.layout.offsets[k])

            def rows(array: Array, common: Array, visited: NDArray[np.intp] = visited) -> Array:
                return _rows(array, visited if array is common else at)

            spread = {name: baked.spread(rows(array, shared.channels[name])) for name, array in item.channels.items()}
            columns += _moving(item.source, spread, called)
            inside = matrix.multiply(carrier, rows(item.world, shared.world))
            if world:
                x, y = spread["pivot.x"], spread["pivot.y"]
                columns += _placed(f"{item.source.name}{called}", matrix.apply(inside, x, y), baked.spread(inside))
            inner = parade.element.parades.get(object_id)
            mine = own.parades.get(object_id) if own is not None else None
            if mine is not None:
                columns += _copies(baked, mine, inside, at, called, world)
            elif inner is not None:
                columns += _copies(baked, inner, inside, visited, called, world)
    return columns


def _rows(array: Array, rows: NDArray[np.intp]) -> Array:
    return array if len(array) == 1 else array[rows]


def _channels(baked: Baked, item: BakedObject) -> list[tuple[str, list[str]]]:
    return _moving(item.source, {name: baked.spread(array) for name, array in item.channels.items()}, "")


def _moving(obj: SceneObject, values: dict[str, Array], called: str) -> list[tuple[str, list[str]]]:
    """The columns of the channels of an object that move, from their values with a row a frame."""
    columns = []
    on_path = obj.is_keyed("path")
    for name, spec in obj.specs.items():
        if not spec.has_array:
            # A path is written as the x and y it gives.
            continue
        if obj.is_keyed(name) or obj.rules_on(name) or (on_path and name in ("x", "y")):
            columns.append((f"{obj.name}{called}.{name}", _cells(obj, name, values[name])))
    return columns


def _cells(obj: SceneObject, name: str, values: Array) -> list[str]:
    """The values of a channel as they are written: numbers, colours, or what a text says."""
    shape = obj.drawn_shape
    if name == WORDS and isinstance(shape, TextShape):
        return [shape.saying(value) for value in values]
    return [colour.to_hex(value) if obj.specs[name].is_colour else _number(value) for value in values]


def _world(baked: Baked, item: BakedObject) -> list[tuple[str, list[str]]]:
    return _placed(item.source.name, baked.spread(item.place), baked.spread(item.world))


def _view(baked: Baked, item: BakedObject) -> list[tuple[str, list[str]]]:
    pivot = baked.spread(matrix.apply(item.view, item.channels["pivot.x"], item.channels["pivot.y"]))
    return [(f"{item.source.name}.view.{part}", _numbers(pivot[:, n])) for n, part in enumerate("xy")]


def _placed(name: str, place: Array, world: Array) -> list[tuple[str, list[str]]]:
    spread = np.broadcast_to(place, (len(world), 2))
    parts = (("x", spread[:, 0]), ("y", spread[:, 1]), ("rotation", matrix.rotation_of(world)))
    return [(f"{name}.world.{part}", _numbers(values)) for part, values in parts]


def _numbers(values: NDArray[np.float64]) -> list[str]:
    return [_number(value) for value in values]


def _number(value: np.float64) -> str:
    """The shortest text that reads back as the same float64."""
    return repr(float(value))
