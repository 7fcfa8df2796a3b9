"""What stays the same from bake to bake while only values change: who reads whom, in which order, and the children of what."""

from collections.abc import Hashable, Iterable, Mapping
from dataclasses import dataclass
from itertools import zip_longest
from typing import TypeVar

from vine_swing.motion.baking.portions import Portions
from vine_swing.motion.scene.dial import Dial
from vine_swing.motion.scene.graph import Ref, in_order
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject

_Node = TypeVar("_Node", bound=Hashable)


@dataclass(frozen=True)
class Plan:
    """The dependencies of a scene; good for every scene with the same objects and dials in the same places whose rules look at the same.

    reads: the channels and settings that look at others, each with what it looks at, in an order in which they can be made.
    readers: for each channel, setting or dial, who looks at it.
    level: how many of `reads` each is on: those of one level do not look at one another.
    children: the ids of the children of each object.
    portions: how the time of a bake is divided.
    """

    reads: dict[Ref, tuple[Ref, ...]]
    readers: dict[Ref, list[Ref]]
    level: dict[Ref, int]
    children: dict[str, list[str]]
    portions: Portions

    @classmethod
    def of(cls, scene: Scene) -> "Plan":
        """The plan of a scene.

        Raises:
            LoopError: if channels read each other in a ring.
        """
        reads = in_order(scene)
        readers: dict[Ref, list[Ref]] = {}
        level: dict[Ref, int] = {}
        for ref, looked_at in reads.items():
            level[ref] = 1 + max((level[item] for item in looked_at if item in level), default=0)
            for entry in looked_at:
                readers.setdefault(entry, []).append(ref)
        return cls(reads, readers, level, scene.children, Portions.of(scene))

    def followers(self, changed: list[Ref]) -> set[Ref]:
        """All that looks at some channels or dials, however far."""
        return _reached(changed, self.readers)

    def below(self, object_ids: set[str]) -> set[str]:
        """Some objects and their descendants, however deep."""
        return object_ids | _reached(object_ids, self.children)


def _reached(starts: Iterable[_Node], edges: Mapping[_Node, list[_Node]]) -> set[_Node]:
    """The nodes reachable from some others along one edge or more."""
    result: set[_Node] = set()
    waiting = list(starts)
    while waiting:
        for node in edges.get(waiting.pop(), ()):
            if node not in result:
                result.add(node)
                waiting.append(node)
    return result


def changed_values(before: Scene, after: Scene) -> list[tuple[SceneObject, SceneObject]] | None:
    """The objects that differ between two versions of a scene, old and new; None if more than values differ, so that a plan would not hold."""
    if len(before.objects) != len(after.objects):
        return None
    if before.dials is not after.dials and any(
        old.id != new.id or old.name != new.name for old, new in zip_longest(before.dials, after.dials, fillvalue=_NO_DIAL)
    ):
        return None
    result = [(old, new) for old, new in zip(before.objects, after.objects, strict=True) if old is not new]
    return result if all(_same_structure(old, new) for old, new in result) else None


_NO_DIAL = Dial.model_construct(id="", name="")


def _same_structure(old: SceneObject, new: SceneObject) -> bool:
    if (old.id, old.name, old.parent, old.bone, old.kind) != (new.id, new.name, new.parent, new.bone, new.kind):
        return False
    if old.content is not new.content:
        return False
    # Which channels a rule acts on may follow which have keys.
    return not (old.rules or new.rules) or (old.dependencies == new.dependencies and old.ruled == new.ruled)
