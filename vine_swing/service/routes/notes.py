"""Notes on a scene, and what the guide says of each kind."""

from functools import cache
from typing import Any, Literal

from fastapi.responses import Response
from pydantic import BaseModel

from vine_swing.faults import faults
from vine_swing.motion.basics.errors import NoSuchThing
from vine_swing.motion.edits import AnyEdit
from vine_swing.motion.notes import KINDS, Note
from vine_swing.motion.scene.timeline import Hushed
from vine_swing.service import wire
from vine_swing.service.api import api_router
from vine_swing.service.deps import DeadlineDep, NotesDep, SceneId, SessionsDep
from vine_swing.service.motion import Motion

router = api_router("notes")


class MendWords(BaseModel):
    """A ready mend: edits that are made as one step."""

    label: str
    edits: list[AnyEdit]


class NoteWords(BaseModel):
    """A note; see vine_swing.motion.notes. `object` is an id, or `dial:` and the id of a dial."""

    kind: str
    label: str
    object: str | None
    channel: str | None
    frames: tuple[float, float]
    text: str
    sure: float
    bad: float
    mends: list[MendWords]

    @classmethod
    def of(cls, note: Note) -> "NoteWords":
        """A note as it is told."""
        # Edits are models already: nothing is checked again.
        mends = [MendWords.model_construct(label=mend.label, edits=list[Any](mend.edits)) for mend in note.mends]
        given = {name: getattr(note, name) for name in ("kind", "object", "channel", "frames", "text", "sure", "bad")}
        return cls.model_construct(label=KINDS[note.kind].label, mends=mends, **given)


class NotesState(BaseModel):
    """The notes on a scene at a revision, the surest and worst first; which are hushed, and how many of those there would be."""

    revision: int
    notes: list[NoteWords]
    hushed: tuple[Hushed, ...]
    silent: int


class NoteKindWords(BaseModel):
    """A kind of note for the guide, and the size of its small pictures, px; `harmful` if its fault must not be shown moving."""

    name: str
    label: str
    why: str
    harmful: bool
    width: int
    height: int


@router.get("/scenes/{scene_id}/notes")
def read_notes(scene_id: SceneId, sessions: SessionsDep, notes: NotesDep, deadline: DeadlineDep) -> NotesState:
    """What is remarked on the motion of a scene in its current state."""
    with sessions.use(scene_id, deadline) as used:
        baked, revision = used.motion(deadline).baked, used.stored.revision
    found = notes.on(scene_id, baked)
    return NotesState.model_construct(
        revision=revision, notes=[NoteWords.of(note) for note in found.notes], hushed=baked.scene.hushed, silent=found.hushed
    )


@router.get("/note-kinds")
def all_note_kinds() -> list[NoteKindWords]:
    """Every kind of note, in the order the guide tells them in."""
    return [
        NoteKindWords(name=kind.name, label=kind.label, why=kind.why, harmful=kind.harmful, width=pair.fault.size[0], height=pair.fault.size[1])
        for kind in KINDS.values()
        if (pair := faults()[kind.name])
    ]


@router.get("/note-kinds/{name}/{which}/motion", response_class=Response)
def motion(name: str, which: Literal["fault", "sound"]) -> Response:
    """A small scene with the fault, or the same without it, as the page paints it."""
    if name not in KINDS:
        raise NoSuchThing(f"there is no kind of note '{name}'; there is {', '.join(KINDS)}")
    return Response(_motion(name, which), media_type=wire.MEDIA_TYPE)


@cache
def _motion(name: str, which: str) -> bytes:
    """They never change while the service runs."""
    return Motion.of(getattr(faults()[name], which), 0).message()
