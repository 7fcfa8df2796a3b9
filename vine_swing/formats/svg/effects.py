"""Looks as filters and masks (SVG 2, Filter Effects 1, CSS Masking 1): each effect is an element around what it changes."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from vine_swing.formats.svg.extents import Box, extent
from vine_swing.formats.svg.moving import Array
from vine_swing.formats.svg.nodes import Node, number
from vine_swing.formats.svg.series import Rows, Series, read
from vine_swing.motion.basics import matrix
from vine_swing.picture.effects import Blur, Fringe, Glow, Mask, Recolour, Shadow
from vine_swing.picture.paint_list import Effect, Group, Step
from vine_swing.picture.tracks import Track

_FAR = 3.0
_SEEN = 0.5 / 255


@dataclass(frozen=True)
class Effects:
    """Puts the effects of groups around their elements. all: draws steps at rows. new_id: names what is referred to."""

    series: Series
    defs: list[Node]
    lost: dict[str, None]
    all: Callable[[tuple[Step, ...], Rows], list[Node]]
    new_id: Callable[[str], str]

    def around(self, group: Group, children: list[Node], rows: Rows) -> Node:
        """The elements of a group with its effects around them, the first innermost."""
        node = Node("g", {"data-group": group.id}, children=children)
        box = extent(group.children, rows) or (0.0, 0.0, 0.0, 0.0)
        for effect in group.effects:
            box = _grown(box, self._reach(effect, rows, box))
            node = self._around(effect, node, rows, box)
        # Surrounding layers may blend or fade; that must not happen between effects.
        return Node("g", children=[node]) if node.attributes.get("mask") else node

    def _around(self, effect: Effect, node: Node, rows: Rows, box: Box) -> Node:
        if isinstance(effect, Mask):
            return Node("g", {"mask": f"url(#{self._mask(effect, rows, box)})"}, children=[node])
        if isinstance(effect, Blur) and effect.angle is not None:
            return self._smeared(effect, effect.angle, node, rows, box)
        if isinstance(effect, Fringe) and effect.middle is not None:
            return self._outward(effect, node, rows, box)
        steps: list[Node] = []
        match effect:
            case Shadow():
                steps = self._shadow(effect, rows)
            case Glow():
                steps = self._glow(effect, rows)
            case Blur():
                steps = [self._gaussian("SourceGraphic", self._lengths(effect, effect.size, rows))]
            case Fringe():
                steps = self._fringe(effect, rows)
            case Recolour():
                colours = read(effect.colours, rows).reshape(len(rows), 3, 4)
                # A column for alpha, which changes no colour.
                table = np.insert(colours, 3, 0.0, axis=2).reshape(len(rows), 15)
                alpha = np.tile([0.0, 0, 0, 1, 0], (len(rows), 1))
                matrix = Node("feColorMatrix", {"type": "matrix"})
                self.series.put(matrix, "values", np.hstack([table, alpha]), _SEEN, digits=5)
                steps = [matrix]
        return Node("g", {"filter": f"url(#{self._filter(steps, box)})"}, children=[node])

    def _filter(self, steps: list[Node], box: Box) -> str:
        name = self.new_id("filter")
        self.defs.append(Node("filter", {"id": name, "color-interpolation-filters": "sRGB", **_region("filter", box)}, children=steps))
        return name

    def _shadow(self, effect: Shadow, rows: Rows) -> list[Node]:
        dx, dy = self._moved(effect, read(effect.dx, rows), read(effect.dy, rows), rows)
        blur = self._gaussian("SourceAlpha", self._lengths(effect, effect.blur, rows))
        offset = Node("feOffset", {"result": "moved"})
        self.series.put(offset, "dx", dx, self.series.tolerance)
        self.series.put(offset, "dy", dy, self.series.tolerance)
        return [blur, offset, *self._inked("moved", effect.colour, rows, read(effect.opacity, rows)), _merged("inked", "SourceGraphic")]

    def _glow(self, effect: Glow, rows: Rows) -> list[Node]:
        strength = read(effect.strength, rows)
        steps = [self._gaussian("SourceAlpha", self._lengths(effect, effect.size, rows), result="soft")]
        steps += self._inked("soft", effect.colour, rows, np.ones(len(rows)))
        light = "SourceGraphic" if effect.lies == "over" else None
        for turn in range(int(np.ceil(strength.max()))):
            share = np.clip(strength - turn, 0, 1)
            result = f"light{turn}"
            if light is None:
                # The first light stands alone: nothing is added to it yet.
                add = Node("feComposite", {"in": "inked", "in2": "inked", "operator": "arithmetic", "k3": "0", "result": result})
            else:
                add = Node("feComposite", {"in": "inked", "in2": light, "operator": "arithmetic", "k3": "1", "result": result})
            self.series.put(add, "k2", share, _SEEN, digits=4)
            steps.append(add)
            light = result
        if effect.lies == "behind":
            return [*steps, _merged(light, "SourceGraphic")] if light else [_merged("SourceGraphic")]
        return steps if light != "SourceGraphic" else [_merged("SourceGraphic")]

    def _fringe(self, effect: Fringe, rows: Rows) -> list[Node]:
        """Red and blue in places of their own: light of one colour each, added; its alpha is then lowered to the largest of the three colours and the
        mean of the three alphas."""
        distance, angle = read(effect.distance, rows), np.radians(read(effect.angle, rows))
        dx, dy = self._moved(effect, distance * np.cos(angle), distance * np.sin(angle), rows)
        steps: list[Node] = []
        for colour, direction in (("red", 1.0), ("green", 0.0), ("blue", -1.0)):
            steps += [*_light_of(colour, f"{colour}-own"), _third(f"{colour}-third")]
            for part in ("own", "third"):
                offset = Node("feOffset", {"in": f"{colour}-{part}", "result": f"{colour}-{part}-there"})
                self.series.put(offset, "dx", direction * dx, self.series.tolerance)
                self.series.put(offset, "dy", direction * dy, self.series.tolerance)
                steps.append(offset)
        for part in ("own", "third"):
            steps.append(_sum(f"red-{part}-there", f"green-{part}-there", f"{part}-two"))
            steps.append(_sum(f"{part}-two", f"blue-{part}-there", f"{part}-all"))
        together = _merged("third-all", "own-all")
        together.attributes["result"] = "together"
        steps += [together, _cover("together", "cover")]
        most = "third-all"
        for colour in ("red", "green", "blue"):
            # The larger of two is one of them and what the other is more.
            steps += [_cover(f"{colour}-own-there", f"{colour}-cover"), _sum(f"{colour}-cover", most, f"{colour}-more", -1)]
            steps.append(_sum(most, f"{colour}-more", f"most-{colour}"))
            most = f"most-{colour}"
        return [*steps, _sum("cover", most, "excess", -1), _sum("together", "excess", "fringed", -1)]

    def _outward(self, effect: Fringe, node: Node, rows: Rows, box: Box) -> Node:
        """Red larger about a middle and blue smaller: three copies, added as light, over three that say how much is covered."""
        assert effect.middle is not None
        self.lost["a fringe that grows outward covers a little more at its edges than in the picture"] = None
        middle, share = read(effect.middle, rows), read(effect.distance, rows) / 100
        m = _matrix(effect, rows)
        x, y = m[:, 0] * middle[:, 0] + m[:, 2] * middle[:, 1] + m[:, 4], m[:, 1] * middle[:, 0] + m[:, 3] * middle[:, 1] + m[:, 5]
        name = self.new_id("fringed")
        self.defs.append(Node("g", {"id": name}, children=[node]))
        reach = float(np.hypot(max(abs(box[0]), abs(box[2])), max(abs(box[1]), abs(box[3]))))
        layers = []
        for part in ("third", "own"):
            layer = Node("g", style={"isolation": "isolate"})
            for colour, direction in (("red", 1.0), ("green", 0.0), ("blue", -1.0)):
                steps = [_third("only")] if part == "third" else _light_of(colour, "only")
                use = Node("use", {"href": f"#{name}"})
                filtered = Node("g", {"filter": f"url(#{self._filter(steps, box)})"}, children=[use])
                scale, zero = 1 + direction * share, np.zeros(len(rows))
                scaled = Node("g", children=[filtered], style={"mix-blend-mode": "plus-lighter"})
                self.series.transform(scaled, np.stack([scale, zero, zero, scale, x * (1 - scale), y * (1 - scale)], axis=1), reach)
                layer.children.append(scaled)
            layers.append(layer)
        return Node("g", style={"isolation": "isolate"}, children=layers)

    def _smeared(self, effect: Blur, angle: Track, node: Node, rows: Rows, box: Box) -> Node:
        """Blurred in one direction: turned so that it goes to the right, blurred across, and turned back."""
        directions = np.radians(read(angle, rows))
        x, y = self._moved(effect, np.cos(directions), np.sin(directions), rows)
        turned = np.arctan2(y, x)
        sigma = self._lengths(effect, effect.size, rows)
        blur = self._gaussian("SourceGraphic", np.stack([sigma, np.zeros(len(rows))], axis=1))
        reach = float(np.hypot(max(abs(box[0]), abs(box[2])), max(abs(box[1]), abs(box[3]))))
        back = Node("g", children=[node])
        self.series.transform(back, _turns(-turned), reach)
        filtered = Node("g", {"filter": f"url(#{self._filter([blur], (-reach, -reach, reach, reach))})"}, children=[back])
        there = Node("g", children=[filtered])
        self.series.transform(there, _turns(turned), reach)
        return there

    def _mask(self, effect: Mask[Step], rows: Rows, box: Box) -> str:
        name = self.new_id("mask")
        content = Node("g", children=self.all(effect.steps, rows))
        sigma = self._lengths(effect, effect.feather, rows)
        if sigma.max() > 0:
            room = _grown(box, 3 * _FAR * float(sigma.max()))
            content = Node("g", {"filter": f"url(#{self._filter([self._gaussian('SourceGraphic', sigma)], room)})"}, children=[content])
        if effect.reads == "lightness":
            # Empty areas are black, so that they hide.
            values = "0.2126 0.7152 0.0722 0 0  0.2126 0.7152 0.0722 0 0  0.2126 0.7152 0.0722 0 0  0 0 0 1 0"
        else:
            values = "0 0 0 0 1  0 0 0 0 1  0 0 0 0 1  0 0 0 1 0"
        white = self._filter([Node("feColorMatrix", {"type": "matrix", "values": values})], box)
        content = Node("g", {"filter": f"url(#{white})"}, children=[content])
        if effect.side == "outside":
            flood = Node("feFlood", {"flood-color": "#000", "result": "ground"})
            over = _merged("ground", "SourceGraphic")
            turn = Node("feColorMatrix", {"type": "matrix", "values": "-1 0 0 0 1  0 -1 0 0 1  0 0 -1 0 1  0 0 0 1 0"})
            content = Node("g", {"filter": f"url(#{self._filter([flood, over, turn], box)})"}, children=[content])
        self.defs.append(Node("mask", {"id": name, **_region("mask", box)}, children=[content], style={"mask-type": "luminance"}))
        return name

    def _inked(self, of: str, colour: Track, rows: Rows, opacity: Array) -> list[Node]:
        """A silhouette in a colour, called `inked`."""
        rgba = read(colour, rows)
        flood = Node("feFlood", {"result": "ink"})
        self.series.colour(flood, "flood-color", rgba[:, :3])
        self.series.put(flood, "flood-opacity", np.clip(rgba[:, 3] * opacity, 0, 1), _SEEN, digits=4)
        return [flood, Node("feComposite", {"in": "ink", "in2": of, "operator": "in", "result": "inked"})]

    def _gaussian(self, of: str, sigma: Array, *, result: str = "blurred") -> Node:
        node = Node("feGaussianBlur", {"in": of, "result": result})
        self.series.put(node, "stdDeviation", sigma, max(self.series.tolerance / 4, 0.01))
        return node

    def _lengths(self, effect: Effect, track: Track, rows: Rows) -> Array:
        """A length in the space of the group."""
        m = _matrix(effect, rows)
        result: Array = read(track, rows) * np.sqrt(np.abs(m[:, 0] * m[:, 3] - m[:, 1] * m[:, 2]))
        return result

    def _moved(self, effect: Effect, dx: Array, dy: Array, rows: Rows) -> tuple[Array, Array]:
        """A move in the space of the group."""
        m = _matrix(effect, rows)
        return m[:, 0] * dx + m[:, 2] * dy, m[:, 1] * dx + m[:, 3] * dy

    def _reach(self, effect: Effect, rows: Rows, box: Box) -> float:
        match effect:
            case Shadow():
                dx, dy = self._moved(effect, read(effect.dx, rows), read(effect.dy, rows), rows)
                return float(np.hypot(dx, dy).max()) + _FAR * float(self._lengths(effect, effect.blur, rows).max())
            case Glow() | Blur():
                return _FAR * float(self._lengths(effect, effect.size, rows).max())
            case Fringe():
                distance = float(np.abs(read(effect.distance, rows)).max())
                if effect.middle is not None:
                    return distance / 100 * float(np.hypot(box[2] - box[0], box[3] - box[1])) * 2
                return distance * float(np.sqrt(np.abs(np.linalg.det(_matrix(effect, rows)[:, [0, 2, 1, 3]].reshape(-1, 2, 2))).max()))
        return 0.0


def _matrix(effect: Effect, rows: Rows) -> Array:
    return read(effect.matrix, rows) if effect.matrix is not None else np.repeat(matrix.IDENTITY, len(rows), axis=0)


def _turns(angles: Array) -> Array:
    cos, sin, zero = np.cos(angles), np.sin(angles), np.zeros(len(angles))
    return np.stack([cos, sin, -sin, cos, zero, zero], axis=1)


def _grown(box: Box, by: float) -> Box:
    room = by + 2
    return box[0] - room, box[1] - room, box[2] + room, box[3] + room


def _region(of: str, box: Box) -> dict[str, str]:
    left, top, right, bottom = box
    sides = {"x": left, "y": top, "width": right - left, "height": bottom - top}
    return {f"{of}Units": "userSpaceOnUse", **{name: number(value, 1) for name, value in sides.items()}}


def _merged(*names: str) -> Node:
    return Node("feMerge", children=[Node("feMergeNode", {"in": name}) for name in names])


def _sum(item: str, other: str, result: str, times: int = 1) -> Node:
    """One picture and another, this many times, added channel by channel and cut to 0…1."""
    return Node("feComposite", {"in": item, "in2": other, "operator": "arithmetic", "k2": "1", "k3": str(times), "result": result})


def _light_of(colour: str, result: str) -> list[Node]:
    """Return filter nodes that turn a source's lightness into coverage of one colour."""
    place = ("red", "green", "blue").index(colour)
    bright = ["1" if item == place else "0" for item in range(5)]
    only = [["0", "0", "0", "0", "1"] if item == place else ["0"] * 5 for item in range(3)]
    values = " ".join(" ".join(part) for part in (*only, bright))
    return [
        Node("feColorMatrix", {"in": "SourceGraphic", "type": "matrix", "values": values, "result": f"{colour}-light"}),
        # Nearly transparent areas stay so: multiply by the alpha of the picture.
        Node("feComposite", {"in": f"{colour}-light", "in2": "SourceAlpha", "operator": "in", "result": result}),
    ]


def _third(result: str) -> Node:
    """A third of the source's alpha, in black."""
    values = "0 0 0 0 0  0 0 0 0 0  0 0 0 0 0  0 0 0 0.333333 0"
    return Node("feColorMatrix", {"in": "SourceAlpha", "type": "matrix", "values": values, "result": result})


def _cover(of: str, result: str) -> Node:
    """The alpha of a picture, in black."""
    return Node("feColorMatrix", {"in": of, "type": "matrix", "values": "0 0 0 0 0  0 0 0 0 0  0 0 0 0 0  0 0 0 1 0", "result": result})
