"""Formulas: the language of links (design section 6). One expression over numbers, names and functions, read into a tree and computed
over whole arrays. No text is ever run."""

from vine_swing.motion.formula.evaluate import ALONE, Copy, NoAnswer, evaluate, first_without_answer
from vine_swing.motion.formula.names import checked, renamed, split
from vine_swing.motion.formula.tree import FormulaError, Node, Reference, read, references, tells_copies_apart

__all__ = [
    "ALONE",
    "Copy",
    "FormulaError",
    "NoAnswer",
    "Node",
    "Reference",
    "checked",
    "evaluate",
    "first_without_answer",
    "read",
    "references",
    "renamed",
    "split",
    "tells_copies_apart",
]
