"""Input of the painters for each baked object: per-frame arrays and outlines.

The paint list consists of them (listing.py).
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.baked import Baked, BakedInset, BakedParade, Element
from vine_swing.motion.baking.effort import Effort
from vine_swing.motion.baking.outlines import drawn_series
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.basics.specs import limited
from vine_swing.motion.outline.drawing import drawing_of
from vine_swing.motion.scene.shapes import OutlineShape, Shape
from vine_swing.picture.tracks import OutlineTrack

Array = NDArray[np.float64]
Index = NDArray[np.intp]


@dataclass(frozen=True, eq=False)
class Drawable:
    """One painted thing. Arrays have a row per frame or a single one; colours are sRGB with alpha, 0…1."""

    id: str
    baked: BakedObject
    outline: OutlineTrack
    fill: Array
    stroke: Array
    stroke_width: Array
    fill_rule: Literal["nonzero", "evenodd"] = "nonzero"
    dash_offset: Array | None = None


def drawables(baked: Baked, previous: Mapping[str, Drawable] | None = None, effort: Effort | None = None) -> dict[str, Drawable]:
    """The drawables of a scene in drawing order, taken from `previous` where the object is the same. Groups have none."""
    return drawn(baked.objects, previous or {}, effort)


def drawn(
    objects: Mapping[str, BakedObject], old: Mapping[str, Drawable], effort: Effort | None = None, rows: Index | None = None
) -> dict[str, Drawable]:
    """Return the drawables of some baked objects.

    Args:
        objects: the baked objects.
        old: drawables to copy where the object is the same.
        effort: counts the outlines that are drawn.
        rows: for objects of one copy of a parade, the rows (n,) it reads of the arrays that all copies share: those of `old`. An outline made from
            some of these and some of the copy's own must be read at the copy's rows.
    """
    effort = effort or Effort()
    result: dict[str, Drawable] = {}
    for object_id, one in objects.items():
        was = old.get(object_id)
        if was is not None and was.baked is one:
            result[object_id] = was
        elif (shape := one.source.drawn_shape) is not None:
            ch = one.channels
            rule = shape.fill_rule if isinstance(shape, OutlineShape) else "nonzero"
            line = ch["stroke"], ch["stroke.width"]
            with effort.part(1 / len(objects)):
                track = _track(one, shape, was, effort, rows)
            result[object_id] = Drawable(object_id, one, track, ch["fill"], *line, rule, ch["dash.offset"])
    return result


@dataclass(frozen=True, eq=False)
class DrawnScene:
    """All that is drawn of a baked scene."""

    baked: Baked
    things: dict[str, Drawable]
    parades: dict[str, "DrawnParade"]
    insets: dict[str, "DrawnInset"]


@dataclass(frozen=True, eq=False)
class DrawnInset:
    """What is drawn of an inset; insets that share a bake of the scene inside share this of it too."""

    baked: BakedInset
    inner: DrawnScene


@dataclass(frozen=True, eq=False)
class DrawnElement:
    """Children of a parade, or what differs of it in one copy: drawables, and those of the parades and insets among it."""

    element: Element
    drawn: dict[str, Drawable]
    parades: dict[str, "DrawnParade"]
    insets: dict[str, DrawnInset] = field(default_factory=dict)


@dataclass(frozen=True, eq=False)
class DrawnParade:
    """The drawables of a parade: of what all copies share, and of each copy what differs."""

    baked: BakedParade
    element: DrawnElement
    own: tuple[DrawnElement, ...]


def drawn_scene(baked: Baked, previous: DrawnScene | None = None, effort: Effort | None = None) -> DrawnScene:
    """All that is drawn of a baked scene, taken from `previous` where what it is drawn from is the same. effort: counts the outlines of its objects.

    Raises:
        TooMuchWork: if its outlines would have more points than could be kept, or `effort` ends.
    """
    if previous is None:
        return DrawnScene(baked, drawables(baked, effort=effort), drawn_parades(baked.parades), drawn_insets(baked.insets))
    if previous.baked is baked:
        return previous
    parades = drawn_parades(baked.parades, previous.parades)
    return DrawnScene(baked, drawables(baked, previous.things, effort), parades, drawn_insets(baked.insets, previous.insets))


def drawn_insets(insets: Mapping[str, BakedInset], previous: Mapping[str, DrawnInset] | None = None) -> dict[str, DrawnInset]:
    """What is drawn of insets, taken from `previous` where what it is drawn from is the same."""
    old, inside, found = previous or {}, dict[int, DrawnScene](), dict[str, DrawnInset]()
    for object_id, one in insets.items():
        was = old.get(object_id)
        if id(one.inner) not in inside:
            inside[id(one.inner)] = drawn_scene(one.inner, was.inner if was is not None else None)
        found[object_id] = was if was is not None and was.baked is one else DrawnInset(one, inside[id(one.inner)])
    return found


def drawn_parades(parades: Mapping[str, BakedParade], previous: Mapping[str, DrawnParade] | None = None) -> dict[str, DrawnParade]:
    """The drawables of parades, taken from `previous` where what they are drawn from is the same."""
    old = previous or {}
    return {object_id: _drawn_parade(one, old.get(object_id)) for object_id, one in parades.items()}


def _drawn_parade(parade: BakedParade, was: DrawnParade | None) -> DrawnParade:
    if was is not None and was.baked is parade:
        return was
    element = _drawn_element(parade.element, was.element if was is not None else None, None)
    before = was.own if was is not None and len(was.own) == len(parade.own) else (None,) * len(parade.own)
    rows = [parade.layout.rows(k, len(parade.grid)) for k in range(len(parade.own))]
    own = (_drawn_element(one, old, element, read) for one, old, read in zip(parade.own, before, rows, strict=True))
    return DrawnParade(parade, element, tuple(own))


def _drawn_element(element: Element, was: DrawnElement | None, shared: DrawnElement | None, rows: Index | None = None) -> DrawnElement:
    """Return the drawables of an element; of one copy, outlines that it shares are those of `shared`, which it reads at `rows`."""
    if was is not None and was.element is element:
        return was
    old = {**(shared.drawn if shared is not None else {}), **(was.drawn if was is not None and shared is None else {})}
    parades = drawn_parades(element.parades, was.parades if was is not None else None)
    return DrawnElement(
        element, drawn(element.objects, old, rows=rows), parades, drawn_insets(element.insets, was.insets if was is not None else None)
    )


def _track(one: BakedObject, shape: Shape, was: Drawable | None, effort: Effort, rows: Index | None) -> OutlineTrack:
    if one.bent is not None:
        return was.outline if was is not None and was.baked.bent is one.bent else OutlineTrack(one.bent, one.source.id, drawing_of(shape).boxed)
    drawing = drawing_of(shape)
    same_shape = was is not None and was.baked.source.drawn_shape == shape and was.baked.bent is None
    if was is not None and same_shape and all(one.channels[name] is was.baked.channels[name] for name in drawing.names):
        return was.outline
    values = [limited(one.source.specs[name], _read(one, was, name, rows)) for name in drawing.names]
    return OutlineTrack(drawn_series(drawing, values, one.source.name, effort), one.source.id, drawing.boxed)


def _read(one: BakedObject, shared: Drawable | None, name: str, rows: Index | None) -> Array:
    """Return a channel of an object; of one in a copy that shares the channel with all copies, the rows that the copy reads."""
    values = one.channels[name]
    is_shared = rows is not None and shared is not None and values is shared.baked.channels[name]
    return values[rows] if is_shared and rows is not None and len(values) > 1 else values
