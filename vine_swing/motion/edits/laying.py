"""Keys from outside: samples from a table, and keys from a file of keys."""

from typing import Annotated, Literal, Self

import numpy as np
from numpy.typing import NDArray
from pydantic import Field, model_validator

from vine_swing.motion.basics import colour
from vine_swing.motion.basics.errors import EditError, NoSuchThing
from vine_swing.motion.basics.values import Frame, Frozen, Number, Owner, Text, Value
from vine_swing.motion.edits.base import Edit, channel_label, owner_in, spec_of, with_channel
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import DialObject, SceneObject
from vine_swing.motion.timing.channel import MAX_KEYS, Channel, Key
from vine_swing.motion.timing.ends import End
from vine_swing.motion.timing.fit import fit_colours, fit_noisy_keys

#: Samples of one track.
MAX_SAMPLES = 100_000
Array = NDArray[np.float64]


class SampledTrack(Frozen):
    """Samples for one channel, setting or dial, as a table has them. Where two are on one frame, the later counts.

    times, values: one a sample; colours as hex. scale, offset: a number becomes value · scale + offset.
    """

    object: Owner
    channel: Annotated[str, Field(max_length=64)]
    times: Annotated[tuple[Annotated[float, Field(ge=-1e9, le=1e9)], ...], Field(min_length=1, max_length=MAX_SAMPLES)]
    values: Annotated[tuple[Value, ...], Field(min_length=1, max_length=MAX_SAMPLES)]
    scale: Number = 1.0
    offset: Number = 0.0

    @model_validator(mode="after")
    def _as_many(self) -> Self:
        if len(self.times) != len(self.values):
            raise ValueError(f"there are {len(self.times)} times and {len(self.values)} values; give one of each for every sample")
        return self


class LaySamples(Edit):
    """Lay samples down as keys, in place of those that are within their stretch of time.

    first: the frame of time 0. pace: frames of one unit of time. tolerance: how far the motion may pass from any sample, in its own unit; 0
    for a key on every sample, joined evenly. With a tolerance, few keys with handles take their place.
    """

    edit: Literal["lay-samples"]
    tracks: Annotated[tuple[SampledTrack, ...], Field(min_length=1, max_length=200)]
    first: Frame = 0.0
    pace: Annotated[float, Field(gt=0, le=1e6)] = 1.0
    tolerance: Annotated[float, Field(ge=0, le=1e9)] = 0.0

    def apply(self, scene: Scene) -> Scene:
        for track in self.tracks:
            laid = self.keys_of(scene, track)
            begin, end = laid[0].frame, laid[-1].frame
            scene = with_channel(
                scene,
                track.object,
                track.channel,
                lambda channel, laid=laid, begin=begin, end=end: channel.copy_with(  # type: ignore[misc]
                    keys=tuple(sorted((*(key for key in channel.keys if not begin <= key.frame <= end), *laid), key=lambda key: key.frame))
                ),
            )
        return scene

    def keys_of(self, scene: Scene, track: SampledTrack) -> tuple[Key, ...]:
        """The keys that a track becomes, in order.

        Raises:
            NoSuchThing: if the channel does not exist.
            EditError: if values are of another kind than the channel's, or make too many keys.
        """
        thing = owner_in(scene, track.object)
        spec, called = spec_of(thing, track.channel), channel_label(thing, track.channel)
        by_frame = {self.first + time * self.pace: value for time, value in zip(track.times, track.values, strict=True)}
        frames = np.array(sorted(by_frame), float)
        values = [by_frame[frame] for frame in frames.tolist()]
        wrong = next((one for one in values if isinstance(one, str) != spec.is_colour), None)
        if wrong is not None:
            raise EditError(f"{called} takes {'colours' if spec.is_colour else 'numbers'}, and '{wrong}' is none; choose another column")
        if spec.is_colour:
            shades = np.array([colour.parse_hex(str(one)) for one in values])
            keys = fit_colours(frames, shades, self.tolerance) if self.tolerance and len(frames) > 1 else _plain(frames, [str(one) for one in values])
        else:
            numbers = np.array(values, float) * track.scale + track.offset
            keys = fit_noisy_keys(frames, numbers, self.tolerance) if self.tolerance and len(frames) > 1 else _plain(frames, numbers.tolist())
        if len(keys) > MAX_KEYS:
            raise EditError(f"{called} would have {len(keys)} keys; at most {MAX_KEYS} fit, so let some be left out within a tolerance")
        return tuple(keys)

    def label(self, scene: Scene) -> str:
        first = self.tracks[0]
        if len(self.tracks) > 1:
            return f"lay {len(self.tracks)} columns down as keys"
        return f"lay a column down as keys of {channel_label(owner_in(scene, first.object), first.channel)}"


class KeyedTrack(Frozen):
    """Keys of one channel of an object, setting or dial, by the name it has, and its ends; those that are left out stay as they are."""

    object: Annotated[Text, Field(min_length=1, max_length=80)]
    channel: Annotated[str, Field(max_length=64)]
    keys: Annotated[tuple[Key, ...], Field(min_length=1, max_length=MAX_KEYS)]
    before: End | None = None
    after: End | None = None

    def laid(self, channel: Channel) -> Channel:
        """A channel with these keys and ends."""
        return channel.copy_with(keys=self.keys, before=self.before or channel.before, after=self.after or channel.after)


class BringKeys(Edit):
    """Take keys over from a file of keys: channels of objects and dials that are here by the same name get its keys in place of their own."""

    edit: Literal["bring-keys"]
    tracks: Annotated[tuple[KeyedTrack, ...], Field(min_length=1, max_length=20_000)]

    def apply(self, scene: Scene) -> Scene:
        taken = 0
        for track in self.tracks:
            owner = self._owner(scene, track)
            if owner is None:
                continue
            taken += 1
            scene = with_channel(scene, owner, track.channel, track.laid)
        if not taken:
            names = ", ".join(dict.fromkeys(track.object for track in self.tracks))
            raise EditError(f"nothing here is called as in the file ({names[:200]}); rename what its keys are for")
        return scene

    @staticmethod
    def _owner(scene: Scene, track: KeyedTrack) -> str | None:
        """Return the owner of imported keys in this scene; None where no object has this name and channel."""
        thing: SceneObject | DialObject | None = scene.by_name.get(track.object)
        if thing is None and (dial := scene.dials_by_name.get(track.object)) is not None:
            thing = owner_in(scene, f"dial:{dial.id}")
        if thing is None:
            return None
        try:
            spec_of(thing, track.channel)
        except NoSuchThing:
            return None
        return thing.id

    def label(self, scene: Scene) -> str:
        return "bring keys in from a file"


def _plain(frames: Array, values: list[float] | list[str]) -> list[Key]:
    """A key on every sample, joined evenly."""
    return [Key(frame=frame, value=value) for frame, value in zip(frames.tolist(), values, strict=True)]
