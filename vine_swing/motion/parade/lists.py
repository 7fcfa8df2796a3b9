"""What lists give each copy."""

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics import colour
from vine_swing.motion.parade.model import ItemList

Array = NDArray[np.float64]


def words_for(one: ItemList, count: int) -> list[str | None]:
    """The words of each of `count` copies; None where a copy keeps those of the part."""
    return [None if value is None else value if isinstance(value, str) else f"{value:g}" for value in _taken(one, count)]


def numbers_for(one: ItemList, count: int) -> list[float | None]:
    """The number of each of `count` copies; None where a copy keeps that of the part."""
    if one.fill != "spread":
        return [None if value is None else float(value) for value in _taken(one, count)]
    known = [float(value) for value in one.values if value is not None]
    return np.interp(_places(len(known), count), np.arange(len(known)), known).tolist() if known else [None] * count


def colours_for(one: ItemList, count: int) -> list[Array | None]:
    """The colour of each of `count` copies, sRGB with alpha (4,); None where a copy keeps that of the part. Blended in OKLab."""
    if one.fill != "spread":
        return [None if value is None else colour.parse_hex(str(value)) for value in _taken(one, count)]
    known = [colour.parse_hex(str(value)) for value in one.values if value is not None]
    if not known:
        return [None] * count
    places = _places(len(known), count)
    low = np.minimum(places.astype(int), max(0, len(known) - 2))
    high = np.minimum(low + 1, len(known) - 1)
    stops = np.stack(known)
    share = (places - low)[:, None]
    return list(colour.from_oklab(colour.to_oklab(stops[low]) * (1 - share) + colour.to_oklab(stops[high]) * share))


def _taken(one: ItemList, count: int) -> list[float | str | None]:
    if not one.values:
        return [None] * count
    last = len(one.values) - 1
    if one.fill == "spread":
        return [one.values[round(place)] for place in _places(last + 1, count)]
    return [one.values[k % (last + 1) if one.fill == "cycle" else min(k, last)] for k in range(count)]


def _places(rows: int, count: int) -> Array:
    """Where each of `count` copies reads among some rows, when they are spread over all of them."""
    return np.linspace(0, rows - 1, count) if count > 1 else np.zeros(count)
