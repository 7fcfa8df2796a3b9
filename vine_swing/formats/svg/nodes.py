"""Elements of SVG with what changes of them, before they are written in one way or the other."""

from dataclasses import dataclass, field

from vine_swing.formats.svg.moving import Moving, Transforming


@dataclass(eq=False)
class Node:
    """An element: its tag, attributes that stay, attributes and a transform that change, and what is in it."""

    tag: str
    attributes: dict[str, str] = field(default_factory=dict)
    moving: list[Moving] = field(default_factory=list)
    transforming: Transforming | None = None
    children: list["Node"] = field(default_factory=list)
    style: dict[str, str] = field(default_factory=dict)


def number(value: float, digits: int = 3) -> str:
    """A number as short as it goes, rounded to this many digits after the point."""
    text = f"{value:.{digits}f}"
    if "." in text:
        text = text.rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text
