"""From the channels of a figure's joints to the matrices of its bones.

The matrix of a bone takes what was drawn on it, where the figure rests, to where it is: T(joint now) · R(turned by) · T(−joint at rest). So at
rest all of them are the identity, and the children of a bone keeps its place and its own pivot. `facing` mirrors the whole of it: x
is multiplied by it, about the figure's origin.

    hips ─ spine.1 ─ … ─ spine.m = chest ─ head.1 ─ …        limbs and chains are attached to hips or chest
"""

from collections.abc import Mapping, Sequence
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.values import Point
from vine_swing.motion.figure.channels import FACING, LIMB_CHANNELS
from vine_swing.motion.figure.limb import joint_at_rest, solve
from vine_swing.motion.figure.model import HEAD, HIPS, SPINE, Figure, Limb

Array = NDArray[np.float64]
#: The bones of a limb, from its root on, as they are named after its id.
_BONES = ("upper", "lower", "end")


class Body:
    """Hips and chest of a figure over time: what its limbs and chains are attached to. Matrices are (n, 6) or (1, 6)."""

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

    def bases(self, limbs: Sequence[Limb]) -> Array:
        """What each of some limbs is attached to, (k, n, 6) or (k, 1, 6)."""
        # Filled row by row, here and below: stacking what was broadcast takes NumPy ten times as long for rows so short.
        bases = [self.base(one.at) for one in limbs]
        found = np.empty((len(limbs), max(map(len, bases)), 6))
        for row, base in zip(found, bases, strict=True):
            row[:] = base
        return found


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
    # Limbs are computed together, those that move apart from those that do not, and those that reach apart from those that hang.
    groups: dict[tuple[int, bool], list[Limb]] = {}
    for one in figure.limbs:
        own = [channels[f"{one.id}.{name}"] for name in LIMB_CHANNELS if name != "free"]
        frames = max(len(body.base(one.at)), *(len(values) for values in own))
        groups.setdefault((frames, bool(channels[f"{one.id}.reach"].any())), []).append(one)
    limbs = {name: bone for (frames, reaches), some in groups.items() for name, bone in _limbs(some, frames, reaches, body, channels).items()}
    found |= {name: limbs[name] for one in figure.limbs for name in (f"{one.id}.{word}" for word in _BONES)}
    for chain in figure.chains:
        above = body.base(chain.at)
        for n, joint in enumerate(chain.joints[:-1], start=1):
            above = matrix.multiply(above, turned(channels[f"{chain.id}.{n}"], joint))
            found[f"{chain.id}.{n}"] = above
    facing = channels[FACING]
    if (facing == 1).all():
        return found
    zero = np.zeros(1)
    return carried_by(matrix.columns(facing, zero, zero, np.ones(1), zero, zero), found)


def carried_by(carrier: Array, named: Mapping[str, Array]) -> dict[str, Array]:
    """carrier · each of some matrices, by their names; the carrier is (n, 6) or (1, 6), and so is each of them."""
    return dict(zip(named, matrix.products([carrier] * len(named), list(named.values())), strict=True))


def directions(joints: Sequence[Point]) -> list[float]:
    """The direction of every bone between joints at rest, in degrees clockwise from the right."""
    return [float(np.degrees(np.arctan2(b[1] - a[1], b[0] - a[0]))) for a, b in pairwise(joints)]


def _limbs(limbs: Sequence[Limb], frames: int, reaches: bool, body: Body, channels: Mapping[str, Array]) -> dict[str, Array]:
    """The matrices (n, 6) of the three bones of some limbs, by name; n is `frames`."""

    def rows(name: str) -> Array:
        found = np.empty((len(limbs), frames))
        for row, one in zip(found, limbs, strict=True):
            row[:] = channels[f"{one.id}.{name}"]
        return found

    bases = body.bases(limbs)
    root = matrix.apply(bases, *joint_at_rest(limbs, 0))
    # Forward: every bone turns on the one before it.
    upper = np.degrees(np.arctan2(bases[..., 1], bases[..., 0])) + rows("upper")
    lower = upper + rows("lower")
    tip = lower + rows("end")
    if reaches:
        reach = np.clip(rows("reach"), 0.0, 1.0)
        end_x, end_y = joint_at_rest(limbs, 2)
        place = np.stack([end_x + rows("x"), end_y + rows("y")], axis=-1)
        lengths = np.array([one.bone_lengths for one in limbs])
        rest, bend = np.array([directions(one.joints) for one in limbs]), np.array([[one.bend] for one in limbs])
        solved = solve(root, place, lengths[:, :1], lengths[:, 1:], bend)
        # A foot or hand that reaches keeps its own direction in the figure's space, whatever the limb does.
        upper, lower, tip = (
            turn + reach * _nearest(wanted - turn)
            for turn, wanted in ((upper, solved[0] - rest[:, :1]), (lower, solved[1] - rest[:, 1:2]), (tip, rows("end")))
        )
    found: dict[str, Array] = {}
    at = root
    for n, (word, turn) in enumerate(zip(_BONES, (upper, lower, tip), strict=True)):
        bone = _placed(at, turn, *joint_at_rest(limbs, n))
        found |= zip((f"{one.id}.{word}" for one in limbs), bone, strict=True)
        at = matrix.apply(bone, *joint_at_rest(limbs, n + 1))
    return found


def _nearest(turn: Array) -> Array:
    """The same turn the short way round, within ±180°."""
    return np.asarray((turn + 180.0) % 360.0 - 180.0)


def _moved(x: Array, y: Array) -> Array:
    one, zero = np.ones(1), np.zeros(1)
    return matrix.columns(one, zero, zero, one, x, y)


def turned(angle: Array, about: Point) -> Array:
    """R(angle) about a point; angle (n,) or (1,) in degrees."""
    x, y = np.array([about[0]]), np.array([about[1]])
    return _placed(np.array([about]), angle, x, y)


def _placed(at: Array, angle: Array, x: Array, y: Array) -> Array:
    """T(at) · R(angle) · T(−x, −y); `at` (n, 2) or (1, 2), or a stack of these, (k, n, 2), with angles (k, n) and x and y (k, 1)."""
    turn = np.radians(angle)
    cos, sin = np.cos(turn), np.sin(turn)
    return matrix.columns(cos, sin, -sin, cos, at[..., 0] - cos * x + sin * y, at[..., 1] - sin * x - cos * y)
