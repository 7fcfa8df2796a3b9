"""SVG path data → outlines. Arcs and quadratics become cubics."""

from functools import lru_cache

import svgelements

from vine_swing.motion.errors import MotionError
from vine_swing.motion.model import OutlineShape, Scene
from vine_swing.motion.outline import CLOSE, MOVE, Outline, OutlineBuilder


@lru_cache(maxsize=512)
def parse_path(data: str) -> Outline:
    """The outline that SVG path data describes.

    Raises:
        MotionError: if the data is not path data, or draws nothing.
    """
    try:
        path = svgelements.Path(data)
        path.approximate_arcs_with_cubics()
        builder = OutlineBuilder()
        for segment in path:
            _add(builder, segment)
        outline = builder.done()
    except Exception as error:  # the library raises whatever its parser stumbles over
        raise MotionError(f"this is not SVG path data: {_short(data)}; it should read like 'M 0 0 L 40 0 L 20 30 Z'") from error
    if not any(verb not in (MOVE, CLOSE) for verb in outline.verbs):
        raise MotionError(f"this SVG path draws nothing: {_short(data)}; after the first M it needs lines or curves")
    if not abs(outline.points).max() < 1e7:
        raise MotionError("this SVG path reaches beyond ten million pixels; draw it smaller")
    return outline


def check_outlines(scene: Scene, *, since: Scene | None = None) -> None:
    """Refuse a scene with path data that cannot be drawn. Objects it shares with `since` have been checked before.

    Raises:
        MotionError: naming the object.
    """
    known = since.by_id if since is not None else {}
    for thing in scene.objects:
        if known.get(thing.id) is thing:
            continue
        if thing.kind == "shape" and isinstance(thing.shape, OutlineShape):
            try:
                parse_path(thing.shape.d)
            except MotionError as error:
                raise MotionError(f"'{thing.name}': {error}") from error


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
        case svgelements.QuadraticBezier():
            (x0, y0), (cx, cy), (x1, y1) = _xy(segment.start), _xy(segment.control), _xy(segment.end)
            builder.cubic((x0 + 2 / 3 * (cx - x0), y0 + 2 / 3 * (cy - y0)), (x1 + 2 / 3 * (cx - x1), y1 + 2 / 3 * (cy - y1)), (x1, y1))
        case _:
            raise ValueError(f"unexpected segment {segment!r}")


def _xy(point: svgelements.Point) -> tuple[float, float]:
    return float(point.x), float(point.y)


def _short(data: str) -> str:
    return repr(data if len(data) <= 40 else data[:37] + "…")
