"""Reading where objects are at any frames: their matrices, their pivots and the ground they make."""

from collections.abc import Callable
from typing import Protocol

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.outlines import OutlineReader
from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.specs import GEOMETRY
from vine_swing.motion.figure.ground import Ground
from vine_swing.motion.rules import Source
from vine_swing.motion.scene.model import Scene

Array = NDArray[np.float64]


class ChannelReader(Protocol):
    """What reading places takes of reading channels; see `Reader` (reading.py)."""

    scene: Scene
    outlines: OutlineReader

    def final(self, object_id: str, name: str) -> Source:
        """One channel after all its rules."""
        ...


class PlaceReader:
    """Reads places in one scene. None in place of an object's id is the scene itself."""

    def __init__(self, reader: ChannelReader) -> None:
        self._reader = reader
        self._grounds: dict[tuple[str, str | None], Ground | None] = {}

    def world(self, object_id: str | None, t: Array) -> Array:
        """The matrix from the space of an object to the scene at frames t (1, n): (n, 6) or (1, 6); bones are not gone along."""
        world = matrix.IDENTITY
        while object_id is not None:
            channels = {name: self._reader.final(object_id, name).at(t)[0] for name in GEOMETRY}
            world = matrix.multiply(matrix.object_matrix(channels), world)
            object_id = self._reader.scene.by_id[object_id].parent
        return world

    def between(self, of: str | None, to: str | None, t: Array) -> Array:
        """From the space of one object to that of another at frames t (1, n): (n, 6) or (1, 6)."""
        return matrix.multiply(matrix.safe_inverse(self.world(to, t)), self.world(of, t))

    def pivot(self, object_id: str, seen_from: str | None) -> Callable[[Array], Array] | None:
        """Return a reader of an object's pivot in the parent space of `seen_from`: (n, 2) at frames t (1, n); None if the object is missing."""
        if object_id not in self._reader.scene.by_id:
            return None

        def at(t: Array) -> Array:
            x, y = (self._reader.final(object_id, name).at(t)[0] for name in ("pivot.x", "pivot.y"))
            return matrix.apply(self.between(object_id, seen_from, t), x, y)

        return at

    def ground(self, object_id: str, seen_from: str | None) -> Ground | None:
        """The upper edge of a shape, as something sees it that is attached to `seen_from`; where both are at frame 0. None of what is no shape."""
        key = (object_id, seen_from)
        if key not in self._grounds:
            obj = self._reader.scene.by_id.get(object_id)
            self._grounds[key] = None
            if obj is not None and obj.drawn_shape is not None:
                there = self.between(object_id, seen_from, np.zeros((1, 1)))
                lines = [matrix.apply(there, *line.T) for line in self._reader.outlines.seen(obj, np.zeros(1)).at(0).lines()]
                self._grounds[key] = Ground.under(lines)
        return self._grounds[key]
