"""What every edit is, and the small steps edits are made of."""

from abc import ABC, abstractmethod
from collections.abc import Callable

from vine_swing.motion.channel import Channel
from vine_swing.motion.errors import EditError, NoSuchThing
from vine_swing.motion.model import Scene, SceneObject, check_values
from vine_swing.motion.specs import ChannelSpec
from vine_swing.motion.values import MAX_FRAME, Frozen


class Edit(Frozen, ABC):
    """A change a person can make. `apply` gives a new scene that shares all that did not change."""

    @abstractmethod
    def apply(self, scene: Scene) -> Scene:
        """The scene after the edit.

        Raises:
            NoSuchThing: if it names what the scene does not have.
            EditError: if it does not fit the scene.
        """

    @abstractmethod
    def label(self, scene: Scene) -> str:
        """What undo says it takes back, as a short phrase; `scene` is the scene before the edit."""


def object_in(scene: Scene, object_id: str) -> SceneObject:
    """The object with this id."""
    found = scene.by_id.get(object_id)
    if found is None:
        raise NoSuchThing(f"there is no object '{object_id}' in this scene; it may have been deleted")
    return found


def spec_of(thing: SceneObject, channel: str) -> ChannelSpec:
    """What the channel of an object is."""
    spec = thing.specs.get(channel)
    if spec is None:
        raise NoSuchThing(f"'{thing.name}' has no channel '{channel}'; it has {', '.join(thing.specs)}")
    return spec


def with_object(scene: Scene, changed: SceneObject) -> Scene:
    """The scene with one object replaced by its new version."""
    return scene.but(objects=tuple(changed if thing.id == changed.id else thing for thing in scene.objects))


def with_channel(scene: Scene, object_id: str, name: str, change: Callable[[Channel], Channel]) -> Scene:
    """The scene with one channel changed; the new channel is checked against what the channel is."""
    thing = object_in(scene, object_id)
    spec = spec_of(thing, name)
    before = thing.channels.get(name, Channel())
    after = change(before)
    if spec.kind == "point" and not after.keys and after.base is not None:
        # A path that has lost its last key leaves the object where it was: x and y take its place over.
        x, y = after.base if isinstance(after.base, tuple) else (0.0, 0.0)
        emptied = with_object(scene, thing.but(channels=thing.channels | {name: after.but(base=None)}))
        for part, value in (("x", x), ("y", y)):
            emptied = with_channel(emptied, object_id, part, lambda old, value=value: old.but(base=value))  # type: ignore[misc]
        return emptied
    if after is before:
        return scene
    try:
        check_values(after, spec, f"'{thing.name}', {name}")
    except ValueError as error:
        raise EditError(str(error)) from error
    return with_object(scene, thing.but(channels=thing.channels | {name: after}))


def in_time(channel: Channel, factor: float, about: float = 0.0, to: float = 0.0) -> Channel:
    """A channel with the time of its keys stretched: what was at the frame `about` comes to lie at `to`."""
    if not channel.keys:
        return channel
    frames = [to + (key.frame - about) * factor for key in channel.keys]
    if max(map(abs, frames)) > MAX_FRAME:
        raise EditError(f"that would move keys out of reach; they live between −{MAX_FRAME} and {MAX_FRAME}")
    return channel.but(keys=tuple(key.scaled(frames=factor).but(frame=frame) for key, frame in zip(channel.keys, frames, strict=True)))


def said(thing: SceneObject, channel: str) -> str:
    """How a label names a channel: `Mango travel x`."""
    spec = spec_of(thing, channel)
    row = spec.row.lower()
    return f"{thing.name} {row}" if spec.label.lower() == row or row == "rotation" else f"{thing.name} {row} {spec.label}"
