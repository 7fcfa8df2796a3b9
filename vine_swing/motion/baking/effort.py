"""What a bake may cost, counted while it works."""

from collections.abc import Callable

from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.basics.limits import MOST_SAMPLES


class TooMuchWork(MotionError):
    """The scene asks for more numbers than anyone would wait for."""


class Effort:
    """Counts the samples that are worked out and stops what goes on for too long."""

    def __init__(self, most: float = MOST_SAMPLES, watch: Callable[[], None] | None = None) -> None:
        """
        Args:
            most: how many samples may be worked out.
            watch: called every now and then; it may raise to stop the work, as when nobody waits for it any more.
        """
        self.spent = 0.0
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
