"""Scenes, edits, undo and redo, and scene files."""

import json
from collections import Counter
from collections.abc import Callable
from functools import partial
from typing import Annotated, Any

from fastapi import Header, Query, Request
from fastapi.responses import Response
from pydantic import BaseModel, ConfigDict, Field
from starlette.concurrency import run_in_threadpool

from vine_swing.motion.basics.values import Frame, Id, Name
from vine_swing.motion.edits import AnyEdit
from vine_swing.motion.edits.parcels import parcel_of
from vine_swing.motion.outline.text.families import faces_of
from vine_swing.motion.scene.cues import Cue
from vine_swing.motion.scene.dial import Dial
from vine_swing.motion.scene.kept import KeptPicture, OwnFont
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.scene_file import to_data
from vine_swing.motion.scene.sounds import Beat, KeptSound, Marker
from vine_swing.motion.scene.timeline import InnerScene, MotionBlur, times_shown
from vine_swing.service import wire
from vine_swing.service.api import api_router
from vine_swing.service.deadline import Deadline
from vine_swing.service.deps import DeadlineDep, SceneId, SessionsDep
from vine_swing.service.reading import scene_of
from vine_swing.service.session import InUse
from vine_swing.service.sessions import Sessions, whole_of

router = api_router("scenes")
Revision = Annotated[int, Field(strict=True, ge=0)]
MOST_PAGE_ID = 40
#: The page that asks, by the id it gave itself where it watches the scene; its steps of undo are its own.
Page = Annotated[str | None, Field(max_length=MOST_PAGE_ID)]
PageQuery = Annotated[str | None, Query(max_length=MOST_PAGE_ID)]


class Summary(BaseModel):
    """A line of the Shelf."""

    id: str
    name: str
    fps: float
    length: int
    width: int
    height: int
    objects: int
    revision: int
    changed: str


class Shelf(BaseModel):
    """All scenes, and those deleted that can be brought back; the last changed first."""

    scenes: list[Summary]
    deleted: list[Summary]


class HistoryState(BaseModel):
    """What undo and redo would do next; null where nothing exists."""

    undo: str | None
    redo: str | None


class OwnFontWords(BaseModel):
    """A font file kept with a scene, without its content; the weights to choose from."""

    id: str
    name: str
    licence: str
    weights: list[int]

    @classmethod
    def of(cls, font: OwnFont) -> "OwnFontWords":
        """What is informed of a font file."""
        return cls(id=font.id, name=font.name, licence=font.licence, weights=list(faces_of(font.id)[0].weights))


class InnerPart(BaseModel):
    """An object of a scene inside: what the troupe outside shows of it."""

    id: str
    name: str
    kind: str
    parent: str | None


class InnerWords(BaseModel):
    """A scene that insets show, without what is in it but the names; `shown` is how many insets show it, in the whole scene."""

    id: str
    name: str
    fps: float
    length: int
    size: tuple[int, int]
    shown: int
    parts: tuple[InnerPart, ...]

    @classmethod
    def all(cls, scene: Scene) -> "tuple[InnerWords, ...]":
        """What is informed of the inner scenes of a scene."""
        shown = times_shown(scene.timelines)
        return tuple(cls._of(inner, shown[inner.id]) for inner in scene.insets)

    @classmethod
    def _of(cls, inner: InnerScene, shown: int) -> "InnerWords":
        parts = tuple(InnerPart(id=one.id, name=one.name, kind=one.kind, parent=one.parent) for one in inner.objects)
        return cls(id=inner.id, name=inner.name, fps=inner.fps, length=inner.length, size=inner.size, shown=shown, parts=parts)


def pictures_shown(scene: Scene) -> dict[str, int]:
    """How many objects show each picture, in a scene and those inside it; by the ids of pictures that any shows."""
    books = [thing.pictured for part in scene.timelines for thing in part.objects if thing.pictured is not None]
    return dict(Counter(one for book in books for one in set(book.pictures)))


class Whole(BaseModel):
    """The scene that another is inside of."""

    id: str
    name: str


class SceneState(BaseModel):
    """A scene as it is at a revision; of one inside another, `whole` is the outermost."""

    id: str
    revision: int
    history: HistoryState
    scene: Scene
    own_fonts: tuple[OwnFontWords, ...] = ()
    inner: tuple[InnerWords, ...] = ()
    pictures_shown: dict[str, int] = {}
    whole: Whole | None = None


class SceneHead(BaseModel):
    """A scene without its objects."""

    name: str
    fps: float
    length: int
    size: tuple[int, int]
    background: str
    blur: MotionBlur | None
    palette: tuple[str, ...]
    pictures: tuple[KeptPicture, ...]
    sounds: tuple[KeptSound, ...]
    dials: tuple[Dial, ...]
    cues: tuple[Cue, ...]
    markers: tuple[Marker, ...]
    beat: Beat | None
    own_fonts: tuple[OwnFontWords, ...] = ()
    inner: tuple[InnerWords, ...] = ()
    pictures_shown: dict[str, int] = {}

    @classmethod
    def of(cls, scene: Scene, whole: Scene) -> "SceneHead":
        """The head of a scene, as it is; `whole` is what it is inside of, or itself."""
        given = {name: getattr(scene, name) for name in cls.model_fields if name not in ("own_fonts", "inner", "pictures_shown")}
        fonts = tuple(OwnFontWords.of(font) for font in scene.fonts)
        return cls.model_construct(**given, own_fonts=fonts, inner=InnerWords.all(whole), pictures_shown=pictures_shown(whole))


class Changed(BaseModel):
    """What an edit changed: the whole head of the scene, the order of its objects, and the objects that differ."""

    revision: int
    history: HistoryState
    head: SceneHead
    order: list[str]
    objects: list[SceneObject]


class EditBatch(BaseModel):
    """Edits to make as one step of undo, against the revision they were thought for."""

    model_config = ConfigDict(extra="forbid")
    revision: Revision
    page: Page = None
    edits: Annotated[list[AnyEdit], Field(min_length=1, max_length=5000)]


class AtRevision(BaseModel):
    """The revision a request was thought for."""

    model_config = ConfigDict(extra="forbid")
    revision: Revision
    page: Page = None


class NewName(BaseModel):
    """The name of a copy; its own name with a number if left out."""

    model_config = ConfigDict(extra="forbid")
    name: Name | None = None


@router.get("/scenes")
def list_scenes(sessions: SessionsDep) -> Shelf:
    """All scenes, the last changed first."""
    store = sessions.store
    return Shelf(
        scenes=[Summary.model_validate(vars(line)) for line in store.summaries()],
        deleted=[Summary.model_validate(vars(line)) for line in store.summaries(deleted=True)],
    )


_SCENE_BODY = {"requestBody": {"content": {"application/json": {"schema": {"type": "object"}}}, "required": True}}


@router.post("/scenes", status_code=201, openapi_extra=_SCENE_BODY)
async def create_scene(request: Request, sessions: SessionsDep, deadline: DeadlineDep) -> SceneState:
    """Keep a new scene, given in the scene file format, of which `format` and `version` may be left out; `{}` is an empty scene."""
    text = await request.body()
    return await run_in_threadpool(lambda: _opened(sessions, sessions.create(scene_of(text, deadline, fields_only=True), deadline=deadline)))


@router.post("/scene-files", status_code=201, openapi_extra=_SCENE_BODY)
async def open_scene_file(request: Request, sessions: SessionsDep, deadline: DeadlineDep) -> SceneState:
    """Keep a new scene from the bytes of a scene file. The answer to a faulty file lists the first faults with their locations."""
    text = await request.body()
    return await run_in_threadpool(lambda: _opened(sessions, sessions.create(scene_of(text, deadline), deadline=deadline)))


@router.get("/scenes/{scene_id}")
def read_scene(scene_id: SceneId, sessions: SessionsDep, page: PageQuery = None) -> SceneState:
    """A scene with its revision, and what undo and redo would do for a page."""
    return _opened(sessions, scene_id, page)


@router.get("/scenes/{scene_id}/file", response_class=Response)
def download_scene_file(scene_id: SceneId, sessions: SessionsDep) -> Response:
    """The scene as a scene file."""
    with sessions.use(scene_id) as session:
        scene = session.stored.scene
    text = json.dumps(to_data(scene), ensure_ascii=False, indent=1)
    return Response(text, media_type="application/json", headers={"content-disposition": 'attachment; filename="scene.vine.json"'})


class LeftBehindWords(BaseModel):
    """What a copied object leans on that was not copied along; `how` is "is attached to" or "follows"."""

    object: str
    id: str
    name: str
    how: str


class CopiedObjects(BaseModel):
    """Objects as a scene of their own, to be put into another by the edit `place-parcel`, and what stays behind."""

    scene: Scene
    behind: list[LeftBehindWords]


class Chosen(BaseModel):
    """Objects of a scene, by their ids, as they are at a frame."""

    model_config = ConfigDict(extra="forbid")
    objects: Annotated[list[Id], Field(min_length=1, max_length=10_000)]
    frame: Frame = 0.0


@router.post("/scenes/{scene_id}/parcel")
def pack_objects(scene_id: SceneId, body: Chosen, sessions: SessionsDep) -> CopiedObjects:
    """Objects with their descendants, and what they use (dials, pictures, fonts, inner scenes), to be put into another scene."""
    with sessions.use(scene_id) as session:
        parcel = parcel_of(session.stored.scene, body.objects, body.frame)
    return CopiedObjects(scene=parcel.scene, behind=[LeftBehindWords(**vars(one)) for one in parcel.behind])


@router.post("/scenes/{scene_id}/copies", status_code=201)
def duplicate_scene(scene_id: SceneId, body: NewName, sessions: SessionsDep, deadline: DeadlineDep) -> SceneState:
    """Keep a copy of a scene under another name; its history starts again."""
    with sessions.use(scene_id) as session:
        scene = session.stored.scene
    taken = {line.name for line in sessions.store.summaries()}
    name, n = body.name or scene.name, 2
    while body.name is None and name in taken:
        name, n = f"{scene.name[:74]} {n}", n + 1
    return _opened(sessions, sessions.create(scene.copy_with(name=name), deadline=deadline))


@router.delete("/scenes/{scene_id}", status_code=204)
def delete_scene(scene_id: SceneId, sessions: SessionsDep) -> None:
    """Take a scene off the Shelf; it can be restored."""
    sessions.store.delete(scene_id)
    sessions.forget(scene_id)


@router.post("/scenes/{scene_id}/restore")
def restore_scene(scene_id: SceneId, sessions: SessionsDep) -> SceneState:
    """Put a deleted scene back on the Shelf."""
    sessions.store.restore(scene_id)
    return _opened(sessions, scene_id)


#: Edits, undo and redo answer with JSON, or, to those who ask for msgpack, with the same JSON and the motion that changed along with it.
CHANGED: dict[int | str, dict[str, Any]] = {
    200: {"model": Changed, "content": {wire.MEDIA_TYPE: {"schema": {"type": "string", "format": "binary"}}}, "description": "what changed"}
}
Accepted = Annotated[str, Header(alias="accept", max_length=400)]


@router.post("/scenes/{scene_id}/edits", responses=CHANGED, response_model=None)
def edit_scene(scene_id: SceneId, batch: EditBatch, sessions: SessionsDep, deadline: DeadlineDep, accept: Accepted = "") -> Changed | Response:
    """Make edits, all or none, as one step of undo. 409 if the scene has moved on since `revision`."""
    work = partial(sessions.edit, scene_id, batch.edits, revision=batch.revision, deadline=deadline, page=batch.page)
    return changed_by(sessions, scene_id, batch.page, deadline, accept, work)


@router.post("/scenes/{scene_id}/undo", responses=CHANGED, response_model=None)
def undo(scene_id: SceneId, at: AtRevision, sessions: SessionsDep, deadline: DeadlineDep, accept: Accepted = "") -> Changed | Response:
    """Take back the last step of a page. With nothing to undo, nothing changes; 422 if others have changed the same objects since."""
    work = partial(sessions.undo, scene_id, revision=at.revision, deadline=deadline, page=at.page)
    return changed_by(sessions, scene_id, at.page, deadline, accept, work)


@router.post("/scenes/{scene_id}/redo", responses=CHANGED, response_model=None)
def redo(scene_id: SceneId, at: AtRevision, sessions: SessionsDep, deadline: DeadlineDep, accept: Accepted = "") -> Changed | Response:
    """Do the last undone step of a page again. With nothing to redo, nothing changes; 422 if others have changed the same objects since."""
    work = partial(sessions.redo, scene_id, revision=at.revision, deadline=deadline, page=at.page)
    return changed_by(sessions, scene_id, at.page, deadline, accept, work)


def _opened(sessions: Sessions, scene_id: str, page: str | None = None) -> SceneState:
    with sessions.use(scene_id) as used:
        stored, whole = used.stored, used.session.stored.scene
    fonts = tuple(OwnFontWords.of(font) for font in stored.scene.fonts)
    history = HistoryState(**vars(sessions.history(scene_id, page)))
    return SceneState(
        id=scene_id,
        revision=stored.revision,
        history=history,
        scene=stored.scene,
        own_fonts=fonts,
        inner=InnerWords.all(whole),
        pictures_shown=pictures_shown(whole),
        whole=Whole(id=whole_of(scene_id), name=whole.name) if stored.scene is not whole else None,
    )


def changed_by(sessions: Sessions, scene_id: str, page: str | None, deadline: Deadline, accept: str, work: Callable[[], InUse]) -> Changed | Response:
    """What some work of a page on a scene changed, in the form that is asked for."""
    with sessions.use(scene_id, deadline) as used:
        before = used.stored
        return answered(sessions, scene_id, work(), before.scene, before.revision, page, deadline, accept)


def answered(
    sessions: Sessions, scene_id: str, used: InUse, before: Scene | None, since: int, page: str | None, deadline: Deadline, accept: str
) -> Changed | Response:
    """What has changed in a scene since it was `before`, at the revision `since`; all, if it is not known how it was."""
    after = used.stored
    was = before.by_id if before is not None else {}
    changed = Changed(
        revision=after.revision,
        history=HistoryState(**vars(sessions.history(scene_id, page))),
        head=SceneHead.of(after.scene, used.session.stored.scene),
        order=[thing.id for thing in after.scene.objects],
        objects=[thing for thing in after.scene.objects if was.get(thing.id) is not thing],
    )
    if wire.MEDIA_TYPE not in accept:
        return changed
    message = used.motion(deadline).message(since if before is not None else None)
    return Response(wire.pack({"changed": changed.model_dump_json(by_alias=True).encode(), "motion": message}), media_type=wire.MEDIA_TYPE)
