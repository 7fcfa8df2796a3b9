"""Gradients of a drawing as the channels of an object."""

from dataclasses import dataclass
from math import hypot
from typing import Any, Literal
from xml.etree.ElementTree import Element

from vine_swing.formats.drawing.matrices import Affine
from vine_swing.formats.drawing.safe import reference_of, tag_of
from vine_swing.formats.drawing.style import Sheets, colour, number, share
from vine_swing.motion.basics.gradients import MOST_STOPS, end_names, stop_names

Box = tuple[float, float, float, float]
#: Gradients that take their stops from others do so over at most this many.
_CHAIN = 10
_RADIAL = {"cx": "50%", "cy": "50%", "r": "50%"}
_LINEAR = {"x1": "0%", "y1": "0%", "x2": "100%", "y2": "0%"}


@dataclass(frozen=True)
class Blend:
    """A gradient in the picture: both ends, and positions and colours of its stops."""

    kind: Literal["linear", "radial"]
    ends: tuple[float, float, float, float]
    stops: tuple[tuple[float, str], ...]

    def paint(self) -> dict[str, Any]:
        """Return the gradient as the object's paint."""
        return {"kind": self.kind, "stops": len(self.stops)}

    def channels(self, of: Literal["fill", "stroke"], x: float, y: float) -> dict[str, Any]:
        """The channels of an object whose origin lies at (x, y)."""
        x0, y0, x1, y1 = self.ends
        values: dict[str, Any] = dict(zip(end_names(of), (x0 - x, y0 - y, x1 - x, y1 - y), strict=True))
        for number_, (place, written) in enumerate(self.stops, 1):
            values |= dict(zip(stop_names(of, number_), (place, written), strict=True))
        return {name: {"base": value} for name, value in values.items()}


#: Stops that are read of one gradient: more than are kept, so that they can be thinned out evenly.
_MOST_READ = 1_000
#: Stops read before, by the element that has them and the opacity: many shapes share one gradient.
Stops = dict[tuple[Element, float], list[tuple[float, str]]]


def blend_of(
    element: Element, cached: dict[str, Element], sheets: Sheets, read: Stops, matrix: Affine, box: Box, opacity: float, lost: Any
) -> Blend | str | None:
    """Return the gradient of a fill or stroke, a plain colour where it has a single stop, or None where it has none.

    Args:
        element: the gradient.
        cached: all elements by id.
        sheets: the style sheets of the file.
        read: the stops of gradients that were read before; those of this one are added.
        matrix: from the space of the shape to the picture.
        box: the bounds of the shape in its own space.
        opacity: of the fill or stroke.
        lost: called with what cannot be kept.
    """
    chain = _chain(element, cached)
    owner = next((item for item in chain if any(tag_of(child) == "stop" for child in item)), element)
    if (owner, opacity) not in read:
        read[owner, opacity] = _stops(owner, sheets, opacity)
    stops = read[owner, opacity]
    if len(stops) < 2:
        return stops[0][1] if stops else None
    if len(stops) > MOST_STOPS:
        lost(f"gradients with more than {MOST_STOPS} stops keep as many")
        picked = [round(n * (len(stops) - 1) / (MOST_STOPS - 1)) for n in range(MOST_STOPS)]
        stops = [stops[item] for item in picked]
    kind: Literal["linear", "radial"] = "linear" if tag_of(element) == "linearGradient" else "radial"

    def said(name: str, usual: str) -> str:
        return next((item.attrib[name] for item in chain if name in item.attrib and tag_of(item) == tag_of(element)), usual)

    if next((item.attrib["spreadMethod"] for item in chain if "spreadMethod" in item.attrib), "pad") != "pad":
        lost("gradients that repeat end with their last colour")
    in_box = said("gradientUnits", "objectBoundingBox") == "objectBoundingBox"
    left, top, right, bottom = box
    to_space = Affine(right - left, 0, 0, bottom - top, left, top) if in_box else Affine()
    whole = matrix.then(to_space).then(Affine.read(said("gradientTransform", "")))
    sides = {name: number(said(name, usual), 0.0, of=1.0 if in_box else 100.0) for name, usual in (_LINEAR if kind == "linear" else _RADIAL).items()}
    if kind == "radial":
        if not whole.is_even:
            lost("gradients in the shape of an ellipse became round")
        if any(abs(number(said(f, said(c, "50%")), 0.0, of=1.0) - sides[c]) > 1e-6 for f, c in (("fx", "cx"), ("fy", "cy"))):
            lost("gradients whose middle lies aside have it in their middle")
        x, y = whole.point(sides["cx"], sides["cy"])
        return Blend("radial", (x, y, x + max(sides["r"] * whole.scale, 0.01), y), tuple(stops))
    return Blend("linear", _line(whole, sides), tuple(stops))


def _line(whole: Affine, sides: dict[str, float]) -> tuple[float, float, float, float]:
    """Both ends of a linear gradient after a transform. A perpendicular need not stay one, so the last end is moved along the bands of
    one colour until the line is square to them again."""
    x0, y0 = whole.point(sides["x1"], sides["y1"])
    x1, y1 = whole.point(sides["x2"], sides["y2"])
    bx, by = whole.direction(-(sides["y2"] - sides["y1"]), sides["x2"] - sides["x1"])
    length = hypot(bx, by)
    if length:
        along = ((x1 - x0) * bx + (y1 - y0) * by) / length**2
        x1, y1 = x1 - along * bx, y1 - along * by
    return x0, y0, x1, y1


def _chain(element: Element, cached: dict[str, Element]) -> list[Element]:
    """A gradient and those it takes from, each once."""
    result = [element]
    while len(result) < _CHAIN:
        other = cached.get(reference_of(result[-1]).removeprefix("#"))
        if other is None or other in result or not tag_of(other).endswith("Gradient"):
            break
        result.append(other)
    return result


def _stops(element: Element, sheets: Sheets, opacity: float) -> list[tuple[float, str]]:
    stops: list[tuple[float, str]] = []
    before = 0.0
    for child in element:
        if tag_of(child) != "stop" or len(stops) >= _MOST_READ:
            continue
        style = sheets.style(child, {})
        before = max(before, share(child.get("offset"), 0.0))
        written = colour(style["stop-color"], style["color"], share(style["stop-opacity"]) * opacity)
        stops.append((before, written or "#000000"))
    return stops
