"""Results of a bake: the scene, its parades with their children, and its insets with their inner scenes."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.baking.plan import Plan
from vine_swing.motion.baking.reading import Reader
from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.parade.arranging import Places, Surroundings
from vine_swing.motion.parade.frames import Layout
from vine_swing.motion.parade.model import Parade
from vine_swing.motion.scene.graph import Ref
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.timeline import InnerScene

Array = NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class Element:
    """Children of a parade, in the parade's own space.

    objects: by id, in drawing order; of a single copy, only those in which it differs from the others.
    parades: the copies of those of them that are parades.
    insets: the scenes inside those of them that are insets.
    """

    objects: dict[str, BakedObject]
    parades: dict[str, "BakedParade"]
    insets: dict[str, "BakedInset"] = field(default_factory=dict)

    @cached_property
    def painted(self) -> int:
        """How many times something of it is painted: once, or as often as the parades and insets in it show it."""
        return _painted(self.parades, self.insets)


@dataclass(frozen=True, eq=False)
class BakedParade:
    """A parade over m frames.

    source: the parade.
    layout: at which frames its element is computed, and at which row each copy begins.
    places: where copies stand, in the parade's own space.
    order: the copies from the back to the front, (m, n) or (1, n); None where they are painted as they are counted.
    element: what all copies share.
    own: per-copy differences; empty where copies never differ.
    around: the inputs of the arrangement.
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
    #: The objects of the scene's own bake and the inner scenes that it was made from, and the ids of its descendants in drawing order, to tell
    #: later whether it still holds.
    made_from: Mapping[str, BakedObject] = field(default_factory=dict)
    shown_from: tuple[InnerScene, ...] = ()
    hanging: Sequence[str] = ()

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
        """The copy that shows its children without delay: what hands and eyes take for the object itself. None where there is no copy."""
        return int(np.argmin(np.abs(self.lags[0]))) if self.count else None

    def lead_matrix(self) -> Array:
        """Where the lead stands, in the parade's own space: (m, 6) or (1, 6). Letters have no lead: their text stands where it is set."""
        return matrix.IDENTITY if self.lead is None or self.parade.text_part is not None else self.places.matrices[self.lead]


@dataclass(frozen=True, eq=False)
class BakedInset:
    """An inset over n frames.

    source: the object.
    inner: the scene inside, at the frames that this inset and others beside it show of it.
    owner: the id of the first of these insets, which distinguishes the arrays of `inner` from those of other bakes of the same scene.
    frames: (n,) or (1,), which frame of the scene inside is shown.
    rows: the same as rows of `inner`.
    there: (n,) or (1,), 0 where nothing is shown because the scene inside is over, else 1; None where something always is.
    size: (1, 2), of the picture inside, in px.
    corner: (1, 6), from the space of the scene inside to that of the object: its middle is on the object's origin.
    made_from: the inner scenes it was made from.
    """

    source: SceneObject
    inner: "Baked"
    owner: str
    frames: Array
    rows: Array
    there: Array | None
    size: Array
    corner: Array
    made_from: tuple[InnerScene, ...]


@dataclass(frozen=True)
class Baked:
    """A whole scene over `frames`, shape (n,). `baked["Mango", "x"]` is one channel by the object's name, shape (n,)."""

    scene: Scene
    frames: Array
    objects: dict[str, BakedObject]
    dials: dict[str, Array]
    plan: Plan
    reader: Reader
    #: The copies of parades that are in no other, by id.
    parades: dict[str, BakedParade] = field(default_factory=dict)
    #: The insets that are in no parade, by id.
    insets: dict[str, BakedInset] = field(default_factory=dict)
    #: Channels that reach too far to be shown, with the first frame at which they do; they are cut off there.
    beyond: dict[Ref, float] = field(default_factory=dict)

    def __getitem__(self, key: tuple[str, str]) -> Array:
        name, channel = key
        item = self.named(name)
        if channel not in item.channels:
            raise MotionError(f"'{name}' has no channel '{channel}'; it has {', '.join(item.channels)}")
        return self.spread(item.channels[channel])

    @cached_property
    def painted(self) -> int:
        """How many times something of it is painted: once, or as often as the parades and insets in it show it."""
        return _painted(self.parades, self.insets)

    def named(self, name: str) -> BakedObject:
        """The object with this name.

        Raises:
            MotionError: if it is missing.
        """
        for obj in self.objects.values():
            if obj.source.name == name:
                return obj
        raise MotionError(f"there is no object '{name}'; there are {', '.join(o.source.name for o in self.objects.values()) or 'none'}")

    def spread(self, array: Array) -> Array:
        """The array with one row per frame, as a copy of its own."""
        return np.broadcast_to(array, (len(self.frames), *array.shape[1:])).copy()


def _painted(parades: Mapping[str, BakedParade], insets: Mapping[str, BakedInset]) -> int:
    copies = sum(parade.count * parade.element.painted for parade in parades.values())
    return max(1, copies + sum(inset.inner.painted for inset in insets.values()))
