"""Chance that is the same on every machine: hashed whole numbers, and gradient noise built from them.

K. Perlin, "Improving noise" (2002): at every whole place of a lattice stands a slope drawn by chance, and between two of them
their straight lines are blended by 6x⁵ − 15x⁴ + 10x³, so that value, slope and bend go on smoothly. Chance is a hash of whole numbers
(S. Vigna's splitmix64).
"""

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics.rows import in_cache, rows_of

Array = NDArray[np.float64]
Whole = NDArray[np.uint64]
Lattice = NDArray[np.int64]
_BEGIN = np.array([[0x9E3779B9]], np.uint64)


def gradient_noise(places: Array, seed: int) -> Array:
    """Noise within −1…1 at places (n,) of the lattice of a seed, about one sign change a lattice cell."""
    streams = mixed(np.full((1, 1), seed & (2**64 - 1), np.uint64))
    noise: Array = lattice_noise(places[None, :], streams, None)[0]
    return noise


def lattice_noise(place: Array, streams: Whole, ring: Lattice | None) -> Array:
    """Noise within −1…1 at places (1 or r, n) of the lattices of some streams (1 or r, 1): (r, n). ring: after how many places each begins again,
    (1 or r, 1)."""
    rows, samples = max(len(place), len(streams)), place.shape[1]
    noise = np.empty((rows, samples))
    for some in in_cache(rows, samples):
        noise[some] = _noise(rows_of(place, some), rows_of(streams, some), None if ring is None else rows_of(ring, some))
    return noise


def _noise(place: Array, streams: Whole, ring: Lattice | None) -> Array:
    # The origin of the lattice is random too: otherwise all noises would be 0 together at its whole places.
    shifted = place + _chance(_BEGIN, streams)
    cell = np.floor(shifted)
    inside = shifted - cell
    left, right = _slopes(cell.astype(np.int64), streams, ring)
    a, b = left * inside, right * (inside - 1)
    blend = inside * inside * inside * (inside * (6 * inside - 15) + 10)
    # Two slopes of ±1 that meet half way reach a half.
    noise: Array = 2 * (a + (b - a) * blend)
    return noise


def _slopes(cell: Lattice, streams: Whole, ring: Lattice | None) -> tuple[Array, Array]:
    """The slopes within −1…1 at the places (r, n) of some lattices, and at those after them."""
    first, count = (int(cell.min()), int(np.ptp(cell)) + 2) if cell.size else (0, 2)
    if count > cell.shape[1]:
        return _slope(cell, streams, ring), _slope(cell + 1, streams, ring)
    # Many frames lie between two places: each slope is drawn once and looked up.
    drawn = _slope(first + np.arange(count)[None, :], np.broadcast_to(streams, (len(cell), 1)), ring)
    at = cell - first + count * np.arange(len(cell))[:, None]
    return drawn.take(at), drawn.take(at + 1)


def _slope(place: Lattice, streams: Whole, ring: Lattice | None) -> Array:
    # A ring of a single place has two slopes, so that it still moves.
    return 2 * _chance((place if ring is None else place % ring).astype(np.uint64), streams) - 1


def _chance(places: Whole, streams: Whole) -> Array:
    """A number within 0…1 for each whole place (r, n) of some streams (r, 1)."""
    with np.errstate(over="ignore"):
        z = places * np.uint64(0x9E3779B97F4A7C15) + streams
        z = (z ^ (z >> np.uint64(30))) * np.uint64(0xBF58476D1CE4E5B9)
        z = (z ^ (z >> np.uint64(27))) * np.uint64(0x94D049BB133111EB)
        z ^= z >> np.uint64(31)
    return (z >> np.uint64(11)).astype(np.float64) / 2**53


def mixed(*parts: Whole) -> Whole:
    """One whole number built from several, so that streams that differ in one of them have nothing to do with each other."""
    state = np.zeros((1, 1), np.uint64)
    with np.errstate(over="ignore"):
        for part in parts:
            state = (state ^ part) * np.uint64(0xD6E8FEB86659FD93)
            state = state ^ (state >> np.uint64(32))
    return state
