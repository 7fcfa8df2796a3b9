"""Files brought in: drawings and scenes as objects or as scenes of their own, and tables as columns."""

from typing import Annotated, Any, Literal

from fastapi import Query, Request
from fastapi.concurrency import run_in_threadpool
from pydantic import BaseModel

from vine_swing.formats.samples import Table
from vine_swing.motion.edits.laying import LaySamples
from vine_swing.motion.scene.model import Scene
from vine_swing.service.api import api_router
from vine_swing.service.deps import DeadlineDep, SceneId, SessionsDep
from vine_swing.service.files import FILE_BODY, plain_name
from vine_swing.service.reading import READING

router = api_router("bringing in")
FileName = Annotated[str, Query(max_length=200)]


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


@router.post("/drawings", openapi_extra=FILE_BODY)
async def bring_drawing(request: Request, name: FileName, deadline: DeadlineDep) -> BroughtScene:
    """Read an SVG drawing, a scene file or a bundle, to be put into a scene. Nothing is kept yet."""
    read = await run_in_threadpool(deadline.read, "drawing or scene", await request.body(), plain_name(name))
    return BroughtScene(scene=read.scene, lost=list(read.lost))


@router.post("/bundles", status_code=201, openapi_extra=FILE_BODY)
async def open_bundle(request: Request, name: FileName, sessions: SessionsDep, deadline: DeadlineDep) -> OpenedFile:
    """Keep a new scene from a bundle, a scene file or an SVG drawing."""
    data = await request.body()

    def keep() -> OpenedFile:
        read = deadline.read("drawing or scene", data, plain_name(name), part=READING)
        return OpenedFile(id=sessions.create(read.scene, deadline=deadline), lost=list(read.lost))

    return await run_in_threadpool(keep)


@router.post("/tables", openapi_extra=FILE_BODY)
async def bring_table(request: Request, name: FileName, deadline: DeadlineDep) -> TableWords:
    """Read a table (CSV), to be written as keys as keys."""
    return table_words(await run_in_threadpool(deadline.read, "table", await request.body(), plain_name(name)))


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
