"""A figure's walk: planned once over the whole scene, then read at any frames.

Everything is worked out in the space the figure moves in (its parent's, or the picture), where a planted foot stays put, and brought into the
figure's own space last, through the inverse of its matrix. In a stretch where it faces left that space is mirrored, so that forward is
always +x.

The hips go up and down with the steps, lowest in `down` and highest in `up`. Where a leg could not get to its foot they
are lowered, by no more than it takes.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cache, cached_property, lru_cache

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics import matrix
from vine_swing.motion.figure import footfalls
from vine_swing.motion.figure.channels import FACING
from vine_swing.motion.figure.footfalls import Foot, Footfalls, footing, smooth
from vine_swing.motion.figure.ground import Ground
from vine_swing.motion.figure.hips import beats, rise
from vine_swing.motion.figure.limb import SOFT
from vine_swing.motion.figure.model import HEAD, HIPS, SPINE, Figure, Limb, distance
from vine_swing.motion.figure.pose import Body
from vine_swing.motion.figure.style import Style, phases
from vine_swing.motion.figure.way import Stretch, analysed, stretches

Array = NDArray[np.float64]
#: Slopes are taken over this share of a foot to both sides, and the hips follow the ground evened out over this share of a stride.
_EVEN = 0.3
#: How much shorter steps get on slopes: by this share of the sine of the angle.
_SHORTER = 0.3
#: Cycles over which walking comes on after a stand and goes before one; and over which the hips sink for it.
_SETTLE, _SINK = 0.5, 0.2
#: Planted feet keep this share of the reach at which a limb begins to give, and the hips are lowered softly within so many px of it.
_SAFE, _SOFTLY = 0.998, 0.6
#: Further apart than about this many px the softening is gone.
_FAR = 3.0
#: What is left to spare of a leg on level ground, as a share of it.
_SPARE = 0.02
#: How far, as shares of the leg, the hips sink with `knee` and with `weight`.
_KNEE, _WEIGHT = 0.25, 0.03
#: No stride is shorter than this, in px.
_LEAST = 1e-3
#: Where settings change, the hips' mean height is worked out at so many frames over the scene.
_SAMPLED = 65


@dataclass(frozen=True)
class Given:
    """What a walk is made from.

    matrix: the figure's matrix (n, 6) at frames t (n,), in the space it moves in.
    style: the settings of its gait at frames t (n,).
    facing: the way its keys have it face at frames t (n,), 1 or −1.
    ground: what it walks on, in the space it moves in; None for the way it goes itself.
    """

    figure: Figure
    order: str
    turns_round: bool
    phase: float
    treadmill: float | None
    length: int
    matrix: Callable[[Array], Array]
    style: Callable[[Array], Style]
    facing: Callable[[Array], Array]
    ground: Ground | None


class Walk:
    """The walk of one figure."""

    def __init__(self, given: Given) -> None:
        self.given = given
        self._feet = {leg.id: Foot.of(leg) for leg in given.figure.legs}
        ahead = phases(given.figure, given.order)
        self._middle = {one: (max(ahead.values(), default=0.0) - a) % 1.0 or 1.0 for one, a in ahead.items()}
        groups = sorted(set(self._middle.values()))
        self._turn = {one: (groups.index(m), len(groups)) for one, m in self._middle.items()}
        self.groups = max(len(groups), 1)
        legs = given.figure.legs
        self._lead = next((leg.id for leg in legs if leg.side == "near"), legs[0].id if legs else None)
        #: By how much the phase of the leading leg, which counts from its landing, differs from that of the walk.
        self._ahead = -self._middle[self._lead] if self._lead else 0.0
        self._start = given.phase - self._ahead - float(self.stance_at(np.zeros(1))[0]) / 2
        self.steps: list[Steps] = []
        for walked in self.walked:
            self.steps.append(Steps(self, walked, self.steps[-1] if self.steps else None))

    @property
    def landing(self) -> float:
        """The phase of the walk at which its leading foot lands, 0…0.5; of legs that take turns, one lands every half cycle from there."""
        stance = float(np.mean(self.stance_at(np.zeros(1))))
        return (-self._ahead - stance / 2) % 0.5

    @property
    def starting(self) -> float:
        """The phase at frame 0 of a walk that comes from beyond, were its setting `phase` 0."""
        return self._start - self.given.phase

    # -- the plan

    @cached_property
    def _frames(self) -> Array:
        return analysed(self.given.length)

    @cached_property
    def _usual(self) -> Style:
        """The settings over the whole plan; means are taken of these, never of the frames that happen to be read."""
        return self.given.style(self._frames)

    def stance_at(self, t: Array) -> Array:
        """The stance share at frames t (n,), as planned."""
        stance = self._usual.stance
        return np.asarray(np.interp(t, self._frames, stance) if len(stance) > 1 else np.full_like(t, stance[0]))

    @cached_property
    def _reach(self) -> float:
        """How far to both sides the ground is evened out for the hips, in px."""
        return _EVEN * float(np.mean(self._usual.stride * _size(self.given.matrix(self._frames))))

    @cached_property
    def walked(self) -> "list[Walked]":
        """The stretches walked, each with what of the plan it needs."""
        if self.given.treadmill is not None:
            return []
        frames = self._frames
        m, style = self.given.matrix(frames), self._usual
        x, y, size = m[:, 4], m[:, 5], _size(m)
        # What is flattened to nothing takes no steps that could be counted.
        worth = size
        if self.given.ground is not None:
            y = self.given.ground.even(x, self._reach)
            steep = self.given.ground.slope(x, max(self._reach, _LEAST))
            worth = size * (1 - _SHORTER * np.abs(steep) / np.hypot(1, steep))
        stride = np.maximum(np.broadcast_to(style.stride * worth, frames.shape), _LEAST)
        dx, dy = np.diff(x, prepend=x[0]), np.diff(y, prepend=y[0])
        gone = np.cumsum(np.sign(dx) * np.hypot(dx, dy))
        found: list[Walked] = []
        for one in stretches(frames, gone, stride, self._start):
            here = slice(*np.searchsorted(frames, (one.frames[0], one.frames[-1] + 1e-9)))
            drawn = float(np.sign(self.given.facing(one.frames[:1])[0]) or 1.0)
            sense = float(_sense(m[here.start : here.start + 1])[0])
            turn = one.sign * sense if self.given.turns_round else 1.0
            facing = drawn * sense * turn
            found.append(Walked(one, facing, turn, x[here], y[here], size[here], worth[here], float(stride.mean())))
        return found

    def _index(self, t: Array) -> NDArray[np.intp]:
        """Which stretch frames (n,) belong to: the last begun, or the first."""
        begins = np.array([one.stretch.frames[0] for one in self.walked])
        return np.asarray(np.maximum(np.searchsorted(begins, t, side="right") - 1, 0))

    # -- reading it

    def phase_at(self, t: Array, *, over: float = _SETTLE) -> tuple[Array, Array]:
        """At frames t (n,): the cycles gone, and how much it walks, 0 at a stand, 1 from `over` cycles after it to as many before the next."""
        if self.given.treadmill is not None:
            return (t % self.given.treadmill) / self.given.treadmill + self._start, np.ones_like(t)
        phase, walking = np.zeros_like(t), np.zeros_like(t)
        if not self.walked:
            return phase, walking
        which = self._index(t)
        for n in np.unique(which):
            here = which == n
            one = self.walked[n].stretch
            phase[here] = one.phase_at(t[here])
            on = np.minimum(
                phase[here] / over if one.begins else 1.0,
                (one.total - phase[here]) / over if one.ends else 1.0,
            )
            walking[here] = smooth(np.asarray(on))
        return phase, walking

    def facing_at(self, t: Array) -> Array:
        """1 or −1 at frames t (n,): what the gait makes of the way its keys have it face."""
        if not self.given.turns_round or not self.walked:
            return np.ones_like(t)
        return np.asarray(np.array([one.turn for one in self.walked])[self._index(t)])

    def _forward(self, t: Array) -> Array:
        """The way it faces in the space it moves in, at frames t (n,), as it was planned: 1 to the right, or −1."""
        if self.walked:
            return np.asarray(np.array([one.facing for one in self.walked])[self._index(t)])
        return np.full_like(t, self._stands)

    @cached_property
    def _stands(self) -> float:
        """The way it faces where it never walks anywhere."""
        begin = np.zeros(1)
        return float(_sense(self.given.matrix(begin))[0] * (np.sign(self.given.facing(begin)[0]) or 1.0))

    def at(self, t: Array) -> dict[str, Array]:
        """What the gait adds to each channel of the figure's joints at frames t (n,)."""
        style = self.given.style(t)
        phase, walking = self.phase_at(t)
        found = self._body(t, style, phase, walking)
        m = self.given.matrix(t)
        facing = self.given.facing(t) * self.facing_at(t)
        back = matrix.home(m)
        forward = self._forward(t)
        feet, ground = self._planted(t, style, phase, m)
        own = {leg: _own(back, facing, where) for leg, (where, _, _) in feet.items()}
        base = _own(back, facing, ground)
        found[f"{HIPS}.x"] = base[:, 0]
        found[f"{HIPS}.y"] = found[f"{HIPS}.y"] + base[:, 1]
        for leg in self.given.figure.legs:
            rest = leg.joints[2]
            found[f"{leg.id}.x"], found[f"{leg.id}.y"] = own[leg.id][:, 0] - rest[0], own[leg.id][:, 1] - rest[1]
            found[f"{leg.id}.end"] = _own_turn(back, facing, forward, feet[leg.id][1])
        found[f"{HIPS}.y"] = self._lowered(found, {leg: one[2] for leg, one in feet.items()}, own)
        return {name: values * style.share for name, values in found.items()} | {FACING: self.facing_at(t)}

    def _body(self, t: Array, style: Style, phase: Array, walking: Array) -> dict[str, Array]:
        """Hips, back, arms, head and tails over a level ground; all that hangs on drags behind by `overlap` frames and more."""
        figure, stance = self.given.figure, style.stance
        step = phase + self._ahead + stance / 2
        sunk = np.broadcast_to(self._sunk(t), t.shape) + figure.leg_length * (_KNEE * style.knee + _WEIGHT * style.weight)
        up_down = rise(step, style, self.groups)
        wave = np.cos(2 * np.pi * beats(self.groups) * (step - stance / 4))
        found = {f"{HIPS}.y": self.phase_at(t, over=_SINK)[1] * sunk + walking * up_down, f"{HIPS}.turn": walking * style.sway * wave}
        found[f"{SPINE}.turn"] = walking * (style.lean - 1.3 * style.sway * wave)
        late = float(np.mean(self._usual.overlap))
        # What it did some frames ago, by how many times the overlap; most of a body shares these.
        ago = cache(lambda times: self.phase_at(t - late * times))
        if figure.head:
            then, going = ago(1)
            nod = np.cos(2 * np.pi * beats(self.groups) * (then - phase + step - stance / 4))
            found[f"{HEAD}.turn"] = going * (-0.75 * style.lean + 0.8 * style.sway * nod + 0.12 * style.bob * nod)
        for arm in (limb for limb in figure.limbs if limb.kind == "arm"):
            found |= self._arm(arm, style, step - phase, ago)
        for chain in figure.chains:
            links = len(chain.joints) - 1
            for n in range(1, links + 1):
                then, going = ago(n + 1)
                swing = np.cos(2 * np.pi * beats(self.groups) * (then + step - phase - stance / 4))
                found[f"{chain.id}.{n}"] = going * style.tail * swing / links**0.5
        return found

    def _arm(self, arm: Limb, style: Style, ahead: Array, ago: Callable[[int], tuple[Array, Array]]) -> dict[str, Array]:
        """An arm swings against the leg of its side; the forearm comes after the upper arm, the hand after that."""
        side = 0.0 if arm.side == "near" else 0.5
        turns = [np.cos(2 * np.pi * (ago(n)[0] + ahead + side)) for n in range(3)]
        first, swing = ago(0)[1], style.arm_swing
        return {
            f"{arm.id}.upper": first * (swing * turns[0] - 0.15 * style.elbow),
            # The elbow bends one way only: most when the arm is in front.
            f"{arm.id}.lower": -first * (style.elbow + swing * 0.45 * (1 - turns[1])),
            f"{arm.id}.end": first * swing * 0.3 * turns[2],
        }

    # -- the feet

    def _planted(self, t: Array, style: Style, phase: Array, m: Array) -> tuple[dict[str, tuple[Array, Array, Array]], Array]:
        """Of every leg where its ankle is (n, 2), how its foot is turned in degrees, and how free it is to be out of reach in px, (n,);
        and the place on the ground under the body (n, 2). All in the space the figure moves in, turns in the mirrored one."""
        if self.given.treadmill is not None:
            return self._on_the_spot(style, phase, m), m[:, 4:6]
        ground = self._under(m)
        if not self.walked:
            return self._standing(t, m), ground
        which = self._index(t)
        found = {leg.id: (np.empty((len(t), 2)), np.empty(len(t)), np.empty(len(t))) for leg in self.given.figure.legs}
        size = _size(m)
        for n in np.unique(which):
            here = np.flatnonzero(which == n)
            for leg, parts in self.steps[n].at(phase[here], style.at(here), size[here]).items():
                for whole, part in zip(found[leg], parts, strict=True):
                    whole[here] = part
        return found, ground

    def _under(self, m: Array) -> Array:
        """The place on the ground under the body."""
        if self.given.ground is None:
            return m[:, 4:6]
        return np.stack([m[:, 4], self.given.ground.even(m[:, 4], self._reach)], axis=-1)

    def _standing(self, t: Array, m: Array) -> dict[str, tuple[Array, Array, Array]]:
        """Feet where the figure stands and never walks."""
        begin = self.given.matrix(np.array([0.0]))
        facing = self._stands
        size, x, y = float(_size(begin)[0]), float(begin[0, 4]) * facing, float(begin[0, 5])
        found = {}
        for leg in self.given.figure.legs:
            px, py, angle = self.place(leg, x, y, 0.0, facing, size)
            dx, dy = footfalls.ankle(self._feet[leg.id], np.array([angle]), np.zeros(1), np.zeros(1))
            ankle = np.array([[facing * (px + size * float(dx[0])), py + size * float(dy[0])]])
            found[leg.id] = (np.repeat(ankle, len(t), axis=0), np.full(len(t), angle), np.zeros(len(t)))
        return found

    def _on_the_spot(self, style: Style, phase: Array, m: Array) -> dict[str, tuple[Array, Array, Array]]:
        """Feet on a ground that runs away below: the body's way is counted in strides, and only what is between it and the feet matters."""
        found = {}
        facing = self._stands
        size = _size(m)
        whole = np.floor(phase)
        at = phase - whole
        for leg in self.given.figure.legs:
            # Feet are where they would be in a walk without a beginning.
            steps = self._endless(leg, float(np.mean(self._usual.stance)))
            level = np.zeros_like(steps.middles)
            (x, dx), dy, angle, free = footing(self._feet[leg.id], steps, at, style, size, 1, steps.middles, level, level)
            ahead = (x - at) * style.stride * size + size * (leg.joints[2][0] + dx)
            found[leg.id] = (np.stack([m[:, 4] + facing * ahead, m[:, 5] + dy], axis=-1), angle, free)
        return found

    def _endless(self, leg: Limb, stance: float) -> Footfalls:
        """The footfalls of a leg about the cycle 0…1 of a walk without an end."""
        phase = np.array([-3.0, 3.0])
        return self.footfalls(leg, Stretch(phase, phase, 1, False, False), stance)

    def footfalls(self, leg: Limb, stretch: Stretch, stance: float) -> Footfalls:
        """The footfalls of a leg in a stretch that neither begins nor ends, with one stance share throughout."""
        return Footfalls.planned(stretch, self._middle[leg.id] % 1.0, stance, (0, 1))

    def endless_stretch(self) -> Stretch:
        """On the spot, the walk that goes on through the whole scene, as a stretch."""
        assert self.given.treadmill is not None
        cycles = float(np.ceil((self.given.length - 1) / self.given.treadmill)) + 2
        phase = np.array([-2.0, cycles]) + self._start
        return Stretch((phase - self._start) * self.given.treadmill, phase, 1, False, False)

    @property
    def mean_stance(self) -> float:
        """The stance share, on average over the scene."""
        return float(np.mean(self._usual.stance))

    def place(self, leg: Limb, x: float, y: float, steep: float, facing: float, size: float) -> tuple[float, float, float]:
        """Where a foot is set down when the body is at (x, y) in the mirrored space, on a way as steep as `steep`: x, y, and its tilt."""
        foot = self._feet[leg.id]
        ahead = leg.joints[2][0] * size
        if self.given.ground is None:
            length = float(np.hypot(1, steep))
            return x + ahead / length, y + ahead * steep / length, float(np.degrees(np.arctan(steep)))
        px = x + ahead
        heel, ball = px + foot.heel * size, px + foot.ball * size
        low, high = self.given.ground.height(facing * np.array([heel, ball]))
        tilt = float(np.degrees(np.arctan2(high - low, ball - heel))) if ball != heel else 0.0
        # Both ends of the sole lie on the ground, whatever is between them.
        return px, float(low + (high - low) * (px - heel) / (ball - heel)) if ball != heel else float(low), tilt

    def _lowered(self, found: Mapping[str, Array], free: Mapping[str, Array], own: Mapping[str, Array]) -> Array:
        """How far down the hips are where every planted foot can be reached, softly."""
        figure = self.given.figure
        down = found[f"{HIPS}.y"]
        body = Body(figure, {**found, f"{HIPS}.y": np.zeros(1)})
        for leg in figure.legs:
            root, middle, end, _ = leg.joints
            at = matrix.apply(body.base(leg.at), np.array([root[0]]), np.array([root[1]]))
            reach = _SAFE * SOFT * (distance(root, middle) + distance(middle, end))
            across = np.minimum(np.abs(own[leg.id][:, 0] - at[:, 0]), reach * 0.95)
            least = own[leg.id][:, 1] - np.sqrt(reach**2 - across**2) - at[:, 1] - free[leg.id]
            down = _soft_maximum(down, least)
        return down

    def _sunk(self, t: Array) -> Array:
        """How much lower than at rest the hips have to be on average for the strides taken, in px, at frames t (n,): (1,) or (n,)."""
        frames, sunk = self._sinking
        return np.asarray(np.interp(t, frames, sunk)) if len(sunk) > 1 else sunk

    @cached_property
    def _sinking(self) -> tuple[Array, Array]:
        """As `_sunk`, at some frames; one where nothing of the style changes."""
        some = np.linspace(0, len(self._frames) - 1, _SAMPLED).astype(int)
        frames, style = self._frames[some], self._usual.at(some)
        figure, order = self.given.figure, self.given.order
        if style.is_steady:
            return frames[:1], np.array([_sinking(figure, order, tuple(float(getattr(style, name)[0]) for name in Style.names()))])
        rows = np.stack([np.broadcast_to(getattr(style, name), frames.shape) for name in Style.names()], axis=-1)
        # Between its keys a style stays as it is.
        distinct, which = np.unique(rows, axis=0, return_inverse=True)
        sunk = [_sinking(figure, order, tuple(row)) for row in distinct.tolist()]
        return frames, np.array(sunk)[which.reshape(-1)]


@dataclass(frozen=True)
class Walked:
    """A stretch, the way it faces, whether the gait has turned it round for that (−1), and where the body is and how large at its frames (m,),
    in the space it moves in."""

    stretch: Stretch
    facing: float
    turn: float
    x: Array
    y: Array
    size: Array
    #: How many px there one px of the setting `stride` is, (m,): its size, and less on a slope.
    worth: Array
    stride: float


class Steps:
    """The footfalls of all legs in one stretch, with their places in its mirrored space."""

    def __init__(self, walk: Walk, walked: Walked, before: "Steps | None") -> None:
        """`before` are the steps of the stretch before: where they end, these begin."""
        given, stretch = walk.given, walked.stretch
        self._walk, self._way = walk, int(stretch.sign * walked.facing)
        self._facing = walked.facing
        stance = walk.stance_at(stretch.frames)
        self.of: dict[str, Footfalls] = {}
        self._places: dict[str, tuple[Array, Array, Array]] = {}
        for leg in given.figure.legs:
            steps = Footfalls.planned(stretch, walk._middle[leg.id] % 1.0, stance, walk._turn[leg.id])
            self.of[leg.id] = steps
            x = np.interp(steps.frames, stretch.frames, walked.x)
            y = np.interp(steps.frames, stretch.frames, walked.y)
            # Beyond what is looked at, the way goes on straight.
            x = x + stretch.sign * walked.stride * (steps.middles - stretch.phase_at(steps.frames))
            ahead = np.interp(steps.frames + 0.5, stretch.frames, walked.x) - np.interp(steps.frames - 0.5, stretch.frames, walked.x)
            above = np.interp(steps.frames + 0.5, stretch.frames, walked.y) - np.interp(steps.frames - 0.5, stretch.frames, walked.y)
            steep = np.divide(above, ahead, out=np.zeros_like(above), where=np.abs(ahead) > 1e-9) * walked.facing
            sizes = np.interp(steps.frames, stretch.frames, walked.size)
            there = zip((x * walked.facing).tolist(), y.tolist(), steep.tolist(), sizes.tolist(), strict=True)
            rows = [walk.place(leg, a, b, s, walked.facing, k) for a, b, s, k in there]
            places = np.array(rows).reshape(-1, 3).T
            if before is not None and before._facing == self._facing and stretch.begins:
                places[:, 0] = [one[-1] for one in before._places[leg.id]]
            self._places[leg.id] = (places[0], places[1], places[2])

    def at(self, phase: Array, style: Style, size: Array) -> dict[str, tuple[Array, Array, Array]]:
        """As Walk._planted, at phases (n,) of this stretch."""
        found = {}
        for leg, steps in self.of.items():
            px, py, tilt = self._places[leg]
            (x, dx), y, angle, free = footing(self._walk._feet[leg], steps, phase, style, size, self._way, px, py, tilt)
            if self._walk.given.ground is not None:
                y = y + self._over(leg, steps, phase)
            found[leg] = (np.stack([self._facing * (x + size * dx), y], axis=-1), angle, free)
        return found

    def _over(self, leg: str, steps: Footfalls, phase: Array) -> Array:
        """How much higher or lower than the straight way between its places the ground below a swinging foot is, (n,)."""
        ground = self._walk.given.ground
        assert ground is not None
        px, _, _ = self._places[leg]
        place, down, share = steps.down(phase)
        after = np.minimum(place + 1, len(px) - 1)
        way = np.where(down, 0.0, footfalls.carried(share))

        def even(x: Array) -> Array:
            return ground.even(self._facing * x, self._walk._reach / 2)

        here = px[place] + (px[after] - px[place]) * way
        return np.asarray(np.where(down, 0.0, even(here) - (1 - way) * even(px[place]) - way * even(px[after])))


@lru_cache(maxsize=4096)
def _sinking(figure: Figure, order: str, settings: tuple[float, ...]) -> float:
    """How far the hips have to sink in a steady walk on level ground so that every planted foot is within reach, by all settings of the style."""
    style = Style(*np.array(settings)[:, None])
    level = Given(figure, order, False, 0.0, 1.0, 1, lambda t: np.tile([1.0, 0, 0, 1, 0, 0], (len(t), 1)), lambda t: style, np.ones_like, None)
    walk = Walk(level)
    at = np.arange(48) / 48
    up_down = rise(at + walk._ahead + style.stance / 2, style, walk.groups)
    most = 0.0
    for leg in figure.legs:
        steps = walk._endless(leg, float(np.mean(style.stance)))
        flat = np.zeros_like(steps.middles)
        (x, dx), dy, _, free = footing(walk._feet[leg.id], steps, at, style, np.ones(1), 1, steps.middles, flat, flat)
        root, knee, end, _ = leg.joints
        reach = _SAFE * SOFT * (distance(root, knee) + distance(knee, end)) - _SPARE * figure.leg_length
        across = np.minimum(np.abs((x - at) * style.stride + end[0] + dx - root[0]), reach * 0.95)
        least = np.where(free > 0, -np.inf, dy - np.sqrt(reach**2 - across**2) - root[1])
        most = max(most, float(np.max(least - up_down)))
    return most


def _soft_maximum(a: Array, b: Array) -> Array:
    """The larger of two numbers without a corner where they are alike.

    max(a, b) = (a + b + |a − b|)/2, with √(d² + ε²) in place of |d|. Here ε is `_SOFTLY` px and dies down as a Gaussian of d over `_FAR` px: numbers
    that are clearly apart give the very larger one, and only where they meet is the result up to ε/2 above both.
    """
    apart = a - b
    return np.asarray((a + b + np.sqrt(apart**2 + _SOFTLY**2 * np.exp(-((apart / _FAR) ** 2)))) / 2)


def _own(back: Array, facing: Array, where: Array) -> Array:
    """Places (n, 2) of the space a figure moves in, in its own, (n, 2)."""
    found = matrix.apply(back, where[:, 0], where[:, 1])
    found[:, 0] *= facing
    return found


def _own_turn(back: Array, facing: Array, forward: Array, turn: Array) -> Array:
    """Turns (n,) of the space a figure moves in, told in the way it faces there, as turns in its own space; in degrees."""
    a = np.radians(turn)
    x, y = forward * np.cos(a), np.sin(a)
    own = np.degrees(np.arctan2(back[:, 1] * x + back[:, 3] * y, facing * (back[:, 0] * x + back[:, 2] * y)))
    return np.asarray(turn + (own - turn + 180) % 360 - 180)


def _sense(m: Array) -> Array:
    """−1 where a figure is drawn mirrored, by its matrices (n, 6), else 1."""
    return np.where(m[:, 0] * m[:, 3] - m[:, 1] * m[:, 2] < 0, -1.0, 1.0)


def _size(m: Array) -> Array:
    """How large a figure is drawn, from its matrices (n, 6)."""
    return np.sqrt(np.abs(m[:, 0] * m[:, 3] - m[:, 1] * m[:, 2]))
