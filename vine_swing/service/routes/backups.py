"""Copies of the whole data file: which there are, and bringing one back."""

from datetime import datetime
from typing import Annotated

from fastapi import Path
from pydantic import BaseModel

from vine_swing.service.api import api_router
from vine_swing.service.deps import SessionsDep
from vine_swing.store.backups import Why

router = api_router("backups")


class BackupWords(BaseModel):
    """A copy of all scenes. made: local time. why: at the first change of a `day`, before the `schema` of the file changed, or `before` another copy
    was brought back. size: bytes."""

    name: str
    made: datetime
    why: Why
    size: int


@router.get("/backups")
def list_backups(sessions: SessionsDep) -> list[BackupWords]:
    """The copies there are, the newest first; seven are kept."""
    return [BackupWords(**vars(one)) for one in sessions.store.backups()]


@router.post("/backups/{name}/bring-back")
def bring_back(name: Annotated[str, Path(max_length=64)], sessions: SessionsDep) -> list[BackupWords]:
    """Put all scenes as they were in a copy. What there is now becomes a copy itself, so that this can be taken back in the same way."""
    sessions.bring_back(name)
    return list_backups(sessions)
