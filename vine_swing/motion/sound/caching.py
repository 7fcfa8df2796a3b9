"""A cache whose values are computed by one thread at a time."""

import threading
from collections.abc import Callable
from functools import lru_cache, wraps
from typing import TypeVar

Value = TypeVar("Value")


def cached_singly(*, maxsize: int) -> Callable[[Callable[[str], Value]], Callable[[str], Value]]:
    """Cache a function of a content's id, like `functools.lru_cache`, and let concurrent callers wait for the first instead of computing it too: a
    decoded sound may take half a gigabyte."""

    def cached(function: Callable[[str], Value]) -> Callable[[str], Value]:
        lock, known = threading.RLock(), lru_cache(maxsize)(function)

        @wraps(function)
        def found(content_id: str) -> Value:
            with lock:
                return known(content_id)

        return found

    return cached
