"""What a note is: something about the motion that a supervising animator would remark, and what would mend it."""

import re
from collections.abc import Callable, Iterable
from dataclasses import KW_ONLY, dataclass
from typing import Literal

from vine_swing.motion.edits.base import Edit
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.scene.objects import SceneObject


@dataclass(frozen=True)
class Mend:
    """Edits that put right what a note tells, as one step; `label` says what they do."""

    label: str
    edits: tuple[Edit, ...]


@dataclass(frozen=True)
class Note:
    """One remark.

    kind: the name of its kind. object: the id of the object or `dial:` and the id of the dial, None for the scene as a whole. channel: of that, if it
    is about one. frames: the first and the last it is about. text: one sentence. sure: 0…1, how likely it is no intent. bad: 0…1, how much it
    is seen. mends: ready edits, the best first.
    """

    kind: str
    object: str | None
    channel: str | None
    frames: tuple[float, float]
    text: str
    _: KW_ONLY
    sure: float
    bad: float
    mends: tuple[Mend, ...] = ()

    def __post_init__(self) -> None:
        # Numbers in a sentence have a real minus sign.
        object.__setattr__(self, "text", re.sub(r"(?<![\w)])-(?=\d)", "−", self.text))


@dataclass(frozen=True, kw_only=True)
class NoteKind:
    """A kind of note.

    label: a short name. why: why it matters, and when it is meant, for the guide. about: whether it looks at one object at a time, or at the scene.
    of_object, of_scene: the notes of one object, and of the scene as a whole. harmful: whether the fault itself must not be shown moving.
    """

    name: str
    label: str
    why: str
    about: Literal["object", "scene"]
    of_object: Callable[[SceneMeasures, SceneObject], Iterable[Note]] | None = None
    of_scene: Callable[[SceneMeasures], Iterable[Note]] | None = None
    harmful: bool = False
