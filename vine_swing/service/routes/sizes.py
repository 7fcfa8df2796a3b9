"""The size of scenes in the data file, and reducing it."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from vine_swing.service.api import api_router
from vine_swing.service.deps import SceneId, SessionsDep

router = api_router("sizes")


class SizeWords(BaseModel):
    """Bytes of a scene in the data file: itself, the files of its pictures, sounds and fonts, its rehearsals, and its steps of undo and redo."""

    scene: int
    files: int
    rehearsals: int
    steps: int
    history: int


class Kept(BaseModel):
    """How many of the last steps of undo are kept."""

    model_config = ConfigDict(extra="forbid")
    keep: Annotated[int, Field(strict=True, ge=0, le=1_000_000)] = 20


@router.get("/scenes/{scene_id}/size")
def scene_size(scene_id: SceneId, sessions: SessionsDep) -> SizeWords:
    """How much a scene takes, one that was deleted too."""
    return SizeWords(**vars(sessions.store.size(scene_id)))


@router.post("/scenes/{scene_id}/forget-history")
def forget_history(scene_id: SceneId, body: Kept, sessions: SessionsDep) -> SizeWords:
    """Forget all steps of undo but the last ones. This cannot be taken back."""
    sessions.store.forget_history(scene_id, keep=body.keep)
    return scene_size(scene_id, sessions)


@router.delete("/scenes/{scene_id}/for-good", status_code=204)
def erase_scene(scene_id: SceneId, sessions: SessionsDep) -> None:
    """Take a scene that was deleted out of the data file, with its history and its rehearsals. This cannot be taken back."""
    sessions.store.erase(scene_id)
