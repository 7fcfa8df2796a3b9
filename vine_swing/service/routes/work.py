"""How far long work has come."""

from typing import Annotated

from fastapi import Path
from pydantic import BaseModel, Field

from vine_swing.service.api import api_router
from vine_swing.service.deps import WORK_ID, WorksDep

router = api_router("work")


class WorkState(BaseModel):
    """How far a request has come. share: of what it computes, from 0 to 1; null before it has begun and once it is answered."""

    share: float | None = Field(ge=0, le=1)


@router.get("/work/{work_id}")
async def read_work(work_id: Annotated[str, Path(pattern=WORK_ID)], works: WorksDep) -> WorkState:
    """How far a request has come that is under way; `work_id` is what its header `x-work` called it."""
    deadline = works.get(work_id)
    return WorkState(share=deadline.share if deadline is not None else None)
