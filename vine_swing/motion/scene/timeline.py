"""One timeline with its objects, and the inner scenes that insets show."""

from collections import Counter
from collections.abc import Iterable
from itertools import pairwise
from typing import Annotated, Any, Self

from pydantic import Field, field_validator, model_validator

from vine_swing.motion.basics.values import Colour, Fps, Frozen, Id, Length, Name, Owner, Text
from vine_swing.motion.scene.cues import MAX_CUES, MAX_OBJECTS, Cue, check_cues
from vine_swing.motion.scene.dial import Dial
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.relations import check_bone, check_camera, check_lists, check_parents
from vine_swing.motion.scene.sounds import MAX_MARKERS, Beat, Marker

#: Inner scenes of one scene, and how many insets may be in one another.
MAX_INSETS, MAX_NESTED = 200, 8
#: Notes that are hushed in one scene.
MAX_HUSHED = 2_000


class MotionBlur(Frozen):
    """What moves is smeared as by an open shutter: each frame is the mean of `samples` moments spread evenly over `shutter`/360 of a frame."""

    samples: Annotated[int, Field(strict=True, ge=2, le=64)] = 16
    shutter: Annotated[float, Field(strict=True, gt=0, le=720)] = 180.0


class Hushed(Frozen):
    """A note that is not wanted: of a kind, on one object or dial (`dial:` and its id) and one of its channels; on any, where these are left out."""

    kind: Annotated[str, Field(pattern=r"^[a-z-]{1,40}$")]
    object: Owner | None = None
    channel: Annotated[Text, Field(max_length=64)] | None = None


class Timeline(Frozen):
    """What every scene has, inside another or by itself: a picture size, fps and length; objects in drawing order, the first at the back."""

    name: Name = "Untitled scene"
    fps: Fps = 24.0
    length: Length = 120
    size: tuple[Annotated[int, Field(strict=True, ge=1, le=8192)], Annotated[int, Field(strict=True, ge=1, le=8192)]] = (1280, 720)
    background: Colour = "#F7F2E7"
    blur: MotionBlur | None = None
    dials: Annotated[tuple[Dial, ...], Field(max_length=500)] = ()
    objects: Annotated[tuple[SceneObject, ...], Field(max_length=MAX_OBJECTS)] = ()
    cues: Annotated[tuple[Cue, ...], Field(max_length=MAX_CUES)] = ()
    #: Marks to time motion by, in order of their frames, and an even beat.
    markers: Annotated[tuple[Marker, ...], Field(max_length=MAX_MARKERS)] = ()
    beat: Beat | None = None
    #: The notes that stay silent.
    hushed: Annotated[tuple[Hushed, ...], Field(max_length=MAX_HUSHED)] = ()

    def is_hushed(self, kind: str, owner: str | None, channel: str | None) -> bool:
        """Whether a note of a kind on an object or dial, and a channel, is not wanted."""
        return any(one.kind == kind and (one.object is None or (one.object == owner and one.channel in (None, channel))) for one in self.hushed)

    @field_validator("size", mode="before")
    @classmethod
    def _size_from_json(cls, size: Any) -> Any:
        return tuple(size) if isinstance(size, list) else size

    @model_validator(mode="after")
    def _objects_fit(self) -> Self:
        by_id: dict[str, SceneObject] = {}
        names: set[str] = set()
        for thing in self.objects:
            if thing.id in by_id:
                raise ValueError(f"two objects have the id '{thing.id}'; every id must be its own")
            if thing.name in names:
                raise ValueError(f"two objects are called '{thing.name}'; give each its own name")
            by_id[thing.id] = thing
            names.add(thing.name)
        for thing in self.objects:
            if thing.parent is not None and thing.parent not in by_id:
                raise ValueError(f"'{thing.name}' has the parent '{thing.parent}', which is no object of this scene")
            if thing.bone is not None:
                check_bone(thing, by_id.get(thing.parent or ""))
            if thing.copying is not None:
                check_lists(thing.name, thing.copying, by_id)
        check_parents(self.objects)
        check_camera(self.objects)
        if len({dial.id for dial in self.dials}) < len(self.dials) or len({dial.name for dial in self.dials}) < len(self.dials):
            raise ValueError("two dials share an id or a name; give each its own")
        check_cues(self.cues, by_id)
        if any(one.frame >= other.frame for one, other in pairwise(self.markers)):
            raise ValueError("markers must be in order, one per frame; sort them and remove duplicates")
        return self


class InnerScene(Timeline):
    """A scene that insets show. Its fonts, pictures and inner scenes are kept with the scene it is inside of; its background is not painted
    where it is shown."""

    id: Id


def insets_shown(part: Timeline) -> list[str]:
    """The ids of the inner scenes that a scene, or an inner one, shows, each once."""
    return list(dict.fromkeys(thing.inset_of.scene for thing in part.objects if thing.inset_of is not None))


def times_shown(parts: Iterable[Timeline]) -> Counter[str]:
    """How many insets show each inner scene, in a scene and those inside it; by the ids of those that any shows."""
    return Counter(thing.inset_of.scene for part in parts for thing in part.objects if thing.inset_of is not None)


def check_insets(scene: Timeline, insets: tuple[InnerScene, ...]) -> None:
    """Refuse inner scenes that share an id, are not there, show each other in a ring, or are in one another too deep.

    Raises:
        ValueError: naming the object, or every scene of the ring.
    """
    by_id = {one.id: one for one in insets}
    if len(by_id) < len(insets) or len({one.name for one in insets}) < len(insets):
        raise ValueError("two inner scenes share an id or a name; give each its own")
    parts = (scene, *insets)
    if sum(len(part.objects) for part in parts) > MAX_OBJECTS:
        raise ValueError(f"a scene and the scenes inside it hold at most {MAX_OBJECTS} objects together; delete some first")
    for part in parts:
        for thing in part.objects:
            if thing.inset_of is not None and thing.inset_of.scene not in by_id:
                raise ValueError(f"'{thing.name}' shows the inner scene '{thing.inset_of.scene}', which is not kept with this scene")
    depth: dict[str, int] = {}

    def measure(inset_id: str, chain: tuple[str, ...]) -> int:
        if inset_id in chain:
            ring = " → ".join(by_id[one].name for one in (*chain[chain.index(inset_id) :], inset_id))
            raise ValueError(f"inner scenes show each other in a ring: {ring}; let one of them show another")
        if len(chain) >= MAX_NESTED:
            raise ValueError(f"inner scenes are nested more than {MAX_NESTED} levels deep; show some of them side by side instead")
        if inset_id not in depth:
            depth[inset_id] = 1 + max((measure(one, (*chain, inset_id)) for one in insets_shown(by_id[inset_id])), default=0)
        if len(chain) + depth[inset_id] > MAX_NESTED:
            raise ValueError(f"inner scenes are nested more than {MAX_NESTED} levels deep; show some of them side by side instead")
        return depth[inset_id]

    for one in insets:
        measure(one.id, ())
