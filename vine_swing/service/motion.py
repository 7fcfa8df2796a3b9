"""The baked motion of one scene, and which of its arrays are newer than a given revision."""

from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from functools import cached_property, partial
from typing import Any

import numpy as np

from vine_swing.motion.baking.bake import bake
from vine_swing.motion.baking.baked import Baked, BakedParade
from vine_swing.motion.baking.effort import Effort
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.specs import OUTLINE
from vine_swing.motion.figure.marks import marks_of
from vine_swing.motion.outline.drawing import missing_in
from vine_swing.motion.scene.dial import DIAL_CHANNEL
from vine_swing.motion.scene.model import Scene
from vine_swing.picture.drawable import DrawnScene, drawn_scene
from vine_swing.picture.list_data import steps_data
from vine_swing.picture.listing import hidden, steps_of
from vine_swing.picture.look_effects import LENS
from vine_swing.picture.paint_list import KeptPages, copied_tracks
from vine_swing.picture.tracks import OutlineTrack, Track
from vine_swing.picture.visible import Visible, visible_parts
from vine_swing.service import wire

#: What a painter needs and where it is found; sent when it is another array than before. None for what there was and is not any more.
Parts = dict[tuple[str, ...], Any]


@dataclass
class Motion:
    """Baked arrays with the revision each was last changed at.

    Arrays are told apart by identity: what an edit did not touch is the same array after it.

    own: what each object has by itself, by id.
    parts: the same, and what copies of parades and the scenes inside insets are painted from.
    stamps: by object, the revision of each of its parts.
    newest: by object, the newest of these.
    came: by object, the revision that it came with, where it was not there from the first.
    """

    baked: Baked
    drawn: DrawnScene
    painted: "Painted"
    revision: int
    own: dict[str, Parts] = field(default_factory=dict)
    parts: dict[str, Parts] = field(default_factory=dict)
    stamps: dict[str, dict[tuple[str, ...], int]] = field(default_factory=dict)
    newest: dict[str, int] = field(default_factory=dict)
    came: dict[str, int] = field(default_factory=dict)

    @classmethod
    def of(cls, scene: Scene, revision: int, *, effort: Effort | None = None) -> "Motion":
        """Bake a scene from nothing."""
        baked, drawn = _baked_and_drawn(scene, effort or Effort(), None)
        painted = Painted.of(drawn, revision)
        own = _parts(drawn, {})
        parts = _with_copies(own, painted.copied, baked, {})
        stamps = {object_id: dict.fromkeys(some, revision) for object_id, some in parts.items()}
        return cls(baked, drawn, painted, revision, own, parts, stamps, dict.fromkeys(parts, revision))

    def updated(self, scene: Scene, revision: int, *, effort: Effort | None = None) -> "Motion":
        """The motion after a change; shares what did not change, and leaves this one unchanged."""
        baked, drawn = _baked_and_drawn(scene, effort or Effort(), self)
        painted = self.painted.updated(self.baked, drawn, revision)
        own = _parts(drawn, self.own, self.baked)
        parts = _with_gone(_with_copies(own, painted.copied, baked, self.parts), self.parts)
        stamps, newest = dict(self.stamps), dict(self.newest)
        for object_id in self.parts.keys() - parts.keys():
            del stamps[object_id], newest[object_id]
        for object_id, now in parts.items():
            was, stamped = self.parts.get(object_id, {}), self.stamps.get(object_id, {})
            if now is not was:
                stamps[object_id] = {name: stamped[name] if was.get(name) is part else revision for name, part in now.items()}
                newest[object_id] = max(stamps[object_id].values(), default=revision)
        came = {one: since for one, since in self.came.items() if one in parts} | dict.fromkeys(parts.keys() - self.parts.keys(), revision)
        return Motion(baked, drawn, painted, revision, own, parts, stamps, newest, came)

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
        arrays = wire.Arrays()
        for object_id in self.parts:
            if since is None or self.newest[object_id] > since:
                objects[object_id] = _packed(self._news(object_id, since), arrays)
                if since is not None and self.came.get(object_id, 0) > since:
                    # A page may know another that had its id and is missing.
                    objects[object_id]["whole"] = True
        arrays.fill()
        head = {"revision": self.revision, "fps": scene.fps, "length": scene.length, "size": list(scene.size)}
        head |= {
            "background": scene.background,
            "whole": since is None,
            "order": [thing.id for thing in scene.objects],
            "dials": list(scene.dials_by_id),
            "copies": [owner for owner in self.parts if any(mark in owner for mark in COPIED)],
            "hidden": self.painted.hidden,
        }
        if since is None or self.painted.revision > since:
            head["steps"] = self.painted.steps
        return wire.pack(head | {"objects": objects})

    def _news(self, object_id: str, since: int | None) -> Parts:
        """What of an object has changed after a revision, None for what is missing; or, without a revision, everything there is."""
        parts, stamps = self.parts[object_id], self.stamps[object_id]
        if since is None:
            return {name: part for name, part in parts.items() if part is not None}
        return {name: part for name, part in parts.items() if stamps[name] > since}


#: About how much of the time baking takes; the rest is drawing outlines.
_BAKING = 0.8


def _baked_and_drawn(scene: Scene, effort: Effort, before: Motion | None) -> tuple[Baked, DrawnScene]:
    with effort.part(_BAKING):
        baked = bake(scene, previous=before.baked if before is not None else None, effort=effort)
    with effort.part(1 - _BAKING):
        return baked, drawn_scene(baked, before.drawn if before is not None else None, effort)


@dataclass(frozen=True)
class Painted:
    """The steps of the paint list as they are sent, and the revision they last changed at.

    copied: what the copies of parades are painted from.
    """

    visible: dict[str, Visible]
    hidden: list[str]
    steps: list[dict[str, Any]]
    copied: tuple[Track | OutlineTrack | KeptPages, ...]
    revision: int

    @classmethod
    def of(cls, drawn: DrawnScene, revision: int) -> "Painted":
        """The steps of a scene."""
        return cls._made(drawn, visible_parts(drawn), hidden(drawn.baked.scene), revision)

    @classmethod
    def _made(cls, drawn: DrawnScene, visible: dict[str, Visible], unseen: list[str], revision: int) -> "Painted":
        steps = steps_of(drawn, visible, unseen)
        return cls(visible, unseen, steps_data(steps), tuple(copied_tracks(steps)), revision)

    def updated(self, before: Baked, drawn: DrawnScene, revision: int) -> "Painted":
        """The steps after a change; these very ones where only values changed, as steps name their values and do not hold them."""
        baked = drawn.baked
        visible, unseen = visible_parts(drawn, before, self.visible), hidden(baked.scene)
        # What masks is painted though it is hidden itself, so what is hidden by its own counts.
        was, now = ([(one.id, one.parent, one.shown) for one in scene.objects] for scene in (before.scene, baked.scene))
        same_places = was == now
        same = same_places and visible == self.visible and unseen == self.hidden
        if same and baked.parades == before.parades and baked.insets == before.insets:
            return self
        made = self._made(drawn, visible, unseen, revision)
        # Of a parade or an inset, values may change without its steps, and steps without a change of the order or of what is seen.
        return replace(made, steps=self.steps, revision=self.revision) if made.steps == self.steps else made


#: In the names of owners of what copies, or the scenes inside insets, are painted from.
COPIED = ("#", "@")


def _with_copies(
    parts: dict[str, Parts], tracks: Iterable[Track | OutlineTrack | KeptPages], baked: Baked, old: dict[str, Parts]
) -> dict[str, Parts]:
    """Some parts with what the copies of parades and the scenes inside insets are painted from; of a parade or an inset itself, beside its other
    parts."""
    found: dict[str, Parts] = {}
    for track in tracks:
        if isinstance(track, KeptPages):
            pages = [list(page) for page in track.pages]
            found.setdefault(track.owner, {})[("pictures",)] = _taken_over(old.get(track.owner, {}), ("pictures",), pages)
        elif isinstance(track, OutlineTrack):
            # Whose it is called differs from copy to copy, what is drawn may be the same.
            known = old.get(track.owner, {}).get(("outline",))
            same = isinstance(known, OutlineTrack) and known.series is track.series
            found.setdefault(track.owner, {})[("outline",)] = known if same else track
        else:
            path = (track.name,) if track.name in ("view", "fade", "place") else ("channels", track.name)
            found.setdefault(track.owner, {})[path] = track.values
    for object_id, inset in baked.insets.items():
        found.setdefault(object_id, {}).update({("channels", "inset.frame"): inset.frames, ("channels", "inset.size"): inset.size})
    for object_id, parade in baked.parades.items():
        for part, inset in parade.element.insets.items():
            found.setdefault(part, {})["channels", "inset.size"] = inset.size
        lead = np.array([float(parade.lead or 0)])
        found.setdefault(object_id, {}).update({("channels", "copies.lag"): parade.lags, ("channels", "copies.lead"): lead})
    return parts | {owner: parts.get(owner, {}) | copied for owner, copied in found.items()}


def _with_gone(parts: dict[str, Parts], old: dict[str, Parts]) -> dict[str, Parts]:
    """Some parts, with None for those that an object had in `old` and has no more."""
    gone = {one: [name for name in was if name not in parts[one]] for one, was in old.items() if one in parts and parts[one] is not was}
    return parts | {one: parts[one] | dict.fromkeys(names) for one, names in gone.items() if names}


def _parts(drawn: DrawnScene, old: dict[str, Parts], before: Baked | None = None) -> dict[str, Parts]:
    baked, result = drawn.baked, dict[str, Parts]()
    leads = _leads(baked)
    for object_id, one in baked.objects.items():
        led = leads.get(object_id)
        same_lead = led is None or (before is not None and before.parades.get(led.source.id) is led)
        if same_lead and before is not None and before.objects.get(object_id) is one and before.scene.length == baked.scene.length:
            result[object_id] = old[object_id]
            continue
        was = old.get(object_id, {})
        parts: Parts = {("view",): one.view, ("local",): one.local, ("fade",): one.fade, ("place",): one.place, ("middle",): one.middle}
        if one.lens is not None:
            parts["channels", LENS] = one.lens
        if led is not None:
            parts |= _led(one, led, baked.objects[led.source.id])
        parts |= {("channels", name): values for name, values in one.channels.items()}
        if object_id in drawn.things:
            parts[("outline",)] = drawn.things[object_id].outline
            absent = missing_in(one.source.drawn_shape) if one.source.drawn_shape is not None else []
            if absent:
                parts[("missing",)] = _taken_over(was, ("missing",), absent)
        for look in one.look:
            parts |= {("channels", name): values for name, values in look.arrays.items()}
        if one.source.pictured is not None and one.shown_size is not None:
            parts["channels", "picture.size"] = one.shown_size
            parts[("pictures",)] = _taken_over(was, ("pictures",), [[page.id, page.width] for page in one.pages])
        if one.source.rules_on(OUTLINE):
            rest = [round(edge, 4) for edge in baked.reader.filler.run(partial(baked.reader.outlines.box, one.source))]
            parts[("rest",)] = _taken_over(was, ("rest",), rest)
        if one.bent is not None:
            way = was.get(("channels", OUTLINE))
            same = before is not None and object_id in before.objects and before.objects[object_id].bent is one.bent
            parts["channels", OUTLINE] = way if same and way is not None else one.bent.travelled()
        for name, channel in one.source.channels.items():
            if len(channel.keys) > 1:
                parts[("turns", name)] = _taken_over(was, ("turns", name), channel.turns(baked.scene.length))
        if any(rule.on and rule.spec.contacts for rule in one.source.rules):
            met = [frame for frame in baked.reader.contacts(object_id).round(4).tolist() if 0 <= frame < baked.scene.length]
            parts[("contacts",)] = _taken_over(was, ("contacts",), met)
        result[object_id] = parts
        for bone, world in (one.seen_bones or one.bones).items():
            parts["bones", bone] = world
        if one.bones:
            walk = baked.reader.walk(object_id)
            told = marks_of(walk) if walk is not None else None
            steps = {"down": told.down, "poses": [list(pose) for pose in told.poses]} if told is not None else {"down": {}, "poses": []}
            parts[("steps",)] = _taken_over(was, ("steps",), steps)
    for owner, dial in baked.scene.dials_by_id.items():
        dial_parts: Parts = {("channels", DIAL_CHANNEL): baked.dials[dial.id]}
        if len(dial.channel.keys) > 1:
            path = ("turns", DIAL_CHANNEL)
            dial_parts[path] = _taken_over(old.get(owner, {}), path, dial.channel.turns(baked.scene.length))
        result[owner] = dial_parts
    return result


def _taken_over(was: Parts, path: tuple[str, ...], now: Any) -> Any:
    """A part, as the very one that there was if both are equal, so that it is not sent again."""
    return was[path] if path in was and was[path] == now else now


def _leads(baked: Baked) -> dict[str, BakedParade]:
    """The parade that each object is in, by the object's id; only of objects that are in one."""
    return {one: parade for object_id, parade in baked.parades.items() for one in baked.plan.below({object_id}) - {object_id}}


def _led(one: BakedObject, parade: BakedParade, above: BakedObject) -> Parts:
    """Where a part is in the lead of its parade: hands take hold of it there."""
    lead = matrix.multiply(above.view, matrix.multiply(parade.lead_matrix(), matrix.safe_inverse(above.view)))
    view = matrix.multiply(lead, one.view)
    in_scene = matrix.multiply(above.world, matrix.multiply(parade.lead_matrix(), matrix.safe_inverse(above.world)))
    place, middle = (matrix.apply(in_scene, *points.T) for points in (one.place, one.middle))
    return {("view",): view, ("place",): place, ("middle",): middle}


def _packed(parts: Parts, arrays: wire.Arrays) -> dict[str, Any]:
    packed: dict[str, Any] = {}
    for path, part in parts.items():
        at = packed
        for step in path[:-1]:
            at = at.setdefault(step, {})
        if isinstance(part, OutlineTrack):
            at[path[-1]] = wire.outline_track(part)
        else:
            at[path[-1]] = part if part is None or isinstance(part, list | dict) else arrays.add(part)
    return packed
