"""Feels drawn by hand: seen while they are drawn, kept for all scenes."""

from typing import Annotated

import numpy as np
from fastapi import HTTPException, Path
from pydantic import BaseModel, ConfigDict, Field

from vine_swing.motion.basics.values import Name, Number
from vine_swing.motion.timing import ease
from vine_swing.motion.timing.ease import PointsEase
from vine_swing.motion.timing.ease.drawn import drawn
from vine_swing.service.api import api_router
from vine_swing.service.deps import SessionsDep
from vine_swing.store import OwnFeel

router = api_router("feels")
#: How many points draw the picture of a feel.
PICTURE_POINTS = 61
Share = Annotated[float, Field(ge=0, le=1)]


class DrawnFeel(BaseModel):
    """Points of a feel, [u, p] in order of u, and whether the curve through them is smooth."""

    model_config = ConfigDict(extra="forbid")
    points: Annotated[list[tuple[Share, Number]], Field(min_length=2, max_length=40)]
    smooth: bool = True


class FeelLook(BaseModel):
    """What a drawn feel is: the ease to give to keys, and p at evenly spread u for its picture."""

    ease: PointsEase
    curve: list[float]


class KeptFeel(FeelLook):
    """A drawn feel under its name."""

    name: str
    points: list[tuple[float, float]]
    smooth: bool


@router.get("/feels")
def own_feels(sessions: SessionsDep) -> list[KeptFeel]:
    """All feels that were drawn and kept."""
    return [_kept(feel) for feel in sessions.store.feels.all()]


@router.post("/feels/look")
def look_at_feel(feel: DrawnFeel) -> FeelLook:
    """The curve through some points, without keeping it."""
    return _look(feel.points, feel.smooth)


@router.put("/feels/{name:path}")
def keep_feel(name: Annotated[Name, Path()], feel: DrawnFeel, sessions: SessionsDep) -> KeptFeel:
    """Keep a feel under a name, for all scenes; one name is drawn again."""
    _look(feel.points, feel.smooth)
    own = OwnFeel(name.strip(), feel.points, feel.smooth)
    sessions.store.keep_feel(own)
    return _kept(own)


@router.delete("/feels/{name:path}", status_code=204)
def forget_feel(name: Annotated[Name, Path()], sessions: SessionsDep) -> None:
    """Let a drawn feel go. Keys that have it keep its curve."""
    if not sessions.store.feels.forget(name):
        raise HTTPException(404, f"there is no feel '{name[:80]}'; it may have been deleted")


def _look(points: list[tuple[float, float]], smooth: bool) -> FeelLook:
    try:
        found = drawn(points, smooth=smooth)
    except ValueError as error:
        raise HTTPException(422, str(error)) from error
    return FeelLook(ease=found, curve=ease.build(found).at(np.linspace(0, 1, PICTURE_POINTS)).round(4).tolist())


def _kept(feel: OwnFeel) -> KeptFeel:
    look = _look(feel.points, feel.smooth)
    return KeptFeel(name=feel.name, points=feel.points, smooth=feel.smooth, ease=look.ease, curve=look.curve)
