"""How two versions of a scene differ: which objects are in one only, which channels have other values, how far apart they are, and where."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.baked import Baked
from vine_swing.motion.basics.specs import ChannelSpec
from vine_swing.motion.scene.dial import DIAL_CHANNEL
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.timing.channel import Channel

#: What a difference is of: one channel or a field of the scene; how an object is drawn, hung and shown; a whole object or dial, in one version only.
What = Literal["channel", "drawing", "all"]
#: The fields of a scene that are compared by themselves.
SCENE_FIELDS = ("name", "fps", "length", "size", "background", "blur", "palette", "cues", "markers", "beat", "sounds", "hushed")
#: In place of a channel: what follows is the id of an inner scene.
INSET = "inset:"
#: Values nearer to each other than this are the same: the last digits of the arithmetic.
_SAME = 1e-9


@dataclass(frozen=True)
class Difference:
    """A difference between the current scene and a rehearsal.

    object: an id, or `dial:` and an id; None for the scene itself. channel: also a field of the scene, or `inset:` and an id. label: in words.
    most: how far apart the values are at most, in the channel's unit (points: px; colours: the largest part of 0…255); None where that is no
    number; 0 where other keys or rules give the same values in every frame compared. at: the frame where it is most. frames: the first and the last
    at which they differ. only: the version that has it, where the other has not.
    """

    what: What
    object: str | None
    name: str
    channel: str | None
    label: str
    most: float | None = None
    at: int | None = None
    frames: tuple[int, int] | None = None
    unit: str = ""
    only: Literal["now", "kept"] | None = None


def differences(now: Baked, stored: Baked) -> list[Difference]:
    """All differences, the scene's own first, then object by object in drawing order, the foremost first.

    Both must be baked over their whole frames, one row a frame; they are compared at the frames that both have.
    """
    result = list(_of_scene(now.scene, stored.scene))
    for owner in dict.fromkeys([*now.scene.dials_by_id, *stored.scene.dials_by_id]):
        result += _of_dial(owner, now, stored)
    order = [*reversed(now.scene.objects), *(obj for obj in reversed(stored.scene.objects) if obj.id not in now.scene.by_id)]
    for obj in order:
        result += _of_object(obj, now, stored)
    return result


def _of_scene(now: Scene, stored: Scene) -> Iterator[Difference]:
    for field in SCENE_FIELDS:
        if getattr(now, field) != getattr(stored, field):
            yield Difference("channel", None, "the scene", field, _said(field, getattr(stored, field), getattr(now, field)))
    for inset_id in dict.fromkeys([*now.insets_by_id, *stored.insets_by_id]):
        ours, theirs = now.insets_by_id.get(inset_id), stored.insets_by_id.get(inset_id)
        # A scene inside that is in one version only comes and goes with the insets that show it.
        if ours is not None and theirs is not None and ours != theirs:
            yield Difference("channel", None, "the scene", f"{INSET}{inset_id}", f"the scene inside: {theirs.name}")


def _said(field: str, stored: object, now: object) -> str:
    if isinstance(stored, str | int | float) and isinstance(now, str | int | float):
        return f"{field}: {stored} was kept, {now} now"
    return field


def _of_dial(owner: str, now: Baked, stored: Baked) -> Iterator[Difference]:
    ours, theirs = now.scene.dials_by_id.get(owner), stored.scene.dials_by_id.get(owner)
    if ours is None or theirs is None:
        item = ours or theirs
        assert item is not None
        yield Difference("all", owner, item.name, None, "the dial", only="now" if theirs is None else "kept")
    elif ours != theirs:
        values, values_kept = now.dials[ours.id], stored.dials[ours.id]
        yield _measured(owner, ours.name, ours.spec, DIAL_CHANNEL, values, values_kept, _shared(now, stored))


def _of_object(obj: SceneObject, now: Baked, stored: Baked) -> Iterator[Difference]:
    ours, theirs = now.scene.by_id.get(obj.id), stored.scene.by_id.get(obj.id)
    if ours is None or theirs is None:
        yield Difference("all", obj.id, obj.name, None, f"the {obj.kind}", only="now" if theirs is None else "kept")
        return
    count = _shared(now, stored)
    ours_baked, theirs_baked = now.objects[obj.id].channels, stored.objects[obj.id].channels
    for name, spec in ours.specs.items():
        if name not in theirs.specs:
            # What only one of two drawings has goes with the drawing.
            continue
        # Which of its words a text says tells nothing of how far two texts are apart.
        if spec.kind != "words" and name in ours_baked and name in theirs_baked:
            item = _measured(obj.id, ours.name, spec, name, ours_baked[name], theirs_baked[name], count)
            if item.most or made_of(ours, name) != made_of(theirs, name):
                yield item
        elif made_of(ours, name) != made_of(theirs, name):
            yield Difference("channel", obj.id, ours.name, name, spec.label or name)
    if drawing_of(ours) != drawing_of(theirs):
        yield Difference("drawing", obj.id, ours.name, None, "how it is drawn, hung or shown")


def made_of(obj: SceneObject, channel: str) -> tuple[Channel, tuple[object, ...]]:
    """Return the sources of a channel's values, apart from channels that its rules read: its keys and its rules."""
    parts = tuple((rule.id, rule.kind, rule.on, rule.mode, rule.settings) for rule in obj.rules_for(channel))
    return obj.channels.get(channel, Channel()), parts


def drawing_of(obj: SceneObject) -> Mapping[str, object]:
    """Return an object without its motion: its drawing, parent, visibility and span."""
    return {name: getattr(obj, name) for name in type(obj).model_fields if name not in ("id", "channels", "rules")}


def _shared(now: Baked, stored: Baked) -> int:
    return min(len(now.frames), len(stored.frames))


def _measured(
    owner: str, name: str, spec: ChannelSpec, channel: str, ours: NDArray[np.float64], theirs: NDArray[np.float64], count: int
) -> Difference:
    """How far two channels are apart at the first `count` frames; each has one row, or one a frame."""
    if spec.is_colour:
        gap = 255 * np.abs(_rows(ours, count) - _rows(theirs, count)).max(axis=1)
    else:
        apart = _rows(ours, count) - _rows(theirs, count)
        gap = spec.shown * (np.abs(apart) if apart.ndim == 1 else np.hypot(*apart.T))
    differs = np.flatnonzero(gap > _SAME)
    unit = "of 255" if spec.is_colour else spec.unit
    if not len(differs):
        return Difference("channel", owner, name, channel, _label(spec), 0.0, unit=unit)
    at = int(gap.argmax())
    return Difference("channel", owner, name, channel, _label(spec), float(gap[at]), at, (int(differs[0]), int(differs[-1])), unit)


def _rows(values: NDArray[np.float64], count: int) -> NDArray[np.float64]:
    return np.broadcast_to(values, (count, *values.shape[1:])) if len(values) == 1 else values[:count]


def _label(spec: ChannelSpec) -> str:
    return spec.row if spec.row_says_all else f"{spec.row} {spec.label}"
