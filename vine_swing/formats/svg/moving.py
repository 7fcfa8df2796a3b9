"""What changes: samples of a quantity over time, reduced to as few as keep straight lines between them within a tolerance of all."""

from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
#: What is between two samples: a straight line, or the earlier one.
Between = Literal["linear", "discrete"]


@dataclass(frozen=True, eq=False)
class Line:
    """Values that all are on the way from `begin` to `end`: how far along they are, (k,), at times (k,)."""

    begin: Array
    end: Array
    times: Array
    progress: Array


@dataclass(frozen=True, eq=False)
class Moving:
    """One attribute of an element over time.

    name: of the attribute. times: (k,), shares of the whole, from 0 to 1. values: one text each. between: how it goes from one to the next.
    line: where all values are on one.
    """

    name: str
    times: Array
    values: tuple[str, ...]
    between: Between = "linear"
    line: Line | None = None


@dataclass(frozen=True, eq=False)
class Transforming:
    """A transform over time, T(x, y) · R(angle) · SkewX(skew) · S(across, down): each part with times of its own, and all of them together.

    parts: name of the function and its numbers, (k, w) at times (k,); only those that are not the identity throughout.
    times, values: (k,) and (k, 6), all six together. line: where all are on one.
    """

    parts: tuple[tuple[str, Array, Array], ...]
    times: Array
    values: Array
    line: Line | None = None


@dataclass(frozen=True, eq=False)
class Clock:
    """When the samples are: (n,) shares of the whole, the last of them 1; which of them are whole frames, (n,); and how long the whole is, s."""

    times: Array
    whole: NDArray[np.bool_]
    seconds: float


def is_still(values: Array, tolerance: float | Array) -> bool:
    """Whether samples (n, w) stay within a tolerance of the first."""
    return bool((np.abs(values - values[:1]) <= tolerance).all())


def reduced(times: Array, values: Array, tolerance: float | Array) -> NDArray[np.intp]:
    """Which samples (n, w) at rising times to keep, so that straight lines between them pass all others within a tolerance (a number, or one for
    each column): those at both ends, and repeatedly the one that is farthest off (D. H. Douglas and T. K. Peucker, 1973, by parameter)."""
    scaled = values / tolerance
    keep, waiting = {0, len(times) - 1}, [(0, len(times) - 1)]
    while waiting:
        a, b = waiting.pop()
        if b - a < 2:
            continue
        share = ((times[a + 1 : b] - times[a]) / (times[b] - times[a]))[:, None]
        far = np.abs(scaled[a] + (scaled[b] - scaled[a]) * share - scaled[a + 1 : b]).max(axis=1)
        worst = int(np.argmax(far))
        if far[worst] > 1:
            at = a + 1 + worst
            keep.add(at)
            waiting += [(a, at), (at, b)]
    return np.array(sorted(keep), np.intp)


def changes(rows: list[str], clock: Clock) -> tuple[Array, tuple[str, ...]]:
    """The times at which texts, one a sample, change, and what they change to; only whole frames count."""
    at, result = [0.0], [rows[0]]
    for time, whole, text in zip(clock.times, clock.whole, rows, strict=True):
        if whole and text != result[-1]:
            at.append(float(time))
            result.append(text)
    return np.array(at), tuple(result)


def line_of(times: Array, values: Array, tolerance: float | Array) -> Line | None:
    """The line that all samples (n, w) are on within a tolerance, if they do."""
    scaled = values / tolerance
    middle = scaled[0]
    far = int(np.argmax(((scaled - middle) ** 2).sum(axis=1)))
    along = scaled[far] - middle
    length = float(along @ along)
    if length == 0:
        return None
    progress = (scaled - middle) @ along / length
    if np.abs(middle + progress[:, None] * along - scaled).max() > 0.5:
        return None
    stored = reduced(times, progress[:, None], 0.5 / float(np.abs(along).max()))
    return Line(values[0], values[far], times[stored], progress[stored])
