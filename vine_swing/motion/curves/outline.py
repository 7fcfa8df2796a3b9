"""An outline: straight lines and cubic Bézier curves, the one form every shape is painted from.

Page and export paint the same verbs and points, so they cannot disagree about a shape.
"""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

MOVE, LINE, CUBIC, CLOSE = range(4)
#: How many points each verb takes.
POINTS_TAKEN = (1, 1, 3, 0)
#: The handle length that makes a cubic follow a quarter of a circle within 0.03 % of its radius.
QUARTER = 4 / 3 * (np.sqrt(2) - 1)


@dataclass(frozen=True, eq=False)
class Outline:
    """`verbs`: one byte each (MOVE, LINE, CUBIC, CLOSE). `points`: float64 (m, 2), in the order the verbs take them."""

    verbs: bytes
    points: Array

    def segments(self) -> Iterator[tuple[int, Array]]:
        """Each verb, in order, with the points (0, 1 or 3, 2) it takes."""
        at = 0
        for verb in self.verbs:
            yield verb, self.points[at : at + POINTS_TAKEN[verb]]
            at += POINTS_TAKEN[verb]

    def bounds(self) -> tuple[float, float, float, float]:
        """left, top, right, bottom of all points (control points included); zeros for an empty outline."""
        if not len(self.points):
            return 0.0, 0.0, 0.0, 0.0
        low, high = self.points.min(axis=0), self.points.max(axis=0)
        return float(low[0]), float(low[1]), float(high[0]), float(high[1])

    def extent(self) -> tuple[float, float, float, float]:
        """left, top, right, bottom of what is drawn, exactly: of curves, not of their control points. Zeros for an empty outline."""
        if not len(self.points):
            return 0.0, 0.0, 0.0, 0.0
        on = [self.points[0]]
        curves: list[Array] = []
        for verb, used in self.segments():
            if verb == CUBIC:
                curves.append(np.vstack([on[-1], used]))
            if len(used):
                on.append(used[-1])
        points = np.vstack([*on, *_turning_points(np.stack(curves))] if curves else on)
        low, high = points.min(axis=0), points.max(axis=0)
        return float(low[0]), float(low[1]), float(high[0]), float(high[1])

    def lines(self, *, parts: int = 16) -> list[Array]:
        """Its lines and curves as polylines, (k, 2) each; every curve is cut into this many parts."""
        result: list[list[Array]] = []
        share = np.linspace(0, 1, parts + 1)[1:, None]
        for verb, used in self.segments():
            if verb == MOVE or not result:
                result.append([used[:1]])
            elif verb == LINE:
                result[-1].append(used)
            elif verb == CUBIC:
                a, (b, c, d) = result[-1][-1][-1], used
                result[-1].append((1 - share) ** 3 * a + 3 * (1 - share) ** 2 * share * b + 3 * (1 - share) * share**2 * c + share**3 * d)
            else:
                result[-1].append(result[-1][0][:1])
        return [np.concatenate(line) for line in result]


def _turning_points(curves: Array) -> Array:
    """The points of cubics (k, 4, 2) at which x or y turns round, (m, 2): where the derivative, a quadratic, is 0."""
    p0, p1, p2, p3 = (curves[:, n] for n in range(4))
    a, b, c = p3 - 3 * p2 + 3 * p1 - p0, 2 * (p2 - 2 * p1 + p0), p1 - p0
    with np.errstate(divide="ignore", invalid="ignore"):
        root = np.sqrt(b * b - 4 * a * c)
        # The numerically stable pair of roots, which holds where a is 0 too.
        q = -0.5 * (b + np.where(b < 0, -1.0, 1.0) * root)
        both = np.stack([q / a, c / q])
    roots = np.where((both > 0) & (both < 1), both, 0.0)
    t = roots[..., None]
    w0, w1, w2, w3 = (1 - t) ** 3, 3 * (1 - t) ** 2 * t, 3 * (1 - t) * t**2, t**3
    at = w0 * p0[None, :, None] + w1 * p1[None, :, None] + w2 * p2[None, :, None] + w3 * p3[None, :, None]
    result: Array = at.reshape(-1, 2)
    return result


#: What has nothing to draw.
NOTHING = Outline(b"", np.empty((0, 2)))


class OutlineBuilder:
    """Collects verbs and points."""

    def __init__(self) -> None:
        self._verbs = bytearray()
        self._points: list[tuple[float, float]] = []

    def move(self, x: float, y: float) -> None:
        """Begin a contour at a point."""
        self._add(MOVE, (x, y))

    def line(self, x: float, y: float) -> None:
        """A straight line to a point."""
        self._add(LINE, (x, y))

    def cubic(self, *points: tuple[float, float]) -> None:
        """A cubic by two control points and its end."""
        self._add(CUBIC, *points)

    def close(self) -> None:
        """Close the contour."""
        self._add(CLOSE)

    def done(self) -> Outline:
        """The outline of all that was added."""
        return Outline(bytes(self._verbs), np.array(self._points, dtype=float).reshape(-1, 2))

    def _add(self, verb: int, *points: tuple[float, float]) -> None:
        self._verbs.append(verb)
        self._points.extend(points)
