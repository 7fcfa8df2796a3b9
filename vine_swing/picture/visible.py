"""Visible parts of each object, which determine the structure of a paint list, and the arrays it is painted from."""

from collections.abc import Hashable
from dataclasses import dataclass
from typing import Any

from numpy.typing import NDArray

from vine_swing.motion.baking.baked import Baked
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.basics.gradients import Painted, stop_names
from vine_swing.picture.drawable import Drawable, DrawnParade, DrawnScene
from vine_swing.picture.look_effects import words_of

Array = NDArray[Any]


@dataclass(frozen=True)
class Visible:
    """Of one object, what of it can ever be seen. Two lists of steps have the same structure if all of these, the order, the parents and what
    is hidden are the same.

    how: what steps say besides their tracks: the fill rule and the line of an outline, the fit, tiling and smoothing of pictures, the blend mode, the
        rules on looks.
    """

    fills: bool
    strokes: bool
    fades: bool
    how: tuple[Hashable, ...] = ()

    @classmethod
    def of(cls, one: BakedObject, drawable: Drawable | None) -> "Visible":
        """What can be seen of a baked object; nothing is drawn of one without a drawable."""
        fades = bool((one.fade != 1).any())
        looks = (one.lens is not None, *(words_of(look) for look in one.look)) if one.look else ()
        if drawable is None:
            book = one.source.pictured
            shown = (book.fit, book.tile, book.smooth) if book is not None else ()
            return cls(False, False, fades, (one.source.blend, looks, *shown))
        paints = one.source.painted_with
        fills, inked = _is_seen(one, "fill", drawable.fill), _is_seen(one, "stroke", drawable.stroke)
        strokes = bool(inked and (drawable.stroke_width > 0).any())
        return cls(fills, strokes, fades, (one.source.blend, looks, drawable.fill_rule, one.source.line_style, paints))


def _is_seen(one: BakedObject, of: Painted, plain: Array) -> bool:
    """Whether the fill or the stroke of an object can ever be seen: its colour, or any of its gradient."""
    gradient = one.source.painted_with.of(of)
    colours = [plain] if gradient is None else [one.channels[stop_names(of, stop)[1]] for stop in range(1, gradient.stops + 1)]
    return any(bool((written[:, 3] > 0).any()) for written in colours)


def visible_parts(drawn: DrawnScene, before: Baked | None = None, known: dict[str, Visible] | None = None) -> dict[str, Visible]:
    """What can be seen of each object, in drawing order; of objects that are the same in the bake `before`, as it is `known` of them."""
    old = before.objects if before is not None else {}
    return {
        object_id: known[object_id] if known is not None and old.get(object_id) is one else Visible.of(one, drawn.things.get(object_id))
        for object_id, one in drawn.baked.objects.items()
    }


def arrays_of(one: BakedObject) -> list[Array]:
    """The arrays of an object that are painted from."""
    sizes = [one.shown_size] if one.shown_size is not None else []
    looks = [one.place, *(array for look in one.look for array in look.arrays.values())] if one.look else []
    paints = one.source.painted_with
    blended = [name for name in one.source.specs if name.startswith(("fill.", "stroke."))] if paints.fill or paints.stroke else []
    painted = ("fill", "stroke", "stroke.width", "dash.offset", "page", *blended)
    return [one.view, one.fade, *sizes, *looks, *(one.channels[name] for name in painted if name in one.channels)]


def visible_copies(drawn: DrawnParade) -> dict[str, Visible]:
    """What can be seen of each object of an element, in any of its copies."""
    found = {object_id: Visible.of(one, drawn.element.drawn.get(object_id)) for object_id, one in drawn.baked.element.objects.items()}
    for own in drawn.own:
        for object_id, one in own.element.objects.items():
            a, b = found[object_id], Visible.of(one, own.drawn.get(object_id))
            found[object_id] = Visible(a.fills or b.fills, a.strokes or b.strokes, a.fades or b.fades, a.how)
    return found
