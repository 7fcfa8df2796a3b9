"""SVG path data → outlines. Arcs and quadratics become cubics."""

import math
import re
from collections.abc import Iterator
from functools import lru_cache

import svgelements

from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.curves.outline import CLOSE, CUBIC, LINE, MOVE, Outline, OutlineBuilder

#: What SVG calls each verb.
_LETTERS = {MOVE: "M", LINE: "L", CUBIC: "C", CLOSE: "Z"}
_SPACE = " \t\r\n\f,"
_CLOSE = re.compile("[zZ]")
#: Everything up to a close-path, or the rest.
_CLOSED_PART = re.compile("[^zZ]*[zZ]?")
#: Up to this many close-paths the data is read in one go.
_FEW_CLOSES = 50
#: The most of a turn that one cubic represents, in radians: a tenth, within 1e-5 of the radius.
_ARC_PART = math.tau / 10


@lru_cache(maxsize=512)
def parse_path(data: str) -> Outline:
    """The outline that SVG path data describes.

    Raises:
        MotionError: if the data is not path data, or draws nothing.
    """
    try:
        builder = OutlineBuilder()
        for segment in _segments(data):
            _add(builder, segment)
        outline = builder.done()
    except Exception as error:  # the library raises whatever its parser stumbles over
        raise MotionError(f"this is not SVG path data: {_short(data)}; it should read like 'M 0 0 L 40 0 L 20 30 Z'") from error
    if not any(verb not in (MOVE, CLOSE) for verb in outline.verbs):
        raise MotionError(f"this SVG path draws nothing: {_short(data)}; after the first M it needs lines or curves")
    if not abs(outline.points).max() < 1e7:
        raise MotionError("this SVG path reaches beyond ten million pixels; draw it smaller")
    return outline


def path_data(outline: Outline, *, decimals: int = 6) -> str:
    """An outline as SVG path data, with its numbers to a millionth of a px, or to fewer decimals."""
    words: list[str] = []
    for verb, points in outline.segments():
        used = points.round(decimals).reshape(-1).tolist()
        words.append(" ".join([_LETTERS[verb], *(f"{value:.6f}".rstrip("0").rstrip(".") for value in used)]))
    return " ".join(words)


def _segments(data: str) -> Iterator[svgelements.PathSegment]:
    """The segments that path data describes, in time linear in its length.

    The library looks back through all segments at every close-path that no move follows, so such data is read one closed part at a time, each
    beginning where the one before began.
    """
    if len(_CLOSE.findall(data)) <= _FEW_CLOSES:
        yield from svgelements.Path(data)
        return
    begun: svgelements.Point | None = None
    for part in _CLOSED_PART.findall(data):
        if not part.strip(_SPACE):
            continue
        goes_on = begun is not None and not part.lstrip(_SPACE).startswith("M")
        path = svgelements.Path(f"M {begun.x!r} {begun.y!r} {part}" if goes_on and begun is not None else part)
        segments = iter(path)
        if goes_on:
            # The move that was put before this part is not in the data.
            next(segments)
        yield from segments
        moves = [segment.end for segment in path if isinstance(segment, svgelements.Move)]
        begun = moves[-1] if moves else begun


def _add(builder: OutlineBuilder, segment: svgelements.PathSegment) -> None:
    match segment:
        case svgelements.Move():
            builder.move(*_xy(segment.end))
        case svgelements.Close():
            builder.close()
        case svgelements.Line():
            builder.line(*_xy(segment.end))
        case svgelements.CubicBezier():
            builder.cubic(_xy(segment.control1), _xy(segment.control2), _xy(segment.end))
        case svgelements.Arc():
            # One by one: the library's own way to replace all arcs of a path takes time that grows with the square of their number.
            for cubic in segment.as_cubic_curves(math.ceil(abs(segment.sweep) / _ARC_PART)):
                builder.cubic(_xy(cubic.control1), _xy(cubic.control2), _xy(cubic.end))
        case svgelements.QuadraticBezier():
            (x0, y0), (cx, cy), (x1, y1) = _xy(segment.start), _xy(segment.control), _xy(segment.end)
            builder.cubic((x0 + 2 / 3 * (cx - x0), y0 + 2 / 3 * (cy - y0)), (x1 + 2 / 3 * (cx - x1), y1 + 2 / 3 * (cy - y1)), (x1, y1))
        case _:
            raise ValueError(f"unexpected segment {segment!r}")


def _xy(point: svgelements.Point) -> tuple[float, float]:
    return float(point.x), float(point.y)


def _short(data: str) -> str:
    return repr(data if len(data) <= 40 else data[:37] + "…")
