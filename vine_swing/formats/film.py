"""The input of a format: a scene, the moments to render, and the engine that renders them."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from fractions import Fraction
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from vine_swing.formats.engine import Engine, Painting, ThreadEngine
from vine_swing.formats.export import Pixels
from vine_swing.formats.options import ExportOptions
from vine_swing.motion.basics import colour
from vine_swing.motion.scene.model import Scene


@dataclass(frozen=True, eq=False)
class Film:
    """A scene prepared for export.

    scene: with the background and blur that were asked for. frames: the moments of it, (n,). size: of the pictures, px.
    """

    scene: Scene
    options: ExportOptions
    frames: NDArray[np.float64]
    size: tuple[int, int]
    engine: Engine = field(default_factory=ThreadEngine)

    @classmethod
    def of(cls, scene: Scene, options: ExportOptions, engine: Engine | None = None) -> "Film":
        """A scene with what options ask for.

        Raises:
            MotionError: if it has no such frames, or the pictures would be too many or too large.
        """
        return cls(options.changed(scene), options, options.frames(scene), options.size(scene), engine or ThreadEngine())

    @property
    def fps(self) -> float:
        """Pictures a second."""
        return self.options.fps or self.scene.fps

    @property
    def rate(self) -> Fraction:
        """The same as a fraction, as films count."""
        return Fraction(self.fps).limit_denominator(1001)

    def pictures(self, rows: Sequence[int] | None = None, *, background: bool = True, scale: float = 1.0) -> Iterator[Pixels]:
        """Pictures in order, all or those at some rows: RGBA, premultiplied, (height, width, 4). Each may be overwritten once the next is taken.
        `scale`: their size as a share of the film's."""
        painting = Painting(self.scene, self.frames, self.options.scale * scale, background)
        return self.engine.painted(painting, rows if rows is not None else range(len(self.frames)))

    def part(self, rows: slice) -> "Film":
        """Some of its pictures."""
        return Film(self.scene, self.options, self.frames[rows], self.size, self.engine)

    @cached_property
    def sees_through(self) -> bool:
        """Whether its background can be seen through at all."""
        return bool(colour.parse_hex(self.scene.background)[3] < 1)
