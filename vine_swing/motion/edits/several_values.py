"""One value of several objects at once, and what they are marked with."""

from typing import Annotated, Literal

from pydantic import Field

from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.specs import ChannelSpec
from vine_swing.motion.basics.values import Colour, Frame, Value
from vine_swing.motion.edits.base import OfObjects, object_in
from vine_swing.motion.edits.figures import PoseJoints
from vine_swing.motion.edits.values_at import ValuesAtFrame, keyed_at_frame, place_by, set_values
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject


class _OfSeveral(OfObjects):
    def _things(self, scene: Scene) -> list[SceneObject]:
        return [object_in(scene, one) for one in dict.fromkeys(self.objects)]

    def _named(self, scene: Scene) -> str:
        count = len(self.objects)
        return object_in(scene, self.objects[0]).name if count == 1 else f"{count} objects"


class ChangeValues(_OfSeveral):
    """Change a channel of several objects at a frame: as keys where they have keys or `key` is set, else as base.

    how: `set` it to the value, `add` the value to what the keys of each say there, or `multiply` that by it. What lies beyond the limits of the
    channel afterwards is brought back within them.
    """

    edit: Literal["change-values"]
    channel: Annotated[str, Field(max_length=64)]
    how: Literal["set", "add", "multiply"] = "set"
    value: Value
    frame: Frame = 0.0
    key: bool = False

    def apply(self, scene: Scene) -> Scene:
        takers = [thing for thing in self._things(scene) if self.channel in thing.specs]
        if not takers:
            raise EditError(f"none of these objects has a channel '{self.channel}'; choose one that they share")
        here = ValuesAtFrame(takers, (self.channel,), self.frame)
        return scene.with_objects(self._changed(scene, here, thing, thing.specs[self.channel]) for thing in takers)

    def _changed(self, scene: Scene, here: ValuesAtFrame, thing: SceneObject, spec: ChannelSpec) -> SceneObject:
        if spec.kind != "number":
            if self.how != "set":
                raise EditError(f"a {spec.kind} cannot be added to or multiplied; set one for all instead")
            return set_values(scene, thing, {self.channel: self.value}, self.frame, key=self.key)
        if not isinstance(self.value, int | float):
            raise EditError(f"'{thing.name}', {self.channel} is a number; give a number instead of {self.value!r}")
        before, amount = here.number(thing, self.channel), float(self.value)
        wanted = {"set": amount, "add": before + amount, "multiply": before * amount}[self.how]
        if spec.low is not None:
            wanted = max(wanted, spec.low)
        if spec.high is not None:
            wanted = min(wanted, spec.high)
        if self.how != "set" and thing.skeleton is not None and thing.rules:
            # The gait's part of a joint stays below the added value.
            return (
                PoseJoints(edit="pose-joints", id=thing.id, frame=self.frame, by={self.channel: wanted - before}, key=self.key)
                .apply(scene)
                .by_id[thing.id]
            )
        if self.channel in ("x", "y"):
            by = (wanted - before, 0.0) if self.channel == "x" else (0.0, wanted - before)
            return set_values(scene, thing, place_by(here, thing, *by), self.frame, key=self.key)
        return set_values(scene, thing, {self.channel: wanted}, self.frame, key=self.key)

    def label(self, scene: Scene) -> str:
        spec = next((thing.specs[self.channel] for thing in self._things(scene) if self.channel in thing.specs), None)
        return f"{spec.row.lower() if spec else self.channel} of {self._named(scene)}"


class KeyObjects(_OfSeveral):
    """Key some channels of all of some objects as they are at a frame, where they have no key there; each those of the channels that it has.

    Named with x and y, `path` represents them where an object follows one.
    """

    edit: Literal["key-objects"]
    channels: Annotated[tuple[Annotated[str, Field(max_length=64)], ...], Field(min_length=1, max_length=100)]
    frame: Frame

    def apply(self, scene: Scene) -> Scene:
        things = self._things(scene)
        here = ValuesAtFrame(things, [name for name in self.channels if name != "path"], self.frame)
        return scene.with_objects(keyed_at_frame(scene, here, thing, self.channels) for thing in things)

    def label(self, scene: Scene) -> str:
        return f"key {self._named(scene)} at {self.frame:g}"


class LockObjects(_OfSeveral):
    """Lock objects against being picked and moved in the picture, or released them. Their children is locked with them."""

    edit: Literal["lock-objects"]
    locked: bool

    def apply(self, scene: Scene) -> Scene:
        return scene.with_objects(thing.copy_with(locked=self.locked) for thing in self._things(scene))

    def label(self, scene: Scene) -> str:
        return f"{'lock' if self.locked else 'unlock'} {self._named(scene)}"


class TagObjects(_OfSeveral):
    """Mark objects with a colour in the lists of the page, or with none (null)."""

    edit: Literal["tag-objects"]
    tag: Colour | None

    def apply(self, scene: Scene) -> Scene:
        return scene.with_objects(thing.copy_with(tag=self.tag) for thing in self._things(scene))

    def label(self, scene: Scene) -> str:
        return f"colour tag of {self._named(scene)}"
