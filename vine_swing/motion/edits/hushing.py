"""Keeping notes silent that are not wanted."""

from typing import Annotated, Literal

from pydantic import Field

from vine_swing.motion.basics.values import Owner, Text
from vine_swing.motion.edits.base import Edit
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.timeline import Hushed


class HushNote(Edit):
    """Hush a note, or show it again: of a kind on one object or dial (`dial:` and its id) and channel, or of the kind wherever it is.

    To show it again, give the same fields as when it was hushed.
    """

    edit: Literal["hush-note"]
    kind: Annotated[str, Field(pattern=r"^[a-z-]{1,40}$")]
    object: Owner | None = None
    channel: Annotated[Text, Field(max_length=64)] | None = None
    hushed: bool = True

    def apply(self, scene: Scene) -> Scene:
        one = Hushed(kind=self.kind, object=self.object, channel=self.channel)
        others = tuple(other for other in scene.hushed if other != one)
        return scene.copy_with(hushed=(*others, one) if self.hushed else others)

    def label(self, scene: Scene) -> str:
        return f"{'hush' if self.hushed else 'hear'} a note"
