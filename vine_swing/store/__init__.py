"""The store: scenes in one SQLite file. Nothing outside this package knows SQL."""

from vine_swing.store.errors import StoreBusy, StoreError, StoreFull, StoreNotWritable
from vine_swing.store.feels import OwnFeel
from vine_swing.store.rehearsals import Rehearsal
from vine_swing.store.scenes import OldRevision, SceneNotFound, SceneStore, SceneSummary, Stored
from vine_swing.store.steps import Author, History, InTheWay

__all__ = [
    "Author",
    "History",
    "InTheWay",
    "OldRevision",
    "OwnFeel",
    "Rehearsal",
    "SceneNotFound",
    "SceneStore",
    "SceneSummary",
    "StoreBusy",
    "StoreError",
    "StoreFull",
    "StoreNotWritable",
    "Stored",
]
