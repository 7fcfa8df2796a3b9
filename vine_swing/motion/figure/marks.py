"""What a walk shows on the time sheet: when each leg is on the ground, and the poses of its steps.

A step begins with `contact`, where the foot lands; in `down` the weight is taken and the hips are lowest; in `passing` the other leg comes by,
and the foot is in the middle of its stance; in `up` the hips are highest.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.figure.footfalls import Footfalls
from vine_swing.motion.figure.model import Limb
from vine_swing.motion.figure.way import Stretch

Array = NDArray[np.float64]
#: A frame, a pose and the id of a leg.
Pose = tuple[float, str, str]
Span = tuple[float, float]


@dataclass(frozen=True)
class Marks:
    """`down`: by leg, the spans of frames it is on the ground, in order. `poses`: those of the first two legs, in order."""

    down: dict[str, list[Span]]
    poses: list[Pose]


def spans_of(stretch: Stretch, steps: Footfalls) -> list[Span]:
    """When a leg is down in a stretch, in frames."""
    begins = np.concatenate([[steps.middles[0]], steps.land])
    ends = np.concatenate([steps.lift, [steps.middles[-1]]])
    return [(float(a), float(b)) for a, b in zip(stretch.frame_at(begins), stretch.frame_at(ends), strict=True)]


def poses_of(leg: Limb, stretch: Stretch, steps: Footfalls, stance: Array, running: Array) -> list[Pose]:
    """The poses of a leg's steps in a stretch; `stance` and `running` are as they are at its footfalls, (k,) or (1,)."""
    found: list[Pose] = []
    stances = np.broadcast_to(stance, steps.middles.shape)[1:]
    runs = np.broadcast_to(running, steps.middles.shape)[1:]
    for n, (landed, share, fast) in enumerate(zip(steps.land, stances, runs, strict=True), start=1):
        low = share / 4 + fast * share / 4
        high = share / 4 + 0.25 + fast * ((share + 0.5) / 2 - share / 4 - 0.25)
        passing = share / 2 if fast < 0.5 else (low + high) / 2
        for pose, later in (("contact", 0.0), ("down", low), ("passing", passing), ("up", high)):
            at = landed + later
            # The foot that comes to stand lands, and goes through no more poses.
            last = n == len(steps.middles) - 1 and stretch.ends
            if stretch.phase[0] <= at <= stretch.total and (pose == "contact" or not last):
                found.append((float(stretch.frame_at(np.array([at]))[0]), pose, leg.id))
    return found


def within(spans: list[Span], last: float) -> list[Span]:
    """Spans within the frames 0 to `last`, those that meet made one."""
    found: list[Span] = []
    for a, b in sorted((max(a, 0.0), min(b, last)) for a, b in spans if b >= 0 and a <= last and b >= a):
        if found and a <= found[-1][1] + 1e-6:
            found[-1] = (found[-1][0], max(found[-1][1], b))
        else:
            found.append((a, b))
    return found
