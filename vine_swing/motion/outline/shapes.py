"""The outline of each type of shape, from the values of its own channels. All lie about (0, 0), y down."""

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.curves.outline import CLOSE, CUBIC, LINE, MOVE, NOTHING, QUARTER, Outline, OutlineBuilder

Array = NDArray[np.float64]
#: Cubics of a fine ellipse.
_FINE_PIECES = 32


def ellipse(*, width: float, height: float) -> Outline:
    """Four cubics, clockwise from the right."""
    return _rounded(width / 2, height / 2, width / 2, height / 2)


def fine_ellipse(*, width: float, height: float) -> Outline:
    """As `ellipse`, of this many cubics that it is one within a billionth of its size."""
    turn = np.arange(_FINE_PIECES + 1) / _FINE_PIECES * 2 * np.pi
    at = np.stack([np.cos(turn), np.sin(turn)], axis=1)
    # The last point is exactly the first, without rounding.
    at[-1] = at[0]
    reach = 4 / 3 * np.tan(np.pi / _FINE_PIECES / 2)
    way = reach * np.stack([-at[:, 1], at[:, 0]], axis=1)
    curves = np.stack([at[:-1] + way[:-1], at[1:] - way[1:], at[1:]], axis=1).reshape(-1, 2)
    half = np.array([width, height]) / 2
    return Outline(bytes([MOVE, *[CUBIC] * _FINE_PIECES, CLOSE]), np.concatenate([at[:1], curves]) * half)


def rectangle(*, width: float, height: float, roundness: float) -> Outline:
    """Corners rounded by a share of half the shorter side; 0 is sharp."""
    w, h = width / 2, height / 2
    radius = float(np.clip(roundness, 0, 1)) * min(w, h)
    if radius > 0:
        return _rounded(w, h, radius, radius)
    return _corners(np.array([(-w, -h), (w, -h), (w, h), (-w, h)]))


def polygon(*, width: float, height: float, points: float) -> Outline:
    """This many corners, a whole number, spread evenly clockwise from the top."""
    n = int(points)
    return _corners(_on_ellipse(width, height, np.arange(n) / n))


def star(*, width: float, height: float, points: float, inner: float) -> Outline:
    """As a polygon, with a corner at the share `inner` of the way out between each two."""
    n, share = int(points), float(np.clip(inner, 0, 1))
    corners = _on_ellipse(width, height, np.arange(2 * n) / (2 * n))
    corners[1::2] *= share
    return _corners(corners)


def line(*, end_x: float, end_y: float) -> Outline:
    """A straight line from (0, 0); one without length is not drawn, as some painters would put a dot there and others nothing."""
    if end_x == 0 and end_y == 0:
        return NOTHING
    builder = OutlineBuilder()
    builder.move(0, 0)
    builder.line(end_x, end_y)
    return builder.done()


#: Each shape type with the function that draws it and the channels it is drawn from, in the function's words.
DRAWN: dict[str, tuple[Callable[..., Outline], dict[str, str]]] = {
    "ellipse": (ellipse, {"width": "width", "height": "height"}),
    "rectangle": (rectangle, {"width": "width", "height": "height", "roundness": "roundness"}),
    "polygon": (polygon, {"width": "width", "height": "height", "points": "points"}),
    "star": (star, {"width": "width", "height": "height", "points": "points", "inner": "inner"}),
    "line": (line, {"end.x": "end_x", "end.y": "end_y"}),
}


#: Shapes that can be drawn more finely than they are painted.
FINE: dict[str, tuple[Callable[..., Outline], dict[str, str]]] = {"ellipse": (fine_ellipse, {"width": "width", "height": "height"})}


def _on_ellipse(width: float, height: float, turns: Array) -> Array:
    """The points (n, 2) of an ellipse at some turns (n,), clockwise from its top."""
    angle = 2 * np.pi * turns - np.pi / 2
    return np.stack([width / 2 * np.cos(angle), height / 2 * np.sin(angle)], axis=1)


def _corners(corners: Array) -> Outline:
    """The closed outline of straight lines through some points (n, 2)."""
    return Outline(bytes([MOVE, *[LINE] * (len(corners) - 1), CLOSE]), corners)


def _rounded(w: float, h: float, rx: float, ry: float) -> Outline:
    """A rectangle of half sizes w, h with elliptic corners rx, ry; an ellipse where they fill the sides."""
    kx, ky = rx * (1 - QUARTER), ry * (1 - QUARTER)
    builder = OutlineBuilder()
    builder.move(w, h - ry)
    for x, y, turned in ((w, h, False), (-w, h, True), (-w, -h, False), (w, -h, True)):
        sx, sy = np.sign(x) * 1.0, np.sign(y) * 1.0
        upright = ((x, y - sy * ky), (x - sx * kx, y), (x - sx * rx, y))
        level = ((x - sx * kx, y), (x, y - sy * ky), (x, y - sy * ry))
        begin = (x - sx * rx, y) if turned else (x, y - sy * ry)
        builder.line(*begin)
        builder.cubic(*(level if turned else upright))
    builder.close()
    return builder.done()
