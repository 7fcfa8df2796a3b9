"""Export jobs: start, watch, stop, fetch."""

from typing import Annotated, Literal

import numpy as np
from fastapi import APIRouter, HTTPException, Path
from fastapi.responses import FileResponse
from pydantic import BaseModel, ConfigDict, Field

from vine_swing.formats import EXPORTS
from vine_swing.formats.opaque import over_colour
from vine_swing.motion.baking.bake import bake
from vine_swing.motion.basics.values import MAX_LENGTH, Colour
from vine_swing.service.deps import ExportsDep, SessionsDep
from vine_swing.service.exports import Job

router = APIRouter(tags=["export"])
JobId = Annotated[str, Path(max_length=64)]


class ExportRequest(BaseModel):
    """What to export: which format, at what share of the scene's size, and from which frame to which; the whole scene if left out. `under` is the
    colour under a see-through background, in formats that cannot be seen through."""

    model_config = ConfigDict(extra="forbid")
    format: str
    scale: Annotated[float, Field(gt=0, le=2)] = 1.0
    first: Annotated[int, Field(strict=True, ge=0, le=MAX_LENGTH)] | None = None
    last: Annotated[int, Field(strict=True, ge=0, le=MAX_LENGTH)] | None = None
    under: Colour = "#FFFFFF"


class ExportState(BaseModel):
    """How far an export is."""

    id: str
    state: Literal["running", "done", "cancelled", "failed"]
    done: int
    total: int
    file_name: str
    error: str | None


@router.post("/scenes/{scene_id}/exports", status_code=202)
def start_export(scene_id: Annotated[str, Path(max_length=64)], body: ExportRequest, sessions: SessionsDep, exports: ExportsDep) -> ExportState:
    """Begin to export a scene as it is now."""
    if body.format not in EXPORTS:
        raise HTTPException(422, f"there is no export format '{body.format[:40]}'; there are {', '.join(EXPORTS)}")
    with sessions.use(scene_id) as session:
        scene = session.stored.scene
    first, last = body.first or 0, scene.length - 1 if body.last is None else body.last
    if not first <= last < scene.length:
        raise HTTPException(422, f"there are no frames {first} to {last}; the scene has frames 0 to {scene.length - 1}")
    if EXPORTS[body.format].opaque:
        scene = over_colour(scene, body.under)
    frames = np.arange(first, last + 1, dtype=float)
    job = exports.start(lambda: bake(scene, frames), len(frames), name=scene.name, format_name=body.format, scale=body.scale)
    return _state(job)


@router.get("/exports/{job_id}")
def export_state(job_id: JobId, exports: ExportsDep) -> ExportState:
    """How far an export is."""
    return _state(_job(exports, job_id))


@router.delete("/exports/{job_id}")
def cancel_export(job_id: JobId, exports: ExportsDep) -> ExportState:
    """Stop an export; what was written is removed."""
    job = _job(exports, job_id)
    job.stop.set()
    return _state(job)


@router.get("/exports/{job_id}/file", response_class=FileResponse)
def export_file(job_id: JobId, exports: ExportsDep) -> FileResponse:
    """The finished file."""
    job = _job(exports, job_id)
    if job.state != "done":
        raise HTTPException(404, f"this export is {job.state}; its file can be fetched once it is done")
    return FileResponse(job.path, filename=job.file_name, media_type=job.media_type)


def _job(exports: ExportsDep, job_id: str) -> Job:
    job = exports.get(job_id)
    if job is None:
        raise HTTPException(404, f"there is no export '{job_id}'; exports end with the server that made them, so start it again")
    return job


def _state(job: Job) -> ExportState:
    return ExportState(id=job.id, state=job.state, done=job.done, total=job.total, file_name=job.file_name, error=job.error)
