"""Roll: turns as a wheel of some radius does on the way it goes.

Adds grip·360°·way/(2π·radius). The way is signed: + to the right (downwards where it goes straight up or down), or forward where it
follows a path. It is summed up from chords, 16 a frame, from frame 0 on: exact on straight ways.
"""

import numpy as np

from vine_swing.motion.channel import Channel
from vine_swing.motion.ends import fold
from vine_swing.motion.rules.spec import Array, Mode, Read, RuleSpec, Settings, SettingSpec, Source, by_name, number_or
from vine_swing.motion.rules.travel import Travel, grid


def prepare(source: Source, settings: Settings, mode: Mode) -> Read:
    """The rotation with the roll on it."""
    travel = Travel.of(source)
    way = _Way(source, travel)

    def read(t: Array) -> Array:
        turned = np.degrees(way.at(t[0]) / number_or(settings, "radius", t, 50.0))
        return source.at(t) + number_or(settings, "grip", t, 1.0) * turned

    return read


class _Way:
    """The signed way of an object since frame 0, summed up as far as anyone has read it."""

    def __init__(self, source: Source, travel: Travel) -> None:
        self._travel, self._source = travel, source
        self._frames, self._sums = np.empty(0), np.empty(0)

    def at(self, t: Array) -> Array:
        """In px at frames t (n,); negative frames go back from 0."""
        if not len(self._frames) or t.max() > self._frames[-1]:
            self._frames = grid(float(t.max()) * (1.25 if len(self._frames) else 1.0))
            self._sums = np.append(0.0, np.cumsum(self._steps(self._frames[:-1], self._frames[1:])))
        n = np.clip(np.searchsorted(self._frames, t, side="right") - 1, 0, len(self._frames) - 1)
        return self._sums[n] + self._steps(self._frames[n], t)

    def _steps(self, start: Array, end: Array) -> Array:
        """The signed lengths of the ways from some frames (n,) to others."""
        step = self._travel.place(end) - self._travel.place(start)
        path = self._source.beside("x").keys[0]
        if path.keys and path.keys[0].is_point:
            sign = np.where(end < start, -1.0, 1.0) * _heading(path, (start + end) / 2)
        else:
            sign = np.sign(np.where(step[:, 0] != 0, step[:, 0], step[:, 1]))
        length: Array = sign * np.hypot(step[:, 0], step[:, 1])
        return length


def _heading(path: Channel, t: Array) -> Array:
    """1 where time runs forwards along a path at frames t (n,), −1 in turns that are mirrored."""
    if len(path.keys) < 2:
        return np.ones_like(t)
    first, last = (np.array([[path.keys[n].frame]]) for n in (0, -1))
    now, soon = (fold(at[None, :], first, last, path.before, path.after).local[0] for at in (t, t + 1e-6))
    return np.where(soon < now - 1e-9, -1.0, 1.0)


SPEC = RuleSpec(
    kind="roll",
    label="Roll",
    about="Turns by the way it goes, never slipping unless you want it: nuts, wheels, barrels.",
    settings=by_name(
        SettingSpec("radius", "radius", "px", 50.0, 0.01, 1e6, usual=(5.0, 300.0), step=1.0, about="From its middle to where it touches the ground."),
        SettingSpec(
            "grip", "grip", "×", 1.0, -100.0, 100.0, usual=(0.0, 1.0), step=0.05, about="1 rolls truly, 0 slides, less than 0 turns the other way."
        ),
    ),
    modes=(),
    prepare=prepare,
    summary="radius {radius} · grip {grip}",
    telling={"radius": 20.0},
    acts=("rotation",),
    alone=True,
    looks=lambda word, channel: (("", "x"), ("", "y")),
)
