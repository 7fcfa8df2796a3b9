"""Reading XML that nobody vouches for: no entities, nothing fetched, and no more of it than can be drawn."""

from collections.abc import Iterator
from xml.etree.ElementTree import Element, ParseError

from defusedxml import DefusedXmlException
from defusedxml.ElementTree import fromstring

from vine_swing.motion import MotionError

#: Bytes of a file, elements in it, and how deep they may stand in each other.
MOST_BYTES, MOST_ELEMENTS, DEEPEST = 20_000_000, 60_000, 200
SVG = "http://www.w3.org/2000/svg"
XLINK = "http://www.w3.org/1999/xlink"


def parsed(data: bytes, name: str) -> Element:
    """The root element of an SVG file.

    Raises:
        MotionError: if it is none, is too large, or has entities in it.
    """
    if len(data) > MOST_BYTES:
        raise MotionError(f"'{name}' has {len(data) / 1e6:.0f} MB; at most {MOST_BYTES / 1e6:.0f} MB are taken, so simplify the drawing")
    try:
        root: Element = fromstring(data, forbid_dtd=False, forbid_entities=True, forbid_external=True)
    except DefusedXmlException as error:
        raise MotionError(f"'{name}' has entities of its own or asks for other files, which no drawing needs; save it as plain SVG") from error
    except (ParseError, ValueError, LookupError) as error:
        raise MotionError(f"'{name}' is no SVG that can be read: {error}; save it again") from error
    except RecursionError as error:
        raise MotionError(f"'{name}' is nested too deep; save it as plain SVG") from error
    if tag_of(root) != "svg":
        raise MotionError(f"'{name}' is no SVG: its first element is <{tag_of(root)[:40]}>")
    _measured(root, name)
    return root


def _measured(root: Element, name: str) -> None:
    waiting, count = [(root, 1)], 0
    while waiting:
        element, depth = waiting.pop()
        count += 1
        if count > MOST_ELEMENTS or depth > DEEPEST:
            raise MotionError(f"'{name}' has more than {MOST_ELEMENTS} elements, or they stand more than {DEEPEST} deep; simplify the drawing")
        waiting += [(child, depth + 1) for child in element]


def tag_of(element: Element) -> str:
    """The name of an element without its namespace; empty for comments and what other programs put in."""
    tag = element.tag
    if not isinstance(tag, str):
        return ""
    space, _, local = tag.rpartition("}")
    return local if space in ("", "{" + SVG) else ""


def reference_of(element: Element) -> str:
    """What an element refers to, by either attribute."""
    return element.get("href") or element.get(f"{{{XLINK}}}href") or ""


def by_id(root: Element) -> dict[str, Element]:
    """All elements that have an id."""
    return {one.attrib["id"]: one for one in elements(root) if "id" in one.attrib}


def elements(root: Element) -> Iterator[Element]:
    """All elements, in the order of the file."""
    return root.iter()
