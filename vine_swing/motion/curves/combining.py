"""Outlines united, cut out of one another, and lines made outlines, by Skia's path operations."""

from collections.abc import Sequence
from typing import Literal

import numpy as np
import skia
from numpy.typing import NDArray

from vine_swing.motion.curves.contours import area, contours_of, joined
from vine_swing.motion.curves.outline import CLOSE, CUBIC, LINE, MOVE, Outline, OutlineBuilder

Array = NDArray[np.float64]
How = Literal["unite", "cut-out", "overlap", "exclude"]
HOW: dict[How, skia.PathOp] = {
    "unite": skia.PathOp.kUnion_PathOp,
    "cut-out": skia.PathOp.kDifference_PathOp,
    "overlap": skia.PathOp.kIntersect_PathOp,
    "exclude": skia.PathOp.kXOR_PathOp,
}
_CAPS = {"round": skia.Paint.kRound_Cap, "butt": skia.Paint.kButt_Cap, "square": skia.Paint.kSquare_Cap}
_JOINS = {"round": skia.Paint.kRound_Join, "miter": skia.Paint.kMiter_Join, "bevel": skia.Paint.kBevel_Join}
#: Skia counts in single precision; what is worked on is made this many times larger first, so that small shapes keep their curves.
_SCALE = 8.0


def combined(outlines: Sequence[Outline], how: How) -> Outline:
    """One outline of several: all of them, the first without the others, what all share, or what an odd number of them covers. All are closed."""
    path = skia_path(outlines[0], _SCALE)
    for other in outlines[1:]:
        path = skia.Op(path, skia_path(other, _SCALE), HOW[how])
    return _outline(path)


def of_line(outline: Outline, width: float, cap: str = "round", join: str = "round", dash: Sequence[float] = (), offset: float = 0.0) -> Outline:
    """The outline of a line along an outline, `width` px wide, with caps, joins and dashes as SVG calls them."""
    paint = skia.Paint(Style=skia.Paint.kStroke_Style, StrokeWidth=width * _SCALE, StrokeCap=_CAPS[cap], StrokeJoin=_JOINS[join], StrokeMiter=10)
    if dash:
        even = [*dash] if len(dash) % 2 == 0 else [*dash, *dash]
        paint.setPathEffect(skia.DashPathEffect.Make([item * _SCALE for item in even], offset * _SCALE))
    drawn = skia.Path()
    paint.getFillPath(skia_path(outline, _SCALE), drawn)
    return _outline(skia.Simplify(drawn))


def skia_path(outline: Outline, scale: float = 1.0) -> skia.Path:
    """An outline as Skia takes it, this many times as large."""
    path = skia.Path()
    for verb, points in outline.segments():
        used = (points * scale).reshape(-1).tolist()
        if verb == MOVE:
            path.moveTo(*used)
        elif verb == LINE:
            path.lineTo(*used)
        elif verb == CUBIC:
            path.cubicTo(*used)
        elif verb == CLOSE:
            path.close()
    return path


def _outline(path: skia.Path) -> Outline:
    builder = OutlineBuilder()
    segments = skia.Path.Iter(path, False)
    while (result := segments.next())[0] != skia.Path.kDone_Verb:
        verb, points = result
        xy = [(point.fX / _SCALE, point.fY / _SCALE) for point in points]
        if verb == skia.Path.kMove_Verb:
            builder.move(*xy[0])
        elif verb == skia.Path.kLine_Verb:
            builder.line(*xy[1])
        elif verb == skia.Path.kCubic_Verb:
            builder.cubic(*xy[1:])
        elif verb in (skia.Path.kQuad_Verb, skia.Path.kConic_Verb):
            # A conic of weight w is nearly the cubic with its handles 4w/(3(1 + w)) of the way to the middle point; a quadratic has weight 1.
            weight = segments.conicWeight() if verb == skia.Path.kConic_Verb else 1.0
            share = 4 * weight / (3 * (1 + weight))
            (x0, y0), (x1, y1), (x2, y2) = xy
            builder.cubic((x0 + share * (x1 - x0), y0 + share * (y1 - y0)), (x2 + share * (x1 - x2), y2 + share * (y1 - y2)), (x2, y2))
        elif verb == skia.Path.kClose_Verb:
            builder.close()
    return _wound(builder.done())


def _wound(outline: Outline) -> Outline:
    """Return the outline with clockwise contours and counterclockwise holes: Skia says what is inside by the even-odd rule, shapes by the non-zero
    rule."""
    contours = contours_of(outline.verbs, outline.points[None])
    paths = [skia_path(Outline(verbs, points[0]), _SCALE) for verbs, points in (joined([contour]) for contour in contours)]
    turned = []
    for number, item in enumerate(contours):
        # The middle of its first piece lies inside all that it is a hole of; contours that touch do so at joints.
        x, y = ((item.pieces[0, 0] * [[1], [3], [3], [1]]).sum(axis=0) / 8 * _SCALE).tolist()
        depth = sum(path.contains(x, y) for other, path in enumerate(paths) if other != number)
        turned.append(item if (float(area(item)[0]) >= 0) == (depth % 2 == 0) else item.reversed())
    verbs, points = joined(turned)
    return Outline(verbs, points[0])
