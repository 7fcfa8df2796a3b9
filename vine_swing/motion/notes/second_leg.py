"""A second leg that moves at another speed than the first, because its keys lie closer together or farther apart."""

from collections.abc import Iterator
from itertools import pairwise

from vine_swing.motion.edits.timing import Picked, StretchKeys
from vine_swing.motion.notes.keyed import keyed, numbers, pair_name, span_of
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Mend, Note, NoteKind
from vine_swing.motion.scene.objects import SceneObject

#: How much longer one may take than the other: less is not seen, more is another motion.
_LEAST, _MOST = 1.04, 2.0


def find(measures: SceneMeasures) -> Iterator[Note]:
    """Pairs that are called alike and are attached to the same object, with the same moves on a channel in other times."""
    pairs: dict[tuple[str, str | None], list[SceneObject]] = {}
    for thing in measures.scene.objects:
        pairs.setdefault((pair_name(thing), thing.parent), []).append(thing)
    for things in pairs.values():
        # More than two are each in a time of their own, as leaves are.
        if len(things) != 2:
            continue
        one, other = things
        for name, channel in keyed(one):
            twin = other.channels.get(name)
            if twin is not None and len(twin.keys) == len(channel.keys) and one.specs[name].kind == "number":
                yield from _compared(one, other, name)


def _compared(one: SceneObject, other: SceneObject, name: str) -> Iterator[Note]:
    a, b = one.channels[name], other.channels[name]
    if len(a.keys) < 2 or not _alike(numbers(a).tolist(), numbers(b).tolist()):
        return
    (first, last), (start, end) = span_of(a), span_of(b)
    factor = (last - first) / (end - start)
    ratio = max(factor, 1 / factor)
    if not _LEAST < ratio <= _MOST:
        return
    keys = (Picked(object=other.id, channel=name, frames=tuple(key.frame for key in b.keys)),)
    edit = StretchKeys(edit="stretch-keys", keys=keys, about=start, factor=factor)
    faster = "faster" if factor > 1 else "slower"
    text = f"{other.name} makes the same moves as {one.name} in {end - start:g} frames instead of {last - first:g}: it runs {faster}."
    yield Note("second-leg", other.id, name, (start, end), text, sure=0.65, bad=0.6, mends=(Mend(f"Give it the time of {one.name}", (edit,)),))


def _alike(values: list[float], others: list[float]) -> bool:
    """Whether two moves are the same steps, or the same in a mirror, from whatever value they begin."""
    steps = [b - a for a, b in pairwise(values)]
    theirs = [b - a for a, b in pairwise(others)]
    most = max(map(abs, steps))
    return most > 0 and any(all(abs(a - side * b) <= 0.02 * most for a, b in zip(steps, theirs, strict=True)) for side in (1, -1))


KIND = NoteKind(
    name="second-leg",
    label="A second leg at another speed",
    why=(
        "Two legs, wings or wheels that make the same moves should make them in the same time; keys that sit closer make one of "
        "them hurry. Meant, for a limp."
    ),
    about="scene",
    of_scene=find,
)
