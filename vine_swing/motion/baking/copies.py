"""The copies of parades: what hangs on one, worked out at the frames its copies read, and where each copy stands.

All copies share the arrays of what is the same for them; `frames.py` of the parade room lays their frames out so that each reads a run of rows.
What lists or formulas (`n`, `count`, `item`) make different is worked out for each copy, and only that.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from functools import partial

import numpy as np
from numpy.typing import NDArray

from vine_swing.motion.baking.baked import BakedInset, BakedParade, Element
from vine_swing.motion.baking.bent import with_outlines
from vine_swing.motion.baking.bent_copies import bends_copies, with_bent_copies
from vine_swing.motion.baking.copy_inputs import CopyInputs, inputs_of_copies
from vine_swing.motion.baking.effort import Effort, TooMuchWork
from vine_swing.motion.baking.insets import BakeInner, baked_insets, same_scenes
from vine_swing.motion.baking.looks import with_looks
from vine_swing.motion.baking.outlines import is_bent
from vine_swing.motion.baking.pictures import with_pictures
from vine_swing.motion.baking.placing import BakedObject, placed
from vine_swing.motion.baking.plan import Plan
from vine_swing.motion.baking.reading import CopyView, Reader
from vine_swing.motion.baking.surroundings import measured, surroundings_of
from vine_swing.motion.basics import matrix
from vine_swing.motion.basics.limits import FARTHEST, MOST_COPIES
from vine_swing.motion.basics.specs import GEOMETRY, INNER, LOOK, OUTLINE
from vine_swing.motion.formula import Copy
from vine_swing.motion.outline.drawing import TextPart, drawing_of
from vine_swing.motion.parade.arranging import Places, Surroundings, arranged
from vine_swing.motion.parade.channels import NAMES
from vine_swing.motion.parade.frames import Layout, laid_out
from vine_swing.motion.parade.model import MAX_COPIES, Parade
from vine_swing.motion.parade.ranks import ranks
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.objects import GroupObject, SceneObject
from vine_swing.motion.scene.shapes import TextShape
from vine_swing.motion.scene.timeline import InnerScene
from vine_swing.motion.timing.evaluate import evaluate_colours

Array = NDArray[np.float64]
#: Numbers that stand for one copy at one frame when effort is counted: its matrix, its opacity, and what is sent of them.
_A_COPY = 20.0
_ONE = np.ones(1)
_NOWHERE = np.zeros((1, 2))
#: In place of a parade for what hangs on it: its places are those in the parade's own space.
_HERE = BakedObject(
    source=GroupObject(id="here", name="here", kind="group"),
    channels={},
    local=matrix.IDENTITY,
    world=matrix.IDENTITY,
    view=matrix.IDENTITY,
    fade=_ONE,
    opacity=_ONE,
    place=_NOWHERE,
    middle=_NOWHERE,
)


@dataclass
class CopyBaker:
    """Bakes the parades of one scene.

    scene, plan: what is baked.
    main: the objects of the scene's own bake.
    before: the same of an earlier bake; what has not changed is taken from it.
    inner: bakes the scenes inside insets.
    """

    scene: Scene
    plan: Plan
    main: Mapping[str, BakedObject]
    before: Mapping[str, BakedObject]
    effort: Effort
    inner: BakeInner

    def top(self, reader: Reader, grid: Array, known: Mapping[str, BakedParade]) -> dict[str, BakedParade]:
        """The parades that hang in no other, by id; from those `known` where nothing they are made from has changed."""
        found = {}
        for thing in self.scene.objects:
            if thing.copying is not None and not self._within_parade(thing):
                values = {name: self.main[thing.id].channels[name] for name in NAMES}
                found[thing.id] = self.copies_of(thing, values, grid, reader, known.get(thing.id))
        return found

    def copies_of(self, thing: SceneObject, values: Mapping[str, Array], grid: Array, reader: Reader, was: BakedParade | None) -> BakedParade:
        """The copies of one parade at some frames.

        Args:
            thing: the parade.
            values: its channels at these frames.
            grid: the frames, (m,).
            reader: reads the scene there, as one copy of the parade sees it that this one hangs in.
            was: the same parade in an earlier bake.
        """
        parade = thing.copying
        assert parade is not None
        parts, below = self._parts(thing), self._all_below(thing)
        above = [one.id for one in self.scene.upwards(thing.parent)] if bends_copies(self.scene, thing) else []
        made_from = {one: self.main[one] for one in (thing.id, *below, *self._guides(thing), *above)}
        same_frames = was is not None and np.array_equal(was.grid, grid)
        shown = self._shown(below)
        same_shown = was is not None and same_scenes(was.shown_from, shown)
        same_things = was is not None and same_frames and same_shown and reader.is_plain and made_from.keys() == was.made_from.keys()
        if was is not None and same_things and all(was.made_from[one] is now for one, now in made_from.items()):
            return was
        same_parts = was is not None and same_shown and all(_same_made(was.made_from.get(one), self.main[one]) for one in below)
        around = self._around(thing, parts, values, grid, reader, was if same_parts else None)
        counts = np.floor(np.clip(values["count"], 0, MAX_COPIES))
        if around.points is not None:
            counts = np.array([float(min(around.points.shape[-2], MAX_COPIES))])
        most = int(counts.max(initial=0))
        self.effort.spend(most * len(grid) * _A_COPY)
        places = _kept(arranged(parade, values, counts, most, around), was)
        ranked = ranks(parade.order, counts, most, parade.seed)
        lags = values["delay"][None, :] * ranked
        layout = laid_out(grid, lags)
        if not len(layout.frames):
            # Nothing is shown, so nothing is worked out.
            element = Element({}, {})
        elif was is not None and same_parts and np.array_equal(layout.frames, was.layout.frames) and reader.is_plain:
            element = was.element
        else:
            element = self._element(parts, layout.frames, Reader(self.scene, layout.frames, effort=self.effort, view=reader.view), was)
        if most * element.painted > MOST_COPIES:
            copies = most * element.painted
            raise TooMuchWork(
                f"'{thing.name}' would show {copies} copies; at most {MOST_COPIES} are painted, so let it, or what is in it, show fewer"
            )
        own = () if not element.objects else self._own(thing, parts, element, layout, len(grid), most, reader, was if same_parts else None)
        if element.objects and most and bends_copies(self.scene, thing):
            own = with_bent_copies(self.scene, thing, element, own, layout, places, grid, reader)
        return BakedParade(thing, parade, grid, layout, places, _order(parade, places, was), element, own, around, made_from, shown)

    # -- the element

    def _element(self, parts: list[SceneObject], frames: Array, reader: Reader, was: BakedParade | None) -> Element:
        """What all copies share, at some frames."""
        old = was.element.objects if was is not None and np.array_equal(frames, was.layout.frames) else {}
        channels = {thing.id: self._channels(thing, reader, old.get(thing.id)) for thing in parts}
        objects = self._placed(parts, frames, channels, old)
        for object_id in objects.keys() & reader.words.keys():
            shape = _worded(self.scene.by_id[object_id], reader.words[object_id])
            if shape is not None:
                objects[object_id] = replace(objects[object_id], source=objects[object_id].source.copy_with(shape=shape))
        objects = with_looks(self._bent(objects, frames, reader), frames, partial(_setting, self.scene, reader), old)
        known = was.element if was is not None else Element({}, {})
        insets = baked_insets(objects, self.scene, self.inner, known.insets)
        return Element(objects, self._inner(objects, frames, reader, known.parades), insets)

    def _bent(
        self, objects: dict[str, BakedObject], frames: Array, reader: Reader, around: Mapping[str, BakedObject] | None = None
    ) -> dict[str, BakedObject]:
        """Some objects of an element with the outlines that keys and rules make of them within it, and with the sizes of pictures."""
        everything = {**(around or {}), **objects}
        return with_pictures(with_outlines(objects, self.scene, frames, reader.outlines, {}, everything), self.scene, {})

    def _inner(self, objects: Mapping[str, BakedObject], frames: Array, reader: Reader, was: Mapping[str, BakedParade]) -> dict[str, BakedParade]:
        return {
            object_id: self.copies_of(one.source, {name: one.channels[name] for name in NAMES}, frames, reader, was.get(object_id))
            for object_id, one in objects.items()
            if one.source.copying is not None
        }

    def _channels(self, thing: SceneObject, reader: Reader, old: BakedObject | None) -> dict[str, Array]:
        """The channels of an object at the reader's grid. What never changes keeps the array of the scene's own bake; so does, of `old`, what is
        made from the same."""
        now, before = self.main[thing.id].channels, self.before[thing.id].channels if thing.id in self.before else {}
        found = {}
        for name, spec in thing.specs.items():
            if not spec.has_array:
                continue
            if (thing.id, name) in reader.varying:
                # It is another in each copy of the parade that this one hangs in.
                found[name] = _shrunk(_read(reader, thing.id, name))
            elif not _moves(thing, name):
                found[name] = now[name]
            elif old is not None and before.get(name) is now[name]:
                found[name] = old.channels[name]
            else:
                found[name] = _read(reader, thing.id, name)
        return found

    def _placed(
        self, things: Iterable[SceneObject], frames: Array, channels: dict[str, dict[str, Array]], old: Mapping[str, BakedObject]
    ) -> dict[str, BakedObject]:
        some = list(things)
        here = {parent: _HERE for thing in some if (parent := thing.parent) is not None and self.scene.by_id[parent].copying is not None}
        made = placed(some, self.scene, frames, channels, {**old, **here})
        return {thing.id: made[thing.id] for thing in some}

    # -- what differs from copy to copy

    def _own(
        self,
        thing: SceneObject,
        parts: list[SceneObject],
        element: Element,
        layout: Layout,
        length: int,
        count: int,
        reader: Reader,
        was: BakedParade | None,
    ) -> tuple[Element, ...]:
        parade = thing.copying
        assert parade is not None
        inputs = inputs_of_copies(self.scene, self.plan, parade, self._all_below(thing), parts, count)
        shown_by = parade.text_part
        if not inputs.varying and not any(inputs.words) and shown_by is None:
            return ()
        same_rows = was is not None and np.array_equal(was.layout.frames, layout.frames) and np.array_equal(was.layout.offsets, layout.offsets)
        same_own = same_rows and was is not None and was.parade == parade and len(was.own) == count and not bends_copies(self.scene, thing)
        if was is not None and same_own and reader.is_plain and was.element is element:
            return was.own
        text = self._text(parts) if shown_by is not None else None
        found = []
        for k in range(count):
            shapes = {one: _worded(self.scene.by_id[one], words) for one, words in inputs.words[k].items()}
            if text is not None and shown_by is not None:
                said = shapes.get(text.id, text.drawn_shape)
                assert isinstance(said, TextShape)
                fields = {name: getattr(said, name) for name in TextShape.model_fields}
                shapes[text.id] = TextPart.model_construct(**fields, by=shown_by, which=k)
            found.append(
                self._copy(parts, element, layout, length, inputs, k, reader, {one: shape for one, shape in shapes.items() if shape is not None})
            )
        return tuple(found)

    def _copy(
        self,
        parts: list[SceneObject],
        element: Element,
        layout: Layout,
        length: int,
        inputs: CopyInputs,
        k: int,
        reader: Reader,
        shapes: Mapping[str, TextShape],
    ) -> Element:
        """What differs of one copy."""
        rows = layout.rows(k, length)
        frames = layout.frames[rows]
        own: dict[str, dict[str, Array]] = {}
        words = {**reader.words, **inputs.words[k]}
        view = CopyView(reader, Copy(float(k), float(inputs.count), inputs.items[k]), inputs.varying | reader.varying, inputs.changes[k], words)
        mine = Reader(self.scene, frames, effort=self.effort, view=view)
        ids = {thing.id for thing in parts}
        for object_id, name in sorted(inputs.varying):
            if object_id in ids and name in element.objects[object_id].channels:
                change = inputs.changes[k].get((object_id, name))
                shared = element.objects[object_id].channels[name]
                if not inputs.alone:
                    own.setdefault(object_id, {})[name] = _shrunk(_read(mine, object_id, name))
                elif change is not None:
                    own.setdefault(object_id, {})[name] = _shrunk(change(_rows(shared, rows)[None])[0])
        moved = {one for one, names in own.items() if any(_places_it(self.scene.by_id[one], name) for name in names)}
        affected = [thing for thing in parts if self._below_any(thing, moved)]
        objects: dict[str, BakedObject] = {}
        if affected:
            gathered = {one: _gathered(element.objects[one], rows) for one in self._carriers(affected)}
            channels = {
                thing.id: {name: _rows(array, rows) for name, array in element.objects[thing.id].channels.items()} | own.get(thing.id, {})
                for thing in affected
            }
            objects = self._placed(affected, frames, channels, gathered)
            # What is not the copy's own is read where all copies read it.
            objects = {one: replace(made, channels=element.objects[one].channels | own.get(one, {})) for one, made in objects.items()}
        for one in ((own.keys() | shapes.keys()) & element.objects.keys()) - objects.keys():
            objects[one] = replace(element.objects[one], channels=element.objects[one].channels | own.get(one, {}))
        for one, shape in shapes.items():
            if one in objects:
                objects[one] = replace(objects[one], source=objects[one].source.copy_with(shape=shape))
        redrawn = {thing.id for thing in parts if self._redraws(thing, own.get(thing.id, {}), inputs, thing.id in shapes)}
        for one in redrawn - objects.keys():
            objects[one] = element.objects[one]
        plain = {one: replace(objects[one], bent=None, bent_from=None, shown_size=None) for one in redrawn}
        objects |= self._bent(plain, frames, mine, element.objects | objects)
        objects |= self._own_looks(element, objects, frames, rows, inputs, mine)
        insets = self._own_insets(element, own, rows)
        return Element(objects, self._own_parades(parts, element, own, frames, rows, inputs, mine), insets)

    def _own_looks(
        self, element: Element, objects: Mapping[str, BakedObject], frames: Array, rows: NDArray[np.intp], inputs: CopyInputs, mine: Reader
    ) -> dict[str, BakedObject]:
        """The objects whose looks differ in a copy: by their settings, or because they move otherwise in it."""
        looks = {one: looked.look for one, looked in element.objects.items() if looked.look}
        asked = {one for one in looks if any((one, name) in inputs.varying for name in (LOOK, *self.scene.by_id[one].moving_settings))}
        own = {one: objects[one] for one in looks.keys() & objects.keys() if objects[one].place is not element.objects[one].place}
        for one in asked - own.keys():
            now = objects.get(one, element.objects[one])
            own[one] = replace(now, place=_rows(now.place, rows))
        return with_looks(own, frames, partial(_setting, self.scene, mine), element.objects)

    def _redraws(self, thing: SceneObject, own: Mapping[str, Array], inputs: CopyInputs, reworded: bool) -> bool:
        """Whether an object is drawn otherwise in a copy, in which some of its channels are its own: bent by keys or rules, or another page."""
        if thing.pictured is not None:
            return any(name in own for name in ("width", "height", "page"))
        if not is_bent(self.scene, thing) or thing.drawn_shape is None:
            return False
        asked = any((one.id, OUTLINE) in inputs.varying for one in self.scene.upwards(thing.id))
        return asked or reworded or any(name in own for name in drawing_of(thing.drawn_shape).names)

    def _own_insets(self, element: Element, own: Mapping[str, Mapping[str, Array]], rows: NDArray[np.intp]) -> dict[str, BakedInset]:
        """Of the insets that hang in a parade, those that show other frames in a copy."""
        shown = {}
        for object_id, names in own.items():
            if INNER in names and element.objects[object_id].source.inset_of is not None:
                shared = element.objects[object_id]
                inner = np.broadcast_to(names[INNER], rows.shape) if len(names[INNER]) == 1 else names[INNER]
                shown[object_id] = replace(shared, channels=shared.channels | {INNER: inner})
        return baked_insets(shown, self.scene, self.inner, {})

    def _own_parades(
        self,
        parts: list[SceneObject],
        element: Element,
        own: Mapping[str, Mapping[str, Array]],
        frames: Array,
        rows: NDArray[np.intp],
        inputs: CopyInputs,
        mine: Reader,
    ) -> dict[str, BakedParade]:
        """Of the parades that hang in this one, those in which a copy differs."""
        found = {}
        for thing in parts:
            if thing.copying is None:
                continue
            below = {thing.id, *self._all_below(thing)}
            if any(one in below for words in inputs.words for one in words) or any(one in below for one, _ in inputs.varying):
                values = {name: own.get(thing.id, {}).get(name, _rows(element.objects[thing.id].channels[name], rows)) for name in NAMES}
                found[thing.id] = self.copies_of(thing, values, frames, mine, None)
        return found

    # -- the tree of the scene

    def _parts(self, thing: SceneObject) -> list[SceneObject]:
        """What hangs on a parade, however deep, without what hangs in a parade among it; in drawing order."""
        found: set[str] = set()
        waiting = [thing.id]
        while waiting:
            for one in self.scene.children.get(waiting.pop(), ()):
                found.add(one)
                if self.scene.by_id[one].copying is None:
                    waiting.append(one)
        return [one for one in self.scene.objects if one.id in found] if found else []

    def _all_below(self, thing: SceneObject) -> list[str]:
        below = self.plan.below({thing.id})
        return sorted(below - {thing.id})

    def _shown(self, below: list[str]) -> tuple[InnerScene, ...]:
        """The inner scenes that some objects show, however deep, each once."""
        return self.scene.reached(use.scene for one in below if (use := self.scene.by_id[one].inset_of) is not None)

    def _guides(self, thing: SceneObject) -> list[str]:
        """What a parade stands along, and all that carries it and the parade: where it is goes by where they are."""
        parade = thing.copying
        if parade is None or parade.guide is None or parade.guide not in self.scene.by_id:
            return []
        return [one.id for start in (parade.guide, thing.id) for one in self.scene.upwards(start)]

    def _within_parade(self, thing: SceneObject) -> bool:
        return any(one.copying is not None for one in self.scene.upwards(thing.parent))

    def _below_any(self, thing: SceneObject, ids: set[str]) -> bool:
        return any(one.id in ids for one in self.scene.upwards(thing.id))

    def _carriers(self, affected: list[SceneObject]) -> list[str]:
        """What carries some objects and is not among them nor a parade."""
        ids = {thing.id for thing in affected}
        parents = dict.fromkeys(thing.parent for thing in affected if thing.parent is not None and thing.parent not in ids)
        return [one for one in parents if self.scene.by_id[one].copying is None]

    def _text(self, parts: list[SceneObject]) -> SceneObject | None:
        return next((thing for thing in parts if isinstance(thing.drawn_shape, TextShape)), None)

    def _around(
        self, thing: SceneObject, parts: list[SceneObject], values: Mapping[str, Array], grid: Array, reader: Reader, was: BakedParade | None
    ) -> Surroundings:
        parade = thing.copying
        assert parade is not None
        width = height = 0.0
        if parade.is_measured:
            if was is not None and was.parade.is_measured and was.parade.measured_at == parade.measured_at:
                width, height = was.around.width, was.around.height
            else:
                frames = np.array([parade.measured_at])
                left, top, right, bottom = measured(
                    self._element(parts, frames, Reader(self.scene, frames, effort=self.effort, view=reader.view), None)
                )
                width, height = right - left, bottom - top
        return surroundings_of(self.scene, thing, self._text(parts), width, height, grid, reader)


def _same_made(was: BakedObject | None, now: BakedObject) -> bool:
    """Whether an object is made as before, wherever what it hangs on may be now."""
    if was is None or was.source is not now.source:
        return False
    return was.channels is now.channels or all(was.channels.get(name) is array for name, array in now.channels.items())


def _moves(thing: SceneObject, name: str) -> bool:
    """Whether a channel changes over time."""
    return thing.is_keyed(name) or thing.is_running(name) or bool(thing.rules_on(name)) or (name in ("x", "y") and thing.is_keyed("path"))


def _places_it(thing: SceneObject, name: str) -> bool:
    """Whether a channel says where an object is or how much of it can be seen, or bends its joints."""
    return name in GEOMETRY or name == "opacity" or (thing.skeleton is not None and "." in name)


def _worded(thing: SceneObject, words: str) -> TextShape | None:
    shape = thing.drawn_shape
    return shape.copy_with(text=words) if isinstance(shape, TextShape) else None


def _setting(scene: Scene, reader: Reader, object_id: str, name: str) -> Array:
    """A setting of a rule that changes, at the reader's grid: (n,), or (n, 4) for colours."""
    setting = scene.by_id[object_id].moving_settings[name]
    return _shrunk(evaluate_colours([setting], reader.grid[0])[0] if setting.keys_colours else _read(reader, object_id, name))


def _read(reader: Reader, object_id: str, name: str) -> Array:
    """A channel at the reader's grid: (n,), or (n, 4) for colours; cut off where it reaches too far."""
    source = reader.filler.run(lambda: reader.final(object_id, name))
    row: Array = reader.filler.run(lambda: source.at(reader.grid))[0]
    if np.isfinite(row).all() and (not row.size or np.abs(row).max() <= FARTHEST):
        return row
    return np.clip(np.nan_to_num(row, nan=0.0), -FARTHEST, FARTHEST)


def _rows(array: Array, rows: NDArray[np.intp]) -> Array:
    """Some rows of an array; the same array where it has a single one for all frames."""
    return array if len(array) == 1 else array[rows]


def _shrunk(array: Array) -> Array:
    """An array whose rows are all alike, as that one row."""
    return array[:1] if len(array) > 1 and bool((array == array[:1]).all()) else array


def _gathered(one: BakedObject, rows: NDArray[np.intp]) -> BakedObject:
    """What carries something, at the rows of a copy."""
    bones = {name: _rows(bone, rows) for name, bone in one.bones.items()}
    return replace(one, world=_rows(one.world, rows), opacity=_rows(one.opacity, rows), bones=bones)


def _kept(places: Places, was: BakedParade | None) -> Places:
    """The places of an earlier bake where they are equal."""
    old = was.places if was is not None else None
    if old is None or not np.array_equal(old.matrices, places.matrices):
        return places
    return old if np.array_equal(old.opacity, places.opacity) and np.array_equal(old.scale, places.scale) else places


def _order(parade: Parade, places: Places, was: BakedParade | None) -> Array | None:
    """The copies from the back to the front, for each frame."""
    n = len(places.scale)
    if parade.front == "last" or n == 0:
        return None
    if parade.front == "first":
        now = np.arange(n, dtype=float)[::-1][None]
    else:
        now = np.argsort(-np.abs(places.scale), axis=0, kind="stable").T.astype(float)
        now = now[:1] if (now == now[:1]).all() else now
    before = was.order if was is not None else None
    return before if before is not None and np.array_equal(before, now) else now
