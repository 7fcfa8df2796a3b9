"""Formulas as trees, and reading their text.

The text is at most MAX_LENGTH characters and MAX_DEPTH levels deep; nothing in it is ever run: a tree holds numbers, names of a
fixed set, references to channels and dials, and functions of a fixed table.
"""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from difflib import get_close_matches
from functools import cache
from importlib import resources
from typing import Any

from lark import Lark, Token, Tree
from lark.exceptions import LarkError, UnexpectedCharacters, UnexpectedEOF, UnexpectedToken

from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.formula.functions import FUNCTIONS

MAX_LENGTH = 2_000
MAX_DEPTH = 60
#: As many parts are read within a few hundredths of a second.
MAX_PARTS = 250
#: What tells the copies of a parade apart: which it is, how many there are, and its number in the list.
COPY_NAMES = ("n", "count", "item")
#: What a name can represent besides functions: seconds, the frame, what the card before made, and what tells copies apart.
NAMES = ("t", "f", "value", *COPY_NAMES)


class FormulaError(MotionError):
    """A formula that cannot be read; `at` is the place of the character it fails at, counted from 0."""

    def __init__(self, message: str, at: int) -> None:
        self.at = at
        super().__init__(message)


@dataclass(frozen=True)
class Number:
    """A plain number."""

    value: float


@dataclass(frozen=True)
class Name:
    """One of NAMES."""

    name: str


@dataclass(frozen=True)
class Reference:
    """`{Mill wheel.rotation @ -6f}` or `{Wind}`: what stands before the @, how much earlier or later it is read, and where it is in
    the text."""

    text: str
    frames: float
    seconds: float
    at: int


@dataclass(frozen=True)
class Call:
    """A function or an operator with its arguments."""

    function: str
    arguments: "tuple[Node, ...]"
    at: int


Node = Number | Name | Reference | Call

#: Operators, and arguments of functions: every part of a formula has one before it.
_PART = re.compile(r"[-+*/%^(,]|[<>=!]=?|\bif\b")
_OFFSET = re.compile(r"^\s*([+-]?\d*\.?\d+)\s*([fs])\s*$")


def read(text: str) -> Node:
    """The tree of a formula.

    Raises:
        FormulaError: naming what is wrong and the place of the character.
    """
    if len(text) > MAX_LENGTH:
        raise FormulaError(f"the formula is {len(text)} characters long; it may have {MAX_LENGTH}", MAX_LENGTH)
    if not text.strip():
        raise FormulaError("the formula is empty; write a number, a name such as {Mill wheel.rotation}, or sums of them", 0)
    _check_nesting(text)
    try:
        tree = _grammar().parse(text)
    except UnexpectedEOF as error:
        raise FormulaError("the formula ends too early: something is missing after its last character", len(text)) from error
    except (UnexpectedToken, UnexpectedCharacters) as error:
        at = int(getattr(error, "pos_in_stream", 0) or 0)
        if isinstance(error, UnexpectedToken) and error.token.type == "$END":
            raise FormulaError("the formula ends too early: something is missing after its last character", len(text)) from error
        shown = text[at : at + 1]
        raise FormulaError(f"'{shown}' does not fit here{_advice(text, at)}", at) from error
    except LarkError as error:
        raise FormulaError("this is no formula", 0) from error
    return _node(tree, 0)


def nodes(node: Node) -> Iterator[Node]:
    """A tree's nodes, itself first."""
    waiting = [node]
    while waiting:
        one = waiting.pop()
        yield one
        if isinstance(one, Call):
            waiting.extend(reversed(one.arguments))


def tells_copies_apart(node: Node) -> bool:
    """Whether a formula asks which copy of a parade it is for."""
    if isinstance(node, Name):
        return node.name in COPY_NAMES
    return isinstance(node, Call) and any(tells_copies_apart(part) for part in node.arguments)


def references(node: Node) -> list[Reference]:
    """The channels and dials a formula reads, in the order they stand."""
    return [one for one in nodes(node) if isinstance(one, Reference)]


@cache
def _grammar() -> Lark:
    text = resources.files(__package__).joinpath("grammar.lark").read_text(encoding="utf-8")
    return Lark(text, start="expression", parser="lalr", propagate_positions=True)


def _check_nesting(text: str) -> None:
    """Refuse what is nested too deep, or has too many parts, before the parser goes down into it."""
    depth = run = 0
    for at, character in enumerate(text):
        depth += (character == "(") - (character == ")")
        # Signs and powers nest without parentheses.
        run = 0 if character.isalnum() else run + (character in "+-^")
        if depth > MAX_DEPTH or run > MAX_DEPTH:
            raise FormulaError(f"the formula is nested more than {MAX_DEPTH} deep", at)
    parts = list(_PART.finditer(text))
    if len(parts) > MAX_PARTS:
        raise FormulaError(f"the formula has more than {MAX_PARTS} operators and functions; make it of several links", parts[MAX_PARTS].start())


def _advice(text: str, at: int) -> str:
    match text[at]:
        case "=":
            return "; to compare, write =="
        case "{" | "}":
            return "; a name in braces looks like {Mill wheel.rotation}"
        case ")":
            return "; there is no ( it could close"
        case "," | ";":
            return "; commas stand only between what a function is given"
        case _:
            return "; an operator such as + or * may be missing before it"


def _node(tree: Any, depth: int) -> Node:
    if depth > MAX_DEPTH * 8:
        raise FormulaError(f"the formula is nested more than {MAX_DEPTH} deep", 0)
    assert isinstance(tree, Tree)
    parts = tree.children
    at = int(tree.meta.start_pos)
    match tree.data:
        case "number":
            number = float(str(parts[0]))
            if number > 1e300:
                raise FormulaError("this number is too large", at)
            return Number(number)
        case "name":
            return _named(str(parts[0]), at)
        case "reference":
            return _reference(str(parts[0]), at)
        case "call":
            arguments = tuple(_node(part, depth + 1) for part in parts[1:] if part is not None)
            return _called(str(parts[0]), arguments, at)
        case "sign":
            inner = _node(parts[1], depth + 1)
            return Call("negative", (inner,), at) if parts[0] == "-" else inner
        case "power":
            return Call("^", (_node(parts[0], depth + 1), _node(parts[1], depth + 1)), at)
        case "choice":
            value, test, otherwise = (_node(part, depth + 1) for part in parts)
            return Call("if", (test, value, otherwise), at)
        case _:
            left, operator, right = parts
            assert isinstance(operator, Token)
            return Call(str(operator), (_node(left, depth + 1), _node(right, depth + 1)), int(operator.start_pos or at))


def _named(name: str, at: int) -> Node:
    if name in NAMES:
        return Name(name)
    if name == "pi":
        return Number(3.141592653589793)
    hint = (
        f"; {name} is a function: give it something, as in {name}(f)"
        if name in FUNCTIONS
        else f"; a channel is written {{{name}.x}}, a dial {{{name}}}"
    )
    raise FormulaError(f"'{name}' is no name a formula knows: t (seconds), f (frame), value, pi; n, count and item in a parade{hint}", at)


def _reference(text: str, at: int) -> Node:
    inner, mark, offset = text[1:-1].partition("@")
    if not inner.strip():
        raise FormulaError("a name is missing between the braces", at)
    if not mark:
        return Reference(inner.strip(), 0.0, 0.0, at)
    found = _OFFSET.match(offset)
    if found is None:
        raise FormulaError("after @ comes how much earlier it is read, in frames or seconds: @ -6f or @ -0.25s", at + text.index("@"))
    amount = float(found[1])
    if abs(amount) > 1e6:
        raise FormulaError("that is too far away in time", at + text.index("@"))
    return Reference(inner.strip(), amount if found[2] == "f" else 0.0, amount if found[2] == "s" else 0.0, at)


def _called(name: str, arguments: tuple[Node, ...], at: int) -> Node:
    found = FUNCTIONS.get(name)
    if found is None:
        raise FormulaError(f"there is no function '{name}'; {_nearest(name)}", at)
    least, most = found.takes
    if not least <= len(arguments) <= most:
        wanted = str(least) if least == most else f"{least} to {most}" if most < 100 else f"{least} or more"
        raise FormulaError(f"{name} is given {len(arguments)} values; it takes {wanted}", at)
    return Call(name, arguments, at)


def _nearest(name: str) -> str:
    near = get_close_matches(name, FUNCTIONS, n=1)
    return f"did you mean {near[0]}?" if near else f"there is {', '.join(FUNCTIONS)}"
