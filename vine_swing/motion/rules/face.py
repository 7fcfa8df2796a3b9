"""Face: turns towards where it goes, or towards another object.

0° is to the right. The direction is unwrapped from frame 0 on, so that it never jumps at ±180°, and keeps its last value while it stands still. With
`smooth` it is the mean over so many frames to both sides.
"""

from collections.abc import Callable

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.rules.spec import Array, Mode, Read, RuleSpec, Settings, SettingSpec, Source, by_name, combined, number_or
from vine_swing.motion.rules.travel import Travel, grid

#: Slower than this, in px/frame, is rest, and nearer than this, in px, is on the spot: such a direction says nothing.
_REST = 1e-3
_PER_FRAME = 4
_SMOOTH_PLACES = 17


def prepare(source: Source, settings: Settings, mode: Mode) -> Read:
    """The rotation that faces."""
    directions = _Directions(source, settings)

    def read(t: Array) -> Array:
        half = number_or(settings, "smooth", t)
        if not np.any(half > 0):
            facing = directions.at(t[0])
        else:
            places = np.linspace(-1, 1, _SMOOTH_PLACES)
            weights = np.cos(np.pi * places / 2) ** 2
            around = t[0][:, None] + np.broadcast_to(half[0], t.shape[1])[:, None] * places
            facing = directions.at(around.ravel()).reshape(around.shape) @ (weights / weights.sum())
        return combined(mode, source.at(t), facing[None, :] + number_or(settings, "offset", t))

    return read


class _Directions:
    """The direction faced, unwrapped, as far as anyone has read it."""

    def __init__(self, source: Source, settings: Settings) -> None:
        self._travel = Travel.of(source)
        target = settings.choice("target")
        x, y = (source.look(target, name) if target else None for name in ("x", "y"))
        self._target = Travel(x.at, y.at) if x is not None and y is not None else None
        self._frames, self._unwrapped = np.empty(0), np.empty(0)

    def at(self, t: Array) -> Array:
        """Degrees at frames t (n,)."""
        last = float(t.max())
        if not len(self._frames) or last > self._frames[-1]:
            self._frames = grid(last * (1.25 if len(self._frames) else 1.0), _PER_FRAME)
            self._unwrapped = self._settled(self._frames)
        near = np.interp(t, self._frames, self._unwrapped)
        angle, known = self._raw(t)
        # The angle itself, on the turn that is nearest to where the unwrapped ones have got to.
        return np.where(known, angle + 360 * np.round((near - angle) / 360), self._held(t))

    def _settled(self, frames: Array) -> Array:
        angle, known = self._raw(frames)
        if not known.any():
            return np.zeros_like(frames)
        last = np.maximum.accumulate(np.where(known, np.arange(len(frames)), -1))
        # Before it first moves it faces where it will go.
        last = np.where(last < 0, int(np.argmax(known)), last)
        return np.asarray(np.unwrap(angle[last], period=360))

    def _held(self, t: Array) -> Array:
        """The last direction before frames (n,) of rest."""
        n = np.clip(np.searchsorted(self._frames, t, side="right") - 1, 0, len(self._frames) - 1)
        return self._unwrapped[n]

    def _raw(self, t: Array) -> tuple[Array, NDArray[np.bool_]]:
        """The direction within ±180°, and whether there is one."""
        arm = self._travel.velocity(t) if self._target is None else self._target.place(t) - self._travel.place(t)
        return np.degrees(np.arctan2(arm[:, 1], arm[:, 0])), np.hypot(arm[:, 0], arm[:, 1]) > _REST


def _looks(word: Callable[[str], str], channel: str) -> tuple[tuple[str, str], ...]:
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
    acts=("rotation",),
    alone=True,
    looks=_looks,
)
