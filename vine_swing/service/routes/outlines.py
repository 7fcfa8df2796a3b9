"""Outlines as hands see them: points with handles, and which of them meet in the next key."""

from typing import Annotated

from fastapi import Query
from pydantic import BaseModel

from vine_swing.motion.basics.specs import OUTLINE
from vine_swing.motion.basics.values import MAX_FRAME
from vine_swing.motion.curves.joints import Point, strands_of
from vine_swing.motion.edits.outline_points import outline_at, outlined_in
from vine_swing.motion.scene.objects import ShapeObject
from vine_swing.motion.scene.shapes import OutlineShape
from vine_swing.motion.timing.outlines import pairs_between
from vine_swing.service.api import api_router
from vine_swing.service.deps import DeadlineDep, SceneId, SessionsDep

router = api_router("outlines")


class OutlinePoint(BaseModel):
    """A point an outline passes, with its handles in the object's own space; null where a straight line arrives or leaves."""

    x: float
    y: float
    into: Point | None
    out: Point | None
    smooth: bool


class OutlinePart(BaseModel):
    """One part of an outline."""

    closed: bool
    points: list[OutlinePoint]


class Meetings(BaseModel):
    """Where the points of a key's outline go in the next key: x, y, and x, y there. `chosen` are the numbers of two points that were said to meet."""

    frame: float
    lines: list[tuple[float, float, float, float]]
    chosen: tuple[int, int] | None


class OutlinePoints(BaseModel):
    """The outline of an object before its rules. `following` are the points of the next key, where the frame is that of a key with another one
    behind it."""

    revision: int
    parts: list[OutlinePart]
    tolerance: float | None
    meetings: Meetings | None
    following: list[OutlinePart]


@router.get("/scenes/{scene_id}/outline")
def outline(
    scene_id: SceneId,
    object_id: Annotated[str, Query(alias="object")],
    frame: Annotated[float, Query(ge=-MAX_FRAME, le=MAX_FRAME)],
    sessions: SessionsDep,
    deadline: DeadlineDep,
) -> OutlinePoints:
    """The points of an object's outline at a frame."""
    with sessions.use(scene_id, deadline) as session:
        stored = session.stored
    thing, shape = outlined_in(stored.scene, object_id)
    keys = thing.channels[OUTLINE].keys if thing.is_keyed(OUTLINE) else ()
    place = next((n for n, key in enumerate(keys[:-1]) if key.frame == frame), None)
    meetings = None if place is None else Meetings(frame=frame, lines=pairs_between(keys, place), chosen=keys[place].meets)
    return OutlinePoints(
        revision=stored.revision,
        parts=_parts(thing, shape, frame),
        tolerance=shape.hand.tolerance if shape.hand is not None and not keys else None,
        meetings=meetings,
        following=[] if place is None else _parts(thing, shape, keys[place + 1].frame),
    )


def _parts(thing: ShapeObject, shape: OutlineShape, frame: float) -> list[OutlinePart]:
    return [
        OutlinePart(
            closed=strand.closed,
            points=[OutlinePoint(x=one.at[0], y=one.at[1], into=one.into, out=one.out, smooth=one.is_smooth) for one in strand.joints],
        )
        for strand in strands_of(outline_at(thing, shape, frame))
    ]
