"""Sounds that are heard with a scene, what of a dial follows them, and the marks on the timeline that follow them."""

from typing import Annotated, Any, Literal, Self

from pydantic import Field, model_validator

from vine_swing.motion.basics.contents import SOUND_FILES
from vine_swing.motion.basics.values import MAX_FRAME, MAX_LENGTH, Frame, Frozen, Id, Name, Text
from vine_swing.motion.sound import ATTACK, RELEASE

#: Sounds of one scene, and the characters that one takes as base64: sixty megabytes.
MAX_SOUNDS, MAX_SOUND_DATA = 50, 80_000_000
MAX_MARKERS = 5_000
SoundFileId = Annotated[str, Field(pattern=r"^sound-[0-9a-f]{16}$")]
#: A moment of a sound, in seconds from its beginning.
Seconds = Annotated[float, Field(strict=True, ge=0, le=1200)]


class KeptSound(Frozen):
    """A sound that is heard with the scene, kept with it: WAV, MP3, Ogg, FLAC or AAC.

    file: `sound-` and the first sixteen digits of the SHA-256 of its content; several sounds may be stretches of one file.
    seconds: how long the file is. begin, end: what of it is heard, in seconds of the file; `end` null is its end.
    first: the frame of the scene at which `begin` is heard.
    on: whether it is heard. gain: how loud, 1 as it is. dial: the id of a dial by which that is multiplied, frame by frame.
    data: the file, in base64; only in files, with the first sound of each file.
    """

    id: Id
    name: Name
    file: SoundFileId
    seconds: Annotated[float, Field(strict=True, gt=0, le=1200)]
    first: Annotated[int, Field(strict=True, ge=-MAX_FRAME, le=MAX_FRAME)] = 0
    begin: Seconds = 0.0
    end: Seconds | None = None
    on: bool = True
    gain: Annotated[float, Field(strict=True, ge=0, le=8)] = 1.0
    dial: Id | None = None
    data: Annotated[str | None, Field(max_length=MAX_SOUND_DATA)] = None

    @property
    def content(self) -> bytes:
        """The file itself."""
        return SOUND_FILES.data_of(self.file)

    @property
    def until(self) -> float:
        """The moment of the file at which it ends, in seconds."""
        return self.seconds if self.end is None else min(self.end, self.seconds)

    @model_validator(mode="before")
    @classmethod
    def _content_kept(cls, given: Any) -> Any:
        """What a scene file holds of a sound's content goes where contents are looked up."""
        return SOUND_FILES.taken_from(given, "file", "sound")

    @model_validator(mode="after")
    def _can_be_heard(self) -> Self:
        if not SOUND_FILES.has(self.file):
            raise ValueError(f"the sound '{self.name}' has no content; bring the file in again")
        if self.begin >= self.until:
            raise ValueError(
                f"the sound '{self.name}' begins at {self.begin:g} s, where it has ended already ({self.until:g} s); make it begin earlier"
            )
        return self


class Follow(Frozen):
    """How a dial follows a sound: how loud a band of it is in each frame, 0…1 over its own loudest; over the dial's range, where it has one.

    attack, release: the seconds in which it follows a rise and a fall by 1 − 1/e of the way.
    """

    sound: Id
    band: Literal["all", "low", "middle", "high"] = "all"
    attack: Annotated[float, Field(strict=True, ge=0, le=10)] = ATTACK
    release: Annotated[float, Field(strict=True, ge=0, le=10)] = RELEASE


class Marker(Frozen):
    """A mark at a frame of the timeline, to time motion by; `name` may be empty."""

    frame: Annotated[int, Field(strict=True, ge=0, le=MAX_LENGTH)]
    name: Annotated[Text, Field(max_length=80)] = ""


class Beat(Frozen):
    """An even beat: this many a minute, the first of a bar at the frame `first`, and how many beats a bar has."""

    minute: Annotated[float, Field(strict=True, ge=10, le=600)]
    first: Frame = 0.0
    bar: Annotated[int, Field(strict=True, ge=1, le=32)] = 4
