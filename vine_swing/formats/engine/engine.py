"""The one object that an engine does."""

from collections.abc import Iterator, Sequence
from typing import Protocol

from vine_swing.formats.engine.painting import Painting
from vine_swing.formats.export import Pixels


class Engine(Protocol):
    """Paints pictures somewhere."""

    def painted(self, painting: Painting, rows: Sequence[int]) -> Iterator[Pixels]:
        """The pictures at some rows of a painting, in that order: RGBA, premultiplied, (height, width, 4). Each may be overwritten once the next
        is taken. Whoever stops taking them early closes the iterator, and the work that is left is given up."""
        ...

    def close(self) -> None:
        """Let go of processes and connections."""
        ...
