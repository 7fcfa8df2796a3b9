"""Setting a text: from characters to glyphs in lines, each with its letter, word and line.

The first baseline is on y = 0; x = 0 is where the text is aligned.
"""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.curves.outline import NOTHING, Outline
from vine_swing.motion.outline.text.families import faces_of
from vine_swing.motion.outline.text.runs import base_level, missing_in, runs_of
from vine_swing.motion.parade.model import TextPartName

Align = Literal["left", "middle", "right"]
#: What lines can be broken after.
_BREAKABLE = re.compile(r"\S*?[-‐–—](?=\S)|\S+\s*|\s+")


@dataclass(frozen=True)
class Setting:
    """How a text is set. `wrap`: the most em a line may be wide, None for any. `tracking`: em more after each letter. `leading`: em from one
    baseline to the next."""

    font: str
    weight: int
    align: Align
    wrap: float | None
    tracking: float
    leading: float


@dataclass(frozen=True, eq=False)
class Typeset:
    """A text of size 1, as m glyphs in reading order.

    outlines: of each glyph, its origin at the pen.
    places: (m, 2), where the pen is, in em.
    letters, words, lines: (m,), which of each a glyph belongs to, counted from 0 in reading order; only what has ink is counted.
    width: of the widest line, without the tracking after its last letter.
    missing: the characters no font has.
    """

    outlines: tuple[Outline, ...]
    places: NDArray[np.float64]
    letters: NDArray[np.intp]
    words: NDArray[np.intp]
    lines: NDArray[np.intp]
    width: float
    missing: tuple[str, ...]

    def outline(self, size: float) -> Outline:
        """All of it as one outline, at a size in px per em."""
        return _joined(self.outlines, self.places, size)

    def part(self, by: TextPartName, which: int, size: float) -> Outline:
        """One of its letters, words or lines, where it stands."""
        places = np.flatnonzero(getattr(self, by) == which)
        return _joined(tuple(self.outlines[one] for one in places), self.places[places], size)

    def count(self, by: TextPartName) -> int:
        """How many letters, words or lines it has."""
        numbers: NDArray[np.intp] = getattr(self, by)
        return int(numbers.max()) + 1 if len(numbers) else 0


@dataclass(frozen=True)
class _Inked:
    """A glyph with ink: its outline, where the pen is on its line, and the place in the text of its letter."""

    outline: Outline
    x: float
    y: float
    place: int


@lru_cache(maxsize=512)
def typeset(text: str, setting: Setting) -> Typeset:
    """Set a text. Lines are broken at line ends, and at spaces and hyphens where they would be wider than `wrap`.

    Raises:
        KeyError: if the font does not exist family.
    """
    faces = faces_of(setting.font)
    inked: list[tuple[int, int, _Inked]] = []
    widest = 0.0
    for line_number, (start, line, base) in enumerate(_lines(text, setting)):
        glyphs, width = _line(line, setting, base)
        widest = max(widest, width)
        shift = {"left": 0.0, "middle": -width / 2, "right": -width}[setting.align]
        down = line_number * setting.leading
        inked += [(line_number, start, _Inked(one.outline, one.x + shift, one.y + down, start + one.place)) for one in glyphs]
    # In reading order: letters written first come first.
    inked.sort(key=lambda one: one[2].place)
    places = [one.place for _, _, one in inked]
    word_of = {at: number for number, match in enumerate(re.finditer(r"\S+", text)) for at in range(*match.span())}
    return Typeset(
        tuple(one.outline for _, _, one in inked),
        np.array([(one.x, one.y) for _, _, one in inked], float).reshape(-1, 2),
        _numbered(places),
        _numbered([word_of.get(at, -1) for at in places]),
        _numbered([line for line, _, _ in inked]),
        widest,
        tuple(missing_in(text, faces)),
    )


def _lines(text: str, setting: Setting) -> Iterator[tuple[int, str, int]]:
    """Where each line begins in a text, what is on it, and the direction of its paragraph."""
    start = 0
    for paragraph in text.split("\n"):
        base = base_level(paragraph)
        for offset, line in _wrapped(paragraph, setting, base):
            yield start + offset, line, base
        start += len(paragraph) + 1


def _wrapped(paragraph: str, setting: Setting, base: int) -> Iterator[tuple[int, str]]:
    if setting.wrap is None:
        yield 0, paragraph
        return
    begun = end = 0
    for piece in _BREAKABLE.finditer(paragraph):
        if end > begun and _line(paragraph[begun : piece.end()].rstrip(), setting, base)[1] > setting.wrap:
            yield begun, paragraph[begun:end].rstrip()
            begun = end
        end = piece.end()
    yield begun, paragraph[begun:].rstrip()


def _line(line: str, setting: Setting, base: int) -> tuple[list[_Inked], float]:
    """The glyphs of one line with ink, from left to right, and how wide it is."""
    inked: list[_Inked] = []
    pen, last = 0.0, 0.0
    for run in runs_of(line, faces_of(setting.font), base=base):
        glyphs = run.face.shaped(line[run.start : run.end], setting.weight, right_to_left=run.right_to_left, ligatures=setting.tracking == 0)
        for number, glyph in enumerate(glyphs):
            outline = run.face.outline(glyph.index, setting.weight)
            if len(outline.points):
                inked.append(_Inked(outline, pen + glyph.dx, glyph.dy, run.start + glyph.cluster))
            pen += glyph.advance
            # Marks stay with their letter: only what ends a letter is followed by more room.
            ends = number + 1 == len(glyphs) or glyphs[number + 1].cluster != glyph.cluster
            last = setting.tracking if ends else 0.0
            pen += last
    return inked, max(0.0, pen - last)


def _numbered(values: list[int]) -> NDArray[np.intp]:
    """Equal neighbours get one number, counted from 0."""
    numbers = {value: number for number, value in enumerate(dict.fromkeys(values))}
    return np.array([numbers[value] for value in values], np.intp)


def _joined(outlines: tuple[Outline, ...], places: NDArray[np.float64], size: float) -> Outline:
    if not outlines:
        return NOTHING
    points = [(one.points + place) * size for one, place in zip(outlines, places, strict=True)]
    return Outline(b"".join(one.verbs for one in outlines), np.concatenate(points))
