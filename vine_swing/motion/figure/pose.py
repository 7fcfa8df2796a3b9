"""From the channels of a figure's joints to the matrices of its bones.

The matrix of a bone takes what was drawn on it, where the figure rests, to where it is: T(joint now) · R(turned by) · T(−joint at rest). So at
rest all of them are the identity, and what hangs on a bone keeps its place and its own pivot. `facing` mirrors the whole of it: x
is multiplied by it, about the figure's origin.

    hips ─ spine.1 ─ … ─ spine.m = chest ─ head.1 ─ …        limbs and chains hang on hips or chest
"""

from collections.abc import Mapping, Sequence
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.values import Point
from vine_swing.motion.figure import limb as limbs
from vine_swing.motion.figure.channels import FACING
from vine_swing.motion.figure.model import HEAD, HIPS, SPINE, Figure, Limb, distance

Array = NDArray[np.float64]


class Body:
    """Hips and chest of a figure over time: what its limbs and chains hang on. Matrices are (n, 6) or (1, 6)."""

    def __init__(self, figure: Figure, channels: Mapping[str, Array]) -> None:
        """`channels`: arrays (n,) or (1,) of hips.x, hips.y, hips.turn and spine.turn."""
        hips = figure.spine[0]
        moved = _moved(channels[f"{HIPS}.x"], channels[f"{HIPS}.y"])
        self.hips = matrix.multiply(moved, turned(channels[f"{HIPS}.turn"], hips))
        self.spine: list[Array] = []
        above = self.hips
        each = channels[f"{SPINE}.turn"] / (len(figure.spine) - 1)
        for joint in figure.spine[:-1]:
            above = matrix.multiply(above, turned(each, joint))
            self.spine.append(above)

    def base(self, at: str) -> Array:
        """The matrix of the hips, or of the chest."""
        return self.hips if at == HIPS else self.spine[-1]


def bones(figure: Figure, channels: Mapping[str, Array]) -> dict[str, Array]:
    """The matrix of every bone in the figure's own space, by its name, (n, 6) or (1, 6) each.

    Args:
        figure: the figure.
        channels: arrays (n,) or (1,) of all its joints' channels.
    """
    body = Body(figure, channels)
    found = {HIPS: body.hips} | {f"{SPINE}.{n}": one for n, one in enumerate(body.spine, start=1)}
    above = body.spine[-1]
    for n, joint in enumerate((figure.spine[-1], *figure.head)[:-1], start=1):
        above = matrix.multiply(above, turned(channels[f"{HEAD}.turn"] / len(figure.head), joint))
        found[f"{HEAD}.{n}"] = above
    for one in figure.limbs:
        found |= _limb(one, body.base(one.at), channels)
    for chain in figure.chains:
        above = body.base(chain.at)
        for n, joint in enumerate(chain.joints[:-1], start=1):
            above = matrix.multiply(above, turned(channels[f"{chain.id}.{n}"], joint))
            found[f"{chain.id}.{n}"] = above
    facing = channels[FACING]
    if (facing == 1).all():
        return found
    zero = np.zeros(1)
    mirror = matrix.columns(facing, zero, zero, np.ones(1), zero, zero)
    return {name: matrix.multiply(mirror, one) for name, one in found.items()}


def directions(joints: Sequence[Point]) -> list[float]:
    """The direction of every bone between joints at rest, in degrees clockwise from the right."""
    return [float(np.degrees(np.arctan2(b[1] - a[1], b[0] - a[0]))) for a, b in pairwise(joints)]


def _limb(one: Limb, base: Array, channels: Mapping[str, Array]) -> dict[str, Array]:
    """The matrices of a limb's three bones."""
    root, middle, end, _ = one.joints
    rest = directions(one.joints)
    reach = np.clip(channels[f"{one.id}.reach"], 0.0, 1.0)
    begin = matrix.apply(base, np.array([root[0]]), np.array([root[1]]))
    # Forward: every bone turns on the one before it.
    base_turn = np.degrees(np.arctan2(base[:, 1], base[:, 0]))
    upper = base_turn + channels[f"{one.id}.upper"]
    lower = upper + channels[f"{one.id}.lower"]
    tip = lower + channels[f"{one.id}.end"]
    if reach.any():
        place = np.stack(np.broadcast_arrays(end[0] + channels[f"{one.id}.x"], end[1] + channels[f"{one.id}.y"]), axis=-1)
        solved = limbs.solve(begin, place, distance(root, middle), distance(middle, end), one.bend)
        # A foot or hand that reaches keeps its own direction in the figure's space, whatever the limb does.
        upper, lower, tip = (
            a + reach * _nearest(b - a) for a, b in ((upper, solved[0] - rest[0]), (lower, solved[1] - rest[1]), (tip, channels[f"{one.id}.end"]))
        )
    found = {}
    at = begin
    for word, turn, (start, stop) in zip(("upper", "lower", "end"), (upper, lower, tip), pairwise(one.joints), strict=True):
        bone = _placed(at, turn, start)
        found[f"{one.id}.{word}"] = bone
        at = matrix.apply(bone, np.array([stop[0]]), np.array([stop[1]]))
    return found


def _nearest(turn: Array) -> Array:
    """The same turn the short way round, within ±180°."""
    return np.asarray((turn + 180.0) % 360.0 - 180.0)


def _moved(x: Array, y: Array) -> Array:
    one, zero = np.ones(1), np.zeros(1)
    return matrix.columns(one, zero, zero, one, x, y)


def turned(angle: Array, about: Point) -> Array:
    """R(angle) about a point; angle (n,) or (1,) in degrees."""
    return _placed(np.array([about]), angle, about)


def _placed(at: Array, angle: Array, rest: Point) -> Array:
    """T(at) · R(angle) · T(−rest); `at` (n, 2) or (1, 2)."""
    turn = np.radians(angle)
    cos, sin = np.cos(turn), np.sin(turn)
    return matrix.columns(cos, sin, -sin, cos, at[:, 0] - cos * rest[0] + sin * rest[1], at[:, 1] - sin * rest[0] - cos * rest[1])
