"""Elements as a page whose drawing changes by CSS keyframes (CSS Animations 1), eased by `linear()` (CSS Easing 2) where values are on a line.

What CSS cannot reach, such as the ends of gradients and the settings of filters, changes by SVG's own animation elements.
"""

from collections.abc import Iterator
from dataclasses import dataclass, field

from vine_swing.formats.svg.moving import Array, Line, Moving, Transforming
from vine_swing.formats.svg.nodes import Node, number
from vine_swing.formats.svg.smil import animation, element

#: Attributes that are properties too, with what follows their numbers.
_PROPERTIES = {
    "opacity": "",
    "fill": "",
    "fill-opacity": "",
    "stroke": "",
    "stroke-opacity": "",
    "stroke-width": "px",
    "stroke-dashoffset": "px",
    "stop-color": "",
    "stop-opacity": "",
    "flood-color": "",
    "flood-opacity": "",
    "visibility": "",
    "d": "",
}
#: Fewer stops than this are as short as keyframes.
_FEW = 4


@dataclass
class Sheet:
    """Collects the rules of a style sheet. timing: of SVG's own animations. lasts: how long and how often, as CSS says it."""

    timing: str
    lasts: str
    rules: list[str] = field(default_factory=list)

    def written(self, nodes: list[Node]) -> Iterator[str]:
        """The lines of a page for some elements."""
        for node in nodes:
            yield from self._written(node)

    def _written(self, node: Node) -> Iterator[str]:
        inside: list[str] = []
        uses = []
        for item in node.moving:
            if item.name in _PROPERTIES:
                uses.append(self._attribute(item))
            else:
                inside.append(animation(item, self.timing))
        if node.transforming is not None:
            uses.append(self._transform(node.transforming))
        if uses:
            node.style["animation"] = ",".join(uses)
        inside += self.written(node.children)
        return element(node, inside)

    def _attribute(self, moving: Moving) -> str:
        unit = _PROPERTIES[moving.name]

        def declared(value: str) -> str:
            return f'{moving.name}:path("{value}")' if moving.name == "d" else f"{moving.name}:{value}{unit}"

        if moving.line is not None and len(moving.line.times) >= _FEW:
            ends = (declared(number(float(end[0]), 4)) for end in (moving.line.begin, moving.line.end))
            return self._eased(moving.line, *ends)
        timing = "step-end" if moving.between == "discrete" else "linear"
        return self._keyed(moving.times, [declared(value) for value in moving.values], timing)

    def _transform(self, transforming: Transforming) -> str:
        if transforming.line is not None and len(transforming.line.times) >= _FEW:
            return self._eased(
                transforming.line, f"transform:{_transform(transforming.line.begin)}", f"transform:{_transform(transforming.line.end)}"
            )
        return self._keyed(transforming.times, [f"transform:{_transform(row)}" for row in transforming.values], "linear")

    def _keyed(self, times: Array, declarations: list[str], timing: str) -> str:
        stops = "".join(f"{number(float(time) * 100, 4)}%{{{text}}}" for time, text in zip(times, declarations, strict=True))
        return self._named(stops, timing)

    def _eased(self, line: Line, begin: str, end: str) -> str:
        stops = ",".join(f"{number(float(p), 6)} {number(float(t) * 100, 4)}%" for p, t in zip(line.progress, line.times, strict=True))
        return self._named(f"from{{{begin}}}to{{{end}}}", f"linear({stops})")

    def _named(self, stops: str, timing: str) -> str:
        name = f"k{len(self.rules)}"
        self.rules.append(f"@keyframes {name}{{{stops}}}")
        return f"{name} {self.lasts} {timing}"


def _transform(row: Array) -> str:
    x, y, angle, skew, across, down = (float(item) for item in row)
    parts = [f"translate({number(x)}px,{number(y)}px)", f"rotate({number(angle, 4)}deg)"]
    parts += [f"skewX({number(skew, 4)}deg)", f"scale({number(across, 6)},{number(down, 6)})"]
    return " ".join(parts)
