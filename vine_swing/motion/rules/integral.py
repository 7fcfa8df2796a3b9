"""The running integral of a setting over time."""

from collections.abc import Callable

import numpy as np

from vine_swing.motion.rules.spec import Array

#: Gauss–Legendre points a panel: exact for polynomials up to degree 19, so for every keyed stretch but the wildest eases.
_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(10)


def integral(read: Callable[[Array], Array], t: Array, breaks: Array) -> Array:
    """∫ from 0 to t of some functions of the frame, one a row, in value × frames.

    Composite Gauss–Legendre over panels of at most one frame that straddle neither a whole frame nor any of `breaks` (the other
    frames at which a function has a corner).

    Args:
        read: the functions, from frames (1 or r, m) to (r or 1, m).
        t: where to integrate to, shape (1 or r, n).
        breaks: frames of corners, shape (k,).

    Returns:
        Shape (r or 1, n).
    """
    low, high = min(0.0, float(t.min())), max(0.0, float(t.max()))
    inside = breaks[(breaks > low) & (breaks < high)]
    edges = np.unique(np.concatenate([np.arange(np.floor(low), np.ceil(high) + 1), inside, [0.0]]))
    if len(edges) < 2:
        return np.zeros_like(t)
    panels = _panels(read, edges[None, :-1], edges[None, 1:])
    whole = np.concatenate([np.zeros((len(panels), 1)), np.cumsum(panels, axis=1)], axis=1)
    whole -= whole[:, np.searchsorted(edges, 0.0), None]
    panel = np.clip(np.searchsorted(edges, t, side="right") - 1, 0, len(edges) - 2)
    inner = _panels(read, edges[panel], t)
    rows = np.broadcast_to(panel, inner.shape)
    return np.take_along_axis(np.broadcast_to(whole, (len(inner), whole.shape[1])), rows, axis=1) + inner


def _panels(read: Callable[[Array], Array], start: Array, end: Array) -> Array:
    half = (end - start) / 2
    frames = start[..., None] + half[..., None] * (_NODES + 1)
    flat = frames.reshape(len(frames), -1)
    values = read(flat)
    rows = max(len(values), len(flat))
    shaped = np.broadcast_to(values, (rows, flat.shape[1])).reshape(rows, -1, len(_NODES))
    integrals: Array = np.ascontiguousarray(shaped * _WEIGHTS).sum(axis=-1) * half
    return integrals
