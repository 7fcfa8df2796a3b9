"""Bringing an earlier version of a scene back: whole, or part."""

from collections.abc import Collection, Iterable
from typing import Annotated, Literal

from pydantic import Field

from vine_swing.motion.baking.differences import INSET, SCENE_FIELDS, made_of
from vine_swing.motion.basics.errors import EditError, NoSuchThing
from vine_swing.motion.basics.values import Frozen, Owner, Text
from vine_swing.motion.edits.base import Edit, object_in, with_object
from vine_swing.motion.edits.objects import DeleteObject, fitted, name_beside
from vine_swing.motion.rules.rule import Rule
from vine_swing.motion.scene.dial import DIAL
from vine_swing.motion.scene.hanging import with_parts
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject

#: Channels that are one motion: whoever travels on a path has no x and y of its own.
_TOGETHER = ("x", "y", "path")
#: Parts brought back at once.
MAX_PARTS = 5_000


class BroughtPart(Frozen):
    """The part of an earlier version to restore.

    object: an id, or `dial:` and an id; None for the scene itself. what: one `channel` (of the scene: a field such as `length`, or `inset:` and the
    id of a scene inside) with the rules on it; the `motion`: all channels and rules; the `drawing`: all but the motion; or `all`, which also brings
    back what is there no longer, and removes what was not there yet.
    """

    object: Owner | None
    what: Literal["channel", "motion", "drawing", "all"]
    channel: Annotated[Text, Field(max_length=80)] | None = None


class BringBack(Edit):
    """Make a scene, or parts of it, unchanged in an earlier version. Nothing else changes."""

    edit: Literal["bring-back"]
    kept: Scene
    parts: Annotated[tuple[BroughtPart, ...], Field(min_length=1, max_length=MAX_PARTS)] | None = None
    called: Annotated[Text, Field(max_length=80)] = "an earlier version"

    def apply(self, scene: Scene) -> Scene:
        if self.parts is None:
            return self.kept
        after = scene
        for owner, parts in _by_owner(self.parts).items():
            if owner is None:
                after = _with_fields(after, self.kept, parts)
            elif owner.startswith(DIAL):
                after = _with_dial(after, self.kept, owner)
            else:
                after = _with_thing(after, self.kept, owner, parts)
        return after.with_contents_of(self.kept)

    def label(self, scene: Scene) -> str:
        if self.parts is None:
            return f"bring back {self.called}"
        owners = list(_by_owner(self.parts))
        if len(owners) > 1 or owners[0] is None:
            return f"bring {len(self.parts)} parts back from {self.called}" if len(self.parts) > 1 else f"bring a part back from {self.called}"
        return f"bring {_name(scene, self.kept, owners[0])} back from {self.called}"


def _by_owner(parts: Iterable[BroughtPart]) -> dict[str | None, list[BroughtPart]]:
    result: dict[str | None, list[BroughtPart]] = {}
    for part in parts:
        result.setdefault(part.object, []).append(part)
    return result


def _name(scene: Scene, stored: Scene, owner: str) -> str:
    cached = (scene.by_id.get(owner), stored.by_id.get(owner), scene.dials_by_id.get(owner), stored.dials_by_id.get(owner))
    return next((item.name for item in cached if item is not None), owner)


def _with_fields(scene: Scene, stored: Scene, parts: Iterable[BroughtPart]) -> Scene:
    for part in parts:
        field = part.channel or ""
        if field.startswith(INSET):
            inner = stored.insets_by_id.get(field.removeprefix(INSET))
            if inner is None:
                raise NoSuchThing(f"the earlier version has no scene inside '{field.removeprefix(INSET)}'")
            others = tuple(inner if inset.id == inner.id else inset for inset in scene.insets)
            scene = scene.copy_with(insets=others if inner in others else (*others, inner))
        elif field in SCENE_FIELDS:
            scene = scene.copy_with(**{field: getattr(stored, field)})
        else:
            raise NoSuchThing(f"a scene has no '{field}' to bring back; there is {', '.join(SCENE_FIELDS)}")
    return scene


def _with_dial(scene: Scene, stored: Scene, owner: str) -> Scene:
    then, now = stored.dials_by_id.get(owner), scene.dials_by_id.get(owner)
    if then is None and now is None:
        raise NoSuchThing(f"neither version has the dial '{owner.removeprefix(DIAL)}'")
    if then is None:
        return scene.copy_with(dials=tuple(dial for dial in scene.dials if dial is not now))
    others = {dial.name for dial in scene.dials if dial is not now}
    then = then.copy_with(name=name_beside(others, then.name))
    return scene.copy_with(dials=tuple(then if dial is now else dial for dial in scene.dials) if now is not None else (*scene.dials, then))


def _with_thing(scene: Scene, stored: Scene, object_id: str, parts: list[BroughtPart]) -> Scene:
    then, now = stored.by_id.get(object_id), scene.by_id.get(object_id)
    if then is None and now is None:
        raise NoSuchThing(f"neither version has an object '{object_id}'")
    whole = any(part.what == "all" for part in parts)
    if then is None or now is None:
        if not whole:
            raise EditError(f"'{_name(scene, stored, object_id)}' exists in one version only; restore the whole object, or leave it")
        return DeleteObject(edit="delete-object", id=object_id).apply(scene) if then is None else _with_added(scene, stored, object_id)
    if whole or any(part.what == "drawing" for part in parts):
        changed = then.copy_with(parent=then.parent if then.parent in scene.by_id else None, name=name_beside(scene.names - {now.name}, then.name))
        changed = changed.copy_with(bone=then.bone if changed.parent is not None else None)
        if not whole:
            changed = fitted(changed.copy_with(channels=now.channels, rules=now.rules))
            # Channels that only this drawing has come with it.
            changed = _with_channels(changed, then, [name for name in changed.specs if name not in now.specs])
        scene = with_object(scene, changed)
    if whole:
        return scene
    if any(part.what == "motion" for part in parts):
        return with_object(scene, fitted(object_in(scene, object_id).copy_with(channels=then.channels, rules=then.rules)))
    channels = [part.channel or "" for part in parts if part.what == "channel"]
    return with_object(scene, _with_channels(object_in(scene, object_id), then, channels)) if channels else scene


def _with_added(scene: Scene, stored: Scene, object_id: str) -> Scene:
    """The scene with an object that is there no longer, and all that attached to it and is missing too, each in front of what it was in front of."""
    requested = set(with_parts((object_id,), stored.children)) - scene.by_id.keys()
    there = requested | scene.by_id.keys()
    objects = list(scene.objects)
    before = -1
    for obj in stored.objects:
        place = next((n for n, item in enumerate(objects) if item.id == obj.id), None)
        if obj.id not in requested:
            before = before if place is None else place
            continue
        parent = obj.parent if obj.parent in there else None
        added = obj.copy_with(parent=parent, bone=obj.bone if parent is not None else None, name=name_beside({obj.name for obj in objects}, obj.name))
        before += 1
        objects.insert(before, added)
    return scene.copy_with(objects=tuple(objects))


def _with_channels(now: SceneObject, then: SceneObject, names: Collection[str]) -> SceneObject:
    """An object with some of its channels as they were, and the rules that act on these."""
    requested = dict.fromkeys(names)
    if any(name in requested for name in _TOGETHER) and (now.is_keyed("path") or then.is_keyed("path")):
        requested |= dict.fromkeys(name for name in _TOGETHER if name in now.specs)
    for name in requested:
        if name not in now.specs or name not in then.specs:
            raise EditError(f"'{now.name}' has no channel '{name}' in both versions; restore the whole object, or leave it")
    channels = {name: channel for name, channel in now.channels.items() if name not in requested}
    channels |= {name: then.channels[name] for name in requested if name in then.channels}
    # In the order they were written in where nothing else was added, so that the whole object is what it was.
    order = [*then.channels, *(name for name in channels if name not in then.channels)]
    changed = now.copy_with(channels={name: channels[name] for name in order if name in channels})
    # Rules may act on channels that the drawing of now has not.
    as_then = fitted(changed.copy_with(rules=then.rules))
    if all(made_of(as_then, name)[1] == made_of(changed if name not in requested else then, name)[1] for name in now.specs):
        return as_then
    return changed.copy_with(rules=_merged(changed, then, [name for name in requested if made_of(changed, name)[1] != made_of(then, name)[1]]))


def _merged(now: SceneObject, then: SceneObject, names: Collection[str]) -> tuple[Rule, ...]:
    """The rules of an object, but on some of its channels those that were on them earlier."""
    rules: list[Rule] = []
    for rule in now.rules:
        on = [name for name in now.specs if rule in now.rules_for(name)]
        if not any(name in names for name in on):
            rules.append(rule)
        elif left := tuple(name for name in on if name not in names):
            rules.append(rule.copy_with(channels=left))
    used = {rule.id for rule in rules}
    for rule in then.rules:
        on = [name for name in names if rule in then.rules_for(name)]
        if on:
            rule_id = name_beside(used, rule.id).replace(" ", "-")
            used.add(rule_id)
            rules.append(rule.copy_with(id=rule_id, channels=tuple(on)))
    return tuple(rules)
