"""Deadline of a request: its time limit, its cancellation, and its progress."""

import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from vine_swing.formats.isolated import Kind, read_isolated
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
    _read_share: float | None = None

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

    def check(self) -> None:
        """Raise if the time is over, or nobody waits any more.

        Raises:
            ClientGone: if whoever asked has gone.
            TooMuchWork: if the time is over.
        """
        self._watch()

    def read(self, kind: Kind, data: bytes, name: str, *, part: float = 1.0) -> Any:
        """Read a foreign file in a process of its own, until this deadline ends; raises and returns as `read_isolated`.

        Args:
            kind: of the file.
            data: its contents.
            name: what messages call it.
            part: the share of the work of the request that reading is.
        """

        def report(share: float) -> None:
            self._read_share = part * share

        began = self.clock()
        read = read_isolated(kind, data, name, watch=self.check, report=report)
        # Reading has its own limit: the rest of the request has the whole time.
        self._end += self.clock() - began
        self._read_share = part
        return read

    @property
    def share(self) -> float | None:
        """Return the share of the work that is done, from 0 to 1; None where nothing is known of it yet. It may be called by another thread."""
        done, effort = self._read_share, self._effort.share if self._effort is not None else None
        if done is None or effort is None:
            return effort if done is None else done
        return done + (1 - done) * effort

    def _watch(self) -> None:
        if self.gone.is_set():
            raise ClientGone
        if self.clock() > self._end:
            raise TooMuchWork(
                f"working this out would take longer than {self.longest:g} seconds; make the scene shorter, or let fewer rules read others that"
                " reach far back or ahead"
            )
