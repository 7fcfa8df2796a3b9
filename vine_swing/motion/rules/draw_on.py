"""Draw-on: only a part of an outline, from one share of its length to another, moved on by `shift`: a line that draws itself.

The contours of an outline are drawn one after the other. Parts moved past the end continue at the beginning.
"""

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.curves.contours import Contour, sections
from vine_swing.motion.curves.length import ArcLengths
from vine_swing.motion.rules.bending import Bending, no_numbers
from vine_swing.motion.rules.spec import Array, RuleSpec, SettingSpec, by_name

#: Shares nearer than this are one.
_SAME = 1e-9


def redraw(contours: list[Contour], how: Bending) -> list[list[Contour]]:
    """Return the visible part of the contours at each of k frames."""
    frames = how.t.shape[1]
    ends = np.sort(np.stack([_column(how, "from", frames), _column(how, "to", frames)]), axis=0)
    gone = [ArcLengths.of(one) for one in contours]
    lengths = [np.broadcast_to(one.total, (frames,)) for one in gone]
    whole = np.sum(lengths, axis=0) if lengths else np.zeros(frames)
    first = (ends[0] + _column(how, "shift", frames)) % 1.0 * whole
    last = first + (ends[1] - ends[0]) * whole
    full, nothing = ends[1] - ends[0] >= 1 - _SAME, (ends[1] - ends[0] <= _SAME) | (whole == 0)
    found: list[list[Contour]] = [[] for _ in range(frames)]
    begin = np.zeros(frames)
    for contour, one, length in zip(contours, gone, lengths, strict=True):
        # The visible part in this pass, and the part that wraps around.
        low, high = (np.stack([edge - begin, edge - begin - whole], axis=1) for edge in (first, last))
        low, high = np.maximum(low, 0.0), np.minimum(high, length[:, None])
        places, parameters = one.places(np.concatenate([low, high], axis=1))
        for frame in range(frames):
            row = contour.pieces[frame if len(contour.pieces) > 1 else 0]
            if full[frame]:
                found[frame].append(Contour(row[None], contour.straight, contour.closed))
                continue
            if nothing[frame]:
                continue
            parts = [
                (_part(row, places[frame], parameters[frame], part), low[frame, part] == 0.0)
                for part in (0, 1)
                if high[frame, part] - low[frame, part] > _SAME * whole[frame]
            ]
            if contour.closed and len(parts) == 2 and parts[1][1]:
                # What passes the end of a closed contour goes on at its beginning without lifting the pen.
                parts = [(np.concatenate([parts[0][0], parts[1][0]]), False)]
            found[frame] += [Contour(pieces[None], np.zeros(len(pieces), bool), False) for pieces, _ in parts]
        begin = begin + length
    return found


def _column(how: Bending, name: str, frames: int) -> Array:
    return np.broadcast_to(how.number(name)[:, 0], (frames,))


def _part(row: Array, places: NDArray[np.intp], parameters: Array, part: int) -> Array:
    """The cubics (s, 4, 2) of a contour between two places of it: the `part`-th and the one two behind."""
    first, last, u, v = places[part], places[part + 2], parameters[part], parameters[part + 2]
    pieces = row[first : last + 1]
    start, end = np.zeros(len(pieces)), np.ones(len(pieces))
    start[0], end[-1] = u, v
    kept = end - start > 0
    return sections(pieces[kept], start[kept], end[kept])


SPEC = RuleSpec(
    kind="draw-on",
    label="Draw-on",
    about="A line that draws itself: writing, an underline, a route on a map; moved on, a worm that crawls round.",
    settings=by_name(
        SettingSpec(
            "from",
            "from",
            "of the way",
            0.0,
            0.0,
            1.0,
            usual=(0.0, 1.0),
            step=0.01,
            about="Start of the drawn part: 0 is the first point, 1 the last.",
        ),
        SettingSpec("to", "to", "of the way", 1.0, 0.0, 1.0, usual=(0.0, 1.0), step=0.01, about="End of the drawn part."),
        SettingSpec("shift", "shift", "of the way", 0.0, usual=(-1.0, 1.0), step=0.01, about="How far both are moved on."),
    ),
    modes=(),
    prepare=no_numbers,
    redraw=redraw,
    value_kind="outline",
    for_channels=("outline",),
    example={"to": 0.62},
    summary="{from} to {to} · {shift}",
)
