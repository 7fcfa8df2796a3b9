"""From a bake to its paint list.

Objects are painted in the scene's order, whatever hangs on what. What fades (is ever less than opaque) and is painted by more than one step
becomes a group, so that it fades as one picture: a shape with a fill and a line, and whatever hangs on one. Where something else is painted
between the parts of a group, the parts before and those after it are a group each.
"""

from dataclasses import dataclass, field, replace

from vine_swing.motion.baking.bake import Baked
from vine_swing.motion.baking.placing import BakedObject
from vine_swing.motion.basics import colour
from vine_swing.motion.scene.model import Scene
from vine_swing.picture.drawable import Drawable, drawables
from vine_swing.picture.paint_list import Fill, Group, PaintList, Step, Stroke, Track

#: Groups that fade may stand in one another so many deep.
MOST_NESTED = 12


def paint_list(baked: Baked) -> PaintList:
    """The paint list of a baked scene."""
    drawn = drawables(baked)
    steps = steps_of(baked, drawn, visible_parts(baked, drawn), hidden(baked.scene))
    return PaintList(baked.scene.size, colour.parse_hex(baked.scene.background), steps)


def hidden(scene: Scene) -> list[str]:
    """The ids of objects that are not shown: themselves, or something they hang on."""
    shown: dict[str | None, bool] = {None: True}
    for thing in scene.objects:
        chain = [thing]
        while (parent := chain[-1].parent) not in shown:
            chain.append(scene.by_id[str(parent)])
        for one in reversed(chain):
            shown[one.id] = one.shown and shown[one.parent]
    return [thing.id for thing in scene.objects if not shown[thing.id]]


@dataclass(frozen=True)
class Visible:
    """Of one object, what of it can ever be seen. Two lists of steps have the same structure if all of these, the order, the parents and what
    is hidden are the same."""

    fills: bool
    strokes: bool
    fades: bool

    @classmethod
    def of(cls, one: BakedObject, drawable: Drawable | None) -> "Visible":
        """What can be seen of a baked object; nothing is drawn of one without a drawable."""
        fades = bool((one.fade != 1).any())
        if drawable is None:
            return cls(False, False, fades)
        return cls(bool((drawable.fill[:, 3] > 0).any()), bool((drawable.stroke[:, 3] > 0).any() and (drawable.stroke_width > 0).any()), fades)


def visible_parts(
    baked: Baked, drawn: dict[str, Drawable], before: Baked | None = None, known: dict[str, Visible] | None = None
) -> dict[str, Visible]:
    """What can be seen of each object, in drawing order; of objects that are the same in the bake `before`, as it is `known` of them."""
    old = before.objects if before is not None else {}
    return {
        object_id: known[object_id] if known is not None and old.get(object_id) is one else Visible.of(one, drawn.get(object_id))
        for object_id, one in baked.objects.items()
    }


def steps_of(baked: Baked, drawn: dict[str, Drawable], visible: dict[str, Visible], unseen: list[str]) -> tuple[Step, ...]:
    """The steps of a baked scene, the first at the back; `unseen` are the ids of objects that are not shown."""
    not_shown = set(unseen)
    nested, chains = _Nested(), _Chains(baked, visible)
    for object_id, drawable in drawn.items():
        steps = _painted(drawable, visible[object_id], object_id not in not_shown)
        if steps:
            nested.add(chains.of(object_id), steps)
    return nested.finished()


def _painted(drawable: Drawable, seen: Visible, shown: bool) -> list[Step]:
    matrix = Track(drawable.id, "view", drawable.baked.view)
    steps: list[Step] = []
    if seen.fills:
        steps.append(Fill(drawable.id, matrix, drawable.outline, Track(drawable.id, "fill", drawable.fill), shown=shown))
    if seen.strokes:
        line, width = Track(drawable.id, "stroke", drawable.stroke), Track(drawable.id, "stroke.width", drawable.stroke_width)
        steps.append(Stroke(drawable.id, matrix, drawable.outline, line, width, shown=shown))
    return steps


class _Chains:
    """For each object, what fades of it and of everything it hangs on, the outermost first. Each chain is made from its parent's."""

    def __init__(self, baked: Baked, seen: dict[str, Visible]) -> None:
        self._baked, self._seen = baked, seen
        self._known: dict[str | None, tuple[Track, ...]] = {None: ()}

    def of(self, object_id: str) -> tuple[Track, ...]:
        """The chain of an object."""
        waiting = [object_id]
        while (parent := self._baked.objects[waiting[-1]].source.parent) not in self._known:
            waiting.append(str(parent))
        for one in reversed(waiting):
            baked = self._baked.objects[one]
            own = (Track(one, "fade", baked.fade),) if self._seen[one].fades else ()
            self._known[one] = self._known[baked.source.parent] + own if own else self._known[baked.source.parent]
        return self._known[object_id]


@dataclass
class _Open:
    """A group that is being filled."""

    fade: Track
    steps: list[Step] = field(default_factory=list)


class _Nested:
    """Puts steps into nested groups by the chains of what fades above them; neighbours with the same beginning of a chain share its groups."""

    def __init__(self) -> None:
        self._steps: list[Step] = []
        #: The groups that stand in one another around what is added next, the outermost first.
        self._open: list[_Open] = []

    def add(self, chain: tuple[Track, ...], steps: list[Step]) -> None:
        """Add an object's steps, which fade with each of `chain`, the outermost first."""
        # Deeper down, each step fades by itself: the difference is slight there, and layers upon layers are expensive.
        chain, deeper = chain[:MOST_NESTED], chain[MOST_NESTED:]
        if deeper:
            steps = [replace(step, opacity=(*deeper, *step.opacity)) for step in steps]
        shared = 0
        for group, fade in zip(self._open, chain, strict=False):
            if group.fade.owner != fade.owner:
                break
            shared += 1
        self._close(shared)
        self._open += [_Open(fade) for fade in chain[shared:]]
        self._innermost.extend(steps)

    def finished(self) -> tuple[Step, ...]:
        """All steps."""
        self._close(0)
        return tuple(self._steps)

    @property
    def _innermost(self) -> list[Step]:
        return self._open[-1].steps if self._open else self._steps

    def _close(self, depth: int) -> None:
        while len(self._open) > depth:
            group = self._open.pop()
            self._innermost.append(_faded(group.fade, group.steps))


def _faded(fade: Track, steps: list[Step]) -> Step:
    """Steps that fade together; a single one needs no layer of its own for it."""
    if len(steps) == 1:
        return replace(steps[0], opacity=(fade, *steps[0].opacity))
    return Group(fade.owner, tuple(steps), (fade,))
