"""One server per data folder: a lock that ends with the process that holds it, however that ends."""

import os
from pathlib import Path
from typing import IO

from vine_swing.store.errors import StoreError

try:
    import fcntl
except ImportError:  # pragma: no cover - Windows, where opening the data file twice is refused by SQLite's own locks
    fcntl = None  # type: ignore[assignment]


class FolderLock:
    """An exclusive lock beside a data file."""

    def __init__(self, data_file: Path) -> None:
        """Take the lock.

        Raises:
            StoreError: if another process holds it.
        """
        self._path = data_file.with_name(data_file.name + ".lock")
        self._file: IO[str] | None = os.fdopen(os.open(self._path, os.O_RDWR | os.O_CREAT, 0o600), "r+", encoding="ascii")
        if fcntl is None:  # pragma: no cover
            return
        try:
            fcntl.flock(self._file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError as error:
            holder = self._file.read().strip()
            self._file.close()
            whose = f" (process {holder})" if holder.isdigit() else ""
            raise StoreError(f"another Vine Swing{whose} has {data_file} open; end it first, or give this one another folder with --data") from error
        self._file.seek(0)
        self._file.truncate()
        self._file.write(str(os.getpid()))
        self._file.flush()

    def release(self) -> None:
        """Let others open the data file."""
        if self._file is not None:
            self._file.close()
            self._file = None
