"""A scene as an SVG file that moves by itself, as an HTML page that does, or as one still SVG picture."""

import io
from collections.abc import Iterator
from functools import lru_cache
from pathlib import Path

import numpy as np
from PIL import Image

from vine_swing.formats.export import Cancelled, Progress, never_cancelled
from vine_swing.formats.film import Film
from vine_swing.formats.svg.css import Sheet
from vine_swing.formats.svg.drawing import Drawing
from vine_swing.formats.svg.moving import Clock
from vine_swing.formats.svg.nodes import Node, number
from vine_swing.formats.svg.series import Series
from vine_swing.formats.svg.smil import text_of, written
from vine_swing.motion import MotionError
from vine_swing.motion.baking.bake import bake
from vine_swing.motion.basics import colour
from vine_swing.picture.listing import paint_list

#: Between two frames a second sample is taken so late, in frames, so that what jumps at a frame jumps there and does not slide.
LATE = 0.96
#: Larger files would not open in a browser.
MOST_CHARACTERS = 200_000_000


def write_svg(film: Film, path: Path, *, progress: Progress = never_cancelled) -> tuple[str, ...]:
    """Animated SVG: exact at every frame within the tolerance of the options, straight in between.

    Raises:
        MotionError: if the file would be too large.
    """
    nodes, drawing, clock = _drawn(film, progress)
    often = "indefinite" if film.options.loops == 0 else str(film.options.loops)
    timing = f'dur="{number(clock.seconds, 6)}s" repeatCount="{often}" fill="freeze"'
    _write(path, _svg(film, drawing.defs, nodes, timing))
    return _lost(film, drawing)


def write_still(film: Film, path: Path, *, progress: Progress = never_cancelled) -> tuple[str, ...]:
    """One frame as SVG, the first of the film."""
    still = film.part(slice(0, 1))
    nodes, drawing, _ = _drawn(still, progress)
    _write(path, _svg(still, drawing.defs, nodes, ""))
    return _lost(film, drawing)


def write_html(film: Film, path: Path, *, progress: Progress = never_cancelled) -> tuple[str, ...]:
    """An HTML page that plays a scene by CSS, without a script.

    Raises:
        MotionError: if the file would be too large.
    """
    nodes, drawing, clock = _drawn(film, progress)
    often = "infinite" if film.options.loops == 0 else str(film.options.loops)
    repeat = "indefinite" if film.options.loops == 0 else str(film.options.loops)
    timing = f'dur="{number(clock.seconds, 6)}s" repeatCount="{repeat}" fill="freeze"'
    sheet = Sheet(timing, f"{number(clock.seconds, 6)}s {often} both")
    # Referenced elements are shown as copies: these have their own CSS animations, but share SVG's.
    body = [*_head(film), "<defs>", *written(drawing.defs, timing), "</defs>", *sheet.written(nodes), "</svg>"]
    page = [
        "<!doctype html>",
        f'<html lang="en"><head><meta charset="utf-8"><title>{text_of(film.scene.name)}</title>',
        "<style>body{margin:0}svg{display:block;max-width:100%;height:auto}",
        *sheet.rules,
        "</style></head><body>",
        *body,
        "</body></html>",
    ]
    _write(path, page)
    return _lost(film, drawing)


def _drawn(film: Film, progress: Progress) -> tuple[list[Node], Drawing, Clock]:
    frames = film.frames
    count = len(frames)
    if count > 1:
        step = float(frames[1] - frames[0])
        grid = np.stack([frames, frames + LATE * step], axis=1).reshape(-1)
        whole = np.tile([True, False], count)
        times = np.append((np.arange(count)[:, None] + [0, LATE]).reshape(-1) / count, 1.0)
        rows, marks = np.append(np.arange(2 * count), 2 * count - 1), np.append(whole, False)
    else:
        grid, times, rows, marks = frames, np.zeros(1), np.arange(1), np.ones(1, bool)
    listed = paint_list(bake(film.scene, grid))
    if not progress(count // 2):
        raise Cancelled
    clock = Clock(times, marks, count / film.fps)
    # A single picture is small enough to be exact.
    series = Series(clock, film.options.tolerance if count > 1 else 1e-6, 3 if count > 1 else 6)
    drawing = Drawing(series, _size_of)
    nodes = drawing.all(listed.steps, rows.astype(float))
    r, g, b, alpha = colour.parse_hex(film.scene.background)
    if alpha > 0:
        ground = Node("rect", {"width": "100%", "height": "100%", "fill": colour.to_hex(np.array([r, g, b, 1.0]))[:7]})
        if alpha < 1:
            ground.attributes["fill-opacity"] = number(float(alpha), 4)
        nodes.insert(0, ground)
    if not progress(count):
        raise Cancelled
    return nodes, drawing, clock


def _head(film: Film) -> Iterator[str]:
    (width, height), (wide, high) = film.size, film.scene.size
    yield (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}" height="{height}" viewBox="0 0 {wide} {high}" overflow="hidden"'
        ' stroke-linecap="round" stroke-linejoin="round">'
    )
    yield f"<title>{text_of(film.scene.name)}</title>"


def _svg(film: Film, defs: list[Node], nodes: list[Node], timing: str) -> Iterator[str]:
    yield from _head(film)
    if defs:
        yield "<defs>"
        yield from written(defs, timing)
        yield "</defs>"
    yield from written(nodes, timing)
    yield "</svg>"


def _write(path: Path, lines: Iterator[str] | list[str]) -> None:
    size = 0
    with path.open("w", encoding="utf-8") as file:
        for line in lines:
            size += len(line) + 1
            if size > MOST_CHARACTERS:
                raise MotionError(f"the file would be larger than {MOST_CHARACTERS / 1e6:.0f} MB, which browsers do not open; take fewer frames")
            file.write(line + "\n")


def _lost(film: Film, drawing: Drawing) -> tuple[str, ...]:
    blurred = ["motion blur cannot be said in SVG; everything is sharp"] if film.scene.blur is not None else []
    return (*blurred, *drawing.lost)


@lru_cache(maxsize=4096)
def _size_of(content: bytes) -> tuple[int, int]:
    with Image.open(io.BytesIO(content)) as image:
        return image.width, image.height
