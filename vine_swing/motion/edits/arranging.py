"""Edits of several objects at once: moved together, aligned, distributed, and spread in time."""

from collections.abc import Mapping
from typing import Annotated, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from vine_swing.motion.baking.at_frame import baked_at
from vine_swing.motion.baking.baked import Baked
from vine_swing.motion.baking.bounds import Bounds, bounds_at
from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.values import Frame
from vine_swing.motion.edits.base import OfObjects, in_time, object_in, with_object
from vine_swing.motion.edits.values_at import NOTHING, ValuesAtFrame, place_by, set_values
from vine_swing.motion.rules.rule import Rule
from vine_swing.motion.scene.hanging import with_parts
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.timing.channel import Channel

Array = NDArray[np.float64]


class Together(OfObjects):
    """An edit of several objects.

    objects: which; the children of another of them goes along with that. frame: as they are there. key: whether those without keys get some too."""

    frame: Frame = 0.0
    key: bool = False

    def _moved(self, scene: Scene, baked: Baked, by: Mapping[str, tuple[float, float]]) -> Scene:
        """The scene with objects moved by this many px of the picture at the frame."""
        here = ValuesAtFrame((scene.by_id[item] for item in by), ("x", "y"), self.frame)
        moves = ((item, dx, dy) for item, (dx, dy) in by.items() if abs(dx) > NOTHING or abs(dy) > NOTHING)
        return scene.with_objects(moved_at(scene, baked, here, move, dx, dy, key=self.key) for move, dx, dy in moves)

    def named(self, scene: Scene) -> str:
        """How a label names them."""
        count = len(self.objects)
        return object_in(scene, self.objects[0]).name if count == 1 else f"{count} objects"


class MoveObjects(Together):
    """Move some objects by as many px of the picture."""

    edit: Literal["move-objects"]
    dx: Annotated[float, Field(strict=True, ge=-1e6, le=1e6)]
    dy: Annotated[float, Field(strict=True, ge=-1e6, le=1e6)]

    def apply(self, scene: Scene) -> Scene:
        return self._moved(scene, baked_at(scene, self.frame), dict.fromkeys(self.tops(scene), (self.dx, self.dy)))

    def label(self, scene: Scene) -> str:
        return f"move {self.named(scene)}"


class AlignObjects(Together):
    """Bring an edge or the middle of some objects to one line: of the box around all of them, or of the picture."""

    edit: Literal["align-objects"]
    side: Literal["left", "middle", "right", "top", "centre", "bottom"]
    to: Literal["each-other", "picture"] = "each-other"

    def apply(self, scene: Scene) -> Scene:
        baked, bounds = bounds_at(scene, self.tops(scene), self.frame)
        boxes = np.array(list(bounds.values()))
        around = (*boxes[:, :2].min(axis=0), *boxes[:, 2:].max(axis=0)) if self.to == "each-other" else (0.0, 0.0, *map(float, scene.size))
        line = _line(around, self.side)
        across = self.side in ("left", "middle", "right")
        by = {bound: (line - _line(box, self.side), 0.0) if across else (0.0, line - _line(box, self.side)) for bound, box in bounds.items()}
        return self._moved(scene, baked, by)

    def label(self, scene: Scene) -> str:
        return f"align {self.named(scene)}"


class DistributeObjects(Together):
    """Give some objects equal gaps, or middles at equal distances; the outermost stay where they are."""

    edit: Literal["distribute-objects"]
    along: Literal["across", "down"]
    what: Literal["gaps", "middles"] = "gaps"

    def apply(self, scene: Scene) -> Scene:
        tops = self.tops(scene)
        if len(tops) < 3:
            raise EditError("there is something to distribute between two others only from three objects on; pick one more")
        baked, bounds = bounds_at(scene, tops, self.frame)
        side = 0 if self.along == "across" else 1
        order = sorted(bounds, key=lambda entry: bounds[entry][side] + bounds[entry][side + 2])
        starts = np.array([bounds[item][side] for item in order])
        sizes = np.array([bounds[item][side + 2] - bounds[item][side] for item in order])
        if self.what == "gaps":
            gap = (starts[-1] - starts[0] - sizes[:-1].sum()) / (len(order) - 1)
            requested = starts[0] + np.concatenate([[0.0], np.cumsum(sizes[:-1] + gap)])
        else:
            middles = starts + sizes / 2
            requested = np.linspace(middles[0], middles[-1], len(order)) - sizes / 2
        moves = (requested - starts).tolist()
        by = {item: (move, 0.0) if side == 0 else (0.0, move) for item, move in zip(order, moves, strict=True)}
        return self._moved(scene, baked, by)

    def label(self, scene: Scene) -> str:
        return f"distribute {self.named(scene)}"


class SpreadInTime(Together):
    """Let each of some objects, with its descendants, come this many frames after the one before: by shifting their keys, or by a rule Retime
    that leaves them where they are. The first stays."""

    edit: Literal["spread-in-time"]
    later: Annotated[float, Field(strict=True, ge=-10_000, le=10_000)]
    order: Literal["troupe", "left-to-right", "chance"] = "troupe"
    seed: Annotated[int, Field(strict=True, ge=0, le=1_000_000_000)] = 1
    how: Literal["keys", "rule"] = "keys"

    def apply(self, scene: Scene) -> Scene:
        for rank, object_id in enumerate(self._in_order(scene)):
            if not rank * self.later:
                continue
            for with_part in with_parts((object_id,), scene.children):
                scene = _later(scene, with_part, rank * self.later, self.how)
        return scene

    def _in_order(self, scene: Scene) -> list[str]:
        # The troupe lists the foremost first.
        tops = sorted(self.tops(scene), key=scene.places.__getitem__, reverse=True)
        if self.order == "left-to-right":
            _, bounds = bounds_at(scene, tops, self.frame)
            return sorted(tops, key=lambda item: bounds[item][0] + bounds[item][2])
        if self.order == "chance":
            return [tops[n] for n in np.random.default_rng(self.seed).permutation(len(tops))]
        return tops

    def label(self, scene: Scene) -> str:
        return f"spread {self.named(scene)} in time"


def moved_at(scene: Scene, baked: Baked, here: ValuesAtFrame, object_id: str, dx: float, dy: float, *, key: bool) -> SceneObject:
    """An object moved by px of the picture at the frame of `here`: by keys where it has some or is to have, else for good.

    `baked`: the scene at that frame.
    """
    obj = object_in(scene, object_id)
    a, b, c, d = (float(part) for part in carrier_of(baked, object_id)[0, :4])
    det = a * d - b * c
    if abs(det) < 1e-12:
        raise EditError(f"what '{obj.name}' is attached to is flat at frame {here.frame:g}, so it cannot be moved there; go to another frame")
    values = place_by(here, obj, (d * dx - c * dy) / det, (a * dy - b * dx) / det)
    return set_values(scene, obj, values, here.frame, key=key)


def carrier_of(baked: Baked, object_id: str) -> Array:
    """From the space an object moves in to the picture, (1, 6)."""
    item = baked.objects[object_id]
    parent = item.source.parent
    if parent is None:
        return item.lens if item.lens is not None else matrix.IDENTITY
    above = baked.objects[parent]
    return above.view if item.source.bone is None else (above.seen_bones or above.bones)[item.source.bone]


def _line(box: Bounds | tuple[float, ...], side: str) -> float:
    left, top, right, bottom = (float(part) for part in box)
    return {"left": left, "right": right, "middle": (left + right) / 2, "top": top, "bottom": bottom, "centre": (top + bottom) / 2}[side]


def _later(scene: Scene, object_id: str, frames: float, how: Literal["keys", "rule"]) -> Scene:
    obj = object_in(scene, object_id)
    if how == "rule":
        if not any(channel.keys for channel in obj.channels.values()):
            return scene
        used = {rule.id for rule in obj.rules}
        name = next(f"later-{n}" for n in range(1, 1000) if f"later-{n}" not in used)
        # Before all others: it reads the keys at another time, and rules go on as they did.
        retime = Rule(id=name, kind="retime", channels="keyed", settings={"delay": Channel(base=frames)})
        return with_object(scene, obj.copy_with(rules=(retime, *obj.rules)))
    rules = tuple(
        rule.copy_with(
            settings={
                name: in_time(setting, 1.0, 0.0, frames) if isinstance(setting, Channel) else setting for name, setting in rule.settings.items()
            }
        )
        for rule in obj.rules
    )
    channels = {name: in_time(channel, 1.0, 0.0, frames) for name, channel in obj.channels.items()}
    return with_object(scene, obj.copy_with(channels=channels, rules=rules))
