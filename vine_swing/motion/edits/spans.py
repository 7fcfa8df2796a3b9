"""Edits of when objects are shown, and of their children with that."""

from math import ceil, floor
from typing import Literal

from pydantic import ValidationError

from vine_swing.motion.baking.keyed import run_of
from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.basics.specs import INNER
from vine_swing.motion.basics.values import MAX_LENGTH, Id
from vine_swing.motion.edits.base import Edit, object_in, with_object
from vine_swing.motion.edits.scene import SetLength
from vine_swing.motion.edits.time_map import TimeMap
from vine_swing.motion.scene.hanging import with_parts
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import WHOLE, InsetObject, SceneObject, Span, WholeFrame


class SetSpan(Edit):
    """Choose the first and last frame an object is shown at; null is the scene's own. With `stretch`, its keys are
    stretched along with its span."""

    edit: Literal["set-span"]
    id: Id
    first: WholeFrame | None = None
    last: WholeFrame | None = None
    stretch: bool = False

    def apply(self, scene: Scene) -> Scene:
        thing = object_in(scene, self.id)
        try:
            changed = thing.copy_with(span=Span(first=self.first, last=self.last))
        except ValidationError as error:
            raise EditError(f"the last frame of '{thing.name}' would lie before its first; give them the other way round") from error
        if self.stretch:
            changed = _stretch(thing, thing.span, changed.span, scene.length).keys_of(changed)
        return with_object(scene, changed)

    def label(self, scene: Scene) -> str:
        return f"span of {object_in(scene, self.id).name}"


class FitParts(Edit):
    """Let all descendants of an object follow a change of its span, from `first`…`last` (null: the scene's own) to the one it has
    now. `extend`: what began or ended with it does so again, whatever was shown for a part of that time is left alone.
    `stretch`: the keys and spans of all lie at the same share of the new span as of the old one."""

    edit: Literal["fit-parts"]
    id: Id
    first: WholeFrame | None = None
    last: WholeFrame | None = None
    how: Literal["extend", "stretch"]

    def apply(self, scene: Scene) -> Scene:
        thing = object_in(scene, self.id)
        try:
            was = Span(first=self.first, last=self.last)
        except ValidationError as error:
            raise EditError(f"the last frame '{thing.name}' had lies before its first; give them the other way round") from error
        parts = with_parts((self.id,), scene.children)[1:]
        if isinstance(thing, InsetObject):
            scene = fit_inset(scene, thing, "stretch" if self.how == "stretch" else "inside")
        elif not parts:
            raise EditError(f"nothing is attached to '{thing.name}'; only attached objects can follow a span")
        if self.how == "stretch":
            stretch = _stretch(thing, was, thing.span, scene.length)
            changed = {one: stretch.whole(object_in(scene, one)) for one in parts}
        else:
            changed = {one: _extended(object_in(scene, one), was, thing.span, scene.length) for one in parts}
        return scene.copy_with(objects=tuple(changed.get(one.id, one) for one in scene.objects))

    def label(self, scene: Scene) -> str:
        return f"{'stretch' if self.how == 'stretch' else 'extend'} what hangs on {object_in(scene, self.id).name}"


class FitInset(Edit):
    """Let an inset and the scene inside it last equally long, where nothing keys its inner frame: by the span of the inset (`span`), or by the
    length of the inside, with what ends it ending it again (`inside`) or with all its keys stretched (`stretch`). All insets that show the inside
    see its new length."""

    edit: Literal["fit-inset"]
    id: Id
    how: Literal["span", "inside", "stretch"]

    def apply(self, scene: Scene) -> Scene:
        thing = object_in(scene, self.id)
        if not isinstance(thing, InsetObject):
            raise EditError(f"'{thing.name}' is no inset; only an inset lasts as long as its inside")
        return fit_inset(scene, thing, self.how)

    def label(self, scene: Scene) -> str:
        return f"{'span' if self.how == 'span' else 'inside'} of {object_in(scene, self.id).name}"


def fit_inset(scene: Scene, thing: InsetObject, how: Literal["span", "inside", "stretch"]) -> Scene:
    """The scene with an inset and its inside equally long; see FitInset.

    Raises:
        EditError: if keys or rules say which frames are shown, or nothing would be left.
    """
    if thing.is_keyed(INNER) or thing.rules_on(INNER):
        raise EditError(f"keys or rules say which frames inside '{thing.name}' are shown; take them off there first")
    inner = scene.insets_by_id[thing.inset.scene]
    start, first, pace = run_of(thing, scene)
    if how == "span":
        last = floor(first + (inner.length - 1 - start) / pace + 1e-9)
        if last < first:
            raise EditError(f"'{thing.name}' begins after its inner scene has ended; start it earlier inside")
        return with_object(scene, thing.copy_with(span=Span(first=thing.span.first, last=last)))
    last = thing.span.within(scene.length)[1]
    length = ceil(start + (last - first) * pace - 1e-9) + 1
    if not 1 <= length <= MAX_LENGTH:
        raise EditError(f"the inside of '{thing.name}' would have {length} frames; 1 to {MAX_LENGTH} can be")
    inside = scene.inner_as_scene(inner.id)
    changed = SetLength(edit="set-length", length=length, stretch=how == "stretch").apply(inside)
    if how == "inside":
        was, now = Span(first=0, last=inner.length - 1), Span(first=0, last=length - 1)
        changed = changed.copy_with(objects=tuple(_extended(one, was, now, length) for one in changed.objects))
    return scene.with_inner(inner.id, changed)


def _stretch(thing: SceneObject, was: Span, now: Span, length: int) -> TimeMap:
    """Return the map from the frames of an object's old span to its new span.

    Raises:
        EditError: if one of the spans is a single frame, which cannot be stretched.
    """
    (about, last), (to, end) = was.within(length), now.within(length)
    if last <= about or end <= to:
        raise EditError(f"'{thing.name}' is shown for a single frame; keys cannot be stretched with that")
    return TimeMap((end - to) / (last - about), about, to)


def _extended(part: SceneObject, was: Span, now: Span, length: int) -> SceneObject:
    """A part whose ends go on lying on those of its parent; ends that are the scene's own, or lay elsewhere, stay."""
    if part.span == WHOLE:
        return part
    (was_first, was_last), (first, last) = was.within(length), part.span.within(length)
    begins, ends = part.span.first, part.span.last
    if begins is not None and first <= was_first:
        begins = now.first
    if ends is not None and last >= was_last:
        ends = now.last
    after = Span.model_construct(first=begins, last=ends).within(length)
    # A part that began long before its parent got shorter may have nothing left to be shown in.
    return part if after[1] < after[0] else part.copy_with(span=Span(first=begins, last=ends))
