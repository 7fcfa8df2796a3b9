"""Restoring a copy of the data file, so that a kill at any moment leaves either the old file or the copy, complete.

A data file that cannot be opened is replaced in two phases. First the copy is written beside it, complete and on disk, under a name that ends in
`.restored-TIME`. Then the old file and its write-ahead log are renamed into the folder of copies, and the copy takes the file's name. The next
start finishes a second phase that was interrupted (`finish_restore`). Callers hold the folder's lock.
"""

import os
import shutil
import sqlite3
from datetime import datetime
from pathlib import Path

from vine_swing.store.backups import Backups
from vine_swing.store.errors import StoreError
from vine_swing.store.schema import check_file, migrate

_PENDING, _PART = ".restored-", ".restoring"
#: Files of one SQLite database: the file itself, its write-ahead log and its shared index.
_SUFFIXES = ("", "-wal", "-shm")


def restore_file(path: Path, name: str, backups: Backups) -> str:
    """Replace a closed data file by a copy; the old file is set aside in the folder of copies. Returns the name of the copy.

    Args:
        path: the data file.
        name: the name of a copy, or "last" for the newest.

    Raises:
        StoreError: if the copy does not exist, or it is damaged; nothing is changed then.
        OSError: if the folder cannot be written to.
    """
    copies = backups.all()
    chosen = copies[0].name if name == "last" and copies else name
    copy = backups.path_of(chosen)
    if copy is None:
        known = ", ".join(one.name for one in copies) or "none yet"
        raise StoreError(f"there is no copy '{name}' in {backups.folder}; available: {known}")
    check_copy(copy)
    part = path.with_name(path.name + _PART)
    shutil.copyfile(copy, part)
    part.chmod(0o600)
    _flush(part)
    part.rename(path.with_name(f"{path.name}{_PENDING}{datetime.now():%Y-%m-%dT%H%M%S}"))
    finish_restore(path, backups)
    return chosen


def finish_restore(path: Path, backups: Backups) -> None:
    """Finish a restore whose copy is complete; without one, nothing happens.

    Raises:
        OSError: if the folder cannot be written to.
    """
    for pending in sorted(path.parent.glob(f"{path.name}{_PENDING}*")):
        when = pending.name.rpartition(_PENDING)[2]
        for suffix in _SUFFIXES:
            old = path.with_name(path.name + suffix)
            if old.exists():
                old.rename(_unused(backups.folder, f"set-aside-{when}-{path.name}{suffix}"))
        pending.rename(path)
        _flush(path.parent)


def read_copy(path: Path) -> sqlite3.Connection:
    """Return a copy, read into memory and brought to the newest schema, so that nothing about it can fail later.

    Raises:
        StoreError: if it is damaged, or from a newer version.
        sqlite3.Error: if it is not an SQLite file.
    """
    check_file(path)
    held = sqlite3.connect(":memory:", isolation_level=None)
    held.row_factory = sqlite3.Row
    try:
        source = sqlite3.connect(path)
        try:
            source.backup(held)
        finally:
            source.close()
        migrate(held)
    except BaseException:
        held.close()
        raise
    return held


def check_copy(path: Path) -> None:
    """Refuse a copy that could not be opened once it is the data file.

    Raises:
        StoreError: saying why.
    """
    try:
        read_copy(path).close()
    except sqlite3.Error as error:
        raise StoreError(f"the copy {path.name} cannot be read ({error}); choose another one") from error


def _unused(folder: Path, name: str) -> Path:
    """Return a path in a folder that no file has yet: two restores within a second must not overwrite each other's files."""
    path, number = folder / name, 2
    while path.exists():
        path, number = folder / f"{name}.{number}", number + 1
    return path


def _flush(path: Path) -> None:
    """Wait until a file, or the entries of a folder, are on disk. Windows has no descriptors of folders, and needs none."""
    if os.name == "nt" and path.is_dir():  # pragma: no cover
        return
    descriptor = os.open(path, os.O_RDONLY)
    try:
        os.fsync(descriptor)
    finally:
        os.close(descriptor)
