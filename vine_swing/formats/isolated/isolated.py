"""Run a reader in a child process: whatever a file does to it, the caller gets a result or a sentence.

The child has an address space of its own with a limit, a limit on processor time, and nothing to write to. It answers over a pipe with msgpack, which
can hold nothing but plain data. It is ended when the caller no longer waits, when its time is up, and when its parent ends.
"""

import contextlib
import multiprocessing
import os
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from multiprocessing.connection import Connection
from multiprocessing.context import ForkServerContext, SpawnContext
from multiprocessing.forkserver import ensure_running
from typing import Any

import msgpack

from vine_swing.formats.isolated.readers import READERS, Kind
from vine_swing.formats.orphans import end_with_parent
from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.basics.report import Report, unreported

#: Seconds that a file may take, and bytes that its reader may need beyond what the program itself takes.
LONGEST, MOST_MEMORY = 15.0, 850_000_000
#: Files read at a time; others wait for their turn.
_AT_ONCE = 2
#: How often the caller is asked whether it still waits, s, and how often progress is reported, s.
_POLL, _EVERY = 0.05, 0.1
_turns = threading.BoundedSemaphore(_AT_ONCE)


def read_isolated(kind: Kind, data: bytes, name: str, *, watch: Callable[[], object] = lambda: None, report: Report = unreported) -> Any:
    """Read a file in a child process.

    Args:
        kind: which reader of `READERS` reads it.
        data: the contents of the file.
        name: what messages call it.
        watch: called some times a second while the file is read or waits for its turn; raises when nobody waits for it any more.
        report: called with the share that is done, 0…1.

    Raises:
        MotionError: if the file is refused, takes too long, or needs too much memory; saying what would work.
    """
    with _turn(watch):
        return _read(kind, data, name, watch, report)


@contextmanager
def _turn(watch: Callable[[], object]) -> Iterator[None]:
    while not _turns.acquire(timeout=_POLL):
        watch()
    try:
        yield
    finally:
        _turns.release()


def _read(kind: Kind, data: bytes, name: str, watch: Callable[[], object], report: Report) -> Any:
    context = _context()
    ours, theirs = context.Pipe()
    process = context.Process(target=_child, args=(theirs, kind, name, len(data)), daemon=True)
    process.start()
    theirs.close()
    end = time.monotonic() + LONGEST
    try:
        # The child reads all before anything else; one that has ended by itself closes the pipe.
        with contextlib.suppress(BrokenPipeError, ConnectionResetError):
            ours.send_bytes(data)
        while True:
            watch()
            if time.monotonic() > end:
                raise MotionError(f"'{name}' takes more than {LONGEST:g} seconds to read; simplify it, or split it into smaller files")
            if not ours.poll(_POLL):
                continue
            answer = msgpack.unpackb(ours.recv_bytes())
            if "share" in answer:
                report(answer["share"])
            elif "error" in answer:
                raise MotionError(answer["error"])
            else:
                return READERS[kind].unpacked(answer["result"])
    except (EOFError, ConnectionResetError) as error:
        raise MotionError(_ended(name)) from error
    finally:
        process.kill()
        process.join()
        ours.close()


def _context() -> ForkServerContext | SpawnContext:
    """Return how children are started: forked from a process that has loaded the readers, where the system can."""
    if "forkserver" not in multiprocessing.get_all_start_methods():
        return multiprocessing.get_context("spawn")
    context = multiprocessing.get_context("forkserver")
    context.set_forkserver_preload([__name__])
    return context


def prepare() -> None:
    """Start the process that children are forked from, so that the first file does not wait for it."""
    if _context().get_start_method() == "forkserver":
        ensure_running()


def _ended(name: str) -> str:
    """Return the message for a child that ended without an answer: no memory is left for one, or a decoder crashed."""
    return f"'{name}' cannot be read within {MOST_MEMORY / 1e6:.0f} MB of memory, or is damaged; simplify it, make it smaller, or save it again"


def _child(connection: Connection, kind: Kind, name: str, size: int) -> None:
    """Read one file and send what it holds; the target of the child process."""
    end_with_parent()
    _limit()
    last = 0.0

    def report(share: float) -> None:
        nonlocal last
        now = time.monotonic()
        if now - last >= _EVERY:
            last = now
            connection.send_bytes(msgpack.packb({"share": min(max(share, 0.0), 1.0)}))

    try:
        answer = {"result": READERS[kind].read(connection.recv_bytes(max(size, 1)), name, report)}
        packed = msgpack.packb(answer)
    except MotionError as error:
        packed = msgpack.packb({"error": str(error)}, unicode_errors="replace")
    except (MemoryError, RecursionError):
        # Whatever filled the memory is missing with the frames of the error.
        packed = msgpack.packb({"error": _ended(name)}, unicode_errors="replace")
    except Exception as error:
        sentence = f"'{name}' cannot be read ({type(error).__name__}); it is damaged or of an unknown kind: save it again"
        packed = msgpack.packb({"error": sentence}, unicode_errors="replace")
    connection.send_bytes(packed)
    connection.close()
    # Nothing is left to tidy up, and a module's exit handlers could wait for threads of decoders.
    os._exit(0)


def _limit() -> None:
    """Limit the memory and the processor time of this process, where the system knows how; write no core files."""
    try:
        import resource
    except ImportError:  # pragma: no cover - Windows, where the deadline of the caller is the only limit
        return
    with contextlib.suppress(OSError, ValueError):
        with open("/proc/self/statm", encoding="ascii") as file:  # noqa: PTH123
            now = int(file.read().split()[0]) * resource.getpagesize()
        resource.setrlimit(resource.RLIMIT_AS, (now + MOST_MEMORY, now + MOST_MEMORY))
    with contextlib.suppress(OSError, ValueError):
        seconds = int(LONGEST) + 5
        resource.setrlimit(resource.RLIMIT_CPU, (seconds, seconds + 1))
        resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
