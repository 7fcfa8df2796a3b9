"""Where and when every foot is set down in a stretch of walking, and the pose of a foot at any phase of it.

A foot is set down at the middle of its stance under the body: so in steady walking stance lasts from half of the stance share before to half
of it after, and the foot swings on in between. From a stand it sets off and to a stand it comes with the steps that are left, at the
same swing speed. All here is in the ground's own plane: x forward, y down, angles clockwise.

The foot rolls: it lands on its heel, toes up, lies flat, and leaves over its ball; while it is down the heel, or the ball, stays where it is.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.figure.model import Limb
from vine_swing.motion.figure.stretches import Stretch
from vine_swing.motion.figure.style import Style

Array = NDArray[np.float64]
#: In stance: until when the foot comes down flat, and from when the heel leaves the ground, as shares of it.
FLAT, HEEL_OFF = 0.22, 0.58
#: How much of the roll the toes are up by at landing, and how far behind the ankle the heel lies, in shares of the foot.
_TOES_UP, _HEEL = 0.5, 0.28
#: By how many px a swinging foot may be out of reach: at once after it has left, and ever less until it lands, so that the hips are low by then.
_FREE = 300.0
#: No two footfalls of a leg lie nearer than this, in cycles; and a foot rests this long at least at a stand.
_NEAREST, _REST = 0.1, 0.02
#: Feet lift and land this many cycles beyond the ends of what is looked at.
_MORE = 2


def sole(leg: Limb) -> tuple[tuple[float, float], tuple[float, float]]:
    """Heel and ball of a leg's foot where the figure rests: the ends of what touches the ground."""
    ankle, tip = leg.joints[2], leg.joints[3]
    return (ankle[0] - _HEEL * (tip[0] - ankle[0]), 0.0), (tip[0], 0.0)


@dataclass(frozen=True)
class Footfalls:
    """The places of one foot in a stretch. Places p = 0 … k−1 are stood on from land[p−1] to lift[p].

    middles: (k,) the phase at which the body is above each.
    lift, land: (k−1,) the phases at which the foot leaves a place and comes down on the next.
    frames: (k,) when the body is above each.
    arrives, leaves: (k,) 1 where the foot rolls onto a place and off it, 0 at a stand.
    """

    middles: Array
    lift: Array
    land: Array
    frames: Array
    arrives: Array
    leaves: Array

    @classmethod
    def planned(cls, stretch: Stretch, middle: float, stance_at: "Array | float", turn: tuple[int, int]) -> "Footfalls":
        """The footfalls of a leg.

        Args:
            stretch: the walk.
            middle: the phase at which the foot is in the middle of its stance, within one cycle.
            stance_at: the stance share, at the stretch's own frames (m,) or for all of it.
            turn: of a leg's group, which it is and of how many: whose turn comes first in a walk of a single step.
        """
        total, first = stretch.total, float(stretch.phase[0])
        low = _NEAREST if stretch.begins else first - _MORE
        high = total - _NEAREST if stretch.ends else total + _MORE
        steady = np.arange(np.ceil(low - middle), np.floor(high - middle) + 1) + middle
        steady = steady[(steady >= low) & (steady <= high)]
        middles = np.concatenate([[0.0] if stretch.begins else [], steady, [total] if stretch.ends else []])
        frames = stretch.frame_at(middles)
        share = np.broadcast_to(stance_at, stretch.frames.shape)
        stance = np.interp(frames, stretch.frames, share)
        gaps = np.diff(middles)
        lift, land = middles[:-1] + stance[:-1] / 2, middles[1:] - stance[1:] / 2
        if stretch.begins and len(gaps):
            lift[0], land[0] = _from_stand(middles[0], gaps[0], stance[0])
        if stretch.ends and len(gaps):
            off, on = _from_stand(0.0, gaps[-1], stance[-1])
            lift[-1], land[-1] = middles[-1] - on, middles[-1] - off
        if stretch.begins and stretch.ends and len(gaps) == 1:
            n, of = turn
            lift[0], land[0] = (total * (_REST + (1 - 2 * _REST) * (n + one) / of) for one in (0, 1))
        land = np.maximum(land, lift + 1e-6)
        lift[1:] = np.maximum(lift[1:], land[:-1] + 1e-6)
        land = np.maximum(land, lift + 1e-6)
        arrives, leaves = np.ones(len(middles)), np.ones(len(middles))
        arrives[0], leaves[-1] = float(not stretch.begins), float(not stretch.ends)
        return cls(middles, lift, land, frames, arrives, leaves)

    def down(self, phase: Array) -> tuple[NDArray[np.intp], NDArray[np.bool_], Array]:
        """At phases (n,): the place the foot is on or leaves, whether it is down, and how far its stance or its swing is, 0…1."""
        place = np.searchsorted(self.land, phase, side="right")
        last = len(self.middles) - 1
        begun = np.concatenate([[min(self.middles[0], phase.min(initial=0.0))], self.land])[place]
        over = np.concatenate([self.lift, [max(self.middles[-1], phase.max(initial=0.0)) + 1e-9]])[place]
        down = phase <= over
        come = self.land[np.minimum(place, max(last - 1, 0))] if last else over + 1
        stance = np.clip((phase - begun) / np.maximum(over - begun, 1e-9), 0, 1)
        swing = np.clip((phase - over) / np.maximum(come - over, 1e-9), 0, 1)
        return place, down, np.where(down, stance, swing)


def _from_stand(middle: float, gap: float, stance: float) -> tuple[float, float]:
    """When a foot leaves a stand and when it comes down `gap` cycles on, at the swing speed of a steady walk."""
    lift = middle + max(_REST, stance * (gap - 0.5))
    return lift, max(middle + gap - stance / 2, lift + (1 - stance) * gap)


@dataclass(frozen=True)
class Foot:
    """A foot at rest, about the point of the ground below its ankle: how high the ankle is, how far forward the tip, x forward and y down."""

    ankle: tuple[float, float]
    ball: float
    heel: float

    @classmethod
    def of(cls, leg: Limb) -> "Foot":
        """The foot of a leg whose figure stands at y = 0."""
        ankle, tip = leg.joints[2], leg.joints[3]
        length = tip[0] - ankle[0]
        return cls((0.0, ankle[1]), length, -_HEEL * length)


def rolled(foot: Foot, down: NDArray[np.bool_], share: Array, arrives: Array, leaves: Array, roll: Array, way: int) -> tuple[Array, Array]:
    """How a foot is rolled, toes down with more, in degrees, and about which x of its sole: (n,) each.

    `down` and `share` are as of Footfalls.down; `arrives` and `leaves` say how much it rolls onto the place it is on (or comes to) and
    off the one it is on (or leaves). Walking backwards is walking forwards seen backwards.
    """
    u = share if way > 0 else 1 - share
    begin, end = (arrives, leaves) if way > 0 else (leaves, arrives)
    up, off = -_TOES_UP * roll * begin, roll * end
    stance = up * (1 - smooth(u / FLAT)) + off * smooth((u - HEEL_OFF) / (1 - HEEL_OFF))
    swing = off * (1 - smooth(u / 0.5)) + up * smooth((u - 0.45) / 0.55)
    forward = np.where(down, u > (FLAT + HEEL_OFF) / 2, 1 - smooth(u))
    return np.where(down, stance, swing), foot.heel + (foot.ball - foot.heel) * forward


def ankle(foot: Foot, angle: Array, roll: Array, about: Array) -> tuple[Array, Array]:
    """Where the ankle is from the point of the ground the foot stands on; the ground tilted by `angle`, the foot rolled about `about`."""
    a, r = np.radians(angle), np.radians(roll)
    x, y = foot.ankle[0] - about, foot.ankle[1]
    rx, ry = about + np.cos(r) * x - np.sin(r) * y, np.sin(r) * x + np.cos(r) * y
    return np.cos(a) * rx - np.sin(a) * ry, np.sin(a) * rx + np.cos(a) * ry


def footing(
    foot: Foot, steps: Footfalls, phase: Array, style: Style, size: Array, way: int, px: Array, py: Array, tilt: Array
) -> tuple[tuple[Array, Array], Array, Array, Array]:
    """A foot at phases (n,): ((where it stands, how far ahead of that its ankle is), the ankle's y), its turn, and how free it is."""
    place, down, share = steps.down(phase)
    after = np.minimum(place + 1, len(px) - 1)
    far = np.where(down, 0.0, carried(share))
    x = px[place] + (px[after] - px[place]) * far
    y = py[place] + (py[after] - py[place]) * far
    angle = tilt[place] + (tilt[after] - tilt[place]) * far
    arrives = steps.arrives[np.where(down, place, after)]
    roll, about = rolled(foot, down, share, arrives, steps.leaves[place], style.roll, way)
    dx, dy = ankle(foot, angle, roll, about)
    gap = steps.middles[after] - steps.middles[place]
    high = np.where(down, 0.0, raised(share) * np.minimum(gap, 1.0))
    free = np.where(down, 0.0, _FREE * np.minimum(smooth(share * 8), 0.8 * (1 - share)))
    return (x, dx), y + size * (dy - style.lift * high), angle + roll, free


def carried(w: Array) -> Array:
    """How far along a swinging foot is, 0…1: a cycloid, at rest at both ends."""
    return np.asarray(w - np.sin(2 * np.pi * w) / (2 * np.pi))


def raised(w: Array) -> Array:
    """How high a swinging foot is, as a share of the lift; highest a little before half-way, when the leg is bent most."""
    return np.asarray(np.sin(np.pi * w**0.85) ** 2)


def smooth(u: Array) -> Array:
    """0 up to 0, 1 from 1 on, without a corner."""
    u = np.clip(u, 0, 1)
    return np.asarray(u * u * (3 - 2 * u))
