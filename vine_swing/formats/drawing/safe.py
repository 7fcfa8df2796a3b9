"""Reading XML that nobody vouches for: no entities but short plain ones, nothing fetched, and no more of it than can be drawn."""

from collections.abc import Iterator
from xml.etree.ElementTree import Element, ParseError, TreeBuilder

from defusedxml import DefusedXmlException, DTDForbidden, EntitiesForbidden
from defusedxml.ElementTree import DefusedXMLParser

from vine_swing.motion import MotionError

#: Bytes of a file, elements in it, and how deep they may be in each other.
MOST_BYTES, MOST_ELEMENTS, DEEPEST = 20_000_000, 60_000, 200
#: Characters of texts and attributes together, once entities are expanded.
MOST_CHARACTERS = 30_000_000
#: Entities of a file, and characters of one.
MOST_ENTITIES, MOST_ENTITY = 100, 1_000
SVG = "http://www.w3.org/2000/svg"
XLINK = "http://www.w3.org/1999/xlink"


def parsed(data: bytes, name: str) -> Element:
    """Return the root element of an SVG file.

    Raises:
        MotionError: if it is none, is too large, or has declarations that no drawing needs.
    """
    if len(data) > MOST_BYTES:
        raise MotionError(f"'{name}' has {len(data) / 1e6:.0f} MB; at most {MOST_BYTES / 1e6:.0f} MB are taken, so simplify the drawing")
    try:
        parser = _Parser(target=_Counted(name))
        parser.feed(data)
        root: Element = parser.close()
    except DefusedXmlException as error:
        raise MotionError(f"'{name}' declares entities or attributes that no drawing needs, or asks for other files; save it as plain SVG") from error
    except (ParseError, ValueError, LookupError) as error:
        if isinstance(error, MotionError):
            raise
        raise MotionError(f"'{name}' is no SVG that can be read: {error}; save it again") from error
    except RecursionError as error:
        raise MotionError(f"'{name}' is nested too deep; save it as plain SVG") from error
    if tag_of(root) != "svg":
        raise MotionError(f"'{name}' is no SVG: its first element is <{tag_of(root)[:40]}>")
    return root


class _Parser(DefusedXMLParser):  # type: ignore[misc]
    """An XML parser that takes only short, plain internal entities, as some drawing programs write for namespaces, and nothing else of a DTD."""

    def __init__(self, target: TreeBuilder) -> None:
        super().__init__(target=target, forbid_dtd=False, forbid_entities=True, forbid_external=True)
        self._entities = 0
        # A default of an attribute would be written into every element that does not have it.
        self.parser.AttlistDeclHandler = self._refuse

    def defused_entity_decl(
        self, name: str, is_parameter: bool, value: str | None, base: str | None, sysid: str | None, pubid: str | None, notation: str | None
    ) -> None:
        """Take an internal entity that refers to no other; raises EntitiesForbidden for all others."""
        self._entities += 1
        if is_parameter or value is None or sysid or pubid or "&" in value or len(value) > MOST_ENTITY or self._entities > MOST_ENTITIES:
            raise EntitiesForbidden(name, value, base, sysid, pubid, notation)

    def _refuse(self, *declaration: object) -> None:
        raise DTDForbidden(*map(str, declaration[:2]), None)


class _Counted(TreeBuilder):
    """Builds the tree, counting while it grows: what entities expand to is never built beyond the limits."""

    def __init__(self, name: str) -> None:
        super().__init__()
        self._name, self._count, self._depth, self._characters = name, 0, 0, 0

    def start(self, tag: str, attrs: dict[str, str], /) -> Element:
        """Open an element; raises MotionError where there are too many, or too deep ones."""
        self._count += 1
        self._depth += 1
        if self._count > MOST_ELEMENTS or self._depth > DEEPEST:
            raise MotionError(f"'{self._name}' has more than {MOST_ELEMENTS} elements, or they stand more than {DEEPEST} deep; simplify the drawing")
        self._take(sum(map(len, attrs.values())))
        return super().start(tag, attrs)

    def end(self, tag: str, /) -> Element:
        """Close an element."""
        self._depth -= 1
        return super().end(tag)

    def data(self, data: str, /) -> None:
        """Add text; raises MotionError where there is too much."""
        self._take(len(data))
        super().data(data)

    def _take(self, characters: int) -> None:
        self._characters += characters
        if self._characters > MOST_CHARACTERS:
            raise MotionError(f"'{self._name}' has more than {MOST_CHARACTERS / 1e6:.0f} million characters; simplify the drawing")


def tag_of(element: Element) -> str:
    """The name of an element without its namespace; empty for comments and what other programs put in."""
    tag = element.tag
    if not isinstance(tag, str):
        return ""
    space, _, local = tag.rpartition("}")
    return local if space in ("", "{" + SVG) else ""


def reference_of(element: Element) -> str:
    """Return the reference of an element, from either attribute."""
    return element.get("href") or element.get(f"{{{XLINK}}}href") or ""


def by_id(root: Element) -> dict[str, Element]:
    """All elements that have an id."""
    return {element.attrib["id"]: element for element in elements(root) if "id" in element.attrib}


def elements(root: Element) -> Iterator[Element]:
    """All elements, in the order of the file."""
    return root.iter()
