"""From an SVG file to a scene: groups become groups, drawn elements become outlines with their names; the rest is listed.

Every transform goes into the points, so that each part stands upright in its own middle and can be animated at once.
"""

import base64
import binascii
import re
from collections import Counter
from dataclasses import dataclass, field
from math import isfinite
from typing import Any, Literal, get_args
from xml.etree.ElementTree import Element

import numpy as np

from vine_swing.formats.bring_in import bring_in
from vine_swing.formats.drawing.gradients import Blend, Stops, blend_of
from vine_swing.formats.drawing.matrices import Affine, Array
from vine_swing.formats.drawing.safe import by_id, elements, parsed, reference_of, tag_of
from vine_swing.formats.drawing.shapes import SHAPES, outline_of, text_outline
from vine_swing.formats.drawing.style import Sheets, colour, number, share
from vine_swing.motion import MotionError, Scene
from vine_swing.motion.basics.contents import PICTURE_FILES
from vine_swing.motion.basics.report import Report, unreported
from vine_swing.motion.basics.values import MAX_PATH_DATA, MAX_TEXT
from vine_swing.motion.basics.values import Blend as BlendMode
from vine_swing.motion.curves.outline import Outline
from vine_swing.motion.curves.svg_path import path_data
from vine_swing.motion.scene.scene_file import from_data

#: Objects that one drawing may become, and copies by reference that may be in one another.
MOST_OBJECTS, DEEPEST_USE = 3_000, 12
#: Elements that may be removed through, counting those that are used several times as often as they are.
MOST_VISITED = 150_000
#: Characters of one path, and of all: what becomes of a longer path could not be kept in a scene.
MOST_PATH, MOST_DRAWN = 4 * MAX_PATH_DATA, 12_000_000
_CONTAINERS = ("g", "svg", "a", "switch", "symbol")
#: What has no picture of its own, and is not missed.
_SILENT = (
    *("defs", "title", "desc", "metadata", "style", "linearGradient", "radialGradient", "stop", "symbol", "clipPath", "mask", "filter"),
    *("pattern", "marker", "view", "tspan", ""),
)
_ANIMATED = ("animate", "animateTransform", "animateMotion", "animateColor", "set")
_REFERENCE = re.compile(r"url\(\s*['\"]?#([^'\")]+)['\"]?\s*\)\s*(.*)")
_CLEAR = "#00000000"
#: A number as SVG writes it, so that "1.2.3" is 1.2 and .3.
_NUMBER = re.compile(r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?")


@dataclass(frozen=True)
class Drawing:
    """A drawing as a scene of its own, with one group that holds it all; `lost`: sentences about what could not be kept."""

    scene: Scene
    lost: tuple[str, ...]


def read_svg(data: bytes, name: str, *, report: Report = unreported) -> Drawing:
    """Read an SVG file. Nothing outside it is fetched, and nothing in it is run.

    Args:
        data: the file.
        name: what messages call it.
        report: called with the share of its elements that are read, 0…1.

    Raises:
        MotionError: if it is none, is too large, or draws nothing.
    """
    root = parsed(data, name)
    reader = _Reader(Sheets.of(root), by_id(root), report, sum(1 for _ in elements(root)))
    if reader.sheets.lost:
        reader.lose("parts of its style sheet: only rules for single tags, classes and ids are read")
    width, height, matrix = _viewport(root)
    title = _plain(name.rpartition("/")[2].removesuffix(".svg").removesuffix(".SVG")) or "Drawing"
    objects = reader.whole(root, title, matrix)
    size = [max(1, min(8192, round(side))) for side in (width, height)]
    scene = from_data(
        {
            "format": "vine-swing-scene",
            "version": 1,
            "name": title,
            "size": size,
            "background": "#FFFFFF",
            "objects": objects,
            "pictures": list(reader.pictures.values()),
        }
    )
    return Drawing(scene, tuple(f"{what} ({count})" if count > 1 else what for what, count in reader.lost.items()))


def _viewport(root: Element) -> tuple[float, float, Affine]:
    """The size of the picture, px, and how the drawing is in it."""
    box = [float(part) for part in _NUMBER.findall((root.get("viewBox") or "")[:200])]
    if len(box) != 4 or not all(map(isfinite, box)) or box[2] <= 0 or box[3] <= 0:
        return number(root.get("width"), 300.0), number(root.get("height"), 150.0), Affine()
    left, top, wide, high = box
    width, height = number(root.get("width"), wide, of=wide), number(root.get("height"), high, of=high)
    scale = min(width / wide, height / high)
    if (root.get("preserveAspectRatio") or "").strip() == "none":
        return width, height, Affine(width / wide, 0, 0, height / high, -left * width / wide, -top * height / high)
    return width, height, Affine(scale, 0, 0, scale, (width - wide * scale) / 2 - left * scale, (height - high * scale) / 2 - top * scale)


@dataclass
class _Part:
    """An object under construction: its data, and its bounds in the picture."""

    data: dict[str, Any]
    box: Array
    children: "list[_Part]" = field(default_factory=list)


@dataclass
class _Reader:
    sheets: Sheets
    known: dict[str, Element]
    report: Report
    total: int
    lost: Counter[str] = field(default_factory=Counter)
    pictures: dict[str, dict[str, Any]] = field(default_factory=dict)
    _names: set[str] = field(default_factory=set)
    _made: int = 0
    _visited: int = 0
    _stops: Stops = field(default_factory=dict)
    _drawn_characters: int = 0
    _using: list[str] = field(default_factory=list)

    def lose(self, what: str) -> None:
        """Something that cannot be kept."""
        self.lost[what] += 1

    def whole(self, root: Element, title: str, matrix: Affine) -> list[dict[str, Any]]:
        """The objects of a file, in drawing order, in one group."""
        group = self._group(root, self.sheets.style(root, {}), matrix, title)
        if group is None:
            raise MotionError("there is nothing in this drawing that can be brought in; what was left out: " + ("; ".join(self.lost) or "nothing"))
        result: list[dict[str, Any]] = []
        _placed(group, None, (0.0, 0.0), result)
        return result

    def _group(self, element: Element, style: dict[str, str], matrix: Affine, name: str) -> _Part | None:
        parts = [part for child in element for part in self._of(child, style, matrix)]
        if not parts:
            return None
        corners = np.concatenate([part.box for part in parts])
        box = np.stack([corners.min(axis=0), corners.max(axis=0)])
        data = self._object(name, style) | {"kind": "group"}
        return _Part(data, box, parts)

    def _of(self, element: Element, above: dict[str, str], matrix: Affine) -> list[_Part]:
        """Return the objects that an element becomes: none, one or several."""
        tag = tag_of(element)
        self._visited += 1
        if self._visited > MOST_VISITED:
            raise MotionError(f"copies by reference repeat the elements of this drawing more than {MOST_VISITED} times; join some of them")
        self.report(self._visited / self.total)
        if tag in _ANIMATED:
            self.lose("its own animation: everything is as it is at the beginning")
            return []
        if tag in _SILENT:
            return []
        if tag in ("script", "foreignObject"):
            self.lose("scripts" if tag == "script" else "pages inside the drawing")
            return []
        style = self.sheets.style(element, above)
        if style["display"] == "none":
            self.lose("parts that are not displayed")
            return []
        for what in ("clip-path", "mask", "filter"):
            if style[what] != "none":
                self.lose({"clip-path": "clipping paths", "mask": "masks", "filter": "filters"}[what])
        inner = matrix.then(Affine.read(element.get("transform")))
        if tag in _CONTAINERS:
            return self._container(element, style, inner)
        if tag == "use":
            return self._used(element, style, inner)
        if style["visibility"] in ("hidden", "collapse"):
            self.lose("parts that are not displayed")
            return []
        for child in element:
            if tag_of(child) in _ANIMATED:
                self.lose("its own animation: everything is as it is at the beginning")
        if tag in SHAPES:
            if not self._takes_points(element):
                return []
            outline = outline_of(element, (100.0, 100.0))
            return self._drawn(element, style, inner, outline, tag) if outline is not None else []
        if tag == "text":
            return self._text(element, style, inner)
        if tag == "image":
            return self._image(element, style, inner)
        self.lose(f"<{tag[:30]}>")
        return []

    def _takes_points(self, element: Element) -> bool:
        """True if the points of a shape are few enough to be read, counted by their characters before anything is parsed."""
        characters = len(element.get("d") or "") + len(element.get("points") or "")
        self._drawn_characters += characters
        if self._drawn_characters > MOST_DRAWN:
            raise MotionError(f"the paths of this drawing have more than {MOST_DRAWN / 1e6:.0f} million characters; simplify them")
        if characters > MOST_PATH:
            self.lose("shapes with very many points")
        return characters <= MOST_PATH

    def _container(self, element: Element, style: dict[str, str], inner: Affine) -> list[_Part]:
        if tag_of(element) == "svg":
            _, _, own = _viewport(element)
            inner = inner.then(Affine(e=number(element.get("x"), 0.0), f=number(element.get("y"), 0.0))).then(own)
        group = self._group(element, style, inner, self._named(element, "Group"))
        return [group] if group is not None else []

    def _used(self, element: Element, style: dict[str, str], inner: Affine) -> list[_Part]:
        """Return the objects of a `use` element."""
        address = reference_of(element)
        target = self.known.get(address.removeprefix("#")) if address.startswith("#") else None
        if target is None or address in self._using or len(self._using) >= DEEPEST_USE:
            self.lose("copies of what is not in the file" if target is None else "copies that stand in themselves, or too deep")
            return []
        self._using.append(address)
        placed = inner.then(Affine(e=number(element.get("x"), 0.0), f=number(element.get("y"), 0.0)))
        try:
            if tag_of(target) == "symbol":
                group = self._group(target, self.sheets.style(target, style), placed, self._named(element, self._named(target, "Symbol")))
                return [group] if group is not None else []
            result = self._of(target, style, placed)
        finally:
            self._using.pop()
        if share(style["opacity"]) < 1 and result:
            for item in result:
                item.data["channels"]["opacity"] = {"base": share(style["opacity"]) * item.data["channels"].get("opacity", {"base": 1})["base"]}
        return result

    def _text(self, element: Element, style: dict[str, str], inner: Affine) -> list[_Part]:
        x, y = number(element.get("x"), 0.0), number(element.get("y"), 0.0)
        pieces = [((element.text or "")[:MAX_TEXT], style, (x, y))]
        if len(element.text or "") > MAX_TEXT or any(len(child.text or "") > MAX_TEXT for child in element):
            self.lose(f"the end of texts of more than {MAX_TEXT} characters")
        for child in element:
            if tag_of(child) == "tspan":
                own = self.sheets.style(child, style)
                x = number(child.get("x"), x) + number(child.get("dx"), 0.0)
                y = number(child.get("y"), y) + number(child.get("dy"), 0.0)
                pieces.append(((child.text or "")[:MAX_TEXT], own, (x, y)))
            elif tag_of(child) not in ("", "title", "desc", *_ANIMATED):
                self.lose("text along paths, and other parts in texts")
        parts: list[_Part] = []
        for text, own, place in pieces:
            words = " ".join(text.split())
            result = text_outline(words, own) if words else None
            if result is None:
                continue
            outline, font = result
            if font is not None:
                self.lose(f"the font {font[:40]}: its texts are set in Figtree")
            parts += self._drawn(element, own, inner.then(Affine(e=place[0], f=place[1])), outline, words[:40])
        return parts

    def _image(self, element: Element, style: dict[str, str], inner: Affine) -> list[_Part]:
        address = reference_of(element)
        if not address.startswith("data:"):
            self.lose("pictures that lie outside the file: bring them in by themselves")
            return []
        try:
            content = base64.b64decode(address.partition(",")[2], validate=False)
            (page, *_) = bring_in(content, "a picture in the drawing").pages
        except (MotionError, binascii.Error, ValueError):
            self.lose("pictures that cannot be read")
            return []
        picture_id = PICTURE_FILES.keep(page.data)
        self.pictures[picture_id] = {"id": picture_id, "name": self._named(element, "Picture"), "width": page.width, "height": page.height}
        width, height = number(element.get("width"), page.width), number(element.get("height"), page.height)
        x, y = number(element.get("x"), 0.0), number(element.get("y"), 0.0)
        fits = "stretch" if (element.get("preserveAspectRatio") or "").startswith("none") else "inside"
        if abs(inner.b) > 1e-6 or abs(inner.c) > 1e-6:
            self.lose("pictures that are turned or slanted stand upright")
        middle = inner.point(x + width / 2, y + height / 2)
        half = np.array([abs(width * inner.a) or width * inner.scale, abs(height * inner.d) or height * inner.scale]) / 2
        data = self._object(self._named(element, "Picture"), style) | {"kind": "picture", "picture": {"pictures": [picture_id], "fit": fits}}
        data["channels"] |= {"width": {"base": float(2 * half[0])}, "height": {"base": float(2 * half[1])}}
        return [_Part(data, np.stack([middle - half, middle + half]))]

    def _drawn(self, element: Element, style: dict[str, str], matrix: Affine, outline: Outline, called: str) -> list[_Part]:
        points = matrix.points(outline.points)
        if not np.isfinite(points).all() or np.abs(points).max() > 1e6:
            self.lose("shapes that lie beyond a million px")
            return []
        shown = Outline(outline.verbs, points)
        left, top, right, bottom = shown.extent()
        middle = np.array([(left + right) / 2, (top + bottom) / 2])
        text = path_data(Outline(outline.verbs, points - middle), decimals=4)
        if len(text) > MAX_PATH_DATA:
            text = path_data(Outline(outline.verbs, points - middle), decimals=1)
            if len(text) > MAX_PATH_DATA:
                self.lose("shapes with very many points")
                return []
        shape = {"type": "outline", "d": text, "fill_rule": "evenodd" if style["fill-rule"] == "evenodd" else "nonzero"}
        data = self._object(self._named(element, called.capitalize()), style) | {"kind": "shape", "shape": shape, "paints": {}}
        own = outline.extent()
        self._painted(data, "fill", style, matrix, own, middle)
        width = number(style["stroke-width"], 1.0) * matrix.scale
        if style["stroke"] != "none" and width > 0:
            self._painted(data, "stroke", style, matrix, own, middle)
            data["channels"]["stroke.width"] = {"base": width}
            data["line"] = self._line(style, matrix)
            offset = number(style["stroke-dashoffset"], 0.0) * matrix.scale
            if data["line"].get("dash") and offset:
                data["channels"]["dash.offset"] = {"base": offset}
        else:
            data["channels"] |= {"stroke.width": {"base": 0.0}, "stroke": {"base": _CLEAR}}
        if any(style[item] != "none" for item in ("marker-start", "marker-mid", "marker-end")):
            self.lose("markers on lines")
        return [_Part(data, np.array([[left, top], [right, bottom]]))]

    def _line(self, style: dict[str, str], matrix: Affine) -> dict[str, Any]:
        caps, joins = ("round", "butt", "square"), ("round", "miter", "bevel")
        line: dict[str, Any] = {
            "cap": style["stroke-linecap"] if style["stroke-linecap"] in caps else "butt",
            "join": style["stroke-linejoin"] if style["stroke-linejoin"] in joins else "miter",
        }
        dash = [
            number(item, 0.0) * matrix.scale for item in re.split(r"[\s,]+", style["stroke-dasharray"][:1_000].strip()) if item and item != "none"
        ]
        if dash and sum(dash) >= 0.1 and min(dash) >= 0:
            if len(dash) > 8:
                self.lose("dashes of more than eight lengths keep the first eight")
            line["dash"] = dash[:8]
        return line

    def _painted(self, data: dict[str, Any], of: Literal["fill", "stroke"], style: dict[str, str], matrix: Affine, own: Any, middle: Array) -> None:
        """What colours a fill or a stroke."""
        written, opacity = style[of], share(style[f"{of}-opacity"])
        reference = _REFERENCE.match(written)
        if reference is not None:
            target = self.known.get(reference[1])
            if target is not None and tag_of(target) in ("linearGradient", "radialGradient"):
                result = blend_of(target, self.known, self.sheets, self._stops, matrix, own, opacity, self.lose)
                if isinstance(result, Blend):
                    data["paints"][of] = result.paint()
                    data["channels"] |= result.channels(of, float(middle[0]), float(middle[1]))
                    return
                written, opacity = (result, 1.0) if result is not None else ("none", 1.0)
            else:
                self.lose("patterns and other fills by reference")
                written = reference[2] or "#888888"
        if written == "none":
            data["channels"][of] = {"base": _CLEAR}
            return
        cached = colour(written, style["color"], opacity)
        if cached is None:
            self.lose("colours that are not known: they are grey")
        data["channels"][of] = {"base": cached or "#888888"}

    def _object(self, name: str, style: dict[str, str]) -> dict[str, Any]:
        self._made += 1
        if self._made > MOST_OBJECTS:
            raise MotionError(f"this drawing has more than {MOST_OBJECTS} parts; join some of them before it is brought in")
        own = name
        number_ = 2
        while own in self._names:
            own = f"{name[:70]} {number_}"
            number_ += 1
        self._names.add(own)
        channels: dict[str, Any] = {}
        if share(style["opacity"]) < 1:
            channels["opacity"] = {"base": share(style["opacity"])}
        data: dict[str, Any] = {"id": f"part-{self._made}", "name": own, "channels": channels}
        blend = style["mix-blend-mode"]
        if blend != "normal" and blend in get_args(BlendMode):
            data["blend"] = blend
        return data

    def _named(self, element: Element, usual: str) -> str:
        """Return an element's name: its title, label or id, or its kind."""
        title = next((child.text for child in element if tag_of(child) == "title" and child.text), None)
        return _plain(title or element.get("aria-label") or (element.get("id") or "").replace("_", " ").replace("-", " ")) or _plain(usual) or "Part"


def _placed(part: _Part, parent: str | None, origin: tuple[float, float], result: list[dict[str, Any]]) -> None:
    """Add a part, and those in it, with places in the space of each's parent."""
    x, y = (float(item) for item in part.box.mean(axis=0))
    part.data["parent"] = parent
    part.data["channels"] |= {"x": {"base": x - origin[0]}, "y": {"base": y - origin[1]}}
    result.append(part.data)
    for child in part.children:
        _placed(child, part.data["id"], (x, y), result)


def _plain(name: str) -> str:
    """A name that objects may have."""
    return " ".join("".join(item for item in name if item.isprintable() and item not in "{}@").split())[:70]
