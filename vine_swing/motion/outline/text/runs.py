"""A line of text cut into runs of one direction and one face, from left to right as they are seen.

Directions follow Unicode Standard Annex #9 (the bidirectional algorithm).
"""

import unicodedata
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import groupby

from bidi.algorithm import (
    explicit_embed_and_overrides,
    get_base_level,
    get_embedding_levels,
    get_empty_storage,
    resolve_implicit_levels,
    resolve_neutral_types,
    resolve_weak_types,
)

from vine_swing.motion.outline.text.face import Face

#: Classes of characters that are read, or make others be read, from right to left.
_RIGHT_TO_LEFT = {"R", "AL", "AN", "RLE", "RLO", "RLI"}
#: The classes that the library knows; others, of isolates and of characters without a meaning yet, count as neutral.
_KNOWN = {"L", "R", "AL", "EN", "ES", "ET", "AN", "CS", "NSM", "BN", "B", "S", "WS", "ON", "LRE", "LRO", "RLE", "RLO", "PDF"}
_NEUTRAL = "\ufffc"
#: What needs no glyph of its own: joiners, marks of direction, choosers between forms of a character.
_WITHOUT_GLYPH = {"Cf", "Mn", "Me"}


@dataclass(frozen=True)
class Run:
    """Characters of one direction and one face: text[start:end]."""

    face: Face
    start: int
    end: int
    right_to_left: bool


def runs_of(text: str, faces: Sequence[Face], *, base: int) -> list[Run]:
    """The runs of a line, from left to right as they are seen. `base`: 1 if its paragraph is read from right to left, else 0."""
    levels = _levels(text, base)
    chosen = _faces(text, faces)
    runs: list[tuple[int, Run]] = []
    for (level, _), places in groupby(range(len(text)), key=lambda at: (levels[at], id(chosen[at]))):
        first, *rest = places
        last = rest[-1] if rest else first
        runs.append((level, Run(chosen[first], first, last + 1, bool(level % 2))))
    return _reordered(runs)


def base_level(paragraph: str) -> int:
    """1 if the first letter of a paragraph is read from right to left, else 0 (rules P2 and P3)."""
    return int(get_base_level(paragraph))


def missing_in(text: str, faces: Sequence[Face]) -> list[str]:
    """The characters that none of the faces has, each once, in the order of the text."""
    shown = (one for one in text if not one.isspace() and unicodedata.category(one) not in _WITHOUT_GLYPH)
    return [one for one in dict.fromkeys(shown) if not any(ord(one) in face.covers for face in faces)]


def _levels(text: str, base: int) -> list[int]:
    """The embedding level of each character of a line; odd ones are read from right to left."""
    if base == 0 and not any(unicodedata.bidirectional(one) in _RIGHT_TO_LEFT for one in text):
        return [0] * len(text)
    storage = get_empty_storage()
    storage["base_level"], storage["base_dir"] = base, "LR"[base]
    get_embedding_levels("".join(one if unicodedata.bidirectional(one) in _KNOWN else _NEUTRAL for one in text), storage)
    for place, one in enumerate(storage["chars"]):
        one["place"] = place
    explicit_embed_and_overrides(storage)
    resolve_weak_types(storage)
    resolve_neutral_types(storage, False)
    resolve_implicit_levels(storage, False)
    known = {one["place"]: int(one["level"]) for one in storage["chars"]}
    # White space at the end of a line has the direction of the paragraph (rule L1).
    for place in range(len(text.rstrip()), len(text)):
        known[place] = base
    levels: list[int] = []
    for place in range(len(text)):
        # The algorithm takes joiners and the like out; each goes with the character before it.
        levels.append(known.get(place, levels[-1] if levels else base))
    return levels


def _faces(text: str, faces: Sequence[Face]) -> list[Face]:
    """The face of each character: the first that has it. Marks stay in the face of their letter, and what no face has in that before it."""
    chosen: list[Face] = []
    for one in text:
        before = chosen[-1] if chosen else faces[0]
        joined = one.isspace() or unicodedata.category(one) in _WITHOUT_GLYPH
        if joined and chosen and (ord(one) in before.covers or not one.isspace()):
            chosen.append(before)
        else:
            chosen.append(next((face for face in faces if ord(one) in face.covers), before))
    return chosen


def _reordered(runs: list[tuple[int, Run]]) -> list[Run]:
    """Runs in the order they are seen in: from the highest level down, each sequence of that level or more is reversed (rule L2)."""
    order = list(runs)
    odd = [level for level, _ in runs if level % 2]
    for level in range(max((one for one, _ in runs), default=0), min(odd, default=1) - 1, -1):
        at = 0
        while at < len(order):
            end = at
            while end < len(order) and order[end][0] >= level:
                end += 1
            order[at:end] = reversed(order[at:end])
            at = max(end, at + 1)
    return [run for _, run in order]
