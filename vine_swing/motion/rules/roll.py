"""Roll: turns as a wheel of some radius does along its path.

Adds grip·360°·way/(2π·radius). The way is signed: + to the right (downwards where it goes straight up or down), or forward where it
follows a path. It is summed up from chords, 16 a frame, from frame 0 on: exact on straight ways.
"""

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.rules.spec import Array, Mode, Read, RuleSpec, Settings, SettingSpec, Source, by_name, number_of
from vine_swing.motion.rules.travel import Travel, grid
from vine_swing.motion.timing.channel import Channel
from vine_swing.motion.timing.ends import fold


def prepare(source: Source, settings: Settings, mode: Mode) -> Read:
    """The rotation with the roll on it."""
    way = _Way(source, Travel.of(source))

    def read(t: Array) -> Array:
        turned = np.degrees(way.at(t) / number_of(settings, "radius", t))
        return source.at(t) + number_of(settings, "grip", t) * turned

    return read


class _Way:
    """The signed way of some objects since frame 0, one a row, summed up as far as anyone has read it."""

    def __init__(self, source: Source, travel: Travel) -> None:
        self._travel = travel
        paths = source.own_keyed("x").keys
        self._paths = paths if any(path.keys and path.keys[0].is_point for path in paths) else ()
        self._frames = np.empty(0)
        #: Where they are at each of the frames, and the way until there; each (r, m).
        self._x, self._y, self._sums = np.empty((0, 0)), np.empty((0, 0)), np.empty((0, 0))

    def at(self, t: Array) -> Array:
        """In px at frames t (1 or r, n); negative frames go back from 0."""
        if not len(self._frames) or t.max() > self._frames[-1]:
            frames = grid(float(t.max()) * (1.25 if len(self._frames) else 1.0))
            # Kept once it is whole: reading may break off until a table is filled, and begin again (baking/tables.py).
            x, y = self._travel.place(frames[None, :])
            steps = self._signed(np.diff(x), np.diff(y), (frames[None, :-1] + frames[None, 1:]) / 2, forwards=np.True_)
            sums = np.concatenate([np.zeros((len(steps), 1)), np.cumsum(steps, axis=1)], axis=1)
            self._frames, self._x, self._y, self._sums = frames, x, y, sums
        n = np.clip(np.searchsorted(self._frames, t, side="right") - 1, 0, len(self._frames) - 1)
        sums = _taken(self._sums, n)
        begun = self._frames[n]
        if (begun == t).all():
            return sums
        x, y = self._travel.place(t)
        return sums + self._signed(x - _taken(self._x, n), y - _taken(self._y, n), (begun + t) / 2, forwards=t >= begun)

    def _signed(self, dx: Array, dy: Array, middle: Array, *, forwards: NDArray[np.bool_] | np.bool_) -> Array:
        """The lengths of some chords (r, n), negative where the way goes back."""
        if self._paths:
            headings = [_heading(path, middle[row % len(middle)]) for row, path in enumerate(self._paths)]
            sign = np.where(forwards, 1.0, -1.0) * np.stack(headings)
        else:
            sign = np.sign(np.where(dx != 0, dx, dy))
        length: Array = sign * np.hypot(dx, dy)
        return length


def _taken(values: Array, n: NDArray[np.intp]) -> Array:
    """Values (r, m) at indices n (1 or r, k): (r, k)."""
    return values[:, n[0]] if len(n) == 1 else values[np.arange(len(values))[:, None], n]


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
    about="Rotates with the distance travelled, never slipping unless you want it: nuts, wheels, barrels.",
    settings=by_name(
        SettingSpec("radius", "radius", "px", 50.0, 0.01, 1e6, usual=(5.0, 300.0), step=1.0, about="From its middle to where it touches the ground."),
        SettingSpec(
            "grip", "grip", "×", 1.0, -100.0, 100.0, usual=(0.0, 1.0), step=0.05, about="1 rolls truly, 0 slides, less than 0 turns the other way."
        ),
    ),
    modes=(),
    prepare=prepare,
    summary="radius {radius} · grip {grip}",
    example={"radius": 20.0},
    for_channels=("rotation",),
    dependency_reads=2.0,
    dependencies=lambda word, channel: (("", "x"), ("", "y")),
)
