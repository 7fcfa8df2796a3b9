"""The third interpreter of the paint list: steps become elements, which say what the two painters paint. It decides nothing itself."""

import base64
from collections.abc import Callable
from dataclasses import dataclass, field

import numpy as np

from vine_swing.formats.svg.effects import Effects
from vine_swing.formats.svg.extents import ENDLESS, own_rows, reach_of
from vine_swing.formats.svg.moving import Array
from vine_swing.formats.svg.nodes import Node, number
from vine_swing.formats.svg.series import Rows, Series, read
from vine_swing.picture.paint_list import Copies, Fill, Gradient, Group, Instance, Picture, Step, Stroke
from vine_swing.picture.tracks import Track

#: Different orders of the copies of one parade that are written out; of more, the first is kept throughout.
MOST_ORDERS = 40
#: Half a step of an alpha of 8 bits.
_SEEN = 0.5 / 255


@dataclass(frozen=True)
class Drawing:
    """Draws steps as elements; what several refer to is collected in `defs`, what could not be said in `lost`.

    size_of: the width and height of a kept picture, px.
    """

    series: Series
    size_of: Callable[[bytes], tuple[int, int]]
    defs: list[Node] = field(default_factory=list)
    lost: dict[str, None] = field(default_factory=dict)
    _pictures: dict[int, str] = field(default_factory=dict)
    #: The fills that were drawn, by their elements.
    _fills: dict[int, Fill] = field(default_factory=dict)
    _counted: list[int] = field(default_factory=lambda: [0])

    def all(self, steps: tuple[Step, ...], rows: Rows) -> list[Node]:
        """The elements of those of some steps that are ever seen."""
        result: list[Node] = []
        for step in steps:
            if not step.shown:
                continue
            opacity = self._opacity(step.opacity, rows)
            if opacity.max() <= _SEEN or (result and isinstance(step, Stroke) and self._joins(step, rows, opacity, result[-1])):
                continue
            result += self._one(step, rows, opacity)
        return result

    def new_id(self, prefix: str) -> str:
        """A name for an element that others refer to."""
        self._counted[0] += 1
        return f"{prefix}{self._counted[0]}"

    def _one(self, step: Step, rows: Rows, opacity: Array) -> list[Node]:
        match step:
            case Fill():
                node = Node("path", {"data-object": step.id})
                if step.rule == "evenodd":
                    node.attributes["fill-rule"] = "evenodd"
                self._shape(node, step, rows)
                self._paint(node, "fill", step.colour, step.gradient, rows, opacity)
                self._fills[id(node)] = step
                return [node]
            case Stroke():
                node = Node("path", {"data-object": step.id, "fill": "none"})
                self._shape(node, step, rows)
                self._line(node, step, rows, opacity)
                return [node]
            case Picture():
                return [self._picture(step, rows, opacity)]
            case Group():
                return [self._group(step, rows, opacity)]
            case Instance():
                node = Node("g", {"data-object": step.id}, children=self.all(step.children, own_rows(step, rows)))
                self.series.transform(node, read(step.matrix, rows), reach_of(step, rows))
                self._fade(node, opacity)
                return [node]
            case Copies():
                return self._copies(step, rows, opacity)

    def _joins(self, step: Stroke, rows: Rows, opacity: Array, before: Node) -> bool:
        """Draw a line on the element of the fill beneath it, where that is the same outline in the same place."""
        fill = self._fills.pop(id(before), None)
        if fill is None or fill.id != step.id or fill.matrix.values is not step.matrix.values or fill.outline.series is not step.outline.series:
            return False
        if fill.outline.first != step.outline.first or fill.opacity or step.opacity:
            return False
        self._line(before, step, rows, opacity)
        return True

    def _shape(self, node: Node, step: Fill | Stroke, rows: Rows) -> None:
        self.series.outline(node, step.outline, rows)
        self.series.transform(node, read(step.matrix, rows), reach_of(step, rows))

    def _line(self, node: Node, step: Stroke, rows: Rows, opacity: Array) -> None:
        self._paint(node, "stroke", step.colour, step.gradient, rows, opacity)
        self.series.put(node, "stroke-width", np.maximum(read(step.width, rows), 0), self.series.tolerance / 4)
        node.attributes |= {"stroke-linecap": step.cap, "stroke-linejoin": step.join, "stroke-miterlimit": "10"}
        if step.dash:
            node.attributes["stroke-dasharray"] = " ".join(number(item) for item in step.dash)
            if step.offset is not None:
                self.series.put(node, "stroke-dashoffset", read(step.offset, rows), self.series.tolerance / 2)

    def _paint(self, node: Node, of: str, colour: Track, gradient: Gradient | None, rows: Rows, opacity: Array) -> None:
        """The colour or gradient of a fill or a line."""
        if gradient is not None:
            node.attributes[of] = f"url(#{self._gradient(gradient, rows)})"
            alpha = opacity
        else:
            rgba = read(colour, rows)
            self.series.colour(node, of, rgba[:, :3])
            alpha = rgba[:, 3] * opacity
        if alpha.min() < 1:
            self.series.put(node, f"{of}-opacity", alpha, _SEEN, digits=4)

    def _gradient(self, gradient: Gradient, rows: Rows) -> str:
        name = self.new_id("gradient")
        node = Node(f"{gradient.kind}Gradient", {"id": name, "gradientUnits": "userSpaceOnUse"})
        x0, y0, x1, y1 = (read(end, rows) for end in gradient.ends)
        near = self.series.tolerance / 2
        ends = {"x1": x0, "y1": y0, "x2": x1, "y2": y1}
        places = ends if gradient.kind == "linear" else {"cx": x0, "cy": y0, "r": np.hypot(x1 - x0, y1 - y0)}
        for attribute, values in places.items():
            self.series.put(node, attribute, values, near)
        before = np.zeros(len(rows))
        for place, colour in gradient.stops:
            before = np.maximum(before, np.clip(read(place, rows), 0, 1))
            stop, rgba = Node("stop"), read(colour, rows)
            self.series.put(stop, "offset", before, 0.0005, digits=5)
            self.series.colour(stop, "stop-color", rgba[:, :3])
            if rgba[:, 3].min() < 1:
                self.series.put(stop, "stop-opacity", rgba[:, 3], _SEEN, digits=4)
            node.children.append(stop)
        self.defs.append(node)
        return name

    def _picture(self, step: Picture, rows: Rows, opacity: Array) -> Node:
        node = Node("g", {"data-object": step.id})
        self.series.transform(node, read(step.matrix, rows), reach_of(step, rows))
        self._fade(node, opacity)
        if not step.smooth:
            node.style["image-rendering"] = "pixelated"
        pages = np.floor(read(step.page, rows)).astype(int) % len(step.pictures)
        for page in sorted(set(pages.tolist())):
            shown = self._page(step, page, rows)
            self.series.words(shown, "visibility", ["visible" if item == page else "hidden" for item in pages.tolist()])
            if shown.attributes.get("visibility") == "visible":
                del shown.attributes["visibility"]
            node.children.append(shown)
        return node

    def _page(self, step: Picture, page: int, rows: Rows) -> Node:
        name, (width, height), size = self._kept(step.pictures[page]), self.size_of(step.pictures[page]), read(step.size, rows)
        near = self.series.tolerance
        if any(step.endless):
            return self._tiled(step, name, (width, height), size)
        if step.fit == "cover":
            box = Node("svg", {"viewBox": f"0 0 {width} {height}", "preserveAspectRatio": "xMidYMid slice"})
            for attribute, values in (("x", -size[:, 0] / 2), ("y", -size[:, 1] / 2), ("width", size[:, 0]), ("height", size[:, 1])):
                self.series.put(box, attribute, values, near)
            box.children.append(Node("use", {"href": f"#{name}"}))
            return Node("g", children=[box])
        use = Node("use", {"href": f"#{name}"})
        self.series.transform(use, _stretched(size / (width, height), size), float(np.hypot(width, height)))
        return use

    def _tiled(self, step: Picture, name: str, own: tuple[int, int], size: Array) -> Node:
        """A picture beside itself without end, as a pattern."""
        pattern = Node("pattern", {"id": self.new_id("pattern"), "patternUnits": "userSpaceOnUse"})
        for attribute, values in (("x", -size[:, 0] / 2), ("y", -size[:, 1] / 2), ("width", size[:, 0]), ("height", size[:, 1])):
            self.series.put(pattern, attribute, values, self.series.tolerance)
        # Contents of a pattern are measured from its corner.
        inside = Node("use", {"href": f"#{name}"})
        self.series.transform(inside, _stretched(size / own, np.zeros_like(size)), float(np.hypot(*own)))
        pattern.children.append(inside)
        self.defs.append(pattern)
        across, down = step.endless
        area = Node("rect", {"fill": f"url(#{pattern.attributes['id']})"})
        for attribute, endless, values in (("x", across, -size[:, 0] / 2), ("y", down, -size[:, 1] / 2)):
            self.series.put(area, attribute, np.full(len(size), -ENDLESS) if endless else values, self.series.tolerance)
        for attribute, endless, values in (("width", across, size[:, 0]), ("height", down, size[:, 1])):
            self.series.put(area, attribute, np.full(len(size), 2 * ENDLESS) if endless else values, self.series.tolerance)
        return Node("g", children=[area])

    def _kept(self, content: bytes) -> str:
        """The id of a picture, which is in the file once."""
        if id(content) not in self._pictures:
            width, height = self.size_of(content)
            kind = "jpeg" if content[:3] == b"\xff\xd8\xff" else "webp" if content[8:12] == b"WEBP" else "png"
            data = f"data:image/{kind};base64,{base64.b64encode(content).decode()}"
            name = self._pictures[id(content)] = self.new_id("picture")
            attributes = {"id": name, "width": str(width), "height": str(height), "preserveAspectRatio": "none", "href": data}
            self.defs.append(Node("image", attributes))
        return self._pictures[id(content)]

    def _group(self, step: Group, rows: Rows, opacity: Array) -> Node:
        children = self.all(step.children, rows)
        if not step.effects:
            node = Node("g", {"data-group": step.id}, children=children)
        else:
            node = Effects(self.series, self.defs, self.lost, self.all, self.new_id).around(step, children, rows)
        if step.blend != "normal":
            node.style["mix-blend-mode"] = step.blend
        self._fade(node, opacity)
        return node

    def _copies(self, step: Copies, rows: Rows, opacity: Array) -> list[Node]:
        orders = None if step.order is None else read(step.order, rows).astype(int)
        result = [self._one(instance, rows, self._opacity(instance.opacity, rows)) for instance in step.instances]
        if orders is None:
            group = [node for nodes in result for node in nodes]
        else:
            kinds = list(dict.fromkeys(map(tuple, orders.tolist())))
            if len(kinds) > MOST_ORDERS:
                self.lost[f"the copies of a parade change their order {len(kinds)} times; they keep the first one"] = None
                kinds = kinds[:1]
            group = self._ordered(result, kinds, orders)
        if opacity.min() >= 1:
            return group
        node = Node("g", children=group)
        self._fade(node, opacity)
        return [node]

    def _ordered(self, result: list[list[Node]], kinds: list[tuple[int, ...]], orders: Array) -> list[Node]:
        """Copies in each of their orders, which take turns."""
        if len(kinds) == 1:
            return [node for k in kinds[0] for node in result[k]]
        names = []
        for nodes in result:
            names.append(self.new_id("copy"))
            self.defs.append(Node("g", {"id": names[-1]}, children=nodes))
        layers = []
        for kind in kinds:
            layer = Node("g", children=[Node("use", {"href": f"#{names[k]}"}) for k in kind])
            self.series.words(layer, "display", ["inline" if tuple(row) == kind else "none" for row in orders.tolist()])
            layers.append(layer)
        return layers

    def _fade(self, node: Node, opacity: Array) -> None:
        if opacity.min() < 1:
            self.series.put(node, "opacity", opacity, _SEEN, digits=4)

    def _opacity(self, tracks: tuple[Track, ...], rows: Rows) -> Array:
        result = np.ones(len(rows))
        for track in tracks:
            result = result * read(track, rows)
        return np.clip(result, 0, 1)


def _stretched(scale: Array, size: Array) -> Array:
    """Matrices that scale by (n, 2) and move the middle of a size (n, 2) to the origin."""
    zero = np.zeros(len(scale))
    return np.stack([scale[:, 0], zero, zero, scale[:, 1], -size[:, 0] / 2, -size[:, 1] / 2], axis=1)
