"""Working a formula out over many frames at once."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.formula.functions import FUNCTIONS, OPERATORS
from vine_swing.motion.formula.tree import Call, Name, Node, Number, Reference

Array = NDArray[np.float64]


class NoAnswer(MotionError):
    """Part of a formula has no answer at a frame: `at` is the place of its character, `frame` the first such frame."""

    def __init__(self, what: str, at: int, frame: float) -> None:
        self.at, self.frame = at, frame
        super().__init__(f"{what} has no answer at frame {frame:g}")


@dataclass(frozen=True)
class Copy:
    """Which copy of a parade something is computed for: the `n`-th of `count`, from 0, with the number `item` of its list."""

    n: float = 0.0
    count: float = 1.0
    item: float = 0.0


#: What is in no parade.
ALONE = Copy()


def evaluate(node: Node, t: Array, fps: float, value: Callable[[], Array], read: Callable[[Reference], Array], copy: Copy = ALONE) -> Array:
    """A formula's values at frames t (1, n); NaN where it has no answer.

    Args:
        node: the formula.
        t: frames.
        fps: frames per second.
        value: gives what the card before made, (1, n).
        read: gives the values of a reference, (1, n).
        copy: what `n`, `count` and `item` are.
    """
    with np.errstate(all="ignore"):
        result = np.empty(t.shape)
        result[...] = _worked_out(node, t, fps, value, read, copy)
        # A sum is finite only if all its parts are, and cheaper to ask.
        if not np.isfinite(np.add.reduce(result, axis=None)):
            result[~np.isfinite(result)] = np.nan
    return result


def first_without_answer(
    node: Node, t: Array, fps: float, value: Callable[[], Array], read: Callable[[Reference], Array], copy: Copy = ALONE
) -> NoAnswer | None:
    """The innermost part of a formula that has no answer, and the first frame at which it has none; None if all is well."""
    if np.isfinite(evaluate(node, t, fps, value, read, copy)).all():
        return None
    for inner in node.arguments if isinstance(node, Call) else ():
        found = first_without_answer(inner, t, fps, value, read, copy)
        # Branches may be undefined where they are not chosen.
        if found is not None and not (isinstance(node, Call) and node.function == "if"):
            return found
    bad = ~np.isfinite(evaluate(node, t, fps, value, read, copy))[0]
    frame = float(t[0][int(np.argmax(bad))])
    return NoAnswer(_said(node), node.at if isinstance(node, Call | Reference) else 0, frame)


def _said(node: Node) -> str:
    if not isinstance(node, Call):
        return "this"
    return {"/": "dividing by 0", "%": "dividing by 0", "^": "this power"}.get(node.function, node.function)


def _worked_out(node: Node, t: Array, fps: float, value: Callable[[], Array], read: Callable[[Reference], Array], copy: Copy) -> Array:
    match node:
        case Number():
            return _plain(node.value)
        case Name("t"):
            return t / fps
        case Name("f"):
            return t
        case Name("value"):
            return value()
        case Name():
            return _plain(float(getattr(copy, node.name)))
        case Reference():
            return read(node)
        case Call():
            arguments = [_worked_out(part, t, fps, value, read, copy) for part in node.arguments]
            work = OPERATORS[node.function] if node.function in OPERATORS else FUNCTIONS[node.function].apply
            result: Array = work(*arguments)
            return result


@lru_cache(maxsize=4096)
def _plain(number: float) -> Array:
    """A number as an array (1, 1); equal ones share it."""
    array = np.full((1, 1), number)
    array.flags.writeable = False
    return array
