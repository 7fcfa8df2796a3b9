"""Styles of elements: presentation attributes, style sheets by tag, class and id, and the style attribute, in the order of CSS."""

import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from xml.etree.ElementTree import Element

import svgelements

from vine_swing.formats.drawing.safe import elements, tag_of

#: What an element has from those it is in, and what it is where nothing is said (SVG 2).
INHERITED = {
    "fill": "black",
    "fill-opacity": "1",
    "fill-rule": "nonzero",
    "stroke": "none",
    "stroke-opacity": "1",
    "stroke-width": "1",
    "stroke-linecap": "butt",
    "stroke-linejoin": "miter",
    "stroke-dasharray": "none",
    "stroke-dashoffset": "0",
    "color": "black",
    "visibility": "visible",
    "font-size": "16px",
    "font-family": "",
    "font-weight": "normal",
    "text-anchor": "start",
}
OWN = {"opacity": "1", "display": "inline", "mix-blend-mode": "normal", "clip-path": "none", "mask": "none", "filter": "none", "stop-color": "black"}
OWN |= {"stop-opacity": "1", "marker-start": "none", "marker-mid": "none", "marker-end": "none", "letter-spacing": "normal"}
#: Rules that are read, and classes of one element.
MOST_RULES, MOST_CLASSES = 5_000, 50
#: Characters of a style attribute, a length or a colour; a longer one is none.
_LONGEST, _LONGEST_VALUE = 20_000, 200
_PART = re.compile(r"[.#][\w-]+")
_SIMPLE = re.compile(r"^(?P<tag>[A-Za-z][\w-]*|\*)?(?P<parts>(?:[.#][\w-]+)*)$")


@dataclass(frozen=True)
class Rule:
    """A rule of a style sheet with a selector of one element. weight: its specificity, ids before classes and tags."""

    weight: tuple[int, int]
    tag: str
    classes: frozenset[str]
    id: str
    declarations: dict[str, str]

    def matches(self, tag: str, own_id: str, classes: frozenset[str]) -> bool:
        """True if the selector matches an element."""
        return self.tag in ("", tag) and self.id in ("", own_id) and self.classes <= classes


@dataclass(frozen=True)
class Sheets:
    """The rules of all style sheets of a file that can be kept; `lost` if some cannot.

    keyed: the rules, with their place in the file, by `#id`, `.class`, or a tag ("" for any): each stands under one that its selector names, so that
        few are compared with an element.
    """

    keyed: dict[str, list[tuple[int, Rule]]] = field(default_factory=dict)
    lost: bool = False
    _known: dict[tuple[str, str, frozenset[str]], dict[str, str]] = field(default_factory=dict)

    @classmethod
    def of(cls, root: Element) -> "Sheets":
        """Return the sheets of a file. Selectors of one element, by tag, classes and id, are read; `lost` says that there are others."""
        text = " ".join(_without_comments(element.text or "") for element in elements(root) if tag_of(element) == "style")
        keyed: dict[str, list[tuple[int, Rule]]] = {}
        lost, count = "@" in text, 0
        for selectors, body in _blocks(text):
            declarations = {name: value for name, value in declared(body).items() if name in INHERITED or name in OWN}
            for selector in selectors.split(","):
                count += 1
                rule = _rule(selector.strip(), declarations) if count <= MOST_RULES else None
                if rule is None:
                    lost = True
                    continue
                key = f"#{rule.id}" if rule.id else f".{min(rule.classes)}" if rule.classes else rule.tag
                keyed.setdefault(key, []).append((count, rule))
        return cls(keyed, lost)

    def style(self, element: Element, above: dict[str, str]) -> dict[str, str]:
        """Return the style of an element that is in one with another style."""
        result = {name: above.get(name, usual) for name, usual in INHERITED.items()} | OWN
        cached = result.keys()
        result |= {name: value.strip() for name, value in element.attrib.items() if name in cached}
        result |= self._declarations(element)
        result |= {name: value for name, value in declared(element.get("style") or "").items() if name in cached}
        for name, value in result.items():
            if value == "inherit":
                result[name] = above.get(name, INHERITED.get(name, OWN.get(name, "")))
        return result

    def _declarations(self, element: Element) -> dict[str, str]:
        """Return what the rules declare for an element; elements that no rule tells apart share the result."""
        if not self.keyed:
            return {}
        own_id, classes = element.get("id", ""), (element.get("class") or "").split()[:MOST_CLASSES]
        key = (tag_of(element), own_id if f"#{own_id}" in self.keyed else "", frozenset(classes))
        if key not in self._known:
            tag, own_id, chosen = key
            names = ("", tag, f"#{own_id}", *(f".{item}" for item in sorted(chosen)))
            matching = [item for name in names for item in self.keyed.get(name, ()) if item[1].matches(tag, own_id, chosen)]
            merged: dict[str, str] = {}
            for _, rule in sorted(matching, key=lambda entry: (entry[1].weight, entry[0])):
                merged |= rule.declarations
            self._known[key] = merged
        return self._known[key]


def _rule(selector: str, declarations: dict[str, str]) -> Rule | None:
    """Return the rule with a selector; None if it is not of one element by tag, classes and id."""
    result = _SIMPLE.match(selector[:_LONGEST_VALUE])
    if result is None or not selector or len(selector) > _LONGEST_VALUE:
        return None
    parts = _PART.findall(result["parts"])
    classes, ids = frozenset(part[1:] for part in parts if part[0] == "."), [part[1:] for part in parts if part[0] == "#"]
    tag = "" if result["tag"] in (None, "*") else result["tag"]
    return Rule((len(ids), len(classes) * 2 + bool(tag)), tag, classes, ids[0] if ids else "", declarations)


def _without_comments(text: str) -> str:
    """Return a style sheet without its comments; one that is not closed goes to the end (CSS Syntax 3, 4.3.2)."""
    stored, at = [], 0
    while (start := text.find("/*", at)) >= 0:
        stored.append(text[at:start])
        end = text.find("*/", start + 2)
        if end < 0:
            return " ".join(stored)
        at = end + 2
    return " ".join([*stored, text[at:]])


def _blocks(text: str) -> Iterator[tuple[str, str]]:
    """Yield the selectors and the body of each rule that has no other in it."""
    for part in text.split("}")[:-1]:
        before, brace, body = part.rpartition("{")
        if brace:
            yield before.rpartition("{")[2], body


def declared(text: str) -> dict[str, str]:
    """The declarations of a style attribute or the body of a rule."""
    parts = (item.partition(":") for item in text[:_LONGEST].split(";"))
    return {name.strip().lower(): value.replace("!important", "").strip() for name, colon, value in parts if colon}


def number(text: str | None, usual: float, *, of: float = 100.0) -> float:
    """A length in px; a percentage is of `of`."""
    if text is None or len(text) > _LONGEST_VALUE or not text.strip():
        return usual
    try:
        result = float(svgelements.Length(text.strip()).value(ppi=96, relative_length=of))
    except (ValueError, TypeError, AttributeError):
        return usual
    return result if abs(result) < 1e7 else usual


def share(text: str | None, usual: float = 1.0) -> float:
    """A number between 0 and 1, or a percentage."""
    try:
        value = float(str(text).strip().rstrip("%")) / (100 if str(text).strip().endswith("%") else 1)
    except ValueError:
        return usual
    return min(max(value, 0.0), 1.0) if value == value else usual


def colour(text: str, current: str, opacity: float) -> str | None:
    """A colour as #RRGGBBAA; None if it is none that is known."""
    word = current if text.strip().lower() == "currentcolor" else text
    if len(word) > _LONGEST_VALUE:
        return None
    try:
        result = svgelements.Color(word)
        parts = (result.red, result.green, result.blue)
        if any(part is None for part in parts):
            return None
        alpha = (255 if result.alpha is None else result.alpha) / 255 * opacity
    except (ValueError, TypeError, AttributeError):
        return None
    text = "#" + "".join(f"{int(part):02X}" for part in parts)
    return text if alpha >= 1 else f"{text}{round(alpha * 255):02X}"
