"""A parade as it is baked: what hangs on it, where each copy stands, and at which frames it reads."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.parade.arranging import Places, Surroundings
from vine_swing.motion.parade.frames import Layout
from vine_swing.motion.parade.model import Parade
from vine_swing.motion.scene.model import SceneObject

Array = NDArray[np.float64]
UNMOVED = np.array([[1.0, 0, 0, 1, 0, 0]])


@dataclass(frozen=True, eq=False)
class Element:
    """What hangs on a parade, in the parade's own space.

    objects: by id, in drawing order; of a single copy, only those in which it differs from the others.
    parades: the copies of those of them that are parades.
    """

    objects: dict[str, BakedObject]
    parades: dict[str, "BakedParade"]

    @cached_property
    def painted(self) -> int:
        """How many times something of it is painted: once, or as often as the parades in it have copies."""
        return max(1, sum(inner.count * inner.element.painted for inner in self.parades.values()))


@dataclass(frozen=True, eq=False)
class BakedParade:
    """A parade over m frames.

    source: the parade.
    layout: at which frames its element is worked out, and at which row each copy begins.
    places: where copies stand, in the parade's own space.
    order: the copies from the back to the front, (m, n) or (1, n); None where they are painted as they are counted.
    element: what all copies share.
    own: for each copy what differs of it; empty where nothing ever does.
    around: what the arrangement went by.
    """

    source: SceneObject
    parade: Parade
    grid: Array
    layout: Layout
    places: Places
    order: Array | None
    element: Element
    own: tuple[Element, ...]
    around: Surroundings
    #: The objects of the scene's own bake that it was made from, to tell later whether it still holds.
    made_from: Mapping[str, BakedObject] = field(default_factory=dict)

    @property
    def count(self) -> int:
        """For how many copies there is a place."""
        return len(self.places.matrices)

    @cached_property
    def lags(self) -> Array:
        """How many frames each copy is behind, (m, n), or (1, n) where that never changes."""
        if not self.count:
            return np.zeros((1, 0))
        read = [self.layout.frames[self.layout.rows(k, len(self.grid))] for k in range(self.count)]
        lags = self.grid[:, None] - np.stack(read, axis=1)
        return lags[:1] if len(lags) and np.allclose(lags, lags[:1]) else lags

    @property
    def lead(self) -> int | None:
        """The copy that shows what hangs on it without delay: what hands and eyes take for the thing itself. None where there is no copy."""
        return int(np.argmin(np.abs(self.lags[0]))) if self.count else None

    def lead_matrix(self) -> Array:
        """Where the lead stands, in the parade's own space: (m, 6) or (1, 6). Letters have no lead: their text stands where it is set."""
        return UNMOVED if self.lead is None or self.parade.text_part is not None else self.places.matrices[self.lead]
