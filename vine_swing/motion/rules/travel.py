"""Reading how an object travels: its velocity, direction and way, from its final x and y."""

from dataclasses import dataclass

import numpy as np

from vine_swing.motion.rules.spec import Array, Read, Source

#: Over this part of a frame velocities are taken.
_H = 1 / 64
#: The way is summed up over this many chords a frame.
_PER_FRAME = 16


@dataclass(frozen=True)
class Travel:
    """Where some objects are, one a row, at any frames."""

    x: Read
    y: Read

    @classmethod
    def of(cls, source: Source) -> "Travel":
        """How the objects travel that a rule sits on."""
        return cls(source.own_final("x").at, source.own_final("y").at)

    def place(self, t: Array) -> tuple[Array, Array]:
        """Where they are at frames t (1 or r, n): x and y, each (r, n)."""
        return self.x(t), self.y(t)

    def velocity(self, t: Array) -> tuple[Array, Array]:
        """In px/frame at frames t (1 or r, n), along x and y, each (r, n): just before or just after, whichever is slower.

        So an object that jumps from place to place has no speed, and one that turns round on the spot does not race.
        """
        (x0, y0), (x1, y1), (x2, y2) = self._apart(t, (-_H, 0.0, _H))
        back_x, back_y, on_x, on_y = (x1 - x0) / _H, (y1 - y0) / _H, (x2 - x1) / _H, (y2 - y1) / _H
        slower = np.hypot(back_x, back_y) <= np.hypot(on_x, on_y)
        return np.where(slower, back_x, on_x), np.where(slower, back_y, on_y)

    def sides(self, t: Array) -> tuple[tuple[Array, Array], tuple[Array, Array]]:
        """The velocities just before and just after frames t (1 or r, n), each as x and y, (r, n), in px/frame."""
        h = 1e-3
        (x0, y0), (x1, y1), (x2, y2), (x3, y3) = self._apart(t, (-2 * h, -h / 8, h / 8, 2 * h))
        long = 1.875 * h
        return ((x1 - x0) / long, (y1 - y0) / long), ((x3 - x2) / long, (y3 - y2) / long)

    def _apart(self, t: Array, by: tuple[float, ...]) -> list[tuple[Array, Array]]:
        """The places at frames t shifted by some amounts, read at once."""
        x, y = self.place(np.concatenate([t + amount for amount in by], axis=1))
        return list(zip(np.split(x, len(by), axis=1), np.split(y, len(by), axis=1), strict=True))


def grid(last: float, per_frame: int = _PER_FRAME) -> Array:
    """Frames from 0 to at least `last`, evenly spread."""
    return np.arange(int(np.ceil(max(last, 1.0))) * per_frame + 1) / per_frame
