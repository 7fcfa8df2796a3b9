"""Who starts first: the rank of each copy, by which its delay is multiplied."""

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.parade.model import Order

Array = NDArray[np.float64]


def ranks(order: Order, counts: Array, most: int, seed: int) -> Array:
    """The rank of each of `most` copies, (most, m), when there are `counts` (m,) of them; 0 starts first.

    From the middle and from the ends, copies that lie alike start together. By chance, each copy draws a number that it keeps when others come
    or go. Ranks of copies that are not there are 0.
    """
    k = np.arange(most, dtype=float)[:, None]
    n = counts[None, :]
    there = k < n
    middle = np.floor(np.abs(k - (n - 1) / 2))
    match order:
        case "first":
            found = k + 0 * n
        case "last":
            found = n - 1 - k
        case "middle":
            found = middle
        case "ends":
            found = np.floor((n - 1) / 2) - middle
        case "chance":
            drawn = np.random.default_rng(seed).random(most)
            found = np.stack([_places(drawn, int(count)) for count in counts], axis=1) if most else np.zeros((0, len(counts)))
    return np.where(there, found, 0.0)


def _places(drawn: Array, count: int) -> Array:
    """Where each of the first `count` numbers stands among them in order; 0 for the others."""
    places = np.zeros(len(drawn))
    places[np.argsort(drawn[:count], kind="stable")] = np.arange(min(count, len(drawn)))
    return places
