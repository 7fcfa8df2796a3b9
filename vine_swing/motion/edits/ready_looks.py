"""Ready-made looks that take more than one rule: a shadow on the ground that shrinks with height, and fog by distance."""

from typing import Annotated, Any, Literal

import numpy as np
from pydantic import Field

from vine_swing.motion.baking.bake import bake
from vine_swing.motion.baking.bounds import bounds_at
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.specs import LOOK
from vine_swing.motion.basics.values import Colour, Id
from vine_swing.motion.edits.base import Edit, check_new, object_in, with_object
from vine_swing.motion.edits.linking import name_of
from vine_swing.motion.edits.objects import free_name
from vine_swing.motion.rules.rule import Rule
from vine_swing.motion.scene.cues import MAX_OBJECTS
from vine_swing.motion.scene.hanging import with_parts
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import CameraObject, ShapeObject
from vine_swing.motion.scene.shapes import PlainShape
from vine_swing.motion.timing.channel import Channel

#: Of a shadow on the ground: its width as a share of the object's, its height as one of its own width, and how much of it is left at the top.
_WIDE, _FLAT, _LEFT = 0.9, 0.16, 0.3
#: By how much of a picture's height something falls that never leaves the ground.
_USUAL_FALL = 0.5
#: How fast fog thickens with depth.
_THICKENS = 0.35
_FOG = "fog"
#: Half of how large an object is taken for that draws nothing, px.
_UNDRAWN = 40.0


class GroundShadow(Edit):
    """Lay a soft shadow on the ground under an object: an ellipse behind it that goes along, and is smaller, fainter and softer the higher the object
    is above where it is lowest."""

    edit: Literal["ground-shadow"]
    object: Id
    id: Id

    def apply(self, scene: Scene) -> Scene:
        check_new(scene, self.id)
        thing = object_in(scene, self.object)
        if thing.parent is not None or isinstance(thing, CameraObject):
            raise EditError(f"'{thing.name}' is not on the ground by itself; add the shadow to its parent")
        baked = bake(scene)
        y = baked.spread(baked.objects[thing.id].channels["y"])
        lowest = int(np.argmax(y))
        left, _, right, bottom = bounds_at(scene, (thing.id,), float(baked.frames[lowest]), seen=False)[1][thing.id]
        if left == right:
            # Objects without a drawing get a small size.
            left, right, bottom = left - _UNDRAWN, right + _UNDRAWN, bottom + _UNDRAWN
        x = float(baked.spread(baked.objects[thing.id].channels["x"])[lowest])
        fall = float(np.ptp(y)) if np.ptp(y) > 1 else _USUAL_FALL * scene.size[1]
        height = f"max(0, {y[lowest]:.6g} - {name_of(scene, (thing.id, 'y'))})"
        shrinks = f"clamp(1 - {height} * {(1 - _LEFT) / fall:.6g}, {_LEFT}, 1)"
        width = max(8.0, (right - left) * _WIDE)

        def rule(key: str, kind: str, channels: tuple[str, ...], **settings: Any) -> Rule:
            return Rule.model_validate({"id": key, "kind": kind, "channels": channels, "settings": settings})

        offset = (left + right) / 2 - x
        along = f"{name_of(scene, (thing.id, 'x'))} + {offset:.6g}" if abs(offset) >= 0.01 else name_of(scene, (thing.id, "x"))
        soft = Channel(base=round(width * 0.03, 1), formula=f"value + {height} * {width * 0.06 / fall:.6g}")
        rules = (
            rule("along", "link", ("x",), formula=along),
            rule("smaller", "link", ("scale.x", "scale.y"), formula=f"value * {shrinks}"),
            rule("fainter", "link", ("opacity",), formula=f"value * {shrinks}"),
            rule("softer", "blur", (LOOK,), size=soft),
        )
        values: dict[str, float | str] = {"x": x + offset, "y": bottom, "width": width, "height": width * _FLAT, "fill": "#1F2A25", "opacity": 0.35}
        channels = {name: Channel(base=round(value, 2) if isinstance(value, float) else value) for name, value in values.items()}
        channels |= {"depth": thing.channels["depth"]} if "depth" in thing.channels else {}
        shadow = ShapeObject(
            id=self.id,
            name=free_name(scene, f"{thing.name} shadow"),
            kind="shape",
            shape=PlainShape(type="ellipse"),
            pinned=thing.pinned,
            span=thing.span,
            channels=channels,
            rules=rules,
        )
        whole = set(with_parts((thing.id,), scene.children))
        return scene.with_added(shadow, next(place for place, one in enumerate(scene.objects) if one.id in whole))

    def label(self, scene: Scene) -> str:
        return f"ground shadow of {object_in(scene, self.object).name}"


class FogByDistance(Edit):
    """Let some objects that have no parent go over to a colour, the more the farther away they are: by a rule Recolour whose share is linked to
    their depth. One that has fog already takes the new colour."""

    edit: Literal["fog-by-distance"]
    objects: Annotated[tuple[Id, ...], Field(min_length=1, max_length=MAX_OBJECTS)]
    colour: Colour

    def apply(self, scene: Scene) -> Scene:
        for object_id in self.objects:
            thing = object_in(scene, object_id)
            if thing.parent is not None or isinstance(thing, CameraObject):
                raise EditError(f"'{thing.name}' has no depth of its own; add fog to its parent")
            share = Channel(base=0.0, formula=f"1 - 1 / (1 + max(0, {name_of(scene, (thing.id, 'depth'))}) * {_THICKENS})")
            fog = Rule(
                id=_FOG,
                kind="recolour",
                channels=(LOOK,),
                settings={"share": share, "dark": Channel(base=self.colour), "light": Channel(base=self.colour)},
            )
            others = tuple(fog if rule.id == _FOG else rule for rule in thing.rules)
            scene = with_object(scene, thing.copy_with(rules=others if fog in others else (*others, fog)))
        return scene

    def label(self, scene: Scene) -> str:
        names = [object_in(scene, one).name for one in self.objects]
        return f"fog on {names[0]}" if len(names) == 1 else f"fog on {len(names)} objects"
