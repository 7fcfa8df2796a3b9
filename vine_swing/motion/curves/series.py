"""The outlines something has over some frames: as few as there are different ones, with their points in blocks."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.curves.outline import Outline

Array = NDArray[np.float64]
Index = NDArray[np.intp]


@dataclass(frozen=True, eq=False)
class Block:
    """Outlines with the same verbs. points: (k, m, 2), one outline a row."""

    verbs: bytes
    points: Array


@dataclass(frozen=True, eq=False)
class OutlineSeries:
    """Which outline each frame shows.

    blocks: the different outlines, those with equal verbs together.
    which: (n,) for n frames, or (1,) for one that never changes: the place of the frame's outline, counted through all blocks.
    """

    blocks: tuple[Block, ...]
    which: Index

    @classmethod
    def of(cls, outlines: list[Outline], which: Index) -> "OutlineSeries":
        """A series of some outlines; `which` (n,) says for each frame which of them it shows."""
        groups: dict[tuple[bytes, int], list[int]] = {}
        for place, outline in enumerate(outlines):
            groups.setdefault((outline.verbs, len(outline.points)), []).append(place)
        blocks = tuple(Block(verbs, np.stack([outlines[place].points for place in places])) for (verbs, _), places in groups.items())
        order = np.argsort(np.concatenate([np.array(places, np.intp) for places in groups.values()])) if groups else np.empty(0, np.intp)
        return cls(blocks, order[which] if len(order) else which)

    @classmethod
    def still(cls, outline: Outline) -> "OutlineSeries":
        """One outline for all frames."""
        return cls((Block(outline.verbs, outline.points[None]),), np.zeros(1, np.intp))

    @property
    def count(self) -> int:
        """How many different outlines there are."""
        return sum(len(block.points) for block in self.blocks)

    @cached_property
    def outlines(self) -> list[Outline]:
        """The different outlines, as `which` counts them."""
        return [Outline(block.verbs, points) for block in self.blocks for points in block.points]

    def at(self, row: int) -> Outline:
        """The outline of a frame, by its row."""
        return self.outlines[int(self.which[min(row, len(self.which) - 1)])]

    def read(self, rows: Index) -> "OutlineSeries":
        """The same outlines as other rows see them: row i of the new one is row `rows[i]` of this."""
        return self if len(self.which) == 1 else OutlineSeries(self.blocks, self.which[rows])

    def parts(self) -> Iterator[tuple[Block, Index, Index]]:
        """Each block with the frames (j,) that show an outline of it, and which row of the block each of them shows (j,)."""
        first = 0
        for block in self.blocks:
            frames = np.flatnonzero((self.which >= first) & (self.which < first + len(block.points)))
            yield block, frames, self.which[frames] - first
            first += len(block.points)

    def changed(self, change: Callable[[Block], Block]) -> "OutlineSeries":
        """The series with each block changed to one with as many outlines."""
        return OutlineSeries(tuple(change(block) for block in self.blocks), self.which)

    def changed_by_frame(self, length: int, change: Callable[[Block, Index], Block]) -> "OutlineSeries":
        """The series with what changes from frame to frame changed: `change` is handed a block with one outline for each of some frames, or with a
        single one for all, and those frames (j,); it gives a block with an outline for each."""
        which = np.broadcast_to(self.which, (length,))
        blocks: list[Block] = []
        places, first = np.empty(length, np.intp), 0
        for block, frames, rows in OutlineSeries(self.blocks, which).parts():
            if len(frames):
                item = block.points if len(block.points) == 1 else block.points[rows]
                created = change(Block(block.verbs, item), frames)
                blocks.append(created)
                places[frames] = first + (np.arange(len(frames)) if len(created.points) > 1 else 0)
                first += len(created.points)
        return OutlineSeries(tuple(blocks), places)

    def compact(self) -> "OutlineSeries":
        """The same with equal outlines kept once: what frames share is neither kept nor sent twice."""
        if self.count < 2:
            return OutlineSeries(self.blocks, np.zeros(1, np.intp))
        blocks: list[Block] = []
        places = np.empty(self.count, np.intp)
        first = stored = 0
        for block in self.blocks:
            k = len(block.points)
            flat = np.ascontiguousarray(block.points).reshape(k, -1)
            # Rows that differ in a few numbers need not be compared in all of them.
            rows = _alike(np.ascontiguousarray(flat[:, :: max(1, flat.shape[1] // _TRIED)]))
            rows = rows if rows.max(initial=0) == k - 1 else _alike(flat)
            places[first : first + k] = stored + rows
            _, example = np.unique(rows, return_index=True)
            blocks.append(block if len(example) == k else Block(block.verbs, block.points[example]))
            first, stored = first + k, stored + len(example)
        which = places[self.which]
        return OutlineSeries(tuple(blocks), which[:1] if (which == which[0]).all() else which)

    def travelled(self) -> Array:
        """Return the mean distance its points have travelled up to each frame, in px: (n,), or (1,) for one that never changes.

        From a frame to one whose outline has other points, equally many points of both are compared, evenly along them.
        """
        if len(self.which) == 1:
            return np.zeros(1)
        steps = np.zeros(len(self.which))
        for frame in np.flatnonzero(np.diff(self.which)).tolist():
            before, now = self.at(frame), self.at(frame + 1)
            a, b = (before.points, now.points) if before.verbs == now.verbs else (_along(before), _along(now))
            if len(a) and len(b):
                steps[frame + 1] = float(np.hypot(*(b - a).T).mean())
        return np.cumsum(steps)

    @property
    def size(self) -> int:
        """How many points the different outlines have together."""
        return sum(block.points.shape[0] * block.points.shape[1] for block in self.blocks)


#: About how many numbers of an outline are compared first.
_TRIED = 24
#: Places along an outline that represent it where its points cannot.
_PLACES = 64


def _along(outline: Outline) -> Array:
    """This many of an outline's points, evenly along it as they are counted, its control points among them."""
    points = outline.points
    if not len(points):
        return points
    result: Array = points[np.linspace(0, len(points) - 1, _PLACES).round().astype(int)]
    return result


def _alike(rows: Array) -> Index:
    """For each row (k, c) which of the distinct rows it is, counted as they come."""
    result: dict[bytes, int] = {}
    return np.array([result.setdefault(row.tobytes(), len(result)) for row in rows], np.intp)
