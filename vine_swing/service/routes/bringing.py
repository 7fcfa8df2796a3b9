"""Files brought in: drawings and scenes as objects or as scenes of their own, and tables as columns."""

from typing import Annotated, Any, Literal

from fastapi import Query, Request
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel

from vine_swing.formats.bundle import read_scene
from vine_swing.formats.drawing import read_svg
from vine_swing.formats.samples import Table, read_table
from vine_swing.motion.edits.laying import LaySamples
from vine_swing.motion.scene.model import Scene
from vine_swing.service.api import api_router
from vine_swing.service.deps import DeadlineDep, SceneId, SessionsDep
from vine_swing.service.routes.pictures import plain_name

router = api_router("bringing in")
FileName = Annotated[str, Query(max_length=200)]
_BYTES = {"requestBody": {"content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}}, "required": True}}


class BroughtScene(BaseModel):
    """What a drawing, scene file or bundle holds, as the edit `place-parcel` takes it, and what could not be kept."""

    scene: Scene
    lost: list[str]


class OpenedFile(BaseModel):
    """A new scene from a file, by its id, and what could not be kept."""

    id: str
    lost: list[str]


class ColumnWords(BaseModel):
    """A column of a table; cells that are none of its kind are null."""

    name: str
    kind: Literal["number", "colour", "moment", "words"]
    cells: list[float | str | None]


class TableWords(BaseModel):
    """A table: its columns, which of them counts time and in what, and what was odd about it."""

    columns: list[ColumnWords]
    rows: int
    time: int | None
    unit: Literal["frames", "seconds", "rows"]
    remarks: list[str]


class LaidTrack(BaseModel):
    """The keys that samples would become."""

    frames: list[float]
    values: list[Any]


@router.post("/drawings", openapi_extra=_BYTES)
async def bring_drawing(request: Request, name: FileName) -> BroughtScene:
    """Read an SVG drawing, a scene file or a bundle, to be put into a scene. Nothing is kept yet."""
    data = await request.body()
    return await run_in_threadpool(_brought, data, plain_name(name))


@router.post("/bundles", status_code=201, openapi_extra=_BYTES)
async def open_bundle(request: Request, name: FileName, sessions: SessionsDep, deadline: DeadlineDep) -> OpenedFile:
    """Keep a new scene from a bundle, a scene file or an SVG drawing."""
    data = await request.body()

    def keep() -> OpenedFile:
        found = _brought(data, plain_name(name))
        return OpenedFile(id=sessions.create(found.scene, deadline=deadline), lost=found.lost)

    return await run_in_threadpool(keep)


@router.post("/tables", openapi_extra=_BYTES)
async def bring_table(request: Request, name: FileName) -> TableWords:
    """Read a table (CSV), to be laid down as keys."""
    data = await request.body()
    return table_words(await run_in_threadpool(read_table, data, plain_name(name)))


def table_words(found: Table) -> TableWords:
    """A table as it is sent."""
    columns = [ColumnWords(name=one.name, kind=one.kind, cells=list(one.cells)) for one in found.columns]
    return TableWords(columns=columns, rows=found.rows, time=found.time, unit=found.unit, remarks=list(found.remarks))


@router.post("/scenes/{scene_id}/samples/look")
def look_at_samples(scene_id: SceneId, body: LaySamples, sessions: SessionsDep) -> list[LaidTrack]:
    """The keys that samples would become, track by track; nothing is kept."""
    with sessions.use(scene_id) as session:
        scene = session.stored.scene
    keys = [body.keys_of(scene, track) for track in body.tracks]
    return [LaidTrack(frames=[key.frame for key in one], values=[key.value for key in one]) for one in keys]


def _brought(data: bytes, name: str) -> BroughtScene:
    if _is_drawing(data):
        drawing = read_svg(data, name)
        return BroughtScene(scene=drawing.scene, lost=list(drawing.lost))
    return BroughtScene(scene=read_scene(data), lost=[])


def _is_drawing(data: bytes) -> bool:
    """Whether bytes begin as XML does."""
    return data.lstrip(b"\xef\xbb\xbf \t\r\n")[:1] == b"<"
