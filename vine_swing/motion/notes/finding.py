"""Looking through a scene for notes, again only at what has changed."""

from collections.abc import Mapping
from dataclasses import dataclass

from vine_swing.motion.baking.baked import Baked
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.notes.kinds import KINDS
from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Note
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject

#: What the notes of one object were made from: compared by identity.
_Basis = tuple[BakedObject, ...]


@dataclass(frozen=True)
class FoundNotes:
    """The notes of a scene, the surest and worst first, hushed ones left out; and those of each object with what they were made from."""

    notes: tuple[Note, ...]
    hushed: int
    measures: SceneMeasures
    by_object: Mapping[str, tuple[_Basis, tuple[Note, ...]]]


def find_notes(baked: Baked, previous: FoundNotes | None = None) -> FoundNotes:
    """All notes on a scene that was baked at its own frames.

    previous: the notes of an earlier version: objects of which nothing has changed, nor of their parent or their children, are not looked at
        again.
    """
    scene = baked.scene
    known = previous if previous is not None and _same_frame(previous.measures.scene, scene) else None
    old = known.by_object if known is not None else {}
    bases = {thing.id: _basis(baked, thing) for thing in scene.objects}
    same = {one for one, basis in bases.items() if one in old and _is_same(old[one][0], basis)}
    measures = SceneMeasures(baked, known.measures if known is not None else None, same)
    by_object = {thing.id: old[thing.id] if thing.id in same else (bases[thing.id], tuple(_of_object(measures, thing))) for thing in scene.objects}
    found = [note for _, notes in by_object.values() for note in notes]
    found += [note for kind in KINDS.values() if kind.of_scene is not None for note in kind.of_scene(measures)]
    loud = [note for note in found if not scene.is_hushed(note.kind, note.object, note.channel)]
    # Equal ones in the order of the kinds and of the troupe, which is that in which they were found.
    ordered = tuple(sorted(loud, key=lambda note: -note.sure * (0.5 + note.bad)))
    return FoundNotes(ordered, len(found) - len(loud), measures, by_object)


def _same_frame(before: Scene, after: Scene) -> bool:
    """Whether what notes measure by is the same: the picture and the time."""
    return (before.size, before.fps, before.length, before.background) == (after.size, after.fps, after.length, after.background)


def _is_same(before: _Basis, after: _Basis) -> bool:
    return len(before) == len(after) and all(one is other for one, other in zip(before, after, strict=True))


def _basis(baked: Baked, thing: SceneObject) -> _Basis:
    """All that the notes of an object follow: itself, its children, and its parent."""
    objects, children = baked.objects, baked.scene.children
    found: list[BakedObject] = []
    waiting = [thing.id]
    while waiting:
        one = waiting.pop()
        found.append(objects[one])
        waiting += children.get(one, ())
    found += [objects[up.id] for up in baked.scene.upwards(thing.parent)]
    return tuple(found)


def _of_object(measures: SceneMeasures, thing: SceneObject) -> list[Note]:
    return [note for kind in KINDS.values() if kind.of_object is not None for note in kind.of_object(measures, thing)]
