"""Painting in this very process, in a thread beside whoever takes the pictures: for a few of them, or where there is one core."""

from collections.abc import Iterator, Sequence

from vine_swing.formats.engine.painting import Painting, Windows
from vine_swing.formats.export import Pixels, made_ahead


class ThreadEngine:
    """An engine of one thread."""

    def painted(self, painting: Painting, rows: Sequence[int]) -> Iterator[Pixels]:
        """The pictures of some rows, painted ahead of whoever takes them; as every engine gives them."""
        return made_ahead(Windows(painting).paint, rows)

    def close(self) -> None:
        """There is nothing to released."""
