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


def differences(now: Baked, kept: Baked) -> list[Difference]:
    """All differences, the scene's own first, then object by object in drawing order, the foremost first.

    Both must be baked over their whole frames, one row a frame; they are compared at the frames that both have.
    """
    found = list(_of_scene(now.scene, kept.scene))
    for owner in dict.fromkeys([*now.scene.dials_by_id, *kept.scene.dials_by_id]):
        found += _of_dial(owner, now, kept)
    order = [*reversed(now.scene.objects), *(thing for thing in reversed(kept.scene.objects) if thing.id not in now.scene.by_id)]
    for thing in order:
        found += _of_object(thing, now, kept)
    return found


def _of_scene(now: Scene, kept: Scene) -> Iterator[Difference]:
    for field in SCENE_FIELDS:
        if getattr(now, field) != getattr(kept, field):
            yield Difference("channel", None, "the scene", field, _said(field, getattr(kept, field), getattr(now, field)))
    for inset_id in dict.fromkeys([*now.insets_by_id, *kept.insets_by_id]):
        ours, theirs = now.insets_by_id.get(inset_id), kept.insets_by_id.get(inset_id)
        # A scene inside that is in one version only comes and goes with the insets that show it.
        if ours is not None and theirs is not None and ours != theirs:
            yield Difference("channel", None, "the scene", f"{INSET}{inset_id}", f"the scene inside: {theirs.name}")


def _said(field: str, kept: object, now: object) -> str:
    if isinstance(kept, str | int | float) and isinstance(now, str | int | float):
        return f"{field}: {kept} was kept, {now} now"
    return field


def _of_dial(owner: str, now: Baked, kept: Baked) -> Iterator[Difference]:
    ours, theirs = now.scene.dials_by_id.get(owner), kept.scene.dials_by_id.get(owner)
    if ours is None or theirs is None:
        one = ours or theirs
        assert one is not None
        yield Difference("all", owner, one.name, None, "the dial", only="now" if theirs is None else "kept")
    elif ours != theirs:
        values, values_kept = now.dials[ours.id], kept.dials[ours.id]
        yield _measured(owner, ours.name, ours.spec, DIAL_CHANNEL, values, values_kept, _shared(now, kept))


def _of_object(thing: SceneObject, now: Baked, kept: Baked) -> Iterator[Difference]:
    ours, theirs = now.scene.by_id.get(thing.id), kept.scene.by_id.get(thing.id)
    if ours is None or theirs is None:
        yield Difference("all", thing.id, thing.name, None, f"the {thing.kind}", only="now" if theirs is None else "kept")
        return
    count = _shared(now, kept)
    ours_baked, theirs_baked = now.objects[thing.id].channels, kept.objects[thing.id].channels
    for name, spec in ours.specs.items():
        if name not in theirs.specs:
            # What only one of two drawings has goes with the drawing.
            continue
        # Which of its words a text says tells nothing of how far two texts are apart.
        if spec.kind != "words" and name in ours_baked and name in theirs_baked:
            one = _measured(thing.id, ours.name, spec, name, ours_baked[name], theirs_baked[name], count)
            if one.most or made_of(ours, name) != made_of(theirs, name):
                yield one
        elif made_of(ours, name) != made_of(theirs, name):
            yield Difference("channel", thing.id, ours.name, name, spec.label or name)
    if drawing_of(ours) != drawing_of(theirs):
        yield Difference("drawing", thing.id, ours.name, None, "how it is drawn, hung or shown")


def made_of(thing: SceneObject, channel: str) -> tuple[Channel, tuple[object, ...]]:
    """Return the sources of a channel's values, apart from channels that its rules read: its keys and its rules."""
    parts = tuple((rule.id, rule.kind, rule.on, rule.mode, rule.settings) for rule in thing.rules_for(channel))
    return thing.channels.get(channel, Channel()), parts


def drawing_of(thing: SceneObject) -> Mapping[str, object]:
    """Return an object without its motion: its drawing, parent, visibility and span."""
    return {name: getattr(thing, name) for name in type(thing).model_fields if name not in ("id", "channels", "rules")}


def _shared(now: Baked, kept: Baked) -> int:
    return min(len(now.frames), len(kept.frames))


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
