"""Estimate of the memory for a scene's motion, computed before baking."""

from vine_swing.motion.baking.effort import TooMuchWork
from vine_swing.motion.basics.limits import MOST_KEPT
from vine_swing.motion.scene.hanging import parts_of, with_parts
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.timeline import Timeline, times_shown

#: Numbers a frame of whatever moves, besides its channels: two matrices, its place, its opacity and what its look needs.
_MOVED = 18


def check_cost(scene: Scene, *, since: Scene | None = None) -> None:
    """Refuse a scene whose motion would not fit into memory beside others; one that is no larger than it was stays.

    Args:
        scene: the outermost one.
        since: what edits began with.

    Raises:
        TooMuchWork: saying how much it would be, and what would fit.
    """
    if scene is since or _at_most(scene) <= MOST_KEPT:
        return
    numbers = kept_numbers(scene)
    if numbers <= MOST_KEPT or (since is not None and numbers <= kept_numbers(since)):
        return
    frame = numbers // scene.length
    raise TooMuchWork(
        f"the motion of this scene would be {numbers / 1e6:.0f} million numbers, {frame:,} in each of {scene.length:,} frames; at most"
        f" {MOST_KEPT / 1e6:.0f} million are kept, so make it no longer than {max(1, MOST_KEPT // frame):,} frames, or let fewer things move"
    )


def kept_numbers(scene: Scene) -> int:
    """About how many numbers a bake of a whole scene keeps, with those of scenes inside it: of what moves, for every frame."""
    shown = times_shown(scene.timelines)
    inner = sum(shown[inset.id] * _a_frame(inset) for inset in scene.insets)
    return (_a_frame(scene) + inner) * scene.length


def _a_frame(timeline: Timeline) -> int:
    """Numbers that change from frame to frame in a timeline."""
    own = {obj.id: _channels_that_move(obj) for obj in timeline.objects}
    moved = with_parts([object_id for object_id, count in own.items() if count], parts_of(timeline.objects))
    return sum(own.values()) + _MOVED * len(moved)


def _channels_that_move(obj: SceneObject) -> int:
    names = {name for name, channel in obj.channels.items() if len(channel.keys) > 1 or channel.formula is not None}
    for rule in obj.rules:
        if rule.channels != "keyed":
            names.update(rule.channels)
    return len(names) + len(obj.rules)


def _at_most(scene: Scene) -> int:
    """Return a coarse upper bound: most scenes are far below the limit and need no exact estimate."""
    a_frame = sum(len(obj.channels) + 8 * len(obj.rules) + _MOVED for part in scene.timelines for obj in part.objects)
    return a_frame * scene.length * (1 + times_shown(scene.timelines).total())
