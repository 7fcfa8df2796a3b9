"""Writes values over time onto elements: as an attribute where they are constant, else as an animation."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vine_swing.formats.svg.matrices import taken_apart, tolerances
from vine_swing.formats.svg.moving import Array, Clock, Moving, Transforming, changes, is_still, line_of, reduced
from vine_swing.formats.svg.nodes import Node, number
from vine_swing.motion.curves.outline import CLOSE, CUBIC, LINE, MOVE, Outline
from vine_swing.picture.tracks import OutlineTrack, Track

Rows = NDArray[np.float64]
_LETTERS = {MOVE: "M", LINE: "L", CUBIC: "C", CLOSE: "Z"}
_IDENTITY = np.array([0.0, 0, 0, 0, 1, 1])
#: Half a step of a colour of 8 bits.
_HALF_SHADE = 0.5 / 255


def read(track: Track, rows: Rows) -> Array:
    """The values of a track at some rows: (n,) or (n, w)."""
    values = track.values
    result: Array = values[np.clip(np.floor(rows - track.first + 0.5).astype(np.intp), 0, len(values) - 1)]
    return result


@dataclass(frozen=True)
class Series:
    """How samples become attributes.

    clock: when they are. tolerance: how far anything may be off, px. digits: after the point, of lengths.
    """

    clock: Clock
    tolerance: float
    digits: int

    def put(self, node: Node, name: str, values: Array, tolerance: float, *, digits: int | None = None) -> None:
        """A number (n,), or several (n, w) written with spaces between, as an attribute."""
        table = values.reshape(len(values), -1)
        places = self.digits if digits is None else digits

        def text(row: Array) -> str:
            return " ".join(number(float(item), places) for item in row)

        if is_still(table, tolerance):
            node.attributes[name] = text(table[0])
            return
        stored = reduced(self.clock.times, table, tolerance)
        line = line_of(self.clock.times, table, tolerance) if table.shape[1] == 1 else None
        node.moving.append(Moving(name, self.clock.times[stored], tuple(text(row) for row in table[stored]), line=line))

    def colour(self, node: Node, name: str, rgb: Array) -> None:
        """A colour, (n, 3) in sRGB, 0…1."""
        if is_still(rgb, _HALF_SHADE):
            node.attributes[name] = _hex(rgb[0])
            return
        stored = reduced(self.clock.times, rgb, 2 * _HALF_SHADE)
        node.moving.append(Moving(name, self.clock.times[stored], tuple(_hex(row) for row in rgb[stored])))

    def words(self, node: Node, name: str, texts: list[str]) -> None:
        """Words that change from frame to frame."""
        times, result = changes(texts, self.clock)
        if len(result) == 1:
            node.attributes[name] = result[0]
        else:
            node.moving.append(Moving(name, times, result, "discrete"))

    def transform(self, node: Node, matrices: Array, reach: float) -> None:
        """Matrices (n, 6); the drawn points are within `reach` of the origin."""
        parts = taken_apart(matrices)
        allowed = tolerances(parts, reach, self.tolerance)
        if is_still(parts, allowed):
            m = matrices[0]
            if not np.allclose(m, [1, 0, 0, 1, 0, 0], atol=1e-12):
                node.attributes["transform"] = "matrix(" + " ".join(number(float(item), 8) for item in m) + ")"
            return
        result = []
        for name, columns in (("translate", [0, 1]), ("rotate", [2]), ("skewX", [3]), ("scale", [4, 5])):
            own = parts[:, columns]
            if is_still(own, allowed[columns] * 1e-3) and np.allclose(own[0], _IDENTITY[columns], atol=1e-12):
                continue
            still = is_still(own, allowed[columns])
            stored = np.array([0, len(own) - 1]) if still else reduced(self.clock.times, own, allowed[columns])
            result.append((name, self.clock.times[stored], own[stored[[0, 0]] if still else stored]))
        stored = reduced(self.clock.times, parts, allowed)
        node.transforming = Transforming(tuple(result), self.clock.times[stored], parts[stored], line_of(self.clock.times, parts, allowed))

    def outline(self, node: Node, track: OutlineTrack, rows: Rows) -> None:
        """The outline of a track as path data."""
        which = track.series.which
        places = which[np.clip(np.floor(rows - track.first + 0.5).astype(np.intp), 0, len(which) - 1)]
        outlines = track.series.outlines
        shown = sorted(set(places.tolist()))
        if len(shown) == 1:
            node.attributes["d"] = self.path(outlines[shown[0]])
            return
        first = outlines[shown[0]]
        if all(outlines[item].verbs == first.verbs for item in shown):
            points = np.stack([outlines[item].points.reshape(-1) for item in shown])[np.searchsorted(shown, places)]
            if is_still(points, self.tolerance / 4):
                node.attributes["d"] = self.path(first)
                return
            stored = reduced(self.clock.times, points, self.tolerance / 2)
            data = tuple(self.path(Outline(first.verbs, row.reshape(-1, 2))) for row in points[stored])
            node.moving.append(Moving("d", self.clock.times[stored], data))
            return
        texts = {item: self.path(outlines[item]) for item in shown}
        self.words(node, "d", [texts[item] for item in places.tolist()])

    def path(self, outline: Outline) -> str:
        """An outline as path data."""
        parts = []
        for verb, points in outline.segments():
            parts.append(_LETTERS[verb] + " ".join(number(float(item), self.digits) for item in points.reshape(-1)))
        # SVG has no data for nothing at all: a move alone paints nothing.
        return "".join(parts) or "M0 0"


def _hex(rgb: Array) -> str:
    return "#" + "".join(f"{round(min(max(float(part), 0.0), 1.0) * 255):02x}" for part in rgb[:3])
