"""What a shape is drawn from, and how: the one place that tells shapes apart by what gives them their outline."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from functools import lru_cache, partial

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.basics.errors import MotionError
from vine_swing.motion.basics.specs import WORDS
from vine_swing.motion.curves.outline import NOTHING, Outline
from vine_swing.motion.curves.svg_path import parse_path
from vine_swing.motion.outline.shapes import DRAWN, FINE
from vine_swing.motion.outline.text import FAMILIES, Setting, Typeset, typeset
from vine_swing.motion.outline.text.face import Face
from vine_swing.motion.outline.text.numbers import check_numbers, counts, with_number
from vine_swing.motion.parade.model import TextPartName
from vine_swing.motion.scene.kept import OwnFont
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import SceneObject
from vine_swing.motion.scene.shapes import OutlineShape, SaidText, Shape, TextShape

#: Sizes of text, in px, and widths are told apart in steps of this many; what keyed values give is seldom twice the same.
_FINEST = 1e-6


class TextPart(SaidText):
    """One letter, word or line of a text, drawn about its own middle on its baseline; made for the copies of a parade, and never kept."""

    by: TextPartName
    which: int


@dataclass(frozen=True)
class Drawing:
    """How a shape is drawn.

    names: the channels it is drawn from.
    draw: its outline, from their values by name; equal values may give the very same outline.
    boxed: whether it is taken hold of anywhere within its bounds.
    """

    names: tuple[str, ...]
    draw: Callable[[Mapping[str, float]], Outline]
    boxed: bool = False


def drawing_of(shape: Shape, *, fine: bool = False) -> Drawing:
    """How a shape is drawn; `fine` where rules follow its outline, with round shapes within a millionth of their size."""
    if isinstance(shape, OutlineShape):
        return Drawing((), lambda _: parse_path(shape.d))
    if isinstance(shape, TextShape):
        draw: Callable[[Mapping[str, float]], Outline] = (
            partial(_part_outline, shape) if isinstance(shape, TextPart) else partial(_text_outline, shape)
        )
        names = ["text.size", "tracking", "leading"]
        names += ["number"] if any(map(counts, shape.texts)) else []
        names += [WORDS] if len(shape.texts) > 1 else []
        return Drawing(tuple(names), draw, boxed=True)
    draw, words = (FINE if fine and shape.type in FINE else DRAWN)[shape.type]
    return Drawing(tuple(words), lambda values: draw(**{word: values[name] for name, word in words.items()}))


def typeset_text(shape: TextShape, values: Mapping[str, float]) -> Typeset:
    """A text as it is set with certain values of its channels; `number` may be left out where none is in it, `text` where it says one object."""
    size = max(values["text.size"], _FINEST)
    wrap = None if shape.wrap is None else round(shape.wrap / size, 6)
    setting = Setting(shape.font, shape.weight, shape.align, wrap, round(values["tracking"], 6), round(values["leading"], 6))
    return typeset(with_number(shape.saying(values.get(WORDS, 0.0)), values.get("number", 0.0)), setting)


def missing_in(shape: Shape) -> list[str]:
    """The characters of a text that no font has; none where nothing is written."""
    if not isinstance(shape, TextShape):
        return []
    plain = {"text.size": 1.0, "tracking": 0.0, "leading": 1.0}
    return list(dict.fromkeys(one for which in range(len(shape.texts)) for one in typeset_text(shape, plain | {WORDS: which}).missing))


def check_drawn(scene: Scene, *, since: Scene | None = None) -> None:
    """Refuse a scene with a shape that cannot be drawn: path data that is none, a font there is not, a format that cannot be followed.

    Objects it shares with `since` have been checked before.

    Raises:
        MotionError: naming the object.
    """
    for font in scene.fonts:
        if since is None or font not in since.fonts:
            check_font(font)
    own = {font.id: font.name for font in scene.fonts}
    for thing in _new_objects(scene, since):
        if thing.drawn_shape is not None:
            try:
                _check(thing.drawn_shape, own)
            except ValueError as error:
                raise MotionError(f"'{thing.name}': {error}") from error


def _new_objects(scene: Scene, since: Scene | None) -> Iterator[SceneObject]:
    """The objects of a scene, and of those inside it, that another version of it does not share."""
    known = since.by_id if since is not None else {}
    yield from (thing for thing in scene.objects if known.get(thing.id) is not thing)
    before = since.insets_by_id if since is not None else {}
    for inner in scene.insets:
        was = before.get(inner.id)
        if was is not inner:
            old = {thing.id: thing for thing in was.objects} if was is not None else {}
            yield from (thing for thing in inner.objects if old.get(thing.id) is not thing)


def check_font(font: OwnFont) -> None:
    """Refuse a file that is no font, or one with no characters.

    Raises:
        MotionError: saying what would work.
    """
    Face.checked(font.name, font.content)


def _check(shape: Shape, own: Mapping[str, str]) -> None:
    if isinstance(shape, OutlineShape):
        parse_path(shape.d)
    elif isinstance(shape, TextShape):
        for said in shape.texts:
            check_numbers(said)
        if shape.font not in FAMILIES and shape.font not in own:
            raise MotionError(f"there is no font '{shape.font}'; there is {', '.join([*FAMILIES, *own.values()])}")


def _text_outline(shape: TextShape, values: Mapping[str, float]) -> Outline:
    size = values["text.size"]
    return _sized(typeset_text(shape, values), round(size, 6)) if size > 0 else NOTHING


def middles_of_parts(shape: TextShape, by: TextPartName, values: Mapping[str, float]) -> NDArray[np.float64]:
    """Where each letter, word or line of a text has its middle, on its baseline: (n, 2), px."""
    return values["text.size"] * _middles(typeset_text(shape, values), by)


@lru_cache(maxsize=256)
def _middles(text: Typeset, by: TextPartName) -> NDArray[np.float64]:
    """The middles of a text of size 1: (n, 2)."""
    found = []
    for which in range(text.count(by)):
        left, _, right, _ = text.part(by, which, 1.0).extent()
        found.append(((left + right) / 2, float(text.places[np.argmax(getattr(text, by) == which), 1])))
    return np.array(found, float).reshape(-1, 2)


def _part_outline(shape: TextPart, values: Mapping[str, float]) -> Outline:
    size, text = values["text.size"], typeset_text(shape, values)
    if size <= 0 or shape.which >= text.count(shape.by):
        return NOTHING
    outline = text.part(shape.by, shape.which, size)
    return Outline(outline.verbs, outline.points - size * _middles(text, shape.by)[shape.which])


@lru_cache(maxsize=1024)
def _sized(text: Typeset, size: float) -> Outline:
    """A text at a size; one that counts is often the same for many frames."""
    return text.outline(size)
