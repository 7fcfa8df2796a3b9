"""Body of a figure for rules on its joints: positions in the figure's own space."""

from collections.abc import Callable

import numpy as np

from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.specs import GEOMETRY
from vine_swing.motion.basics.values import Point
from vine_swing.motion.figure.channels import FACING
from vine_swing.motion.rules.spec import Array, Source


def in_figure(source: Source) -> Callable[[Array, Array], Array]:
    """A function that brings places (n, 2) of the space a figure moves in at frames t (1, n) into its own space, (n, 2)."""
    placed = own_matrix(source)
    facing = source.scene.final(source.owner, FACING)

    def own(places: Array, t: Array) -> Array:
        back = matrix.safe_inverse(placed(t))
        found = matrix.apply(back, places[:, 0], places[:, 1])
        if facing is not None:
            found[:, 0] *= np.where(facing.at(t)[0] < 0, -1.0, 1.0)
        return found

    return own


def own_matrix(source: Source) -> Callable[[Array], Array]:
    """A function that gives the matrix of the object a rule sits on, in the space it moves in, at frames t (1, n): (n, 6) or (1, 6)."""
    reads = {name: source.scene.final(source.owner, name) for name in GEOMETRY}
    return lambda t: matrix.object_matrix({name: one.at(t)[0] for name, one in reads.items() if one is not None})


def at_rest(base: Array, point: Point) -> Array:
    """Where a point of the resting figure is that goes along with `base` (n, 6): (n, 2)."""
    return matrix.apply(base, np.array([point[0]]), np.array([point[1]]))
