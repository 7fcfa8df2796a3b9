"""Edits of rules: which there are, in what order, on what they act, and their settings."""

from typing import Annotated, Any, Literal

import numpy as np
from pydantic import Field, ValidationError

from vine_swing.motion.baking.bake import bake
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.values import Id, Number
from vine_swing.motion.curves.svg_path import path_data
from vine_swing.motion.edits.base import Edit, channel_label, channel_of, object_in, owner_in, rule_of, spec_of, with_channel, with_object, with_rule
from vine_swing.motion.formula import FormulaError, checked
from vine_swing.motion.formula.tree import MAX_LENGTH
from vine_swing.motion.rules import Mode
from vine_swing.motion.rules.rule import MAX_ACTED, SETTING, Rule, check_setting
from vine_swing.motion.scene.channel_values import MAX_OUTLINE_KEYS
from vine_swing.motion.scene.dial import DIAL
from vine_swing.motion.scene.graph import LoopError, in_order
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.scene_file import faults
from vine_swing.motion.scene.shapes import OutlineShape
from vine_swing.motion.timing.channel import Channel, Key
from vine_swing.motion.timing.fit import fit_colours, fit_keys

MAX_RULES = 100
Place = Annotated[int, Field(strict=True, ge=0, le=MAX_RULES)]
Channels = Annotated[tuple[Annotated[str, Field(max_length=64)], ...], Field(max_length=MAX_ACTED)] | Literal["keyed"]


class AddRule(Edit):
    """Put a rule on an object, after its others unless an index is given."""

    edit: Literal["add-rule"]
    object: Id
    rule: Rule
    index: Place | None = None

    def apply(self, scene: Scene) -> Scene:
        thing = object_in(scene, self.object)
        if any(rule.id == self.rule.id for rule in thing.rules):
            raise EditError(f"'{thing.name}' already has a rule with the id '{self.rule.id}'; give the new one its own")
        if len(thing.rules) >= MAX_RULES:
            raise EditError(f"an object holds at most {MAX_RULES} rules; remove some first")
        _check_formulas(scene, self.rule)
        at = len(thing.rules) if self.index is None else self.index
        return _in_order(with_object(scene, _checked(thing.copy_with(rules=(*thing.rules[:at], self.rule, *thing.rules[at:])))))

    def label(self, scene: Scene) -> str:
        return f"{self.rule.spec.label.lower()} on {object_in(scene, self.object).name}"


class _RuleEdit(Edit):
    object: Id
    rule: Id

    def _both(self, scene: Scene) -> tuple[SceneObject, Rule]:
        thing = object_in(scene, self.object)
        return thing, rule_of(thing, self.rule)

    def _rule_label(self, scene: Scene) -> str:
        thing, rule = self._both(scene)
        return f"{rule.spec.label.lower()} of {thing.name}"


class DeleteRule(_RuleEdit):
    """Take a rule off an object."""

    edit: Literal["delete-rule"]

    def apply(self, scene: Scene) -> Scene:
        thing, gone = self._both(scene)
        return with_object(scene, thing.copy_with(rules=tuple(rule for rule in thing.rules if rule is not gone)))

    def label(self, scene: Scene) -> str:
        return f"remove {self._rule_label(scene)}"


class MoveRule(_RuleEdit):
    """Give a rule another place in the order."""

    edit: Literal["move-rule"]
    index: Place

    def apply(self, scene: Scene) -> Scene:
        thing, moved = self._both(scene)
        others = [rule for rule in thing.rules if rule is not moved]
        others.insert(self.index, moved)
        return with_object(scene, thing.copy_with(rules=tuple(others)))

    def label(self, scene: Scene) -> str:
        return f"move {self._rule_label(scene)}"


class SetRule(_RuleEdit):
    """Switch a rule on or off, and say which channels it acts on and how. Omitted fields stay unchanged."""

    edit: Literal["set-rule"]
    on: bool | None = None
    channels: Channels | None = None
    mode: Mode | None = None

    def apply(self, scene: Scene) -> Scene:
        thing, rule = self._both(scene)
        changes = {name: value for name in ("on", "channels", "mode") if (value := getattr(self, name)) is not None}
        try:
            changed = Rule.model_validate({**rule.model_dump(by_alias=True), **changes}).copy_with(settings=rule.settings)
        except ValidationError as error:
            raise EditError("; ".join(faults(error))) from error
        return _in_order(with_object(scene, _checked(thing.copy_with(rules=tuple(changed if one is rule else one for one in thing.rules)))))

    def label(self, scene: Scene) -> str:
        return f"{'switch' if self.on is not None else 'change'} {self._rule_label(scene)}"


class SetSetting(_RuleEdit):
    """Give a setting of a rule a word, or a number if it has no keys; null puts it back to its default."""

    edit: Literal["set-setting"]
    setting: Annotated[str, Field(max_length=64)]
    value: Number | Annotated[str, Field(max_length=MAX_LENGTH)] | None

    def apply(self, scene: Scene) -> Scene:
        thing, rule = self._both(scene)
        spec = rule.spec.settings.get(self.setting)
        if spec is None:
            raise EditError(f"a rule '{rule.kind}' has no setting '{self.setting}'; it has {', '.join(rule.spec.settings)}")
        before = rule.settings.get(self.setting)
        if self.value is None:
            return with_rule(scene, thing, rule.copy_with(settings={name: one for name, one in rule.settings.items() if name != self.setting}))
        if isinstance(before, Channel) and before.keys:
            raise EditError(f"'{spec.label}' has keys, so its value comes from them; set a key instead")
        formula = before.formula if isinstance(before, Channel) else None
        is_word = isinstance(self.value, str) and spec.holds != "colour"
        value: Channel | str = str(self.value) if is_word else Channel(base=self.value, formula=formula)
        _check_formulas(scene, rule.copy_with(settings=rule.settings | {self.setting: value}))
        try:
            check_setting(value, spec)
        except ValueError as error:
            raise EditError(str(error)) from error
        if spec.names == "object" and value and isinstance(value, str):
            object_in(scene, value)
        if spec.names == "dial" and value and isinstance(value, str):
            owner_in(scene, f"{DIAL}{value}")
        return _in_order(with_rule(scene, thing, rule.copy_with(settings=rule.settings | {self.setting: value})))

    def label(self, scene: Scene) -> str:
        return f"{self.setting.replace('_', '-')} of {self._rule_label(scene)}"


class LinkSetting(_RuleEdit):
    """Give a number setting of a rule a formula over what its keys or its plain value say, which is `value` in it; null takes it away."""

    edit: Literal["link-setting"]
    setting: Annotated[str, Field(max_length=64)]
    formula: Annotated[str, Field(min_length=1, max_length=MAX_LENGTH)] | None

    def apply(self, scene: Scene) -> Scene:
        thing, rule = self._both(scene)
        spec_of(thing, f"{rule.id}{SETTING}{self.setting}")
        before = rule.settings.get(self.setting)
        linked = (before if isinstance(before, Channel) else Channel(base=rule.plain(self.setting))).copy_with(formula=self.formula)
        changed = rule.copy_with(settings=rule.settings | {self.setting: linked})
        _check_formulas(scene, changed)
        return _in_order(with_rule(scene, thing, changed))

    def label(self, scene: Scene) -> str:
        return f"{'link' if self.formula is not None else 'unlink'} {self.setting.replace('_', '-')} of {self._rule_label(scene)}"


class FreezeChannel(Edit):
    """Convert the result of a channel's rules, or of a setting's formula (`rule:setting`), into keys that stay within a tolerance of it at every
    frame of the scene. The rules no longer act on it; undo brings them back. The tolerance of colours is that of their
    parts, 0 to 1."""

    edit: Literal["freeze-channel"]
    object: Id
    channel: Annotated[str, Field(max_length=64)]
    tolerance: Annotated[float, Field(strict=True, gt=0, le=1e6)] = 0.1

    def apply(self, scene: Scene) -> Scene:
        thing = object_in(scene, self.object)
        spec = spec_of(thing, self.channel)
        if scene.length < 2:
            raise EditError("a scene of a single frame does not move; give it more frames first")
        if SETTING in self.channel:
            return self._setting(scene, thing)
        if spec.kind == "point" or not thing.rules_for(self.channel):
            raise EditError(f"no rule acts on {channel_label(thing, self.channel)}; nothing was frozen")
        if spec.kind == "look":
            raise EditError("a look has no values of its own that keys could have; freeze the settings of its rules instead")
        alike = [name for name, one in thing.specs.items() if one.kind == spec.kind and thing.is_keyed(name)]
        rules = []
        for rule in thing.rules:
            usual = sorted(thing.joints_of(rule)) if rule.spec.joints else alike
            acts_on = usual if rule.channels == "keyed" else rule.channels
            left = tuple(name for name in acts_on if name != self.channel)
            if not rule.spec.fits(spec.kind) or self.channel not in acts_on:
                rules.append(rule)
            elif left:
                rules.append(rule.copy_with(channels=left))
        if spec.kind == "outline":
            keys = self._outlines(scene, thing)
            return with_channel(with_object(scene, thing.copy_with(rules=tuple(rules))), thing.id, self.channel, lambda _: Channel(keys=tuple(keys)))
        before = thing.channels.get(self.channel, Channel())
        frozen = Channel(base=before.base, keys=tuple(self._keys(scene, thing)))
        return with_object(scene, thing.copy_with(channels=thing.channels | {self.channel: frozen}, rules=tuple(rules)))

    def _keys(self, scene: Scene, thing: SceneObject) -> list[Key]:
        frames = np.arange(scene.length, dtype=float)
        values = bake(scene, frames).objects[thing.id].channels[self.channel]
        if values.ndim == 2:
            return fit_colours(frames, np.broadcast_to(values, (scene.length, 4)), self.tolerance)
        return fit_keys(frames, np.broadcast_to(values, frames.shape), self.tolerance)

    @staticmethod
    def _outlines(scene: Scene, thing: SceneObject) -> list[Key]:
        """A key at every frame at which the outline is another than before; those between two are held."""
        if not isinstance(thing.drawn_shape, OutlineShape):
            raise EditError(f"'{thing.name}' has no points of its own to key; make an outline of it first")
        if scene.length > MAX_OUTLINE_KEYS:
            raise EditError(
                f"that would need up to {scene.length} keys, one a frame; an outline has at most {MAX_OUTLINE_KEYS}, so make the scene shorter"
            )
        bent = bake(scene).objects[thing.id].bent
        assert bent is not None, "rules act on it"
        which = np.broadcast_to(bent.which, (scene.length,))
        changes = np.flatnonzero(np.append(True, np.diff(which) != 0)).tolist()
        keys = []
        for frame in changes:
            data = path_data(bent.at(frame))
            if not data:
                raise EditError(f"'{thing.name}' shows nothing at frame {frame}, which no key can say; fade it there instead")
            # Values that change at every frame are interpolated; held values jump.
            keys.append(Key(frame=float(frame), value=data, ease="linear" if frame + 1 in changes else "hold"))
        return keys

    def _setting(self, scene: Scene, thing: SceneObject) -> Scene:
        before = channel_of(thing, self.channel)
        if before.formula is None:
            raise EditError(f"{channel_label(thing, self.channel)} has no formula; nothing was frozen")
        rule_id, _, setting = self.channel.partition(SETTING)
        frozen = Channel(base=before.base, keys=tuple(self._keys(scene, thing)))
        rule = rule_of(thing, rule_id)
        return with_rule(scene, thing, rule.copy_with(settings=rule.settings | {setting: frozen}))

    def label(self, scene: Scene) -> str:
        return f"freeze {channel_label(object_in(scene, self.object), self.channel)}"


def _check_formulas(scene: Scene, rule: Rule) -> None:
    """Refuse formulas that name what the scene does not have."""
    formulas = [rule.word(name) for name, spec in rule.spec.settings.items() if spec.names == "formula"]
    formulas += [one.formula for one in rule.settings.values() if isinstance(one, Channel) and one.formula is not None]
    for formula in formulas:
        try:
            checked(
                formula,
                {thing.name: numbers_of(thing) for thing in scene.objects},
                [dial.name for dial in scene.dials if not dial.is_colour],
            )
        except FormulaError as error:
            raise EditError(f"at character {error.at + 1}: {error}") from error


def numbers_of(thing: SceneObject) -> list[str]:
    """The names of an object's channels that hold numbers."""
    return [spec.name for spec in thing.specs.values() if spec.kind == "number"]


def _in_order(scene: Scene) -> Scene:
    """The scene, if no channels of it read each other in a ring."""
    try:
        in_order(scene)
    except LoopError as error:
        raise EditError(str(error)) from error
    return scene


def _checked(thing: SceneObject) -> SceneObject:
    """The object, if its rules act on channels that it has."""
    for rule in thing.rules:
        for name in () if rule.channels == "keyed" else rule.channels:
            spec: Any = thing.specs.get(name)
            if spec is None or not rule.spec.fits(spec.kind):
                raise EditError(f"a rule of '{thing.name}' cannot act on '{name}'; it can act on {thing.fitting(rule)}")
    return thing
