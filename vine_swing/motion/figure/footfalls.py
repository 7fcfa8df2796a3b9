"""Where and when every foot is set down in a stretch of walking, and the pose of a foot at any phase of it.

A foot is set down at the middle of its stance under the body: so in steady walking stance lasts from half of the stance share before to half
of it after, and the foot swings on in between. From a stand it sets off and to a stand it comes with the steps that are left, at the
same swing speed. All here is in the ground's own plane: x forward, y down, angles clockwise.

The foot rolls: it lands on its heel, toes up, lies flat, and leaves over its ball; while it is down the heel, or the ball, stays where it is.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.figure.limb import joint_at_rest
from vine_swing.motion.figure.model import Limb
from vine_swing.motion.figure.stretches import Stretch
from vine_swing.motion.figure.style import Style

Array = NDArray[np.float64]
#: In stance: until when the foot comes down flat, and from when the heel leaves the ground, as shares of it.
FLAT, HEEL_OFF = 0.22, 0.58
#: How much of the roll the toes are up by at landing, and how far behind the ankle the heel lies, in shares of the foot.
_TOES_UP, _HEEL = 0.5, 0.28
#: By how many px a swinging foot may be out of reach: at once after it has left, and ever less until it lands, so that the hips are low by then.
_SLACK = 300.0
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
            stance_at: the stance share, at the stretch's own frames (m,) or for all.
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


def _from_stand(middle: float, gap: float, stance: float) -> tuple[float, float]:
    """When a foot leaves a stand and when it comes down `gap` cycles on, at the swing speed of a steady walk."""
    lift = middle + max(_REST, stance * (gap - 0.5))
    return lift, max(middle + gap - stance / 2, lift + (1 - stance) * gap)


@dataclass(frozen=True)
class Feet:
    """The feet of some legs at rest, one a row, each about the point of the ground below its ankle; x forward, y down, (k, 1) in px.

    ankle: how high the ankle is.
    ball, heel: how far forward the ends of the sole are.
    """

    ankle: Array
    ball: Array
    heel: Array

    @classmethod
    def of(cls, legs: Sequence[Limb]) -> "Feet":
        """The feet of legs whose figure stands at y = 0."""
        (x, ankle), (tip, _) = joint_at_rest(legs, 2), joint_at_rest(legs, 3)
        return cls(ankle, tip - x, -_HEEL * (tip - x))


@dataclass(frozen=True)
class FootfallRows:
    """The footfalls of some legs one after the other, so that all legs are read at once: s places in all.

    middles, arrives, leaves: as of Footfalls, (s,).
    come: (s,) when the foot has come down on each place; of the first of a leg, the middle.
    lift: (s,) when it leaves each; of the last of a leg, the middle.
    first, last: (k,) each leg's first place and its last.
    land: by leg, as of Footfalls.
    """

    middles: Array
    arrives: Array
    leaves: Array
    come: Array
    lift: Array
    first: NDArray[np.intp]
    last: NDArray[np.intp]
    land: tuple[Array, ...]

    @classmethod
    def of(cls, legs: Sequence[Footfalls]) -> "FootfallRows":
        """Of at least one leg."""
        counts = np.array([len(one.middles) for one in legs])
        last = np.cumsum(counts) - 1
        return cls(
            np.concatenate([one.middles for one in legs]),
            np.concatenate([one.arrives for one in legs]),
            np.concatenate([one.leaves for one in legs]),
            np.concatenate([part for one in legs for part in (one.middles[:1], one.land)]),
            np.concatenate([part for one in legs for part in (one.lift, one.middles[-1:])]),
            last - counts + 1,
            last,
            tuple(one.land for one in legs),
        )

    def at(self, phase: Array) -> "Tread":
        """Where the feet are in their steps at phases (n,)."""
        place = np.stack([np.searchsorted(land, phase, side="right") for land in self.land]) + self.first[:, None]
        after = np.minimum(place + 1, self.last[:, None])
        # Before the first place and after the last a foot stays where it is.
        come, lift = self.come.copy(), self.lift.copy()
        come[self.first] = np.minimum(come[self.first], phase.min(initial=0.0))
        lift[self.last] = np.maximum(lift[self.last], phase.max(initial=0.0)) + 1e-9
        begun, over = come[place], lift[place]
        down = phase <= over
        start, end = np.where(down, begun, over), np.where(down, over, come[after])
        return Tread(place, after, down, np.clip((phase - start) / np.maximum(end - start, 1e-9), 0, 1))


@dataclass(frozen=True)
class Tread:
    """Where some feet are in their steps, one a row, (k, n).

    place, after: the place each foot is on or leaves, and the next one, counted through all legs.
    down: whether it is on the ground.
    share: how far its stance is, or else its swing, 0…1.
    """

    place: NDArray[np.intp]
    after: NDArray[np.intp]
    down: NDArray[np.bool_]
    share: Array


@dataclass(frozen=True)
class Footing:
    """Positions of feet, one per row, (k, n).

    x: where each stands, or how far it has been carried.
    ahead: how far ahead of that its ankle is.
    y: the height of its ankle.
    turn: how it is turned, in degrees.
    slack: by how many px it may be out of reach.
    """

    x: Array
    ahead: Array
    y: Array
    turn: Array
    slack: Array


def rolled(feet: Feet, tread: Tread, arrives: Array, leaves: Array, roll: Array, way: int) -> tuple[Array, Array]:
    """How feet are rolled, toes down with more, in degrees, and about which x of their soles: (k, n) each.

    `arrives` and `leaves` say how much each rolls onto the place it is on (or comes to) and off the one it is on (or leaves). Walking backwards
    is walking forwards seen backwards.
    """
    u = tread.share if way > 0 else 1 - tread.share
    begin, end = (arrives, leaves) if way > 0 else (leaves, arrives)
    up, off = -_TOES_UP * roll * begin, roll * end
    # Two turns, one after the other: in stance the toes come down, then the heel lifts; in swing the heel comes back, then the toes go up.
    first = smooth(u / np.where(tread.down, FLAT, 0.5))
    second = smooth(np.where(tread.down, (u - HEEL_OFF) / (1 - HEEL_OFF), (u - 0.45) / 0.55))
    turn = np.where(tread.down, up, off) * (1 - first) + np.where(tread.down, off, up) * second
    forward = np.where(tread.down, u > (FLAT + HEEL_OFF) / 2, 1 - smooth(u))
    return turn, feet.heel + (feet.ball - feet.heel) * forward


def ankle(feet: Feet, angle: Array, roll: Array, about: Array) -> tuple[Array, Array]:
    """Where ankles are from the points of the ground their feet are on, (k, n) each; the ground tilted by `angle`, feet rolled about `about`."""
    a, r = np.radians(angle), np.radians(roll)
    cos, sin = np.cos(r), np.sin(r)
    rx, ry = about - cos * about - sin * feet.ankle, cos * feet.ankle - sin * about
    cos, sin = np.cos(a), np.sin(a)
    return cos * rx - sin * ry, sin * rx + cos * ry


def footing(feet: Feet, steps: FootfallRows, tread: Tread, style: Style, size: Array, way: int, px: Array, py: Array, tilt: Array) -> Footing:
    """Where feet are in their steps: the places of all legs are at px, py, tilted by `tilt` degrees, (s,) each."""
    place, after, down, share = tread.place, tread.after, tread.down, tread.share
    far = np.where(down, 0.0, carried(share))
    x, y, angle = ((at[place] + (at[after] - at[place]) * far) for at in (px, py, tilt))
    arrives = steps.arrives[np.where(down, place, after)]
    roll, about = rolled(feet, tread, arrives, steps.leaves[place], style.roll, way)
    dx, dy = ankle(feet, angle, roll, about)
    gap = steps.middles[after] - steps.middles[place]
    high = np.where(down, 0.0, raised(share) * np.minimum(gap, 1.0))
    slack = np.where(down, 0.0, _SLACK * np.minimum(smooth(share * 8), 0.8 * (1 - share)))
    return Footing(x, dx, y + size * (dy - style.lift * high), angle + roll, slack)


def carried(w: Array) -> Array:
    """How far along a swinging foot is, 0…1: a cycloid, at rest at both ends."""
    return np.asarray(w - np.sin(2 * np.pi * w) / (2 * np.pi))


def raised(w: Array) -> Array:
    """How high a swinging foot is, as a share of the lift; highest a little before half-way, when the leg is bent most."""
    return np.asarray(np.sin(np.pi * w**0.85) ** 2)


def smooth(u: Array) -> Array:
    """0 up to 0, 1 from 1 on, without a corner."""
    u = np.minimum(np.maximum(u, 0), 1)
    return np.asarray(u * u * (3 - 2 * u))
