"""Export jobs: a queue of processes, one export at a time, kept with what became of them.

Exports are made in a process of their own (`vine_swing/formats/worker.py`), which paints with as many more as there are cores: neither a long export
nor one that goes wrong keeps anybody else waiting. The process is kept as long as exports wait, for most of a short one would be its start. A scene
is written down unchanged when its export was asked for, so that edits made meanwhile do not show. When the server ends, so do its processes, and
what they had written; the next server says of these exports that they were stopped.
"""

import base64
import json
import logging
import secrets
import threading
import time
from collections import deque
from contextlib import suppress
from dataclasses import dataclass, field
from typing import Any

from vine_swing.formats import EXPORTS, film_of, format_of
from vine_swing.formats.bundle import bundle
from vine_swing.formats.options import ExportOptions
from vine_swing.formats.run import UNFINISHED
from vine_swing.motion.scene.model import Scene
from vine_swing.service.export_process import ExportProcess
from vine_swing.store import SceneStore, StoreError
from vine_swing.store.exports import ExportState, KeptExport

#: Finished exports that are kept, and the bytes that their files may take together; older ones go first. Exports that may wait at once.
KEPT, MOST_BYTES, MOST_WAITING = 60, 4_000_000_000, 100
#: Seconds that the end of the server waits for the thread of an export: its process has five to end by itself.
_LEAVE = 10.0
_STOPPED = "the server ended before this was done, and nothing was kept of it; run it again"
_log = logging.getLogger("vine_swing")


class TooManyExports(Exception):
    """As many exports wait as may."""


@dataclass
class _Job:
    """An export that waits or is under way."""

    id: str
    total: int
    scene: Scene | None
    options: ExportOptions
    name: str
    done: int = 0
    began: float | None = None
    process: ExportProcess | None = None
    cancelled: bool = False
    result: dict[str, Any] = field(default_factory=dict)


@dataclass(frozen=True)
class Progress:
    """How far an export is: pictures made, its place in the queue (0 for the one under way), and how many seconds it will still take."""

    done: int
    place: int | None
    left: float | None


class Exports:
    """All exports of a data folder."""

    def __init__(self, store: SceneStore, *, farm: str | None = None) -> None:
        """farm: the address of a scheduler whose machines paint."""
        self._store, self._farm = store, farm
        self._folder = store.folder / "exports"
        self._lock = threading.Lock()
        self._waiting: deque[_Job] = deque()
        self._running: _Job | None = None
        self._thread: threading.Thread | None = None
        self._process: ExportProcess | None = None
        self._closed = False
        self._clear_up()

    def start(self, scene: Scene, options: ExportOptions, *, scene_id: str, revision: int, name: str = "") -> KeptExport:
        """Ask for an export of a scene in its current state.

        Raises:
            MotionError: if it cannot be, saying why.
            TooManyExports: if too many wait.
        """
        chosen, film = format_of(options), film_of(scene, options)
        file_name = f"{file_stem(name or scene.name)}{chosen.ends_with}"
        total = len(film.frames)
        job = _Job(secrets.token_urlsafe(9), total, scene, options, file_name)
        kept = KeptExport(job.id, scene_id, revision, file_name, chosen.name, options.model_dump(mode="json"), self._store.now(), "waiting", 0, total)
        with self._lock:
            if len(self._waiting) >= MOST_WAITING:
                raise TooManyExports
            self._store.exports.add(kept)
            self._waiting.append(job)
        self._next()
        self._forget_old()
        return kept

    def all(self) -> list[KeptExport]:
        """All exports, the last asked for first."""
        return self._store.exports.all()

    def find(self, export_id: str) -> KeptExport | None:
        """An export by its id."""
        return self._store.exports.find(export_id)

    def still(self, export_id: str) -> bytes | None:
        """The small picture of a finished export, PNG."""
        return self._store.exports.still(export_id)

    def progress(self, kept: KeptExport) -> Progress:
        """How far an export is."""
        with self._lock:
            job = self._running
            if job is not None and job.id == kept.id:
                spent = time.monotonic() - job.began if job.began is not None else 0.0
                left = spent / job.done * (job.total - job.done) if job.done > 2 else None
                return Progress(job.done, 0, left)
            places = [one.id for one in self._waiting]
        return Progress(kept.done, places.index(kept.id) + 1 if kept.id in places else None, None)

    def path(self, kept: KeptExport) -> Any:
        """Where the file of an export lies."""
        return self._folder / f"{kept.id}{EXPORTS[kept.format].ends_with}"

    def cancel(self, export_id: str) -> None:
        """Stop an export, or take it out of the queue; nothing is kept of it."""
        with self._lock:
            waiting = next((one for one in self._waiting if one.id == export_id), None)
            if waiting is not None:
                self._waiting.remove(waiting)
            job = self._running if self._running is not None and self._running.id == export_id else None
            if job is not None:
                job.cancelled = True
        if waiting is not None:
            self._store.exports.ended(export_id, "cancelled", done=0)
        if job is not None and job.process is not None:
            job.process.stop()

    def first(self, export_id: str) -> None:
        """Let a waiting export be the next."""
        with self._lock:
            found = next((one for one in self._waiting if one.id == export_id), None)
            if found is not None:
                self._waiting.remove(found)
                self._waiting.appendleft(found)

    def forget(self, export_id: str) -> None:
        """Remove an export with its file."""
        self.cancel(export_id)
        kept = self.find(export_id)
        if kept is not None:
            self._remove_files(export_id)
            self._store.exports.forget(export_id)

    def close(self) -> None:
        """Stop what runs; what waits is told as stopped. Afterwards nothing of an export reads or writes any more."""
        with self._lock:
            self._closed = True
            job, thread, waiting = self._running, self._thread, len(self._waiting)
            self._waiting.clear()
        if job is not None and job.process is not None:
            job.process.stop()
        if thread is not None:
            thread.join(_LEAVE)
        if job is not None or waiting:
            # Where the store was closed first, the next server says it.
            with suppress(StoreError):
                self._store.exports.stop_unfinished(_STOPPED)

    def end_now(self) -> None:
        """End the process of an export by force, as the server is about to end: the next one removes what it wrote."""
        process = self._process
        if process is not None:
            process.kill()

    def _next(self) -> None:
        """Begin with the next export, if none is under way."""
        with self._lock:
            if self._closed or self._running is not None or not self._waiting:
                return
            job = self._running = self._waiting.popleft()
            self._thread = threading.Thread(target=self._run, args=(job,), name=f"export {job.id}", daemon=True)
            self._thread.start()

    def _run(self, job: _Job) -> None:
        try:
            self._store.exports.running(job.id)
            self._made(job)
        except Exception as error:  # a failed export is told, never fatal
            job.result = {"error": f"the export could not begin: {error}"}
        try:
            self._keep_end(job)
        except StoreError as error:  # the next server tells this export as stopped; those that wait have their turn all the same
            _log.warning("how the export %s ended could not be kept: %s", job.id, error)
        with self._lock:
            self._running = None
            process = None
            # One that was stopped may live for a moment yet, but makes nothing more.
            if not self._waiting or "size" not in job.result or job.cancelled:
                process, self._process = self._process, None
        if process is not None:
            process.close()
        self._next()

    def _keep_end(self, job: _Job) -> None:
        """Write down how an export ended, unless it was forgotten meanwhile or the server ends.

        Raises:
            StoreError: if the data file takes nothing, or is closed.
        """
        if self._closed or self.find(job.id) is None:
            return
        state, said = self._state(job)
        still = job.result.get("still")
        self._store.exports.ended(
            job.id,
            state,
            done=job.total if state == "done" else job.done,
            size=job.result.get("size"),
            said=said,
            remarks=job.result.get("remarks", ()),
            still=base64.b64decode(still) if still else None,
        )

    def _state(self, job: _Job) -> tuple[ExportState, str | None]:
        if "size" in job.result:
            return "done", None
        if job.cancelled:
            return "cancelled", None
        return "failed", job.result.get("error") or f"the export ended without a word after {job.done} of {job.total} pictures; run it again"

    def _made(self, job: _Job) -> None:
        """Run the process of an export and follow it to its end."""
        assert job.scene is not None
        self._folder.mkdir(parents=True, exist_ok=True, mode=0o700)
        scene = self._folder / f"{job.id}.scene{UNFINISHED}"
        out = self._folder / f"{job.id}{EXPORTS[job.options.format].ends_with}"
        try:
            scene.write_bytes(bundle(job.scene))
            # The stored bundle replaces the scene in memory.
            job.scene = None
            asked = {
                "folder": str(self._folder.absolute()),
                "scene": scene.name,
                "options": job.options.model_dump(mode="json"),
                "out": out.name,
                "farm": self._farm,
            }
            with self._lock:
                if job.cancelled or self._closed:
                    return
                job.process = self._process = self._process or ExportProcess()
                job.began = time.monotonic()
            for line in job.process.run(json.dumps(asked)):
                told = json.loads(line)
                job.done = told.get("done", job.done)
                job.result |= told
                if told.keys() & {"size", "error"}:
                    return
        finally:
            scene.unlink(missing_ok=True)
            if "size" not in job.result:
                self._remove_files(job.id)

    def _clear_up(self) -> None:
        """Record exports that a killed server left unfinished as stopped, and remove what was written of them.

        Only files that begin with the id of an unfinished export are removed: the folder may hold files of the animator, too.
        """
        self._store.exports.stop_unfinished(_STOPPED)
        for kept in self.all():
            if kept.state != "done":
                self._remove_files(kept.id)
        self._forget_old()

    def _remove_files(self, export_id: str) -> None:
        """Remove the files of an export, finished or not. What cannot be removed stays; it must not keep the server from starting."""
        for file in self._folder.glob(f"{export_id}.*") if self._folder.is_dir() else ():
            with suppress(OSError):
                file.unlink(missing_ok=True)

    def _forget_old(self) -> None:
        total = 0
        for number, one in enumerate(kept for kept in self.all() if kept.state not in ("waiting", "running")):
            total += one.size or 0
            if number >= KEPT or (total > MOST_BYTES and number):
                self.forget(one.id)


def file_stem(name: str) -> str:
    """A name as that of a file which every system takes."""
    kept = "".join(c if c.isalnum() or c in " -_" else "-" for c in name).strip(" -")
    return kept[:80].rstrip(" -") or "scene"
