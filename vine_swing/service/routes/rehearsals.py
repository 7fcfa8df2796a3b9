"""Rehearsals: saving a version of a scene, comparing it with the current scene, and restoring it or parts of it."""

from functools import partial
from typing import Annotated, Any, Literal

from fastapi import Path
from fastapi.responses import Response
from pydantic import BaseModel, ConfigDict, Field

from vine_swing.motion.baking.differences import Difference, differences
from vine_swing.motion.basics.values import Name
from vine_swing.motion.edits.bringing_back import MAX_PARTS, BringBack, BroughtPart
from vine_swing.service import wire
from vine_swing.service.api import api_router
from vine_swing.service.deps import DeadlineDep, RehearsalsDep, SceneId, SessionsDep
from vine_swing.service.routes.scenes import CHANGED, Accepted, Changed, EditBatch, Page, Revision, changed_by
from vine_swing.service.sessions import whole_of
from vine_swing.store import Rehearsal

router = api_router("rehearsals")
RehearsalId = Annotated[str, Path(max_length=40)]
_PACKED: dict[int | str, dict[str, Any]] = {
    200: {"content": {wire.MEDIA_TYPE: {"schema": {"type": "string", "format": "binary"}}}, "description": "msgpack; docs/motion-on-the-wire.md"}
}
_PICTURE: dict[int | str, dict[str, Any]] = {200: {"content": {"image/webp": {}}, "description": "WebP"}}


class RehearsalWords(BaseModel):
    """A kept version. kept: when, in UTC; revision: of the scene then; size: bytes it accepts the data file; removed: when it was, if so."""

    id: str
    name: str
    kept: str
    revision: int
    size: int
    removed: str | None

    @classmethod
    def of(cls, one: Rehearsal) -> "RehearsalWords":
        """What is informed of a version."""
        return cls(**{name: getattr(one, name) for name in cls.model_fields})


class NewRehearsal(BaseModel):
    """A version to be kept; called by its number without a name."""

    model_config = ConfigDict(extra="forbid")
    name: Name | None = None


class RehearsalName(BaseModel):
    """Another name."""

    model_config = ConfigDict(extra="forbid")
    name: Name


class DifferenceWords(BaseModel):
    """A difference; see vine_swing.motion.baking.differences."""

    what: Literal["channel", "drawing", "all"]
    object: str | None
    name: str
    channel: str | None
    label: str
    most: float | None
    at: int | None
    frames: tuple[int, int] | None
    unit: str
    only: Literal["now", "kept"] | None

    @classmethod
    def of(cls, one: Difference) -> "DifferenceWords":
        """A difference as it is told."""
        return cls(**vars(one))


class Differences(BaseModel):
    """How the scene at a revision differs from another version."""

    revision: int
    differences: list[DifferenceWords]


class BringingBack(BaseModel):
    """What is to be brought back; all without parts."""

    model_config = ConfigDict(extra="forbid")
    revision: Revision
    page: Page = None
    parts: Annotated[list[BroughtPart], Field(min_length=1, max_length=MAX_PARTS)] | None = None


@router.get("/scenes/{scene_id}/rehearsals")
def list_rehearsals(scene_id: SceneId, sessions: SessionsDep) -> list[RehearsalWords]:
    """The kept versions of a scene, the last one first; those that were removed too."""
    sessions.store.revision(whole_of(scene_id))
    return [RehearsalWords.of(one) for one in sessions.store.rehearsals.all(whole_of(scene_id))]


@router.post("/scenes/{scene_id}/rehearsals", status_code=201)
def keep_rehearsal(scene_id: SceneId, body: NewRehearsal, rehearsals: RehearsalsDep, deadline: DeadlineDep) -> RehearsalWords:
    """Keep the scene in its current state."""
    return RehearsalWords.of(rehearsals.keep(scene_id, body.name, deadline))


@router.patch("/scenes/{scene_id}/rehearsals/{rehearsal_id}")
def rename_rehearsal(scene_id: SceneId, rehearsal_id: RehearsalId, body: RehearsalName, sessions: SessionsDep) -> RehearsalWords:
    """Give a version another name."""
    return RehearsalWords.of(sessions.store.rehearsals.rename(whole_of(scene_id), rehearsal_id, body.name.strip()))


@router.delete("/scenes/{scene_id}/rehearsals/{rehearsal_id}")
def remove_rehearsal(scene_id: SceneId, rehearsal_id: RehearsalId, sessions: SessionsDep) -> RehearsalWords:
    """Take a version off the list; it can be put back."""
    return RehearsalWords.of(sessions.store.rehearsals.remove(whole_of(scene_id), rehearsal_id))


@router.post("/scenes/{scene_id}/rehearsals/{rehearsal_id}/put-back")
def put_back_rehearsal(scene_id: SceneId, rehearsal_id: RehearsalId, sessions: SessionsDep) -> RehearsalWords:
    """Put a removed version back on the list."""
    return RehearsalWords.of(sessions.store.rehearsals.put_back(whole_of(scene_id), rehearsal_id))


@router.get("/scenes/{scene_id}/rehearsals/{rehearsal_id}/still", response_class=Response, responses=_PICTURE)
def rehearsal_still(scene_id: SceneId, rehearsal_id: RehearsalId, sessions: SessionsDep) -> Response:
    """The small picture of a version."""
    data = sessions.store.rehearsals.still(whole_of(scene_id), rehearsal_id)
    return Response(data, media_type="image/webp", headers={"cache-control": "public, max-age=31536000, immutable"})


@router.get("/scenes/{scene_id}/rehearsals/{rehearsal_id}/motion", response_class=Response, responses=_PACKED)
def rehearsal_motion(scene_id: SceneId, rehearsal_id: RehearsalId, rehearsals: RehearsalsDep, deadline: DeadlineDep) -> Response:
    """The baked arrays of a version, all of them."""
    return Response(rehearsals.motion(scene_id, rehearsal_id, deadline).message(), media_type=wire.MEDIA_TYPE)


@router.get("/scenes/{scene_id}/rehearsals/{rehearsal_id}/differences")
def rehearsal_differences(scene_id: SceneId, rehearsal_id: RehearsalId, rehearsals: RehearsalsDep, deadline: DeadlineDep) -> Differences:
    """How the scene in its current state differs from a version."""
    revision, found = rehearsals.differences(scene_id, rehearsal_id, deadline)
    return Differences(revision=revision, differences=[DifferenceWords.of(one) for one in found])


@router.post("/scenes/{scene_id}/rehearsals/{rehearsal_id}/bring-back", responses=CHANGED, response_model=None)
def bring_back(
    scene_id: SceneId,
    rehearsal_id: RehearsalId,
    body: BringingBack,
    sessions: SessionsDep,
    rehearsals: RehearsalsDep,
    deadline: DeadlineDep,
    accept: Accepted = "",
) -> Changed | Response:
    """Make the whole scene, or parts of it, as in a version: an edit like any other, with one step of undo. Answers as edits do."""
    whole = whole_of(scene_id)
    kept, called = rehearsals.scene(whole, rehearsal_id), sessions.store.rehearsals.find(whole, rehearsal_id).name
    # Parts are models already, and the scene was checked when it was read.
    edit = BringBack.model_construct(edit="bring-back", kept=kept, parts=None if body.parts is None else tuple(body.parts), called=called)
    work = partial(sessions.edit, whole, [edit], revision=body.revision, deadline=deadline, page=body.page)
    return changed_by(sessions, whole, body.page, deadline, accept, work)


@router.post("/scenes/{scene_id}/beside", response_class=Response, responses=_PACKED)
def beside(scene_id: SceneId, batch: EditBatch, sessions: SessionsDep, deadline: DeadlineDep) -> Response:
    """The scene as it would be after some edits, to be seen beside itself: `motion`, all arrays as msgpack, and `differences`, as JSON text, in which
    what the edits would make represents what was kept. Nothing is changed."""
    now, then = sessions.beside(scene_id, batch.edits, revision=batch.revision, deadline=deadline)
    found = [DifferenceWords.of(one) for one in differences(now.baked, then.baked)]
    told = Differences(revision=batch.revision, differences=found).model_dump_json()
    return Response(wire.pack({"motion": then.message(), "differences": told.encode()}), media_type=wire.MEDIA_TYPE)
