"""What an element looks like: presentation attributes, style sheets by tag, class and id, and the style attribute, in the order of CSS."""

import re
from dataclasses import dataclass, field
from xml.etree.ElementTree import Element

import svgelements

from vine_swing.formats.drawing.safe import elements, tag_of

#: What an element has from those it stands in, and what it is where nothing is said (SVG 2).
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
_RULE = re.compile(r"([^{}]+)\{([^{}]*)\}")
_COMMENT = re.compile(r"/\*.*?\*/", re.DOTALL)
_SIMPLE = re.compile(r"^(?P<tag>[A-Za-z][\w-]*|\*)?(?P<parts>(?:[.#][\w-]+)*)$")


@dataclass(frozen=True)
class Sheets:
    """The rules of all style sheets of a file that can be kept; `lost` if some cannot."""

    rules: list[tuple[tuple[int, int], str, frozenset[str], str, dict[str, str]]] = field(default_factory=list)
    lost: bool = False

    @classmethod
    def of(cls, root: Element) -> "Sheets":
        """The sheets of a file. Selectors of one element, by tag, classes and id, are understood; others are told of."""
        text = " ".join(_COMMENT.sub("", one.text or "") for one in elements(root) if tag_of(one) == "style")
        rules, lost = [], "@" in text
        for selectors, body in _RULE.findall(text):
            for selector in selectors.split(","):
                found = _SIMPLE.match(selector.strip())
                if found is None or not selector.strip():
                    lost = True
                    continue
                parts = re.findall(r"[.#][\w-]+", found["parts"])
                classes, ids = frozenset(one[1:] for one in parts if one[0] == "."), [one[1:] for one in parts if one[0] == "#"]
                tag = "" if found["tag"] in (None, "*") else found["tag"]
                rules.append(((len(ids), len(classes) * 2 + bool(tag)), tag, classes, ids[0] if ids else "", declared(body)))
        rules.sort(key=lambda one: one[0])
        return cls(rules, lost)

    def style(self, element: Element, above: dict[str, str]) -> dict[str, str]:
        """The style of an element that stands in one with another style."""
        found = {name: above.get(name, usual) for name, usual in INHERITED.items()} | OWN
        known = found.keys()
        found |= {name: value.strip() for name, value in element.attrib.items() if name in known}
        tag, own_id, classes = tag_of(element), element.get("id", ""), set((element.get("class") or "").split())
        for _, of_tag, of_classes, of_id, declarations in self.rules:
            if of_tag in ("", tag) and of_id in ("", own_id) and of_classes <= classes:
                found |= {name: value for name, value in declarations.items() if name in known}
        found |= {name: value for name, value in declared(element.get("style") or "").items() if name in known}
        for name, value in found.items():
            if value == "inherit":
                found[name] = above.get(name, INHERITED.get(name, OWN.get(name, "")))
        return found


def declared(text: str) -> dict[str, str]:
    """The declarations of a style attribute or the body of a rule."""
    parts = (one.partition(":") for one in text.split(";"))
    return {name.strip().lower(): value.replace("!important", "").strip() for name, colon, value in parts if colon}


def number(text: str | None, usual: float, *, of: float = 100.0) -> float:
    """A length in px; a percentage is of `of`."""
    if text is None or not text.strip():
        return usual
    try:
        found = float(svgelements.Length(text.strip()).value(ppi=96, relative_length=of))
    except (ValueError, TypeError, AttributeError):
        return usual
    return found if abs(found) < 1e7 else usual


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
    try:
        found = svgelements.Color(word)
        parts = (found.red, found.green, found.blue)
        if any(one is None for one in parts):
            return None
        alpha = (255 if found.alpha is None else found.alpha) / 255 * opacity
    except (ValueError, TypeError, AttributeError):
        return None
    text = "#" + "".join(f"{int(one):02X}" for one in parts)
    return text if alpha >= 1 else f"{text}{round(alpha * 255):02X}"
