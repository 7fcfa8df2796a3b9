"""Edits of sounds, and of the marks on the timeline that follow them."""

from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from vine_swing.motion.basics.errors import EditError, NoSuchThing
from vine_swing.motion.basics.values import MAX_FRAME, Id, Name
from vine_swing.motion.edits.base import Edit
from vine_swing.motion.edits.objects import name_beside
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.scene_file import faults
from vine_swing.motion.scene.sounds import MAX_MARKERS, MAX_SOUNDS, Beat, KeptSound, Marker, Seconds
from vine_swing.motion.sound.reading import sound_of

#: Bytes of the files of all sounds of a scene.
_MOST_BYTES = 200_000_000


class AddSound(Edit):
    """Let a sound be heard with the scene. If its name is taken it gets the first number that makes it its own."""

    edit: Literal["add-sound"]
    sound: KeptSound

    def apply(self, scene: Scene) -> Scene:
        if len(scene.sounds) >= MAX_SOUNDS:
            raise EditError(f"a scene has at most {MAX_SOUNDS} sounds; take one out first")
        if self.sound.id in scene.sounds_by_id:
            raise EditError(f"there already is a sound with the id '{self.sound.id}'; give the new one its own")
        check_sound(self.sound)
        files = {one.file: len(one.content) for one in (*scene.sounds, self.sound)}
        if sum(files.values()) > _MOST_BYTES:
            raise EditError(f"the sounds of this scene would take more than {_MOST_BYTES / 1e6:.0f} MB; take one out, or bring a compressed one")
        name = name_beside({one.name for one in scene.sounds}, self.sound.name.strip())
        return scene.copy_with(sounds=(*scene.sounds, self.sound.copy_with(name=name)))

    def label(self, scene: Scene) -> str:
        return f"add the sound {self.sound.name}"


class SetSound(Edit):
    """Move a sound, trim it, turn it up or down, mute or rename it. Omitted fields stay unchanged; `end` null is the end of the file, `dial` null
    is none.

    With `keep`, the sound stays in sync while `begin` changes: its first frame moves, too.
    """

    edit: Literal["set-sound"]
    id: Id
    name: Name | None = None
    first: Annotated[int, Field(strict=True, ge=-MAX_FRAME, le=MAX_FRAME)] | None = None
    begin: Seconds | None = None
    end: Seconds | None = None
    on: bool | None = None
    gain: Annotated[float, Field(strict=True, ge=0, le=8)] | None = None
    dial: Id | None = None
    keep: bool = False

    def apply(self, scene: Scene) -> Scene:
        before = sound_in(scene, self.id)
        changes: dict[str, Any] = {name: value for name in ("first", "begin", "on", "gain") if (value := getattr(self, name)) is not None}
        changes |= {name: getattr(self, name) for name in ("end", "dial") if name in self.model_fields_set}
        if self.name is not None:
            changes["name"] = name_beside({one.name for one in scene.sounds if one is not before}, self.name.strip())
        if self.keep and self.begin is not None and self.first is None:
            # Trims by less than a frame would shift what is heard: the beginning goes to where a frame begins.
            moved = round((self.begin - before.begin) * scene.fps)
            changes |= {"first": before.first + moved, "begin": max(0.0, before.begin + moved / scene.fps)}
        try:
            after = before.checked(**changes)
        except ValidationError as error:
            raise EditError("; ".join(faults(error))) from error
        return scene.copy_with(sounds=tuple(after if one is before else one for one in scene.sounds))

    def label(self, scene: Scene) -> str:
        name = sound_in(scene, self.id).name
        if self.name is not None:
            return f"rename {name} to {self.name}"
        if self.begin is not None or "end" in self.model_fields_set:
            return f"trim {name}"
        if self.first is not None:
            return f"move {name}"
        if self.on is not None:
            return f"{'hear' if self.on else 'mute'} {name}"
        return f"loudness of {name}"


class DeleteSound(Edit):
    """Take a sound out of the scene. Dials that follow it follow their keys again."""

    edit: Literal["delete-sound"]
    id: Id

    def apply(self, scene: Scene) -> Scene:
        gone = sound_in(scene, self.id)
        return scene.copy_with(sounds=tuple(one for one in scene.sounds if one is not gone))

    def label(self, scene: Scene) -> str:
        return f"take out the sound {sound_in(scene, self.id).name}"


class SetMarkers(Edit):
    """Put marks on the timeline, in place of all there are: one to a frame."""

    edit: Literal["set-markers"]
    markers: Annotated[tuple[Marker, ...], Field(max_length=MAX_MARKERS)]

    def apply(self, scene: Scene) -> Scene:
        by_frame = {one.frame: one for one in self.markers}
        return scene.copy_with(markers=tuple(by_frame[frame] for frame in sorted(by_frame)))

    def label(self, scene: Scene) -> str:
        added = len({one.frame for one in self.markers}) - len(scene.markers)
        if not self.markers:
            return "take all markers away"
        return f"{'lay' if added > 0 else 'take away'} {abs(added)} marker{'s' * (abs(added) > 1)}" if added else "change markers"


class SetBeat(Edit):
    """Say how many beats a minute the scene is timed to, or null: none."""

    edit: Literal["set-beat"]
    beat: Beat | None

    def apply(self, scene: Scene) -> Scene:
        return scene.copy_with(beat=self.beat)

    def label(self, scene: Scene) -> str:
        return f"{self.beat.minute:g} beats a minute" if self.beat is not None else "no beat"


def sound_in(scene: Scene, sound_id: str) -> KeptSound:
    """The sound with this id.

    Raises:
        NoSuchThing: if it is missing.
    """
    found = scene.sounds_by_id.get(sound_id)
    if found is None:
        raise NoSuchThing(f"there is no sound '{sound_id}' in this scene; it may have been removed")
    return found


def check_sound(sound: KeptSound) -> None:
    """Refuse a sound whose file is none, is damaged, or is not as long as it says.

    Raises:
        MotionError: saying which.
    """
    heard = sound_of(sound.file)
    if abs(heard.seconds - sound.seconds) > 0.01:
        raise EditError(f"the sound '{sound.name}' is said to be {sound.seconds:g} s long, but its file has {heard.seconds:.3f} s; keep it again")


def check_heard(scene: Scene, *, since: Scene | None = None) -> None:
    """Refuse a scene with a sound that cannot be read; files of an earlier version are known to be good.

    Raises:
        MotionError: naming the sound.
    """
    known = {one.file for one in since.sounds} if since is not None else set()
    for sound in scene.sounds:
        if sound.file not in known:
            check_sound(sound)
