"""One font file: which characters it has, the outlines of its glyphs, and text shaped into glyphs by HarfBuzz.

Lengths are in em, y downwards: font units over units per em, turned over.
"""

from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import uharfbuzz as hb

from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.curves.outline import Outline, OutlineBuilder


@dataclass(frozen=True)
class Glyph:
    """One glyph of a shaped run.

    index: which glyph of its face. cluster: the place in the text of the first character it represents.
    advance: how far it moves the pen. dx, dy: where it is drawn, from the pen.
    """

    index: int
    cluster: int
    advance: float
    dx: float
    dy: float


class Face:
    """A font file in memory."""

    def __init__(self, name: str, data: bytes) -> None:
        self.name = name
        self._face = hb.Face(hb.Blob(data))
        self.em = float(self._face.upem)
        self.covers = frozenset(self._face.unicodes)
        self._at_weight: dict[int, hb.Font] = {}

    @classmethod
    def checked(cls, name: str, data: bytes) -> "Face":
        """Return a font file that somebody brought.

        Raises:
            MotionError: if it is no font, or has no characters; saying what would work.
        """
        if data[:4] in (b"wOFF", b"wOF2"):
            raise MotionError(f"'{name}' is a font for web pages (WOFF); bring the TrueType or OpenType file it was made from (.ttf, .otf)")
        face = cls(name, data) if data[:4] in (b"\0\1\0\0", b"OTTO", b"true") else None
        if face is None or not face.covers:
            raise MotionError(f"'{name}' is no font that can be read; bring a TrueType or OpenType file (.ttf, .otf)")
        return face

    @property
    def weights(self) -> tuple[int, ...]:
        """The weights to choose from: those of its axis in steps of 100, or one where it has none."""
        axis = next((one for one in self._face.axis_infos if one.tag == "wght"), None)
        return (400,) if axis is None else tuple(weight for weight in range(100, 1000, 100) if axis.min_value <= weight <= axis.max_value) or (400,)

    def font(self, weight: int) -> hb.Font:
        """The font at a weight; the nearest there is."""
        if weight not in self._at_weight:
            font = hb.Font(self._face)
            font.set_variations({"wght": float(weight)})
            self._at_weight[weight] = font
        return self._at_weight[weight]

    def shaped(self, text: str, weight: int, *, right_to_left: bool, ligatures: bool) -> tuple[Glyph, ...]:
        """A run of text in one direction as glyphs, from left to right."""
        return _shaped(self, text, weight, right_to_left, ligatures)

    def outline(self, index: int, weight: int) -> Outline:
        """The outline of a glyph, its origin at the pen."""
        return _outline(self, index, weight)


@lru_cache(maxsize=4096)
def _shaped(face: Face, text: str, weight: int, right_to_left: bool, ligatures: bool) -> tuple[Glyph, ...]:
    buffer = hb.Buffer()
    # Code point by code point, so that clusters count the characters of the text.
    buffer.add_codepoints([ord(one) for one in text])
    buffer.guess_segment_properties()
    buffer.direction = "rtl" if right_to_left else "ltr"
    hb.shape(face.font(weight), buffer, {} if ligatures else {"liga": False, "clig": False})
    em = face.em
    return tuple(
        Glyph(info.codepoint, info.cluster, place.x_advance / em, place.x_offset / em, -place.y_offset / em)
        for info, place in zip(buffer.glyph_infos or (), buffer.glyph_positions or (), strict=True)
    )


@lru_cache(maxsize=8192)
def _outline(face: Face, index: int, weight: int) -> Outline:
    pen = _Pen(face.em)
    face.font(weight).draw_glyph(index, _FUNCTIONS, pen)
    return pen.builder.done()


class _Pen:
    """Collects what HarfBuzz draws; quadratic curves become cubics (degree elevation, which is exact)."""

    def __init__(self, em: float) -> None:
        self.em, self.builder, self.at = em, OutlineBuilder(), (0.0, 0.0)

    def scaled(self, x: float, y: float) -> tuple[float, float]:
        return x / self.em, -y / self.em

    def quadratic(self, control: tuple[float, float], end: tuple[float, float]) -> None:
        (x0, y0), (cx, cy), (x1, y1) = self.at, control, end
        self.builder.cubic((x0 + 2 / 3 * (cx - x0), y0 + 2 / 3 * (cy - y0)), (x1 + 2 / 3 * (cx - x1), y1 + 2 / 3 * (cy - y1)), end)
        self.at = end


def _functions() -> Any:
    def move(x: float, y: float, pen: _Pen) -> None:
        pen.at = pen.scaled(x, y)
        pen.builder.move(*pen.at)

    def line(x: float, y: float, pen: _Pen) -> None:
        pen.at = pen.scaled(x, y)
        pen.builder.line(*pen.at)

    def quadratic(cx: float, cy: float, x: float, y: float, pen: _Pen) -> None:
        pen.quadratic(pen.scaled(cx, cy), pen.scaled(x, y))

    def cubic(ax: float, ay: float, bx: float, by: float, x: float, y: float, pen: _Pen) -> None:
        pen.at = pen.scaled(x, y)
        pen.builder.cubic(pen.scaled(ax, ay), pen.scaled(bx, by), pen.at)

    functions = hb.DrawFuncs()
    functions.set_move_to_func(move)
    functions.set_line_to_func(line)
    functions.set_quadratic_to_func(quadratic)
    functions.set_cubic_to_func(cubic)
    functions.set_close_path_func(lambda pen: pen.builder.close())
    return functions


_FUNCTIONS = _functions()
