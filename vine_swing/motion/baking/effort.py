"""Work of a bake: counted, limited, and reported as progress."""

from collections.abc import Callable, Iterator
from contextlib import contextmanager

from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.basics.limits import MOST_SAMPLES


class TooMuchWork(MotionError):
    """The scene asks for more numbers than anyone would wait for."""


class Effort:
    """Counts the samples that are computed and stops what goes on for too long.

    share: how much of the work is done, from 0 to 1, as far as its parts are known to be alike; another thread may read it.
    """

    def __init__(self, most: float = MOST_SAMPLES, watch: Callable[[], None] | None = None) -> None:
        """
        Args:
            most: how many samples may be computed.
            watch: called every now and then; it may raise to stop the work, as when nobody waits for it any more.
        """
        self.spent = 0.0
        self.share = 0.0
        self._width, self._end = 1.0, 1.0
        self._most, self._watch = most, watch

    def spend(self, samples: float) -> None:
        """Count some samples.

        Raises:
            TooMuchWork: if that makes too many.
        """
        self.spent += samples
        if self.spent > self._most:
            raise TooMuchWork(
                f"this scene would take more than {self._most / 1e6:.0f} million numbers to work out; make it shorter, or let fewer rules read"
                " others that reach far back or ahead"
            )
        if self._watch is not None:
            self._watch()

    @contextmanager
    def part(self, of: float) -> Iterator[None]:
        """Enter a part of the current work that takes about the share `of` it; within, `advance` and `part` refer to that part."""
        outer = self._width, self._end
        self._width = outer[0] * of
        end = self._end = min(outer[1], self.share + self._width)
        try:
            yield
        finally:
            # Reused results count as done.
            self.share = end
            self._width, self._end = outer

    def advance(self, by: float) -> None:
        """Report another share of the current part as done."""
        self.share = min(self._end, self.share + self._width * by)
