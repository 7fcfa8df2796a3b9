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
    """Where an object is, at any frames."""

    x: Read
    y: Read

    @classmethod
    def of(cls, source: Source) -> "Travel":
        """How the object travels that a rule sits on."""
        x, y = source.look(source.owner, "x"), source.look(source.owner, "y")
        assert x is not None
        assert y is not None
        return cls(x.at, y.at)

    def place(self, t: Array) -> Array:
        """Where it is at frames t (n,), shape (n, 2)."""
        return np.stack([self.x(t[None, :])[0], self.y(t[None, :])[0]], axis=-1)

    def velocity(self, t: Array) -> Array:
        """In px/frame at frames t (n,), shape (n, 2): just before or just after, whichever is slower.

        So a thing that jumps from place to place has no speed, and one that turns round on the spot does not race.
        """
        before, here, after = self.place(np.concatenate([t - _H, t, t + _H])).reshape(3, -1, 2)
        back, on = (here - before) / _H, (after - here) / _H
        slower = np.hypot(*back.T) <= np.hypot(*on.T)
        return np.where(slower[:, None], back, on)

    def sides(self, t: Array) -> tuple[Array, Array]:
        """The velocities just before and just after frames t (n,), each (n, 2), in px/frame."""
        h = 1e-3
        before, near, far, after = self.place(np.concatenate([t - 2 * h, t - h / 8, t + h / 8, t + 2 * h])).reshape(4, -1, 2)
        return (near - before) / (1.875 * h), (after - far) / (1.875 * h)


def grid(last: float, per_frame: int = _PER_FRAME) -> Array:
    """Frames from 0 to at least `last`, evenly spread."""
    return np.arange(int(np.ceil(max(last, 1.0))) * per_frame + 1) / per_frame
