"""Numbers in texts: `{number}` and `{number:,.1f}`, by Python's format specification; nothing else is evaluated."""

import re

_FIELD = re.compile(r"\{number(?::([^{}]*))?\}")
#: Python's format specification for numbers, with what could make a text endless or foreign left out.
_SPEC = re.compile(r"(?:.?[<>=^])?[-+ ]?z?#?0?\d{0,2}[,_]?(?:\.\d{1,2})?[bdeEfFgGoxX%]?", re.DOTALL)
_WHOLE = tuple("bdoxX")
#: The largest number that is written out.
_LARGEST = 1e15


def with_number(text: str, number: float) -> str:
    """The text with the number in it. Without a format it is rounded to whole ones; nothing is written as −0."""
    return _FIELD.sub(lambda field: _formatted(number, field[1] or "d"), text)


def counts(text: str) -> bool:
    """Whether a number is in a text."""
    return _FIELD.search(text) is not None


def check_numbers(text: str) -> None:
    """Refuse a number whose format cannot be followed.

    Raises:
        ValueError: naming the format, and some that work.
    """
    for field in _FIELD.finditer(text):
        spec = field[1] or "d"
        try:
            if not _SPEC.fullmatch(spec):
                raise ValueError
            _formatted(1.5, spec)
        except (ValueError, OverflowError):
            raise ValueError(f"'{field[0]}' has a format that is none; {{number}}, {{number:,.1f}} or {{number:.0%}} would work") from None


def _formatted(number: float, spec: str) -> str:
    within = min(max(number, -_LARGEST), _LARGEST)
    value: float = round(within) if spec.endswith(_WHOLE) else within
    shown, nothing = format(value, spec), format(-0.0, spec) if not spec.endswith(_WHOLE) else ""
    return format(0.0, spec) if shown == nothing else shown
