"""The notes on scenes in use: looked for when a page asks, beside the edits and never before them, and kept so that only what changed is looked
at."""

import threading
from collections import OrderedDict

from vine_swing.motion import Baked
from vine_swing.motion.notes import FoundNotes, find_notes

#: Scenes whose notes are kept.
MOST_KEPT = 16


class Notes:
    """The notes of the scenes asked about last, by their addresses."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._kept: OrderedDict[str, tuple[threading.Lock, FoundNotes | None]] = OrderedDict()

    def on(self, address: str, baked: Baked) -> FoundNotes:
        """The notes on a scene unchanged baked. One thread looks at a scene at a time; it holds nothing that edits wait for."""
        with self._lock:
            looking, _ = self._kept.setdefault(address, (threading.Lock(), None))
            self._kept.move_to_end(address)
            while len(self._kept) > MOST_KEPT:
                self._kept.popitem(last=False)
        with looking:
            _, known = self._kept.get(address, (looking, None))
            if known is not None and known.measures.baked is baked:
                return known
            found = find_notes(baked, known)
            with self._lock:
                if address in self._kept:
                    self._kept[address] = looking, found
            return found
