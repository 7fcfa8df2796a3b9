"""Transforms of a drawing: (a, b, c, d, e, f) as SVG writes them."""

from dataclasses import dataclass
from math import hypot, isfinite, sqrt

import numpy as np
import svgelements
from numpy.typing import NDArray

Array = NDArray[np.float64]
#: Characters of a transform attribute: the library that reads it takes time that grows with the square of its length.
MOST_CHARACTERS = 2_000


@dataclass(frozen=True)
class Affine:
    """x' = a·x + c·y + e, y' = b·x + d·y + f."""

    a: float = 1.0
    b: float = 0.0
    c: float = 0.0
    d: float = 1.0
    e: float = 0.0
    f: float = 0.0

    @classmethod
    def read(cls, text: str | None) -> "Affine":
        """A transform attribute; the identity where it cannot be read, or is longer than any that a program writes."""
        if not text or len(text) > MOST_CHARACTERS:
            return cls()
        try:
            m = svgelements.Matrix(text)
            m.render(ppi=96, width=1000, height=1000)
            result = cls(*(float(part) for part in (m.a, m.b, m.c, m.d, m.e, m.f)))
        except (ValueError, TypeError, AttributeError, IndexError):
            return cls()
        return result if all(isfinite(part) and abs(part) < 1e7 for part in result.parts) else cls()

    @property
    def parts(self) -> tuple[float, float, float, float, float, float]:
        """Its six numbers in the order SVG writes them, a to f."""
        return self.a, self.b, self.c, self.d, self.e, self.f

    def then(self, inner: "Affine") -> "Affine":
        """This one of what another gives."""
        a, b, c, d, e, f = inner.parts
        return Affine(
            self.a * a + self.c * b,
            self.b * a + self.d * b,
            self.a * c + self.c * d,
            self.b * c + self.d * d,
            self.a * e + self.c * f + self.e,
            self.b * e + self.d * f + self.f,
        )

    def points(self, points: Array) -> Array:
        """Points (n, 2) after it."""
        result: Array = points @ np.array([[self.a, self.b], [self.c, self.d]]) + [self.e, self.f]
        return result

    def point(self, x: float, y: float) -> tuple[float, float]:
        """One point after it."""
        return self.a * x + self.c * y + self.e, self.b * x + self.d * y + self.f

    def direction(self, x: float, y: float) -> tuple[float, float]:
        """A direction after it."""
        return self.a * x + self.c * y, self.b * x + self.d * y

    @property
    def scale(self) -> float:
        """How many px one of its own is, on average over all directions."""
        return sqrt(abs(self.a * self.d - self.b * self.c))

    @property
    def is_even(self) -> bool:
        """Whether circles stay circles."""
        along, across = hypot(self.a, self.b), hypot(self.c, self.d)
        return abs(along - across) <= 0.01 * max(along, across) and abs(self.a * self.c + self.b * self.d) <= 0.01 * along * across + 1e-12
