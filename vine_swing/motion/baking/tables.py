"""Tables of values that are read often: computed once, then looked up.

Rules that read the cards before them at other frames multiply when they are in a row, and so do links that read links. Where a channel's
`cost` says so, its values are kept: at whole frames exactly as they are computed, and between them as the polynomial through the five
Gauss–Legendre places of each frame (degree 4, the places at which springs read; no place is on a whole frame, where values may jump).
For a sine of w radians a frame the polynomial is off by at most w⁵/5!·5!²/10! = w⁵/30,240 of its amplitude (the interpolation error with the
monic Legendre polynomial): at 24 frames a second 4e-8 at 1 Hz, 1.3e-4 at 5 Hz. Where a value jumps between whole frames it is off within that frame.

Tables are filled one at a time. A table that needs another one filled raises `Pending`; `TableFiller.run` fills that first and starts over,
so that chains of any length need no deep recursion.
"""

from collections.abc import Callable
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics.gauss import PLACES, polynomials

Array = NDArray[np.float64]
Read = Callable[[Array], Array]
_Result = TypeVar("_Result")

#: A reading whose frames lie wider apart than this many times their number is no reason to fill the table between them.
_SPARSE = 8
#: A table that grows at its end does so by at least this share of its length, so that reading on and on stays linear; at its beginning by this
#: many frames. (A share there too would let a chain of tables, each of which asks the next for more, grow without end.)
_AHEAD, _BACK = 0.25, 16
#: Upper bound on restarts, above the number of channels and cards of any scene: work that has not ended by then never will.
_MOST_STARTS = 1_000_000


class Pending(Exception):
    """A table must be filled before the current work can continue."""

    def __init__(self, fill: Callable[[], None]) -> None:
        self.fill = fill
        super().__init__("a table is to be filled first")


class TableFiller:
    """Fills tables one at a time, whatever needs what."""

    def __init__(self) -> None:
        self._filling = False

    def fill(self, work: Callable[[], None]) -> None:
        """Run what fills a table.

        Raises:
            Pending: if another table is being filled.
        """
        if self._filling:
            raise Pending(work)
        self._filling = True
        try:
            work()
        finally:
            self._filling = False

    def run(self, work: Callable[[], _Result]) -> _Result:
        """Return the result of some work, after filling the tables it needs.

        Every start finds at least one table fuller than the one before, so `work` must read the same tables each time it is started.
        """
        waiting: list[Callable[[], None]] = []
        for _ in range(_MOST_STARTS):
            try:
                while waiting:
                    self.fill(waiting[-1])
                    waiting.pop()
                return work()
            except Pending as pending:
                waiting.append(pending.fill)
        raise AssertionError("the work rebuilds its tables each time it is started")


class Table:
    """Values (r, m) of r channels over a range of frames that grows with the reads."""

    def __init__(self, read: Read, filler: TableFiller, *, between: bool) -> None:
        """
        Args:
            read: gives the values (r, n) at any frames (1, n).
            filler: what fills the tables of one bake.
            between: whether readings between whole frames are looked up too, or computed by `read`.
        """
        self._read, self._filler, self._between = read, filler, between
        self._whole, self._cells = _Run(self._read_whole), _Run(self._read_cells)

    def seed(self, first: int, values: Array) -> None:
        """Take over values (r, m) known at the whole frames from `first` on."""
        if self._whole.values is None:
            self._whole.first, self._whole.values = first, values[None]

    def prepare(self, low: float, high: float, *, between: bool) -> None:
        """Fill the table from a frame to another, and between whole frames if asked and if it is read there: values that will be read soon."""
        first, last = int(np.floor(low)), int(np.ceil(high))
        for run in (self._whole, self._cells) if between and self._between else (self._whole,):
            if not run.covers(first, last):
                self._filler.fill(lambda run=run: run.extend(first, last, spare=False))  # type: ignore[misc]

    def at(self, t: Array) -> Array:
        """The values (r, n) at frames t (1 or r, n)."""
        if not t.size:
            return self._read(t)
        below = np.floor(t)
        if (below == t).all():
            frames = below.astype(np.intp)
            result = self._fetch(self._whole, frames)
            return self._read(t) if result is None else result[0]
        if not self._between:
            return self._read(t)
        result = self._fetch(self._cells, below.astype(np.intp))
        if result is None:
            return self._read(t)
        u = t - below
        total: Array = result[4]
        for k in (3, 2, 1, 0):
            total = total * u + result[k]
        # At whole frames among others the value is that of the frame itself: it may jump there.
        whole = u == 0
        if whole.any():
            here = np.broadcast_to(whole, total.shape)
            total[here] = self.at(below)[here]
        return total

    def _fetch(self, run: "_Run", frames: NDArray[np.intp]) -> Array | None:
        """The run's values (k, r, n) at frames (1 or r, n); None where they lie too far apart to be worth a table."""
        low, high = int(frames.min()), int(frames.max())
        if not run.covers(low, high):
            if high - low > _SPARSE * frames.size + 1024:
                return None
            self._filler.fill(lambda: run.extend(low, high))
        values = run.values
        assert values is not None
        where = frames - run.first
        if len(where) == 1:
            return values[:, :, where[0]]
        rows = np.arange(values.shape[1])[:, None]
        return values[:, rows, where]

    def _read_whole(self, first: int, last: int) -> Array:
        return self._read(np.arange(first, last + 1, dtype=float)[None, :])[None]

    def _read_cells(self, first: int, last: int) -> Array:
        frames = np.arange(first, last + 1, dtype=float)
        return polynomials(self._read((frames[:, None] + PLACES).reshape(1, -1)))


class _Run:
    """Values (k, r, m) over the whole frames from `first` on."""

    def __init__(self, read: Callable[[int, int], Array]) -> None:
        self._read = read
        self.first = 0
        self.values: Array | None = None

    def covers(self, low: int, high: int) -> bool:
        return self.values is not None and self.first <= low and high < self.first + self.values.shape[-1]

    def extend(self, low: int, high: int, *, spare: bool = True) -> None:
        """Compute what is missing from `low` to `high`, and, with `spare`, some more if it has been extended before."""
        if self.values is None:
            self.values, self.first = self._read(low, high), low
            return
        last = self.first + self.values.shape[-1] - 1
        parts = [self.values]
        first = self.first
        if low < first:
            first = min(low, first - _BACK * spare)
            parts.insert(0, self._read(first, self.first - 1))
        if high > last:
            parts.append(self._read(last + 1, max(high, last + int(_AHEAD * self.values.shape[-1]) * spare)))
        self.values, self.first = np.concatenate(parts, axis=-1), first
