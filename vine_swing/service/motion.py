"""The baked motion of one scene, and which of its arrays are newer than a given revision."""

from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

import numpy as np

from vine_swing.motion.baking.bake import Baked, bake
from vine_swing.motion.baking.effort import Effort
from vine_swing.motion.figure.marks import marks_of
from vine_swing.motion.outline.drawing import missing_in
from vine_swing.motion.scene.model import DIAL_CHANNEL, Scene
from vine_swing.motion.timing.ends import turn_marks
from vine_swing.picture.drawable import Drawable, drawables
from vine_swing.picture.list_data import steps_data
from vine_swing.picture.listing import Visible, hidden, steps_of, visible_parts
from vine_swing.picture.paint_list import OutlineTrack
from vine_swing.service import wire

#: What a painter needs and where it is found; sent when it is another array than before.
Parts = dict[tuple[str, ...], Any]


@dataclass
class Motion:
    """Baked arrays with the revision each was last changed at.

    Arrays are told apart by identity: what an edit did not touch is the same array after it.
    """

    baked: Baked
    drawn: dict[str, Drawable]
    painted: "Painted"
    revision: int
    parts: dict[str, Parts] = field(default_factory=dict)
    stamps: dict[str, dict[tuple[str, ...], int]] = field(default_factory=dict)

    @classmethod
    def of(cls, scene: Scene, revision: int, *, effort: Effort | None = None) -> "Motion":
        """Bake a scene from nothing."""
        baked = bake(scene, effort=effort)
        drawn = drawables(baked)
        parts = _parts(baked, drawn, {})
        return cls(baked, drawn, Painted.of(baked, drawn, revision), revision, parts, {i: dict.fromkeys(p, revision) for i, p in parts.items()})

    def moved_on(self, scene: Scene, revision: int, *, effort: Effort | None = None) -> "Motion":
        """The motion after a change; shares what did not change, and leaves this one as it was."""
        baked = bake(scene, previous=self.baked, effort=effort)
        drawn = drawables(baked, self.drawn)
        parts = _parts(baked, drawn, self.parts, self.baked)
        stamps = {}
        for object_id, now in parts.items():
            was, stamped = self.parts.get(object_id, {}), self.stamps.get(object_id, {})
            stamps[object_id] = stamped if now is was else {name: stamped[name] if was.get(name) is part else revision for name, part in now.items()}
        return Motion(baked, drawn, self.painted.moved_on(self.baked, baked, drawn, revision), revision, parts, stamps)

    @cached_property
    def size(self) -> int:
        """About how many bytes its arrays take; views of one block are counted as parts of it."""
        return sum(
            part.nbytes if isinstance(part, np.ndarray) else part.size if isinstance(part, OutlineTrack) else 0
            for parts in self.parts.values()
            for part in parts.values()
        )

    def message(self, since: int | None = None) -> bytes:
        """What has changed after the revision `since` (or everything), packed for the page."""
        scene = self.baked.scene
        objects: dict[str, Any] = {}
        for object_id, parts in self.parts.items():
            stamps = self.stamps[object_id]
            fresh = {name: part for name, part in parts.items() if since is None or stamps[name] > since}
            if fresh:
                objects[object_id] = _packed(fresh)
        head = {"revision": self.revision, "fps": scene.fps, "length": scene.length, "size": list(scene.size)}
        head |= {
            "background": scene.background,
            "whole": since is None,
            "order": [thing.id for thing in scene.objects],
            "dials": list(scene.dials_by_id),
            "hidden": self.painted.hidden,
        }
        if since is None or self.painted.revision > since:
            head["steps"] = self.painted.steps
        return wire.pack(head | {"objects": objects})


@dataclass(frozen=True)
class Painted:
    """The steps of the paint list as they are sent, and the revision they last changed at."""

    visible: dict[str, Visible]
    hidden: list[str]
    steps: list[dict[str, Any]]
    revision: int

    @classmethod
    def of(cls, baked: Baked, drawn: dict[str, Drawable], revision: int) -> "Painted":
        """The steps of a bake."""
        return cls._made(baked, drawn, visible_parts(baked, drawn), hidden(baked.scene), revision)

    @classmethod
    def _made(cls, baked: Baked, drawn: dict[str, Drawable], visible: dict[str, Visible], unseen: list[str], revision: int) -> "Painted":
        return cls(visible, unseen, steps_data(steps_of(baked, drawn, visible, unseen)), revision)

    def moved_on(self, before: Baked, baked: Baked, drawn: dict[str, Drawable], revision: int) -> "Painted":
        """The steps after a change; these very ones where only values changed, as steps name their values and do not hold them."""
        visible, unseen = visible_parts(baked, drawn, before, self.visible), hidden(baked.scene)
        same_places = [(one.id, one.parent) for one in before.scene.objects] == [(one.id, one.parent) for one in baked.scene.objects]
        if same_places and visible == self.visible and unseen == self.hidden:
            return self
        return self._made(baked, drawn, visible, unseen, revision)


def _parts(baked: Baked, drawn: dict[str, Drawable], old: dict[str, Parts], before: Baked | None = None) -> dict[str, Parts]:
    result: dict[str, Parts] = {}
    for object_id, one in baked.objects.items():
        if before is not None and before.objects.get(object_id) is one and before.scene.length == baked.scene.length:
            result[object_id] = old[object_id]
            continue
        parts: Parts = {("view",): one.view, ("local",): one.local, ("fade",): one.fade, ("place",): one.place, ("middle",): one.middle}
        parts |= {("channels", name): values for name, values in one.channels.items()}
        if object_id in drawn:
            parts[("outline",)] = drawn[object_id].outline
            absent = missing_in(one.source.drawn_shape) if one.source.drawn_shape is not None else []
            known = old.get(object_id, {}).get(("missing",))
            if absent or known:
                # What no longer lacks anything says so once.
                parts[("missing",)] = known if known == absent else absent
        for name, channel in one.source.channels.items():
            if len(channel.keys) > 1:
                marks = turn_marks(channel.keys[0].frame, channel.keys[-1].frame, channel.before, channel.after, baked.scene.length)
                was = old.get(object_id, {}).get(("turns", name))
                parts[("turns", name)] = was if was == marks else marks
        if any(rule.on and rule.spec.contacts for rule in one.source.rules):
            met = [frame for frame in baked.reader.contacts(object_id).round(4).tolist() if 0 <= frame < baked.scene.length]
            had = old.get(object_id, {}).get(("contacts",))
            parts[("contacts",)] = had if had == met else met
        elif ("contacts",) in old.get(object_id, {}):
            # What no longer meets anything says so once.
            parts[("contacts",)] = old[object_id][("contacts",)] and []
        result[object_id] = parts
        for bone, world in one.bones.items():
            parts["bones", bone] = world
        if one.bones:
            walk = baked.reader.walk(object_id)
            told = marks_of(walk) if walk is not None else None
            steps = {"down": told.down, "poses": [list(pose) for pose in told.poses]} if told is not None else {"down": {}, "poses": []}
            stood = old.get(object_id, {}).get(("steps",))
            parts[("steps",)] = stood if stood == steps else steps
    for owner, dial in baked.scene.dials_by_id.items():
        dial_parts: Parts = {("channels", DIAL_CHANNEL): baked.dials[dial.id]}
        keys = dial.channel.keys
        if len(keys) > 1:
            marks = turn_marks(keys[0].frame, keys[-1].frame, dial.channel.before, dial.channel.after, baked.scene.length)
            was = old.get(owner, {}).get(("turns", DIAL_CHANNEL))
            dial_parts["turns", DIAL_CHANNEL] = was if was == marks else marks
        result[owner] = dial_parts
    return result


def _packed(parts: Parts) -> dict[str, Any]:
    packed: dict[str, Any] = {}
    for path, part in parts.items():
        at = packed
        for step in path[:-1]:
            at = at.setdefault(step, {})
        if isinstance(part, OutlineTrack):
            at[path[-1]] = wire.outline_track(part)
        else:
            at[path[-1]] = part if isinstance(part, list | dict) else wire.array(part)
    return packed
