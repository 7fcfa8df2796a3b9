"""Baked motion, as msgpack, and how one channel of it is made."""

import threading
from typing import Annotated, Any

import numpy as np
from fastapi import Query
from fastapi.responses import Response
from numpy.typing import NDArray
from pydantic import BaseModel

from vine_swing.motion.baking.explain import explain
from vine_swing.motion.basics import colour
from vine_swing.motion.basics.values import MAX_LENGTH
from vine_swing.motion.curves.svg_path import path_data
from vine_swing.picture.preview import preview, still
from vine_swing.service import wire
from vine_swing.service.api import api_router
from vine_swing.service.deps import DeadlineDep, SceneId, SessionsDep
from vine_swing.service.routes.scenes import EditBatch
from vine_swing.service.sessions import whole_of

router = api_router("motion")
_PACKED: dict[int | str, dict[str, Any]] = {
    200: {"content": {wire.MEDIA_TYPE: {"schema": {"type": "string", "format": "binary"}}}, "description": "msgpack; docs/motion-on-the-wire.md"}
}
#: Previews are made one at a time: a Shelf asks for all of its scenes at once, and whoever opens one of them must not wait until all are baked.
_PREVIEW_LOCK = threading.Lock()


@router.get("/scenes/{scene_id}/motion", response_class=Response, responses=_PACKED)
def motion(scene_id: SceneId, sessions: SessionsDep, deadline: DeadlineDep, since: Annotated[int | None, Query(ge=0)] = None) -> Response:
    """The baked arrays of a scene: all of them, or those that changed after the revision `since`."""
    with sessions.use(scene_id, deadline) as session:
        return Response(session.motion(deadline).message(since), media_type=wire.MEDIA_TYPE)


@router.post("/scenes/{scene_id}/look", response_class=Response, responses=_PACKED)
def look(scene_id: SceneId, batch: EditBatch, sessions: SessionsDep, deadline: DeadlineDep) -> Response:
    """The arrays that would change if these edits were made. Nothing is kept."""
    return Response(sessions.look(scene_id, batch.edits, revision=batch.revision, deadline=deadline), media_type=wire.MEDIA_TYPE)


@router.get("/scenes/{scene_id}/preview", response_class=Response, responses={200: {"content": {"image/webp": {}}, "description": "WebP"}})
def scene_preview(scene_id: SceneId, sessions: SessionsDep, deadline: DeadlineDep, revision: Annotated[int | None, Query(ge=0)] = None) -> Response:
    """A small still of a scene in its current state. A `revision` in the address lets the browser keep the picture for good."""
    previews = sessions.store.previews
    now = sessions.store.revision(whole_of(scene_id))
    data = previews.find(scene_id, now) if scene_id == whole_of(scene_id) else None
    if data is None:
        with _PREVIEW_LOCK:
            with sessions.use(scene_id, deadline) as session:
                now, baked = session.stored.revision, session.motion(deadline).baked
            data = preview(baked)
        if scene_id == whole_of(scene_id):
            previews.keep(scene_id, now, data)
    lasting = "public, max-age=31536000, immutable" if revision == now else "no-cache"
    return Response(data, media_type="image/webp", headers={"cache-control": lasting})


@router.get("/scenes/{scene_id}/blurred", response_class=Response, responses={200: {"content": {"image/png": {}}, "description": "PNG"}})
def blurred_frame(
    scene_id: SceneId,
    sessions: SessionsDep,
    deadline: DeadlineDep,
    frame: Annotated[int, Query(ge=0, le=MAX_LENGTH)],
    scale: Annotated[float, Query(gt=0, le=2)] = 1.0,
) -> Response:
    """One frame as exports paint it, with motion blur; a `revision` in the address is for the browser's cache alone."""
    with sessions.use(scene_id, deadline) as used:
        baked = used.motion(deadline).baked
    return Response(still(baked, min(frame, baked.scene.length - 1), scale), media_type="image/png", headers={"cache-control": "no-cache"})


class VineStep(BaseModel):
    """One card of the vine: the curve so far, one value per frame (the lightness, for colours; the way passed in px, for paths); of outlines, the
    `outline` so far at the frame asked for, as SVG path data. `remark` says what keeps a rule from doing its work."""

    kind: str
    label: str
    rule: str | None
    on: bool
    values: list[float]
    remark: str | None
    outline: str | None = None


class Vine(BaseModel):
    """How one channel is made, left to right."""

    revision: int
    steps: list[VineStep]


@router.get("/scenes/{scene_id}/vine")
def vine(
    scene_id: SceneId,
    object_id: Annotated[str, Query(alias="object")],
    channel: str,
    sessions: SessionsDep,
    deadline: DeadlineDep,
    frame: Annotated[int, Query(ge=0, le=MAX_LENGTH)] = 0,
) -> Vine:
    """How one channel is made: keys, ends, each rule, result; outlines as they are at a frame."""
    with sessions.use(scene_id, deadline) as session:
        stored = session.stored
    steps = explain(stored.scene, object_id, channel, effort=deadline.effort())
    return Vine(
        revision=stored.revision,
        steps=[
            VineStep(
                kind=s.kind,
                label=s.label,
                rule=s.rule,
                on=s.on,
                values=_curve(s.values),
                remark=s.remark,
                outline=None if s.outlines is None else path_data(s.outlines.at(frame), decimals=2),
            )
            for s in steps
        ],
    )


def _curve(values: NDArray[np.float64]) -> list[float]:
    """What is drawn of a channel: the numbers themselves, the lightness (OKLab) of colours, or the way passed along a path."""
    if values.ndim == 2 and values.shape[1] == 2:
        return [0.0, *(float(v) for v in np.cumsum(np.hypot(*np.diff(values, axis=0).T)))]
    shown = values if values.ndim == 1 else colour.to_oklab(np.concatenate([values[:, :3], np.ones((len(values), 1))], axis=1))[:, 0]
    return [float(v) for v in shown]
