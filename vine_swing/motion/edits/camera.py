"""Edits of the camera and of how far away objects are."""

from typing import Annotated, Literal

from pydantic import Field

from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.values import Id, Name
from vine_swing.motion.edits.base import Edit, check_new, object_in, with_channel, with_object
from vine_swing.motion.edits.objects import free_name
from vine_swing.motion.scene.cues import MAX_OBJECTS
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import CameraObject
from vine_swing.motion.timing.channel import Channel

Depth = Annotated[float, Field(strict=True, ge=-0.9, le=1000)]


class AddCamera(Edit):
    """Give the scene a camera that sees what the picture has shown without one."""

    edit: Literal["add-camera"]
    id: Id
    name: Name = "Camera"

    def apply(self, scene: Scene) -> Scene:
        check_new(scene, self.id)
        if scene.camera is not None:
            raise EditError(f"'{scene.camera.name}' is the camera of this scene; there can be one")
        home = {"x": Channel(base=scene.size[0] / 2), "y": Channel(base=scene.size[1] / 2)}
        camera = CameraObject(id=self.id, name=free_name(scene, self.name), kind="camera", channels=home)
        return scene.with_added(camera, len(scene.objects))

    def label(self, scene: Scene) -> str:
        return "add a camera"


class SetDepths(Edit):
    """Say how far away some objects are that have no parent. Those whose depth has keys keep them."""

    edit: Literal["set-depths"]
    depths: Annotated[dict[Id, Depth], Field(min_length=1, max_length=MAX_OBJECTS)]

    def apply(self, scene: Scene) -> Scene:
        for object_id, depth in self.depths.items():
            obj = object_in(scene, object_id)
            if obj.parent is not None:
                raise EditError(f"'{obj.name}' is attached to '{object_in(scene, obj.parent).name}' and has the depth of its parent")
            if not obj.is_keyed("depth"):
                scene = with_channel(scene, object_id, "depth", lambda channel, depth=depth: channel.copy_with(base=depth))  # type: ignore[misc]
        return scene

    def label(self, scene: Scene) -> str:
        names = [object_in(scene, depth).name for depth in self.depths]
        return f"depth of {names[0]}" if len(names) == 1 else f"depths of {len(names)} objects"


class PinObject(Edit):
    """Let an object that has no parent keep to the picture wherever the camera looks, or not."""

    edit: Literal["pin-object"]
    id: Id
    pinned: bool

    def apply(self, scene: Scene) -> Scene:
        obj = object_in(scene, self.id)
        if obj.parent is not None or isinstance(obj, CameraObject):
            raise EditError(f"'{obj.name}' cannot be fixed to the frame by itself; fix its parent instead")
        return with_object(scene, obj.copy_with(pinned=self.pinned))

    def label(self, scene: Scene) -> str:
        return f"{'pin' if self.pinned else 'unpin'} {object_in(scene, self.id).name}"
