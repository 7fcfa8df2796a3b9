"""Figures that walk, for tests, and what is measured of them."""

import numpy as np

from tests.motion.scenes import channel, scene
from vine_swing.motion import bake
from vine_swing.motion.baking.reading import Reader
from vine_swing.motion.figure.marks import marks_of
from vine_swing.motion.figure.presets import GAITS
from vine_swing.motion.figure.starters import STARTERS
from vine_swing.motion.timing.channel import Channel

WAVY = "M-400 0 C-250 -60 -100 40 60 0 S340 -70 520 10 S820 60 1000 -10 S1500 40 1700 0"
#: Which starter shows a gait.
BODY = {one: "two-legs" if 1 in GAITS[one].pairs else "four-legs" if 2 in GAITS[one].pairs else "six-legs" for one in GAITS}
TRAVEL = {
    "linear": channel((10, 100), (230, 1200)),
    "slow in and out": channel((10, 100, "slow-out-in"), (230, 1200)),
    "stop and go": channel((0, 100, "slow-out-in"), (80, 520, "hold"), (110, 520, "snap"), (200, 1150)),
    "reversing": channel((0, 100, "slow-out-in"), (90, 640), (200, 60), after="ping-pong"),
    "past the picture": channel((0, 0), (100, 500), before="coast", after="coast"),
}


def data(starter="two-legs", preset="stroll", x=None, *, ground=None, rules=(), channels=None, **settings):
    """A figure as scene file data, with a gait."""
    figure = STARTERS[starter].figure
    own = GAITS[preset].for_figure(figure) | settings | ({"ground": ground} if ground else {})
    place = {"x": x if x is not None else TRAVEL["linear"], "y": 500.0} | (channels or {})
    return {
        "id": "walker",
        "name": "Walker",
        "kind": "figure",
        "figure": figure.model_dump(mode="json"),
        "channels": {name: one.model_dump(by_alias=True) if isinstance(one, Channel) else one for name, one in place.items()},
        "rules": [{"id": "gait", "kind": "gait", "settings": own}, *rules],
    }


def branch(d=WAVY, **place):
    """A ground."""
    where = {"x": 0, "y": 520} | place
    return {"id": "branch", "name": "Branch", "kind": "shape", "shape": {"type": "outline", "d": d}, "channels": where}


def walking(*things, length=240, frames=None):
    one = scene(*things, length=length)
    return bake(one, frames)


def on_bone(baked, bone, point):
    """Where a point of the resting figure is that goes along with a bone, (n, 2)."""
    m = np.broadcast_to(baked.objects["walker"].bones[bone], (len(baked.frames), 6))
    return np.stack([m[:, 0] * point[0] + m[:, 2] * point[1] + m[:, 4], m[:, 1] * point[0] + m[:, 3] * point[1] + m[:, 5]], axis=-1)


def sole(leg):
    """Heel and ball of a leg's foot where the figure rests: the ends of what touches the ground."""
    ankle, tip = leg.joints[2], leg.joints[3]
    return (ankle[0] - 0.28 * (tip[0] - ankle[0]), 0.0), (tip[0], 0.0)


def drift(baked):
    """How far a planted foot slides in any one contact, in px: from each time to the next one end of its sole, heel or ball, bears the weight and
    lies still, and what that moves is added up over the whole contact."""
    walk = Reader(baked.scene).walk("walker")
    found = [0.0]
    for leg in baked.scene.by_id["walker"].figure.legs:
        ends = [on_bone(baked, f"{leg.id}.end", point) for point in sole(leg)]
        for begin, end in marks_of(walk).down[leg.id]:
            at = np.flatnonzero((baked.frames > begin + 1e-6) & (baked.frames < end - 1e-6))
            # What is down for less than a frame is never seen down.
            if len(at) > 1 and end - begin >= 1:
                found.append(float(np.stack([np.hypot(*np.diff(places[at], axis=0).T) for places in ends]).min(axis=0).sum()))
    return max(found)
