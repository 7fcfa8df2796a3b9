"""The running integral of a setting over time."""

from collections.abc import Callable

import numpy as np

from vine_swing.motion.rules.spec import Array

#: Gauss–Legendre points a panel: exact for polynomials up to degree 19, so for every keyed stretch but the wildest eases.
_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(10)


def integral(read: Callable[[Array], Array], t: Array, breaks: Array) -> Array:
    """∫ from 0 to t of a function of the frame, in value × frames.

    Composite Gauss–Legendre over panels of at most one frame that do not straddle any of `breaks` (frames where the
    function has a corner).

    Args:
        read: the function, over frames of any shape (m,).
        t: where to integrate to, shape (n,).
        breaks: frames of corners, shape (k,).

    Returns:
        Shape (n,).
    """
    low, high = min(0.0, float(t.min())), max(0.0, float(t.max()))
    inside = breaks[(breaks > low) & (breaks < high)]
    edges = np.unique(np.concatenate([np.arange(np.floor(low), np.ceil(high) + 1), inside, [0.0]]))
    if len(edges) < 2:
        return np.zeros_like(t)
    whole = np.append(0.0, np.cumsum(_panels(read, edges[:-1], edges[1:])))
    whole -= whole[np.searchsorted(edges, 0.0)]
    panel = np.clip(np.searchsorted(edges, t, side="right") - 1, 0, len(edges) - 2)
    return whole[panel] + _panels(read, edges[panel], t)


def _panels(read: Callable[[Array], Array], start: Array, end: Array) -> Array:
    half = (end - start) / 2
    frames = start[:, None] + half[:, None] * (_NODES + 1)
    values = np.broadcast_to(read(frames.ravel()), frames.size).reshape(frames.shape)
    integrals: Array = (values @ _WEIGHTS) * half
    return integrals
