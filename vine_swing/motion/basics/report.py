"""How long work reports its progress."""

from collections.abc import Callable

#: Called with the share that is done, from 0 to 1, often enough to show progress. It may raise, to stop the work.
Report = Callable[[float], None]


def unreported(share: float) -> None:
    """Report nothing: for callers whom nobody watches."""
