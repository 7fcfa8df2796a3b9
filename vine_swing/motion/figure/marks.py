"""Marks of a walk on the time sheet: ground contact of each leg, and the poses of its footsteps.

A step begins with `contact`, where the foot lands; in `down` the weight is taken and the hips are lowest; in `passing` the other leg comes by,
and the foot is in the middle of its stance; in `up` the hips are highest.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.figure.footfalls import Footfalls
from vine_swing.motion.figure.hips import running
from vine_swing.motion.figure.model import Limb
from vine_swing.motion.figure.stretches import Stretch
from vine_swing.motion.figure.walk import Walk

Array = NDArray[np.float64]
#: A frame, a pose and the id of a leg.
Pose = tuple[float, str, str]
Span = tuple[float, float]


@dataclass(frozen=True)
class Marks:
    """`down`: by leg, the spans of frames it is on the ground, in order. `poses`: those of the first two legs, in order."""

    down: dict[str, list[Span]]
    poses: list[Pose]


def marks_of(walk: Walk) -> Marks:
    """When feet are down, and the poses of the steps of the first two legs."""
    legs = walk.plan.inputs.figure.legs
    last = float(walk.plan.inputs.length - 1)
    walks = _stretches(walk)
    if not walks:
        return Marks({leg.id: [(0.0, last)] for leg in legs}, [])
    down: dict[str, list[Span]] = {leg.id: [] for leg in legs}
    poses: list[Pose] = []
    # Poses of more legs would lie over one another on the sheet.
    first = {leg.id for leg in legs[:2]}
    for stretch, of in walks:
        for leg in legs:
            steps = of[leg.id]
            down[leg.id] += _spans_of(stretch, steps)
            if leg.id not in first:
                continue
            stance = walk.plan.stance_at(steps.frames)
            poses += _poses_of(leg, stretch, steps, stance, running(stance, walk.plan.groups))
    _add_stands(walk, down, last)
    shown = sorted({(round(frame, 4), pose, leg) for frame, pose, leg in poses if 0 <= frame <= last})
    return Marks({leg: _within(spans, last) for leg, spans in down.items()}, shown)


def _stretches(walk: Walk) -> list[tuple[Stretch, dict[str, Footfalls]]]:
    """The stretches of a walk with the footfalls of every leg; on the spot, one that goes on through the whole scene."""
    if walk.feet is None:
        return []
    if walk.plan.inputs.treadmill is None:
        return [(walked.stretch, steps.by_leg) for walked, steps in zip(walk.plan.walked, walk.feet.steps, strict=True)]
    one = walk.plan.endless_stretch()
    return [(one, {leg.id: walk.plan.footfalls(leg, one, walk.plan.mean_stance) for leg in walk.plan.inputs.figure.legs})]


def _add_stands(walk: Walk, down: dict[str, list[Span]], last: float) -> None:
    """Feet are down before the first stretch, between stretches and after the last."""
    for spans in down.values():
        if walk.plan.walked and walk.plan.walked[0].stretch.begins:
            begin = float(walk.plan.walked[0].stretch.frames[0])
            spans.insert(0, (min(0.0, begin), begin))
        for one in walk.plan.walked:
            if one.stretch.ends:
                later = [w.stretch.frames[0] for w in walk.plan.walked if w.stretch.frames[0] >= one.stretch.frames[-1]]
                spans.append((float(one.stretch.frames[-1]), float(min(later, default=last))))


def _spans_of(stretch: Stretch, steps: Footfalls) -> list[Span]:
    """When a leg is down in a stretch, in frames."""
    begins = np.concatenate([[steps.middles[0]], steps.land])
    ends = np.concatenate([steps.lift, [steps.middles[-1]]])
    return [(float(a), float(b)) for a, b in zip(stretch.frame_at(begins), stretch.frame_at(ends), strict=True)]


def _poses_of(leg: Limb, stretch: Stretch, steps: Footfalls, stance: Array, running: Array) -> list[Pose]:
    """The poses of a leg's steps in a stretch; `stance` and `running` are as they are at its footfalls, (k,) or (1,)."""
    stances = np.broadcast_to(stance, steps.middles.shape)[1:]
    runs = np.broadcast_to(running, steps.middles.shape)[1:]
    low = stances / 4 + runs * stances / 4
    high = stances / 4 + 0.25 + runs * ((stances + 0.5) / 2 - stances / 4 - 0.25)
    passing = np.where(runs < 0.5, stances / 2, (low + high) / 2)
    found: list[Pose] = []
    for pose, later in (("contact", np.zeros_like(low)), ("down", low), ("passing", passing), ("up", high)):
        phases = np.asarray(steps.land) + later
        shown = (phases >= stretch.phase[0]) & (phases <= stretch.total)
        if stretch.ends and pose != "contact" and len(shown):
            # The foot that comes to stand lands, and goes through no more poses.
            shown[-1] = False
        found += [(frame, pose, leg.id) for frame in stretch.frame_at(phases[shown]).tolist()]
    return found


def _within(spans: list[Span], last: float) -> list[Span]:
    """Spans within the frames 0 to `last`, those that meet made one."""
    found: list[Span] = []
    for a, b in sorted((max(a, 0.0), min(b, last)) for a, b in spans if b >= 0 and a <= last and b >= a):
        if found and a <= found[-1][1] + 1e-6:
            found[-1] = (found[-1][0], max(found[-1][1], b))
        else:
            found.append((a, b))
    return found
