"""Baked values as CSV (RFC 4180): a row per frame, a column per moving channel, numbers at full precision."""

import csv
from typing import TextIO

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion import MotionError, bake
from vine_swing.motion.baking.bake import Baked
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.basics import colour, matrix
from vine_swing.motion.scene.model import Scene

#: More rows than this are surely a mistyped step.
MAX_ROWS = 2_000_000


def write_csv(scene: Scene, file: TextIO, *, every: float = 1.0, world: bool = False) -> None:
    """Write `frame`, then `Name.channel` for every channel that is keyed or ruled; colours as hex.

    Args:
        every: frames between rows; rows run from 0 to length − 1.
        world: add `Name.world.x`, `.y` (the pivot in the picture) and `.rotation` (degrees, unwrapped) for every object.

    Raises:
        MotionError: if `every` is not above 0, or makes too many rows.
    """
    if not 0 < every < np.inf:
        raise MotionError(f"rows every {every:g} frames cannot be; give a number above 0, such as 0.5")
    count = int(np.floor((scene.length - 1) / every + 1e-9)) + 1
    if count > MAX_ROWS:
        raise MotionError(f"that would be {count} rows; at most {MAX_ROWS} are written, so take larger steps")
    # Each frame is multiplied out, so that no rounding adds up along the way.
    baked = bake(scene, np.arange(count, dtype=np.float64) * every)
    columns = [("frame", [_number(frame) for frame in baked.frames])]
    for one in baked.objects.values():
        columns += _channels(baked, one)
        if world:
            columns += _world(baked, one)
    writer = csv.writer(file)
    writer.writerow([name for name, _ in columns])
    writer.writerows(zip(*(values for _, values in columns), strict=True))


def _channels(baked: Baked, one: BakedObject) -> list[tuple[str, list[str]]]:
    columns = []
    on_path = one.source.is_keyed("path")
    for name, spec in one.source.specs.items():
        if spec.kind == "point":
            # A path is written as the x and y it gives.
            continue
        if one.source.is_keyed(name) or one.source.rules_on(name) or (on_path and name in ("x", "y")):
            values = baked.spread(one.channels[name])
            columns.append((f"{one.source.name}.{name}", [colour.to_hex(v) if spec.is_colour else _number(v) for v in values]))
    return columns


def _world(baked: Baked, one: BakedObject) -> list[tuple[str, list[str]]]:
    place = baked.spread(one.place)
    parts = (("x", place[:, 0]), ("y", place[:, 1]), ("rotation", matrix.rotation_of(baked.spread(one.world))))
    return [(f"{one.source.name}.world.{name}", _numbers(values)) for name, values in parts]


def _numbers(values: NDArray[np.float64]) -> list[str]:
    return [_number(value) for value in values]


def _number(value: np.float64) -> str:
    """The shortest text that reads back as the same float64."""
    return repr(float(value))
