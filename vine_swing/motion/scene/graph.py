"""Dependency graph: the inputs of each channel, the order of evaluation, and what an edit affects.

The nodes are channels of objects and settings of rules (`rule:setting`). x and y read the path they follow; a channel reads the keyed
settings of its rules; and some rules look at other channels, of their own object or of another. Only those last
ones ask for an order: everything else is computed channel by channel.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from graphlib import CycleError, TopologicalSorter

from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.basics.specs import GEOMETRY, OUTLINE, SHAPES
from vine_swing.motion.formula import split
from vine_swing.motion.rules.link import NAMED
from vine_swing.motion.rules.rule import SETTING
from vine_swing.motion.rules.spec import WHERE
from vine_swing.motion.scene.dial import DIAL, DIAL_CHANNEL
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject

#: An object's id and the name of a channel of it, or DRAWING.
Ref = tuple[str, str]
#: In place of a channel: what an object is drawn from besides its channels, such as its shape and the rules that bend it.
DRAWING = "*drawing"


def resolved(scene: Scene, ref: Ref) -> Ref | None:
    """Return the channel of an object or dial that a reference names, or None."""
    if ref[0] in scene.dials_by_id:
        return ref
    if ref[0] != NAMED:
        thing = scene.by_id.get(ref[0])
        if ref[1] == WHERE and thing is not None:
            return ref[0], "x"
        return ref if thing is not None and ref[1] in thing.specs else None
    dial = scene.dials_by_name.get(ref[1])
    if dial is not None:
        return f"{DIAL}{dial.id}", DIAL_CHANNEL
    parts = split(ref[1], scene.by_name)
    if parts is None or parts[1] not in scene.by_name[parts[0]].specs or scene.by_name[parts[0]].specs[parts[1]].kind != "number":
        return None
    return scene.by_name[parts[0]].id, parts[1]


def dependencies_of(scene: Scene, thing: SceneObject, name: str) -> tuple[Ref, ...]:
    """The channels and dials of a scene that the rules on a channel look at."""
    return _resolved_all(scene, thing.parent, thing.dependencies.get(name, ()))


def _resolved_all(scene: Scene, parent: str | None, refs: tuple[Ref, ...]) -> tuple[Ref, ...]:
    """Resolve a child's dependencies to concrete channels."""
    found: dict[Ref, None] = {}
    for ref in refs:
        if ref[1] == WHERE:
            found |= dict.fromkeys(_where(scene, ref[0], parent))
        elif (one := resolved(scene, ref)) is not None:
            found[one] = None
    return tuple(found)


def _where(scene: Scene, object_id: str, seen_from: str | None) -> Iterator[Ref]:
    """The channels that say where an object is and how large, as something sees it that is attached to `seen_from`, and how it is drawn and bent."""
    thing = scene.by_id.get(object_id)
    if thing is not None and thing.drawn_shape is not None:
        yield from ((object_id, spec.name) for spec in SHAPES[thing.drawn_shape.type])
    for one in (object_id, seen_from):
        while one is not None and one in scene.by_id:
            above = scene.by_id[one]
            yield from ((one, name) for name in (*GEOMETRY, DRAWING))
            bending = {rule.id for rule in above.rules_on(OUTLINE)}
            yield from ((one, name) for name in above.moving_settings if name.partition(SETTING)[0] in bending)
            one = above.parent


@dataclass(frozen=True)
class Drive:
    """One thing that drives another: a channel or a dial, what it drives, and by which rule of that object, in which of its settings if it
    is a formula of a setting."""

    driver: Ref
    driven: Ref
    rule: str
    kind: str
    setting: str | None = None


def drives(scene: Scene) -> list[Drive]:
    """Everything in a scene that drives something else: what rules that are switched on read of other objects, of dials, and in links; in
    the order of the troupe. What an object's own rules see of its own travel is left out."""
    found: dict[Drive, None] = {}
    for thing in scene.objects:
        for rule in thing.rules:
            if not rule.on:
                continue
            acted = [name for name in thing.specs if rule in thing.rules_on(name)]
            # A rule for joints is one object that drives the whole figure, told by the first of its joints.
            for name in acted[:1] if rule.spec.joints is not None else acted:
                for ref in rule.spec.dependencies(rule.word, name):
                    driver = resolved(scene, (ref[0] or thing.id, ref[1]))
                    if driver is not None and (driver[0] != thing.id or ref[0] == NAMED):
                        found[Drive(driver, (thing.id, name), rule.id, rule.kind)] = None
                for setting, refs in rule.linked.items():
                    for driver in (resolved(scene, ref) for ref in refs):
                        if driver is not None:
                            found[Drive(driver, (thing.id, name), rule.id, rule.kind, setting)] = None
    return list(found)


class LoopError(MotionError):
    """Channels read each other in a ring; `ring` lists them, the first again at the end."""

    def __init__(self, ring: list[Ref], scene: Scene) -> None:
        self.ring = ring
        chain = " ← ".join(f"{scene.by_id[object_id].name}.{name}" for object_id, name in ring)
        super().__init__(f"these read each other in a ring: {chain}; let one of them go, or let it act on another channel")


def reads_of(scene: Scene, thing: SceneObject, name: str) -> tuple[Ref, ...]:
    """Return all reads of a channel apart from its keys: its path, keyed settings of its rules, and their dependencies."""
    along = ((thing.id, "path"),) if name in ("x", "y") and thing.is_keyed("path") and not thing.is_keyed(name) else ()
    settings = (f"{rule.id}{SETTING}{one}" for rule in thing.rules_on(name) for one in rule.settings)
    keyed = tuple((thing.id, one) for one in settings if one in thing.moving_settings)
    besides = tuple((thing.id, one) for rule in thing.rules_on(name) for one in rule.spec.own_keys_read if one != name)
    return (*along, *keyed, *besides, *dependencies_of(scene, thing, name))


def in_order(scene: Scene) -> dict[Ref, tuple[Ref, ...]]:
    """The channels and settings made from others, each with what it looks at and after it; ties as the scene lists them.

    Raises:
        LoopError: if some read each other in a ring.
    """
    looking: dict[Ref, tuple[Ref, ...]] = {}
    # All joints of a figure look at the same.
    known: dict[tuple[str | None, tuple[Ref, ...]], tuple[Ref, ...]] = {}
    for thing in scene.objects:
        for name, refs in thing.dependencies.items():
            one = (thing.parent, refs)
            if one not in known:
                known[one] = _resolved_all(scene, *one)
            looking[thing.id, name] = known[one]
    if not looking:
        return {}
    # What looks at nothing is made before all of this, and needs no place in it.
    waiting = {seen: [one for one in seen if one in looking] for seen in dict.fromkeys(looking.values())}
    waits = {ref: waiting[seen] for ref, seen in looking.items()}
    if _in_turn(waits):
        return looking
    try:
        return {ref: looking[ref] for ref in TopologicalSorter(waits).static_order()}
    except CycleError as error:
        # The sorter lists a ring from what is read to who reads it.
        raise LoopError(list(reversed(error.args[1])), scene) from error


def _in_turn(waits: dict[Ref, list[Ref]]) -> bool:
    """True if the current order satisfies all dependencies."""
    done: set[Ref] = set()
    for ref, reads in waits.items():
        if reads and not done.issuperset(reads):
            return False
        done.add(ref)
    return True


def followers_of(scene: Scene, changed: Iterable[Ref]) -> set[Ref]:
    """Everything that is made again when some channels or settings change: they themselves and all that reads them, however far."""
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
            for read in reads_of(scene, thing, name):
                yield (thing.id, name), read
        for name in thing.moving_settings:
            for read in dependencies_of(scene, thing, name):
                yield (thing.id, name), read
