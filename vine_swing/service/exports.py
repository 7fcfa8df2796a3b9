"""Export jobs: one thread each, with progress and a way to stop."""

import secrets
import shutil
import tempfile
import threading
from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path
from typing import Literal

from vine_swing.formats import EXPORTS
from vine_swing.formats.export import Cancelled
from vine_swing.motion.baking.baked import Baked

State = Literal["running", "done", "cancelled", "failed"]
#: Finished files kept for fetching; older ones are removed.
KEPT = 20


@dataclass
class Job:
    """One export under way or finished."""

    id: str
    file_name: str
    media_type: str
    total: int
    path: Path
    done: int = 0
    state: State = "running"
    error: str | None = None
    stop: threading.Event = field(default_factory=threading.Event)


class Exports:
    """All export jobs of a running service; their files live as long as it does."""

    def __init__(self) -> None:
        self._folder = Path(tempfile.mkdtemp(prefix="vine-swing-"))
        self._jobs: dict[str, Job] = {}
        self._lock = threading.Lock()

    def start(self, make: Callable[[], Baked], total: int, *, name: str, format_name: str, scale: float) -> Job:
        """Begin an export; `make` bakes what is exported, in the job's own thread."""
        job_id = secrets.token_urlsafe(9)
        chosen = EXPORTS[format_name]
        job = Job(job_id, f"{_file_stem(name)}.{chosen.suffix}", chosen.media_type, total, self._folder / f"{job_id}.{chosen.suffix}")
        with self._lock:
            self._jobs[job_id] = job
            self._forget_old()

        def progress(done: int) -> bool:
            job.done = done
            return not job.stop.is_set()

        def work() -> None:
            try:
                chosen.write(make(), job.path, progress=progress, scale=scale)
                job.state = "done"
            except Cancelled:
                job.state = "cancelled"
            except Exception as error:  # a failed export is told, never fatal
                job.error = f"the export stopped after {job.done} frames: {error}"
                job.state = "failed"
            if job.state != "done":
                job.path.unlink(missing_ok=True)

        threading.Thread(target=work, name=f"export {job_id}", daemon=True).start()
        return job

    def get(self, job_id: str) -> Job | None:
        """A job by its id."""
        return self._jobs.get(job_id)

    def close(self) -> None:
        """Stop what runs and remove all files."""
        for job in self._jobs.values():
            job.stop.set()
        shutil.rmtree(self._folder, ignore_errors=True)

    def _forget_old(self) -> None:
        finished = [job for job in self._jobs.values() if job.state != "running"]
        for job in finished[: max(0, len(finished) - KEPT)]:
            job.path.unlink(missing_ok=True)
            del self._jobs[job.id]


def _file_stem(name: str) -> str:
    """A scene's name as a file name that every system takes."""
    kept = "".join(c if c.isalnum() or c in " -_" else "-" for c in name).strip(" -")
    return kept or "scene"
