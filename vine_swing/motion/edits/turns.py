"""Edits of whole moves: turning this many times between two keys, and flipping."""

import math
from typing import Annotated, Any, Literal

from pydantic import Field

from vine_swing.motion.basics.errors import EditError, NoSuchThing
from vine_swing.motion.basics.values import Frame, Id
from vine_swing.motion.edits.base import Edit, object_in, with_channel, with_object
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.timing.channel import Channel, Key


class TurnTimes(Edit):
    """Rotate an object by this many full rotations, clockwise or anticlockwise, between two keys. Its look at the keys stays the same; later keys
    are rotated by the same full rotations."""

    edit: Literal["turn-times"]
    object: Id
    frame: Frame
    times: Annotated[int, Field(strict=True, ge=0, le=10_000)]
    clockwise: bool = True

    def apply(self, scene: Scene) -> Scene:
        name = object_in(scene, self.object).name

        def change(channel: Channel) -> Channel:
            here = channel.key_at(self.frame)
            if here is None:
                raise NoSuchThing(f"{name} rotation has no key at frame {self.frame:g}; it may have been moved")
            later = [key for key in channel.keys if key.frame > self.frame]
            if not later:
                raise EditError(f"the turn of '{name}' at frame {self.frame:g} is its last key; set another one where the turning should end")
            start, end = here.number, later[0].number
            sign = 1 if self.clockwise else -1
            # The remainder after full rotations, in the requested direction.
            rest = (sign * (end - start)) % 360
            rest = 0.0 if math.isclose(rest, 360, abs_tol=1e-9) else rest
            by = start + sign * (rest + 360 * self.times) - end
            turned = [key.copy_with(value=key.number + by) for key in later]
            return channel.copy_with(keys=(*(key for key in channel.keys if key.frame <= self.frame), *turned))

        return with_channel(scene, self.object, "rotation", change)

    def label(self, scene: Scene) -> str:
        return f"turn {object_in(scene, self.object).name} {self.times} times"


class Flip(Edit):
    """Mirror an object's picture, or the way it travels: left to right ("x") or top to bottom ("y"). A way is mirrored about its
    middle, so that it stays in its place."""

    edit: Literal["flip"]
    object: Id
    axis: Literal["x", "y"]
    what: Literal["picture", "way"] = "picture"

    def apply(self, scene: Scene) -> Scene:
        thing = object_in(scene, self.object)
        if self.what == "picture":
            name = f"scale.{self.axis}"
            base: Any = thing.specs[name].default

            def flipped(channel: Channel) -> Channel:
                at: Any = channel.base if channel.base is not None else base
                return channel.copy_with(base=-at, keys=tuple(key.scaled(-1.0).copy_with(value=-key.number) for key in channel.keys))

            return with_channel(scene, self.object, name, flipped)
        place = 0 if self.axis == "x" else 1
        channels = dict(thing.channels)
        if thing.is_keyed("path"):
            path = channels["path"]
            middle = _middle([key.value[place] for key in path.keys if isinstance(key.value, tuple)])
            channels["path"] = path.copy_with(keys=tuple(_mirrored(key, place, middle) for key in path.keys))
        elif thing.is_keyed(self.axis):
            channel = channels[self.axis]
            middle = _middle([key.number for key in channel.keys])
            channels[self.axis] = channel.copy_with(keys=tuple(key.scaled(-1.0).copy_with(value=2 * middle - key.number) for key in channel.keys))
        else:
            raise EditError(f"'{thing.name}' does not travel along {self.axis}, so there is no way to flip; key its travel first")
        return with_object(scene, thing.copy_with(channels=channels))

    def label(self, scene: Scene) -> str:
        return f"flip {'the way of ' if self.what == 'way' else ''}{object_in(scene, self.object).name}"


def _middle(values: list[float]) -> float:
    return (min(values) + max(values)) / 2


def _mirrored(key: Key, place: int, middle: float) -> Key:
    def one(pair: Any, about: float) -> Any:
        if pair is None:
            return None
        changed = list(pair)
        changed[place] = 2 * about - changed[place]
        return tuple(changed)

    return key.copy_with(value=one(key.value, middle), out=one(key.out, 0.0), into=one(key.into, 0.0))
