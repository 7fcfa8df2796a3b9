"""Baked motion, as msgpack."""

from typing import Annotated, Any

from fastapi import APIRouter, Path, Query
from fastapi.responses import Response

from vine_swing.service import wire
from vine_swing.service.deps import SessionsDep
from vine_swing.service.routes.scenes import EditBatch

router = APIRouter(tags=["motion"])
SceneId = Annotated[str, Path(max_length=64)]
_PACKED: dict[int | str, dict[str, Any]] = {
    200: {"content": {wire.MEDIA_TYPE: {"schema": {"type": "string", "format": "binary"}}}, "description": "msgpack; docs/motion-on-the-wire.md"}
}


@router.get("/scenes/{scene_id}/motion", response_class=Response, responses=_PACKED)
def motion(scene_id: SceneId, sessions: SessionsDep, since: Annotated[int | None, Query(ge=0)] = None) -> Response:
    """The baked arrays of a scene: all of them, or those that changed after the revision `since`."""
    with sessions.use(scene_id) as session:
        return Response(session.motion.message(since), media_type=wire.MEDIA_TYPE)


@router.post("/scenes/{scene_id}/look", response_class=Response, responses=_PACKED)
def look(scene_id: SceneId, batch: EditBatch, sessions: SessionsDep) -> Response:
    """The arrays that would change if these edits were made. Nothing is kept."""
    return Response(sessions.look(scene_id, batch.edits, revision=batch.revision), media_type=wire.MEDIA_TYPE)
