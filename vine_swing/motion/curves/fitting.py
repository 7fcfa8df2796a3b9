"""Cubics through places that a hand went, as few as keep within a tolerance.

P. J. Schneider, "An algorithm for automatically fitting digitized curves" (Graphics Gems, 1990): least squares for the handles' lengths with the
tangents given, better parameters by Newton's method, and where that is not enough, cut at the place that lies farthest off.
"""

from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.curves.contours import Contour, joined
from vine_swing.motion.curves.outline import Outline

Array = NDArray[np.float64]
#: A hand turns round a corner where the way turns by more than this, in degrees, within some px to both sides.
_CORNER, _REACH = 55.0, 6.0
#: How often parameters are improved before a curve is cut.
_ROUNDS = 8
#: With this many times the tolerance, improving parameters is worth a try.
_HOPEFUL = 6.0


def fitted(places: Array, tolerance: float, *, closed: bool = False) -> Outline:
    """The outline of cubics that passes every one of some places (n, 2) within `tolerance` px.

    A closed one comes back to the first place. Places that are on one another count once; of a single place an outline without any curve is made.
    """
    stored = np.concatenate([[True], np.abs(np.diff(places, axis=0)).max(axis=1) > 1e-9]) if len(places) else np.empty(0, bool)
    direction = places[stored]
    if closed and len(direction) > 2 and np.hypot(*(direction[0] - direction[-1])) > 1e-9:
        direction = np.vstack([direction, direction[:1]])
    if len(direction) < 2:
        return Outline(b"", np.empty((0, 2)))
    breaks = [0, *_corners(direction), len(direction) - 1]
    pieces: list[Array] = []
    for start, end in pairwise(breaks):
        run = direction[start : end + 1]
        begin, finish = _tangent(run, tolerance), _tangent(run[::-1], tolerance)
        if closed and len(breaks) == 2 and not _is_corner(direction, 0):
            # Without any corner it goes through its first place smoothly.
            begin = _unit(direction[1] - direction[-2])
            finish = -begin
        pieces += _cubics(run, begin, finish, tolerance)
    verbs, points = joined([Contour(np.stack(pieces)[None], np.array([_is_straight(piece) for piece in pieces]), closed)])
    return Outline(verbs, points[0])


def _is_straight(piece: Array) -> bool:
    chord = piece[3] - piece[0]
    length = float(np.hypot(*chord))
    if length == 0:
        return True
    offset = piece[1:3] - piece[0]
    aside = np.abs(offset[:, 0] * chord[1] - offset[:, 1] * chord[0]) / length
    along = (offset @ chord) / length**2
    return bool(aside.max() < 1e-6 and along.min() >= 0 and along.max() <= 1)


def _corners(direction: Array) -> list[int]:
    """The places at which the hand went round a corner, the sharpest of those near one another."""
    turns = np.array([_turn(direction, n) for n in range(1, len(direction) - 1)])
    result: list[int] = []
    for n in np.argsort(-turns, kind="stable").tolist():
        if turns[n] < _CORNER:
            break
        if all(np.hypot(*(direction[n + 1] - direction[other])) > _REACH for other in result):
            result.append(n + 1)
    return sorted(result)


def _is_corner(direction: Array, at: int) -> bool:
    """Whether a closed way has a corner where it begins and ends."""
    around = np.vstack([direction[-1 - min(len(direction) - 2, 40) : -1], direction[: min(len(direction), 40)]])
    return _turn(around, min(len(direction) - 2, 40)) > _CORNER


def _turn(direction: Array, at: int) -> float:
    """By how many degrees a way turns at a place, seen from a few px before to a few px behind."""
    here = direction[at]
    before = next((direction[n] for n in range(at - 1, -1, -1) if np.hypot(*(direction[n] - here)) >= _REACH), direction[0])
    behind = next((direction[n] for n in range(at + 1, len(direction)) if np.hypot(*(direction[n] - here)) >= _REACH), direction[-1])
    a, b = here - before, behind - here
    return float(abs(np.degrees(np.arctan2(a[0] * b[1] - a[1] * b[0], a @ b))))


def _unit(direction: Array) -> Array:
    length = float(np.hypot(*direction))
    return direction / length if length > 0 else np.array([1.0, 0.0])


def _tangent(run: Array, tolerance: float) -> Array:
    """The direction in which some places set out: to the first that is farther than what the hand trembles."""
    reach = max(2 * tolerance, 1e-6)
    far = next((place for place in run[1:] if np.hypot(*(place - run[0])) >= reach), run[-1])
    return _unit(far - run[0])


def _cubics(run: Array, begin: Array, finish: Array, tolerance: float) -> list[Array]:
    """Cubics (4, 2) through a run of places, leaving along `begin` and arriving against `finish`."""
    # Halves wait on a list and not on the call stack: a scribble of thousands of places would overflow it.
    result: list[Array] = []
    waiting = [(run, begin, finish)]
    while waiting:
        places, leave, arrive = waiting.pop()
        piece, split = _one(places, leave, arrive, tolerance)
        if split is None:
            result.append(piece)
            continue
        middle = _unit(places[split - 1] - places[split + 1])
        waiting += [(places[split:], -middle, arrive), (places[: split + 1], leave, middle)]
    return result


def _one(places: Array, leave: Array, arrive: Array, tolerance: float) -> tuple[Array, int | None]:
    """The best cubic for some places, and where to cut them if it is not good enough."""
    if len(places) == 2:
        third = float(np.hypot(*(places[1] - places[0]))) / 3
        return np.array([places[0], places[0] + leave * third, places[1] + arrive * third, places[1]]), None
    steps = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(places, axis=0).T))])
    u = steps / steps[-1]
    for _ in range(_ROUNDS):
        piece = _least_squares(places, u, leave, arrive)
        off = np.hypot(*(_at(piece, u) - places).T)
        worst = int(np.argmax(off))
        if off[worst] <= tolerance:
            return piece, None
        if off[worst] > _HOPEFUL * tolerance:
            break
        u = _improved(piece, places, u)
    return piece, min(max(worst, 1), len(places) - 2)


def _at(piece: Array, u: Array) -> Array:
    w = 1 - u
    result: Array = (w**3)[:, None] * piece[0] + (3 * w**2 * u)[:, None] * piece[1] + (3 * w * u**2)[:, None] * piece[2] + (u**3)[:, None] * piece[3]
    return result


def _least_squares(places: Array, u: Array, leave: Array, arrive: Array) -> Array:
    w = 1 - u
    b1, b2 = 3 * w**2 * u, 3 * w * u**2
    first, last = places[0], places[-1]
    rest = places - ((w**3 + b1)[:, None] * first + (b2 + u**3)[:, None] * last)
    a, b = b1[:, None] * leave, b2[:, None] * arrive
    c11, c12, c22 = float((a * a).sum()), float((a * b).sum()), float((b * b).sum())
    x1, x2 = float((a * rest).sum()), float((b * rest).sum())
    determinant = c11 * c22 - c12 * c12
    chord = float(np.hypot(*(last - first)))
    near = max(chord, 1e-9) * 1e-6
    left = right = chord / 3
    if abs(determinant) > 1e-12:
        left, right = (x1 * c22 - x2 * c12) / determinant, (c11 * x2 - c12 * x1) / determinant
        if left < near or right < near or max(left, right) > 4 * max(chord, float(np.ptp(places, axis=0).max())):
            # Handles that would point backwards or run away: a third of the chord, as Wu and Barsky advise.
            left = right = chord / 3
    return np.array([first, first + leave * left, last + arrive * right, last])


def _improved(piece: Array, places: Array, u: Array) -> Array:
    """Parameters nearer to the places, by one step of Newton's method; they stay in order."""
    first = 3 * np.diff(piece, axis=0)
    second = 2 * np.diff(first, axis=0)
    w = 1 - u
    at = _at(piece, u) - places
    speed = (w**2)[:, None] * first[0] + (2 * w * u)[:, None] * first[1] + (u**2)[:, None] * first[2]
    bend = w[:, None] * second[0] + u[:, None] * second[1]
    down = (speed * speed).sum(axis=1) + (at * bend).sum(axis=1)
    step = np.divide((at * speed).sum(axis=1), down, out=np.zeros_like(u), where=np.abs(down) > 1e-12)
    return np.maximum.accumulate(np.clip(u - step, 0, 1))
