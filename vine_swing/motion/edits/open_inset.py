"""Opening an inset: it becomes a group, and what was inside is attached to it, moving as it did."""

from typing import Literal

from vine_swing.motion.baking.keyed import run_of
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.specs import GROUP_CHANNELS, INNER, OUTLINE
from vine_swing.motion.basics.values import Id
from vine_swing.motion.edits.base import PAINTED, Edit, check_room, object_in
from vine_swing.motion.edits.dials import SetDial
from vine_swing.motion.edits.figures import free_id
from vine_swing.motion.edits.insets import inner_in, inset_in
from vine_swing.motion.edits.objects import fitted, name_beside
from vine_swing.motion.edits.several import with_free_names, with_ids
from vine_swing.motion.edits.time_map import TimeMap
from vine_swing.motion.rules.rule import Rule
from vine_swing.motion.scene.dial import DIAL, Dial
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import WHOLE, GroupObject, InsetObject, SceneObject
from vine_swing.motion.scene.timeline import InnerScene, insets_shown
from vine_swing.motion.timing.channel import Channel


class OpenInset(Edit):
    """Convert an inset to a group with the same objects. Its time must run through the inside once: keys, rules or repetitions of its time cannot
    be expressed by keys of its objects."""

    edit: Literal["open-inset"]
    id: Id

    def apply(self, scene: Scene) -> Scene:
        thing = inset_in(scene, self.id)
        inner = inner_in(scene, thing.inset.scene)
        check_room(scene, len(inner.objects) + 1)
        clock = _clock(scene, thing, inner)
        opened = _renamed(scene, scene.inner_as_scene(inner.id))
        parts = list(map(clock.whole, opened.objects))
        group, parts = _hung(scene, thing, inner, parts)
        at = scene.objects.index(thing)
        objects = (*scene.objects[:at], group, *parts, *scene.objects[at + 1 :])
        known = set(scene.dials_by_id)
        dials = tuple(dial.copy_with(channel=clock.channel(dial.channel)) for owner, dial in opened.dials_by_id.items() if owner not in known)
        left = scene.copy_with(objects=objects, dials=(*scene.dials, *dials))
        still = {one for part in left.timelines for one in insets_shown(part)}
        return left if inner.id in still else left.copy_with(insets=tuple(one for one in left.insets if one is not inner))

    def label(self, scene: Scene) -> str:
        return f"make a group of {object_in(scene, self.id).name}"


def _clock(scene: Scene, thing: InsetObject, inner: InnerScene) -> TimeMap:
    """From the frames inside an inset to those outside.

    Raises:
        EditError: if its inside does not run through once, or rules inside would not run on it as they did.
    """
    if thing.is_keyed(INNER) or thing.rules_on(INNER):
        raise EditError(f"the frames inside '{thing.name}' have keys or rules, which a group cannot follow; take them off, or keep the inset")
    start, first, pace = run_of(thing, scene)
    last = start + (min(thing.span.within(scene.length)[1], scene.length - 1) - first) * pace
    if start < 0 or (last > inner.length - 1 and thing.inset.past != "gone"):
        raise EditError(
            f"'{thing.name}' is shown longer than its inside lasts, and would go on by itself as a group; make the inside longer, or the span shorter"
        )
    if (start, pace) != (first, 1.0) and any(rule.on for one in inner.objects for rule in one.rules):
        raise EditError(
            f"rules inside '{thing.name}' use the inner scene's own time, which a group does not have; start it at frame {first:g} inside, with"
            " the same frames per second"
        )
    return TimeMap(1 / pace, start, first)


def _renamed(scene: Scene, inside: Scene) -> Scene:
    """A scene inside another with the ids and names its objects and dials can have outside."""
    inside = with_free_names(inside, scene.names)
    # A dial that is just the one outside is that one.
    for owner, dial in inside.dials_by_id.items():
        if scene.dials_by_id.get(owner) == dial:
            continue
        names = {one.name for one in (*scene.dials, *inside.dials)}
        if dial.name in scene.dials_by_name:
            inside = SetDial(edit="set-dial", id=dial.id, name=name_beside(names, dial.name)).apply(inside)
    used, ids = dict.fromkeys(scene.by_id), dict[str, str]()
    for thing in inside.objects:
        ids[thing.id] = free_id(used, thing.id[:60])
        used[ids[thing.id]] = None
    dials = {
        owner.removeprefix(DIAL): free_id([one.removeprefix(DIAL) for one in scene.dials_by_id], owner.removeprefix(DIAL))
        for owner, dial in inside.dials_by_id.items()
        if scene.dials_by_id.get(owner) != dial
    }
    objects = tuple(with_ids(thing, ids, dials) for thing in inside.objects)
    return inside.copy_with(objects=objects, dials=tuple(_dial(dial, dials) for dial in inside.dials))


def _dial(dial: Dial, ids: dict[str, str]) -> Dial:
    return dial.copy_with(id=ids.get(dial.id, dial.id))


def _hung(scene: Scene, thing: InsetObject, inner: InnerScene, parts: list[SceneObject]) -> tuple[GroupObject, list[SceneObject]]:
    """The group that an inset becomes, and the parts on it. A group that only held the parts in the middle of the picture inside is left out."""
    fields = {name: getattr(thing, name) for name in ("id", "name", "parent", "bone", *PAINTED, "rules")}
    channels = {name: channel for name, channel in thing.channels.items() if name in GROUP_CHANNELS}
    group = GroupObject.model_construct(**fields, kind="group", channels=channels)
    group = GroupObject.model_validate(dict(fitted(group)))
    tops = [one for one in parts if one.parent is None]
    middle = (inner.size[0] / 2, inner.size[1] / 2)
    if len(tops) == 1 and (bends := _only_holds(tops[0], middle)) is not None:
        held = [one.copy_with(parent=thing.id) if one.parent == tops[0].id else one for one in parts if one is not tops[0]]
        return group.copy_with(rules=(*group.rules, *bends)), held
    name = name_beside(scene.names | {one.name for one in parts}, f"{thing.name[:70]} parts")
    corner = {"x": Channel(base=-middle[0]), "y": Channel(base=-middle[1])}
    taken = {*scene.by_id, *(one.id for one in parts)}
    holder = GroupObject(id=free_id(taken, f"{thing.id[:50]}-parts"), name=name, kind="group", parent=thing.id, channels=corner)
    return group, [holder, *(one.copy_with(parent=holder.id) if one.parent is None else one for one in parts)]


def _only_holds(top: SceneObject, middle: tuple[float, float]) -> tuple[Rule, ...] | None:
    """The rules of a group that does nothing but hold its parts in the middle of the picture, and bend them; None for any other object."""
    if not isinstance(top, GroupObject) or top.span != WHOLE or not top.shown:
        return None
    plain = all(not channel.keys and name in ("x", "y") for name, channel in top.channels.items())
    at = tuple(one.base if (one := top.channels.get(name)) is not None else 0.0 for name in ("x", "y"))
    bends_only = all(rule.channels == (OUTLINE,) for rule in top.rules)
    return top.rules if plain and at == middle and bends_only else None
