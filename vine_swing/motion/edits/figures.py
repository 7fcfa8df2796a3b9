"""Edits of figures: beginning with one, its joints, the children of its bones, how it walks, and freezing what it does."""

from collections.abc import Collection
from itertools import pairwise
from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from vine_swing.motion.baking.at_frame import baked_at
from vine_swing.motion.baking.bake import bake
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.specs import GROUP_CHANNELS
from vine_swing.motion.basics.values import Id, Name, Number
from vine_swing.motion.edits.base import Edit, channel_label, channel_of, check_new, check_room, object_in, rule_of, spec_of, with_object, with_rule
from vine_swing.motion.edits.keys import SetKey, SetValue, keyed_value
from vine_swing.motion.edits.objects import fitted, free_name, kept_object, remade
from vine_swing.motion.edits.stretches import stretch_keys
from vine_swing.motion.figure.channels import FACING, walked
from vine_swing.motion.figure.model import Bone, Figure
from vine_swing.motion.figure.presets import GAITS
from vine_swing.motion.figure.starters import STARTERS, TINTS, height, scaled
from vine_swing.motion.rules.gait import SPEC as GAIT
from vine_swing.motion.rules.rule import Rule
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import FigureObject, SceneObject, ShapeObject, WholeFrame
from vine_swing.motion.scene.relations import check_bone, check_parents
from vine_swing.motion.scene.shapes import OutlineShape
from vine_swing.motion.timing.channel import Channel, Key
from vine_swing.motion.timing.ends import End
from vine_swing.motion.timing.fit import fit_keys


class AddFigure(Edit):
    """Begin with one of the starters: a figure that stands at (x, y), with parts on all of its bones, or none if it is not to be `drawn`."""

    edit: Literal["add-figure"]
    id: Id
    name: Name
    starter: str
    x: Number
    y: Number
    height: Annotated[float, Field(strict=True, gt=1, le=10_000)] | None = None
    drawn: bool = True

    def apply(self, scene: Scene) -> Scene:
        starter = STARTERS.get(self.starter)
        if starter is None:
            raise EditError(f"there is no starter '{self.starter}'; there is {', '.join(STARTERS)}")
        check_new(scene, self.id)
        check_room(scene, len(starter.parts) + 1)
        factor = self.height / height(starter.figure) if self.height is not None else 1.0
        place = {"x": Channel(base=float(self.x)), "y": Channel(base=float(self.y))}
        obj = FigureObject(id=self.id, name=free_name(scene, self.name), kind="figure", figure=scaled(starter.figure, factor), channels=place)
        scene = scene.with_added(obj, len(scene.objects))
        for part in starter.parts if self.drawn else ():
            one = part.name.lower().replace(" ", "-")
            drawn = ShapeObject(
                id=free_id(scene.by_id, f"{self.id}-{one}"[:60]),
                name=free_name(scene, f"{obj.name} {part.name.lower()}"),
                kind="shape",
                parent=self.id,
                bone=part.bone,
                shape=OutlineShape(type="outline", d=part.d),
                channels={
                    "x": Channel(base=round(part.at[0] * factor, 3)),
                    "y": Channel(base=round(part.at[1] * factor, 3)),
                    "fill": Channel(base=TINTS[part.tint]),
                }
                | ({"scale.x": Channel(base=factor), "scale.y": Channel(base=factor)} if factor != 1 else {}),
            )
            scene = scene.with_added(drawn, len(scene.objects))
        return scene

    def label(self, scene: Scene) -> str:
        return f"add {self.name}"


def free_id(taken: Collection[str], wanted: str) -> str:
    """The wanted id, with the first number that tells it from those taken."""
    one, n = wanted, 2
    while one in taken:
        one, n = f"{wanted}-{n}", n + 1
    return one


def figure_in(scene: Scene, object_id: str) -> FigureObject:
    """The figure with this id."""
    obj = object_in(scene, object_id)
    if not isinstance(obj, FigureObject):
        raise EditError(f"'{obj.name}' is no figure; choose a figure, or begin with one of the starters")
    return obj


class SetFigure(Edit):
    """Other joints for a figure. Children of a bone goes along with it: it turns with the bone, and grows with its length. Channels of
    joints that are missing are released, and so are the bones of what attached to them."""

    edit: Literal["set-figure"]
    id: Id
    figure: Figure

    def apply(self, scene: Scene) -> Scene:
        obj = figure_in(scene, self.id)
        before, after = obj.figure.bones, self.figure.bones
        scene = with_object(scene, fitted(obj.copy_with(figure=self.figure)))
        for part in scene.objects:
            if part.parent == self.id and part.bone is not None:
                moved = part.copy_with(bone=None) if part.bone not in after else _carried(part, before[part.bone], after[part.bone])
                if moved is not part:
                    scene = with_object(scene, moved)
        return scene

    def label(self, scene: Scene) -> str:
        return f"joints of {object_in(scene, self.id).name}"


def _carried(part: SceneObject, before: Bone, after: Bone) -> SceneObject:
    """Return a part moved with its bone from the old rest position to the new one."""
    if before == after:
        return part
    old, new = (np.array(bone.end) - np.array(bone.start) for bone in (before, after))
    length = float(np.hypot(*old))
    turn = float(np.degrees(np.arctan2(new[1], new[0]) - np.arctan2(old[1], old[0]))) if length else 0.0
    factor = float(np.hypot(*new)) / length if length else 1.0
    turn = (turn + 180) % 360 - 180
    a = np.radians(turn)
    m = factor * np.array([[np.cos(a), -np.sin(a)], [np.sin(a), np.cos(a)]])

    def placed(x: float, y: float) -> tuple[float, float]:
        found = m @ (np.array([x, y]) - before.start) + after.start
        return float(found[0]), float(found[1])

    base = {name: channel_of(part, name) for name in ("x", "y")}
    x, y = (float(one.keys[0].number if one.keys else one.base or 0.0) for one in base.values())  # type: ignore[arg-type]
    to = placed(x, y)
    return remade(part, {"x": (1.0, to[0] - x), "y": (1.0, to[1] - y), "rotation": (1.0, turn), "scale.x": (factor, 0.0), "scale.y": (factor, 0.0)})


class HangOnBones(Edit):
    """Hang some objects on bones of a figure, each where it lies now in the picture; null takes it off its bone and leaves it on the figure."""

    edit: Literal["hang-on-bones"]
    figure: Id
    parts: Annotated[dict[Id, str | None], Field(min_length=1, max_length=500)]
    frame: Annotated[float, Field(strict=True, ge=-1e6, le=1e6)] = 0.0

    def apply(self, scene: Scene) -> Scene:
        figure_in(scene, self.figure)
        hung = scene
        for object_id, bone in self.parts.items():
            obj = object_in(scene, object_id)
            changed = obj.copy_with(parent=self.figure, bone=bone)
            if object_id == self.figure:
                raise EditError(f"'{obj.name}' cannot be attached to its own bones; choose its parts")
            try:
                if bone is not None:
                    check_bone(changed, scene.by_id[self.figure])
            except ValueError as error:
                raise EditError(str(error)) from error
            hung = with_object(hung, changed)
        try:
            check_parents(hung.objects)
        except ValueError as error:
            raise EditError(str(error)) from error
        # Earlier positions, in the space of the figure with all parts attached.
        kept = [kept_object(scene, hung, object_id, float(self.frame)) for object_id in self.parts]
        for changed in kept:
            hung = with_object(hung, changed)
        return hung

    def label(self, scene: Scene) -> str:
        return f"parts of {object_in(scene, self.figure).name}"


class PoseJoints(Edit):
    """Move joints of a figure at a frame by some amounts, on top of what a gait or another rule does: their keys there, or with `key` new ones, or
    their plain values if they have none."""

    edit: Literal["pose-joints"]
    id: Id
    frame: Annotated[float, Field(strict=True, ge=-1e6, le=1e6)]
    by: Annotated[dict[str, Number], Field(min_length=1, max_length=200)]
    key: bool = False

    def apply(self, scene: Scene) -> Scene:
        obj = figure_in(scene, self.id)
        for name, amount in self.by.items():
            spec = spec_of(obj, name)
            if spec.kind != "number":
                raise EditError(f"{channel_label(obj, name)} is no joint that can be turned or moved by an amount; set a value instead")
            before = channel_of(obj, name)
            value = float(keyed_value(before, spec, self.frame, obj)) + amount  # type: ignore[arg-type]
            if spec.low is not None and spec.high is not None:
                value = min(max(value, spec.low), spec.high)
            made: Edit
            if before.keys or self.key:
                made = SetKey(edit="set-key", object=self.id, channel=name, frame=float(self.frame), value=value)
            else:
                made = SetValue(edit="set-value", object=self.id, channel=name, value=value)
            scene = made.apply(scene)
        return scene

    def label(self, scene: Scene) -> str:
        return f"pose of {object_in(scene, self.id).name}"


class SetGait(Edit):
    """Apply a ready-made gait to a figure: adds a gait if it has none, and sets all style settings. Its travel, ground and keys stay unchanged;
    settings with keys are keyed at `frame`."""

    edit: Literal["set-gait"]
    id: Id
    preset: str
    frame: Annotated[float, Field(strict=True, ge=-1e6, le=1e6)] = 0.0

    def apply(self, scene: Scene) -> Scene:
        obj = figure_in(scene, self.id)
        preset = GAITS.get(self.preset)
        if preset is None:
            raise EditError(f"there is no gait '{self.preset}'; there is {', '.join(GAITS)}")
        if not obj.figure.legs:
            raise EditError(f"'{obj.name}' has no legs to walk on; give the figure legs first")
        rule = gait_of(obj) or Rule(id=free_id([rule.id for rule in obj.rules], "gait"), kind=GAIT.kind)
        settings = dict(rule.settings)
        for name, value in preset.for_figure(obj.figure).items():
            before = settings.get(name)
            if isinstance(value, str):
                settings[name] = value
            elif isinstance(before, Channel) and before.keys:
                key = before.key_at(self.frame) or Key(frame=float(self.frame), value=0.0, ease="slow-out-in")
                keys = tuple(sorted([*(k for k in before.keys if k.frame != self.frame), key.copy_with(value=float(value))], key=lambda k: k.frame))
                settings[name] = before.copy_with(keys=keys)
            else:
                formula = before.formula if isinstance(before, Channel) else None
                settings[name] = Channel(base=float(value), formula=formula)
        changed = rule.copy_with(settings=settings)
        if rule in obj.rules:
            return with_rule(scene, obj, changed)
        return with_object(scene, obj.copy_with(rules=(*obj.rules, changed)))

    def label(self, scene: Scene) -> str:
        return f"{GAITS[self.preset].label.lower() if self.preset in GAITS else 'gait'} of {object_in(scene, self.id).name}"


class TravelCycle(Edit):
    """Have a figure go on forever with the cycle it walks on the spot: one stride in as many frames as its treadmill takes. The treadmill
    is switched off; x is keyed from where it is, forward or back."""

    edit: Literal["travel-cycle"]
    id: Id
    frames: Annotated[float, Field(strict=True, ge=2, le=100_000)]
    back: bool = False

    def apply(self, scene: Scene) -> Scene:
        obj = figure_in(scene, self.id)
        rule = gait_of(obj)
        if rule is None:
            raise EditError(f"'{obj.name}' has no gait; choose one first")
        at = baked_at(scene, 0.0).objects[self.id]
        x = float(at.channels["x"][0])
        stride = rule.plain("stride") or 0.0
        size = float(np.hypot(at.local[0, 0], at.local[0, 1]))
        to = x + (-1 if self.back else 1) * stride * size
        climb = End(mode="climb")
        keys = (Key(frame=0.0, value=x), Key(frame=float(self.frames), value=to))
        settings = {name: one for name, one in rule.settings.items() if name != "treadmill"}
        scene = with_rule(scene, obj, rule.copy_with(settings=settings))
        obj = figure_in(scene, self.id)
        channels = {name: one for name, one in obj.channels.items() if name not in ("x", "path")}
        return with_object(scene, obj.copy_with(channels=channels | {"x": Channel(base=x, keys=keys, before=climb, after=climb)}))

    def label(self, scene: Scene) -> str:
        return f"{object_in(scene, self.id).name} goes on"


class FreezeWalk(Edit):
    """Turn what a gait does in a stretch of frames into keys, within a tolerance at every frame; outside of it the gait goes on. Keys that
    were in the stretch are part of what is frozen."""

    edit: Literal["freeze-walk"]
    id: Id
    first: WholeFrame
    last: WholeFrame
    tolerance: Annotated[float, Field(strict=True, gt=0, le=1e6)] = 0.05

    def apply(self, scene: Scene) -> Scene:
        obj = figure_in(scene, self.id)
        rule = gait_of(obj)
        if rule is None:
            raise EditError(f"'{obj.name}' has no gait to freeze")
        first, last = max(self.first, 0), min(self.last, scene.length - 1)
        if last - first < 1:
            raise EditError(f"no frames to freeze between {self.first} and {self.last}; take at least two frames of the scene")
        frames = np.arange(first, last + 1, dtype=float)
        # Other rules on its joints go on acting on what is frozen, and must not be frozen with it.
        alone = with_object(scene, _gait_alone(obj, rule))
        values = bake(alone, frames).objects[self.id].channels
        # Values of the keys alone just outside, where the gait continues.
        share = rule.settings.get("share")
        still = with_object(scene, _gait_alone(obj, rule, on=False))
        without = bake(still, np.array([first - 1.0, last + 1.0])).objects[self.id].channels
        channels = dict(obj.channels)
        for name in sorted(walked(obj.figure)):
            curve = np.broadcast_to(values[name], frames.shape)
            keys = list(fit_keys(frames, curve, self.tolerance))
            before, after = (float(v) for v in np.broadcast_to(without[name], (2,)))
            old = channels.get(name, Channel())
            outside = _outside(obj, name, first - 1, last + 1)
            edges = [Key(frame=first - 1.0, value=before, ease="hold")] if first > 0 else []
            keys[-1] = keys[-1].copy_with(ease="hold")
            edges += [_edge(obj, name, last + 1, after)] if last < scene.length - 1 else []
            if name == FACING:
                keys = [Key(frame=float(first), value=float(curve[0]), ease="hold")] + [
                    Key(frame=float(frames[n + 1]), value=float(b), ease="hold") for n, (a, b) in enumerate(pairwise(curve)) if a != b
                ]
            channels[name] = old.copy_with(keys=tuple(sorted([*outside, *edges, *keys], key=lambda key: key.frame)))
        usual = share if isinstance(share, Channel) else Channel(base=1.0)
        reading = usual.keys or (Key(frame=float(first) - 1, value=float(usual.base if isinstance(usual.base, int | float) else 1.0), ease="hold"),)
        going = float(reading[0].number)
        inner = [Key(frame=float(first), value=0.0, ease="hold"), Key(frame=last + 1.0, value=going, ease="hold")]
        kept = [key for key in reading if key.frame < first or key.frame > last + 1]
        muted = usual.copy_with(keys=tuple(sorted([*kept, *inner], key=lambda key: key.frame)))
        scene = with_object(scene, obj.copy_with(channels=channels))
        obj = figure_in(scene, self.id)
        return with_rule(scene, obj, rule_of(obj, rule.id).copy_with(settings=rule.settings | {"share": muted}))

    def label(self, scene: Scene) -> str:
        return f"freeze the walk of {object_in(scene, self.id).name}"


def _gait_alone(obj: FigureObject, gait: Rule, *, on: bool = True) -> FigureObject:
    """Return a figure whose joints have no rule but its gait; rules on the whole figure stay."""
    rules = []
    for rule in obj.rules:
        acted = tuple(name for name in GROUP_CHANNELS if rule in obj.rules_for(name))
        if rule is gait:
            rules.append(rule.copy_with(on=on))
        elif acted:
            rules.append(rule.copy_with(channels=acted))
    return obj.copy_with(rules=tuple(rules))


def _edge(obj: FigureObject, name: str, frame: int, value: float) -> Key:
    """The key at the end of what is frozen, from which the channel goes on as its keys have it."""
    keys = obj.channels[name].keys if name in obj.channels else ()
    if not keys or not keys[0].frame < frame < keys[-1].frame:
        return Key(frame=float(frame), value=value)
    return stretch_keys(obj, name, frame, keys[-1].frame)[0].copy_with(value=value, into=None)


def _outside(obj: FigureObject, name: str, first: int, last: int) -> list[Key]:
    """The keys of a channel before the frame `first` and after `last`; a stretch that reaches in goes the same way up to there."""
    keys = obj.channels[name].keys if name in obj.channels else ()
    early, late = [key for key in keys if key.frame < first], [key for key in keys if key.frame > last]
    if early and len(early) < len(keys):
        early = stretch_keys(obj, name, early[0].frame, first)[:-1]
    if late and len(late) < len(keys):
        late = stretch_keys(obj, name, last, late[-1].frame)[1:-1] + late[-1:]
    return [*early, *late]


def gait_of(obj: FigureObject) -> Rule | None:
    """The gait that walks a figure, if there is one."""
    return next((rule for rule in obj.rules if rule.kind == GAIT.kind), None)
