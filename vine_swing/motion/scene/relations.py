"""How the objects of one timeline may relate: the children of what, the one camera, and which objects the lists of a parade name."""

from collections.abc import Mapping

from vine_swing.motion.parade.model import ITEM, Parade, fault_of
from vine_swing.motion.scene.objects import SceneObject


def check_lists(name: str, parade: Parade, objects: Mapping[str, SceneObject]) -> None:
    """Refuse lists with values that the channel they are for cannot have. Lists for removed objects are kept unused.

    Raises:
        ValueError: naming the parade, the channel and the row.
    """
    for one in parade.lists:
        thing = objects.get(one.object or "")
        kind = "number" if one.channel == ITEM else thing.specs[one.channel].kind if thing is not None and one.channel in thing.specs else None
        if kind is None:
            continue
        for row, value in enumerate(one.values):
            if fault := fault_of(value, kind):
                raise ValueError(f"'{name}', list for {thing.name + ' ' if thing is not None else ''}{one.channel}, row {row + 1}: {fault}")
    for overrule in parade.overrules:
        thing = objects.get(overrule.object)
        if thing is not None and overrule.channel in thing.specs and (fault := fault_of(overrule.value, thing.specs[overrule.channel].kind)):
            raise ValueError(f"'{name}', copy {overrule.copy_ + 1}, {thing.name} {overrule.channel}: {fault}")


def check_camera(objects: tuple[SceneObject, ...]) -> None:
    """Refuse a second camera, one that is attached to something, and the children of one.

    Raises:
        ValueError: naming it.
    """
    cameras = [thing for thing in objects if thing.kind == "camera"]
    if len(cameras) > 1:
        raise ValueError(f"'{cameras[1].name}' is a second camera; a scene has one")
    for camera in cameras:
        if camera.parent is not None:
            raise ValueError(f"the camera '{camera.name}' has a parent; make it follow by a rule or a link instead")
        for thing in objects:
            if thing.parent == camera.id:
                raise ValueError(f"'{thing.name}' is attached to the camera; fix it to the frame instead")


def check_bone(thing: SceneObject, parent: SceneObject | None) -> None:
    """Refuse an object attached to a bone that its parent does not have.

    Raises:
        ValueError: naming the object, the bone and what there is.
    """
    if parent is None or parent.skeleton is None:
        raise ValueError(f"'{thing.name}' is attached to the bone '{thing.bone}', but its parent is not a figure; remove the bone")
    if thing.bone not in parent.skeleton.bones:
        raise ValueError(f"'{thing.name}' is attached to the bone '{thing.bone}' of '{parent.name}'; there is {', '.join(parent.skeleton.bones)}")


def check_parents(objects: tuple[SceneObject, ...]) -> None:
    """Refuse parents that form a ring.

    Raises:
        ValueError: naming every object of the ring.
    """
    parents = {thing.id: thing.parent for thing in objects}
    names = {thing.id: thing.name for thing in objects}
    safe: set[str] = set()
    for start in parents:
        chain: dict[str, None] = {}
        at: str | None = start
        while at is not None and at not in safe:
            if at in chain:
                ids = list(chain)
                ring = [*ids[ids.index(at) :], at]
                raise ValueError(f"parents form a ring: {' → '.join(names[i] for i in ring)}; let one of them go")
            chain[at] = None
            at = parents[at]
        safe.update(chain)
