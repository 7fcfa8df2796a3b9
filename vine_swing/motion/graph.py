"""Who reads whom: what each channel is made from besides its own keys, in which order to work it out, what an edit touches.

The nodes are channels of objects and settings of rules (`rule:setting`). x and y read the path they follow; a channel reads the keyed
settings of its rules; and some rules look at other channels, of their own object or of another. Only those last
ones ask for an order: everything else is worked out channel by channel.
"""

from collections.abc import Iterable, Iterator
from graphlib import CycleError, TopologicalSorter

from vine_swing.motion.errors import MotionError
from vine_swing.motion.model import Scene, SceneObject
from vine_swing.motion.rule import SETTING

#: An object's id and the name of a channel of it.
Ref = tuple[str, str]


class LoopError(MotionError):
    """Channels read each other in a ring; `ring` lists them, the first again at the end."""

    def __init__(self, ring: list[Ref], scene: Scene) -> None:
        self.ring = ring
        chain = " ← ".join(f"{scene.by_id[object_id].name} {name}" for object_id, name in ring)
        super().__init__(f"these read each other in a ring: {chain}; let one of them go, or let it act on another channel")


def reads_of(thing: SceneObject, name: str) -> tuple[Ref, ...]:
    """All that a channel reads besides its own keys: its path, the keyed settings of its rules, and what those look at."""
    along = ((thing.id, "path"),) if name in ("x", "y") and thing.is_keyed("path") and not thing.is_keyed(name) else ()
    settings = (f"{rule.id}{SETTING}{one}" for rule in thing.rules_on(name) for one in rule.settings)
    keyed = tuple((thing.id, one) for one in settings if one in thing.keyed_settings)
    besides = tuple((thing.id, one) for rule in thing.rules_on(name) for one in rule.spec.besides if one != name)
    return (*along, *keyed, *besides, *thing.looks.get(name, ()))


def in_order(scene: Scene) -> list[Ref]:
    """The channels whose rules look at others, every one after those it looks at; ties as the scene lists them.

    Raises:
        LoopError: if some read each other in a ring.
    """
    looking = {(thing.id, name): looks for thing in scene.objects for name, looks in thing.looks.items()}
    if not looking:
        return []
    try:
        return [ref for ref in TopologicalSorter(looking).static_order() if ref in looking]
    except CycleError as error:
        # The sorter lists a ring from what is read to who reads it.
        raise LoopError(list(reversed(error.args[1])), scene) from error


def followers_of(scene: Scene, changed: Iterable[Ref]) -> set[Ref]:
    """Everything that is made anew when some channels or settings change: they themselves and all that reads them, however far."""
    readers: dict[Ref, list[Ref]] = {}
    for reader, read in _edges(scene):
        readers.setdefault(read, []).append(reader)
    found, waiting = set(changed), list(changed)
    while waiting:
        for reader in readers.get(waiting.pop(), ()):
            if reader not in found:
                found.add(reader)
                waiting.append(reader)
    return found


def _edges(scene: Scene) -> Iterator[tuple[Ref, Ref]]:
    for thing in scene.objects:
        for name in thing.specs:
            for read in reads_of(thing, name):
                yield (thing.id, name), read
