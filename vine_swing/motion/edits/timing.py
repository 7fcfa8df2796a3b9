"""Edits of timing: several keys, of several channels, moved against each other."""

from abc import abstractmethod
from collections.abc import Callable
from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from vine_swing.motion.basics.errors import EditError, NoSuchThing
from vine_swing.motion.basics.values import MAX_FRAME, Frame, Frozen, Owner, Value
from vine_swing.motion.edits.base import Edit, owner_in, spec_of, with_channel
from vine_swing.motion.edits.divide import divided
from vine_swing.motion.edits.keys import Frames, keyed_value
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.timing.channel import MAX_KEYS, Channel, Key
from vine_swing.motion.timing.ease.reversed import reversed_ease
from vine_swing.motion.timing.evaluate import evaluate
from vine_swing.motion.timing.path import curves, way_of

ChannelName = Annotated[str, Field(max_length=64)]


class Picked(Frozen):
    """Some keys of one channel, by their frames."""

    object: Owner
    channel: ChannelName
    frames: Frames


class _TimingEdit(Edit):
    """An edit of picked keys. Each says which frame every picked frame goes to; keys that share a frame stay together."""

    keys: Annotated[tuple[Picked, ...], Field(min_length=1, max_length=5000)]

    @abstractmethod
    def _target(self, frames: list[float]) -> Callable[[float], float]:
        """Where each of the picked frames (in order, each once) goes."""

    def _changed(self, key: Key) -> Key:
        return key

    def apply(self, scene: Scene) -> Scene:
        target = self._target(sorted({frame for picked in self.keys for frame in picked.frames}))
        for picked in self.keys:
            scene = with_channel(scene, picked.object, picked.channel, lambda channel, picked=picked: self._moved(channel, picked, target))  # type: ignore[misc]
        return scene

    def _moved(self, channel: Channel, picked: Picked, target: Callable[[float], float]) -> Channel:
        wanted = set(picked.frames)
        own = [key for key in channel.keys if key.frame in wanted]
        if missing := wanted - {key.frame for key in own}:
            raise NoSuchThing(f"there is no key at frame {min(missing):g}; it may have been moved")
        landed = [self._changed(key).copy_with(frame=target(key.frame)) for key in self._in_time(own)]
        if any(abs(key.frame) > MAX_FRAME for key in landed):
            raise EditError(f"that would move keys out of reach; they live between −{MAX_FRAME} and {MAX_FRAME}")
        taken = {key.frame for key in landed} | wanted
        rest = [key for key in channel.keys if key.frame not in taken]
        return channel.copy_with(keys=tuple(sorted([*landed, *rest], key=lambda key: key.frame)))

    def _in_time(self, own: list[Key]) -> list[Key]:
        return own


class StretchKeys(_TimingEdit):
    """Stretch or squeeze the time between keys about a frame that stays."""

    edit: Literal["stretch-keys"]
    about: Frame
    factor: Annotated[float, Field(strict=True, ge=0.001, le=1000)]

    def _target(self, frames: list[float]) -> Callable[[float], float]:
        return lambda frame: self.about + (frame - self.about) * self.factor

    def _changed(self, key: Key) -> Key:
        return key.scaled(frames=self.factor)

    def label(self, scene: Scene) -> str:
        return f"stretch keys to {self.factor * 100:.0f} %"


class ReverseKeys(_TimingEdit):
    """Play the picked stretch backwards: the last key first, each ease run the other way."""

    edit: Literal["reverse-keys"]

    def _target(self, frames: list[float]) -> Callable[[float], float]:
        return lambda frame: frames[0] + frames[-1] - frame

    def _in_time(self, own: list[Key]) -> list[Key]:
        # The stretch from a to b becomes the one from b to a; what leaves the last key goes on leaving the picked stretch.
        eases = [own[-1].ease, *(reversed_ease(key.ease) for key in own[:-1])]
        # So does the way of a path, which also belongs to the stretch that leaves a key.
        ways = [own[-1].way, *(key.way for key in own[:-1])]
        # And so does which points of an outline meet, told from the other side.
        meets = [own[-1].meets, *(None if key.meets is None else (key.meets[1], key.meets[0]) for key in own[:-1])]
        return [key.mirrored().copy_with(ease=ease, way=way, meets=met) for key, ease, way, met in zip(own, eases, ways, meets, strict=True)]

    def label(self, scene: Scene) -> str:
        return "reverse keys"


class SpreadKeys(_TimingEdit):
    """Give the picked keys equal distances in time; the first and the last stay."""

    edit: Literal["spread-keys"]

    def _target(self, frames: list[float]) -> Callable[[float], float]:
        places = dict(zip(frames, np.linspace(frames[0], frames[-1], len(frames)).tolist(), strict=True))
        return lambda frame: places[frame]

    def label(self, scene: Scene) -> str:
        return "spread keys evenly"


class EvenSpeed(Edit):
    """Space the keys of an object so that it keeps one speed along its way. The first and the last key stay; every
    stretch between becomes even."""

    edit: Literal["even-speed"]
    object: Owner
    channels: Annotated[tuple[ChannelName, ...], Field(min_length=1, max_length=8)]

    def apply(self, scene: Scene) -> Scene:
        thing = owner_in(scene, self.object)
        for name in self.channels:
            if (kind := spec_of(thing, name).kind) in ("colour", "outline", "words"):
                raise EditError(f"'{thing.name}', {name}: {kind.removesuffix('s')}s have no speed; choose channels that are numbers")
        if "path" in self.channels and thing.is_keyed("path"):
            return with_channel(scene, self.object, "path", lambda path: self._along(path, thing.name))
        moving = {name: thing.channels[name] for name in self.channels if name in thing.channels and thing.channels[name].keys}
        frames = sorted({key.frame for channel in moving.values() for key in channel.keys})
        if len(frames) < 3:
            raise EditError(f"'{thing.name}' has {len(frames)} keys there; an even speed takes at least three")
        # Every channel gets a key at every stop, so that all of them turn their corners together.
        stops = np.array(frames)
        values = {name: evaluate([channel], stops)[0] for name, channel in moving.items()}
        ways = np.hypot.reduce([np.abs(np.diff(value)) for value in values.values()], axis=0)
        if not ways.sum() > 0:
            raise EditError(f"'{thing.name}' does not go anywhere between these keys; move one of them first")
        going = np.append(True, ways > 0)
        at = frames[0] + (frames[-1] - frames[0]) * np.append(0, np.cumsum(ways)) / ways.sum()
        at[-1] = frames[-1]
        for name, value in values.items():
            channel = moving[name]
            last_ease = channel.keys[-1].ease
            keys = [Key(frame=float(f), value=float(v), ease="linear") for f, v, go in zip(at, value, going, strict=True) if go]
            keys[-1] = keys[-1].copy_with(ease=last_ease)
            scene = with_channel(scene, self.object, name, lambda old, keys=keys: old.copy_with(keys=tuple(keys)))  # type: ignore[misc]
        return scene

    @staticmethod
    def _along(path: Channel, name: str) -> Channel:
        """A path passed at one speed: its keys as far apart in time as they are along the way."""
        if len(path.keys) < 3:
            raise EditError(f"'{name}' has {len(path.keys)} keys there; an even speed takes at least three")
        ways = np.array([curve.length for curve in curves(path.keys)])
        if not np.all(ways > 0):
            raise EditError(f"the path of '{name}' has two keys in one place; move one of them first")
        first, last = path.keys[0].frame, path.keys[-1].frame
        at = [*(first + (last - first) * np.append(0, np.cumsum(ways)[:-1]) / ways.sum()), last]
        steady = [
            key.copy_with(frame=float(frame), ease="linear", way=key.way or way_of(key, after))
            for key, frame, after in zip(path.keys, at, path.keys[1:], strict=False)
        ]
        return path.copy_with(keys=(*steady, path.keys[-1].copy_with(frame=last)))

    def label(self, scene: Scene) -> str:
        return f"even speed of {owner_in(scene, self.object).name}"


class HoldHere(Edit):
    """Stay on the value of a frame for some frames. With `push`, later keys move on by as many."""

    edit: Literal["hold-here"]
    object: Owner
    channels: Annotated[tuple[ChannelName, ...], Field(min_length=1, max_length=64)]
    frame: Frame
    frames: Annotated[float, Field(strict=True, gt=0, le=MAX_FRAME)]
    push: bool = True

    def apply(self, scene: Scene) -> Scene:
        for name in self.channels:
            thing = owner_in(scene, self.object)
            spec = spec_of(thing, name)
            if spec.kind == "point" and not thing.is_keyed(name):
                continue
            if spec.kind == "point":
                # The stop is on the path, which keeps its shape.
                scene = with_channel(scene, self.object, name, lambda path: divided(path, self.frame) or path)
            value = keyed_value(owner_in(scene, self.object).channels.get(name, Channel()), spec, self.frame, thing)
            scene = with_channel(scene, self.object, name, lambda channel, value=value: self._held(channel, value))  # type: ignore[misc]
        return scene

    def _held(self, channel: Channel, value: Value) -> Channel:
        earlier = [key for key in channel.keys if key.frame < self.frame]
        here = channel.key_at(self.frame)
        later = [key for key in channel.keys if key.frame > self.frame]
        end = self.frame + self.frames
        later = [key.copy_with(frame=key.frame + self.frames) for key in later] if self.push else [key for key in later if key.frame > end]
        if (later and later[-1].frame > MAX_FRAME) or end > MAX_FRAME or len(channel.keys) + 2 > MAX_KEYS:
            raise EditError(f"that would move keys out of reach; they live between −{MAX_FRAME} and {MAX_FRAME}")
        # The stretch that was divided keeps its ease on both sides of the stop.
        ease = here.ease if here else earlier[-1].ease if earlier and later else "linear"
        stop = Key(frame=self.frame, value=value, ease="hold", into=here.into if here else None)
        go = (here.copy_with(frame=end, into=None) if here else Key(frame=end, value=value)).copy_with(ease=ease)
        return channel.copy_with(keys=(*earlier, stop, go, *later))

    def label(self, scene: Scene) -> str:
        return f"hold {owner_in(scene, self.object).name} for {self.frames:g} frames"


class CloseLoop(Edit):
    """Set the last key to the first key's value, so that the loop has no seam."""

    edit: Literal["close-loop"]
    object: Owner
    channels: Annotated[tuple[ChannelName, ...], Field(min_length=1, max_length=64)]

    def apply(self, scene: Scene) -> Scene:
        def close(channel: Channel) -> Channel:
            if len(channel.keys) < 2:
                return channel
            return channel.copy_with(keys=(*channel.keys[:-1], channel.keys[-1].copy_with(value=channel.keys[0].value)))

        for name in self.channels:
            scene = with_channel(scene, self.object, name, close)
        return scene

    def label(self, scene: Scene) -> str:
        return f"close the loop of {owner_in(scene, self.object).name}"


class PasteKeys(Edit):
    """Put copied keys into a channel: the first of them at a frame, the others as far from it as they were."""

    edit: Literal["paste-keys"]
    object: Owner
    channel: ChannelName
    keys: Annotated[tuple[Key, ...], Field(min_length=1, max_length=MAX_KEYS)]
    at: Frame
    replace: bool = False

    def apply(self, scene: Scene) -> Scene:
        first = min(key.frame for key in self.keys)
        pasted = {key.frame - first + self.at: key.copy_with(frame=key.frame - first + self.at) for key in self.keys}
        if max(pasted) > MAX_FRAME:
            raise EditError(f"the last key would lie at frame {max(pasted):g}; keys live between −{MAX_FRAME} and {MAX_FRAME}")

        def change(channel: Channel) -> Channel:
            kept = {} if self.replace else {key.frame: key for key in channel.keys}
            merged = kept | pasted
            if len(merged) > MAX_KEYS:
                raise EditError(f"a channel holds at most {MAX_KEYS} keys; delete some first")
            return channel.copy_with(keys=tuple(merged[frame] for frame in sorted(merged)))

        return with_channel(scene, self.object, self.channel, change)

    def label(self, scene: Scene) -> str:
        return f"paste keys on {owner_in(scene, self.object).name}"
