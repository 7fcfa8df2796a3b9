"""Elements as the text of an SVG file whose attributes change by SVG's own animation elements (SVG Animations 2)."""

from collections.abc import Iterator
from xml.sax.saxutils import escape, quoteattr

from vine_swing.formats.svg.moving import Array, Moving, Transforming
from vine_swing.formats.svg.nodes import Node, number

#: Digits after the point of the numbers of each function.
_DIGITS = {"translate": 3, "rotate": 4, "skewX": 4, "scale": 6}


def times_text(times: Array) -> str:
    """Shares of the whole, as `keyTimes` has them."""
    return ";".join(number(float(time), 6) for time in times)


def animations(node: Node, timing: str) -> Iterator[str]:
    """What changes of an element, as elements in it."""
    for item in node.moving:
        yield animation(item, timing)
    if node.transforming is not None:
        yield from transform_animations(node.transforming, timing)


def animation(moving: Moving, timing: str) -> str:
    """One attribute."""
    mode = ' calcMode="discrete"' if moving.between == "discrete" else ""
    return (
        f'<animate attributeName="{moving.name}" {timing}{mode} keyTimes="{times_text(moving.times)}" values={quoteattr(";".join(moving.values))}/>'
    )


def transform_animations(transforming: Transforming, timing: str) -> Iterator[str]:
    """A transform: each function is put after those before it."""
    for place, (name, times, values) in enumerate(transforming.parts):
        text = ";".join(" ".join(number(float(part), _DIGITS[name]) for part in row) for row in values)
        add = ' additive="sum"' if place else ""
        yield f'<animateTransform attributeName="transform" type="{name}" {timing}{add} keyTimes="{times_text(times)}" values="{text}"/>'


def written(nodes: list[Node], timing: str) -> Iterator[str]:
    """The lines of a file for some elements."""
    for node in nodes:
        yield from _written(node, timing)


def _written(node: Node, timing: str) -> Iterator[str]:
    return element(node, [*animations(node, timing), *written(node.children, timing)])


def element(node: Node, inside: list[str]) -> Iterator[str]:
    """The lines of an element with what is in it."""
    begin = opening(node)
    if not inside:
        yield f"{begin}/>"
        return
    yield f"{begin}>"
    yield from inside
    yield f"</{node.tag}>"


def opening(node: Node) -> str:
    """The opening tag of an element, without its end."""
    style = ";".join(f"{name}:{value}" for name, value in node.style.items())
    attributes = node.attributes | ({"style": style} if style else {})
    return f"<{node.tag}" + "".join(f" {name}={quoteattr(value)}" for name, value in attributes.items())


def text_of(words: str) -> str:
    """Words as they stand between tags."""
    return escape(words)
