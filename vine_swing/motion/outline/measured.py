"""A way: an outline or a path gone along by arc length."""

from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.curves.outline import Outline
from vine_swing.motion.timing.channel import Channel
from vine_swing.motion.timing.path import evaluate_path

Array = NDArray[np.float64]
#: Straight pieces that represent one curve, and for the stretch between two keys of a path.
_PARTS = 64
#: Ends nearer than this, in px, are one point.
_SAME = 1e-6


@dataclass(frozen=True, eq=False)
class MeasuredWay:
    """Points (k, 2) with the arc length from the first to each, (k,)."""

    points: Array
    lengths: Array

    @classmethod
    def through(cls, points: Array) -> "MeasuredWay | None":
        """The way through some points (k, 2) in straight pieces; None if it has no length."""
        steps = np.hypot(*np.diff(points, axis=0).T) if len(points) > 1 else np.empty(0)
        kept = np.concatenate([[True], steps > 0]) if len(points) else np.empty(0, bool)
        points, steps = points[kept], steps[steps > 0]
        return cls(points, np.concatenate([[0.0], np.cumsum(steps)])) if len(steps) else None

    @classmethod
    def of_outline(cls, outline: Outline) -> "MeasuredWay | None":
        """Along the first part of an outline."""
        lines = outline.lines(parts=_PARTS)
        return cls.through(lines[0]) if lines else None

    @classmethod
    def of_path(cls, path: Channel) -> "MeasuredWay | None":
        """Along the points of a path, from its first key to its last."""
        frames = [key.frame for key in path.keys]
        if len(frames) < 2:
            return None
        dense = [np.linspace(a, b, _PARTS, endpoint=False) for a, b in pairwise(frames)]
        return cls.through(evaluate_path(path, np.concatenate([*dense, frames[-1:]])))

    @property
    def length(self) -> float:
        """How long it is, in px."""
        return float(self.lengths[-1])

    @property
    def closed(self) -> bool:
        """Whether it ends where it begins."""
        return bool(np.hypot(*(self.points[-1] - self.points[0])) < _SAME)

    def at(self, share: Array) -> tuple[Array, Array]:
        """Where it is after shares of its length (any shape): points and directions, each (…, 2); directions have length 1.

        A closed way is missing round again beyond 0…1; an open one goes straight on at its ends.
        """
        gone = (np.mod(share, 1.0) if self.closed else share) * self.length
        piece = np.clip(np.searchsorted(self.lengths, gone, side="right") - 1, 0, len(self.lengths) - 2)
        start = self.points[piece]
        step = self.points[piece + 1] - start
        direction = step / np.hypot(step[..., 0], step[..., 1])[..., None]
        return start + direction * (gone - self.lengths[piece])[..., None], direction
