"""A process that makes one export, started by a server for each: `python -m vine_swing.formats.worker ORDER.json`.

It says how far it is in lines of JSON on standard output: `{"done": 12}` and at the end `{"remarks": […], "size": …, "still": "…"}`, or
`{"error": "…"}`. If nobody reads them any more, it stops and leaves no file.
"""

import json
import os
import signal
import sys
import time
from pathlib import Path
from typing import Any, NoReturn

from pydantic import BaseModel

from vine_swing.formats.export import Cancelled
from vine_swing.formats.options import ExportOptions
from vine_swing.formats.run import in_text, write
from vine_swing.motion.basics.errors import MotionError

#: Progress is told at most so often, in seconds.
_EVERY = 0.08


class Order(BaseModel):
    """What is to be made: the file of a scene, the options, where to, and the address of a scheduler where a farm of machines paints."""

    scene: Path
    options: ExportOptions
    out: Path
    farm: str | None = None


def main(order_path: str) -> int:
    """Make an export."""
    # To be stopped is to be cancelled: what was written is removed on the way out.
    signal.signal(signal.SIGTERM, _stopped)
    order = Order.model_validate_json(Path(order_path).read_text(encoding="utf-8"))
    from vine_swing.formats.bundle import read_scene
    from vine_swing.formats.engine.choice import engine_at

    last = 0.0

    def progress(done: int) -> bool:
        nonlocal last
        now = time.monotonic()
        if now - last >= _EVERY:
            last = now
            _say(done=done)
        return True

    try:
        engine = engine_at(order.farm)
        try:
            written = write(read_scene(order.scene.read_bytes()), order.options, order.out, engine=engine, progress=progress)
        finally:
            engine.close()
    except MotionError as error:
        _say(error=str(error))
        return 1
    except (Cancelled, BrokenPipeError):
        return 1
    except Exception as error:  # the last resort: whoever ordered is told, never left waiting
        _say(error=f"the export stopped: {type(error).__name__}: {error}")
        return 1
    _say(remarks=list(written.remarks), size=written.size, still=in_text(written.still))
    return 0


def _say(**what: Any) -> None:
    print(json.dumps(what), flush=True)


def _stopped(number: int, frame: object) -> NoReturn:
    raise Cancelled


if __name__ == "__main__":
    status = main(sys.argv[1])
    sys.stdout.flush()
    # Threads that paint may still wait for room; nothing they do matters any more.
    os._exit(status)
