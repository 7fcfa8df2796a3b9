"""What every edit is, and the small steps edits consist of."""

from abc import ABC, abstractmethod
from collections.abc import Callable, Sequence
from typing import Annotated

from pydantic import Field, ValidationError

from vine_swing.motion.basics.errors import EditError, NoSuchThing
from vine_swing.motion.basics.limits import MOST_TRACED
from vine_swing.motion.basics.specs import OUTLINE, ChannelSpec
from vine_swing.motion.basics.values import MAX_FRAME, Frozen, Id, Words
from vine_swing.motion.rules.rule import SETTING, Rule, check_setting
from vine_swing.motion.scene.channel_values import check_values
from vine_swing.motion.scene.cues import MAX_OBJECTS
from vine_swing.motion.scene.dial import DIAL, Dial
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import DialObject, SceneObject, ShapeObject
from vine_swing.motion.scene.scene_file import faults
from vine_swing.motion.scene.shapes import OutlineShape, TextShape
from vine_swing.motion.timing.channel import Channel, Key

#: What becomes of an object when another kind of object takes its place: whether, when and how it is seen.
PAINTED = ("shown", "span", "pinned", "blurred", "blend")


class Edit(Frozen, ABC):
    """A change a person can make. `apply` gives a new scene that shares all that did not change."""

    @abstractmethod
    def apply(self, scene: Scene) -> Scene:
        """The scene after the edit.

        Raises:
            NoSuchThing: if it names what the scene does not have.
            EditError: if it does not fit the scene.
        """

    @abstractmethod
    def label(self, scene: Scene) -> str:
        """What undo says it takes back, as a short phrase; `scene` is the scene before the edit."""


class OfObjects(Edit):
    """An edit of one or more objects.

    objects: their ids.
    """

    objects: Annotated[tuple[Id, ...], Field(min_length=1, max_length=MAX_OBJECTS)]

    def tops(self, scene: Scene) -> list[str]:
        """The objects that are attached to no other of them, each once."""
        chosen = {object_in(scene, obj).id for obj in self.objects}
        return [
            fromkey for fromkey in dict.fromkeys(self.objects) if not any(above.id in chosen for above in scene.upwards(scene.by_id[fromkey].parent))
        ]


def owner_in(scene: Scene, owner: str) -> SceneObject | DialObject:
    """What owns a channel: the object with this id, or the dial named `dial:` and its id."""
    if not owner.startswith(DIAL):
        return object_in(scene, owner)
    result = scene.dials_by_id.get(owner)
    if result is None:
        raise NoSuchThing(f"there is no dial '{owner.removeprefix(DIAL)}' in this scene; it may have been deleted")
    return DialObject.of(result)


def object_in(scene: Scene, object_id: str) -> SceneObject:
    """The object with this id."""
    result = scene.by_id.get(object_id)
    if result is None:
        raise NoSuchThing(f"there is no object '{object_id}' in this scene; it may have been deleted")
    return result


def shape_in(scene: Scene, object_id: str, has: str) -> ShapeObject:
    """The drawn object with this id; `has` says in an error what others lack.

    Raises:
        NoSuchThing: if the object does not exist.
        EditError: if it is of another kind.
    """
    obj = object_in(scene, object_id)
    if not isinstance(obj, ShapeObject):
        raise EditError(f"'{obj.name}' is a {obj.kind} and has no {has} of its own; choose one of its parts")
    return obj


def spec_of(obj: SceneObject | DialObject, channel: str) -> ChannelSpec:
    """Return the spec of an object's channel."""
    if SETTING in channel:
        return _setting_spec(obj, channel)
    spec = obj.specs.get(channel)
    if spec is None:
        raise NoSuchThing(f"'{obj.name}' has no channel '{channel}'; it has {', '.join(obj.specs)}")
    return spec


def channel_of(obj: SceneObject | DialObject, name: str) -> Channel:
    """A channel of an object, or a setting of one of its rules, as it stands; an empty one if it was never touched."""
    if SETTING not in name:
        return obj.channels.get(name, Channel())
    rule, setting = _setting(obj, name)
    result = rule.settings.get(setting)
    return result if isinstance(result, Channel) else Channel()


def rule_of(obj: SceneObject | DialObject, rule_id: str) -> Rule:
    """The rule of an object with this id."""
    for rule in obj.rules:
        if rule.id == rule_id:
            return rule
    raise NoSuchThing(f"'{obj.name}' has no rule '{rule_id}'; it may have been removed")


def with_rule(scene: Scene, obj: SceneObject | DialObject, changed: Rule) -> Scene:
    """The scene with one rule of an object replaced by its new version."""
    return with_object(scene, obj.copy_with(rules=tuple(changed if rule.id == changed.id else rule for rule in obj.rules)))


def _setting(obj: SceneObject | DialObject, name: str) -> tuple[Rule, str]:
    rule_id, _, setting = name.partition(SETTING)
    rule = rule_of(obj, rule_id)
    if setting not in rule.spec.settings:
        raise NoSuchThing(f"a rule '{rule.kind}' has no setting '{setting}'; it has {', '.join(rule.spec.settings)}")
    return rule, setting


def _setting_spec(obj: SceneObject | DialObject, name: str) -> ChannelSpec:
    rule, setting = _setting(obj, name)
    spec = rule.spec.settings[setting]
    if spec.is_word:
        words = f"choose one of {', '.join(spec.choices)}" if spec.choices else f"choose {'an' if spec.names == 'object' else 'a'} {spec.names}"
        raise EditError(f"'{spec.label}' of {rule.spec.label.lower()} is a word and cannot have keys; {words}")
    if spec.holds == "colour":
        return ChannelSpec(name, spec.label, rule.spec.label, "look", "colour", str(spec.default), about=spec.about)
    default = float(spec.default) if spec.default is not None else 0.0
    return ChannelSpec(name, spec.label, rule.spec.label, "look", "", default, spec.low, spec.high, about=spec.about)


def with_object(scene: Scene, changed: SceneObject | DialObject) -> Scene:
    """The scene with one object replaced by its new version, or with one dial turned."""
    if isinstance(changed, DialObject):
        turned = _turned(changed)
        return scene.copy_with(dials=tuple(turned if dial.id == turned.id else dial for dial in scene.dials))
    return scene.with_object(changed)


def _turned(changed: DialObject) -> Dial:
    try:
        return changed.turned
    except ValidationError as error:
        raise EditError("; ".join(faults(error))) from error


def with_channel(
    scene: Scene, object_id: str, name: str, change: Callable[[Channel], Channel], *, new_keys: Callable[[], Sequence[Key]] | None = None
) -> Scene:
    """The scene with one channel changed; the new channel is checked against what the channel is.

    `new_keys` gives the only keys of the new channel that are not keys of the old one, where an edit knows them: only they are checked then.
    """
    obj = owner_in(scene, object_id)
    spec = spec_of(obj, name)
    before = channel_of(obj, name)
    after = change(before)
    if spec.kind == "point" and not after.keys and after.base is not None:
        # A path that has lost its last key leaves the object where it was: x and y take its place over.
        x, y = after.base if isinstance(after.base, tuple) else (0.0, 0.0)
        emptied = with_object(scene, obj.copy_with(channels=obj.channels | {name: after.copy_with(base=None)}))
        for part, value in (("x", x), ("y", y)):
            emptied = with_channel(emptied, object_id, part, lambda old, value=value: old.copy_with(base=value))  # type: ignore[misc]
        return emptied
    if after is before:
        return scene
    if before.keys and not after.keys and not isinstance(obj, DialObject) and obj.copy_with(channels={}).is_running(name):
        # What runs by itself does so again from its beginning: the frame that was seen last is no place to start from.
        after = after.copy_with(base=None)
    if spec.kind == "outline":
        return _with_outline(scene, obj, after)
    if spec.kind == "words" and isinstance(after.base, Words):
        # Without keys the shape says what it says: the words that the last key leaves behind.
        obj, after = _saying(obj, after.base), after.copy_with(base=None)
        scene = with_object(scene, obj)
    try:
        checked = after if new_keys is None else after.copy_with(keys=tuple(new_keys()))
        check_values(checked, spec, f"'{obj.name}', {name}")
        if SETTING in name:
            rule, setting = _setting(obj, name)
            check_setting(checked, rule.spec.settings[setting])
            return with_rule(scene, obj, rule.copy_with(settings=rule.settings | {setting: after}))
    except ValueError as error:
        raise EditError(str(error)) from error
    return with_object(scene, obj.copy_with(channels=obj.channels | {name: after}))


def _with_outline(scene: Scene, obj: SceneObject | DialObject, channel: Channel) -> Scene:
    """The scene with other keys of an object's outline. One that has lost its last key leaves the shape as `base` says."""
    shape = obj.drawn_shape
    if not isinstance(shape, OutlineShape) or not isinstance(obj, ShapeObject):
        raise EditError(f"'{obj.name}' has no points of its own to key; make an outline of it first")
    if not channel.keys and isinstance(channel.base, str):
        obj = obj.copy_with(shape=shape.copy_with(d=channel.base, hand=None))
    stored = channel.copy_with(base=None)
    try:
        check_values(stored, obj.specs[OUTLINE], f"'{obj.name}', {OUTLINE}")
    except ValueError as error:
        raise EditError(str(error)) from error
    return with_object(scene, obj.copy_with(channels=obj.channels | {OUTLINE: stored}))


def _saying(obj: SceneObject | DialObject, words: Words) -> ShapeObject:
    """A text with other words in its shape."""
    assert isinstance(obj, ShapeObject), "only texts have words"
    assert isinstance(obj.shape, TextShape), "only texts have words"
    return obj.copy_with(shape=obj.shape.copy_with(text=words.text))


def in_time(channel: Channel, factor: float, about: float = 0.0, to: float = 0.0) -> Channel:
    """A channel with the time of its keys stretched: the frame `about` moves to `to`."""
    if not channel.keys:
        return channel
    # Without the last digits of the arithmetic: a key that was on a whole frame shall not come to lie just beside one.
    frames = [round(to + (key.frame - about) * factor, 9) for key in channel.keys]
    if max(map(abs, frames)) > MAX_FRAME:
        raise EditError(f"that would move keys out of reach; they live between −{MAX_FRAME} and {MAX_FRAME}")
    return channel.copy_with(keys=tuple(key.scaled(frames=factor).copy_with(frame=frame) for key, frame in zip(channel.keys, frames, strict=True)))


def check_room(scene: Scene, count: int = 1) -> None:
    """Refuse to put more objects into a scene than it holds.

    Raises:
        EditError: saying how many it holds.
    """
    if len(scene.objects) + count > MAX_OBJECTS:
        raise EditError(f"a scene holds at most {MAX_OBJECTS} objects; delete some first")


def check_new(scene: Scene, object_id: str) -> None:
    """Refuse to put one more object into a scene that has no room for it, or one of its id.

    Raises:
        EditError: saying which.
    """
    check_room(scene)
    if object_id in scene.by_id:
        raise EditError(f"there already is an object with the id '{object_id}'; give the new one its own")


def check_traced(first: float, last: float) -> None:
    """Refuse to convert the motion of a very long range to keys.

    Raises:
        EditError: with its length and the limit.
    """
    if last - first > MOST_TRACED:
        raise EditError(
            f"that would work out {last - first:.0f} frames one by one, from {first:g} to {last:g}; at most {MOST_TRACED} can be, so bring the keys"
            " nearer together first"
        )


def channel_label(obj: SceneObject | DialObject, channel: str) -> str:
    """How a label names a channel: `Mango travel x`."""
    if isinstance(obj, DialObject):
        return obj.name
    spec = spec_of(obj, channel)
    row = spec.row.lower()
    return f"{obj.name} {row}" if spec.row_says_all else f"{obj.name} {row} {spec.label}"
