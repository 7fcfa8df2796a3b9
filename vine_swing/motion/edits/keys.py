"""Edits of channels: values, keys, eases and ends."""

from bisect import bisect_left
from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from vine_swing.motion.baking.keyed import run_of
from vine_swing.motion.basics import colour
from vine_swing.motion.basics.errors import EditError, NoSuchThing
from vine_swing.motion.basics.specs import ChannelSpec
from vine_swing.motion.basics.values import MAX_FRAME, Frame, Owner, Value, Words
from vine_swing.motion.curves.svg_path import path_data
from vine_swing.motion.edits.base import Edit, channel_label, owner_in, spec_of, with_channel
from vine_swing.motion.edits.divide import divided
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import DialObject, SceneObject
from vine_swing.motion.scene.shapes import OutlineShape, TextShape
from vine_swing.motion.timing.channel import MAX_KEYS, NAMED_IN, SHAPED_BY_KEYS, Bend, Channel, Handle, Key
from vine_swing.motion.timing.ease import BezierEase, Ease, build
from vine_swing.motion.timing.ends import End
from vine_swing.motion.timing.evaluate import evaluate, evaluate_colours
from vine_swing.motion.timing.outlines import KeyedOutlines
from vine_swing.motion.timing.path import evaluate_path

Frames = Annotated[tuple[Frame, ...], Field(min_length=1, max_length=MAX_KEYS)]


class _ChannelEdit(Edit):
    object: Owner
    channel: Annotated[str, Field(max_length=64)]

    def _channel_label(self, scene: Scene) -> str:
        return channel_label(owner_in(scene, self.object), self.channel)


class SetValue(_ChannelEdit):
    """Give a channel without keys its value."""

    edit: Literal["set-value"]
    value: Value

    def apply(self, scene: Scene) -> Scene:
        def change(channel: Channel) -> Channel:
            if channel.keys:
                raise EditError(f"{self._channel_label(scene)} has keys, so its value comes from them; set a key instead")
            return channel.copy_with(base=self.value)

        return with_channel(scene, self.object, self.channel, change)

    def label(self, scene: Scene) -> str:
        return f"set {self._channel_label(scene)}"


class SetKey(_ChannelEdit):
    """Set a key at a frame: a new one, or a new value for the one that is there.

    A new key between two others copies the ease of the stretch it divides, unless an ease is given. Without a value,
    the key gets the very value the keys give the channel at that frame.
    """

    edit: Literal["set-key"]
    frame: Frame
    value: Value | None = None
    ease: Ease | None = None

    def apply(self, scene: Scene) -> Scene:
        thing = owner_in(scene, self.object)
        spec = spec_of(thing, self.channel)
        added: list[Key] = []

        def change(channel: Channel) -> Channel:
            if isinstance(thing, DialObject) or not thing.is_running(self.channel):
                return self.changed(channel, spec, thing, added)
            # A lone key would stop what runs by itself: it goes on between keys at both ends of its span.
            start, first, pace = run_of(thing, scene)
            last = max(float(thing.span.within(scene.length)[1]), first + 1)
            added.extend(Key(frame=frame, value=start + (frame - first) * pace) for frame in (first, last))
            exact = self.value if self.value is not None else start + (self.frame - first) * pace
            return self.copy_with(value=exact).changed(channel.copy_with(keys=tuple(added)), spec, thing, added)

        return with_channel(scene, self.object, self.channel, change, new_keys=lambda: added)

    def changed(self, channel: Channel, spec: ChannelSpec, thing: SceneObject | DialObject, added: list[Key]) -> Channel:
        """A channel of an object with the key; the keys that are new are put into `added`."""
        there = channel.key_at(self.frame)
        if there is None and len(channel.keys) >= MAX_KEYS:
            raise EditError(f"a channel holds at most {MAX_KEYS} keys; delete some first")
        if there is None and self.value is None and spec.kind == "point" and len(channel.keys) > 1:
            divided_path = divided(channel, self.frame)
            if divided_path is not None:
                added += divided_path.keys
                return divided_path
        place = bisect_left(channel.keys, self.frame, key=lambda key: key.frame)
        earlier, later = channel.keys[:place], channel.keys[place + (there is not None) :]
        between = earlier[-1].ease if earlier and later else "linear"
        ease = self.ease if self.ease is not None else there.ease if there else between
        value = self.value if self.value is not None else keyed_value(channel, spec, self.frame, thing)
        way = (earlier[-1] if earlier else later[0]).way if spec.kind == "point" and (earlier or later) else None
        key = there.copy_with(value=value, ease=ease) if there else Key(frame=self.frame, value=value, ease=ease, way=way)
        added.append(key)
        return channel.copy_with(keys=(*earlier, key, *later))

    def label(self, scene: Scene) -> str:
        return f"key {self._channel_label(scene)} at {self.frame:g}"


class MoveKeys(_ChannelEdit):
    """Slide keys in time. A key they land on gives way to them."""

    edit: Literal["move-keys"]
    frames: Frames
    by: Frame

    def apply(self, scene: Scene) -> Scene:
        def change(channel: Channel) -> Channel:
            moved = pick(channel, self.frames, self._channel_label(scene))
            for key in moved:
                if abs(key.frame + self.by) > MAX_FRAME:
                    raise EditError(f"frame {key.frame + self.by:g} is out of reach; keys live between −{MAX_FRAME} and {MAX_FRAME}")
            landed = [key.copy_with(frame=key.frame + self.by) for key in moved]
            taken = {key.frame for key in landed} | set(self.frames)
            return channel.copy_with(
                keys=tuple(sorted([*landed, *(key for key in channel.keys if key.frame not in taken)], key=lambda key: key.frame))
            )

        return with_channel(scene, self.object, self.channel, change) if self.by else scene

    def label(self, scene: Scene) -> str:
        return f"slide {self._channel_label(scene)} by {self.by:+g}"


class DeleteKeys(_ChannelEdit):
    """Delete keys. When none is left, `keep` says which value the channel stays on: that of the first key deleted, that
    of the keys at the frame `at`, or its base."""

    edit: Literal["delete-keys"]
    frames: Frames
    keep: Literal["first", "frame", "base"] = "first"
    at: Frame = 0.0

    def apply(self, scene: Scene) -> Scene:
        thing = owner_in(scene, self.object)
        spec = spec_of(thing, self.channel)

        def change(channel: Channel) -> Channel:
            gone = {key.frame for key in pick(channel, self.frames, self._channel_label(scene))}
            left = tuple(key for key in channel.keys if key.frame not in gone)
            if left or self.keep == "base":
                return channel.copy_with(keys=left)
            kept = channel.keys[0].value if self.keep == "first" else keyed_value(channel, spec, self.at, thing)
            return channel.copy_with(keys=(), base=kept)

        return with_channel(scene, self.object, self.channel, change)

    def label(self, scene: Scene) -> str:
        return f"delete {'key' if len(self.frames) == 1 else 'keys'} of {self._channel_label(scene)}"


class SetEase(_ChannelEdit):
    """Choose how the stretches that leave the given keys are passed."""

    edit: Literal["set-ease"]
    frames: Frames
    ease: Ease

    def apply(self, scene: Scene) -> Scene:
        def change(channel: Channel) -> Channel:
            picked = {key.frame for key in pick(channel, self.frames, self._channel_label(scene))}
            return channel.copy_with(keys=tuple(key.copy_with(ease=self.ease) if key.frame in picked else key for key in channel.keys))

        return with_channel(scene, self.object, self.channel, change)

    def label(self, scene: Scene) -> str:
        return f"feel of {self._channel_label(scene)}"


class SetSpeed(_ChannelEdit):
    """Set how fast the stretch that leaves a key begins, ends, or both, as shares of its mean speed: 0 is from rest, 1 even. It
    becomes one cubic Bezier ease; the end that is not given keeps its speed."""

    edit: Literal["set-speed"]
    frame: Frame
    leaving: Annotated[float, Field(strict=True, ge=-10, le=30)] | None = None
    arriving: Annotated[float, Field(strict=True, ge=-10, le=30)] | None = None

    def apply(self, scene: Scene) -> Scene:
        def change(channel: Channel) -> Channel:
            (picked,) = pick(channel, (self.frame,), self._channel_label(scene))
            shaped = isinstance(picked.ease, str) and picked.ease in SHAPED_BY_KEYS
            begin, end = (1.0, 1.0) if shaped else build(picked.ease).slopes()
            begin = begin if self.leaving is None else self.leaving
            end = end if self.arriving is None else self.arriving
            # With its inner points at a third and two thirds, the curve's slopes are three times their heights.
            ease = BezierEase(bezier=(1 / 3, begin / 3, 2 / 3, 1 - end / 3))
            return channel.copy_with(keys=tuple(key.copy_with(ease=ease) if key is picked else key for key in channel.keys))

        return with_channel(scene, self.object, self.channel, change)

    def label(self, scene: Scene) -> str:
        return f"speed of {self._channel_label(scene)}"


class SetHandles(_ChannelEdit):
    """Set the handles of a key, for segments with the ease "handles". An omitted handle stays unchanged; null
    puts it back to a third of the straight line."""

    model_config = NAMED_IN

    edit: Literal["set-handles"]
    frame: Frame
    out: Handle | None = None
    into: Annotated[Handle | None, Field(alias="in")] = None

    def apply(self, scene: Scene) -> Scene:
        given = {name: getattr(self, name) for name in ("out", "into") if name in self.model_fields_set}

        def change(channel: Channel) -> Channel:
            (picked,) = pick(channel, (self.frame,), self._channel_label(scene))
            return channel.copy_with(keys=tuple(key.copy_with(**given) if key is picked else key for key in channel.keys))

        return with_channel(scene, self.object, self.channel, change)

    def label(self, scene: Scene) -> str:
        return f"handles of {self._channel_label(scene)}"


class SetBend(_ChannelEdit):
    """Set tension, continuity and bias of keys, for segments with the ease "spline". Omitted fields stay unchanged."""

    edit: Literal["set-bend"]
    frames: Frames
    tension: Bend | None = None
    continuity: Bend | None = None
    bias: Bend | None = None

    def apply(self, scene: Scene) -> Scene:
        given = {name: value for name in ("tension", "continuity", "bias") if (value := getattr(self, name)) is not None}

        def change(channel: Channel) -> Channel:
            picked = {key.frame for key in pick(channel, self.frames, self._channel_label(scene))}
            return channel.copy_with(keys=tuple(key.copy_with(**given) if key.frame in picked else key for key in channel.keys))

        return with_channel(scene, self.object, self.channel, change)

    def label(self, scene: Scene) -> str:
        return f"bend of {self._channel_label(scene)}"


class SetEnds(_ChannelEdit):
    """Choose what happens before the first key, after the last, or both."""

    edit: Literal["set-ends"]
    before: End | None = None
    after: End | None = None

    def apply(self, scene: Scene) -> Scene:
        def change(channel: Channel) -> Channel:
            return channel.copy_with(before=self.before or channel.before, after=self.after or channel.after)

        return with_channel(scene, self.object, self.channel, change)

    def label(self, scene: Scene) -> str:
        return f"ends of {self._channel_label(scene)}"


def keyed_value(channel: Channel, spec: ChannelSpec, frame: float, thing: SceneObject | DialObject) -> Value:
    """The value the keys and ends of an object's channel give at one frame, before any rule."""
    t = np.array([frame], dtype=float)
    if not channel.keys and spec.kind == "point":
        x, y = (keyed_value(thing.channels.get(name, Channel()), thing.specs[name], frame, thing) for name in ("x", "y"))
        return float(x), float(y)  # type: ignore[arg-type]
    path = thing.channels.get("path")
    if not channel.keys and spec.name in ("x", "y") and path is not None and path.keys:
        return float(evaluate_path(path, t)[0, 0 if spec.name == "x" else 1])
    if not channel.keys and spec.kind == "outline":
        shape = thing.drawn_shape
        if not isinstance(shape, OutlineShape):
            raise EditError(f"'{thing.name}' has no points of its own to key; make an outline of it first")
        return shape.d
    if spec.kind == "words":
        return _words_at(channel, frame, thing)
    if not channel.keys:
        return spec.default if channel.base is None else channel.base
    if spec.kind == "point":
        x, y = evaluate_path(channel, t)[0]
        return float(x), float(y)
    if spec.kind == "outline":
        own = channel.key_at(frame)
        return own.value if own is not None else path_data(KeyedOutlines(channel).at(t).at(0))
    return colour.to_hex(evaluate_colours([channel], t)[0, 0]) if spec.is_colour else float(evaluate([channel], t)[0, 0])


def _words_at(channel: Channel, frame: float, thing: SceneObject | DialObject) -> Words:
    """Return the words of a text at a frame."""
    if channel.keys:
        return Words(text=channel.said[int(evaluate([channel.as_numbers], np.array([frame]))[0, 0])])
    assert isinstance(thing.drawn_shape, TextShape), "only texts have words"
    return Words(text=thing.drawn_shape.text)


def pick(channel: Channel, frames: tuple[float, ...], what: str) -> list[Key]:
    """The keys at these frames, in order of time.

    Raises:
        NoSuchThing: if it is missing at one of them.
    """
    wanted = set(frames)
    picked = [key for key in channel.keys if key.frame in wanted]
    if missing := wanted - {key.frame for key in picked}:
        raise NoSuchThing(f"{what} has no key at frame {min(missing):g}; it may have been moved")
    return picked
