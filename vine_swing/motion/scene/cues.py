"""Cues: stretches of the timeline that a key press or a click starts."""

from collections.abc import Collection
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from vine_swing.motion.basics.values import Frozen, Id, Name
from vine_swing.motion.scene.objects import WholeFrame

MAX_OBJECTS = 5_000
MAX_CUES = 200


class Cue(Frozen):
    """A stretch of the timeline that a key press or a click starts while the picture waits.

    first, last: the stretch, in frames, both shown.
    objects: the ids of those it moves; their children goes along.
    key: the key that starts it, as W3C UI Events names keys, in small letters; None for none.
    click: the id of the object on which a click starts it; None for none.
    plays: "once"; "loop", until it is started again; "held", as long as the key is held down. The last two end with the round they are in.
    """

    id: Id
    name: Name
    first: WholeFrame
    last: WholeFrame
    objects: Annotated[tuple[Id, ...], Field(max_length=MAX_OBJECTS)] = ()
    key: Annotated[str, Field(pattern=r"^(?:[^\s\x00-\x1f\x7fA-Z]|space|enter|arrowup|arrowdown|arrowleft|arrowright)$")] | None = None
    click: Id | None = None
    plays: Literal["once", "loop", "held"] = "once"

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if self.last < self.first:
            raise ValueError(f"cue '{self.name}' ends at frame {self.last}, before it begins at {self.first}; swap them")
        return self


def check_cues(cues: tuple[Cue, ...], objects: Collection[str]) -> None:
    """Refuse cues that share an id, or that name objects that are not there; `objects` are the ids of those that are.

    Raises:
        ValueError: naming the cue and the object.
    """
    if len({cue.id for cue in cues}) < len(cues):
        raise ValueError("two cues share an id; give each its own")
    for cue in cues:
        for object_id in (*cue.objects, *((cue.click,) if cue.click is not None else ())):
            if object_id not in objects:
                raise ValueError(f"cue '{cue.name}' names '{object_id}', which is no object of this scene")
