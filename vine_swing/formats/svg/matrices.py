"""Matrices over time as numbers that can go straight from one to the next: a place, an angle, a skew and two scales."""

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
_NOTHING = 1e-9


def taken_apart(matrices: Array) -> Array:
    """Matrices (n, 6) as x, y, angle°, skew°, scale across, scale down (n, 6), so that T(x, y) · R(angle) · SkewX(skew) · S(across, down) is the
    matrix. The angle never jumps by half a turn or more: an object that is turned over has negative scales instead."""
    a, b, c, d, e, f = (matrices[:, n] for n in range(6))
    across, down = np.hypot(a, b), np.hypot(c, d)
    # Of something without width, the height tells the angle.
    flat = across < _NOTHING
    angle = np.degrees(np.where(flat, np.arctan2(-c, d), np.arctan2(b, a)))
    # Of something without either, the angle is the one before.
    travelled = flat & (down < _NOTHING)
    if travelled.any() and not travelled.all():
        there = np.flatnonzero(~travelled)
        angle = np.interp(np.arange(len(angle)), there, np.unwrap(angle[there], period=180))
    turned = np.unwrap(angle, period=180)
    sign = np.where(np.rint((turned - angle) / 180) % 2 == 0, 1.0, -1.0)
    safe = np.where(flat, 1.0, across)
    high = np.where(flat, down, (a * d - b * c) / safe)
    lean = np.where(flat | (np.abs(high) < _NOTHING), 0.0, (a * c + b * d) / safe / np.where(np.abs(high) < _NOTHING, 1.0, high))
    return np.stack([e, f, turned, np.degrees(np.arctan(lean)), np.where(flat, 0.0, across) * sign, high * sign], axis=1)


def put_together(parts: Array) -> Array:
    """The matrices (n, 6) of such parts (n, 6)."""
    x, y, angle, skew, across, down = (parts[:, n] for n in range(6))
    cos, sin, lean = np.cos(np.radians(angle)), np.sin(np.radians(angle)), np.tan(np.radians(skew))
    result: Array = np.stack([across * cos, across * sin, down * (lean * cos - sin), down * (lean * sin + cos), x, y], axis=1)
    return result


def tolerances(parts: Array, reach: float, tolerance: float) -> Array:
    """How far each of the six may be off so that no point within `reach` of the origin is farther off than a tolerance, px."""
    size = max(float(np.abs(parts[:, 4:]).max()), _NOTHING)
    lean = 1 + float(np.abs(np.tan(np.radians(parts[:, 3]))).max())
    turn = np.degrees(tolerance / 6 / max(reach * size * lean, _NOTHING))
    scale = tolerance / 6 / max(reach * lean, _NOTHING)
    return np.array([tolerance / 6, tolerance / 6, turn, turn, scale, scale])
