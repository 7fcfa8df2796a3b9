"""A contact sheet for print: frames in rows on landscape pages (PDF, ISO 32000), and beside them an exposure list: which keys are on each frame.

The size of a page is A4 in points, 1/72 of an inch.
"""

from dataclasses import dataclass
from pathlib import Path

import numpy as np
import skia

from vine_swing.formats.export import Cancelled, Pixels, Progress, never_cancelled
from vine_swing.formats.film import Film
from vine_swing.motion.curves.combining import skia_path
from vine_swing.motion.outline.text import Setting, typeset
from vine_swing.motion.scene.model import Scene

PAGE = (842.0, 595.0)
MARGIN, GAP, LABEL = 30.0, 8.0, 11.0
#: The share of the page's width that the list takes, and what one line of it takes, pt.
LIST, LINE = 0.26, 9.5
_INK, _PALE = skia.ColorBLACK, skia.Color(190, 186, 176)
#: Pictures are painted this many times as large as they are printed, for 216 dots an inch.
_SHARPER = 3.0


@dataclass(frozen=True)
class _Grid:
    """Where pictures are on a page: how many across and down, and the size of each, pt."""

    columns: int
    rows: int
    width: float
    height: float


def write_sheet(film: Film, path: Path, *, progress: Progress = never_cancelled) -> tuple[str, ...]:
    """Paint every this many frames, as the options say, with their numbers.

    Raises:
        Cancelled: if `progress` returns False; the unfinished file is left for the caller to remove.
    """
    chosen = list(range(0, len(film.frames), max(1, round(film.options.every))))
    grid = _grid(film)
    exposed = exposures(film.scene)
    stream = skia.FILEWStream(str(path))
    document = skia.PDF.MakeDocument(stream)
    pictures = film.pictures(chosen, scale=min(1.0, _SHARPER * grid.width / film.size[0]))
    each = grid.columns * grid.rows
    pages = -(-len(chosen) // each)
    for page in range(pages):
        canvas = document.beginPage(*PAGE)
        rows = chosen[page * each : (page + 1) * each]
        title = f"{film.scene.name} · {film.scene.length} frames at {film.scene.fps:g} a second · page {page + 1} of {pages}"
        _write(canvas, title, MARGIN, MARGIN - 8, 10, bold=True)
        for place, row in enumerate(rows):
            down, across = divmod(place, grid.columns)
            x = MARGIN + across * (grid.width + GAP)
            y = MARGIN + 6 + down * (grid.height + LABEL + GAP)
            _picture(canvas, next(pictures), x, y, grid)
            frame = float(film.frames[row])
            _write(canvas, f"{frame:g}  ·  {frame / film.scene.fps:.2f} s", x, y + grid.height + 8.5, 7)
            if not progress(row + 1):
                raise Cancelled
        after = chosen[(page + 1) * each] if page + 1 < pages else len(film.frames)
        first, last = film.frames[rows[0]], film.frames[after - 1]
        _list(canvas, [(frame, words) for frame, words in exposed if first <= frame <= last])
        document.endPage()
    document.close()
    stream.flush()
    progress(len(film.frames))
    return ()


def exposures(scene: Scene) -> list[tuple[float, str]]:
    """For each frame with keys, in order, which channels of which objects have them there."""
    result: dict[float, dict[str, list[str]]] = {}
    for obj in scene.objects:
        for name, channel in obj.channels.items():
            for key in channel.keys:
                result.setdefault(key.frame, {}).setdefault(obj.name, []).append(name)
    return [(frame, "; ".join(f"{name}: {', '.join(which)}" for name, which in result[frame].items())) for frame in sorted(result)]


def _grid(film: Film) -> _Grid:
    columns = film.options.columns
    wide = PAGE[0] * (1 - LIST) - 2 * MARGIN
    width = (wide - (columns - 1) * GAP) / columns
    high = PAGE[1] - 2 * MARGIN - 6
    # A picture is no higher than the page.
    height = min(width * film.size[1] / film.size[0], high - LABEL - GAP)
    return _Grid(columns, max(1, int((high + GAP) / (height + LABEL + GAP))), height * film.size[0] / film.size[1], height)


def _picture(canvas: skia.Canvas, pixels: Pixels, x: float, y: float, grid: _Grid) -> None:
    image = skia.Image.fromarray(np.array(pixels), skia.kRGBA_8888_ColorType, skia.kPremul_AlphaType)
    box = skia.Rect.MakeXYWH(x, y, grid.width, grid.height)
    canvas.drawImageRect(image, box, skia.SamplingOptions(skia.FilterMode.kLinear, skia.MipmapMode.kLinear))
    canvas.drawRect(box, skia.Paint(Color=_PALE, Style=skia.Paint.kStroke_Style, StrokeWidth=0.5, AntiAlias=True))


def _list(canvas: skia.Canvas, lines: list[tuple[float, str]]) -> None:
    x, y, bottom = PAGE[0] * (1 - LIST) - MARGIN + GAP, MARGIN + 12, PAGE[1] - MARGIN
    _write(canvas, "Frame   Keys", x, y - 8, 7, bold=True)
    wide = PAGE[0] - MARGIN - x - 26
    for number, (frame, words) in enumerate(lines):
        parts = _wrapped(words, wide)
        if y + LINE * len(parts) > bottom:
            _write(canvas, f"and {len(lines) - number} more frames with keys", x, y + 6, 6.5)
            return
        _write(canvas, f"{frame:g}", x, y + 6, 6.5, bold=True)
        for part in parts:
            _write(canvas, part, x + 26, y + 6, 6.5)
            y += LINE


def _wrapped(words: str, wide: float) -> list[str]:
    """Words in lines of about this many points of width."""
    most = max(8, int(wide / 3.3))
    lines = [""]
    for word in words.split(" "):
        if len(lines[-1]) + len(word) + 1 > most and lines[-1]:
            lines.append("")
        lines[-1] = f"{lines[-1]} {word}".strip()
    return lines


def _write(canvas: skia.Canvas, words: str, x: float, y: float, size: float, *, bold: bool = False) -> None:
    """Draw text as outlines, so that every script prints as in the scene."""
    setting = Setting("figtree", 700 if bold else 400, "left", None, 0.0, 1.2)
    text = typeset(words, setting)
    canvas.save()
    canvas.translate(x, y)
    canvas.scale(size, size)
    for outline, (px, py) in zip(text.outlines, text.places, strict=True):
        canvas.save()
        canvas.translate(float(px), float(py))
        canvas.drawPath(skia_path(outline), skia.Paint(Color=_INK, AntiAlias=True))
        canvas.restore()
    canvas.restore()
