"""Flashing faster than three times a second over a large area, which can hurt people."""

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.notes.measures import SceneMeasures
from vine_swing.motion.notes.note import Note, NoteKind
from vine_swing.motion.scene.objects import SceneObject

Array = NDArray[np.float64]
#: WCAG 2.3.1: more than three general flashes in a second; a flash is a pair of opposing changes of relative luminance by a tenth or more, where
#: the darker is below 0.80; an area of a quarter of the middle of what is seen is large.
_FLASHES, _CHANGE, _DARK, _AREA = 3, 0.1, 0.8, 0.25


def find(measures: SceneMeasures, thing: SceneObject) -> Iterator[Note]:
    """How bright a large filled thing makes the picture over time, over the background."""
    if thing.drawn_shape is None or thing.parent is not None or "fill" not in thing.specs:
        return
    bounds = measures.bounds(thing)
    if bounds is None:
        return
    wide, high = measures.scene.size
    across = np.clip(bounds[:, 2], 0, wide) - np.clip(bounds[:, 0], 0, wide)
    down = np.clip(bounds[:, 3], 0, high) - np.clip(bounds[:, 1], 0, high)
    share = across * down / (wide * high)
    if share.max() < _AREA:
        return
    fill = measures.row(measures.one(thing).channels["fill"])
    under = (
        _luminance(np.array([[int(measures.scene.background[n : n + 2], 16) / 255 for n in (1, 3, 5)]]))
        if len(measures.scene.background) >= 7
        else 1.0
    )
    cover = fill[:, 3] * measures.opacity(thing) * (share >= _AREA)
    seen = cover * _luminance(fill[:, :3]) + (1 - cover) * under
    flashes = _flashes(np.asarray(seen, dtype=float))
    second = round(measures.scene.fps)
    for at, first in enumerate(flashes):
        within = [one for one in flashes[at:] if one < first + second]
        if len(within) > _FLASHES:
            text = f"{thing.name} flashes {len(within)} times in a second over {100 * share.max():.0f} % of the picture: more than 3 can hurt people."
            yield Note("flashing", thing.id, "fill", (float(first), float(within[-1])), text, sure=0.85, bad=1.0)
            return


def _luminance(rgb: Array) -> Array:
    """Relative luminance of sRGB colours, WCAG 2: (n, 3) to (n,)."""
    linear = np.where(rgb <= 0.04045, rgb / 12.92, ((rgb + 0.055) / 1.055) ** 2.4)
    found: Array = linear @ np.array([0.2126, 0.7152, 0.0722])
    return found


def _flashes(seen: Array) -> list[int]:
    """The frames at which pairs of opposing changes are complete."""
    turns: list[int] = []
    last, direction = float(seen[0]), 0
    for frame, now in enumerate(map(float, seen)):
        change = now - last
        if direction * change > 0:
            # It goes on the same way: the extreme moves along.
            last = now
        elif abs(change) >= _CHANGE and min(now, last) < _DARK:
            turns.append(frame)
            last, direction = now, 1 if change > 0 else -1
    return turns[1::2]


KIND = NoteKind(
    name="flashing",
    label="Flashing",
    why=(
        "More than three flashes a second over a large area can bring on seizures (WCAG 2.3.1). Never meant: slow it down, or make it small or faint."
    ),
    about="object",
    harmful=True,
    of_object=find,
)
