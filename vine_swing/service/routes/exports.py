"""Exports: a look in advance, asking for some, the list of them, watching, stopping, fetching."""

from typing import Annotated, Any

from fastapi import HTTPException, Path, Response
from fastapi.responses import FileResponse
from pydantic import BaseModel, ConfigDict, Field

from vine_swing.formats import EXPORTS
from vine_swing.formats.export_preview import estimated, preview_export
from vine_swing.formats.options import ExportOptions
from vine_swing.formats.run import in_text
from vine_swing.motion.basics.values import Frame, Name
from vine_swing.service.api import api_router
from vine_swing.service.deps import ExportsDep, SceneId, SessionsDep
from vine_swing.service.exports import Exports, TooManyExports
from vine_swing.store.exports import ExportState, KeptExport

router = api_router("export")
JobId = Annotated[str, Path(max_length=64)]


class ExportRequest(BaseModel):
    """What to export: the options, in one or more formats. name: of the files, without their ending; that of the scene if left out."""

    model_config = ConfigDict(extra="forbid")
    formats: Annotated[list[Annotated[str, Field(max_length=40)]], Field(min_length=1, max_length=20)]
    options: ExportOptions
    name: Name | None = None


class LookRequest(BaseModel):
    """A look at an export: its options, and the frame to look at."""

    model_config = ConfigDict(extra="forbid")
    options: ExportOptions
    frame: Frame = 0.0


class ExportLook(BaseModel):
    """What an export will be: size in px, how many pictures, for how long; a frame of it as a data URL, or how its text begins; and what cannot be
    kept."""

    width: int
    height: int
    pictures: int
    seconds: float
    remarks: list[str]
    picture: str | None
    text: str | None


class ExportSize(BaseModel):
    """About how many bytes an export will have."""

    size: int


class ExportReport(BaseModel):
    """One export: what was asked for and how far it is. place: in the queue, 0 for the one under way. left: seconds it will still take. size: of the
    file, bytes. error: why it is missing. current: whether the scene is still unchanged exported; None if it is missing."""

    id: str
    scene: str
    scene_name: str | None
    name: str
    format: str
    label: str
    options: dict[str, Any]
    asked: str
    state: ExportState
    done: int
    total: int
    place: int | None
    left: float | None
    size: int | None
    error: str | None
    remarks: list[str]
    has_still: bool
    current: bool | None


@router.post("/scenes/{scene_id}/exports/look")
def look_at_export(scene_id: SceneId, body: LookRequest, sessions: SessionsDep) -> ExportLook:
    """See one frame as it will be, before anything is made."""
    with sessions.use(scene_id) as session:
        scene = session.stored.scene
    found = preview_export(scene, body.options, body.frame)
    picture = None if found.picture is None else f"data:{found.media_type};base64,{in_text(found.picture)}"
    return ExportLook(
        width=found.width,
        height=found.height,
        pictures=found.pictures,
        seconds=found.seconds,
        remarks=list(found.remarks),
        picture=picture,
        text=found.text,
    )


@router.post("/scenes/{scene_id}/exports/size")
def estimate_export(scene_id: SceneId, body: LookRequest, sessions: SessionsDep) -> ExportSize:
    """About how many bytes an export will have."""
    with sessions.use(scene_id) as session:
        scene = session.stored.scene
    return ExportSize(size=estimated(scene, body.options, body.frame))


@router.post("/scenes/{scene_id}/exports", status_code=202)
def start_exports(scene_id: SceneId, body: ExportRequest, sessions: SessionsDep, exports: ExportsDep) -> list[ExportReport]:
    """Ask for exports of a scene in its current state; they are made one after the other."""
    with sessions.use(scene_id) as session:
        stored = session.stored
    made = []
    for name in body.formats:
        options = body.options.copy_with(format=name)
        try:
            made.append(exports.start(stored.scene, options, scene_id=scene_id, revision=stored.revision, name=body.name or ""))
        except TooManyExports as error:
            raise HTTPException(429, "too many exports wait already; let some finish or take them out of the list first") from error
    return [_report(exports, sessions, one) for one in made]


@router.get("/exports")
def all_exports(exports: ExportsDep, sessions: SessionsDep) -> list[ExportReport]:
    """All exports that are kept, the last asked for first."""
    return [_report(exports, sessions, one) for one in exports.all()]


@router.get("/exports/{job_id}")
def export_state(job_id: JobId, exports: ExportsDep, sessions: SessionsDep) -> ExportReport:
    """How far an export is."""
    return _report(exports, sessions, _kept(exports, job_id))


@router.post("/exports/{job_id}/cancel")
def cancel_export(job_id: JobId, exports: ExportsDep, sessions: SessionsDep) -> ExportReport:
    """Stop an export, or take it out of the queue; what was written is removed."""
    exports.cancel(_kept(exports, job_id).id)
    return _report(exports, sessions, _kept(exports, job_id))


@router.post("/exports/{job_id}/first")
def make_export_next(job_id: JobId, exports: ExportsDep, sessions: SessionsDep) -> ExportReport:
    """Let a waiting export be the next."""
    exports.first(_kept(exports, job_id).id)
    return _report(exports, sessions, _kept(exports, job_id))


@router.delete("/exports/{job_id}", status_code=204)
def forget_export(job_id: JobId, exports: ExportsDep) -> None:
    """Remove an export with its file."""
    exports.forget(_kept(exports, job_id).id)


@router.get("/exports/{job_id}/file", response_class=FileResponse)
def export_file(job_id: JobId, exports: ExportsDep) -> FileResponse:
    """The finished file."""
    kept = _kept(exports, job_id)
    path = exports.path(kept)
    if kept.state != "done" or not path.exists():
        raise HTTPException(404, f"this export is {kept.state}; its file can be fetched once it is done")
    # A page or a picture with scripts of its own could otherwise be opened as one of ours.
    headers = {"content-security-policy": "sandbox; default-src 'none'; style-src 'unsafe-inline'; img-src data:"}
    return FileResponse(path, filename=kept.name, media_type=EXPORTS[kept.format].media_type, headers=headers)


@router.get("/exports/{job_id}/still", response_class=Response, responses={200: {"content": {"image/png": {}}}})
def export_still(job_id: JobId, exports: ExportsDep) -> Response:
    """A small picture from the middle of a finished export."""
    still = exports.still(_kept(exports, job_id).id)
    if still is None:
        raise HTTPException(404, "there is no picture of this export; it was not finished")
    return Response(still, media_type="image/png", headers={"cache-control": "private, max-age=31536000, immutable"})


def _kept(exports: Exports, job_id: str) -> KeptExport:
    kept = exports.find(job_id)
    if kept is None:
        raise HTTPException(404, f"there is no export '{job_id}'; it may have been removed from the list")
    return kept


def _report(exports: Exports, sessions: SessionsDep, kept: KeptExport) -> ExportReport:
    progress = exports.progress(kept)
    whole = kept.scene.partition("~")[0]
    line = sessions.store.line(whole)
    return ExportReport(
        id=kept.id,
        scene=kept.scene,
        scene_name=line[0] if line is not None else None,
        name=kept.name,
        format=kept.format,
        label=EXPORTS[kept.format].label if kept.format in EXPORTS else kept.format,
        options=kept.options,
        asked=kept.asked,
        state=kept.state,
        done=progress.done,
        total=kept.total,
        place=progress.place,
        left=progress.left,
        size=kept.size,
        error=kept.said,
        remarks=list(kept.remarks),
        has_still=kept.state == "done",
        current=line[1] == kept.revision if line is not None else None,
    )
