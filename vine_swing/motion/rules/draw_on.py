"""Draw-on: only a part of an outline, from one share of its length to another, moved on by `shift`: a line that draws itself.

The contours of an outline are drawn one after the other. What is moved past the end comes in again at the beginning.
"""

import numpy as np

from vine_swing.motion.curves.contours import Contour, sections
from vine_swing.motion.curves.length import Gone
from vine_swing.motion.rules.bending import Bending, no_numbers
from vine_swing.motion.rules.spec import Array, RuleSpec, SettingSpec, by_name

#: Shares nearer than this are one.
_SAME = 1e-9


def bend(contours: list[Contour], how: Bending) -> list[Contour]:
    """What is drawn of the contours of a single frame."""
    start, end = sorted((float(how.number("from")[0, 0]), float(how.number("to", 1.0)[0, 0])))
    if end - start >= 1 - _SAME:
        return contours
    shift = float(how.number("shift")[0, 0])
    gone = [Gone.along(one) for one in contours]
    lengths = [float(one.total[0]) for one in gone]
    whole = sum(lengths)
    if end - start <= _SAME or whole == 0:
        return []
    first = (start + shift) % 1.0 * whole
    last = first + (end - start) * whole
    found: list[Contour] = []
    begin = 0.0
    for contour, one, length in zip(contours, gone, lengths, strict=True):
        parts = [_part(one, low, high) for low, high in _shown(first - begin, last - begin, length, whole)]
        if contour.closed and len(parts) == 2 and parts[1][1]:
            # What passes the end of a closed contour goes on at its beginning without lifting the pen.
            parts = [(np.concatenate([parts[0][0], parts[1][0]], axis=1), False)]
        found += [Contour(pieces, np.zeros(pieces.shape[1], bool), False) for pieces, _ in parts]
        begin += length
    return found


def _shown(first: float, last: float, length: float, whole: float) -> list[tuple[float, float]]:
    """The stretches of a contour of some length that are shown; those of the next round come after."""
    shown = []
    for round_ in (0.0, whole):
        low, high = max(0.0, first - round_), min(length, last - round_)
        if high - low > _SAME * whole:
            shown.append((low, high))
    return shown


def _part(gone: Gone, low: float, high: float) -> tuple[Array, bool]:
    """The cubics (1, s, 4, 2) of a contour between two lengths, and whether they begin where it does."""
    (first, last), (u, v) = (row[0] for row in gone.places(np.array([[low, high]])))
    pieces = gone.contour.pieces[:, first : last + 1]
    start, end = np.zeros(pieces.shape[1]), np.ones(pieces.shape[1])
    start[0], end[-1] = u, v
    kept = end - start > 0
    return sections(pieces[:, kept], start[None, kept], end[None, kept]), low == 0.0


SPEC = RuleSpec(
    kind="draw-on",
    label="Draw-on",
    about="A line that draws itself: writing, an underline, a route on a map; moved on, a worm that crawls round.",
    settings=by_name(
        SettingSpec(
            "from", "from", "of the way", 0.0, 0.0, 1.0, usual=(0.0, 1.0), step=0.01, about="Where it begins: 0 is the first point, 1 the last."
        ),
        SettingSpec("to", "to", "of the way", 1.0, 0.0, 1.0, usual=(0.0, 1.0), step=0.01, about="How far it is drawn."),
        SettingSpec("shift", "shift", "of the way", 0.0, usual=(-1.0, 1.0), step=0.01, about="How far both are moved on."),
    ),
    modes=(),
    prepare=no_numbers,
    bend=bend,
    by_frame=True,
    of="outline",
    acts=("outline",),
    summary="{from} to {to} · {shift}",
)
