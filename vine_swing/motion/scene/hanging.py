"""Children of what: the parts of objects, and all that is below them."""

from collections.abc import Iterable, Mapping, Sequence

from vine_swing.motion.scene.objects import SceneObject


def parts_of(objects: Iterable[SceneObject]) -> dict[str, list[str]]:
    """The ids of what hangs directly on each object, in their order; only of objects on which something hangs."""
    found: dict[str, list[str]] = {}
    for thing in objects:
        if thing.parent is not None:
            found.setdefault(thing.parent, []).append(thing.id)
    return found


def with_parts(objects: Sequence[str], parts: Mapping[str, list[str]]) -> list[str]:
    """Some objects and their descendants, each once."""
    found: dict[str, None] = {}
    waiting = list(reversed(objects))
    while waiting:
        one = waiting.pop()
        if one not in found:
            found[one] = None
            waiting += reversed(parts.get(one, []))
    return list(found)
