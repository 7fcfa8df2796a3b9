"""Edits of pictures and flipbooks."""

from typing import Annotated, Literal

from pydantic import Field

from vine_swing.motion.basics.errors import EditError, NoSuchThing
from vine_swing.motion.basics.values import Frame, Id, Name, Number
from vine_swing.motion.edits.base import Edit, check_new, object_in, with_channel, with_object
from vine_swing.motion.edits.objects import free_name
from vine_swing.motion.scene.kept import MAX_PICTURES, KeptPicture, PictureBook, PictureId
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import PictureObject, SceneObject
from vine_swing.motion.timing.channel import Channel, Key
from vine_swing.motion.timing.ends import End

Pictures = Annotated[tuple[KeptPicture, ...], Field(min_length=1, max_length=MAX_PICTURES)]
#: How many frames each page of a flipbook is shown.
Pace = Annotated[float, Field(strict=True, gt=0, le=10_000)]
_MOST_BYTES = 300_000_000


class AddPicture(Edit):
    """Put a picture into the troupe, or a flipbook of several, which turns its pages forever; x and y are its middle."""

    edit: Literal["add-picture"]
    id: Id
    name: Name
    pictures: Pictures
    x: Number
    y: Number
    frames_a_page: Pace = 2.0
    first: Frame = 0.0

    def apply(self, scene: Scene) -> Scene:
        check_new(scene, self.id)
        kept = with_kept(scene, self.pictures)
        width, height = _shown_size(self.pictures, scene.size)
        channels = {"x": Channel(base=self.x), "y": Channel(base=self.y), "width": Channel(base=width), "height": Channel(base=height)}
        if len(self.pictures) > 1:
            channels["page"] = turning(len(self.pictures), self.frames_a_page, self.first)
        book = PictureBook(pictures=tuple(one.id for one in self.pictures))
        added = PictureObject(id=self.id, name=free_name(scene, self.name), kind="picture", picture=book, channels=channels)
        return kept.with_added(added, len(scene.objects))

    def label(self, scene: Scene) -> str:
        return f"add {self.name}"


class SetPicture(Edit):
    """Choose which pictures an object shows, in which order, and how; those not kept with the scene yet are given in `pictures`."""

    edit: Literal["set-picture"]
    id: Id
    picture: PictureBook
    pictures: Annotated[tuple[KeptPicture, ...], Field(max_length=MAX_PICTURES)] = ()

    def apply(self, scene: Scene) -> Scene:
        thing = picture_in(scene, self.id)
        kept = with_kept(scene, self.pictures)
        return with_object(kept, thing.copy_with(picture=self.picture))

    def label(self, scene: Scene) -> str:
        return f"pages of {object_in(scene, self.id).name}"


class TurnPages(Edit):
    """Let a flipbook turn all its pages at a pace, forever, from a frame on."""

    edit: Literal["turn-pages"]
    id: Id
    frames_a_page: Pace
    first: Frame = 0.0

    def apply(self, scene: Scene) -> Scene:
        thing = picture_in(scene, self.id)
        return with_channel(scene, self.id, "page", lambda _: turning(len(thing.picture.pictures), self.frames_a_page, self.first))

    def label(self, scene: Scene) -> str:
        return f"turn the pages of {object_in(scene, self.id).name}"


class LayBehind(Edit):
    """Make a background of a picture: behind everything else, in the middle of the scene.

    `fill`: over all, cropped; `tile`: as high as the scene, and across repeatedly forever; `stay`: at its size. Keys and rules on position and
    size stay unchanged.
    """

    edit: Literal["lay-behind"]
    id: Id
    how: Literal["fill", "tile", "stay"]

    def apply(self, scene: Scene) -> Scene:
        thing = picture_in(scene, self.id)
        page = scene.pictures_by_id[thing.picture.pictures[0]]
        width, height = float(scene.size[0]), float(scene.size[1])
        place = {"x": width / 2, "y": height / 2}
        if self.how == "fill":
            book, size = thing.picture.copy_with(fit="cover", tile="none"), {"width": width, "height": height}
        elif self.how == "tile":
            book, size = (
                thing.picture.copy_with(fit="stretch", tile="across"),
                {"width": round(page.width * height / page.height, 3), "height": height},
            )
        else:
            book, size = thing.picture.copy_with(fit="inside", tile="none"), {"width": float(page.width), "height": float(page.height)}
        channels = dict(thing.channels)
        for name, value in (place | size).items():
            channel = channels.get(name, Channel())
            channels[name] = channel.copy_with(base=value) if not channel.keys else channel
        laid = thing.copy_with(parent=None, bone=None, picture=book, channels=channels)
        return scene.copy_with(objects=(laid, *(one for one in scene.objects if one is not thing)))

    def label(self, scene: Scene) -> str:
        return f"lay {object_in(scene, self.id).name} behind everything"


class ReplacePicture(Edit):
    """Show another picture wherever one is shown."""

    edit: Literal["replace-picture"]
    old: PictureId
    picture: KeptPicture

    def apply(self, scene: Scene) -> Scene:
        if self.old not in scene.pictures_by_id:
            raise NoSuchThing(f"there is no picture '{self.old}' in this scene; it may have been deleted")
        kept = with_kept(scene, (self.picture,))
        shown = self._shown(kept.objects)
        insets = tuple(
            inner if (objects := self._shown(inner.objects)) is inner.objects else inner.copy_with(objects=objects) for inner in kept.insets
        )
        left = tuple(one for one in kept.pictures if one.id != self.old or one.id == self.picture.id)
        return kept.copy_with(objects=shown, pictures=left, insets=insets)

    def _shown(self, objects: tuple[SceneObject, ...]) -> tuple[SceneObject, ...]:
        """Some objects with the new picture in the place of the old; the same tuple where none shows it."""
        if not any(thing.pictured is not None and self.old in thing.pictured.pictures for thing in objects):
            return objects
        return tuple(
            thing.copy_with(
                picture=thing.picture.copy_with(pictures=tuple(self.picture.id if one == self.old else one for one in thing.picture.pictures))
            )
            if isinstance(thing, PictureObject) and self.old in thing.picture.pictures
            else thing
            for thing in objects
        )

    def label(self, scene: Scene) -> str:
        return f"replace {scene.pictures_by_id[self.old].name if self.old in scene.pictures_by_id else 'a picture'}"


class DropPictures(Edit):
    """Let go of all pictures that nothing shows."""

    edit: Literal["drop-pictures"]

    def apply(self, scene: Scene) -> Scene:
        used = {one for part in scene.timelines for thing in part.objects if thing.pictured is not None for one in thing.pictured.pictures}
        return scene.copy_with(pictures=tuple(one for one in scene.pictures if one.id in used))

    def label(self, scene: Scene) -> str:
        return "let unused pictures go"


def picture_in(scene: Scene, object_id: str) -> PictureObject:
    """The object with this id, which shows pictures.

    Raises:
        EditError: if it shows none.
    """
    thing = object_in(scene, object_id)
    if not isinstance(thing, PictureObject):
        raise EditError(f"'{thing.name}' shows no pictures; choose a picture or a flipbook")
    return thing


def with_kept(scene: Scene, pictures: tuple[KeptPicture, ...]) -> Scene:
    """The scene with some more pictures kept, each once."""
    added = {one.id: one for one in pictures if one.id not in scene.pictures_by_id}
    if not added:
        return scene
    if len(scene.pictures) + len(added) > MAX_PICTURES:
        raise EditError(f"a scene keeps at most {MAX_PICTURES} pictures; let unused ones go first")
    total = sum(len(one.content) for one in (*scene.pictures, *added.values()))
    if total > _MOST_BYTES:
        raise EditError(
            f"the pictures of this scene would take {total / 1e6:.0f} MB; at most {_MOST_BYTES / 1e6:.0f} MB are kept, so make them smaller"
        )
    return scene.copy_with(pictures=(*scene.pictures, *added.values()))


def turning(count: int, frames_a_page: float, first: float) -> Channel:
    """The channel of a flipbook that turns this many pages, repeatedly."""
    keys = (Key(frame=first, value=0.0), Key(frame=first + count * frames_a_page, value=float(count)))
    return Channel(base=0.0, keys=keys, before=End(mode="loop"), after=End(mode="loop"))


def _shown_size(pictures: tuple[KeptPicture, ...], scene: tuple[int, int]) -> tuple[float, float]:
    """Its own size, or smaller, so that it is within the picture."""
    width, height = max(one.width for one in pictures), max(one.height for one in pictures)
    share = min(1.0, scene[0] / width, scene[1] / height)
    return round(width * share, 2), round(height * share, 2)
