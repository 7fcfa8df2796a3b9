"""Ending a child process when the process that started it is missing."""

import multiprocessing
import os
import threading
from multiprocessing.connection import wait


def end_with_parent() -> None:
    """End this process as soon as its parent ends, however that ends: a child whose parent was killed would work, or wait, forever."""
    threading.Thread(target=_wait_for_parent, daemon=True).start()


def _wait_for_parent() -> None:
    above = multiprocessing.parent_process()
    if above is not None:
        wait([above.sentinel])
    os._exit(1)
