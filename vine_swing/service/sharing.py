"""Two versions of a scene made to share the parts that are equal in both, so that "what changed" is answered by identity."""

from typing import Any

from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.timeline import InnerScene, Timeline


def shared(before: Scene, after: Scene) -> Scene:
    """`after`, with every part that equals its counterpart in `before` replaced by that very part."""
    if before is after:
        return after
    known = before.insets_by_id
    heard = before.sounds_by_id
    sounds = tuple(was if (was := heard.get(one.id)) == one else one for one in after.sounds)
    sounds = before.sounds if sounds == before.sounds else sounds
    insets = tuple(_shared_inner(known.get(inner.id), inner) for inner in after.insets)
    return after.copy_with(**_shared_parts(before, after), insets=insets, sounds=sounds)


def _shared_inner(before: InnerScene | None, after: InnerScene) -> InnerScene:
    if before is None or before is after:
        return after
    return before if before == after else after.copy_with(**_shared_parts(before, after))


def _shared_parts(before: Timeline, after: Timeline) -> dict[str, Any]:
    things, turned = {thing.id: thing for thing in before.objects}, {dial.id: dial for dial in before.dials}
    objects = tuple(_shared_object(things.get(thing.id), thing) for thing in after.objects)
    dials = tuple(was if (was := turned.get(dial.id)) == dial else dial for dial in after.dials)
    return {"objects": objects, "dials": dials}


def _shared_object(before: SceneObject | None, after: SceneObject) -> SceneObject:
    if before is None or before is after:
        return after
    if before == after:
        return before
    channels = {name: was if (was := before.channels.get(name)) == channel else channel for name, channel in after.channels.items()}
    return after.copy_with(channels=channels)
