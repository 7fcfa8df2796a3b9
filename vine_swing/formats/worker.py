"""A process that makes exports for a server, one after the other: `python -m vine_swing.formats.worker`.

It reads orders from standard input, one JSON line each, and reports progress as JSON lines on standard output: `{"done": 12}` and at
the end of each `{"remarks": […], "size": …, "still": "…"}`, or `{"error": "…"}`. It ends with its input; if nobody reads its output any more, it
stops and leaves no file.
"""

import json
import os
import signal
import sys
import time
from contextlib import closing
from pathlib import Path
from typing import Any, NoReturn

from pydantic import BaseModel

from vine_swing.formats.bundle import read_scene
from vine_swing.formats.engine.choice import engine_at
from vine_swing.formats.export import Cancelled
from vine_swing.formats.options import ExportOptions
from vine_swing.formats.run import in_text, write
from vine_swing.motion.basics.errors import MotionError

#: Progress is told at most so often, in seconds.
_EVERY = 0.08


class Order(BaseModel):
    """An export to make.

    folder: where the files lie; any text, as a path need not be UTF-8.
    scene: the name of the bundle to export; it is in the folder.
    out: the name of the file to write.
    farm: the address of a scheduler whose machines paint.
    """

    folder: Any
    scene: str
    options: ExportOptions
    out: str
    farm: str | None = None


def main() -> int:
    """Make whatever is asked for, until nothing more comes."""
    # A stop is a cancellation: unfinished files are removed on the way out.
    signal.signal(signal.SIGTERM, _stopped)
    try:
        for line in sys.stdin:
            _make(Order.model_validate(json.loads(line)))
    except (Cancelled, BrokenPipeError):
        return 1
    return 0


def _make(order: Order) -> None:
    """Make one export, and say what became of it."""
    last = 0.0

    def progress(done: int) -> bool:
        nonlocal last
        now = time.monotonic()
        if now - last >= _EVERY:
            last = now
            _say(done=done)
        return True

    # Names within the folder are plain text for every writer, whatever bytes the folder's own path consists of.
    os.chdir(order.folder)
    out = Path(order.out)
    try:
        with closing(engine_at(order.farm)) as engine:
            written = write(read_scene(Path(order.scene).read_bytes()), order.options, out, engine=engine, progress=progress)
    except MotionError as error:
        _say(error=str(error))
        return
    except (Cancelled, BrokenPipeError):
        raise
    except Exception as error:  # the last resort: whoever ordered is told, never left waiting
        _say(error=f"the export stopped: {type(error).__name__}: {error}")
        return
    try:
        _say(remarks=list(written.remarks), size=written.size, still=in_text(written.still))
    except BrokenPipeError:
        # The server is missing and will never ask for the file; the next one lists this export as stopped.
        out.unlink(missing_ok=True)
        raise


def _say(**what: Any) -> None:
    print(json.dumps(what), flush=True)


def _stopped(number: int, frame: object) -> NoReturn:
    raise Cancelled


if __name__ == "__main__":
    status = main()
    sys.stdout.flush()
    # Threads that paint may still wait for room; nothing they do matters any more.
    os._exit(status)
