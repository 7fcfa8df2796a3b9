"""Face: turns towards where it goes, or towards another object.

0° is to the right. The direction is unwrapped from frame 0 on, so that it never jumps at ±180°, and keeps its last value while it is still. With
`smooth` it is the mean over this many frames to both sides.
"""

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.rules.spec import Array, Mode, Read, RuleSpec, Settings, SettingSpec, Source, by_name, combined, number_of
from vine_swing.motion.rules.travel import Travel, grid

#: Below this speed, in px/frame, and below this distance to the target, in px, the direction is undefined.
_REST = 1e-3
_PER_FRAME = 4
_SMOOTH_PLACES = 17


def prepare(source: Source, settings: Settings, mode: Mode) -> Read:
    """The rotation that faces."""
    directions = _Directions(source, settings)

    def read(t: Array) -> Array:
        half = number_of(settings, "smooth", t)
        if not np.any(half > 0):
            facing = directions.at(t)
        else:
            places = np.linspace(-1, 1, _SMOOTH_PLACES)
            weights = np.cos(np.pi * places / 2) ** 2
            weights /= weights.sum()
            around = np.split(directions.at(np.concatenate([t + half * place for place in places], axis=1)), _SMOOTH_PLACES, axis=1)
            # Summed place by place: a product of matrices may round a row by the rows beside it.
            facing = sum((weight * angle for weight, angle in zip(weights, around, strict=True)), np.zeros((1, 1)))
        return combined(mode, source.at(t), facing + number_of(settings, "offset", t))

    return read


class _Directions:
    """The directions that some objects face, one a row, unwrapped, as far as anyone has read them."""

    def __init__(self, source: Source, settings: Settings) -> None:
        self._travel = Travel.of(source)
        target = settings.choice("target")
        x, y = (source.scene.final(target, name) if target else None for name in ("x", "y"))
        self._target = Travel(x.at, y.at) if x is not None and y is not None else None
        self._frames, self._unwrapped = np.empty(0), np.empty((0, 0))
        self._length = source.timing.length

    def at(self, t: Array) -> Array:
        """Degrees (r, n) at frames t (1 or r, n)."""
        last = float(t.max())
        if not len(self._frames) or last > self._frames[-1]:
            self._reach(last * (1.25 if len(self._frames) else 1.0))
        # Where the unwrapped direction has got to at t, along straight lines.
        place = np.clip(t * _PER_FRAME, 0, len(self._frames) - 1)
        n = np.minimum(place.astype(np.intp), max(len(self._frames) - 2, 0))
        held, following = self._taken(n), self._taken(np.minimum(n + 1, len(self._frames) - 1))
        near = held + (following - held) * (place - n)
        held = np.where(place >= n + 1, following, held)
        angle, known = self._raw(t)
        # The angle itself, on the turn that is nearest to where the unwrapped ones have got to; at rest the last one.
        return np.where(known, angle + 360 * np.round((near - angle) / 360), held)

    def _taken(self, n: NDArray[np.intp]) -> Array:
        rows = self._unwrapped
        return rows[:, n[0]] if len(n) == 1 else rows[np.arange(len(rows))[:, None], n]

    def _reach(self, last: float) -> None:
        """Work the directions out up to a frame."""
        frames = grid(last, _PER_FRAME)
        angle, known = self._raw(frames[None, :])
        if frames[-1] < self._length and not known.any(axis=1).all():
            # Before it moves, the object faces its later direction, regardless of the evaluated range.
            frames = grid(self._length, _PER_FRAME)
            angle, known = self._raw(frames[None, :])
        # Both at once: reading may break off until a table is filled, and begin again (baking/tables.py).
        self._frames, self._unwrapped = frames, _settled(angle, known, known & (frames <= self._length))

    def _raw(self, t: Array) -> tuple[Array, NDArray[np.bool_]]:
        """The direction within ±180°, and whether there is one; each (r, n)."""
        if self._target is None:
            dx, dy = self._travel.velocity(t)
        else:
            (x0, y0), (x1, y1) = self._travel.place(t), self._target.place(t)
            dx, dy = x1 - x0, y1 - y0
        return np.degrees(np.arctan2(dy, dx)), np.hypot(dx, dy) > _REST


def _settled(angle: Array, known: NDArray[np.bool_], ahead: NDArray[np.bool_]) -> Array:
    """Directions (r, n), unwrapped, the last one where none is known, the first one `ahead` before any is; what never moves faces right."""
    last = np.maximum.accumulate(np.where(known, np.arange(known.shape[1]), -1), axis=1)
    faces = (last >= 0) | ahead.any(axis=1, keepdims=True)
    last = np.where(last < 0, np.argmax(ahead, axis=1)[:, None], last)
    settled = np.unwrap(np.take_along_axis(angle, last, axis=1), period=360, axis=1)
    return np.where(faces, settled, 0.0)


def _dependencies(word: Callable[[str], str], channel: str) -> tuple[tuple[str, str], ...]:
    own, target = (("", "x"), ("", "y")), word("target")
    return (*own, (target, "x"), (target, "y")) if target else own


SPEC = RuleSpec(
    kind="face",
    label="Face",
    about="Points where it goes, or at another object: gliding leaves, arrows, eyes.",
    settings=by_name(
        SettingSpec("target", "towards", "", "", about="Whom it faces; nobody for the direction of travel.", names="object"),
        SettingSpec("offset", "offset", "°", 0.0, usual=(-180.0, 180.0), step=1.0, about="Where its front is, from its right-hand side."),
        SettingSpec(
            "smooth", "smooth", "frames", 0.0, 0.0, 1000.0, usual=(0.0, 24.0), step=1.0, about="Turns gently, over so many frames to both sides."
        ),
    ),
    modes=("replace", "add"),
    prepare=prepare,
    summary="offset {offset} · smooth {smooth}",
    for_channels=("rotation",),
    dependency_reads=6.0,
    dependencies=_dependencies,
)
