"""Tracks: quantities and outlines over the frames, which steps and effects of the paint list are painted with."""

from dataclasses import dataclass
from math import floor
from typing import Any

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.curves.outline import Outline
from vine_swing.motion.curves.series import OutlineSeries

Array = NDArray[np.float64]


def _row(frame: float, rows: int) -> int:
    """The row of a frame; a half goes up, as in the page."""
    return min(max(floor(frame + 0.5), 0), rows - 1)


@dataclass(frozen=True, eq=False)
class Track:
    """One quantity over the frames.

    values: (n,), (1,), (n, w) or (1, w); a single row holds for all frames. Before the first and after the last row, those rows hold.
    owner, name: whose it is and which; together they are its address in a message to the page.
    first: the frame of its first row.
    """

    owner: str
    name: str
    values: Array
    first: int = 0

    def row(self, frame: float) -> int:
        """The index of the row of the whole frame nearest to `frame`."""
        return _row(frame - self.first, len(self.values))

    def at(self, frame: float) -> Any:
        """The row of the whole frame nearest to `frame`: a number, or an array (w,)."""
        return self.values[self.row(frame)]


@dataclass(frozen=True, eq=False)
class OutlineTrack:
    """The outlines something has over time."""

    series: OutlineSeries
    #: Whose outline it is: its address in a message to the page.
    owner: str = ""
    #: Whether a hand takes hold of it anywhere within its bounds, as of a text, whose letters are full of gaps.
    boxed: bool = False
    #: The frame of the first of them.
    first: int = 0

    @property
    def outlines(self) -> list[Outline]:
        """The different outlines."""
        return self.series.outlines

    @property
    def which(self) -> NDArray[np.intp]:
        """Which of them each frame shows, (n,) or (1,)."""
        return self.series.which

    @property
    def size(self) -> int:
        """About how many bytes it takes."""
        return self.series.which.nbytes + 8 * self.series.size

    def index_at(self, frame: float) -> int:
        """Which of the outlines is shown at the whole frame nearest to `frame`."""
        return int(self.series.which[_row(frame - self.first, len(self.series.which))])
