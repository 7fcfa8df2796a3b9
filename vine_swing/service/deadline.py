"""How long a request may work, and whether anybody still waits for it."""

import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, field

from vine_swing.motion.baking.effort import Effort, TooMuchWork

#: A bake that takes longer than this is given up, in seconds.
LONGEST = 20.0


class ClientGone(Exception):
    """Whoever asked has gone; the work was given up."""


@dataclass
class Deadline:
    """How long the work of one request may take. `gone` is set when whoever asked has gone."""

    gone: threading.Event = field(default_factory=threading.Event)
    longest: float = field(default_factory=lambda: LONGEST)
    clock: Callable[[], float] = time.monotonic
    _end: float = 0.0

    def __post_init__(self) -> None:
        self._end = self.clock() + self.longest

    @property
    def is_over(self) -> bool:
        """Whether it has run out, or nobody waits any more."""
        return self.gone.is_set() or self.clock() > self._end

    def effort(self) -> Effort:
        """An effort that ends with this deadline."""
        return Effort(watch=self._watch)

    def _watch(self) -> None:
        if self.gone.is_set():
            raise ClientGone
        if self.clock() > self._end:
            raise TooMuchWork(
                f"working this out would take longer than {self.longest:g} seconds; make the scene shorter, or let fewer rules read others that"
                " reach far back or ahead"
            )
