"""Functions and operators of formulas on arrays.

Maths functions by their standard names, angles in degrees; clamp, mix, step and smoothstep as the shading standards (GLSL ES 3.0, section 8.3)
have them. What has no answer (a root of less than 0, a division by 0) gives NaN, for whoever evaluates to find.
"""

from collections.abc import Callable
from dataclasses import dataclass
from functools import reduce
from typing import Any

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics.chance import gradient_noise

Array = NDArray[np.float64]
MANY = 100


@dataclass(frozen=True)
class Function:
    """A function: how many values it takes, at least and at most; what it does to arrays; and a line on it."""

    takes: tuple[int, int]
    apply: Callable[..., Any]
    about: str


def _smoothstep(low: Array, high: Array, x: Array) -> Array:
    u = np.clip((x - low) / (high - low), 0, 1)
    return u * u * (3 - 2 * u)


def _noise(x: Array, seed: Array) -> Array:
    x, seed = np.broadcast_arrays(x, np.round(seed))
    result = np.full(x.shape, np.nan)
    safe = np.isfinite(x) & (np.abs(x) < 1e12) & np.isfinite(seed) & (np.abs(seed) < 1e12)
    for one in np.unique(seed[safe]):
        here = safe & (seed == one)
        result[here] = gradient_noise(x[here], int(one))
    return result


def _degrees(function: Callable[[Any], Any]) -> Callable[[Array], Array]:
    return lambda x: function(np.radians(x))


FUNCTIONS: dict[str, Function] = {
    "sin": Function((1, 1), _degrees(np.sin), "sine of degrees"),
    "cos": Function((1, 1), _degrees(np.cos), "cosine of degrees"),
    "tan": Function((1, 1), _degrees(np.tan), "tangent of degrees"),
    "asin": Function((1, 1), lambda x: np.degrees(np.arcsin(x)), "degrees whose sine this is"),
    "acos": Function((1, 1), lambda x: np.degrees(np.arccos(x)), "degrees whose cosine this is"),
    "atan": Function((1, 1), lambda x: np.degrees(np.arctan(x)), "degrees whose tangent this is"),
    "atan2": Function((2, 2), lambda y, x: np.degrees(np.arctan2(y + 0.0, x + 0.0)), "degrees of the direction (x, y), given y first"),
    "abs": Function((1, 1), np.abs, "how far from 0"),
    "sign": Function((1, 1), np.sign, "−1, 0 or 1"),
    "floor": Function((1, 1), np.floor, "the whole number below"),
    "ceil": Function((1, 1), np.ceil, "the whole number above"),
    "round": Function((1, 1), np.round, "the nearest whole number; halves to the even one"),
    "sqrt": Function((1, 1), np.sqrt, "the square root"),
    "exp": Function((1, 1), np.exp, "e to this power"),
    "log": Function((1, 1), np.log, "the natural logarithm"),
    "hypot": Function((2, 2), np.hypot, "the length of (x, y)"),
    "min": Function((1, MANY), lambda *x: reduce(np.minimum, x), "the least of them"),
    "max": Function((1, MANY), lambda *x: reduce(np.maximum, x), "the greatest of them"),
    "clamp": Function((3, 3), lambda x, low, high: np.minimum(np.maximum(x, low), high), "x kept between low and high"),
    "mix": Function((3, 3), lambda a, b, share: a * (1 - share) + b * share, "from a to b by a share"),
    "step": Function((2, 2), lambda edge, x: np.where(x < edge, 0.0, 1.0), "0 below the edge, 1 from it on"),
    "smoothstep": Function((3, 3), _smoothstep, "0 to 1 between low and high, without a corner"),
    "noise": Function((2, 2), _noise, "wanders within −1…1 as x goes on; another seed, another way"),
}

OPERATORS: dict[str, Callable[..., Any]] = {
    "+": np.add,
    "-": np.subtract,
    "*": np.multiply,
    "/": lambda a, b: np.where(b == 0, np.nan, np.divide(a, np.where(b == 0, 1.0, b))),
    "%": lambda a, b: np.where(b == 0, np.nan, np.mod(a, np.where(b == 0, 1.0, b))),
    "^": np.power,
    "negative": np.negative,
    "<": lambda a, b: np.where(a < b, 1.0, 0.0),
    "<=": lambda a, b: np.where(a <= b, 1.0, 0.0),
    ">": lambda a, b: np.where(a > b, 1.0, 0.0),
    ">=": lambda a, b: np.where(a >= b, 1.0, 0.0),
    "==": lambda a, b: np.where(a == b, 1.0, 0.0),
    "!=": lambda a, b: np.where(a != b, 1.0, 0.0),
    "if": lambda test, value, otherwise: np.where(test != 0, value, otherwise),
}
