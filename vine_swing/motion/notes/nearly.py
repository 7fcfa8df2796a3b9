"""A value left a little off what was meant: 3 % for 0, 357° for 360°, a level that is not level, an object a pixel beside its like."""

from collections.abc import Iterator

import numpy as np

from vine_swing.motion.edits.base import Edit
from vine_swing.motion.edits.keys import SetKey, SetValue
from vine_swing.motion.notes.keyed import changes, keyed, numbers
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.timing.channel import Channel, Key

#: A share of so much beside 0, 1 or a half is most likely meant to be that: about what a hand leaves on a slider.
_SHARE = 0.045
#: Degrees beside a whole turn, after at least half of one: what a hand leaves on a ring.
_TURN = 5.0
#: What a level travel may differ by, to its length; and how far two alike objects may lie apart, to the picture's diagonal (4 px of 1280 × 720).
_LEVEL, _BESIDE = 0.02, 0.0035


def find(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """Keys of opacity, size, rotation and place that are a little off."""
    for name, channel in keyed(thing):
        if not changes(channel):
            continue
        if name == "opacity":
            yield from _shares(thing, name, channel, (0.0, 1.0, 0.5))
        elif name == "rotation":
            yield from _turns(thing, channel)
    yield from _levels(measures, thing)


def _shares(thing: SceneObject, name: str, channel: Channel, whole: tuple[float, ...]) -> Iterator[Note]:
    values = numbers(channel)
    reach = float(values.max() - values.min())
    for place, (key, value) in enumerate(zip(channel.keys, values, strict=True)):
        near = min(whole, key=lambda one, value=value: abs(value - one))  # type: ignore[misc]
        off = abs(float(value) - near)
        # Where it lingers or turns, and not what it passes; in a move that is much larger.
        turns = place in (0, len(values) - 1) or (values[place] - values[place - 1]) * (values[place + 1] - values[place]) <= 0
        if 0 < off <= _SHARE and turns and reach > 5 * off:
            text = f"{thing.name}'s {name} is {100 * value:.3g} % at frame {key.frame:g}, just beside {100 * near:g} %."
            yield _note(thing, name, key, text, near, f"Make it {100 * near:g} %")


def _turns(thing: SceneObject, channel: Channel) -> Iterator[Note]:
    first = channel.keys[0].number
    for before, key in zip(channel.keys, channel.keys[1:], strict=False):
        whole = first + 360 * round((key.number - first) / 360)
        off = abs(key.number - whole)
        if 0 < off <= _TURN and abs(key.number - before.number) >= 180:
            text = f"{thing.name} turns to {key.number:.4g}° at frame {key.frame:g}, just beside {whole:g}°, a whole turn."
            yield _note(thing, "rotation", key, text, whole, f"Make it {whole:g}°")


def _levels(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """Two keys of y a little apart, between which it goes a long way in x."""
    y, x = thing.channels.get("y"), thing.channels.get("x")
    if y is None or x is None or len(y.keys) < 2 or len(x.keys) < 2:
        return
    across = {key.frame: key.number for key in x.keys}
    for one, other in zip(y.keys, y.keys[1:], strict=False):
        if one.frame not in across or other.frame not in across:
            continue
        way, off = abs(across[other.frame] - across[one.frame]), abs(other.number - one.number)
        if 0 < off <= _LEVEL * way and way > 0.08 * measures.diagonal and off < 0.012 * measures.diagonal:
            text = f"{thing.name} goes {way:.4g} px across and {off:.3g} px up or down from frame {one.frame:g} to {other.frame:g}: nearly level."
            yield _note(thing, "y", other, text, one.number, "Make it level", 0.5)


def _note(thing: SceneObject, channel: str, key: Key, text: str, value: float, label: str, sure: float = 0.65) -> Note:
    edit = SetKey(edit="set-key", object=thing.id, channel=channel, frame=key.frame, value=value)
    return Note("nearly", thing.id, channel, (key.frame, key.frame), text, sure=sure, bad=0.4, mends=(Mend(label, (edit,)),))


def find_beside(measures: SceneMeasures) -> Iterator[Note]:
    """Alike objects at rest that nearly share a line."""
    alike: dict[tuple[object, ...], list[SceneObject]] = {}
    for thing in measures.scene.objects:
        shape = thing.drawn_shape
        if shape is not None and shape.type != "line" and not thing.rules and not thing.is_keyed("x") and not thing.is_keyed("y") and thing.shown:
            sizes = tuple(round(float(measures.value(thing, name)[0]), 6) for name in ("width", "height") if name in thing.specs)
            if sizes and not thing.is_keyed("path"):
                alike.setdefault((shape, thing.parent, sizes), []).append(thing)
    for things in alike.values():
        for along, across in (("y", "x"), ("x", "y")):
            yield from _beside(measures, things, along, across)


def _beside(measures: SceneMeasures, things: list[SceneObject], along: str, across: str) -> Iterator[Note]:
    if len(things) < 3:
        # Of two rows, the intended line is unknown.
        return
    at = np.array([float(measures.value(thing, along)[0]) for thing in things])
    line = float(np.median(at))
    off = np.abs(at - line)
    near = off <= _BESIDE * measures.diagonal
    if near.sum() < 3 or (off[near] == 0).sum() < 2:
        return
    for thing, value, beside in zip(things, at, off, strict=True):
        if 0 < beside <= _BESIDE * measures.diagonal:
            text = f"{thing.name} lies {beside:.3g} px beside the line of {(near.sum() - 1)} like it ({along} {value:.5g}, theirs {line:.5g})."
            edit: Edit = SetValue(edit="set-value", object=thing.id, channel=along, value=line)
            yield Note("nearly", thing.id, along, (0, measures.length - 1), text, sure=0.55, bad=0.2, mends=(Mend("Put it on the line", (edit,)),))


KIND = NoteKind(
    name="nearly",
    label="A little off",
    why=(
        "A fade that stops at 3 %, a turn that ends at 357°, a level move that is 2 px off: the hand stopped short of what was "
        "meant. Meant, hardly ever."
    ),
    about="object",
    of_object=find,
    of_scene=find_beside,
)
