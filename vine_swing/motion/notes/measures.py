"""What notes look at: a baked scene, with the measures several kinds need, each computed once."""

from collections.abc import Collection
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.baked import Baked
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.baking.reading import Reader
from vine_swing.motion.baking.surroundings import own_outline
from vine_swing.motion.basics import matrix
from vine_swing.motion.rules.rule import Rule
from vine_swing.motion.scene.graph import resolved
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject

Array = NDArray[np.float64]
Mask = NDArray[np.bool_]
#: Notes count time in frames of film, 24 a second, whatever the scene's own rate: the same scene at twice the frames a second gives the same notes.
FILM = 24.0
#: What is fainter than this is not seen.
FAINT = 0.02


class SceneMeasures:
    """A scene baked at its own frames, as notes see it. Lengths are px of the picture, times frames of the scene."""

    def __init__(self, baked: Baked, known: "SceneMeasures | None" = None, same: Collection[str] = ()) -> None:
        """known, same: the measures of an earlier version, and the objects of which nothing has changed since: what was measured of them holds."""
        self.baked = baked
        self.scene: Scene = baked.scene
        self._corners: dict[str, Array | None] = {one: known._corners[one] for one in same if one in known._corners} if known is not None else {}
        self._seen: dict[str, Mask] = {one: known._seen[one] for one in same if one in known._seen} if known is not None else {}

    @property
    def length(self) -> int:
        """How many frames it shows."""
        return self.scene.length

    @cached_property
    def reader(self) -> Reader:
        """What reads channels that the bake does not hold. Its own: that of the bake may belong to a request whose time is over."""
        return Reader(self.scene, self.baked.frames)

    @cached_property
    def step(self) -> int:
        """Frames of the scene to one frame of film, at least one."""
        return max(1, round(self.scene.fps / FILM))

    def film(self, count: float) -> float:
        """This many frames of film as frames of the scene."""
        return count * self.scene.fps / FILM

    @cached_property
    def diagonal(self) -> float:
        """Of the picture, px."""
        return float(np.hypot(*self.scene.size))

    @cached_property
    def copied(self) -> set[str]:
        """The ids of the children of parades: it is seen only in copies."""
        return self.baked.plan.below(set(self.baked.parades)) - self.baked.parades.keys()

    @cached_property
    def named(self) -> set[str]:
        """The ids of objects and dials (`dial:` and the id) that rules, formulas and lists of others name: they have work to do unseen."""
        found: set[str] = set()
        for thing in self.scene.objects:
            for rule in thing.rules:
                found |= self._named_by(thing, rule)
            parade = thing.copying
            if parade is not None:
                given = (parade.guide, *(one.object for one in parade.lists), *(one.object for one in parade.overrules))
                found |= {one for one in given if one is not None}
        return found

    def _named_by(self, thing: SceneObject, rule: Rule) -> set[str]:
        words = {str(word) for name, word in rule.settings.items() if isinstance(word, str) and rule.spec.settings[name].names == "object"}
        words |= {f"dial:{word}" for name, word in rule.settings.items() if isinstance(word, str) and rule.spec.settings[name].names == "dial"}
        refs = [ref for one in rule.linked.values() for ref in one]
        refs += [ref for name in thing.specs if rule in thing.rules_for(name) for ref in rule.dependencies(thing.id, name)]
        return words | {one[0] for ref in refs if (one := resolved(self.scene, ref)) is not None and one[0] != thing.id}

    def one(self, thing: SceneObject) -> BakedObject:
        """What was baked of an object."""
        return self.baked.objects[thing.id]

    def row(self, array: Array) -> Array:
        """An array that may have a single row, with one row a frame."""
        return np.broadcast_to(array, (self.length, *array.shape[1:])) if len(array) != self.length else array

    def value(self, thing: SceneObject, channel: str) -> Array:
        """A channel of numbers over all frames, (n,)."""
        return self.row(self.one(thing).channels[channel])

    def place(self, thing: SceneObject) -> Array:
        """Where the pivot of an object is in the picture, (n, 2)."""
        one = self.one(thing)
        if one.lens is None:
            return self.row(one.place)
        return matrix.apply(self.row(one.lens), *self.row(one.place).T)

    def corners(self, thing: SceneObject) -> Array | None:
        """The corners of the box of what is drawn of an object and of its descendants, in the picture: (n, k, 2), or (1, k, 2) where it
        rests; None if nothing is."""
        if thing.id not in self._corners:
            own = self._own_corners(thing)
            parts = [self.corners(self.scene.by_id[part]) for part in self.scene.children.get(thing.id, ())]
            found = [one for one in (own, *parts) if one is not None]
            rows = max(map(len, found), default=1)
            self._corners[thing.id] = np.concatenate([np.broadcast_to(one, (rows, *one.shape[1:])) for one in found], axis=1) if found else None
        return self._corners[thing.id]

    def bounds(self, thing: SceneObject) -> Array | None:
        """Left, top, right and bottom of that in the picture, (n, 4)."""
        corners = self.corners(thing)
        return None if corners is None else self.row(np.concatenate([corners.min(axis=1), corners.max(axis=1)], axis=1))

    def _own_corners(self, thing: SceneObject) -> Array | None:
        if not thing.shown:
            return None
        one, box = self.one(thing), self.box(thing)
        if box is None:
            return None
        left, top, right, bottom = box
        a, b, c, d, e, f = (column[:, None] for column in one.view.T)
        x, y = np.array([left, right, right, left]), np.array([top, top, bottom, bottom])
        return np.stack([a * x + c * y + e, b * x + d * y + f], axis=-1)

    def box(self, thing: SceneObject) -> tuple[float, float, float, float] | None:
        """Left, top, right and bottom of what an object itself draws, in its own space, as it is at the first frame; None if it draws nothing."""
        one = self.one(thing)
        if one.shown_size is not None:
            wide, high = (float(side) / 2 for side in one.shown_size[0])
            return -wide, -high, wide, high
        if thing.drawn_shape is None:
            return None
        # The points that draw its curves lie around them: near enough, and much quicker than the curves themselves.
        points = own_outline(one, 0).points
        if not len(points):
            return None
        (left, top), (right, bottom) = points.min(axis=0), points.max(axis=0)
        return float(left), float(top), float(right), float(bottom)

    def size(self, thing: SceneObject) -> float:
        """How large an object is in the picture: the median diagonal of its box, px; 0 if it draws nothing."""
        bounds = self.bounds(thing)
        if bounds is None:
            return 0.0
        return float(np.median(np.hypot(bounds[:, 2] - bounds[:, 0], bounds[:, 3] - bounds[:, 1])))

    def inside(self, thing: SceneObject) -> Mask:
        """At which frames something of it is in the picture, (n,)."""
        bounds = self.bounds(thing)
        if bounds is None:
            return np.zeros(self.length, dtype=bool)
        wide, high = self.scene.size
        found: Mask = (bounds[:, 2] > 0) & (bounds[:, 0] < wide) & (bounds[:, 3] > 0) & (bounds[:, 1] < high)
        return found

    def opacity(self, thing: SceneObject) -> Array:
        """Its opacity with that of all it is attached to, 0 outside of its span, (n,)."""
        return self.row(self.one(thing).opacity)

    def seen(self, thing: SceneObject) -> Mask:
        """At which frames it can be seen, (n,)."""
        if thing.id not in self._seen:
            self._seen[thing.id] = self.inside(thing) & (self.opacity(thing) > FAINT)
        return self._seen[thing.id]

    def rules_on(self, thing: SceneObject, *kinds: str) -> list[Rule]:
        """The rules of some kinds at work on an object, on whatever channel; of any kind where none is named."""
        return [rule for rule in thing.rules if rule.on and (not kinds or rule.kind in kinds)]
