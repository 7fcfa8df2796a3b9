"""Outlines as hands see them: joints with handles, and what can be done to them.

A joint is a point the outline passes, with a handle on either side, or none where a straight line comes or goes. Joints are counted through all
contours, as they are drawn.
"""

from collections.abc import Callable, Collection, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

import numpy as np

from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.curves.contours import Contour, contours_of, joined, sections
from vine_swing.motion.curves.outline import Outline

Point = tuple[float, float]
#: Handles that turn against each other by less than this, in degrees, make a joint smooth.
_SMOOTH = 0.5
_NEAR = 1e-6


@dataclass(frozen=True)
class Joint:
    """A point with the control points before and after it; None where a straight line arrives or leaves."""

    at: Point
    into: Point | None = None
    out: Point | None = None

    @property
    def is_smooth(self) -> bool:
        """Whether the outline goes on through it without a corner."""
        if self.into is None or self.out is None:
            return False
        a, b = np.subtract(self.at, self.into), np.subtract(self.out, self.at)
        return bool(abs(np.degrees(np.arctan2(a[0] * b[1] - a[1] * b[0], a @ b))) < _SMOOTH)

    def moved(self, dx: float, dy: float) -> "Joint":
        """The joint with its handles, moved."""

        def one(point: Point | None) -> Point | None:
            return None if point is None else (point[0] + dx, point[1] + dy)

        return Joint((self.at[0] + dx, self.at[1] + dy), one(self.into), one(self.out))

    def swapped(self) -> "Joint":
        """Return the joint of the reversed contour."""
        return Joint(self.at, self.out, self.into)


@dataclass(frozen=True)
class Strand:
    """One contour as joints."""

    joints: tuple[Joint, ...]
    closed: bool

    @property
    def pieces(self) -> int:
        """How many lines and curves it has."""
        return len(self.joints) if self.closed else len(self.joints) - 1


def strands_of(outline: Outline) -> list[Strand]:
    """The contours of an outline as joints."""
    return [_strand(item) for item in contours_of(outline.verbs, outline.points[None])]


def joint_count(outline: Outline) -> int:
    """How many joints an outline has, in all its contours."""
    return sum(item.joints.shape[1] for item in contours_of(outline.verbs, outline.points[None]))


def outline_of(strands: Sequence[Strand]) -> Outline:
    """The outline of some contours; those of a single joint are left out."""
    verbs, points = joined([_contour(strand) for strand in strands if strand.pieces > 0 and len(strand.joints) > 1])
    return Outline(verbs, points[0])


def _strand(contour: Contour) -> Strand:
    pieces, straight = contour.pieces[0], contour.straight
    count = len(pieces)
    joints = []
    for n in range(count if contour.closed else count + 1):
        before, here = n - 1 if n else (count - 1 if contour.closed else None), n if n < count else None
        at = pieces[here][0] if here is not None else pieces[-1][3]
        into = _handle(pieces[before][2], at, bool(straight[before])) if before is not None else None
        out = _handle(pieces[here][1], at, bool(straight[here])) if here is not None else None
        joints.append(Joint(_point(at), into, out))
    return Strand(tuple(joints), contour.closed)


def _handle(point: np.ndarray, at: np.ndarray, straight: bool) -> Point | None:
    return None if straight or float(np.hypot(*(point - at))) < _NEAR else _point(point)


def _point(point: np.ndarray) -> Point:
    return float(point[0]), float(point[1])


def _contour(strand: Strand) -> Contour:
    joints = [*strand.joints, strand.joints[0]] if strand.closed else list(strand.joints)
    pieces, straight = [], []
    for item, other in pairwise(joints):
        line = item.out is None and other.into is None
        a, b = np.array(item.at), np.array(other.at)
        handles = (a + (b - a) / 3, a + (b - a) * (2 / 3)) if line else (np.array(item.out or item.at), np.array(other.into or other.at))
        pieces.append(np.array([a, *handles, b]))
        straight.append(line)
    return Contour(np.array(pieces)[None], np.array(straight, bool), strand.closed)


def changed(outline: Outline, change: Callable[[int, Joint, Strand], Joint]) -> Outline:
    """The outline with each joint changed, by its number."""
    result, number = [], 0
    for strand in strands_of(outline):
        joints = []
        for joint in strand.joints:
            joints.append(change(number, joint, strand))
            number += 1
        result.append(replace(strand, joints=tuple(joints)))
    return outline_of(result)


def moved(outline: Outline, numbers: Collection[int], dx: float, dy: float) -> Outline:
    """Some joints moved, with their handles."""
    _check(outline, numbers)
    picked = set(numbers)
    return changed(outline, lambda n, joint, _: joint.moved(dx, dy) if n in picked else joint)


def with_handle(outline: Outline, number: int, side: str, to: Point | None, *, broken: bool) -> Outline:
    """A handle of a joint (`in` or `out`) put elsewhere, or taken away. The other one turns with it, unless they are `broken` apart."""
    _check(outline, [number])

    def one(n: int, joint: Joint, strand: Strand) -> Joint:
        if n != number:
            return joint
        other = joint.into if side == "out" else joint.out
        if not broken and to is not None and other is not None:
            length = float(np.hypot(*np.subtract(other, joint.at)))
            direction = np.subtract(joint.at, to)
            reach = float(np.hypot(*direction))
            if reach > 0:
                other = _point(np.asarray(joint.at) + direction * (length / reach))
        return Joint(joint.at, other, to) if side == "out" else Joint(joint.at, to, other)

    return changed(outline, one)


def smoothed(outline: Outline, numbers: Collection[int]) -> Outline:
    """Joints made smooth: their handles are in line with both neighbours, a third of the way to each."""
    _check(outline, numbers)
    picked, begin = set(numbers), 0
    result = []
    for strand in strands_of(outline):
        count = len(strand.joints)
        joints = list(strand.joints)
        for n, joint in enumerate(strand.joints):
            if begin + n not in picked or joint.is_smooth:
                continue
            before = strand.joints[n - 1] if n or strand.closed else None
            after = strand.joints[(n + 1) % count] if n + 1 < count or strand.closed else None
            a, b = np.array((before or joint).at), np.array((after or joint).at)
            direction = b - a
            length = float(np.hypot(*direction))
            if length == 0:
                continue
            at, unit = np.array(joint.at), direction / length
            into = _point(at - unit * float(np.hypot(*(at - a))) / 3) if before is not None else None
            out = _point(at + unit * float(np.hypot(*(b - at))) / 3) if after is not None else None
            joints[n] = Joint(joint.at, into, out)
        result.append(replace(strand, joints=tuple(joints)))
        begin += count
    return outline_of(result)


def cornered(outline: Outline, numbers: Collection[int]) -> Outline:
    """Joints made corners: without handles."""
    _check(outline, numbers)
    picked = set(numbers)
    return changed(outline, lambda n, joint, _: Joint(joint.at) if n in picked else joint)


def with_joint(outline: Outline, piece: int, share: float) -> Outline:
    """One more joint on a line or curve, which keeps its look. Pieces are counted as joints are: by the joint they leave.

    Raises:
        MotionError: if the piece does not exist.
    """
    result, begin, done = [], 0, False
    for contour in contours_of(outline.verbs, outline.points[None]):
        count = contour.joints.shape[1]
        here = piece - begin
        if 0 <= here < len(contour.straight):
            item = contour.pieces[:, here : here + 1]
            cut = np.array([[share]])
            halves = np.concatenate([sections(item, np.zeros((1, 1)), cut), sections(item, cut, np.ones((1, 1)))], axis=1)
            pieces = np.concatenate([contour.pieces[:, :here], halves, contour.pieces[:, here + 1 :]], axis=1)
            contour, done = Contour(pieces, np.insert(contour.straight, here, contour.straight[here]), contour.closed), True
        result.append(contour)
        begin += count
    if not done:
        raise MotionError(f"there is no line or curve that leaves point {piece + 1}; choose one that is there")
    verbs, points = joined(result)
    return Outline(verbs, points[0])


def without(outline: Outline, numbers: Collection[int]) -> Outline:
    """Some joints removed; lines and curves go on from the one before to the one after.

    Raises:
        MotionError: if nothing would be left to draw.
    """
    _check(outline, numbers)
    picked, begin, result = set(numbers), 0, []
    for strand in strands_of(outline):
        stored = tuple(joint for n, joint in enumerate(strand.joints) if begin + n not in picked)
        if not strand.closed and stored:
            # The ends of an open contour have one handle only.
            stored = (replace(stored[0], into=None), *stored[1:-1], replace(stored[-1], out=None)) if len(stored) > 1 else ()
        begin += len(strand.joints)
        if len(stored) > 1:
            result.append(replace(strand, joints=stored))
    if not result:
        raise MotionError("that would leave nothing to draw; an outline needs two points at least, so delete the object instead")
    return outline_of(result)


def cut_open(outline: Outline, number: int) -> Outline:
    """An outline cut at a joint: a closed contour opens there, an open one becomes two.

    Raises:
        MotionError: at the end of an open contour, where nothing exists to cut.
    """
    _check(outline, [number])
    result, begin = [], 0
    for strand in strands_of(outline):
        here, count = number - begin, len(strand.joints)
        begin += count
        if not 0 <= here < count:
            result.append(strand)
        elif strand.closed:
            turned = (*strand.joints[here:], *strand.joints[:here])
            first = turned[0]
            result.append(Strand((replace(first, into=None), *turned[1:], Joint(first.at, first.into, None)), False))
        elif here in (0, count - 1):
            raise MotionError("the outline ends at this point already; cut it at another")
        else:
            joint = strand.joints[here]
            result.append(Strand((*strand.joints[:here], replace(joint, out=None)), False))
            result.append(Strand((replace(joint, into=None), *strand.joints[here + 1 :]), False))
    return outline_of(result)


def ends_joined(outline: Outline, item: int, other: int) -> Outline:
    """Two ends joined by a straight line, or made one point where they meet: those of one contour close it, those of two make it one.

    Raises:
        MotionError: if either is not the end of an open contour.
    """
    _check(outline, [item, other])
    strands, begin = strands_of(outline), 0
    places: dict[int, tuple[int, bool]] = {}
    for index, strand in enumerate(strands):
        count = len(strand.joints)
        if not strand.closed:
            places[begin], places[begin + count - 1] = (index, True), (index, False)
        begin += count
    for number in (item, other):
        if number not in places:
            raise MotionError(f"point {number + 1} is no end of an open outline; pick two ends, or cut it open there first")
    (first, first_begins), (second, second_begins) = places[item], places[other]
    if item == other:
        raise MotionError("an end cannot be joined to itself; pick two ends")
    if first == second:
        joints = strands[first].joints
        if _together(joints[0].at, joints[-1].at) and len(joints) > 2:
            joints = (replace(joints[0], into=joints[-1].into), *joints[1:-1])
        closed = Strand(joints, True)
        return outline_of([closed if n == first else strand for n, strand in enumerate(strands)])
    a = _reversed(strands[first]).joints if first_begins else strands[first].joints
    b = strands[second].joints if second_begins else _reversed(strands[second]).joints
    joints = (*a[:-1], Joint(a[-1].at, a[-1].into, b[0].out), *b[1:]) if _together(a[-1].at, b[0].at) else (*a, *b)
    low = min(first, second)
    rest = [Strand(joints, False) if n == low else strand for n, strand in enumerate(strands) if n == low or n not in (first, second)]
    return outline_of(rest)


def _together(a: Point, b: Point) -> bool:
    return float(np.hypot(*np.subtract(a, b))) < 1e-3


def _reversed(strand: Strand) -> Strand:
    return Strand(tuple(joint.swapped() for joint in reversed(strand.joints)), strand.closed)


def way_reversed(outline: Outline) -> Outline:
    """Return the outline reversed: each contour from the same first joint if it is closed, from its last if it is open."""
    result = []
    for strand in strands_of(outline):
        turned = _reversed(strand)
        # Reversed, the first joint of a closed contour would come last.
        result.append(replace(turned, joints=(turned.joints[-1], *turned.joints[:-1])) if strand.closed else turned)
    return outline_of(result)


def begun_at(outline: Outline, number: int) -> Outline:
    """The outline with another first point: of a closed contour any joint, of an open one its other end. Its contour is drawn first.

    Raises:
        MotionError: in the middle of an open contour.
    """
    _check(outline, [number])
    begin = 0
    strands = strands_of(outline)
    for index, strand in enumerate(strands):
        here, count = number - begin, len(strand.joints)
        begin += count
        if not 0 <= here < count:
            continue
        if strand.closed:
            first = replace(strand, joints=(*strand.joints[here:], *strand.joints[:here]))
        elif here == count - 1:
            first = _reversed(strand)
        elif here == 0:
            first = strand
        else:
            raise MotionError("an open outline begins at one of its ends; pick an end, or close it first")
        return outline_of([first, *strands[:index], *strands[index + 1 :]])
    raise AssertionError("the number was checked")


def _check(outline: Outline, numbers: Collection[int]) -> None:
    count = joint_count(outline)
    for number in numbers:
        if not 0 <= number < count:
            raise MotionError(f"there is no point {number + 1}; this outline has {count}, so it may have been changed meanwhile")
