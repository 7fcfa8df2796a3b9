"""How long a request may work, whether anybody still waits for it, and how far it has come."""

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
    _effort: Effort | None = None

    def __post_init__(self) -> None:
        self._end = self.clock() + self.longest

    @property
    def is_over(self) -> bool:
        """Whether it has run out, or nobody waits any more."""
        return self.gone.is_set() or self.clock() > self._end

    def effort(self) -> Effort:
        """An effort that ends with this deadline."""
        self._effort = Effort(watch=self._watch)
        return self._effort

    @property
    def share(self) -> float | None:
        """How much of what is being worked out is done, from 0 to 1; None where nothing is worked out yet. It may be read by another thread."""
        return self._effort.share if self._effort is not None else None

    def _watch(self) -> None:
        if self.gone.is_set():
            raise ClientGone
        if self.clock() > self._end:
            raise TooMuchWork(
                f"working this out would take longer than {self.longest:g} seconds; make the scene shorter, or let fewer rules read others that"
                " reach far back or ahead"
            )
