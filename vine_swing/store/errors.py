"""What goes wrong with the data file.

StoreError             the file cannot be used, read or written; the message says why and what would help
├── StoreFull          there is no room left to write
├── StoreNotWritable   the file or its folder does not allow writing
└── StoreBusy          somebody else holds the file; trying again later may work
"""

import sqlite3


class StoreError(Exception):
    """The data file cannot be used; the message says why."""


class StoreFull(StoreError):
    """There is no room left on the disk."""


class StoreNotWritable(StoreError):
    """The data file, or its folder, cannot be written to."""


class StoreBusy(StoreError):
    """Another program holds the data file."""


def translated(error: sqlite3.Error) -> StoreError:
    """What an error of SQLite means for the person at work; nothing of the change that met it is kept."""
    name = getattr(error, "sqlite_errorname", None) or ""
    if name == "SQLITE_FULL":
        return StoreFull("the disk is full, so nothing was changed; make room on it, then try again")
    if name.startswith(("SQLITE_BUSY", "SQLITE_LOCKED")):
        return StoreBusy("another program has the data file locked, so nothing was changed; close it, then try again")
    if name.startswith(("SQLITE_READONLY", "SQLITE_PERM", "SQLITE_CANTOPEN")):
        return StoreNotWritable("the data file cannot be written to, so nothing was changed; allow writing to it and its folder, then try again")
    if name.startswith(("SQLITE_CORRUPT", "SQLITE_NOTADB")):
        return StoreError("the data file is damaged, so nothing was changed; bring back a copy of it from before")
    if name.startswith("SQLITE_IOERR"):
        return StoreError("reading or writing the data file failed, so nothing was changed; look whether its disk is in order")
    return StoreError(f"the data file did not take the change, so nothing was changed: {error}")
