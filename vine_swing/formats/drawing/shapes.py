"""The basic shapes and texts of a drawing as outlines."""

from math import hypot
from xml.etree.ElementTree import Element

import numpy as np
import svgelements

from vine_swing.formats.drawing.safe import tag_of
from vine_swing.formats.drawing.style import number
from vine_swing.motion import MotionError
from vine_swing.motion.curves.outline import Outline
from vine_swing.motion.curves.svg_path import parse_path
from vine_swing.motion.outline.text import FAMILIES, Setting, typeset

SHAPES = ("path", "rect", "circle", "ellipse", "line", "polyline", "polygon")
_WEIGHTS = {"normal": 400, "bold": 700, "lighter": 300, "bolder": 700}
_ALIGN = {"start": "left", "middle": "middle", "end": "right"}


def outline_of(element: Element, size: tuple[float, float]) -> Outline | None:
    """The outline of a shape in its own space; None for one that draws nothing. `size`: what percentages are of."""
    width, height = size
    diagonal = hypot(width, height) / 2**0.5

    def of(name: str, whole: float, usual: float = 0.0) -> float:
        return number(element.get(name), usual, of=whole)

    match tag_of(element):
        case "path":
            data = element.get("d") or ""
        case "rect":
            wide, high = of("width", width), of("height", height)
            if wide <= 0 or high <= 0:
                return None
            rx, ry = element.get("rx"), element.get("ry")
            round_x, round_y = of("rx", width), of("ry", height)
            radii = (round_y if rx in (None, "auto") else round_x, round_x if ry in (None, "auto") else round_y)
            data = svgelements.Path(svgelements.Rect(of("x", width), of("y", height), wide, high, *radii)).d()
        case "circle":
            r = of("r", diagonal)
            data = svgelements.Path(svgelements.Circle(of("cx", width), of("cy", height), r)).d() if r > 0 else ""
        case "ellipse":
            rx_, ry_ = of("rx", width), of("ry", height)
            data = svgelements.Path(svgelements.Ellipse(of("cx", width), of("cy", height), rx_, ry_)).d() if rx_ > 0 and ry_ > 0 else ""
        case "line":
            data = f"M {of('x1', width)} {of('y1', height)} L {of('x2', width)} {of('y2', height)}"
        case kind:
            numbers = " ".join((element.get("points") or "").replace(",", " ").split())
            data = f"M {numbers}{' Z' if kind == 'polygon' else ''}" if numbers else ""
    try:
        return parse_path(data)
    except MotionError:
        return None


def text_outline(text: str, style: dict[str, str]) -> tuple[Outline, str | None] | None:
    """A text as the outlines of its letters, with its beginning at the origin; and the name of its font where that is none that is shipped.
    None for one without ink."""
    size = number(style["font-size"], 16.0)
    requested = [item.strip().strip("'\"") for item in style["font-family"].split(",") if item.strip()]
    family = next((name for item in requested for name, cached in FAMILIES.items() if cached.label.lower() == item.lower()), None)
    weight = style["font-weight"]
    thick = _WEIGHTS.get(weight, int(weight) if weight.isdigit() else 400)
    tracking = number(style["letter-spacing"], 0.0) / size if size else 0.0
    setting = Setting(family or "figtree", min(max(thick, 1), 1000), _ALIGN.get(style["text-anchor"], "left"), None, tracking, 1.2)  # type: ignore[arg-type]
    result = typeset(text, setting)
    inked = [(outline, place) for outline, place in zip(result.outlines, result.places, strict=True) if len(outline.points)]
    if not inked or size <= 0:
        return None
    points = np.concatenate([(item.points + place) * size for item, place in inked])
    return Outline(b"".join(item.verbs for item, _ in inked), points), (requested[0] if requested and family is None else None)
